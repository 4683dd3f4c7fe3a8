#include "stages/proof/what_if_section.hpp"

#include <QHBoxLayout>
#include <cmath>
#include <limits>
#include <set>

#include "parts/cards.hpp"
#include "problem.hpp"
#include "stock/species.hpp"

namespace doyen {
namespace {

constexpr int kPerCent = 100;
constexpr std::size_t kShown = 3;  // verdicts that are new

}  // namespace

WhatIfSection::WhatIfSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(5);
  about_ = make_label({}, "faded");
  column->addWidget(about_);
  thickness_ = make_slider("whatThickness", tr("The board's thickness"));
  size_ = make_slider("whatSize", tr("Size"));
  limit_ = make_slider("whatLimit", tr("Floor limit"));
  feed_ = make_slider("whatFeed", tr("Feeds"));
  size_.slider->setRange(50, 200);
  feed_.slider->setRange(40, 160);
  feed_.slider->setSingleStep(5);
  v_ = new QComboBox;
  v_->setObjectName(QStringLiteral("whatV"));
  connect(v_, &QComboBox::activated, this, &WhatIfSection::moved);
  v_row_ = make_row(tr("V bit"), v_);
  for (QWidget* w : {thickness_.whole, size_.whole, limit_.whole, feed_.whole, v_row_}) column->addWidget(w);
  then_ = make_label({}, "plain");
  then_->setObjectName(QStringLiteral("whatThen"));
  column->addWidget(then_);
  verdicts_ = make_label({}, "plain");
  verdicts_->setObjectName(QStringLiteral("whatVerdicts"));
  column->addWidget(verdicts_);
  take_ = new QPushButton(tr("Make it so"));
  take_->setObjectName(QStringLiteral("whatTake"));
  back_ = new QPushButton(tr("As it is"));
  back_->setObjectName(QStringLiteral("whatBack"));
  auto* keys = new QHBoxLayout;
  keys->addWidget(take_);
  keys->addWidget(back_);
  keys->addStretch();
  column->addLayout(keys);
  connect(take_, &QPushButton::clicked, this, &WhatIfSection::take);
  connect(back_, &QPushButton::clicked, this, [this] {
    reset();
    moved();
  });
}

WhatIfSection::Row WhatIfSection::make_slider(const char* name, const QString& label) {
  Row row{new QWidget, new QSlider(Qt::Horizontal), make_label({}, "plain")};
  auto* column = new QVBoxLayout(row.whole);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(1);
  auto* line = new QHBoxLayout;
  line->addWidget(make_label(label, "plain"), 1);
  row.says->setWordWrap(false);
  line->addWidget(row.says);
  column->addLayout(line);
  column->addWidget(row.slider);
  row.slider->setObjectName(QLatin1String(name));
  row.slider->setAccessibleName(label);
  row.slider->setFocusPolicy(Qt::StrongFocus);
  connect(row.slider, &QSlider::valueChanged, this, &WhatIfSection::moved);
  return row;
}

double WhatIfSection::step() const { return shop_.document.job().lengths.unit == Unit::Inch ? kMmPerInch / 64 : 0.25; }

// Ranges and places for the job as it is.
void WhatIfSection::fit_sliders() {
  const double thick = of_->job.blank.thickest(), closes = closing_depth(*of_, piece_.toStdString());
  const auto steps = [&](double mm) { return static_cast<int>(std::lround(mm / step())); };
  thickness_.slider->setRange(std::max(1, steps(thick * 0.4)), steps(thick * 2));
  full_ = std::max(steps(1), steps(std::ceil(closes / step()) * step()));
  limit_.slider->setRange(steps(std::max(0.5, 2 * step())), full_);
  limit_.whole->setVisible(closes > 1);
  limit_.slider->setToolTip(
      tr("At %1 every stroke has closed: a deeper limit changes nothing").arg(shop_.show(closes)));
  v_->clear();
  v_->addItem(tr("as it is"), QString());
  const std::string wood = wood_class_of(of_->job.blank);
  for (const Bit& bit : shop_.rack.bits) {
    if (bit.kind == BitKind::V && bit.feeds_in(wood).known())
      v_->addItem(QString::fromStdString(bit.name), QString::fromStdString(bit.id));
  }
  bool by_v = false;
  for (const Item& item : of_->job.items)
    by_v =
        by_v || ((piece_.isEmpty() || item.piece.id == piece_.toStdString()) && wanted_bit(item.cut) == WantedBit::V);
  v_row_->setVisible(by_v);
}

