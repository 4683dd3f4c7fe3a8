// Run, in the window: the user's own machines, how the board lies on the bed, the look round, and going on after a
// stop.
#include <QCheckBox>
#include <QDialogButtonBox>
#include <QListWidget>
#include <QPushButton>
#include <QSignalSpy>
#include <QSlider>
#include <QTemporaryDir>

#include "machine/own_machines.hpp"
#include "planning/look_round.hpp"
#include "run/bed.hpp"
#include "shell/print_sheets.hpp"
#include "shell/written_slip.hpp"
#include "stages/run/machines_dialog.hpp"
#include "stages/run/run_ticket.hpp"
#include "storage/atomic_file.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void type_there(QDialog& dialog, const char* name, const char* text) {
  auto* field = dialog.findChild<QLineEdit*>(QString::fromLatin1(name));
  REQUIRE(field != nullptr);
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, QString::fromLatin1(text));
  QTest::keyClick(field, Qt::Key_Tab);
}

}  // namespace

TEST_CASE("a machine is described, kept, chosen for the job, changed and taken away in the window") {
  QFile::remove(QString::fromStdString(own_machines_path()));
  {
    Window w;
    w.window.go_to_stage(Stage::Run);
    const int shipped = w.find<QComboBox>("machine")->count();
    on_next_dialog([&](QDialog* d) {
      QDialog& dialog = *d;
      auto* name = dialog.findChild<QLineEdit*>(QStringLiteral("machineName"));
      CHECK_FALSE(name->isEnabled());  // what comes with Doyen is only looked at
      QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("newMachine")), Qt::LeftButton);
      REQUIRE(name->isEnabled());
      type_there(dialog, "machineName", "Shed");
      type_there(dialog, "travelX", "20");  // the demo is in inches
      type_there(dialog, "travelZ", "nonsense");
      CHECK(dialog.findChild<QLineEdit*>(QStringLiteral("travelZ"))->property("wrong").toBool());
      QTest::keyClick(dialog.findChild<QLineEdit*>(QStringLiteral("travelZ")), Qt::Key_Escape);
      QTest::mouseClick(dialog.findChild<QDialogButtonBox*>()->button(QDialogButtonBox::Save), Qt::LeftButton);
    });
    QTest::mouseClick(w.find<QPushButton>("describeMachines"), Qt::LeftButton);
    w.settle();
    auto* box = w.find<QComboBox>("machine");
    REQUIRE(box->count() == shipped + 1);
    CHECK(box->currentText() == "Shed");
    CHECK(w.job().run.machine == "shed");
    CHECK(w.plan().machine.travel[0] == Approx(20 * 25.4));
    // A board of 24 in does not fit 20 in one way; its remedy lays it the other way round on the bed.
    REQUIRE(w.plan().has_stop());
    CHECK(w.plan().verdicts.front().code == "past-travel");
    w.window.go_to_stage(Stage::Run);
    w.pick("liesOnBed", 1);
    CHECK(w.job().run.on_bed == OnBed::QuarterLeft);
    CHECK_FALSE(w.plan().has_stop());
    w.window.document().undo_stack().undo();
    w.settle();
    CHECK(w.job().run.on_bed == OnBed::AsDrawn);
    // Longer now: the same job, planned again at once.
    on_next_dialog([&](QDialog* d) {
      QDialog& dialog = *d;
      CHECK(dialog.findChild<QListWidget*>(QStringLiteral("machineList"))->currentItem()->text().startsWith("Shed"));
      type_there(dialog, "travelX", "40");
      type_there(dialog, "bedWide", "50");
      type_there(dialog, "fileEnding", "p d f");
      CHECK(dialog.findChild<QLineEdit*>(QStringLiteral("fileEnding"))->property("wrong").toBool());
      type_there(dialog, "fileEnding", "tap");
      type_there(dialog, "bedLeft", "3");
      auto* change = dialog.findChild<QComboBox*>(QStringLiteral("bitChange"));
      auto* place = dialog.findChild<QLineEdit*>(QStringLiteral("place-v60"));
      CHECK_FALSE(place->isVisibleTo(&dialog));  // it has no changer
      change->setFocus();
      QTest::keyClick(change, Qt::Key_End);
      CHECK(place->isVisibleTo(&dialog));
      type_there(dialog, "place-v60", "4");
      type_there(dialog, "place-flat-1/8in", "4");
      CHECK(dialog.findChild<QLabel*>(QStringLiteral("machinesSay"))->text().contains("had that place"));
      type_there(dialog, "place-v60", "5");
      type_there(dialog, "place-flat-1/4in", "6");
      auto* x_counts = dialog.findChild<QComboBox*>(QStringLiteral("xCounts"));
      x_counts->setFocus();
      QTest::keyClick(x_counts, Qt::Key_Down);
      QTest::mouseClick(dialog.findChild<QDialogButtonBox*>()->button(QDialogButtonBox::Save), Qt::LeftButton);
    });
    QTest::mouseClick(w.find<QPushButton>("describeMachines"), Qt::LeftButton);
    w.settle();
    CHECK_FALSE(w.plan().has_stop());
    CHECK(w.plan().machine.travel[0] == Approx(40 * 25.4));
    CHECK(w.plan().machine.x_left);
    CHECK(w.plan().machine.tool_of("v60", 0) == 5);
    CHECK(w.plan().machine.tool_of("flat-1/8in", 0) == 4);
    CHECK(w.plan().runs.front().file.ends_with(".tap"));
    CHECK(bed_box(w.plan().machine).left == Approx(-3 * 25.4));
    CHECK(bed_box(w.plan().machine).right == Approx(47 * 25.4));
    // What is cancelled changes nothing; taken away, the job says that it does not know it.
    on_next_dialog([&](QDialog* d) {
      QDialog& dialog = *d;
      type_there(dialog, "travelX", "1");
      QTest::keyClick(&dialog, Qt::Key_Escape);
    });
    QTest::mouseClick(w.find<QPushButton>("describeMachines"), Qt::LeftButton);
    CHECK(machine_table().find("shed")->travel[0] == Approx(40 * 25.4));
    on_next_dialog([&](QDialog* d) {
      QDialog& dialog = *d;
      QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("removeMachine")), Qt::LeftButton);
      auto* use = dialog.findChild<QCheckBox*>(QStringLiteral("useMachine"));
      QTest::mouseClick(use, Qt::LeftButton, {}, QPoint(8, use->height() / 2));
      QTest::mouseClick(dialog.findChild<QDialogButtonBox*>()->button(QDialogButtonBox::Save), Qt::LeftButton);
    });
    QTest::mouseClick(w.find<QPushButton>("describeMachines"), Qt::LeftButton);
    w.settle();
    CHECK(machine_table().find("shed") == nullptr);
    CHECK(w.job().run.machine == "shed");  // said by the user; not changed without a word
    const auto& all = w.plan().verdicts;
    CHECK(std::any_of(all.begin(), all.end(), [](const Verdict& v) { return v.code == "unknown-machine"; }));
  }
  QFile::remove(QString::fromStdString(own_machines_path()));
}

