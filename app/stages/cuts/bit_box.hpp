// One of the rack's bits, chosen from rows that say what each would do to the piece.
#pragma once

#include <QComboBox>
#include <functional>

#include "stages/cuts/bit_trials.hpp"

namespace doyen {

class BitBox : public QComboBox {
  Q_OBJECT
 public:
  explicit BitBox(Workshop& shop);
  // The rack's bits of this kind, without one all that can be seen cutting; the chosen one is there even when the rack
  // lost it. `refused`: what a bit of another kind stands there for all the same, though it cannot be taken; empty
  // where it does not.
  void refresh(std::optional<BitKind> kind, const Item& item, const PiecePlan* piece,
               const std::function<QString(const Bit&)>& refused = {});
  [[nodiscard]] bool waiting() const { return trials_.waiting(); }
  [[nodiscard]] QString says(int row) const;  // what that bit would do; empty until it is known
  void showPopup() override;

 Q_SIGNALS:
  void taken(const QString& bit, const QString& name);

 private:
  struct Row {
    QString id, name, refused;
  };
  [[nodiscard]] QList<Row> rows_for(std::optional<BitKind> kind, const BitId& chosen,
                                    const std::function<QString(const Bit&)>& refused) const;
  void show_rows(const QList<Row>& rows);
  void say(int row, const QString& of_trial);
  Workshop& shop_;
  BitTrials trials_;
};

}  // namespace doyen
