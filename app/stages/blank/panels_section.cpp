#include "stages/blank/panels_section.hpp"

#include "panels/panels.hpp"
#include "panels/seams.hpp"
#include "planning/plan.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

using Join = PanelChoices::Join;

}  // namespace

PanelsSection::PanelsSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  fold_ = new Fold(tr("Panels of a large sign"), QStringLiteral("panelsOpen"));
  column->addWidget(fold_);
  about_ = make_label({}, "plain");
  about_->setObjectName(QStringLiteral("panelsAbout"));
  fold_->body()->addWidget(about_);
  build_size();
  inside_ = new QWidget;
  auto* inside = new QVBoxLayout(inside_);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(7);
  fold_->body()->addWidget(inside_);
  build_seams();
  build_join();
  build_end();
}

void PanelsSection::edit(const QString& name, const std::function<void(PanelChoices&)>& change) {
  if (!filling_) shop_.document.edit(name, [&](Job& job) { change(job.panels); });
}

LengthField* PanelsSection::length(const QString& label, const char* key, const char* name, const QString& says,
                                   double PanelChoices::*member, bool optional) {
  auto* field = new LengthField(optional ? from_least(kNarrowestPanel, key) : range_of(key), optional);
  field->setObjectName(QLatin1String(name));
  QLayout* column = optional ? static_cast<QLayout*>(fold_->body()) : inside_->layout();
  column->addWidget(make_row(label, field));
  connect(field, &LengthField::entered, this, [this, says, member](std::optional<double> mm) {
    edit(says, [&](PanelChoices& panels) { panels.*member = mm.value_or(0); });
  });
  return field;
}

void PanelsSection::build_size() {
  most_width_ = length(tr("At most left to right"), "panels.mostWidth", "panelMostWidth",
                       tr("say how wide a panel may be"), &PanelChoices::most_width, true);
  most_height_ = length(tr("At most front to back"), "panels.mostHeight", "panelMostHeight",
                        tr("say how deep a panel may be"), &PanelChoices::most_height, true);
  for (LengthField* field : {most_width_, most_height_})
    field->setToolTip(tr("As the machine and your boards allow; left empty: as far as the machine travels"));
  propose_ = new QPushButton(tr("Find seams"));
  propose_->setObjectName(QStringLiteral("findSeams"));
  propose_->setToolTip(tr("As few panels as do, their seams where no fine feature is cut"));
  fold_->body()->addWidget(propose_, 0, Qt::AlignLeft);
  connect(propose_, &QPushButton::clicked, this, &PanelsSection::propose);
  says_ = make_label({}, "error");
  says_->setObjectName(QStringLiteral("panelsSay"));
  says_->hide();
  fold_->body()->addWidget(says_);
}

void PanelsSection::propose() {
  says_->hide();
  try {
    const Job& job = shop_.document.job();
    const LargestPanel most = largest_panel(job.panels, machine_for(job), job.run.on_bed);
    const PanelChoices panels = propose_seams(job, most);
    if (!panels.there()) {
      says_->setText(tr("It fits in one piece: at most %1 × %2 can be made.")
                         .arg(shop_.show(most.width), shop_.show(most.height)));
      says_->show();
    }
    if (!(panels == job.panels)) shop_.document.edit(tr("find seams"), [&](Job& changed) { changed.panels = panels; });
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
    says_->show();
  }
}

void PanelsSection::build_seams() {
  const auto seams = [&](const QString& label, const char* name, const QString& tip, const QString& says,
                         std::vector<double> PanelChoices::*member) {
    auto* field = new TextField(
        [this](const QString& words) { (void)parse_seams(words.toStdString(), shop_.document.job().lengths.unit); });
    field->setObjectName(QLatin1String(name));
    field->setPlaceholderText(tr("none"));
    field->setToolTip(tip);
    inside_->layout()->addWidget(make_row(label, field));
    connect(field, &TextField::entered, this, [this, says, member](const QString& words) {
      edit(says, [&](PanelChoices& panels) {
        panels.*member = parse_seams(words.toStdString(), shop_.document.job().lengths.unit);
      });
    });
    return field;
  };
  across_ = seams(tr("Seams from the left"), "seamsAcross",
                  tr("Where the sign is parted, from its left, with ; between them. Seams can be dragged on the board, "
                     "too."),
                  tr("place seams"), &PanelChoices::across);
  deep_ = seams(tr("Seams from the front"), "seamsDeep",
                tr("Where the sign is parted, from its front, with ; between them. Seams can be dragged on the board, "
                   "too."),
                tr("place seams"), &PanelChoices::deep);
  gap_ = length(tr("Gap on the wall"), "panels.gap", "panelGap", tr("change the gap on the wall"), &PanelChoices::gap);
  gap_->setToolTip(tr("Between panels as they hang. It is part of the sign's size; what is drawn there is not made."));
}

