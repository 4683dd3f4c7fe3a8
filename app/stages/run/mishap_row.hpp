// What went wrong in a run, as it is asked after the run and in the log.
#pragma once

#include <QComboBox>
#include <optional>
#include <vector>

#include "log/entry.hpp"
#include "parts/length_field.hpp"

namespace doyen {

// One thing that went wrong: what, by how much, with which bit.
class MishapRow : public QWidget {
  Q_OBJECT
 public:
  explicit MishapRow(QWidget* parent = nullptr);
  void show_bits(const std::vector<LoggedBit>& bits, const LengthStyle& lengths);
  [[nodiscard]] std::optional<MishapSeen> seen() const;  // none: nothing is said here
  void clear();
  void show_seen(const MishapSeen& seen);  // after show_bits()

 Q_SIGNALS:
  void changed();

 private:
  void show_fields();
  QComboBox *kind_, *bit_;
  LengthField* mm_;
  LengthStyle lengths_;
};

// What is said in all of them.
std::vector<MishapSeen> said_in(const std::vector<MishapRow*>& rows);
// Those that say something and one empty one after them; none where nothing went wrong.
void show_as_needed(const std::vector<MishapRow*>& rows, bool wrong);

}  // namespace doyen
