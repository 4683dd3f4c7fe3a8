#include "parts/entry_field.hpp"

#include <QKeyEvent>
#include <QStyle>
#include <QToolTip>
#include <cmath>

#include "problem.hpp"

namespace doyen {

EntryField::EntryField(QWidget* parent) : QLineEdit(parent) {
  connect(this, &QLineEdit::editingFinished, this, &EntryField::confirm);
}

void EntryField::show_text(const QString& text) {
  shown_ = text;
  if (hasFocus() && isModified()) return;
  put(text);
  refuse({});
}

void EntryField::put(const QString& text) {
  setModified(false);
  if (this->text() == text) return;  // what is chosen in it stays chosen
  const bool all = hasFocus() && selectedText() == this->text();
  const int at = cursorPosition();
  setText(text);
  setModified(false);
  if (!hasFocus()) return;
  if (all)
    selectAll();
  else
    setCursorPosition(std::min(at, static_cast<int>(text.size())));
}

void EntryField::refuse(const QString& why) {
  const bool was = property("wrong").toBool(), is = !why.isEmpty();
  if (!was && is) tip_ = toolTip();  // what it tells about itself comes back when nothing is wrong any more
  if (was || is) setToolTip(is ? why : tip_);
  if (was == is) return;
  setProperty("wrong", is);
  style()->unpolish(this);
  style()->polish(this);
}

void EntryField::keyPressEvent(QKeyEvent* event) {
  // What was typed goes first; then Escape is the form's.
  if (event->key() == Qt::Key_Escape && (isModified() || property("wrong").toBool())) {
    put(shown_);
    refuse({});
    return;
  }
  QLineEdit::keyPressEvent(event);
}

void EntryField::confirm() {
  if (!isModified()) return;
  try {
    const QString typed = text();
    setModified(false);
    take(typed);
    refuse({});
  } catch (const Problem& problem) {
    setModified(true);
    refuse(QString::fromUtf8(problem.what()));
    if (isVisible()) QToolTip::showText(mapToGlobal(QPoint(0, height())), toolTip(), this);
  }
}

TextField::TextField(std::function<void(const QString&)> check, QWidget* parent)
    : EntryField(parent), check_(std::move(check)) {}

void TextField::take(const QString& typed) {
  const QString words = typed.trimmed();
  if (check_) check_(words);
  show_text(words);
  Q_EMIT entered(words);
}

void check_name(const QString& text) {
  if (text.isEmpty()) throw bad_input(QObject::tr("A name was expected here.").toStdString());
  if (text.size() > 200) throw bad_input(QObject::tr("A name of at most 200 characters was expected.").toStdString());
}

double parse_angle(const QString& text) {
  bool fine = false;
  QString bare = text;
  const double degrees =
      bare.remove(QStringLiteral("°")).trimmed().replace(QLatin1Char(','), QLatin1Char('.')).toDouble(&fine);
  if (!fine || !std::isfinite(degrees) || std::abs(degrees) > 3600)
    throw bad_input(QObject::tr("An angle in degrees was expected, such as 15 or -7.5.").toStdString());
  return degrees;
}

}  // namespace doyen
