#include "files/dxf/dxf_outlines.hpp"

#include <algorithm>
#include <boost/geometry/algorithms/disjoint.hpp>
#include <boost/geometry/geometries/box.hpp>
#include <boost/geometry/geometries/point.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <cmath>
#include <map>
#include <tuple>

#include "artwork/drawing/drawing_limits.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen::dxf {
namespace {

constexpr double kJoin = 0.01;  // mm: ends nearer than this are one

Path reversed(const Path& path) {
  Path out;
  const auto& s = path.steps;
  out.move(s.back().to);
  for (std::size_t i = s.size(); i-- > 1;) {
    if (s[i].kind == PathStep::Kind::Curve)
      out.curve(s[i].c2, s[i].c1, s[i - 1].to);
    else
      out.line(s[i - 1].to);
  }
  return out;
}

// Boxes by where they lie.
class BoxTree {
 public:
  void add(const Box& box, std::size_t number) {
    tree_.insert({Square{Corner{box.left, box.bottom}, Corner{box.right, box.top}}, number});
  }
  // The numbers of the boxes that hold the point, the latest first.
  [[nodiscard]] std::vector<std::size_t> holding(Point p) const {
    std::vector<std::size_t> out;
    for (auto it = tree_.qbegin(boost::geometry::index::intersects(Corner{p.x, p.y})); it != tree_.qend(); ++it)
      out.push_back(it->second);
    std::sort(out.begin(), out.end(), std::greater<>());
    return out;
  }

 private:
  using Corner = boost::geometry::model::point<double, 2, boost::geometry::cs::cartesian>;
  using Square = boost::geometry::model::box<Corner>;
  boost::geometry::index::rtree<std::pair<Square, std::size_t>, boost::geometry::index::quadratic<16>> tree_;
};

// Closed outlines of one layer: every second one inwards is a hole of the one around it.
void add_outlines(const std::vector<const Chain*>& closed, std::vector<Drawing::Part>& parts, Reading& reading) {
  struct Loop {
    const Chain* chain;
    Ring ring;
    double area;
    Box box;
    int depth = 0;
    std::size_t part = 0;
  };
  std::vector<Loop> loops;
  for (const Chain* c : closed) {
    reading.step();
    Flat flat = flatten(c->path, kFlatness, true);
    if (flat.closed.empty()) continue;
    Loop loop{c, std::move(flat.closed[0]), 0, {}};
    loop.area = std::abs(signed_area(loop.ring));
    loop.box = bounds(loop.ring);
    loops.push_back(std::move(loop));
  }
  std::stable_sort(loops.begin(), loops.end(), [](const Loop& a, const Loop& b) { return a.area > b.area; });
  BoxTree boxes;
  for (std::size_t i = 0; i < loops.size(); ++i) {
    const Loop* around = nullptr;
    const Point p = loops[i].ring.front();
    const auto holds = [&](std::size_t k) {
      reading.step();
      if (loops[k].box.contains(p) && contains(Island{{loops[k].ring}}, p)) around = &loops[k];
      return around != nullptr;
    };
    // Rings in rings: the next larger one mostly is it. Of many side by side only those that lie there are asked.
    constexpr std::size_t kNear = 16;
    for (std::size_t k = i; k-- > i - std::min(i, kNear) && !holds(k);) {
    }
    if (around == nullptr) {
      for (const std::size_t k : boxes.holding(p)) {
        if (holds(k)) break;
      }
    }
    boxes.add(loops[i].box, i);
    loops[i].depth = around == nullptr ? 0 : around->depth + 1;
    Path path = loops[i].chain->path;
    path.close();
    if (parts.size() >= kMostParts) throw bad_input(say("it has more than 200,000 outlines, too many to be a sign."));
    if (loops[i].depth % 2 == 0) {
      loops[i].part = parts.size();
      Drawing::Part part;
      part.id = "outline-" + std::to_string(parts.size() + 1);
      part.group = loops[i].chain->layer;
      part.even_odd = true;
      part.data = path_data(path, 5);
      parts.push_back(std::move(part));
    } else {
      loops[i].part = around->part;
      parts[around->part].data += path_data(path, 5);
    }
  }
}

}  // namespace

