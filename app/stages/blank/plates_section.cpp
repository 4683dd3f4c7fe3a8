#include "stages/blank/plates_section.hpp"

#include <QClipboard>
#include <QFileDialog>
#include <QFileInfo>
#include <QGuiApplication>
#include <QMimeData>

#include "files/list/list_read.hpp"
#include "plates/plates.hpp"
#include "plates/serials.hpp"
#include "plates/strips.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "work/long_work.hpp"

namespace doyen {
namespace {

QString words_of(const std::string& s) { return QString::fromStdString(s); }

}  // namespace

PlatesSection::PlatesSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  fold_ = new Fold(tr("Plates from a list"), QStringLiteral("platesOpen"));
  column->addWidget(fold_);
  about_ = make_label({}, "plain");
  about_->setObjectName(QStringLiteral("listAbout"));
  fold_->body()->addWidget(about_);
  auto* takers = new QWidget;
  auto* row = new QHBoxLayout(takers);
  row->setContentsMargins(0, 0, 0, 0);
  take_ = new QPushButton(tr("Take a list…"));
  take_->setObjectName(QStringLiteral("takeList"));
  take_->setToolTip(tr("A table saved as CSV, or with tabs between its columns"));
  paste_ = new QPushButton(tr("Paste rows"));
  paste_->setObjectName(QStringLiteral("pasteList"));
  paste_->setToolTip(tr("Rows that were copied in a table or a text"));
  row->addWidget(take_);
  row->addWidget(paste_);
  row->addStretch();
  fold_->body()->addWidget(takers);
  build_numbers();
  says_ = make_label({}, "error");
  says_->setObjectName(QStringLiteral("listSays"));
  says_->hide();
  fold_->body()->addWidget(says_);
  inside_ = new QWidget;
  auto* inside = new QVBoxLayout(inside_);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(7);
  fold_->body()->addWidget(inside_);
  build_list();
  build_strips();
  build_sheet();
  build_end();
  connect(take_, &QPushButton::clicked, this, &PlatesSection::choose_list);
  connect(paste_, &QPushButton::clicked, this, [this] {
    const QString text = QGuiApplication::clipboard()->text();
    take_text(text.toUtf8(), tr("What was copied"));
  });
}

// A list of numbers alone, or a column of them beside the list there is.
void PlatesSection::build_numbers() {
  const auto rows = [this] {
    const PlateList& list = shop_.document.job().plates;
    return list.there() ? list.rows.size() : 0;
  };
  numbers_ = new TextField([rows](const QString& words) { (void)serial_numbers(words.toStdString(), rows()); });
  numbers_->setObjectName(QStringLiteral("serialNumbers"));
  numbers_->setToolTip(
      tr("Counted up from plate to plate, such as 1-40 or A01-A24; for a list that is there, the first is enough"));
  fold_->body()->addWidget(make_row(tr("Number them"), numbers_));
  connect(numbers_, &TextField::entered, this, [this](const QString& words) {
    const PlateList list = with_numbers(shop_.document.job().plates, words.toStdString(), tr("Number").toStdString());
    shop_.document.edit(tr("number the plates"), [&](Job& job) {
      if (job.plates.there()) {
        job.plates = list;
      } else {
        take_list(job, list, shop_.rack);
        show_row(job, 0);
      }
    });
  });
}

void PlatesSection::build_list() {
  auto* column = static_cast<QVBoxLayout*>(inside_->layout());
  headings_ = new QCheckBox(tr("Its first row says the headings"));
  headings_->setObjectName(QStringLiteral("listHeadings"));
  column->addWidget(headings_);
  connect(headings_, &QCheckBox::clicked, this, [this](bool on) {
    shop_.document.edit(on ? tr("take the first row for headings") : tr("take the first row for a plate"),
                        [on](Job& job) { set_headings(job, on); });
  });
  shown_ = new QSpinBox;
  shown_->setObjectName(QStringLiteral("shownRow"));
  shown_->setToolTip(tr("The board shows this row's words as an example"));
  column->addWidget(make_row(tr("Show row"), shown_));
  shown_says_ = make_label({}, "faded");
  shown_says_->setObjectName(QStringLiteral("shownSays"));
  column->addWidget(shown_says_);
  connect(shown_, &QSpinBox::valueChanged, this, [this](int number) {
    if (filling_) return;
    row_ = static_cast<std::size_t>(number - 1);
    shop_.document.edit(
        tr("show another row"),
        [this](Job& job) { job.plates.strips.wanted ? show_strip(job, row_) : show_row(job, row_); },
        QStringLiteral("shownRow"));
    shown_says_->setText(row_in_words(row_));
  });
  only_ = new TextField(
      [this](const QString& words) { (void)parse_rows(words.toStdString(), shop_.document.job().plates.rows.size()); });
  only_->setObjectName(QStringLiteral("onlyRows"));
  only_->setPlaceholderText(tr("all"));
  only_->setToolTip(tr("Such as 57, 60-62: to make again what was spoiled"));
  column->addWidget(make_row(tr("Make only rows"), only_));
  connect(only_, &TextField::entered, this, [this](const QString& words) {
    edit(tr("make only these rows"),
         [&](PlateList& list) { list.only = parse_rows(words.toStdString(), list.rows.size()); });
  });
  sorted_ = new QComboBox;
  sorted_->setObjectName(QStringLiteral("sortedBy"));
  column->addWidget(make_row(tr("Laid out"), sorted_));
  connect(sorted_, &QComboBox::activated, this, [this] {
    edit(tr("lay the plates out in another order"),
         [this](PlateList& list) { list.sorted_by = sorted_->currentData().toString().toStdString(); });
  });
}

