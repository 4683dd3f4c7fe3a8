#include "bench/weak_paint.hpp"

#include <QPainterPath>

#include "parts/theme.hpp"

namespace doyen {
namespace {

constexpr std::size_t kTags = 12;  // the weakest say their width

// Of places that lie close together the weakest says its width.
class Tags {
 public:
  Tags(QPainter& p, const LengthStyle& lengths) : p_(p), lengths_(lengths) { p.setFont(theme::font(8, true)); }
  void put(const WeakPlace& place, QPointF at) {
    const QString text = QString::fromStdString(size_in_words(place.width, lengths_));
    const QRectF tag(at.x() + 8, at.y() - 22, p_.fontMetrics().horizontalAdvance(text) + 10, 16);
    for (const QRectF& other : taken_) {
      if (other.intersects(tag.adjusted(-3, -3, 3, 3))) return;
    }
    taken_.append(tag);
    const QColor colour = place.breaks ? theme::kBrick : theme::kAmber;
    p_.setPen(QPen(colour, 1.2));
    p_.drawLine(at, tag.bottomLeft());
    p_.setPen(Qt::NoPen);
    p_.setBrush(colour);
    p_.drawRoundedRect(tag, 3, 3);
    p_.setPen(Qt::white);
    p_.drawText(tag, Qt::AlignCenter, text);
  }

 private:
  QPainter& p_;
  const LengthStyle& lengths_;
  QList<QRectF> taken_;
};

}  // namespace

void paint_weak(QPainter& p, const WeakMap& map, const QTransform& to_px, const LengthStyle& lengths) {
  QPainterPath weak, breaks;
  for (const WeakMap::Run& run : map.runs) {
    QPainterPath& path = map.places[run.place].breaks ? breaks : weak;
    path.addRect(to_px.mapRect(QRectF(run.x0, run.y - map.cell / 2, run.x1 - run.x0, map.cell)));
  }
  p.save();
  p.setRenderHint(QPainter::Antialiasing, false);
  p.setPen(Qt::NoPen);
  const auto fill = [&](const QPainterPath& path, QColor colour, Qt::BrushStyle hatch) {
    QColor ground = colour;
    ground.setAlpha(70);
    p.fillPath(path, ground);
    p.fillPath(path, QBrush(colour, hatch));
  };
  fill(weak, theme::kAmber, Qt::BDiagPattern);
  fill(breaks, theme::kBrick, Qt::DiagCrossPattern);
  p.restore();
  Tags tags(p, lengths);
  for (std::size_t i = 0; i < std::min(kTags, map.places.size()); ++i)
    tags.put(map.places[i], to_px.map(QPointF(map.places[i].at.x, map.places[i].at.y)));
}

}  // namespace doyen
