// How the board is held: screws placed in the waste by a button, moved by hand, taken away, and their file first.
#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "holding/screws.hpp"
#include "holding/turning_pins.hpp"
#include "planning/outputs.hpp"
#include "window_probe.hpp"

using namespace probe;

TEST_CASE("screws are found in the waste by a button, moved as pieces, found anew, and undone") {
  Window w;
  // Without the demo's clamps, which stand where screws would.
  w.window.document().edit("hold it by screws", [](Job& job) { job.blank.keep_outs.clear(); });
  w.settle();
  const Job before = w.job();
  const std::size_t pieces = w.job().items.size();
  w.window.go_to_stage(Stage::Run);
  w.settle();
  auto* button = w.reach<QPushButton>("placeScrews");
  QTest::mouseClick(button, Qt::LeftButton);
  w.settle();
  const std::size_t screws = screw_heads(w.job()).size();
  REQUIRE(screws >= 4);
  CHECK(w.job().items.size() == pieces + screws);
  CHECK(w.plan().runs.front().screws == static_cast<int>(screws));
  CHECK_FALSE(w.plan().has_stop());
  CHECK(w.find<QLabel>("screwsSay")->text().startsWith(QString::number(screws)));
  auto* order = w.find<QListWidget>("order");
  CHECK(order->item(0)->text().contains("then the screws go in"));
  CHECK_FALSE(order->item(0)->flags().testFlag(Qt::ItemIsDragEnabled));
  // One moved over the lettering is a stop; the key that mends it finds other places.
  const std::string id = screw_heads(w.job()).front().piece;
  const Point over = w.box("garden").centre();
  w.window.document().edit("move", [&](Job& job) { job.find(id)->piece.at = over; });
  w.settle();
  CHECK(w.plan().has_stop());
  QTest::mouseClick(w.reach<QPushButton>("placeScrews"), Qt::LeftButton);
  w.settle();
  CHECK_FALSE(w.plan().has_stop());
  CHECK(screw_heads(w.job()).size() == screws);
  for (int i = 0; i < 3; ++i) w.window.document().undo_stack().undo();
  w.settle();
  CHECK(w.job() == before);
  // As a tick of any drilled hole.
  w.window.document().edit("test", [](Job& job) {
    job.items.push_back({{"hole", "Hole", PlainShape{PlainShape::Kind::Ellipse, 9, 9}, {8, 8}, 0}, {}});
  });
  w.choose(Stage::Cuts, "hole");
  w.look("drill");
  auto* tick = w.find<QCheckBox>("holdingScrews");
  CHECK(tick->isVisible());
  QTest::mouseClick(tick, Qt::LeftButton, {}, QPoint(8, tick->height() / 2));
  w.settle();
  CHECK(w.job().find("hole")->cut.drill.screws);
  REQUIRE(screw_heads(w.job()).size() == 1);
  CHECK(screw_heads(w.job()).front().place.width == Approx(9));
}

TEST_CASE("where nothing is cut out, the button says why there are no screws and changes nothing") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    std::erase_if(job.items, [](const Item& item) { return item.cut.kind == Treatment::Kind::CutOut; });
  });
  w.window.go_to_stage(Stage::Run);
  w.settle();
  const Job before = w.job();
  QTest::mouseClick(w.reach<QPushButton>("placeScrews"), Qt::LeftButton);
  w.settle();
  CHECK(w.job() == before);
  CHECK(w.find<QLabel>("screwsSay")->isVisible());
  CHECK_THAT(w.find<QLabel>("screwsSay")->text().toStdString(), Catch::Contains("no waste for screws"));
}

TEST_CASE("a witness mark is put into the waste by a button, made by the first bit, and taken back") {
  Window w;
  const Job before = w.job();
  w.window.go_to_stage(Stage::Run);
  w.settle();
  QTest::mouseClick(w.reach<QPushButton>("placeWitness"), Qt::LeftButton);
  w.settle();
  REQUIRE(w.job().items.size() == before.items.size() + 1);
  const Item& mark = w.job().items.back();
  CHECK(mark.cut.drill.witness);
  CHECK(mark.cut.bit == w.plan().runs.front().bit.id);
  CHECK_FALSE(w.plan().has_stop());
  // As a tick of any drilled hole, too.
  w.choose(Stage::Cuts, mark.piece.id.c_str());
  auto* tick = w.find<QCheckBox>("witness");
  CHECK(tick->isVisible());
  CHECK(tick->isChecked());
  QTest::mouseClick(tick, Qt::LeftButton, {}, QPoint(8, tick->height() / 2));
  w.settle();
  CHECK_FALSE(w.job().items.back().cut.drill.witness);
  w.window.document().undo_stack().undo();
  w.window.document().undo_stack().undo();
  w.settle();
  CHECK(w.job() == before);
}

TEST_CASE("pins to turn a board on are found by a button where something is cut from the back, or it says why not") {
  Window w;
  w.window.go_to_stage(Stage::Run);
  w.settle();
  CHECK_FALSE(w.find<QPushButton>("placePins")->isVisible());  // nothing is cut from the back
  w.window.open_demo(QStringLiteral("fingerpost"));
  w.window.document().edit("more waste", [](Job& job) {
    for (Item& item : job.items) job.shift(item.piece.id, {30, 0});
    job.blank.width += 60;
  });
  w.window.go_to_stage(Stage::Run);
  w.settle();
  const Job before = w.job();
  auto* button = w.find<QPushButton>("placePins");
  REQUIRE(button->isVisible());
  QTest::mouseClick(button, Qt::LeftButton);
  w.settle();
  REQUIRE(std::count_if(w.job().items.begin(), w.job().items.end(), is_turning_pin) == 2);
  for (const Verdict& v : w.plan().verdicts) {
    INFO(v.text);
    CHECK(v.grade != Grade::Stop);
  }
  CHECK(w.plan().runs.front().side == Side::Back);
  CHECK_THAT(w.find<QLabel>("pinsSay")->text().toStdString(), Catch::Contains("x and y stay where they are"));
  w.window.document().undo_stack().undo();
  w.settle();
  CHECK(w.job() == before);
  w.window.document().edit("thick", [](Job& job) { job.blank.readings = {60}; });
  w.settle();
  const Job thick = w.job();
  QTest::mouseClick(button, Qt::LeftButton);
  w.settle();
  CHECK(w.job() == thick);
  CHECK(w.find<QLabel>("pinsSay")->isVisible());
  CHECK_THAT(w.find<QLabel>("pinsSay")->text().toStdString(), Catch::Contains("No end mill in the rack reaches"));
}
