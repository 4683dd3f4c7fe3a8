// Inlays from the window: both halves by one decision, figures that say what they moved, the proof on the bench and in
// the section, what-ifs, other ways, easing, the test ladder, the two runs, and the files of every board.
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QSlider>
#include <QTemporaryDir>
#include <QToolButton>
#include <cmath>

#include "rack/own_rack.hpp"
#include "stages/cuts/bit_box.hpp"
#include "stages/proof/boards_view.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

using Kind = Treatment::Kind;

void wait_for_fit(Window& w, bool with_ways = false) {
  w.settle();
  FitKeeper& fit = w.window.fit();
  for (int i = 0; i < 2400; ++i) {
    const bool there = fit.fit() != nullptr || !fit.problem().isEmpty();
    if (there && !(with_ways && (fit.busy() || fit.ways().empty()))) break;
    QTest::qWait(25);
  }
  QTest::qWait(20);
}

void click(QAbstractButton* button) {
  REQUIRE(button != nullptr);
  button->click();
}

// A bar to be inlaid, alone on a walnut board; the V as the rack has it.
Job bar_job() {
  Job job;
  job.name = "Bar";
  job.blank.width = 160;
  job.blank.height = 100;
  job.blank.readings = {19, 19, 19};
  job.blank.species = "black-walnut";
  Item item{{"bar", "Bar", PlainShape{PlainShape::Kind::Rectangle, 40, 20}, {80, 50}, 0}, {}};
  item.cut.kind = Kind::Inlay;
  item.cut.bit = "v60";
  item.cut.depth = 5;
  job.items.push_back(item);
  return job;
}

std::string card_number(Window& w, const QString& label) {
  for (const NumberCard* card : w.window.findChildren<NumberCard*>()) {
    const QList<QLabel*> labels = card->findChildren<QLabel*>();
    if (card->isVisible() && !labels.isEmpty() && labels.front()->text() == label) return card->number().toStdString();
  }
  return "no card";
}

}  // namespace

TEST_CASE("a sprig is inlaid: figures, what they move, remedies and the files of both boards") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    for (Item& item : job.items) item.cut.kind = Kind::None;
  });
  w.choose(Stage::Cuts, "sprig");
  QTest::mouseClick(w.find<QToolButton>("look-inlay"), Qt::LeftButton);
  w.settle();
  const auto cut = [&]() -> const Treatment& { return w.job().find("sprig")->cut; };
  CHECK(cut().kind == Kind::Inlay);
  CHECK(cut().inlay.contact < cut().depth);
  CHECK(cut().depth <= w.job().blank.thinnest() / 2 + 1e-9);
  CHECK_FALSE(w.find<QLineEdit>("allowance")->isVisible());
  w.type("pocketDepth", QStringLiteral("5 mm"));
  w.type("contact", QStringLiteral("3.8 mm"));
  w.settle();
  // 5.0 − 3.8: glue gap 1.2; one figure says what it moved (walks.md).
  const double before = cut().depth - cut().inlay.contact;
  w.type("contact", QStringLiteral("3.5 mm"));
  w.settle();
  CHECK(cut().depth - cut().inlay.contact == Approx(before + 0.3));
  CHECK_THAT(w.find<QLabel>("moved")->text().toStdString(), Catch::Contains("glue gap"));
  w.type("contact", QStringLiteral("5.5 mm"));  // deeper than the pocket
  w.settle();
  const Verdict* bottoms = nullptr;
  for (const Verdict& v : w.plan().verdicts) {
    if (v.code == "plug-bottoms-out") bottoms = &v;
  }
  REQUIRE(bottoms != nullptr);
  CHECK(bottoms->grade == Grade::Stop);
  w.judge();
  QTest::keyClick(&w.window, Qt::Key_F4);  // the first remedy
  w.settle();
  CHECK(cut().inlay.contact == Approx(3.8));
  click(w.find<QPushButton>("startFigures"));
  w.settle();
  CHECK(cut().inlay.contact < cut().depth);
  QTemporaryDir folder;
  w.window.write_files(folder.path());
  CHECK(QFile::exists(folder.filePath(QStringLiteral("plan.json"))));
  CHECK(QFile::exists(folder.filePath(QStringLiteral("plugs-sugar-maple/runsheet.pdf"))));
  CHECK(QFile::exists(folder.filePath(QStringLiteral("plugs-sugar-maple/board.doyen"))));
}

