#include "bench/on_screen.hpp"

#include "geometry/polyline.hpp"

namespace doyen {

namespace {

constexpr double kUnseen = 0.2;  // px

// On which sides of the seen it lies, a bit each.
int sides(const Point& p, const QRectF& seen) {
  return (p.x < seen.left() ? 1 : 0) | (p.x > seen.right() ? 2 : 0) | (p.y < seen.top() ? 4 : 0) |
         (p.y > seen.bottom() ? 8 : 0);
}

// Ways beyond one side, however they wind, are gone straight there: nothing of them comes into sight.
Line2 straight_where_unseen(const Line2& line, const QRectF& seen) {
  Line2 out;
  out.reserve(line.size());
  int before_last = 0, last = 0;  // the sides of the last two kept
  for (const Point& p : line) {
    const int now = sides(p, seen);
    if (out.size() > 1 && (before_last & last & now) != 0) {
      out.back() = p;
    } else {
      out.push_back(p);
      before_last = last;
    }
    last = now;
  }
  return out;
}

void add(QPainterPath& to, const Line2& line, const QRectF& seen) {
  int beyond = 15;
  for (const Point& p : line) beyond &= sides(p, seen);
  if (line.size() < 2 || beyond != 0) return;
  const Line2 kept = thinned(straight_where_unseen(line, seen), kUnseen);
  QPolygonF polygon;
  polygon.reserve(static_cast<qsizetype>(kept.size()));
  for (const Point& p : kept) polygon.append(QPointF(p.x, p.y));
  if (is_closed(line) && kept.size() < 3) polygon = QRectF(polygon.first(), QSizeF(kUnseen, kUnseen));  // a speck stays
  to.addPolygon(polygon);
  if (is_closed(line)) to.closeSubpath();
}

}  // namespace

QPainterPath on_screen(const QPainterPath& path, const QTransform& to_px, const QRectF& seen) {
  QPainterPath drawn;
  drawn.setFillRule(path.fillRule());
  Line2 line;
  for (int i = 0; i < path.elementCount(); ++i) {
    const QPainterPath::Element element = path.elementAt(i);
    if (element.isMoveTo()) {
      add(drawn, line, seen);
      line.clear();
    }
    const QPointF at = to_px.map(QPointF(element));
    line.push_back({at.x(), at.y()});
  }
  add(drawn, line, seen);
  return drawn;
}

}  // namespace doyen
