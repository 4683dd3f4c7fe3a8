#include "shell/shots.hpp"

#include <QApplication>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QThread>
#include <QTimer>

#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QToolButton>

#include "bench/hands/all.hpp"
#include "rack/own_rack.hpp"
#include "shell/greeting.hpp"
#include "shell/guide.hpp"
#include "shell/main_window.hpp"
#include "shell/new_board.hpp"
#include "stages/artwork/lay_out_bench.hpp"
#include "stages/artwork/letter_bench.hpp"
#include "stages/artwork/trace_dialog.hpp"
#include "stages/blank/blank_ticket.hpp"
#include "stages/cuts/rack_dialog.hpp"
#include "stages/finish/finish_ticket.hpp"
#include "stages/log/log_dialog.hpp"
#include "stages/proof/boards_view.hpp"
#include "stages/proof/proof_ticket.hpp"
#include "stages/proof/tilt_view.hpp"
#include "stages/run/bed_view.hpp"
#include "stages/run/machines_dialog.hpp"
#include "stages/run/rehearsal.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace doyen {

namespace {

// What comes next, and the processor to those who work on it meanwhile.
void let_it_work() {
  QApplication::processEvents(QEventLoop::AllEvents, 20);
  QThread::msleep(3);
}

template <typename Ready>
bool wait_until(Ready ready, int milliseconds) {
  QElapsedTimer clock;
  clock.start();
  bool there = false;
  do {
    let_it_work();
    there = ready();
  } while (!there && clock.elapsed() < milliseconds);
  QApplication::processEvents(QEventLoop::AllEvents, 50);
  return there;
}

}  // namespace

bool wait_until_settled(MainWindow& window, int milliseconds) {
  const auto planned = [&] {
    return window.plan() && window.plan()->job == window.document().job() && !window.planner().busy();
  };
  return wait_until([&] { return planned() && window.bench().picture_is_fine() && !window.strip().heights().empty(); },
                    milliseconds);
}

bool wait_until_looked_at(MainWindow& window, int milliseconds) {
  return wait_until_settled(window, milliseconds) &&
         wait_until([&] { return window.judged() && !window.planner().judging(); }, milliseconds);
}

