#include "nesting/nest.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "cancel.hpp"
#include "geometry/polyline.hpp"
#include "holding/screws.hpp"
#include "holding/turning_pins.hpp"
#include "job/clip.hpp"
#include "measure/list_entries.hpp"
#include "problem.hpp"
#include "treatments/look.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// One connected thing of a piece: an island with its openings, or a stroke line.
struct Component {
  Outlines outlines;
  int island = -1;  // its number among the piece's islands; -1: a line
};

std::vector<Component> components_of(const Outlines& outlines) {
  std::vector<Component> all;
  for (std::size_t i = 0; i < outlines.region.islands.size(); ++i) {
    Component one;
    one.outlines.region.islands = {outlines.region.islands[i]};
    one.island = static_cast<int>(i);
    all.push_back(std::move(one));
  }
  for (const Line2& line : outlines.lines) {
    Component one;
    one.outlines.lines = {line};
    all.push_back(std::move(one));
  }
  return all;
}

bool is_cut(const Item& item) { return item.cut.kind != Treatment::Kind::None; }

// A part's outline without its openings, where it is drawn.
struct Body {
  std::string piece;
  int island = 0;  // of the piece
  Region whole;
  Box box;
};

// What of a piece lies in which part.
struct Shares {
  std::map<std::size_t, std::vector<Component>> by_part;
  bool beside = false, over_several = false;
};

bool meets(const Body& body, const Component& one, const Box& box) {
  if (!body.box.meets(box)) return false;
  if (one.island >= 0) return !intersect(body.whole, one.outlines.region).empty();
  return std::any_of(one.outlines.lines.front().begin(), one.outlines.lines.front().end(),
                     [&](Point p) { return contains(body.whole, p); });
}

bool lies_within(const Body& body, const Component& one) {
  if (one.island >= 0) return subtract(one.outlines.region, body.whole).empty();
  const Line2& line = one.outlines.lines.front();
  return std::all_of(line.begin(), line.end(), [&](Point p) { return contains(body.whole, p); });
}

// The parts that it lies in: itself, where it is one; else those that it meets, and of several the one that it lies
// wholly within.
std::vector<std::size_t> parts_of(const std::string& piece, const Component& one, const std::vector<Body>& bodies) {
  const Box box = bounds(one.outlines);
  std::vector<std::size_t> met, within;
  for (std::size_t i = 0; i < bodies.size(); ++i) {
    if (one.island >= 0 && bodies[i].piece == piece && bodies[i].island == one.island) return {i};
    if (!meets(bodies[i], one, box)) continue;
    met.push_back(i);
    if (lies_within(bodies[i], one)) within.push_back(i);
  }
  return within.size() == 1 ? within : met;
}

Shares lie_in(const std::string& piece, const Outlines& outlines, const std::vector<Body>& bodies) {
  Shares out;
  for (Component& one : components_of(outlines)) {
    Cancel::check_here();
    const std::vector<std::size_t> in = parts_of(piece, one, bodies);
    out.beside = out.beside || in.empty();
    out.over_several = out.over_several || in.size() > 1;
    if (in.size() == 1) out.by_part[in.front()].push_back(std::move(one));
  }
  return out;
}

Outlines joined(const std::vector<Component>& components) {
  Outlines all;
  for (const Component& one : components) {
    for (const Island& island : one.outlines.region.islands) all.region.islands.push_back(island);
    for (const Line2& line : one.outlines.lines) all.lines.push_back(line);
  }
  return all;
}

// The middle of the stretch that a tab by hand stands on, on the board.
Point tab_at(const Region& region, const TabPlace& tab) {
  const auto island = static_cast<std::size_t>(tab.island);
  return island < region.islands.size() ? on_ring(region.islands[island].rings.front(), tab.along).at : Point{};
}

