#include "files/svg/svg_shapes.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/polyline.hpp"
#include "measure/length.hpp"
#include "problem.hpp"

namespace doyen::svg {

// W3C SVG 1.1, 7.8: uniform scaling placed by alignment, or stretched for "none".
Transform view_box(const std::vector<double>& view, double w, double h, const std::string& aspect) {
  double sx = w / view[2], sy = h / view[3];
  double dx = 0, dy = 0;
  if (!aspect.starts_with("none")) {
    const bool slice = aspect.find("slice") != std::string::npos;
    sx = sy = slice ? std::max(sx, sy) : std::min(sx, sy);
    const double fx = aspect.find("xMin") != std::string::npos ? 0 : aspect.find("xMax") != std::string::npos ? 1 : 0.5;
    const double fy = aspect.find("YMin") != std::string::npos ? 0 : aspect.find("YMax") != std::string::npos ? 1 : 0.5;
    dx = (w - view[2] * sx) * fx;
    dy = (h - view[3] * sy) * fy;
  }
  return Transform{sx, 0, 0, sy, dx - view[0] * sx, dy - view[1] * sy};
}

namespace {

// A rectangle, its corners rounded where that is asked for.
std::optional<Path> rectangle(const Element& e, Point viewport) {
  const auto u = [&](const char* key, double whole) { return units(e.get(key), 0, whole); };
  const double x = u("x", viewport.x), y = u("y", viewport.y), w = u("width", viewport.x), h = u("height", viewport.y);
  if (!(w > 0 && h > 0)) return std::nullopt;
  double rx = units(e.get("rx"), -1), ry = units(e.get("ry"), -1);
  if (rx < 0) rx = std::max(0.0, ry);
  if (ry < 0) ry = rx;
  rx = std::min(rx, w / 2);
  ry = std::min(ry, h / 2);
  const auto n = [](double v) { return format_number(v, 9) + " "; };
  if (rx <= 0 || ry <= 0) return parse_path("M" + n(x) + n(y) + "h" + n(w) + "v" + n(h) + "h" + n(-w) + "Z");
  const std::string arc = "a" + n(rx) + n(ry) + "0 0 1 ";
  return parse_path("M" + n(x + rx) + n(y) + "h" + n(w - 2 * rx) + arc + n(rx) + n(ry) + "v" + n(h - 2 * ry) + arc +
                    n(-rx) + n(ry) + "h" + n(2 * rx - w) + arc + n(-rx) + n(-ry) + "v" + n(2 * ry - h) + arc + n(rx) +
                    n(-ry) + "Z");
}

}  // namespace

std::optional<Path> path_of(const Element& e, Point viewport, const std::function<void(const std::string&)>& note) {
  const auto u = [&](const char* key, double whole = 0) { return units(e.get(key), 0, whole); };
  const auto ellipse = [](double cx, double cy, double rx, double ry) {
    const std::string r = format_number(rx, 9) + " " + format_number(ry, 9) + " 0 0 1 ";
    const std::string y = " " + format_number(cy, 9);
    return parse_path("M" + format_number(cx + rx, 9) + y + "A" + r + format_number(cx - rx, 9) + y + "A" + r +
                      format_number(cx + rx, 9) + y + "Z");
  };
  if (e.name == "path") {
    Path p = parse_path(e.get("d"), true);
    try {
      parse_path(e.get("d"));
    } catch (const Problem& problem) {
      note("A path was taken only as far as it makes sense: " + std::string(problem.what()));
    }
    return p;
  }
  if (e.name == "rect") return rectangle(e, viewport);
  if (e.name == "circle" && u("r") > 0) return ellipse(u("cx", viewport.x), u("cy", viewport.y), u("r"), u("r"));
  if (e.name == "ellipse" && u("rx") > 0 && u("ry") > 0)
    return ellipse(u("cx", viewport.x), u("cy", viewport.y), u("rx"), u("ry"));
  if (e.name == "line") {
    Path p;
    p.move({u("x1"), u("y1")});
    p.line({u("x2"), u("y2")});
    return p;
  }
  if (e.name == "polyline" || e.name == "polygon") {
    const std::vector<double> n = numbers(e.get("points"));
    Path p;
    for (std::size_t i = 0; i + 1 < n.size(); i += 2) i == 0 ? p.move({n[0], n[1]}) : p.line({n[i], n[i + 1]});
    if (e.name == "polygon" && !p.empty()) p.close();
    return p.empty() ? std::nullopt : std::optional<Path>(p);
  }
  return std::nullopt;
}

// Dashes by their lengths in user units; every second one is a gap.
std::vector<Line2> dashed(const std::vector<Line2>& lines, const std::vector<double>& lengths) {
  std::vector<Line2> out;
  for (const Line2& line : lines) {
    std::size_t k = 0;
    double left = lengths[0];
    Line2 now{line.front()};
    for (std::size_t i = 1; i < line.size(); ++i) {
      Point from = line[i - 1];
      double len = distance(from, line[i]);
      while (len > left) {
        const Point at = from + (line[i] - from) * (left / len);
        if (k % 2 == 0) {
          now.push_back(at);
          out.push_back(now);
        }
        len -= left;
        from = at;
        k = (k + 1) % (lengths.size() % 2 == 0 ? lengths.size() : 2 * lengths.size());
        left = lengths[k % lengths.size()];
        now = {at};
        if (out.size() > 200'000) return out;
      }
      left -= len;
      if (k % 2 == 0) now.push_back(line[i]);
    }
    if (k % 2 == 0 && now.size() > 1) out.push_back(now);
  }
  return out;
}

}  // namespace doyen::svg
