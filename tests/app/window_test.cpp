// The window, from the demo to files: what a sign maker does, step by step.
#include <QComboBox>
#include <QDir>
#include <QDropEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QProcess>
#include <QTableWidget>
#include <QTemporaryDir>

#include "parts/theme.hpp"
#include "rack/own_rack.hpp"
#include "stages/artwork/artwork_ticket.hpp"
#include "stages/artwork/letter_bench.hpp"
#include "stages/artwork/trace_dialog.hpp"
#include "stages/cuts/rack_dialog.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

double brightness(const QImage& image, double share_x, double share_y) {
  const QColor c =
      image.pixelColor(static_cast<int>(share_x * image.width()), static_cast<int>(share_y * image.height()));
  return c.lightnessF();
}

std::string words_of(const Piece& piece) { return std::get<Lettering>(piece.what).words; }

}  // namespace

TEST_CASE("the demo is planned, carved and summed up along the rail") {
  Window w;
  CHECK(w.window.rail().words(Stage::Blank) == "4 readings");
  CHECK(w.window.rail().words(Stage::Artwork).contains("pieces"));
  CHECK(w.window.rail().words(Stage::Run).contains("bits"));
  CHECK_FALSE(w.plan().has_stop());
  // Deep in the bar of the M the wood is darker than on the face beside it.
  const QImage& picture = w.window.bench().picture();
  const Point deep = w.plan().piece("name")->cuts.deepest_at;
  const Blank& blank = w.job().blank;
  double groove = 1;
  for (const double dx : {-0.004, -0.002, 0.0, 0.002, 0.004})
    groove = std::min(groove, brightness(picture, deep.x / blank.width + dx, 1 - deep.y / blank.height));
  CHECK(groove < 0.7 * brightness(picture, 0.5, 0.15));
}

TEST_CASE("new words are carved, can be taken back, and undo says what it undoes") {
  Window w;
  w.choose(Stage::Artwork, "name");
  auto* words = w.find<QPlainTextEdit>("words");
  words->setFocus();
  words->selectAll();
  QTest::keyClicks(words, "Rosemary");
  CHECK(words_of(w.piece("name")) == "Rosemary");
  const auto before = w.window.plan();
  w.settle();
  CHECK(w.window.plan() != before);
  CHECK(w.plan().piece("name")->cuts.groove->places.size() == 8);
  CHECK(w.window.document().undo_stack().undoText() == "change the words");
  QTest::keyClick(&w.window, Qt::Key_Z, Qt::ControlModifier);
  QTest::qWait(20);
  w.window.document().undo_stack().setIndex(0);
  CHECK(words_of(w.piece("name")) == "Marrowby");
  w.window.document().undo_stack().redo();
  CHECK(words_of(w.piece("name")) == "Rosemary");
}

TEST_CASE("bit and floor limit change the depth, and the ticket's sum follows") {
  Window w;
  w.choose(Stage::Cuts, "name");
  w.type("limit", "3/16");
  w.settle();
  CHECK(w.plan().piece("name")->cuts.deepest == Approx(3.0 / 16 * 25.4));
  auto* card = w.window.findChildren<NumberCard*>().first();
  bool shown = false;
  for (NumberCard* c : w.window.findChildren<NumberCard*>()) {
    if (c->isVisible() && c->number() == "0.188 in") shown = true, card = c;
  }
  REQUIRE(shown);
  CHECK(card->sum_text().isEmpty());  // nobody has asked yet
  card->set_open(true);
  CHECK(QTest::qWaitFor([&] { return card->sum_text().contains("0.1875"); }));
  w.type("limit", "");
  auto* bit = w.find<QComboBox>("vBit");
  bit->setCurrentIndex(bit->findText("90", Qt::MatchContains));
  Q_EMIT bit->activated(bit->currentIndex());
  w.settle();
  CHECK(w.job().find("name")->cut.bit == "v90");
  CHECK(w.plan().piece("name")->cuts.deepest < 6.4);
}

