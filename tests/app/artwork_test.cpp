// Artwork by hand on the bench and in its ticket: points, bridges, arcs, known lengths, several pieces at once, parts.
#include <QComboBox>
#include <QDragEnterEvent>
#include <QFile>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QTemporaryDir>

#include "bench/hands/all.hpp"
#include "files/outlines_out.hpp"
#include "rack/own_rack.hpp"
#include "stages/artwork/letter_bench.hpp"
#include "stages/artwork/trace_dialog.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

QPointF px(Window& w, Point p) { return w.window.bench().to_screen(p); }

Window& at_artwork(Window& w, const char* piece) {
  w.choose(Stage::Artwork, piece);
  return w;
}

}  // namespace

TEST_CASE("the letter bench judges the words in many faces, and one key takes a face") {
  Window w;
  w.choose(Stage::Artwork, "name");
  const auto open = [&] {
    QTest::qWait(20);
    QTest::mouseClick(w.find<QPushButton>("letterBench"), Qt::LeftButton);
    auto* bench = w.find<LetterBench>("letterBenchDialog");
    CHECK(bench->isVisible());
    CHECK_FALSE(w.window.bench().isVisible());  // it stands in the bench's place
    for (int i = 0; i < 600 && !bench->finished(); ++i) QTest::qWait(20);
    return bench;
  };
  LetterBench* bench = open();
  auto* faces = bench->findChild<QListWidget*>("faces");
  CHECK(faces->count() >= 6);
  const auto choose_face = [&](const char* name) {
    for (int i = 0; i < faces->count(); ++i) {
      if (faces->item(i)->text().startsWith(name)) faces->setCurrentRow(i);
    }
  };
  choose_face("Vollkorn Bold ");
  QTest::mouseClick(bench->findChild<QPushButton*>("takeFace"), Qt::LeftButton);
  CHECK(std::get<Lettering>(w.piece("name").what).face.family == "Vollkorn");
  CHECK(w.window.bench().isVisible());
  // Small and light: thickened by the least the bit needs, which the plan then finds.
  w.window.document().edit("test", [](Job& job) { std::get<Lettering>(job.find("name")->piece.what).cap_height = 12; });
  QTest::qWait(20);
  bench = open();
  faces = bench->findChild<QListWidget*>("faces");
  choose_face("EB Garamond Regular ");
  auto* thicken = bench->findChild<QPushButton*>("thickenFace");
  REQUIRE(thicken->isVisible());
  QTest::mouseClick(thicken, Qt::LeftButton);
  CHECK(std::get<Lettering>(w.piece("name").what).thicken > 0);
  const Rack rack = load_rack();
  const Bit* bit = rack.find("v60");
  const Fitness fit = fitness_of(outlines_of(w.piece("name")).region, *bit, {}, machine_for(w.job()));
  CHECK(fit.thinnest >= least_stroke(*bit) - 0.02);
  CHECK(fit.thinnest < least_stroke(*bit) + 0.1);
  // Another stage along the rail leaves it, and takes nothing.
  open();
  w.window.go_to_stage(Stage::Proof);
  CHECK(w.window.bench().isVisible());
}

