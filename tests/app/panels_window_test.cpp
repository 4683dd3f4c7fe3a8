// Panels of a large sign in the window: seams found, typed and dragged, panels looked at, and all of it undone.
#include <QFile>
#include <QListWidget>
#include <QTemporaryDir>

#include "job/off_cuts.hpp"
#include "panels/panels.hpp"
#include "panels/seams.hpp"
#include "stages/blank/panels_section.hpp"
#include "stages/proof/boards_view.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void enter_words(QLineEdit* field, const QString& words) {
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, words);
  QTest::keyClick(field, Qt::Key_Return);
}

struct GardenMap : Window {
  GardenMap() {
    window.open_demo(QStringLiteral("garden-map"));
    window.go_to_stage(Stage::Blank);
    settle();
  }
};

}  // namespace

TEST_CASE("seams are found, typed and taken away again; what is no place is refused and nothing is lost") {
  GardenMap w;
  const Job before = w.job();
  QTest::mouseClick(w.reach<QPushButton>("noSeams"), Qt::LeftButton);
  w.settle();
  CHECK_FALSE(w.job().panels.there());
  CHECK(w.job().panels.hole == before.panels.hole);  // what was chosen stays for the next time
  CHECK_FALSE(w.find<QLineEdit>("seamsAcross")->isVisible());
  QTest::mouseClick(w.reach<QPushButton>("findSeams"), Qt::LeftButton);
  w.settle();
  REQUIRE(w.job().panels.across.size() == 1);
  REQUIRE(w.job().panels.deep.size() == 1);
  CHECK(w.find<QLabel>("panelsMade")->text().startsWith(QStringLiteral("4 panels, at most")));
  // The title's words are parted by a gap there.
  CHECK(cut_by_seam(w.job(), cut_outlines(w.job()), true, w.job().panels.across.front()).size() <=
        3);  // pond, kerb, wall
  enter_words(w.reach<LengthField>("panelMostWidth"), QStringLiteral("500"));
  w.settle();
  QTest::mouseClick(w.reach<QPushButton>("findSeams"), Qt::LeftButton);
  w.settle();
  CHECK(w.job().panels.across.size() == 2);
  auto* across = w.reach<QLineEdit>("seamsAcross");
  const std::vector<double> found = w.job().panels.across;
  enter_words(across, QStringLiteral("500; somewhere"));
  CHECK(w.job().panels.across == found);
  CHECK(across->text() == QStringLiteral("500; somewhere"));  // it waits there, and says what is wrong
  CHECK_FALSE(across->toolTip().isEmpty());
  enter_words(across, QStringLiteral("980; 500"));
  w.settle();
  CHECK(w.job().panels.across == std::vector<double>{500, 980});
  // Larger than the sign: it fits in one piece, and that is said.
  enter_words(w.reach<LengthField>("panelMostWidth"), QStringLiteral("1500"));
  enter_words(w.reach<LengthField>("panelMostHeight"), QStringLiteral("1100"));
  QTest::mouseClick(w.reach<QPushButton>("findSeams"), Qt::LeftButton);
  w.settle();
  CHECK_FALSE(w.job().panels.there());
  CHECK(w.find<QLabel>("panelsSay")->isVisible());
  while (w.window.document().undo_stack().canUndo()) w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}

