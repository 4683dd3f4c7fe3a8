// The ladder of ways in the real window: always there, worked out behind, taken by one click, taken back by one key.
#include <QFile>

#include "log/log_book.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void climb(Window& w) {
  w.judge();
  QElapsedTimer clock;
  clock.start();
  while ((w.window.ways().waiting() || w.window.ways().ways().empty()) && clock.elapsed() < 60'000) QTest::qWait(10);
  REQUIRE_FALSE(w.window.ways().waiting());
}

}  // namespace

TEST_CASE("ways lie under the board without being asked for; one click takes one, one key takes it back") {
  Window w;
  w.window.open_demo(QStringLiteral("dibber-board"));
  w.choose(Stage::Cuts, "holes");
  climb(w);
  WayLadder& ladder = w.window.ways();
  REQUIRE(ladder.isVisible());
  REQUIRE(ladder.ways().size() >= 3);
  // Folded it says what the quickest would save.
  ladder.set_open(false);
  QTest::qWait(20);
  CHECK(w.find<QToolButton>("waysOpen")->accessibleDescription().contains(QStringLiteral("taped down")));
  w.find<QToolButton>("waysOpen")->click();
  QTest::qWait(20);
  // Its first rung is how it is cut now, and cannot be taken.
  CHECK_FALSE(w.find<QPushButton>("cutSo0")->isEnabled());
  const double before = w.plan().seconds, promised = ladder.ways()[1].seconds;
  REQUIRE(promised < before);
  auto* take = w.find<QPushButton>("cutSo1");
  REQUIRE(take->isEnabled());
  QTest::mouseClick(take, Qt::LeftButton);
  CHECK(w.job().find("holes")->cut.pierce.slug);
  // Until it is worked out anew, nothing can be taken by what it said before.
  CHECK_FALSE(take->isEnabled());
  climb(w);
  CHECK(w.plan().seconds == Approx(promised));
  CHECK(ladder.ways().front().seconds == Approx(promised));
  w.window.document().undo_stack().undo();
  CHECK_FALSE(w.job().find("holes")->cut.pierce.slug);
  climb(w);
  CHECK(w.plan().seconds == Approx(before));
  // Other stages have other things to say.
  w.window.go_to_stage(Stage::Run);
  CHECK_FALSE(ladder.isVisible());
}

TEST_CASE("with nothing chosen the ladder is about the whole job, and an edit while it works is never overtaken") {
  Window w;
  w.window.open_demo(QStringLiteral("gate-sign-raised"));
  w.window.go_to_stage(Stage::Proof);
  w.window.select({});
  climb(w);
  REQUIRE(w.window.ways().ways().size() >= 2);
  CHECK(w.find<QToolButton>("waysOpen")->accessibleDescription().contains(QStringLiteral("whole job")));
  for (int i = 0; i < 6; ++i) {
    w.window.document().edit(QStringLiteral("deeper"), [i](Job& job) { job.find("name")->cut.depth = 2.5 + 0.1 * i; });
    QTest::qWait(60 + 90 * i);
  }
  climb(w);
  CHECK(w.window.ways().ways().front().seconds == Approx(w.plan().seconds));
}

TEST_CASE("a machine that was timed takes in the ladder what it takes, changes of bits as they are") {
  QFile::remove(QString::fromStdString(log_path()));
  Window w;
  w.window.open_demo(QStringLiteral("gate-sign"));
  w.settle();
  LogEntry run;
  run.made = "2026-11-28T10:00:00Z";
  run.job = "another";
  run.machine = w.job().run.machine;
  run.told = 1000;
  run.took = 1500;
  run.well = true;
  (void)LogBook(log_path()).add(run);
  w.choose(Stage::Cuts, "");
  climb(w);
  const Way& now = w.window.ways().ways().front();
  // By hand: half as long again for all that is cut, and the changes of bits as they were told.
  double cutting = 0;
  for (const auto& [name, seconds] : now.bits) cutting += seconds;
  const std::string likely = format_duration(now.seconds + cutting / 2);
  const QString said = w.find<QToolButton>("waysOpen")->accessibleDescription();
  CHECK_THAT(said.toStdString(), Catch::Contains(likely) && Catch::Contains("as this machine was timed"));
  CHECK(now.seconds == Approx(w.plan().seconds));  // what is told stays what is told
  QFile::remove(QString::fromStdString(log_path()));
}
