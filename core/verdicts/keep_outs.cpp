// Clamps, screws, knots, sapwood, cracks and glue lines that cuts come too near.
#include <algorithm>
#include <array>
#include <functional>
#include <numbers>
#include <numeric>

#include "geometry/polyline.hpp"
#include "geometry/united.hpp"
#include "holding/screws.hpp"
#include "job/layout.hpp"
#include "problem.hpp"
#include "verdicts/room.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kClear = 3;  // mm that cuts keep from metal (common practice, no source)

std::string name_of(KeepOut::Kind kind) {
  switch (kind) {
    case KeepOut::Kind::Clamp:
      return say("a clamp");
    case KeepOut::Kind::Screw:
      return say("a screw");
    case KeepOut::Kind::Knot:
      return say("a knot");
    case KeepOut::Kind::Sapwood:
      return "sapwood";
    case KeepOut::Kind::Crack:
      return say("a crack");
    case KeepOut::Kind::GlueLine:
      return say("a glue line");
  }
  return {};
}

// What stands or lies there, and whose hole it is: empty where it is marked on the blank.
struct Obstacle {
  KeepOut place;
  Region near;  // with the room that cuts keep from it
  std::string screw_of;
};

Region with_room(const KeepOut& place) { return grow(region_of(place), place.metal() ? kClear : 0.01); }

// mm from the middle of a move to the metal's edge.
double apart(const KeepOut& place, Point a, Point b) {
  return place.round() ? distance(Point{place.x, place.y}, a, b) - place.width / 2 : distance(place.box(), a, b);
}

bool pass_meets(const Pass& pass, const Bit& bit, const KeepOut& place) {
  const Box box = place.box().grown(bit.true_diameter() / 2 + kClear);
  return any_move(pass, [&](const Point3& a, const Point3& b) {
    Box move;
    move.add(a.flat());
    move.add(b.flat());
    if (!box.meets(move)) return false;
    const double wide = place.kind == KeepOut::Kind::Clamp
                            ? bit.true_diameter() / 2
                            : bit.half_width_at(std::max(-a.z, -b.z) + place.above_face());
    return apart(place, a.flat(), b.flat()) < std::min(wide, bit.true_diameter() / 2) + kClear - 1e-6;
  });
}

// The bit's edge comes nearer to metal than it may, in a move that this piece is really cut by: with the ground sunk
// round it, a bevel's slope, a cut-out's ramp.
bool moves_meet(const PieceCuts& cuts, const KeepOut& place, const Situation& s) {
  return std::any_of(cuts.operations.begin(), cuts.operations.end(), [&](const Operation& op) {
    const Bit* bit = s.rack.find(op.bit);
    if (bit == nullptr) return false;
    if (!place.stands_while(op.back)) return false;
    const auto meets = [&](const Pass& pass) { return pass_meets(pass, *bit, place); };
    // From the back, too, where it may stay at its place on the bed.
    const bool on_bed = !op.back || (place.metal() && place.up == KeepOut::Up::Whichever);
    if (on_bed && std::any_of(op.passes.begin(), op.passes.end(), meets)) return true;
    if (!op.back) return false;
    const std::vector<Pass> passes = turned_over(op.passes, s.job.blank, s.job.run.turn);
    return std::any_of(passes.begin(), passes.end(), meets);
  });
}

// Where the nut above this piece's bits would come as near to a clamp, its middle not nearer than the bit may come: the
// bit, and how far it stands out of the collet at least, mm.
struct NutMeets {
  const Bit* bit = nullptr;
  double out = 0;
};
NutMeets nut_meets(const PieceCuts& cuts, const KeepOut& clamp, const Situation& s) {
  const Box near = clamp.box().grown(kNutHalf);
  for (const Operation& op : cuts.operations) {
    const Bit* bit = s.rack.find(op.bit);
    if (!clamp.stands_while(op.back) || bit == nullptr || bit->flute_length <= 0) continue;
    // Its flutes stand out whole; a cut deeper than they are long asks for more.
    const double out = std::max(bit->flute_length, op.depth - op.ground + 5);
    const std::vector<Pass> turned =
        op.back ? turned_over(op.passes, s.job.blank, s.job.run.turn) : std::vector<Pass>();
    const auto meets = [&](const Point3& a, const Point3& b) {
      if (out + std::min(a.z, b.z) > clamp.above_face() + 1) return false;  // the nut stays above it
      Box move;
      move.add(a.flat());
      move.add(b.flat());
      return near.meets(move) && distance(clamp.box(), a.flat(), b.flat()) < kNutHalf;
    };
    const std::vector<Pass>& passes = op.back ? turned : op.passes;
    if (std::any_of(passes.begin(), passes.end(), [&](const Pass& pass) { return any_move(pass, meets); }))
      return {bit, out};
  }
  return {};
}