TEST_CASE("a length that is none is refused in a sentence and changes nothing") {
  Window w;
  w.choose(Stage::Artwork, "name");
  const Job before = w.job();
  w.type("cap", "tall");
  auto* cap = w.find<QLineEdit>("cap");
  CHECK(cap->property("wrong").toBool());
  CHECK(cap->toolTip().contains("not a length"));
  CHECK(w.job() == before);
  w.type("cap", "1 1/2 + 1/4");
  CHECK(std::get<Lettering>(w.piece("name").what).cap_height == Approx(1.75 * 25.4));
}

TEST_CASE("a piece is dragged, snaps, is sized and turned by its handles, and moved by keys") {
  Window w;
  w.choose(Stage::Artwork, "name");
  const Box before = w.box("name");
  const QPointF middle = w.window.bench().to_screen(before.centre());
  w.drag(middle, middle + QPointF(-14, 9), Qt::AltModifier);
  const Box moved = w.box("name");
  const double px = w.window.bench().to_board({1, 0}).x - w.window.bench().to_board({0, 0}).x;
  CHECK(moved.left - before.left == Approx(-14 * px).margin(0.02));
  CHECK(moved.bottom - before.bottom == Approx(-9 * px).margin(0.02));

  // Dragged to nearly the middle of the board it lies exactly there.
  const double off = w.job().blank.width / 2 - moved.centre().x;
  const QPointF grip = w.window.bench().to_screen(moved.centre());
  w.drag(grip, grip + QPointF(off / px + 3, 0));
  CHECK(w.box("name").centre().x == Approx(w.job().blank.width / 2).margin(1e-3));

  const Box now = w.box("name");
  const QPointF corner = w.window.bench().to_screen({now.right, now.bottom}) + QPointF(5, 5);
  w.drag(corner, corner + QPointF(-40, -40));
  CHECK(w.box("name").width() < 0.95 * now.width());
  CHECK(w.box("name").left == Approx(now.left).margin(0.05));
  CHECK(w.box("name").width() / now.width() == Approx(w.box("name").height() / now.height()).epsilon(1e-3));

  const Box sized = w.box("name");
  const QPointF top = w.window.bench().to_screen({sized.centre().x, sized.top}) + QPointF(0, -27);
  w.drag(top, top + QPointF(60, 0));
  CHECK(w.piece("name").turn != 0);
  CHECK(std::fmod(std::abs(w.piece("name").turn) + 1e-9, 5) < 1e-6);  // in steps of five degrees
  CHECK(w.box("name").centre().x == Approx(sized.centre().x).margin(1.5));

  w.window.bench().setFocus();
  const double x = w.piece("name").at.x;
  QTest::keyClick(&w.window.bench(), Qt::Key_Right);
  CHECK(w.piece("name").at.x == Approx(x + 25.4 / 16));
  QTest::keyClick(&w.window.bench(), Qt::Key_N);
  CHECK(w.window.bench().selected() != "name");
  QTest::keyClick(&w.window.bench(), Qt::Key_Escape);
  CHECK(w.window.bench().selected().isEmpty());
}

TEST_CASE("a plain shape is sized on one side alone; a tab follows the mouse along its outline") {
  Window w;
  w.choose(Stage::Artwork, "border");
  const Box before = w.box("border");
  const QPointF side = w.window.bench().to_screen({before.right, before.centre().y}) + QPointF(5, 0);
  w.drag(side, side + QPointF(-30, 0));
  CHECK(w.box("border").width() < before.width());
  CHECK(w.box("border").height() == Approx(before.height()).margin(1e-3));
  w.settle();
  const auto tab = w.plan().piece("outline")->cuts.cut_out->tabs[0];
  const QPointF at = w.window.bench().to_screen(tab.at);
  w.drag(at, at + QPointF(tab.along.x, -tab.along.y) * 25);
  w.settle();
  REQUIRE(w.job().find("outline")->cut.through.tabs.placed.size() == 4);
  const auto placed = w.plan().piece("outline")->cuts.cut_out->tabs[0];
  CHECK(distance(placed.at, tab.at) > 5);
}

