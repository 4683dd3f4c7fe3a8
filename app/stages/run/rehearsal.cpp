#include "stages/run/rehearsal.hpp"

#include <QButtonGroup>
#include <QComboBox>
#include <QKeyEvent>
#include <QPushButton>
#include <QRadioButton>
#include <QSlider>
#include <QVBoxLayout>
#include <cmath>

#include "parts/cards.hpp"
#include "parts/ticket.hpp"
#include "planning/look_round.hpp"
#include "problem.hpp"
#include "relief/carve.hpp"
#include "run/placement.hpp"
#include "work/planner.hpp"

namespace doyen {
namespace {

constexpr double kCellsSeen = 800;   // along the board's greater side
constexpr int kLightEvery = 150;     // ms
constexpr std::size_t kTrail = 400;  // corners
constexpr double kPaces[] = {1, 5, 20, 100};

QString words_of(double seconds) { return QString::fromStdString(format_duration(seconds)); }

}  // namespace

Rehearsal::Rehearsal(std::shared_ptr<const Plan> plan, QWidget* parent) : QDialog(parent), plan_(std::move(plan)) {
  setObjectName(QStringLiteral("rehearsal"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  picture_ = new RehearsalPicture;
  row->addWidget(picture_, 1);
  auto* column = add_sheet(row);
  build(column);
  light_.setInterval(kLightEvery);
  connect(&light_, &QTimer::timeout, this, &Rehearsal::light);
  connect(&line_, &ControllerLine::reported, this, &Rehearsal::take);
  connect(&line_, &ControllerLine::ended, this, [this] { ending_ = true; });
  connect(&line_, &ControllerLine::refused, this,
          [this](const QString& words) { stop(tr("The controller did not take a line: %1").arg(words)); });
  connect(&line_, &ControllerLine::alarmed, this,
          [this](const QString& words) { stop(tr("The controller gave an alarm: %1").arg(words)); });
  connect(&line_, &ControllerLine::lost, this, [this] { stop(tr("The simulated controller is gone.")); });
  show_plan(plan_);
}

void Rehearsal::build(QVBoxLayout* column) {
  column->addWidget(make_label(tr("Rehearsal"), "title"));
  column->addWidget(make_label(
      tr("The files run through a simulated controller; no machine moves. Throw something in, and say what it did "
         "to the board."),
      "faded"));
  which_ = new QComboBox;
  which_->setObjectName(QStringLiteral("rehearsedSide"));
  which_->addItems({tr("the front"), tr("the back, the board turned over")});
  which_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  column->addWidget(make_row(tr("Side"), which_));
  connect(which_, &QComboBox::activated, this, [this](int i) {
    side_ = i == 0 ? Side::Front : Side::Back;
    show_plan(plan_);
  });
  what_ = new QComboBox;
  what_->setObjectName(QStringLiteral("drill"));
  what_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  column->addWidget(make_row(tr("Thrown in"), what_));
  pace_ = new QComboBox;
  pace_->setObjectName(QStringLiteral("pace"));
  pace_->addItems(
      {tr("as fast as the machine"), tr("5 times as fast"), tr("20 times as fast"), tr("100 times as fast")});
  pace_->setCurrentIndex(2);
  column->addWidget(make_row(tr("It runs"), pace_));
  connect(pace_, &QComboBox::activated, this, [this](int i) { line_.set_speed(kPaces[i]); });
  override_ = new QSlider(Qt::Horizontal);
  override_->setObjectName(QStringLiteral("feedOverride"));
  override_->setAccessibleName(tr("Feed, of what the file says"));
  override_->setRange(10, 200);
  override_->setValue(100);
  override_says_ = make_label({}, "plain");
  auto* line = new QHBoxLayout;
  line->addWidget(make_label(tr("Feed, of what the file says"), "plain"), 1);
  line->addWidget(override_says_);
  column->addLayout(line);
  column->addWidget(override_);
  const auto show_share = [this] { override_says_->setText(tr("%1 %").arg(override_->value())); };
  show_share();
  connect(override_, &QSlider::valueChanged, this, [this, show_share] {
    show_share();
    line_.set_override(override_->value());
  });
  auto* buttons = new QHBoxLayout;
  const auto button = [&](const QString& words, const char* name) {
    auto* b = new QPushButton(words);
    b->setObjectName(QLatin1String(name));
    buttons->addWidget(b);
    return b;
  };
  start_ = button(tr("Start"), "startRehearsal");
  hold_ = button(tr("Hold"), "holdRehearsal");
  stop_ = button(tr("Stop"), "stopRehearsal");
  column->addLayout(buttons);
  connect(start_, &QPushButton::clicked, this, &Rehearsal::start);
  connect(hold_, &QPushButton::clicked, this, [this] {
    if (state_ == State::Held) {
      line_.go_on();
      go_to(State::Running);
    } else {
      line_.hold();
      go_to(State::Held);
    }
  });
  connect(stop_, &QPushButton::clicked, this, [this] { stop(tr("Stopped by hand.")); });
  column->addWidget(make_line());
  file_says_ = make_label({}, "heading");
  file_says_->setObjectName(QStringLiteral("rehearsedFile"));
  place_says_ = make_label({}, "plain");
  time_says_ = make_label({}, "plain");
  time_says_->setObjectName(QStringLiteral("rehearsedTime"));
  next_says_ = make_label({}, "plain");
  next_says_->setObjectName(QStringLiteral("rehearsedNext"));
  for (QLabel* label : {file_says_, place_says_, time_says_, next_says_}) column->addWidget(label);
  changed_ = new QPushButton(tr("The bit is changed: go on"));
  changed_->setObjectName(QStringLiteral("bitChanged"));
  column->addWidget(changed_);
  connect(changed_, &QPushButton::clicked, this, [this] {
    if (!waits_in_file_) return begin_file();
    part_ = next_part_;
    waits_in_file_ = false;
    if (const BitRun* next = run()) thrown_ = thrown_in(*plan_, drill_, *next);
    line_.go_on();
    go_to(State::Running);
  });
  build_question(column);
  says_ = make_label({}, "plain");
  says_->setObjectName(QStringLiteral("rehearsalSays"));
  column->addWidget(says_);
  column->addStretch();
  auto* back = new QPushButton(tr("Back to the board"));
  back->setObjectName(QStringLiteral("rehearsalBack"));
  column->addWidget(back);
  connect(back, &QPushButton::clicked, this, &QDialog::reject);
}

void Rehearsal::build_question(QVBoxLayout* column) {
  question_ = new QWidget;
  auto* inside = new QVBoxLayout(question_);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(3);
  inside->addWidget(make_label(tr("What is seen on the board?"), "heading"));
  answers_ = new QButtonGroup(this);
  for (const Seen seen : all_seen()) {
    auto* choice = new QRadioButton(QString::fromStdString(seen_in_words(seen)));
    choice->setObjectName(QStringLiteral("seen%1").arg(static_cast<int>(seen)));
    answers_->addButton(choice, static_cast<int>(seen));
    inside->addWidget(choice);
  }
  say_ = new QPushButton(tr("That is what I see"));
  say_->setObjectName(QStringLiteral("saySeen"));
  inside->addWidget(say_, 0, Qt::AlignLeft);
  column->addWidget(question_);
  connect(answers_, &QButtonGroup::idClicked, this, [this] { say_->setEnabled(true); });
  connect(say_, &QPushButton::clicked, this, &Rehearsal::answer);
}

void Rehearsal::show_plan(const std::shared_ptr<const Plan>& plan) {
  line_.close();
  plan_ = plan;
  if (!plan_->has_back()) side_ = Side::Front;
  which_->setCurrentIndex(side_ == Side::Front ? 0 : 1);
  show_row(which_, plan_->has_back());
  files_.clear();
  parts_.clear();
  try {
    for (OutputFile& file : gcode_files(*plan_)) {
      std::vector<std::size_t> parts;
      for (std::size_t i = 0; i < plan_->runs.size(); ++i) {
        if (plan_->runs[i].file == file.name && plan_->runs[i].side == side_) parts.push_back(i);
      }
      if (parts.empty()) continue;
      files_.push_back(std::move(file));
      parts_.push_back(std::move(parts));
    }
    says_->clear();
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
  }
  const Box board = plan_->job.blank.box();
  field_ = HeightField(board, std::max(board.width(), board.height()) / kCellsSeen);
  field_.clear();
  list_drills();
  lit_ = false;
  light();
  picture_->show_metal(standing_metal(*plan_, side_), {});
  picture_->show_bit({}, 0, {});
  file_ = part_ = 0;
  go_to(State::Before);
}

void Rehearsal::list_drills() {
  what_->clear();
  for (const Drill drill : drills_of(*plan_, side_))
    what_->addItem(QString::fromStdString(drill_in_words(*plan_, drill)), static_cast<int>(drill));
}

const BitRun* Rehearsal::run() const {
  return file_ < parts_.size() && part_ < parts_[file_].size() ? &plan_->runs[parts_[file_][part_]] : nullptr;
}

double Rehearsal::planned_seconds() const {
  double seconds = 0;
  for (const std::size_t i : parts_[file_]) seconds += plan_->runs[i].time.seconds;
  return seconds;
}

void Rehearsal::start() {
  drill_ = static_cast<Drill>(what_->currentData().toInt());
  seconds_.clear();
  hit_.reset();
  trail_.clear();
  field_.clear();
  file_ = part_ = 0;
  ending_ = waits_in_file_ = false;
  says_->clear();
  // The board lies in the middle of the machine, the deepest cut half a millimetre above the lowest that it reaches.
  Box reach = plan_->job.blank.box();
  Point3 origin;
  if (const std::optional<Reach> of = reach_of(*plan_, side_)) {
    reach = of->middle;
    origin.z = 0.5 - of->lowest;
  }
  reach.add(Point{0, 0});
  origin.x = (plan_->machine.travel[0] - reach.width()) / 2 - reach.left;
  origin.y = (plan_->machine.travel[1] - reach.height()) / 2 - reach.bottom;
  try {
    line_.open(plan_->machine, origin, kPaces[pace_->currentIndex()]);
  } catch (const Problem& problem) {
    return says_->setText(QString::fromUtf8(problem.what()));
  }
  if (override_->value() != 100) line_.set_override(override_->value());
  now_ = 0;
  light_.start();
  begin_file();
}

void Rehearsal::begin_file() {
  const BitRun* first = run();
  if (first == nullptr) return;
  thrown_ = thrown_in(*plan_, drill_, *first);
  // The bit of the run before is seen in the picture only when it meets the wood.
  const Placement lies = placement_of(plan_->job, plan_->machine, side_);
  const double high = std::max(plan_->machine.clearance, travel_of(plan_->job, plan_->machine, side_).highest());
  last_ = {0, 0, high + lies.z};
  line_.place_bit(last_);
  began_ = now_;
  const QString text = QString::fromStdString(files_[file_].text);
  lines_ = static_cast<int>(text.count(QLatin1Char('\n')));
  metal_ = standing_metal(*plan_, side_);
  if (thrown_.metal) metal_.push_back(*thrown_.metal);
  picture_->show_metal(metal_, {});
  line_.send(text);
  go_to(State::Running);
}

void Rehearsal::take(const MachineReport& report) {
  if (state_ == State::Before || state_ == State::After) return;
  now_ = report.seconds;
  carve_way(report.way, report.line);
  if (state_ == State::After) return;  // it ran into metal
  std::vector<Point3> here{report.at};
  carve_way(here, report.line);
  if (state_ == State::After) return;
  const BitRun* of = run();
  if (of == nullptr) return;
  const Placement lies = placement_of(plan_->job, plan_->machine, side_);
  const auto show = [&](double mm) { return QString::fromStdString(depth_in_words(mm, plan_->job.lengths)); };
  const Bit& bit = thrown_.bit ? *thrown_.bit : of->bit;
  Point3 at = lies.on_board(report.at);
  if (lines_ == 0 || report.line >= thrown_.from * lines_)
    at = {at.x + thrown_.off.x, at.y + thrown_.off.y, at.z + thrown_.off.z};
  picture_->show_bit(at, bit.true_diameter() / 2, trail_);
  const bool inch = plan_->job.lengths.unit == Unit::Inch;
  place_says_->setText(tr("x %1, y %2, z %3 · %4")
                           .arg(show(report.at.x), show(report.at.y), show(report.at.z),
                                QString::number(report.feed / (inch ? kMmPerInch : 1), 'f', 0) + QLatin1Char(' ') +
                                    (inch ? tr("in/min") : tr("mm/min"))));
  time_says_->setText(tr("%1 of %2 in this file").arg(words_of(now_ - began_), words_of(planned_seconds())));
  if (ending_) return file_ended();
  if (report.state != QLatin1String("wait") || state_ != State::Running) return;
  // By its number, where the file says it; else the next of the file.
  const std::vector<std::size_t>& parts = parts_[file_];
  // A bit may come more than once: the next stay of that number; the first of all is called before anything is cut.
  next_part_ = std::min(part_ + 1, parts.size() - 1);
  for (std::size_t k = part_; k < parts.size() && report.change > 0; ++k) {
    const int tool = plan_->machine.tool_of(plan_->runs[parts[k]].bit.id, static_cast<int>(parts[k]) + 1);
    if (tool != report.change) continue;
    next_part_ = k;
    break;
  }
  waits_in_file_ = true;
  go_to(State::Change);
}

void Rehearsal::carve_way(const std::vector<Point3>& way, int line) {
  const BitRun* of = run();
  if (of == nullptr || way.empty()) return;
  const Placement lies = placement_of(plan_->job, plan_->machine, side_);
  const Point3 off = lines_ == 0 || line >= thrown_.from * lines_ || line == 0 ? thrown_.off : Point3{};
  const Bit& bit = thrown_.bit ? *thrown_.bit : of->bit;
  const auto on_board = [&](const Point3& p) {
    const Point3 at = lies.on_board(p);
    return Point3{at.x + off.x, at.y + off.y, at.z + off.z};
  };
  Pass pass;
  pass.points.push_back(on_board(last_));
  for (const Point3& p : way) {
    const Point3 at = on_board(p), from = pass.points.back();
    if (at == from) continue;
    for (std::size_t k = 0; k < metal_.size(); ++k) {
      if (const auto hit = first_hit(metal_[k], from, at, bit.true_diameter() / 2)) {
        carve(field_, {pass}, bit);
        return ran_into(k, *hit);
      }
    }
    pass.points.push_back(at);
    trail_.push_back(at.flat());
  }
  last_ = way.back();
  if (trail_.size() > kTrail) trail_.erase(trail_.begin(), trail_.end() - static_cast<std::ptrdiff_t>(kTrail));
  const bool in_wood = std::any_of(pass.points.begin(), pass.points.end(), [](const Point3& p) { return p.z < 0; });
  if (pass.points.size() < 2 || !in_wood) return;
  carve(field_, {pass}, bit);
  lit_ = false;
}

void Rehearsal::file_ended() {
  ending_ = false;
  if (state_ != State::Running && state_ != State::Held) return;
  seconds_.push_back(now_ - began_);
  ++file_;
  part_ = 0;
  if (file_ >= files_.size()) return finish();
  go_to(State::Change);
}

void Rehearsal::ran_into(std::size_t metal, const Point& at) {
  hit_ = at;
  line_.stop();
  picture_->show_metal(metal_, metal);
  finish();
}

void Rehearsal::stop(const QString& why) {
  if (state_ == State::Before || state_ == State::After) return;
  line_.stop();
  line_.close();
  light_.stop();
  lit_ = false;
  light();
  go_to(State::After);
  question_->hide();
  says_->setText(why);
}

void Rehearsal::finish() {
  line_.close();
  light_.stop();
  lit_ = false;
  light();
  go_to(State::After);
}

void Rehearsal::answer() {
  const int said = answers_->checkedId();
  if (said < 0) return;
  const HeightField wanted = relief_of(*plan_, plan_->job.blank.box(), field_.cell(), {}, side_);
  Drilled got{HeightField(plan_->job.blank.box(), field_.cell()), hit_, thickness_with(*plan_, drill_)};
  for (std::size_t r = 0; r < field_.rows(); ++r) std::copy_n(field_.row(r), field_.columns(), got.board.row(r));
  const Seen seen = seen_on(*plan_, wanted, got);
  const QString told = hit_ && !thrown_.metal
                           ? tr("It ran into metal that is marked on the blank: move that, or what is cut.")
                           : QString::fromStdString(foretold(*plan_, drill_, side_));
  says_->setText((static_cast<Seen>(said) == seen
                      ? tr("Yes: %1.").arg(QString::fromStdString(seen_in_words(seen)))
                      : tr("Look again: %1.").arg(QString::fromStdString(seen_in_words(seen)))) +
                 QLatin1Char(' ') + told);
}

void Rehearsal::light() {
  if (lit_) return;
  lit_ = true;
  picture_->show_board(to_image(lit_picture(field_, wood_look(plan_->job.blank))), plan_->job.blank.box());
}

void Rehearsal::go_to(State state) {
  state_ = state;
  const bool under_way = state == State::Running || state == State::Held || state == State::Change;
  start_->setEnabled(!under_way && !files_.empty());
  start_->setText(state == State::After ? tr("Once more") : tr("Start"));
  what_->setEnabled(!under_way);
  which_->setEnabled(!under_way);
  hold_->setEnabled(state == State::Running || state == State::Held);
  hold_->setText(state == State::Held ? tr("Go on") : tr("Hold"));
  stop_->setEnabled(under_way);
  changed_->setVisible(state == State::Change);
  question_->setVisible(state == State::After);
  if (state == State::After) {
    answers_->setExclusive(false);
    for (QAbstractButton* b : answers_->buttons()) b->setChecked(false);
    answers_->setExclusive(true);
    say_->setEnabled(false);
  }
  if (files_.empty()) {
    file_says_->setText(side_ == Side::Front ? tr("Nothing is cut from the front.")
                                             : tr("Nothing is cut from the back."));
    return;
  }
  const std::size_t shown = std::min(file_, files_.size() - 1);
  const std::size_t part = waits_in_file_ ? next_part_ : part_;
  const BitRun& of = plan_->runs[parts_[shown][std::min(part, parts_[shown].size() - 1)]];
  file_says_->setText(tr("File %1 of %2: %3, %4")
                          .arg(shown + 1)
                          .arg(files_.size())
                          .arg(QString::fromStdString(files_[shown].name), QString::fromStdString(of.bit.name)));
  QString next;
  if (state == State::Change)
    next = (plan_->machine.keeps_length
                ? tr("Change to the %1: spindle still, machine locked or unplugged. Keep x, y and z.")
                : tr("Change to the %1: spindle still, machine locked or unplugged. Keep x and y; set z again."))
               .arg(QString::fromStdString(of.bit.name));
  else if (state == State::After && seconds_.size() == files_.size())
    next = tr("All files have run.");
  else if (shown + 1 < files_.size())
    next = tr("After it: the %1.").arg(QString::fromStdString(plan_->runs[parts_[shown + 1].front()].bit.name));
  next_says_->setText(next);
}

void Rehearsal::keyPressEvent(QKeyEvent* event) {
  // As at a machine: the great key stops what runs.
  if (event->key() == Qt::Key_Space && stop_->isEnabled()) return stop(tr("Stopped by hand."));
  QDialog::keyPressEvent(event);
}

}  // namespace doyen