KeepOut moved(KeepOut place, Point by) {
  place.x += by.x;
  place.y += by.y;
  return place;
}

// Whether what is cut stays clear of all metal when it is shifted so far; what it is asked of is not moved, so the
// metal is, the other way.
using Clear = std::function<bool(Point by)>;

class Placer {
 public:
  Placer(const Region& cuts, const Region& forbidden, const Box& room, Unit unit, Clear clear)
      : cuts_(cuts), forbidden_(forbidden), room_(room), unit_(unit), clear_(std::move(clear)) {}

  // The nearest shift that is clear, looked for on rings that widen, by round figures; nothing when there is none on
  // the board.
  [[nodiscard]] bool find(Point& shift) const {
    const Box box = bounds(cuts_);
    const double most = std::max(room_.width(), room_.height());
    for (int ring = 1; 2 * ring < most; ++ring) {
      const double r = 2 * ring;
      const int looks = std::clamp(static_cast<int>(r / 2), 8, 48);
      for (int i = 0; i < looks; ++i) {
        const double a = 2 * std::numbers::pi * i / looks;
        const Point by = rounded_outwards({std::round(r * std::cos(a)), std::round(r * std::sin(a))}, unit_);
        if (!room_.contains({box.left + by.x, box.bottom + by.y}) ||
            !room_.contains({box.right + by.x, box.top + by.y}))
          continue;
        if (!intersect(transformed(cuts_, Transform::move(by.x, by.y)), forbidden_).empty() || !clear_(by)) continue;
        shift = by;
        return true;
      }
    }
    return false;
  }

 private:
  const Region& cuts_;
  const Region& forbidden_;
  Box room_;
  Unit unit_;
  Clear clear_;
};

// No move of any of these pieces meets metal, the metal where `seen` says.
template <typename Seen>
bool all_clear(const Situation& s, const std::vector<Obstacle>& obstacles, const std::vector<std::size_t>& pieces,
               const Seen& seen) {
  return std::none_of(obstacles.begin(), obstacles.end(), [&](const Obstacle& one) {
    return one.place.metal() && std::any_of(pieces.begin(), pieces.end(), [&](std::size_t i) {
             return s.pieces[i].cuts != nullptr && !(holds_board(s.job.items[i]) && !one.screw_of.empty()) &&
                    moves_meet(*s.pieces[i].cuts, seen(one.place), s);
           });
  });
}

// The whole layout clear of everything, its arrangement kept: shifted, or turned half round and shifted.
void add_layout_remedies(const Situation& s, const Region& layout, const Region& forbidden,
                         const std::vector<Obstacle>& obstacles, std::vector<Remedy>& remedies) {
  const Box room = s.job.blank.box();
  std::vector<std::size_t> all(s.job.items.size());
  std::iota(all.begin(), all.end(), std::size_t{0});
  const Clear shifted = [&](Point by) {
    return all_clear(s, obstacles, all, [&](const KeepOut& place) { return moved(place, {-by.x, -by.y}); });
  };
  Point by;
  if (Placer(layout, forbidden, room, s.job.lengths.unit, shifted).find(by)) {
    remedies.push_back({say("Shift the whole layout {0}", way_in_words(by, s.job.lengths)),
                        [by](Job& job) { shift_layout(job, by); }});
  } else if (may_turn_layout(s.job)) {
    const Point middle = bounds(layout).centre();
    const Clear turned_clear = [&](Point on) {
      return all_clear(s, obstacles, all, [&](KeepOut place) {
        place.x = 2 * middle.x - (place.x - on.x);
        place.y = 2 * middle.y - (place.y - on.y);
        return place;
      });
    };
    const Region turned = transformed(
        layout,
        Transform::move(-middle.x, -middle.y).then(Transform::turn(180)).then(Transform::move(middle.x, middle.y)));
    by = {};
    if (!(intersect(turned, forbidden).empty() && turned_clear({})) &&
        !Placer(turned, forbidden, room, s.job.lengths.unit, turned_clear).find(by))
      return;
    remedies.push_back({say("Turn the whole layout half round"), [by, middle](Job& job) {
                          turn_layout(job, 180, middle);
                          shift_layout(job, by);
                        }});
  }
}

