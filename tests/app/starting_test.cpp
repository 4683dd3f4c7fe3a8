// From nothing to a board: the first question, where pieces land, what they are called, what is offered next; copies
// within the job and between two windows.
#include <QClipboard>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QRadioButton>
#include <QScreen>
#include <QScrollBar>
#include <QSettings>

#include <set>

#include "artwork/drawing/points.hpp"
#include "shell/display_dialog.hpp"
#include "shell/greeting.hpp"
#include "shell/new_board.hpp"
#include "storage/data_folder.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

// Types into a field of a dialog as a person does, and leaves it by Tab.
void type_into(QDialog& dialog, const char* name, const QString& text) {
  auto* field = dialog.findChild<QLineEdit*>(QLatin1String(name));
  REQUIRE(field != nullptr);
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, text);
  QTest::keyClick(field, Qt::Key_Tab);
}
void choose_unit(QDialog& dialog, int index) {
  auto* unit = dialog.findChild<QComboBox*>("units");
  unit->setCurrentIndex(index);
  Q_EMIT unit->activated(index);
}
QString shown(QDialog& dialog, const char* name) {
  const auto* field = dialog.findChild<QLineEdit*>(QLatin1String(name));
  REQUIRE(field != nullptr);
  return field->text();
}

QPushButton* next(Window& w) { return w.find<QPushButton>("takeNextStep"); }

bool meet(const Box& a, const Box& b) {
  return a.left < b.right && b.left < a.right && a.bottom < b.top && b.bottom < a.top;
}

}  // namespace

TEST_CASE("a new sign asks for board and unit first, in round figures, and offers the last ones again") {
  QSettings().remove("newBoard");
  Window w;
  on_next_dialog([](QDialog* d) {
    REQUIRE(d->objectName() == QLatin1String("newBoard"));
    choose_unit(*d, 1);
    CHECK(shown(*d, "boardWidth") == "24\"");
    CHECK(shown(*d, "boardThick") == "3/4\"");
    CHECK(shown(*d, "boardMargin") == "1/2\"");
    choose_unit(*d, 0);
    CHECK(shown(*d, "boardWidth") == "600 mm");
    type_into(*d, "boardWidth", "480");
    choose_unit(*d, 1);
    CHECK(shown(*d, "boardHeight") == "9\"");        // the others are round again
    CHECK(shown(*d, "boardWidth") == "18.8976 in");  // what was typed is kept, whatever the unit
    type_into(*d, "boardWidth", "18");
    type_into(*d, "boardHeight", "nonsense");
    QTest::keyClick(d, Qt::Key_Return);
    CHECK(d->isVisible());  // it is not begun with what cannot be
    type_into(*d, "boardHeight", "7 1/2");
    type_into(*d, "jobName", "Herb bed");
    QTest::keyClick(d, Qt::Key_Return);
    CHECK_FALSE(d->isVisible());
  });
  QTest::keyClick(&w.window, Qt::Key_N, Qt::ControlModifier);
  CHECK(w.job().name == "Herb bed");
  CHECK(w.job().lengths.unit == Unit::Inch);
  CHECK(w.job().blank.width == Approx(18 * 25.4));
  CHECK(w.job().blank.height == Approx(7.5 * 25.4));
  CHECK(w.job().blank.margin == Approx(12.7));
  CHECK(w.window.rail().current() == Stage::Artwork);
  REQUIRE(w.job().items.size() == 1);
  // The lettering stands ready to be typed over, and is called by its words.
  auto* words = w.find<QPlainTextEdit>("words");
  CHECK(w.window.focusWidget() == words);
  words->selectAll();
  QTest::keyClicks(words, "Sage");
  w.settle();
  CHECK(w.job().items[0].piece.name == "Sage");
  // A name of its own is kept.
  w.type("pieceName", "Big words");
  words->selectAll();
  QTest::keyClicks(words, "Thyme");
  CHECK(w.job().items[0].piece.name == "Big words");
  w.window.document().undo_stack().setClean();
  QApplication::setActiveWindow(&w.window);  // as a desktop does when a dialog closes
  on_next_dialog([](QDialog* d) {
    CHECK(shown(*d, "boardWidth") == "18\"");
    CHECK(shown(*d, "boardHeight") == "7 1/2\"");
  });
  QTest::keyClick(&w.window, Qt::Key_N, Qt::ControlModifier);
  CHECK(w.job().name == "Herb bed");  // it was not begun
  QSettings().remove("newBoard");
}

