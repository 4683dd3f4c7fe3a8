#include "artwork/drawing/holes.hpp"

#include <algorithm>
#include <cmath>

#include "artwork/drawing/points.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kOverlap = 0.01;  // mm that a filling goes under the outline round it, so that no hair stays between

// On the drawing's page.
Drawing::Part part_of(const Region& region, const Transform& page) {
  Path path;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point at = page.apply(ring[i]);
        i == 0 ? path.move(at) : path.line(at);
      }
      path.close();
    }
  }
  Drawing::Part part;
  part.data = path_data(path, 5);
  part.even_odd = true;
  return part;
}

Region filled(const Ring& ring) { return clean({ring}, Fill::EvenOdd); }

}  // namespace

std::vector<Hole> holes_of(const Region& outlines) {
  std::vector<Hole> holes;
  std::vector<Box> boxes;
  for (const Island& island : outlines.islands) boxes.push_back(bounds(island));
  for (const Island& island : outlines.islands) {
    for (std::size_t i = 1; i < island.rings.size(); ++i) {
      Hole hole;
      hole.ring = island.rings[i];
      const Region all = filled(hole.ring);
      hole.mm2 = area(all);
      const Box box = bounds(hole.ring);
      Region inside;
      for (std::size_t k = 0; k < boxes.size(); ++k) {
        const bool in = boxes[k].left >= box.left && boxes[k].right <= box.right && boxes[k].bottom >= box.bottom &&
                        boxes[k].top <= box.top;
        if (in && &outlines.islands[k] != &island) inside.islands.push_back(outlines.islands[k]);
      }
      hole.clear = inside.empty() ? all : subtract(all, inside);
      if (hole.mm2 > 1e-6) holes.push_back(std::move(hole));
    }
  }
  std::stable_sort(holes.begin(), holes.end(), [](const Hole& a, const Hole& b) { return a.mm2 > b.mm2; });
  return holes;
}

void fill_holes(Piece& piece, const std::vector<Hole>& holes) {
  if (!std::holds_alternative<Drawing>(piece.what) || holes.empty()) return;
  const Transform page = to_page(piece);
  edit_parts(piece, [&](Drawing& drawing) {
    std::vector<Drawing::Part>& parts = drawing.parts.edit();
    // Among the others where they have no groups of their own.
    const std::string group = parts.empty() ? std::string() : parts.front().group;
    const bool one_group =
        std::all_of(parts.begin(), parts.end(), [&](const Drawing::Part& p) { return p.group == group; });
    const double thicken = drawing.thicken;
    for (const Hole& hole : holes) {
      // A drawing that is thickened has holes as much smaller; what fills them grows, too.
      Drawing::Part part = part_of(grow(filled(hole.ring), thicken > 0 ? 0.0 : kOverlap), page);
      part.id = say("filled hole");
      part.group = one_group ? group : say("filled holes");
      parts.push_back(std::move(part));
    }
  });
}

Piece piece_of_holes(const Piece& piece, const std::vector<Hole>& holes) {
  Piece made = piece;
  made.id.clear();
  if (!std::holds_alternative<Drawing>(piece.what)) return made;
  const Transform page = to_page(piece);
  edit_parts(made, [&](Drawing& drawing) {
    std::vector<Drawing::Part> parts;
    for (const Hole& hole : holes) parts.push_back(part_of(hole.clear, page));
    drawing.parts = std::move(parts);
    drawing.traced.reset();
    drawing.thicken = 0;
    drawing.lines = Drawing::Lines::Wide;
  });
  std::get<Drawing>(made.what).original.clear();
  made.name = piece.name + ", " + (holes.size() == 1 ? say("hole") : say("holes"));
  return made;
}

}  // namespace doyen
