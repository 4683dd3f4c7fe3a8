// The program as Qt sees it: the wheel scrolls and changes nothing that was not chosen, and what goes wrong inside one
// event is said instead of ending everything.
#pragma once

#include <QApplication>

namespace doyen {

class Application : public QApplication {
  Q_OBJECT
 public:
  using QApplication::QApplication;
  bool notify(QObject* receiver, QEvent* event) override;

 Q_SIGNALS:
  // Something that nobody foresaw; what was done last may not have been done.
  void troubled(const QString& what);
};

}  // namespace doyen
