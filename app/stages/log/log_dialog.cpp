#include "stages/log/log_dialog.hpp"

#include <QBuffer>
#include <QDateTime>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QImageReader>
#include <QMessageBox>
#include <QScrollArea>

#include "files/log/log_csv.hpp"
#include "log/log_texts.hpp"
#include "machine/profile.hpp"
#include "measure/feed.hpp"
#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"
#include "stages/log/outcome_dialog.hpp"
#include "stock/species.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace doyen {
namespace {

constexpr int kLargestPicture = 1600, kPictureShown = 220, kMostSaid = 2000;  // px, and characters

QString as_shown(const std::string& s) { return QString::fromStdString(s); }

QString when_of(const LogEntry& e) {
  const QDateTime utc = QDateTime::fromString(as_shown(e.made), Qt::ISODate);
  return utc.isValid() ? utc.toLocalTime().toString(QStringLiteral("yyyy-MM-dd HH:mm")) : as_shown(e.made);
}

QString wood_of(const LogEntry& e) {
  const Species* wood = species_table().find(e.wood);
  return as_shown(wood == nullptr ? std::string(e.wood) : wood->name);
}

QString machine_of(const LogEntry& e) {
  for (const MachineProfile& machine : machine_table().machines) {
    if (machine.id == e.machine) return as_shown(machine.name);
  }
  return as_shown(e.machine);
}

QString row_of(const QString& name, const QString& value) {
  return QStringLiteral("<tr><td style='padding-right:14px'>%1</td><td>%2</td></tr>").arg(name.toHtmlEscaped(), value);
}

QString lines_of(const std::vector<std::string>& lines) {
  QStringList all;
  for (const std::string& line : lines) all << as_shown(line).toHtmlEscaped();
  return all.join(QStringLiteral("<br>"));
}

// A picture as it is kept: no larger than can be seen, as PNG. Throws Problem{BadInput}.
std::string kept_picture(const QString& path) {
  QImageReader reader(path);
  reader.setAutoTransform(true);
  QImage image = reader.read();
  if (image.isNull())
    throw bad_input(
        LogDialog::tr("“%1” is no picture that can be read: %2.").arg(path, reader.errorString()).toStdString());
  if (image.width() > kLargestPicture || image.height() > kLargestPicture)
    image = image.scaled(kLargestPicture, kLargestPicture, Qt::KeepAspectRatio, Qt::SmoothTransformation);
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  image.save(&buffer, "PNG");
  return bytes.toStdString();
}

}  // namespace

