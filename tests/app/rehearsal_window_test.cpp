// The rehearsal in the window: files run through the simulated controller on a real pseudo-terminal.
#include <QAbstractButton>
#include <QElapsedTimer>
#include <QRadioButton>
#include <QSlider>

#include "stages/run/rehearsal.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

// Small things only, so that a whole run takes seconds.
Job small_job() {
  Job job;
  job.name = "Small";
  job.blank.width = 120;
  job.blank.height = 80;
  job.blank.readings = {10};
  const auto add = [&](const char* id, double w, double h, Point at, Treatment t) {
    job.items.push_back({{id, id, PlainShape{PlainShape::Kind::Rectangle, w, h}, at, 0}, std::move(t)});
  };
  Treatment floor;
  floor.kind = Treatment::Kind::Recess;
  floor.depth = 2;
  floor.clearing = {"flat-1/4in"};
  add("floor", 24, 20, {40, 40}, floor);
  Treatment groove;
  groove.kind = Treatment::Kind::Incise;
  groove.bit = "v60";
  add("groove", 30, 6, {80, 40}, groove);
  for (const double x : {25.0, 45.0, 65.0, 85.0}) add(("stroke" + std::to_string(x)).c_str(), 12, 5, {x, 15}, groove);
  return job;
}

struct Staged : Window {
  explicit Staged(const Job& job = small_job()) {
    window.document().replace(job, {});
    settle();
    window.go_to_stage(Stage::Run);
    QTest::mouseClick(reach<QPushButton>("rehearse"), Qt::LeftButton);
    view = window.findChild<Rehearsal*>();
    REQUIRE(view != nullptr);
    find<QComboBox>("pace")->setCurrentIndex(3);
  }
  bool until(const std::function<bool()>& true_) {
    QElapsedTimer clock;
    clock.start();
    while (!true_() && clock.elapsed() < 60'000) QTest::qWait(20);
    return true_();
  }
  void press(const char* name) { QTest::mouseClick(find<QPushButton>(name), Qt::LeftButton); }
  void start(Drill drill) {
    auto* what = find<QComboBox>("drill");
    const int row = what->findData(static_cast<int>(drill));
    REQUIRE(row >= 0);
    what->setCurrentIndex(row);
    press("startRehearsal");
    REQUIRE(view->state() == Rehearsal::State::Running);
  }
  // All files, changing bits when it is asked for.
  void run_through() {
    while (view->state() != Rehearsal::State::After) {
      REQUIRE(until([&] { return view->state() != Rehearsal::State::Running; }));
      if (view->state() == Rehearsal::State::Change) press("bitChanged");
    }
  }
  QString said(Seen seen) {
    QTest::mouseClick(find<QRadioButton>(QStringLiteral("seen%1").arg(static_cast<int>(seen)).toLatin1().constData()),
                      Qt::LeftButton, {}, QPoint(8, 8));
    press("saySeen");
    return find<QLabel>("rehearsalSays")->text();
  }
  Rehearsal* view;
};

}  // namespace

TEST_CASE("a run is rehearsed to its end, as long as the plan says, and the board is as it was wanted") {
  Staged s;
  s.start(Drill::None);
  s.run_through();
  const Plan& p = s.plan();
  INFO(s.find<QLabel>("rehearsalSays")->text().toStdString());
  REQUIRE(s.view->seconds().size() == p.runs.size());
  for (std::size_t i = 0; i < p.runs.size(); ++i) {
    INFO(p.runs[i].file);
    CHECK(s.view->seconds()[i] == Approx(p.runs[i].time.seconds).epsilon(0.03));
  }
  CHECK(s.find<QLabel>("rehearsedNext")->text().contains("All files have run"));
  CHECK_FALSE(s.find<QPushButton>("saySeen")->isEnabled());  // nothing is said yet
  CHECK(s.said(Seen::Deep).startsWith("Look again"));
  CHECK(s.said(Seen::AsWanted).startsWith("Yes"));
}

TEST_CASE("the back is rehearsed with the board turned over, each side for itself") {
  Job job = small_job();
  for (const char* id : {"groove", "floor"}) job.find(id)->cut.back = true;
  Staged s(job);
  const Plan& p = s.plan();
  REQUIRE(p.has_back());
  for (const Side side : {Side::Back, Side::Front}) {
    auto* which = s.view->findChild<QComboBox*>(QStringLiteral("rehearsedSide"));
    REQUIRE(which->isVisible());
    which->setFocus();
    QTest::keyClick(which, side == Side::Back ? Qt::Key_Down : Qt::Key_Up);
    std::vector<double> planned;
    for (const BitRun& run : p.runs) {
      if (run.side == side) planned.push_back(run.time.seconds);
    }
    s.start(Drill::None);
    CHECK_FALSE(which->isEnabled());
    s.run_through();
    REQUIRE(s.view->seconds().size() == planned.size());
    for (std::size_t i = 0; i < planned.size(); ++i) CHECK(s.view->seconds()[i] == Approx(planned[i]).epsilon(0.03));
    CHECK(s.said(Seen::AsWanted).startsWith("Yes"));
  }
}