// Strips instead of sheets: each as long as its words.
void PlatesSection::build_strips() {
  auto* inside = static_cast<QVBoxLayout*>(inside_->layout());
  made_ = new QComboBox;
  made_->setObjectName(QStringLiteral("madeAs"));
  made_->addItems({tr("plates on sheets"), tr("strips, one a name")});
  made_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  inside->addWidget(make_row(tr("Made as"), made_));
  connect(made_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(i == 1 ? tr("make strips") : tr("make plates on sheets"),
                        [this, i](Job& job) { make_strips(job, i == 1, row_); });
  });
  strips_ = new QWidget;
  auto* column = new QVBoxLayout(strips_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  inside->addWidget(strips_);
  column->addWidget(
      make_label(tr("The board is shown as long as this row's strip. Each strip lies in the same place at "
                    "the machine; its files have a folder of their own, numbered in this order."),
                 "faded"));
  const auto length = [&](const QString& label, const char* key, const char* name, const QString& tip,
                          double StripChoices::*member) {
    auto* field = new LengthField(range_of(key));
    field->setObjectName(QLatin1String(name));
    field->setToolTip(tip);
    column->addWidget(make_row(label, field));
    connect(field, &LengthField::entered, this, [this, member](std::optional<double> mm) {
      shop_.document.edit(tr("change the strips"), [&](Job& job) {
        job.plates.strips.*member = *mm;
        show_strip(job, row_);
      });
    });
    return field;
  };
  ends_ = length(tr("Beside the words"), "plates.strips.ends", "stripEnds", tr("Wood at either end of the words"),
                 &StripChoices::ends);
  least_ =
      length(tr("At least long"), "plates.strips.least", "stripLeast", tr("No strip is shorter"), &StripChoices::least);
  step_ = length(tr("Lengths in steps of"), "plates.strips.step", "stripStep",
                 tr("Lengths are rounded up to it, so that a stop at the saw is moved seldom"), &StripChoices::step);
  kerf_ =
      length(tr("The saw takes"), "plates.strips.kerf", "stripKerf", tr("How wide its cut is"), &StripChoices::kerf);
  boards_ = new TextField(
      [this](const QString& words) { (void)parse_boards(words.toStdString(), shop_.document.job().lengths.unit); });
  boards_->setObjectName(QStringLiteral("stripBoards"));
  boards_->setPlaceholderText(tr("such as 3 × 1200; 900"));
  boards_->setToolTip(
      tr("The lengths of the boards there are, each as wide and thick as the strips, with ; between them. "
         "The cut list says which is sawn into which."));
  column->addWidget(make_row(tr("Boards there are"), boards_));
  connect(boards_, &TextField::entered, this, [this](const QString& words) {
    edit(tr("say which boards there are"), [&](PlateList& list) {
      list.strips.boards = parse_boards(words.toStdString(), shop_.document.job().lengths.unit);
    });
  });
  off_cuts_ = new OffCutsButton(
      shop_, "stripOffCuts", [this] { return shop_.document.job().blank.height; },
      [this](const std::vector<OffCutsButton::Sides>& sides) {
        edit(tr("take the off-cuts"), [&](PlateList& list) {
          for (const OffCutsButton::Sides& one : sides) list.strips.boards.push_back(one.width);
        });
      });
  column->addWidget(off_cuts_);
  sawn_ = make_label({}, "plain");
  sawn_->setObjectName(QStringLiteral("stripsSawn"));
  column->addWidget(sawn_);
}

