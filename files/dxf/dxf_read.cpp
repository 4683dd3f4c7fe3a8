#include "files/dxf/dxf_read.hpp"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <algorithm>
#include <boost/geometry/algorithms/disjoint.hpp>
#include <boost/geometry/geometries/box.hpp>
#include <boost/geometry/geometries/point.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <charconv>
#include <cmath>
#include <map>
#include <numbers>
#include <set>
#include <sstream>
#include <tuple>

#include "artwork/drawing_limits.hpp"
#include "files/dxf/dxf_records.hpp"
#include "measure/length.hpp"
#include "measure/whole.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostEntities = 1'000'000;
constexpr int kDeepestBlock = 16;
constexpr int kSplineParts = 64;  // straight pieces between two knots
constexpr double kJoin = 0.01;    // mm: ends nearer than this are one

// One line or curve chain of an entity, in drawing units, y up.
struct Chain {
  std::string layer;
  Path path;  // one subpath
  bool closed = false;
};

struct Insert {
  std::string block, layer;
  Transform place;
};

struct Block {
  std::vector<Chain> chains;
  std::vector<Insert> inserts;
  Point base;
};

bool finite(const Path& path) {
  return std::all_of(path.steps.begin(), path.steps.end(), [](const PathStep& s) {
    return std::isfinite(s.to.x + s.to.y + s.c1.x + s.c1.y + s.c2.x + s.c2.y);
  });
}

// An arc of an ellipse given by its middle and two half axes, from one angle to another (radians), as cubic curves.
void append_arc(Path& path, Point middle, Point u, Point v, double from, double to, bool begin) {
  const int n = whole_up(std::abs(to - from) / (std::numbers::pi / 8), 1, 1'000'000);
  const double step = (to - from) / n, k = 4.0 / 3 * std::tan(step / 4);
  const auto at = [&](double a) { return middle + u * std::cos(a) + v * std::sin(a); };
  const auto along = [&](double a) { return v * std::cos(a) - u * std::sin(a); };
  if (begin) path.move(at(from));
  for (int i = 0; i < n; ++i) {
    const double a = from + step * i, b = a + step;
    path.curve(at(a) + along(a) * k, at(b) - along(b) * k, at(b));
  }
}

// Where an arc that begins at `from` ends, anticlockwise: more than nothing and at most once round after it.
double turned_from(double from, double to) {
  constexpr double kRound = 2 * std::numbers::pi;
  double turn = std::fmod(to - from, kRound);
  if (turn <= 1e-12) turn += kRound;
  return from + turn;
}

// From a to b with bulge = tan(included angle / 4), positive anticlockwise (published DXF reference).
void append_bulge(Path& path, Point a, Point b, double bulge) {
  if (std::abs(bulge) < 1e-9 || distance(a, b) < 1e-12) return path.line(b);
  const double included = 4 * std::atan(bulge);
  const Point d = b - a;
  const double h = (1 - bulge * bulge) / (4 * bulge);
  const Point middle{(a.x + b.x) / 2 - d.y * h, (a.y + b.y) / 2 + d.x * h};
  const Point u = a - middle;
  append_arc(path, middle, u, {-u.y, u.x}, 0, included, false);
  path.steps.back().to = b;
}

// de Boor's algorithm, rational where weights are given; sampled closely, then thinned with everything else.
class Spline {
 public:
  unsigned degree = 3;
  std::vector<double> knots;
  std::vector<Point> control, fit;
  std::vector<double> weights;
  bool closed = false;

  [[nodiscard]] bool sound() const {
    return degree >= 1 && degree <= 25 && control.size() > degree && knots.size() == control.size() + degree + 1 &&
           std::is_sorted(knots.begin(), knots.end());
  }
  [[nodiscard]] Path path() const {
    Path out;
    if (!sound()) {  // without control points the curve goes through its fit points
      for (std::size_t i = 0; i < fit.size(); ++i) i == 0 ? out.move(fit[i]) : out.line(fit[i]);
      return out;
    }
    const std::size_t last = knots.size() - degree - 1;
    bool begun = false;
    for (std::size_t k = degree; k < last; ++k) {
      if (!(knots[k + 1] > knots[k])) continue;
      for (int i = begun ? 1 : 0; i <= kSplineParts; ++i) {
        const Point p = at(k, knots[k] + (knots[k + 1] - knots[k]) * i / kSplineParts);
        begun ? out.line(p) : out.move(p);
        begun = true;
      }
    }
    return out;
  }

