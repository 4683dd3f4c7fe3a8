// The section strip: the board sighted along a saw cut, to scale, with the bit's silhouette at the deepest place.
#pragma once

#include <QSlider>
#include <QWidget>
#include <optional>

#include "bench/section_rule.hpp"
#include "inlay/fit.hpp"
#include "work/planner.hpp"

namespace doyen {

namespace section_detail {
inline constexpr double kRulerEnd = 54;  // px, of the ruler of depths at the left
}

class SectionStrip : public QWidget {
  Q_OBJECT
 public:
  explicit SectionStrip(QWidget* parent = nullptr);
  void show_plan(const PlanPtr& plan);
  void set_line(const SectionLine& line);
  // Where the board lies in the picture above: the section lies under it, as near and as far along.
  struct View {
    double left = 0, scale = 0;  // px of the board's left edge, px a mm
    double low = 0, high = 0;    // mm of the board's height that is seen
    friend bool operator==(const View&, const View&) = default;
  };
  void set_view(const View& view);
  // What is shown of the line, mm along it, and where that lies, px.
  struct Span {
    double from = 0, to = 0, left = 0, right = 0;
    [[nodiscard]] double scale() const { return (right - left) / (to - from); }
  };
  [[nodiscard]] Span span() const;
  // Both halves of an inlay instead of the board alone, where the line crosses it; null shows the board again.
  void show_fit(const std::shared_ptr<const Fit>& fit, const std::shared_ptr<const Halves>& halves);
  [[nodiscard]] bool shows_fit() const;
  [[nodiscard]] const std::vector<float>& heights() const { return heights_; }
  // How the board's section is drawn; only while a plan is shown.
  struct Drawn {
    Span seen;
    double top = 0, sx = 0, sz = 0;  // px: the face; px a mm along it and down
    [[nodiscard]] QTransform to_px() const { return {sx, 0, 0, -sz, seen.left - seen.from * sx, top}; }
  };
  [[nodiscard]] Drawn drawn() const;
  // What the measure reads that is laid to it by mouse or keys; empty without any.
  [[nodiscard]] QString measured() const;

 Q_SIGNALS:
  void line_changed(const doyen::SectionLine& line);
  void cut();  // a fresh profile is shown

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override;
  void focusOutEvent(QFocusEvent*) override;

 private:
  void ask();
  void describe();  // to a screen reader
  [[nodiscard]] Point caught(QPointF px) const;
  [[nodiscard]] std::size_t deepest_place() const;  // of the heights shown
  void paint_wood(QPainter& p, const Drawn& how) const;
  void paint_depths(QPainter& p, const Drawn& how) const;
  void paint_bit(QPainter& p, const Drawn& how, std::size_t lowest_at) const;
  void paint_measure(QPainter& p) const;
  void clear_measure();
  bool move_cursor(int key, Qt::KeyboardModifiers keys);
  [[nodiscard]] QRect turn_rect() const;
  void paint_fit(QPainter& p) const;
  // `surface` and `slab` in pixels, downwards: the slab from the face to the bed.
  [[nodiscard]] QPainterPath body_of(const QPolygonF& surface, const Box& slab, double per_mm) const;
  PlanPtr plan_;
  SectionLine line_;
  View view_;
  std::vector<float> heights_, back_;
  std::vector<float> machined_;  // heights before anything is done by hand
  ReliefPainter painter_;
  std::shared_ptr<const Fit> fit_;
  std::shared_ptr<const Halves> halves_;
  SectionRule rule_;
  bool pulling_ = false, begun_by_key_ = false;
  std::optional<Point> cursor_;  // where the keys point, as the measure's ends
  QSlider* apart_;               // 0: as far apart as the pocket is deep, 100: seated
};

}  // namespace doyen
