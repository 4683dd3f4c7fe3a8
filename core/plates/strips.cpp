#include "plates/strips.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <optional>
#include <random>

#include "cancel.hpp"
#include "measure/list_entries.hpp"
#include "plates/plates.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kHair = 1e-6;  // mm
Box box_of(const Job& job, const Item& item) {
  try {
    return bounds(job.outlines(item));
  } catch (const Problem&) {
    return {};  // its own verdict says so
  }
}

// A frame: a plain shape that reaches into the wood beside the words at both ends. What stands with the words never
// does on a strip, so that it is the same whichever row is shown.
bool grows(const Item& item, const Box& box, const Job& job) {
  return std::get_if<PlainShape>(&item.piece.what) != nullptr &&
         std::abs(std::remainder(item.piece.turn, 180)) < 1e-9 && !box.empty() &&
         box.left < job.plates.strips.ends - kHair && job.blank.width - box.right < job.plates.strips.ends - kHair;
}

bool is_hole(const Item& item) {
  using Kind = Treatment::Kind;
  const Kind kind = item.cut.kind;
  return kind == Kind::Drill || kind == Kind::Pierce || kind == Kind::HangerSlot;
}

// What a piece does when a strip is longer or shorter than the pattern: told from the pattern with the words that it
// shows, so that it is the same for every row.
enum class Role { Words, Frame, LeftEnd, RightEnd };
using Roles = std::map<std::string, Role>;
Roles roles_of(const Job& pattern) {
  Roles roles;
  std::map<std::string, Box> holes;
  Box words;
  for (const Item& item : pattern.items) {
    const Box box = box_of(pattern, item);
    if (grows(item, box, pattern))
      roles[item.piece.id] = Role::Frame;
    else if (is_hole(item) && !box.empty())
      holes[item.piece.id] = box;
    else if (item.cut.kind != Treatment::Kind::None)
      words.add(box);
  }
  const double middle = pattern.blank.width / 2, ends = pattern.plates.strips.ends;
  for (const auto& [id, box] : holes) {  // beside all words, or in the wood at an end: as far from that end
    const double left = words.empty() ? middle : words.left, right = words.empty() ? middle : words.right;
    const bool at_left = box.right <= std::max(left, ends);
    const bool at_right = box.left >= std::min(right, pattern.blank.width - ends);
    roles[id] = at_left ? Role::LeftEnd : at_right ? Role::RightEnd : Role::Words;
  }
  return roles;  // all others stay with the words
}
Role role_of(const Roles& roles, const Item& item) {
  const auto found = roles.find(item.piece.id);
  return found == roles.end() ? Role::Words : found->second;
}

bool comes_along(const Job& job, const Item& item) {
  const std::vector<std::string> from = sources_of(item.piece);
  return std::any_of(from.begin(), from.end(), [&](const std::string& id) { return job.find(id) != nullptr; });
}

// What the strip's length follows from: all that is cut and neither grows with it nor stays at its ends; and how much
// room the ends take up.
struct Measured {
  Box words;
  double ends = 0;  // mm, the wider of both
};
Measured measured_plate(const Job& plate, const Job& pattern, const Roles& roles) {
  constexpr double kBeside = 3;  // mm of wood between a hole at an end and the words (common practice, no source)
  Measured found{{}, pattern.plates.strips.ends};
  for (const Item& item : plate.items) {
    const Role role = role_of(roles, item);
    if (item.cut.kind == Treatment::Kind::None || role == Role::Frame) continue;
    const Box box = box_of(plate, item);
    if (role == Role::Words)
      found.words.add(box);
    else
      found.ends = std::max(found.ends, (role == Role::LeftEnd ? box.right : pattern.blank.width - box.left) + kBeside);
  }
  return found;
}

double length_of(const Measured& plate, const StripChoices& choices) {
  const double needed = plate.words.width() + 2 * plate.ends;
  const double step = choices.step;
  return std::max(choices.least, step > 0 ? std::ceil(needed / step - kHair) * step : needed);
}

