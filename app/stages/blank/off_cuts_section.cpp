#include "stages/blank/off_cuts_section.hpp"

#include <QLineEdit>
#include <algorithm>

#include "problem.hpp"
#include "stock/species.hpp"

namespace doyen {

OffCutsSection::OffCutsSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  fold_ = new Fold(tr("Off-cuts"), QStringLiteral("offCutsOpen"));
  column->addWidget(fold_);
  list_ = new QListWidget;
  list_->setObjectName(QStringLiteral("offCutList"));
  list_->setAccessibleName(tr("Off-cuts"));
  list_->setWordWrap(true);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setFixedHeight(112);
  fold_->body()->addWidget(list_);
  use_ = new QPushButton(tr("This board from it"));
  use_->setObjectName(QStringLiteral("useOffCut"));
  use_->setToolTip(
      tr("The board takes its thickness, and its size where the sign is cut out; it is no off-cut any more"));
  drop_ = new QPushButton(tr("It is gone"));
  drop_->setObjectName(QStringLiteral("dropOffCut"));
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(use_);
  buttons->addWidget(drop_);
  buttons->addStretch();
  fold_->body()->addLayout(buttons);
  build_new();
  says_ = make_label({}, "error");
  says_->setObjectName(QStringLiteral("offCutsSay"));
  says_->hide();
  fold_->body()->addWidget(says_);
  connect(fold_, &Fold::opened, this, &OffCutsSection::refresh);
  connect(list_, &QListWidget::currentRowChanged, this, [this] {
    const OffCut* one = chosen();
    drop_->setEnabled(one != nullptr);
    use_->setEnabled(one != nullptr && fits(*one, shop_.document.job().blank));
  });
  connect(drop_, &QPushButton::clicked, this, [this] {
    if (const OffCut* one = chosen()) change([id = one->id] { return drop_off_cut(id); });
  });
  connect(use_, &QPushButton::clicked, this, [this] {
    const OffCut* one = chosen();
    if (one == nullptr) return;
    const OffCut used = *one;
    shop_.document.edit(tr("cut it from an off-cut"), [&](Job& job) { use_off_cut(job, used); });
    // An edit may be refused, and says so itself: then it stays on the shelf.
    Job as_used = shop_.document.job();
    use_off_cut(as_used, used);
    if (as_used.blank == shop_.document.job().blank) change([&] { return drop_off_cut(used.id); });
  });
}

void OffCutsSection::build_new() {
  const auto field = [&](const char* name, const QString& label) {
    auto* made = new LengthField({1, 20'000}, true);
    made->setObjectName(QLatin1String(name));
    fold_->body()->addWidget(make_row(label, made));
    connect(made, &LengthField::entered, this, [this, made](std::optional<double> mm) {
      made->show_length(mm, shop_.document.job().lengths);
      refresh();
    });
    return made;
  };
  along_ = field("offCutAlong", tr("Along the grain"));
  across_ = field("offCutAcross", tr("Across it"));
  thick_ = field("offCutThick", tr("Thick"));
  place_ = new QLineEdit;
  place_->setObjectName(QStringLiteral("offCutPlace"));
  place_->setMaxLength(60);
  place_->setPlaceholderText(tr("where it lies"));
  fold_->body()->addWidget(make_row(tr("Place"), place_));
  keep_ = new QPushButton(tr("Keep an off-cut of this wood"));
  keep_->setObjectName(QStringLiteral("keepOffCut"));
  fold_->body()->addWidget(keep_, 0, Qt::AlignLeft);
  connect(keep_, &QPushButton::clicked, this, [this] {
    const Blank& blank = shop_.document.job().blank;
    OffCut one{{},
               blank.species,
               along_->length().value_or(0),
               across_->length().value_or(0),
               thick_->length().value_or(blank.thickest()),
               place_->text().trimmed().toStdString()};
    change([&] {
      const std::string aside = keep_off_cut(one);
      for (LengthField* typed : {along_, across_, thick_}) typed->show_length({}, shop_.document.job().lengths);
      place_->clear();
      return aside;
    });
  });
}

const OffCut* OffCutsSection::chosen() const {
  const int row = list_->currentRow();
  return row < 0 || row >= static_cast<int>(shown_.size()) ? nullptr : &shown_[static_cast<std::size_t>(row)];
}

QString OffCutsSection::in_words(const OffCut& one) const {
  const QString words = QString::fromStdString(off_cut_in_words(one, shop_.document.job().lengths));
  return fits(one, shop_.document.job().blank) ? tr("fits: %1").arg(words) : words;
}

void OffCutsSection::change(const std::function<std::string()>& work) {
  QString says;
  try {
    const std::string aside = work();
    if (!aside.empty())
      says = tr("The off-cuts’ file could not be read; it is kept as %1.").arg(QString::fromStdString(aside));
  } catch (const Problem& problem) {
    says = QString::fromUtf8(problem.what());
  }
  says_->setText(says);
  says_->setVisible(!says.isEmpty());
  refresh();
}

void OffCutsSection::refresh() {
  try {
    all_ = load_off_cuts();
  } catch (const Problem& problem) {
    all_.clear();
    says_->setText(QString::fromUtf8(problem.what()));
    says_->show();
  }
  const Blank& blank = shop_.document.job().blank;
  std::vector<OffCut> shown = fitting(all_, blank);
  const auto fine = static_cast<int>(shown.size());
  for (const OffCut& one : all_) {
    if (!fits(one, blank)) shown.push_back(one);
  }
  fold_->set_summary(all_.empty() ? tr("none kept")
                     : fine == 0  ? tr("%1 kept").arg(all_.size())
                                  : tr("%1 kept, %2 for this board").arg(all_.size()).arg(fine));
  // In the job's own unit, whatever it was before.
  for (LengthField* typed : {along_, across_, thick_})
    typed->show_length(typed->length(), shop_.document.job().lengths);
  thick_->setPlaceholderText(shop_.show(blank.thickest()));
  keep_->setEnabled(along_->length() && across_->length());
  const OffCut* before = chosen();
  const std::string id = before == nullptr ? std::string() : before->id;
  shown_ = std::move(shown);
  const QSignalBlocker quiet(list_);
  list_->clear();
  int row = -1;
  for (std::size_t i = 0; i < shown_.size(); ++i) {
    list_->addItem(in_words(shown_[i]));
    if (shown_[i].id == id) row = static_cast<int>(i);
  }
  list_->setCurrentRow(row);
  list_->setVisible(!shown_.empty());
  use_->setVisible(!shown_.empty());
  drop_->setVisible(!shown_.empty());
  drop_->setEnabled(row >= 0);
  use_->setEnabled(row >= 0 && fits(shown_[static_cast<std::size_t>(row)], blank));
}

}  // namespace doyen