// Outlines that lie so on the board, as a piece with that cut. Of a cut from the back the piece is what is seen from
// there.
void set_outlines(Item& item, const Outlines& outlines) {
  const Point middle = bounds(outlines).centre();
  Outlines drawn = outlines;
  if (item.cut.back && !look_of(item.cut.kind).to_back) {
    const Transform mirror{-1, 0, 0, 1, 2 * middle.x, 0};
    drawn.region = transformed(drawn.region, mirror);
    for (Line2& line : drawn.lines) {
      for (Point& p : line) p = mirror.apply(p);
    }
  }
  item.piece.what = frozen(drawn, item.piece.name);
  item.piece.at = middle;
  item.piece.turn = 0;
}

// Tabs that stand by hand, on the outlines as the item has them now.
void set_tabs(Item& item, const std::vector<Point>& at) {
  std::vector<TabPlace>& placed = item.cut.through.tabs.placed;
  placed.clear();
  if (at.empty()) return;
  const Region region = outlines_of(item.piece).region;
  for (const Point p : at) {
    TabPlace best;
    double nearest = 1e300;
    for (std::size_t i = 0; i < region.islands.size(); ++i) {
      const Ring& ring = region.islands[i].rings.front();
      const double share = share_nearest(ring, p), away = distance(on_ring(ring, share).at, p);
      if (away >= nearest) continue;
      nearest = away;
      best = {static_cast<int>(i), share};
    }
    if (nearest < 1e300) placed.push_back(best);
  }
}

Item item_of(const Item& from, const Outlines& own, const std::vector<Component>& components, const Region& drawn) {
  Item item = from;
  item.group.clear();
  set_outlines(item, own);
  std::vector<Point> tabs;
  for (const TabPlace& tab : from.cut.through.tabs.placed) {
    if (std::any_of(components.begin(), components.end(), [&](const Component& c) { return c.island == tab.island; }))
      tabs.push_back(tab_at(drawn, tab));
  }
  set_tabs(item, tabs);
  return item;
}

// What the part is called: by its letter, or its number among the piece's.
std::string name_of(const Item& item, const Outlines& outlines, std::size_t island) {
  if (outlines.region.islands.size() == 1) return item.piece.name;
  const Box box = bounds(outlines.region.islands[island]);
  const auto letter = std::find_if(outlines.letters.begin(), outlines.letters.end(),
                                   [&](const LetterMark& mark) { return mark.box.contains(box.centre()); });
  if (letter != outlines.letters.end()) return say("{0} of {1}", letter->text, item.piece.name);
  return say("{0}, part {1}", item.piece.name, island + 1);
}

class Parting {
 public:
  Parting(const Job& job, const Rack& rack) : job_(job), rack_(rack) {}

  NestParts parts() {
    find_bodies();
    for (const Item& item : job_.items) {
      if (is_cut(item) || job_.bounds_a_panel(item.piece.id)) add_content(item);
    }
    for (std::size_t i = 0; i < out_.parts.size(); ++i) close(i);
    return std::move(out_);
  }

 private:
  // Each island of what is cut out, but those that lie wholly in another: these are cut out of that one.
  void find_bodies() {
    struct Found {
      const Item* item;
      const Outlines* outlines;
      std::size_t island;
      Region whole;
    };
    std::vector<Found> found;
    for (const Item& item : job_.items) {
      if (item.cut.kind != Treatment::Kind::CutOut) continue;
      const Outlines& outlines = outlines_of_item(item);
      if (const Bit* bit = rack_.find(item.cut.bit)) out_.bit = std::max(out_.bit, bit->true_diameter());
      for (std::size_t i = 0; i < outlines.region.islands.size(); ++i)
        found.push_back({&item, &outlines, i, filled(Region{{outlines.region.islands[i]}})});
    }
    for (const Found& one : found) {
      const Box box = bounds(one.whole);
      const bool inside = std::any_of(found.begin(), found.end(), [&](const Found& other) {
        return &other != &one && area(other.whole) > area(one.whole) && bounds(other.whole).meets(box) &&
               subtract(one.whole, other.whole).empty();
      });
      if (inside) continue;
      bodies_.push_back({one.item->piece.id, static_cast<int>(one.island), one.whole, box});
      out_.parts.push_back({name_of(*one.item, *one.outlines, one.island), one.item->piece.id, one.whole, {}});
    }
  }

