#include "plates/strips.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <optional>
#include <random>

#include "cancel.hpp"
#include "plates/plates.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kHair = 1e-6;    // mm
constexpr double kReaches = 0.6;  // of the pattern's length: such a shape frames the words

bool grows(const Item& item, const Blank& pattern) {
  const auto* shape = std::get_if<PlainShape>(&item.piece.what);
  return shape != nullptr && std::abs(std::remainder(item.piece.turn, 180)) < 1e-9 &&
         shape->width > kReaches * pattern.width;
}

Box box_of(const Job& job, const Item& item) {
  try {
    return bounds(job.outlines(item));
  } catch (const Problem&) {
    return {};  // its own verdict says so
  }
}

// Holes and slots near an end of the pattern stay as far from that end: −1 the left one, 1 the right one, 0 neither.
int at_end(const Item& item, const Box& box, const Blank& pattern) {
  using Kind = Treatment::Kind;
  const Kind kind = item.cut.kind;
  if ((kind != Kind::Drill && kind != Kind::Pierce && kind != Kind::HangerSlot) || box.empty()) return 0;
  constexpr double kEnd = 0.25;  // of the pattern's length
  return box.right < kEnd * pattern.width ? -1 : box.left > (1 - kEnd) * pattern.width ? 1 : 0;
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
Measured measured_plate(const Job& plate, const Job& job) {
  constexpr double kBeside = 3;  // mm of wood between a hole at an end and the words (common practice, no source)
  const Blank& pattern = job.blank;
  Measured found{{}, job.plates.strips.ends};
  for (const Item& item : plate.items) {
    if (item.cut.kind == Treatment::Kind::None || grows(item, pattern)) continue;
    const Box box = box_of(plate, item);
    const int end = at_end(item, box, pattern);
    if (end == 0)
      found.words.add(box);
    else
      found.ends = std::max(found.ends, (end < 0 ? box.right : pattern.width - box.left) + kBeside);
  }
  return found;
}

double length_of(const Measured& plate, const StripChoices& choices) {
  const double needed = plate.words.width() + 2 * plate.ends;
  const double step = choices.step;
  return std::max(choices.least, step > 0 ? std::ceil(needed / step - kHair) * step : needed);
}

// `off`: mm that the words lie beside the middle.
void put_in_the_middle(Job& strip, const Box& words, const Blank& pattern, double off = 0) {
  const double longer = strip.blank.width - pattern.width;
  const double aside = words.empty() ? 0 : strip.blank.width / 2 + off - words.centre().x;
  // Clamps and faults stay as far from the end that they are nearer to.
  for (KeepOut& place : strip.blank.keep_outs) {
    if (place.x > pattern.width / 2) place.x += longer;
  }
  std::map<std::string, double> shifts;
  for (Item& item : strip.items) {
    const Box box = box_of(strip, item);
    if (auto* shape = grows(item, pattern) ? &std::get<PlainShape>(item.piece.what) : nullptr) {
      shape->width = std::max(0.1, shape->width + longer);
      if (!box.empty()) shifts[item.piece.id] = box.centre().x + longer / 2 - box_of(strip, item).centre().x;
    } else {
      const int end = at_end(item, box, pattern);
      shifts[item.piece.id] = end < 0 ? 0 : end > 0 ? longer : aside;
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
  const Blank pattern = job.blank;
  const Measured measured = measured_plate(strip, job);
  strip.blank.width = length_of(measured, job.plates.strips);
  put_in_the_middle(strip, measured.words, pattern);
  return strip;
}

std::vector<double> strip_lengths(const Job& job) {
  std::vector<double> lengths;
  const CommonHeights heights = common_heights(job);
  for (const std::size_t row : plate_rows(job.plates)) {
    Cancel::check_here();
    lengths.push_back(length_of(measured_plate(plate_of(job, row, heights), job), job.plates.strips));
  }
  return lengths;
}

void show_strip(Job& job, std::size_t row) {
  show_row(job, row);
  if (row >= job.plates.rows.size()) return;
  const Job strip = strip_of(job, row);
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

double shown_length(const Job& job) { return length_of(measured_plate(job, job), job.plates.strips); }

void set_shown_length(Job& job, double length, double off) {
  const Blank pattern = job.blank;
  const Box words = measured_plate(job, job).words;
  const double now = words.empty() ? off : words.centre().x - pattern.width / 2;
  if (std::abs(pattern.width - length) <= kHair && std::abs(now - off) <= kHair) return;
  job.blank.width = length;
  put_in_the_middle(job, words, pattern, off);
}

void make_strips(Job& job, bool strips, std::size_t row) {
  StripChoices& choices = job.plates.strips;
  if (strips == choices.wanted) return;
  choices.wanted = strips;
  if (strips) {
    const Box words = measured_plate(job, job).words;
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
  std::size_t at = 0;
  while (at <= words.size()) {
    const std::size_t end = std::min(words.find(';', at), words.size());
    std::string part = words.substr(at, end - at);
    at = end + 1;
    if (part.find_first_not_of(" \t") == std::string::npos) continue;
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