TEST_CASE("what is thrown into a rehearsal is seen on the board, and told") {
  const std::pair<Drill, Seen> drills[] = {{Drill::ZeroHigh, Seen::Shallow},
                                           {Drill::WrongBit, Seen::OddShape},
                                           {Drill::Clamp, Seen::HitMetal},
                                           {Drill::LostSteps, Seen::HalfAside}};
  Staged s;
  for (const auto& [drill, seen] : drills) {
    INFO(static_cast<int>(drill));
    s.start(drill);
    s.run_through();
    const QString said = s.said(seen);
    INFO(said.toStdString());
    CHECK(said.startsWith("Yes"));
    CHECK(said.contains(QString::fromStdString(foretold(s.plan(), drill))));
  }
}

TEST_CASE("a rehearsal is held, goes on, is stopped by button, key, or another job; nothing of the job changes") {
  Staged s;
  const Job before = s.job();
  s.find<QComboBox>("pace")->setCurrentIndex(0);  // as fast as the machine
  s.start(Drill::None);
  REQUIRE(s.until([&] { return s.view->ran_for() > 0.2; }));
  s.press("holdRehearsal");
  CHECK(s.view->state() == Rehearsal::State::Held);
  QTest::qWait(300);
  const double held = s.view->ran_for();
  QTest::qWait(300);
  CHECK(s.view->ran_for() == Approx(held).margin(0.01));
  s.press("holdRehearsal");
  CHECK(s.until([&] { return s.view->ran_for() > held + 0.2; }));
  s.find<QSlider>("feedOverride")->setValue(50);
  QTest::keyClick(s.view, Qt::Key_Space);
  CHECK(s.view->state() == Rehearsal::State::After);
  CHECK(s.find<QLabel>("rehearsalSays")->text().contains("Stopped"));
  CHECK_FALSE(s.find<QPushButton>("saySeen")->isVisible());
  s.start(Drill::None);
  s.press("stopRehearsal");
  CHECK(s.view->state() == Rehearsal::State::After);
  CHECK(s.job() == before);
  // The job is edited meanwhile: the rehearsal of what it was ends.
  s.start(Drill::None);
  s.window.document().edit("deeper", [](Job& job) { job.find("floor")->cut.depth = 3; });
  s.settle();
  CHECK(s.view->state() == Rehearsal::State::Before);
  s.press("rehearsalBack");
  QTest::qWait(20);
  CHECK(s.window.findChild<Rehearsal*>() == nullptr);
}

TEST_CASE("one file with pauses waits for each bit and goes on when it is changed") {
  Staged s;
  s.window.document().edit("one", [](Job& job) { job.run.one_file = true; });
  s.settle();
  s.start(Drill::None);
  REQUIRE(s.until([&] { return s.view->state() == Rehearsal::State::Change; }));
  CHECK(s.find<QLabel>("rehearsedNext")->text().contains(QString::fromStdString(s.plan().runs[1].bit.name)));
  s.run_through();
  CHECK(s.view->seconds().size() == 1);
  CHECK(s.said(Seen::AsWanted).startsWith("Yes"));
}

TEST_CASE("a clamp that is marked stands in the rehearsal, too; one that stands there for the other side does not") {
  for (const auto up : {KeepOut::Up::Whichever, KeepOut::Up::Back}) {
    Job job = small_job();
    KeepOut clamp;  // in the groove's way: a stop, but rehearsed all the same
    clamp.x = 80;
    clamp.y = 40;
    clamp.width = clamp.height = 20;
    clamp.up = up;
    job.blank.keep_outs.push_back(clamp);
    Staged s(job);
    s.start(Drill::None);
    s.run_through();
    const bool hit = up == KeepOut::Up::Whichever;
    CHECK((s.view->seconds().size() < 2) == hit);
    const QString said = s.said(hit ? Seen::HitMetal : Seen::AsWanted);
    CHECK(said.startsWith("Yes"));
    CHECK(said.contains("marked on the blank") == hit);
  }
}
