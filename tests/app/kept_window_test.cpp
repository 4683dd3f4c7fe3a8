// What the user said is kept: keys in every order, the wheel, other hands on the same file, a disk that is full.
#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QMessageBox>
#include <QProcess>
#include <QSpinBox>
#include <QTemporaryDir>
#include <QTimer>
#include <QWheelEvent>

#include "json_reading.hpp"
#include "parts/entry_field.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "tests/core/failing_calls.hpp"
#include "window_probe.hpp"
#include "work/job_document.hpp"

using namespace probe;

namespace {

void press(QDialog* dialog, const QString& words) {
  for (QPushButton* b : dialog->findChildren<QPushButton*>()) {
    if (b->text().contains(words)) return QTest::mouseClick(b, Qt::LeftButton);
  }
  FAIL("no button says " << words.toStdString());
}

void turn_wheel(QWidget* widget, int by = -120) {
  const QPointF middle(widget->width() / 2.0, widget->height() / 2.0);
  QWheelEvent event(middle, widget->mapToGlobal(middle), {}, {0, by}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                    false);
  QApplication::sendEvent(widget, &event);
}

const std::vector<std::pair<Stage, const char*>> kPlaces{
    {Stage::Blank, ""},    {Stage::Artwork, "name"}, {Stage::Artwork, "sprig"}, {Stage::Artwork, "outline"},
    {Stage::Cuts, "name"}, {Stage::Cuts, "outline"}, {Stage::Run, ""}};

QString recovery_folder() { return qEnvironmentVariable("XDG_DATA_HOME") + "/doyen/recovery"; }

}  // namespace

TEST_CASE("typing through any field with Tab replaces what stands there, whatever is shown anew meanwhile") {
  Window w;
  int fields = 0;
  for (const auto& [stage, piece] : kPlaces) {
    w.choose(stage, piece);
    for (EntryField* field : w.window.findChildren<EntryField*>()) {
      if (!field->isVisible() || !field->isEnabled() || field->isReadOnly()) continue;
      ++fields;
      INFO(field->objectName().toStdString()
           << " " << field->accessibleName().toStdString() << " “" << field->text().toStdString() << "”");
      field->setFocus(Qt::TabFocusReason);
      REQUIRE(field->hasFocus());
      // A plan arrives, and with it every figure is shown anew.
      w.window.document().edit("note", [](Job& job) { job.run.holding += "."; });
      w.settle();
      QTest::keyClicks(field, "9");
      CHECK(field->text().toStdString() == "9");
      // And again in the middle of typing.
      w.window.document().edit("note", [](Job& job) { job.run.holding += "."; });
      w.settle();
      QTest::keyClicks(field, "1");
      CHECK(field->text().toStdString() == "91");
      QTest::keyClick(field, Qt::Key_Escape);
      field->clearFocus();
    }
  }
  CHECK(fields > 15);
}

TEST_CASE("an emptied name is not taken, and the wheel over what nobody clicked into changes nothing") {
  Window w;
  w.window.go_to_stage(Stage::Blank);
  const std::string name = w.job().name;
  for (EntryField* field : w.window.findChildren<EntryField*>()) {
    if (!field->isVisible() || qobject_cast<TextField*>(field) == nullptr) continue;
    field->setFocus();
    field->selectAll();
    QTest::keyClick(field, Qt::Key_Delete);
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(field->property("wrong").toBool());
    CHECK_FALSE(field->toolTip().isEmpty());
    QTest::keyClick(field, Qt::Key_Escape);
  }
  CHECK(w.job().name == name);
  int turned = 0;
  for (const auto& [stage, piece] : kPlaces) {
    w.choose(stage, piece);
    if (QApplication::focusWidget() != nullptr) QApplication::focusWidget()->clearFocus();
    const Job before = w.job();
    for (QWidget* widget : w.window.findChildren<QWidget*>()) {
      if (!widget->isVisible() || widget->hasFocus()) continue;
      if (qobject_cast<QComboBox*>(widget) == nullptr && qobject_cast<QAbstractSpinBox*>(widget) == nullptr) continue;
      INFO(widget->objectName().toStdString());
      for (const int by : {-120, 120}) turn_wheel(widget, by);
      if (auto* line = widget->findChild<QLineEdit*>()) turn_wheel(line);
      CHECK(w.job() == before);
      CHECK_FALSE(widget->hasFocus());
      ++turned;
    }
  }
  CHECK(turned > 12);
  // Who clicked into one turns it.
  w.choose(Stage::Cuts, "outline");
  auto* tabs = w.find<QSpinBox>("tabCount");
  tabs->setFocus(Qt::MouseFocusReason);
  const int count = tabs->value();
  turn_wheel(tabs, 120);
  CHECK(tabs->value() == count + 1);
}

