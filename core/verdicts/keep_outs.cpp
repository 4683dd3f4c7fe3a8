// Clamps, screws, knots, sapwood, cracks and glue lines that cuts come too near.
#include <algorithm>
#include <numbers>

#include "geometry/polyline.hpp"
#include "job/layout.hpp"
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

// Where the bits of a piece go: its outlines, and for cut-outs the strip beside them.
Region cut_region(const PieceState& state, const Item& item, const Rack& rack) {
  Region region = state.outlines->region;
  if (!state.outlines->lines.empty()) region = unite(region, sweep(state.outlines->lines, 1));
  const Bit* bit = rack.find(item.cut.bit);
  if (item.cut.kind == Treatment::Kind::CutOut && bit != nullptr)
    return subtract(grow(region, bit->true_diameter()), region);
  return region;
}

class Placer {
 public:
  Placer(const Region& cuts, const Region& forbidden, const Box& room, Unit unit)
      : cuts_(cuts), forbidden_(forbidden), room_(room), unit_(unit) {}

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
        if (!intersect(transformed(cuts_, Transform::move(by.x, by.y)), forbidden_).empty()) continue;
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
};

// The whole layout clear of everything, its arrangement kept: shifted, or turned half round and shifted.
void add_layout_remedies(const Situation& s, const Region& layout, const Region& forbidden,
                         std::vector<Remedy>& remedies) {
  const Box room = s.job.blank.box();
  Point by;
  if (Placer(layout, forbidden, room, s.job.lengths.unit).find(by)) {
    remedies.push_back({say("Shift the whole layout {0}", way_in_words(by, s.job.lengths)),
                        [by](Job& job) { shift_layout(job, by); }});
  } else if (may_turn_layout(s.job)) {
    const Point middle = bounds(layout).centre();
    const Region turned = transformed(
        layout,
        Transform::move(-middle.x, -middle.y).then(Transform::turn(180)).then(Transform::move(middle.x, middle.y)));
    by = {};
    if (!intersect(turned, forbidden).empty() && !Placer(turned, forbidden, room, s.job.lengths.unit).find(by)) return;
    remedies.push_back({say("Turn the whole layout half round"), [by, middle](Job& job) {
                          turn_layout(job, 180, middle);
                          shift_layout(job, by);
                        }});
  }
}

}  // namespace

void check_keep_outs(const Situation& s, std::vector<Verdict>& out) {
  if (s.job.blank.keep_outs.empty()) return;
  Region all;
  for (const KeepOut& place : s.job.blank.keep_outs)
    all = unite(all, grow(region_of(place), place.metal() ? kClear : 0.01));
  Region layout;  // everything that is cut, and where it may lie
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.pieces[i].outlines != nullptr && s.job.items[i].cut.kind != Treatment::Kind::None)
      layout = unite(layout, cut_region(s.pieces[i], s.job.items[i], s.rack));
  }
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    if (s.pieces[i].outlines == nullptr || item.cut.kind == Treatment::Kind::None) continue;
    const Region cuts = cut_region(s.pieces[i], item, s.rack);
    const Box box = bounds(cuts);
    for (const KeepOut& place : s.job.blank.keep_outs) {
      const Region near = grow(region_of(place), place.metal() ? kClear : 0.01);
      if (!bounds(near).meets(box) || intersect(near, cuts).empty()) continue;
      std::vector<Remedy> remedies;
      Point by;
      if (item.cut.kind != Treatment::Kind::CutOut &&
          Placer(cuts, all, s.job.blank.box().grown(-s.job.blank.margin), s.job.lengths.unit).find(by)) {
        remedies.push_back({say("Shift it clear, {0}", way_in_words(by, s.job.lengths)),
                            [id = item.piece.id, by](Job& job) { job.shift(id, by); }});
      }
      if (s.job.items.size() > 1) add_layout_remedies(s, layout, all, remedies);
      const bool metal = place.metal();
      if (metal) {
        remedies.push_back({say("I have moved the {0}: remove its mark", std::string(to_word(place.kind))),
                            [place](Job& job) { std::erase(job.blank.keep_outs, place); }, true});
      }
      out.push_back({metal ? Grade::Stop : Grade::Mind,
                     "in-keep-out",
                     item.piece.id,
                     {place.x, place.y},
                     say("“{0}” is cut where {1}{2}", item.piece.name, name_of(place.kind),
                         (metal ? say(" stands.") : say(" lies."))),
                     metal ? say("The bit would hit it. Keep {0} away.", s.show(kClear))
                           : say("It may tear, split or take stain differently."),
                     std::move(remedies)});
      break;
    }
  }
}

}  // namespace doyen
