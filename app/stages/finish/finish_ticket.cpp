#include "stages/finish/finish_ticket.hpp"

#include <QDateTime>

#include "files/hanging_template.hpp"
#include "parts/why.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

QString words_of(const std::string& s) { return QString::fromStdString(s); }

// The clock on the wall, to the minute.
ShopTime now() {
  const QDateTime local = QDateTime::currentDateTime();
  return parse_time(local.toString(QStringLiteral("yyyy-MM-dd HH:mm")).toStdString());
}

void check_colour(const QString& words) {
  if (words.toUtf8().size() > 80) throw bad_input(FinishTicket::tr("A few words were expected.").toStdString());
}

}  // namespace

FinishTicket::FinishTicket(Workshop& shop) : Ticket(shop) {
  add_title(tr("Finish"));
  build_coats();
  says_ = make_label({}, "error");
  says_->setObjectName(QStringLiteral("finishSays"));
  column_->addWidget(says_);
  build_when();
  needs_fold_ = new Fold(tr("What it needs"), QStringLiteral("needsOpen"), true);
  column_->addWidget(needs_fold_);
  needs_ = make_label({}, "plain");
  needs_->setObjectName(QStringLiteral("finishNeeds"));
  needs_fold_->body()->addWidget(needs_);
  needs_fold_->body()->addWidget(make_why_link(QStringLiteral("why-finish.md"), QStringLiteral("whyFinish")));
  products_ = new ProductsSection(shop_);
  column_->addWidget(products_);
  connect(products_, &ProductsSection::changed, this, [this] {
    if (shop_.plan) work_out();
  });
  build_hanging();
  price_ = new PriceSection(shop_);
  column_->addWidget(price_);
  connect(price_, &PriceSection::quote_wanted, this, &FinishTicket::quote_wanted);
  connect(price_, &PriceSection::changed, this, [this] { refresh(); });
  column_->addStretch();
}

void FinishTicket::build_coats() {
  school_ = new QComboBox;
  school_->setObjectName(QStringLiteral("finishSchool"));
  school_->addItems({tr("not said yet"), tr("mask, carve, paint, peel"), tr("carve, paint, sand back"),
                     tr("carve a painted board"), tr("oil"), tr("varnish")});
  add_row(tr("How it is done"), school_);
  outdoors_ = new QCheckBox(tr("It will hang outdoors"));
  outdoors_->setObjectName(QStringLiteral("outdoors"));
  column_->addWidget(outdoors_);
  colour_ = new TextField(check_colour);
  colour_->setObjectName(QStringLiteral("paintColour"));
  colour_->setPlaceholderText(tr("a colour in words"));
  add_row(tr("Paint"), colour_);
  own_colour_ = new TextField(check_colour);
  own_colour_->setObjectName(QStringLiteral("ownColour"));
  own_colour_->setPlaceholderText(tr("as the rest"));
  own_colour_->setToolTip(tr("Of what is chosen on the board"));
  add_row(tr("The chosen piece"), own_colour_);
  round_over_ = new LengthField(from_least(0.5, "finish.roundOver"), true);
  round_over_->setObjectName(QStringLiteral("roundOver"));
  round_over_->setPlaceholderText(tr("not at all"));
  round_over_->setToolTip(
      tr("By hand, when the sign is cut: the radius that its front edges get. Art keeps clear of it."));
  add_row(tr("Edges rounded by"), round_over_);
  connect(round_over_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.document.edit(mm ? tr("round the edges over") : tr("leave the edges square"),
                        [&](Job& job) { job.finish.round_over = mm.value_or(0); });
  });
  connect(school_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("say how it is finished"),
                        [&](Job& job) { job.finish.school = static_cast<FinishSchool>(i); });
  });
  connect(outdoors_, &QCheckBox::clicked, this, [this](bool on) {
    shop_.document.edit(on ? tr("it hangs outdoors") : tr("it hangs indoors"),
                        [&](Job& job) { job.finish.outdoors = on; });
  });
  connect(colour_, &TextField::entered, this, [this](const QString& words) {
    shop_.document.edit(tr("say the colour"), [&](Job& job) { job.finish.colour = words.toStdString(); });
  });
  connect(own_colour_, &TextField::entered, this, [this](const QString& words) {
    const std::string piece = shop_.selected.toStdString();
    shop_.document.edit(tr("say the piece's colour"), [&](Job& job) {
      if (words.isEmpty())
        job.finish.colours.erase(piece);
      else
        job.finish.colours[piece] = words.toStdString();
    });
  });
}

