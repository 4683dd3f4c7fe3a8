// What one lays to the proof by hand: a measure on the section, the map of weak places, and what a way leaves uncut lit
// on the board.
#include "bench/section_strip.hpp"
#include "stages/proof/weak_section.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void drag(QWidget* on, QPointF from, QPointF to) {
  QTest::mousePress(on, Qt::LeftButton, {}, from.toPoint());
  for (const double k : {0.3, 0.7, 1.0}) {
    const QPointF at = from + (to - from) * k;
    QMouseEvent move(QEvent::MouseMove, at, on->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(on, &move);
  }
  QTest::mouseRelease(on, Qt::LeftButton, {}, to.toPoint());
}

double number_before(const QString& words, const QString& unit_and_after) {
  const QString upto = words.left(words.indexOf(unit_and_after));
  return upto.mid(upto.lastIndexOf(QRegularExpression(QStringLiteral("[^0-9.]"))) + 1).toDouble();
}

// A board in millimetres with one flat floor, 40 mm wide and 5 mm deep.
Job floor_job() {
  Job job;
  job.lengths.unit = Unit::Millimetre;
  job.blank.width = 120;
  job.blank.height = 80;
  job.blank.readings = {18, 18, 18};
  Item item{{"tray", "Tray", PlainShape{PlainShape::Kind::Rectangle, 40, 30}, {60, 40}, 0}, {}};
  item.cut.kind = Treatment::Kind::Recess;
  item.cut.depth = 5;
  item.cut.bit = "flat-1/4in";
  job.items = {item};
  return job;
}

// That floor with the section through its middle, drawn.
struct CutThroughTray : Window {
  CutThroughTray() {
    window.document().edit({}, [](Job& j) { j = floor_job(); });
    settle();
    const SectionLine line{true, 40};
    window.bench().set_section(line);
    strip.set_line(line);
    WAIT_UNTIL(!strip.heights().empty() && *std::min_element(strip.heights().begin(), strip.heights().end()) < -4.9F,
               20'000);
    settle();
    QTest::qWait(50);  // the strip lies where it stays
  }
  SectionStrip& strip = window.strip();
};

}  // namespace

