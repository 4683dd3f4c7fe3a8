// A list of plates: entries that are too long, lacking, doubled, or in letters that the face has not; columns mixed up;
// a sheet that holds no plate.
#include <algorithm>
#include <map>
#include <set>

#include "cancel.hpp"
#include "plates/plates.hpp"
#include "plates/strips.hpp"
#include "run/placement.hpp"
#include "treatments/through/through.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// A few of the rows with what they say, such as “12 “Rosemary”, 57 “Sage” and 3 more”.
std::string rows_with_words(const std::vector<std::size_t>& rows, const PlateList& list, std::size_t column) {
  constexpr std::size_t kShown = 4, kLongest = 40;
  std::string words;
  for (std::size_t i = 0; i < std::min(kShown, rows.size()); ++i) {
    std::string entry = list.rows[rows[i]][column];
    if (entry.size() > kLongest) entry = entry.substr(0, entry.rfind(' ', kLongest)) + "…";
    words += (i > 0 ? ", " : "") + std::to_string(rows[i] + 1) + (entry.empty() ? "" : " “" + entry + "”");
  }
  if (rows.size() > kShown) words += say(" and {0} more", rows.size() - kShown);
  return words;
}

Remedy leave_out(const std::vector<std::size_t>& rows) {
  return {say("Leave {0|this row|these rows} out", rows.size()), [rows](Job& job) {
            std::set<int> out(job.plates.left_out.begin(), job.plates.left_out.end());
            for (const std::size_t row : rows) out.insert(static_cast<int>(row) + 1);
            job.plates.left_out.assign(out.begin(), out.end());
          }};
}

template <typename Change>
Remedy change_lettering(const std::string& label, const std::string& id, Change change) {
  return {label, [id, change](Job& job) {
            Item* item = job.find(id);
            if (auto* l = item == nullptr ? nullptr : std::get_if<Lettering>(&item->piece.what)) change(*l);
          }};
}

// What one lettering makes of all rows.
struct Entries {
  std::vector<std::size_t> too_long, smaller, narrower, two_lines, empty, lacking;
  double smallest = 1e300;      // mm of cap height among those set smaller
  double shortest_fit = 1e300;  // mm of cap height at which all that are too long would go
  double widest_fit = 1e300;    // per cent of letter width at which all that are too long would go; 0: none
  std::set<std::string> missing;
};

Entries look_at(const Job& job, const Lettering& l, std::size_t column) {
  Entries found;
  const double room = room_of(job, l);
  Lettering free = l;
  free.list.least = 1e-3;
  free.list.narrowest = 0;
  for (const std::size_t row : plate_rows(job.plates)) {
    Cancel::check_here();
    const std::string& words = job.plates.rows[row][column];
    if (words.empty()) {
      found.empty.push_back(row);
      continue;
    }
    const SetEntry set = set_entry(l, words, room);
    if (!set.missing.empty()) found.lacking.push_back(row);
    found.missing.insert(set.missing.begin(), set.missing.end());
    if (set.how == SetEntry::How::AsIs) continue;
    (set.how == SetEntry::How::TooLong    ? found.too_long
     : set.how == SetEntry::How::TwoLines ? found.two_lines
     : set.how == SetEntry::How::Narrower ? found.narrower
                                          : found.smaller)
        .push_back(row);
    found.smallest = std::min(found.smallest, set.cap_height);
    if (set.how != SetEntry::How::TooLong) continue;
    found.shortest_fit = std::min(found.shortest_fit, set_entry(free, words, room).cap_height);
    found.widest_fit = std::min(found.widest_fit, narrowed(l, words, room, set.cap_height));
  }
  return found;
}

void say_too_long(const Situation& s, const Item& item, const Lettering& l, std::size_t column, const Entries& found,
                  Point at, std::vector<Verdict>& out) {
  const double room = room_of(s.job, l);
  std::vector<Remedy> remedies;
  if (!l.list.two_lines)
    remedies.push_back(change_lettering(say("Break long ones into two lines"), item.piece.id,
                                        [](Lettering& it) { it.list.two_lines = true; }));
  const double least = said_within(found.shortest_fit, s.job.lengths);
  if (least >= 0.1)
    remedies.push_back(change_lettering(say("Set long ones down to {0}", s.show(least)), item.piece.id,
                                        [least](Lettering& it) { it.list.least = least; }));
  constexpr double kReads = 50;  // per cent: narrower letters hardly read (common practice, no source)
  if (const double narrow = std::floor(found.widest_fit); narrow >= kReads && narrow <= 100)
    remedies.push_back(change_lettering(say("Narrow the letters of long ones, down to {0} %", format_number(narrow, 0)),
                                        item.piece.id, [narrow](Lettering& it) { it.list.narrowest = narrow; }));
  remedies.push_back(leave_out(found.too_long));
  out.push_back({Grade::Stop, "plate-too-long", item.piece.id, at,
                 say("{0} {0|entry is|entries are} too long for “{1}”: {2}.", found.too_long.size(), item.piece.name,
                     rows_with_words(found.too_long, s.job.plates, column)),
                 say("There is room for {0} at a cap height of {1} or more.", s.show(room),
                     s.show(l.list.least > 0 ? std::min(l.list.least, l.cap_height) : l.cap_height)),
                 std::move(remedies)});
}

