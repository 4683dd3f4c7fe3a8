// After a run, in the real window: two questions, kept; offered at the next job; looked at, searched, taken back; and a
// spoiled board mended.
#include <QDir>
#include <QDoubleSpinBox>
#include <QFile>
#include <QLineEdit>
#include <QListWidget>
#include <QMessageBox>
#include <QSettings>
#include <QTemporaryDir>

#include "log/entry_of.hpp"
#include "log/log_book.hpp"
#include "stages/log/log_dialog.hpp"
#include "stages/run/run_ticket.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void no_log() {
  for (const char* end : {"", "-journal"}) QFile::remove(QString::fromStdString(log_path()) + QLatin1String(end));
}

std::vector<LogEntry> kept_runs() { return LogBook(log_path()).entries(); }

// The visible row that asks what went wrong, counted from 0.
QWidget* mishap_row(Window& w, int i) {
  QList<QWidget*> rows;
  for (QComboBox* box : w.window.findChildren<QComboBox*>(QStringLiteral("mishap"))) {
    if (box->isVisible()) rows << box->parentWidget();
  }
  REQUIRE(rows.size() > i);
  return rows[i];
}

void pick_words(QComboBox* box, const QString& words) {
  const int i = box->findText(words);
  INFO(words.toStdString());
  REQUIRE(i >= 0);
  box->setFocus();
  while (box->currentIndex() != i) QTest::keyClick(box, box->currentIndex() < i ? Qt::Key_Down : Qt::Key_Up);
}

const Verdict* verdict_named(Window& w, const char* code) {
  for (const Verdict& v : w.plan().verdicts) {
    if (v.code == code) return &v;
  }
  return nullptr;
}

// Does this with the log while it is open.
void in_the_log(Window& w, const std::function<void(LogDialog&)>& act) {
  bool seen = false;
  on_next_dialog([&](QDialog* dialog) {
    auto* log = qobject_cast<LogDialog*>(dialog);
    REQUIRE(log != nullptr);
    seen = true;
    act(*log);
  });
  w.choose(Stage::Run, "");
  QTest::mouseClick(w.reach<QPushButton>("openLog"), Qt::LeftButton);
  CHECK(seen);
}

}  // namespace

TEST_CASE("how a run came out is kept with two answers, and said when a like job is planned") {
  no_log();
  Window w;
  w.choose(Stage::Run, "");
  auto* outcome = w.reach<QComboBox>("outcome");
  auto* keep = w.find<QPushButton>("keepRun");
  CHECK_FALSE(keep->isEnabled());
  CHECK(verdict_named(w, "learnt-through") == nullptr);
  pick_words(outcome, QStringLiteral("something went wrong"));
  CHECK_FALSE(keep->isEnabled());  // what?
  auto* kind = mishap_row(w, 0)->findChild<QComboBox*>(QStringLiteral("mishap"));
  pick_words(kind, QStringLiteral("not through"));
  CHECK(keep->isEnabled());
  auto* by = mishap_row(w, 0)->findChild<LengthField*>(QStringLiteral("mishapBy"));
  REQUIRE(by->isVisible());
  CHECK_FALSE(mishap_row(w, 0)->findChild<QComboBox*>(QStringLiteral("mishapBit"))->isVisible());
  by->setFocus();
  QTest::keyClicks(by, QStringLiteral("0.3 mm"));
  // A second thing, with its bit.
  pick_words(mishap_row(w, 1)->findChild<QComboBox*>(QStringLiteral("mishap")), QStringLiteral("rough or torn"));
  auto* bit = mishap_row(w, 1)->findChild<QComboBox*>(QStringLiteral("mishapBit"));
  REQUIRE(bit->isVisible());
  pick_words(bit, bit->itemText(bit->findData(QStringLiteral("v60"))));
  QTest::mouseClick(keep, Qt::LeftButton);
  std::vector<LogEntry> log = kept_runs();
  REQUIRE(log.size() == 1);
  CHECK_FALSE(log.front().well);
  REQUIRE(log.front().mishaps.size() == 2);
  CHECK(log.front().mishaps[0] == MishapSeen{Mishap::NotThrough, 0.3, {}});
  CHECK(log.front().mishaps[1] == MishapSeen{Mishap::Rough, 0, "v60"});
  CHECK(LogBook(log_path()).pictures(log.front().id).size() == 1);
  CHECK(outcome->currentIndex() == 0);  // answered
  w.settle();
  REQUIRE(verdict_named(w, "learnt-through") != nullptr);
  REQUIRE(verdict_named(w, "learnt-feed") != nullptr);
  // Its remedy is one click, and then it is not said any more.
  w.judge();
  w.choose(Stage::Proof, "");
  QPushButton* deeper = w.button(QStringLiteral("Go 0.022 in past"));
  REQUIRE(deeper != nullptr);
  QTest::mouseClick(deeper, Qt::LeftButton);
  w.settle();
  CHECK(verdict_named(w, "learnt-through") == nullptr);
  CHECK(*w.job().find("outline")->cut.through.over_cut == Approx(0.022 * 25.4));
  // The next run says what was changed, and asks why.
  w.choose(Stage::Run, "");
  w.reach<QComboBox>("outcome");
  CHECK_THAT(w.find<QLabel>("changedSince")->text().toStdString(),
             Catch::Contains("over cut") && Catch::Contains("0.5588"));
  auto* why = w.find<QLineEdit>("changedWhy");
  REQUIRE(why->isVisible());
  why->setFocus();
  QTest::keyClicks(why, QStringLiteral("hung by a skin"));
  pick_words(outcome, QStringLiteral("well"));
  QTest::mouseClick(keep, Qt::LeftButton);
  log = kept_runs();
  REQUIRE(log.size() == 2);
  CHECK(log.front().why == "hung by a skin");
  // Taken back, it is as if it had not been said.
  auto* back = w.find<QPushButton>("takeRunBack");
  REQUIRE(back->isVisible());
  QTest::mouseClick(back, Qt::LeftButton);
  CHECK(kept_runs().size() == 1);
  CHECK_FALSE(back->isVisible());
  no_log();
}

