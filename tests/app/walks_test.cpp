// Walked as a new user walks it, from nothing to files: real keys and clicks, and how many clicks it takes. Figures:
// the closed forms of a V groove (depth = half the width ÷ tan of half the angle) and of a through cut.
#include <QCheckBox>
#include <QDirIterator>
#include <QListWidget>
#include <QMenu>
#include <QPlainTextEdit>
#include <QSettings>
#include <QTemporaryDir>

#include "geometry/region.hpp"
#include "parts/cards.hpp"
#include "stages/artwork/trace_dialog.hpp"
#include "storage/data_folder.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

// Counts what the hand does.
struct Walk {
  Window w;
  int clicks = 0;
  void click(QWidget* widget) {
    REQUIRE(widget != nullptr);
    INFO(widget->objectName().toStdString());
    REQUIRE(widget->isVisible());
    // A tick is clicked where its box is.
    const bool tick = qobject_cast<QCheckBox*>(widget) != nullptr;
    QTest::mouseClick(widget, Qt::LeftButton, {}, tick ? QPoint(8, widget->height() / 2) : QPoint());
    ++clicks;
  }
  void click_at(Point on_board) {
    QTest::mouseClick(&w.window.bench(), Qt::LeftButton, Qt::NoModifier,
                      w.window.bench().to_screen(on_board).toPoint());
    ++clicks;
  }
  void stage(int number) {
    QApplication::setActiveWindow(&w.window);
    QTest::keyClick(&w.window, static_cast<Qt::Key>(Qt::Key_0 + number), Qt::AltModifier);
    QTest::qWait(30);
  }
  void look(const char* kind) {
    click(w.find<QToolButton>((std::string("look-") + kind).c_str()));
    w.settle();
  }
  void field(const char* name, const QString& text) {
    auto* line = w.find<QLineEdit>(name);
    click(line);
    line->selectAll();
    QTest::keyClicks(line, text);
    QTest::keyClick(line, Qt::Key_Return);
    w.settle();
  }
  // In a dialog that stands in the bench's place.
  void field_of(QWidget* dialog, const char* name, const QString& text) {
    auto* found = dialog->findChild<QWidget*>(QLatin1String(name));
    click(found);
    auto* line = qobject_cast<QLineEdit*>(found);
    if (line == nullptr) line = found->findChild<QLineEdit*>();
    REQUIRE(line != nullptr);
    line->selectAll();
    QTest::keyClicks(line, text);
    QTest::keyClick(line, Qt::Key_Return);
  }
  void from_menu(const char* button, const QString& words) {
    clicks += 2;  // the button and the entry
    for (QAction* action : w.find<QPushButton>(button)->menu()->actions()) {
      if (action->text() == words) return action->trigger();
    }
    FAIL("no entry " << words.toStdString());
  }
  const Verdict* verdict(const std::string& code) {
    for (const Verdict& v : w.window.judged()->verdicts) {
      if (v.code == code) return &v;
    }
    return nullptr;
  }
};

std::string id_of_kind(const Job& job, Treatment::Kind kind) {
  for (const Item& item : job.items) {
    if (item.cut.kind == kind) return item.piece.id;
  }
  return {};
}

// A new board by its dialog, in millimetres, and nothing on it.
void new_board(Walk& walk, double wide, double high, double thick, const char* species) {
  QSettings().remove("newBoard");
  on_next_dialog([=](QDialog* d) {
    const auto into = [&](const char* name, double mm) {
      auto* field = d->findChild<QLineEdit*>(QLatin1String(name));
      field->setFocus();
      field->selectAll();
      QTest::keyClicks(field, QString::number(mm));
      QTest::keyClick(field, Qt::Key_Tab);
    };
    auto* unit = d->findChild<QComboBox*>("units");
    unit->setCurrentIndex(0);
    Q_EMIT unit->activated(0);
    into("boardWidth", wide);
    into("boardHeight", high);
    into("boardThick", thick);
    auto* wood = d->findChild<QComboBox*>("wood");
    wood->setCurrentIndex(wood->findData(QLatin1String(species)));
    QTest::keyClick(d, Qt::Key_Return);
  });
  Window& w = walk.w;
  QTest::keyClick(&w.window, Qt::Key_N, Qt::ControlModifier);
  REQUIRE(w.job().blank.species == species);
  REQUIRE(w.job().blank.width == Approx(wide));
  // The words that a new sign begins with are not wanted.
  QApplication::setActiveWindow(&w.window);
  w.window.select(QString::fromStdString(w.job().items[0].piece.id));
  w.window.bench().setFocus();
  QTest::keyClick(&w.window.bench(), Qt::Key_Delete);
  REQUIRE(w.job().items.empty());
  QSettings().remove("newBoard");
}

}  // namespace

