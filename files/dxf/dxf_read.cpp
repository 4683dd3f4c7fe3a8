#include "files/dxf/dxf_read.hpp"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <numbers>
#include <set>
#include <sstream>

#include "files/dxf/dxf_outlines.hpp"
#include "files/dxf/dxf_records.hpp"
#include "measure/length.hpp"
#include "measure/whole.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using dxf::Chain;

constexpr std::size_t kMostEntities = 1'000'000;
constexpr int kDeepestBlock = 16;
constexpr int kSplineParts = 64;  // straight pieces between two knots

struct BlockAt {
  std::string block, layer;
  Transform place;
};

struct Block {
  std::vector<Chain> chains;
  std::vector<BlockAt> inserts;
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
    if (++entities > kMostEntities) throw bad_input(say("more than a million entities, too many to be a sign."));
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
    if (++entities > kMostEntities) throw bad_input(say("more than a million entities, too many to be a sign."));
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
      if (chains_.size() > kMostEntities) throw bad_input(say("its blocks repeat into more than a million lines."));
      // What lies on layer 0 of a block takes the layer of its insert.
      chains_.push_back({c.layer == "0" && !layer.empty() ? layer : c.layer, transformed(c.path, place), c.closed});
    }
    for (const BlockAt& i : block.inserts) {
      reading_.step();
      if (++inserts_ > kMostEntities) throw bad_input(say("its blocks stand in each other more than a million times."));
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
    throw bad_input(where + ": " + problem.what());
  } catch (const std::exception&) {
    throw bad_input(say("{0}: this is not DXF as it should be; it could not be read to its end.", where));
  }
  if (!ended) left_out.add("The file is cut off: its end mark is missing, and lines may be, too.");
  for (const auto& [what, n] : collector.unknown)
    left_out.add((n == 1 ? "Left out: " : std::to_string(n) + " times left out: ") + what + ".");
  out.left_out = left_out.sentences();
  if (chains.empty()) {
    std::string why;
    for (const std::string& s : out.left_out) why += " " + s;
    throw bad_input(
        say("{0}: no lines, arcs or curves stand in this drawing; an ASCII DXF with entities was expected.{1}", where,
            why));
  }
  double mm = mm_per_unit(collector.units);
  if (mm <= 0) {
    out.sized = false;
    mm = collector.measurement == 0 ? kMmPerInch : 1;
    out.assumed = collector.measurement == 0
                      ? "The file states no unit: inches were taken. Give the width you want."
                      : "The file states no unit: millimetres were taken. Give the width you want.";
  }
  dxf::place_on_page(chains, mm, where, out, reading);
  reading.done(0.6);
  try {
    dxf::add_parts(dxf::joined(std::move(chains), reading), out.drawing.parts.edit(), reading);
  } catch (const Problem& problem) {
    throw bad_input(where + ": " + problem.what());
  }
  return out;
}

}  // namespace doyen