TEST_CASE("a seam is dragged on the board, snaps past what is fine, and stays between its neighbours") {
  GardenMap w;
  const Job before = w.job();
  Bench& bench = w.window.bench();
  const auto at = [&](Point p) { return bench.to_screen(p).toPoint(); };
  const double y = 1000, from = w.job().panels.across.front();
  QTest::mousePress(&bench, Qt::LeftButton, {}, at({from, y}));
  for (int i = 1; i <= 10; ++i) QTest::mouseMove(&bench, at({from + 14.0 * i, y}));
  QTest::mouseRelease(&bench, Qt::LeftButton, {}, at({from + 140, y}));
  w.settle();
  const double to = w.job().panels.across.front();
  CHECK(std::abs(to - (from + 140)) < 30);  // where it was let go, or the calm place beside
  const SeamCosts costs(before, true);
  CHECK(costs.at(to) <= costs.at(from + 140));
  // Far past the edge it stays on the sign.
  QTest::mousePress(&bench, Qt::LeftButton, {}, at({to, y}));
  for (int i = 1; i <= 10; ++i) QTest::mouseMove(&bench, at({to + 110.0 * i, y}));
  QTest::mouseRelease(&bench, Qt::LeftButton, {}, at({to + 1100, y}));
  CHECK(w.job().panels.across.front() <= w.job().blank.width - kNarrowestPanel);
  w.window.document().undo_stack().undo();
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);  // each drag is one step
  // Under another stage the board's pieces are taken hold of, not seams.
  w.window.go_to_stage(Stage::Artwork);
  w.settle();
  QTest::mousePress(&bench, Qt::LeftButton, {}, at({from, y}));
  QTest::mouseMove(&bench, at({from + 60, y}));
  QTest::mouseRelease(&bench, Qt::LeftButton, {}, at({from + 60, y}));
  CHECK(w.job().panels == before.panels);
}

TEST_CASE("panels are looked at one by one, each a board with its own name and edges") {
  QFile::remove(QString::fromStdString(off_cuts_path()));
  (void)keep_off_cut({"", "white-oak", 800, 600, 21, "shelf 2"});
  GardenMap w;
  QTest::mouseClick(w.reach<QPushButton>("seePanels"), Qt::LeftButton);
  auto* view = w.window.findChild<BoardsView*>();
  REQUIRE(view != nullptr);
  WAIT_UNTIL(view->finished(), 60'000);
  auto* list = view->findChild<QListWidget*>(QStringLiteral("boardList"));
  REQUIRE(list->count() == 4);
  CHECK(list->item(0)->text().startsWith(QStringLiteral("Panel 1: A at its right edge")));
  const QString about = view->findChild<QLabel*>(QStringLiteral("boardAbout"))->text();
  CHECK(about.contains(QStringLiteral("740")));
  CHECK(about.contains(QStringLiteral("panel-1")));
  CHECK(about.contains(QStringLiteral("shelf 2")));  // the one off-cut is offered to one board
  list->setCurrentRow(1);
  CHECK_FALSE(view->findChild<QLabel*>(QStringLiteral("boardAbout"))->text().contains(QStringLiteral("shelf 2")));
  QFile::remove(QString::fromStdString(off_cuts_path()));
  // One of them alone, to be rehearsed or laid on the bed.
  QTest::mouseClick(view->findChild<QPushButton*>(QStringLiteral("openBoard")), Qt::LeftButton);
  w.settle();
  CHECK(w.job().name == "Marrowby garden map, panel 2");
  CHECK_FALSE(w.job().panels.there());
  CHECK(w.job().blank.runs_off.left);
  CHECK_FALSE(w.plan().has_stop());
}

TEST_CASE("cuts are let run off a board's side, and what reached past it is no fault any more") {
  Window w;
  w.window.go_to_stage(Stage::Blank);
  w.window.document().edit(QStringLiteral("test"), [](Job& job) {
    job.items.clear();
    Item item;
    item.piece.id = item.piece.name = "strip";
    item.piece.what = PlainShape{PlainShape::Kind::Rectangle, 200, 30};
    item.piece.at = {20, 100};
    item.cut.kind = Treatment::Kind::Recess;
    item.cut.depth = 2;
    item.cut.bit = "v60";
    item.cut.clearing = {"flat-1/4in"};
    job.items.push_back(item);
  });
  w.settle();
  const auto outside = [&] {
    const auto& all = w.plan().verdicts;
    return std::any_of(all.begin(), all.end(), [](const Verdict& v) { return v.code == "outside-board"; });
  };
  CHECK(outside());
  auto* left = w.reach<QCheckBox>("runsOffLeft");
  QTest::mouseClick(left, Qt::LeftButton, {}, {8, left->height() / 2});
  w.settle();
  CHECK(w.job().blank.runs_off.left);
  CHECK_FALSE(outside());
  w.window.document().undo_stack().undo();
  CHECK_FALSE(w.job().blank.runs_off.left);
}
