// The letter bench: the user's own words carved in many faces at the real size, judged for bit and wood, fittest first.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QThreadPool>
#include <deque>
#include <optional>

#include "artwork/piece.hpp"
#include "parts/ticket.hpp"
#include "planning/fitness.hpp"

namespace doyen {

class LetterBench : public QDialog {
  Q_OBJECT
 public:
  // Judges for the piece's own V bit and the blank's wood.
  LetterBench(const Job& job, const Item& item, const Rack& rack, QWidget* parent);
  ~LetterBench() override;
  [[nodiscard]] std::optional<FaceName> taken() const { return taken_; }
  [[nodiscard]] std::optional<double> spacing() const { return spacing_; }  // per cent, when opening gaps was asked for
  [[nodiscard]] std::optional<double> thickened() const { return thickened_; }  // mm a side, when it was asked for
  [[nodiscard]] bool finished() const { return waiting_ == 0; }

 private:
  struct Judged {
    FaceName face;
    Fitness fit;
    QImage picture;
    QString problem;
    bool good = false;  // listed as carving well
    int grade = 0;      // 0 fits, 1 carve with care, 2 does not
    QString says;
  };
  void start();
  void judge_more();  // so many of the next as are looked at together
  void judge(const FaceName& face, bool good);
  void add(const Judged& judged);
  void show_chosen();
  void take();
  [[nodiscard]] QString length(double mm) const;

  Job job_;
  Piece piece_;
  Bit bit_;
  Feeds feeds_;
  MachineProfile machine_;
  QList<Judged> judged_;
  QListWidget* cards_;
  QLabel *title_, *summary_, *figures_, *smaller_;
  QPushButton *take_, *open_, *thicken_, *more_;
  std::deque<InstalledFace> to_judge_;
  QStringList cannot_;  // faces in which the words cannot be set
  int symbols_ = 0;
  std::optional<FaceName> taken_;
  std::optional<double> spacing_, thickened_;
  Cancel cancel_;
  QThreadPool pool_;
  int waiting_ = 0;
  bool chosen_by_hand_ = false;
};

}  // namespace doyen
