#include "stages/run/after_run_section.hpp"

#include <QBuffer>
#include <QDateTime>
#include <QSettings>
#include <algorithm>

#include "log/entry_of.hpp"
#include "log/log_book.hpp"
#include "log/log_texts.hpp"
#include "machine/timings.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

constexpr int kPicture = 480;  // px
constexpr int kMostRows = 4, kLongestWords = 2000;
enum Outcome { NotSaid, Well, Wrong };

QString as_text(const std::string& s) { return QString::fromStdString(s); }

// When files of jobs were written of which nothing was said since, by the jobs' fingerprints.
const QString kUnsaid = QStringLiteral("unsaidRuns");
constexpr int kMostUnsaid = 60;

void remember_written(const Job& job) {
  QSettings settings;
  QVariantMap unsaid = settings.value(kUnsaid).toMap();
  unsaid[as_text(fingerprint(job))] = QDateTime::currentDateTimeUtc().toString(Qt::ISODate);
  while (unsaid.size() > kMostUnsaid) {
    const auto oldest = std::min_element(
        unsaid.begin(), unsaid.end(), [](const QVariant& a, const QVariant& b) { return a.toString() < b.toString(); });
    unsaid.erase(oldest);
  }
  settings.setValue(kUnsaid, unsaid);
}

void forget_written(const std::string& mark) {
  QSettings settings;
  QVariantMap unsaid = settings.value(kUnsaid).toMap();
  if (unsaid.remove(as_text(mark)) > 0) settings.setValue(kUnsaid, unsaid);
}

QString unsaid_of(const std::string& mark) {
  const QString when = QSettings().value(kUnsaid).toMap().value(as_text(mark)).toString();
  const QDateTime local = QDateTime::fromString(when, Qt::ISODate).toLocalTime();
  return local.isValid() ? local.toString(QStringLiteral("yyyy-MM-dd HH:mm")) : QString();
}

}  // namespace

AfterRunSection::AfterRunSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  fold_ = new Fold(tr("After the run"), QStringLiteral("afterRunOpen"));
  column->addWidget(fold_);
  connect(fold_, &Fold::opened, this, &AfterRunSection::refresh);
  build_questions();
  says_ = make_label({}, "plain");
  says_->setObjectName(QStringLiteral("afterRunSays"));
  fold_->body()->addWidget(says_);
  keep_ = new QPushButton(tr("Keep it in the log"));
  keep_->setObjectName(QStringLiteral("keepRun"));
  back_ = new QPushButton(tr("Take it back"));
  back_->setObjectName(QStringLiteral("takeRunBack"));
  auto* log = new QPushButton(tr("The log…"));
  log->setObjectName(QStringLiteral("openLog"));
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(keep_);
  buttons->addWidget(back_);
  buttons->addWidget(log);
  buttons->addStretch();
  fold_->body()->addLayout(buttons);
  not_run_ = new QPushButton(tr("It was not run"));
  not_run_->setObjectName(QStringLiteral("notRun"));
  not_run_->setToolTip(tr("Nobody asks any more until its files are written again"));
  fold_->body()->addWidget(not_run_, 0, Qt::AlignLeft);
  connect(not_run_, &QPushButton::clicked, this, [this] {
    forget_written(now_.mark);
    say();
  });
  connect(keep_, &QPushButton::clicked, this, &AfterRunSection::keep);
  connect(back_, &QPushButton::clicked, this, &AfterRunSection::take_back);
  connect(log, &QPushButton::clicked, this, &AfterRunSection::log_wanted);
}

