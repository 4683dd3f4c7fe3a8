#include "treatments/asking.hpp"

#include <algorithm>

#include "cutting/tabs.hpp"

namespace doyen {

std::vector<Line2> rings_as_lines(const Region& region) {
  std::vector<Line2> lines;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      lines.push_back(ring);
      lines.back().push_back(ring.front());
    }
  }
  return lines;
}

Asking::Asking(const WantedPiece& p, const Blank& on, const Rack& rack, Side side, TurnOver turn)
    : piece(p), cut(*p.cut), blank(on), bit(rack.find(p.cut->bit)), side_(side), turn_(turn) {
  const auto seen = [&](const Region& r) { return side == Side::Back ? turned_over(r, blank, turn) : r; };
  region = seen(p.outlines->region);
  sunk = seen(p.around->sunk);
  raised = seen(p.around->raised);
  lines = p.outlines->lines;
  for (Line2& each : lines) {
    for (Point& point : each) point = place(point);
  }
  below = goes_through(cut.kind) ? 0 : p.around->ground.below;
}

Point Asking::place(Point front) const { return side_ == Side::Back ? turned_over(front, blank, turn_) : front; }

void Asking::add(double ground, std::unique_ptr<wanted::Feature> feature) {
  const bool on_ground = piece.around->ground.overruled || below <= 0 || goes_through(cut.kind);
  feature->ground = ground;
  feature->anywhere = ground <= 0 || (on_ground && ground == below);
  feature->key = wanted::mixed(piece.key, features.size());
  features.push_back(std::move(feature));
}

void Asking::groove(const Region& area, double limit, double sunk_by, double from) {
  const Bit* v = of_kind(BitKind::V);
  if (v == nullptr || area.empty()) return;
  const double body = v->body_depth() - sunk_by;
  if (body <= 0.01) return;
  add(from, wanted::groove(area, -from - sunk_by, v->tan_half(), v->tip, std::min(limit, body), sunk_by));
}

void Asking::floor(const Region& area, double depth, double from) {
  if (area.empty()) return;
  const double radius = piece.smallest_flat / 2;
  add(from, wanted::floor(area, -from - depth, radius > 0 ? ::doyen::opening(area, radius) : Region{}));
}

void Asking::opening(const Region& area, double depth, const Region& reached) {
  add(0, wanted::floor(area, -depth, reached));
}

void Asking::may_fall(const Region& area, double depth) { add(0, wanted::floor(area, -depth, {}, false)); }

void Asking::line(const std::vector<Line2>& along, double depth, const Bit& by) {
  add(below, wanted::line(OutlineSegments(along), -below - depth, by, -below));
}

void Asking::hatch(const Region& edge, double depth) {
  if (!edge.empty()) add(below, wanted::hatch(edge, -below - depth, *bit, -below));
}

void Asking::bevel(const Region& outline, bool inwards, double depth) {
  add(below, wanted::bevel(outline, inwards, -below, depth, bit->tan_half(), bit->tip));
}

void Asking::slit(const Region& body, bool inside) {
  const double diameter = bit->true_diameter(), depth = through_depth(cut.through, blank);
  std::vector<wanted::KerfAsked::Tab> tabs;
  const double thickness = cut.through.skin > 0 ? blank.thinnest() : blank.thickest();
  if (cut.through.tabs.wanted) {
    for (const TabOn& tab : tabs_on(body, diameter, inside)) {
      const Point along = tab.along;
      const double out = inside ? -1 : 1;
      tabs.push_back({tab.at, along, Point{along.y, -along.x} * out, tab.straight});
    }
  }
  // What the bit cannot enter stays with the piece (or the rest): corners of the other side.
  const double r = diameter / 2;
  const Region kept = inside ? ::doyen::opening(body, r) : grow(grow(body, r), -r);
  const TabShape shape = tab_shape(cut.through.tabs, thickness);
  kerf = wanted::kerf({kept, inside, diameter, -depth, std::move(tabs), shape, -thickness + shape.height});
  kerf->key = wanted::mixed(piece.key, 99);
}

std::vector<Asking::TabOn> Asking::tabs_on(const Region& body, double diameter, bool inside) const {
  std::vector<TabOn> out;
  const bool by_hand = !cut.through.tabs.placed.empty();
  for (const TabPlace& tab : by_hand ? cut.through.tabs.placed : place_tabs(body, cut.through.tabs, diameter, inside)) {
    const auto i = static_cast<std::size_t>(tab.island);
    const Region& front = piece.outlines->region;
    if (tab.island < 0 || i >= body.islands.size() || i >= front.islands.size()) continue;
    const Ring& ring = body.islands[i].rings.front();
    // By hand they count along the outline as seen from the front, whose ring runs the other way on the back.
    const bool turned = by_hand && side_ == Side::Back;
    const double along =
        turned ? share_nearest(ring, place(on_ring(front.islands[i].rings.front(), tab.along).at)) : tab.along;
    const OnRing on = on_ring(ring, along);
    out.push_back(
        {on.at, on.along, tab_objection(body, {tab.island, along}, cut.through.tabs.length, diameter, inside).empty()});
  }
  return out;
}

}  // namespace doyen
