#include "length_field.hpp"

#include <QKeyEvent>
#include <QStyle>
#include <QToolTip>
#include <cmath>

#include "problem.hpp"

namespace doyen {

LengthField::LengthField(double least, double most, bool optional, QWidget* parent)
    : QLineEdit(parent), least_(least), most_(most), optional_(optional) {
  connect(this, &QLineEdit::editingFinished, this, &LengthField::confirm);
  if (optional_) setPlaceholderText(tr("none"));
}

void LengthField::show_length(std::optional<double> mm, const LengthStyle& style) {
  mm_ = mm;
  style_ = style;
  if (hasFocus() && isModified()) return;
  setText(mm ? QString::fromStdString(format_length(*mm, style)) : QString());
  setModified(false);
  refuse({});
}

void LengthField::refuse(const QString& why) {
  if (property("wrong").toBool() == !why.isEmpty()) {
    setToolTip(why);
    return;
  }
  setProperty("wrong", !why.isEmpty());
  setToolTip(why);
  style()->unpolish(this);
  style()->polish(this);
}

void LengthField::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) {
    setModified(false);
    show_length(mm_, style_);
    return;
  }
  QLineEdit::keyPressEvent(event);
}

void LengthField::confirm() {
  if (!isModified()) return;
  std::optional<double> value;
  try {
    if (text().trimmed().isEmpty()) {
      if (!optional_) throw bad_input(tr("A length was expected here.").toStdString());
    } else {
      value = parse_length(text().toStdString(), style_.unit);
      if (*value < least_ - 1e-9 || *value > most_ + 1e-9) {
        throw bad_input(tr("From %1 to %2 was expected.")
                            .arg(QString::fromStdString(format_length(least_, style_)),
                                 QString::fromStdString(format_length(most_, style_)))
                            .toStdString());
      }
    }
  } catch (const Problem& problem) {
    refuse(QString::fromUtf8(problem.what()));
    if (isVisible()) QToolTip::showText(mapToGlobal(QPoint(0, height())), toolTip(), this);
    return;
  }
  setModified(false);
  const bool fresh = value.has_value() != mm_.has_value() || (value && std::abs(*value - *mm_) > 1e-9);
  show_length(value, style_);
  if (fresh) Q_EMIT entered(value);
}

}  // namespace doyen