void AfterRunSection::build_questions() {
  outcome_ = new QComboBox;
  outcome_->setObjectName(QStringLiteral("outcome"));
  outcome_->addItems({tr("not said yet"), tr("well"), tr("something went wrong")});
  fold_->body()->addWidget(make_row(tr("It came out"), outcome_));
  for (int i = 0; i < kMostRows; ++i) {
    auto* row = new MishapRow;
    rows_.push_back(row);
    fold_->body()->addWidget(row);
    connect(row, &MishapRow::changed, this, [this] {
      show_rows();
      say();
    });
  }
  rescue_ = new RescueSection(shop_, fold_->body(), this);
  connect(rescue_, &RescueSection::rest_wanted, this, &AfterRunSection::rest_wanted);
  // Whoever leaves for the job that mends it has said what went wrong: that is kept first.
  connect(rescue_, &RescueSection::job_wanted, this, [this](const Job& job) {
    const Job mended = job;
    if (keep_->isEnabled() && keep()) Q_EMIT job_wanted(mended);
  });
  took_ = new QDoubleSpinBox;
  took_->setObjectName(QStringLiteral("took"));
  took_->setRange(0, 100'000);
  took_->setDecimals(1);
  took_->setSuffix(tr(" min"));
  took_->setSpecialValueText(tr("not said"));
  took_->setToolTip(tr("All files of this board together, without the time for changing bits"));
  fold_->body()->addWidget(make_row(tr("The machine ran for"), took_));
  words_ = new QLineEdit;
  words_->setObjectName(QStringLiteral("runWords"));
  words_->setMaxLength(kLongestWords);
  words_->setPlaceholderText(tr("in your own words, if you like"));
  fold_->body()->addWidget(make_row(tr("To remember"), words_));
  changed_ = make_label({}, "faded");
  changed_->setObjectName(QStringLiteral("changedSince"));
  fold_->body()->addWidget(changed_);
  why_ = new QLineEdit;
  why_->setObjectName(QStringLiteral("changedWhy"));
  why_->setMaxLength(kLongestWords);
  why_->setPlaceholderText(tr("such as: too shallow for resin"));
  fold_->body()->addWidget(make_row(tr("Changed because"), why_));
  connect(outcome_, &QComboBox::currentIndexChanged, this, [this] {
    show_rows();
    say();
  });
  connect(took_, &QDoubleSpinBox::valueChanged, this, [this] { say(); });
  connect(words_, &QLineEdit::textEdited, this, [this] { say(); });
}

double AfterRunSection::told() const {
  double seconds = 0;
  if (shop_.plan) {
    for (const BitRun& run : shop_.plan->runs) seconds += run.time.seconds;
  }
  return seconds;
}

void AfterRunSection::look() {
  const auto log = known_log();
  if (!shop_.plan || (shop_.plan == seen_ && log == log_)) return;
  seen_ = shop_.plan;
  log_ = log;
  const std::string file = shop_.document.path().toStdString();
  const LogEntry* last = log->empty() ? nullptr : last_of(seen_->job, file, *log);
  LogEntry before;
  try {
    if (last != nullptr && last->mark != fingerprint(seen_->job)) {
      before = *last;
      before.job_text = LogBook(log_path()).job_text(last->id);
    }
  } catch (const Problem&) {
    before = {};  // that it cannot be read is said below
  }
  now_ = entry_of(*seen_, file, {}, &before);
}

LogEntry AfterRunSection::entry() const {
  LogEntry entry = now_;
  entry.made = QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString();
  entry.file = shop_.document.path().toStdString();
  entry.took = 60 * took_->value();
  entry.well = outcome_->currentIndex() == Well;
  entry.words = words_->text().trimmed().toStdString();
  if (!entry.changed.empty()) entry.why = why_->text().trimmed().toStdString();
  entry.mishaps = mishaps();
  return entry;
}

std::vector<MishapSeen> AfterRunSection::mishaps() const {
  return outcome_->currentIndex() == Wrong ? said_in(rows_) : std::vector<MishapSeen>{};
}

// The board as it is carved, so that the run is known again by its looks.
std::vector<std::string> AfterRunSection::pictures() const {
  if (shop_.bench == nullptr || shop_.bench->picture().isNull()) return {};
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  shop_.bench->picture().scaled(kPicture, kPicture, Qt::KeepAspectRatio, Qt::SmoothTransformation).save(&buffer, "PNG");
  return {bytes.toStdString()};
}

bool AfterRunSection::keep() {
  try {
    look();
    kept_ = LogBook(log_path()).add(entry(), pictures());
    forget_written(now_.mark);
  } catch (const Problem& problem) {
    say(QString::fromUtf8(problem.what()));
    return false;
  }
  forget_answers();
  say(tr("Kept."));
  Q_EMIT kept();
  return true;
}

void AfterRunSection::take_back() {
  try {
    LogBook(log_path()).remove(kept_);
  } catch (const Problem& problem) {
    return say(QString::fromUtf8(problem.what()));
  }
  kept_ = 0;
  say(tr("It is out of the log again."));
  Q_EMIT kept();
}

void AfterRunSection::forget_answers() {
  outcome_->setCurrentIndex(NotSaid);
  for (MishapRow* row : rows_) row->clear();
  took_->setValue(0);
  words_->clear();
  why_->clear();
}

void AfterRunSection::show_rows() {
  show_as_needed(rows_, outcome_->currentIndex() == Wrong);
  rescue_->show_for(mishaps());
}

// How much is said, and what the machine's times are known by.
void AfterRunSection::say(const QString& more) {
  const Timings timings = known_timings();
  const auto found = timings.of.find(shop_.document.job().run.machine);
  const auto times = static_cast<int>(found == timings.of.end() ? 0 : found->second.size());
  const double s = told();
  const Timed timed{s, 60 * took_->value()};
  const bool timed_now = took_->value() > 0 && s > 0;
  const bool wrong = outcome_->currentIndex() == Wrong;
  const bool named =
      std::any_of(rows_.begin(), rows_.end(), [](const MishapRow* row) { return row->seen().has_value(); });
  const bool something =
      outcome_->currentIndex() == Well || (wrong && named) || timed_now || !words_->text().trimmed().isEmpty();
  keep_->setEnabled(shop_.current() && something && !(wrong && !named) && !(timed_now && unlikely(timed)));
  back_->setVisible(kept_ != 0);
  QStringList lines;
  look();
  const QString since = unsaid_of(now_.mark);
  not_run_->setVisible(!since.isEmpty());
  if (!more.isEmpty())
    lines << more;
  else if (!since.isEmpty())
    lines << tr("Its files were written on %1: how did it come out?").arg(since);
  if (timed_now && unlikely(timed))
    lines << tr("%1 were told for these files: is it minutes, and the time of all of them?")
                 .arg(as_text(format_duration(s)));
  else if (const std::optional<double> factor = timings.factor(shop_.document.job().run.machine))
    lines << (times == 1 ? tr("This machine was timed once: it takes %1 times what its figures say.")
                               .arg(as_text(format_number(*factor, 2)))
                         : tr("This machine was timed %1 times: it takes %2 times what its figures say.")
                               .arg(times)
                               .arg(as_text(format_number(*factor, 2))));
  else
    lines << tr("This machine was never timed here.");
  if (s > 0)
    lines << tr("Without changing bits: %1.").arg(as_text(likely_in_words(s, shop_.document.job().run.machine)));
  if (const std::string problem = log_problem(); !problem.empty()) lines << as_text(problem);
  try {
    (void)load_timings();
  } catch (const Problem& problem) {
    lines << QString::fromUtf8(problem.what());
  }
  says_->setText(lines.join(QLatin1Char('\n')));
  const auto runs =
      !log_ ? 0 : std::count_if(log_->begin(), log_->end(), [&](const LogEntry& e) { return e.mark == now_.mark; });
  fold_->set_summary(runs == 0   ? tr("nothing kept of it yet")
                     : runs == 1 ? tr("kept once")
                                 : tr("kept %1 times").arg(runs));
}

void AfterRunSection::ask() {
  remember_written(shop_.document.job());
  fold_->set_open(true);
  say();
}

QString AfterRunSection::unsaid_since(const Job& job) {
  return QSettings().value(kUnsaid).toMap().isEmpty() ? QString() : unsaid_of(fingerprint(job));
}

void AfterRunSection::refresh() {
  if (const int of = shop_.document.opened(); of != of_) {
    of_ = of;
    kept_ = 0;
    forget_answers();
    if (!unsaid_since(shop_.document.job()).isEmpty()) fold_->set_open(true);
  }
  if (!fold_->open()) return say();
  look();
  for (MishapRow* row : rows_) row->show_bits(now_.bits, shop_.document.job().lengths);
  QStringList lines;
  for (const std::string& line : now_.changed) lines << as_text(line);
  if (lines.size() > 4) lines = lines.mid(0, 4) << tr("and %1 more").arg(lines.size() - 4);
  changed_->setText(lines.isEmpty() ? QString()
                                    : tr("Since the last run (lengths in mm):") + QLatin1Char('\n') +
                                          lines.join(QLatin1Char('\n')));
  changed_->setVisible(!lines.isEmpty());
  show_row(why_, !lines.isEmpty());
  show_rows();
  say();
}

}  // namespace doyen
