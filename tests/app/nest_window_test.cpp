// Parts laid on boards, in the window: wanted, boards typed and taken from the off-cuts, looked at, undone.
#include <QCheckBox>
#include <QFile>
#include <QListWidget>

#include "job/off_cuts.hpp"
#include "stages/blank/nest_section.hpp"
#include "stages/proof/boards_view.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

// Four ovals, two of them over each other, which only matters where they are cut as they are drawn.
struct Ovals : Window {
  Ovals() {
    QFile::remove(QString::fromStdString(off_cuts_path()));
    window.document().edit({}, [](Job& job) {
      job = Job();
      job.name = "Ovals";
      job.blank.width = 400;
      job.blank.height = 200;
      job.blank.readings = {12};
      for (int i = 0; i < 4; ++i) {
        Item item{{"oval-" + std::to_string(i),
                   "Oval " + std::to_string(i + 1),
                   PlainShape{PlainShape::Kind::Ellipse, 90, 60},
                   {70.0 + 60 * i, 100},
                   0},
                  {}};
        item.cut.kind = Treatment::Kind::CutOut;
        item.cut.bit = "flat-1/8in";
        item.cut.through.tabs.wanted = false;
        item.cut.through.taped = true;
        job.items.push_back(item);
      }
    });
    window.document().undo_stack().clear();
    window.go_to_stage(Stage::Blank);
    settle();
  }
  ~Ovals() { QFile::remove(QString::fromStdString(off_cuts_path())); }
  void want() {
    auto* wanted = reach<QCheckBox>("nestWanted");
    QTest::mouseClick(wanted, Qt::LeftButton, {}, {8, wanted->height() / 2});
    settle();
  }
  QString made() {
    auto* section = window.findChild<NestSection*>();
    WAIT_UNTIL(!section->waiting(), 20'000);
    return find<QLabel>("nestMade")->text();
  }
};

}  // namespace

TEST_CASE("parts are laid on boards as they are typed, what is no board is refused, and all of it is undone") {
  Ovals w;
  const Job before = w.job();
  const auto gouged = [&] {
    w.judge();
    return w.plan().has_stop();
  };
  CHECK(gouged());  // as drawn, one oval is cut into the next
  w.want();
  CHECK(w.job().nest.wanted);
  CHECK_FALSE(gouged());
  CHECK(w.made().toStdString() == "Board 1: 4 parts, 21 % used");
  w.type("nestBoards", QStringLiteral("2 x 250 x 90"));
  w.settle();
  CHECK(w.job().nest.boards == std::vector<NestBoard>{{250, 90}, {250, 90}});
  CHECK(w.made().toStdString() == "Board 1: 2 parts, 38 % used\nBoard 2: 2 parts, 38 % used");
  w.type("nestBoards", QStringLiteral("250 x 90; somewhere"));
  CHECK(w.job().nest.boards.size() == 2);
  CHECK(w.find<QLineEdit>("nestBoards")->text() == QStringLiteral("250 x 90; somewhere"));
  w.type("nestBoards", QStringLiteral("250 x 90"));
  w.settle();
  CHECK(w.made().endsWith(QStringLiteral("Parts that no board has room for: 2")));
  CHECK(w.plan().has_stop());
  w.type("nestMargin", QStringLiteral("2"));
  w.type("nestGap", QStringLiteral("0"));
  w.pick("nestTurn", 2);
  CHECK(w.job().nest.margin == 2);
  CHECK(w.job().nest.gap == 0);
  CHECK(w.job().nest.turn == NestChoices::Turn::Any);
  // Scrolling the ticket over its fields changes nothing.
  const Job chosen = w.job();
  for (const char* name : {"nestGap", "nestMargin", "nestTurn", "nestBoards"}) {
    auto* field = w.find<QWidget>(name);
    field->clearFocus();
    QWheelEvent wheel(QPointF(5, 5), field->mapToGlobal(QPointF(5, 5)), {}, {0, -240}, Qt::NoButton, Qt::NoModifier,
                      Qt::NoScrollPhase, false);
    QApplication::sendEvent(field, &wheel);
  }
  CHECK(w.job() == chosen);
  while (w.window.document().undo_stack().canUndo()) w.window.document().undo_stack().undo();
  w.settle();
  CHECK(w.job() == before);
  CHECK_FALSE(w.find<QLineEdit>("nestBoards")->isVisible());
}

