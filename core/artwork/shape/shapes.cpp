// Plaques and borders.
#include <algorithm>
#include <numbers>

#include "artwork/making.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen::making {
namespace {

using Kind = PlainShape::Kind;
using Corners = PlainShape::CornerForm;

constexpr double kQuarter = 4.0 / 3 * (std::numbers::sqrt2 - 1);  // control points of a quarter circle

Path ellipse_path(double rx, double ry) {
  Path p;
  const double kx = rx * kQuarter, ky = ry * kQuarter;
  p.move({rx, 0});
  p.curve({rx, ky}, {kx, ry}, {0, ry});
  p.curve({-kx, ry}, {-rx, ky}, {-rx, 0});
  p.curve({-rx, -ky}, {-kx, -ry}, {0, -ry});
  p.curve({kx, -ry}, {rx, -ky}, {rx, 0});
  p.close();
  return p;
}

// One corner of a rectangle, from the end of one side to the beginning of the next; `along` and `next` are the two
// sides' directions.
void add_corner(Path& p, Point corner, Point along, Point next, double r, Corners form) {
  const Point from = corner - along * r, to = corner + next * r;
  p.line(from);
  switch (form) {
    case Corners::Round:
      p.curve(from + along * (r * kQuarter), to - next * (r * kQuarter), to);
      break;
    case Corners::Scooped:  // a quarter circle about the corner itself
      p.curve(from + next * (r * kQuarter), to - along * (r * kQuarter), to);
      break;
    case Corners::Clipped:
      p.line(to);
      break;
    case Corners::Arched: {  // a step in, then a round
      const Point step_in = corner - along * r + next * (r / 3), step_out = corner + next * r - along * (r / 3);
      p.line(step_in);
      const double q = r * 2 / 3;
      p.curve(step_in + along * (q * kQuarter), step_out - next * (q * kQuarter), step_out);
      p.line(to);
      break;
    }
  }
}

Path rectangle_path(double w, double h, double radius, Corners form) {
  const double r = std::clamp(radius, 0.0, std::min(w, h) / 2);
  const double x = w / 2, y = h / 2;
  Path p;
  if (r < 1e-6) {
    p.move({-x, -y});
    p.line({x, -y});
    p.line({x, y});
    p.line({-x, y});
  } else {
    p.move({-x + r, -y});
    add_corner(p, {x, -y}, {1, 0}, {0, 1}, r, form);
    add_corner(p, {x, y}, {0, 1}, {-1, 0}, r, form);
    add_corner(p, {-x, y}, {-1, 0}, {0, -1}, r, form);
    add_corner(p, {-x, -y}, {0, -1}, {1, 0}, r, form);
  }
  p.close();
  return p;
}

// An arc of a circle from its right end to its left one, over the top: so many radians to either side.
void add_arc(Path& p, Point middle, double radius, double half) {
  const int parts = std::max(4, static_cast<int>(std::ceil(half / 0.4)));
  const double step = 2 * half / parts, k = 4.0 / 3 * std::tan(step / 4) * radius;
  const auto at = [&](double a) { return middle + Point{std::sin(a), std::cos(a)} * radius; };
  const auto along = [](double a) { return Point{-std::cos(a), std::sin(a)}; };
  for (int i = 0; i < parts; ++i) {
    const double a = half - step * i, b = a - step;
    p.curve(at(a) + along(a) * k, at(b) - along(b) * k, at(b));
  }
}

// A rectangle whose top is an arc of a circle that rises so high above its shoulders.
Path arch_path(double w, double h, double rise) {
  const double x = w / 2, y = h / 2, s = std::clamp(rise, 0.05, std::min(h - 0.05, x));
  const double radius = (x * x + s * s) / (2 * s);
  Path p;
  p.move({-x, -y});
  p.line({x, -y});
  p.line({x, y - s});
  add_arc(p, {0, y - radius}, radius, std::asin(std::min(1.0, x / radius)));
  p.close();
  return p;
}

// The arc that fills a box from its front edge to its back: flatter than half a circle while the box is wider than
// twice its height, else more of one, and the whole disc at most.
Path arc_path(double w, double h) {
  const double x = w / 2, y = h / 2;
  const double radius = h <= x ? (x * x + h * h) / (2 * h) : x;
  const double half = h <= x ? std::asin(std::min(1.0, x / radius)) : std::acos(std::max(-0.999, 1 - h / radius));
  Path p;
  const Point middle{0, y - radius};
  p.move(middle + Point{std::sin(half), std::cos(half)} * radius);
  add_arc(p, middle, radius, half);
  return p;
}
Path bow_path(double w, double h) {
  Path p = arc_path(w, h);
  p.close();
  return p;
}

// Straight along the back, upright sides, drawn in to a point at the front.
Path shield_path(double w, double h) {
  const double x = w / 2, y = h / 2, shoulder = y - 0.35 * h;
  Path p;
  p.move({-x, y});
  p.line({-x, shoulder});
  p.curve({-x, shoulder - 0.3 * h}, {-0.35 * x, -y + 0.12 * h}, {0, -y});
  p.curve({0.35 * x, -y + 0.12 * h}, {x, shoulder - 0.3 * h}, {x, shoulder});
  p.line({x, y});
  p.close();
  return p;
}

// Two half rounds and the point between them; the box is filled exactly.
Path heart_path(double w, double h) {
  const double x = w / 2, y = h / 2, dip = y - 0.2 * h, lobe = y - 0.3 * h;
  Path p;
  p.move({0, -y});
  p.curve({0.45 * x, -y + 0.2 * h}, {x, lobe - 0.3 * h}, {x, lobe});
  p.curve({x, lobe + 0.18 * h}, {0.78 * x, y}, {0.5 * x, y});
  p.curve({0.25 * x, y}, {0.05 * x, dip + 0.1 * h}, {0, dip});
  p.curve({-0.05 * x, dip + 0.1 * h}, {-0.25 * x, y}, {-0.5 * x, y});
  p.curve({-0.78 * x, y}, {-x, lobe + 0.18 * h}, {-x, lobe});
  p.curve({-x, lobe - 0.3 * h}, {-0.45 * x, -y + 0.2 * h}, {0, -y});
  p.close();
  return p;
}

// Points on an ellipse, the first at the top; every second one drawn in for stars.
Path points_path(double w, double h, int points, double inner) {
  const int n = std::clamp(points, 3, 200) * (inner > 0 ? 2 : 1);
  Path p;
  for (int i = 0; i < n; ++i) {
    const double a = 2 * std::numbers::pi * i / n, k = inner > 0 && i % 2 == 1 ? inner : 1;
    const Point at{-std::sin(a) * w / 2 * k, std::cos(a) * h / 2 * k};
    i == 0 ? p.move(at) : p.line(at);
  }
  p.close();
  return p;
}

// A band with swallow-tailed ends.
Path ribbon_path(double w, double h) {
  const double x = w / 2, y = h / 2, notch = std::min(h / 2, w / 4);
  Path p;
  p.move({-x, -y});
  for (const Point at : {Point{x, -y}, Point{x - notch, 0}, Point{x, y}, Point{-x, y}, Point{-x + notch, 0}})
    p.line(at);
  p.close();
  return p;
}

Path path_of(const PlainShape& s, double inset) {
  const double w = s.width - 2 * inset, h = s.height - 2 * inset;
  switch (s.kind) {
    case Kind::Ellipse:
      return ellipse_path(w / 2, h / 2);
    case Kind::ArchTop:
      return arch_path(w, h, s.rise);
    case Kind::Polygon:
      return points_path(w, h, s.points, 0);
    case Kind::Star:
      return points_path(w, h, s.points, std::clamp(s.inner, 0.05, 0.98));
    case Kind::Ribbon:
      return ribbon_path(w, h);
    case Kind::Shield:
      return shield_path(w, h);
    case Kind::Heart:
      return heart_path(w, h);
    case Kind::Bow:
      return bow_path(w, std::min(w, h));
    case Kind::Rectangle:
    case Kind::Line:
    case Kind::Arc:
      return rectangle_path(w, h, s.corner_form == Corners::Round ? s.corner_radius - inset : s.corner_radius,
                            s.corner_form);
  }
  return {};
}

}  // namespace

