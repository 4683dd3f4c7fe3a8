// The machine's bed from above: the board as it lies there, what it lies against, how far the bits go.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>

#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"
#include "planning/plan_cache.hpp"
#include "work/behind.hpp"

namespace doyen {

// The picture itself: the board is dragged, or pushed with the arrows.
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

class BedView : public QDialog {
  Q_OBJECT
 public:
  BedView(Workshop& shop, QWidget* parent);
  void refresh();
  [[nodiscard]] bool ready() const { return ready_; }

 private:
  void carve();
  void place_it();
  [[nodiscard]] Job lying() const;
  void edit(const QString& name, const std::function<void(Fixture&)>& change);
  Workshop& shop_;
  BedPicture* picture_;
  QComboBox *board_, *against_, *corner_, *lies_;
  Fold* stops_;
  LengthField *x_, *y_, *stands_, *long_, *wide_, *first_, *second_, *end_;
  QLabel *says_, *home_, *trouble_;
  QPushButton *middle_, *forget_, *mend_;
  std::optional<Remedy> mend_with_;  // the first that its troubles offer
  PlanPtr carved_;
  PlanPtr other_;                     // of the board that lies there, where the job itself does not
  std::shared_ptr<PlanCache> cache_;  // of those; work behind the window keeps it
  Behind behind_;
  bool ready_ = false;
};

}  // namespace doyen
