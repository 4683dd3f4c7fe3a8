// The open job by itself: edits with names, merged typing, saving, recovery; and the small parts of the window.
#include <QComboBox>
#include <QDir>
#include <QFile>
#include <QLineEdit>
#include <QSignalSpy>
#include <QSpinBox>
#include <QTemporaryDir>
#include <QWheelEvent>

#include "problem.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void rename(JobDocument& document, const char* name, const QString& merge = {}) {
  document.edit(
      QStringLiteral("name it %1").arg(QLatin1String(name)), [&](Job& job) { job.name = name; }, merge);
}

}  // namespace

TEST_CASE("edits are undone and redone one by one, typing in one go") {
  JobDocument document;
  QSignalSpy changed(&document, &JobDocument::changed);
  rename(document, "a");
  rename(document, "b", "typing");
  rename(document, "bc", "typing");
  rename(document, "bcd", "typing");
  CHECK(changed.count() == 4);
  CHECK(document.undo_stack().count() == 2);
  document.undo_stack().undo();
  CHECK(document.job().name == "a");
  document.undo_stack().undo();
  CHECK(document.job().name == "New sign");
  document.undo_stack().redo();
  document.undo_stack().redo();
  CHECK(document.job().name == "bcd");
  CHECK(document.undo_stack().undoText().startsWith("name it b"));
}

TEST_CASE("an edit that changes nothing leaves no trace") {
  JobDocument document;
  document.edit("nothing", [](Job&) {});
  CHECK(document.undo_stack().count() == 0);
  CHECK_FALSE(document.unsaved());
}

TEST_CASE(
    "saving makes clean, undoing past it makes unsaved again; a folder that takes nothing keeps the job unsaved") {
  QTemporaryDir folder;
  JobDocument document;
  rename(document, "a");
  CHECK(document.unsaved());
  document.save(folder.filePath("a.doyen"));
  CHECK_FALSE(document.unsaved());
  document.undo_stack().undo();
  CHECK(document.unsaved());
  document.undo_stack().redo();
  CHECK_FALSE(document.unsaved());
  rename(document, "b");
  CHECK_THROWS_AS(document.save("/proc/none/a.doyen"), Problem);
  CHECK(document.unsaved());
  CHECK(document.path() == folder.filePath("a.doyen"));
  JobDocument again;
  again.replace(load_job(folder.filePath("a.doyen").toStdString()), folder.filePath("a.doyen"));
  CHECK(again.job().name == "a");
}

TEST_CASE("a recovery copy is there while work is unsaved, and goes when it is saved or dropped") {
  QTemporaryDir folder;
  {
    JobDocument document;
    rename(document, "unsaved work");
    document.write_recovery();
    // Held by this very document: it is offered to nobody while that lives.
    CHECK(JobDocument::recoverable().isEmpty());
    document.save(folder.filePath("a.doyen"));
    CHECK(QDir(qEnvironmentVariable("XDG_DATA_HOME") + "/doyen/recovery").entryList({"*.doyen"}).isEmpty());
  }
  CHECK(JobDocument::recoverable().isEmpty());
}

TEST_CASE("a length field keeps what it had when it is left with nonsense, and speaks the job's unit") {
  LengthField field({1, 100});
  QSignalSpy entered(&field, &LengthField::entered);
  field.show_length(12.7, {Unit::Inch, true, 64});
  CHECK(field.text() == "1/2\"");
  const auto type = [&](const char* text) {
    field.selectAll();
    QTest::keyClicks(&field, text);
    QTest::keyClick(&field, Qt::Key_Return);
  };
  type("3/4");
  REQUIRE(entered.count() == 1);
  CHECK(entered.last().first().value<std::optional<double>>().value_or(0) == Approx(19.05));
  type("500 in");
  CHECK(entered.count() == 1);
  CHECK(field.property("wrong").toBool());
  CHECK(field.toolTip().contains("in"));
  type("10 mm");
  CHECK(entered.count() == 2);
  CHECK_FALSE(field.property("wrong").toBool());
}

