// A field for a plain figure in a unit that stands beside it: takes a comma or a point, says what range was expected.
#pragma once

#include "fields/range.hpp"
#include "parts/entry_field.hpp"

namespace doyen {

class FigureField : public EntryField {
  Q_OBJECT
 public:
  // What is kept is `unit` times what is shown, such as 25.4 for inches of mm.
  explicit FigureField(Range range, int decimals = 1, double unit = 1, QWidget* parent = nullptr);
  void show_figure(double value);
  [[nodiscard]] double figure() const { return value_; }

 Q_SIGNALS:
  void entered(double value);  // a new, sound one was typed and confirmed

 protected:
  void take(const QString& typed) override;

 private:
  Range range_;
  int decimals_;
  double unit_, value_ = 0;
};

}  // namespace doyen