TEST_CASE("what is being answered is not lost to an edit of the job, nor carried over to another job") {
  no_log();
  Window w;
  w.choose(Stage::Run, "");
  auto* outcome = w.reach<QComboBox>("outcome");
  auto* words = w.find<QLineEdit>("runWords");
  pick_words(outcome, QStringLiteral("well"));
  words->setFocus();
  QTest::keyClicks(words, QStringLiteral("clean"));
  w.window.document().edit(QStringLiteral("wider"), [](Job& job) { job.blank.width += 1; });
  w.settle();
  CHECK(outcome->currentText() == QStringLiteral("well"));
  CHECK(words->text() == QStringLiteral("clean"));
  // Nor to another name, nor to being saved.
  w.window.document().edit(QStringLiteral("another name"), [](Job& job) { job.name = "Garden gate"; });
  w.settle();
  const QString file =
      QDir::temp().filePath(QStringLiteral("doyen-log-%1.doyen").arg(QCoreApplication::applicationPid()));
  w.window.document().save(file);
  w.settle();
  CHECK(outcome->currentText() == QStringLiteral("well"));
  CHECK(words->text() == QStringLiteral("clean"));
  QFile::remove(file);
  w.window.document().undo_stack().setClean();
  w.window.open_demo(QStringLiteral("dibber-board"));
  w.settle();
  w.choose(Stage::Run, "");
  CHECK(outcome->currentIndex() == 0);
  CHECK(words->text().isEmpty());
  no_log();
}

TEST_CASE("the log is searched, its words are changed, and a job is opened as it was") {
  no_log();
  Window w;
  w.choose(Stage::Run, "");
  pick_words(w.reach<QComboBox>("outcome"), QStringLiteral("well"));
  QTest::mouseClick(w.find<QPushButton>("keepRun"), Qt::LeftButton);
  w.window.document().edit(QStringLiteral("wider"), [](Job& job) { job.blank.width += 25.4; });
  w.settle();
  in_the_log(w, [&](LogDialog& dialog) {
    auto* list = dialog.findChild<QListWidget*>(QStringLiteral("logList"));
    CHECK(list->count() == 1);
    auto* search = dialog.findChild<QLineEdit*>(QStringLiteral("logSearch"));
    QTest::keyClicks(search, QStringLiteral("walnut"));
    CHECK(list->count() == 0);
    search->clear();
    QTest::keyClicks(search, QStringLiteral("CEDAR v60"));
    CHECK(list->count() == 1);
    CHECK_THAT(dialog.findChild<QLabel*>(QStringLiteral("logDetails"))->text().toStdString(),
               Catch::Contains("came out well") && Catch::Contains("in/min"));
    // Typed and not confirmed, then closed: kept.
    auto* words = dialog.findChild<QLineEdit*>(QStringLiteral("logWords"));
    words->setFocus();
    QTest::keyClicks(words, QStringLiteral("for the gate"));
    QTest::keyClick(&dialog, Qt::Key_Escape);
  });
  CHECK(kept_runs().front().words == "for the gate");
  const double wide = w.job().blank.width;
  w.window.document().undo_stack().setClean();
  in_the_log(w, [](LogDialog& dialog) {
    QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("logOpen")), Qt::LeftButton);
  });
  w.settle();
  CHECK(w.job().blank.width == Approx(wide - 25.4));
  // A log that cannot be read is said and left alone.
  QFile file(QString::fromStdString(log_path()));
  REQUIRE(file.open(QIODevice::WriteOnly | QIODevice::Truncate));
  file.write("not a log");
  file.close();
  in_the_log(w, [](LogDialog& dialog) {
    CHECK_THAT(dialog.findChild<QLabel*>(QStringLiteral("logSays"))->text().toStdString(),
               Catch::Contains("no log of Doyen"));
  });
  REQUIRE(file.open(QIODevice::ReadOnly));
  CHECK(file.readAll() == "not a log");
  file.close();
  // Put aside by a button, a new one is begun, and it is said where the old one lies.
  in_the_log(w, [](LogDialog& dialog) {
    auto* aside = dialog.findChild<QPushButton*>(QStringLiteral("logAside"));
    REQUIRE(aside->isVisible());
    QTest::mouseClick(aside, Qt::LeftButton);
    CHECK_FALSE(aside->isVisible());
    CHECK_THAT(dialog.findChild<QLabel*>(QStringLiteral("logSays"))->text().toStdString(),
               Catch::Contains("damaged-1"));
  });
  CHECK(kept_runs().empty());
  QFile aside(QString::fromStdString(log_path() + ".damaged-1"));
  REQUIRE(aside.open(QIODevice::ReadOnly));
  CHECK(aside.readAll() == "not a log");
  aside.remove();
  no_log();
}

