// Opening jobs: demos, recent ones, files dropped on the window.
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMimeData>
#include <QSettings>

#include "plates/plates.hpp"
#include "problem.hpp"
#include "shell/main_window.hpp"
#include "shell/new_board.hpp"
#include "stages/run/after_run_section.hpp"
#include "storage/data_folder.hpp"
#include "work/long_work.hpp"

namespace doyen {

void MainWindow::open_demo(const QString& name) {
  try {
    const std::string path = data_file("demo/" + name.toStdString() + ".doyen");
    document_.replace(load_job(path), {}, QStringLiteral("demo-") + name);
    section_ = {true, document_.job().blank.height * 0.615};
    bench_->set_section(section_);
    strip_->set_line(section_);
    select({});
    bench_->fit();
  } catch (const Problem& problem) {
    say(tr("The demo"), QString::fromUtf8(problem.what()));
  }
}

bool MainWindow::open(const QString& path) {
  try {
    Job job;
    work_off_thread(this, tr("Opening %1…").arg(QFileInfo(path).fileName()), [&](const Cancel& cancel, const Told&) {
      job = load_job(path.toStdString());
      cancel.check();
    });
    document_.replace(job, path);
    remember(path);
    select({});
    bench_->fit();
    if (const QString since = AfterRunSection::unsaid_since(document_.job()); !since.isEmpty())
      note(tr("Its files were written on %1. Say under Run, “After the run”, how it came out.").arg(since));
    return true;
  } catch (const Cancelled&) {
    return false;
  } catch (const Problem& problem) {
    say(tr("This job cannot be opened"), QString::fromUtf8(problem.what()));
    return false;
  }
}

void MainWindow::remember(const QString& path) {
  QSettings settings;
  QStringList recent = settings.value(QStringLiteral("recent")).toStringList();
  const QString full = QFileInfo(path).absoluteFilePath();
  recent.removeAll(full);
  recent.prepend(full);
  settings.setValue(QStringLiteral("recent"), QStringList(recent.mid(0, 8)));
}

QStringList MainWindow::recent_jobs() {
  QStringList paths = QSettings().value(QStringLiteral("recent")).toStringList();
  erase_if(paths, [](const QString& path) { return !QFileInfo::exists(path); });
  return paths;
}

void MainWindow::greet() {
  Greeting box(recent_jobs(), this);
  box.exec();
  using Start = Greeting::Start;
  switch (box.start()) {
    case Start::Sign:
      return new_job(Start::Sign);
    case Start::Art:
      return new_job(Start::Art);
    case Start::Plates:
      return new_job(Start::Plates);
    case Start::Open:
      return choose_job();
    case Start::Demos:
      return choose_demo();
    case Start::Recent:
      open(box.path());
      return;
    case Start::Lesson:
      return begin_lesson();
    case Start::Nothing:
      return;
  }
}

// An empty board, as it is asked for; false where that was left.
bool MainWindow::new_board() {
  if (!may_leave()) return false;
  NewBoard asked(this);
  if (asked.exec() != QDialog::Accepted) return false;
  document_.replace(asked.job(), {});
  select({});
  bench_->fit();
  return true;
}

// And what the user wants to put on it first.
void MainWindow::new_job(Greeting::Start first) {
  if (!new_board()) return;
  go_to_stage(Stage::Artwork);
  if (first == Greeting::Start::Sign) add_lettering();
  if (first == Greeting::Start::Art) add_drawing();
  if (first == Greeting::Start::Plates) plates_from_list();
}

// On an empty board the list's first columns become letterings.
void MainWindow::plates_from_list() {
  go_to_stage(Stage::Blank);
  blank_->plates().choose_list();
  if (!document_.job().plates.there() || !document_.job().items.empty()) return;
  document_.edit(tr("letter the plate"), [this](Job& job) { letter_plate(job, rack_); });
}

void MainWindow::choose_job() {
  if (!may_leave()) return;
  const QString path = QFileDialog::getOpenFileName(this, tr("Open a job"), {}, tr("Doyen jobs (*.doyen)"));
  if (!path.isEmpty()) open(path);
}

void MainWindow::choose_demo() {
  if (!may_leave()) return;
  DemoGallery gallery(this);
  if (gallery.exec() == QDialog::Accepted) open_demo(gallery.chosen());
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  for (const QUrl& url : event->mimeData()->urls()) {
    const QString path = url.toLocalFile();
    if (path.endsWith(QStringLiteral(".doyen"), Qt::CaseInsensitive)) {
      if (may_leave()) open(path);
    } else if (path.endsWith(QStringLiteral(".csv"), Qt::CaseInsensitive) ||
               path.endsWith(QStringLiteral(".tsv"), Qt::CaseInsensitive)) {
      go_to_stage(Stage::Blank);
      blank_->plates().take_file(path);
    } else if (!path.isEmpty()) {
      add_drawing(path);
    }
  }
}

}  // namespace doyen
