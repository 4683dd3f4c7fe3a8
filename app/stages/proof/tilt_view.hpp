// The carved board tilted and turned by hand, under a light moved by hand.
#pragma once

#include <QDialog>
#include <QTimer>

#include "planning/plan.hpp"
#include "relief/tilted.hpp"
#include "work/behind.hpp"

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;
class QSlider;

namespace doyen {

// The picture itself: mouse, wheel and keys.
class TiltPicture : public QWidget {
  Q_OBJECT
 public:
  explicit TiltPicture(QWidget* parent = nullptr);
  // Null: it is being carved. `lit_from`: the light that it was made under.
  void show_board(std::shared_ptr<TiltedBoard> board, const LightPlace& lit_from);
  void set_stance(const Stance& stance);
  void set_lamp(const LightPlace& lamp);
  [[nodiscard]] const Stance& stance() const { return stance_; }
  [[nodiscard]] const LightPlace& lamp() const { return lamp_; }
  [[nodiscard]] QImage drawn(QSize size) const;  // as it stands, in full
  [[nodiscard]] bool fine() const { return fine_ && board_; }

 Q_SIGNALS:
  void moved();  // stance or lamp, by hand

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void look();
  std::shared_ptr<TiltedBoard> board_;
  Stance stance_;
  LightPlace lamp_;
  QImage image_;
  bool fine_ = false;  // drawn with four points for each of the screen's
  QTimer rest_;
  QPointF last_;
};

class TiltView : public QDialog {
  Q_OBJECT
 public:
  TiltView(const std::shared_ptr<const Plan>& plan, QWidget* parent);
  void show_plan(const std::shared_ptr<const Plan>& plan);  // another: the job changed, or was planned anew
  [[nodiscard]] bool ready() const { return picture_->fine(); }

 private:
  void carve();
  void from_sliders();
  void show_figures();
  void say_not_known(const std::vector<std::string>& words);  // that should be colours
  void save();
  std::shared_ptr<const Plan> plan_;
  TiltPicture* picture_;
  QSlider *turn_, *tilt_, *from_, *height_;
  QLabel *turn_says_, *tilt_says_, *from_says_, *height_says_, *saved_, *not_known_;
  QCheckBox *whole_, *finish_, *lost_;
  QWidget* side_row_;
  QComboBox *side_, *face_, *cuts_;
  Behind behind_;
  bool filling_ = false;
};

}  // namespace doyen
