// Boards laid out in the window: chosen from pictures, taken as one step, and undone as one.
#include <QCheckBox>
#include <QComboBox>
#include <QListWidget>
#include <QMenu>

#include "arrange/arrangement.hpp"
#include "stages/artwork/lay_out_bench.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

LayOutBench* bench_of(Window& w) { return w.window.findChild<LayOutBench*>(); }
void wait_for(LayOutBench* bench) {
  QElapsedTimer clock;
  clock.start();
  while (!bench->finished() && clock.elapsed() < 60'000) QTest::qWait(20);
  REQUIRE(bench->finished());
}
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

TEST_CASE("an arrangement is chosen from pictures, taken in one step and undone in one") {
  Window w;
  w.choose(Stage::Artwork, "name");
  const Job before = w.job();
  QTest::keyClick(&w.window, Qt::Key_L, Qt::ControlModifier | Qt::ShiftModifier);
  LayOutBench* bench = bench_of(w);
  REQUIRE(bench != nullptr);
  wait_for(bench);
  auto* cards = bench->findChild<QListWidget*>("arrangements");
  CHECK(cards->count() >= 6);
  CHECK(cards->currentRow() == 0);  // the best is looked at first
  for (int i = 0; i < cards->count(); ++i) CHECK_FALSE(cards->item(i)->icon().isNull());
  // The motto matters as much as the name now: it is as high in every proposal.
  auto* role = bench->findChild<QComboBox*>("role-motto");
  REQUIRE(role != nullptr);
  role->setFocus();
  while (role->currentIndex() > 0) QTest::keyClick(role, Qt::Key_Up);
  wait_for(bench);
  REQUIRE(cards->count() >= 1);
  auto* take = bench->findChild<QPushButton*>("takeArrangement");
  QTest::mouseClick(take, Qt::LeftButton);
  CHECK(bench_of(w) == nullptr);
  CHECK_FALSE(w.job() == before);
  const auto cap = [&](const char* id) { return std::get<Lettering>(w.piece(id).what).cap_height; };
  CHECK(cap("motto") == Approx(cap("name")));
  w.settle();
  CHECK_FALSE(w.window.plan()->has_stop());
  w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}

TEST_CASE("leaving the arrangements changes nothing") {
  Window w;
  const Job before = w.job();
  w.window.lay_out();
  REQUIRE(bench_of(w) != nullptr);
  QTest::qWait(100);  // it is still looking
  QTest::keyClick(bench_of(w), Qt::Key_Escape);
  QTest::qWait(50);
  CHECK(bench_of(w) == nullptr);
  CHECK(w.job() == before);
}

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
