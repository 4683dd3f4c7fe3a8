// How things are cut, from the window: steps, fills, hanger slots and the back, moves, feeds, the order of the bits.
#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QListWidget>
#include <QSpinBox>
#include <QTemporaryDir>
#include <QToolButton>

#include "planning/outputs.hpp"
#include "rack/own_rack.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void open(Window& w, const char* folder) {
  auto* button = w.find<QToolButton>(folder);
  if (!button->isChecked()) QTest::mouseClick(button, Qt::LeftButton);
}

const Treatment& cut(Window& w, const char* id) { return w.job().find(id)->cut; }

}  // namespace

TEST_CASE("raised letters get terraces by number, and each is seen in the board") {
  Window w;
  w.choose(Stage::Cuts, "garden");
  w.look("raise");
  w.type("floorDepth", QStringLiteral("6 mm"));
  w.type("panelMargin", QStringLiteral("25 mm"));
  w.settle();
  CHECK_FALSE(w.find<QLineEdit>("terrace")->isVisible());
  w.spin("steps", 3);
  CHECK(cut(w, "garden").raise.steps == 3);
  CHECK(w.find<QLineEdit>("terrace")->isVisible());
  w.type("terrace", QStringLiteral("5 mm"));
  w.settle();
  CHECK(cut(w, "garden").raise.terrace == Approx(5));
  const Box box = w.box("garden");
  const double run = 2 * std::tan(M_PI / 6);
  // Left of the first letter's upright the flats lie one below the other.
  for (int step = 1; step <= 3; ++step) {
    const Point p{box.left - run - 2.5 - (step - 1) * (run + 5), box.centre().y};
    const HeightField f = relief_of(w.plan(), {p.x - 0.3, p.y - 0.3, p.x + 0.3, p.y + 0.3}, 0.2);
    CHECK(f.at(1, 1) == Approx(-2 * step).margin(0.05));
  }
  w.window.document().undo_stack().undo();
  w.window.document().undo_stack().undo();
  CHECK(cut(w, "garden").raise.steps == 1);
}

TEST_CASE("a line's inside is filled at a spacing and an angle") {
  Window w;
  w.choose(Stage::Cuts, "garden");
  w.look("line");
  const auto passes = [&] { return w.plan().piece("garden")->cuts.operations.at(0).passes.size(); };
  const std::size_t outlines = passes();
  w.type("hatch", QStringLiteral("0.8 mm"));
  w.settle();
  CHECK(passes() > outlines + 20);
  w.spin("hatchAngle", 90);
  CHECK(cut(w, "garden").line.hatch_angle == 90);
  w.empty("hatch");
  CHECK(passes() == outlines);
}

