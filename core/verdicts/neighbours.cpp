// What pieces do to each other: slits that run into neighbours, tabs that hold on nothing, V bits that cut the wall
// beside the floor they work on, pieces heaped on each other, raised ones that run into their rim.
#include <algorithm>
#include <cmath>

#include "geometry/polyline.hpp"
#include "grounds/grounds.hpp"
#include "treatments/drill/drill_places.hpp"
#include "treatments/look.hpp"
#include "verdicts/room.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kHold = 2;  // mm of waste that a tab needs beyond the slit to hold on (common practice, no source)

std::string quoted(const Item& item) { return "“" + item.piece.name + "”"; }

Region body_of(const Situation& s, std::size_t i) {
  const Region& region = s.pieces[i].outlines->region;
  const double by = s.pieces[i].around == nullptr ? 0 : s.pieces[i].around->grown;
  return by > 0 ? grow(region, by, Corner::Sharp) : region;
}

bool cuts_out(const Situation& s, std::size_t i) {
  const Bit* bit = s.rack.find(s.job.items[i].cut.bit);
  return s.job.items[i].cut.kind == Kind::CutOut && s.pieces[i].outlines != nullptr &&
         !s.pieces[i].outlines->region.empty() && bit != nullptr && bit->kind == BitKind::Flat;
}

bool within(const Region& inner, const Region& outer) { return subtract(inner, grow(outer, 0.02)).empty(); }

// Away from the other, along the line between their middles.
Remedy move_away(const Situation& s, const Item& item, const Region& own, const Region& other, double by) {
  const Point d = bounds(own).centre() - bounds(other).centre();
  const bool across = std::abs(d.x) >= std::abs(d.y);
  const double far = rounded_up(by, s.job.lengths.unit);
  const Point move = across ? Point{d.x >= 0 ? far : -far, 0} : Point{0, d.y >= 0 ? far : -far};
  const std::string way =
      across ? (d.x >= 0 ? "to the right" : "to the left") : (d.y >= 0 ? "to the back" : "to the front");
  return {"Move " + quoted(item) + " " + way + " by " + s.show(far),
          [id = item.piece.id, move](Job& job) { move_piece(job, id, move); }};
}

void check_slits(const Situation& s, std::size_t i, std::size_t k, const Region& a, const Region& b,
                 std::vector<Verdict>& out) {
  const Item &one = s.job.items[i], &two = s.job.items[k];
  if (within(a, b) || within(b, a)) return;  // one is cut out of the other on purpose
  const double wide = std::max(s.rack.find(one.cut.bit)->true_diameter(), s.rack.find(two.cut.bit)->true_diameter());
  if (!bounds(a).grown(wide).meets(bounds(b)) || intersect(grow(a, wide - 0.01), b).empty()) return;
  const bool overlap = !intersect(a, b).empty();
  const auto [gap, at] = nearest_outline(a, b);
  // Far enough for both slits and for what their tabs hold on.
  const double room = 2 * wide + kHold + 0.5;
  std::vector<Remedy> remedies{move_away(s, two, b, a, overlap ? gap + room : room - gap)};
  if (!overlap) {
    for (const Bit& bit : s.rack.bits) {
      if (bit.kind != BitKind::Flat || bit.true_diameter() > gap || bit.true_diameter() < 0.4 * gap) continue;
      if (bit.flute_length < through_depth(one.cut.through, s.job.blank)) continue;
      remedies.push_back(
          {"Cut both out with the " + bit.name, [one = one.piece.id, two = two.piece.id, id = bit.id](Job& job) {
             for (const std::string& piece : {one, two}) {
               if (Item* it = job.find(piece)) it->cut.bit = id;
             }
           }});
      break;
    }
  }
  out.push_back({Grade::Stop, overlap ? "cut-outs-overlap" : "slit-in-neighbour", two.piece.id, at,
                 overlap ? quoted(one) + " and " + quoted(two) + " overlap: both cannot be cut out whole."
                         : quoted(one) + " and " + quoted(two) + " stand " + s.show(gap) +
                               " apart; the bit that cuts between them is " + s.show(wide) + " wide.",
                 "The slit of one would take wood off the other.", std::move(remedies)});
}

