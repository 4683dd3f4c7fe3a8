// The what-if sliders: figures move along, nothing changes until it is taken, and then all at once.
#include <QLabel>
#include <QPushButton>
#include <QSlider>

#include "stages/proof/what_if_section.hpp"
#include "window_probe.hpp"

using namespace probe;

TEST_CASE("sliders show what would be, change nothing until it is made so, and one undo takes it back") {
  Window w;
  w.window.go_to_stage(Stage::Proof);
  w.judge();
  const Job before = w.job();
  auto* thickness = w.reach<QSlider>("whatThickness");
  auto* section = w.window.findChild<WhatIfSection*>();
  REQUIRE(section != nullptr);
  auto* then = w.find<QLabel>("whatThen");
  auto* take = w.find<QPushButton>("whatTake");
  CHECK_FALSE(take->isEnabled());
  const auto worked_out = [&] {
    REQUIRE(QTest::qWaitFor([&] { return !section->waiting(); }, 30'000));
    QTest::qWait(20);
  };
  thickness->setFocus();
  for (int i = 0; i < 16; ++i) QTest::keyClick(thickness, Qt::Key_Right);
  worked_out();
  CHECK(w.job() == before);
  CHECK(then->text().contains("→"));
  CHECK(take->isEnabled());
  // What it says is what the plan says once it is so.
  const QString said = then->text();
  QTest::mouseClick(take, Qt::LeftButton);
  w.settle();
  CHECK(w.job().blank.thickest() > before.blank.thickest() + 6);
  CHECK(said.contains(QString::fromStdString("→ " + format_duration(w.plan().seconds))));
  CHECK_FALSE(take->isEnabled());  // and it is as it is
  QTest::keyClick(&w.window, Qt::Key_Z, Qt::ControlModifier);
  w.judge();
  CHECK(w.job() == before);
  // Of one piece; the wheel over a slider in passing says nothing.
  w.window.select(QStringLiteral("name"));
  QTest::qWait(30);
  auto* size = w.find<QSlider>("whatSize");
  const int as_is = size->value();
  CHECK(as_is == 100);
  size->setFocus();
  for (int i = 0; i < 5; ++i) QTest::keyClick(size, Qt::Key_PageUp);
  worked_out();
  CHECK(w.find<QLabel>("whatVerdicts")->isVisible());  // it no longer fits
  QTest::mouseClick(w.find<QPushButton>("whatBack"), Qt::LeftButton);
  CHECK(size->value() == 100);
  CHECK_FALSE(take->isEnabled());
  CHECK(w.job() == before);
  // The pieces' limits differ: at rest each has its own, and full depth for all can be asked.
  w.window.select({});
  QTest::qWait(30);
  auto* limit = w.find<QSlider>("whatLimit");
  CHECK(limit->value() == limit->maximum());
  limit->setFocus();
  // A first answer at once, and then the planned one in its place.
  QTest::keyClick(limit, Qt::Key_PageDown);
  WAIT_UNTIL(then->text().contains("about"), 20'000);
  CHECK(section->waiting());
  CHECK_FALSE(take->isEnabled());
  worked_out();
  CHECK_FALSE(then->text().contains("about"));
  CHECK(then->text().contains("Stops"));
  QTest::mouseClick(w.find<QPushButton>("whatBack"), Qt::LeftButton);
  limit->setFocus();
  QTest::keyClick(limit, Qt::Key_Left);
  worked_out();
  CHECK(then->text().contains("→"));
  QTest::mouseClick(take, Qt::LeftButton);
  w.settle();
  for (const Item& item : w.job().items) CHECK_FALSE(item.cut.incise.floor_limit.has_value());
  w.window.document().undo_stack().undo();
  w.judge();
  CHECK(w.job() == before);
  // Another job: nothing of the one before is left.
  for (int i = 0; i < 3; ++i) QTest::keyClick(size, Qt::Key_Right);
  w.window.open_demo(QStringLiteral("seed-drawer"));
  w.window.go_to_stage(Stage::Proof);
  w.judge();
  CHECK(size->value() == 100);
  CHECK_FALSE(then->text().contains("→"));
}
