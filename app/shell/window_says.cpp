// What rail, ticket and foot say of the job as it stands.
#include <QScrollBar>
#include <QTimer>

#include "shell/main_window.hpp"
#include "stages/run/bed_view.hpp"

namespace doyen {

void MainWindow::refresh_tickets() {
  auto* ticket = static_cast<Ticket*>(tickets_->currentWidget());
  const Item* item = shop_.item();
  const QString shown = QString::number(tickets_->currentIndex()) + QLatin1Char('/') +
                        (item == nullptr ? QString() : QString::fromLatin1(kind_word(item->piece)));
  const bool other = shown != ticket_shown_;
  if (other && !ticket_shown_.isEmpty()) {
    const int before = ticket_shown_.section(QLatin1Char('/'), 0, 0).toInt();
    scrolled_[ticket_shown_] = static_cast<Ticket*>(tickets_->widget(before))->verticalScrollBar()->value();
  }
  ticket_shown_ = shown;
  ticket->refresh();
  ticket->show_pending();
  if (auto* bed = qobject_cast<BedView*>(pages_->currentWidget())) bed->refresh();
  refresh_next_step();
  const auto stage = static_cast<Stage>(tickets_->currentIndex());
  ways_->refresh((stage == Stage::Cuts || stage == Stage::Proof) && trouble_.isEmpty());
  // It opens at its top, or where it was left; once its rows are laid out.
  if (other) {
    QTimer::singleShot(0, ticket,
                       [ticket, to = scrolled_.value(shown, 0)] { ticket->verticalScrollBar()->setValue(to); });
  }
  lesson_looks();
}

void MainWindow::refresh_next_step() {
  if (!trouble_.isEmpty()) {
    NextStep none;
    none.what = NextStep::What::Wait;
    none.words = tr("This job could not be planned: see below.");
    return next_->show_step(none);
  }
  // A stop of the plan is one whatever the judge says; that there is none, only he knows.
  const bool current = shop_.plan && shop_.plan->job == document_.job();
  const bool known = current && (shop_.judged || shop_.plan->has_stop());
  next_->show_step(next_step(rail_->current(), document_.job(), known ? shop_.seen().get() : nullptr));
}

void MainWindow::take_next_step(const NextStep& step) {
  switch (step.what) {
    case NextStep::What::AddSomething:
      if (rail_->current() == Stage::Artwork) return add_lettering();
      return go_to_stage(Stage::Artwork);
    case NextStep::What::SayTheLook:
      go_to_stage(Stage::Cuts);
      return select(QString::fromStdString(step.piece));
    case NextStep::What::Wait:
      return;
    case NextStep::What::MendStops:
      if (rail_->current() == Stage::Proof) return take_first_remedy();
      return go_to_stage(Stage::Proof);
    case NextStep::What::LookAtProof:
      return go_to_stage(Stage::Proof);
    case NextStep::What::GoToRun:
      return go_to_stage(Stage::Run);
    case NextStep::What::WriteFiles:
      return choose_and_write();
  }
}

void MainWindow::refresh_rail() {
  const Job& job = document_.job();
  const Species* species = species_table().find(job.blank.species);
  const auto bare = [&](double mm) { return QString::fromStdString(size_in_words(mm, job.lengths, false)); };
  const QString size = bare(job.blank.width) + QStringLiteral(" × ") + bare(job.blank.height);
  const QString unit = QString::fromLatin1(unit_name(job.lengths.unit));
  rail_->show_job(
      QString::fromStdString(job.name),
      (species == nullptr ? QString() : QString::fromStdString(species->name).toLower() + QLatin1Char(' ')) + size +
          QLatin1Char(' ') + unit + QStringLiteral(" · ") +
          (document_.unsaved()          ? tr("unsaved")
           : document_.path().isEmpty() ? tr("not saved yet")
                                        : tr("saved")));
  const int readings = static_cast<int>(job.blank.readings.size());
  rail_->show_state(Stage::Blank, readings >= 3 ? Lamp::Fine : Lamp::Note,
                    readings == 1 ? tr("one reading") : tr("%1 readings").arg(readings));
  const int pieces = static_cast<int>(job.items.size());
  rail_->show_state(Stage::Artwork, pieces > 0 ? Lamp::Fine : Lamp::Off,
                    pieces == 0   ? tr("nothing yet")
                    : pieces == 1 ? tr("one piece")
                                  : tr("%1 pieces").arg(pieces));
  const int cut = pieces - static_cast<int>(std::count_if(job.items.begin(), job.items.end(),
                                                          [&](const Item& item) { return job.undecided(item); }));
  rail_->show_state(Stage::Cuts,
                    pieces == 0     ? Lamp::Off
                    : cut == pieces ? Lamp::Fine
                                    : Lamp::Mind,
                    cut == pieces ? (cut == 1 ? tr("one treatment") : tr("%1 treatments").arg(cut))
                                  : tr("%1 of %2").arg(cut).arg(pieces));
  beam_->show_pending(!shop_.current());
  rail_->show_pending(Stage::Proof, !shop_.known());
  rail_->show_pending(Stage::Run, !shop_.current());
  if (!shop_.plan) return;
  const int stops = shop_.seen()->count(Grade::Stop), minds = shop_.seen()->count(Grade::Mind);
  QString words = stops == 0 ? QString() : stops == 1 ? tr("1 stop") : tr("%1 stops").arg(stops);
  if (minds > 0)
    words += (words.isEmpty() ? QString() : QStringLiteral(", ")) +
             (minds == 1 ? tr("1 warning") : tr("%1 warnings").arg(minds));
  const auto& all = shop_.seen()->verdicts;
  if (const auto accepted = std::count_if(all.begin(), all.end(), [](const Verdict& v) { return v.accepted; });
      accepted > 0)
    words += (words.isEmpty() ? tr("no problems") : QString()) + tr(", %1 accepted").arg(accepted);
  rail_->show_state(Stage::Proof,
                    stops > 0   ? Lamp::Stop
                    : minds > 0 ? Lamp::Mind
                                : Lamp::Fine,
                    words.isEmpty() ? tr("no problems") : words);
  show_run_state(stops > 0);
  show_finish_state();
}

void MainWindow::show_finish_state() {
  const bool said = document_.job().finish.school != FinishSchool::None;
  rail_->show_state(Stage::Finish, said ? Lamp::Fine : Lamp::Off, said ? tr("planned") : tr("not said yet"));
}

void MainWindow::show_run_state(bool stopped) {
  const int bits = shop_.plan->runs.empty() ? 0 : shop_.plan->bit_changes() + 1;
  if (bits == 0) return rail_->show_state(Stage::Run, Lamp::Off, tr("nothing to run"));
  rail_->show_state(Stage::Run, stopped ? Lamp::Stop : Lamp::Fine,
                    (bits == 1 ? tr("one bit, ") : tr("%1 bits, ").arg(bits)) +
                        QString::fromStdString(format_duration(shop_.plan->seconds)));
}

}  // namespace doyen