TEST_CASE("zero, the plate and the look round are said in the ticket, and come out in the files") {
  Window w;
  w.window.go_to_stage(Stage::Run);
  w.pick("zeroPlace", 4);
  CHECK(w.job().run.zero_place == ZeroPlace::RightBack);
  w.type("plate", "12 mm");
  w.settle();
  CHECK(w.job().run.plate == Approx(12));
  auto* tick = w.reach<QCheckBox>("lookRound");
  QTest::mouseClick(tick, Qt::LeftButton, {}, QPoint(8, tick->height() / 2));
  w.settle();
  CHECK(w.job().run.look_round);
  QTemporaryDir folder;
  CHECK(w.window.write_files(folder.path()).contains("cut as wanted"));
  CHECK(QFile::exists(folder.path() + "/00-marrowby-gate-look-round.nc"));
  // Where they stand is opened by a button; no longer, once the job is another.
  QSignalSpy opened(w.window.findChild<RunTicket*>(), &RunTicket::open_wanted);
  auto* open = w.find<QPushButton>("openSheet");
  REQUIRE(open->isVisible());
  QTest::mouseClick(open, Qt::LeftButton);
  REQUIRE(opened.size() == 1);
  CHECK(opened[0][0].toString() == folder.path() + "/runsheet.pdf");
  w.empty("plate");
  CHECK(w.job().run.plate == 0);
  CHECK_FALSE(open->isVisible());
}

TEST_CASE("what is left of a file after a stop, and a deeper cut-out, are written from the ticket") {
  Window w;
  w.window.go_to_stage(Stage::Run);
  auto* files = w.reach<QComboBox>("againFile");
  REQUIRE(files->count() == 3);
  // The window would ask where to; here the files are looked at as they come.
  auto* ticket = w.window.findChild<RunTicket*>();
  QObject::disconnect(ticket, &RunTicket::write_wanted, &w.window, nullptr);
  QSignalSpy written(ticket, &RunTicket::write_wanted);
  w.pick("againFile", 1);
  auto* place = w.find<QSlider>("againPlace");
  CHECK(place->value() == 0);
  w.spin("againRan", 5);
  CHECK(place->value() > 0);
  CHECK_THAT(w.find<QLabel>("againSays")->text().toStdString(), Catch::Contains("are left"));
  const int from = place->value();
  QTest::keyClick(place, Qt::Key_Right);
  CHECK(place->value() == from + 1);
  QTest::mouseClick(w.find<QPushButton>("writeRest"), Qt::LeftButton);
  REQUIRE(written.size() == 1);
  CHECK(written[0][0].toString() == QStringLiteral("02-again-from-%1-marrowby-gate-v60-carve.nc").arg(from + 2));
  CHECK(written[0][1].toString().contains("M30"));
  CHECK_FALSE(w.find<QPushButton>("writeDeeper")->isVisible());  // nothing of it goes through
  w.pick("againFile", 2);
  QTest::mouseClick(w.find<QPushButton>("writeDeeper"), Qt::LeftButton);
  REQUIRE(written.size() == 2);
  CHECK(written[1][0].toString() == "03-deeper-marrowby-gate-1-4in-up-cut-out.nc");
}

