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
#include "wording/say.hpp"

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

bool within(const Region& inner, const Region& outer) {
  constexpr double kHair = 0.02;  // mm
  const Box box = bounds(inner), room = bounds(outer).grown(kHair);
  if (!box.empty() && !(room.contains({box.left, box.bottom}) && room.contains({box.right, box.top}))) return false;
  return subtract(inner, grow(outer, kHair)).empty();
}

// Away from the other, along the line between their middles.
Remedy move_away(const Situation& s, const Item& item, const Region& own, const Region& other, double by) {
  const Point d = bounds(own).centre() - bounds(other).centre();
  const bool across = std::abs(d.x) >= std::abs(d.y);
  const double far = rounded_up(by, s.job.lengths.unit);
  const Point move = across ? Point{d.x >= 0 ? far : -far, 0} : Point{0, d.y >= 0 ? far : -far};
  const std::string way = across ? (d.x >= 0 ? say("to the right") : say("to the left"))
                                 : (d.y >= 0 ? say("to the back") : say("to the front"));
  return {say("Move {0} {1} by {2}", quoted(item), way, s.show(far)),
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
          {say("Cut both out with the {0}", bit.name), [one = one.piece.id, two = two.piece.id, id = bit.id](Job& job) {
             for (const std::string& piece : {one, two}) {
               if (Item* it = job.find(piece)) it->cut.bit = id;
             }
           }});
      break;
    }
  }
  out.push_back({Grade::Stop, overlap ? "cut-outs-overlap" : "slit-in-neighbour", two.piece.id, at,
                 overlap ? say("{0} and {1} overlap: both cannot be cut out whole.", quoted(one), quoted(two))
                         : say("{0} and {1} stand {2} apart; the bit that cuts between them is {3} wide.", quoted(one),
                               quoted(two), s.show(gap), s.show(wide)),
                 say("The slit of one would take wood off the other."), std::move(remedies)});
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
        remedies.push_back({say("Move it inwards, {0}", way_in_words(by, s.job.lengths)),
                            [id = item.piece.id, by](Job& job) { move_piece(job, id, by); }});
    }
    remedies.push_back({say("I will tape it down"),
                        [id = item.piece.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.through.taped = true;
                        },
                        true});
    out.push_back(
        {Grade::Stop, "tab-holds-nothing", item.piece.id, tab.at,
         say("A tab of {0} has less than {1} of waste beyond the slit to hold on.", quoted(item), s.show(kHold)),
         say("The piece would come free there, and can be caught by the bit and thrown."), std::move(remedies)});
    return;
  }
}

// The V rises as a cone: where wood stands beside the floor that it works on, its flank and body cut that wood, too.
// A piece on a floor, and the wall round that floor.
class BesideWall {
 public:
  BesideWall(const Situation& s, std::size_t i, const Outlines& own, const Surroundings& around)
      : s_(s), item_(s.job.items[i]), around_(around), bit_(s.rack.find(item_.cut.bit)) {
    const Kind kind = item_.cut.kind;
    groove_ = kind == Kind::Incise || (kind == Kind::Inlay && item_.cut.inlay.sloped);
    holes_ = kind == Kind::Drill;
    if (around.floor.empty() || around.ground.overruled || bit_ == nullptr) return;
    if (groove_ ? bit_->kind != BitKind::V : !holes_ && kind != Kind::Line) return;
    foot_ = around.lean > 0 ? grow(around.floor, -around.lean) : around.floor;
    std::vector<Line2> lines = own.lines;
    if (holes_) {
      lines.clear();
      for (const Point& p : drill_points(own, item_.cut.drill)) lines.push_back({p, p + Point{0.01, 0}});
    }
    region_ = groove_ ? own.region : holes_ ? sweep(lines, 0.01) : unite(own.region, sweep(lines, 0.01));
    deep_ = s.pieces[i].cuts == nullptr ? 0 : s.pieces[i].cuts->deepest - around.ground.below;
  }

  void check(std::vector<Verdict>& out) const {
    if (region_.empty() || clear(region_, *bit_)) return;
    const double need = room_for(*bit_);
    const auto [gap, at] = nearest_outline(region_, around_.floor);
    const Item* carrier = s_.job.find(around_.ground.of);
    out.push_back({Grade::Stop, "cuts-wall", item_.piece.id, at,
                   say("The {0} would cut into the wood beside the floor of {1} while it works on {2}.", bit_->name,
                       (carrier == nullptr ? say("its ground") : quoted(*carrier)), quoted(item_)),
                   say("That wood stands {0} above the floor: the bit needs {1} of room there and has {2}.",
                       s_.show(around_.wall), s_.show(need), s_.show(gap)),
                   remedies(need, gap)});
  }

