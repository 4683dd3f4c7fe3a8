// What the window does with files: saving, unsaved work, and the set that goes to the machine.
#include <QApplication>
#include <QCloseEvent>
#include <QDesktopServices>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>

#include "files/customer_sheet.hpp"
#include "files/output_set.hpp"
#include "files/outputs.hpp"
#include "finish/price.hpp"
#include "parts/why.hpp"
#include "problem.hpp"
#include "shell/main_window.hpp"
#include "shell/print_sheets.hpp"
#include "shell/time_beam.hpp"
#include "shell/written_slip.hpp"
#include "storage/atomic_file.hpp"
#include "work/long_work.hpp"

namespace doyen {

void MainWindow::offer_recovery() {
  for (const JobDocument::Recovered& found : JobDocument::recoverable()) {
    if (!found.problem.isEmpty()) {
      const QString kept = JobDocument::put_aside(found);
      say(tr("Unsaved work cannot be read"), tr("Doyen closed unexpectedly, and the copy of the work that was not "
                                                "saved cannot be read. It is kept as "
                                                "%1. %2")
                                                 .arg(kept, found.problem));
      continue;
    }
    QString words = tr("Doyen closed unexpectedly. “%1” had unsaved changes.").arg(found.job_name);
    if (found.overtaken)
      words += QLatin1Char(' ') + tr("Since then its file, %1, was changed: the copy may be the older one.")
                                      .arg(QFileInfo(found.original_path).fileName());
    QMessageBox box(QMessageBox::NoIcon, tr("Unsaved work was found"), words + QLatin1Char(' ') + tr("Restore it?"),
                    QMessageBox::NoButton, this);
    QPushButton* take = box.addButton(tr("Restore it"), QMessageBox::AcceptRole);
    QPushButton* drop = box.addButton(tr("Throw it away"), QMessageBox::DestructiveRole);
    box.addButton(tr("Ask me later"), QMessageBox::RejectRole);
    box.exec();
    if (box.clickedButton() == drop) JobDocument::forget(found);
    if (box.clickedButton() != take) continue;
    try {
      document_.recover(found);
    } catch (const Problem& problem) {
      say(tr("Unsaved work"), QString::fromUtf8(problem.what()));
    }
    return;
  }
}

bool MainWindow::save(bool as) {
  finish_typing();
  return as || document_.path().isEmpty() ? save_as() : save_to(document_.path());
}

bool MainWindow::save_as() {
  QString path = QFileDialog::getSaveFileName(
      this, tr("Save the job"),
      document_.path().isEmpty() ? QString::fromStdString(document_.job().name) + QStringLiteral(".doyen")
                                 : document_.path(),
      tr("Doyen jobs (*.doyen)"));
  if (path.isEmpty()) return false;
  if (!path.endsWith(QStringLiteral(".doyen"))) {
    path += QStringLiteral(".doyen");
    // Nobody was asked about this name yet.
    if (QFileInfo::exists(path) && QFileInfo(path).absoluteFilePath() != document_.path()) {
      QMessageBox box(QMessageBox::NoIcon, tr("Save the job"),
                      tr("“%1” is there already. Replace it?").arg(QFileInfo(path).fileName()), QMessageBox::NoButton,
                      this);
      const QPushButton* replace = box.addButton(tr("Replace it"), QMessageBox::DestructiveRole);
      box.addButton(tr("Cancel"), QMessageBox::RejectRole);
      box.exec();
      if (box.clickedButton() != replace) return false;
    }
  }
  return save_to(path);
}

bool MainWindow::save_to(const QString& path) {
  // Whole or not at all: it is not stopped in the middle.
  const auto write = [this](const std::function<void()>& task) {
    work_off_thread(this, tr("Saving the job…"), [&](const Cancel&, const Told&) { task(); });
  };
  try {
    try {
      document_.save(path, false, write);
    } catch (const Problem& problem) {
      if (problem.kind() != Problem::Kind::InTheWay) throw;
      QMessageBox box(QMessageBox::NoIcon, tr("Someone else saved this job"),
                      QString::fromUtf8(problem.what()) + QLatin1Char(' ') +
                          tr("Saving here would undo that work; opening it anew would lose yours."),
                      QMessageBox::NoButton, this);
      box.setObjectName(QStringLiteral("changedFile"));
      QPushButton* beside = box.addButton(tr("Save mine beside it…"), QMessageBox::AcceptRole);
      QPushButton* over = box.addButton(tr("Replace the other one"), QMessageBox::DestructiveRole);
      QPushButton* again = box.addButton(tr("Open the other one, lose mine"), QMessageBox::DestructiveRole);
      box.addButton(tr("Not now"), QMessageBox::RejectRole);
      box.setDefaultButton(beside);
      // Known before the question closes: the window becomes active then, and would ask the same again.
      asked_of_ = QFileInfo(path).lastModified();
      asking_ = true;
      box.exec();
      asking_ = false;
      if (box.clickedButton() == beside) return save_as();
      if (box.clickedButton() == again) return open(path) && false;
      if (box.clickedButton() != over) return false;
      document_.save(path, true, write);
    }
    remember(path);
    return true;
  } catch (const Cancelled&) {
    return false;
  } catch (const Problem& problem) {
    say(tr("Nothing was saved"), QString::fromUtf8(problem.what()));
    return false;
  }
}

void MainWindow::look_at_disk() {
  if (asking_ || !document_.changed_on_disk()) return;
  asking_ = true;
  asked_of_ = QFileInfo(document_.path()).lastModified();  // once for each time that it was changed
  const bool mine = document_.unsaved();
  QMessageBox box(
      QMessageBox::NoIcon, tr("Someone else saved this job"),
      tr("“%1” was saved by someone else since it was opened here.").arg(QFileInfo(document_.path()).fileName()) +
          QLatin1Char(' ') +
          (mine ? tr("You have unsaved work in it, too: opening it anew would lose that.")
                : tr("Shall it be opened anew?")),
      QMessageBox::NoButton, this);
  box.setObjectName(QStringLiteral("changedFile"));
  QPushButton* again = box.addButton(mine ? tr("Open the other one, lose mine") : tr("Open it anew"),
                                     mine ? QMessageBox::DestructiveRole : QMessageBox::AcceptRole);
  QPushButton* beside = mine ? box.addButton(tr("Save mine beside it…"), QMessageBox::AcceptRole) : nullptr;
  box.addButton(tr("Stay with what is here"), QMessageBox::RejectRole);  // saving still asks
  box.setDefaultButton(beside != nullptr ? beside : again);
  box.exec();
  if (box.clickedButton() == again) open(document_.path());
  if (beside != nullptr && box.clickedButton() == beside) save_as();
  asking_ = false;
}

void MainWindow::changeEvent(QEvent* event) {
  QMainWindow::changeEvent(event);
  // Of several windows the one that is worked in opens the guide.
  if (event->type() == QEvent::ActivationChange && isActiveWindow())
    QDesktopServices::setUrlHandler(QLatin1String(kGuideLinks), this, "open_guide_link");
  // Asked once for each time that it was changed.
  if (event->type() == QEvent::ActivationChange && isActiveWindow() && !document_.path().isEmpty() &&
      QFileInfo(document_.path()).lastModified() != asked_of_)
    QMetaObject::invokeMethod(this, &MainWindow::look_at_disk, Qt::QueuedConnection);
}

bool MainWindow::may_leave() {
  finish_typing();
  if (!document_.unsaved()) return true;
  QMessageBox box(QMessageBox::NoIcon, tr("Unsaved work"),
                  tr("“%1” has unsaved changes. Save them?").arg(QString::fromStdString(document_.job().name)),
                  QMessageBox::NoButton, this);
  const QPushButton* keep = box.addButton(tr("Save the job"), QMessageBox::AcceptRole);
  const QPushButton* drop = box.addButton(tr("Lose the changes"), QMessageBox::DestructiveRole);
  box.addButton(tr("Cancel"), QMessageBox::RejectRole);
  box.exec();
  if (box.clickedButton() == keep) return save(false);
  return box.clickedButton() == drop;
}

void MainWindow::closeEvent(QCloseEvent* event) {
  if (!may_leave()) return event->ignore();
  QSettings().setValue(QStringLiteral("window"), saveGeometry());
  event->accept();
}

QString MainWindow::write_customer_sheet(const QString& path, const QString& beside, bool priced) {
  if (!shop_.plan || !shop_.current()) return tr("The plan is still being worked out; try again in a moment.");
  try {
    work_off_thread(this, tr("Drawing the customer's sheet…"),
                    [plan = shop_.plan, to = path.toStdString(), other_job = beside.toStdString(), rack = rack_,
                     priced](const Cancel& cancel, const Told&) {
                      const Picture board = finished_picture(*plan, 1400, cancel);
                      const auto price = [&](const Plan& of) { return priced ? quote_in_words(of) : std::string(); };
                      std::vector<ShownSign> signs{{*plan, board, price(*plan)}};
                      std::optional<Plan> other;
                      Picture other_board;
                      if (!other_job.empty()) {
                        const Job job = load_job(other_job);
                        other = doyen::plan(job, rack, machine_for(job), nullptr, cancel);
                        other_board = finished_picture(*other, 1400, cancel);
                        signs.push_back({*other, other_board, price(*other)});
                      }
                      const bool picture = to.ends_with(".png") || to.ends_with(".PNG");
                      write_file_atomically(to, picture ? customer_sheet_png(signs) : customer_sheet_pdf(signs));
                    });
    return path.endsWith(QStringLiteral(".png"), Qt::CaseInsensitive)
               ? tr("Written: %1.").arg(path)
               : tr("Written: %1. Print it at its own size; the ruler on it must be true.").arg(path);
  } catch (const Cancelled&) {
    return tr("Nothing was written: you stopped it.");
  } catch (const std::exception& error) {
    return tr("The customer's sheet was not written: %1").arg(QString::fromUtf8(error.what()));
  }
}

void MainWindow::save_customer_sheet(bool priced) {
  const QString path =
      QFileDialog::getSaveFileName(this, tr("Save the customer's sheet"),
                                   QString::fromStdString(document_.job().name) +
                                       (priced ? tr(", quote") : tr(", for approval")) + QStringLiteral(".pdf"),
                                   tr("PDF, to be signed (*.pdf);;Picture, to be sent (*.png)"));
  if (!path.isEmpty()) note(write_customer_sheet(path, {}, priced));
}

void MainWindow::save_further_file(const QString& name, const QString& text) {
  const QString folder = folder_for_files();
  const QString path = QFileDialog::getSaveFileName(this, tr("Save the file for the machine"),
                                                    folder.isEmpty() ? name : folder + QLatin1Char('/') + name,
                                                    tr("Files for the machine (*.%1)").arg(QFileInfo(name).suffix()));
  if (path.isEmpty()) return;
  try {
    write_file_atomically(path.toStdString(), text.toStdString());
    note(tr("Written: %1").arg(path));
  } catch (const Problem& problem) {
    say(tr("The file was not written"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::save_finish_file(const QString& name, const QString& kinds, const QByteArray& bytes) {
  const QString path = QFileDialog::getSaveFileName(this, tr("Save it"), name, kinds);
  if (path.isEmpty()) return;
  try {
    write_file_atomically(path.toStdString(), bytes.toStdString());
    note(tr("Written: %1").arg(path));
  } catch (const Problem& problem) {
    say(tr("The file was not written"), QString::fromUtf8(problem.what()));
  }
}

void MainWindow::save_sheet_of_two() {
  const QString beside =
      QFileDialog::getOpenFileName(this, tr("The other job, to choose from"), {}, tr("Doyen jobs (*.doyen)"));
  if (beside.isEmpty()) return;
  const QString path = QFileDialog::getSaveFileName(
      this, tr("Save the customer's sheet"),
      QString::fromStdString(document_.job().name) + tr(", for approval") + QStringLiteral(".pdf"),
      tr("PDF, to be signed (*.pdf);;Picture, to be sent (*.png)"));
  if (!path.isEmpty()) note(write_customer_sheet(path, beside));
}

QString MainWindow::write_files(const QString& folder, bool anyway, bool replace) {
  in_the_way_ = false;
  if (!shop_.plan || !(shop_.plan->job == document_.job()))
    return trouble_.isEmpty()
               ? tr("The plan is still being worked out; try again in a moment.")
               : tr("The plan could not be worked out: %1 Save the job, and change what was edited last.")
                     .arg(trouble_);
  const Plan& seen = *shop_.seen();
  if (seen.has_stop() && !anyway) {
    const QString words = (seen.count(Grade::Stop) == 1
                               ? tr("Nothing was written: one thing would spoil wood, break a bit or be unsafe. ")
                               : tr("Nothing was written: %1 things would spoil wood, break a bit or be unsafe. ")
                                     .arg(seen.count(Grade::Stop))) +
                          tr("Proof lists what, with its remedies.");
    run_->show_written(words, false);
    return words;
  }
  QString words, written_to, judged;
  QStringList names;
  bool fine = false;
  const PlanPtr plan = shop_.plan;
  try {
    Written written;
    const OutputOrder asked{anyway, replace, document_.keys(), {}};
    work_off_thread(this, tr("Writing the files: working out, looking at what they cut, drawing…"),
                    [&, rack = rack_](const Cancel& cancel, const Told& told) {
                      const std::vector<FurtherPlan> further = plan_further(plan->job, rack, anyway, cancel);
                      OutputOrder order = asked;
                      order.told = told;
                      written = write_outputs(*plan, further, folder.toStdString(), order, cancel);
                    });
    for (const std::string& name : written.names) names << QString::fromStdString(name);
    fine = !written.spoils;
    written_to = folder;
    judged = tr("The files were read back and carved in the computer: %1.")
                 .arg(QString::fromStdString(judged_in_words(written.judgement, plan->job.lengths)));
    words = tr("Written into %1: %2.").arg(folder, names_in_words(names)) + QLatin1Char('\n') + judged;
  } catch (const Cancelled&) {
    words = tr("Nothing was written: you stopped it.");
  } catch (const Problem& problem) {
    in_the_way_ = problem.kind() == Problem::Kind::InTheWay;
    words = QString::fromUtf8(problem.what());
  } catch (const std::exception& error) {
    words = tr("Nothing was written: %1").arg(QString::fromUtf8(error.what()));
  }
  run_->show_written(words, fine, written_to);
  if (!written_to.isEmpty()) {
    slip_->show_written(written_to, names, judged, QString::fromStdString(plan->machine.file_ending));
    ++written_;
    lesson_looks();
  }
  return words;
}

void MainWindow::print_sheets(const QString& folder, const QStringList& sheets) {
  PrintSheets dialog(folder, sheets, this);
  connect(&dialog, &PrintSheets::open_wanted, this, &MainWindow::open_on_desktop);
  if (dialog.exec() == QDialog::Accepted) note(tr("The sheets are with the printer."));
}

namespace {
// Where this job's files went last, among the settings.
QString key_of_folder(const QString& job_path) {
  return QStringLiteral("folders/") + QString::fromStdString(key_of_job_file(job_path.toStdString()));
}
}  // namespace

// Where this job's files went last time; for a job that never had any, where the last ones of any job went.
QString MainWindow::folder_for_files() const {
  const QSettings settings;
  const QString last = settings.value(QStringLiteral("folder")).toString();
  return document_.path().isEmpty() ? last : settings.value(key_of_folder(document_.path()), last).toString();
}

void MainWindow::choose_and_write() {
  finish_typing();
  go_to_stage(Stage::Run);
  if (shop_.plan && shop_.seen()->has_stop()) {
    write_files({});
    go_to_stage(Stage::Run);
    return;
  }
  QString folder = folder_for_files();
  for (;;) {
    folder = QFileDialog::getExistingDirectory(this, tr("Folder for the files"), folder);
    if (folder.isEmpty()) return;
    const QString said = write_files(folder);
    if (!in_the_way_) break;
    QMessageBox box(QMessageBox::NoIcon, tr("Something else stands there"), said, QMessageBox::NoButton, this);
    box.setObjectName(QStringLiteral("inTheWay"));
    QPushButton* other = box.addButton(tr("Choose another folder…"), QMessageBox::AcceptRole);
    QPushButton* replace = box.addButton(tr("Replace those files"), QMessageBox::DestructiveRole);
    box.addButton(tr("Write nothing"), QMessageBox::RejectRole);
    box.setDefaultButton(other);
    box.exec();
    if (box.clickedButton() == replace) write_files(folder, false, true);
    if (box.clickedButton() != other) break;
  }
  QSettings settings;
  settings.setValue(QStringLiteral("folder"), folder);
  if (!document_.path().isEmpty()) settings.setValue(key_of_folder(document_.path()), folder);
}

}  // namespace doyen