TEST_CASE("by number: size, place and turn") {
  Window w;
  w.choose(Stage::Artwork, "sprig");
  w.type("fromLeft", "2 in");
  CHECK(w.box("sprig").left == Approx(50.8).margin(1e-3));
  QTest::mouseClick(w.button("Centre front"), Qt::LeftButton);
  CHECK(w.box("sprig").centre().y == Approx(w.job().blank.height / 2).margin(1e-3));
}

TEST_CASE("lettering dragged too near the border is a verdict, and one key mends it") {  // the gate sign's walk
  Window w;
  w.window.document().edit("test", [](Job& job) { job.find("motto")->piece.at.y = 30; });
  w.choose(Stage::Cuts, "motto");
  w.settle();
  const auto near = [&] {
    return std::any_of(w.plan().verdicts.begin(), w.plan().verdicts.end(),
                       [](const Verdict& v) { return v.piece == "motto" && v.code == "inside-margin"; });
  };
  REQUIRE(near());
  w.judge();  // remedies are tried before they are offered
  REQUIRE(w.button("Move to the back") != nullptr);
  QTest::keyClick(&w.window, Qt::Key_F4);
  w.settle();
  CHECK_FALSE(near());
}

TEST_CASE("a stop writes nothing; mended by its button, the files are written and read back") {
  Window w;
  QTemporaryDir folder;
  w.window.document().edit("test", [](Job& job) { job.find("outline")->cut.through.tabs.wanted = false; });
  w.settle();
  CHECK(w.window.write_files(folder.path()).contains("Nothing was written"));
  CHECK(QDir(folder.path()).entryList(QDir::Files).isEmpty());
  w.choose(Stage::Proof, "");
  w.judge();
  REQUIRE(w.button("Place four tabs") != nullptr);
  QTest::mouseClick(w.button("Place four tabs"), Qt::LeftButton);
  w.settle();
  CHECK(w.window.write_files(folder.path()).contains("cut as wanted"));
  CHECK(QDir(folder.path()).entryList(QDir::Files).size() == static_cast<int>(w.plan().runs.size()) + 3);
  CHECK(w.window.write_files("/proc/nowhere").contains("/proc/nowhere"));
}

TEST_CASE("every verdict's place can be gone to, and remedies in the list are buttons that do it") {
  Window w;
  w.window.document().edit("test", [](Job& job) { job.find("sprig")->piece.at.x = 5; });
  w.choose(Stage::Proof, "");
  w.settle();
  w.judge();
  auto cards = w.window.findChildren<VerdictCard*>();
  REQUIRE_FALSE(cards.isEmpty());
  QTest::mouseClick(cards.first(), Qt::LeftButton, {}, {30, 8});
  CHECK(w.window.bench().selected() == "sprig");
}

TEST_CASE("the section follows its line and turns across the board") {
  Window w;
  const std::vector<float> before = w.window.strip().heights();
  REQUIRE(before.size() > 300);
  CHECK(*std::min_element(before.begin(), before.end()) < -18);  // right through at the cut-out
  w.window.bench().setFocus();
  QTest::keyClick(&w.window.bench(), Qt::Key_PageUp, Qt::ShiftModifier);
  QTest::qWait(400);
  CHECK(w.window.strip().heights() != before);
}

TEST_CASE("saved, changed, opened again: the same job; a damaged file leaves the open one alone") {
  Window w;
  QTemporaryDir folder;
  const QString path = folder.filePath("gate.doyen");
  w.window.document().edit("name", [](Job& job) { job.name = "Gate of the test"; });
  w.window.document().save(path);
  CHECK_FALSE(w.window.document().unsaved());
  const Job saved = w.job();
  w.window.document().edit("name", [](Job& job) { job.name = "Other"; });
  w.window.document().undo_stack().setClean();
  REQUIRE(w.window.open(path));
  CHECK(w.job().name == "Gate of the test");
  CHECK(w.job().items.size() == saved.items.size());
  write_file_atomically(folder.filePath("bad.doyen").toStdString(), "{ not a job");
  QString said;
  on_next_dialog([&](QDialog* d) { said = qobject_cast<QMessageBox*>(d)->text(); });
  CHECK_FALSE(w.window.open(folder.filePath("bad.doyen")));
  CHECK(said.contains("bad.doyen"));
  CHECK(w.job().name == "Gate of the test");
}

