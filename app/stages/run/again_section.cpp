#include "stages/run/again_section.hpp"

#include "problem.hpp"
#include "run/gcode.hpp"

namespace doyen {
namespace {

constexpr double kDeeper = 0.3;  // mm, to begin with

// The operation that a pass of the run belongs to, and where the bit comes down for it.
std::pair<const Operation*, Point3> pass_of(const BitRun& run, std::size_t number) {
  for (const Operation* op : run.operations) {
    if (number < op->passes.size()) return {op, op->passes[number].points.front()};
    number -= op->passes.size();
  }
  return {nullptr, {}};
}

}  // namespace

AgainSection::AgainSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  fold_ = new Fold(tr("If it was stopped"), QStringLiteral("againOpen"));
  column->addWidget(fold_);
  file_ = new QComboBox;
  file_->setObjectName(QStringLiteral("againFile"));
  file_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  fold_->body()->addWidget(make_row(tr("The file"), file_));
  ran_ = new QDoubleSpinBox;
  ran_->setObjectName(QStringLiteral("againRan"));
  ran_->setDecimals(1);
  ran_->setSuffix(tr(" min"));
  ran_->setRange(0, 100'000);
  ran_->setToolTip(tr("How long this file had been running, roughly"));
  fold_->body()->addWidget(make_row(tr("It had run for"), ran_));
  place_ = new QSlider(Qt::Horizontal);
  place_->setObjectName(QStringLiteral("againPlace"));
  place_->setAccessibleName(tr("Where it begins again"));
  fold_->body()->addWidget(place_);
  says_ = make_label({}, "plain");
  says_->setObjectName(QStringLiteral("againSays"));
  fold_->body()->addWidget(says_);
  rest_ = new QPushButton(tr("Write the rest as a file…"));
  rest_->setObjectName(QStringLiteral("writeRest"));
  fold_->body()->addWidget(rest_, 0, Qt::AlignLeft);
  through_ = new QWidget;
  auto* through = new QVBoxLayout(through_);
  through->setContentsMargins(0, 6, 0, 0);
  more_ = new LengthField({0.01, 5});
  more_->setObjectName(QStringLiteral("deeperBy"));
  through->addWidget(make_row(tr("Not through: deeper by"), more_));
  deeper_ = new QPushButton(tr("Write the cut-out, deeper…"));
  deeper_->setObjectName(QStringLiteral("writeDeeper"));
  deeper_->setToolTip(
      tr("Only what goes through, its last round once more. It goes as much deeper into the waste board; "
         "tabs stay, thinner by as much."));
  through->addWidget(deeper_, 0, Qt::AlignLeft);
  fold_->body()->addWidget(through_);
  fold_->body()->addWidget(
      make_label(tr("The board must not have moved. Set x and y as before, and z anew with the bit "
                    "that goes on. Spindle still, machine locked or unplugged, while a bit is "
                    "changed."),
                 "faded"));
  connect(file_, &QComboBox::activated, this, [this] {
    place_->setValue(0);
    say_place();
  });
  connect(place_, &QSlider::valueChanged, this, [this] {
    if (!filling_) say_place();
  });
  connect(ran_, &QDoubleSpinBox::editingFinished, this, &AgainSection::take_minutes);
  connect(fold_, &Fold::opened, this, &AgainSection::refresh);
  connect(rest_, &QPushButton::clicked, this, [this] {
    write([this](const Plan& plan, std::size_t run) {
      return again_from(plan, run, static_cast<std::size_t>(place_->value()));
    });
  });
  connect(deeper_, &QPushButton::clicked, this, [this] {
    write([this](const Plan& plan, std::size_t run) {
      return again_deeper(plan, run, more_->length().value_or(kDeeper));
    });
  });
}

const BitRun* AgainSection::run() const {
  const int i = file_->currentIndex();
  return !of_ || i < 0 || i >= static_cast<int>(of_->runs.size()) ? nullptr : &of_->runs[static_cast<std::size_t>(i)];
}

void AgainSection::refresh() {
  if (!more_->length()) more_->show_length(kDeeper, shop_.document.job().lengths);
  more_->show_length(more_->length(), shop_.document.job().lengths);
  if (!fold_->open() || of_ == shop_.plan) return;
  of_ = shop_.plan;
  list_files();
  say_place();
}

void AgainSection::unfold() {
  fold_->set_open(true);
  refresh();
  file_->setFocus(Qt::OtherFocusReason);
}

void AgainSection::list_files() {
  filling_ = true;
  const int chosen = std::max(0, file_->currentIndex());
  file_->clear();
  if (of_) {
    for (const BitRun& r : of_->runs) file_->addItem(QString::fromStdString(r.file + ", " + r.bit.name));
  }
  file_->setCurrentIndex(std::min(chosen, file_->count() - 1));
  filling_ = false;
}

void AgainSection::say_place() {
  const BitRun* r = run();
  const bool any = r != nullptr && pass_count(*r) > 0;
  for (QWidget* widget : {static_cast<QWidget*>(place_), static_cast<QWidget*>(rest_), static_cast<QWidget*>(ran_)})
    widget->setEnabled(any);
  through_->setVisible(r != nullptr && goes_through_in(*r));
  if (!any) return says_->setText(tr("Nothing is cut yet."));
  const auto passes = static_cast<int>(pass_count(*r));
  filling_ = true;
  place_->setRange(0, passes - 1);
  filling_ = false;
  const auto first = static_cast<std::size_t>(place_->value());
  const auto [op, at] = pass_of(*r, first);
  if (op == nullptr) return;
  const Item* item = of_->job.find(op->piece);
  const Point3 place = placement_of(of_->job, of_->machine, r->side).at_machine(at);
  const auto words = [](double seconds) { return QString::fromStdString(format_duration(seconds)); };
  const double whole = seconds_from(*of_, *r, 0), left = seconds_from(*of_, *r, first);
  says_->setText(
      tr("It begins again with stretch %1 of %2, in “%3”, at x %4, y %5 from zero: %6 of %7 are left. Rather "
         "too far back than too far on: what is cut already costs only time.")
          .arg(first + 1)
          .arg(passes)
          .arg(QString::fromStdString(item == nullptr ? op->piece : item->piece.name), shop_.show(place.x),
               shop_.show(place.y), words(left), words(whole)));
  if (!ran_->hasFocus()) {
    const QSignalBlocker quiet(ran_);
    ran_->setValue((whole - left) / 60);
  }
}

// A stretch earlier than the time says, since it is said roughly.
void AgainSection::take_minutes() {
  const BitRun* r = run();
  if (r == nullptr || pass_count(*r) == 0) return;
  const auto at = static_cast<int>(pass_at(*of_, *r, ran_->value() * 60));
  if (at == place_->value()) return;
  place_->setValue(std::max(0, at - 1));
}

void AgainSection::write(const std::function<OutputFile(const Plan&, std::size_t)>& make) {
  const int i = file_->currentIndex();
  if (!of_ || i < 0) return;
  try {
    const OutputFile file = make(*of_, static_cast<std::size_t>(i));
    Q_EMIT write_wanted(QString::fromStdString(file.name), QString::fromStdString(file.text));
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
  }
}

}  // namespace doyen