void FinishTicket::build_when() {
  steps_fold_ = new Fold(tr("Steps and days"), QStringLiteral("stepsOpen"), true);
  column_->addWidget(steps_fold_);
  begins_ = new QComboBox;
  begins_->setObjectName(QStringLiteral("finishBegins"));
  begins_->addItems({tr("begin now"), tr("begin on"), tr("be ready by")});
  time_ = new TextField([](const QString& words) { (void)parse_time(words.toStdString()); });
  time_->setObjectName(QStringLiteral("finishTime"));
  time_->setPlaceholderText(QStringLiteral("2026-11-28 14:30"));
  steps_fold_->body()->addWidget(make_row(tr("When"), begins_));
  steps_fold_->body()->addWidget(make_row(QString(), time_));
  connect(begins_, &QComboBox::activated, this, [this] {
    asked_time_ = now();
    show_steps();
  });
  connect(time_, &TextField::entered, this, [this](const QString& words) {
    asked_time_ = parse_time(words.toStdString());
    show_steps();
  });
  build_shop_day();
  steps_ = make_label({}, "plain");
  steps_->setObjectName(QStringLiteral("finishSteps"));
  steps_->setTextFormat(Qt::RichText);
  steps_fold_->body()->addWidget(steps_);
  ready_ = make_label({}, "plain");
  ready_->setObjectName(QStringLiteral("finishReady"));
  steps_fold_->body()->addWidget(ready_);
  calendar_ = new QPushButton(tr("For a calendar…"));
  calendar_->setObjectName(QStringLiteral("saveCalendar"));
  text_ = new QPushButton(tr("As text…"));
  text_->setObjectName(QStringLiteral("saveFinishText"));
  auto* savers = new QWidget;
  auto* row = new QHBoxLayout(savers);
  row->setContentsMargins(0, 0, 0, 0);
  row->addWidget(calendar_);
  row->addWidget(text_);
  row->addStretch();
  steps_fold_->body()->addWidget(savers);
  connect(calendar_, &QPushButton::clicked, this, [this] {
    Q_EMIT save_wanted(words_of(shop_.document.job().name) + QStringLiteral(".ics"), tr("Calendars (*.ics)"),
                       calendar().toUtf8());
  });
  connect(text_, &QPushButton::clicked, this, [this] {
    Q_EMIT save_wanted(words_of(shop_.document.job().name) + tr(", finish") + QStringLiteral(".txt"),
                       tr("Texts (*.txt)"), text().toUtf8());
  });
}