TEST_CASE("a photographed ink drawing becomes a carvable piece, and can be traced again") {
  Window w;
  const auto trace_by = [&](int how) {
    auto* d = w.find<TraceDialog>("traceDialog");
    const auto wait = [d] {
      QTest::qWait(120);
      for (int i = 0; i < 400 && d->busy(); ++i) QTest::qWait(20);
    };
    auto* cut = d->findChild<QComboBox*>("cutBy");
    cut->setCurrentIndex(how);
    Q_EMIT cut->activated(how);
    wait();
    CHECK(d->traced_fine());
    CHECK(d->findChild<QLabel*>("traceSays")->text().contains("thinnest stroke"));
    QTest::mouseClick(d->findChild<QPushButton*>("takeTrace"), Qt::LeftButton);
    QTest::qWait(10);
  };
  const std::size_t before = w.job().items.size();
  QMimeData data;
  data.setUrls({QUrl::fromLocalFile(QString::fromStdString(data_file("demo/heron-ink.jpg")))});
  QDragEnterEvent enter({200, 200}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(&w.window, &enter);
  QDropEvent event({200, 200}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(&w.window, &event);
  trace_by(1);
  REQUIRE(w.job().items.size() == before + 1);
  const std::string id = w.job().items.back().piece.id;
  w.settle();
  CHECK(w.plan().piece(id)->cuts.groove->places.size() >= 4);
  const double width = w.box(id.c_str()).width();
  w.choose(Stage::Artwork, id.c_str());
  QTest::mouseClick(w.find<QPushButton>("traceAgain"), Qt::LeftButton);
  trace_by(0);
  CHECK(w.box(id.c_str()).width() == Approx(width).epsilon(0.02));
  CHECK_FALSE(std::get<Drawing>(w.piece(id.c_str()).what).traced->settings.uneven);
  QTest::qWait(20);
  // Far too small for the bit: what would be lost is shown in the picture, and a size is offered that loses nothing.
  QTest::mouseClick(w.find<QPushButton>("traceAgain"), Qt::LeftButton);
  auto* d = w.find<TraceDialog>("traceDialog");
  w.type("traceWidth", QStringLiteral("5 mm"));
  QTest::qWait(150);
  for (int i = 0; i < 400 && d->busy(); ++i) QTest::qWait(20);
  CHECK(d->shows_lost());
  CHECK(d->findChild<QLabel*>("traceSays")->text().contains("unreached"));
  d->reject();
  CHECK(w.box(id.c_str()).width() == Approx(width).epsilon(0.02));
}

TEST_CASE("clean-up lists what is wrong with a drawing and mends it by a button") {
  Window w;
  w.window.open_demo("heron-plaque");
  w.settle();
  w.choose(Stage::Artwork, "heron");
  QTest::mouseClick(w.find<QPushButton>("cleanUp"), Qt::LeftButton);
  for (int i = 0; i < 200 && w.button("Thin them") == nullptr; ++i) QTest::qWait(20);
  REQUIRE(w.button("Thin them") != nullptr);
  // What is found in a drawing is mended, not accepted.
  CHECK(w.ticket()->findChildren<QToolButton*>(QStringLiteral("acceptVerdict")).isEmpty());
  const std::size_t before = point_count(outlines_of(w.piece("heron")).region);
  QTest::mouseClick(w.button("Thin them"), Qt::LeftButton);
  CHECK(point_count(outlines_of(w.piece("heron")).region) < before / 2);
  // The job keeps the drawing as it came, apart from undo.
  QTest::mouseClick(w.find<QPushButton>("original"), Qt::LeftButton);
  CHECK(point_count(outlines_of(w.piece("heron")).region) == before);
  w.window.document().undo_stack().undo();
  w.window.document().undo_stack().undo();
  CHECK(point_count(outlines_of(w.piece("heron")).region) == before);
}

TEST_CASE("points of a drawing are dragged, added, removed and smoothed on the bench, and carved at once") {
  Window w;
  at_artwork(w, "sprig");
  QTest::mouseClick(w.find<QPushButton>("editPoints"), Qt::LeftButton);
  PointHand& hand = w.window.bench().points();
  REQUIRE(hand.active());
  const std::size_t before = hand.points().size();
  REQUIRE(before > 10);
  const Point first = hand.points().front().point.at;
  // The farthest point on the left, pulled 10 mm out: the piece grows there and nowhere else.
  Point left = first;
  for (const BoardPoint& p : hand.points()) {
    if (p.point.at.x < left.x) left = p.point.at;
  }
  const Box was = w.box("sprig");
  const int steps = w.window.document().undo_stack().count();
  w.drag(px(w, left), px(w, left + Point{-10, 0}), Qt::AltModifier);
  CHECK(w.box("sprig").left < was.left - 5);
  CHECK(w.box("sprig").right == Approx(was.right).margin(0.02));
  CHECK(w.window.document().undo_stack().count() == steps + 1);  // one drag, one step
  w.settle();
  CHECK(bounds(w.plan().piece("sprig")->outlines.region).left < was.left - 5);  // and it is carved
  // The chosen point goes, a double click brings one.
  QTest::keyClick(&w.window.bench(), Qt::Key_Delete);
  CHECK(hand.points().size() < before);
  w.window.document().undo_stack().undo();
  CHECK(hand.points().size() == before);
  const BoardPoint a = hand.points()[0], b = hand.points()[1];
  Point middle = (a.point.at + b.point.at) * 0.5;
  if (a.point.out)
    middle = a.point.at * 0.125 + *a.point.out * 0.375 + b.point.in.value_or(b.point.at) * 0.375 + b.point.at * 0.125;
  QTest::mouseDClick(&w.window.bench(), Qt::LeftButton, {}, px(w, middle).toPoint());
  CHECK(hand.points().size() == before + 1);
  QTest::keyClick(&w.window.bench(), Qt::Key_R);
  QTest::keyClick(&w.window.bench(), Qt::Key_P);
  CHECK(w.job().find("sprig") != nullptr);
  QTest::keyClick(&w.window.bench(), Qt::Key_Escape);
  CHECK_FALSE(hand.active());
  CHECK_FALSE(w.find<QPushButton>("editPoints")->isChecked());
  CHECK(w.find<QPushButton>("original")->isVisible());
}

TEST_CASE("a word is linked into one part, and a bridge follows the hand") {
  Window w;
  at_artwork(w, "name");
  for (QAction* action : w.find<QPushButton>("madeFrom")->menu()->actions()) {
    if (action->text().contains("one part")) action->trigger();
  }
  const std::string id = w.job().items.back().piece.id;
  REQUIRE(std::holds_alternative<Derived>(w.job().items.back().piece.what));
  const auto outlines = [&] { return outlines_of(w.piece(id.c_str()), w.job().source()); };
  CHECK(outlines().region.islands.size() == 1);
  CHECK(w.job().find("name")->cut.kind == Treatment::Kind::None);  // the source makes way
  w.window.document().undo_stack().undo();                         // in the same step
  CHECK(w.job().find("name")->cut.kind == Treatment::Kind::Incise);
  w.window.document().undo_stack().redo();
  w.choose(Stage::Artwork, id.c_str());
  const Derived::Bridge bridge = outlines().bridges.front();
  const Point middle = (bridge.from + bridge.to) * 0.5;
  w.drag(px(w, middle), px(w, middle + Point{0, 8}));
  const Derived::Bridge now = outlines().bridges.front();
  CHECK(now.from.y == Approx(bridge.from.y + 8).margin(1));
  CHECK(outlines().region.islands.size() == 1);
  w.type("bridge", QStringLiteral("5 mm"));
  CHECK(std::get<Derived>(w.piece(id.c_str()).what).bridge == Approx(5));
  QTest::mouseClick(w.find<QPushButton>("bridgesAnew"), Qt::LeftButton);
  CHECK(distance(outlines().bridges.front().from, bridge.from) < 1e-3);
}

TEST_CASE("straight words are pulled into an arch and down into a bowl") {
  Window w;
  at_artwork(w, "garden");
  const QRectF r = w.window.bench().selection_rect();
  const QPointF grip(r.center().x() + 36, r.top() - 20);
  const auto& l = std::get<Lettering>(w.piece("garden").what);
  w.drag(grip, grip - QPointF(0, 20));
  CHECK(l.arc_radius > 0);
  CHECK_FALSE(l.arc_below);
  // The rise over half the words' width gives the radius: (c² + s²) / 2 s, any handbook of mathematics.
  const double half = r.adjusted(5, 5, -5, -5).width() / 2 / w.window.bench().pixels_per_mm(),
               rise = 20 / w.window.bench().pixels_per_mm();
  CHECK(l.arc_radius == Approx((half * half + rise * rise) / (2 * rise)).epsilon(0.02));
  const QRectF now = w.window.bench().selection_rect();
  const QPointF again(now.center().x() + 36, now.top() - 20);
  w.drag(again, again + QPointF(0, 45));
  CHECK(l.arc_below);
  w.window.document().undo_stack().undo();
  w.window.document().undo_stack().undo();
  CHECK(l.arc_radius == 0);
}

TEST_CASE("a piece is sized by one length that is known") {
  Window w;
  at_artwork(w, "sprig");
  const Box was = w.box("sprig");
  QTest::mouseClick(w.find<QPushButton>("measure"), Qt::LeftButton);
  // From the lowest to the highest point of its outline; the hand catches the points themselves.
  Point low{0, 1e9}, high{0, -1e9};
  for (const Island& island : outlines_of(w.piece("sprig")).region.islands) {
    for (const Point& p : island.rings.front()) {
      if (p.y < low.y) low = p;
      if (p.y > high.y) high = p;
    }
  }
  w.drag(px(w, low), px(w, high));
  REQUIRE(w.find<QLineEdit>("realLength")->isVisible());
  w.type("realLength", QStringLiteral("100 mm"));
  const double k = 100 / distance(low, high);
  CHECK(w.box("sprig").height() == Approx(was.height() * k).epsilon(2e-3));
  CHECK(w.box("sprig").bottom == Approx(was.bottom).margin(0.1));  // the first point stays
  CHECK_FALSE(w.window.bench().measure().active());
}

TEST_CASE("letters are made narrower by a figure, their height stays, and one undo takes it back") {
  Window w;
  at_artwork(w, "name");
  const Job before = w.job();
  const Box plain = w.box("name");
  auto* width = w.reach<QSpinBox>("letterWidth");
  CHECK(width->value() == 100);
  width->setFocus();
  width->selectAll();
  QTest::keyClicks(width, QStringLiteral("80"));
  QTest::keyClick(width, Qt::Key_Return);
  CHECK(std::get<Lettering>(w.job().find("name")->piece.what).letter_width == 80);
  w.settle();
  CHECK(w.box("name").height() == Approx(plain.height()).epsilon(0.01));
  CHECK(w.box("name").width() == Approx(0.8 * plain.width()).epsilon(0.05));  // the demo's word is spaced
  CHECK(w.plan().piece("name")->problem.empty());
  // The wheel over it scrolls the ticket and changes nothing.
  width->clearFocus();
  QWheelEvent wheel(QPointF(5, 5), width->mapToGlobal(QPointF(5, 5)), {}, {0, 120}, Qt::NoButton, {}, Qt::NoScrollPhase,
                    false);
  QApplication::sendEvent(width, &wheel);
  CHECK(width->value() == 80);
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}

TEST_CASE("a drawing is stretched in height by a figure; what is none is refused") {
  Window w;
  at_artwork(w, "sprig");
  const Box was = w.box("sprig");
  w.type("drawingTall", "150");
  w.settle();
  CHECK(w.box("sprig").height() == Approx(was.height() * 1.5).epsilon(1e-3));
  CHECK(w.box("sprig").width() == Approx(was.width()).epsilon(1e-3));
  w.type("drawingTall", "tall");
  CHECK(std::get<Drawing>(w.piece("sprig").what).tall == Approx(1.5));
  CHECK(w.find<QLineEdit>("drawingTall")->text() == "tall");
  w.window.document().undo_stack().undo();
  w.settle();
  CHECK(w.box("sprig").height() == Approx(was.height()).epsilon(1e-6));
}

TEST_CASE("the whole sign is sized by one length of it that is known") {
  Window w;
  at_artwork(w, "sprig");
  const Job before = w.job();
  const Box sprig = w.box("sprig"), name = w.box("name");
  QTest::mouseClick(w.find<QPushButton>("measure"), Qt::LeftButton);
  w.drag(px(w, {sprig.left, sprig.bottom}), px(w, {sprig.right, sprig.bottom}));
  REQUIRE(w.find<QLineEdit>("realLength")->isVisible());
  const double wide = w.find<LengthField>("realLength")->length().value();
  auto* with = w.find<QComboBox>("sizedWithIt");
  with->setFocus();
  QTest::keyClick(with, Qt::Key_Down);
  QTest::keyClick(with, Qt::Key_Down);
  w.type("realLength", QString::number(wide * 1.5 / 25.4, 'f', 6) + QStringLiteral(" in"));
  w.settle();
  CHECK(w.job().blank.width == Approx(before.blank.width * 1.5).epsilon(1e-4));
  CHECK(w.box("sprig").width() == Approx(sprig.width() * 1.5).epsilon(1e-3));
  CHECK(w.box("name").left == Approx(name.left * 1.5).epsilon(1e-3));
  CHECK(*w.job().find("name")->cut.incise.floor_limit ==
        Approx(*before.find("name")->cut.incise.floor_limit * 1.5).epsilon(1e-4));
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}

TEST_CASE("several pieces are chosen, moved, lined up and spaced together") {
  Window w;
  at_artwork(w, "name");
  Bench& bench = w.window.bench();
  const Point motto = w.box("motto").centre(), subtitle = w.box("garden").centre();
  QTest::mouseClick(&bench, Qt::LeftButton, Qt::ShiftModifier, px(w, motto).toPoint());
  QTest::mouseClick(&bench, Qt::LeftButton, Qt::ShiftModifier, px(w, subtitle).toPoint());
  REQUIRE(bench.chosen().size() == 3);
  QTest::qWait(30);
  REQUIRE(w.button("Middles ↕") != nullptr);
  QTest::mouseClick(w.button("Left edges"), Qt::LeftButton);
  CHECK(w.box("motto").left == Approx(w.box("name").left).margin(1e-3));
  QTest::mouseClick(w.button("Equal gaps ↑"), Qt::LeftButton);
  const double low = w.box("garden").bottom - w.box("motto").top, up = w.box("name").bottom - w.box("garden").top;
  CHECK(low == Approx(up).margin(1e-3));
  w.type("gap", QStringLiteral("9 mm"));
  QTest::mouseClick(w.button("Equal gaps ↑"), Qt::LeftButton);
  CHECK(w.box("garden").bottom - w.box("motto").top == Approx(9).margin(1e-3));
  CHECK(w.box("name").bottom - w.box("garden").top == Approx(9).margin(1e-3));
  // All move together.
  const Point before = w.box("motto").centre();
  QTest::keyClick(&bench, Qt::Key_Up);
  CHECK(w.box("motto").centre().y > before.y + 1);
  CHECK(w.box("garden").bottom - w.box("motto").top == Approx(9).margin(1e-3));
  // And grow together: proportions stay.
  const double ratio = w.box("name").width() / w.box("motto").width();
  w.type("allWide", QStringLiteral("200 mm"));
  CHECK(w.box("name").width() / w.box("motto").width() == Approx(ratio).epsilon(1e-3));
  CHECK(w.box("name").width() == Approx(200).epsilon(0.01));
  QTest::keyClick(&bench, Qt::Key_Escape);
  CHECK(bench.chosen().isEmpty());
  QTest::keyClick(&w.window, Qt::Key_A, Qt::ControlModifier);
  CHECK(bench.chosen().size() == static_cast<qsizetype>(w.job().items.size()));
}

TEST_CASE("a clamp is dragged on the bench while the blank is worked on") {
  Window w;
  w.choose(Stage::Blank, "");
  w.window.document().edit("test", [](Job& job) { job.blank.keep_outs = {{KeepOut::Kind::Clamp, 50, 60, 30, 30}}; });
  w.drag(px(w, {50, 60}), px(w, {90, 75}));
  CHECK(w.job().blank.keep_outs[0].x == Approx(90).margin(1));
  CHECK(w.job().blank.keep_outs[0].y == Approx(75).margin(1));
  w.choose(Stage::Cuts, "");
  w.drag(px(w, {90, 75}), px(w, {50, 60}));
  CHECK(w.job().blank.keep_outs[0].x == Approx(90).margin(1));  // elsewhere it stays
}

TEST_CASE("parts of a drawing become pieces of their own where they are") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    Drawing d;
    d.name = "two";
    d.page_width = d.page_height = 100;
    d.parts = std::vector<Drawing::Part>{{"a", "leaves", "M0 0 L40 0 L40 20 L0 20 Z"},
                                         {"b", "stem", "M60 60 L90 60 L90 90 L60 90 Z"}};
    job.items.push_back({{"two", "Two", d, {300, 110}, 0}, {}});
  });
  at_artwork(w, "two");
  auto* parts = w.find<QListWidget>("parts");
  REQUIRE(parts->count() == 2);
  const Box all = w.box("two");
  // A click on the part takes its row; a press on the button makes a piece of it.
  w.window.bench().setFocus();
  QTest::mouseClick(&w.window.bench(), Qt::LeftButton, {}, px(w, {all.left + 20, all.top - 10}).toPoint());
  QTest::qWait(20);
  REQUIRE(parts->selectedItems().size() == 1);
  QTest::mouseClick(w.find<QPushButton>("partsApart"), Qt::LeftButton);
  REQUIRE(w.job().items.back().piece.id != "two");
  const std::string made = w.job().items.back().piece.id;
  CHECK(w.box(made.c_str()).left == Approx(all.left).margin(1e-3));
  CHECK(w.box(made.c_str()).top == Approx(all.top).margin(1e-3));
  CHECK(w.box("two").right == Approx(all.right).margin(1e-3));
  CHECK(w.box("two").width() == Approx(30).margin(1e-3));
  w.window.document().undo_stack().undo();
  QTest::mouseClick(w.find<QPushButton>("pieceEach"), Qt::LeftButton);
  CHECK(w.job().items.size() == 8);
}