// A tab must hold on waste that is left beyond the slit.
void check_tab_hold(const Situation& s, std::size_t i, const std::vector<Region>& bodies, const Region& board,
                    std::vector<Verdict>& out) {
  const Item& item = s.job.items[i];
  const PieceCuts* cuts = s.pieces[i].cuts;
  if (cuts == nullptr || !cuts->cut_out || item.cut.through.taped || item.cut.through.skin > 0) return;
  const double wide = s.rack.find(item.cut.bit)->true_diameter();
  for (const PlacedTab& tab : cuts->cut_out->tabs) {
    Point outward{tab.along.y, -tab.along.x};
    if (contains(bodies[i], tab.at + outward * 0.2)) outward = outward * -1;
    const Point hold = tab.at + outward * (wide + kHold);
    bool holds = contains(board, hold);
    for (std::size_t k = 0; k < bodies.size() && holds; ++k) {
      if (k == i || bodies[k].empty() || within(bodies[i], bodies[k])) continue;
      holds = !contains(grow(bodies[k], s.rack.find(s.job.items[k].cut.bit)->true_diameter()), hold);
    }
    if (holds) continue;
    std::vector<Remedy> remedies;
    const Box own = bounds(bodies[i]), room = s.job.blank.box().grown(-wide - kHold - 0.5);
    if (own.width() < room.width() && own.height() < room.height()) {
      const Point least{std::max(0.0, room.left - own.left) - std::max(0.0, own.right - room.right),
                        std::max(0.0, room.bottom - own.bottom) - std::max(0.0, own.top - room.top)};
      const Point round = rounded_outwards(least, s.job.lengths.unit);
      const bool fits = room.contains({own.left + round.x, own.bottom + round.y}) &&
                        room.contains({own.right + round.x, own.top + round.y});
      const Point by = fits ? round : least;
      if (length(by) > 0)
        remedies.push_back({"Move it inwards, " + way_in_words(by, s.job.lengths),
                            [id = item.piece.id, by](Job& job) { move_piece(job, id, by); }});
    }
    remedies.push_back({"I will tape it down",
                        [id = item.piece.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.through.taped = true;
                        },
                        true});
    out.push_back(
        {Grade::Stop, "tab-holds-nothing", item.piece.id, tab.at,
         "A tab of " + quoted(item) + " has less than " + s.show(kHold) + " of waste beyond the slit to hold on.",
         "The piece would come free there, and can be caught by the bit and thrown.", std::move(remedies)});
    return;
  }
}