// When the shop works by hand: the user's, for every job.
void FinishTicket::build_shop_day() {
  hours_ = new TextField([](const QString& words) {
    ShopDay day;
    take_hours(day, words.toStdString());
  });
  hours_->setObjectName(QStringLiteral("shopHours"));
  hours_->setToolTip(tr("Work by hand is done between, such as 8-18 or 7:30-16:00; coats dry on. Kept for every job"));
  days_ = new QComboBox;
  days_->setObjectName(QStringLiteral("shopDays"));
  days_->addItem(tr("every day"), 7);
  days_->addItem(tr("Monday to Saturday"), 6);
  days_->addItem(tr("Monday to Friday"), 5);
  days_->addItem(tr("Monday to Thursday"), 4);
  steps_fold_->body()->addWidget(make_row(tr("Shop's hours"), hours_));
  steps_fold_->body()->addWidget(make_row(tr("Worked"), days_));
  closed_ = new TextField([](const QString& words) {
    ShopDay day;
    take_closed(day, words.toStdString());
  });
  closed_->setObjectName(QStringLiteral("shopClosed"));
  closed_->setPlaceholderText(tr("no holidays"));
  closed_->setToolTip(
      tr("Days on which nobody works, such as 2026-12-24 – 2027-01-02; 2027-05-01. Kept for every job"));
  steps_fold_->body()->addWidget(make_row(tr("Closed on"), closed_));
  day_problem_ = make_label({}, "error");
  day_problem_->setObjectName(QStringLiteral("shopDayProblem"));
  day_problem_->hide();
  steps_fold_->body()->addWidget(day_problem_);
  try {
    day_ = load_shop_day();
  } catch (const Problem& problem) {
    day_problem_->setText(QString::fromUtf8(problem.what()));
    day_problem_->show();
  }
  if (days_->findData(day_.days) < 0) days_->addItem(tr("%1 days a week, from Monday").arg(day_.days), day_.days);
  days_->setCurrentIndex(days_->findData(day_.days));
  hours_->show_text(words_of(hours_in_words(day_)));
  closed_->show_text(words_of(closed_in_words(day_)));
  connect(closed_, &TextField::entered, this, [this](const QString& words) {
    take_closed(day_, words.toStdString());
    keep_day();
  });
  connect(hours_, &TextField::entered, this, [this](const QString& words) {
    take_hours(day_, words.toStdString());
    keep_day();
  });
  connect(days_, &QComboBox::activated, this, [this] {
    day_.days = days_->currentData().toInt();
    keep_day();
  });
}

void FinishTicket::keep_day() {
  hours_->show_text(words_of(hours_in_words(day_)));
  closed_->show_text(words_of(closed_in_words(day_)));
  try {
    keep_shop_day(day_);
    day_problem_->hide();
  } catch (const Problem& problem) {
    day_problem_->setText(QString::fromUtf8(problem.what()));
    day_problem_->show();
  }
  show_steps();
}

void FinishTicket::build_hanging() {
  hanging_fold_ = new Fold(tr("Hanging"), QStringLiteral("hangingOpen"), true);
  column_->addWidget(hanging_fold_);
  hangs_ = make_label({}, "plain");
  hangs_->setObjectName(QStringLiteral("hangs"));
  hanging_fold_->body()->addWidget(hangs_);
  level_ = new QPushButton(tr("Move the slots so that it hangs level"));
  level_->setObjectName(QStringLiteral("levelSlots"));
  hanging_fold_->body()->addWidget(level_, 0, Qt::AlignLeft);
  template_ = new QPushButton(tr("Drill template for the wall…"));
  template_->setObjectName(QStringLiteral("hangingTemplate"));
  hanging_fold_->body()->addWidget(template_, 0, Qt::AlignLeft);
  float_ = new QPushButton(tr("Let it float: a step behind its edge"));
  float_->setObjectName(QStringLiteral("floatStep"));
  float_->setToolTip(
      tr("Cut from the back: the edge stands off the wall. A piece of its own that follows what is cut out."));
  hanging_fold_->body()->addWidget(float_, 0, Qt::AlignLeft);
  float_says_ = make_label({}, "faded");
  float_says_->setObjectName(QStringLiteral("floatSays"));
  hanging_fold_->body()->addWidget(float_says_);
  connect(float_, &QPushButton::clicked, this, [this] {
    if (!ready()) return;
    try {
      const Job stepped = with_float_step(*finished_->plan);
      shop_.document.edit(tr("a step behind its edge"), [&](Job& job) { job.items = stepped.items; });
    } catch (const Problem& problem) {
      float_says_->setText(QString::fromUtf8(problem.what()));
    }
  });
  connect(level_, &QPushButton::clicked, this, [this] {
    if (!ready() || !finished_->hanging) return;
    const Job level = with_slots_level(shop_.document.job(), *finished_->hanging);
    shop_.document.edit(tr("hang it level"), [&](Job& job) { job.items = level.items; });
  });
  connect(template_, &QPushButton::clicked, this, [this] {
    if (!finished_ || !finished_->hanging) return;
    Q_EMIT save_wanted(words_of(shop_.document.job().name) + tr(", for the wall") + QStringLiteral(".pdf"),
                       tr("PDF (*.pdf)"),
                       QByteArray::fromStdString(hanging_template_pdf(*finished_->plan, *finished_->hanging)));
  });
}