// As long as `strip` is now, after the pattern; `off`: mm that the words lie beside the middle.
void put_in_the_middle(Job& strip, const Box& words, const Blank& pattern, const Roles& roles, double off = 0) {
  const double longer = strip.blank.width - pattern.width;
  const double aside = words.empty() ? 0 : strip.blank.width / 2 + off - words.centre().x;
  // Clamps and faults stay as far from the end that they are nearer to.
  for (KeepOut& place : strip.blank.keep_outs) {
    if (place.x > pattern.width / 2) place.x += longer;
  }
  std::map<std::string, double> shifts;
  for (Item& item : strip.items) {
    const Box box = box_of(strip, item);
    const Role role = role_of(roles, item);
    if (role == Role::Frame) {
      auto& shape = std::get<PlainShape>(item.piece.what);
      shape.width = std::max(0.1, shape.width + longer);
      shifts[item.piece.id] = box.centre().x + longer / 2 - box_of(strip, item).centre().x;
    } else {
      shifts[item.piece.id] = role == Role::LeftEnd ? 0 : role == Role::RightEnd ? longer : aside;
    }
  }
  for (const Item& item : std::vector<Item>(strip.items)) {
    if (!comes_along(strip, item)) strip.shift(item.piece.id, {shifts[item.piece.id], 0});
  }
}

// Which boards are begun first while none that is begun has room.
enum class Begin { Shortest, Longest };

CutList cut_by(const std::vector<double>& strips, const std::vector<std::size_t>& order, std::vector<double> boards,
               double kerf, Begin begin) {
  std::sort(boards.begin(), boards.end());
  if (begin == Begin::Longest) std::reverse(boards.begin(), boards.end());
  CutList list;
  std::vector<bool> begun(boards.size(), false);
  for (const std::size_t strip : order) {
    // What is left of a board counts from behind the last cut, so that a strip needs no more than its length there.
    SawnBoard* best = nullptr;
    for (SawnBoard& board : list.boards) {
      if (board.left >= strips[strip] - kHair && (best == nullptr || board.left < best->left)) best = &board;
    }
    for (std::size_t i = 0; best == nullptr && i < boards.size(); ++i) {
      if (begun[i] || boards[i] < strips[strip] - kHair) continue;
      begun[i] = true;
      list.boards.push_back({boards[i], {}, boards[i]});
      best = &list.boards.back();
    }
    if (best == nullptr) {
      list.without.push_back(strip);
      continue;
    }
    best->strips.push_back(strip);
    best->left = std::max(0.0, best->left - strips[strip] - kerf);
  }
  return list;
}

}  // namespace

double CutList::used() const {
  double mm = 0;
  for (const SawnBoard& board : boards) mm += board.length;
  return mm;
}

CutList cut_list(const std::vector<double>& strips, const std::vector<double>& boards, double kerf) {
  std::vector<std::size_t> order(strips.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return strips[a] > strips[b]; });
  const auto worth = [](const CutList& list) { return std::pair(list.without.size(), list.used()); };
  std::optional<CutList> best;
  const auto look = [&] {
    for (const Begin begin : {Begin::Shortest, Begin::Longest}) {
      CutList list = cut_by(strips, order, boards, kerf, begin);
      if (!best || worth(list) < worth(*best)) best = std::move(list);
    }
  };
  look();
  // Longest first is a rule of thumb: where strips are left over, orders near it are tried, always the same ones.
  constexpr std::size_t kTries = 400, kMostWork = 2'000'000;
  const std::size_t tries = std::min(kTries, kMostWork / (strips.size() * (boards.size() + 1) + 1));
  std::mt19937 chance(1);
  for (std::size_t i = 0; i < tries && order.size() > 1 && !best->without.empty(); ++i) {
    std::swap(order[chance() % order.size()], order[chance() % order.size()]);
    look();
  }
  std::sort(best->without.begin(), best->without.end());
  for (SawnBoard& board : best->boards) std::sort(board.strips.begin(), board.strips.end());
  return *best;
}

CutList cut_list(const Job& job) {
  return cut_list(strip_lengths(job), job.plates.strips.boards, job.plates.strips.kerf);
}

Job strip_of(const Job& job, std::size_t row) {
  Job strip = plate_of(job, row);
  const Roles roles = roles_of(job);
  const Measured measured = measured_plate(strip, job, roles);
  strip.blank.width = length_of(measured, job.plates.strips);
  put_in_the_middle(strip, measured.words, job.blank, roles);
  return strip;
}

