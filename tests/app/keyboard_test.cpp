// The board by the keys alone: whatever the mouse can take hold of there, drawing, measuring, several pieces, the menu.
#include <QListWidget>
#include <QMenu>
#include <QTimer>

#include "bench/hands/all.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void press(Window& w, int key, Qt::KeyboardModifiers with = {}) {
  QWidget* to = QApplication::focusWidget();
  QTest::keyClick(to == nullptr ? &w.window : to, static_cast<Qt::Key>(key), with);
}

// As G goes on, until it says this.
bool take_hold(Window& w, const QString& words) {
  for (int i = 0; i < 60; ++i) {
    press(w, Qt::Key_G);
    if (w.window.bench().accessibleDescription().startsWith(words)) return true;
  }
  return false;
}

}  // namespace

TEST_CASE("tabs, clamps, bridges and the section are taken hold of and moved by keys") {
  Window w;
  QApplication::setActiveWindow(&w.window);
  Bench& bench = w.window.bench();
  // The section line.
  press(w, Qt::Key_3, Qt::AltModifier);
  press(w, Qt::Key_F6);
  REQUIRE(bench.hasFocus());
  REQUIRE(take_hold(w, "the section"));
  const QString before = w.window.strip().accessibleDescription();
  press(w, Qt::Key_Up);
  CHECK(w.window.strip().accessibleDescription() != before);
  press(w, Qt::Key_Escape);
  press(w, Qt::Key_T);
  CHECK(w.window.strip().accessibleDescription().contains("left edge"));
  press(w, Qt::Key_T);
  // A tab of the cut-out.
  for (int i = 0; i < 8 && bench.selected() != "outline"; ++i) press(w, Qt::Key_N);
  REQUIRE(bench.selected() == "outline");
  w.settle();
  REQUIRE(take_hold(w, "tab 2 of"));
  const auto tab = [&] { return w.plan().piece("outline")->cuts.cut_out->tabs.at(1).at; };
  const Point stood = tab();
  press(w, Qt::Key_Right, Qt::ShiftModifier);
  w.settle();
  CHECK(distance(tab(), stood) > 5);
  CHECK_FALSE(w.job().find("outline")->cut.through.tabs.placed.empty());
  const Point moved = tab();
  press(w, Qt::Key_Right, Qt::ShiftModifier);  // it is still held
  w.settle();
  CHECK(distance(tab(), moved) > 5);
  const Job as_it_is = w.job();
  press(w, Qt::Key_Escape);
  press(w, Qt::Key_Right);  // let go: now the piece itself moves
  CHECK_FALSE(w.job() == as_it_is);
  press(w, Qt::Key_Z, Qt::ControlModifier);
  CHECK(w.job() == as_it_is);
  // A clamp, while the blank is worked on.
  w.window.document().edit("clamp", [](Job& job) {
    KeepOut clamp;
    clamp.x = 60;
    clamp.y = 200;
    job.blank.keep_outs = {clamp};
  });
  press(w, Qt::Key_1, Qt::AltModifier);
  press(w, Qt::Key_F6);
  REQUIRE(take_hold(w, "to stay clear of, 1 of 1"));
  press(w, Qt::Key_Left);
  CHECK(w.job().blank.keep_outs[0].x == Approx(60 - 25.4 / 16));
  CHECK(w.job().blank.keep_outs[0].y == Approx(200));
  press(w, Qt::Key_Z, Qt::ControlModifier);
  CHECK(w.job().blank.keep_outs[0].x == Approx(60));
}

TEST_CASE("a bridge of a linked word is moved by keys") {
  Window w;
  QApplication::setActiveWindow(&w.window);
  w.window.document().edit("link", [](Job& job) {
    Derived linked;
    linked.how = Derived::How::Link;
    linked.from = {"garden"};
    job.items.push_back({{"linked", "Linked", linked, {0, 0}, 0}, {}});
  });
  w.choose(Stage::Artwork, "linked");
  w.settle();
  press(w, Qt::Key_F6);
  REQUIRE(take_hold(w, "bridge 1 of"));
  const auto bridges = [&] { return std::get<Derived>(w.piece("linked").what).bridges; };
  press(w, Qt::Key_Up);
  w.settle();
  CHECK_FALSE(bridges().empty());
  press(w, Qt::Key_Z, Qt::ControlModifier);
  CHECK(bridges().empty());
}