TEST_CASE("what is typed and not confirmed goes to the piece it was typed for, and is saved") {
  Window w;
  QTemporaryDir folder;
  w.choose(Stage::Artwork, "sprig");
  TextField* name = nullptr;
  for (TextField* field : w.window.findChildren<TextField*>()) {
    if (field->isVisible() && field->text().toStdString() == w.piece("sprig").name) name = field;
  }
  REQUIRE(name != nullptr);
  const std::string other = w.piece("name").name;
  name->setFocus();
  name->selectAll();
  QTest::keyClicks(name, "Twig");
  w.window.select("name");
  CHECK(w.piece("sprig").name == "Twig");
  CHECK(w.piece("name").name == other);
  CHECK(name->text().toStdString() == other);
  QTest::keyClicks(name, "Big words");
  w.window.document().save(folder.filePath("a.doyen"));  // the document knows of no fields; the window does
  CHECK(w.piece("name").name == other);
  QTest::keyClick(&w.window, Qt::Key_S, Qt::ControlModifier);
  CHECK(load_job(folder.filePath("a.doyen").toStdString()).find("name")->piece.name != other);
}

TEST_CASE("an edit that could not be opened again is refused with a sentence, and fields show what stands") {
  Window w;
  const Job before = w.job();
  w.window.document().edit("make it tiny",
                           [](Job& job) { std::get<PlainShape>(job.find("outline")->piece.what).width = 1e-5; });
  CHECK(w.job() == before);
  auto* notice = w.find<QLabel>("notice");
  CHECK(notice->isVisible());
  CHECK(notice->text().contains("make it tiny"));
  w.window.document().edit("note", [](Job& job) { job.run.holding = "Screws."; });
  CHECK_FALSE(notice->isVisible());
}

TEST_CASE("two windows on one job: whoever saves last is asked, and nothing is lost without a word") {
  QTemporaryDir folder;
  const QString path = folder.filePath("sign.doyen");
  Window mine;
  mine.window.document().save(path);
  // Not in the middle of it, on a busy machine: becoming active looks at the disk.
  REQUIRE(QTest::qWaitForWindowActive(&mine.window));
  JobDocument theirs;
  theirs.replace(load_job(path.toStdString()), path);
  theirs.edit("rename", [](Job& job) { job.name = "Theirs"; });
  theirs.save(path);
  CHECK(mine.window.document().changed_on_disk());
  mine.window.document().edit("rename", [](Job& job) { job.name = "Mine"; });
  CHECK_THROWS_AS(mine.window.document().save(path), Problem);
  CHECK(load_job(path.toStdString()).name == "Theirs");
  const auto come_back = [&] {
    mine.window.activateWindow();
    REQUIRE(QTest::qWaitForWindowActive(&mine.window));
    QTest::qWait(50);
  };
  // Not now.
  on_next_dialog([](QDialog* d) { press(d, "Not now"); });
  QTest::keyClick(&mine.window, Qt::Key_S, Qt::ControlModifier);
  CHECK(load_job(path.toStdString()).name == "Theirs");
  CHECK(mine.job().name == "Mine");
  // The window is active again, and what was just answered is not asked once more.
  come_back();
  CHECK(QApplication::activeModalWidget() == nullptr);
  // Theirs instead.
  come_back();
  on_next_dialog([](QDialog* d) { press(d, "Open the other one"); });
  QTest::keyClick(&mine.window, Qt::Key_S, Qt::ControlModifier);
  CHECK(mine.job().name == "Theirs");
  mine.settle();
  come_back();
  // Mine over theirs, on purpose.
  theirs.edit("rename", [](Job& job) { job.name = "Theirs again"; });
  theirs.save(path);
  mine.window.document().edit("rename", [](Job& job) { job.name = "Mine"; });
  on_next_dialog([](QDialog* d) { press(d, "Replace the other one"); });
  QTest::keyClick(&mine.window, Qt::Key_S, Qt::ControlModifier);
  CHECK(load_job(path.toStdString()).name == "Mine");
  // On coming back to the window.
  theirs.replace(load_job(path.toStdString()), path);
  theirs.edit("rename", [](Job& job) { job.name = "Third"; });
  theirs.save(path);
  on_next_dialog([](QDialog* d) { press(d, "Open it anew"); });
  mine.window.look_at_disk();
  CHECK(mine.job().name == "Third");
}

