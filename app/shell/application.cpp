#include "shell/application.hpp"

#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QScrollBar>

#include "cancel.hpp"

namespace doyen {
namespace {

// Fields that a wheel changes.
bool turned_by_wheel(const QWidget* widget) {
  return qobject_cast<const QAbstractSpinBox*>(widget) != nullptr ||
         qobject_cast<const QComboBox*>(widget) != nullptr ||
         (qobject_cast<const QAbstractSlider*>(widget) != nullptr &&
          qobject_cast<const QScrollBar*>(widget) == nullptr);
}

}  // namespace

bool Application::notify(QObject* receiver, QEvent* event) {
  try {
    if (event->type() == QEvent::Wheel) {
      auto* widget = qobject_cast<QWidget*>(receiver);
      // Only a field that was clicked into takes the wheel; over all others it scrolls what they lie on.
      if (widget != nullptr && widget->parentWidget() != nullptr && qobject_cast<QLineEdit*>(widget) != nullptr &&
          turned_by_wheel(widget->parentWidget()))
        widget = widget->parentWidget();
      if (widget != nullptr && turned_by_wheel(widget) && !widget->hasFocus() && widget->parentWidget() != nullptr)
        return notify(widget->parentWidget(), event);
    }
    return QApplication::notify(receiver, event);
  } catch (const Cancelled&) {
    return true;  // work that was asked to stop
  } catch (const std::exception& error) {
    Q_EMIT troubled(QString::fromUtf8(error.what()));
    return true;
  }
}

}  // namespace doyen
