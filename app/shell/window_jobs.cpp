// Opening jobs: demos, recent ones, files dropped on the window.
#include <QDialogButtonBox>
#include <QFileInfo>
#include <QMenu>
#include <QMimeData>
#include <QSettings>

#include "parts/theme.hpp"
#include "problem.hpp"
#include "shell/main_window.hpp"
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
  QDialog box(this);
  box.setWindowTitle(tr("Doyen"));
  box.setObjectName(QStringLiteral("welcome"));
  auto* column = new QVBoxLayout(&box);
  column->setContentsMargins(28, 24, 28, 22);
  column->setSpacing(9);
  column->addWidget(make_label(tr("Good morning. What shall be carved?"), "title"));
  column->addWidget(make_label(tr("Say what each shape shall look like; Doyen works out the cutting, shows the board "
                                  "as it will be, and says what would go wrong before wood is spoiled."),
                               "faded"));
  int chosen = 0;
  QString job;
  const auto add = [&](const QString& words, const QString& about, int which, const QString& path = {}) {
    auto* button = new QPushButton(words);
    button->setMinimumHeight(36);
    button->setStyleSheet(QStringLiteral("text-align: left; padding-left: 14px;"));
    button->setToolTip(about);
    connect(button, &QPushButton::clicked, &box, [&box, &chosen, &job, which, path] {
      chosen = which;
      job = path;
      box.accept();
    });
    column->addWidget(button);
    return button;
  };
  add(tr("Look round in the demo: a gate sign for Marrowby Physic Garden"), {}, 1)->setDefault(true);
  add(tr("Look at a plaque: words on an arc, a heron traced from a photo"), {}, 6);
  add(tr("Lettering on a board"), {}, 2);
  add(tr("Art from a file…"), {}, 3);
  add(tr("Open a job…"), {}, 4);
  bool headed = false;
  for (const QString& path : recent_jobs()) {
    if (!headed) column->addWidget(make_label(tr("Worked on lately"), "faded"));
    headed = true;
    add(QFileInfo(path).fileName(), path, 5, path);
  }
  box.setFixedWidth(520);
  box.exec();
  if (chosen == 2) {
    document_.replace(Job{}, {});
    go_to_stage(Stage::Artwork);
    add_lettering();
  } else if (chosen == 3) {
    document_.replace(Job{}, {});
    go_to_stage(Stage::Artwork);
    add_drawing();
  } else if (chosen == 4) {
    const QString path = QFileDialog::getOpenFileName(this, tr("Open a job"), {}, tr("Doyen jobs (*.doyen)"));
    if (path.isEmpty() || !open(path)) open_demo();
  } else if (chosen == 6) {
    open_demo(QStringLiteral("heron-plaque"));
  } else if (chosen == 5) {
    if (!open(job)) open_demo();
  } else {
    open_demo();
  }
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  for (const QUrl& url : event->mimeData()->urls()) {
    const QString path = url.toLocalFile();
    if (path.endsWith(QStringLiteral(".doyen"), Qt::CaseInsensitive)) {
      if (may_leave()) open(path);
    } else if (!path.isEmpty()) {
      add_drawing(path);
    }
  }
}

}  // namespace doyen
