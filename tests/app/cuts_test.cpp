// The Cuts ticket with every treatment: tiles, fields, grounds, proposals, and the other demos.
#include <QCheckBox>
#include <QComboBox>
#include <QToolButton>

#include "planning/outputs.hpp"
#include "rack/own_rack.hpp"
#include "storage/data_folder.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

float height_at(Window& w, Point p) {
  const HeightField f = relief_of(w.plan(), {p.x - 0.3, p.y - 0.3, p.x + 0.3, p.y + 0.3}, 0.2);
  return f.at(f.columns() / 2, f.rows() / 2);
}

}  // namespace

TEST_CASE("lettering is raised by its tile: sloped, upright, in a panel and with a margin") {
  Window w;
  w.choose(Stage::Cuts, "garden");
  w.look("raise");
  const Treatment& cut = w.job().find("garden")->cut;
  CHECK(cut.kind == Treatment::Kind::Raise);
  const Point beside{w.box("garden").left - 4, w.box("garden").centre().y};
  CHECK(height_at(w, beside) < -1);
  w.type("floorDepth", QStringLiteral("2 mm"));
  w.settle();
  CHECK(height_at(w, beside) == Approx(-2).margin(0.05));
  CHECK(w.find<QComboBox>("flanks")->isVisible());
  w.pick("flanks", 1);
  CHECK_FALSE(cut.raise.sloped);
  CHECK_FALSE(w.find<QComboBox>("floorBit")->isVisible());  // no V has a part in upright flanks
  CHECK(w.plan().piece("garden")->cuts.bits.size() >= 1);
  w.type("panelMargin", QStringLiteral("2 mm"));
  w.settle();
  CHECK(height_at(w, beside) == 0);
  w.pick("panel", w.find<QComboBox>("panel")->findData("border"));
  CHECK(cut.raise.panel == "border");
  CHECK_FALSE(w.find<QLineEdit>("panelMargin")->isVisible());
  w.window.document().undo_stack().undo();
  CHECK(cut.raise.panel.empty());
}

TEST_CASE("a recess under lettering becomes its ground, which the ticket names and the user may overrule") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    job.items.push_back({{"tray", "Tray", PlainShape{PlainShape::Kind::Rectangle, 420, 60}, {353.06, 80}, 0}, {}});
  });
  w.choose(Stage::Cuts, "tray");
  w.look("recess");
  w.type("floorDepth", QStringLiteral("3 mm"));
  w.settle();
  CHECK_FALSE(w.plan().piece("tray")->cuts.bits.empty());
  w.choose(Stage::Cuts, "garden");
  bool named = false;
  for (QLabel* label : w.window.findChildren<QLabel*>())
    named = named || (label->isVisible() && label->text().contains("the floor of “Tray”"));
  CHECK(named);
  const double on_floor = w.plan().piece("garden")->cuts.deepest;
  w.type("ground", QStringLiteral("0 mm"));
  w.settle();
  CHECK(w.plan().piece("garden")->cuts.deepest == Approx(on_floor - 3).margin(1e-6));
  // Something let in: its thickness makes the depth.
  w.choose(Stage::Cuts, "tray");
  w.type("insertThickness", QStringLiteral("2 mm"));
  w.settle();
  CHECK(w.plan().piece("tray")->cuts.deepest == Approx(2));
  CHECK_FALSE(w.find<QLineEdit>("floorDepth")->isVisible());
}

TEST_CASE("bevel, drill, plane and pierce are chosen by their tiles and carved") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    job.items.push_back({{"spot", "Spot", PlainShape{PlainShape::Kind::Ellipse, 30, 30}, {520, 50}, 0}, {}});
  });
  w.choose(Stage::Cuts, "spot");
  for (const char* kind : {"bevel", "drill", "plane", "pierce"}) {
    INFO(kind);
    w.look(kind);
    CHECK(to_word(w.job().find("spot")->cut.kind) == std::string(kind));
    CHECK_FALSE(w.plan().piece("spot")->cuts.operations.empty());
    CHECK(w.plan().piece("spot")->problem.empty());
  }
  CHECK(height_at(w, {520, 50}) < -19);
  QTest::mouseClick(w.find<QCheckBox>("slug"), Qt::LeftButton);
  w.settle();
  CHECK(height_at(w, {520, 50}) == 0);
  w.look("bevel");
  w.pick("bevelSide", 1);
  CHECK(w.job().find("spot")->cut.bevel.inside);
}

TEST_CASE("every demo is planned without a stop, and its files cut the plan") {
  for (const char* name : {"gate-sign-raised", "seed-drawer", "sundial-plate", "fingerpost", "inlaid-lid"}) {
    INFO(name);
    const Job job = load_job(data_file(std::string("demo/") + name + ".doyen"));
    const Plan p = plan(job, load_rack(), machine_for(job));
    for (const Verdict& v : p.verdicts) {
      INFO(v.text);
      CHECK(v.grade != Grade::Stop);
    }
    CHECK(read_back(p, gcode_files(p), 0.25).agrees());
    CHECK(p.seconds > 300);
    CHECK(p.seconds < 3 * 3600);
  }
}
