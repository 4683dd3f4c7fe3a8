#include "holding/screws.hpp"

#include <algorithm>
#include <cmath>

#include "cancel.hpp"
#include "geometry/polyline.hpp"
#include "problem.hpp"
#include "treatments/drill/drill_places.hpp"
#include "treatments/start.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kApart = 400;       // mm between screws along an edge
constexpr double kFromCuts = 6;      // mm that a head keeps from every cut: more than is asked of it, room for a hand
constexpr double kFromEdge = 6;      // mm of wood outside a head: nearer to the edge a screw splits it
constexpr double kHair = 0.1;        // mm: a round head is a region with corners; none of it counts as too near
constexpr double kOfEachOther = 40;  // mm between two heads, at least

// What is cut, and what is cut out, with room round it.
struct Taken {
  Region out;   // filled: inside of it nothing is waste
  Region cuts;  // everything else that bits go through
};
Taken taken_of(const Job& job, const Rack& rack) {
  Taken taken;
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::None || holds_board(item)) continue;
    try {
      const Outlines outlines = job.outlines(item);
      const Region cuts = cut_region(job, item, outlines, rack);
      taken.cuts = unite(taken.cuts, cuts);
      if (item.cut.kind == Treatment::Kind::CutOut) taken.out = unite(taken.out, filled(unite(outlines.region, cuts)));
    } catch (const Problem&) {
      continue;  // its own verdict says so
    }
  }
  return taken;
}

// Corners, and even steps between them along the edges.
std::vector<Point> wanted_places(const Blank& blank) {
  const double w = blank.width, h = blank.height;
  std::vector<Point> wanted{{0, 0}, {w, 0}, {w, h}, {0, h}};
  for (const bool along : {true, false}) {
    const double length = along ? w : h;
    const int gaps = static_cast<int>(std::ceil(length / kApart));
    for (int k = 1; k < gaps; ++k) {
      const double at = length * k / gaps;
      for (const double side : {0.0, along ? h : w}) wanted.push_back(along ? Point{at, side} : Point{side, at});
    }
  }
  return wanted;
}

}  // namespace

bool holds_board(const Item& item) { return item.cut.kind == Treatment::Kind::Drill && item.cut.drill.screws; }

std::vector<ScrewHead> screw_heads(const Job& job) {
  std::vector<ScrewHead> heads;
  for (const Item& item : job.items) {
    if (!holds_board(item)) continue;
    try {
      const Outlines outlines = job.outlines(item);
      const std::vector<Point> holes = drill_points(outlines, item.cut.drill);
      const bool middles = item.cut.drill.spacing <= 0;
      for (std::size_t i = 0; i < holes.size(); ++i) {
        double wide = kScrewHead;
        if (middles && i < outlines.region.islands.size()) {
          const Box box = bounds(Region{{outlines.region.islands[i]}});
          wide = std::max(box.width(), box.height());
        }
        heads.push_back({{KeepOut::Kind::Screw, holes[i].x, holes[i].y, wide, wide}, item.piece.id});
      }
    } catch (const Problem&) {
      continue;
    }
  }
  return heads;
}

std::vector<KeepOut> metal_on(const Job& job) {
  std::vector<KeepOut> metal;
  for (const KeepOut& place : job.blank.keep_outs) {
    if (place.metal()) metal.push_back(place);
  }
  for (const ScrewHead& head : screw_heads(job)) metal.push_back(head.place);
  return metal;
}

Region cut_region(const Job& job, const Item& item, const Outlines& outlines, const Rack& rack) {
  using Kind = Treatment::Kind;
  const Treatment& cut = item.cut;
  const Bit* bit = rack.find(cut.bit);
  const bool along = cut.kind == Kind::Line || cut.kind == Kind::Bevel;
  const double wide = bit == nullptr ? 1 : along ? std::max(1.0, bit->half_width_at(cut.depth)) : 1;
  Region region = outlines.region;
  if (along) region = subtract(grow(region, wide), grow(region, -wide));
  if (!outlines.lines.empty()) region = unite(region, sweep(outlines.lines, wide));
  if (cut.kind == Kind::CutOut && bit != nullptr) return subtract(grow(region, bit->true_diameter()), region);
  if (cut.kind == Kind::Raise) {
    const Item* panel = job.find(cut.raise.panel);
    return filled(panel == nullptr ? grow(region, cut.margin) : job.outlines(*panel).region);
  }
  return region;
}

