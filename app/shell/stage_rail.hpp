// The rail of stages: each with a lamp and a few words about what it still owes.
#pragma once

#include <QWidget>

#include "parts/cards.hpp"

namespace doyen {

enum class Stage { Blank, Artwork, Cuts, Proof, Run, Finish };
inline constexpr int kStages = 6;

class StageRail : public QWidget {
  Q_OBJECT
 public:
  explicit StageRail(QWidget* parent = nullptr);
  void show_job(const QString& name, const QString& about);
  void show_state(Stage stage, Lamp lamp, const QString& words);
  void show_pending(Stage stage, bool pending);  // its words are of an earlier state
  [[nodiscard]] bool pending(Stage stage) const { return pending_[static_cast<int>(stage)]; }
  void set_current(Stage stage);
  [[nodiscard]] Stage current() const { return current_; }
  [[nodiscard]] QString words(Stage stage) const { return words_[static_cast<int>(stage)]; }

 Q_SIGNALS:
  void chosen(doyen::Stage stage);
  void call_box_wanted();
  void menu_wanted(const QPoint& global);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent*) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void speak();  // to a screen reader: where one is
  [[nodiscard]] QRect stage_rect(int i) const;
  [[nodiscard]] QRect job_rect() const;
  [[nodiscard]] QRect call_rect() const;
  Stage current_ = Stage::Cuts;
  QString name_, about_;
  Lamp lamps_[kStages] = {};
  QString words_[kStages];
  bool pending_[kStages] = {};
  int hover_ = -1;
};

QString stage_name(Stage stage);

}  // namespace doyen