// The V rises as a cone: where wood stands beside the floor that it works on, its flank and body cut that wood, too.
void check_wall(const Situation& s, std::size_t i, const Outlines& own, const Surroundings& around,
                std::vector<Verdict>& out) {
  const Item& item = s.job.items[i];
  const Bit* bit = s.rack.find(item.cut.bit);
  const Kind kind = item.cut.kind;
  const bool groove = kind == Kind::Incise || (kind == Kind::Inlay && item.cut.inlay.sloped);
  const bool holes = kind == Kind::Drill;
  if (around.floor.empty() || around.ground.overruled || bit == nullptr || (!groove && !holes && kind != Kind::Line))
    return;
  if (groove && bit->kind != BitKind::V) return;
  // So far beyond its outline (or line) the bit cuts at the height of the wall's top.
  const auto room_for = [&](const Bit& b) {
    const double radius = b.true_diameter() / 2;
    if (holes) return radius;
    return groove ? std::min(radius, around.wall * b.tan_half()) : b.half_width_at(item.cut.depth + around.wall);
  };
  const Region& floor = around.floor;
  const Region foot = around.lean > 0 ? grow(floor, -around.lean) : floor;
  const auto at_floor = [&](const Bit& b) {
    return groove ? 0 : holes ? b.true_diameter() / 2 : b.half_width_at(item.cut.depth);
  };
  // Clear of the wall's top, and of its foot where it leans.
  const auto clear = [&](const Region& region, const Bit& b) {
    return subtract(grow(region, room_for(b) - 0.02), floor).empty() &&
           (around.lean <= 0 || subtract(grow(region, at_floor(b) - 0.02), foot).empty());
  };
  std::vector<Line2> lines = own.lines;
  if (holes) {
    lines.clear();
    for (const Point& p : drill_points(own, item.cut.drill)) lines.push_back({p, p + Point{0.01, 0}});
  }
  const Region region = groove ? own.region : holes ? sweep(lines, 0.01) : unite(own.region, sweep(lines, 0.01));
  if (region.empty() || clear(region, *bit)) return;
  const double need = room_for(*bit);
  const auto [gap, at] = nearest_outline(region, floor);
  std::vector<Remedy> remedies;
  const double deep = s.pieces[i].cuts == nullptr ? 0 : s.pieces[i].cuts->deepest - around.ground.below;
  const Bit* slimmer = nullptr;
  for (const Bit& b : s.rack.bits) {
    if (b.kind != BitKind::V || b.tan_half() >= bit->tan_half() || !clear(region, b)) continue;
    if (b.body_depth() < deep || (slimmer != nullptr && b.tan_half() < slimmer->tan_half())) continue;
    slimmer = &b;
  }
  if (slimmer != nullptr)
    remedies.push_back({"Use the " + slimmer->name, [id = item.piece.id, to = slimmer->id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.bit = to;
                        }});
  const Point middle = bounds(region).centre();
  static constexpr std::pair<Point, const char*> kWays[] = {
      {{1, 0}, "to the right"}, {{-1, 0}, "to the left"}, {{0, 1}, "to the back"}, {{0, -1}, "to the front"}};
  double least = 1e300;
  std::pair<Point, const char*> best;
  for (const auto& way : kWays) {
    const double by = least_move(s.job.blank, region, way.first, need - std::min(gap, need) + 0.02,
                                 [&](const Region& moved) { return clear(moved, *bit); });
    if (by <= 0 || by >= least) continue;
    least = by;
    best = way;
  }
  if (least < 1e299) {
    const double by = rounded_up(least, s.job.lengths.unit);
    remedies.push_back({"Move it " + std::string(best.second) + " by " + s.show(by),
                        [id = item.piece.id, move = best.first * by](Job& job) { move_piece(job, id, move); }});
  }
  const double scale = whole_percent(largest_scale(region, middle, [&](const Region& r) { return clear(r, *bit); }));
  if (scale > 0.3 && scale < 1)
    remedies.push_back({percent_smaller(scale),
                        [id = item.piece.id, scale, middle](Job& job) { scale_piece(job, id, scale, middle); }});
  const Item* carrier = s.job.find(around.ground.of);
  out.push_back({Grade::Stop, "cuts-wall", item.piece.id, at,
                 "The " + bit->name + " would cut into the wood beside the floor of " +
                     (carrier == nullptr ? std::string("its ground") : quoted(*carrier)) + " while it works on " +
                     quoted(item) + ".",
                 "That wood stands " + s.show(around.wall) + " above the floor: the bit needs " + s.show(need) +
                     " of room there and has " + s.show(gap) + ".",
                 std::move(remedies)});
}

// Two pieces that take wood from the same place, neither of them made to carry the other.
void check_heap(const Situation& s, std::size_t i, std::size_t k, std::vector<Verdict>& out) {
  const Item &one = s.job.items[i], &two = s.job.items[k];
  if (!look_of(one.cut.kind).takes_area || !look_of(two.cut.kind).takes_area || one.cut.back != two.cut.back) return;
  const Surroundings &a = *s.pieces[i].around, &b = *s.pieces[k].around;
  if (a.ground.of == two.piece.id || b.ground.of == one.piece.id) return;
  if (a.ground.half_on == two.piece.id || b.ground.half_on == one.piece.id) return;  // said by its own sentence
  if (one.cut.kind == Kind::Raise && two.cut.kind == Kind::Raise && one.cut.raise.panel == two.cut.raise.panel) return;
  const Region &p = s.pieces[i].outlines->region, &q = s.pieces[k].outlines->region;
  if (!s.pieces[i].box.meets(s.pieces[k].box)) return;
  const double shared =
      s.found("shared area", {s.pieces[i].mark, s.pieces[k].mark}, [&] { return area(intersect(p, q)); });
  if (shared < 0.5) return;
  const double least = std::min(area(p), area(q));
  const bool alike = shared > 0.999 * std::max(area(p), area(q));
  // What lies wholly inside another is cut into it on purpose, or says itself that it cuts air.
  if (!alike && shared > 0.999 * least) return;
  const Point at = bounds(intersect(p, q)).centre();
  const Box pb = bounds(p), qb = bounds(q);
  const double apart = std::min({pb.right - qb.left, qb.right - pb.left, pb.top - qb.bottom, qb.top - pb.bottom});
  std::vector<Remedy> remedies;
  if (alike) {
    remedies.push_back({"Do not cut " + quoted(two), [id = two.piece.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.kind = Kind::None;
                        }});
  } else {
    remedies.push_back(move_away(s, two, q, p, apart + 1));
    const auto made = [&](const char* label, const char* name, Derived::How how) {
      remedies.push_back({label, [one = one.piece.id, two = two.piece.id, name = std::string(name), how](Job& job) {
                            const Item* first = job.find(one);
                            if (first == nullptr || job.find(two) == nullptr) return;
                            Item item;
                            item.piece.id = job.fresh_id("made");
                            item.piece.name = first->piece.name + name;
                            Derived from;
                            from.how = how;
                            from.from = {one, two};
                            item.piece.what = from;
                            item.cut = first->cut;
                            job.find(one)->cut.kind = Kind::None;
                            if (how == Derived::How::Join) job.find(two)->cut.kind = Kind::None;
                            job.items.push_back(std::move(item));
                          }});
    };
    made(("Cut " + quoted(two) + " away from " + quoted(one)).c_str(), ", cut away", Derived::How::TakeAway);
    if (one.cut.kind == two.cut.kind) made("Join them to one piece", ", joined", Derived::How::Join);
  }
  out.push_back({Grade::Mind, alike ? "same-place-twice" : "heaped", two.piece.id, at,
                 alike
                     ? quoted(one) + " and " + quoted(two) + " are the same shape in the same place."
                     : quoted(one) + " and " + quoted(two) + " overlap by " + format_area(shared, s.job.lengths) + ".",
                 alike ? "It would be cut twice." : "Both take wood there, and neither looks as it should.",
                 std::move(remedies)});
}

