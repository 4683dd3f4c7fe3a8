// Lay it out for me: arrangements of the job's own pieces on its own board, carved as pictures, the best first.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QListWidget>
#include <QPushButton>
#include <QThreadPool>
#include <QTimer>

#include "arrange/arrangement.hpp"
#include "parts/cards.hpp"

namespace doyen {

class LayOutBench : public QDialog {
  Q_OBJECT
 public:
  LayOutBench(const Job& job, const Rack& rack, QWidget* parent);
  ~LayOutBench() override;
  [[nodiscard]] const Arrangement* taken() const { return taken_ ? &*taken_ : nullptr; }
  [[nodiscard]] const Job& laid_out() const { return job_; }  // what was there when it was opened
  [[nodiscard]] bool finished() const { return !looking_ && !again_.isActive(); }
  [[nodiscard]] const ArrangeWish& wish() const { return wish_; }

 private:
  void list_pieces(QLayout* rows);
  void show_what_can_be();
  void look_again();
  void add(Arrangement one, const QImage& picture);
  void end(const QString& problem);
  void show_chosen();
  void take();

  Job job_;
  Rack rack_;
  ArrangeWish wish_;
  QListWidget* cards_;
  QLabel *summary_, *title_, *reasons_;
  NumberCard* sum_;
  QPushButton* take_;
  QCheckBox* outlines_;
  QTimer again_;                    // what was said is gathered before it is looked at anew
  std::vector<Arrangement> found_;  // the best first, as the cards
  bool chosen_by_hand_ = false;
  std::optional<Arrangement> taken_;
  QString problem_;
  Cancel cancel_;
  QThreadPool pool_;
  int round_ = 0;  // what an earlier looking still tells is not shown any more
  bool looking_ = false;
};

}  // namespace doyen
