// The Blank ticket's part for off-cuts: those that are kept, which of them this board could be cut from, and another
// one.
#pragma once

#include <QListWidget>
#include <QPushButton>

#include "job/off_cuts.hpp"
#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class OffCutsSection : public QWidget {
  Q_OBJECT
 public:
  explicit OffCutsSection(Workshop& shop);
  void refresh();

 private:
  void build_new();
  void change(const std::function<std::string()>& work);  // says what goes wrong, and where a damaged file lies
  [[nodiscard]] const OffCut* chosen() const;
  [[nodiscard]] QString in_words(const OffCut& off_cut) const;
  Workshop& shop_;
  Fold* fold_;
  QListWidget* list_;
  QPushButton *use_, *drop_, *keep_;
  LengthField *along_, *across_, *thick_;
  class QLineEdit* place_;
  QLabel* says_;
  std::vector<OffCut> all_, shown_;  // as they are kept; as the list has them
};

}  // namespace doyen