 private:
  [[nodiscard]] Point at(std::size_t span, double t) const {
    struct Homogeneous {
      double x, y, w;
    };
    std::vector<Homogeneous> d;
    for (std::size_t j = 0; j <= degree; ++j) {
      const std::size_t i = j + span - degree;
      const double w = i < weights.size() && weights[i] > 0 ? weights[i] : 1;
      d.push_back({control[i].x * w, control[i].y * w, w});
    }
    for (std::size_t r = 1; r <= degree; ++r) {
      for (std::size_t j = degree; j >= r; --j) {
        const std::size_t i = j + span - degree;
        const double low = knots[i], high = knots[i + degree - r + 1];
        const double a = high > low ? (t - low) / (high - low) : 0;
        d[j] = {d[j - 1].x * (1 - a) + d[j].x * a, d[j - 1].y * (1 - a) + d[j].y * a,
                d[j - 1].w * (1 - a) + d[j].w * a};
      }
    }
    return {d[degree].x / d[degree].w, d[degree].y / d[degree].w};
  }
};

class Collector : public DL_CreationAdapter {
 public:
  explicit Collector(Reading& reading) : reading_(reading) {}

  Block model;
  std::map<std::string, Block> blocks;
  std::map<std::string, std::size_t> unknown;  // by what it is
  int units = -1, measurement = -1;
  std::size_t entities = 0;

  void finish() {
    end_polyline();
    end_spline();
  }