// What the cut list comes to. Words are measured behind the window: thousands take their time.
void PlatesSection::say_strips(const Job& job) {
  constexpr std::size_t kMeasured = 1000;
  const std::size_t strips = plate_rows(job.plates).size();
  const QString count = strips == 1 ? tr("One strip.") : tr("%1 strips.").arg(strips);
  behind_.stop();
  if (strips > kMeasured) return sawn_->setText(count);
  if (!sawn_->text().startsWith(count)) sawn_->setText(count);
  const auto found = std::make_shared<Sawn>();
  behind_.start(
      [found, job](const Cancel& cancel, const Behind::Tell&) {
        const Cancel::Scope stops(cancel);
        found->lengths = strip_lengths(job);
        found->list = cut_list(found->lengths, job.plates.strips.boards, job.plates.strips.kerf);
      },
      [this, found, count, style = job.lengths, boards = !job.plates.strips.boards.empty()](bool well) {
        if (well) sawn_->setText(count + strips_in_words(*found, style, boards));
      });
}

QString PlatesSection::strips_in_words(const Sawn& sawn, const LengthStyle& style, bool boards) {
  const auto& [lengths, list] = sawn;
  QString words;
  const auto [least, most] = std::minmax_element(lengths.begin(), lengths.end());
  const auto show = [&](double mm) { return words_of(size_in_words(mm, style)); };
  if (least != lengths.end())
    words += QLatin1Char(' ') + tr("The shortest is %1 long, the longest %2.").arg(show(*least), show(*most));
  if (!boards) return words;
  double left = 0;
  for (const SawnBoard& board : list.boards) left += board.left;
  words +=
      QLatin1Char(' ') + (list.boards.size() == 1
                              ? tr("One board is sawn, and %1 of it stay.").arg(show(left))
                              : tr("%1 boards are sawn, and %2 of them stay.").arg(list.boards.size()).arg(show(left)));
  if (!list.without.empty())
    words +=
        QLatin1Char(' ') + (list.without.size() == 1 ? tr("For one strip no board is left.")
                                                     : tr("For %1 strips no board is left.").arg(list.without.size()));
  return words;
}

void PlatesSection::build_sheet() {
  on_sheets_ = new QWidget;
  auto* column = new QVBoxLayout(on_sheets_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  static_cast<QVBoxLayout*>(inside_->layout())->addWidget(on_sheets_);
  column->addWidget(make_label(tr("Sheets"), "heading"));
  const auto length = [&](const QString& label, const char* key, const char* name, const QString& says,
                          double PlateList::*member) {
    auto* field = new LengthField(range_of(key));
    field->setObjectName(QLatin1String(name));
    column->addWidget(make_row(label, field));
    connect(field, &LengthField::entered, this, [this, says, member](std::optional<double> mm) {
      edit(says, [&](PlateList& list) { list.*member = *mm; });
    });
    return field;
  };
  width_ =
      length(tr("Left to right"), "plates.sheetWidth", "sheetWidth", tr("take another sheet"), &PlateList::sheet_width);
  height_ = length(tr("Front to back"), "plates.sheetHeight", "sheetHeight", tr("take another sheet"),
                   &PlateList::sheet_height);
  margin_ =
      length(tr("Margin kept"), "plates.margin", "sheetMargin", tr("change the sheet's margin"), &PlateList::margin);
  gap_ = length(tr("Between plates"), "plates.gap", "plateGap", tr("change the gap between plates"), &PlateList::gap);
  bit_ = new QComboBox;
  bit_->setObjectName(QStringLiteral("plateBit"));
  column->addWidget(make_row(tr("Cut apart by"), bit_));
  connect(bit_, &QComboBox::activated, this, [this] {
    edit(tr("cut the plates apart otherwise"),
         [this](PlateList& list) { list.bit = BitId(bit_->currentData().toString().toStdString()); });
  });
  corner_ = length(tr("Corners rounded by"), "plates.corner", "plateCorner", tr("round the plates' corners"),
                   &PlateList::corner);
  skin_ = new LengthField(from_least(0.05, "plates.skin"), true);
  skin_->setObjectName(QStringLiteral("plateSkin"));
  skin_->setPlaceholderText(tr("none: right through"));
  column->addWidget(make_row(tr("Wood left at the bottom"), skin_));
  connect(skin_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(mm ? tr("leave a skin of %1").arg(shop_.show(*mm)) : tr("cut right through"),
         [&](PlateList& list) { list.skin = mm.value_or(0); });
  });
  tabs_ = new FigureField(range_of("plates.tabs"), 0);
  tabs_->setObjectName(QStringLiteral("plateTabs"));
  column->addWidget(make_row(tr("Tabs on each plate"), tabs_));
  connect(tabs_, &FigureField::entered, this, [this](double count) {
    edit(tr("change the number of tabs"), [&](PlateList& list) { list.tabs = static_cast<int>(count); });
  });
  count_ = make_label({}, "plain");
  count_->setObjectName(QStringLiteral("plateCount"));
  column->addWidget(count_);
}