TEST_CASE("the off-cuts of this wood are boards for parts and for strips; where there are none it is said") {
  Ovals w;
  w.want();
  auto* button = w.reach<QPushButton>("nestOffCuts");
  QTest::mouseClick(button, Qt::LeftButton);
  CHECK(w.job().nest.boards.empty());
  CHECK(w.find<QLabel>("nestOffCutsSays")->isVisible());
  const WoodId wood = w.job().blank.species;
  (void)keep_off_cut({"", wood, 300, 120, 12.5, "shelf 2"});
  (void)keep_off_cut({"", wood, 500, 80, 25, "too thick"});
  (void)keep_off_cut({"", "white-oak", 500, 80, 12, "another wood"});
  (void)keep_off_cut({"", wood, 260, 90, 12, ""});
  QTest::mouseClick(button, Qt::LeftButton);
  w.settle();
  CHECK(w.job().nest.boards == std::vector<NestBoard>{{300, 120}, {260, 90}});
  CHECK_FALSE(w.find<QLabel>("nestOffCutsSays")->isVisible());
  CHECK_THAT(w.made().toStdString(), Catch::Contains("Board 1: 3 parts") && Catch::Contains("Board 2: 1 part"));
  w.window.document().undo_stack().undo();
  CHECK(w.job().nest.boards.empty());
  // A strip's board must be as wide as the strips: 100 mm here.
  w.window.document().edit({}, [](Job& job) {
    job.nest = {};
    job.blank.height = 100;
    job.plates.columns = {"Name"};
    job.plates.rows = std::vector<ListRow>{{"Ada"}, {"Bo"}};
    job.plates.strips.wanted = true;
  });
  w.settle();
  QTest::mouseClick(w.reach<QPushButton>("stripOffCuts"), Qt::LeftButton);
  w.settle();
  CHECK(w.job().plates.strips.boards == std::vector<double>{300});
}

TEST_CASE("the boards of parts are looked at one by one and opened as jobs of their own") {
  Ovals w;
  w.want();
  w.type("nestBoards", QStringLiteral("2 x 250 x 90"));
  w.settle();
  QTest::mouseClick(w.reach<QPushButton>("seeNest"), Qt::LeftButton);
  auto* view = w.window.findChild<BoardsView*>();
  REQUIRE(view != nullptr);
  WAIT_UNTIL(view->finished(), 60'000);
  auto* list = view->findChild<QListWidget*>(QStringLiteral("boardList"));
  REQUIRE(list->count() == 2);
  CHECK(list->item(1)->text() == QStringLiteral("Board 2: 2 parts, 38 % used"));
  // Side by side at one scale, with the drawing first; a click takes one of them.
  auto* all = view->findChild<QPushButton*>(QStringLiteral("sideBySide"));
  QTest::mouseClick(all, Qt::LeftButton);
  auto* overview = view->findChild<BoardsOverview*>();
  REQUIRE(overview->isVisible());
  const std::vector<QRectF> places = overview->places();
  REQUIRE(places.size() == 3);
  CHECK(places[1].width() / places[0].width() == Approx(250.0 / 400));
  for (std::size_t a = 0; a < places.size(); ++a) {
    CHECK(QRectF(overview->rect()).contains(places[a]));
    for (std::size_t b = a + 1; b < places.size(); ++b) CHECK_FALSE(places[a].intersects(places[b]));
  }
  CHECK_THAT(view->findChild<QLabel*>(QStringLiteral("boardAbout"))->text().toStdString(),
             Catch::StartsWith("Boards: 2. At the machine they take"));
  QTest::mouseClick(overview, Qt::LeftButton, {}, places[2].center().toPoint());
  CHECK_FALSE(overview->isVisible());
  CHECK(list->currentRow() == 1);
  list->setCurrentRow(1);
  w.window.document().undo_stack().setClean();  // nothing to ask about
  QTest::mouseClick(view->findChild<QPushButton*>(QStringLiteral("openBoard")), Qt::LeftButton);
  w.settle();
  CHECK(w.job().name == "Ovals, board 2 of 2");
  CHECK(w.job().items.size() == 2);
  CHECK_FALSE(w.job().nest.there());
  CHECK_FALSE(w.plan().has_stop());
  // Moved by hand there like any piece: it is a group of its own.
  CHECK_FALSE(w.job().items[0].group.empty());
  CHECK(w.job().items[0].group != w.job().items[1].group);
}
