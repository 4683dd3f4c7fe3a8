#include "cutting/drawn_in.hpp"

#include <algorithm>

namespace doyen {
namespace {

// Islands of outlines to the left and holes to the right, none of which crosses another.
Region nested(std::vector<Ring> rings) {
  Region out;
  std::vector<Box> boxes;
  std::vector<Ring> holes;
  for (Ring& ring : rings) {
    if (signed_area(ring) <= 0) {
      holes.push_back(std::move(ring));
      continue;
    }
    boxes.push_back(bounds(ring));
    out.islands.push_back({{std::move(ring)}});
  }
  for (Ring& hole : holes) {
    // Of the islands round it the innermost: the one that lies within the others.
    std::size_t in = out.islands.size();
    for (std::size_t i = 0; i < out.islands.size(); ++i) {
      const bool inner = in == out.islands.size() || boxes[in].contains({boxes[i].left, boxes[i].bottom});
      if (inner && boxes[i].contains(hole.front()) && contains(out.islands[i], hole.front())) in = i;
    }
    if (in < out.islands.size()) out.islands[in].rings.push_back(std::move(hole));
  }
  return out;
}

bool closes(const Line2& line) { return line.size() > 3 && distance(line.front(), line.back()) < kGrid; }

std::vector<Ring> on_board(const std::vector<Line2>& lines, Point origin) {
  std::vector<Ring> rings;
  for (const Line2& line : lines) {
    Ring& ring = rings.emplace_back();
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
      const Point p{snap_to_grid(line[i].x + origin.x), snap_to_grid(line[i].y + origin.y)};
      if (ring.empty() || !(ring.back() == p)) ring.push_back(p);
    }
    while (ring.size() > 1 && ring.back() == ring.front()) ring.pop_back();
    if (ring.size() < 3) rings.pop_back();
  }
  return rings;
}

}  // namespace

DrawnIn::DrawnIn(Region floor) : floor_(std::move(floor)) {}

DrawnIn::DrawnIn(const Region& parts, const Groove& groove) : within_(groove.shape.limit_radius()) {
  for (std::size_t i = 0; i < groove.places.size(); ++i) {
    const Groove::Place& place = groove.places[i];
    const bool wide = place.island->widest > within_ + kGrid;
    parts_.push_back(
        {parts.islands[i], place.origin, wide ? std::make_unique<AxisRings>(place.island->axis) : nullptr});
  }
  for (const Part& part : parts_) {
    const Region& floor = part_floors_.emplace_back(part_by(part, 0, kArcError));
    floor_.islands.insert(floor_.islands.end(), floor.islands.begin(), floor.islands.end());
  }
}

Region DrawnIn::part_by(const Part& part, double mm, double arc_error) const {
  const double d = within_ + mm;
  if (part.narrower_than(d)) return {};
  const auto lines = part.rings->at(d, arc_error);
  if (!lines || !std::all_of(lines->begin(), lines->end(), closes)) return grow(Region{{part.outline}}, -d);
  return nested(on_board(*lines, part.origin));
}

Region DrawnIn::swept(const Region& inside, double mm, double reach, double arc_error) const {
  if (inside.empty()) return {};
  // Coarser arcs cost a fraction of the time.
  if (parts_.empty()) return grow(thinned(inside, arc_error), reach, Corner::Round, arc_error);
  std::vector<Ring> all;
  for (const Part& part : parts_) {
    const double d = within_ + mm;
    if (part.narrower_than(d)) continue;
    const auto lines = reach < d ? part.rings->swept_from(d, reach, arc_error) : std::nullopt;
    if (!lines || !std::all_of(lines->begin(), lines->end(), closes)) {
      for (Island& island : grow(grow(Region{{part.outline}}, -d), reach, Corner::Round, arc_error).islands)
        std::move(island.rings.begin(), island.rings.end(), std::back_inserter(all));
      continue;
    }
    std::vector<Ring> rings = on_board(*lines, part.origin);
    std::move(rings.begin(), rings.end(), std::back_inserter(all));
  }
  return tidied(all);
}

Region DrawnIn::by(double mm, double arc_error) const {
  if (parts_.empty()) return mm == 0 ? floor_ : grow(floor_, -mm, Corner::Round, arc_error);
  Region out;
  for (const Part& part : parts_) {
    Region drawn = part_by(part, mm, arc_error);
    std::move(drawn.islands.begin(), drawn.islands.end(), std::back_inserter(out.islands));
  }
  return out;
}

}  // namespace doyen