// Where the floor limit's slider rests: at the one that all of them have, or at full depth. Where they differ it rests
// a step beyond that, and stands for what each has.
void WhatIfSection::rest_limit() {
  std::set<std::optional<double>> limits;
  for (const Item& item : of_->job.items) {
    const bool about = piece_.isEmpty() || item.piece.id == piece_.toStdString();
    if (about && item.cut.kind == Treatment::Kind::Incise) limits.insert(item.cut.incise.floor_limit);
  }
  if (limits.size() > 1) limit_.slider->setMaximum(full_ + 1);
  const bool same = limits.size() == 1 && limits.begin()->has_value();
  limit_.slider->setValue(same ? static_cast<int>(std::lround(**limits.begin() / step())) : limit_.slider->maximum());
}

void WhatIfSection::reset() {
  filling_ = true;
  fit_sliders();
  thickness_.slider->setValue(static_cast<int>(std::lround(of_->job.blank.thickest() / step())));
  size_.slider->setValue(kPerCent);
  feed_.slider->setValue(kPerCent);
  rest_limit();
  v_->setCurrentIndex(0);
  for (const Row* row : {&thickness_, &size_, &feed_, &limit_})
    row->slider->setProperty("asItIs", row->slider->value());
  filling_ = false;
  show_values();
}

Supposed WhatIfSection::asked() const {
  Supposed asked;
  const auto changed = [](const Row& row) {
    return !row.whole->isHidden() && row.slider->value() != row.slider->property("asItIs").toInt();
  };
  if (changed(thickness_)) asked.thickness = thickness_.slider->value() * step();
  if (changed(size_)) asked.size = size_.slider->value() / static_cast<double>(kPerCent);
  if (changed(feed_)) asked.feed = feed_.slider->value() / static_cast<double>(kPerCent);
  if (changed(limit_))
    asked.floor_limit =
        limit_.slider->value() >= full_ ? std::numeric_limits<double>::infinity() : limit_.slider->value() * step();
  asked.v = v_->currentData().toString().toStdString();
  return asked;
}

bool WhatIfSection::asks_anything() const { return of_ != nullptr && !(asked() == Supposed{}); }

void WhatIfSection::refresh() {
  const Item* item = shop_.item();
  const QString piece = item != nullptr && item->cut.kind != Treatment::Kind::None ? shop_.selected : QString();
  const PlanPtr plan = shop_.known() ? shop_.plan : nullptr;
  if (plan != nullptr && plan == of_ && piece == piece_) return;
  behind_.stop();
  waiting_ = false;
  // Of an earlier job nothing is shown as if it were of this one.
  setEnabled(plan != nullptr && !plan->job.items.empty());
  show_faded(then_, plan == nullptr);
  show_faded(verdicts_, plan == nullptr);
  if (plan == nullptr) return;
  of_ = plan;
  piece_ = piece;
  about_->setText(
      item == nullptr || piece.isEmpty()
          ? tr("Of the whole job. Nothing changes until you make it so.")
          : tr("Of “%1”. Nothing changes until you make it so.").arg(QString::fromStdString(item->piece.name)));
  reset();
  moved();
}

void WhatIfSection::show_values() {
  const auto mm = [&](const Row& row) { return shop_.show(row.slider->value() * step()); };
  // Where nothing was moved, the job's own figure, not the slider's nearest to it.
  const auto rests = [](const Row& row) { return row.slider->value() == row.slider->property("asItIs").toInt(); };
  thickness_.says->setText(rests(thickness_) ? shop_.show(of_->job.blank.thickest()) : mm(thickness_));
  size_.says->setText(tr("%1 %").arg(size_.slider->value()));
  feed_.says->setText(tr("%1 %").arg(feed_.slider->value()));
  limit_.says->setText(rests(limit_)                     ? tr("as it is")
                       : limit_.slider->value() >= full_ ? tr("full depth")
                                                         : mm(limit_));
  for (const Row* row : {&thickness_, &size_, &feed_, &limit_})
    row->slider->setAccessibleDescription(row->says->text());
}