TEST_CASE("work that was not saved outlives a kill") {
  QProcess other;
  other.setProcessChannelMode(QProcess::MergedChannels);
  other.start(QCoreApplication::applicationFilePath(), {"--edit-and-wait"});
  REQUIRE(other.waitForStarted());
  bool edited = false;
  for (int i = 0; i < 200 && !edited; ++i) {
    other.waitForReadyRead(200);
    edited = other.readAll().contains("edited");
  }
  REQUIRE(edited);
  CHECK(JobDocument::recoverable().isEmpty());  // the other Doyen still holds it
  other.kill();                                 // SIGKILL
  other.waitForFinished();
  const auto found = JobDocument::recoverable();
  REQUIRE(found.size() == 1);
  CHECK(found[0].job_name == "Killed before saving");
  Window w;
  on_next_dialog([](QDialog* d) {
    for (QPushButton* b : d->findChildren<QPushButton*>()) {
      if (b->text() == "Restore it") QTest::mouseClick(b, Qt::LeftButton);
    }
  });
  w.window.offer_recovery();
  CHECK(w.job().name == "Killed before saving");
  CHECK(w.window.document().unsaved());
  w.window.document().save(QDir::temp().filePath("doyen-recovered.doyen"));
  CHECK(JobDocument::recoverable().isEmpty());
  QFile::remove(QDir::temp().filePath("doyen-recovered.doyen"));
}