std::vector<Chain> joined(std::vector<Chain> chains, Reading& reading) {
  std::vector<Chain> done;
  std::multimap<std::tuple<std::int64_t, std::int64_t, std::size_t>, std::size_t> ends;  // by place and layer
  std::map<std::string, std::size_t> layers;
  std::vector<char> used(chains.size(), 0);
  const auto key = [&](Point p, const std::string& layer) {
    return std::tuple{static_cast<std::int64_t>(std::floor(p.x / kJoin)),
                      static_cast<std::int64_t>(std::floor(p.y / kJoin)),
                      layers.emplace(layer, layers.size()).first->second};
  };
  const auto front = [&](std::size_t i) { return chains[i].path.steps.front().to; };
  const auto back = [&](std::size_t i) { return chains[i].path.steps.back().to; };
  for (std::size_t i = 0; i < chains.size(); ++i) {
    if (chains[i].closed || distance(front(i), back(i)) <= kJoin) {
      chains[i].closed = true;
      used[i] = 1;
      done.push_back(chains[i]);
      continue;
    }
    ends.emplace(key(front(i), chains[i].layer), i);
    ends.emplace(key(back(i), chains[i].layer), i);
  }
  const auto partner = [&](Point p, const std::string& layer) -> std::ptrdiff_t {
    const auto [kx, ky, kl] = key(p, layer);
    for (std::int64_t dx = -1; dx <= 1; ++dx) {
      for (std::int64_t dy = -1; dy <= 1; ++dy) {
        const auto [from, to] = ends.equal_range({kx + dx, ky + dy, kl});
        for (auto it = from; it != to;) {
          reading.step();
          const std::size_t i = it->second;
          if (used[i]) {  // it will never be asked for again
            it = ends.erase(it);
            continue;
          }
          ++it;
          if (distance(front(i), p) <= kJoin || distance(back(i), p) <= kJoin) return static_cast<std::ptrdiff_t>(i);
        }
      }
    }
    return -1;
  };
  for (std::size_t i = 0; i < chains.size(); ++i) {
    if (used[i]) continue;
    used[i] = 1;
    Chain chain = std::move(chains[i]);
    for (int side = 0; side < 2; ++side) {
      for (;;) {
        const Point end = chain.path.steps.back().to;
        if (distance(end, chain.path.steps.front().to) <= kJoin && chain.path.steps.size() > 2) break;
        const std::ptrdiff_t k = partner(end, chain.layer);
        if (k < 0) break;
        const auto n = static_cast<std::size_t>(k);
        used[n] = 1;
        const Path next = distance(front(n), end) <= kJoin ? chains[n].path : reversed(chains[n].path);
        chain.path.steps.insert(chain.path.steps.end(), next.steps.begin() + 1, next.steps.end());
      }
      if (side == 0) chain.path = reversed(chain.path);
    }
    chain.closed =
        distance(chain.path.steps.back().to, chain.path.steps.front().to) <= kJoin && chain.path.steps.size() > 2;
    done.push_back(std::move(chain));
  }
  return done;
}

void place_on_page(std::vector<Chain>& chains, double mm, const std::string& where, Imported& out, Reading& reading) {
  Box box;
  for (Chain& c : chains) {
    reading.step();
    c.path = transformed(c.path, Transform::scale(mm, mm));
    const Flat flat = flatten(c.path, 0.05, false);
    for (const auto& line : flat.open) {
      for (const Point& p : line) box.add(p);
    }
    for (const Ring& ring : flat.closed) box.add(bounds(ring));
  }
  if (box.empty() || !(box.width() < kFarthest && box.height() < kFarthest) || std::abs(box.left) > 1e9)
    throw bad_input(say("{0}: the drawing is more than 100 m wide; is its unit right?", where));
  for (Chain& c : chains) c.path = transformed(c.path, Transform{1, 0, 0, -1, -box.left, box.top});
  out.drawing.page_width = box.width();
  out.drawing.page_height = box.height();
}

void add_parts(const std::vector<Chain>& chains, std::vector<Drawing::Part>& parts, Reading& reading) {
  std::map<std::string, std::vector<const Chain*>> layers;
  for (const Chain& c : chains) {
    if (c.closed) layers[c.layer].push_back(&c);
  }
  for (const auto& [layer, closed] : layers) add_outlines(closed, parts, reading);
  int number = 1;
  for (const Chain& c : chains) {
    if (c.closed) continue;
    reading.step();
    if (parts.size() >= kMostParts) throw bad_input(say("it has more than 200,000 lines, too many to be a sign."));
    Drawing::Part part;
    part.id = "line-" + std::to_string(number++);
    part.group = c.layer;
    part.line = true;
    part.data = path_data(c.path, 5);
    parts.push_back(std::move(part));
  }
}

}  // namespace doyen::dxf