void WhatIfSection::moved() {
  if (filling_ || of_ == nullptr) return;
  show_values();
  const bool any = asks_anything();
  take_->setEnabled(false);
  back_->setEnabled(any);
  if (any) return begin();
  behind_.stop();
  waiting_ = false;
  then_->setText(tr("Move something: the time and what would go wrong move along."));
  verdicts_->hide();
  show_faded(then_, false);
}

void WhatIfSection::begin() {
  waiting_ = true;
  show_faded(then_, true);
  show_faded(verdicts_, true);
  behind_.start(
      [this, plan = of_, rack = shop_.rack, id = piece_.toStdString(), what = asked(), cache = cache_](
          const Cancel& cancel, const Behind::Tell& tell) {
        try {
          // At once, from the moves that there are; then for real.
          tell([this, about = about_seconds(*plan, id, what), now = plan->seconds] { show_about(about, now); });
          const Plan planned = doyen::plan(what_if(*plan, id, what), rack, plan->machine, cache.get(), cancel);
          tell([this, then = what_changes(planned, plan.get()), now = what_changes(*plan, plan.get())] {
            show_then(then, now);
          });
        } catch (const Problem& problem) {
          tell([this, why = QString::fromUtf8(problem.what())] { show_why_not(why); });
        }
      },
      [this](bool) { waiting_ = false; });
}

void WhatIfSection::show_about(double then, double now) {
  const auto time = [](double s) { return QString::fromStdString(format_duration(s)); };
  then_->setText(tr("At the machine: %1 → about %2\nThe rest is being planned…").arg(time(now), time(then)));
}

void WhatIfSection::show_why_not(const QString& why) {
  then_->setText(why);
  verdicts_->hide();
  show_faded(then_, false);
}

void WhatIfSection::show_then(const WhatChanges& then, const WhatChanges& now) {
  const auto both = [](const QString& was, const QString& is) { return was == is ? is : tr("%1 → %2").arg(was, is); };
  const auto time = [](double s) { return QString::fromStdString(format_duration(s)); };
  const LengthStyle& lengths = shop_.document.job().lengths;
  QStringList lines{tr("At the machine: %1").arg(both(time(now.seconds), time(then.seconds))),
                    tr("Deepest: %1").arg(both(shop_.show(now.deepest), shop_.show(then.deepest)))};
  if (now.bit_changes != then.bit_changes)
    lines << tr("Bit changes: %1 → %2").arg(now.bit_changes).arg(then.bit_changes);
  if (std::abs(now.unreached - then.unreached) > 0.5)
    lines << tr("Unreached: %1")
                 .arg(both(QString::fromStdString(format_area(now.unreached, lengths)),
                           QString::fromStdString(format_area(then.unreached, lengths))));
  const auto count = [](int n) { return QString::number(n); };
  lines << tr("Stops: %1 · warnings: %2")
               .arg(both(count(now.stops), count(then.stops)), both(count(now.minds), count(then.minds)));
  then_->setText(lines.join(QLatin1Char('\n')));
  QStringList words;
  for (std::size_t i = 0; i < std::min(kShown, then.verdicts.size()); ++i)
    words << VerdictCard::grade_name(then.verdicts[i].grade) + QStringLiteral(": ") +
                 QString::fromStdString(then.verdicts[i].text);
  if (then.verdicts.size() > kShown) words << tr("and %1 more").arg(then.verdicts.size() - kShown);
  verdicts_->setText(words.join(QLatin1Char('\n')));
  verdicts_->setVisible(!words.isEmpty());
  show_faded(then_, false);
  show_faded(verdicts_, false);
  take_->setEnabled(true);
}

void WhatIfSection::take() {
  if (!asks_anything() || !shop_.known()) return;
  const Supposed what = asked();
  const std::string id = piece_.toStdString();
  try {
    const Job then = what_if(*of_, id, what);
    shop_.document.edit(tr("make it so, as it was tried"), [&](Job& job) { job = then; });
  } catch (const Problem& problem) {
    show_why_not(QString::fromUtf8(problem.what()));
  }
}

}  // namespace doyen