void check_lettering(const Situation& s, const Item& item, const Lettering& l, Point at, std::vector<Verdict>& out) {
  const PlateList& list = s.job.plates;
  const std::optional<std::size_t> place = list.column(l.list.column);
  const std::string& id = item.piece.id;
  if (!place) {
    out.push_back(
        {Grade::Stop,
         "plate-no-column",
         id,
         at,
         say("“{0}” takes its words from a column “{1}”, which the list has not.", item.piece.name, l.list.column),
         say("Point to another column, or take the words as they are typed."),
         {change_lettering(say("Take the words as typed"), id, [](Lettering& it) { it.list = {}; })}});
    return;
  }
  const std::size_t column = *place;
  const Entries found = look_at(s.job, l, column);
  if (!found.too_long.empty()) say_too_long(s, item, l, column, found, at, out);
  if (!found.lacking.empty()) {
    std::string letters;
    for (const std::string& each : found.missing) letters += (letters.empty() ? "“" : ", “") + each + "”";
    out.push_back({Grade::Stop,
                   "plate-letters-missing",
                   id,
                   at,
                   say("The face of “{0}” lacks {1}: {2}.", item.piece.name, letters,
                       rows_with_words(found.lacking, list, column)),
                   say("Choose another face, or mend the list."),
                   {leave_out(found.lacking)}});
  }
  if (!found.empty.empty())
    out.push_back({Grade::Mind,
                   "plate-empty",
                   id,
                   at,
                   say("“{0}” is empty in {1} {1|row|rows}: {2}.", l.list.column, found.empty.size(),
                       rows_with_words(found.empty, list, column)),
                   say("Those plates are made without these words."),
                   {leave_out(found.empty)}});
  if (!found.smaller.empty() || !found.narrower.empty() || !found.two_lines.empty()) {
    std::vector<std::size_t> rows = found.smaller;
    rows.insert(rows.end(), found.narrower.begin(), found.narrower.end());
    rows.insert(rows.end(), found.two_lines.begin(), found.two_lines.end());
    out.push_back({Grade::Note,
                   "plate-set-smaller",
                   id,
                   at,
                   say("{0} {0|entry|entries} of “{1}” {0|is|are} set smaller, {2} narrower and {3} in two lines, the "
                       "smallest {4} high: {5}.",
                       found.smaller.size(), item.piece.name, found.narrower.size(), found.two_lines.size(),
                       s.show(found.smallest), rows_with_words(rows, list, column)),
                   "",
                   {}});
  }
}

// Rows whose entries are those of an earlier one, in all that is shown of them.
void check_doubled(const Situation& s, const std::vector<std::size_t>& columns, std::vector<Verdict>& out) {
  const PlateList& list = s.job.plates;
  std::map<ListRow, std::size_t> seen;
  std::vector<std::size_t> again;
  std::string first;
  for (const std::size_t row : plate_rows(list)) {
    ListRow shown;
    for (const std::size_t column : columns) shown.push_back(list.rows[row][column]);
    const auto [at, is_new] = seen.emplace(std::move(shown), row);
    if (is_new) continue;
    if (again.empty()) first = std::to_string(at->second + 1);
    again.push_back(row);
  }
  if (again.empty()) return;
  out.push_back({Grade::Mind,
                 "plate-doubled",
                 "",
                 s.job.blank.box().centre(),
                 say("{0} {0|row says|rows say} what an earlier one says, row {1} among them: {2}.", again.size(),
                     first, rows_with_words(again, list, columns.front())),
                 say("Each would be made again."),
                 {leave_out(again)}});
}

// Two letterings that show the same: of one column, or of two that say the same nearly everywhere.
void check_alike(const Situation& s, const std::vector<std::pair<const Item*, std::size_t>>& shown,
                 std::vector<Verdict>& out) {
  const PlateList& list = s.job.plates;
  for (std::size_t i = 0; i < shown.size(); ++i) {
    for (std::size_t k = i + 1; k < shown.size(); ++k) {
      const auto [a, first] = shown[i];
      const auto [b, second] = shown[k];
      const auto same = std::count_if(list.rows.begin(), list.rows.end(),
                                      [one = first, two = second](const ListRow& row) { return row[one] == row[two]; });
      if (static_cast<double>(same) < 0.9 * static_cast<double>(list.rows.size())) continue;
      out.push_back({Grade::Mind,
                     "plate-columns-alike",
                     b->piece.id,
                     s.job.blank.box().centre(),
                     say("“{0}” and “{1}” say the same on nearly every plate.", a->piece.name, b->piece.name),
                     say("Point one of them to another column."),
                     {change_lettering(say("Take the words of “{0}” as typed", b->piece.name), b->piece.id,
                                       [](Lettering& it) { it.list = {}; })}});
    }
  }
}