TEST_CASE("the greeting stands before an empty board, and demos and recent jobs show their boards") {
  Window w;
  const QString file = QDir::temp().filePath("doyen-recent.doyen");
  w.window.document().save(file);
  QSettings().setValue("recent", QStringList{file});
  w.window.document().replace(Job{}, {});
  w.settle();
  on_next_dialog([&](QDialog* d) {
    auto* cards = d->findChild<QListWidget*>("recentJobs");
    REQUIRE(cards != nullptr);
    CHECK(cards->count() == 1);
    QTest::keyClick(cards, Qt::Key_Escape);
  });
  w.window.greet();
  CHECK(w.job().items.empty());  // nothing was loaded behind it
  on_next_dialog([&](QDialog* d) {
    QTest::mouseClick(d->findChild<QPushButton*>("startDemos"), Qt::LeftButton);
    on_next_dialog([&](QDialog* gallery) {
      auto* cards = gallery->findChild<QListWidget*>("demoCards");
      REQUIRE(cards != nullptr);
      CHECK(cards->count() == demos().size());
      REQUIRE(QTest::qWaitFor(
          [&] {  // its picture comes by and by
            const QImage icon = cards->item(0)->icon().pixmap(200, 110).toImage();
            return icon.pixelColor(100, 55) != icon.pixelColor(2, 2);
          },
          30'000));
      cards->setCurrentRow(2);
      QTest::keyClick(cards, Qt::Key_Return);
    });
  });
  w.window.greet();
  w.settle();
  CHECK(w.job().items.size() > 2);
  CHECK_FALSE(w.window.document().unsaved());
  QSettings().remove("recent");
  QFile::remove(file);
}

TEST_CASE("what is added lands beside what is there, never on it") {
  Window w;
  w.choose(Stage::Artwork, "");
  const auto clear_of_others = [&](const std::string& id) {
    const Box box = w.window.bench().box_of(QString::fromStdString(id));
    for (const Item& item : w.job().items) {
      if (item.piece.id == id || item.piece.id == "outline" || item.piece.id == "border") continue;
      INFO(id << " and " << item.piece.id);
      CHECK_FALSE(meet(box, w.window.bench().box_of(QString::fromStdString(item.piece.id))));
    }
  };
  for (int i = 0; i < 3; ++i) {
    QTest::keyClick(&w.window, Qt::Key_L, Qt::ControlModifier);
    w.settle();
    clear_of_others(w.job().items.back().piece.id);
  }
  // Names tell them apart.
  std::set<std::string> names;
  for (const Item& item : w.job().items) CHECK(names.insert(item.piece.name).second);
}

TEST_CASE("a drawing arrives uncut, and its look is the next step; leaving it uncut is no fault") {
  Window w;
  w.window.document().replace(Job{}, {});
  w.settle();
  CHECK(next(w)->text().contains("Artwork"));
  QTest::mouseClick(next(w), Qt::LeftButton);
  CHECK(w.window.rail().current() == Stage::Artwork);
  w.window.trace_file(QString::fromStdString(data_file("demo/sprig.svg")));
  w.settle();
  REQUIRE(w.job().items.size() == 1);
  CHECK(w.job().items[0].cut.kind == Treatment::Kind::None);
  CHECK(next(w)->text().contains("look"));
  QTest::mouseClick(next(w), Qt::LeftButton);
  CHECK(w.window.rail().current() == Stage::Cuts);
  CHECK(w.window.bench().selected().toStdString() == w.job().items[0].piece.id);
  w.judge();
  CHECK(w.window.judged()->count(Grade::Mind) > 0);
  w.look("none");
  w.judge();
  CHECK(w.window.judged()->count(Grade::Mind) == 0);
  CHECK(next(w)->text().contains("proof"));
  w.look("incise");
  QTest::mouseClick(next(w), Qt::LeftButton);
  CHECK(w.window.rail().current() == Stage::Proof);
  w.judge();
  QTest::mouseClick(next(w), Qt::LeftButton);
  CHECK(w.window.rail().current() == Stage::Run);
}

TEST_CASE("copies go within the job, to another window, and out as SVG; pasted words become lettering") {
  Window w;
  w.choose(Stage::Artwork, "sprig");
  const std::size_t before = w.job().items.size();
  QTest::keyClick(&w.window, Qt::Key_D, Qt::ControlModifier);
  w.settle();
  REQUIRE(w.job().items.size() == before + 1);
  CHECK(w.job().items.back().cut == w.job().find("sprig")->cut);
  CHECK_FALSE(meet(w.window.bench().box_of("sprig"),
                   w.window.bench().box_of(QString::fromStdString(w.job().items.back().piece.id))));

  w.window.select("sprig");
  QTest::keyClick(&w.window, Qt::Key_C, Qt::ControlModifier);
  CHECK(QApplication::clipboard()->mimeData()->data("image/svg+xml").contains("<path"));
  {
    Window other;
    other.window.document().replace(Job{}, {});
    other.settle();
    QTest::keyClick(&other.window, Qt::Key_V, Qt::ControlModifier);
    other.settle();
    REQUIRE(other.job().items.size() == 1);
    CHECK(other.job().items[0].piece.what == w.job().find("sprig")->piece.what);
    CHECK(other.job().items[0].cut == w.job().find("sprig")->cut);
    // As SVG it comes back as a drawing of the same size.
    auto* data = new QMimeData;
    data->setText(QString::fromUtf8(QApplication::clipboard()->mimeData()->data("image/svg+xml")));
    QApplication::clipboard()->setMimeData(data);
    QTest::keyClick(&other.window, Qt::Key_V, Qt::ControlModifier);
    other.settle();
    REQUIRE(other.job().items.size() == 2);
    const Box was = bounds(w.job().outlines(*w.job().find("sprig"))),
              is = bounds(other.job().outlines(other.job().items[1]));
    CHECK(is.width() == Approx(was.width()).margin(0.01));
    CHECK(is.height() == Approx(was.height()).margin(0.01));
  }
  QApplication::clipboard()->setText("Lemon balm");
  QApplication::setActiveWindow(&w.window);
  w.window.bench().setFocus();
  QTest::keyClick(&w.window, Qt::Key_V, Qt::ControlModifier);
  w.settle();
  CHECK(std::get<Lettering>(w.job().items.back().piece.what).words == "Lemon balm");
  CHECK(w.job().items.back().piece.name == "Lemon balm");
  // Cut: it is gone here and still to be pasted.
  w.window.select("sprig");
  QTest::keyClick(&w.window, Qt::Key_X, Qt::ControlModifier);
  CHECK(w.job().find("sprig") == nullptr);
  QTest::keyClick(&w.window, Qt::Key_V, Qt::ControlModifier);
  CHECK(w.job().find("sprig") != nullptr);
  QTest::keyClick(&w.window, Qt::Key_Z, Qt::ControlModifier);
  CHECK(w.job().find("sprig") == nullptr);
}

TEST_CASE("undo works while a field has the focus: its own typing first") {
  Window w;
  w.choose(Stage::Artwork, "motto");
  const Point was = w.piece("motto").at;
  w.window.bench().setFocus();
  QTest::keyClick(&w.window.bench(), Qt::Key_Right);
  w.settle();
  CHECK(w.piece("motto").at.x > was.x);
  auto* cap = w.find<QLineEdit>("cap");
  const QString figure = cap->text();
  cap->setFocus();
  QTest::keyClick(cap, Qt::Key_End);
  QTest::keyClicks(cap, "9");
  QTest::keyClick(cap, Qt::Key_Z, Qt::ControlModifier);
  CHECK(cap->text() == figure);
  CHECK(w.piece("motto").at.x > was.x);
  QTest::keyClick(cap, Qt::Key_Z, Qt::ControlModifier);  // nothing of its own is left: the job's
  CHECK(w.piece("motto").at.x == Approx(was.x));
  QTest::keyClick(cap, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  CHECK(w.piece("motto").at.x > was.x);
}

TEST_CASE("Delete takes a piece off in the list, too; which piece is cut away is asked") {
  Window w;
  w.choose(Stage::Artwork, "motto");
  QListWidget* list = nullptr;
  for (QListWidget* each : w.window.findChildren<QListWidget*>()) {
    if (each->isVisible() && each->accessibleName() == "Pieces on the board") list = each;
  }
  REQUIRE(list != nullptr);
  list->setFocus();
  QTest::keyClick(list, Qt::Key_Delete);
  CHECK(w.job().find("motto") == nullptr);
  w.window.document().undo_stack().undo();
  w.window.select("outline");
  on_next_dialog([](QDialog* d) {
    REQUIRE(d->objectName() == QLatin1String("whichPiece"));
    auto* others = d->findChild<QListWidget*>();
    for (int i = 0; i < others->count(); ++i) {
      if (others->item(i)->data(Qt::UserRole).toString() == "sprig") others->setCurrentRow(i);
    }
    d->accept();
  });
  for (QAction* action : w.find<QPushButton>("madeFrom")->menu()->actions()) {
    if (action->text().startsWith("Cut away")) action->trigger();
  }
  const auto& made = std::get<Derived>(w.job().items.back().piece.what);
  CHECK(made.from == std::vector<std::string>{"outline", "sprig"});
  CHECK(w.job().items.back().cut.kind == Treatment::Kind::None);
  CHECK(w.job().find("outline")->cut.kind == Treatment::Kind::None);
  CHECK(w.job().find("sprig")->cut.kind != Treatment::Kind::None);
}

TEST_CASE("a ticket opens at its top, and is found again where it was left") {
  Window w;
  w.choose(Stage::Cuts, "name");
  QScrollArea* ticket = w.ticket();
  REQUIRE(ticket != nullptr);
  REQUIRE(ticket->verticalScrollBar()->maximum() > 40);
  CHECK(ticket->verticalScrollBar()->value() == 0);
  ticket->verticalScrollBar()->setValue(40);
  w.choose(Stage::Cuts, "outline");  // another kind of piece
  CHECK(w.ticket()->verticalScrollBar()->value() == 0);
  w.choose(Stage::Blank, "");
  w.choose(Stage::Cuts, "name");
  CHECK(w.ticket()->verticalScrollBar()->value() == 40);
}

TEST_CASE("a chosen point moves by arrow keys, by exact amounts") {
  Window w;
  w.choose(Stage::Artwork, "sprig");
  QTest::mouseClick(w.find<QPushButton>("editPoints"), Qt::LeftButton);
  Bench& bench = w.window.bench();
  const std::vector<BoardPoint> points = points_on_board(w.piece("sprig"));
  REQUIRE_FALSE(points.empty());
  const QPoint at = bench.to_screen(points.front().point.at).toPoint();
  QTest::mouseClick(&bench, Qt::LeftButton, Qt::NoModifier, at);
  const auto nearest = [&](Point to) {
    double best = 1e9;
    for (const BoardPoint& p : points_on_board(w.piece("sprig"))) best = std::min(best, distance(p.point.at, to));
    return best;
  };
  const double step = 25.4 / 16;  // the demo is in inches
  QTest::keyClick(&bench, Qt::Key_Right);
  QTest::keyClick(&bench, Qt::Key_Up, Qt::ShiftModifier);
  // Whichever point lay nearest was moved, and nothing else.
  int moved = 0;
  for (const BoardPoint& p : points) moved += nearest(p.point.at) > 0.01 ? 1 : 0;
  CHECK(moved == 1);
  for (const BoardPoint& p : points) {
    if (nearest(p.point.at) > 0.01) CHECK(nearest(p.point.at + Point{step, 10 * step}) < 0.01);
  }
}

TEST_CASE("nothing good is said of a job whose files have not been looked at yet") {
  Job job;
  Item item;
  item.piece = {"a", "A", PlainShape{}, {100, 100}, 0};
  item.cut.kind = Treatment::Kind::Incise;
  item.cut.bit = "v60";
  job.items.push_back(item);
  using What = NextStep::What;
  for (const Stage stage : {Stage::Proof, Stage::Run}) {
    CHECK(next_step(stage, job, nullptr).what == What::Wait);
    CHECK(next_step(stage, job, nullptr).button.isEmpty());
  }
  CHECK(next_step(Stage::Cuts, job, nullptr).what == What::LookAtProof);
  Plan fine;
  CHECK(next_step(Stage::Run, job, &fine).what == What::WriteFiles);
  // In the window: waited for after every edit, and there again when the judge has spoken.
  Window w;
  w.choose(Stage::Run, "");
  w.judge();
  CHECK(next(w)->isVisible());
  w.window.document().edit("move", [](Job& j) { j.shift("motto", {1, 0}); });
  CHECK_FALSE(next(w)->isVisible());
  w.settle();
  w.judge();
  CHECK(next(w)->isVisible());
}

TEST_CASE("the window comes back where it stood and as large as it was") {
  QSettings().remove("window");
  {
    Window w;
    w.window.resize(1151, 733);
    w.window.document().undo_stack().setClean();
    w.window.close();
  }
  Window again;
  again.window.come_back();
  CHECK(again.window.size() ==
        QSize(1151, 733).boundedTo(again.window.screen()->availableSize()).expandedTo(again.window.minimumSize()));
  QSettings().remove("window");
}

TEST_CASE("what a new board takes can be saved and opened, and what no file takes is refused in words") {
  QSettings().remove("newBoard");
  Window w;
  on_next_dialog([](QDialog* d) {
    choose_unit(*d, 0);
    type_into(*d, "boardMargin", "3000");
    auto* margin = d->findChild<QLineEdit*>("boardMargin");
    CHECK(margin->property("wrong").toBool());
    CHECK(margin->toolTip().contains("1000 mm"));
    QTest::keyClick(margin, Qt::Key_Escape);
    type_into(*d, "boardMargin", "900");
    type_into(*d, "boardWidth", "4000");
    d->accept();
  });
  QTest::keyClick(&w.window, Qt::Key_N, Qt::ControlModifier);
  CHECK(w.job().blank.margin == 900);
  CHECK(read_job(write_job(w.job()), "as saved") == w.job());
}

TEST_CASE("a larger size is chosen for the next start, and what would not fit the screen cannot be") {
  QSettings().remove("size");
  CHECK(chosen_size() == 1);
  Window w;
  on_next_dialog([](QDialog* d) {
    REQUIRE(d->objectName() == QLatin1String("display"));
    CHECK(d->findChild<QRadioButton*>("size100")->isChecked());
    const QSize screen = d->screen()->availableSize();
    for (const int percent : {115, 130, 150, 175, 200}) {
      const bool fits = 10.80 * percent <= screen.width() && 6.80 * percent <= screen.height();
      CHECK(d->findChild<QRadioButton*>(QStringLiteral("size%1").arg(percent))->isEnabled() == fits);
    }
  });
  DisplayDialog(QSize(1080, 680), &w.window).exec();
  CHECK(chosen_size() == 1);  // it was only looked at
  on_next_dialog([](QDialog* d) {
    auto* larger = d->findChild<QRadioButton*>("size200");
    if (larger->isEnabled()) return;
    larger->click();
    CHECK_FALSE(larger->isChecked());
  });
  DisplayDialog(QSize(1080, 680), &w.window).exec();
  on_next_dialog([](QDialog* d) {
    d->findChild<QRadioButton*>("size115")->click();
    d->findChild<QPushButton*>("keepSize")->click();
  });
  DisplayDialog(QSize(300, 200), &w.window).exec();
  CHECK(chosen_size() == 1.15);
  // As the next start has it, unless whoever starts it says otherwise.
  qunsetenv("QT_SCALE_FACTOR");
  take_chosen_size();
  CHECK(qgetenv("QT_SCALE_FACTOR") == "1.15");
  qputenv("QT_SCALE_FACTOR", "1.5");
  take_chosen_size();
  CHECK(qgetenv("QT_SCALE_FACTOR") == "1.5");
  qunsetenv("QT_SCALE_FACTOR");
  QSettings().setValue("size", "enormous");
  CHECK(chosen_size() == 1);
  QSettings().remove("size");
}