TEST_CASE("a full disk takes no recovery copy away") {
  QDir(recovery_folder()).removeRecursively();
  QString file;
  {
    JobDocument document;
    document.edit("rename", [](Job& job) { job.name = "Only copy"; });
    REQUIRE(document.write_recovery());
    // What a kill leaves: the copy without its owner.
    const QStringList copies = QDir(recovery_folder()).entryList({"*.doyen"});
    REQUIRE(copies.size() == 1);
    file = recovery_folder() + "/" + copies.first();
    QFile::copy(file, file + ".kept");
  }
  REQUIRE(QFile::rename(file + ".kept", file));
  const auto found = JobDocument::recoverable();
  REQUIRE(found.size() == 1);
  {
    workbench::Failing failing(1, true);
    const SystemCalls::Instead instead(failing);
    JobDocument document;
    document.recover(found[0]);
    CHECK(document.job().name == "Only copy");
    CHECK(document.unsaved());
    CHECK(QFile::exists(file));
  }
  CHECK(QFile::exists(file));
  JobDocument::forget(found[0]);
}

TEST_CASE(
    "a copy that cannot be read is said and kept; what kills leave behind is swept up; an overtaken one says so") {
  QDir(recovery_folder()).removeRecursively();
  QDir().mkpath(recovery_folder());
  QTemporaryDir folder;
  const auto put = [](const QString& path, const std::string& text) {
    write_file_atomically(path.toStdString(), text);
  };
  put(recovery_folder() + "/broken.doyen", "{ this is no job");
  put(recovery_folder() + "/gone.doyen.about", "{}");
  put(recovery_folder() + "/gone.doyen.part-Ab12cd", "half");
  Job job;
  job.name = "Work of yesterday";
  put(recovery_folder() + "/old.doyen", job_text(job));
  Job saved = job;
  saved.name = "Saved today";
  save_job(saved, folder.filePath("sign.doyen").toStdString());
  put(recovery_folder() + "/old.doyen.about",
      Json{{"path", folder.filePath("sign.doyen").toStdString()}, {"onDisk", "another"}}.dump());
  // Saved after all: nothing is left to be recovered.
  put(recovery_folder() + "/same.doyen", job_text(saved));
  put(recovery_folder() + "/same.doyen.about",
      Json{{"path", folder.filePath("sign.doyen").toStdString()}, {"onDisk", "another"}}.dump());
  auto found = JobDocument::recoverable();
  REQUIRE(found.size() == 2);
  if (found[0].problem.isEmpty()) found.swapItemsAt(0, 1);
  CHECK_FALSE(found[0].problem.isEmpty());
  CHECK(found[1].overtaken);
  CHECK_FALSE(QFile::exists(recovery_folder() + "/gone.doyen.about"));
  CHECK_FALSE(QFile::exists(recovery_folder() + "/gone.doyen.part-Ab12cd"));
  CHECK_FALSE(QFile::exists(recovery_folder() + "/same.doyen"));
  const QString aside = JobDocument::put_aside(found[0]);
  CHECK(QFile::exists(aside));
  CHECK(JobDocument::recoverable().size() == 1);
  // Taken up, it asks before it replaces what was saved since.
  JobDocument document;
  document.recover(found[1]);
  CHECK_THROWS_AS(document.save(document.path()), Problem);
  CHECK(load_job(folder.filePath("sign.doyen").toStdString()).name == "Saved today");
  QDir(recovery_folder()).removeRecursively();
}

TEST_CASE("the path of unsaved work is kept whole, from wherever Doyen was started") {
  QDir(recovery_folder()).removeRecursively();
  QTemporaryDir folder;
  const QString before = QDir::currentPath();
  QDir::setCurrent(folder.path());
  {
    JobDocument document;
    document.save("sign.doyen");
    CHECK(QFileInfo(document.path()).isAbsolute());
    JobDocument again;
    again.replace(load_job("sign.doyen"), "sign.doyen");
    CHECK(again.path() == document.path());
  }
  QDir::setCurrent(before);
}

TEST_CASE("a damaged rack is never overwritten, and another window's changes to it stay") {
  const std::string path = own_rack_path();
  make_folder(path.substr(0, path.rfind('/')));
  write_file_atomically(path, "{ broken");
  {
    QString said;
    on_next_dialog([&](QDialog* d) {
      said = static_cast<QMessageBox*>(d)->text();
      d->accept();
    });
    Window w;
    QTest::qWait(200);
    CHECK(said.contains("rack"));
    w.choose(Stage::Cuts, "name");
    QPushButton* open = w.button("How the bits move");
    if (open != nullptr) QTest::mouseClick(open, Qt::LeftButton);
    w.spin("feed", 1234);
    QTest::mouseClick(w.find<QPushButton>("keepInRack"), Qt::LeftButton);
    CHECK(read_file(path + ".damaged-1") == "{ broken");
    CHECK_NOTHROW(load_rack());
    // Somebody else takes a note of a bit meanwhile.
    Rack theirs = load_rack();
    theirs.bits.front().name = "Their name";
    write_file_atomically(path, write_rack(theirs));
    w.spin("feed", 1500);
    QTest::mouseClick(w.find<QPushButton>("keepInRack"), Qt::LeftButton);
    CHECK(load_rack().bits.front().name == "Their name");
  }
  QFile::remove(QString::fromStdString(path));
  QFile::remove(QString::fromStdString(path) + ".damaged-1");
}

