// From the proof to a test cut, from the test cut to the rack, and back: the offer is gone.
#include <QLabel>
#include <QPushButton>

#include "planning/test_cut.hpp"
#include "rack/own_rack.hpp"
#include "window_probe.hpp"

using namespace probe;

TEST_CASE("a test cut is offered where the bit has none in this wood, made, remembered, and offered no more") {
  Window w;
  w.window.go_to_stage(Stage::Proof);
  w.settle();
  CHECK(w.find<QLabel>("untested")->isVisible());
  CHECK_THAT(w.find<QLabel>("untested")->text().toStdString(),
             Catch::Contains("60° V") && Catch::Contains("1/4 in flat") && Catch::Contains("Western red cedar"));
  QTest::mouseClick(w.find<QPushButton>("testCut"), Qt::LeftButton);
  w.settle();
  CHECK_THAT(w.job().name, Catch::Contains("test cut"));
  CHECK(w.job().run.test_of == std::vector<BitId>{"v60", "flat-1/4in"});  // its letters and its cut-out
  CHECK(w.plan().count(Grade::Stop) == 0);
  CHECK_FALSE(w.find<QPushButton>("testCut")->isVisible());  // a test is not tested
  w.window.go_to_stage(Stage::Run);
  w.settle();
  auto* came_out = w.find<QPushButton>("cameOut");
  CHECK(came_out->isVisible());
  const Rack before = load_rack();
  QTest::mouseClick(came_out, Qt::LeftButton);
  w.settle();
  CHECK(load_rack().find("v60")->tested == std::vector<WoodId>{"western-red-cedar"});
  CHECK_FALSE(came_out->isVisible());
  CHECK_THAT(w.find<QLabel>("testSays")->text().toStdString(), Catch::Contains("Kept"));
  w.window.open_demo(QStringLiteral("gate-sign"));
  w.window.go_to_stage(Stage::Proof);
  w.settle();
  CHECK_FALSE(w.find<QPushButton>("testCut")->isVisible());
  // Another wood has not seen it.
  w.window.document().edit("other wood", [](Job& job) { job.blank.species = "white-oak"; });
  w.settle();
  CHECK(w.find<QPushButton>("testCut")->isVisible());
  (void)keep_own_rack(load_rack(), before);
}
