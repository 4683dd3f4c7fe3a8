#include "work/long_work.hpp"

#include <QApplication>
#include <QDialog>
#include <QEventLoop>
#include <QKeyEvent>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>
#include <exception>
#include <thread>

namespace doyen {
namespace {

constexpr int kShownAfter = 500;  // ms

// What is being done, how far, and a way out.
class WorkSheet : public QDialog {
 public:
  WorkSheet(const QString& what, QWidget* over, const std::function<void()>& stop) : QDialog(over) {
    setObjectName(QStringLiteral("longWork"));
    setWindowTitle(tr("One moment"));
    setWindowModality(Qt::ApplicationModal);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(18, 16, 18, 14);
    column->setSpacing(10);
    auto* words = new QLabel(what);
    words->setMinimumWidth(300);
    column->addWidget(words);
    bar_ = new QProgressBar;
    bar_->setRange(0, 0);
    bar_->setTextVisible(false);
    bar_->setAccessibleName(what);
    column->addWidget(bar_);
    stop_ = new QPushButton(tr("Cancel"));
    stop_->setObjectName(QStringLiteral("stopWork"));
    column->addWidget(stop_, 0, Qt::AlignRight);
    connect(stop_, &QPushButton::clicked, this, [this, stop] {
      stop_->setEnabled(false);
      stop_->setText(tr("Stopping…"));
      stop();
    });
  }
  void told(double share) {
    bar_->setRange(0, 100);
    bar_->setValue(static_cast<int>(100 * share));
  }

 protected:
  void reject() override { stop_->click(); }  // Esc, or the frame's own button: it closes when the work has ended

 private:
  QProgressBar* bar_;
  QPushButton* stop_;
};

// Keeps hands off everything but the sheet.
class HandsOff : public QObject {
 public:
  explicit HandsOff(const QWidget* sheet) : sheet_(sheet) { qApp->installEventFilter(this); }

  bool eventFilter(QObject* watched, QEvent* event) override {
    // Something else asks meanwhile: it has to be answered before anything goes on.
    const QWidget* asks = QApplication::activeModalWidget();
    if (asks != nullptr && asks != sheet_) return false;
    switch (event->type()) {
      case QEvent::Close:
        if (!watched->isWidgetType() || watched == sheet_) return false;
        event->ignore();
        return true;
      case QEvent::Shortcut:
        return true;
      case QEvent::KeyPress:
      case QEvent::KeyRelease:
      case QEvent::MouseButtonPress:
      case QEvent::MouseButtonRelease:
      case QEvent::MouseButtonDblClick:
      case QEvent::Wheel:
      case QEvent::TouchBegin:
      case QEvent::ContextMenu:
      case QEvent::DragEnter:
      case QEvent::Drop:
        return watched->isWidgetType() && static_cast<QWidget*>(watched)->window() != sheet_;
      default:
        return false;
    }
  }

 private:
  const QWidget* sheet_;
};

}  // namespace

void work_off_thread(QWidget* over, const QString& what, const std::function<void(const Cancel&, const Told&)>& task) {
  Cancel cancel;
  WorkSheet sheet(what, over->window(), [&cancel] { cancel.request(); });
  QEventLoop loop;
  std::exception_ptr trouble;
  const HandsOff hands_off(&sheet);
  QTimer soon;
  soon.setSingleShot(true);
  QObject::connect(&soon, &QTimer::timeout, &sheet, &QWidget::show);
  soon.start(kShownAfter);
  QApplication::setOverrideCursor(Qt::BusyCursor);
  std::thread worker([&] {
    try {
      const Cancel::Scope stops(cancel);
      task(cancel, [&sheet](double share) {
        QMetaObject::invokeMethod(
            &sheet, [&sheet, share] { sheet.told(share); }, Qt::QueuedConnection);
      });
    } catch (...) {
      trouble = std::current_exception();
    }
    QMetaObject::invokeMethod(&loop, &QEventLoop::quit, Qt::QueuedConnection);
  });
  loop.exec();
  worker.join();
  QApplication::restoreOverrideCursor();
  if (trouble) std::rethrow_exception(trouble);
}

}  // namespace doyen
