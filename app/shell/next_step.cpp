#include "shell/next_step.hpp"

#include <QHBoxLayout>

#include "parts/cards.hpp"
#include "parts/theme.hpp"

namespace doyen {

NextStep next_step(Stage stage, const Job& job, const Plan* plan) {
  using What = NextStep::What;
  const auto tr = [](const char* words) { return NextStepBar::tr(words); };
  if (job.items.empty()) {
    return {What::AddSomething,
            {},
            stage == Stage::Artwork ? tr("Begin with lettering, a drawing or a shape.") : tr("The board is empty yet."),
            stage == Stage::Artwork ? tr("Add lettering") : tr("Go to Artwork")};
  }
  for (const Item& item : job.items) {
    if (!job.undecided(item)) continue;
    return {What::SayTheLook, item.piece.id, tr("“%1” is not cut yet.").arg(QString::fromStdString(item.piece.name)),
            tr("Say how it should look")};
  }
  // What is not known yet is neither good nor bad; there is work to be done before, meanwhile.
  if (plan == nullptr && (stage == Stage::Proof || stage == Stage::Run))
    return {What::Wait, {}, tr("The files are being worked out and looked at…"), {}};
  const int stops = plan == nullptr ? 0 : plan->count(Grade::Stop);
  if (stops > 0 && stage != Stage::Proof)
    return {What::MendStops,
            {},
            stops == 1 ? tr("1 stop to mend.") : tr("%1 stops to mend.").arg(stops),
            tr("Show what is wrong")};
  if (stops > 0)
    return {What::MendStops,
            {},
            stops == 1 ? tr("1 stop to mend, above.") : tr("%1 stops to mend, above.").arg(stops),
            tr("Take the first remedy")};
  switch (stage) {
    case Stage::Blank:
    case Stage::Artwork:
    case Stage::Cuts:
      return {What::LookAtProof, {}, tr("Every piece has its look."), tr("Look at the proof")};
    case Stage::Proof:
      return {What::GoToRun, {}, tr("No stops."), tr("Go to Run")};
    case Stage::Run:
      return {What::WriteFiles, {}, tr("Ready for the machine."), tr("Write the files…")};
    case Stage::Finish:
      return {What::GoToRun, {}, tr("All of it can be changed later."), tr("Go to Run")};
  }
  return {};
}

NextStepBar::NextStepBar(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("nextStep"));
  setProperty("role", QStringLiteral("next"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(18, 8, 16, 8);
  row->setSpacing(8);
  words_ = make_label({}, "faded");
  button_ = new QPushButton;
  button_->setObjectName(QStringLiteral("takeNextStep"));
  button_->setAutoDefault(false);
  button_->setFocusPolicy(Qt::TabFocus);  // a click leaves the focus where it was: no stray Space presses it again
  row->addWidget(words_, 1);
  row->addWidget(button_);
  connect(button_, &QPushButton::clicked, this, [this] { Q_EMIT taken(step_); });
}

void NextStepBar::show_step(const NextStep& step) {
  step_ = step;
  if (words_->text() != step.words) words_->setText(step.words);
  button_->setVisible(!step.button.isEmpty());
  const QString words = step.button + QStringLiteral(" ▸");
  if (button_->text() != words) button_->setText(words);
  button_->setAccessibleName(step.button);
}

}  // namespace doyen