namespace {

bool wait_for_ways(MainWindow& window) {
  return wait_until_looked_at(window) && wait_until([&] { return !window.ways().waiting(); }, 60'000);
}

}  // namespace

QStringList shot_names() {
  return {
      QStringLiteral("blank"),     QStringLiteral("artwork"),      QStringLiteral("cuts"),    QStringLiteral("sheets"),
      QStringLiteral("proof"),     QStringLiteral("run"),          QStringLiteral("finish"),  QStringLiteral("log"),
      QStringLiteral("rack"),      QStringLiteral("letter-bench"), QStringLiteral("lay-out"), QStringLiteral("tracing"),
      QStringLiteral("rehearsal"), QStringLiteral("weak"),         QStringLiteral("bed"),     QStringLiteral("inlay"),
      QStringLiteral("fit"),       QStringLiteral("ways"),         QStringLiteral("tilted")};
}

namespace {

// A dialog is grabbed while it is open, over the window.
bool shot_of_dialog(MainWindow& window, const QString& file, const std::function<void()>& open, int after = 600) {
  bool saved = false;
  QTimer::singleShot(after, &window, [&] {
    if (QWidget* dialog = QApplication::activeModalWidget()) {
      saved = dialog->grab().save(file);
      dialog->close();
    }
  });
  open();
  return saved;
}

// Larger work that stands in the window's own place; no picture of one that never got as far as it is to be shown.
bool shot_of_guest(MainWindow& window, const QString& file, const std::function<bool()>& ready) {
  const bool saved = wait_until_settled(window) && wait_until(ready, 60'000) && window.grab().save(file);
  window.go_to_stage(Stage::Artwork);
  return saved;
}

// A demo under Blank, that part of the ticket open and in view.
template <typename Section>
bool shot_of_section(MainWindow& window, const QString& demo, const QString& file) {
  window.open_demo(demo);
  window.go_to_stage(Stage::Blank);
  const auto* section = window.findChild<Section*>();
  section->template findChild<Fold*>()->set_open(true);
  const bool looked_at = wait_until_looked_at(window);
  auto* ticket = window.findChild<BlankTicket*>();
  ticket->verticalScrollBar()->setValue(section->y() - 8);
  return looked_at && shot_of_guest(window, file, [] { return true; });
}

// What such a view is about, worked out and in sight; false where it does not come.
bool open_what_it_shows(MainWindow& window, const QString& view) {
  const auto until = [&](const auto& ready) { return wait_until_settled(window) && wait_until(ready, 120'000); };
  if (view == QStringLiteral("ways")) {
    window.ways().set_open(true);
    return wait_for_ways(window);
  }
  if (view == QStringLiteral("fit")) {
    window.go_to_stage(Stage::Proof);
    return until([&] { return !window.fit().busy() && !window.fit().ways().empty(); });
  }
  if (view == QStringLiteral("weak")) {
    // As if its letters stood upright, and higher than they may.
    window.document().edit({}, [](Job& job) {
      for (Item& item : job.items) {
        if (item.cut.kind != Treatment::Kind::Raise) continue;
        item.cut.raise.sloped = false;
        item.cut.depth = 6.35;
      }
    });
    window.go_to_stage(Stage::Proof);
    auto* weak = window.findChild<WeakSection*>();
    weak->set_open(true);
    if (!wait_for_ways(window) || !until([&] { return window.bench().weak() != nullptr && !weak->waiting(); }))
      return false;
    if (auto* worst = weak->findChild<QPushButton*>(QStringLiteral("weakPlace0"))) worst->click();
    if (!until([&] { return !weak->trying(); })) return false;
    window.bench().fit();
    for (int i = 0; i < 5; ++i) let_it_work();
    window.findChild<ProofTicket*>()->verticalScrollBar()->setValue(weak->y() - 8);
  }
  return true;
}

}  // namespace

bool take_shot(MainWindow& window, const QString& stage, const QString& file, QString* problem) {
  *problem =
      QStringLiteral("The view “%1” did not get as far as its picture in time.").arg(stage);  // unless better known
  // Dialogs that are looked at while they are worked on, and have no picture in the documents.
  if (stage == QStringLiteral("demos")) {
    DemoGallery gallery(&window);
    return shot_of_dialog(
        window, file, [&] { gallery.exec(); }, 15'000);
  }
  if (stage == QStringLiteral("new-board")) {
    NewBoard asked(&window);
    return shot_of_dialog(window, file, [&] { asked.exec(); });
  }
  if (stage == QStringLiteral("points")) {
    window.open_demo();
    window.go_to_stage(Stage::Artwork);
    window.select(QStringLiteral("sprig"));
    wait_until_settled(window);
    window.bench().come_closer({110, 115}, 3.2);
    window.bench().points().set_active(true);
    return wait_until_looked_at(window) && window.grab().save(file);
  }
  if (stage == QStringLiteral("lesson")) {
    QTimer::singleShot(200, &window, [] {
      if (auto* asked = qobject_cast<QDialog*>(QApplication::activeModalWidget())) asked->accept();
    });
    window.begin_lesson();
    window.findChild<QPushButton*>(QStringLiteral("lessonOn"))->click();
    wait_until_settled(window);
    window.findChild<QPushButton*>(QStringLiteral("lessonShow"))->click();
    return wait_until_looked_at(window) && window.grab().save(file);
  }
  if (stage == QStringLiteral("guide")) {
    Guide guide(&window);
    guide.setAttribute(Qt::WA_DeleteOnClose, false);
    guide.open_page(QStringLiteral("first-sign.md"));
    return shot_of_dialog(window, file, [&] { guide.exec(); });
  }
  if (stage == QStringLiteral("machines")) {
    MachinesDialog dialog(window.document().job().run.machine, window.document().job().lengths, &window);
    return shot_of_dialog(window, file, [&] { dialog.exec(); });
  }
  if (!shot_names().contains(stage) && stage != QStringLiteral("plates")) {
    *problem = QStringLiteral("“%1” is not a view; there are %2.").arg(stage, shot_names().join(QStringLiteral(", ")));
    return false;
  }
  if (stage == QStringLiteral("welcome")) return shot_of_dialog(window, file, [&] { window.greet(); });
  if (stage == QStringLiteral("rack")) {
    RackDialog dialog(load_rack(), window.document().job().lengths, &window);
    return shot_of_dialog(window, file, [&] { dialog.exec(); });
  }
  if (stage == QStringLiteral("log")) {
    LogDialog dialog(LengthStyle{}, &window);
    dialog.show_example();
    if (auto* list = dialog.findChild<QListWidget*>()) list->setCurrentRow(1);
    return shot_of_dialog(window, file, [&] { dialog.exec(); });
  }
  if (stage == QStringLiteral("letter-bench")) {
    if (window.document().job().find("name") == nullptr) window.open_demo();
    window.go_to_stage(Stage::Artwork);
    window.select(QStringLiteral("name"));
    window.open_letter_bench();
    const auto* bench = window.findChild<LetterBench*>();
    if (bench == nullptr) {
      *problem = QStringLiteral("The demo has no lettering called “name”.");
      return false;
    }
    return shot_of_guest(window, file, [bench] { return bench->finished(); });
  }
  if (stage == QStringLiteral("lay-out")) {
    window.go_to_stage(Stage::Artwork);
    window.lay_out();
    const auto* bench = window.findChild<LayOutBench*>();
    return bench != nullptr && shot_of_guest(window, file, [bench] { return bench->finished(); });
  }
  if (stage == QStringLiteral("tilted")) {
    window.go_to_stage(Stage::Proof);
    wait_until_settled(window);
    window.open_tilted();
    const auto* view = window.findChild<TiltView*>();
    return view != nullptr && shot_of_guest(window, file, [view] { return view->ready(); });
  }
  if (stage == QStringLiteral("bed")) {
    window.go_to_stage(Stage::Run);
    wait_until_looked_at(window);
    window.open_bed();
    const auto* view = window.findChild<BedView*>();
    return view != nullptr && shot_of_guest(window, file, [view] { return view->ready(); });
  }
  if (stage == QStringLiteral("rehearsal")) {
    window.open_demo();
    window.go_to_stage(Stage::Run);
    wait_until_settled(window);
    window.open_rehearsal();
    auto* rehearsal = window.findChild<Rehearsal*>();
    if (rehearsal == nullptr) return false;
    // The files run until the second is half done.
    rehearsal->findChild<QComboBox*>(QStringLiteral("pace"))->setCurrentIndex(3);
    rehearsal->findChild<QPushButton*>(QStringLiteral("startRehearsal"))->click();
    return shot_of_guest(window, file, [rehearsal] {
      if (rehearsal->state() == Rehearsal::State::Change)
        rehearsal->findChild<QPushButton*>(QStringLiteral("bitChanged"))->click();
      return rehearsal->seconds().size() == 1 && rehearsal->ran_for() > rehearsal->planned_seconds() / 2;
    });
  }
  if (stage == QStringLiteral("sheets")) {
    window.open_demo(QStringLiteral("bed-labels"));
    wait_until_settled(window);
    window.open_boards();
    const auto* view = window.findChild<BoardsView*>();
    return view != nullptr && shot_of_guest(window, file, [view] { return view->finished(); });
  }
  if (stage == QStringLiteral("plates"))
    return shot_of_section<PlatesSection>(window, QStringLiteral("bed-labels"), file);
  if (stage == QStringLiteral("blank"))
    return shot_of_section<PanelsSection>(window, QStringLiteral("garden-map"), file);
  if (stage == QStringLiteral("tracing")) {
    window.open_demo(QStringLiteral("heron-plaque"));
    window.trace_file(QString::fromStdString(data_file("demo/heron-ink.jpg")));
    const auto* dialog = window.findChild<TraceDialog*>();
    return dialog != nullptr && shot_of_guest(window, file, [dialog] { return !dialog->busy(); });
  }
  // The other demos, each under Cuts with the piece that tells most about it.
  const struct {
    QString view, demo, piece;
  } demos[] = {{QStringLiteral("inlay"), QStringLiteral("inlaid-lid"), QStringLiteral("sprig")},
               {QStringLiteral("fit"), QStringLiteral("inlaid-lid"), QStringLiteral("sprig")},
               {QStringLiteral("weak"), QStringLiteral("gate-sign-raised"), QStringLiteral("name")},
               {QStringLiteral("ways"), QStringLiteral("dibber-board"), QStringLiteral("holes")}};
  for (const auto& demo : demos) {
    if (stage != demo.view) continue;
    window.open_demo(demo.demo);
    window.go_to_stage(Stage::Cuts);
    window.select(demo.piece);
    const bool there = open_what_it_shows(window, stage) && wait_for_ways(window);
    for (int i = 0; i < 5; ++i) let_it_work();  // rows that wrap anew are laid out
    return there && window.grab().save(file);
  }
  if (stage == QStringLiteral("blank")) window.go_to_stage(Stage::Blank);
  if (stage == QStringLiteral("artwork")) window.go_to_stage(Stage::Artwork);
  if (stage == QStringLiteral("cuts")) window.go_to_stage(Stage::Cuts);
  if (stage == QStringLiteral("proof")) window.go_to_stage(Stage::Proof);
  if (stage == QStringLiteral("run")) window.go_to_stage(Stage::Run);
  if (stage == QStringLiteral("finish")) {
    window.go_to_stage(Stage::Finish);
    const auto* ticket = window.findChild<FinishTicket*>();
    wait_until_looked_at(window);
    return shot_of_guest(window, file, [ticket] { return ticket->ready(); });
  }
  const bool letters = stage == QStringLiteral("artwork") || stage == QStringLiteral("cuts");
  const QString piece = letters ? QStringLiteral("name") : QString();
  window.select(window.document().job().find(piece.toStdString()) != nullptr ? piece : QString());
  window.open_sums();
  if (!wait_for_ways(window) || !wait_until([&] { return window.sums_shown(); }, 10'000)) return false;
  if (!window.grab().save(file)) {
    *problem = QStringLiteral("“%1” could not be written.").arg(file);
    return false;
  }
  return true;
}

}  // namespace doyen