  void setVariableInt(const std::string& key, int value, int) override {
    if (key == "$INSUNITS") units = value;
    if (key == "$MEASUREMENT") measurement = value;
  }
  void addBlock(const DL_BlockData& data) override {
    finish();
    now_ = &blocks[data.name];
    now_->base = {data.bpx, data.bpy};
    if (data.name.starts_with("*Model") || data.name.starts_with("*MODEL") || data.name.starts_with("*Paper"))
      now_ = &model;
  }
  void endBlock() override {
    finish();
    now_ = &model;
  }
  void addLine(const DL_LineData& d) override {
    Path p;
    p.move({d.x1, d.y1});
    p.line({d.x2, d.y2});
    add(std::move(p), false);
  }
  void addArc(const DL_ArcData& d) override {
    double from = d.angle1 * std::numbers::pi / 180, to = d.angle2 * std::numbers::pi / 180;
    if (!std::isfinite(from + to) || std::abs(from) > 1e6 || std::abs(to) > 1e6)
      return note("an arc without sound angles");
    to = turned_from(from, to);
    Path p;
    append_arc(p, {d.cx, d.cy}, {d.radius, 0}, {0, d.radius}, from, to, true);
    add(std::move(p), false);
  }
  void addCircle(const DL_CircleData& d) override {
    Path p;
    append_arc(p, {d.cx, d.cy}, {d.radius, 0}, {0, d.radius}, 0, 2 * std::numbers::pi, true);
    add(std::move(p), true);
  }
  void addEllipse(const DL_EllipseData& d) override {
    double from = d.angle1, to = d.angle2;
    if (!std::isfinite(from + to) || std::abs(from) > 1e6 || std::abs(to) > 1e6)
      return note("an ellipse without sound angles");
    to = turned_from(from, to);
    Path p;
    append_arc(p, {d.cx, d.cy}, {d.mx, d.my}, Point{-d.my, d.mx} * d.ratio, from, to, true);
    add(std::move(p), to - from > 2 * std::numbers::pi - 1e-9);
  }
  void addPolyline(const DL_PolylineData& d) override {
    finish();
    in_polyline_ = true;
    polyline_closed_ = (d.flags & 1) != 0;
    if ((d.flags & (16 | 64)) != 0) {  // a mesh is no outline
      note("a mesh");
      in_polyline_ = false;
    }
    polyline_layer_ = getAttributes().getLayer();
    polyline_mirrored_ = mirrored();
  }
  void addVertex(const DL_VertexData& d) override {
    if (in_polyline_) vertices_.push_back({{d.x, d.y}, d.bulge});
  }
  void endEntity() override {
    end_polyline();
    end_spline();
  }
  void addSpline(const DL_SplineData& d) override {
    finish();
    in_spline_ = true;
    spline_ = {};
    spline_.degree = d.degree;
    spline_.closed = (d.flags & 1) != 0;
    spline_layer_ = getAttributes().getLayer();
  }
  void addControlPoint(const DL_ControlPointData& d) override {
    spline_.control.push_back({d.x, d.y});
    spline_.weights.push_back(d.w);
  }
  void addFitPoint(const DL_FitPointData& d) override { spline_.fit.push_back({d.x, d.y}); }
  void addKnot(const DL_KnotData& d) override { spline_.knots.push_back(d.k); }
  void addInsert(const DL_InsertData& d) override {
    finish();
    if (++entities > kMostEntities) throw bad_input("more than a million entities, too many to be a sign.");
    const int cols = std::clamp(d.cols, 1, 500), rows = std::clamp(d.rows, 1, 500);
    if (cols * rows > 10'000) return note("a block repeated more than 10,000 times");
    for (int r = 0; r < rows; ++r) {
      for (int c = 0; c < cols; ++c) {
        Transform t = Transform::scale(d.sx, d.sy)
                          .then(Transform::move(c * d.colSp, r * d.rowSp))
                          .then(Transform::turn(d.angle))
                          .then(Transform::move(d.ipx, d.ipy));
        if (mirrored()) t = t.then(Transform::scale(-1, 1));
        now_->inserts.push_back({d.name, getAttributes().getLayer(), t});
      }
    }
  }
  void addSolid(const DL_SolidData& d) override { corners(d); }
  void addTrace(const DL_TraceData& d) override { corners(d); }

 private:
  struct Vertex {
    Point at;
    double bulge;
  };

  // An extrusion that looks down from below mirrors x (published DXF reference, arbitrary axis algorithm).
  [[nodiscard]] bool mirrored() {
    const double* direction = getExtrusion() == nullptr ? nullptr : getExtrusion()->getDirection();
    return direction != nullptr && direction[2] < -0.5;
  }

  void note(const char* what) {
    ++entities;
    ++unknown[what];
  }

  void add(Path path, bool closed) { add_to(getAttributes().getLayer(), std::move(path), closed, mirrored()); }
  void add_to(const std::string& layer, Path path, bool closed, bool mirror) {
    if (++entities > kMostEntities) throw bad_input("more than a million entities, too many to be a sign.");
    if (path.steps.size() < 2) return;
    if (!finite(path)) return note("a line with a coordinate that is no number");
    reading_.points(path.steps.size());
    if (mirror) path = transformed(path, Transform::scale(-1, 1));
    now_->chains.push_back({layer, std::move(path), closed});
  }

  template <typename Data>
  void corners(const Data& d) {  // a filled quadrilateral, its last two corners crossed over
    Path p;
    p.move({d.x[0], d.y[0]});
    p.line({d.x[1], d.y[1]});
    p.line({d.x[3], d.y[3]});
    p.line({d.x[2], d.y[2]});
    p.line({d.x[0], d.y[0]});
    add(std::move(p), true);
  }

  void end_polyline() {
    if (!in_polyline_) return;
    in_polyline_ = false;
    Path p;
    for (std::size_t i = 0; i < vertices_.size(); ++i)
      i == 0 ? p.move(vertices_[0].at) : append_bulge(p, vertices_[i - 1].at, vertices_[i].at, vertices_[i - 1].bulge);
    if (polyline_closed_ && vertices_.size() > 1)
      append_bulge(p, vertices_.back().at, vertices_.front().at, vertices_.back().bulge);
    const bool closed = polyline_closed_;
    vertices_.clear();
    add_to(polyline_layer_, std::move(p), closed, polyline_mirrored_);
  }
  void end_spline() {
    if (!in_spline_) return;
    in_spline_ = false;
    if (!spline_.sound() && spline_.fit.size() < 2) return note("a spline without sound knots");
    if (!spline_.sound()) ++unknown["the fit of a spline (joined by straight lines)"];
    // Counted before they are made; add_to() counts what is there.
    else if (spline_.control.size() * kSplineParts > Reading::kMostPoints)
      reading_.points(Reading::kMostPoints + 1);
    add_to(spline_layer_, spline_.path(), spline_.closed, false);
  }

  Block* now_ = &model;
  std::vector<Vertex> vertices_;
  bool in_polyline_ = false, polyline_closed_ = false, polyline_mirrored_ = false, in_spline_ = false;
  std::string polyline_layer_, spline_layer_;
  Spline spline_;
  Reading& reading_;
};

double mm_per_unit(int units) {  // $INSUNITS (published DXF reference)
  switch (units) {
    case 1:
      return 25.4;
    case 2:
      return 304.8;
    case 4:
      return 1;
    case 5:
      return 10;
    case 6:
      return 1000;
    case 8:
      return 25.4e-6;
    case 9:
      return 0.0254;
    case 10:
      return 914.4;
    case 13:
      return 0.001;
    case 14:
      return 100;
    default:
      return 0;
  }
}

class Expander {
 public:
  // The points of blocks count each time that they are inserted, beside those that were read.
  Expander(const Collector& from, LeftOut& left_out, Reading& reading)
      : from_(from), left_out_(left_out), reading_(reading) {}
  std::vector<Chain> run() {
    expand(from_.model, {}, "", 0);
    return std::move(chains_);
  }