// What is raised must lie inside its panel, clear of the rim.
void check_rim(const Situation& s, std::size_t i, std::vector<Verdict>& out) {
  const Item& item = s.job.items[i];
  if (item.cut.kind != Kind::Raise || item.cut.raise.panel.empty() || item.cut.raise.panel == item.piece.id) return;
  for (std::size_t k = 0; k < s.job.items.size(); ++k) {
    if (s.job.items[k].piece.id != item.cut.raise.panel || s.pieces[k].outlines == nullptr) continue;
    std::vector<Ring> outer;
    for (const Island& island : s.pieces[k].outlines->region.islands) outer.push_back(island.rings.front());
    const Region room = clean(outer), &own = s.pieces[i].outlines->region;
    const Region over = subtract(own, grow(room, 0.01));
    if (room.empty() || over.empty() || intersect(own, room).empty()) return;
    const auto clear = [&](const Region& r) { return subtract(r, room).empty(); };
    const Point middle = bounds(own).centre();
    std::vector<Remedy> remedies;
    const double scale = whole_percent(largest_scale(own, middle, clear));
    if (scale > 0.3)
      remedies.push_back({percent_smaller(scale),
                          [id = item.piece.id, scale, middle](Job& job) { scale_piece(job, id, scale, middle); }});
    out.push_back({Grade::Mind, "runs-into-rim", item.piece.id, bounds(over).centre(),
                   quoted(item) + " runs into the rim of “" + s.job.items[k].piece.name + "”.",
                   "It stands as high as the rim there, and the two are one.", std::move(remedies)});
    return;
  }
}

}  // namespace

void check_neighbours(const Situation& s, std::vector<Verdict>& out) {
  const std::size_t n = s.job.items.size();
  std::vector<Region> bodies(n);
  bool any_body = false;
  for (std::size_t i = 0; i < n; ++i) {
    if (!cuts_out(s, i)) continue;
    bodies[i] = body_of(s, i);
    any_body = true;
  }
  const Region board = any_body ? region_of(s.job.blank) : Region{};
  for (std::size_t i = 0; i < n; ++i) {
    if (s.pieces[i].outlines == nullptr || s.pieces[i].around == nullptr || s.job.items[i].cut.kind == Kind::None)
      continue;
    if (!bodies[i].empty()) check_tab_hold(s, i, bodies, board, out);
    for (const PartOnGround& part : parts_on_grounds(*s.pieces[i].outlines, *s.pieces[i].around))
      check_wall(s, i, part.outlines, part.around, out);
    check_rim(s, i, out);
    for (std::size_t k = i + 1; k < n; ++k) {
      if (s.pieces[k].outlines == nullptr || s.pieces[k].around == nullptr) continue;
      if (!bodies[i].empty() && !bodies[k].empty()) check_slits(s, i, k, bodies[i], bodies[k], out);
      check_heap(s, i, k, out);
    }
  }
}

}  // namespace doyen
