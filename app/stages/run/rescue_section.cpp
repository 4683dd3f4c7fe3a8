#include "stages/run/rescue_section.hpp"

#include <algorithm>
#include <set>

#include "problem.hpp"

namespace doyen {

RescueSection::RescueSection(Workshop& shop, QVBoxLayout* column, QObject* parent) : QObject(parent), shop_(shop) {
  heading_ = make_label(tr("What can be done now"), "heading");
  column->addWidget(heading_);
  aid_ = make_label({}, "plain");
  aid_->setObjectName(QStringLiteral("firstAid"));
  column->addWidget(aid_);
  of_ = make_label({}, "faded");
  of_->setObjectName(QStringLiteral("rescueOf"));
  column->addWidget(of_);
  part_ = new QComboBox;
  part_->setObjectName(QStringLiteral("rescuePart"));
  column->addWidget(make_row(tr("Of it"), part_));
  off_ = new LengthField({0.05, 200}, true);
  off_->setObjectName(QStringLiteral("planeOff"));
  column->addWidget(make_row(tr("Planed off"), off_));
  const auto button = [&](const char* name, const QString& words, const std::function<Job(const Plan&)>& work) {
    auto* made = new QPushButton(words);
    made->setObjectName(QLatin1String(name));
    column->addWidget(made, 0, Qt::AlignLeft);
    connect(made, &QPushButton::clicked, this, [this, work] { make(work); });
    return made;
  };
  rest_ = new QPushButton(tr("To the rest of its file"));
  rest_->setObjectName(QStringLiteral("toRestOfFile"));
  column->addWidget(rest_, 0, Qt::AlignLeft);
  connect(rest_, &QPushButton::clicked, this, &RescueSection::rest_wanted);
  only_ = button("cutAgain", tr("A job that cuts only this again…"),
                 [this](const Plan& p) { return only_these(p, anew()); });
  patch_ = button("makePatch", tr("A job for a recess and its patch…"),
                  [this](const Plan& p) { return patch_for(p, anew()); });
  fill_ = button("makeFill", tr("A job for a piece that fills it…"),
                 [this](const Plan& p) { return fill_piece_for(p, anew(), mishaps_); });
  planed_ = button("planeAgain", tr("The job on the planed board…"),
                   [this](const Plan& p) { return planed(p.job, asked_off_.value_or(kUsuallyPlaned)); });
  smaller_ =
      button("cutSmaller", tr("The job smaller, within the margin…"), [](const Plan& p) { return within_margin(p); });
  moved_ =
      button("cutElsewhere", tr("The job moved within the margin…"), [](const Plan& p) { return moved_within(p); });
  says_ = make_label({}, "error");
  says_->setObjectName(QStringLiteral("rescueSays"));
  says_->hide();
  column->addWidget(says_);
  connect(off_, &LengthField::entered, this, [this](std::optional<double> mm) { asked_off_ = mm; });
}

CutAnew RescueSection::anew() const {
  CutAnew anew;
  for (const QString& id : shop_.chosen()) anew.pieces.push_back(id.toStdString());
  if (anew.pieces.size() == 1 && part_->currentIndex() > 0)
    anew.part = static_cast<std::size_t>(part_->currentIndex() - 1);
  return anew;
}

void RescueSection::make(const std::function<Job(const Plan&)>& work) {
  const auto say = [this](const QString& words) {
    says_->setText(words);
    says_->setVisible(!words.isEmpty());
  };
  say({});
  if (!shop_.current()) return say(tr("The plan is still being worked out; try again in a moment."));
  try {
    Q_EMIT job_wanted(work(*shop_.plan));
  } catch (const Problem& problem) {
    say(QString::fromUtf8(problem.what()));
  }
}

void RescueSection::list_parts() {
  const QStringList chosen = shop_.chosen();
  const std::string one = chosen.size() == 1 && shop_.current() ? chosen.front().toStdString() : std::string();
  if (one == listed_ && (one.empty() || shop_.plan == listed_of_)) return;
  const int before = one == listed_ ? part_->currentIndex() : 0;
  const QString was = part_->itemText(before);
  listed_ = one;
  listed_of_ = shop_.plan;
  part_->clear();
  part_->addItem(tr("all of it"));
  if (one.empty()) return;
  for (const PartOfPiece& part : parts_of_piece(*shop_.plan, one)) part_->addItem(QString::fromStdString(part.name));
  if (part_->itemText(before) == was) part_->setCurrentIndex(before);
}

void RescueSection::show_for(const std::vector<MishapSeen>& mishaps) {
  mishaps_ = mishaps;
  std::set<Rescue> can;
  QStringList lines;
  for (const MishapSeen& seen : mishaps) {
    for (const std::string& line : first_aid(seen.mishap)) lines << QString::fromStdString(line);
    for (const Rescue rescue : rescues_for(seen.mishap)) can.insert(rescue);
  }
  lines.removeDuplicates();
  heading_->setVisible(!mishaps.empty());
  aid_->setText(lines.join(QLatin1Char('\n')));
  aid_->setVisible(!lines.isEmpty());
  const bool pieces = can.contains(Rescue::OnlyThese) || can.contains(Rescue::Patch) || can.contains(Rescue::FillPiece);
  list_parts();
  const QStringList chosen = shop_.chosen();
  const Item* item = chosen.size() == 1 ? shop_.document.job().find(chosen.front().toStdString()) : nullptr;
  of_->setVisible(pieces);
  of_->setText(chosen.isEmpty() ? tr("Choose on the board what it is about.")
               : item != nullptr
                   ? tr("It is about “%1”, which is chosen on the board.").arg(QString::fromStdString(item->piece.name))
                   : tr("It is about the %1 pieces that are chosen on the board.").arg(chosen.size()));
  show_row(part_, pieces && part_->count() > 1);
  show_row(off_, can.contains(Rescue::Planed));
  if (asked_off_ || shop_.plan) off_->show_length(asked_off_, shop_.document.job().lengths);
  off_->setPlaceholderText(shop_.show(kUsuallyPlaned));
  if (shop_.plan)
    off_->setToolTip(
        tr("Cut again in the same place, what is left of the old cuts disappears in the new ones. For what is cut "
           "elsewhere, %1 must come off.")
            .arg(shop_.show(planed_clean(*shop_.plan))));
  only_->setVisible(can.contains(Rescue::OnlyThese));
  patch_->setVisible(can.contains(Rescue::Patch));
  fill_->setVisible(can.contains(Rescue::FillPiece));
  moved_->setVisible(can.contains(Rescue::MovedWithin));
  rest_->setVisible(can.contains(Rescue::RestOfFile));
  only_->setEnabled(!chosen.isEmpty());
  fill_->setEnabled(!chosen.isEmpty());
  patch_->setEnabled(!chosen.isEmpty());
  planed_->setVisible(can.contains(Rescue::Planed));
  smaller_->setVisible(can.contains(Rescue::WithinMargin));
  if (mishaps.empty()) says_->hide();
}

}  // namespace doyen
