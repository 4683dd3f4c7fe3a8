#include "stages/artwork/trace_pictures.hpp"

#include <QPainter>
#include <algorithm>
#include <cstring>

namespace doyen {

QImage image_of(const std::vector<std::uint32_t>& pixels, int w, int h) {
  QImage image(w, h, QImage::Format_RGB32);
  for (int y = 0; y < h; ++y)
    std::memcpy(image.scanLine(y), &pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(w)],
                static_cast<std::size_t>(w) * 4);
  return image;
}

QImage ink_image(const Traced& traced) {
  QImage image(traced.width, traced.height, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::transparent);
  const QRgb ink = qPremultiply(qRgba(91, 74, 111, 190));
  for (int y = 0; y < traced.height; ++y) {
    auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
    for (int x = 0; x < traced.width; ++x) {
      if (traced
              .ink[static_cast<std::size_t>(y) * static_cast<std::size_t>(traced.width) + static_cast<std::size_t>(x)])
        line[x] = ink;
    }
  }
  return image;
}

QImage cleaned_image(const Traced& traced) {
  if (std::all_of(traced.cleaned.begin(), traced.cleaned.end(), [](Cleaned c) { return c == Cleaned::AsItWas; }))
    return {};
  QImage image(traced.width, traced.height, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::transparent);
  const QRgb amber = qPremultiply(qRgba(201, 120, 20, 235));
  std::size_t i = 0;
  for (int y = 0; y < traced.height; ++y) {
    auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
    for (int x = 0; x < traced.width; ++x) {
      if (traced.cleaned[i++] != Cleaned::AsItWas) line[x] = amber;
    }
  }
  return image;
}

QImage straightened(const QImage& picture, double degrees) {
  if (std::abs(degrees) <= 0.01) return picture;
  QImage turned(picture.size(), QImage::Format_RGB32);
  turned.fill(Qt::white);
  QPainter p(&turned);
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  p.translate(picture.width() / 2.0, picture.height() / 2.0);
  p.rotate(-degrees);
  p.translate(-picture.width() / 2.0, -picture.height() / 2.0);
  p.drawImage(0, 0, picture);
  return turned;
}

QPainterPath on_picture(const Region& region, double mm_per_pixel) {
  QPainterPath path;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      QPolygonF polygon;
      for (const Point& p : ring) polygon.append(QPointF(p.x / mm_per_pixel, -p.y / mm_per_pixel));
      path.addPolygon(polygon);
      path.closeSubpath();
    }
  }
  return path;
}

}  // namespace doyen