LogDialog::LogDialog(const LengthStyle& lengths, QWidget* parent) : QDialog(parent), lengths_(lengths) {
  setWindowTitle(tr("The log"));
  setObjectName(QStringLiteral("log"));
  auto* column = new QVBoxLayout(this);
  column->addWidget(make_label(tr("The log"), "title"));
  column->addWidget(make_label(tr("What was run, how long it took and how it came out. When a like job is planned, "
                                  "what is known from here is offered among the verdicts."),
                               "faded"));
  auto* row = new QHBoxLayout;
  column->addLayout(row, 1);
  build_left(row);
  build_right(row);
  says_ = make_label({}, "error");
  says_->setObjectName(QStringLiteral("logSays"));
  column->addWidget(says_);
  aside_ = new QPushButton(tr("Put it aside and begin a new one"));
  aside_->setObjectName(QStringLiteral("logAside"));
  aside_->setAutoDefault(false);
  aside_->hide();
  column->addWidget(aside_, 0, Qt::AlignLeft);
  connect(aside_, &QPushButton::clicked, this, &LogDialog::begin_anew);
  auto* end = new QHBoxLayout;
  csv_ = new QPushButton(tr("As a table (CSV)…"));
  csv_->setObjectName(QStringLiteral("logCsv"));
  json_ = new QPushButton(tr("As data (JSON)…"));
  json_->setObjectName(QStringLiteral("logJson"));
  auto* in = new QPushButton(tr("Take data in…"));
  in->setObjectName(QStringLiteral("logIn"));
  example_button_ = new QPushButton(tr("Show an example"));
  example_button_->setObjectName(QStringLiteral("logExample"));
  for (auto* button : {csv_, json_, in, example_button_}) {
    button->setAutoDefault(false);
    end->addWidget(button);
  }
  end->addStretch();
  auto* box = new QDialogButtonBox(QDialogButtonBox::Close);
  end->addWidget(box);
  column->addLayout(end);
  connect(box, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(csv_, &QPushButton::clicked, this,
          [this] { save(tr("log.csv"), tr("Tables (*.csv)"), [this] { return log_csv(found()); }); });
  connect(json_, &QPushButton::clicked, this,
          [this] { save(tr("log.json"), tr("Data (*.json)"), [this] { return log_json(found()); }); });
  connect(in, &QPushButton::clicked, this, &LogDialog::take_in);
  connect(example_button_, &QPushButton::clicked, this, &LogDialog::show_example);
  resize(1040, 660);
  open_book();
}

void LogDialog::build_left(QHBoxLayout* row) {
  auto* left = new QVBoxLayout;
  row->addLayout(left);
  search_ = new QLineEdit;
  search_->setObjectName(QStringLiteral("logSearch"));
  search_->setPlaceholderText(tr("search: wood, bit, job, what went wrong…"));
  search_->setClearButtonEnabled(true);
  left->addWidget(search_);
  list_ = new QListWidget;
  list_->setObjectName(QStringLiteral("logList"));
  list_->setFixedWidth(360);
  list_->setWordWrap(true);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  left->addWidget(list_, 1);
  connect(search_, &QLineEdit::textChanged, this, &LogDialog::list);
  connect(list_, &QListWidget::currentRowChanged, this, &LogDialog::show_chosen);
}

void LogDialog::build_right(QHBoxLayout* row) {
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  row->addWidget(area, 1);
  auto* sheet = new QWidget;
  area->setWidget(sheet);
  auto* right = new QVBoxLayout(sheet);
  right->setContentsMargins(12, 0, 12, 0);
  details_ = make_label({}, "plain");
  details_->setObjectName(QStringLiteral("logDetails"));
  details_->setTextFormat(Qt::RichText);
  details_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  right->addWidget(details_);
  words_ = new QLineEdit;
  words_->setObjectName(QStringLiteral("logWords"));
  words_->setMaxLength(kMostSaid);
  why_ = new QLineEdit;
  why_->setObjectName(QStringLiteral("logWhy"));
  why_->setMaxLength(kMostSaid);
  right->addWidget(make_row(tr("To remember"), words_));
  right->addWidget(make_row(tr("Changed because"), why_));
  connect(words_, &QLineEdit::editingFinished, this, &LogDialog::keep_words);
  connect(why_, &QLineEdit::editingFinished, this, &LogDialog::keep_words);
  pictures_ = new QWidget;
  auto* pictures = new QHBoxLayout(pictures_);
  pictures->setContentsMargins(0, 6, 0, 6);
  right->addWidget(pictures_);
  auto* buttons = new QHBoxLayout;
  right->addLayout(buttons);
  open_ = new QPushButton(tr("Open the job as it was"));
  open_->setObjectName(QStringLiteral("logOpen"));
  outcome_ = new QPushButton(tr("How it came out…"));
  outcome_->setObjectName(QStringLiteral("logOutcome"));
  picture_ = new QPushButton(tr("Add a picture…"));
  picture_->setObjectName(QStringLiteral("logPicture"));
  remove_ = new QPushButton(tr("Take it out"));
  remove_->setObjectName(QStringLiteral("logRemove"));
  for (auto* button : {open_, outcome_, picture_, remove_}) {
    button->setAutoDefault(false);
    buttons->addWidget(button);
  }
  buttons->addStretch();
  right->addStretch();
  connect(open_, &QPushButton::clicked, this, [this] {
    const LogEntry* entry = chosen();
    if (entry == nullptr) return;
    change([&] { wanted_ = book_->job_text(entry->id); });
    if (!wanted_.empty()) accept();
  });
  connect(outcome_, &QPushButton::clicked, this, &LogDialog::say_outcome);
  connect(picture_, &QPushButton::clicked, this, &LogDialog::add_picture);
  connect(remove_, &QPushButton::clicked, this, &LogDialog::remove);
}

void LogDialog::done(int result) {
  keep_words();
  QDialog::done(result);
}

void LogDialog::open_book() {
  change([this] { book_ = std::make_unique<LogBook>(log_path()); });
  aside_->setVisible(book_ == nullptr);
  list();
}

void LogDialog::begin_anew() {
  std::string aside;
  change([&] { aside = put_log_aside(); });
  if (aside.empty()) return;
  changed_ = true;
  open_book();
  if (book_ != nullptr) says_->setText(tr("The former log lies at %1.").arg(as_shown(aside)));
}

void LogDialog::show_example() {
  change([this] {
    book_ = std::make_unique<LogBook>(":memory:");
    (void)book_->take(read_data("demo/lid-log.json", read_log_json));
    example_ = true;
  });
  list();
}

void LogDialog::change(const std::function<void()>& work) {
  says_->clear();
  try {
    work();
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
  }
}

const LogEntry* LogDialog::chosen() const {
  const int row = list_->currentRow();
  return row < 0 || row >= static_cast<int>(listed_.size()) ? nullptr : &listed_[static_cast<std::size_t>(row)];
}

std::vector<LogEntry> LogDialog::found() const {
  std::vector<LogEntry> entries = listed_;
  for (LogEntry& entry : entries) entry.job_text = book_->job_text(entry.id);
  return entries;
}

void LogDialog::list() {
  const LogEntry* before = chosen();
  const std::int64_t id = before == nullptr ? 0 : before->id;
  if (book_ != nullptr) change([this] { all_ = book_->entries(); });
  std::vector<LogEntry> entries;
  for (const LogEntry& entry : all_) {
    if (matches(entry, search_->text().toStdString())) entries.push_back(entry);
  }
  {
    const QSignalBlocker quiet(list_);
    list_->clear();
    listed_ = std::move(entries);
    int row = listed_.empty() ? -1 : 0;
    for (std::size_t i = 0; i < listed_.size(); ++i) {
      const LogEntry& e = listed_[i];
      const QString kind = e.kind == MadeKind::TestCut ? tr("test cut") + QStringLiteral(", ") : QString();
      list_->addItem(QStringLiteral("%1  %2\n%3%4")
                         .arg(when_of(e), as_shown(e.job), kind, as_shown(outcome_in_words(e, lengths_))));
      if (e.id == id) row = static_cast<int>(i);
    }
    list_->setCurrentRow(row);
  }
  example_button_->setVisible(all_.empty() && !example_);
  csv_->setEnabled(!listed_.empty());
  json_->setEnabled(!listed_.empty());
  show_chosen();
}

void LogDialog::show_chosen() {
  const LogEntry* e = chosen();
  for (QWidget* part : {words_->parentWidget(), static_cast<QWidget*>(open_), static_cast<QWidget*>(outcome_),
                        static_cast<QWidget*>(picture_), static_cast<QWidget*>(remove_)})
    part->setVisible(e != nullptr);
  why_->parentWidget()->setVisible(e != nullptr && !e->changed.empty());
  const QString example =
      example_ ? QStringLiteral("<p><i>") + tr("An example: nothing of it is kept.") + QStringLiteral("</i></p>")
               : QString();
  show_pictures(e == nullptr ? 0 : e->id);
  if (e == nullptr) {
    details_->setText(all_.empty() ? tr("Nothing is kept yet. After a run, say under Run how it came out.")
                                   : tr("No entry has all these words."));
    return;
  }
  QString rows;
  rows += row_of(tr("Outcome"), as_shown(outcome_in_words(*e, lengths_)).toHtmlEscaped());
  rows += row_of(tr("Wood"),
                 tr("%1, %2 thick").arg(wood_of(*e), as_shown(depth_in_words(e->thickness, lengths_))).toHtmlEscaped());
  rows += row_of(tr("Machine"), machine_of(*e).toHtmlEscaped());
  const QString told = as_shown(format_duration(e->told));
  rows += row_of(tr("Time"), e->took > 0 ? tr("%1 told, %2 taken (%3 times)")
                                               .arg(told, as_shown(format_duration(e->took)),
                                                    as_shown(format_number(e->took / std::max(e->told, 1e-9), 2)))
                                         : tr("%1 told, not timed").arg(told));
  if (e->over_cut) rows += row_of(tr("Past the underside"), as_shown(depth_in_words(*e->over_cut, lengths_)));
  for (const LoggedBit& bit : e->bits) {
    rows += row_of(as_shown(bit.name),
                   tr("%1, %2 turns a minute, %3 deep, %4")
                       .arg(as_shown(feed_in_words(bit.feed, lengths_)), as_shown(format_number(bit.rpm, 0)),
                            as_shown(depth_in_words(bit.deepest, lengths_)), as_shown(format_duration(bit.told)))
                       .toHtmlEscaped());
  }
  for (const LoggedInlay& inlay : e->inlays)
    rows += row_of(tr("Inlay “%1”").arg(as_shown(inlay.piece)),
                   (inlay.sloped ? tr("pocket %1 deep, contact %2 down")
                                       .arg(as_shown(depth_in_words(inlay.depth, lengths_)),
                                            as_shown(depth_in_words(inlay.contact, lengths_)))
                                 : tr("pocket %1 deep, %2 smaller a side")
                                       .arg(as_shown(depth_in_words(inlay.depth, lengths_)),
                                            as_shown(depth_in_words(inlay.allowance, lengths_))))
                       .toHtmlEscaped());
  if (!e->changed.empty()) rows += row_of(tr("Changed since the run before (lengths in mm)"), lines_of(e->changed));
  details_->setText(
      example +
      QStringLiteral("<h3>%1</h3><p>%2</p><table>%3</table>").arg(as_shown(e->job).toHtmlEscaped(), when_of(*e), rows));
  words_->setText(as_shown(e->words));
  why_->setText(as_shown(e->why));
  for (QLineEdit* line : {words_, why_}) line->setCursorPosition(0);
  bool has_job = false;
  change([&] { has_job = !book_->job_text(e->id).empty(); });
  open_->setVisible(has_job);
}

void LogDialog::show_pictures(std::int64_t id) {
  clear_layout(pictures_->layout());
  std::vector<std::string> pictures;
  if (id != 0 && book_ != nullptr) change([&] { pictures = book_->pictures(id); });
  std::size_t number = 0;
  for (const std::string& png : pictures) {
    const QPixmap picture = QPixmap::fromImage(QImage::fromData(QByteArray::fromStdString(png), "PNG"));
    auto* shown = new QLabel;
    shown->setPixmap(picture.scaled(kPictureShown, kPictureShown, Qt::KeepAspectRatio, Qt::SmoothTransformation));
    auto* out = new QPushButton(tr("Take this one out"));
    out->setObjectName(QStringLiteral("logPictureOut%1").arg(number));
    out->setAutoDefault(false);
    connect(out, &QPushButton::clicked, this, [this, id, number] { remove_picture(id, number); });
    auto* both = new QWidget;
    auto* column = new QVBoxLayout(both);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(shown);
    column->addWidget(out, 0, Qt::AlignLeft);
    pictures_->layout()->addWidget(both);
    ++number;
  }
  static_cast<QHBoxLayout*>(pictures_->layout())->addStretch();
  pictures_->setVisible(!pictures.empty());
}

void LogDialog::keep_words() {
  const LogEntry* e = chosen();
  if (e == nullptr) return;
  const std::string words = words_->text().trimmed().toStdString(), why = why_->text().trimmed().toStdString();
  if (words == e->words && why == e->why) return;
  change([&] {
    book_->note(e->id, words, why);
    changed_ = changed_ || !example_;
  });
  if (says_->text().isEmpty()) list();
}

void LogDialog::add_picture() {
  const LogEntry* e = chosen();
  const QString path = e == nullptr ? QString()
                                    : QFileDialog::getOpenFileName(this, tr("A picture of the carved board"), {},
                                                                   tr("Pictures (*.png *.jpg *.jpeg *.bmp *.webp)"));
  if (path.isEmpty()) return;
  change([&] { book_->add_picture(e->id, kept_picture(path)); });
  if (says_->text().isEmpty()) show_pictures(e->id);
}

void LogDialog::remove_picture(std::int64_t id, std::size_t number) {
  const auto sure = QMessageBox::question(this, tr("Take this one out"),
                                          tr("This picture is taken out of the entry. This cannot be undone."),
                                          QMessageBox::Ok | QMessageBox::Cancel, QMessageBox::Cancel);
  if (sure != QMessageBox::Ok) return;
  change([&] { book_->remove_picture(id, number); });
  // Not from within the button that asked: it goes with its picture.
  if (says_->text().isEmpty()) QMetaObject::invokeMethod(this, &LogDialog::show_chosen, Qt::QueuedConnection);
}

// What was said too early, or wrongly; the lessons follow it.
void LogDialog::say_outcome() {
  keep_words();
  const LogEntry* e = chosen();
  if (e == nullptr) return;
  OutcomeDialog dialog(*e, lengths_, this);
  if (dialog.exec() != QDialog::Accepted) return;
  change([&] {
    book_->say_outcome(e->id, dialog.well(), dialog.mishaps(), dialog.took());
    changed_ = changed_ || !example_;
  });
  if (says_->text().isEmpty()) list();
}

void LogDialog::remove() {
  const LogEntry* e = chosen();
  if (e == nullptr) return;
  const auto sure = QMessageBox::question(
      this, tr("Take it out of the log"),
      tr("“%1” of %2 is taken out, with its pictures. This cannot be undone.").arg(as_shown(e->job), when_of(*e)),
      QMessageBox::Ok | QMessageBox::Cancel, QMessageBox::Cancel);
  if (sure != QMessageBox::Ok) return;
  change([&] {
    book_->remove(e->id);
    changed_ = changed_ || !example_;
  });
  if (says_->text().isEmpty()) list();
}

void LogDialog::save(const QString& name, const QString& kinds, const std::function<std::string()>& text) {
  const QString path = QFileDialog::getSaveFileName(this, tr("Save what is listed"), name, kinds);
  if (!path.isEmpty()) change([&] { write_file_atomically(path.toStdString(), text()); });
}

void LogDialog::take_in() {
  const QString path = QFileDialog::getOpenFileName(this, tr("A log’s data"), {}, tr("Data (*.json)"));
  if (path.isEmpty()) return;
  change([&] {
    const std::vector<LogEntry> entries = read_log_json(read_file(path.toStdString()), path.toStdString());
    if (example_ || book_ == nullptr) {
      book_ = std::make_unique<LogBook>(log_path());
      example_ = false;
    }
    (void)book_->take(entries);
    changed_ = true;
  });
  const QString problem = says_->text();
  list();
  if (!problem.isEmpty()) says_->setText(problem);
}

}  // namespace doyen