  const Outlines& outlines_of_item(const Item& item) {
    const auto [found, fresh] = outlines_.try_emplace(item.piece.id);
    if (fresh) found->second = job_.outlines(item);
    return found->second;
  }

  void add_content(const Item& item) {
    const Outlines& outlines = outlines_of_item(item);
    const Shares shares = lie_in(item.piece.id, outlines, bodies_);
    if (holds_board(item) || is_turning_pin(item)) return note_holding(item);
    if (parted_ground(item)) return out_.over_several.push_back(item.piece.id);
    if (is_cut(item) && shares.beside) out_.beside.push_back(item.piece.id);
    if (is_cut(item) && shares.over_several) out_.over_several.push_back(item.piece.id);
    for (const auto& [part, components] : shares.by_part) {
      const Outlines own = joined(components);
      out_.parts[part].items.push_back(item_of(item, own, components, outlines.region));
      out_.parts[part].from.push_back(item.piece.id);
      // A slit round the part itself is what parts keep their distance for.
      if (is_cut(item) && item.cut.kind != Treatment::Kind::CutOut)
        out_.parts[part].shape = unite(out_.parts[part].shape, cut_region(job_, item, own, rack_));
    }
  }

  // The ground round what is raised lies in other parts, too.
  bool parted_ground(const Item& item) {
    if (item.cut.kind != Treatment::Kind::Raise) return false;
    const Item* panel = job_.find(item.cut.raise.panel);
    if (panel == nullptr) return false;
    const Shares own = lie_in(panel->piece.id, outlines_of_item(*panel), bodies_);
    return own.over_several || own.by_part.size() != 1;
  }

  // They are of the board, not of a part.
  void note_holding(const Item& item) {
    out_.screws = out_.screws || holds_board(item);
    out_.pins = out_.pins || is_turning_pin(item);
  }

  // What bounds a panel for nothing of this part goes again.
  void close(std::size_t part) {
    NestPart& it = out_.parts[part];
    std::set<std::string> panels;
    for (const Item& item : it.items) {
      if (item.cut.kind == Treatment::Kind::Raise) panels.insert(item.cut.raise.panel);
    }
    for (std::size_t i = it.items.size(); i-- > 0;) {
      if (is_cut(it.items[i]) || panels.contains(it.from[i])) continue;
      it.items.erase(it.items.begin() + static_cast<std::ptrdiff_t>(i));
      it.from.erase(it.from.begin() + static_cast<std::ptrdiff_t>(i));
    }
  }

  const Job& job_;
  const Rack& rack_;
  NestParts out_;
  std::vector<Body> bodies_;
  std::map<std::string, Outlines> outlines_;
};

Outlines placed(const Outlines& outlines, const Transform& by) {
  Outlines out;
  out.region = transformed(outlines.region, by);
  out.lines = outlines.lines;
  for (Line2& line : out.lines) {
    for (Point& p : line) p = by.apply(p);
  }
  return out;
}

// A part's pieces where it lies, with ids of their own.
void put_part(Job& board, const Job& job, const NestPart& part, std::size_t number, const PackedPart& at) {
  const std::string stem = "part-" + std::to_string(number + 1);
  std::map<std::string, std::string> now;
  for (const std::string& id : part.from) now[id] = stem + "-" + id;
  const Transform by = at.place();
  Job drawn;  // so that a cut from the back is seen through the wood
  for (const Item& from : part.items) {
    const Outlines outlines = drawn.outlines(from);
    Item item = from;
    rename_pieces(item, now);
    item.piece.id = now[from.piece.id];
    item.piece.name =
        part.items.size() > 1 && from.piece.name != part.name ? part.name + ": " + from.piece.name : part.name;
    item.group = stem;
    set_outlines(item, placed(outlines, by));
    std::vector<Point> tabs;
    for (const TabPlace& tab : from.cut.through.tabs.placed) tabs.push_back(by.apply(tab_at(outlines.region, tab)));
    set_tabs(item, tabs);
    item.cut.line.hatch_angle = std::remainder(item.cut.line.hatch_angle + at.turn, 180);
    board.items.push_back(std::move(item));
  }
  carry_choices(board, job, now);
}