TEST_CASE("the gate sign, from nothing to files, in under forty clicks") {
  QSettings().remove("newBoard");
  Walk walk;
  Window& w = walk.w;
  on_next_dialog([](QDialog* d) {
    auto* unit = d->findChild<QComboBox*>("units");
    unit->setFocus();
    QTest::keyClick(unit, Qt::Key_End);  // inches, as decimals
    Q_EMIT unit->activated(unit->currentIndex());
    QTest::keyClick(d, Qt::Key_Return);
  });
  QTest::keyClick(&w.window, Qt::Key_N, Qt::ControlModifier);
  CHECK(w.job().blank.width == Approx(24 * 25.4));
  CHECK(w.job().blank.height == Approx(9 * 25.4));

  auto* words = w.find<QPlainTextEdit>("words");
  words->selectAll();
  QTest::keyClicks(words, "Marrowby");
  w.settle();
  walk.field("cap", "1.9");
  const std::string name = w.job().items[0].piece.id;
  // Four readings, under Blank.
  walk.stage(1);
  walk.field("readings", "0.742, 0.751, 0.748, 0.760");
  CHECK(w.job().blank.readings.size() == 4);

  // The sprig comes from a file, to where there is room; a border round all, and the sign's own outline.
  walk.stage(2);
  w.window.trace_file(QString::fromStdString(data_file("demo/sprig.svg")));
  walk.clicks += 2;  // the button, the file
  w.settle();
  const std::string sprig = w.job().items.back().piece.id;
  CHECK(intersect(outlines_of(w.piece(sprig.c_str())).region, outlines_of(w.piece(name.c_str())).region).empty());
  walk.from_menu("addShape", "Rectangle");
  w.settle();
  const std::string outline = w.job().items.back().piece.id;

  // How each should look: the next step names them one by one.
  CHECK_FALSE(w.job().undecided(*w.job().find(name)));  // lettering is incised from the start
  for (const char* kind : {"incise", "cutout"}) {
    walk.click(w.find<QPushButton>("takeNextStep"));
    QTest::qWait(30);
    walk.look(kind);
  }
  CHECK(w.job().find(sprig)->cut.kind == Treatment::Kind::Incise);
  CHECK(w.job().find(outline)->cut.kind == Treatment::Kind::CutOut);

  // The floor limit: only strokes wider than 2 × 0.2 × tan 30° = 0.231 in get a flat floor.
  w.window.select(QString::fromStdString(name));
  ++walk.clicks;
  const double free_depth = w.plan().piece(name)->cuts.deepest;
  const double stroke = w.plan().piece(name)->cuts.groove->widest_stroke();
  CHECK(free_depth == Approx(stroke / 2 / std::tan(M_PI / 6)).margin(0.01));
  walk.field("limit", "0.2");
  CHECK(w.plan().piece(name)->cuts.deepest == Approx(std::min(free_depth, 0.2 * 25.4)));
  CHECK(2 * w.plan().piece(name)->cuts.groove->shape.limit_radius() == Approx(0.231 * 25.4).margin(0.02));

  // Through at the thickest reading and 0.010 in; the bed is marked by up to 0.028 in; four tabs.
  w.judge();
  const std::string cut_out = id_of_kind(w.job(), Treatment::Kind::CutOut);
  CHECK(w.plan().piece(cut_out)->cuts.deepest == Approx(0.770 * 25.4).margin(0.02));
  CHECK(w.plan().piece(cut_out)->cuts.cut_out->tabs.size() == 4);
  const Verdict* bed = walk.verdict("bed-marked");
  REQUIRE(bed != nullptr);
  CHECK_THAT(bed->text, Catch::Contains("0.028 in"));

  // Dragged over the outline it is a fault, and one key mends it.
  walk.stage(2);
  w.window.select(QString::fromStdString(name));
  w.settle();
  const Box box = w.window.bench().box_of(QString::fromStdString(name));
  const Point middle = box.centre();
  const double up = w.job().blank.height - box.top - 2;
  Q_EMIT w.window.bench().moved(QString::fromStdString(name), {0, up});
  ++walk.clicks;
  w.settle();
  w.judge();
  bool faulty = false;
  for (const Verdict& v : w.window.judged()->verdicts) faulty = faulty || (v.piece == name && v.grade != Grade::Note);
  CHECK(faulty);
  QApplication::setActiveWindow(&w.window);
  QTest::keyClick(&w.window, Qt::Key_F4);
  w.settle();
  w.judge();
  CHECK(distance(w.window.bench().box_of(QString::fromStdString(name)).centre(), middle) < up);

  // No stops: the next steps lead to the files.
  walk.stage(3);
  INFO((w.window.judged()->count(Grade::Stop) > 0 ? w.window.judged()->verdicts.front().text : std::string()));
  REQUIRE(w.window.judged()->count(Grade::Stop) == 0);
  for (int step = 0; step < 2; ++step) {
    walk.click(w.find<QPushButton>("takeNextStep"));
    QTest::qWait(30);
  }
  CHECK(w.window.rail().current() == Stage::Run);
  QTemporaryDir folder;
  const QString said = w.window.write_files(folder.path());
  walk.clicks += 2;  // the button, the folder
  CHECK_THAT(said.toStdString(), Catch::Contains("Written into"));
  const QStringList files = QDir(folder.path()).entryList({"*.nc"});
  CHECK(files.size() >= 2);
  CHECK(files.size() <= 3);
  CHECK(walk.clicks < 40);
  QSettings().remove("newBoard");
}

