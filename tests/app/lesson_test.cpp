// A first sign, step by step: done by hand as somebody new would, the lesson going on by itself; skipped, gone back and
// ended, without touching the job.
#include <QComboBox>
#include <QDialog>
#include <QTemporaryDir>

#include "bench/hands/all.hpp"
#include "shell/lesson.hpp"
#include "shell/new_board.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

LessonBar& lesson(Window& w) { return *w.window.findChild<LessonBar*>(); }

void begin(Window& w) {
  on_next_dialog([](QDialog* dialog) { dialog->accept(); });
  w.window.begin_lesson();
  w.settle();
}

#define GOES_ON_TO(w, n) WAIT_UNTIL(lesson(w).step() == (n), 10'000)

}  // namespace

TEST_CASE("somebody new makes a first sign, and the lesson follows") {
  Window w;
  begin(w);
  REQUIRE(lesson(w).isVisible());
  CHECK(lesson(w).step() == 0);
  CHECK(w.find<QLabel>("lessonCount")->text() == QStringLiteral("Your first sign, step 1 of 9"));
  CHECK(w.job().items.empty());
  w.type("readings", "19.1; 19.0; 19.3");
  GOES_ON_TO(w, 1);
  w.settle();
  QTest::mouseClick(w.find<QPushButton>("addLettering"), Qt::LeftButton);
  w.settle();
  REQUIRE(w.job().items.size() == 1);
  CHECK(lesson(w).step() == 1);  // nothing was typed yet
  QApplication::setActiveWindow(&w.window);
  QWidget* words = w.window.focusWidget();
  REQUIRE(words != nullptr);
  QTest::keyClicks(words, QStringLiteral("Rue"));
  w.settle();
  GOES_ON_TO(w, 2);
  const std::string id = w.job().items.front().piece.id;
  const Box box = w.box(id.c_str());
  Bench& bench = w.window.bench();
  const QPointF from = bench.to_screen(box.centre());
  w.drag(from.toPoint(), (from + QPointF(60, 30)).toPoint());
  w.settle();
  GOES_ON_TO(w, 3);
  w.window.document().edit(QStringLiteral("shape"), [](Job& job) {  // as the menu of “+ Shape” adds it
    Item item;
    item.piece.id = item.piece.name = "edge";
    item.piece.what = PlainShape{PlainShape::Kind::Rectangle, job.blank.width - 24, job.blank.height - 24};
    item.piece.at = job.blank.box().centre();
    job.items.insert(job.items.begin(), item);
  });
  GOES_ON_TO(w, 4);
  w.settle();
  w.window.select(QStringLiteral("edge"));
  w.settle();
  QTest::mouseClick(w.find<QWidget>("look-cutout"), Qt::LeftButton);
  w.settle();
  CHECK(w.job().find("edge")->cut.kind == Treatment::Kind::CutOut);
  GOES_ON_TO(w, 5);
  Q_EMIT bench.section_moved({true, w.job().blank.height / 3});
  GOES_ON_TO(w, 6);
  w.window.go_to_stage(Stage::Proof);
  w.judge();
  GOES_ON_TO(w, 7);
  CHECK(w.find<QPushButton>("lessonOn")->text() == QStringLiteral("Go on"));
  QTest::mouseClick(w.find<QPushButton>("lessonOn"), Qt::LeftButton);
  CHECK(lesson(w).step() == 8);
  const QTemporaryDir out;
  w.window.write_files(out.path());
  GOES_ON_TO(w, 9);
  CHECK_FALSE(w.find<QPushButton>("lessonEnd")->isVisible());
  QTest::mouseClick(w.find<QPushButton>("lessonOn"), Qt::LeftButton);
  CHECK_FALSE(lesson(w).isVisible());
  CHECK_FALSE(lesson(w).goes_on());
}

TEST_CASE("a lesson is skipped through, gone back and ended, and does nothing by itself") {
  Window w;
  begin(w);
  const Job before = w.job();
  for (int i = 0; i < 3; ++i) QTest::mouseClick(w.find<QPushButton>("lessonOn"), Qt::LeftButton);
  CHECK(lesson(w).step() == 3);
  QTest::mouseClick(w.find<QPushButton>("lessonBack"), Qt::LeftButton);
  CHECK(lesson(w).step() == 2);
  QTest::mouseClick(w.find<QPushButton>("lessonOn"), Qt::LeftButton);
  // It shows where: a ring round the button, which lets clicks through.
  QTest::mouseClick(w.find<QPushButton>("lessonShow"), Qt::LeftButton);
  auto* ring = w.window.findChild<QWidget*>(QStringLiteral("lessonRing"));
  REQUIRE(ring != nullptr);
  auto* button = w.find<QPushButton>("addShape");
  CHECK(ring->geometry().contains(QRect(button->mapTo(&w.window, QPoint(0, 0)), button->size())));
  CHECK(ring->testAttribute(Qt::WA_TransparentForMouseEvents));
  QTest::mouseClick(w.find<QPushButton>("lessonEnd"), Qt::LeftButton);
  CHECK_FALSE(lesson(w).isVisible());
  CHECK(w.window.findChild<QWidget*>(QStringLiteral("lessonRing")) == nullptr);
  CHECK(w.job() == before);
  // Another job is opened meanwhile: that one is no lesson.
  begin(w);
  REQUIRE(lesson(w).goes_on());
  w.window.open_demo();
  w.settle();
  CHECK_FALSE(lesson(w).goes_on());
}

TEST_CASE("the welcome page begins the lesson, on the board that is asked for") {
  Window w;
  on_next_dialog([](QDialog* welcome) {
    QTest::mouseClick(welcome->findChild<QPushButton*>("startLesson"), Qt::LeftButton);
    on_next_dialog([](QDialog* board) { board->accept(); });
  });
  w.window.greet();
  w.settle();
  CHECK(lesson(w).goes_on());
  CHECK(w.job().items.empty());
}

TEST_CASE("every step of a lesson is done at something that is there, and no button's name is another") {
  Window w;
  w.choose(Stage::Cuts, "outline");
  w.settle();
  for (const LessonStep& step : first_sign_steps()) {
    if (step.control.isEmpty()) continue;
    INFO(step.control.toStdString());
    CHECK(w.window.findChild<QWidget*>(step.control) != nullptr);
    // A button that is named in the words bears that name.
    const QString named = step.what.section(QStringLiteral("“"), -1).section(QStringLiteral("”"), 0, 0);
    const auto* button = qobject_cast<QAbstractButton*>(w.window.findChild<QWidget*>(step.control));
    if (button != nullptr && step.what.contains(QStringLiteral("“")) && !button->text().isEmpty())
      CHECK(button->text().startsWith(named));
  }
}
