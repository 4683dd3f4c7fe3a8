// The shop's equipment, which all jobs share: the rack of bits, the machines, and a simulated one to rehearse with.
#include <QSettings>

#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "shell/main_window.hpp"
#include "stages/cuts/rack_dialog.hpp"
#include "stages/log/log_dialog.hpp"
#include "stages/run/bed_view.hpp"
#include "stages/run/machines_dialog.hpp"
#include "stages/run/rehearsal.hpp"

namespace doyen {

void MainWindow::edit_rack() {
  RackDialog dialog(rack_, document_.job().lengths, this);
  if (dialog.exec() == QDialog::Accepted && !(dialog.rack() == rack_)) keep_rack(dialog.rack());
}

void MainWindow::edit_machines() {
  MachinesDialog dialog(document_.job().run.machine, document_.job().lengths, this);
  if (dialog.exec() != QDialog::Accepted) return;
  if (const std::string id = dialog.wanted(); !id.empty() && id != document_.job().run.machine) {
    QSettings().setValue(QStringLiteral("machine"), QString::fromStdString(id));
    document_.edit(tr("choose the machine"), [&](Job& job) { job.run.machine = id; });
  } else {
    planner_.request(document_.job(), rack_);
  }
  refresh_tickets();
  if (!dialog.aside().isEmpty())
    note(tr("The machines' file could not be read; it is kept as %1.").arg(dialog.aside()));
}

void MainWindow::keep_rack(const Rack& rack) {
  std::string aside;
  try {
    KeptRack kept = keep_own_rack(rack_, rack);
    rack_ = std::move(kept.rack);
    aside = std::move(kept.aside);
  } catch (const Problem& problem) {
    return say(tr("The rack was not saved"), QString::fromUtf8(problem.what()));
  }
  planner_.request(document_.job(), rack_);
  refresh_tickets();
  if (!aside.empty())
    note(tr("The rack's file could not be read; it is kept as %1.").arg(QString::fromStdString(aside)));
}

void MainWindow::open_log() {
  LogDialog dialog(document_.job().lengths, this);
  const bool wants_job = dialog.exec() == QDialog::Accepted && !dialog.wanted_job().empty();
  if (dialog.is_changed()) {
    planner_.request(document_.job(), rack_);
    refresh_tickets();
  }
  if (!wants_job || !may_leave()) return;
  try {
    document_.replace(read_job(dialog.wanted_job(), tr("the log").toStdString()), {});
  } catch (const Problem& problem) {
    return say(tr("This job cannot be opened"), QString::fromUtf8(problem.what()));
  }
  select({});
  bench_->fit();
}

void MainWindow::open_mended(const Job& job) {
  const Job mended = job;  // what asked for it may be gone when it is opened
  if (!may_leave()) return;
  document_.replace(mended, {});
  select({});
  bench_->fit();
  go_to_stage(Stage::Proof);
}

void MainWindow::open_rehearsal() {
  if (!shop_.plan || shop_.plan->runs.empty()) return;
  show_in_place(new Rehearsal(shop_.plan, this), [] {});
}

void MainWindow::open_bed() {
  show_in_place(new BedView(shop_, this), [] {});
}

}  // namespace doyen
