// Off-cuts in the real window: kept with two lengths, offered where they fit, used by one click.
#include <QFile>
#include <QLineEdit>
#include <QListWidget>

#include "job/off_cuts.hpp"
#include "stages/run/left_over_section.hpp"
#include "window_probe.hpp"

using namespace probe;

TEST_CASE("an off-cut is kept, offered to the board it fits, and gone once it is used") {
  QFile::remove(QString::fromStdString(off_cuts_path()));
  Window w;
  w.choose(Stage::Blank, "");
  auto* list = w.find<QListWidget>("offCutList");
  auto* keep = w.reach<QPushButton>("keepOffCut");
  CHECK_FALSE(keep->isEnabled());
  w.type("offCutAlong", QStringLiteral("30 in"));
  CHECK_FALSE(keep->isEnabled());
  w.type("offCutAcross", QStringLiteral("10"));  // inches, as the job has them
  REQUIRE(keep->isEnabled());
  auto* place = w.find<QLineEdit>("offCutPlace");
  place->setFocus();
  QTest::keyClicks(place, QStringLiteral("shelf 2"));
  QTest::mouseClick(keep, Qt::LeftButton);
  REQUIRE(load_off_cuts().size() == 1);
  const OffCut kept = load_off_cuts().front();
  CHECK(kept.along == Approx(30 * kMmPerInch));
  CHECK(kept.across == Approx(10 * kMmPerInch));
  CHECK(kept.species == w.job().blank.species);
  CHECK(kept.thickness == Approx(w.job().blank.thickest()));
  CHECK(kept.place == "shelf 2");
  REQUIRE(list->count() == 1);
  CHECK(list->item(0)->text().startsWith(QStringLiteral("fits")));
  // A board of another size: it is still listed, and cannot be used.
  auto* use = w.find<QPushButton>("useOffCut");
  list->setCurrentRow(0);
  CHECK(use->isEnabled());
  const double wide = w.job().blank.width;
  w.window.document().edit(QStringLiteral("long"), [](Job& job) { job.blank.width = 900; });
  w.settle();
  CHECK(list->count() == 1);
  CHECK_FALSE(use->isEnabled());
  w.window.document().undo_stack().undo();
  w.settle();
  REQUIRE(w.job().blank.width == wide);
  list->setCurrentRow(0);
  QTest::mouseClick(use, Qt::LeftButton);
  w.settle();
  CHECK(w.job().blank.width == Approx(30 * kMmPerInch));  // the sign is cut out of it
  CHECK(load_off_cuts().empty());
  CHECK(list->count() == 0);
  // Undo brings the board back; the shelf is not the job's.
  w.window.document().undo_stack().undo();
  w.settle();
  CHECK(w.job().blank.width == wide);
  // A file that nobody can read is said, and put aside when another off-cut is kept.
  QFile file(QString::fromStdString(off_cuts_path()));
  REQUIRE(file.open(QIODevice::WriteOnly));
  file.write("{");
  file.close();
  w.choose(Stage::Cuts, "");
  w.choose(Stage::Blank, "");
  CHECK_FALSE(w.find<QLabel>("offCutsSay")->text().isEmpty());
  w.type("offCutAlong", QStringLiteral("30"));
  w.type("offCutAcross", QStringLiteral("10"));
  QTest::mouseClick(keep, Qt::LeftButton);
  CHECK_THAT(w.find<QLabel>("offCutsSay")->text().toStdString(), Catch::Contains("damaged"));
  CHECK(load_off_cuts().size() == 1);
  QFile::remove(QString::fromStdString(off_cuts_path()));
}

TEST_CASE("what is left of the board is lit under Run, and goes among the off-cuts by one click") {
  QFile::remove(QString::fromStdString(off_cuts_path()));
  Window w;
  w.window.document().edit("a small sign on a large board", [](Job& job) {
    job.items.clear();
    job.blank.keep_outs.clear();
    Item sign{{"sign", "Sign", PlainShape{PlainShape::Kind::Rectangle, 150, 150}, {100, 100}, 0}, {}};
    sign.cut.kind = Treatment::Kind::CutOut;
    sign.cut.bit = "flat-1/4in";
    job.items.push_back(sign);
  });
  w.window.go_to_stage(Stage::Run);
  w.settle();
  auto* section = w.window.findChild<LeftOverSection*>();
  REQUIRE(section != nullptr);
  REQUIRE(section->isVisible());
  section->set_open(true);
  WAIT_UNTIL(!section->waiting() && !section->found().empty(), 30'000);
  const LeftOver first = section->found().front();
  CHECK(first.box.left > 175);
  const Job before = w.job();
  w.find<QLineEdit>("leftOverPlace0")->setFocus();
  QTest::keyClicks(w.find<QLineEdit>("leftOverPlace0"), QStringLiteral("shelf 3"));
  auto* keep = w.reach<QPushButton>("keepLeftOver0");
  QTest::mouseClick(keep, Qt::LeftButton);
  REQUIRE(load_off_cuts().size() == 1);
  CHECK(load_off_cuts().front().along == first.off_cut.along);
  CHECK(load_off_cuts().front().place == "shelf 3");
  CHECK_FALSE(keep->isEnabled());
  QTest::mouseClick(keep, Qt::LeftButton);
  CHECK(load_off_cuts().size() == 1);
  CHECK(w.job() == before);
  // Nothing is left where nothing is cut out.
  w.window.document().edit("not cut out", [](Job& job) { job.items.front().cut.kind = Treatment::Kind::None; });
  w.settle();
  CHECK_FALSE(section->isVisible());
  QFile::remove(QString::fromStdString(off_cuts_path()));
}