TEST_CASE("the proof lies on the bench and in the section, and what-ifs change it") {
  Window w;
  w.window.document().replace(bar_job(), {});
  w.settle();
  w.choose(Stage::Cuts, "bar");
  click(w.find<QPushButton>("proveFit"));
  CHECK(w.window.bench().stage() == Stage::Proof);
  wait_for_fit(w, true);
  FitKeeper& fit = w.window.fit();
  REQUIRE(fit.fit() != nullptr);
  CHECK(card_number(w, "Glue gap") == "1.2 mm");
  CHECK(card_number(w, "Touches too early") == "nowhere");
  CHECK(card_number(w, "Open line at the face") == "none");
  // Every view is another picture, and the board's own is none.
  CHECK_FALSE(w.window.bench().overlay().isNull());
  const QImage levelled = w.window.bench().overlay();
  QImage last = levelled;
  for (const char* view : {"viewGaps", "viewPlug"}) {
    click(w.find<QPushButton>(view));
    for (int i = 0; i < 400 && fit.busy(); ++i) QTest::qWait(10);
    CHECK_FALSE(w.window.bench().overlay() == last);
    last = w.window.bench().overlay();
  }
  CHECK(w.find<QLabel>("gapLegend")->isHidden());
  click(w.find<QPushButton>("viewCarved"));
  for (int i = 0; i < 400 && fit.busy(); ++i) QTest::qWait(10);
  CHECK(w.window.bench().overlay().isNull());
  click(w.find<QPushButton>("viewLevelled"));
  for (int i = 0; i < 400 && fit.busy(); ++i) QTest::qWait(10);
  CHECK(w.window.bench().overlay() == levelled);
  // Sanded a millimetre further the maple is smaller: fewer of its pale pixels.
  const auto pale = [](const QImage& image) {
    int n = 0;
    for (int y = 0; y < image.height(); ++y) {
      for (int x = 0; x < image.width(); ++x) n += qGreen(image.pixel(x, y)) > 150;
    }
    return n;
  };
  w.pick("sanded", 3);
  for (int i = 0; i < 400 && fit.busy(); ++i) QTest::qWait(10);
  const double share = static_cast<double>(pale(w.window.bench().overlay())) / pale(levelled);
  const double by = 2 * std::tan(M_PI / 6);  // s·tan(α/2) a side, geometry.md
  CHECK(share == Approx((40 - by) * (20 - by) / 800).margin(0.01));
  w.pick("sanded", 0);

  // The section shows both halves; the slider lifts the plug off.
  CHECK(w.window.strip().shows_fit());
  const QImage seated = w.window.strip().grab().toImage();
  w.find<QSlider>("apart")->setValue(0);
  CHECK_FALSE(w.window.strip().grab().toImage() == seated);
  w.find<QSlider>("apart")->setValue(100);

  // A pocket cut 0.1 mm too shallow: the plug lies 0.1 mm higher and still closes.
  auto* fault = w.find<QPushButton>("fault1");
  CHECK_THAT(fault->text().toStdString(), Catch::Contains("too shallow") && Catch::Contains("0.1 mm higher"));
  click(fault);
  wait_for_fit(w);
  CHECK(fit.fit()->rides_up == Approx(0.1).margin(0.01));
  CHECK(w.find<QDoubleSpinBox>("tryPocket")->value() == Approx(0.1));
  CHECK_THAT(w.find<QLabel>("trying")->text().toStdString(), Catch::Contains("too shallow"));
  click(w.find<QPushButton>("tryNothing"));
  wait_for_fit(w);
  CHECK(std::abs(fit.fit()->rides_up) < 0.01);
  // The rows stand where they stood: what has the keyboard's focus keeps it.
  auto* third = w.find<QPushButton>("fault3");
  third->setFocus();
  third->click();
  wait_for_fit(w);
  CHECK(w.find<QPushButton>("fault3") == third);
  CHECK(third->isChecked());
  third->click();  // once more: nothing amiss
  wait_for_fit(w);
  CHECK(fit.what_if() == WhatIf{});
  w.find<QDoubleSpinBox>("tryAngle")->setValue(2);
  wait_for_fit(w);
  CHECK(fit.what_if().angle == Approx(2));
  CHECK(card_number(w, "Open line at the face") != "none");
  click(w.find<QToolButton>("place1"));  // the worst place: section and bench go there
  CHECK(w.window.strip().shows_fit());

  // Leaving takes the picture away.
  w.window.go_to_stage(Stage::Cuts);
  CHECK(w.window.bench().overlay().isNull());
  CHECK_FALSE(w.window.strip().shows_fit());
}