TEST_CASE("a letter that broke out: a patch for it, and the letter cut again, each as a job of its own") {
  no_log();
  Window w;
  w.window.resize(1280, 800);
  w.window.select(QStringLiteral("name"));
  w.choose(Stage::Run, "name");
  pick_words(w.reach<QComboBox>("outcome"), QStringLiteral("something went wrong"));
  pick_words(mishap_row(w, 0)->findChild<QComboBox*>(QStringLiteral("mishap")), QStringLiteral("wood broke out"));
  CHECK_THAT(w.find<QLabel>("firstAid")->text().toStdString(), Catch::Contains("chip"));
  auto* part = w.find<QComboBox>("rescuePart");
  REQUIRE(part->isVisible());
  CHECK(part->count() == 9);  // all of it, and eight letters
  pick_words(part, part->itemText(3));
  w.window.document().undo_stack().setClean();
  QTest::qWait(50);
  // Nothing of it is wider than the ticket, so no line of words is cut.
  for (const char* name : {"firstAid", "rescueOf", "afterRunSays"}) {
    const auto* label = w.find<QLabel>(name);
    INFO(name);
    CHECK(label->height() >= label->heightForWidth(label->width()));
  }
  auto* patch = w.find<QPushButton>("makePatch");
  REQUIRE(patch->isVisible());
  REQUIRE(patch->isEnabled());
  QTest::qWait(50);
  QTest::mouseClick(patch, Qt::LeftButton);
  w.settle();
  INFO(w.find<QLabel>("rescueSays")->text().toStdString());
  REQUIRE(w.job().items.size() == 1);
  CHECK(w.job().items.front().cut.kind == Treatment::Kind::Recess);
  CHECK(w.window.rail().current() == Stage::Proof);
  REQUIRE(kept_runs().size() == 1);  // what was said is kept, whatever comes after
  CHECK(kept_runs().front().mishaps.front().mishap == Mishap::BrokeOut);
  no_log();
}

TEST_CASE("how a run came out is said anew in the log, and one picture of two is taken out of it") {
  no_log();
  Window w;
  w.choose(Stage::Run, "");
  pick_words(w.reach<QComboBox>("outcome"), QStringLiteral("well"));
  QTest::mouseClick(w.find<QPushButton>("keepRun"), Qt::LeftButton);
  REQUIRE(kept_runs().size() == 1);
  const std::int64_t id = kept_runs().front().id;
  LogBook(log_path()).add_picture(id, LogBook(log_path()).pictures(id).front());
  in_the_log(w, [](LogDialog& dialog) {
    on_next_dialog([](QDialog* asks) {
      auto* outcome = asks->findChild<QComboBox*>(QStringLiteral("outcomeAnew"));
      REQUIRE(outcome != nullptr);
      CHECK(outcome->currentText() == QStringLiteral("well"));
      pick_words(outcome, QStringLiteral("something went wrong"));
      auto* keep = asks->findChild<QPushButton*>(QStringLiteral("keepOutcome"));
      CHECK_FALSE(keep->isEnabled());  // what, is not said
      pick_words(asks->findChild<QComboBox*>(QStringLiteral("mishap")), QStringLiteral("too shallow"));
      auto* by = asks->findChild<QLineEdit*>(QStringLiteral("mishapBy"));
      by->setFocus();
      QTest::keyClicks(by, QStringLiteral("0.5 mm"));
      QTest::keyClick(by, Qt::Key_Tab);
      REQUIRE(keep->isEnabled());
      QTest::mouseClick(keep, Qt::LeftButton);
    });
    QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("logOutcome")), Qt::LeftButton);
    CHECK_THAT(dialog.findChild<QLabel*>(QStringLiteral("logDetails"))->text().toStdString(),
               Catch::Contains("too shallow"));
    on_next_dialog([](QDialog* sure) {
      auto* box = qobject_cast<QMessageBox*>(sure);
      REQUIRE(box != nullptr);
      QTest::mouseClick(box->button(QMessageBox::Ok), Qt::LeftButton);
    });
    QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("logPictureOut0")), Qt::LeftButton);
    QTest::qWait(20);
    CHECK(dialog.findChild<QPushButton*>(QStringLiteral("logPictureOut1")) == nullptr);
  });
  const LogEntry now = kept_runs().front();
  CHECK_FALSE(now.well);
  REQUIRE(now.mishaps.size() == 1);
  CHECK(now.mishaps.front().mm == Approx(0.5).margin(0.01));
  CHECK(now.took == 0);
  CHECK(LogBook(log_path()).pictures(id).size() == 1);
  no_log();
}