TEST_CASE("a hole of a drawing is tapped on the board, filled, or cut through as a piece of its own") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    Drawing d;
    d.name = "frame";
    d.page_width = d.page_height = 60;
    d.parts = std::vector<Drawing::Part>{{"a", "", "M0 0H60V60H0Z M10 10V30H50V10Z M10 40V50H50V40Z"}};
    job.items.push_back({{"frame", "Frame", d, {300, 110}, 0}, {}});
  });
  at_artwork(w, "frame");
  const Box all = w.box("frame");
  const auto mm2 = [&](const std::string& id) { return area(outlines_of(w.job().find(id)->piece).region); };
  CHECK(mm2("frame") == Approx(3600 - 800 - 400));
  w.window.bench().setFocus();
  const auto tap = [&](double x, double y) {  // mm from the frame's upper left corner
    QTest::mouseClick(&w.window.bench(), Qt::LeftButton, {}, px(w, {all.left + x, all.top - y}).toPoint());
    QTest::qWait(30);
  };
  tap(30, 45);
  auto* holes = w.find<QListWidget>("holes");
  REQUIRE(holes->isVisible());
  REQUIRE(holes->count() == 2);
  REQUIRE(holes->selectedItems().size() == 1);
  CHECK(holes->row(holes->selectedItems().front()) == 1);  // the smaller
  QTest::mouseClick(w.find<QPushButton>("fillHoles"), Qt::LeftButton);
  QTest::qWait(30);
  CHECK(mm2("frame") == Approx(3600 - 800));
  CHECK(w.box("frame").left == Approx(all.left));
  CHECK(holes->count() == 1);
  CHECK(w.find<QListWidget>("parts")->count() == 2);  // it can be left out again
  tap(30, 20);
  REQUIRE(holes->selectedItems().size() == 1);
  const std::size_t items = w.job().items.size();
  QTest::keyClick(w.find<QPushButton>("cutHoles"), Qt::Key_Space);
  REQUIRE(w.job().items.size() == items + 1);
  const Item made = w.job().items.back();
  CHECK(made.cut.kind == Treatment::Kind::Pierce);
  CHECK_FALSE(made.cut.bit.empty());
  CHECK(mm2(made.piece.id) == Approx(800));
  CHECK(bounds(outlines_of(made.piece).region).top == Approx(all.top - 10));
  w.settle();
  CHECK(w.plan().piece(made.piece.id)->problem.empty());
  w.window.document().undo_stack().undo();
  w.window.document().undo_stack().undo();
  CHECK(mm2("frame") == Approx(3600 - 800 - 400));
}

