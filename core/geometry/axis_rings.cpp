#include "geometry/axis_rings.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <unordered_map>

#include "cancel.hpp"
#include "measure/whole.hpp"

namespace doyen {
namespace {

constexpr double kNone = std::numeric_limits<double>::infinity();

// Where a ring goes round an inward corner it comes from the segment before it (0) and goes on to the one after (1).
std::int64_t joint(std::size_t corner, int side) { return -1 - static_cast<std::int64_t>(2 * corner) - side; }

double length_of(Point p) { return std::hypot(p.x, p.y); }

// The points between the two on the circle round `middle`, counter-clockwise (1) or clockwise (-1).
void add_arc(Point middle, Point from, Point to, int way, double arc_error, Line2& line) {
  const Point a = from - middle, b = to - middle;
  double turn = way * std::atan2(cross(a, b), dot(a, b));
  if (turn < -1) turn += 2 * std::numbers::pi;  // half a turn, by rounding
  const double radius = length_of(a), first = std::atan2(a.y, a.x);
  const double step = 2 * std::acos(std::max(0.5, 1 - arc_error / std::max(radius, arc_error)));
  const int parts = whole_up(std::max(0.0, turn) / step, 1, 10'000);
  for (int k = 1; k < parts; ++k) {
    const double angle = first + way * turn * k / parts;
    line.push_back(middle + Point{std::cos(angle), std::sin(angle)} * radius);
  }
}

}  // namespace

AxisRings::AxisRings(const MedialAxis& axis) : axis_(axis) {
  const std::size_t n = corners();
  before_.assign(n, 0);
  normal_.resize(n);
  for (std::size_t i = 0; i < n; ++i) {
    before_[static_cast<std::size_t>(axis.next[i])] = i;
    const Point along = axis.segment_end(i) - axis.segment_start(i);
    const double mm = std::max(1e-12, length_of(along));
    normal_[i] = {-along.y / mm, along.x / mm};
  }
  turn_.assign(n, 0);
  for (std::size_t i = 0; i < n; ++i) {
    const Point a = normal_[before_[i]], b = normal_[i];
    turn_[i] = std::atan2(-cross(a, b), dot(a, b));  // clockwise
  }
  std::int32_t next_id = static_cast<std::int32_t>(axis.vertices.size());
  rises_.reserve(axis.edges.size());
  const auto add = [&](MedialAxis::Vertex a, std::int32_t ia, MedialAxis::Vertex b, std::int32_t ib, Site one,
                       Site two) {
    if (a.r > b.r) {
      std::swap(a, b);
      std::swap(ia, ib);
    }
    rises_.push_back({a, b, ia, ib, one, two});
  };
  for (const MedialAxis::Edge& edge : axis.edges) {
    const MedialAxis::Vertex &a = axis.vertices[static_cast<std::size_t>(edge.a)],
                             &b = axis.vertices[static_cast<std::size_t>(edge.b)];
    MedialAxis::Vertex waist;
    if (edge_waist(axis, a, b, edge.one, edge.two, waist)) {
      add(a, edge.a, waist, next_id, edge.one, edge.two);
      add(waist, next_id, b, edge.b, edge.one, edge.two);
      ++next_id;
    } else {
      add(a, edge.a, b, edge.b, edge.one, edge.two);
    }
  }
  least_.assign(2 * n, kNone);
  kept_.assign(2 * n, 1);
  for (const Rise& rise : rises_) {
    for (const Site s : {rise.one, rise.two}) least_[index(s)] = std::min(least_[index(s)], rise.low.r);
    widest_ = std::max(widest_, rise.high.r);
  }
}

void AxisRings::keep_near(const std::vector<Box>& boxes, double reach) {
  for (std::size_t i = 0; i < corners(); ++i) {
    if (i % 256 == 0) Cancel::check_here();
    Box box;
    box.add(axis_.segment_start(i));
    box.add(axis_.segment_end(i));
    const Box wide = box.grown(reach);
    kept_[i] = std::any_of(boxes.begin(), boxes.end(), [&](const Box& b) { return b.meets(wide); }) ? 1 : 0;
  }
  for (std::size_t i = 0; i < corners(); ++i) kept_[corners() + i] = kept_[i] != 0 || kept_[before_[i]] != 0 ? 1 : 0;
}

double AxisRings::along(std::size_t site, Point p) const {
  if (!is_point(site)) {
    const Point n = normal_[site];
    return dot(p - axis_.corners[site], {n.y, -n.x});
  }
  const std::size_t corner = site - corners();
  const Point from = normal_[before_[corner]], to = p - axis_.corners[corner];
  const double clockwise = std::atan2(-cross(from, to), dot(from, to));
  return clockwise < -1 ? clockwise + 2 * std::numbers::pi : clockwise;
}

std::vector<AxisRings::Cross> AxisRings::crosses_at(double d, std::vector<Point>& nodes) const {
  std::vector<Cross> crosses;
  for (const Rise& rise : rises_) {
    if (!(rise.low.r < d && rise.high.r >= d) || !kept(rise)) continue;
    const Point p = edge_point_at_radius(axis_, rise.low, rise.high, rise.one, rise.two, d).at;
    const auto node = static_cast<std::int64_t>(nodes.size());
    nodes.push_back(p);
    for (const Site s : {rise.one, rise.two}) {
      const std::size_t site = index(s);
      if (kept_[site] == 0) continue;
      // Where the axis rises straight from the site, it bounds the nearer end.
      const double at = along(site, p), rises = along(site, rise.high.at) - along(site, rise.low.at);
      const std::size_t i = is_point(site) ? site - corners() : site;
      const double whole = is_point(site) ? turn_[i] : length_of(axis_.segment_end(i) - axis_.segment_start(i));
      crosses.push_back({site, at, std::abs(rises) > 1e-9 ? rises > 0 : at < whole / 2, node});
    }
  }
  std::sort(crosses.begin(), crosses.end(),
            [](const Cross& a, const Cross& b) { return a.site != b.site ? a.site < b.site : a.along < b.along; });
  return crosses;
}

// Of one site; false where its crossings do not come in turn.
bool AxisRings::add_pieces(std::size_t site, const Cross* first, const Cross* last, double d,
                           std::vector<Piece>& pieces) const {
  const std::size_t corner = is_point(site) ? site - corners() : site;
  const std::size_t ends_in = is_point(site) ? corner : static_cast<std::size_t>(axis_.next[corner]);
  const std::int64_t start = joint(corner, is_point(site) ? 0 : 1), end = joint(ends_in, is_point(site) ? 1 : 0);
  const auto inward = [&](std::size_t c) { return least_[corners() + c] < kNone; };
  if (first == last) {
    if (least_[site] >= d && least_[site] < kNone) pieces.push_back({site, start, end});
    return true;
  }
  std::int64_t from = start;
  bool running = !first->in;
  if (running && !is_point(site) && !inward(corner)) return false;
  for (const Cross* c = first; c != last; ++c) {
    if (c->in == running) return false;
    if (running)
      pieces.push_back({site, from, c->node});
    else
      from = c->node;
    running = !running;
  }
  if (running) {
    if (!is_point(site) && !inward(ends_in)) return false;
    pieces.push_back({site, from, end});
  }
  return true;
}

Point AxisRings::place(std::int64_t node, double d, const std::vector<Point>& nodes) const {
  if (node >= 0) return nodes[static_cast<std::size_t>(node)];
  const auto both = static_cast<std::size_t>(-1 - node);
  const std::size_t corner = both / 2;
  return axis_.corners[corner] + normal_[both % 2 == 0 ? before_[corner] : corner] * d;
}

// `reach` mm from there, a place `d` mm from the site, straight to it.
Point AxisRings::toward(std::size_t site, Point p, double d, double reach) const {
  if (!is_point(site)) return p - normal_[site] * reach;
  return p + (axis_.corners[site - corners()] - p) * (reach / d);
}

void AxisRings::add_points(const Piece& piece, double d, double arc_error, const std::vector<Point>& nodes,
                           Line2& line) const {
  const Point from = place(piece.from, d, nodes), to = place(piece.to, d, nodes);
  if (line.empty()) line.push_back(from);
  if (is_point(piece.site)) add_arc(axis_.corners[piece.site - corners()], from, to, -1, arc_error, line);
  line.push_back(to);
}

std::optional<AxisRings::Chains> AxisRings::chains_at(double d) const {
  Cancel::check_here();
  Chains out;
  const std::vector<Cross> crosses = crosses_at(d, out.nodes);
  std::vector<Piece>& pieces = out.pieces;
  std::size_t c = 0;
  for (std::size_t site = 0; site < least_.size(); ++site) {
    const std::size_t first = c;
    while (c < crosses.size() && crosses[c].site == site) ++c;
    if (kept_[site] == 0 || least_[site] == kNone) continue;
    if (!add_pieces(site, crosses.data() + first, crosses.data() + c, d, pieces)) return std::nullopt;
  }
  std::unordered_map<std::int64_t, std::size_t> begins, ends;
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    if (!begins.emplace(pieces[i].from, i).second || !ends.emplace(pieces[i].to, i).second) return std::nullopt;
  }
  std::vector<char> done(pieces.size(), 0);
  const auto follow = [&](std::size_t i) {
    std::vector<std::size_t>& chain = out.chains.emplace_back();
    while (done[i] == 0) {
      done[i] = 1;
      chain.push_back(i);
      const auto next = begins.find(pieces[i].to);
      if (next == begins.end()) break;
      i = next->second;
    }
  };
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    if (ends.find(pieces[i].from) == ends.end()) follow(i);  // open: what comes before it is left out
  }
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    if (done[i] == 0) follow(i);
  }
  return out;
}

