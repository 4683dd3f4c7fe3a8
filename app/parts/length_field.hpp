// A field for a length in either unit system: takes 3/8, 1 1/2", 12.7 mm, 3/16 + 0.01; says what is wrong in a
// sentence.
#pragma once

#include <optional>

#include "job/ranges.hpp"
#include "measure/length.hpp"
#include "parts/entry_field.hpp"

namespace doyen {

class LengthField : public EntryField {
  Q_OBJECT
 public:
  // `range` in mm, inclusive. With `optional`, an empty field is allowed and means “none”.
  explicit LengthField(Range range, bool optional = false, QWidget* parent = nullptr);
  void show_length(std::optional<double> mm, const LengthStyle& style);
  [[nodiscard]] std::optional<double> length() const { return mm_; }

 Q_SIGNALS:
  void entered(std::optional<double> mm);  // a new, sound value was typed and confirmed

 protected:
  void take(const QString& typed) override;

 private:
  Range range_;
  bool optional_;
  LengthStyle style_;
  std::optional<double> mm_;
};

// A box of numbers takes what the job keeps by that key.
template <typename Box>
void set_range(Box* box, const std::string& key) {
  using Value = decltype(box->value());
  const Range range = range_of(key);
  box->setRange(static_cast<Value>(range.least), static_cast<Value>(range.most));
}

}  // namespace doyen