TEST_CASE("the call box finds commands and pieces by words") {
  Window w;
  on_next_dialog([](QDialog* d) {
    QTest::keyClicks(d->findChild<QLineEdit*>(), "piece sprig");
    QTest::keyClick(d->findChild<QLineEdit*>(), Qt::Key_Return);
  });
  QTest::keyClick(&w.window, Qt::Key_K, Qt::ControlModifier);
  CHECK(w.window.bench().selected() == "sprig");
  // Keys with Ctrl are heard by the active window only; on a busy machine it comes back late.
  QTest::qWait(50);
  QApplication::setActiveWindow(&w.window);
  REQUIRE(QTest::qWaitFor([&] { return w.window.isActiveWindow(); }, 5'000));
  on_next_dialog([](QDialog* d) {
    QTest::keyClicks(d->findChild<QLineEdit*>(), "go run");
    QTest::keyClick(d->findChild<QLineEdit*>(), Qt::Key_Return);
  });
  QTest::keyClick(&w.window, Qt::Key_K, Qt::ControlModifier);
  CHECK(w.window.rail().current() == Stage::Run);
}

TEST_CASE("the rack keeps measured figures, and what cannot be is refused") {
  Window w;
  RackDialog dialog(load_rack(), w.job().lengths, &w.window);
  auto* table = dialog.findChild<QTableWidget*>();
  int row = -1;
  for (int r = 0; r < table->rowCount(); ++r) {
    if (table->item(r, 0)->text().startsWith("60")) row = r;
  }
  REQUIRE(row >= 0);
  table->item(row, 4)->setText("60.4");
  CHECK(dialog.rack().find("v60")->measured_angle == 60.4);
  table->item(row, 4)->setText("wide");
  CHECK(dialog.rack().find("v60")->measured_angle == 60.4);
  CHECK(table->item(row, 4)->text() == "60.4");
  // Each cell sound by itself, and together a bit that no file could hold: a tip wider than its body.
  const double body = dialog.rack().find("v60")->diameter;
  table->item(row, 5)->setText("0.5 mm");
  REQUIRE(dialog.rack().find("v60")->tip == Approx(0.5));
  table->item(row, 1)->setText("0.3 mm");
  CHECK(dialog.rack().find("v60")->diameter == body);
  table->item(row, 5)->setText("0");
  // What a test ladder showed stands in the last column: more or less contact for a V, an allowance for a flat bit.
  const int ladder = table->columnCount() - 1;
  table->item(row, ladder)->setText("-0.1 mm");
  CHECK(*dialog.rack().find("v60")->ladder_contact == Approx(-0.1));
  table->item(row, ladder)->setText("9 mm");
  CHECK(*dialog.rack().find("v60")->ladder_contact == Approx(-0.1));
  table->item(row, ladder)->setText("");
  CHECK_FALSE(dialog.rack().find("v60")->ladder_contact);
  int flat = -1, keyhole = -1;
  for (int r = 0; r < table->rowCount(); ++r) {
    if (table->item(r, 0)->text().startsWith("1/8 in flat")) flat = r;
    if (table->item(r, 0)->text().contains("keyhole")) keyhole = r;
  }
  REQUIRE(flat >= 0);
  REQUIRE(keyhole >= 0);
  table->item(flat, ladder)->setText("0.06 mm");
  CHECK(*dialog.rack().find("flat-1/8in")->ladder_allowance == Approx(0.06));
  CHECK_FALSE(table->item(keyhole, ladder)->flags().testFlag(Qt::ItemIsEditable));
}

TEST_CASE("a drawing dropped on the board becomes a piece; other files are refused in words") {
  Window w;
  const auto drop = [&](const QString& path) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter({200, 200}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&w.window, &enter);
    QDropEvent event({200, 200}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&w.window, &event);
  };
  const std::size_t before = w.job().items.size();
  drop(QString::fromStdString(data_file("demo/sprig.svg")));
  REQUIRE(w.job().items.size() == before + 1);
  CHECK(std::holds_alternative<Drawing>(w.job().items.back().piece.what));
  CHECK(w.window.rail().current() == Stage::Artwork);
  QString said;
  on_next_dialog([&](QDialog* d) { said = qobject_cast<QMessageBox*>(d)->text(); });
  drop("/etc/hostname");
  CHECK_FALSE(said.isEmpty());
  CHECK(w.job().items.size() == before + 1);
}

TEST_CASE("pieces are added, copied and removed by their buttons") {
  Window w;
  w.choose(Stage::Artwork, "name");
  const std::size_t before = w.job().items.size();
  QTest::mouseClick(w.find<QPushButton>("addLettering"), Qt::LeftButton);
  REQUIRE(w.job().items.size() == before + 1);
  QTest::keyClicks(w.find<QPlainTextEdit>("words"), "Thyme");  // the words are chosen, ready to be typed over
  CHECK(words_of(w.job().items.back().piece) == "Thyme");
  QTest::mouseClick(w.find<QPushButton>("copyPiece"), Qt::LeftButton);
  CHECK(w.job().items.size() == before + 2);
  QTest::mouseClick(w.find<QPushButton>("removePiece"), Qt::LeftButton);
  CHECK(w.job().items.size() == before + 1);
}

TEST_CASE("stages can be walked with the keys alone") {
  Window w;
  for (int i = 0; i < kStages; ++i) {
    QTest::keyClick(&w.window, static_cast<Qt::Key>(Qt::Key_1 + i), Qt::AltModifier);
    CHECK(static_cast<int>(w.window.rail().current()) == i);
    // Tab walks through the ticket's fields and comes back.
    QSet<QWidget*> met;
    for (int k = 0; k < 80; ++k) {
      QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : &w.window, Qt::Key_Tab);
      if (QApplication::focusWidget()) met.insert(QApplication::focusWidget());
    }
    CHECK(met.size() >= 3);
    CHECK(met.contains(&w.window.bench()));
  }
}

TEST_CASE("planning can be cancelled, and the last picture stays") {
  Window w;
  const auto before = w.window.plan();
  w.window.document().edit("more", [](Job& job) {
    for (int i = 0; i < 30; ++i) {
      Item copy = *job.find("name");
      copy.piece.id = "copy-" + std::to_string(i);
      copy.piece.turn = 3 * i + 1;
      job.items.push_back(copy);
    }
  });
  CHECK(w.window.planner().busy());
  w.window.planner().cancel();
  CHECK_FALSE(w.window.planner().busy());
  QTest::qWait(300);
  CHECK(w.window.plan() == before);
  w.window.document().undo_stack().undo();
  w.settle();
}

