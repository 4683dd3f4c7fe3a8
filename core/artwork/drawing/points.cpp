#include "artwork/drawing/points.hpp"

#include <algorithm>
#include <functional>

namespace doyen {
namespace {

constexpr double kSame = 1e-6;  // mm on the page: the outline comes back to where it began

Transform inverse(const Transform& t) {
  const double k = 1 / t.determinant();
  const Transform linear{t.d * k, -t.b * k, -t.c * k, t.a * k, 0, 0};
  const Point back = linear.apply({t.e, t.f});
  return {linear.a, linear.b, linear.c, linear.d, -back.x, -back.y};
}

Point along(const Contour& c, std::size_t i, std::size_t step) {
  const std::size_t n = c.points.size();
  if (!c.closed) return c.points[std::min(i + step, n - 1)].at;
  return c.points[(i + step) % n].at;
}
Point before(const Contour& c, std::size_t i) {
  if (!c.closed && i == 0) return c.points[0].at;
  return c.points[(i + c.points.size() - 1) % c.points.size()].at;
}

// Lets `change` work on the point's own contour, on the page.
bool edit_point(Piece& piece, PointPlace place,
                const std::function<void(Drawing&, std::vector<Contour>&, Contour&)>& change) {
  const auto* drawing = std::get_if<Drawing>(&piece.what);
  if (drawing == nullptr || place.part >= drawing->parts.size()) return false;
  std::vector<Contour> contours = contours_of(parse_path(drawing->parts[place.part].data));
  if (place.contour >= contours.size() || place.point >= contours[place.contour].points.size()) return false;
  edit_parts(piece, [&](Drawing& d) {
    change(d, contours, contours[place.contour]);
    if (place.part < d.parts.size()) d.parts.edit()[place.part].data = path_data(path_of(contours), 5);
  });
  return true;
}

struct Cubic {
  Point a, b, c, d;
  [[nodiscard]] Point at(double t) const {
    const double u = 1 - t;
    return a * (u * u * u) + b * (3 * u * u * t) + c * (3 * u * t * t) + d * (t * t * t);
  }
};
Cubic segment(const Contour& contour, std::size_t i) {
  const OutlinePoint &from = contour.points[i], &to = contour.points[(i + 1) % contour.points.size()];
  if (!from.out && !to.in)
    return {from.at, from.at + (to.at - from.at) * (1.0 / 3), from.at + (to.at - from.at) * (2.0 / 3), to.at};
  return {from.at, from.out.value_or(from.at), to.in.value_or(to.at), to.at};
}

// The nearest place on a curve: looked for on a row of points, then closer and closer round the best.
std::pair<double, double> nearest_on(const Cubic& curve, Point p) {
  double low = 0, high = 1, best_t = 0, best = 1e300;
  for (int round = 0; round < 5; ++round) {
    constexpr int kLooks = 24;
    for (int i = 0; i <= kLooks; ++i) {
      const double t = low + (high - low) * i / kLooks, away = distance(curve.at(t), p);
      if (away < best) {
        best = away;
        best_t = t;
      }
    }
    const double half = (high - low) / kLooks;
    low = std::max(0.0, best_t - half);
    high = std::min(1.0, best_t + half);
  }
  return {best, best_t};
}

}  // namespace

bool OutlinePoint::smooth() const {
  if (!in || !out) return false;
  const Point a = at - *in, b = *out - at;
  const double lengths = length(a) * length(b);
  return lengths > 0 && dot(a, b) > 0 && std::abs(cross(a, b)) < 0.035 * lengths;
}

std::vector<Contour> contours_of(const Path& path) {
  std::vector<Contour> all;
  Point start;
  for (const PathStep& step : path.steps) {
    if (step.kind == PathStep::Kind::Move) {
      all.push_back({false, {{step.to, {}, {}}}});
      start = step.to;
      continue;
    }
    if (all.empty()) continue;
    if (step.kind == PathStep::Kind::Close) {
      all.back().closed = true;
      continue;
    }
    if (all.back().closed) all.push_back({false, {{start, {}, {}}}});  // drawn on after closing, as SVG allows
    std::vector<OutlinePoint>& points = all.back().points;
    OutlinePoint next{step.to, {}, {}};
    if (step.kind == PathStep::Kind::Curve) {
      points.back().out = step.c1;
      next.in = step.c2;
    }
    points.push_back(next);
  }
  for (Contour& c : all) {
    // The last point of a closed outline often repeats the first.
    if (c.closed && c.points.size() > 1 && distance(c.points.front().at, c.points.back().at) < kSame) {
      c.points.front().in = c.points.back().in;
      c.points.pop_back();
    }
  }
  std::erase_if(all, [](const Contour& c) { return c.points.empty(); });
  return all;
}

Path path_of(const std::vector<Contour>& contours) {
  Path path;
  for (const Contour& c : contours) {
    if (c.points.empty()) continue;
    path.move(c.points.front().at);
    const std::size_t n = c.points.size(), segments = c.closed ? n : n - 1;
    for (std::size_t i = 0; i < segments; ++i) {
      const OutlinePoint &from = c.points[i], &to = c.points[(i + 1) % n];
      if (from.out || to.in)
        path.curve(from.out.value_or(from.at), to.in.value_or(to.at), to.at);
      else if (i + 1 < n)
        path.line(to.at);  // the last straight side of a closed outline is drawn by closing it
    }
    if (c.closed) path.close();
  }
  return path;
}

Transform to_page(const Piece& piece) { return inverse(drawing_place(piece)); }

std::vector<BoardPoint> points_on_board(const Piece& piece) {
  const auto& drawing = std::get<Drawing>(piece.what);
  const Transform place = drawing_place(piece);
  std::vector<BoardPoint> all;
  for (std::size_t part = 0; part < drawing.parts.size(); ++part) {
    if (drawing.parts[part].left_out) continue;
    const std::vector<Contour> contours = contours_of(parse_path(drawing.parts[part].data));
    for (std::size_t c = 0; c < contours.size(); ++c) {
      for (std::size_t i = 0; i < contours[c].points.size(); ++i) {
        OutlinePoint p = contours[c].points[i];
        p.at = place.apply(p.at);
        if (p.in) p.in = place.apply(*p.in);
        if (p.out) p.out = place.apply(*p.out);
        all.push_back({{part, c, i}, p});
      }
    }
  }
  return all;
}

bool move_point(Piece& piece, PointPlace place, PointPart which, Point to) {
  if (!std::holds_alternative<Drawing>(piece.what) || !std::isfinite(to.x) || !std::isfinite(to.y)) return false;
  const Point on_page = to_page(piece).apply(to);
  return edit_point(piece, place, [&](Drawing&, std::vector<Contour>&, Contour& contour) {
    OutlinePoint& p = contour.points[place.point];
    if (which == PointPart::Itself) {
      const Point by = on_page - p.at;
      p.at = on_page;
      if (p.in) p.in = *p.in + by;
      if (p.out) p.out = *p.out + by;
      return;
    }
    const bool was_smooth = p.smooth();
    std::optional<Point>&moved = which == PointPart::In ? p.in : p.out, &other = which == PointPart::In ? p.out : p.in;
    moved = on_page;
    const double len = distance(p.at, on_page);
    if (was_smooth && other && len > 0)  // the other side stays as long as it is and turns along
      other = p.at + (p.at - on_page) * (distance(p.at, *other) / len);
  });
}

bool remove_point(Piece& piece, PointPlace place) {
  return edit_point(piece, place, [&](Drawing& d, std::vector<Contour>& contours, Contour& contour) {
    if (contour.points.size() > (contour.closed ? 3U : 2U)) {
      contour.points.erase(contour.points.begin() + static_cast<std::ptrdiff_t>(place.point));
      return;
    }
    contours.erase(contours.begin() + static_cast<std::ptrdiff_t>(place.contour));
    // The last outline of the last part stays: a drawing without any would have no place.
    if (contours.empty() && d.parts.size() > 1) d.parts.edit()[place.part].left_out = true;
    if (contours.empty()) contours = contours_of(parse_path(d.parts[place.part].data));
  });
}

bool smooth_point(Piece& piece, PointPlace place) {
  return edit_point(piece, place, [&](Drawing&, std::vector<Contour>&, Contour& contour) {
    OutlinePoint& p = contour.points[place.point];
    const Point a = before(contour, place.point), b = along(contour, place.point, 1);
    const double len = distance(a, b);
    if (len <= 0) return;
    const Point way = (b - a) * (1 / len);
    p.in = p.at - way * (distance(a, p.at) / 3);
    p.out = p.at + way * (distance(p.at, b) / 3);
  });
}

bool corner_point(Piece& piece, PointPlace place) {
  return edit_point(piece, place, [&](Drawing&, std::vector<Contour>&, Contour& contour) {
    contour.points[place.point].in.reset();
    contour.points[place.point].out.reset();
  });
}

std::optional<PointPlace> add_point(Piece& piece, Point near, double reach) {
  const auto* drawing = std::get_if<Drawing>(&piece.what);
  if (drawing == nullptr) return std::nullopt;
  const Transform place = drawing_place(piece);
  const Point on_page = inverse(place).apply(near);
  const double scale = std::sqrt(std::abs(place.determinant()));
  double best = reach / scale, best_t = 0;
  std::optional<PointPlace> found;
  for (std::size_t part = 0; part < drawing->parts.size(); ++part) {
    if (drawing->parts[part].left_out) continue;
    const std::vector<Contour> contours = contours_of(parse_path(drawing->parts[part].data));
    for (std::size_t c = 0; c < contours.size(); ++c) {
      const std::size_t n = contours[c].points.size(), segments = contours[c].closed ? n : n - 1;
      for (std::size_t i = 0; i < segments; ++i) {
        const auto [away, t] = nearest_on(segment(contours[c], i), on_page);
        if (away >= best || t < 1e-3 || t > 1 - 1e-3) continue;
        best = away;
        best_t = t;
        found = PointPlace{part, c, i};
      }
    }
  }
  if (!found) return std::nullopt;
  edit_point(piece, *found, [&](Drawing&, std::vector<Contour>&, Contour& contour) {
    OutlinePoint& from = contour.points[found->point];
    OutlinePoint& to = contour.points[(found->point + 1) % contour.points.size()];
    const bool straight = !from.out && !to.in;
    const Cubic s = segment(contour, found->point);
    OutlinePoint made{s.at(best_t), {}, {}};
    if (!straight) {  // de Casteljau's division keeps the curve as it is
      const auto mix = [&](Point a, Point b) { return a + (b - a) * best_t; };
      const Point ab = mix(s.a, s.b), bc = mix(s.b, s.c), cd = mix(s.c, s.d);
      from.out = ab;
      to.in = cd;
      made.in = mix(ab, bc);
      made.out = mix(bc, cd);
    }
    contour.points.insert(contour.points.begin() + static_cast<std::ptrdiff_t>(found->point) + 1, made);
  });
  ++found->point;
  return found;
}

}  // namespace doyen