// Between two plates lies the slit of each, and, where they hang by tabs, wood that these hold on to.
void check_gap(const Situation& s, std::vector<Verdict>& out) {
  const PlateList& list = s.job.plates;
  const Bit* bit = s.rack.find(list.bit);
  if (bit == nullptr) return;
  constexpr double kHolds = 2;  // mm of wood that a tab needs (as verdicts/neighbours has it)
  const bool tabs = list.tabs > 0 && list.skin <= 0;
  const double wide = bit->true_diameter(), least = tabs ? 2 * wide + kHolds : wide;
  const PlateGrid grid = plate_grid(s.job);
  if (list.gap >= least - 1e-6 || grid.plates < 2 || grid.per_sheet() < 2) return;
  std::vector<Remedy> remedies{{say("Leave {0} between plates", s.show(std::ceil(least))),
                                [gap = std::ceil(least)](Job& job) { job.plates.gap = gap; }}};
  if (tabs && list.gap >= wide)
    remedies.push_back(
        {say("Leave a skin of {0} instead of tabs", s.show(0.3)), [](Job& job) { job.plates.skin = 0.3; }});
  out.push_back({Grade::Stop, "plate-gap", "", s.job.blank.box().centre(),
                 say("The {0} cuts plates apart that lie only {1} from each other.", bit->name, s.show(list.gap)),
                 tabs && list.gap >= wide ? say("No wood is left between them that tabs could hold on to.")
                                          : say("It would cut into the next one."),
                 std::move(remedies)});
}

// Strips differ in length: zero stays where it is in one fixture only at the end that is pushed home.
void check_zero_of_strips(const Situation& s, std::vector<Verdict>& out) {
  const RunSettings& run = s.job.run;
  const bool across = run.on_bed == OnBed::QuarterLeft || run.on_bed == OnBed::QuarterRight;
  const Fixture& f = run.fixture;
  const Point share = zero_share(run.zero_place);
  const double at = across ? share.y : share.x, home = across ? (f.front() ? 0 : 1) : (f.left() ? 0 : 1);
  if (at == home) return;
  const ZeroPlace corner = f.left() ? (f.front() ? ZeroPlace::LeftFront : ZeroPlace::LeftBack)
                                    : (f.front() ? ZeroPlace::RightFront : ZeroPlace::RightBack);
  out.push_back(
      {Grade::Mind,
       "strip-zero-moves",
       "",
       s.job.blank.box().centre(),
       say("Zero lies at another place for strips of another length."),
       say("It would have to be set anew for each; at the corner that is pushed home it stays."),
       {{say("Take zero at the corner that is pushed home"), [corner](Job& job) { job.run.zero_place = corner; }}}});
}

// Whether the boards there are have room for all strips.
void check_boards_of_strips(const Situation& s, std::vector<Verdict>& out) {
  const PlateList& list = s.job.plates;
  const Point middle = s.job.blank.box().centre();
  constexpr std::size_t kMeasured = 1000;  // rows; more are made in parts
  if (!list.strips.boards.empty() && plate_rows(list).size() <= kMeasured) {
    const std::vector<double> lengths = strip_lengths(s.job);
    const CutList sawn = cut_list(lengths, list.strips.boards, list.strips.kerf);
    if (!sawn.without.empty()) {
      double needed = 0, longest = 0;
      for (const std::size_t strip : sawn.without) {
        needed += lengths[strip] + list.strips.kerf;
        longest = std::max(longest, lengths[strip]);
      }
      // As many more of the longest board there is.
      const double board = *std::max_element(list.strips.boards.begin(), list.strips.boards.end());
      std::vector<Remedy> remedies;
      // As many at a time as what is left over needs at the least.
      std::vector<double> more = list.strips.boards;
      for (CutList left = sawn; longest <= board && more.size() < 500 && !left.without.empty();) {
        double over = 0;
        for (const std::size_t strip : left.without) over += lengths[strip];
        more.insert(more.end(), std::max<std::size_t>(1, static_cast<std::size_t>(over / board)), board);
        left = cut_list(lengths, more, list.strips.kerf);
      }
      if (more.size() <= 500 && cut_list(lengths, more, list.strips.kerf).without.empty())
        remedies.push_back(
            {say("Fetch {0} more {0|board|boards} of {1}", more.size() - list.strips.boards.size(), s.show(board)),
             [more](Job& job) { job.plates.strips.boards = more; }, true});
      std::vector<std::size_t> rows;
      const std::vector<std::size_t> made = plate_rows(list);
      for (const std::size_t strip : sawn.without) rows.push_back(made[strip]);
      remedies.push_back(leave_out(rows));
      out.push_back({Grade::Mind, "strip-no-board", "", middle,
                     say("The boards there are have no room for {0} {0|strip|strips} of {1} together.",
                         sawn.without.size(), s.show(needed)),
                     say("Rows {0}.", rows_with_words(rows, list, 0)), remedies});
    }
  }
}