TEST_CASE(
    "a measure drawn on the section says how wide, how deep and how steep; corners catch it, a click takes it away") {
  CutThroughTray w;
  SectionStrip& strip = w.strip;
  const QTransform px = strip.drawn().to_px();
  REQUIRE(strip.measured().isEmpty());
  // From the rim to the other rim, each missed by a few pixels: the tray is 40 mm wide.
  drag(&strip, px.map(QPointF(40, 0)) + QPointF(3, -3), px.map(QPointF(80, 0)) + QPointF(-3, -4));
  CHECK_THAT(strip.measured().toStdString(), Catch::Contains("mm across"));
  CHECK(number_before(strip.measured(), " mm across") == Approx(40).margin(0.35));
  CHECK_THAT(strip.accessibleDescription().toStdString(), Catch::Contains("mm across"));
  // Across and down to the floor: 5 mm deep, atan(5/20) = 14.04° steep.
  drag(&strip, px.map(QPointF(40, 0)) + QPointF(2, -2), px.map(QPointF(60, -5)) + QPointF(0, 4));
  CHECK(number_before(strip.measured(), " mm across") == Approx(20).margin(0.35));
  CHECK(number_before(strip.measured(), " mm deep") == Approx(5).margin(0.02));
  CHECK_THAT(strip.measured().toStdString(), Catch::Contains("14° from level"));
  // Looking nearer keeps it; turning the section takes it away.
  const QString words = strip.measured();
  w.window.bench().come_closer({60, 40}, 2);
  QTest::qWait(100);
  CHECK(strip.measured() == words);
  QTest::mouseClick(&strip, Qt::LeftButton, {}, QPoint(strip.width() - 60, 16));
  CHECK(strip.measured().isEmpty());
  WAIT_UNTIL(strip.heights().size() > 10, 20'000);
  QTest::qWait(300);
  drag(&strip, {300, 60}, {360, 80});
  CHECK_FALSE(strip.measured().isEmpty());
  QTest::mouseClick(&strip, Qt::LeftButton, {}, QPoint(300, 70));
  CHECK(strip.measured().isEmpty());
}

TEST_CASE("the section is measured by keys: arrows go along the wood, Space sets an end, Esc takes it away") {
  CutThroughTray w;
  SectionStrip& strip = w.strip;
  strip.setFocus(Qt::TabFocusReason);
  for (int i = 0; i < 3; ++i) QTest::keyClick(&strip, Qt::Key_Left, Qt::ShiftModifier);  // 30 mm: out of the tray
  QTest::keyClick(&strip, Qt::Key_Space);
  for (int i = 0; i < 2; ++i) QTest::keyClick(&strip, Qt::Key_Right, Qt::ShiftModifier);  // 20 mm: down on its floor
  QTest::keyClick(&strip, Qt::Key_Space);
  CHECK(number_before(strip.measured(), " mm across") == Approx(20).margin(0.01));
  CHECK(number_before(strip.measured(), " mm deep") == Approx(5).margin(0.01));
  const Job before = w.job();
  QTest::keyClick(&strip, Qt::Key_Escape);
  CHECK(strip.measured().isEmpty());
  CHECK(w.job() == before);
}

TEST_CASE("weak places are hatched while their part of the ticket is open, say their widths, and go with the remedy") {
  Window w;
  Job job = floor_job();
  job.blank.species = "western-red-cedar";
  job.items.clear();
  for (const double x : {40.0, 80.0}) {  // 36 mm wide openings, 4 mm between them
    Item item{{x < 60 ? "left" : "right",
               x < 60 ? "Left" : "Right",
               PlainShape{PlainShape::Kind::Rectangle, 36, 30},
               {x, 40},
               0},
              {}};
    item.cut.kind = Treatment::Kind::Pierce;
    item.cut.bit = "flat-1/4in";
    job.items.push_back(item);
  }
  w.window.document().edit({}, [&](Job& j) { j = job; });
  w.window.go_to_stage(Stage::Proof);
  w.settle();
  CHECK(w.window.bench().weak() == nullptr);
  auto* section = w.window.findChild<WeakSection*>();
  REQUIRE(section != nullptr);
  const auto looked = [&] {
    w.settle();
    WAIT_UNTIL(!section->waiting() && w.window.bench().weak() != nullptr, 30'000);
  };
  w.find<QToolButton>("weakOpen")->click();
  looked();
  REQUIRE(w.window.bench().weak()->places.size() == 1);
  const WeakPlace place = w.window.bench().weak()->places.front();
  CHECK(place.kind == WeakPlace::Kind::Neck);
  CHECK(place.width == Approx(4).margin(0.3));
  CHECK(place.at.x == Approx(60).margin(2.5));
  CHECK_THAT(w.find<QLabel>("weakAbout")->text().toStdString(), Catch::Contains("One place is weak"));
  auto* button = w.find<QPushButton>("weakPlace0");
  CHECK_THAT(button->text().toStdString(), Catch::Contains("neck"));
  const double near = w.window.bench().pixels_per_mm();
  QTest::mouseClick(button, Qt::LeftButton);
  CHECK(w.window.bench().pixels_per_mm() >= near);
  // What mends it was tried; taking one does what it said, one undo takes it back.
  WAIT_UNTIL(!section->trying(), 60'000);
  const Job before = w.job();
  QPushButton* mends = nullptr;
  for (QPushButton* each : section->findChildren<QPushButton*>()) {
    if (each->property("mends").toBool() && mends == nullptr) mends = each;
  }
  REQUIRE(mends != nullptr);
  QTest::mouseClick(mends, Qt::LeftButton);
  CHECK_FALSE(w.job() == before);
  w.settle();
  WAIT_UNTIL(!section->waiting() && w.window.bench().weak() != nullptr && w.window.bench().weak()->places.empty(),
             30'000);
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
  looked();
  // Farther apart it holds, and the map follows the edit.
  w.window.document().edit({}, [](Job& j) {  // 16 mm on either side of each
    j.find("left")->piece.at.x = 34;
    j.find("right")->piece.at.x = 86;
  });
  w.settle();
  WAIT_UNTIL(!section->waiting() && w.window.bench().weak() != nullptr && w.window.bench().weak()->places.empty(),
             30'000);
  CHECK_THAT(w.find<QLabel>("weakAbout")->text().toStdString(), Catch::Contains("Nothing that stays"));
  w.find<QToolButton>("weakOpen")->click();
  CHECK(w.window.bench().weak() == nullptr);
}

TEST_CASE("what a way leaves uncut is lit on the board, and put out by the same button or an edit") {
  Window w;
  w.window.open_demo(QStringLiteral("gate-sign-raised"));
  w.window.document().edit({}, [](Job& j) {  // upright letters keep the round of the smallest flat in their corners
    for (Item& item : j.items) item.cut.raise.sloped = false;
  });
  w.choose(Stage::Cuts, "name");
  w.judge();
  WayLadder& ladder = w.window.ways();
  ladder.set_open(true);
  WAIT_UNTIL(!ladder.waiting() && !ladder.ways().empty(), 60'000);
  std::size_t loses = ladder.ways().size();
  for (std::size_t i = 0; i < ladder.ways().size(); ++i) {
    const auto* where = w.window.findChild<QPushButton*>(QStringLiteral("whereStays%1").arg(i));
    REQUIRE(where != nullptr);
    CHECK(where->isVisible() == !ladder.ways()[i].unreached_where.empty());
    double mm2 = 0;
    for (const Region& region : ladder.ways()[i].unreached_where) mm2 += area(region);
    if (mm2 > 1) loses = i;
  }
  REQUIRE(loses < ladder.ways().size());  // without the smallest bit corners stay
  auto* where = w.window.findChild<QPushButton*>(QStringLiteral("whereStays%1").arg(loses));
  const QImage dark = w.window.bench().grab().toImage();
  QTest::mouseClick(where, Qt::LeftButton);
  CHECK(where->isChecked());
  CHECK(w.window.bench().grab().toImage() != dark);
  QTest::mouseClick(where, Qt::LeftButton);
  CHECK_FALSE(where->isChecked());
  CHECK(w.window.bench().grab().toImage() == dark);
  const Job before = w.job();
  QTest::mouseClick(where, Qt::LeftButton);
  CHECK(w.job() == before);
  w.window.document().edit({}, [](Job& j) { j.find("name")->cut.depth += 0.2; });
  CHECK_FALSE(where->isChecked());
}
