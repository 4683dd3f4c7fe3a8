#include "files/list/plates_found.hpp"

#include "files/list/csv_row.hpp"
#include "plates/plates.hpp"
#include "wording/say.hpp"

namespace doyen {
std::string plates_found_csv(const Job& job) {
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
