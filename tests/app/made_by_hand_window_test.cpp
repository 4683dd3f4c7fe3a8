// Pieces made and changed by hand: borders and shapes, lines drawn on the board, points, bevelled edges, groups, stray
// marks, and several at once.
#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QLineEdit>
#include <QMenu>
#include <QMimeData>
#include <QTemporaryDir>

#include "bench/hands/all.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

const PlainShape* shape_of(const Job& job, const char* id) {
  const Item* item = job.find(id);
  return item == nullptr ? nullptr : std::get_if<PlainShape>(&item->piece.what);
}
QAction* shape_entry(Window& w, const QString& name) {
  for (QAction* action : w.find<QPushButton>("addShape")->menu()->actions()) {
    if (action->text() == name) return action;
  }
  return nullptr;
}

}  // namespace

TEST_CASE("a border goes round the board and follows it until it is moved by hand") {
  Window w;
  w.window.document().replace(Job{}, {});
  w.choose(Stage::Artwork, "");
  shape_entry(w, "Border round the board")->trigger();
  REQUIRE(w.job().items.size() == 1);
  const std::string id = w.job().items[0].piece.id;
  const auto shape = [&] { return *shape_of(w.job(), id.c_str()); };
  const double from = shape().from_edge.value();
  CHECK(shape().width == Approx(w.job().blank.width - 2 * from));
  CHECK(w.job().items[0].cut.kind == Treatment::Kind::Incise);
  w.window.document().edit("a wider board", [](Job& job) { job.blank.width += 100; });
  CHECK(shape().width == Approx(w.job().blank.width - 2 * from));
  CHECK(w.job().items[0].piece.at.x == Approx(w.job().blank.width / 2));
  w.window.document().undo_stack().undo();
  CHECK(shape().width == Approx(w.job().blank.width - 2 * from));
  // Typed otherwise: farther inside.
  w.type("fromEdge", "30 mm");
  CHECK(shape().from_edge.value() == Approx(30));
  CHECK(shape().height == Approx(w.job().blank.height - 60));
  // Moved by hand it stands alone.
  w.window.document().edit("move", [&](Job& job) { job.shift(id, {3, 0}); });
  CHECK_FALSE(shape().from_edge.has_value());
  const double wide = shape().width;
  w.window.document().edit("a wider board", [](Job& job) { job.blank.width += 100; });
  CHECK(shape().width == wide);
}

TEST_CASE("shields, hearts, parts of a disc and curved lines are added where there is room and fill their size") {
  using K = PlainShape::Kind;
  Window w;
  w.window.document().replace(Job{}, {});
  w.choose(Stage::Artwork, "");
  for (const char* name : {"Shield", "Heart", "Part of a disc", "Curved line"}) {
    QAction* entry = shape_entry(w, QString::fromLatin1(name));
    REQUIRE(entry != nullptr);
    entry->trigger();
    const Item& item = w.job().items.back();
    const auto& s = std::get<PlainShape>(item.piece.what);
    const Box box = bounds(w.job().outlines(item));
    CHECK(box.width() == Approx(s.width).margin(0.02));
    CHECK(box.height() == Approx(s.height).margin(0.02));
    CHECK((item.cut.kind == Treatment::Kind::Line) == (s.kind == K::Arc));
  }
  w.settle();
}