TEST_CASE("words are bent on an arc, along a piece and into one by the ticket") {
  Window w;
  w.choose(Stage::Artwork, "garden");
  auto* setting = w.find<QComboBox>("setting");
  const auto set = [&](int how) {
    setting->setCurrentIndex(how);
    Q_EMIT setting->activated(how);
  };
  set(1);
  CHECK(std::get<Lettering>(w.piece("garden").what).arc_radius > 20);
  w.type("radius", "10 in");
  CHECK(std::get<Lettering>(w.piece("garden").what).arc_radius == Approx(254));
  set(4);
  CHECK_FALSE(std::get<Lettering>(w.piece("garden").what).inside.empty());
  w.settle();
  CHECK(w.plan().piece("garden")->problem.empty());
  set(0);
  CHECK(std::get<Lettering>(w.piece("garden").what).arc_radius == 0);
}

TEST_CASE("something made from a piece follows it, and can be frozen") {
  Window w;
  w.choose(Stage::Artwork, "sprig");
  const std::size_t before = w.job().items.size();
  QAction* mirror = nullptr;
  for (QAction* action : w.find<QPushButton>("madeFrom")->menu()->actions()) {
    if (action->text() == "Mirrored") mirror = action;
  }
  REQUIRE(mirror != nullptr);
  mirror->trigger();
  REQUIRE(w.job().items.size() == before + 1);
  const std::string id = w.job().items.back().piece.id;
  const auto box = [&] { return bounds(outlines_of(w.job().find(id)->piece, w.job().source()).region); };
  const double left = box().left;
  w.window.document().edit("move", [](Job& job) { job.find("sprig")->piece.at.x += 12; });
  CHECK(box().left == Approx(left + 12).margin(0.01));
  w.choose(Stage::Artwork, id.c_str());
  REQUIRE(w.button("Make it independent") != nullptr);
  QTest::mouseClick(w.button("Make it independent"), Qt::LeftButton);
  CHECK(std::holds_alternative<Drawing>(w.job().find(id)->piece.what));
  CHECK(box().left == Approx(left + 12).margin(0.05));
}

TEST_CASE("every plain shape is added from the menu and planned") {
  Window w;
  const auto actions = w.find<QPushButton>("addShape")->menu()->actions();
  const qsizetype shapes = ArtworkTicket::shape_names().size();
  REQUIRE(actions.size() > shapes);  // what is drawn by hand and the border come after them
  const std::size_t before = w.job().items.size();
  for (qsizetype i = 0; i < shapes; ++i) actions[i]->trigger();
  CHECK(w.job().items.size() == before + static_cast<std::size_t>(shapes));
  w.settle();
  for (const auto& piece : w.plan().pieces) CHECK(piece->problem.empty());
}

TEST_CASE("a clamp in the way is a stop, drawn on the board, and shifted clear by a button") {
  Window w;
  w.window.document().edit("without the demo's own", [](Job& job) { job.blank.keep_outs.clear(); });
  w.choose(Stage::Blank, "");
  w.find<QPushButton>("addKeepOut")->menu()->actions().first()->trigger();
  REQUIRE(w.job().blank.keep_outs.size() == 1);
  w.type("keepX", QString::number(w.box("motto").centre().x / 25.4, 'f', 3));
  w.window.document().edit("test", [&](Job& job) { job.blank.keep_outs[0].y = w.box("motto").centre().y; });
  w.settle();
  CHECK(w.plan().has_stop());
  w.choose(Stage::Proof, "");
  w.judge();
  REQUIRE(w.button("I have moved the clamp") != nullptr);
  QTest::mouseClick(w.button("I have moved the clamp"), Qt::LeftButton);
  w.settle();
  CHECK_FALSE(w.plan().has_stop());
}
