#include "cutting/axis_walk.hpp"

#include <algorithm>

#include "measure/whole.hpp"

namespace doyen {
namespace {

constexpr double kOverCut = 0.002;      // mm of depth that chords of curved axes may cost
constexpr double kTouches = 2 * kGrid;  // mm: a clearance below this is the outline itself

template <typename T>
auto& at(T& v, std::int32_t i) {
  return v[static_cast<std::size_t>(i)];
}

}  // namespace

double AxisWalk::tolerance() const { return kOverCut * shape_.tan_half / 2; }

void AxisWalk::link() {
  const std::size_t n = vertices_.size();
  first_.assign(n + 1, 0);
  if (gone_.size() != edges_.size()) gone_.resize(edges_.size(), 0);
  for (std::size_t e = 0; e < edges_.size(); ++e) {
    if (gone_[e]) continue;
    ++first_[static_cast<std::size_t>(edges_[e].a) + 1];
    ++first_[static_cast<std::size_t>(edges_[e].b) + 1];
  }
  degree_.resize(n);
  for (std::size_t v = 0; v < n; ++v) {
    degree_[v] = first_[v + 1];
    first_[v + 1] += first_[v];
  }
  around_.resize(static_cast<std::size_t>(first_[n]));
  cursor_.assign(first_.begin(), first_.end() - 1);
  for (std::size_t e = 0; e < edges_.size(); ++e) {
    if (gone_[e]) continue;
    at(around_, at(cursor_, edges_[e].a)++) = static_cast<std::int32_t>(e);
    at(around_, at(cursor_, edges_[e].b)++) = static_cast<std::int32_t>(e);
  }
}

std::int32_t AxisWalk::only_edge(std::int32_t v) const {
  for (std::int32_t k = at(first_, v); k < at(first_, v + 1); ++k) {
    if (!at(gone_, at(around_, k))) return at(around_, k);
  }
  return -1;
}

// Flattened curves send a hair to every point of the outline. A leaf is taken off as long as every outline point that
// loses its branch stays within the tolerance of the disc round the branch's foot: the error is bounded by
// construction.
void AxisWalk::peel_hairs(double tolerance) {
  link();
  const std::size_t n = vertices_.size();
  // Lost outline points per vertex, as linked lists through `after`; a list longer than kMany keeps a bound instead.
  constexpr int kMany = 48;
  std::vector<std::int32_t> head(n, -1), tail(n, -1), after(n, -1);
  std::vector<std::int32_t> count(n, 0);
  std::vector<double> bound(n, 0.0);
  std::vector<std::int32_t> leaves;
  for (std::size_t v = 0; v < n; ++v) {
    if (degree_[v] == 1) {
      leaves.push_back(static_cast<std::int32_t>(v));
      head[v] = tail[v] = static_cast<std::int32_t>(v);
      count[v] = 1;
    }
  }
  while (!leaves.empty()) {
    const std::int32_t v = leaves.back();
    leaves.pop_back();
    if (at(degree_, v) != 1) continue;
    const std::int32_t e = only_edge(v);
    const std::int32_t w = other(e, v);
    const Vertex& foot = at(vertices_, w);
    double lost = 0;
    if (at(count, v) > kMany) {
      const Vertex& leaf = at(vertices_, v);
      lost = at(bound, v) + distance(leaf.at, foot.at) + leaf.r - foot.r;
    } else {
      for (std::int32_t p = at(head, v); p >= 0; p = at(after, p)) {
        lost = std::max(lost, distance(at(vertices_, p).at, foot.at) - at(vertices_, p).r - foot.r);
        if (lost >= tolerance) break;
      }
    }
    if (lost >= tolerance) continue;
    at(gone_, e) = 1;
    at(bound, w) = std::max(at(bound, w), lost);
    if (at(head, v) >= 0) {
      if (at(head, w) < 0) {
        at(head, w) = at(head, v);
      } else {
        at(after, at(tail, w)) = at(head, v);
      }
      at(tail, w) = at(tail, v);
    }
    at(count, w) += at(count, v);
    at(degree_, v) = 0;
    if (--at(degree_, w) == 1) leaves.push_back(w);
    if (at(degree_, w) == 0) dots_.push_back(w);
  }
}

// Keeps only where least <= r <= most: below, the bit's flat does not fit; above, the floor limit holds. At `kink` the
// depth ceases to follow r: every edge that passes it gets a point there.
void AxisWalk::clip_to(double least, double kink, double most) {
  const auto inside = [&](double r) { return r >= least && r <= most; };
  std::erase_if(dots_, [&](std::int32_t v) { return !inside(at(vertices_, v).r); });
  gone_.resize(edges_.size(), 0);
  const std::size_t original = edges_.size();
  for (std::size_t e = 0; e < original; ++e) {  // split at waists, so that r is monotone along every edge
    if (gone_[e]) continue;
    Edge& edge = edges_[e];
    const Vertex a = at(vertices_, edge.a), b = at(vertices_, edge.b);
    Vertex waist;
    if (!edge_waist(axis_, a, b, edge.one, edge.two, waist)) continue;
    const auto middle = static_cast<std::int32_t>(vertices_.size());
    vertices_.push_back(waist);
    const Edge rest{middle, edge.b, edge.one, edge.two};
    edge.b = middle;
    edges_.push_back(rest);
    gone_.push_back(0);
  }
  const std::size_t monotone = edges_.size();
  for (std::size_t e = 0; e < monotone; ++e) {
    if (gone_[e]) continue;
    Edge& edge = edges_[e];
    const Vertex a = at(vertices_, edge.a), b = at(vertices_, edge.b);
    if (!(std::min(a.r, b.r) < kink - kTouches && std::max(a.r, b.r) > kink + kTouches)) continue;
    const auto middle = static_cast<std::int32_t>(vertices_.size());
    vertices_.push_back(edge_point_at_radius(axis_, a, b, edge.one, edge.two, kink));
    const Edge rest{middle, edge.b, edge.one, edge.two};
    edge.b = middle;
    edges_.push_back(rest);
    gone_.push_back(0);
  }
  for (std::size_t e = 0; e < edges_.size(); ++e) {
    if (gone_[e]) continue;
    Edge& edge = edges_[e];
    const Vertex a = at(vertices_, edge.a), b = at(vertices_, edge.b);
    if (inside(a.r) && inside(b.r)) continue;
    if ((a.r <= least && b.r <= least) || (a.r >= most && b.r >= most)) {
      gone_[e] = 1;
      continue;
    }
    const auto cut = [&](std::int32_t& end, double r) {
      const Vertex v = edge_point_at_radius(axis_, a, b, edge.one, edge.two, r);
      end = static_cast<std::int32_t>(vertices_.size());
      vertices_.push_back(v);
    };
    if (a.r < least) cut(edge.a, least);
    if (a.r > most) cut(edge.a, most);
    if (b.r < least) cut(edge.b, least);
    if (b.r > most) cut(edge.b, most);
  }
}

void AxisWalk::measure(IslandGroove& out) {
  for (const Vertex& v : vertices_) {
    if (v.r > out.widest) {
      out.widest = v.r;
      out.widest_at = v.at;
    }
  }
  // The cores of the strokes: what is left when every branch that ends in a corner is taken off.
  link();
  std::vector<std::int32_t> degree = degree_;
  std::vector<char> off(edges_.size(), 0);
  std::vector<char> core(vertices_.size(), 0);
  for (std::size_t v = 0; v < vertices_.size(); ++v) core[v] = degree[v] > 1;
  for (std::size_t leaf = 0; leaf < vertices_.size(); ++leaf) {
    if (degree_[leaf] != 1) continue;
    auto v = static_cast<std::int32_t>(leaf);
    for (int steps = 0; steps < 1'000'000; ++steps) {
      std::int32_t e = -1;
      for (std::int32_t k = at(first_, v); k < at(first_, v + 1); ++k) {
        if (!at(gone_, at(around_, k)) && !at(off, at(around_, k))) e = at(around_, k);
      }
      if (e < 0) break;
      at(off, e) = 1;
      at(core, v) = 0;
      v = other(e, v);
      if (at(degree_, v) != 2) break;
    }
  }
  out.narrowest = out.widest;
  out.narrowest_at = out.widest_at;
  for (std::size_t v = 0; v < vertices_.size(); ++v) {
    if (core[v] && vertices_[v].r < out.narrowest && vertices_[v].r > kTouches) {
      out.narrowest = vertices_[v].r;
      out.narrowest_at = vertices_[v].at;
    }
  }
}

void AxisWalk::chain(IslandGroove& out) {
  link();
  const std::size_t n = vertices_.size();
  seen_.assign(n, 0);
  parent_edge_.assign(n, -1);
  odd_.assign(n, 0);
  reach_.assign(n, 0);
  reach_edge_.assign(n, -1);
  times_.assign(edges_.size(), 1);
  cursor_.assign(first_.begin(), first_.end() - 1);
  used_.clear();
  for (std::size_t v = 0; v < n; ++v) {
    if (!seen_[v] && degree_[v] > 0) walk_component(static_cast<std::int32_t>(v), out);
  }
  for (const std::int32_t dot : dots_) {
    const Vertex& v = at(vertices_, dot);
    if (at(degree_, dot) > 0) continue;
    out.passes.push_back({{{v.at.x, v.at.y, -shape_.depth_at(v.r)}}});
  }
}

// One lift per connected part: the part is walked as an Euler trail. Odd vertices are paired along a spanning tree
// (those edges are walked twice), and the trail starts and ends where leaving a stretch single saves the most.
// A spanning tree from the root: order_ and parent_edge_.
void AxisWalk::span(std::int32_t root) {
  order_.assign(1, root);
  at(seen_, root) = 1;
  std::vector<std::int32_t>& stack = used_;
  stack.assign(1, root);
  while (!stack.empty()) {
    const std::int32_t v = stack.back();
    if (at(cursor_, v) == at(first_, v + 1)) {
      stack.pop_back();
      continue;
    }
    const std::int32_t e = at(around_, at(cursor_, v)++);
    const std::int32_t w = other(e, v);
    if (at(seen_, w)) continue;
    at(seen_, w) = 1;
    at(parent_edge_, w) = e;
    order_.push_back(w);
    stack.push_back(w);
  }
}

// How often each edge is gone over, once or twice: the longest path through the tree once. Returns
// where that path begins.
std::int32_t AxisWalk::choose_path(std::int32_t root) {
  for (const std::int32_t v : order_) at(odd_, v) = static_cast<char>(at(degree_, v) & 1);
  double best = 0;
  std::int32_t best_at = root, best_edge = -1;
  for (std::size_t i = order_.size(); i-- > 0;) {
    const std::int32_t v = order_[i];
    const std::int32_t e = at(parent_edge_, v);
    if (e < 0) continue;
    const std::int32_t up = other(e, v);
    if (at(odd_, v)) {
      at(times_, e) = 2;
      at(odd_, up) = static_cast<char>(at(odd_, up) ^ 1);
    }
    const double through = at(reach_, v) + (at(times_, e) == 2 ? edge_length(e) : -edge_length(e));
    if (through + at(reach_, up) > best) {
      best = through + at(reach_, up);
      best_at = up;
      best_edge = e;
    }
    if (through > at(reach_, up)) {
      at(reach_, up) = through;
      at(reach_edge_, up) = e;
    }
  }
  // The best path bends at best_at: one half goes down best_edge, the other down the best remaining branch.
  const auto toggle_down = [&](std::int32_t v, std::int32_t e) {
    std::int32_t end = v;
    while (e >= 0) {
      at(times_, e) = static_cast<char>(3 - at(times_, e));
      end = other(e, end);
      e = at(reach_edge_, end);
    }
    return end;
  };
  std::int32_t start = root;
  if (best_edge >= 0) {
    double second = 0;
    std::int32_t second_edge = -1;
    for (std::int32_t k = at(first_, best_at); k < at(first_, best_at + 1); ++k) {
      const std::int32_t e = at(around_, k);
      const std::int32_t w = other(e, best_at);
      if (e == best_edge || at(parent_edge_, w) != e) continue;
      const double through = at(reach_, w) + (at(times_, e) == 2 ? edge_length(e) : -edge_length(e));
      if (through > second) {
        second = through;
        second_edge = e;
      }
    }
    start = toggle_down(best_at, best_edge);
    toggle_down(best_at, second_edge);
  }
  return start;
}

void AxisWalk::walk_component(std::int32_t root, IslandGroove& out) {
  span(root);
  const std::int32_t start = choose_path(root);
  // Hierholzer's algorithm over the edges with their counts.
  std::vector<std::int32_t> trail;
  for (const std::int32_t v : order_) at(cursor_, v) = at(first_, v);
  std::vector<std::pair<std::int32_t, std::int32_t>> path{{start, -1}};
  while (!path.empty()) {
    const auto [v, came] = path.back();
    std::int32_t& k = at(cursor_, v);
    while (k < at(first_, v + 1) && at(times_, at(around_, k)) == 0) ++k;
    if (k == at(first_, v + 1)) {
      if (came >= 0) trail.push_back(came);
      path.pop_back();
      continue;
    }
    const std::int32_t e = at(around_, k);
    --at(times_, e);
    path.emplace_back(other(e, v), e);
  }
  std::reverse(trail.begin(), trail.end());
  emit(trail, start, out);
}

void AxisWalk::emit(const std::vector<std::int32_t>& trail, std::int32_t start, IslandGroove& out) {
  Pass pass;
  pass.points.reserve(trail.size() + trail.size() / 2 + 1);
  const auto add = [&](const Vertex& v) {
    const Point3 p{v.at.x, v.at.y, -shape_.depth_at(v.r)};
    if (pass.points.empty() || !(pass.points.back() == p)) pass.points.push_back(p);
  };
  std::int32_t v = start;
  add(at(vertices_, v));
  for (const std::int32_t e : trail) {
    const Edge& edge = at(edges_, e);
    const std::int32_t w = other(e, v);
    traced_.clear();
    trace_edge(axis_, at(vertices_, v), at(vertices_, w), edge.one, edge.two, tolerance(), traced_);
    double len = 0;
    Point last = at(vertices_, v).at;
    for (const Vertex& t : traced_) {
      add(t);
      len += distance(last, t.at);
      last = t.at;
    }
    (at(gone_, e) == 0 ? out.cut_length : out.retraced_length) += len;
    at(gone_, e) = 2;  // walked
    v = w;
  }
  out.passes.push_back(std::move(pass));
}
}  // namespace doyen