TEST_CASE("a job whose files were written asks how it came out when it is opened again, until that is said") {
  no_log();
  QSettings().remove(QStringLiteral("unsaidRuns"));
  QTemporaryDir folder;
  const QString file = folder.filePath(QStringLiteral("sign.doyen"));
  Window w;
  w.window.document().save(file);
  Job job = w.job();
  CHECK(AfterRunSection::unsaid_since(job).isEmpty());
  w.choose(Stage::Run, "");
  auto* run = w.window.findChild<RunTicket*>();
  run->show_written(QStringLiteral("written"), true, folder.path());
  CHECK_FALSE(AfterRunSection::unsaid_since(job).isEmpty());
  w.find<QAbstractButton>("afterRunOpen")->setChecked(false);
  REQUIRE(w.window.open(file));
  w.settle();
  CHECK(what_changed(write_job(job), write_job(w.job())) == std::vector<std::string>{});
  CHECK(fingerprint(job) == fingerprint(w.job()));
  CHECK_FALSE(AfterRunSection::unsaid_since(w.job()).isEmpty());
  w.choose(Stage::Run, "");
  CHECK(w.find<QComboBox>("outcome")->isVisible());
  CHECK_THAT(w.find<QLabel>("afterRunSays")->text().toStdString(), Catch::Contains("were written on"));
  auto* not_run = w.reach<QPushButton>("notRun");
  REQUIRE(not_run->isVisible());
  // Said: nobody asks any more.
  pick_words(w.reach<QComboBox>("outcome"), QStringLiteral("well"));
  QTest::mouseClick(w.find<QPushButton>("keepRun"), Qt::LeftButton);
  CHECK_FALSE(not_run->isVisible());
  CHECK(AfterRunSection::unsaid_since(w.job()).isEmpty());
  // Written again and not run: that ends it, too, and nothing is kept of it.
  run->show_written(QStringLiteral("written"), true, folder.path());
  REQUIRE(not_run->isVisible());
  QTest::mouseClick(not_run, Qt::LeftButton);
  CHECK_FALSE(not_run->isVisible());
  CHECK(AfterRunSection::unsaid_since(w.job()).isEmpty());
  CHECK(kept_runs().size() == 1);
  no_log();
}

TEST_CASE("a bit that broke leads to the rest of its file; a groove too deep to a piece that fills it") {
  no_log();
  Window w;
  w.window.select(QStringLiteral("garden"));
  w.choose(Stage::Run, "garden");
  pick_words(w.reach<QComboBox>("outcome"), QStringLiteral("something went wrong"));
  auto* what = mishap_row(w, 0)->findChild<QComboBox*>(QStringLiteral("mishap"));
  pick_words(what, QStringLiteral("a bit broke"));
  auto* rest = w.reach<QPushButton>("toRestOfFile");
  REQUIRE(rest->isVisible());
  QTest::mouseClick(rest, Qt::LeftButton);
  auto* file = w.find<QComboBox>("againFile");
  CHECK(file->isVisible());
  CHECK(file->count() == static_cast<int>(w.plan().runs.size()));
  pick_words(what, QStringLiteral("too deep"));
  CHECK_FALSE(rest->isVisible());
  w.window.document().undo_stack().setClean();
  QTest::mouseClick(w.reach<QPushButton>("makeFill"), Qt::LeftButton);
  w.settle();
  INFO(w.find<QLabel>("rescueSays")->text().toStdString());
  REQUIRE(w.job().items.size() == 1);
  CHECK(w.job().items.front().cut.kind == Treatment::Kind::Plug);
  CHECK_FALSE(w.plan().has_stop());
  no_log();
}