TEST_CASE("the wheel comes closer to what lies under it; Home shows all again") {
  Window w;
  Bench& bench = w.window.bench();
  const QPointF at(300, 200);
  const Point under = bench.to_board(at);
  QWheelEvent wheel(at, bench.mapToGlobal(at), {}, {0, 480}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
  QApplication::sendEvent(&bench, &wheel);
  CHECK(bench.to_board(at).x == Approx(under.x).margin(1e-6));
  CHECK(bench.to_board(at).y == Approx(under.y).margin(1e-6));
  const double closer = bench.to_screen({1, 0}).x() - bench.to_screen({0, 0}).x();
  bench.setFocus();
  QTest::keyClick(&bench, Qt::Key_Home);
  CHECK(bench.to_screen({1, 0}).x() - bench.to_screen({0, 0}).x() < closer / 1.5);
  w.settle();
  const Blank& blank = w.job().blank;
  CHECK(bench.rect().contains(bench.to_screen({0, 0}).toPoint()));
  CHECK(bench.rect().contains(bench.to_screen({blank.width, blank.height}).toPoint()));
}

TEST_CASE("going to a place off the screen brings it into view") {
  Window w;
  Bench& bench = w.window.bench();
  for (int i = 0; i < 6; ++i) QTest::keyClick(&bench, Qt::Key_Plus);
  const Point far{w.job().blank.width - 5, w.job().blank.height - 5};
  bench.go_to(far);
  CHECK(bench.rect().contains(bench.to_screen(far).toPoint()));
}

TEST_CASE("the section's profile is the relief along its line") {
  Window w;
  const SectionLine line{true, w.plan().piece("name")->cuts.deepest_at.y};
  w.window.bench().set_section(line);
  w.window.strip().set_line(line);
  QTest::qWait(500);
  const auto& heights = w.window.strip().heights();
  const double cell = w.job().blank.width / static_cast<double>(heights.size());
  const auto at = static_cast<std::size_t>(w.plan().piece("name")->cuts.deepest_at.x / cell);
  double lowest = 0;
  for (std::size_t i = at - 2; i <= at + 2; ++i) lowest = std::min(lowest, static_cast<double>(heights[i]));
  CHECK(lowest == Approx(-w.plan().piece("name")->cuts.deepest).margin(0.35));
}

TEST_CASE("lamps tell by shape as well as by colour") {
  const QImage stop = lamp_picture(Lamp::Stop, 16, 1).toImage(), mind = lamp_picture(Lamp::Mind, 16, 1).toImage(),
               fine = lamp_picture(Lamp::Fine, 16, 1).toImage();
  const auto shape = [](const QImage& i) {
    QString bits;
    for (int y = 0; y < i.height(); ++y) {
      for (int x = 0; x < i.width(); ++x) bits += qAlpha(i.pixel(x, y)) > 128 ? '1' : '0';
    }
    return bits;
  };
  CHECK(shape(stop) != shape(mind));
  CHECK(shape(mind) != shape(fine));
  CHECK(shape(stop) != shape(fine));
}

TEST_CASE("machine, zero, files and holding are chosen under Run and reach the plan") {
  Window w;
  w.choose(Stage::Run, "");
  const auto pick = [&](const QString& words) {
    for (QComboBox* box : w.ticket()->findChildren<QComboBox*>()) {
      const int i = box->findText(words, Qt::MatchContains);
      if (i < 0) continue;
      box->setCurrentIndex(i);
      Q_EMIT box->activated(i);
      return true;
    }
    return false;
  };
  REQUIRE(pick("one file with pauses"));
  CHECK(w.job().run.one_file);
  REQUIRE(pick("on the bed"));
  CHECK(w.job().run.zero_surface == ZeroSurface::Bed);
  REQUIRE(pick("in the middle"));
  CHECK(w.job().run.zero_place == ZeroPlace::Centre);
  w.settle();
  QTemporaryDir folder;
  CHECK(w.window.write_files(folder.path()).contains("cut as wanted"));
  CHECK(QFile::exists(folder.filePath("01-marrowby-gate-all-bits.nc")));
}

TEST_CASE("the blank's own figures change what is planned") {
  Window w;
  w.choose(Stage::Blank, "");
  w.type("readings", "0.7; 0.72");
  CHECK(w.job().blank.readings.size() == 2);
  w.settle();
  CHECK(w.plan().piece("outline")->cuts.deepest == Approx(0.73 * 25.4).margin(1e-6));
  const Job before = w.job();
  w.type("readings", "thick");
  CHECK(w.job() == before);
  w.type("blankWidth", "30 in");
  CHECK(w.job().blank.width == Approx(762));
}

TEST_CASE("nothing chosen, an empty job: every stage says what to do next") {
  Window w;
  w.window.document().replace(Job{}, {});
  w.settle();
  for (const Stage stage : {Stage::Blank, Stage::Artwork, Stage::Cuts, Stage::Proof, Stage::Run}) {
    w.choose(stage, "");
    QString words;
    for (QLabel* label : w.ticket()->findChildren<QLabel*>()) {
      if (label->isVisible()) words += label->text() + ' ';
    }
    CHECK(words.size() > 40);
  }
  CHECK(w.window.rail().words(Stage::Artwork) == "nothing yet");
  CHECK(w.window.rail().words(Stage::Run) == "nothing to run");
}