TEST_CASE("a shape is counted in shares of another and follows its height") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    job.items.push_back({{"base", "Base", PlainShape{PlainShape::Kind::Rectangle, 100, 50}, {300, 100}, 0}, {}});
    job.items.push_back({{"part", "Part", PlainShape{PlainShape::Kind::Rectangle, 25, 10}, {280, 95}, 0}, {}});
  });
  at_artwork(w, "part");
  const Box was = w.box("part");
  auto* counted = w.find<QComboBox>("counted");
  counted->setCurrentIndex(counted->findData("base"));
  Q_EMIT counted->activated(counted->currentIndex());
  CHECK(w.box("part").left == Approx(was.left).margin(1e-3));
  CHECK(w.find<QLineEdit>("share0")->text() == "0.5");
  w.type("share0", QStringLiteral("3/5"));
  CHECK(w.box("part").width() == Approx(30).margin(1e-3));
  w.choose(Stage::Artwork, "base");
  w.window.document().edit("test", [](Job& job) { std::get<PlainShape>(job.find("base")->piece.what).height = 100; });
  CHECK(w.box("part").width() == Approx(60).margin(1e-3));
}

TEST_CASE("the bench knows where a piece lies, however it was moved") {
  Window w;
  w.window.document().edit("more", [](Job& job) {
    Item grown, shared, round;
    grown.piece = {"grown", "grown", Derived{.how = Derived::How::Grow, .from = {"sprig"}}, {0, 0}, 0};
    round.piece = {"round", "round", Derived{.how = Derived::How::Round, .from = {"sprig"}}, {0, 0}, 20};
    shared.piece = {"shared", "shared", PlainShape{.width = 0.2, .height = 0.1}, {0.4, 0.5}, 0};
    std::get<PlainShape>(shared.piece.what).shares_of = "outline";
    for (Item* item : {&grown, &round, &shared}) job.items.push_back(*item);
    job.find("motto")->cut.back = true;
    Lettering along = std::get<Lettering>(job.find("motto")->piece.what);
    along.along = "border";
    Item bent;
    bent.piece = {"bent", "bent", along, {0, 0}, 0};
    job.items.push_back(bent);
  });
  const auto look = [&] {
    for (const Item& item : w.job().items) {
      INFO(item.piece.id);
      const Box is = w.window.bench().box_of(QString::fromStdString(item.piece.id)),
                should = bounds(w.job().outlines(item));
      CHECK(is.left == Approx(should.left).margin(2e-4));
      CHECK(is.right == Approx(should.right).margin(2e-4));
      CHECK(is.bottom == Approx(should.bottom).margin(2e-4));
      CHECK(is.top == Approx(should.top).margin(2e-4));
    }
  };
  look();
  std::vector<std::string> ids;
  for (const Item& item : w.job().items) ids.push_back(item.piece.id);
  for (int round = 0; round < 3; ++round) {
    for (const std::string& id : ids) {
      w.window.document().edit("move", [&](Job& job) { job.shift(id, {1.23456 * (round + 1), -0.777777}); });
      look();
    }
  }
  w.window.document().undo_stack().undo();
  w.window.document().edit("turn", [](Job& job) { job.find("sprig")->piece.turn = 33; });
  look();
}