Region waste_room(const Job& job, const Rack& rack, double from_edge, double from_cuts) {
  const Taken taken = taken_of(job, rack);
  if (taken.out.empty())
    throw bad_input(
        say("Nothing is cut out, so there is no waste for screws: hold the board by clamps at its edges or by tape."));
  Region room = grow(region_of(job.blank), -from_edge);
  room = subtract(room, grow(unite(taken.out, taken.cuts), from_cuts));
  for (const KeepOut& place : job.blank.keep_outs) {
    const double clear = place.kind == KeepOut::Kind::Clamp ? std::max(from_cuts, kNutHalf + 1)
                         : place.metal()                    ? from_cuts + kHair
                                                            : from_edge - kFromEdge + 1;
    room = subtract(room, grow(region_of(place), clear));
  }
  return room;
}

std::vector<Point> free_waste(const Job& job, const Rack& rack, double from_edge, double from_cuts) {
  return free_places(job, waste_room(job, rack, from_edge, from_cuts));
}

std::vector<Point> free_places(const Job& job, const Region& room) {
  // Every place on a grid, and the room's own corners, since it may be smaller than the grid.
  const Box box = job.blank.box();
  const double step = std::max(2.0, std::max(box.width(), box.height()) / 250);
  std::vector<Point> free;
  for (double y = box.bottom; y <= box.top; y += step) {
    Cancel::check_here();
    for (double x = box.left; x <= box.right; x += step) {
      if (contains(room, {x, y})) free.push_back({x, y});
    }
  }
  for (const Island& island : room.islands) {
    for (const Ring& ring : island.rings) free.insert(free.end(), ring.begin(), ring.end());
  }
  return free;
}

std::vector<Point> places_for_screws(const Job& job, const Rack& rack, double head) {
  const double half = head / 2;
  const std::vector<Point> free = free_waste(job, rack, half + kFromEdge, half + kFromCuts);
  const Box box = job.blank.box();
  // The nearest to each that is wanted.
  std::vector<Point> places;
  for (const Point& wanted : wanted_places(job.blank)) {
    const Point* best = nullptr;
    for (const Point& p : free) {
      const bool alone = std::all_of(places.begin(), places.end(),
                                     [&](Point other) { return distance(p, other) >= head + kOfEachOther; });
      if (alone && (best == nullptr || distance(p, wanted) < distance(*best, wanted))) best = &p;
    }
    // One that had to go half across the board holds nothing there.
    if (best != nullptr && distance(*best, wanted) < 0.4 * std::max(box.width(), box.height())) places.push_back(*best);
  }
  if (places.size() < 2)
    throw bad_input(
        say("The waste round what is cut out leaves no room for two screws with heads of {0}: take a larger board, or "
            "hold it by clamps or tape.",
            size_in_words(head, job.lengths)));
  return places;
}

Job with_screws(const Job& job, const Rack& rack, double head) {
  Job out = job;
  std::erase_if(out.items, [&](const Item& item) { return holds_board(item) && !job.is_source(item.piece.id); });
  const LookStart start{out.blank, out.lengths, rack, [](const Bit&) { return 0.0; }};
  Treatment drilled = start_look(Treatment::Kind::Drill, Treatment{}, start);
  const Bit* bit = rack.find(drilled.bit);
  if (bit == nullptr) throw bad_input(say("The rack has no bit that drills holes for screws; add a flat one of 3 mm."));
  drilled.depth = bit->flute_length > 0 ? std::min(out.blank.thickest(), bit->flute_length) : out.blank.thickest();
  drilled.drill.screws = true;
  const std::vector<Point> places = places_for_screws(out, rack, head);
  const std::string group = out.fresh_id("screws");
  for (const Point& place : places) {
    Item item;
    item.piece.id = out.fresh_id("screw");
    item.piece.name = out.fresh_name(say("Screw"));
    PlainShape circle;
    circle.kind = PlainShape::Kind::Ellipse;
    circle.width = circle.height = head;
    item.piece.what = circle;
    item.piece.at = place;
    item.cut = drilled;
    item.group = group;
    out.items.push_back(std::move(item));
  }
  return out;
}

}  // namespace doyen
