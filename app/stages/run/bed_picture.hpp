// The machine's bed from above, drawn: the board as it lies there, what it lies against, how far the bits go.
#pragma once

#include <QImage>
#include <QWidget>
#include <optional>

#include "run/bed.hpp"

namespace doyen {

// The board is dragged, or pushed with the arrows.
class BedPicture : public QWidget {
  Q_OBJECT
 public:
  explicit BedPicture(QWidget* parent = nullptr);
  void show_job(const Job& job, const MachineProfile& machine, const std::optional<Box>& reach);
  void show_board(const QImage& board);  // its face as it will be, as drawn
  [[nodiscard]] QPointF to_screen(Point on_bed) const;

 Q_SIGNALS:
  void pushed(doyen::Point by);  // mm on the bed

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  [[nodiscard]] double scale() const;
  [[nodiscard]] Box around() const;  // bed and travel, bed coordinates
  [[nodiscard]] QRectF rect_of(const Box& on_bed) const;
  [[nodiscard]] Point origin() const;  // of lying coordinates, with what is being dragged
  void paint_bed(QPainter& p) const;
  void paint_board(QPainter& p) const;
  void paint_fixture(QPainter& p) const;
  void paint_marks(QPainter& p) const;
  Job job_;
  MachineProfile machine_;
  std::optional<Box> reach_;  // of the bits' middles, lying coordinates
  QImage board_;
  std::optional<QPointF> from_;  // where the board was taken
  Point dragged_;
};

}  // namespace doyen
