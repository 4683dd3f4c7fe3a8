// The picture that is traced, with what is traced laid over it: zoomed by the wheel, moved by dragging, cropped by its
// frame, and tapped where a hole or speck shall be the other way round.
#pragma once

#include <QImage>
#include <QPainterPath>
#include <QWidget>

#include "artwork/drawing/trace.hpp"

namespace doyen {

class TracePreview : public QWidget {
  Q_OBJECT
 public:
  explicit TracePreview(QWidget* parent = nullptr);
  void show_picture(const QImage& picture);  // straightened, whole
  // Shares of the picture's sides cut away, as in TraceSettings.
  struct Crop {
    double left = 0, top = 0, right = 0, bottom = 0;
    friend bool operator==(const Crop&, const Crop&) = default;
  };
  void show_crop(const Crop& crop);
  // Of the cropped part, in its pixels: the ink, what was dropped or filled, and what no bit would reach.
  void show_traced(const QImage& ink, const QImage& cleaned, const QPainterPath& lost);
  [[nodiscard]] bool shows_lost() const { return !lost_.isEmpty(); }
  [[nodiscard]] bool shows_cleaned() const { return !cleaned_.isNull(); }
  [[nodiscard]] double zoom() const { return zoom_; }
  [[nodiscard]] QPointF to_screen(QPointF shares) const;
  [[nodiscard]] QPointF to_shares(QPointF px) const;

 Q_SIGNALS:
  void cropped(const doyen::TracePreview::Crop& crop);
  void tapped(QPointF shares);

 protected:
  void paintEvent(QPaintEvent*) override;
  void wheelEvent(QWheelEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  [[nodiscard]] QRectF whole() const;  // where the whole picture lies, px
  [[nodiscard]] QRectF frame() const;  // and what is left of it
  [[nodiscard]] int grip_at(QPointF px) const;
  void zoom_at(QPointF px, double times);
  void move_by(QPointF px);  // never out of sight
  QImage picture_, ink_, cleaned_;
  QPainterPath lost_;
  Crop crop_;
  double zoom_ = 1;
  QPointF shift_;  // px, of the picture's middle from the widget's
  int grip_ = -1;  // the frame's side or corner that is held
  bool held_ = false, moved_ = false;
  QPointF pressed_, last_;
};

}  // namespace doyen