bool FinishTicket::ready() const { return finished_ && shop_.current() && finished_->plan == shop_.plan; }

void FinishTicket::refresh() {
  filling_ = true;
  const Job& job = shop_.document.job();
  school_->setCurrentIndex(static_cast<int>(job.finish.school));
  outdoors_->setChecked(job.finish.outdoors);
  const bool painted = job.finish.school == FinishSchool::MaskPaint || job.finish.school == FinishSchool::PaintSand;
  colour_->show_text(words_of(job.finish.colour));
  show_row(colour_, painted || job.finish.school == FinishSchool::PaintedBoard);
  const Item* item = shop_.item();
  const auto own = item == nullptr ? job.finish.colours.end() : job.finish.colours.find(item->piece.id);
  own_colour_->show_text(own == job.finish.colours.end() ? QString() : words_of(own->second));
  show_row(own_colour_, painted && item != nullptr && item->cut.kind != Treatment::Kind::CutOut);
  round_over_->show_length(job.finish.round_over > 0 ? std::optional(job.finish.round_over) : std::nullopt,
                           job.lengths);
  products_->show_units();
  filling_ = false;
  if (!isVisible()) return;
  if (shop_.plan && (!finished_ || finished_->plan != shop_.plan) && asked_of_ != shop_.plan) work_out();
  show_finished();
}

void FinishTicket::work_out() {
  asked_of_ = shop_.plan;
  behind_.start([this, plan = shop_.plan](const Cancel& cancel, const Behind::Tell& tell) {
    auto made = std::make_shared<Finished>();
    made->plan = plan;
    made->figures = finish_figures(*plan, cancel);
    QString problem;
    try {
      made->steps = finish_plan(*plan, made->figures, load_products(), cancel);
    } catch (const Problem& e) {
      problem = QString::fromUtf8(e.what());
    }
    try {
      made->hanging = hanging_of(*plan, made->figures);
    } catch (const Problem& e) {
      made->no_hanging = QString::fromUtf8(e.what());
    }
    tell([this, made, problem] {
      finished_ = std::move(*made);
      if (!problem.isEmpty()) finished_->steps.warnings.push_back(problem.toStdString());
      show_finished();
    });
  });
}

std::vector<Appointment> FinishTicket::when() const {
  if (!finished_ || finished_->steps.steps.empty()) return {};
  const ShopTime time = asked_time_ == ShopTime{} ? now() : asked_time_;
  const auto& steps = finished_->steps.steps;
  if (begins_->currentIndex() == 0) return schedule(steps, now(), day_);
  return schedule(steps, begins_->currentIndex() == 1 ? time : start_for(steps, time, day_), day_);
}

void FinishTicket::show_finished() {
  QStringList warnings;
  if (finished_) {
    for (const std::string& warning : finished_->steps.warnings) warnings << words_of(warning);
  }
  says_->setText(warnings.join(QLatin1Char('\n')));
  says_->setVisible(!warnings.isEmpty());
  show_steps();
  QStringList needs;
  if (finished_) {
    for (const FinishQuantity& q : finished_->steps.quantities) needs << words_of(q.words);
    if (finished_->steps.paint_map.size() > 1) {
      needs << tr("Colours, in this order:");
      for (const std::string& line : finished_->steps.paint_map) needs << QStringLiteral("· ") + words_of(line);
    }
  }
  needs_->setText(needs.isEmpty() ? tr("Say how it is finished.") : needs.join(QLatin1Char('\n')));
  show_hanging();
  price_->show_price(ready() ? finished_->plan.get() : nullptr, finished_ ? finished_->steps : FinishPlan{});
}