TEST_CASE("the ways to make an inlay stand side by side and one can be taken") {
  Window w;
  w.window.document().replace(bar_job(), {});
  w.settle();
  w.choose(Stage::Proof, "bar");
  wait_for_fit(w, true);
  const std::vector<InlayWay> ways = w.window.fit().ways();
  REQUIRE(ways.size() >= 3);
  std::size_t upright = 0;
  for (std::size_t i = 0; i < ways.size(); ++i) {
    if (!ways[i].cut.inlay.sloped && upright == 0) upright = i;
  }
  REQUIRE(upright > 0);
  // A square's four corners, rounded: (4 − π)·r² of the art go (geometry.md), on a bar nothing else.
  const double r = ways[upright].cut.inlay.ease;
  CHECK(ways[upright].lost == Approx((4 - M_PI) * r * r).epsilon(0.05));
  CHECK(ways[upright].play == Approx(2 * ways[upright].cut.inlay.allowance));
  click(w.find<QPushButton>(("lost" + std::to_string(upright + 1)).c_str()));
  click(w.find<QPushButton>(("takeWay" + std::to_string(upright + 1)).c_str()));
  w.settle();
  CHECK_FALSE(w.job().find("bar")->cut.inlay.sloped);
  QTest::keyClick(&w.window, Qt::Key_Z, Qt::ControlModifier);
  w.settle();
  CHECK(w.job().find("bar")->cut.inlay.sloped);
}

TEST_CASE("corners that bind are eased by the least needed, shown before it is taken") {
  Window w;
  Job job = bar_job();
  job.items[0].cut.bit = "engrave20";  // a cone with a flat at its tip
  job.items[0].cut.depth = 2;
  job.items[0].cut.inlay.contact = 1.5;
  job.items[0].cut.inlay.saw_gap = 1;
  const Rack rack = load_rack();
  const Bit* cone = rack.find("engrave20");
  REQUIRE(cone != nullptr);
  REQUIRE(cone->tip > 0);
  w.window.document().replace(job, {});
  w.settle();
  w.choose(Stage::Proof, "bar");
  wait_for_fit(w);
  REQUIRE(w.window.fit().fit() != nullptr);
  CHECK(w.window.fit().fit()->rides_up > 0.03);
  click(w.find<QPushButton>("findEase"));
  for (int i = 0; i < 4000 && !w.window.fit().ease(); ++i) QTest::qWait(20);
  QTest::qWait(30);
  REQUIRE(w.window.fit().ease());
  const double ease = *w.window.fit().ease();
  CHECK(ease > 0);
  CHECK(ease <= ease_that_seats(job.items[0].cut.inlay, *cone) + 0.011);
  click(w.find<QPushButton>("showEase"));
  CHECK(w.job().find("bar")->cut.inlay.ease == 0);  // only shown
  click(w.find<QPushButton>("takeEase"));
  w.settle();
  CHECK(w.job().find("bar")->cut.inlay.ease == Approx(ease));
  wait_for_fit(w);
  CHECK(w.window.fit().fit()->rides_up < 0.035);
}