Outlines shape_outlines(const PlainShape& s, const Transform& place) {
  check_size(s.width, s.kind == Kind::Line ? say("The length") : say("The width"));
  Outlines out;
  if (s.kind == Kind::Line) {
    const Line2 line{place.apply({-s.width / 2, 0}), place.apply({s.width / 2, 0})};
    if (s.band > 0)
      out.region = stroked({line}, s.band, StrokeEnd::Flat, StrokeJoint::Pointed);
    else
      out.lines = {line};
    return out;
  }
  check_size(s.height, say("The height"));
  if (s.kind == Kind::Arc) {
    const Path arc = transformed(arc_path(s.width, std::min(s.width, s.height)), place);
    const std::vector<Line2> lines = flatten(arc, kFlatness, false).open;
    if (s.band > 0)
      out.region = stroked(lines, s.band, StrokeEnd::Flat, StrokeJoint::Pointed);
    else
      out.lines = lines;
    return out;
  }
  const auto outline = [&](double inset) {
    return clean(flatten(transformed(path_of(s, inset), place), kFlatness, true).closed);
  };
  out.region = outline(0);
  if (s.band <= 0 || 2 * s.band >= std::min(s.width, s.height) - 0.1) return out;
  // Rounded rectangles and ellipses keep their own form inside; everything else is drawn in evenly.
  const bool own = s.kind == Kind::Ellipse || (s.kind == Kind::Rectangle && s.corner_form == Corners::Round);
  out.region = subtract(out.region, own ? outline(s.band) : grow(out.region, -s.band, Corner::Sharp));
  return out;
}

std::vector<Path> shape_paths(const PlainShape& s) {
  if (s.kind == Kind::Line) {
    Path line;
    line.move({-s.width / 2, 0});
    line.line({s.width / 2, 0});
    return {line};
  }
  if (s.kind == Kind::Arc) return {arc_path(s.width, std::min(s.width, s.height))};
  std::vector<Path> paths{path_of(s, 0)};
  if (s.band <= 0 || 2 * s.band >= std::min(s.width, s.height) - 0.1) return paths;
  if (s.kind == Kind::Ellipse || (s.kind == Kind::Rectangle && s.corner_form == Corners::Round)) {
    paths.push_back(path_of(s, s.band));
    return paths;
  }
  for (const Island& island : shape_outlines(s, {}).region.islands) {
    for (std::size_t i = 1; i < island.rings.size(); ++i) {
      Path ring;
      for (std::size_t k = 0; k < island.rings[i].size(); ++k)
        k == 0 ? ring.move(island.rings[i][0]) : ring.line(island.rings[i][k]);
      ring.close();
      paths.push_back(std::move(ring));
    }
  }
  return paths;
}

}  // namespace doyen::making