bool stays_with_wood(KeepOut::Kind kind) { return kind != KeepOut::Kind::Clamp && kind != KeepOut::Kind::Screw; }

// The boards that parts may be laid on, in order: those named, or the job's own again and again. Faults are of the
// first; clamps and screws stand on each of the job's own.
std::vector<Blank> blanks_of(const Job& job, std::size_t most) {
  std::vector<Blank> all;
  Blank own = job.blank;
  own.runs_off = {};
  if (job.nest.boards.empty()) {
    for (std::size_t i = 0; i < most; ++i) {
      all.push_back(own);
      std::erase_if(own.keep_outs, [](const KeepOut& place) { return stays_with_wood(place.kind); });
    }
    return all;
  }
  own.form = BlankForm::Rectangle;
  own.edge.clear();
  own.keep_outs.clear();
  for (const NestBoard& board : job.nest.boards) {
    own.width = board.width;
    own.height = board.height;
    own.margin = std::min(job.blank.margin, job.nest.margin);
    all.push_back(own);
  }
  return all;
}

Region room_on(const Blank& blank, double margin) {
  Region room = grow(region_of(blank), -margin, Corner::Sharp);
  for (const KeepOut& place : blank.keep_outs) room = subtract(room, grow(region_of(place), margin));
  return room;
}

std::vector<double> turns_of(NestChoices::Turn turn) {
  switch (turn) {
    case NestChoices::Turn::Never:
      return {0};
    case NestChoices::Turn::Half:
      return {0, 180};
    case NestChoices::Turn::Any:
      break;
  }
  return {0, 90, 180, 270, 45, 135, 225, 315};
}

// The job's own choices on such a blank, with nothing on it yet.
Job bare(const Job& job, const Blank& blank) {
  Job board = job;
  board.nest = {};
  board.plates = {};
  board.panels = {};
  board.items.clear();
  board.finish.colours.clear();
  board.run.accepted.clear();
  board.run.reasons.clear();
  board.run.made = 0;
  board.blank = blank;
  board.blank.margin = std::min(blank.margin, job.nest.margin);
  return board;
}

// Screws and turning pins where this board has room for them; where it has none, its own verdicts say what is lacking.
void hold(Job& board, const NestParts& drawn, const Rack& rack) {
  const auto with = [&](auto make) {
    try {
      board = make();
    } catch (const Problem&) {
      return;
    }
  };
  if (drawn.pins) with([&] { return with_turning_pins(board, rack); });
  if (drawn.screws) with([&] { return with_screws(board, rack, kScrewHead); });
}

}  // namespace

NestParts nest_parts(const Job& job, const Rack& rack) { return Parting(job, rack).parts(); }

double nest_margin(const Job& job, const NestParts& parts) { return parts.bit + job.nest.margin; }