std::vector<Obstacle> obstacles_of(const Job& job) {
  std::vector<Obstacle> obstacles;
  for (const KeepOut& place : job.blank.keep_outs) obstacles.push_back({place, with_room(place), {}});
  for (const ScrewHead& head : screw_heads(job)) obstacles.push_back({head.place, with_room(head.place), head.piece});
  return obstacles;
}

// Other places for the screws, where there are any; else how to hold it is the user's to choose.
void add_screws_remedy(const Situation& s, double head, std::vector<Remedy>& remedies) {
  try {
    (void)with_screws(s.job, s.rack, head);
  } catch (const Problem&) {
    return;
  }
  remedies.push_back({say("Find other places for the screws"), [rack = s.rack, head](Job& job) {
                        try {
                          job = with_screws(job, rack, head);
                        } catch (const Problem&) {
                          return;  // there was room when it was offered
                        }
                      }});
}

// Everything that stands and lies on the board, and the pieces that are cut there.
class Looker {
 public:
  explicit Looker(const Situation& s) : s_(s), obstacles_(obstacles_of(s.job)) {
    if (obstacles_.empty()) return;
    for (const Obstacle& one : obstacles_) all_ = unite(all_, one.near);
  }

  void look(std::vector<Verdict>& out) const {
    if (obstacles_.empty()) return;
    for (std::size_t i = 0; i < s_.job.items.size(); ++i) {
      if (is_cut(i) && comes_near(i) && !look_at(i, out)) look_at_nut(i, out);
    }
  }

 private:
  [[nodiscard]] bool is_cut(std::size_t i) const {
    return s_.pieces[i].outlines != nullptr && s_.job.items[i].cut.kind != Treatment::Kind::None;
  }
  [[nodiscard]] Region cuts_of(std::size_t i) const {
    return cut_region(s_.job, s_.job.items[i], *s_.pieces[i].outlines, s_.rack);
  }

  // Whether anything stands or lies where this piece's outlines or bits go, by their boxes: regions of what is cut cost
  // far more, and most pieces lie far from all of it.
  [[nodiscard]] bool comes_near(std::size_t i) const {
    const PieceState& piece = s_.pieces[i];
    if (piece.cuts == nullptr) return true;
    Box goes = bounds(*piece.outlines);
    double widest = kNutHalf;
    for (const Operation& op : piece.cuts->operations) {
      if (const Bit* bit = s_.rack.find(op.bit)) widest = std::max(widest, bit->true_diameter());
      for (const Pass& pass : op.passes) {
        for (const Point3& p : pass.points) {
          goes.add(p.flat());
          if (op.back) goes.add(turned_over(p.flat(), s_.job.blank, s_.job.run.turn));
        }
      }
    }
    const Box around = goes.grown(widest + kClear);
    return std::any_of(obstacles_.begin(), obstacles_.end(),
                       [&](const Obstacle& one) { return bounds(one.near).meets(around); });
  }

  // All that is cut; asked for only where the layout is to be moved.
  [[nodiscard]] Region layout() const {
    std::vector<Region> all;
    for (std::size_t i = 0; i < s_.job.items.size(); ++i) {
      if (is_cut(i)) all.push_back(cuts_of(i));
    }
    return united(std::move(all));
  }