TEST_CASE("a hanger slot goes to the back, which the bench shows turned over") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    job.items.push_back({{"hook", "Hook", PlainShape{PlainShape::Kind::Ellipse, 10, 10}, {300, 120}, 0}, {}});
    job.run.least_wood = 1;
  });
  w.choose(Stage::Cuts, "hook");
  auto* turn = w.find<QPushButton>("turnOver");
  CHECK_FALSE(turn->isVisible());
  w.look("hangerSlot");
  CHECK(cut(w, "hook").back);
  CHECK(w.job().find("hook")->cut.bit == "keyhole-3/8in");
  CHECK(w.find<QComboBox>("side")->currentIndex() == 1);
  CHECK(turn->isVisible());
  w.type("slotLength", QStringLiteral("20 mm"));
  w.settle();
  CHECK(cut(w, "hook").slot.length == Approx(20));
  CHECK(w.plan().has_back());
  const QImage front = w.window.bench().picture();
  const QPointF before = w.window.bench().to_screen({300, 120});
  QTest::mouseClick(turn, Qt::LeftButton);
  w.settle();
  CHECK(w.window.bench().side() == Side::Back);
  CHECK_FALSE(w.window.bench().picture() == front);
  // It lies mirrored now, and can still be taken hold of where it is seen.
  const QPointF now = w.window.bench().to_screen({300, 120});
  CHECK(now.x() != Approx(before.x()).margin(1));
  CHECK(w.window.bench().to_board(now).x == Approx(300));
  w.window.select({});
  QTest::mouseClick(&w.window.bench(), Qt::LeftButton, {},
                    (now + QPointF(0, -5 * w.window.bench().pixels_per_mm())).toPoint());
  CHECK(w.window.bench().selected() == QStringLiteral("hook"));
  // Artwork is laid out from the front.
  w.window.go_to_stage(Stage::Artwork);
  CHECK(w.window.bench().side() == Side::Front);
  w.window.go_to_stage(Stage::Run);
  CHECK(w.find<QComboBox>("turnEdge")->isVisible());
  w.pick("turnEdge", 1);
  CHECK(w.job().run.turn == TurnOver::FrontEdge);
  w.choose(Stage::Cuts, "hook");
  w.pick("side", 0);
  CHECK_FALSE(cut(w, "hook").back);
  CHECK_FALSE(w.plan().has_back());
  bool said = false;
  for (const Verdict& v : w.plan().verdicts) said = said || v.code == "slot-on-front";
  CHECK(said);
}

TEST_CASE("how the bits move is folded away, and every choice of it changes the moves") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    job.items.push_back({{"tray", "Tray", PlainShape{PlainShape::Kind::Rectangle, 60, 40}, {520, 60}, 0}, {}});
  });
  w.choose(Stage::Cuts, "tray");
  w.look("recess");
  CHECK_FALSE(w.find<QComboBox>("way")->isVisible());
  open(w, "movesOpen");
  CHECK(w.find<QComboBox>("way")->isVisible());
  const auto length = [&] { return path_length(w.plan().piece("tray")->cuts.operations.at(0).passes); };
  double last = length();
  const auto changed = [&] {
    const double now = length();
    const bool other = std::abs(now - last) > 0.01;
    last = now;
    return other;
  };
  w.pick("way", 1);
  CHECK(cut(w, "tray").moves.way == Moves::Way::AlongGrain);
  CHECK(changed());
  w.pick("entry", 1);
  CHECK(cut(w, "tray").moves.entry == Moves::Entry::Helix);
  CHECK(changed());
  w.spin("stepover", 20);
  CHECK(cut(w, "tray").moves.stepover == Approx(0.2));
  CHECK(changed());
  w.type("leaveOn", QStringLiteral("0.3 mm"));
  w.settle();
  CHECK(cut(w, "tray").moves.leave_on == Approx(0.3));
  CHECK(changed());
  w.pick("keptWood", 1);
  CHECK_FALSE(cut(w, "tray").moves.climb);
}

TEST_CASE("feeds are this job's own until they are kept in the rack on purpose") {
  Window w;
  w.choose(Stage::Cuts, "outline");
  open(w, "feedsOpen");
  auto* feed = w.find<QDoubleSpinBox>("feed");
  CHECK(feed->suffix().contains("in/min"));
  const double before = feed->value();
  const double seconds = w.plan().seconds;
  CHECK_THAT(w.find<QLabel>("chip")->text().toStdString(),
             Catch::Contains("in per tooth") && Catch::Contains("is usual") && Catch::Contains("The rack's figures"));
  w.spin("feed", before / 2);
  CHECK(w.plan().seconds > seconds);
  CHECK(w.job().run.feeds.at("flat-1/4in").feed == Approx(before / 2 * kMmPerInch));
  CHECK(load_rack().find("flat-1/4in")->feeds_in("soft").feed == Approx(before * kMmPerInch));
  CHECK_THAT(w.find<QLabel>("chip")->text().toStdString(), Catch::Contains("This job's own"));
  QTest::mouseClick(w.find<QPushButton>("asRack"), Qt::LeftButton);
  w.settle();
  CHECK(w.job().run.feeds.empty());
  CHECK(w.plan().seconds == Approx(seconds));
  w.spin("feed", before * 0.8);
  QTest::mouseClick(w.find<QPushButton>("keepInRack"), Qt::LeftButton);
  w.settle();
  CHECK(w.job().run.feeds.empty());
  CHECK(load_rack().find("flat-1/4in")->feeds_in("soft").feed == Approx(before * 0.8 * kMmPerInch));
  CHECK(feed->value() == Approx(before * 0.8));
  remove(own_rack_path().c_str());  // the other tests begin with the rack as it comes
}

