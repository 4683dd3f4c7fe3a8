// Pieces made from other pieces: grown, joined, taken away, split, mirrored, repeated. They follow their sources.
#include <algorithm>
#include <numbers>

#include "artwork/making.hpp"
#include "measure/whole.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen::making {
namespace {

constexpr int kMostCopies = 2000;

// Copies of copies are soon more than a machine's memory.
void check_copies(const Outlines& source, int copies) {
  std::size_t points = point_count(source.region);
  for (const Line2& line : source.lines) points += line.size();
  check_points(points * static_cast<std::size_t>(std::max(0, copies)));
}

Outlines moved(const Outlines& o, const Transform& by) {
  Outlines out = o;
  out.region = transformed(o.region, by);
  for (Line2& line : out.lines) {
    for (Point& p : line) p = by.apply(p);
  }
  for (LetterMark& mark : out.letters) {
    const Point a = by.apply({mark.box.left, mark.box.bottom}), b = by.apply({mark.box.right, mark.box.top});
    mark.box = {};
    mark.box.add(a);
    mark.box.add(b);
  }
  for (Derived::Bridge& bridge : out.bridges) bridge = {by.apply(bridge.from), by.apply(bridge.to)};
  return out;
}

void add(Outlines& to, const Outlines& more) {
  to.region.islands.insert(to.region.islands.end(), more.region.islands.begin(), more.region.islands.end());
  to.lines.insert(to.lines.end(), more.lines.begin(), more.lines.end());
  to.letters.insert(to.letters.end(), more.letters.begin(), more.letters.end());
}

Region joined_again(const Region& islands) {
  std::vector<Ring> rings;
  for (const Island& island : islands.islands) rings.insert(rings.end(), island.rings.begin(), island.rings.end());
  return clean(rings);
}

Transform mirroring(Point middle, double degrees) {
  return Transform::move(-middle.x, -middle.y)
      .then(Transform::turn(-degrees))
      .then(Transform::scale(1, -1))
      .then(Transform::turn(degrees))
      .then(Transform::move(middle.x, middle.y));
}

Outlines grown(const Derived& d, const Outlines& source) {
  Outlines out;
  for (int i = 1; i <= std::clamp(d.steps, 1, 50); ++i) {
    Region step = grow(source.region, d.distance * i, d.corner);
    if (source.region.empty() && !source.lines.empty() && d.distance > 0) step = sweep(source.lines, d.distance * i);
    if (d.band > 0) step = subtract(step, grow(step, -d.band, d.corner));
    out.region = i == 1 ? step : d.band > 0 ? unite(out.region, step) : d.distance > 0 ? step : unite(out.region, step);
  }
  return out;
}

// What lies on the line's left (or right), the line crossing the box at `share` of its extent square to it.
Outlines split(const Derived& d, const Outlines& source) {
  const Box box = bounds(source);
  const Point along{std::cos(d.angle * std::numbers::pi / 180), std::sin(d.angle * std::numbers::pi / 180)},
      left{-along.y, along.x};
  double low = 1e300, high = -1e300;
  for (const Point p : {Point{box.left, box.bottom}, Point{box.right, box.bottom}, Point{box.right, box.top},
                        Point{box.left, box.top}}) {
    low = std::min(low, dot(p, left));
    high = std::max(high, dot(p, left));
  }
  const double at = low + (high - low) * (1 - std::clamp(d.share, 0.0, 1.0)), far = box.width() + box.height() + 10;
  const Point on = box.centre() + left * (at - dot(box.centre(), left));
  const double side = d.first_side ? far : -far;
  const Region half =
      clean({{on - along * far, on + along * far, on + along * far + left * side, on - along * far + left * side}});
  Outlines out;
  out.region = intersect(source.region, half);
  out.lines = clip_lines(source.lines, half);
  return out;
}

Outlines along_a_way(const Derived& d, const Outlines& source, const Outlines& way) {
  Line2 line;
  bool closed = false;
  if (!way.lines.empty()) {
    line = way.lines.front();
  } else if (!way.region.empty()) {
    line = way.region.islands.front().rings.front();
    line.push_back(line.front());
  }
  if (line.size() < 2) throw bad_input(say("The piece to repeat along has no outline."));
  closed = distance(line.front(), line.back()) < 1e-6;
  double whole = 0;
  for (std::size_t i = 1; i < line.size(); ++i) whole += distance(line[i - 1], line[i]);
  const double fit = std::floor(whole / std::max(0.1, std::abs(d.distance))) + (closed ? 0 : 1);
  const int n = whole_up(d.count > 0 ? d.count : fit, 1, kMostCopies);
  check_copies(source, n);
  const Point middle = bounds(source).centre();
  Outlines out;
  std::size_t i = 1;
  double run = 0;
  for (int k = 0; k < n; ++k) {
    const double wanted = d.count > 0 ? (closed   ? whole * k / n
                                         : n == 1 ? whole / 2
                                                  : whole * k / (n - 1))
                                      : std::abs(d.distance) * k;
    while (i + 1 < line.size() && run + distance(line[i - 1], line[i]) < wanted) {
      run += distance(line[i - 1], line[i]);
      ++i;
    }
    const double len = distance(line[i - 1], line[i]);
    const Point way_on = len > 0 ? (line[i] - line[i - 1]) * (1 / len) : Point{1, 0};
    const Point at = line[i - 1] + way_on * std::min(len, wanted - run);
    Transform t = Transform::move(-middle.x, -middle.y);
    if (d.turned) t = t.then(Transform::turn(std::atan2(way_on.y, way_on.x) * 180 / std::numbers::pi));
    add(out, moved(source, t.then(Transform::move(at.x, at.y))));
  }
  out.region = joined_again(out.region);
  return out;
}

Outlines round_a_centre(const Derived& d, const Outlines& source) {
  const Point middle = bounds(source).centre();
  Outlines out;
  const int n = std::clamp(d.count, 1, kMostCopies);
  check_copies(source, n);
  // The source is the copy at the top; the centre lies `radius` below it.
  for (int k = 0; k < n; ++k) {
    const double degrees = -360.0 * k / n;
    const Transform turn = Transform::turn(degrees);
    const Point at = middle + Point{0, -d.radius} + turn.apply({0, d.radius});
    Transform t = Transform::move(-middle.x, -middle.y);
    if (d.turned) t = t.then(turn);
    add(out, moved(source, t.then(Transform::move(at.x, at.y))));
  }
  out.region = joined_again(out.region);
  return out;
}

Outlines in_a_grid(const Derived& d, const Outlines& source) {
  const int columns = std::clamp(d.columns, 1, 500), rows = std::clamp(d.rows, 1, 500);
  if (columns * rows > kMostCopies) throw bad_input(say("More than 2,000 copies are too many for one piece."));
  check_copies(source, columns * rows);
  Outlines out;
  for (int r = 0; r < rows; ++r) {
    for (int c = 0; c < columns; ++c)
      add(out, moved(source, Transform::move(snap_to_grid(d.step_x * c), snap_to_grid(d.step_y * r))));
  }
  out.region = joined_again(out.region);
  return out;
}

}  // namespace

