// One piece: letters and dots linked by bridges until a word that is cut out stays in one connected part.
#include <algorithm>
#include <limits>

#include "artwork/making.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen::making {
namespace {

constexpr std::size_t kMostIslands = 2000;

double box_distance(const Box& a, const Box& b) {
  return std::hypot(std::max({0.0, a.left - b.right, b.left - a.right}),
                    std::max({0.0, a.bottom - b.top, b.bottom - a.top}));
}

struct Nearest {
  double away = std::numeric_limits<double>::infinity();
  Point from, to;
};

// The nearest points of two outer rings; never looks at segments whose boxes lie farther apart than what is known.
void look(const Ring& points, const Ring& outline, bool swapped, Nearest& best) {
  const Box box = bounds(outline);
  for (const Point& p : points) {
    if (box_distance({p.x, p.y, p.x, p.y}, box) >= best.away) continue;
    for (std::size_t i = 0, j = outline.size() - 1; i < outline.size(); j = i++) {
      const Point a = outline[j];
      const Point q = a + (outline[i] - a) * nearest_share(p, a, outline[i]);
      const double away = distance(p, q);
      if (away < best.away) best = swapped ? Nearest{away, q, p} : Nearest{away, p, q};
    }
  }
}

Nearest nearest(const Island& a, const Island& b) {
  Nearest best;
  look(a.rings.front(), b.rings.front(), false, best);
  look(b.rings.front(), a.rings.front(), true, best);
  return best;
}

// The shortest bridges that make one part of the islands (Prim's spanning tree on their nearest distances).
std::vector<Derived::Bridge> shortest_bridges(const Region& region) {
  const std::size_t n = region.islands.size();
  std::vector<Box> boxes;
  for (const Island& island : region.islands) boxes.push_back(bounds(island));
  std::vector<Nearest> reach(n);
  std::vector<bool> in(n, false);
  std::vector<Derived::Bridge> bridges;
  std::size_t last = 0;
  in[0] = true;
  for (std::size_t k = 1; k < n; ++k) {
    std::size_t next = 0;
    for (std::size_t i = 0; i < n; ++i) {
      if (in[i]) continue;
      if (box_distance(boxes[last], boxes[i]) < reach[i].away) {
        const Nearest found = nearest(region.islands[last], region.islands[i]);
        if (found.away < reach[i].away) reach[i] = found;
      }
      if (next == 0 || reach[i].away < reach[next].away) next = i;
    }
    in[next] = true;
    bridges.push_back({reach[next].from, reach[next].to});
    last = next;
  }
  return bridges;
}

Region with_bridges(const Region& region, const std::vector<Derived::Bridge>& bridges, double width) {
  std::vector<Line2> lines;
  for (const Derived::Bridge& b : bridges) {
    // Half a width into both letters, so that slanting and round outlines are met over the bridge's whole width.
    const double len = distance(b.from, b.to);
    const Point on = len > 1e-6 ? (b.to - b.from) * (width / 2 / len) : Point{width / 2, 0};
    lines.push_back({b.from - on, b.to + on});
  }
  return unite(region, stroked(lines, width, StrokeEnd::Flat, StrokeJoint::Pointed));
}

}  // namespace

Outlines linked(const Outlines& source, const Derived& d) {
  if (source.region.empty()) throw bad_input(say("Single lines cannot be linked; give them a width first."));
  if (source.region.islands.size() > kMostIslands)
    throw bad_input(say("More than 2,000 loose parts are too many to link; clean the drawing up first."));
  check_size(d.bridge, say("A bridge's width"));
  Outlines out = source;
  const Point middle = bounds(source).centre();
  for (const Derived::Bridge& b : d.bridges) out.bridges.push_back({b.from + middle, b.to + middle});
  if (!out.bridges.empty()) out.region = with_bridges(out.region, out.bridges, d.bridge);
  if (out.region.islands.size() > 1) {
    const std::vector<Derived::Bridge> more = shortest_bridges(out.region);
    out.region = with_bridges(out.region, more, d.bridge);
    out.bridges.insert(out.bridges.end(), more.begin(), more.end());
  }
  return out;
}

}  // namespace doyen::making

namespace doyen {

void set_bridges(Piece& piece, const std::vector<Derived::Bridge>& on_board, const PieceSource& source) {
  auto* d = std::get_if<Derived>(&piece.what);
  if (d == nullptr || d->how != Derived::How::Link || d->from.empty() || !source) return;
  const Piece* from = source(d->from.front());
  if (from == nullptr) return;
  const Point middle = bounds(outlines_of(*from, source)).centre();
  // Back from the piece's own shift and turn, which is about the middle of the linked outlines.
  Piece unmoved = piece;
  unmoved.at = {};
  unmoved.turn = 0;
  const Point c = bounds(outlines_of(unmoved, source)).centre();
  const Transform back = Transform::move(-c.x - piece.at.x, -c.y - piece.at.y)
                             .then(Transform::turn(-piece.turn))
                             .then(Transform::move(c.x - middle.x, c.y - middle.y));
  d->bridges.clear();
  for (const Derived::Bridge& b : on_board) d->bridges.push_back({back.apply(b.from), back.apply(b.to)});
}

}  // namespace doyen