TEST_CASE("lines are drawn and lengths measured by keys") {
  Window w;
  QApplication::setActiveWindow(&w.window);
  w.choose(Stage::Artwork, "sprig");
  Bench& bench = w.window.bench();
  press(w, Qt::Key_F6);
  bench.draw().set_active(true);
  const std::size_t before = w.job().items.size();
  const auto go = [&](int key, int times) {
    for (int i = 0; i < times; ++i) press(w, key, Qt::ShiftModifier);
  };
  // A triangle: over, up, and back to its start, where it closes.
  go(Qt::Key_Left, 1);
  press(w, Qt::Key_Space);
  go(Qt::Key_Right, 4);
  press(w, Qt::Key_Space);
  go(Qt::Key_Up, 3);
  press(w, Qt::Key_Space);
  go(Qt::Key_Down, 3);
  go(Qt::Key_Left, 4);
  press(w, Qt::Key_Space);
  w.settle();
  REQUIRE(w.job().items.size() == before + 1);
  const Region drawn = outlines_of(w.job().items.back().piece, w.job().source()).region;
  // Ten sixteenths of an inch a step: 4 by 3 of them, half of it.
  const double step = 25.4 * 10 / 16;
  CHECK(area(drawn) == Approx(4 * step * 3 * step / 2).epsilon(0.001));
  // Measured, one end and the other; the known length sizes the piece.
  w.choose(Stage::Artwork, "sprig");
  const double wide = w.box("sprig").width();
  press(w, Qt::Key_F6);
  bench.measure().set_active(true);
  press(w, Qt::Key_Left);
  press(w, Qt::Key_Space);
  go(Qt::Key_Right, 2);
  press(w, Qt::Key_Space);
  w.type("realLength", QStringLiteral("2.5 in"));  // twice as long as measured
  w.settle();
  CHECK(w.box("sprig").width() == Approx(wide * 2.5 / (20 / 16.0)).epsilon(0.02));
}

TEST_CASE("several pieces are chosen by keys, on the board and in the list") {
  Window w;
  QApplication::setActiveWindow(&w.window);
  w.choose(Stage::Artwork, "outline");
  Bench& bench = w.window.bench();
  press(w, Qt::Key_F6);
  press(w, Qt::Key_N, Qt::ShiftModifier);
  press(w, Qt::Key_N, Qt::ShiftModifier);
  CHECK(bench.chosen().size() == 3);
  CHECK(bench.selected() == "outline");
  press(w, Qt::Key_N);
  CHECK(bench.chosen().size() == 1);
  auto* list = w.window.findChild<QListWidget*>();
  for (QListWidget* each : w.window.findChildren<QListWidget*>()) {
    if (each->isVisible() && each->accessibleName() == "Pieces on the board") list = each;
  }
  list->setFocus();
  list->setCurrentRow(0);
  QTest::keyClick(list, Qt::Key_Down, Qt::ShiftModifier);
  QTest::keyClick(list, Qt::Key_Down, Qt::ShiftModifier);
  CHECK(bench.chosen().size() == 3);
  CHECK(list->selectedItems().size() == 3);
  // By the mouse, with Control: one more, one less.
  const QRect fifth = list->visualItemRect(list->item(4));
  QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::ControlModifier, fifth.center());
  CHECK(bench.chosen().size() == 4);
  QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::ControlModifier, fifth.center());
  CHECK(bench.chosen().size() == 3);
  // On the board: the list follows.
  press(w, Qt::Key_F6);
  bench.choose_all();
  CHECK(list->selectedItems().size() == list->count());
  QTest::keyClick(&bench, Qt::Key_Escape);
  CHECK(list->selectedItems().isEmpty());
}

TEST_CASE("the job menu opens by a key") {
  Window w;
  QApplication::setActiveWindow(&w.window);
  bool opened = false;
  QTimer::singleShot(150, &w.window, [&] {
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    opened = menu != nullptr && menu->actions().size() > 5;
    if (menu != nullptr) menu->close();
  });
  QTest::keyClick(&w.window, Qt::Key_F10);
  REQUIRE(QTest::qWaitFor([&] { return opened; }, 3000));
}