void FinishTicket::show_steps() {
  const bool any = finished_ && !finished_->steps.steps.empty();
  for (QWidget* widget : {static_cast<QWidget*>(calendar_), static_cast<QWidget*>(text_)}) widget->setEnabled(any);
  show_row(begins_, any);
  show_row(hours_, any);
  show_row(days_, any);
  show_row(closed_, any);
  show_row(time_, any && begins_->currentIndex() > 0);
  if (begins_->currentIndex() > 0)
    time_->show_text(words_of(time_in_words(asked_time_ == ShopTime{} ? now() : asked_time_)));
  if (!any) {
    steps_->setText(finished_ ? tr("How it is finished decides the steps: coats, waits, what to sand with.")
                              : tr("They are being worked out…"));
    ready_->hide();
    steps_fold_->set_summary({});
    return;
  }
  const std::vector<Appointment> appointed = when();
  QString words;
  for (const Appointment& each : appointed) {
    const FinishStep& step = finished_->steps.steps[each.step];
    words += QStringLiteral("<p style='margin:0 0 6px 0'><b>%1</b> · %2<br>%3")
                 .arg(words_of(time_in_words(each.begin)), words_of(format_duration(step.minutes * 60)),
                      words_of(step.words).toHtmlEscaped());
    if (!step.tools.empty()) words += QStringLiteral("<br><i>%1</i>").arg(words_of(step.tools).toHtmlEscaped());
    if (!step.caution.empty())
      words += QStringLiteral("<br><span style='color:#9C3B2E'>%1</span>").arg(words_of(step.caution).toHtmlEscaped());
    if (step.wait > 0)
      words += QStringLiteral("<br>") + tr("then wait %1 h").arg(words_of(format_number(step.wait, 1)));
    words += QStringLiteral("</p>");
  }
  steps_->setText(words);
  const QString ready = words_of(time_in_words(ready_at(finished_->steps.steps, appointed)));
  ready_->setText(tr("Ready on %1, with %2 of work by hand.")
                      .arg(ready, words_of(format_duration(finished_->steps.hand_minutes() * 60))));
  ready_->show();
  steps_fold_->set_summary(tr("ready on %1").arg(ready));
}

void FinishTicket::show_hanging() {
  const bool any = finished_ && finished_->hanging.has_value();
  QStringList words;
  if (any) {
    for (const std::string& line : hanging_in_words(*finished_->plan, *finished_->hanging)) words << words_of(line);
  }
  hangs_->setText(any         ? words.join(QLatin1Char('\n'))
                  : finished_ ? finished_->no_hanging
                              : tr("It is being worked out…"));
  level_->setVisible(any && finished_->hanging->slots && !finished_->hanging->level());
  template_->setEnabled(any);
  show_float();
  hanging_fold_->set_summary(
      any ? words_of(weight_in_words(finished_->hanging->kilograms, shop_.document.job().lengths)) : QString());
}

void FinishTicket::show_float() {
  float_->setEnabled(false);
  if (!finished_) return float_says_->setText({});
  const LengthStyle& lengths = shop_.document.job().lengths;
  try {
    const FloatStep step = float_step(*finished_->plan);
    float_->setEnabled(ready());
    float_says_->setText(
        tr("%1 wide and %2 deep; under Artwork and Cuts it is changed.")
            .arg(words_of(size_in_words(step.width, lengths)), words_of(depth_in_words(step.depth, lengths))));
  } catch (const Problem& problem) {
    float_says_->setText(QString::fromUtf8(problem.what()));
  }
}

QString FinishTicket::text() const {
  return finished_ ? words_of(finish_text(finished_->steps, shop_.document.job().name, when())) : QString();
}

QString FinishTicket::calendar() const {
  if (!finished_) return {};
  const auto made = std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now());
  const std::string key = shop_.document.keys().empty() ? std::string("job") : shop_.document.keys().front();
  return words_of(calendar_file(finished_->steps, when(), shop_.document.job().name, key, made));
}

}  // namespace doyen
