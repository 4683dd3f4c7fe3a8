// The bed's picture, driven by mouse and keys: what was said of the board's place stays said, and is undone whole.
#include <QMouseEvent>

#include "planning/further_boards.hpp"
#include "run/bed.hpp"
#include "stages/run/bed_view.hpp"
#include "window_probe.hpp"

using namespace doyen;
using namespace probe;

namespace {

BedPicture* opened(Window& w) {
  w.window.go_to_stage(Stage::Run);
  QTest::mouseClick(w.reach<QPushButton>("openBed"), Qt::LeftButton);
  QTest::qWait(30);
  return w.find<BedPicture>("bedPicture");
}

void drag(QWidget* on, QPointF from, QPointF to) {
  QTest::mousePress(on, Qt::LeftButton, {}, from.toPoint());
  for (int i = 1; i <= 4; ++i) {
    const QPointF at = from + (to - from) * i / 4.0;
    QMouseEvent move(QEvent::MouseMove, at, on->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(on, &move);
  }
  QTest::mouseRelease(on, Qt::LeftButton, {}, to.toPoint());
}

}  // namespace

TEST_CASE("the board is dragged on the bed, pushed by arrows, and all of it undone") {
  Window w;
  BedPicture* picture = opened(w);
  const Fixture before = w.job().run.fixture;
  REQUIRE(before.placed());  // the demo says it
  const Point middle = *left_front_on_bed(w.job()) + Point{w.job().blank.width / 2, w.job().blank.height / 2};
  const QPointF from = picture->to_screen(middle), to = picture->to_screen(middle + Point{50, 101.6});
  drag(picture, from, to);
  CHECK(*w.job().run.fixture.x == Approx(*before.x + 50).margin(4));
  CHECK(*w.job().run.fixture.y == Approx(*before.y + 101.6).margin(4));
  // Round figures where the job is in inches: eighths.
  CHECK(std::remainder(*w.job().run.fixture.x - *before.x, 25.4 / 8) == Approx(0).margin(1e-6));
  const double x = *w.job().run.fixture.x, y = *w.job().run.fixture.y;
  picture->setFocus();
  QTest::keyClick(picture, Qt::Key_Right);
  QTest::keyClick(picture, Qt::Key_Down, Qt::ShiftModifier);
  CHECK(*w.job().run.fixture.x == Approx(x + 25.4));
  CHECK(*w.job().run.fixture.y == Approx(y - 25.4 / 8));
  // The wheel changes nothing; a press beside the board neither.
  const Job as_it_is = w.job();
  QWheelEvent wheel(QPointF(300, 300), picture->mapToGlobal(QPointF(300, 300)), {}, QPoint(0, 120), Qt::NoButton,
                    Qt::NoModifier, Qt::NoScrollPhase, false);
  QApplication::sendEvent(picture, &wheel);
  drag(picture, picture->to_screen({20, 700}), picture->to_screen({200, 700}));
  CHECK(w.job() == as_it_is);
  while (w.window.document().undo_stack().canUndo()) w.window.document().undo_stack().undo();
  CHECK(w.job().run.fixture == before);
}

TEST_CASE("figures of the place are typed; taken away, nothing is said of it; another corner leaves the board") {
  Window w;
  opened(w);
  w.type("bedX", "5 in");
  CHECK(*w.job().run.fixture.x == Approx(127));
  CHECK(*w.job().run.fixture.y == Approx(76.2));  // as it was
  w.type("bedY", "six");
  CHECK(*w.job().run.fixture.y == Approx(76.2));
  CHECK(w.find<LengthField>("bedY")->text() == "six");  // not lost, and marked
  w.type("bedY", "6");
  CHECK(*w.job().run.fixture.y == Approx(152.4));
  const Point lies = *left_front_on_bed(w.job());
  w.pick("bedCorner", 3);
  CHECK(w.job().run.fixture.corner == Fixture::Corner::RightBack);
  CHECK(length(*left_front_on_bed(w.job()) - lies) < 1e-9);
  w.pick("bedAgainst", 0);
  CHECK_FALSE(w.find<LengthField>("bedStands")->isVisible());
  QTest::mouseClick(w.find<QPushButton>("bedForget"), Qt::LeftButton);
  CHECK_FALSE(w.job().run.fixture.placed());
  CHECK_FALSE(w.find<QPushButton>("bedForget")->isEnabled());
  QTest::mouseClick(w.find<QPushButton>("bedMiddle"), Qt::LeftButton);
  CHECK(w.job().run.fixture.placed());
}

TEST_CASE("stops are as large and stand where it is typed, and an emptied field means as usual again") {
  Window w;
  opened(w);
  const Fixture before = w.job().run.fixture;
  w.pick("bedAgainst", 1);
  CHECK(w.reach<LengthField>("bedFirst")->isVisible());
  const auto type = [&](const char* field, const char* text) {
    auto* edit = w.find<LengthField>(field);
    edit->setFocus();
    edit->selectAll();
    QTest::keyClick(edit, Qt::Key_Delete);
    QTest::keyClicks(edit, QLatin1String(text));
    QTest::keyClick(edit, Qt::Key_Return);
  };
  type("bedLong", "2in");
  type("bedFirst", "3in");
  type("bedEnd", "1.5in");
  CHECK(w.job().run.fixture.part_long == Approx(50.8));
  REQUIRE(w.job().run.fixture.first);
  CHECK(*w.job().run.fixture.first == Approx(76.2));
  CHECK(*w.job().run.fixture.end == Approx(38.1));
  type("bedFirst", "");
  type("bedLong", "");
  CHECK_FALSE(w.job().run.fixture.first);
  CHECK(w.job().run.fixture.part_long == 0);
  w.pick("bedAgainst", 2);  // of a fence nothing stands along the longer edge but itself
  CHECK_FALSE(w.find<LengthField>("bedFirst")->isVisible());
  while (w.window.document().undo_stack().canUndo()) w.window.document().undo_stack().undo();
  CHECK(w.job().run.fixture == before);
}

TEST_CASE("a place beyond the travel is said under the picture, and one button mends it") {
  Window w;
  opened(w);
  w.type("bedX", "12");  // 24 in of board on 32 in of travel
  w.judge();
  CHECK_THAT(w.find<QLabel>("bedTrouble")->text().toStdString(), Catch::Contains("the machine travels from 0 to"));
  auto* mend = w.find<QPushButton>("bedMend");
  REQUIRE(mend->isVisible());
  QTest::mouseClick(mend, Qt::LeftButton);
  w.judge();
  CHECK_FALSE(mend->isVisible());
  CHECK(w.find<QLabel>("bedTrouble")->text().isEmpty());
}

TEST_CASE("of a job with a list, the sheet lies on the bed, and its other boards are looked at, too") {
  Window w;
  w.window.open_demo(QStringLiteral("bed-labels"));
  w.settle();
  opened(w);
  auto* view = w.window.findChild<BedView*>();
  REQUIRE(view != nullptr);
  WAIT_UNTIL(view->ready(), 60000);
  auto* board = w.find<QComboBox>("bedBoard");
  REQUIRE(board->count() == 4);  // sheets, as in the walk of the trade
  CHECK(board->isVisible());
  const Job before = w.job();
  board->setFocus();
  QTest::keyClick(board, Qt::Key_End);
  WAIT_UNTIL(view->ready(), 60000);
  CHECK(board->currentIndex() == 3);
  CHECK(w.job() == before);  // looking changes nothing
  // The middle of the bed is for the sheet, not for one plate.
  QTest::mouseClick(w.find<QPushButton>("bedMiddle"), Qt::LeftButton);
  const std::vector<FurtherBoard> sheets = further_boards(w.job(), w.plan().rack);
  const MachineProfile& machine = machine_for(w.job());
  REQUIRE(w.job().run.fixture.placed());
  CHECK(*w.job().run.fixture.x == Approx((machine.travel[0] - sheets[0].job.blank.width) / 2));
  CHECK(*w.job().run.fixture.y == Approx((machine.travel[1] - sheets[0].job.blank.height) / 2));
}