std::vector<double> strip_lengths(const Job& job) {
  std::vector<double> lengths;
  const CommonHeights heights = common_heights(job);
  const Roles roles = roles_of(job);
  for (const std::size_t row : plate_rows(job.plates)) {
    Cancel::check_here();
    lengths.push_back(length_of(measured_plate(plate_of(job, row, heights), job, roles), job.plates.strips));
  }
  return lengths;
}

void show_strip(Job& job, std::size_t row) {
  if (row >= job.plates.rows.size()) return;
  const Job strip =
      strip_of(job, row);  // of the pattern as it is shown: longer words would lie over what is at its ends
  show_row(job, row);
  job.blank.width = strip.blank.width;
  job.blank.keep_outs = strip.blank.keep_outs;
  for (Item& item : job.items) {
    const Item* there = strip.find(item.piece.id);
    if (there == nullptr) continue;
    if (distance(item.piece.at, there->piece.at) > kHair) item.piece.at = there->piece.at;
    auto* shape = std::get_if<PlainShape>(&item.piece.what);
    const double wide = shape == nullptr ? 0 : std::get<PlainShape>(there->piece.what).width;
    if (shape != nullptr && std::abs(shape->width - wide) > kHair) shape->width = wide;
  }
}

double shown_length(const Job& job) { return length_of(measured_plate(job, job, roles_of(job)), job.plates.strips); }

void set_shown_length(Job& job, double length, double off) {
  const Blank pattern = job.blank;
  const Roles roles = roles_of(job);
  const Box words = measured_plate(job, job, roles).words;
  const double now = words.empty() ? off : words.centre().x - pattern.width / 2;
  if (std::abs(pattern.width - length) <= kHair && std::abs(now - off) <= kHair) return;
  job.blank.width = length;
  put_in_the_middle(job, words, pattern, roles, off);
}

void make_strips(Job& job, bool strips, std::size_t row) {
  StripChoices& choices = job.plates.strips;
  if (strips == choices.wanted) return;
  choices.wanted = strips;
  if (strips) {
    const Box words = measured_plate(job, job, roles_of(job)).words;
    choices.plate = job.blank.width;
    choices.off_middle = words.empty() ? 0 : words.centre().x - job.blank.width / 2;
    show_strip(job, row);
  } else {
    if (choices.plate > 0) set_shown_length(job, choices.plate, choices.off_middle);
    choices.plate = choices.off_middle = 0;
  }
}

std::vector<double> parse_boards(const std::string& words, Unit unit) {
  constexpr std::size_t kMostBoards = 500;
  constexpr double kLongest = 20'000;  // mm
  std::vector<double> boards;
  for (std::string part : list_entries(words)) {
    std::size_t count = 1;
    for (const std::string& times : {std::string("×"), std::string("x"), std::string("*")}) {
      const std::size_t sign = part.find(times);
      if (sign == std::string::npos) continue;
      const double number = parse_length(part.substr(0, sign), Unit::Millimetre);
      if (number < 1 || number > static_cast<double>(kMostBoards) || number != std::floor(number))
        throw bad_input(say("“{0}”: a number of boards, × and their length was expected, such as 3 × 1200.", part));
      count = static_cast<std::size_t>(number);
      part.erase(0, sign + times.size());
      break;
    }
    const double length = parse_length(part, unit);
    if (!(length >= 1 && length <= kLongest)) throw bad_input(say("“{0}”: a board's length was expected.", part));
    if (boards.size() + count > kMostBoards) throw bad_input(say("At most {0} boards were expected.", kMostBoards));
    boards.insert(boards.end(), count, length);
  }
  return boards;
}

std::string boards_in_words(const std::vector<double>& boards, const LengthStyle& style) {
  std::string words;
  for (std::size_t i = 0; i < boards.size();) {
    std::size_t last = i;
    while (last + 1 < boards.size() && boards[last + 1] == boards[i]) ++last;
    words += words.empty() ? "" : "; ";
    if (last > i) words += std::to_string(last - i + 1) + " × ";
    words += format_length(boards[i], style);
    i = last + 1;
  }
  return words;
}

}  // namespace doyen
