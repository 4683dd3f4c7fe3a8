// Many plates from one: the job is the plate that all are made like, and a list says what stands on each.
#pragma once

#include <algorithm>
#include <optional>
#include <string>
#include <vector>

#include "measure/id.hpp"
#include "shared.hpp"

namespace doyen {

using ListRow = std::vector<std::string>;

// How long entries of a column are set where this lettering stands (Lettering::list).
struct FromList {
  std::string column{};    // its heading; empty: the words are the lettering's own
  double room = 0;         // mm that the words may be wide; 0: the plate within its margin
  double least = 0;        // mm of cap height that long entries may be set down to; 0: none is set smaller
  bool two_lines = false;  // what is too long even so is broken into two lines
  bool one_size = false;   // all are set as small as the longest needs
  double narrowest = 0;  // per cent of the face's own width that letters too long even so are narrowed down to; 0: none
  friend bool operator==(const FromList&, const FromList&) = default;
};

// Each row on a strip of its own, as long as its words need (plates/strips.hpp), instead of plates on sheets.
struct StripChoices {
  bool wanted = false;
  double ends = 15;              // mm of wood beside the words at either end
  double least = 60;             // mm: no strip is shorter
  double step = 5;               // mm: lengths are rounded up to it; 0: they are not
  double kerf = 3;               // mm that the saw takes
  std::vector<double> boards{};  // mm, the lengths of the boards there are, each as wide and thick as the strips
  double plate = 0;              // mm: how long the plate was before it was shown as a strip; 0: not said
  double off_middle = 0;         // mm: how far its words lay beside its middle then
  friend bool operator==(const StripChoices&, const StripChoices&) = default;
};

struct PlateList {
  std::string source{};                          // what it was read from, such as labels.csv
  std::vector<std::string> columns{};            // headings, each another; none: there is no list
  Shared<std::vector<ListRow>> rows{};           // as long as `columns`
  std::vector<int> only{};                       // rows that are made, counted from 1; none named: all
  std::vector<int> left_out{};                   // rows that are not made
  std::string sorted_by{};                       // heading by which plates are laid out; empty: as in the list
  double sheet_width = 600, sheet_height = 300;  // mm
  double margin = 10, gap = 10;                  // mm: round the plates, and between them
  BitId bit{};                                   // that cuts the plates apart; none: they are left in the sheet
  double corner = 0;                             // mm: how round the corners are that it leaves
  int tabs = 2;                                  // that each plate hangs by
  double skin = 0;                               // mm left under the cut instead; then there are no tabs
  bool headings = true;                          // `columns` stood in the list's first row
  StripChoices strips{};
  // The place of a heading among the columns; none where it is not there.
  [[nodiscard]] std::optional<std::size_t> column(const std::string& heading) const {
    const auto found = std::find(columns.begin(), columns.end(), heading);
    return found == columns.end() ? std::nullopt : std::optional(static_cast<std::size_t>(found - columns.begin()));
  }
  [[nodiscard]] bool there() const { return !columns.empty(); }
  friend bool operator==(const PlateList&, const PlateList&) = default;
};

}  // namespace doyen