// walks.md, 4. Figures: the glue gap is what the pocket is deeper than the plug goes in; the plug's land is smaller by
// that depth × tan 30° a side (geometry.md).
TEST_CASE("the inlaid lid, from nothing to both boards' files") {
  Walk walk;
  Window& w = walk.w;
  new_board(walk, 300, 200, 19, "black-walnut");
  walk.clicks += 4;
  w.window.trace_file(QString::fromStdString(data_file("demo/sprig.svg")));
  walk.clicks += 2;
  w.settle();
  const std::string sprig = w.job().items.back().piece.id;
  walk.stage(3);
  w.window.select(QString::fromStdString(sprig));
  walk.look("inlay");
  if (auto* plug = w.find<QToolButton>("plugOpen"); !plug->isChecked()) walk.click(plug);
  auto* wood = w.find<QComboBox>("plugWood");
  wood->setCurrentIndex(wood->findData("sugar-maple"));
  Q_EMIT wood->activated(wood->currentIndex());
  walk.clicks += 2;
  walk.field("pocketDepth", "5.0");
  walk.field("contact", "3.8");
  walk.field("sawGap", "1.2");
  const Treatment& cut = w.job().find(sprig)->cut;
  CHECK(cut.depth == Approx(5.0));
  CHECK(cut.inlay.contact == Approx(3.8));
  std::string gap;
  for (NumberCard* card : w.window.findChildren<NumberCard*>()) {
    if (card->isVisible() && card->findChildren<QLabel*>().front()->text() == "Glue gap")
      gap = card->number().toStdString();
  }
  CHECK_THAT(gap, Catch::Contains("1.2 mm"));
  // Its own outline, cut out; the cut-out waits until the plug is glued and level.
  walk.stage(2);
  walk.from_menu("addShape", "Rectangle");
  w.settle();
  walk.click(w.find<QPushButton>("takeNextStep"));
  QTest::qWait(30);
  walk.look("cutout");
  w.judge();
  INFO((w.window.judged()->count(Grade::Stop) > 0 ? w.window.judged()->verdicts.front().text : std::string()));
  REQUIRE(w.window.judged()->count(Grade::Stop) == 0);
  CHECK(w.plan().has_later());
  bool later = false;  // once something waits, nothing of the first run comes after it
  for (const BitRun& run : w.plan().runs) {
    CHECK_FALSE((later && !run.later));
    later = later || run.later;
  }
  walk.click(w.find<QPushButton>("takeNextStep"));
  QTest::qWait(30);
  walk.click(w.find<QPushButton>("takeNextStep"));
  QTest::qWait(30);
  QTemporaryDir folder;
  const QString said = w.window.write_files(folder.path());
  walk.clicks += 2;
  CHECK_THAT(said.toStdString(), Catch::Contains("Written into"));
  // Files for two boards: this one's here, the plug's in a folder of its own.
  QStringList own, plugs;
  QDirIterator all(folder.path(), {"*.nc"}, QDir::Files, QDirIterator::Subdirectories);
  while (all.hasNext()) {
    const QFileInfo file(all.next());
    (file.path() == folder.path() ? own : plugs) << file.fileName();
  }
  INFO(own.join(QLatin1Char(' ')).toStdString() << " / " << plugs.join(QLatin1Char(' ')).toStdString());
  CHECK(own.size() >= 2);
  CHECK_FALSE(plugs.empty());
  CHECK_FALSE(own.filter("glued").empty());  // the cut-out, when the plug is level
  CHECK(walk.clicks < 40);
  QSettings().remove("newBoard");
}