TEST_CASE("what nobody foresaw is said, the work is safe, and the window goes on") {
  Window w;
  w.window.document().edit("rename", [](Job& job) { job.name = "In the middle of it"; });
  QDir(recovery_folder()).removeRecursively();
  QTimer::singleShot(0, &w.window, [] { throw std::runtime_error("the sky fell"); });
  QTest::qWait(50);
  auto* notice = w.find<QLabel>("notice");
  CHECK(notice->isVisible());
  CHECK(notice->text().contains("the sky fell"));
  CHECK(QDir(recovery_folder()).entryList({"*.doyen"}).size() == 1);
  w.window.document().edit("rename", [](Job& job) { job.name = "After it"; });
  w.settle();
}

TEST_CASE("another job's files in a folder are named and stay, until it is said that they may go") {
  Window w;
  QTemporaryDir folder;
  CHECK(w.window.write_files(folder.path()).contains("cut as wanted"));
  const std::string before = read_file((folder.path() + "/01-marrowby-gate-1-8in-down-clear.nc").toStdString());
  w.window.document().replace(load_job(data_file("demo/seed-drawer.doyen")), {});
  w.settle();
  const QString said = w.window.write_files(folder.path());
  CHECK(said.contains("another job"));
  CHECK(said.contains("Marrowby gate sign"));
  CHECK(read_file((folder.path() + "/01-marrowby-gate-1-8in-down-clear.nc").toStdString()) == before);
  CHECK(w.window.write_files(folder.path(), false, true).contains("cut as wanted"));
}

TEST_CASE("where another job's files stand, writing asks: another folder, replace, or nothing") {
  const QTemporaryDir folder;
  {
    Window other;
    other.judge();
    REQUIRE(other.window.write_files(folder.path()).contains("Written into"));
  }
  Window w;
  w.window.document().replace(w.job(), {});  // the same board, but a job of its own
  w.judge();
  const auto plan_there = [&] { return read_file(folder.filePath("plan.json").toStdString()); };
  const std::string before = plan_there();
  for (const char* answer : {"Write nothing", "Replace those files"}) {
    INFO(answer);
    bool asked = false;
    on_next_dialog([&](QDialog* dialog) {
      auto* chooser = qobject_cast<QFileDialog*>(dialog);
      REQUIRE(chooser != nullptr);
      chooser->setDirectory(folder.path());
      on_next_dialog([&](QDialog* question) {
        asked = question->objectName() == "inTheWay";
        press(question, answer);
      });
      QMetaObject::invokeMethod(chooser, "accept");
    });
    QPushButton* write = w.button("Write the files");
    REQUIRE(write != nullptr);
    QTest::mouseClick(write, Qt::LeftButton);
    CHECK(asked);
    CHECK((plan_there() == before) == (std::string(answer) == "Write nothing"));
  }
}

TEST_CASE("clocks do not matter: what counts is what a file holds") {
  const QTemporaryDir folder;
  const QString path = folder.filePath("sign.doyen");
  const auto set_clock = [&](int year) {
    QFile file(path);
    REQUIRE(file.open(QIODevice::ReadWrite));
    REQUIRE(file.setFileTime(QDateTime(QDate(year, 1, 1), QTime(0, 0)), QFileDevice::FileModificationTime));
  };
  JobDocument document;
  Job job;
  job.name = "Mine";
  document.replace(job, {});
  document.save(path);
  for (const int year : {1981, 2090}) {
    set_clock(year);
    CHECK_FALSE(document.changed_on_disk());
    document.save(path);
  }
  job.name = "Another's";
  for (const int year : {1981, 2090}) {
    write_file_atomically(path.toStdString(), job_text(job));
    set_clock(year);
    CHECK(document.changed_on_disk());
    CHECK_THROWS_AS(document.save(path), Problem);
  }
}