Outlines derived_outlines(const Derived& d, const Piece& piece, const Ask& ask) {
  if (d.from.empty())
    throw bad_input(say("“{0}” is made from no other piece; choose what it is made from.", piece.name));
  Outlines first = ask(d.from.front());
  Outlines out;
  using How = Derived::How;
  switch (d.how) {
    case How::Grow:
      out = grown(d, first);
      break;
    case How::Join:
    case How::TakeAway:
    case How::Overlap:
      out = first;
      for (std::size_t i = 1; i < d.from.size(); ++i) {
        const Outlines other = ask(d.from[i]);
        if (d.how == How::Join) {
          out.region = unite(out.region, other.region);
          out.lines.insert(out.lines.end(), other.lines.begin(), other.lines.end());
        } else {
          out.region =
              d.how == How::TakeAway ? subtract(out.region, other.region) : intersect(out.region, other.region);
          out.lines.clear();
        }
      }
      break;
    case How::Split:
      out = split(d, first);
      break;
    case How::Mirror:
      out = moved(first, mirroring(bounds(first).centre(), d.angle));
      break;
    case How::Grid:
      out = in_a_grid(d, first);
      break;
    case How::Round:
      out = round_a_centre(d, first);
      break;
    case How::Link:
      out = linked(first, d);
      break;
    case How::Along:
      if (d.from.size() < 2) throw bad_input(say("“{0}” needs a second piece to be repeated along.", piece.name));
      out = along_a_way(d, first, ask(d.from[1]));
      break;
  }
  const Box box = bounds(out);
  if (box.empty()) return out;
  const Point c = box.centre();
  const Transform own = Transform::move(-c.x, -c.y)
                            .then(Transform::turn(piece.turn))
                            .then(Transform::move(c.x + piece.at.x, c.y + piece.at.y));
  if (piece.turn == 0 && piece.at == Point{}) return out;
  out = moved(out, own);
  out.region = joined_again(out.region);
  return out;
}

}  // namespace doyen::making