TEST_CASE("a skin, tape, and the order of the bits with what it costs") {
  Window w;
  w.choose(Stage::Cuts, "outline");
  w.type("skin", QStringLiteral("0.5 mm"));
  w.settle();
  CHECK(cut(w, "outline").through.skin == Approx(0.5));
  CHECK(w.plan().piece("outline")->cuts.deepest == Approx(w.job().blank.thinnest() - 0.5));
  w.empty("skin");
  CHECK(cut(w, "outline").through.skin == 0);
  QTest::mouseClick(w.find<QCheckBox>("taped"), Qt::LeftButton);
  w.settle();
  CHECK(cut(w, "outline").through.taped);
  w.window.go_to_stage(Stage::Run);
  auto* order = w.find<QListWidget>("order");
  REQUIRE(order->count() == 3);
  CHECK_FALSE(w.find<QPushButton>("ownOrder")->isVisible());
  // The last one, the cut-out, is taken to the front with the keys: allowed, and said what it breaks.
  order->setFocus();
  order->setCurrentRow(2);
  QTest::keyClick(order, Qt::Key_Up, Qt::AltModifier);
  w.settle();
  REQUIRE(w.job().run.order.size() == 3);
  CHECK(w.job().run.order[1] == "flat-1/4in#out");
  CHECK(w.plan().runs[1].bit.id == "flat-1/4in");
  bool early = false;
  for (const Verdict& v : w.plan().verdicts) early = early || v.code == "cut-out-early";
  CHECK(early);
  CHECK_THAT(w.find<QLabel>("orderSays")->text().toStdString(), Catch::Contains("Your order takes"));
  // The V before the floors' flat bit: the same piece needs the flat one first, so the V comes later than asked.
  order->setCurrentRow(2);
  QTest::keyClick(order, Qt::Key_Up, Qt::AltModifier);
  w.settle();
  order->setCurrentRow(1);
  QTest::keyClick(order, Qt::Key_Up, Qt::AltModifier);
  w.settle();
  CHECK(w.job().run.order[0] == "v60");
  QTest::mouseClick(w.find<QPushButton>("ownOrder"), Qt::LeftButton);
  w.settle();
  CHECK(w.job().run.order.empty());
  const double seconds = w.plan().seconds;
  QTest::mouseClick(w.reach<QCheckBox>("lowTravel"), Qt::LeftButton, {}, QPoint(8, 8));
  w.settle();
  CHECK_FALSE(w.job().run.low_travel);
  CHECK(w.plan().seconds > seconds);
}

TEST_CASE("the fingerpost is written with a picture and files of its back") {
  Window w;
  w.window.open_demo(QStringLiteral("fingerpost"));
  w.settle();
  QTemporaryDir folder;
  w.window.write_files(folder.path());
  CHECK(QFile::exists(folder.filePath(QStringLiteral("proof-back.png"))));
  CHECK(QFile::exists(folder.filePath(QStringLiteral("02-marrowby-upper-back-keyhole-3-8in-slot.nc"))));
  const std::string text =
      read_file(folder.filePath(QStringLiteral("02-marrowby-upper-back-keyhole-3-8in-slot.nc")).toStdString());
  CHECK_THAT(text, Catch::Contains("back"));
}