 private:
  // So far beyond its outline (or line) the bit cuts at the height of the wall's top, and at its foot.
  [[nodiscard]] double room_for(const Bit& b) const {
    const double radius = b.true_diameter() / 2;
    if (holes_) return radius;
    return groove_ ? std::min(radius, around_.wall * b.tan_half()) : b.half_width_at(item_.cut.depth + around_.wall);
  }
  [[nodiscard]] double at_floor(const Bit& b) const {
    return groove_ ? 0 : holes_ ? b.true_diameter() / 2 : b.half_width_at(item_.cut.depth);
  }
  // Clear of the wall's top, and of its foot where it leans.
  [[nodiscard]] bool clear(const Region& region, const Bit& b) const {
    return subtract(grow(region, room_for(b) - 0.02), around_.floor).empty() &&
           (around_.lean <= 0 || subtract(grow(region, at_floor(b) - 0.02), foot_).empty());
  }

  [[nodiscard]] std::vector<Remedy> remedies(double need, double gap) const {
    std::vector<Remedy> all;
    const Bit* slimmer = nullptr;
    for (const Bit& b : s_.rack.bits) {
      if (b.kind != BitKind::V || b.tan_half() >= bit_->tan_half() || !clear(region_, b)) continue;
      if (b.body_depth() < deep_ || (slimmer != nullptr && b.tan_half() < slimmer->tan_half())) continue;
      slimmer = &b;
    }
    if (slimmer != nullptr)
      all.push_back({say("Use the {0}", slimmer->name), [id = item_.piece.id, to = slimmer->id](Job& job) {
                       if (Item* it = job.find(id)) it->cut.bit = to;
                     }});
    add_move(need, gap, all);
    const Point middle = bounds(region_).centre();
    const double scale =
        whole_percent(largest_scale(region_, middle, [&](const Region& r) { return clear(r, *bit_); }));
    if (scale > 0.3 && scale < 1)
      all.push_back({percent_smaller(scale),
                     [id = item_.piece.id, scale, middle](Job& job) { scale_piece(job, id, scale, middle); }});
    return all;
  }

  void add_move(double need, double gap, std::vector<Remedy>& all) const {
    double least = 1e300;
    Point best;
    for (const Point way : {Point{1, 0}, Point{-1, 0}, Point{0, 1}, Point{0, -1}}) {
      const double by = least_move(s_.job.blank, region_, way, need - std::min(gap, need) + 0.02,
                                   [&](const Region& moved) { return clear(moved, *bit_); });
      if (by <= 0 || by >= least) continue;
      least = by;
      best = way;
    }
    if (least > 1e299) return;
    const double by = rounded_up(least, s_.job.lengths.unit);
    const std::string where = best.x > 0   ? say("to the right")
                              : best.x < 0 ? say("to the left")
                              : best.y > 0 ? say("to the back")
                                           : say("to the front");
    all.push_back({say("Move it {0} by {1}", where, s_.show(by)),
                   [id = item_.piece.id, move = best * by](Job& job) { move_piece(job, id, move); }});
  }

  const Situation& s_;
  const Item& item_;
  const Surroundings& around_;
  const Bit* bit_;
  bool groove_ = false, holes_ = false;
  Region foot_, region_;
  double deep_ = 0;  // mm below its ground
};

void check_wall(const Situation& s, std::size_t i, const Outlines& own, const Surroundings& around,
                std::vector<Verdict>& out) {
  BesideWall(s, i, own, around).check(out);
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
    remedies.push_back({say("Do not cut {0}", quoted(two)), [id = two.piece.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.kind = Kind::None;
                        }});
  } else {
    remedies.push_back(move_away(s, two, q, p, apart + 1));
    const auto made = [&](const std::string& label, const std::string& name, Derived::How how) {
      remedies.push_back({label, [one = one.piece.id, two = two.piece.id, name, how](Job& job) {
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
    made(say("Cut {0} away from {1}", quoted(two), quoted(one)), say(", cut away"), Derived::How::TakeAway);
    if (one.cut.kind == two.cut.kind) made(say("Join them to one piece"), say(", joined"), Derived::How::Join);
  }
  out.push_back({Grade::Mind, alike ? "same-place-twice" : "heaped", two.piece.id, at,
                 alike
                     ? say("{0} and {1} are the same shape in the same place.", quoted(one), quoted(two))
                     : say("{0} and {1} overlap by {2}.", quoted(one), quoted(two), format_area(shared, s.job.lengths)),
                 alike ? say("It would be cut twice.") : say("Both take wood there, and neither looks as it should."),
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
                   say("{0} runs into the rim of “{1}”.", quoted(item), s.job.items[k].piece.name),
                   say("It stands as high as the rim there, and the two are one."), std::move(remedies)});
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