void PlatesSection::build_end() {
  auto* column = static_cast<QVBoxLayout*>(inside_->layout());
  sheets_ = new QPushButton(tr("Look at the sheets…"));
  sheets_->setObjectName(QStringLiteral("seeSheets"));
  column->addWidget(sheets_, 0, Qt::AlignLeft);
  connect(sheets_, &QPushButton::clicked, this, &PlatesSection::sheets_wanted);
  away_ = new QPushButton(tr("Put the list away"));
  away_->setObjectName(QStringLiteral("listAway"));
  away_->setToolTip(tr("The board is a board of its own again; its letterings keep the words they show"));
  column->addWidget(away_, 0, Qt::AlignLeft);
  connect(away_, &QPushButton::clicked, this, [this] {
    shop_.document.edit(tr("put the list away"), [](Job& job) {
      make_strips(job, false, 0);
      job.plates = {};
      for (Item& item : job.items) {
        if (auto* l = std::get_if<Lettering>(&item.piece.what)) l->list = {};
      }
    });
  });
}

void PlatesSection::edit(const QString& name, const std::function<void(PlateList&)>& change) {
  if (!filling_) shop_.document.edit(name, [&](Job& job) { change(job.plates); });
}

void PlatesSection::choose_list() {
  const QString path =
      QFileDialog::getOpenFileName(this, tr("The list"), {}, tr("Lists (*.csv *.tsv *.txt);;Any file (*)"));
  if (!path.isEmpty()) take_file(path);
}

void PlatesSection::take_file(const QString& path) {
  try {
    const std::string bytes = read_file(path.toStdString());
    take_text(QByteArray::fromStdString(bytes), QFileInfo(path).fileName());
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
    says_->show();
  }
}

void PlatesSection::take_text(const QByteArray& text, const QString& where) {
  QStringList notes;
  try {
    ListRead read;
    work_off_thread(this, tr("Reading %1…").arg(where), [&](const Cancel& cancel, const Told& told) {
      read = read_list(text.toStdString(), where.toStdString(), Headings::Found, Reading(cancel, told));
    });
    PlateList list;
    list.source = where.toStdString();
    list.columns = std::move(read.columns);
    list.rows = std::move(read.rows);
    list.headings = read.headings;
    row_ = 0;
    shop_.document.edit(tr("take a list of plates"), [&](Job& job) {
      take_list(job, list, shop_.rack);
      show_row(job, 0);
    });
    for (const std::string& note : read.notes) notes << words_of(note);
    fold_->set_open(true);
  } catch (const Cancelled&) {
    return;
  } catch (const Problem& problem) {
    notes << QString::fromUtf8(problem.what());
  }
  says_->setText(notes.join(QLatin1Char('\n')));
  says_->setVisible(!notes.isEmpty());
}

// What that row says, and how it is set where it is set otherwise than the example.
QString PlatesSection::row_in_words(std::size_t row) const {
  const Job& job = shop_.document.job();
  if (row >= job.plates.rows.size()) return {};
  QStringList entries;
  for (const std::string& entry : job.plates.rows[row]) {
    if (!entry.empty()) entries << words_of(entry);
  }
  QString words = entries.join(QStringLiteral(" · "));
  for (const Item& item : job.items) {
    const auto* l = std::get_if<Lettering>(&item.piece.what);
    if (l == nullptr || l->list.column.empty()) continue;
    const std::optional<std::size_t> column = job.plates.column(l->list.column);
    if (!column) continue;
    const SetEntry set = set_entry(*l, job.plates.rows[row][*column], room_of(job, *l));
    if (set.how == SetEntry::How::AsIs) continue;
    words +=
        QLatin1Char('\n') +
        (set.how == SetEntry::How::Smaller
             ? tr("On its plate “%1” is set %2 high.").arg(words_of(item.piece.name), shop_.show(set.cap_height))
         : set.how == SetEntry::How::Narrower
             ? tr("On its plate the letters of “%1” are %2 % as wide, %3 high.")
                   .arg(words_of(item.piece.name), words_of(format_number(set.letter_width, 0)),
                        shop_.show(set.cap_height))
         : set.how == SetEntry::How::TwoLines ? tr("On its plate “%1” is set in two lines, %2 high.")
                                                    .arg(words_of(item.piece.name), shop_.show(set.cap_height))
                                              : tr("“%1” is too long for its plate.").arg(words_of(item.piece.name)));
  }
  return words;
}