  // The nut is wider than the bit, and a clamp may stand as high as it.
  void look_at_nut(std::size_t i, std::vector<Verdict>& out) const {
    if (s_.pieces[i].cuts == nullptr) return;
    for (const KeepOut& place : s_.job.blank.keep_outs) {
      if (place.kind != KeepOut::Kind::Clamp) continue;
      const NutMeets met = nut_meets(*s_.pieces[i].cuts, place, s_);
      if (met.bit == nullptr) continue;
      out.push_back(
          {Grade::Mind,
           "nut-near-clamp",
           s_.job.items[i].piece.id,
           {place.x, place.y},
           say("“{0}” brings the nut above the {1} to a clamp that stands {2} high.", s_.job.items[i].piece.name,
               met.bit->name, s_.show(place.above_face())),
           say("The bit clears it; the wider nut would not, unless the bit stands farther out of the collet than "
               "{0}.",
               s_.show(met.out)),
           {{say("I have moved the {0}: remove its mark", std::string(to_word(place.kind))),
             [place](Job& job) { std::erase(job.blank.keep_outs, place); }, true}}});
      return;
    }
  }

  // The first thing that a piece is cut too near to; false where there is none.
  bool look_at(std::size_t i, std::vector<Verdict>& out) const {
    const Item& item = s_.job.items[i];
    const Region cuts = cuts_of(i);
    const Box box = bounds(cuts);
    for (const Obstacle& one : obstacles_) {
      // Screws go in when all their holes are drilled.
      if (!one.screw_of.empty() && holds_board(item)) continue;
      const bool metal = one.place.metal();
      if (!one.place.stands_while(item.cut.back)) continue;
      const bool outlines_meet = bounds(one.near).meets(box) && !intersect(one.near, cuts).empty();
      if (!outlines_meet && !(metal && s_.pieces[i].cuts != nullptr && moves_meet(*s_.pieces[i].cuts, one.place, s_)))
        continue;
      out.push_back({metal ? Grade::Stop : Grade::Mind,
                     "in-keep-out",
                     item.piece.id,
                     {one.place.x, one.place.y},
                     say("“{0}” is cut where {1}{2}", item.piece.name, name_of(one.place.kind),
                         (metal ? say(" stands.") : say(" lies."))),
                     metal ? say("The bit would hit it. Keep {0} away.", s_.show(kClear))
                           : say("It may tear, split or take stain differently."),
                     remedies_for(i, one, cuts, outlines_meet)});
      return true;
    }
    return false;
  }

  [[nodiscard]] std::vector<Remedy> remedies_for(std::size_t i, const Obstacle& one, const Region& cuts,
                                                 bool outlines_meet) const {
    const Item& item = s_.job.items[i];
    std::vector<Remedy> remedies;
    Point by;
    const Clear shifted = [&](Point on) {
      return all_clear(s_, obstacles_, {i}, [&](const KeepOut& other) { return moved(other, {-on.x, -on.y}); });
    };
    // A ground that reaches farther than the outlines does not go along with them for sure.
    if (outlines_meet && item.cut.kind != Treatment::Kind::CutOut &&
        Placer(cuts, all_, s_.job.blank.box().grown(-s_.job.blank.margin), s_.job.lengths.unit, shifted).find(by)) {
      remedies.push_back({say("Shift it clear, {0}", way_in_words(by, s_.job.lengths)),
                          [id = item.piece.id, by](Job& job) { job.shift(id, by); }});
    }
    const KeepOut& place = one.place;
    if (!one.screw_of.empty()) {
      add_screws_remedy(s_, place.width, remedies);
      return remedies;
    }
    if (outlines_meet && s_.job.items.size() > 1) add_layout_remedies(s_, layout(), all_, obstacles_, remedies);
    if (place.metal() && s_.job.has_back()) {
      const bool front = item.cut.back;
      remedies.push_back(
          {front ? say("It stands there only while the front is up") : say("It stands there only while the back is up"),
           [place, front](Job& job) {
             for (KeepOut& one : job.blank.keep_outs) {
               if (one == place) one.up = front ? KeepOut::Up::Front : KeepOut::Up::Back;
             }
           },
           true});
    }
    if (place.metal()) {
      remedies.push_back({say("I have moved the {0}: remove its mark", std::string(to_word(place.kind))),
                          [place](Job& job) { std::erase(job.blank.keep_outs, place); }, true});
    }
    return remedies;
  }

  const Situation& s_;
  std::vector<Obstacle> obstacles_;
  Region all_;  // of them, with the room that cuts keep
};

}  // namespace

void check_keep_outs(const Situation& s, std::vector<Verdict>& out) { Looker(s).look(out); }

}  // namespace doyen
