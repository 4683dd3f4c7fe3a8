// The rack's flat bits to clear floors with, a row each: ticked or not, and what it would do here if it alone cleared.
#pragma once

#include <QCheckBox>
#include <QTimer>
#include <optional>

#include "parts/ticket.hpp"
#include "planning/piece_key.hpp"
#include "planning/trials.hpp"
#include "work/behind.hpp"

namespace doyen {

class BitRows : public QWidget {
  Q_OBJECT
 public:
  explicit BitRows(Workshop& shop);
  void refresh(const Item& item, const PiecePlan* piece);
  [[nodiscard]] QString summary() const;  // the ticked ones by name, or what Doyen proposes
  [[nodiscard]] bool waiting() const { return waiting_; }

 Q_SIGNALS:
  void ticked(const QString& bit, const QString& name, bool on);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  struct Row {
    QString bit;
    QCheckBox* box;
    QLabel* says;
  };
  void make_rows();
  void ask();  // for what they would do, when that is not known and somebody looks
  void show_trial(const QString& bit, const Trial& trial);
  Workshop& shop_;
  QVBoxLayout* column_;
  QList<Row> rows_;
  QStringList proposed_;
  std::string piece_;
  // What a row's words hang on: the piece whatever is ticked, the bits with their feeds, the machine.
  struct Asked {
    PieceKey piece;
    Rack rack;
    MachineProfile machine;
    friend bool operator==(const Asked&, const Asked&) = default;
  };
  std::optional<Asked> key_, shown_;  // as it stands, and as the rows say it
  QTimer soon_;
  Behind behind_;
  bool waiting_ = false;
};

}  // namespace doyen