 private:
  void expand(const Block& block, const Transform& place, const std::string& layer, int depth) {
    for (const Chain& c : block.chains) {
      if (depth > 0) reading_.points(c.path.steps.size());
      if (chains_.size() > kMostEntities) throw bad_input("its blocks repeat into more than a million lines.");
      // What lies on layer 0 of a block takes the layer of its insert.
      chains_.push_back({c.layer == "0" && !layer.empty() ? layer : c.layer, transformed(c.path, place), c.closed});
    }
    for (const Insert& i : block.inserts) {
      reading_.step();
      if (++inserts_ > kMostEntities) throw bad_input("its blocks stand in each other more than a million times.");
      const auto it = from_.blocks.find(i.block);
      if (it == from_.blocks.end()) {
        left_out_.add("The block “" + i.block.substr(0, 40) + "” is not in the file and was left out.");
        continue;
      }
      if (depth >= kDeepestBlock || following_.contains(i.block)) {
        left_out_.add("A block that contains itself was left out.");
        continue;
      }
      following_.insert(i.block);
      expand(it->second, Transform::move(-it->second.base.x, -it->second.base.y).then(i.place).then(place),
             i.layer == "0" ? layer : i.layer, depth + 1);
      following_.erase(i.block);
    }
  }
  const Collector& from_;
  LeftOut& left_out_;
  Reading& reading_;
  std::vector<Chain> chains_;
  std::size_t inserts_ = 0;
  std::set<std::string> following_;
};

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

// Ends that meet are joined into longer chains until none do; what comes back to its start is closed.
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
    if (parts.size() >= kMostParts) throw bad_input("it has more than 200,000 outlines, too many to be a sign.");
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

// From drawing units, y up, onto a page of its own in mm, y down, as everything that is imported.
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
    throw bad_input(where + ": the drawing is more than 100 m wide; is its unit right?");
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
    if (parts.size() >= kMostParts) throw bad_input("it has more than 200,000 lines, too many to be a sign.");
    Drawing::Part part;
    part.id = "line-" + std::to_string(number++);
    part.group = c.layer;
    part.line = true;
    part.data = path_data(c.path, 5);
    parts.push_back(std::move(part));
  }
}

}  // namespace

Imported read_dxf(const std::string& text, const std::string& where, Reading reading) {
  Imported out;
  const auto slash = where.rfind('/');
  out.drawing.name = slash == std::string::npos ? where : where.substr(slash + 1);
  Collector collector(reading);
  LeftOut left_out;
  std::vector<Chain> chains;
  bool ended = false;
  try {
    DxfRecords records = sound_records(text, reading);
    std::istringstream stream(std::move(records.text));
    ended = records.ended;
    collector.unknown = std::move(records.left_out);
    DL_Dxf reader;
    reader.in(stream, &collector);
    collector.finish();
    reading.done(0.5);
    chains = Expander(collector, left_out, reading).run();
  } catch (const Problem& problem) {
    if (problem.kind() == Problem::Kind::Cancelled) throw;
    throw bad_input(where + ": " + problem.what());
  } catch (const std::exception&) {
    throw bad_input(where + ": this is not DXF as it should be; it could not be read to its end.");
  }
  if (!ended) left_out.add("The file is cut off: its end mark is missing, and lines may be, too.");
  for (const auto& [what, n] : collector.unknown)
    left_out.add((n == 1 ? "Left out: " : std::to_string(n) + " times left out: ") + what + ".");
  out.left_out = left_out.sentences();
  if (chains.empty()) {
    std::string why;
    for (const std::string& s : out.left_out) why += " " + s;
    throw bad_input(where +
                    ": no lines, arcs or curves stand in this drawing; an ASCII DXF with entities was expected." + why);
  }
  double mm = mm_per_unit(collector.units);
  if (mm <= 0) {
    out.sized = false;
    mm = collector.measurement == 0 ? kMmPerInch : 1;
    out.assumed = collector.measurement == 0
                      ? "The file states no unit: inches were taken. Give the width you want."
                      : "The file states no unit: millimetres were taken. Give the width you want.";
  }
  place_on_page(chains, mm, where, out, reading);
  reading.done(0.6);
  try {
    add_parts(joined(std::move(chains), reading), out.drawing.parts, reading);
  } catch (const Problem& problem) {
    if (problem.kind() == Problem::Kind::Cancelled) throw;
    throw bad_input(where + ": " + problem.what());
  }
  return out;
}

}  // namespace doyen