TEST_CASE("a line is drawn by hand on the board: straight by clicks, curved by holding, closed at its start") {
  Window w;
  w.window.document().replace(Job{}, {});
  w.choose(Stage::Artwork, "");
  Bench& bench = w.window.bench();
  const auto px = [&](double x, double y) { return bench.to_screen({x, y}).toPoint(); };
  const auto click = [&](double x, double y) { QTest::mouseClick(&bench, Qt::LeftButton, {}, px(x, y)); };
  shape_entry(w, "Drawn by hand on the board")->trigger();
  REQUIRE(bench.draw().active());
  click(100, 60);
  click(200, 60);
  // A curve, held from there to the right and back.
  QTest::mousePress(&bench, Qt::LeftButton, {}, px(200, 60));
  for (int i = 1; i <= 20; ++i) {
    const double a = i * 3.14159265 / 20;
    QTest::mouseMove(&bench, px(250 - 50 * std::cos(a), 60 + 50 * std::sin(a)));
  }
  QTest::mouseRelease(&bench, Qt::LeftButton, {}, px(300, 60));
  QTest::keyClick(&bench, Qt::Key_Return);
  CHECK_FALSE(bench.draw().active());
  REQUIRE(w.job().items.size() == 1);
  CHECK(w.job().items[0].cut.kind == Treatment::Kind::Line);
  const double px_size = 1 / bench.pixels_per_mm();
  const Box box = bounds(w.job().outlines(w.job().items[0]));
  CHECK(box.left == Approx(100).margin(px_size));
  CHECK(box.right == Approx(300).margin(2 * px_size + 1));
  CHECK(box.top == Approx(110).margin(3 * px_size + 1));
  // Back at its start it closes, and is something to be cut like any shape.
  shape_entry(w, "Drawn by hand on the board")->trigger();
  click(400, 50);
  click(500, 50);
  click(500, 150);
  click(410, 150);
  QTest::keyClick(&bench, Qt::Key_Backspace);
  click(400, 150);
  click(400, 50);
  REQUIRE(w.job().items.size() == 2);
  CHECK(w.job().items[1].cut.kind == Treatment::Kind::None);
  CHECK(area(w.job().outlines(w.job().items[1]).region) == Approx(10'000).epsilon(0.05));
  // Delete takes the last side, not the piece that is chosen. Given up, nothing is there.
  shape_entry(w, "Drawn by hand on the board")->trigger();
  click(100, 160);
  click(150, 160);
  QApplication::setActiveWindow(&w.window);
  bench.setFocus();
  QTest::keyClick(&bench, Qt::Key_Delete);
  CHECK(w.job().items.size() == 2);
  CHECK(bench.draw().active());
  QTest::keyClick(&bench, Qt::Key_Escape);
  CHECK(w.job().items.size() == 2);
}

TEST_CASE("a point moves to just where it is typed, is found by Tab, and plain shapes give theirs at once") {
  Window w;
  w.choose(Stage::Artwork, "outline");
  const Box before = bounds(w.job().outlines(*w.job().find("outline")));
  QTest::mouseClick(w.find<QPushButton>("editShapePoints"), Qt::LeftButton);
  Bench& bench = w.window.bench();
  REQUIRE(bench.points().active());
  const Box after = bounds(w.job().outlines(*w.job().find("outline")));
  CHECK(after.width() == Approx(before.width()).margin(0.02));
  CHECK(w.job().find("outline")->cut.kind == Treatment::Kind::CutOut);
  CHECK_FALSE(w.find<QLineEdit>("pointX")->isVisible());
  bench.setFocus();
  QTest::keyClick(&bench, Qt::Key_Tab);
  REQUIRE(bench.points().chosen() != nullptr);
  const PointPlace first = bench.points().chosen()->place;
  QTest::keyClick(&bench, Qt::Key_Tab);
  CHECK_FALSE(bench.points().chosen()->place == first);
  QTest::keyClick(&bench, Qt::Key_Backtab);
  CHECK(bench.points().chosen()->place == first);
  CHECK(bench.hasFocus());
  const Point was = bench.points().chosen()->point.at;
  w.type("pointX", "3 in");
  REQUIRE(bench.points().chosen() != nullptr);
  CHECK(bench.points().chosen()->point.at.x == Approx(76.2).margin(1e-3));
  CHECK(bench.points().chosen()->point.at.y == Approx(was.y).margin(1e-3));
  QTest::keyClick(&bench, Qt::Key_Escape);
  CHECK_FALSE(w.find<QLineEdit>("pointX")->isVisible());
  while (w.window.document().undo_stack().canUndo()) w.window.document().undo_stack().undo();
  CHECK(std::holds_alternative<PlainShape>(w.job().find("outline")->piece.what));
}

TEST_CASE("a cut-out is bevelled by a tick, with its depth beside it") {
  Window w;
  w.choose(Stage::Cuts, "outline");
  auto* tick = w.find<QCheckBox>("bevelledEdge");
  REQUIRE(tick->isVisible());
  CHECK_FALSE(tick->isChecked());
  const std::size_t pieces = w.job().items.size();
  tick->click();
  CHECK(w.job().items.size() == pieces + 1);
  CHECK(w.window.bench().selected() == "outline");
  w.type("bevelDepth", "1/8");
  CHECK(w.job().items.back().cut.depth == Approx(3.175));
  w.settle();
  CHECK_FALSE(w.window.plan()->has_stop());
  CHECK(w.window.plan()->piece(w.job().items.back().piece.id)->cuts.deepest == Approx(3.175).margin(0.01));
  tick->click();
  CHECK(w.job().items.size() == pieces);
  w.window.document().undo_stack().undo();
  CHECK(w.job().items.back().cut.depth == Approx(3.175));
}

TEST_CASE("a group is chosen and moved as one, and taken apart again") {
  Window w;
  w.choose(Stage::Artwork, "name");
  Bench& bench = w.window.bench();
  const auto press = [&](const char* id, Qt::KeyboardModifiers keys) {
    const Box box = bench.box_of(id);
    for (double x = box.left; x < box.right; x += 0.5) {  // on its wood
      const Outlines outlines = w.job().outlines(*w.job().find(id));
      if (!contains(outlines.region, {x, box.centre().y})) continue;
      QTest::mouseClick(&bench, Qt::LeftButton, keys, bench.to_screen({x + 0.2, box.centre().y}).toPoint());
      return;
    }
  };
  press("garden", Qt::ShiftModifier);
  REQUIRE(bench.chosen().size() == 2);
  QTest::keyClick(&w.window, Qt::Key_G, Qt::ControlModifier);
  CHECK_FALSE(w.job().find("name")->group.empty());
  w.window.select("sprig");
  CHECK(bench.chosen().size() == 1);
  press("name", {});
  CHECK(bench.chosen().size() == 2);
  const Point name = w.piece("name").at, garden = w.piece("garden").at;
  QTest::keyClick(&bench, Qt::Key_Right);
  CHECK(w.piece("name").at.x > name.x);
  CHECK(w.piece("garden").at.x - garden.x == Approx(w.piece("name").at.x - name.x));
  QTest::keyClick(&w.window, Qt::Key_G, Qt::ControlModifier);
  CHECK(w.job().find("name")->group.empty());
  CHECK(bench.chosen().size() == 1);
}

TEST_CASE("a stray mark far from a drawing is offered to be left out first") {
  QTemporaryDir folder;
  const QString file = folder.filePath("leaf.svg");
  QFile out(file);
  REQUIRE(out.open(QIODevice::WriteOnly));
  out.write(
      "<svg xmlns='http://www.w3.org/2000/svg' width='900mm' height='900mm' viewBox='0 0 900 900'>"
      "<path d='M0 0 H100 V60 H0 Z'/><path d='M10 70 H90 V80 H10 Z'/><path d='M20 90 h30 v10 h-30 z'/>"
      "<path d='M60 90 h30 v10 h-30 z'/><path d='M880 870 h4 v1 z'/></svg>");
  out.close();
  for (const bool leave_out : {true, false}) {
    Window w;
    w.window.document().replace(Job{}, {});
    w.choose(Stage::Artwork, "");
    on_next_dialog([&](QDialog* d) {
      REQUIRE(d->objectName() == QLatin1String("strays"));
      for (QPushButton* button : d->findChildren<QPushButton*>()) {
        if (button->text().startsWith("Leave") == leave_out) QTest::mouseClick(button, Qt::LeftButton);
      }
      // That it was made smaller is said.
      if (!leave_out) on_next_dialog([](QDialog* note) { CHECK(note->findChildren<QLabel*>().size() > 0); });
    });
    auto* carried = new QMimeData;  // as a file manager copies it
    carried->setUrls({QUrl::fromLocalFile(file)});
    QGuiApplication::clipboard()->setMimeData(carried);
    QTest::keyClick(&w.window, Qt::Key_V, Qt::ControlModifier);
    const auto& drawing = std::get<Drawing>(w.job().items.back().piece.what);
    CHECK(drawing.parts->size() == 5);
    CHECK(drawing.parts->back().left_out == leave_out);
    // Left out, the rest keeps its size; kept, it makes the drawing larger than the board.
    CHECK((drawing.scale == 1) == leave_out);
  }
}

TEST_CASE("what is set for several pieces goes for all of them that look alike, in one step") {
  Window w;
  w.choose(Stage::Cuts, "name");
  w.window.bench().choose_all();
  REQUIRE(static_cast<std::size_t>(w.window.bench().chosen().size()) == w.job().items.size());
  const Job before = w.job();
  std::size_t incised = 0;
  for (const Item& item : before.items) incised += item.cut.kind == Treatment::Kind::Incise ? 1 : 0;
  REQUIRE(incised > 1);
  REQUIRE(incised < before.items.size());
  auto* bits = w.find<QComboBox>("vBit");
  w.pick("vBit", bits->currentIndex() == 0 ? 1 : 0);
  const std::string bit = w.job().find("name")->cut.bit;
  REQUIRE(bit != before.find("name")->cut.bit);
  for (const Item& item : w.job().items) {
    if (item.cut.kind == Treatment::Kind::Incise)
      CHECK(item.cut.bit == bit);
    else
      CHECK(item == *before.find(item.piece.id));  // the cut-out keeps its own
  }
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}