TEST_CASE("the next board of the kind asks its thickness only, and how many were made is counted in the job") {
  Window w;
  w.window.go_to_stage(Stage::Run);
  QTest::mouseClick(w.reach<QPushButton>("oneMore"), Qt::LeftButton);
  QTest::mouseClick(w.reach<QPushButton>("oneMore"), Qt::LeftButton);
  w.settle();
  CHECK(w.job().run.made == 2);
  CHECK(w.find<QLabel>("nextSays")->text().contains("2 made"));
  const double deepest = w.plan().runs.back().deepest;
  w.type("nextReadings", "0.8; 0.81");
  w.settle();
  REQUIRE(w.job().blank.readings.size() == 2);
  CHECK(w.job().blank.thickest() == Approx(0.81 * 25.4));
  CHECK(w.plan().runs.back().deepest == Approx(deepest + (0.81 - 0.76) * 25.4).margin(0.02));
  // Another size, too; what is cut stays where it was from the corner.
  const double was = w.job().blank.width, x = w.job().items.front().piece.at.x;
  w.type("nextWidth", "25 in");
  CHECK(w.job().blank.width == Approx(635));
  CHECK(w.job().items.front().piece.at.x == x);
  w.window.document().undo_stack().undo();
  CHECK(w.job().blank.width == was);
  w.type("nextReadings", "a board");
  CHECK(w.find<QLineEdit>("nextReadings")->property("wrong").toBool());
  CHECK(w.job().blank.readings.size() == 2);
  w.type("stops", "Two stops at the left, a wedge in front");
  CHECK(w.job().run.stops == "Two stops at the left, a wedge in front");
  const Job again = read_job(job_text(w.job()), "again");
  CHECK(again.run == w.job().run);
}

TEST_CASE("a slip over the board says what was written and where, opens it, and goes with the job's next change") {
  Window w;
  w.window.go_to_stage(Stage::Run);
  auto* slip = w.find<WrittenSlip>("writtenSlip");
  CHECK_FALSE(slip->isVisible());
  QTemporaryDir folder;
  CHECK(w.window.write_files(folder.path()).contains("cut as wanted"));
  REQUIRE(slip->isVisible());
  CHECK(w.find<QLabel>("slipWhat")->text() == "3 files for the machine, the run sheet and pictures.");
  CHECK(w.find<QLabel>("slipWhere")->text().remove(QChar(0x200B)).contains(folder.path()));
  CHECK_THAT(w.find<QLabel>("slipJudged")->text().toStdString(), Catch::Contains("cut as wanted"));
  QObject::disconnect(slip, &WrittenSlip::open_wanted, nullptr, nullptr);
  QSignalSpy opened(slip, &WrittenSlip::open_wanted);
  QTest::mouseClick(w.find<QPushButton>("slipFolder"), Qt::LeftButton);
  QTest::mouseClick(w.find<QPushButton>("slipSheet"), Qt::LeftButton);
  REQUIRE(opened.size() == 2);
  CHECK(opened[0][0].toString() == folder.path());
  CHECK(opened[1][0].toString() == folder.path() + "/runsheet.pdf");
  QTest::mouseClick(w.find<QPushButton>("slipAway"), Qt::LeftButton);
  CHECK_FALSE(slip->isVisible());
  CHECK(w.window.write_files(folder.path()).contains("cut as wanted"));
  CHECK(slip->isVisible());
  w.type("plate", "12 mm");
  CHECK_FALSE(slip->isVisible());  // what was written is of another job now
  // Of many names the own ones are said, and how many more.
  QStringList names{"plan.json", "cut-list.pdf"};
  for (int i = 0; i < 30; ++i) names << QStringLiteral("strip-%1/a.nc").arg(i / 3);
  CHECK(names_in_words(names) == "plan.json, cut-list.pdf, and 30 more in 10 folders");
}

