#include "planning/further_boards.hpp"

#include <iterator>

#include "plates/plates.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::vector<FurtherBoard> of_inlays(const Job& job, const Rack& rack) {
  std::vector<FurtherBoard> all = plug_boards(job);
  for (FurtherBoard& board : insert_boards(job, rack)) all.push_back(std::move(board));
  for (FurtherBoard& board : levelling_boards(job, rack)) all.push_back(std::move(board));
  return all;
}

}  // namespace

std::vector<FurtherBoard> further_boards(const Job& job, const Rack& rack) {
  if (!job.plates.there()) return of_inlays(job, rack);
  std::vector<FurtherBoard> all;
  const PlateGrid grid = plate_grid(job);
  if (grid.sheets > kMostSheets)
    throw bad_input(
        say("The list makes {0} sheets; at most {1} are made at a time. Say which rows are made, such as "
            "1-{2}.",
            grid.sheets, kMostSheets, kMostSheets * grid.per_sheet()));
  for (std::size_t i = 0; i < grid.sheets; ++i) {
    FurtherBoard board;
    board.kind = FurtherBoard::Kind::Sheet;
    board.job = plate_sheet(job, i).job;
    board.folder = "sheet-" + std::to_string(i + 1);
    std::vector<FurtherBoard> its = of_inlays(board.job, rack);
    for (FurtherBoard& one : its) one.folder.insert(0, board.folder + "-");
    all.push_back(std::move(board));
    std::move(its.begin(), its.end(), std::back_inserter(all));
  }
  return all;
}

}  // namespace doyen