Nested nested(const Job& job, const Rack& rack) {
  Nested out;
  out.drawn = nest_parts(job, rack);
  std::vector<Region> shapes, rooms;
  for (const NestPart& part : out.drawn.parts) shapes.push_back(part.shape);
  if (shapes.empty()) return out;
  constexpr std::size_t kMost = 100;  // of the job's own board
  const std::vector<Blank> blanks = blanks_of(job, std::min(shapes.size(), kMost));
  for (const Blank& blank : blanks) rooms.push_back(room_on(blank, nest_margin(job, out.drawn)));
  // Two slits lie between neighbours, and the wood that stays.
  const Packed packed = packed_as_before(shapes, rooms, 2 * out.drawn.bit + job.nest.gap, turns_of(job.nest.turn));
  out.without = packed.without;
  for (std::size_t i = 0; i < blanks.size(); ++i) {
    NestedBoard board;
    double wood = 0;
    for (const PackedPart& at : packed.parts) {
      if (at.board != i) continue;
      if (board.parts.empty()) board.job = bare(job, blanks[i]);
      put_part(board.job, job, out.drawn.parts[at.part], at.part, at);
      board.parts.push_back(at.part);
      wood += area(shapes[at.part]);
    }
    if (board.parts.empty()) continue;
    hold(board.job, out.drawn, rack);
    board.share = wood / std::max(1.0, area(region_of(blanks[i])));
    out.boards.push_back(std::move(board));
  }
  for (std::size_t i = 0; i < out.boards.size(); ++i)
    out.boards[i].job.name = say("{0}, board {1} of {2}", job.name, i + 1, out.boards.size());
  return out;
}

std::string board_in_words(const Nested& laid, std::size_t board) {
  const NestedBoard& it = laid.boards[board];
  return say("Board {0}: {1} {1|part|parts}, {2} % used", board + 1, it.parts.size(),
             static_cast<int>(std::lround(it.share * 100)));
}

namespace {

// What stands between “×”, “x” or “*”.
std::vector<std::string> factors_of(std::string words) {
  for (const std::string& times : {std::string("×"), std::string("*"), std::string("X")}) {
    for (std::size_t i = 0; (i = words.find(times, i)) != std::string::npos;) words.replace(i, times.size(), "x");
  }
  std::vector<std::string> factors{""};
  for (const char c : words) {
    if (c == 'x')
      factors.emplace_back();
    else
      factors.back() += c;
  }
  return factors;
}

// “2 × 1200 × 600”, one entry of the list.
std::pair<std::size_t, NestBoard> parse_entry(const std::string& words, Unit unit) {
  const auto expected = [&] {
    return bad_input(
        say("“{0}”: a board's two sides were expected, or how many and their sides, such as 2 × 1200 × 600.", words));
  };
  std::vector<std::string> figures = factors_of(words);
  if (figures.size() < 2 || figures.size() > 3) throw expected();
  double count = 1;
  if (figures.size() == 3) {
    count = parse_length(figures.front(), Unit::Millimetre);
    if (count < 1 || count > static_cast<double>(kMostNestBoards) || count != std::floor(count)) throw expected();
    figures.erase(figures.begin());
  }
  const NestBoard board{parse_length(figures[0], unit), parse_length(figures[1], unit)};
  for (const double side : {board.width, board.height}) {
    if (!(side >= 1 && side <= kLargestNestBoard)) throw expected();
  }
  return {static_cast<std::size_t>(count), board};
}

}  // namespace

std::vector<NestBoard> parse_nest_boards(const std::string& words, Unit unit) {
  std::vector<NestBoard> boards;
  for (const std::string& part : list_entries(words)) {
    const auto [count, board] = parse_entry(part, unit);
    if (boards.size() + count > kMostNestBoards)
      throw bad_input(say("At most {0} boards were expected.", kMostNestBoards));
    boards.insert(boards.end(), count, board);
  }
  return boards;
}

std::string nest_boards_in_words(const std::vector<NestBoard>& boards, const LengthStyle& style) {
  std::string words;
  for (std::size_t i = 0; i < boards.size();) {
    std::size_t count = 1;
    while (i + count < boards.size() && boards[i + count] == boards[i]) ++count;
    words += (words.empty() ? "" : "; ") + (count > 1 ? std::to_string(count) + " × " : std::string()) +
             format_length(boards[i].width, style, false) + " × " + format_length(boards[i].height, style);
    i += count;
  }
  return words;
}

}  // namespace doyen