void PlatesSection::refresh() {
  filling_ = true;
  const Job& job = shop_.document.job();
  const PlateList& list = job.plates;
  const bool there = list.there();
  inside_->setVisible(there);
  const QString rows = list.rows.size() == 1 ? tr("one row") : tr("%1 rows").arg(list.rows.size());
  about_->setText(there
                      ? tr("“%1”, %2. This board is the plate that all are made like; under Artwork each lettering can "
                           "take its words from a column.")
                            .arg(words_of(list.source), rows)
                      : tr("Labels, name plates, numbers: this board is the plate that all are made like, and a list "
                           "says what stands on each."));
  take_->setText(there ? tr("Take another list…") : tr("Take a list…"));
  numbers_->show_text({});
  numbers_->setPlaceholderText(there ? tr("from, such as 1 or A01") : tr("such as 1-40 or A01-A24"));
  if (!there) {
    fold_->set_summary(tr("none"));
    filling_ = false;
    return;
  }
  headings_->setChecked(list.headings);
  row_ = std::min(row_, list.rows.empty() ? 0 : list.rows.size() - 1);
  shown_->setRange(1, static_cast<int>(std::max<std::size_t>(1, list.rows.size())));
  shown_->setValue(static_cast<int>(row_) + 1);
  shown_says_->setText(row_in_words(row_));
  only_->show_text(words_of(rows_in_words(list.only)));
  sorted_->clear();
  sorted_->addItem(tr("as in the list"), QString());
  for (const std::string& heading : list.columns)
    sorted_->addItem(tr("by %1").arg(words_of(heading)), words_of(heading));
  sorted_->setCurrentIndex(std::max(0, sorted_->findData(words_of(list.sorted_by))));
  width_->show_length(list.sheet_width, job.lengths);
  height_->show_length(list.sheet_height, job.lengths);
  margin_->show_length(list.margin, job.lengths);
  gap_->show_length(list.gap, job.lengths);
  bit_->clear();
  bit_->addItem(tr("nothing: left in the sheet"), QString());
  for (const Bit& bit : shop_.rack.bits) {
    if (bit.kind == BitKind::Flat) bit_->addItem(words_of(bit.name), words_of(bit.id));
  }
  if (!list.bit.empty() && bit_->findData(words_of(list.bit)) < 0)
    bit_->addItem(words_of(list.bit), words_of(list.bit));
  bit_->setCurrentIndex(bit_->findData(words_of(list.bit)));
  corner_->show_length(list.corner, job.lengths);
  skin_->show_length(list.skin > 0 ? std::optional(list.skin) : std::nullopt, job.lengths);
  tabs_->show_figure(list.tabs);
  const bool parted = !list.bit.empty();
  show_row(corner_, parted && job.blank.form == BlankForm::Rectangle);
  show_row(skin_, parted);
  show_row(tabs_, parted && list.skin <= 0);
  const bool strips = list.strips.wanted;
  made_->setCurrentIndex(strips ? 1 : 0);
  strips_->setVisible(strips);
  on_sheets_->setVisible(!strips);
  sheets_->setText(strips ? tr("Look at the strips…") : tr("Look at the sheets…"));
  if (strips) {
    ends_->show_length(list.strips.ends, job.lengths);
    least_->show_length(list.strips.least, job.lengths);
    step_->show_length(list.strips.step, job.lengths);
    kerf_->show_length(list.strips.kerf, job.lengths);
    off_cuts_->forget();
    boards_->show_text(words_of(boards_in_words(list.strips.boards, job.lengths)));
    say_strips(job);
    const std::size_t made = plate_rows(list).size();
    sheets_->setEnabled(made > 0);
    fold_->set_summary(rows + QStringLiteral(", ") + (made == 1 ? tr("one strip") : tr("%1 strips").arg(made)));
    filling_ = false;
    return;
  }
  const PlateGrid grid = plate_grid(job);
  const QString sheets = grid.sheets == 1 ? tr("one sheet") : tr("%1 sheets").arg(grid.sheets);
  count_->setText(grid.per_sheet() == 0 ? tr("No plate fits this sheet.")
                                        : tr("%1 × %2 to a sheet: %3.").arg(grid.across).arg(grid.deep).arg(sheets));
  sheets_->setEnabled(grid.sheets > 0);
  fold_->set_summary(rows + QStringLiteral(", ") + sheets);
  filling_ = false;
}

}  // namespace doyen
