// The call box: any command, piece, bit or recent job by words.
#pragma once

#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <functional>

namespace doyen {

struct Call {
  QString words;     // what it does
  QString shortcut;  // shown beside; may be empty
  std::function<void()> act;
};

class CallBox : public QDialog {
  Q_OBJECT
 public:
  explicit CallBox(QList<Call> calls, QWidget* parent);

 protected:
  void showEvent(QShowEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void filter(const QString& words);
  void take();
  QList<Call> calls_;
  QLineEdit* line_;
  QListWidget* list_;
};

}  // namespace doyen
