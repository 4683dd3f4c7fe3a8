// Walked as a new user walks it, from nothing to files: real keys and clicks, and how many clicks it takes. Figures:
// the closed forms of a V groove (depth = half the width ÷ tan of half the angle) and of a through cut.
#include <QDirIterator>
#include <QListWidget>
#include <QMenu>
#include <QPlainTextEdit>
#include <QSettings>
#include <QTemporaryDir>

#include "parts/cards.hpp"
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
    REQUIRE(widget->isVisible());
    QTest::mouseClick(widget, Qt::LeftButton);
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
  QSettings().remove("newBoard");
  Walk walk;
  Window& w = walk.w;
  on_next_dialog([](QDialog* d) {
    const auto into = [&](const char* name, const QString& text) {
      auto* field = d->findChild<QLineEdit*>(QLatin1String(name));
      field->setFocus();
      field->selectAll();
      QTest::keyClicks(field, text);
      QTest::keyClick(field, Qt::Key_Tab);
    };
    auto* unit = d->findChild<QComboBox*>("units");
    unit->setCurrentIndex(0);
    Q_EMIT unit->activated(0);
    into("boardWidth", "300");
    into("boardHeight", "200");
    into("boardThick", "19");
    auto* wood = d->findChild<QComboBox*>("wood");
    wood->setCurrentIndex(wood->findData("black-walnut"));
    QTest::keyClick(d, Qt::Key_Return);
  });
  QTest::keyClick(&w.window, Qt::Key_N, Qt::ControlModifier);
  REQUIRE(w.job().blank.species == "black-walnut");
  REQUIRE(w.job().blank.width == Approx(300));
  // The words that a new sign begins with are not wanted here.
  QApplication::setActiveWindow(&w.window);
  w.window.select(QString::fromStdString(w.job().items[0].piece.id));
  w.window.bench().setFocus();
  QTest::keyClick(&w.window.bench(), Qt::Key_Delete);
  ++walk.clicks;
  CHECK(w.job().items.empty());
  w.window.trace_file(QString::fromStdString(data_file("demo/sprig.svg")));
  walk.clicks += 2;
  w.settle();
  const std::string sprig = w.job().items.back().piece.id;
  walk.stage(3);
  w.window.select(QString::fromStdString(sprig));
  walk.look("inlay");
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