// What of strips would not be as it is shown, or would not grow with them.
void check_strips(const Situation& s, std::vector<Verdict>& out) {
  const Point middle = s.job.blank.box().centre();
  check_boards_of_strips(s, out);
  check_zero_of_strips(s, out);
  constexpr double kSeen = 0.01;  // mm
  if (const double length = shown_length(s.job); std::abs(length - s.job.blank.width) > kSeen)
    out.push_back({Grade::Mind,
                   "strip-shown",
                   "",
                   middle,
                   say("The board is shown {0} long; the strip with these words is {1} long.",
                       s.show(s.job.blank.width), s.show(length)),
                   "",
                   {{say("Show it as it is"), [length](Job& job) { set_shown_length(job, length); }}}});
  for (const Item& item : s.job.items) {
    if (item.cut.kind != Treatment::Kind::CutOut || std::get_if<PlainShape>(&item.piece.what) != nullptr) continue;
    out.push_back(
        {Grade::Mind,
         "strip-outline",
         item.piece.id,
         middle,
         say("“{0}” is cut out of every strip as it is drawn: it does not grow with its words.", item.piece.name),
         say("Strips are sawn to length; a plain shape as long as the board grows with them."),
         {}});
  }
}

// Whether plates fit their sheet, and can be cut apart there.
void check_sheet(const Situation& s, std::vector<Verdict>& out) {
  const PlateList& list = s.job.plates;
  const Blank& plate = s.job.blank;
  if (!list.strips.wanted && plate_grid(s.job).per_sheet() == 0) {
    const double wide = std::ceil(plate.width + 2 * list.margin), high = std::ceil(plate.height + 2 * list.margin);
    out.push_back(
        {Grade::Stop,
         "plate-no-room",
         "",
         plate.box().centre(),
         say("No plate of {0} × {1} fits the sheet of {2} × {3} within its margin of {4}.", s.show(plate.width),
             s.show(plate.height), s.show(list.sheet_width), s.show(list.sheet_height), s.show(list.margin)),
         say("Take a larger sheet, or a smaller margin."),
         {{say("Take a sheet of {0} × {1}", s.show(std::max(wide, list.sheet_width)),
               s.show(std::max(high, list.sheet_height))),
           [wide, high](Job& job) {
             job.plates.sheet_width = std::max(job.plates.sheet_width, wide);
             job.plates.sheet_height = std::max(job.plates.sheet_height, high);
           }}}});
    return;
  }
  if (plate_rows(list).empty())
    out.push_back({Grade::Stop,
                   "plate-none",
                   "",
                   plate.box().centre(),
                   say("No row of the list is made."),
                   say("All are left out."),
                   {{say("Make all rows"), [](Job& job) {
                       job.plates.only.clear();
                       job.plates.left_out.clear();
                     }}}});
  if (list.strips.wanted)
    check_strips(s, out);
  else
    check_gap(s, out);
}

}  // namespace

void check_plates(const Situation& s, std::vector<Verdict>& out) {
  const PlateList& list = s.job.plates;
  if (!list.there()) return;
  check_sheet(s, out);
  std::vector<std::pair<const Item*, std::size_t>> shown;
  std::vector<std::size_t> columns;
  for (const Item& item : s.job.items) {
    const auto* l = std::get_if<Lettering>(&item.piece.what);
    if (l == nullptr || l->list.column.empty()) continue;
    check_lettering(s, item, *l, item.piece.at, out);
    const std::optional<std::size_t> column = list.column(l->list.column);
    if (!column) continue;
    shown.emplace_back(&item, *column);
    columns.push_back(*column);
  }
  if (columns.empty())
    out.push_back({Grade::Mind,
                   "plate-nothing-listed",
                   "",
                   s.job.blank.box().centre(),
                   say("No lettering takes its words from the list: all plates would be alike."),
                   say("Choose a lettering under Artwork and point to the column that its words come from."),
                   {}});
  if (columns.empty()) return;
  check_doubled(s, columns, out);
  check_alike(s, shown, out);
}

}  // namespace doyen
