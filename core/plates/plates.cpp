#include "plates/plates.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <numeric>
#include <set>

#include "artwork/lettering/measure.hpp"
#include "cancel.hpp"
#include "job/clip.hpp"
#include "job/layout.hpp"
#include "problem.hpp"
#include "treatments/through/through.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// What a row says in a column; empty where either is not there.
std::string entry_of(const PlateList& list, std::size_t row, const std::string& heading) {
  const std::optional<std::size_t> column = list.column(heading);
  return column && row < list.rows.size() ? list.rows[row][*column] : std::string();
}

bool set_as_it_is(const Lettering& l) { return !l.along.empty() || !l.inside.empty() || l.fit_width; }

// Broken at the space that leaves both lines most alike; empty where there is none.
std::string in_two_lines(const Lettering& l, const std::string& words) {
  std::string best;
  double least = 1e300;
  for (std::size_t i = words.find(' '); i != std::string::npos; i = words.find(' ', i + 1)) {
    std::string broken = words;
    broken[i] = '\n';
    const double wide = measured(l, broken).width;
    if (wide < least) {
      least = wide;
      best = broken;
    }
  }
  return best;
}

// The cap height at which those words are as wide as the room, mm.
double fitting(const Lettering& l, const std::string& words, double room) {
  const double wide = measured(l, words).width;
  return wide > 0 ? std::max(0.0, room - 2 * l.thicken) / wide : 1e300;
}

void for_each_listed(Job& job, const std::function<void(Item&, Lettering&)>& act) {
  for (Item& item : job.items) {
    auto* l = std::get_if<Lettering>(&item.piece.what);
    if (l != nullptr && !l->list.column.empty()) act(item, *l);
  }
}

// The height at which the longest entry is set: what all are, where one size is asked for.
double common_height(const Job& job, const Lettering& l) {
  double height = l.cap_height;
  const double room = room_of(job, l);
  for (const std::size_t row : plate_rows(job.plates))
    height = std::min(height, set_entry(l, entry_of(job.plates, row, l.list.column), room).cap_height);
  return height;
}

}  // namespace

CommonHeights common_heights(const Job& job) {
  CommonHeights heights;
  Job copy = job;
  for_each_listed(copy, [&](Item& item, Lettering& l) {
    if (l.list.one_size) heights[item.piece.id] = common_height(job, l);
  });
  return heights;
}

Job plate_of(const Job& job, std::size_t row, const CommonHeights& heights) {
  Job plate = job;
  plate.plates = {};
  std::set<std::string> empty;
  for_each_listed(plate, [&](Item& item, Lettering& l) {
    const std::string words = entry_of(job.plates, row, l.list.column);
    if (words.find_first_not_of(" \t\r\n") == std::string::npos) empty.insert(item.piece.id);
    const SetEntry set = set_entry(l, words, room_of(job, l));
    l.words = set.words;
    l.cap_height = set.cap_height;
    l.letter_width = set.letter_width;
    if (const auto common = heights.find(item.piece.id); common != heights.end())
      l.cap_height = std::min(l.cap_height, common->second);
    l.list = {};
    l.kept = {};
    item.piece.name = name_of_words(l.words);
  });
  std::erase_if(plate.items, [&](const Item& item) { return empty.contains(item.piece.id); });
  return plate;
}

namespace {

// What cuts one plate out of its sheet: the board's own form.
Item edge_of(const Job& job) {
  const PlateList& list = job.plates;
  Item item;
  item.piece.id = "edge";
  item.piece.name = say("Plate");
  item.piece.at = {job.blank.width / 2, job.blank.height / 2};
  if (job.blank.form == BlankForm::Outline) {
    Outlines outlines;
    outlines.region = region_of(job.blank);
    item.piece.what = frozen(outlines, item.piece.name);
  } else {
    PlainShape shape;
    shape.kind = job.blank.form == BlankForm::Oval ? PlainShape::Kind::Ellipse : PlainShape::Kind::Rectangle;
    shape.width = job.blank.width;
    shape.height = job.blank.height;
    if (shape.kind == PlainShape::Kind::Rectangle)
      shape.corner_radius = std::min(list.corner, std::min(shape.width, shape.height) / 2);
    item.piece.what = shape;
  }
  item.cut.kind = Treatment::Kind::CutOut;
  item.cut.bit = list.bit;
  item.cut.through.tabs = usual_tabs(job.blank);
  item.cut.through.tabs.count = list.tabs;
  item.cut.through.tabs.wanted = list.tabs > 0 && list.skin <= 0;
  item.cut.through.skin = list.skin;
  item.cut.through.taped = !item.cut.through.tabs.wanted && list.skin <= 0;
  return item;
}

// A plate's pieces as the sheet has them: with ids, names and a group of their own, moved to its place.
void put_plate(Job& sheet, Job plate, std::size_t row, Point at) {
  const std::string number = std::to_string(row + 1);
  std::map<std::string, std::string> now;
  for (const Item& item : plate.items) now[item.piece.id] = "plate-" + number + "-" + item.piece.id;
  for (Item& item : plate.items) {
    rename_pieces(item, now);
    item.piece.id = now[item.piece.id];
    item.piece.name = say("{0}, row {1}", item.piece.name, number);
    item.group = "plate-" + number;
  }
  shift_layout(plate, at);
  std::move(plate.items.begin(), plate.items.end(), std::back_inserter(sheet.items));
  carry_choices(sheet, plate, now);
}

}  // namespace

