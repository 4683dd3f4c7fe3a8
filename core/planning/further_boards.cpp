#include "planning/further_boards.hpp"

#include <iterator>

#include "nesting/nest.hpp"
#include "panels/panels.hpp"
#include "planning/file_names.hpp"
#include "plates/plates.hpp"
#include "plates/strips.hpp"
#include "problem.hpp"
#include "run/plain_words.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::vector<FurtherBoard> of_inlays(const Job& job, const Rack& rack) {
  std::vector<FurtherBoard> all = plug_boards(job);
  for (FurtherBoard& board : insert_boards(job, rack)) all.push_back(std::move(board));
  for (FurtherBoard& board : levelling_boards(job, rack)) all.push_back(std::move(board));
  return all;
}

// In the order in which they are picked up: that of the list, or of the column that it is laid out by.
std::vector<FurtherBoard> of_strips(const Job& job, const Rack& rack) {
  const std::vector<std::size_t> rows = plate_rows(job.plates);
  if (rows.size() > kMostSheets)
    throw bad_input(
        say("The list makes {0} strips; at most {1} are made at a time. Say which rows are made, such as 1-{1}.",
            rows.size(), kMostSheets));
  std::vector<FurtherBoard> all;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    FurtherBoard board;
    board.kind = FurtherBoard::Kind::Strip;
    board.job = strip_of(job, rows[i]);
    const std::vector<std::string> words = words_of_row(job, rows[i]);
    const std::string number = std::to_string(i + 1), first = words.empty() ? std::string() : words.front();
    board.job.name = say("{0}, strip {1}, {2}", job.name, number, first);
    board.title = say("Strip {0}: {1}", number, first);
    const std::string called = job_in_file(first);
    board.folder = word_in_file(say("files: strip")) + "-" + (i < 9 && rows.size() > 9 ? "0" + number : number) +
                   (called.empty() ? "" : "-" + called);
    std::vector<FurtherBoard> its = of_inlays(board.job, rack);
    for (FurtherBoard& one : its) one.folder.insert(0, board.folder + "-");
    all.push_back(std::move(board));
    std::move(its.begin(), its.end(), std::back_inserter(all));
  }
  return all;
}

// What its edges are lettered with, and where it hangs.
std::string title_of(const Panel& panel, const std::vector<MatingEdge>& edges) {
  std::string words;
  const auto add = [&](const std::string& side, const MatingEdge& edge) {
    words += (words.empty() ? "" : ", ") + say("{0} at its {1} edge", edge.letter, side);
  };
  for (const MatingEdge& edge : edges) {
    if (edge.one == panel.number) add(edge.upright ? say("right") : say("back"), edge);
    if (edge.other == panel.number) add(edge.upright ? say("left") : say("front"), edge);
  }
  return words.empty() ? say("Panel {0}", panel.number) : say("Panel {0}: {1}", panel.number, words);
}

std::vector<FurtherBoard> of_panels(const Job& job, const Rack& rack) {
  std::vector<FurtherBoard> all;
  const std::vector<Panel> panels = panels_of(job);
  const std::vector<MatingEdge> edges = mating_edges(job);
  if (panels.size() > kMostSheets)
    throw bad_input(say("The seams make {0} panels; at most {1} are made at a time.", panels.size(), kMostSheets));
  for (const Panel& panel : panels) {
    FurtherBoard board;
    board.kind = FurtherBoard::Kind::Panel;
    board.job = panel_job(job, rack, panel);
    board.title = title_of(panel, edges);
    board.folder = word_in_file(say("files: panel")) + "-" +
                   std::string(panel.number < 10 && panels.size() > 9 ? "0" : "") + std::to_string(panel.number);
    std::vector<FurtherBoard> its = of_inlays(board.job, rack);
    for (FurtherBoard& one : its) one.folder.insert(0, board.folder + "-");
    all.push_back(std::move(board));
    std::move(its.begin(), its.end(), std::back_inserter(all));
  }
  return all;
}

std::vector<FurtherBoard> of_parts(const Job& job, const Rack& rack) {
  std::vector<FurtherBoard> all;
  Nested laid = nested(job, rack);
  for (std::size_t i = 0; i < laid.boards.size(); ++i) {
    FurtherBoard board;
    board.kind = FurtherBoard::Kind::Parts;
    board.title = board_in_words(laid, i);
    board.job = std::move(laid.boards[i].job);
    const std::string number = std::to_string(i + 1);
    board.folder = word_in_file(say("files: board")) + "-" + (i < 9 && laid.boards.size() > 9 ? "0" : "") + number;
    std::vector<FurtherBoard> its = of_inlays(board.job, rack);
    for (FurtherBoard& one : its) one.folder.insert(0, board.folder + "-");
    all.push_back(std::move(board));
    std::move(its.begin(), its.end(), std::back_inserter(all));
  }
  return all;
}

}  // namespace

std::vector<FurtherBoard> further_boards(const Job& job, const Rack& rack) {
  if (job.made_as_panels()) return of_panels(job, rack);
  if (job.made_as_parts()) return of_parts(job, rack);
  if (!job.plates.there()) return of_inlays(job, rack);
  if (job.plates.strips.wanted) return of_strips(job, rack);
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
    board.folder = word_in_file(say("files: sheet")) + "-" + std::to_string(i + 1);
    std::vector<FurtherBoard> its = of_inlays(board.job, rack);
    for (FurtherBoard& one : its) one.folder.insert(0, board.folder + "-");
    all.push_back(std::move(board));
    std::move(its.begin(), its.end(), std::back_inserter(all));
  }
  return all;
}

}  // namespace doyen