TEST_CASE("tables of facts that are damaged or missing end the start with a sentence") {
  for (const char* table : {"machines.json", "species.json", "rack.json", "faces.json", "strength.json"}) {
    QTemporaryDir data;
    for (const char* each : {"machines.json", "species.json", "rack.json", "faces.json", "strength.json"})
      QFile::copy(QString::fromStdString(data_file(each)), data.filePath(each));
    QFile damaged(data.filePath(table));
    damaged.setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    REQUIRE(damaged.resize(damaged.size() / 2));
    QProcess doyen;
    QProcessEnvironment where = QProcessEnvironment::systemEnvironment();
    where.insert("DOYEN_DATA", data.path());
    doyen.setProcessEnvironment(where);
    doyen.setProcessChannelMode(QProcess::MergedChannels);
    doyen.start(QCoreApplication::applicationDirPath() + "/../app/doyen", {"--demo-out", data.filePath("out")});
    REQUIRE(doyen.waitForFinished(30'000));
    INFO(table);
    CHECK(doyen.exitStatus() == QProcess::NormalExit);
    CHECK(doyen.exitCode() == 3);
    CHECK(doyen.readAll().contains(table));
  }
}

TEST_CASE("a field tells about itself again when nothing is wrong with it any more") {
  TextField field(check_name);
  field.setToolTip("What it is called");
  field.show_text("Sprig");
  CHECK(field.toolTip() == "What it is called");
  field.selectAll();
  QTest::keyClick(&field, Qt::Key_Delete);
  QTest::keyClick(&field, Qt::Key_Return);
  CHECK(field.toolTip().contains("name was expected"));
  QTest::keyClick(&field, Qt::Key_Escape);
  CHECK(field.toolTip() == "What it is called");
  CHECK(field.text() == "Sprig");
}

TEST_CASE("random edits through the fields are saved and opened as they were") {
  Window w;
  QTemporaryDir folder;
  std::mt19937 random(5);
  const auto pick = [&](std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(random); };
  const QStringList typed{"3", "0.5", "12 mm", "1/8", "-2", "400", "1e9", "7,5", "0", "1½", "99999", "Rosemary", "45"};
  for (int round = 0; round < 60; ++round) {
    const auto& [stage, piece] = kPlaces[pick(kPlaces.size())];
    w.choose(stage, piece);
    QList<QWidget*> fields;
    for (QWidget* widget : w.window.findChildren<QWidget*>()) {
      if (!widget->isVisible() || !widget->isEnabled()) continue;
      if (qobject_cast<EntryField*>(widget) != nullptr || qobject_cast<QAbstractSpinBox*>(widget) != nullptr)
        fields << widget;
    }
    if (fields.isEmpty()) continue;
    QWidget* field = fields[static_cast<qsizetype>(pick(static_cast<std::size_t>(fields.size())))];
    field->setFocus(Qt::TabFocusReason);
    QTest::keyClicks(field, typed[static_cast<qsizetype>(pick(static_cast<std::size_t>(typed.size())))]);
    QTest::keyClick(field, pick(2) == 0 ? Qt::Key_Return : Qt::Key_Tab);
    if (round % 5 != 4) continue;
    INFO("round " << round);
    const QString path = folder.filePath("random.doyen");
    w.window.document().save(path);
    const Job opened = load_job(path.toStdString());
    Job job = w.job();
    for (Item& item : job.items) {
      if (auto* l = std::get_if<Lettering>(&item.piece.what))
        l->kept = std::get<Lettering>(opened.find(item.piece.id)->piece.what).kept;
    }
    CHECK(opened == job);
  }
}

TEST_CASE("the customer's sheet is written from the window, and what cannot be written is said and leaves nothing") {
  Window w;
  QTemporaryDir folder;
  const QString file = folder.filePath(QStringLiteral("sheet.pdf"));
  CHECK(w.window.write_customer_sheet(file).startsWith(QStringLiteral("Written")));
  QFile sheet(file);
  REQUIRE(sheet.open(QIODevice::ReadOnly));
  CHECK(sheet.read(5) == "%PDF-");
  const QString two = folder.filePath(QStringLiteral("two.pdf"));
  const QString other = QString::fromStdString(data_file("demo/heron-plaque.doyen"));
  CHECK(w.window.write_customer_sheet(two, other).startsWith(QStringLiteral("Written")));
  CHECK(QFile(two).size() > sheet.size());
  CHECK(w.window.write_customer_sheet(two, folder.filePath(QStringLiteral("none.doyen")))
            .contains(QStringLiteral("not written")));
  const QString nowhere = folder.filePath(QStringLiteral("not/there.pdf"));
  CHECK(w.window.write_customer_sheet(nowhere).contains(QStringLiteral("not written")));
  CHECK_FALSE(QFile::exists(nowhere));
}
