#include "parts/undo_in_fields.hpp"

#include <QApplication>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPlainTextEdit>

namespace doyen {

UndoInFields::UndoInFields(QObject* parent) : QObject(parent) { qApp->installEventFilter(this); }

// A field claims these keys for itself, whether it has anything to take back or not. Where it has not (or where every
// letter is a change of the job at once), the claim is kept from it and the window's own shortcut acts.
bool UndoInFields::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() != QEvent::ShortcutOverride) return false;
  const auto* key = static_cast<QKeyEvent*>(event);
  if (!key->matches(QKeySequence::Undo) && !key->matches(QKeySequence::Redo)) return false;
  const auto* line = qobject_cast<QLineEdit*>(watched);
  const bool words = qobject_cast<QPlainTextEdit*>(watched) != nullptr;
  if (!words && (line == nullptr || (line->isModified() && line->isUndoAvailable()))) return false;
  event->ignore();
  return true;
}

}  // namespace doyen
