#include "stages/finish/price_section.hpp"

#include "parts/why.hpp"
#include "problem.hpp"

namespace doyen {

PriceSection::PriceSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  fold_ = new Fold(tr("Price"), QStringLiteral("priceOpen"));
  column->addWidget(fold_);
  says_ = make_label({}, "plain");
  says_->setObjectName(QStringLiteral("priceSays"));
  fold_->body()->addWidget(says_);
  lines_ = make_label({}, "faded");
  lines_->setObjectName(QStringLiteral("priceLines"));
  fold_->body()->addWidget(lines_);
  fold_->body()->addWidget(make_why_link(QStringLiteral("why-price.md"), QStringLiteral("whyPrice")));
  design_ = new FigureField(range_of("finish.designMinutes"), 0);
  design_->setObjectName(QStringLiteral("designMinutes"));
  fold_->body()->addWidget(make_row(tr("Design, minutes"), design_));
  connect(design_, &FigureField::entered, this, [this](double minutes) {
    shop_.document.edit(tr("say how long the design took"), [&](Job& job) { job.finish.design_minutes = minutes; });
  });
  copies_ = new FigureField(range_of("finish.copies"), 0);
  copies_->setObjectName(QStringLiteral("copies"));
  copies_->setToolTip(tr("What is spent once is shared among so many"));
  fold_->body()->addWidget(make_row(tr("How many are made"), copies_));
  connect(copies_, &FigureField::entered, this, [this](double count) {
    shop_.document.edit(tr("say how many are made"), [&](Job& job) { job.finish.copies = static_cast<int>(count); });
  });
  quote_ = new QPushButton(tr("Customer's sheet with the price…"));
  quote_->setObjectName(QStringLiteral("saveQuote"));
  fold_->body()->addWidget(quote_, 0, Qt::AlignLeft);
  connect(quote_, &QPushButton::clicked, this, &PriceSection::quote_wanted);
  rates_fold_ = new Fold(tr("Your rates"), QStringLiteral("ratesOpen"));
  fold_->body()->addWidget(rates_fold_);
  try {
    rates_ = load_rates();
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
  }
  const QString hour = tr("%1 an hour"), percent = QStringLiteral("%");
  add_rate(tr("Wood"), "rateWood", tr("%1 a m³"), {0, 1e6}, 2, &Rates::wood);
  add_rate(tr("Waste of wood"), "rateWaste", percent, {0, 1000}, 1, &Rates::waste);
  add_rate(tr("Machine"), "rateMachine", hour, {0, 1e6}, 2, &Rates::machine);
  add_rate(tr("By hand"), "rateHand", hour, {0, 1e6}, 2, &Rates::hand);
  add_rate(tr("Bits' wear"), "rateBits", hour, {0, 1e6}, 2, &Rates::bits);
  add_rate(tr("Coating once"), "rateCoat", tr("%1 a m²"), {0, 1e6}, 2, &Rates::finish);
  add_rate(tr("Setting up"), "rateSetup", tr("minutes"), {0, 10'000}, 0, &Rates::setup_minutes);
  add_rate(tr("Overhead"), "rateOverhead", percent, {0, 1000}, 1, &Rates::overhead);
  add_rate(tr("Margin"), "rateMargin", percent, {0, 1000}, 1, &Rates::margin);
  add_rate(tr("Tax"), "rateTax", percent, {0, 100}, 1, &Rates::tax);
  auto* currency = new TextField([](const QString& words) {
    if (words.size() > 8 || words.toUtf8().size() > 8)
      throw bad_input(PriceSection::tr("A short sign such as € was expected.").toStdString());
  });
  currency->setObjectName(QStringLiteral("currency"));
  currency->show_text(QString::fromStdString(rates_.currency));
  rates_fold_->body()->addWidget(make_row(tr("Currency"), currency));
  connect(currency, &TextField::entered, this, [this](const QString& words) {
    rates_.currency = words.toStdString();
    show_currency();
    keep();
  });
  show_currency();
  problem_ = make_label({}, "error");
  problem_->setObjectName(QStringLiteral("ratesSay"));
  problem_->hide();
  rates_fold_->body()->addWidget(problem_);
}

void PriceSection::add_rate(const QString& label, const char* name, const QString& unit, Range range, int decimals,
                            double Rates::*member) {
  auto* field = new FigureField(range, decimals);
  field->setObjectName(QLatin1String(name));
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->addWidget(field, 1);
  QLabel* says = make_label(unit, "faded");
  row->addWidget(says);
  if (unit.contains(QStringLiteral("%1"))) money_.emplace_back(says, unit);
  rates_fold_->body()->addWidget(make_row(label, box));
  field->show_figure(rates_.*member);
  connect(field, &FigureField::entered, this, [this, member](double value) {
    rates_.*member = value;
    keep();
  });
}

void PriceSection::show_currency() {
  for (const auto& [label, unit] : money_) label->setText(unit.arg(QString::fromStdString(rates_.currency)));
}

void PriceSection::keep() {
  try {
    keep_rates(rates_);
    problem_->hide();
  } catch (const Problem& problem) {
    problem_->setText(QString::fromUtf8(problem.what()));
    problem_->show();
  }
  Q_EMIT changed();
}

void PriceSection::show_price(const Plan* plan, const FinishPlan& steps) {
  const FinishChoices& finish = shop_.document.job().finish;
  design_->show_figure(finish.design_minutes);
  copies_->show_figure(finish.copies);
  rates_fold_->set_summary(rates_.said() ? tr("kept for every job") : tr("not said yet"));
  price_.reset();
  quote_->setEnabled(plan != nullptr && rates_.said());
  if (plan == nullptr || !rates_.said()) {
    says_->setText(rates_.said()
                       ? tr("It is being worked out…")
                       : tr("Say your rates below: what wood, machine and your own hour cost. They are kept for "
                            "every job on this machine."));
    lines_->hide();
    fold_->set_summary(rates_.said() ? QString() : tr("no rates yet"));
    return;
  }
  price_ = price_of(*plan, steps, rates_);
  const auto money = [&](double m) { return QString::fromStdString(money_in_words(m, rates_)); };
  QString words =
      finish.copies > 1 ? tr("Each: %1").arg(money(price_->each)) : tr("It costs %1").arg(money(price_->each));
  if (rates_.tax > 0) words += tr(", with tax %1").arg(money(price_->with_tax()));
  says_->setText(words + QStringLiteral(".\n") + tr("One more of it: %1.").arg(money(price_->one_more)));
  QStringList lines;
  for (const PriceLine& line : price_->lines)
    lines << tr("%1: %2 = %3")
                 .arg(QString::fromStdString(line.what), QString::fromStdString(line.sum), money(line.money));
  lines_->setText(lines.join(QLatin1Char('\n')));
  lines_->show();
  fold_->set_summary(money(price_->each));
}

}  // namespace doyen
