#include "parts/undo_in_fields.hpp"

#include <QApplication>
#include <QDoubleSpinBox>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QSpinBox>
#include <cmath>

namespace doyen {
namespace {

// Whether something was typed into a box of numbers that is not its value yet.
bool typed_ahead(const QAbstractSpinBox& box) {
  if (box.keyboardTracking()) return false;  // every key is its value at once
  bool number = false;
  if (const auto* real = qobject_cast<const QDoubleSpinBox*>(&box)) {
    const double typed = real->locale().toDouble(real->cleanText(), &number);
    return !number || std::abs(typed - real->value()) > 0.5 * std::pow(10, -real->decimals());
  }
  const auto* whole = qobject_cast<const QSpinBox*>(&box);
  return whole != nullptr && (whole->locale().toInt(whole->cleanText(), &number) != whole->value() || !number);
}

}  // namespace

UndoInFields::UndoInFields(QObject* parent) : QObject(parent) { qApp->installEventFilter(this); }

// A field claims these keys for itself, whether it has anything to take back or not. Where it has not (or where every
// letter is a change of the job at once), the claim is kept from it and the window's own shortcut acts.
bool UndoInFields::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() != QEvent::ShortcutOverride) return false;
  const auto* key = static_cast<QKeyEvent*>(event);
  if (!key->matches(QKeySequence::Undo) && !key->matches(QKeySequence::Redo)) return false;
  const auto* line = qobject_cast<QLineEdit*>(watched);
  const auto* box = qobject_cast<QAbstractSpinBox*>(watched);
  const bool words = qobject_cast<QPlainTextEdit*>(watched) != nullptr;
  const bool own = line != nullptr  ? line->isModified() && line->isUndoAvailable()
                   : box != nullptr ? typed_ahead(*box)
                                    : !words;
  if (own) return false;
  event->ignore();
  return true;
}

}  // namespace doyen