TEST_CASE("a test ladder is made from an inlay, and its best pair is kept for the bit") {
  Window w;
  w.window.document().replace(bar_job(), {});
  w.window.document().undo_stack().setClean();
  w.settle();
  w.choose(Stage::Proof, "bar");
  wait_for_fit(w, true);
  click(w.find<QPushButton>("makeLadder"));
  w.settle();
  CHECK(w.job().find("rung-1") != nullptr);
  CHECK(w.job().find("rung-5") != nullptr);
  w.choose(Stage::Cuts, "rung-4");
  CHECK(w.find<QLabel>("rung")->isVisible());
  auto* keep = w.find<QPushButton>("keepRung");
  CHECK_THAT(keep->text().toStdString(), Catch::Contains("closed best"));
  CHECK_THAT(w.find<QLabel>("rung")->text().toStdString(), Catch::Contains("+0.1 mm"));
  click(keep);
  w.settle();
  CHECK_FALSE(w.find<QPushButton>("keepRung")->isEnabled());
  // It is in the user's rack, and the next inlay starts from it.
  CHECK(load_rack().find("v60")->ladder_contact == Approx(0.1));
  w.window.document().replace(bar_job(), {});
  w.settle();
  w.choose(Stage::Cuts, "bar");
  click(w.find<QPushButton>("startFigures"));
  w.settle();
  CHECK(w.job().find("bar")->cut.inlay.contact == Approx(3.9));
  QFile::remove(QString::fromStdString(own_rack_path()));  // the other tests have the rack as it comes
}

TEST_CASE("an inlaid board runs twice: cut-out last, zero kept by marks or pins, plugs milled level") {
  Window w;
  Job job = bar_job();
  job.blank.width = 220;
  job.items[0].piece.at.x = 110;
  Item lid{{"lid", "Lid", PlainShape{PlainShape::Kind::Rectangle, 110, 70}, {110, 50}, 0}, {}};
  lid.cut.kind = Kind::CutOut;
  lid.cut.bit = "flat-1/4in";
  job.items.push_back(lid);
  w.window.document().replace(job, {});
  w.settle();
  w.choose(Stage::Run, "");
  CHECK_THAT(w.find<QLabel>("inlaySteps")->text().toStdString(),
             Catch::Contains("glued-1-4in-up-cut-out.nc") && Catch::Contains("mirrored"));
  w.pick("keepZero", 1);
  REQUIRE(w.job().find("witness-1") != nullptr);
  REQUIRE(w.job().find("witness-2") != nullptr);
  CHECK_FALSE(w.plan().has_stop());
  CHECK_THAT(w.find<QLabel>("inlaySteps")->text().toStdString(), Catch::Contains("witness marks"));
  w.pick("keepZero", 2);
  CHECK(w.job().find("witness-1")->cut.kind == Kind::Pierce);
  w.pick("keepZero", 0);
  CHECK(w.job().find("witness-1") == nullptr);
  w.type("millLevel", QStringLiteral("4 mm"));
  w.settle();
  QTemporaryDir folder;
  w.window.write_files(folder.path());
  CHECK(QFile::exists(folder.filePath(QStringLiteral("levelling/runsheet.pdf"))));
  w.pick("cutOutLast", 1);
  CHECK_FALSE(w.plan().has_later());
  bool told = false;
  for (const Verdict& v : w.plan().verdicts) told = told || v.code == "after-gluing";
  CHECK(told);
}

TEST_CASE("resin: the volume comes from the carved relief") {
  Window w;
  Job job = bar_job();
  job.items[0].cut = {};
  job.items[0].cut.kind = Kind::Recess;
  job.items[0].cut.depth = 3;
  job.items[0].cut.clearing = {"flat-1/8in"};
  w.window.document().replace(job, {});
  w.settle();
  w.choose(Stage::Cuts, "bar");
  click(w.find<QCheckBox>("resin"));
  w.settle();
  auto* row = w.window.findChild<ResinRow*>();
  for (int i = 0; i < 400 && row->busy(); ++i) QTest::qWait(20);
  QTest::qWait(20);
  // 40 × 20 × 3 mm less four corners of (1 − π/4)·r² each, and a tenth more for what stays in the cup.
  const double r = 3.175 / 2, ml = (800 - (4 - M_PI) * r * r) * 3 / 1000;
  CHECK(std::stod(w.find<NumberCard>("resinVolume")->number().toStdString()) == Approx(1.1 * ml).margin(0.06));
}