// walks.md, 2. Figures: what a V reaches and a flat bit does not, by the plan; the sizes are the picture's own.
TEST_CASE("the emblem from a photograph: straightened, traced at its size, thinned, incised or recessed") {
  Walk walk;
  Window& w = walk.w;
  new_board(walk, 260, 240, 18, "sugar-maple");
  w.window.trace_file(QString::fromStdString(data_file("demo/heron-ink.jpg")));
  auto* d = w.find<TraceDialog>("traceDialog");
  const auto traced = [&] { REQUIRE(QTest::qWaitFor([&] { return !d->busy() && d->traced_fine(); }, 30'000)); };
  traced();
  walk.field_of(d, "straighten", "1.5");
  traced();
  CHECK(d->settings().straighten == Approx(1.5));
  walk.field_of(d, "traceWidth", "120");
  traced();
  walk.field_of(d, "smallestSpeck", "0.8");
  traced();
  CHECK_THAT(d->findChild<QLabel*>("traceSays")->text().toStdString(),
             Catch::Contains("thinnest stroke") && Catch::Contains("points") && Catch::Contains("expected speed"));
  walk.click(d->findChild<QPushButton*>("takeTrace"));
  REQUIRE(QTest::qWaitFor([&] { return !w.job().items.empty(); }, 20'000));
  w.settle();
  const std::string heron = w.job().items.back().piece.id;
  CHECK(w.box(heron.c_str()).width() == Approx(120).margin(0.5));
  CHECK(w.job().undecided(*w.job().find(heron)));  // it arrives uncut, and the next step asks how it should look
  // Incised: a sharp V reaches all of it.
  walk.click(w.find<QPushButton>("takeNextStep"));
  QTest::qWait(30);
  walk.look("incise");
  CHECK(w.plan().piece(heron)->cuts.unreached.area < 0.01);
  const double deepest = w.plan().piece(heron)->cuts.deepest;
  const double stroke = w.plan().piece(heron)->cuts.groove->widest_stroke();
  CHECK(deepest <= stroke / 2 / std::tan(M_PI / 6) + 0.01);
  // Thinned, it keeps its outline by far fewer points.
  const Region before = outlines_of(w.piece(heron.c_str())).region;
  walk.stage(2);
  walk.click(w.find<QPushButton>("cleanUp"));
  REQUIRE(QTest::qWaitFor([&] { return w.button("Thin them") != nullptr; }, 20'000));
  walk.click(w.button("Thin them"));
  w.settle();
  const Region thin = outlines_of(w.piece(heron.c_str())).region;
  CHECK(point_count(thin) < point_count(before) / 2);
  CHECK(area(thin) == Approx(area(before)).epsilon(0.005));
  // Recessed with one flat bit of 3 mm: what it leaves is shown and said.
  walk.stage(3);
  walk.look("recess");
  w.window.document().edit("one bit", [&](Job& job) { job.find(heron)->cut.clearing = {"flat-3mm"}; });
  w.settle();
  const double left = w.plan().piece(heron)->cuts.unreached.area;
  CHECK(left > 5);
  CHECK(QTest::qWaitFor([&] {
    for (const QLabel* label : w.window.findChildren<QLabel*>()) {
      if (label->isVisible() && label->text().contains("stay unreached")) return true;
    }
    return false;
  }));
  // Much larger, on a board that has room, the same bit loses next to nothing of it.
  w.window.document().edit("larger", [&](Job& job) {
    job.blank.width = 1000;
    job.blank.height = 1300;
    size_piece(job.find(heron)->piece, 900.0 / 120, 900.0 / 120);
    job.find(heron)->piece.at = {500, 650};
  });
  w.settle();
  const double whole = area(outlines_of(w.piece(heron.c_str())).region);
  CHECK(w.plan().piece(heron)->cuts.unreached.area / whole < left / area(thin) / 20);
  CHECK(walk.clicks < 40);
}

// walks.md, 3, at half its size (no bit of the rack cuts through 32 mm, which the program says). Figures: the ground is
// so far down as was asked, by the carved relief; the bevel's width is its depth × tan of half the bit's angle.
TEST_CASE("the glasshouse sign: words raised in a shield, a sprig incised on an island, a bevelled edge") {
  Walk walk;
  Window& w = walk.w;
  new_board(walk, 450, 250, 19, "white-oak");
  const auto last = [&] { return w.job().items.back().piece.id; };
  const auto sized = [&](const char* id, double wide, double high, Point at) {
    w.window.document().edit("size", [&](Job& job) {
      auto& shape = std::get<PlainShape>(job.find(id)->piece.what);
      shape.width = wide;
      shape.height = high;
      shape.from_edge.reset();
      job.find(id)->piece.at = at;
    });
    w.settle();
  };
  // The sprig comes while there is room for it.
  w.window.trace_file(QString::fromStdString(data_file("demo/sprig.svg")));
  walk.clicks += 2;
  w.settle();
  const std::string sprig = last();
  // The outline, cut out with a bevelled edge.
  walk.from_menu("addShape", "Shield");
  w.settle();
  const std::string shield = last();
  sized(shield.c_str(), 410, 220, {225, 125});
  walk.stage(3);
  w.window.select(QString::fromStdString(shield));
  walk.look("cutout");
  walk.click(w.find<QCheckBox>("bevelledEdge"));
  w.settle();
  walk.field("bevelDepth", "2.5");
  // A field inside a rim of 20 mm: grown inwards from the shield, it follows it.
  walk.stage(2);
  w.window.select(QString::fromStdString(shield));
  walk.from_menu("madeFrom", "Grown or shrunk");
  w.settle();
  const std::string field = last();
  REQUIRE(field != shield);
  w.window.document().edit("inwards", [&](Job& job) { std::get<Derived>(job.find(field)->piece.what).distance = -20; });
  // The words on an arc.
  walk.click(w.find<QPushButton>("addLettering"));
  w.settle();
  const std::string words = last();
  auto* line = w.find<QPlainTextEdit>("words");
  line->selectAll();
  QTest::keyClicks(line, "GLASSHOUSE");
  w.settle();
  walk.field("cap", "30");
  w.pick("setting", 1);
  walk.clicks += 2;
  w.settle();
  w.window.document().edit("place", [&](Job& job) { job.find(words)->piece.at = {225, 165}; });
  // An island below them, and the sprig on it.
  walk.from_menu("addShape", "Oval");
  w.settle();
  const std::string island = last();
  sized(island.c_str(), 55, 55, {225, 90});
  w.window.document().edit("place", [&](Job& job) {
    Piece& piece = job.find(sprig)->piece;
    const Box box = bounds(outlines_of(piece).region);
    size_piece(piece, 40 / box.height(), 40 / box.height());
    piece.at = {225, 90};
  });
  w.settle();
  // Looks: the words and the island stand on a ground 3 mm down that reaches to the field.
  for (const std::string& id : {words, island}) {
    walk.stage(3);
    w.window.select(QString::fromStdString(id));
    walk.look("raise");
    walk.field("floorDepth", "3");
    auto* panel = w.find<QComboBox>("panel");
    w.pick("panel", panel->findData(QString::fromStdString(field)));
    walk.clicks += 2;
  }
  w.window.select(QString::fromStdString(sprig));
  walk.look("incise");
  walk.field("limit", "1.2");
  w.judge();
  const Plan& plan = w.plan();
  const auto depth_at = [&](Point p) {
    const HeightField f = relief_of(plan, {p.x - 0.3, p.y - 0.3, p.x + 0.3, p.y + 0.3}, 0.2);
    return static_cast<double>(f.at(f.columns() / 2, f.rows() / 2));
  };
  // Off the words and the island the ground lies 3 mm down, in the whole field; the rim stands.
  CHECK(depth_at({125, 100}) == Approx(-3).margin(0.02));
  CHECK(depth_at({325, 100}) == Approx(-3).margin(0.02));
  CHECK(depth_at({225, 115}) == 0);
  const Box whole = w.box(shield.c_str());
  CHECK(depth_at({whole.left + 10, 175}) == 0);
  // The sprig begins at the island's top, the face, and goes no deeper than it may.
  CHECK(plan.piece(sprig)->around.ground.below == Approx(0).margin(1e-9));
  CHECK(plan.piece(sprig)->cuts.deepest <= 1.2 + 1e-6);
  // The bevel lies along the edge, its flat side outwards, and what it slopes is cut by it, not by the cut-out.
  const Item* bevel = nullptr;
  for (const Item& item : w.job().items) {
    if (item.cut.kind == Treatment::Kind::Bevel) bevel = &item;
  }
  REQUIRE(bevel != nullptr);
  CHECK(bevel->cut.depth == Approx(2.5));
  for (const Verdict& v : w.window.judged()->verdicts) {
    INFO(v.text << " " << v.why);
    CHECK(v.grade != Grade::Stop);
  }
  // One letter that touches the rim is said.
  walk.stage(2);
  const double up = w.box(field.c_str()).top - w.box(words.c_str()).top;
  w.window.document().edit("up", [&](Job& job) { job.shift(words, {0, up + 12}); });
  w.settle();
  w.judge();
  bool said = false;
  for (const Verdict& v : w.window.judged()->verdicts) said = said || (v.piece == words && v.grade != Grade::Note);
  CHECK(said);
  CHECK(walk.clicks < 60);
}

// walks.md, 6, one of its two boards. Figures: what is left between a slot and the groove over it is the board's
// thickness less both depths.
TEST_CASE(
    "the fingerpost's arm: words on both sides, pointed ends, peg holes, a slot on the back that keeps its wood") {
  Walk walk;
  Window& w = walk.w;
  new_board(walk, 620, 130, 20, "white-oak");
  const auto last = [&] { return w.job().items.back().piece.id; };
  const auto at = [&](const std::string& id, Point to) {
    w.window.document().edit("place", [&](Job& job) { job.find(id)->piece.at = to; });
    w.settle();
  };
  // The arm, its corners clipped by half its height.
  walk.from_menu("addShape", "Rectangle");
  w.settle();
  const std::string arm = last();
  w.window.document().edit("size", [&](Job& job) {
    auto& shape = std::get<PlainShape>(job.find(arm)->piece.what);
    shape.width = 580;
    shape.height = 100;
    shape.from_edge.reset();
    shape.corner_radius = 50;
    shape.corner_form = PlainShape::CornerForm::Clipped;
  });
  at(arm, {310, 65});
  walk.stage(3);
  w.window.select(QString::fromStdString(arm));
  walk.look("cutout");
  // Words, front and back.
  const auto words = [&](const char* text, double cap, bool back) {
    walk.stage(2);
    walk.click(w.find<QPushButton>("addLettering"));
    w.settle();
    const std::string id = last();
    auto* line = w.find<QPlainTextEdit>("words");
    line->selectAll();
    QTest::keyClicks(line, QString::fromLatin1(text));
    w.settle();
    walk.field("cap", QString::number(cap));
    at(id, {330, 65});
    walk.stage(3);
    w.window.select(QString::fromStdString(id));
    walk.look("incise");
    w.empty("limit");
    if (back) {
      w.pick("side", 1);
      walk.clicks += 2;
    }
    return id;
  };
  const std::string front = words("HERBS", 60, false);
  const std::string rear = words("TOOLS", 30, true);
  CHECK(w.job().find(rear)->cut.back);
  CHECK_FALSE(w.job().find(front)->cut.back);
  const auto round = [&](double wide, Point to, const char* look) {
    walk.stage(2);
    walk.from_menu("addShape", "Oval");
    w.settle();
    const std::string id = last();
    w.window.document().edit("size", [&](Job& job) {
      auto& shape = std::get<PlainShape>(job.find(id)->piece.what);
      shape.width = shape.height = wide;
      shape.from_edge.reset();
    });
    at(id, to);
    walk.stage(3);
    w.window.select(QString::fromStdString(id));
    walk.look(look);
    return id;
  };
  // Three holes for pegs, right through.
  for (const double x : {85.0, 105.0, 125.0}) round(8, {x, 65}, "pierce");
  // A slot in the back, right under the deepest groove of the front.
  const Point deepest = w.plan().piece(front)->cuts.deepest_at;
  const double groove = w.plan().piece(front)->cuts.deepest;
  REQUIRE(groove > 5);
  const std::string slot = round(9, deepest, "hangerSlot");
  CHECK(w.job().find(slot)->cut.back);
  walk.stage(5);
  w.reach<QLineEdit>("leastWood");
  walk.clicks += 1;
  walk.field("leastWood", "5");
  w.judge();
  const auto of_slot = [&]() -> const Verdict* {
    for (const Verdict& v : w.window.judged()->verdicts) {
      if ((v.code == "sides-meet" || v.code == "wood-between") && v.piece == slot) return &v;
    }
    return nullptr;
  };
  const double deep = w.plan().piece(slot)->cuts.deepest;
  INFO("slot " << deep << ", groove " << groove);
  REQUIRE(20 - deep - groove < 5);
  REQUIRE(of_slot() != nullptr);
  CHECK(of_slot()->grade == Grade::Stop);
  // A floor limit that keeps them is enough.
  walk.stage(3);
  w.window.select(QString::fromStdString(front));
  walk.field("limit", QString::number(std::floor(15 - deep)));
  w.judge();
  CHECK((of_slot() == nullptr || of_slot()->grade != Grade::Stop));
  // Turned over about its front edge, which is said; files of each side, and what the back looks like.
  walk.stage(5);
  w.pick("turnEdge", 1);
  walk.clicks += 2;
  CHECK(turning_in_words(w.job()).find("front edge") != std::string::npos);
  w.judge();
  QTemporaryDir folder;
  const QString said = w.window.write_files(folder.path());
  INFO(said.toStdString());
  CHECK(said.startsWith(QStringLiteral("Written")));
  bool sides[2] = {false, false};
  for (const BitRun& run : w.plan().runs) {
    sides[run.side == Side::Back ? 1 : 0] = true;
    CHECK(QFile::exists(folder.filePath(QString::fromStdString(run.file))));
  }
  CHECK(sides[0]);
  CHECK(sides[1]);
  CHECK(walk.clicks < 80);
}
