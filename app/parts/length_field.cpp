#include "parts/length_field.hpp"

#include <cmath>

#include "problem.hpp"

namespace doyen {

LengthField::LengthField(Range range, bool optional, QWidget* parent)
    : EntryField(parent), range_(range), optional_(optional) {
  if (optional_) setPlaceholderText(tr("none"));
}

void LengthField::show_length(std::optional<double> mm, const LengthStyle& style) {
  mm_ = mm;
  style_ = style;
  show_text(mm ? QString::fromStdString(format_length(*mm, style)) : QString());
}

void LengthField::take(const QString& typed) {
  std::optional<double> value;
  if (typed.trimmed().isEmpty()) {
    if (!optional_) throw bad_input(tr("A length was expected here.").toStdString());
  } else {
    value = parse_length(typed.toStdString(), style_.unit);
    if (*value < range_.least - 1e-9 || *value > range_.most + 1e-9) {
      throw bad_input(tr("From %1 to %2 was expected.")
                          .arg(QString::fromStdString(format_length(range_.least, style_)),
                               QString::fromStdString(format_length(range_.most, style_)))
                          .toStdString());
    }
  }
  const bool fresh = value.has_value() != mm_.has_value() || (value && std::abs(*value - *mm_) > 1e-9);
  show_length(value, style_);
  if (fresh) Q_EMIT entered(value);
}

}  // namespace doyen