std::vector<std::size_t> plate_rows(const PlateList& list) {
  std::vector<std::size_t> rows;
  const auto named = [](const std::vector<int>& numbers) { return std::set<int>(numbers.begin(), numbers.end()); };
  const std::set<int> only = named(list.only), left_out = named(list.left_out);
  for (std::size_t i = 0; i < list.rows.size(); ++i) {
    const int number = static_cast<int>(i) + 1;
    if ((only.empty() || only.contains(number)) && !left_out.contains(number)) rows.push_back(i);
  }
  if (const std::optional<std::size_t> column = list.column(list.sorted_by))
    std::stable_sort(rows.begin(), rows.end(),
                     [&](std::size_t a, std::size_t b) { return list.rows[a][*column] < list.rows[b][*column]; });
  return rows;
}

std::vector<std::string> words_of_row(const Job& job, std::size_t row) {
  std::vector<std::string> all;
  for (const Item& item : job.items) {
    const auto* l = std::get_if<Lettering>(&item.piece.what);
    if (l == nullptr || l->list.column.empty() || item.cut.kind == Treatment::Kind::None) continue;
    std::string words = entry_of(job.plates, row, l->list.column);
    if (!words.empty()) all.push_back(std::move(words));
  }
  return all;
}

std::vector<int> parse_rows(const std::string& words, std::size_t rows) {
  std::set<int> found;
  const char* at = words.data();
  const char* const end = at + words.size();
  const auto skip = [&] { at = std::find_if(at, end, [](char c) { return c != ' '; }); };
  const auto number = [&] {
    int value = 0;
    skip();
    const auto [next, error] = std::from_chars(at, end, value);
    if (error != std::errc() || value < 1)
      throw bad_input(say("“{0}”: rows counted from 1 were expected, such as 57, 60-62.", words));
    if (static_cast<std::size_t>(value) > rows)
      throw bad_input(say("There is no row {0}: the list has {1}.", value, rows));
    at = next;
    skip();
    return value;
  };
  for (skip(); at != end;) {
    const int first = number();
    int last = first;
    if (at != end && *at == '-') {
      ++at;
      last = number();
    }
    if (last < first) throw bad_input(say("“{0}”: rows counted from 1 were expected, such as 57, 60-62.", words));
    for (int row = first; row <= last; ++row) found.insert(row);
    if (at == end) break;
    if (*at != ',' && *at != ';')
      throw bad_input(say("“{0}”: rows counted from 1 were expected, such as 57, 60-62.", words));
    ++at;
    skip();
  }
  return {found.begin(), found.end()};
}

std::string rows_in_words(const std::vector<int>& rows) {
  std::string words;
  for (std::size_t i = 0; i < rows.size();) {
    std::size_t last = i;
    while (last + 1 < rows.size() && rows[last + 1] == rows[last] + 1) ++last;
    words += (words.empty() ? "" : ", ") + std::to_string(rows[i]);
    if (last > i) words += (last == i + 1 ? ", " : "-") + std::to_string(rows[last]);
    i = last + 1;
  }
  return words;
}

double narrowed(const Lettering& l, const std::string& words, double room, double cap_height) {
  // Letters grow with their width, the spaces that are added between them do not.
  constexpr double kHalf = 0.5;
  Lettering half = l;
  half.letter_width = std::max(20.0, l.letter_width * kHalf);
  const double wide = measured(l, words).width, narrow = measured(half, words).width;
  const double per_cent = (wide - narrow) / (l.letter_width - half.letter_width);
  if (per_cent <= 0 || cap_height <= 0) return 0;
  const double want = (room - 2 * l.thicken) / cap_height;
  const double width = l.letter_width - (wide - want) / per_cent;
  return width >= 20 && width <= l.letter_width ? std::floor(width * 100) / 100 : 0;
}