TEST_CASE("further boards are looked at in place: carved, with size, files and times") {
  Window w;
  Job job = bar_job();
  job.run.mill_level = 4;
  w.window.document().replace(job, {});
  w.settle();
  w.choose(Stage::Proof, "bar");
  wait_for_fit(w);
  click(w.find<QPushButton>("seeBoards"));
  auto* view = w.window.findChild<BoardsView*>();
  REQUIRE(view != nullptr);
  for (int i = 0; i < 1000 && !view->finished(); ++i) QTest::qWait(20);
  auto* list = w.find<QListWidget>("boardList");
  REQUIRE(list->count() == 2);
  CHECK_THAT(list->item(0)->text().toStdString(), Catch::Contains("Sugar maple"));
  CHECK_THAT(w.find<QLabel>("boardAbout")->text().toStdString(),
             Catch::Contains("mirrored") && Catch::Contains("plugs-sugar-maple"));
  const QImage plugs = w.find<QLabel>("boardPicture")->pixmap().toImage();
  CHECK_FALSE(plugs.isNull());
  list->setCurrentRow(1);
  CHECK_THAT(w.find<QLabel>("boardAbout")->text().toStdString(), Catch::Contains("levelling"));
  CHECK_FALSE(w.find<QLabel>("boardPicture")->pixmap().toImage() == plugs);
  click(w.find<QPushButton>("boardsBack"));
  QTest::qWait(30);
  CHECK(w.window.findChild<BoardsView*>() == nullptr);
  // A job without inlays has none, and says so.
  job.items[0].cut.kind = Kind::Incise;
  job.items[0].cut.bit = "v60";
  job.run.mill_level.reset();
  w.window.document().replace(job, {});
  w.settle();
  w.window.open_boards();
  const auto* boards = w.window.findChild<BoardsView*>();
  REQUIRE(boards != nullptr);
  REQUIRE(QTest::qWaitFor([&] { return boards->finished(); }, 20'000));
  CHECK_THAT(w.find<QLabel>("boardAbout")->text().toStdString(), Catch::Contains("There is none"));
  w.window.go_to_stage(Stage::Cuts);
}

TEST_CASE("every choice of an inlay reaches the job, says what it is called when undone, and can be taken back") {
  Window w;
  w.window.document().replace(bar_job(), {});
  w.settle();
  w.choose(Stage::Cuts, "bar");
  const Treatment before = w.job().find("bar")->cut;
  const auto cut = [&]() -> const Treatment& { return w.job().find("bar")->cut; };
  const auto undone = [&](const char* words) {
    CHECK_THAT(w.window.document().undo_stack().undoText().toStdString(), Catch::Contains(words));
    QTest::keyClick(&w.window, Qt::Key_Z, Qt::ControlModifier);
    w.settle();
    CHECK(cut() == before);
  };
  w.pick("inlayFlanks", 1);
  CHECK_FALSE(cut().inlay.sloped);
  CHECK(w.find<QLineEdit>("allowance")->isVisible());
  CHECK_FALSE(w.find<QComboBox>("inlayBit")->isVisible());
  undone("upright");
  auto* bits = w.find<QComboBox>("inlayBit");
  w.pick("inlayBit", bits->findData("v90"));
  CHECK(cut().bit == "v90");
  undone("90° V");
  // A flat bit stands there and says why it cannot be taken.
  bits = w.find<QComboBox>("inlayBit");
  const int flat = bits->findData("flat-1/8in");
  REQUIRE(flat >= 0);
  CHECK_FALSE(bits->model()->flags(bits->model()->index(flat, 0)).testFlag(Qt::ItemIsEnabled));
  auto* rows = w.find<BitBox>("inlayBit");
  CHECK(rows->says(flat) == "its flanks do not slope");
  // The others say what they would do to the pocket, once it is looked at.
  rows->showPopup();
  REQUIRE(QTest::qWaitFor([&] { return !rows->waiting(); }, 20'000));
  CHECK_THAT(rows->says(rows->findData("v90")).toStdString(), Catch::Contains("deep"));
  CHECK(rows->says(flat) == "its flanks do not slope");
  rows->hidePopup();
  click(w.find<QCheckBox>("inlayVAlone"));
  w.settle();
  CHECK(cut().inlay.v_alone);
  CHECK_FALSE(w.find<QWidget>("bitsOpen")->isVisible());
  for (const Operation& op : w.plan().piece("bar")->cuts.operations) CHECK(op.bit == cut().bit);
  undone("V alone");
  // Flat bits for the floors are ticked, as for any floor; several at once as well.
  const auto tick = [&](const char* bit) {
    for (QCheckBox* box : w.find<QWidget>("inlayFloors")->findChildren<QCheckBox*>()) {
      if (box->property("bit") == QLatin1String(bit)) click(box);
    }
    w.settle();
  };
  click(w.find<QAbstractButton>("bitsOpen"));
  tick("flat-1/4in");
  CHECK(cut().clearing == std::vector<BitId>{"flat-1/4in"});
  tick("flat-1/8in");
  CHECK(cut().clearing == std::vector<BitId>{"flat-1/4in", "flat-1/8in"});
  w.window.document().undo_stack().undo();
  w.settle();
  undone("clear with the 1/4 in flat");
  auto* woods = w.find<QComboBox>("plugWood");
  w.pick("plugWood", woods->findData("black-cherry"));
  CHECK(cut().inlay.wood == "black-cherry");
  undone("Black cherry");
  w.pick("plugGrain", 1);
  CHECK(cut().inlay.crossed);
  w.judge();
  const Verdict* apart = nullptr;
  for (const Verdict& v : w.window.judged()->verdicts) {
    if (v.code == "woods-move-apart") apart = &v;
  }
  REQUIRE(apart != nullptr);
  CHECK(apart->remedies.at(0).label == "Turn the plug's grain along the board's");
  undone("across");
  w.spin("moisture", 9);
  CHECK(cut().inlay.moisture == Approx(9));
  undone("moisture");
  w.type("plugThickness", QStringLiteral("1/2 in"));
  w.settle();
  CHECK(cut().inlay.thickness == Approx(12.7));
  undone("thickness");
  w.type("ease", QStringLiteral("0.5 mm"));
  w.settle();
  CHECK(cut().inlay.ease == Approx(0.5));
  undone("ease");
  w.type("sawGap", QStringLiteral("2 mm"));
  w.settle();
  CHECK(cut().inlay.saw_gap == Approx(2));
  CHECK_THAT(w.find<QLabel>("moved")->text().toStdString(), Catch::Contains("saw line above the face 1.2 mm"));
  undone("saw gap");
}

TEST_CASE("an insert is cut from a chosen sheet, and its board is written") {
  Window w;
  Job job = bar_job();
  job.items[0].cut = {};
  job.items[0].cut.kind = Kind::Recess;
  job.items[0].cut.depth = 3;
  job.items[0].cut.clearing = {"flat-1/8in"};
  w.window.document().replace(job, {});
  w.settle();
  w.choose(Stage::Cuts, "bar");
  CHECK_FALSE(w.find<QComboBox>("insertSheet")->isVisible());
  w.type("insertThickness", QStringLiteral("2 mm"));
  w.settle();
  auto* sheet = w.find<QComboBox>("insertSheet");
  CHECK(sheet->isVisible());
  CHECK(sheet->currentIndex() == 0);
  w.pick("insertSheet", sheet->findData("acrylic"));
  CHECK(w.job().find("bar")->cut.insert.cut);
  CHECK(w.job().find("bar")->cut.insert.material == "acrylic");
  QTemporaryDir folder;
  w.window.write_files(folder.path());
  CHECK(QFile::exists(folder.filePath(QStringLiteral("inserts-acrylic-2-mm/runsheet.pdf"))));
  w.pick("insertSheet", 0);
  CHECK_FALSE(w.job().find("bar")->cut.insert.cut);
}

TEST_CASE("a fit that cannot be made says why, and one that is stale is proved anew") {
  Window w;
  Job job = bar_job();
  job.items[0].cut.inlay.ease = 15;  // swallows the bar
  w.window.document().replace(job, {});
  w.settle();
  w.choose(Stage::Proof, "bar");
  wait_for_fit(w);
  CHECK(w.window.fit().fit() == nullptr);
  CHECK_THAT(w.find<QLabel>("fitProblem")->text().toStdString(), Catch::Contains("no moves"));
  CHECK(w.find<QLabel>("fitProblem")->isVisible());
  CHECK(card_number(w, "Glue gap") == "no card");  // no figures of what is not there
  CHECK(w.window.bench().overlay().isNull());
  CHECK_FALSE(w.window.strip().shows_fit());
  w.window.document().edit("t", [](Job& j) { j.items[0].cut.inlay.ease = 0; });
  wait_for_fit(w);
  REQUIRE(w.window.fit().fit() != nullptr);
  CHECK(w.window.fit().problem().isEmpty());
  const auto first = w.window.fit().fit();
  CHECK(first->glue_gap == Approx(1.2).margin(0.01));
  // The contact is changed: the proof is of the new plan, and what was tried stays tried.
  w.window.document().edit("t", [](Job& j) { j.items[0].cut.inlay.contact = 3; });
  w.settle();
  for (int i = 0; i < 2000 && (w.window.fit().fit() == nullptr || w.window.fit().fit() == first); ++i) QTest::qWait(20);
  REQUIRE(w.window.fit().fit() != nullptr);
  CHECK(w.window.fit().fit()->glue_gap == Approx(2).margin(0.01));
  // Another piece chosen that is no inlay: the fit goes, the board stays.
  w.window.document().edit("t", [](Job& j) {
    Item other{{"o", "O", PlainShape{PlainShape::Kind::Ellipse, 10, 10}, {20, 20}, 0}, {}};
    other.cut.kind = Kind::Incise;
    other.cut.bit = "v60";
    j.items.push_back(other);
  });
  w.settle();
  w.window.select(QStringLiteral("o"));
  QTest::qWait(30);
  CHECK_FALSE(w.window.fit().active());
  CHECK(w.window.bench().overlay().isNull());
  // With nothing chosen the job's first inlay is looked at.
  w.window.select({});
  wait_for_fit(w);
  CHECK(w.window.fit().piece() == "bar");
  CHECK(w.window.fit().fit() != nullptr);
}

TEST_CASE("the section through both halves follows the section line, and beside the inlay the board is shown") {
  Window w;
  w.window.document().replace(bar_job(), {});
  w.settle();
  w.choose(Stage::Proof, "bar");
  wait_for_fit(w);
  SectionStrip& strip = w.window.strip();
  CHECK(strip.shows_fit());
  strip.set_line({true, 5});  // in front of the bar
  CHECK_FALSE(strip.shows_fit());
  CHECK_FALSE(w.find<QSlider>("apart")->isVisible());
  // What is tried does not bring the line back: it is where it was put.
  Q_EMIT strip.line_changed({true, 5});
  WhatIf shallow;
  shallow.pocket_zero = 0.1;
  w.window.fit().try_it(shallow);
  wait_for_fit(w);
  CHECK_FALSE(strip.shows_fit());
  strip.set_line({false, 80});  // across it, the other way
  CHECK(strip.shows_fit());
  CHECK(w.find<QSlider>("apart")->isVisible());
  const QImage across = strip.grab().toImage();
  strip.set_line({true, 50});
  CHECK_FALSE(strip.grab().toImage() == across);
  // By the keyboard alone: the slider has the focus and answers to its arrows.
  auto* apart = w.find<QSlider>("apart");
  apart->setFocus();
  const int before = apart->value();
  QTest::keyClick(apart, Qt::Key_Left);
  CHECK(apart->value() < before);
}