std::optional<std::vector<Line2>> AxisRings::at(double d, double arc_error) const {
  const std::optional<Chains> chains = chains_at(d);
  if (!chains) return std::nullopt;
  std::vector<Line2> lines;
  for (const std::vector<std::size_t>& chain : chains->chains) {
    Line2& line = lines.emplace_back();
    for (const std::size_t i : chain) add_points(chains->pieces[i], d, arc_error, chains->nodes, line);
  }
  return lines;
}

std::optional<std::vector<Line2>> AxisRings::swept_from(double d, double reach, double arc_error) const {
  const std::optional<Chains> chains = chains_at(d);
  if (!chains) return std::nullopt;
  std::vector<Line2> lines;
  for (const std::vector<std::size_t>& chain : chains->chains) {
    if (chains->pieces[chain.back()].to != chains->pieces[chain.front()].from) return std::nullopt;  // open
    Line2& line = lines.emplace_back();
    for (const std::size_t i : chain) {
      const Piece& piece = chains->pieces[i];
      const Point from = place(piece.from, d, chains->nodes), to = place(piece.to, d, chains->nodes);
      const Point first = toward(piece.site, from, d, reach), last = toward(piece.site, to, d, reach);
      // Where it turns from the site before to this one, the disc's own round.
      if (!line.empty() && piece.from >= 0) add_arc(from, line.back(), first, 1, arc_error, line);
      line.push_back(first);
      if (is_point(piece.site)) add_arc(axis_.corners[piece.site - corners()], first, last, -1, arc_error, line);
      line.push_back(last);
    }
    const Piece& begin = chains->pieces[chain.front()];
    const Point back = line.front();
    if (begin.from >= 0) add_arc(place(begin.from, d, chains->nodes), line.back(), back, 1, arc_error, line);
    line.push_back(back);
  }
  return lines;
}

}  // namespace doyen