SetEntry set_entry(const Lettering& l, const std::string& words, double room) {
  SetEntry set{SetEntry::How::AsIs, words, l.cap_height, measured(l, words).missing, l.letter_width};
  if (set_as_it_is(l)) return set;
  constexpr double kHair = 1e-6;
  const double fits = fitting(l, words, room);
  if (fits >= l.cap_height - kHair) return set;
  const double least = l.list.least > 0 ? std::min(l.list.least, l.cap_height) : l.cap_height;
  if (fits >= least - kHair) {
    set.how = SetEntry::How::Smaller;
    set.cap_height = fits;
    return set;
  }
  if (const double narrow = narrowed(l, words, room, least);
      narrow > 0 && narrow >= l.list.narrowest - kHair && l.list.narrowest > 0) {
    set.how = SetEntry::How::Narrower;
    set.cap_height = least;
    set.letter_width = narrow;
    return set;
  }
  set.how = SetEntry::How::TooLong;
  set.cap_height = least;
  const std::string broken = l.list.two_lines ? in_two_lines(l, words) : std::string();
  if (broken.empty()) return set;
  const double both = fitting(l, broken, room);
  set.words = broken;
  if (both < least - kHair) return set;
  set.how = SetEntry::How::TwoLines;
  set.cap_height = std::min(both, l.cap_height);
  return set;
}

double room_of(const Job& job, const Lettering& lettering) {
  if (lettering.list.room > 0) return lettering.list.room;
  const StripChoices& strips = job.plates.strips;
  if (!strips.wanted) return std::max(0.0, job.blank.width - 2 * job.blank.margin);
  // A strip grows with its words, up to the longest board there is.
  constexpr double kLongest = 20'000;  // mm
  return strips.boards.empty()
             ? kLongest
             : std::max(0.0, *std::max_element(strips.boards.begin(), strips.boards.end()) - 2 * strips.ends);
}

Job plate_of(const Job& job, std::size_t row) { return plate_of(job, row, common_heights(job)); }

PlateGrid plate_grid(const Job& job) {
  const PlateList& list = job.plates;
  const auto fit = [&](double sheet, double plate) {
    const double room = sheet - 2 * list.margin + list.gap;
    return std::max(0, static_cast<int>(std::floor(room / (plate + list.gap) + 1e-9)));
  };
  PlateGrid grid{fit(list.sheet_width, job.blank.width), fit(list.sheet_height, job.blank.height)};
  if (grid.per_sheet() == 0) grid.across = grid.deep = 0;
  grid.plates = plate_rows(list).size();
  grid.sheets = grid.per_sheet() == 0 ? 0 : (grid.plates + grid.per_sheet() - 1) / grid.per_sheet();
  return grid;
}

PlateSheet plate_sheet(const Job& job, std::size_t which) {
  const PlateList& list = job.plates;
  const PlateGrid grid = plate_grid(job);
  if (which >= grid.sheets)
    throw bad_input(say("No plate of {0} × {1} fits the sheet within its margin.",
                        size_in_words(job.blank.width, job.lengths), size_in_words(job.blank.height, job.lengths)));
  PlateSheet sheet;
  Job& board = sheet.job;
  board.lengths = job.lengths;
  board.run = job.run;
  board.finish = job.finish;
  board.finish.colours.clear();
  board.run.accepted.clear();
  board.run.reasons.clear();
  board.name = say("{0}, sheet {1} of {2}", job.name, which + 1, grid.sheets);
  board.blank = job.blank;
  board.blank.width = list.sheet_width;
  board.blank.height = list.sheet_height;
  board.blank.margin = std::min(job.blank.margin, list.margin);
  board.blank.form = BlankForm::Rectangle;
  board.blank.edge.clear();
  board.blank.keep_outs.clear();
  const std::vector<std::size_t> rows = plate_rows(list);
  const CommonHeights heights = common_heights(job);
  const std::size_t first = which * grid.per_sheet(), last = std::min(rows.size(), first + grid.per_sheet());
  for (std::size_t k = first; k < last; ++k) {
    Cancel::check_here();
    const auto column = static_cast<double>((k - first) % static_cast<std::size_t>(grid.across));
    const std::size_t lane = (k - first) / static_cast<std::size_t>(grid.across);
    const auto row = static_cast<double>(lane);
    const Point corner{list.margin + column * (job.blank.width + list.gap),
                       list.sheet_height - list.margin - job.blank.height - row * (job.blank.height + list.gap)};
    Job plate = plate_of(job, rows[k], heights);
    if (!list.bit.empty()) {
      Item edge = edge_of(job);
      edge.piece.id = plate.fresh_id(edge.piece.id);
      plate.items.push_back(std::move(edge));
    }
    put_plate(board, std::move(plate), rows[k], corner);
    sheet.rows.push_back(rows[k]);
    sheet.corners.push_back(corner);
  }
  return sheet;
}

}  // namespace doyen