namespace {

// The system's printing as a stage set: programs of the same names that write down what they were asked.
struct StagePrinters {
  QTemporaryDir folder;
  QByteArray path = qgetenv("PATH");
  explicit StagePrinters(bool there, bool takes = true) {
    const auto program = [&](const char* name, const QByteArray& script) {
      QFile file(folder.filePath(QLatin1String(name)));
      REQUIRE(file.open(QIODevice::WriteOnly));
      file.write("#!/bin/sh\n" + script);
      file.close();
      file.setPermissions(file.permissions() | QFileDevice::ExeOwner);
    };
    if (there) {
      program("lpstat", "case $1 in -e) echo Attic; echo Shop;; -d) echo system default destination: Shop;; esac\n");
      program("lp",
              takes ? "for a in \"$@\"; do printf '%s\\n' \"$a\" >> " + folder.filePath("asked").toUtf8() + "; done\n"
                    : QByteArray("echo out of paper >&2; exit 1\n"));
    }
    qputenv("PATH", folder.path().toUtf8());
  }
  ~StagePrinters() { qputenv("PATH", path); }
  [[nodiscard]] QStringList asked() const {
    QFile file(folder.filePath("asked"));
    if (!file.open(QIODevice::ReadOnly)) return {};
    return QString::fromUtf8(file.readAll()).split(QLatin1Char('\n'), Qt::SkipEmptyParts);
  }
};

}  // namespace

TEST_CASE("sheets are printed by the system's own printing, as many and on which printer as was said") {
  Window w;
  w.window.go_to_stage(Stage::Run);
  QTemporaryDir folder;
  CHECK(w.window.write_files(folder.path()).contains("cut as wanted"));
  const auto print = [&](const std::function<void(QDialog*)>& then) {
    on_next_dialog(then);
    QTest::mouseClick(w.find<QPushButton>("slipPrint"), Qt::LeftButton);
  };
  const StagePrinters printers(true);
  print([&](QDialog* d) {
    CHECK(d->findChild<QComboBox*>("printer")->currentText() == "Shop");  // the usual one
    type_there(*d, "copies", "2");
    QTest::mouseClick(d->findChild<QPushButton*>("printNow"), Qt::LeftButton);
  });
  CHECK(printers.asked() == QStringList{"-n", "2", "-d", "Shop", "--", folder.path() + "/runsheet.pdf"});
  // Nothing ticked is said; what is gone is said; closed, nothing is printed.
  print([&](QDialog* d) {
    auto* list = d->findChild<QListWidget*>("sheetsToPrint");
    REQUIRE(list->count() == 1);
    list->item(0)->setCheckState(Qt::Unchecked);
    QTest::mouseClick(d->findChild<QPushButton*>("printNow"), Qt::LeftButton);
    CHECK(d->findChild<QLabel*>("printSays")->text().contains("at least one"));
    list->item(0)->setCheckState(Qt::Checked);
    QFile::remove(folder.filePath("runsheet.pdf"));
    QTest::mouseClick(d->findChild<QPushButton*>("printNow"), Qt::LeftButton);
    CHECK(d->findChild<QLabel*>("printSays")->text().contains("not there any more"));
    QTest::keyClick(d, Qt::Key_Escape);
  });
  CHECK(printers.asked().size() == 6);
}

TEST_CASE("a printer that refuses, and a machine without one, are said in a sentence") {
  QTemporaryDir folder;
  QFile sheet(folder.filePath("runsheet.pdf"));
  REQUIRE(sheet.open(QIODevice::WriteOnly));
  sheet.close();
  {
    const StagePrinters printers(true, false);
    CHECK(print_files({sheet.fileName()}, "Shop", 1).contains("out of paper"));
    PrintSheets dialog(folder.path(), {"runsheet.pdf"}, nullptr);
    QTest::mouseClick(dialog.findChild<QPushButton*>("printNow"), Qt::LeftButton);
    CHECK(dialog.result() != QDialog::Accepted);
    CHECK(dialog.findChild<QLabel*>("printSays")->text().contains("out of paper"));
  }
  const StagePrinters none(false);
  CHECK(system_printers().isEmpty());
  CHECK(print_files({sheet.fileName()}, "Shop", 1).contains("no printing"));
  PrintSheets dialog(folder.path(), {"runsheet.pdf"}, nullptr);
  CHECK_FALSE(dialog.findChild<QPushButton*>("printNow")->isEnabled());
  CHECK(dialog.findChild<QLabel*>("printSays")->text().contains("No printer"));
  QSignalSpy opened(&dialog, &PrintSheets::open_wanted);
  QTest::mouseClick(dialog.findChild<QPushButton*>("printFolder"), Qt::LeftButton);
  REQUIRE(opened.size() == 1);
  CHECK(opened[0][0].toString() == folder.path());
}
