// The real window, driven as a person drives it: keys, mouse, fields found by what they are called.
#pragma once

#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QLabel>
#include <QPointer>
#include <QPushButton>
#include <QScrollArea>
#include <QTest>
#include <QToolButton>
#include <catch2/catch.hpp>

#include "parts/fold.hpp"
#include "shell/main_window.hpp"
#include "shell/shots.hpp"
#include "work/planner.hpp"

// Until it is so, or the test fails: Qt's own macros of this kind tell only Qt, and leave the test as if it had passed.
#define WAIT_UNTIL(condition, ms) REQUIRE(QTest::qWaitFor([&] { return static_cast<bool>(condition); }, ms))

namespace probe {

using namespace doyen;

// While it lives, pictures of the board are as fine as those a person sees.
struct FinePictures {
  FinePictures() { ReliefPainter::stay_coarse(false); }
  ~FinePictures() { ReliefPainter::stay_coarse(true); }
  FinePictures(const FinePictures&) = delete;
  FinePictures& operator=(const FinePictures&) = delete;
};

struct Window {
  MainWindow window;
  Window() {
    window.open_demo();
    window.show();
    settle();
  }
  ~Window() { window.document().undo_stack().setClean(); }  // nothing to ask about when it closes
  Window(const Window&) = delete;
  Window& operator=(const Window&) = delete;

  void settle() { REQUIRE(wait_until_settled(window, 60'000)); }
  // Until the judge has spoken and the remedies have been tried.
  void judge() { REQUIRE(wait_until_looked_at(window)); }
  [[nodiscard]] const Job& job() { return window.document().job(); }
  [[nodiscard]] const Plan& plan() { return *window.plan(); }
  [[nodiscard]] const Piece& piece(const char* id) { return job().find(id)->piece; }

  template <typename Widget>
  Widget* find(const char* name) {
    auto* found = window.findChild<Widget*>(QString::fromLatin1(name));
    INFO(name);
    REQUIRE(found != nullptr);
    return found;
  }
  // What is folded away is unfolded first, as a person does.
  template <typename Widget>
  Widget* reach(const char* name) {
    auto* found = find<Widget>(name);
    for (QWidget* up = found->parentWidget(); up != nullptr; up = up->parentWidget()) {
      if (auto* fold = qobject_cast<Fold*>(up); fold != nullptr && !fold->open()) {
        fold->set_open(true);
        QTest::qWait(10);
      }
    }
    return found;
  }
  // The ticket on top, and the visible buttons in it that say this.
  QScrollArea* ticket() {
    for (QScrollArea* area : window.findChildren<QScrollArea*>()) {
      if (area->isVisible()) return area;
    }
    return nullptr;
  }
  QPushButton* button(const QString& words) {
    for (QPushButton* b : window.findChildren<QPushButton*>()) {
      if (b->isVisible() && b->text().replace(QLatin1Char('\n'), QLatin1Char(' ')).contains(words)) return b;
    }
    return nullptr;
  }
  void choose(Stage stage, const char* piece) {
    window.go_to_stage(stage);
    window.select(QString::fromLatin1(piece));
    QTest::qWait(30);  // fresh rows are laid out by the event loop
  }
  // Types into a field as a person does: all of it replaced, Enter.
  void type(const char* name, const QString& text) {
    auto* field = reach<QLineEdit>(name);
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return);
  }
  void drag(QPointF from, QPointF to, Qt::KeyboardModifiers keys = Qt::NoModifier) {
    Bench& bench = window.bench();
    QTest::mousePress(&bench, Qt::LeftButton, keys, from.toPoint());
    for (int i = 1; i <= 5; ++i) {
      QMouseEvent move(QEvent::MouseMove, from + (to - from) * i / 5.0, bench.mapToGlobal(from + (to - from) * i / 5.0),
                       Qt::NoButton, Qt::LeftButton, keys);
      QApplication::sendEvent(&bench, &move);
    }
    QTest::mouseRelease(&bench, Qt::LeftButton, keys, to.toPoint());
  }
  // A treatment's tile, a combo's entry, a number in a spin box: as a person takes them, then waits for the plan.
  void look(const char* kind) {
    QTest::mouseClick(find<QToolButton>((std::string("look-") + kind).c_str()), Qt::LeftButton);
    settle();
  }
  void pick(const char* name, int index) {
    auto* box = reach<QComboBox>(name);
    box->setCurrentIndex(index);
    Q_EMIT box->activated(index);
    settle();
  }
  void spin(const char* name, double value) {
    auto* box = reach<QAbstractSpinBox>(name);
    box->setFocus();
    box->selectAll();
    QTest::keyClicks(box, QString::number(value));
    QTest::keyClick(box, Qt::Key_Return);
    settle();
  }
  void empty(const char* name) {  // a field that may be left empty
    auto* field = reach<QLineEdit>(name);
    field->setFocus();
    field->selectAll();
    QTest::keyClick(field, Qt::Key_Delete);
    QTest::keyClick(field, Qt::Key_Return);
    settle();
  }
  Box box(const char* id) { return bounds(outlines_of(piece(id), job().source()).region); }
};

// Acts on the next modal dialog that opens, then closes it if it is still open.
template <typename Act>
void on_next_dialog(Act act) {
  auto* timer = new QTimer;
  timer->setInterval(30);
  QObject::connect(timer, &QTimer::timeout, timer, [timer, act] {
    auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
    if (dialog == nullptr || dialog->objectName() == QLatin1String("longWork")) return;
    timer->stop();
    timer->deleteLater();
    // A field has the focus only in the active window; on a busy machine that comes late, and going back never does.
    QPointer<QWidget> before = QApplication::activeWindow();
    if (!before || before == dialog) before = dialog->parentWidget() ? dialog->parentWidget()->window() : nullptr;
    QApplication::setActiveWindow(dialog);
    const QPointer<QDialog> open = dialog;
    try {
      act(dialog);
    } catch (const Catch::TestFailureException&) {
      // Counted already. It must not unwind through the dialog's own loop, which would leave the next one waiting.
    }
    if (open && open->isVisible()) open->reject();
    if (before && before != open) QApplication::setActiveWindow(before);
  });
  timer->start();
}

}  // namespace probe
