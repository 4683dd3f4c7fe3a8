// Outlines drawn with fewer points look as they do with all of them. Judged by Qt's own painting of all their points.
#include "bench/on_screen.hpp"

#include <QImage>
#include <QPainter>
#include <cmath>
#include <random>

#include "window_probe.hpp"

using namespace probe;

namespace {

// A wobbling closed line of many points, some of it doubling back, and a hole in it.
QPainterPath random_outline(std::mt19937& random, int points) {
  std::uniform_real_distribution<double> share(0, 1);
  QPainterPath path;
  for (const double size : {60.0, 25.0}) {
    QPolygonF ring;
    const double a = 3 + std::floor(4 * share(random)), b = 7 + std::floor(20 * share(random)),
                 rough = 0.3 * share(random);
    for (int i = 0; i < points; ++i) {
      const double t = 2 * 3.14159265358979 * i / points;
      const double r = size * (0.7 + 0.2 * std::sin(a * t) + 0.1 * std::sin(b * t)) + rough * share(random);
      ring << QPointF(100 + r * std::cos(t), 80 + r * std::sin(t));
    }
    path.addPolygon(ring);
    path.closeSubpath();
  }
  return path;
}

QImage picture(const QPainterPath& path, const QSize& size, bool filled) {
  QImage image(size, QImage::Format_Grayscale8);
  image.fill(Qt::white);
  QPainter p(&image);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(filled ? QPen(Qt::NoPen) : QPen(Qt::black, 2));
  if (filled) p.setBrush(Qt::black);
  p.drawPath(path);
  return image;
}

// The share of pixels that differ by more than a third of black to white; each alone may, where an edge runs along it.
double differing(const QImage& a, const QImage& b) {
  int n = 0;
  for (int y = 0; y < a.height(); ++y)
    for (int x = 0; x < a.width(); ++x) n += std::abs(a.constScanLine(y)[x] - b.constScanLine(y)[x]) > 85 ? 1 : 0;
  return static_cast<double>(n) / (a.width() * a.height());
}

}  // namespace

TEST_CASE("outlines drawn with the points that a screen shows look the same, near and from afar") {
  std::mt19937 random(20);
  std::uniform_real_distribution<double> share(0, 1);
  const QSize size(300, 220);
  const QRectF seen = QRectF(QPointF(), size).adjusted(-8, -8, 8, 8);
  int fewer = 0;
  for (int i = 0; i < 60; ++i) {
    const QPainterPath path = random_outline(random, 200 + static_cast<int>(3000 * share(random)));
    const double scale =
        0.02 * std::pow(2000, share(random));  // px/mm: the whole board a few pixels, to a hair's breadth
    const QPointF middle(100 + 90 * (share(random) - 0.5), 80 + 90 * (share(random) - 0.5));
    QTransform to_px;
    to_px.translate(150, 110);
    to_px.scale(scale, -scale);
    to_px.rotate(360 * share(random));
    to_px.translate(-middle.x(), -middle.y());
    const QPainterPath all = to_px.map(path), drawn = on_screen(path, to_px, seen);
    INFO("outline " << i << " at " << scale << " px/mm: " << drawn.elementCount() << " of " << all.elementCount());
    CHECK(differing(picture(all, size, false), picture(drawn, size, false)) <
          0.005);  // of many points a stroke is ragged
    CHECK(differing(picture(all, size, true), picture(drawn, size, true)) < 0.002);
    fewer += drawn.elementCount() < all.elementCount() / 2 ? 1 : 0;
  }
  CHECK(fewer > 40);
}

TEST_CASE("an open line keeps its ends on the screen, a speck stays one, what is out of sight is left out") {
  const QRectF seen(0, 0, 100, 100);
  QPainterPath line(QPointF(10, 10));
  for (int i = 1; i <= 500; ++i) line.lineTo(10 + 0.16 * i, 10);
  const QPainterPath drawn = on_screen(line, {}, seen);
  REQUIRE(drawn.elementCount() == 2);
  CHECK(drawn.currentPosition() == QPointF(90, 10));

  QPainterPath speck;
  speck.addPolygon(QPolygonF{{50, 50}, {50.01, 50}, {50.01, 50.01}, {50, 50.01}});
  speck.closeSubpath();
  const auto dark = [](const QImage& image) {
    int sum = 0;
    for (int y = 0; y < image.height(); ++y)
      for (int x = 0; x < image.width(); ++x) sum += 255 - image.constScanLine(y)[x];
    return sum;
  };
  const int as_it_is = dark(picture(speck, {100, 100}, false));
  CHECK(std::abs(dark(picture(on_screen(speck, {}, seen), {100, 100}, false)) - as_it_is) < as_it_is * 2 / 3);

  CHECK(on_screen(line, QTransform::fromTranslate(0, 400), seen).isEmpty());
  CHECK(on_screen({}, {}, seen).isEmpty());
}

TEST_CASE("a board of a hundred unplanned drawings is drawn with less than a fifth of their points") {
  std::mt19937 random(3);
  int all = 0, drawn = 0;
  for (int i = 0; i < 100; ++i) {
    const QPainterPath path = random_outline(random, 500);
    all += path.elementCount();
    drawn += on_screen(path, QTransform::fromScale(0.5, -0.5), QRectF(-1000, -1000, 2000, 2000)).elementCount();
  }
  CHECK(drawn * 5 < all);
}