TEST_CASE("the blank may be oval; a picture of it shows no wood outside") {
  Window w;
  w.choose(Stage::Blank, "");
  auto* form = w.find<QComboBox>("blankForm");
  form->setCurrentIndex(1);
  Q_EMIT form->activated(1);
  w.settle();
  CHECK(w.job().blank.form == BlankForm::Oval);
  const QImage picture = w.window.grab().toImage();
  const QPoint corner = w.window.bench().mapTo(&w.window, px(w, {3, 3}).toPoint()),
               middle = w.window.bench().mapTo(&w.window, px(w, {300, 100}).toPoint());
  CHECK(picture.pixelColor(corner).lightnessF() > picture.pixelColor(middle).lightnessF() + 0.1);
}

TEST_CASE("outlines are saved as DXF from the call box's command") {
  Window w;
  const QString path = QDir::temp().filePath(QStringLiteral("doyen-window-test.dxf"));
  save_outlines_of(w.job(), path.toStdString());
  CHECK(read_file(path.toStdString()).find("POLYLINE") != std::string::npos);
  QFile::remove(path);
}

TEST_CASE("a drawing of outlines is offered as the areas they enclose, and can be told otherwise at any time") {
  Window w;
  w.window.document().replace(Job{}, {});  // nothing else lies where it comes to lie
  w.settle();
  const QTemporaryDir folder;
  QFile file(folder.path() + "/ring.svg");
  REQUIRE(file.open(QIODevice::WriteOnly));
  file.write(
      "<svg xmlns='http://www.w3.org/2000/svg' width='60mm' height='60mm' viewBox='0 0 60 60'>"
      "<g fill='none' stroke='#000' stroke-width='.2'><rect x='5' y='5' width='50' height='50'/>"
      "<circle cx='30' cy='30' r='10'/></g></svg>");
  file.close();
  on_next_dialog([&](QDialog* dialog) {
    REQUIRE(dialog->objectName() == "linesAre");
    QTest::keyClick(dialog, Qt::Key_Return);  // all of them close: what they enclose is meant
  });
  w.window.trace_file(file.fileName());
  w.settle();
  const std::string id = w.job().items.back().piece.id;
  CHECK(area(outlines_of(w.piece(id.c_str())).region) == Approx(2500 - M_PI * 100).epsilon(1e-3));
  CHECK(w.job().items.back().cut.kind == Treatment::Kind::None);  // until it is told how it should look
  w.choose(Stage::Cuts, id.c_str());
  w.look("incise");
  w.choose(Stage::Artwork, id.c_str());
  w.pick("linesAre", 1);
  CHECK(std::get<Drawing>(w.piece(id.c_str()).what).lines == Drawing::Lines::Followed);
  CHECK(w.job().items.back().cut.kind == Treatment::Kind::Line);
  // A look that needs an area says so; its first remedy is the one that was meant.
  w.choose(Stage::Cuts, id.c_str());
  w.look("recess");
  w.judge();
  QPushButton* remedy = w.button("what its lines enclose");
  REQUIRE(remedy != nullptr);
  QTest::mouseClick(remedy, Qt::LeftButton);
  w.settle();
  CHECK(std::get<Drawing>(w.piece(id.c_str()).what).lines == Drawing::Lines::Enclose);
  CHECK(w.plan().piece(id)->problem.empty());
  CHECK(w.job().items.back().cut.kind == Treatment::Kind::Recess);
}