void PanelsSection::build_join() {
  join_ = new QComboBox;
  join_->setObjectName(QStringLiteral("panelJoin"));
  join_->addItems({tr("nothing"), tr("dowels in the edges"), tr("screws through the face")});
  join_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  inside_->layout()->addWidget(make_row(tr("Kept in line by"), join_));
  connect(join_, &QComboBox::activated, this, [this](int i) {
    edit(tr("keep panels in line otherwise"), [i](PanelChoices& panels) { panels.join = static_cast<Join>(i); });
  });
  hole_ = length(tr("Dowels wide"), "panels.hole", "panelHole", tr("change the holes"), &PanelChoices::hole);
  apart_ = length(tr("At most apart"), "panels.apart", "panelApart", tr("change how far apart they are"),
                  &PanelChoices::apart);
  inset_ = length(tr("From a panel's edges"), "panels.inset", "panelInset", tr("change how far in they are"),
                  &PanelChoices::inset);
}

void PanelsSection::build_end() {
  made_ = make_label({}, "plain");
  made_->setObjectName(QStringLiteral("panelsMade"));
  inside_->layout()->addWidget(made_);
  look_ = new QPushButton(tr("Look at the panels…"));
  look_->setObjectName(QStringLiteral("seePanels"));
  static_cast<QVBoxLayout*>(inside_->layout())->addWidget(look_, 0, Qt::AlignLeft);
  connect(look_, &QPushButton::clicked, this, &PanelsSection::panels_wanted);
  whole_ = new QPushButton(tr("In one piece again"));
  whole_->setObjectName(QStringLiteral("noSeams"));
  static_cast<QVBoxLayout*>(inside_->layout())->addWidget(whole_, 0, Qt::AlignLeft);
  connect(whole_, &QPushButton::clicked, this, [this] {
    edit(tr("make it in one piece"), [](PanelChoices& panels) {
      panels.across.clear();
      panels.deep.clear();
    });
  });
}

// How many panels, and how large they are.
QString PanelsSection::made_in_words(const Job& job) const {
  try {
    const std::vector<Panel> panels = panels_of(job);
    double wide = 0, high = 0;
    for (const Panel& panel : panels) {
      wide = std::max(wide, panel.box.width());
      high = std::max(high, panel.box.height());
    }
    return tr("%1 panels, at most %2 × %3. What is cut across a seam runs off the edges that meet.")
        .arg(panels.size())
        .arg(shop_.show(wide), shop_.show(high));
  } catch (const Problem& problem) {
    return QString::fromUtf8(problem.what());
  }
}

void PanelsSection::refresh() {
  filling_ = true;
  const Job& job = shop_.document.job();
  const PanelChoices& panels = job.panels;
  const bool listed = job.plates.there(), there = panels.there() && !listed;
  about_->setText(listed ? tr("A list makes plates of this board; panels are for one large sign.")
                  : there
                      ? tr("This board is the whole sign as it hangs. Its panels are boards of their own.")
                      : tr("A sign larger than the machine or the board: drawn whole, made of panels that meet along "
                           "seams."));
  show_row(most_width_, !listed);
  show_row(most_height_, !listed);
  propose_->setVisible(!listed);
  inside_->setVisible(there);
  if (listed) says_->hide();
  const auto optional = [](double mm) { return mm > 0 ? std::optional(mm) : std::nullopt; };
  most_width_->show_length(optional(panels.most_width), job.lengths);
  most_height_->show_length(optional(panels.most_height), job.lengths);
  PanelChoices usual = panels;
  usual.most_width = usual.most_height = 0;
  const LargestPanel most = largest_panel(usual, machine_for(job), job.run.on_bed);
  most_width_->setPlaceholderText(shop_.show(most.width));
  most_height_->setPlaceholderText(shop_.show(most.height));
  across_->show_text(QString::fromStdString(seams_in_words(panels.across, job.lengths)));
  deep_->show_text(QString::fromStdString(seams_in_words(panels.deep, job.lengths)));
  gap_->show_length(panels.gap, job.lengths);
  join_->setCurrentIndex(static_cast<int>(panels.join));
  hole_->show_length(panels.hole, job.lengths);
  apart_->show_length(panels.apart, job.lengths);
  inset_->show_length(panels.inset, job.lengths);
  show_row(hole_, panels.join != Join::Butted);
  show_row(apart_, panels.join != Join::Butted);
  show_row(inset_, panels.join == Join::Screws);
  made_->setText(there ? made_in_words(job) : QString());
  fold_->set_summary(there ? tr("%1 panels").arg((panels.across.size() + 1) * (panels.deep.size() + 1)) : tr("none"));
  filling_ = false;
}

}  // namespace doyen
