#include "files/list/plates_found.hpp"

#include "files/list/csv_row.hpp"
#include "plates/plates.hpp"
#include "plates/strips.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::string strips_found_csv(const Job& job) {
  const std::vector<std::size_t> rows = plate_rows(job.plates);
  const std::vector<double> lengths = strip_lengths(job);
  const CutList list = cut_list(lengths, job.plates.strips.boards, job.plates.strips.kerf);
  std::vector<std::pair<std::size_t, std::size_t>> sawn(rows.size());  // board and place on it, from 1; 0: none
  for (std::size_t b = 0; b < list.boards.size(); ++b) {
    for (std::size_t k = 0; k < list.boards[b].strips.size(); ++k) sawn[list.boards[b].strips[k]] = {b + 1, k + 1};
  }
  const std::string unit = unit_name(job.lengths.unit);
  ListRow headings{say("strip"), say("length, {0}", unit), say("board"), say("place on the board"),
                   say("row of the list")};
  headings.insert(headings.end(), job.plates.columns.begin(), job.plates.columns.end());
  std::string text;
  add_csv_row(text, headings);
  const auto counted = [](std::size_t n) { return n == 0 ? std::string() : std::to_string(n); };
  for (std::size_t i = 0; i < rows.size(); ++i) {
    const double length = lengths[i] / (job.lengths.unit == Unit::Inch ? kMmPerInch : 1);
    ListRow row{std::to_string(i + 1), format_number(length, 3), counted(sawn[i].first), counted(sawn[i].second),
                std::to_string(rows[i] + 1)};
    const ListRow& entries = job.plates.rows[rows[i]];
    row.insert(row.end(), entries.begin(), entries.end());
    add_csv_row(text, row);
  }
  return text;
}

}  // namespace

std::string plates_found_csv(const Job& job) {
  if (job.plates.strips.wanted) return strips_found_csv(job);
  const PlateGrid grid = plate_grid(job);
  ListRow headings{say("sheet"), say("row from the back"), say("place from the left"), say("row of the list")};
  headings.insert(headings.end(), job.plates.columns.begin(), job.plates.columns.end());
  std::string text;
  add_csv_row(text, headings);
  const std::vector<std::size_t> rows = plate_rows(job.plates);
  for (std::size_t k = 0; k < rows.size() && grid.per_sheet() > 0; ++k) {
    const auto across = static_cast<std::size_t>(grid.across);
    const std::size_t on_sheet = k % grid.per_sheet();
    ListRow row{std::to_string(k / grid.per_sheet() + 1), std::to_string(on_sheet / across + 1),
                std::to_string(on_sheet % across + 1), std::to_string(rows[k] + 1)};
    const ListRow& entries = job.plates.rows[rows[k]];
    row.insert(row.end(), entries.begin(), entries.end());
    add_csv_row(text, row);
  }
  return text;
}

}  // namespace doyen
