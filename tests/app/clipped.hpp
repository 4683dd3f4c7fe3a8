// What of a ticket is not shown whole.
#pragma once

#include "window_probe.hpp"

namespace probe {

inline bool whole(const QLabel* label) {
  return !label->isVisible() || !label->wordWrap() || label->height() + 1 >= label->heightForWidth(label->width());
}

// Rows that wrap anew are laid out by and by.
inline void wait_until_laid_out(QScrollArea* ticket) {
  (void)QTest::qWaitFor([&] {
    const QList<QLabel*> labels = ticket->widget()->findChildren<QLabel*>();
    return std::all_of(labels.begin(), labels.end(), whole);
  });
}

// What of the ticket on top is not shown whole: labels and leaves that ask for more than they have.
inline std::string clipped(QScrollArea* ticket) {
  wait_until_laid_out(ticket);
  std::string found;
  for (QWidget* row : ticket->widget()->findChildren<QWidget*>()) {
    if (!row->isVisible() || qobject_cast<QAbstractScrollArea*>(row->parentWidget()) != nullptr) continue;
    const bool leaf = row->findChildren<QWidget*>(Qt::FindDirectChildrenOnly).isEmpty() ||
                      qobject_cast<QComboBox*>(row) != nullptr || qobject_cast<QAbstractSpinBox*>(row) != nullptr;
    // What asks for more width than it has is squeezed, and laid out for a width that it has not.
    if (row->layout() != nullptr && row->layout()->totalMinimumSize().width() > row->width() + 1)
      found += std::string(row->metaObject()->className()) + " has " + std::to_string(row->width()) + " of " +
               std::to_string(row->layout()->totalMinimumSize().width()) + "; ";
    const auto* label = qobject_cast<QLabel*>(row);
    const auto* button = qobject_cast<QAbstractButton*>(row);
    if (!(leaf && row->minimumSizeHint().width() > row->width() + 1) && (label == nullptr || whole(label))) continue;
    found += std::string(row->metaObject()->className()) + " “" +
             (label != nullptr    ? label->text()
              : button != nullptr ? button->text()
                                  : row->objectName())
                 .toStdString() +
             "”, high " + std::to_string(row->height()) + " of " + std::to_string(row->heightForWidth(row->width())) +
             ", wide " + std::to_string(row->width()) + " of " + std::to_string(row->minimumSizeHint().width()) + "; ";
  }
  return found;
}

}  // namespace probe
