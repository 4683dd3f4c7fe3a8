// Boards laid out in the window: chosen from pictures, taken as one step, and undone as one.
#include <QComboBox>
#include <QElapsedTimer>
#include <QListWidget>
#include <QRegularExpression>

#include "stages/artwork/lay_out_bench.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

LayOutBench* bench_of(Window& w) { return w.window.findChild<LayOutBench*>(); }
void wait_for(LayOutBench* bench) {
  QElapsedTimer clock;
  clock.start();
  while (!bench->finished() && clock.elapsed() < 60'000) QTest::qWait(20);
  REQUIRE(bench->finished());
}
}  // namespace

TEST_CASE("an arrangement is chosen from pictures, taken in one step and undone in one") {
  Window w;
  w.choose(Stage::Artwork, "name");
  const Job before = w.job();
  QTest::keyClick(&w.window, Qt::Key_L, Qt::ControlModifier | Qt::ShiftModifier);
  LayOutBench* bench = bench_of(w);
  REQUIRE(bench != nullptr);
  wait_for(bench);
  auto* cards = bench->findChild<QListWidget*>("arrangements");
  CHECK(cards->count() >= 6);
  CHECK(cards->currentRow() == 0);  // the best is looked at first
  int before_it = 100;
  for (int i = 0; i < cards->count(); ++i) {
    cards->setCurrentRow(i);
    int merit = -1;
    for (const QLabel* label : bench->findChildren<QLabel*>()) {
      const auto found = QRegularExpression("^Merit (\\d+) of 100$").match(label->text());
      if (found.hasMatch()) merit = found.captured(1).toInt();
    }
    INFO("card " << i);
    CHECK(merit > 0);
    CHECK(merit <= before_it);
    before_it = merit;
  }
  for (int i = 0; i < cards->count(); ++i) CHECK_FALSE(cards->item(i)->icon().isNull());
  // The motto matters as much as the name now: it is as high in every proposal.
  auto* role = bench->findChild<QComboBox*>("role-motto");
  REQUIRE(role != nullptr);
  role->setFocus();
  while (role->currentIndex() > 0) QTest::keyClick(role, Qt::Key_Up);
  wait_for(bench);
  REQUIRE(cards->count() >= 1);
  auto* take = bench->findChild<QPushButton*>("takeArrangement");
  QTest::mouseClick(take, Qt::LeftButton);
  QTest::qWait(50);
  CHECK(bench_of(w) == nullptr);
  CHECK_FALSE(w.job() == before);
  const auto cap = [&](const char* id) { return std::get<Lettering>(w.piece(id).what).cap_height; };
  CHECK(cap("motto") == Approx(cap("name")));
  w.settle();
  CHECK_FALSE(w.window.plan()->has_stop());
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}

TEST_CASE("an arrangement of a job that has changed meanwhile is not laid over it") {
  Window w;
  w.window.lay_out();
  wait_for(bench_of(w));
  w.window.document().edit("name the job", [](Job& job) { job.name = "Changed meanwhile"; });
  const Job now = w.job();
  bool said = false;
  on_next_dialog([&](QDialog*) { said = true; });
  QTest::mouseClick(bench_of(w)->findChild<QPushButton*>("takeArrangement"), Qt::LeftButton);
  CHECK(said);
  CHECK(w.job() == now);
}

TEST_CASE("leaving the arrangements changes nothing") {
  Window w;
  const Job before = w.job();
  w.window.lay_out();
  REQUIRE(bench_of(w) != nullptr);
  QTest::qWait(100);  // it is still looking
  QTest::keyClick(bench_of(w), Qt::Key_Escape);
  QTest::qWait(50);
  CHECK(bench_of(w) == nullptr);
  CHECK(w.job() == before);
}
