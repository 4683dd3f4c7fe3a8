#include "stages/run/machines_dialog.hpp"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QScrollArea>
#include <algorithm>

#include "machine/own_machines.hpp"
#include "parts/cards.hpp"
#include "parts/entry_field.hpp"
#include "parts/figure_field.hpp"
#include "problem.hpp"
#include "stages/run/machine_places.hpp"
#include "storage/atomic_file.hpp"

namespace doyen {
namespace {

constexpr double kSeconds = 1;

QString words_of(const std::string& s) { return QString::fromStdString(s); }

void check_pause_word(const QString& word) {
  const bool fine = !word.isEmpty() && word.size() <= 40 && std::all_of(word.begin(), word.end(), [](QChar c) {
    return (c >= QLatin1Char('A') && c <= QLatin1Char('Z')) || (c >= QLatin1Char('0') && c <= QLatin1Char('9')) ||
           c == QLatin1Char('.') || c == QLatin1Char(' ');
  });
  if (!fine) throw bad_input(MachinesDialog::tr("A word as in the file was expected, such as M0.").toStdString());
}

}  // namespace

MachinesDialog::MachinesDialog(const std::string& chosen, const LengthStyle& lengths, QWidget* parent)
    : QDialog(parent), machines_(machine_table().machines), before_(machines_), lengths_(lengths) {
  setWindowTitle(tr("Machines"));
  setObjectName(QStringLiteral("machines"));
  auto* column = new QVBoxLayout(this);
  column->addWidget(make_label(tr("Machines"), "title"));
  column->addWidget(make_label(tr("What a machine understands and how it moves. Its own papers have most of these "
                                  "figures; times and limits are worked out with them."),
                               "faded"));
  auto* row = new QHBoxLayout;
  column->addLayout(row, 1);
  auto* left = new QVBoxLayout;
  row->addLayout(left);
  list_ = new QListWidget;
  list_->setObjectName(QStringLiteral("machineList"));
  list_->setFixedWidth(250);
  list_->setWordWrap(true);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  left->addWidget(list_, 1);
  auto* copy = new QPushButton(tr("A new one like this"));
  copy->setObjectName(QStringLiteral("newMachine"));
  remove_ = new QPushButton(tr("Take it away"));
  remove_->setObjectName(QStringLiteral("removeMachine"));
  auto* read = new QPushButton(tr("Read from a file…"));
  save_ = new QPushButton(tr("Save this one to a file…"));
  for (auto* button : {copy, remove_, read, save_}) left->addWidget(button);
  auto* right = new QVBoxLayout;
  row->addLayout(right, 1);
  note_ = make_label({}, "plain");
  right->addWidget(note_);
  build_form(right);
  says_ = make_label({}, "error");
  says_->setObjectName(QStringLiteral("machinesSay"));
  column->addWidget(says_);
  auto* end = new QHBoxLayout;
  use_ = new QCheckBox(tr("This job runs on the chosen one"));
  use_->setObjectName(QStringLiteral("useMachine"));
  end->addWidget(use_);
  end->addStretch();
  auto* box = new QDialogButtonBox(QDialogButtonBox::Save | QDialogButtonBox::Cancel);
  end->addWidget(box);
  column->addLayout(end);
  connect(box, &QDialogButtonBox::accepted, this, &MachinesDialog::accept);
  connect(box, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(copy, &QPushButton::clicked, this, &MachinesDialog::add_copy);
  connect(remove_, &QPushButton::clicked, this, &MachinesDialog::remove);
  connect(read, &QPushButton::clicked, this, &MachinesDialog::read_from_file);
  connect(save_, &QPushButton::clicked, this, &MachinesDialog::save_to_file);
  connect(list_, &QListWidget::currentRowChanged, this, [this] {
    if (!filling_) show_chosen();
  });
  if (!own_machines_problem().empty())
    says_->setText(tr("Your own machines could not be read: %1").arg(words_of(own_machines_problem())));
  list();
  for (std::size_t i = 0; i < machines_.size(); ++i) {
    if (machines_[i].id == chosen) list_->setCurrentRow(static_cast<int>(i));
  }
  if (list_->currentRow() < 0) list_->setCurrentRow(0);
  use_->setChecked(true);
  resize(980, 640);
}

MachineProfile* MachinesDialog::chosen() {
  const int row = list_->currentRow();
  return row < 0 || row >= static_cast<int>(machines_.size()) ? nullptr : &machines_[static_cast<std::size_t>(row)];
}

void MachinesDialog::build_form(QVBoxLayout* column) {
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  form_ = new QWidget;
  auto* inside = new QVBoxLayout(form_);
  inside->setContentsMargins(4, 0, 12, 0);
  const auto part = [&](const QString& title) {
    inside->addWidget(make_label(title, "heading"));
    auto* form = new QFormLayout;
    form->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
    form->setLabelAlignment(Qt::AlignLeft);
    inside->addLayout(form);
    return form;
  };
  auto* first = new QFormLayout;
  first->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
  inside->addLayout(first);
  name_ = new TextField(check_name);
  name_->setObjectName(QStringLiteral("machineName"));
  first->addRow(tr("Name"), name_);
  connect(name_, &TextField::entered, this, [this](const QString& text) {
    if (auto* m = chosen()) m->name = text.toStdString();
    changed();
  });
  shows_.emplace_back([this](const MachineProfile& m) { name_->show_text(words_of(m.name)); });
  add_understanding(part(tr("What it understands")));
  add_motion(part(tr("How far and how fast it goes")));
  add_bench(part(tr("At the bench")));
  inside->addStretch();
  area->setWidget(form_);
  column->addWidget(area, 1);
}

void MachinesDialog::add_understanding(QFormLayout* form) {
  unit_ = new QComboBox;
  unit_->setObjectName(QStringLiteral("machineUnit"));
  unit_->addItems({tr("millimetres"), tr("inches")});
  form->addRow(tr("Its files are in"), unit_);
  connect(unit_, &QComboBox::activated, this, [this](int i) {
    if (auto* m = chosen()) m->unit = i == 1 ? Unit::Inch : Unit::Millimetre;
    changed();
  });
  shows_.emplace_back([this](const MachineProfile& m) { unit_->setCurrentIndex(m.unit == Unit::Inch ? 1 : 0); });
  ending_ = new TextField([](const QString& text) {
    if (!sound_file_ending(text.toStdString()))
      throw bad_input(tr("One to five letters or digits were expected, such as nc.").toStdString());
  });
  ending_->setObjectName(QStringLiteral("fileEnding"));
  ending_->setFixedWidth(96);
  form->addRow(tr("Its files end in"), ending_);
  connect(ending_, &TextField::entered, this, [this](const QString& text) {
    if (auto* m = chosen()) m->file_ending = text.toStdString();
    changed();
  });
  shows_.emplace_back([this](const MachineProfile& m) { ending_->show_text(words_of(m.file_ending)); });
  auto* decimals = new FigureField({2, 6}, 0);
  decimals->setObjectName(QStringLiteral("decimals"));
  decimals->setFixedWidth(96);
  form->addRow(tr("Places behind the point"), decimals);
  connect(decimals, &FigureField::entered, this, [this](double v) {
    if (auto* m = chosen()) m->decimals = static_cast<int>(v);
    changed();
  });
  shows_.emplace_back([decimals](const MachineProfile& m) { decimals->show_figure(m.decimals); });
  form->addRow({}, tick(QStringLiteral("arcs"), tr("It follows arcs (G2, G3)"), &MachineProfile::arcs));
  form->addRow({}, tick(QStringLiteral("lineNumbers"), tr("It wants numbered lines"), &MachineProfile::line_numbers));
  form->addRow({}, tick(QStringLiteral("semicolons"), tr("Comments stand behind a semicolon, not in brackets"),
                        &MachineProfile::semicolons));
  form->addRow({}, tick(QStringLiteral("percentLines"), tr("It wants a line of % before and after"),
                        &MachineProfile::percent_lines));
  auto* end = new QComboBox;
  end->setObjectName(QStringLiteral("endWord"));
  end->addItems({QStringLiteral("M30"), QStringLiteral("M2")});
  end->setFixedWidth(96);
  form->addRow(tr("Its files close with"), end);
  connect(end, &QComboBox::activated, this, [this, end] {
    if (auto* m = chosen()) m->end_word = end->currentText().toStdString();
    changed();
  });
  shows_.emplace_back([end](const MachineProfile& m) { end->setCurrentText(words_of(m.end_word)); });
  form->addRow({}, tick(QStringLiteral("dwellMs"), tr("Waiting times (G4 P) are in milliseconds, not seconds"),
                        &MachineProfile::dwell_in_ms));
  change_ = new QComboBox;
  change_->setObjectName(QStringLiteral("bitChange"));
  change_->addItems({tr("a file of its own for each"), tr("a pause in the file"), tr("by numbered places (T, M6)")});
  form->addRow(tr("Another bit comes by"), change_);
  connect(change_, &QComboBox::activated, this, [this](int i) {
    if (auto* m = chosen()) m->bit_change = static_cast<BitChange>(i);
    show_chosen();
    changed();
  });
  shows_.emplace_back([this](const MachineProfile& m) { change_->setCurrentIndex(static_cast<int>(m.bit_change)); });
  auto* places = new MachinePlaces;
  form->addRow(places);
  connect(places, &MachinePlaces::entered, this, [this](const QString& bit, int place) {
    MachineProfile* machine = chosen();
    if (machine == nullptr) return;
    const std::string was = put_into_place(*machine, bit.toStdString(), place);
    show_chosen();
    changed();
    if (!was.empty() && was != bit.toStdString())
      says_->setText(tr("“%1” had that place; it has none now.").arg(words_of(was)));
  });
  shows_.emplace_back([places](const MachineProfile& machine) { places->show_machine(machine); });
  pause_ = new TextField(check_pause_word);
  pause_->setObjectName(QStringLiteral("pauseWord"));
  pause_->setFixedWidth(96);
  form->addRow(tr("Its word for a pause"), pause_);
  connect(pause_, &TextField::entered, this, [this](const QString& text) {
    if (auto* m = chosen()) m->pause_word = text.toStdString();
    changed();
  });
  shows_.emplace_back([this](const MachineProfile& m) { pause_->show_text(words_of(m.pause_word)); });
}

void MachinesDialog::add_motion(QFormLayout* form) {
  const bool inch = lengths_.unit == Unit::Inch;
  const double k = inch ? kMmPerInch : 1;
  const QString length = inch ? tr("in") : tr("mm"), speed = inch ? tr("in/min") : tr("mm/min"),
                won = inch ? tr("in/s²") : tr("mm/s²");
  form->addRow(tr("It travels (x, y, z)"), axes(QStringLiteral("travel"), length, 100'000, k, &MachineProfile::travel));
  form->addRow(tr("x counts"),
               way(QStringLiteral("xCounts"), {tr("to the right"), tr("to the left")}, &MachineProfile::x_left));
  form->addRow(tr("y counts"),
               way(QStringLiteral("yCounts"), {tr("away from you"), tr("towards you")}, &MachineProfile::y_near));
  form->addRow(tr("Through the air"), axes(QStringLiteral("rapid"), speed, 200'000, k, &MachineProfile::rapid));
  form->addRow(tr("In wood at most"), axes(QStringLiteral("feedMost"), speed, 200'000, k, &MachineProfile::feed_most));
  form->addRow(tr("Acceleration"),
               axes(QStringLiteral("acceleration"), won, 100'000, k, &MachineProfile::acceleration));
  form->addRow(tr("Corners are rounded by at most"),
               figure(QStringLiteral("corner"), length, {0.0001, 5}, inch ? 4 : 3, k,
                      [](MachineProfile& m) -> double& { return m.corner_deviation; }));
  form->addRow(tr("Moves it takes in (0: as many as come)"),
               figure(QStringLiteral("movesPerSecond"), tr("a second"), {0, 1e6}, 0, 1,
                      [](MachineProfile& m) -> double& { return m.moves_per_second; }));
  auto* ahead = new FigureField({0, 1e6}, 0);
  ahead->setObjectName(QStringLiteral("movesAhead"));
  ahead->setFixedWidth(96);
  form->addRow(tr("Moves it knows ahead (0: all)"), ahead);
  connect(ahead, &FigureField::entered, this, [this](double v) {
    if (auto* m = chosen()) m->moves_ahead = static_cast<int>(v);
    changed();
  });
  shows_.emplace_back([ahead](const MachineProfile& m) { ahead->show_figure(m.moves_ahead); });
  form->addRow(tr("Its drives go in steps of (0: not known)"),
               figure(QStringLiteral("leastStep"), length, {0, 1}, inch ? 5 : 4, k,
                      [](MachineProfile& m) -> double& { return m.least_step; }));
}

void MachinesDialog::add_bench(QFormLayout* form) {
  const bool inch = lengths_.unit == Unit::Inch;
  const double k = inch ? kMmPerInch : 1;
  form->addRow(tr("Spindle at least"), figure(QStringLiteral("spindleLeast"), tr("turns/min"), {0, 200'000}, 0, 1,
                                              [](MachineProfile& m) -> double& { return m.spindle_least; }));
  form->addRow(tr("Spindle at most"), figure(QStringLiteral("spindleMost"), tr("turns/min"), {0, 200'000}, 0, 1,
                                             [](MachineProfile& m) -> double& { return m.spindle_most; }));
  form->addRow(tr("It speeds up in"), figure(QStringLiteral("spinUp"), tr("s"), {0, 120}, 1, kSeconds,
                                             [](MachineProfile& m) -> double& { return m.spin_up_seconds; }));
  form->addRow(tr("Clear of the board between cuts"),
               figure(QStringLiteral("clearance"), inch ? tr("in") : tr("mm"), {0.5, 200}, inch ? 3 : 2, k,
                      [](MachineProfile& m) -> double& { return m.clearance; }));
  form->addRow(tr("Changing a bit takes you"),
               figure(QStringLiteral("changeSeconds"), tr("s"), {0, 7200}, 0, kSeconds,
                      [](MachineProfile& m) -> double& { return m.bit_change_seconds; }));
  form->addRow(tr("Touch plate (0: none)"),
               figure(QStringLiteral("plateThick"), inch ? tr("in") : tr("mm"), {0, 100}, inch ? 4 : 3, k,
                      [](MachineProfile& m) -> double& { return m.plate; }));
  form->addRow({}, tick(QStringLiteral("takesOffPlate"), tr("It takes the plate's thickness off by itself"),
                        &MachineProfile::takes_off_plate));
  home_ = new QComboBox;
  home_->setObjectName(QStringLiteral("homeCorner"));
  home_->addItems({tr("not said"), tr("left front"), tr("right front"), tr("left back"), tr("right back")});
  form->addRow(tr("It looks for home at"), home_);
  connect(home_, &QComboBox::activated, this, [this](int i) {
    if (auto* m = chosen()) m->home = static_cast<HomeCorner>(i);
    changed();
  });
  shows_.emplace_back([this](const MachineProfile& m) { home_->setCurrentIndex(static_cast<int>(m.home)); });
  const auto hole = [&](const char* name, Range range, const Get& get) {
    return figure(QLatin1String(name), inch ? tr("in") : tr("mm"), range, inch ? 4 : 3, k, get);
  };
  form->addRow(tr("Its bed is wide (0: as the travel)"),
               hole("bedWide", {0, 100'000}, [](MachineProfile& m) -> double& { return m.bed_wide; }));
  form->addRow(tr("… and deep"),
               hole("bedDeep", {0, 100'000}, [](MachineProfile& m) -> double& { return m.bed_deep; }));
  form->addRow(tr("It begins left of the travel by"),
               hole("bedLeft", {-10'000, 10'000}, [](MachineProfile& m) -> double& { return m.bed_left; }));
  form->addRow(tr("… and in front of it by"),
               hole("bedFront", {-10'000, 10'000}, [](MachineProfile& m) -> double& { return m.bed_front; }));
  form->addRow(tr("Holes of its bed lie apart (0: none)"),
               hole("holesApart", {0, 1000}, [](MachineProfile& m) -> double& { return m.hole_pitch; }));
  form->addRow(tr("They are wide"),
               hole("holesWide", {1, 100}, [](MachineProfile& m) -> double& { return m.hole_wide; }));
  form->addRow(tr("One lies from the left end"),
               hole("holesX", {-10'000, 100'000}, [](MachineProfile& m) -> double& { return m.hole_x; }));
  form->addRow(tr("… and from the front end"),
               hole("holesY", {-10'000, 100'000}, [](MachineProfile& m) -> double& { return m.hole_y; }));
  form->addRow(
      {}, tick(QStringLiteral("keepsLength"), tr("Bits sit equally deep (collars, a setter): z is set once for all"),
               &MachineProfile::keeps_length));
}

QWidget* MachinesDialog::figure(const QString& name, const QString& unit, Range range, int decimals, double factor,
                                const Get& get) {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  auto* field = new FigureField(range, decimals, factor);
  field->setObjectName(name);
  field->setFixedWidth(96);
  row->addWidget(field);
  row->addWidget(make_label(unit, "faded"));
  row->addStretch();
  connect(field, &FigureField::entered, this, [this, get](double v) {
    if (auto* m = chosen()) get(*m) = v;
    changed();
  });
  shows_.emplace_back([field, get](const MachineProfile& m) {
    MachineProfile copy = m;
    field->show_figure(get(copy));
  });
  return box;
}

QWidget* MachinesDialog::axes(const QString& name, const QString& unit, double most, double factor,
                              std::array<double, 3> MachineProfile::*member) {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  for (std::size_t i = 0; i < 3; ++i) {
    auto* field = new FigureField({0.01, most}, factor > 1 ? 2 : 1, factor);
    field->setObjectName(name + QLatin1Char("XYZ"[i]));
    field->setAccessibleName(QString(QLatin1Char("xyz"[i])));
    field->setFixedWidth(84);
    row->addWidget(field);
    connect(field, &FigureField::entered, this, [this, member, i](double v) {
      if (auto* m = chosen()) (m->*member)[i] = v;
      changed();
    });
    shows_.emplace_back([field, member, i](const MachineProfile& m) { field->show_figure((m.*member)[i]); });
  }
  row->addWidget(make_label(unit, "faded"));
  row->addStretch();
  return box;
}

QCheckBox* MachinesDialog::tick(const QString& name, const QString& words, bool MachineProfile::*member) {
  auto* box = new QCheckBox(words);
  box->setObjectName(name);
  connect(box, &QCheckBox::clicked, this, [this, member](bool on) {
    if (auto* m = chosen()) m->*member = on;
    changed();
  });
  shows_.emplace_back([box, member](const MachineProfile& m) { box->setChecked(m.*member); });
  return box;
}

// Which way an axis counts, seen by who stands in front; z always counts upwards.
QComboBox* MachinesDialog::way(const QString& name, const QStringList& words, bool MachineProfile::*other) {
  auto* box = new QComboBox;
  box->setObjectName(name);
  box->addItems(words);
  box->setToolTip(tr("As the bit goes over the board, seen from where you stand; z always counts upwards"));
  connect(box, &QComboBox::activated, this, [this, other](int i) {
    if (auto* m = chosen()) m->*other = i == 1;
    changed();
  });
  shows_.emplace_back([box, other](const MachineProfile& m) { box->setCurrentIndex(m.*other ? 1 : 0); });
  return box;
}

void MachinesDialog::list() {
  filling_ = true;
  const int row = list_->currentRow();
  list_->clear();
  for (const MachineProfile& m : machines_)
    list_->addItem(words_of(m.name) + QLatin1Char('\n') +
                   (comes_with_doyen(m.id) ? tr("comes with Doyen") : tr("your own")));
  list_->setCurrentRow(std::min(row, list_->count() - 1));
  filling_ = false;
  show_chosen();
}

void MachinesDialog::show_chosen() {
  const MachineProfile* m = chosen();
  if (m == nullptr) return;
  const bool own = !comes_with_doyen(m->id);
  for (const auto& show : shows_) show(*m);
  form_->setEnabled(own);
  remove_->setEnabled(own);
  note_->setVisible(!own);
  note_->setText(tr("It comes with Doyen and stays as it is. Take “A new one like this” to describe your own."));
}

void MachinesDialog::changed() {
  says_->clear();
  const MachineProfile* m = chosen();
  if (m != nullptr && m->spindle_most < m->spindle_least)
    says_->setText(tr("The spindle's most must not be less than its least."));
  if (auto* item = list_->currentItem(); item != nullptr && m != nullptr)
    item->setText(words_of(m->name) + QLatin1Char('\n') + tr("your own"));
}

void MachinesDialog::add_copy() {
  const MachineProfile* like = chosen();
  if (like == nullptr) return;
  MachineProfile copy = *like;
  copy.name = tr("My machine").toStdString();
  const auto taken = [&](const auto& test) { return std::any_of(machines_.begin(), machines_.end(), test); };
  for (int k = 2; taken([&](const MachineProfile& m) { return m.name == copy.name; }); ++k)
    copy.name = tr("My machine %1").arg(k).toStdString();
  copy.id.clear();  // from its name, when it is kept
  machines_.push_back(copy);
  list();
  list_->setCurrentRow(list_->count() - 1);
  name_->setFocus();
  name_->selectAll();
}

void MachinesDialog::remove() {
  const int row = list_->currentRow();
  if (chosen() == nullptr || comes_with_doyen(chosen()->id)) return;
  machines_.erase(machines_.begin() + row);
  list();
}

void MachinesDialog::read_from_file() {
  const QString path = QFileDialog::getOpenFileName(this, tr("Read machines"), {}, tr("Machines (*.json)"));
  if (path.isEmpty()) return;
  try {
    for (MachineProfile& m : read_machines(read_file(path.toStdString()), path.toStdString()).machines) {
      // Whoever has one of that name already keeps it: this is another.
      m.id.clear();
      machines_.push_back(std::move(m));
    }
    says_->clear();
  } catch (const Problem& problem) {
    return says_->setText(QString::fromUtf8(problem.what()));
  }
  list();
  list_->setCurrentRow(list_->count() - 1);
}

void MachinesDialog::save_to_file() {
  const MachineProfile* m = chosen();
  if (m == nullptr) return;
  const QString path = QFileDialog::getSaveFileName(
      this, tr("Save the machine"), words_of(m->name) + QStringLiteral(".json"), tr("Machines (*.json)"));
  if (path.isEmpty()) return;
  try {
    MachineProfile one = *m;
    if (one.id.empty()) one.id = fresh_machine_id(one.name);
    write_file_atomically(path.toStdString(), write_machines({{one}}));
    says_->clear();
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
  }
}

void MachinesDialog::accept() {
  setFocus();  // what is still being typed is taken or refused
  for (const MachineProfile& m : machines_) {
    if (m.spindle_most >= m.spindle_least) continue;
    return says_->setText(tr("“%1”: the spindle's most must not be less than its least.").arg(words_of(m.name)));
  }
  const int row = list_->currentRow();
  std::string aside;
  try {
    for (const MachineProfile& m : before_) {
      const bool stays = std::any_of(machines_.begin(), machines_.end(),
                                     [&](const MachineProfile& other) { return other.id == m.id; });
      if (!stays && !comes_with_doyen(m.id)) aside += drop_machine(m.id);
    }
    for (MachineProfile& m : machines_) {
      if (std::find(before_.begin(), before_.end(), m) != before_.end()) continue;
      if (m.id.empty()) m.id = fresh_machine_id(m.name);
      aside += keep_machine(m);
    }
  } catch (const Problem& problem) {
    return says_->setText(QString::fromUtf8(problem.what()));
  }
  aside_ = words_of(aside);
  if (use_->isChecked() && row >= 0) wanted_ = machines_[static_cast<std::size_t>(row)].id;
  QDialog::accept();
}

}  // namespace doyen