TEST_CASE("the traced picture zooms, is cropped by its frame, and a tapped hole or speck is the other way round") {
  Window w;
  w.window.open_demo("heron-plaque");
  w.settle();
  w.choose(Stage::Artwork, "heron");
  QTest::mouseClick(w.find<QPushButton>("traceAgain"), Qt::LeftButton);
  auto* d = w.find<TraceDialog>("traceDialog");
  auto* picture = d->findChild<TracePreview*>();
  REQUIRE(picture != nullptr);
  const auto wait = [&] { REQUIRE(QTest::qWaitFor([&] { return !d->busy() && d->traced_fine(); }, 30'000)); };
  wait();
  // Nearer by the wheel: what lies under it stays there.
  const QPointF at(picture->width() * 0.5, picture->height() * 0.3);
  const QPointF shares = picture->to_shares(at);
  for (int i = 0; i < 5; ++i) {
    QWheelEvent wheel(at, picture->mapToGlobal(at), {}, {0, 120}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                      false);
    QApplication::sendEvent(picture, &wheel);
  }
  CHECK(picture->zoom() > 2);
  CHECK(picture->to_screen(shares).x() == Approx(at.x()).margin(0.01));
  CHECK(picture->to_screen(shares).y() == Approx(at.y()).margin(0.01));
  picture->setFocus();
  for (int i = 0; i < 12; ++i) QTest::keyClick(picture, Qt::Key_Minus);
  CHECK(picture->zoom() == 1);
  for (int i = 0; i < 60; ++i) QTest::keyClick(picture, Qt::Key_Left, Qt::ShiftModifier);
  CHECK(QRectF(picture->rect()).contains(picture->to_screen({0.01, 0.5})));  // never out of sight
  QTest::keyClick(picture, Qt::Key_Home);
  CHECK(QRectF(picture->rect()).contains(picture->to_screen({0, 0})));
  CHECK(QRectF(picture->rect()).contains(picture->to_screen({1, 1})));
  // The heron's eye, a hole in its head: tapped it is filled, tapped again it is a hole.
  const QPointF eye = picture->to_screen({0.411, 0.194});
  const auto tap = [&] {
    QTest::mouseClick(picture, Qt::LeftButton, {}, eye.toPoint());
    wait();
  };
  CHECK_FALSE(picture->shows_cleaned());
  tap();
  REQUIRE(d->settings().settled.size() == 1);
  CHECK(d->settings().settled[0].ink);
  CHECK(picture->shows_cleaned());
  // Straightened, the word goes along with the eye it was said of.
  auto* straighten = d->findChild<QDoubleSpinBox*>("straighten");
  straighten->setValue(4);
  wait();
  CHECK(picture->shows_cleaned());
  CHECK(d->settings().settled[0].x != Approx(0.411).margin(0.005));
  straighten->setValue(0);
  wait();
  CHECK(d->settings().settled[0].x == Approx(0.411).margin(0.003));
  tap();
  CHECK_FALSE(d->settings().settled.back().ink);
  CHECK_FALSE(picture->shows_cleaned());
  QTest::mouseClick(d->findChild<QPushButton*>("forgetSettled"), Qt::LeftButton);
  wait();
  CHECK(d->settings().settled.empty());
  // A size typed in the wood's words stays when the width changes, and the pixels follow.
  const double specks = d->settings().specks;
  w.type("smallestSpeck", QStringLiteral("1.2 mm"));
  wait();
  const double asked = d->settings().specks;
  CHECK(asked > specks);
  auto* wanted = d->findChild<LengthField*>("traceWidth");
  w.type("traceWidth", QString::number(*wanted->length() / 2) + " mm");
  wait();
  CHECK(d->findChild<LengthField*>("smallestSpeck")->length().value() == Approx(1.2));
  CHECK(d->settings().specks == Approx(asked * 4).epsilon(0.02));
  // Cropped by the frame's right side.
  const QPointF side = picture->to_screen({1, 0.5}), to = picture->to_screen({0.8, 0.5});
  QTest::mousePress(picture, Qt::LeftButton, {}, side.toPoint());
  QMouseEvent move(QEvent::MouseMove, to, picture->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
  QApplication::sendEvent(picture, &move);
  QTest::mouseRelease(picture, Qt::LeftButton, {}, to.toPoint());
  wait();
  CHECK(d->settings().crop_right == Approx(0.2).margin(0.01));
  CHECK(d->findChild<QLabel*>("croppedTo")->text().contains("Cropped to"));
  QTest::mouseClick(d->findChild<QPushButton*>("wholePicture"), Qt::LeftButton);
  wait();
  CHECK(d->settings().crop_right == 0);
  d->reject();
}

TEST_CASE("the letter bench loses no face without a word") {
  Window w;
  w.choose(Stage::Artwork, "name");
  QTest::mouseClick(w.find<QPushButton>("letterBench"), Qt::LeftButton);
  auto* bench = w.find<LetterBench>("letterBenchDialog");
  int letters = 0, symbols = 0;
  for (const InstalledFace& face : installed_faces()) ++(face.letters ? letters : symbols);
  auto* cards = bench->findChild<QListWidget*>("faces");
  auto* more = bench->findChild<QPushButton*>("moreFaces");
  const auto finished = [&] { return QTest::qWaitFor([&] { return bench->finished(); }, 120'000); };
  REQUIRE(finished());
  // So many at once; the rest is offered.
  for (int i = 0; i < 20 && more->isVisible(); ++i) {
    QTest::mouseClick(more, Qt::LeftButton);
    REQUIRE(finished());
  }
  QString says;
  for (const QLabel* label : bench->findChildren<QLabel*>()) {
    if (label->text().contains("faces fit")) says = label->text();
  }
  int not_set = 0;
  if (says.contains("cannot be set")) not_set = static_cast<int>(says.section("cannot be set: ", 1).count(", ")) + 1;
  CHECK(cards->count() + not_set == letters);
  CHECK(says.contains("symbols") == (symbols > 0));
  bench->reject();
}
