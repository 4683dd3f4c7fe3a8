#include "stages/run/run_ticket.hpp"

#include <QKeyEvent>
#include <QSettings>

#include "holding/screws.hpp"
#include "holding/turning_pins.hpp"
#include "holding/witness.hpp"
#include "parts/theme.hpp"
#include "planning/outputs.hpp"
#include "planning/test_cut.hpp"
#include "problem.hpp"
#include "run/order.hpp"
#include "work/long_work.hpp"

namespace doyen {

RunTicket::RunTicket(Workshop& shop) : Ticket(shop) {
  add_title(tr("Run"));
  machine_ = new QComboBox;
  machine_->setObjectName(QStringLiteral("machine"));
  list_machines();
  add_row(tr("Machine"), machine_);
  describe_ = new QPushButton(tr("Describe machines…"));
  describe_->setObjectName(QStringLiteral("describeMachines"));
  add_row(QString(), describe_);
  connect(describe_, &QPushButton::clicked, this, &RunTicket::machines_wanted);
  files_ = new QComboBox;
  files_->addItems({tr("one file per bit"), tr("one file with pauses")});
  add_row(tr("Files"), files_);
  lies_ = new QComboBox;
  lies_->setObjectName(QStringLiteral("liesOnBed"));
  lies_->addItems({tr("as it is drawn"), tr("a quarter turned to the left"), tr("half turned round"),
                   tr("a quarter turned to the right")});
  lies_->setToolTip(
      tr("How the blank lies on the machine's bed against how it is drawn, seen from above. The files turn with it."));
  add_row(tr("The blank lies"), lies_);
  bed_ = new QPushButton(tr("Where on the bed…"));
  bed_->setObjectName(QStringLiteral("openBed"));
  bed_->setToolTip(tr("The machine's bed from above: where the board lies, what it lies against, how far the bits go"));
  add_row(QString(), bed_);
  connect(bed_, &QPushButton::clicked, this, &RunTicket::bed_wanted);
  zero_ = new ZeroSection(shop_);
  column_->addWidget(zero_);
  turn_ = new QComboBox;
  turn_->setObjectName(QStringLiteral("turnEdge"));
  turn_->addItems({tr("left edge, as a page"), tr("front edge, as a calendar")});
  add_row(tr("Turned over about its"), turn_);
  pins_ = new QPushButton(tr("Find places for two pins"));
  pins_->setObjectName(QStringLiteral("placePins"));
  pins_->setToolTip(tr(
      "Holes in the waste, through into the waste board, that the board comes to lie on again when it is turned over: "
      "with a pin in each, x and y stay where they were"));
  add_row(QString(), pins_);
  pins_say_ = make_label({}, "plain");
  pins_say_->setObjectName(QStringLiteral("pinsSay"));
  column_->addWidget(pins_say_);
  connect(pins_, &QPushButton::clicked, this,
          [this] { place_in_waste(tr("pins to turn the board on"), InWaste::Pins); });
  low_ = new QCheckBox(tr("Travel just above the board where it is clear"));
  low_->setObjectName(QStringLiteral("lowTravel"));
  low_->setToolTip(
      tr("Between cuts the bit is lifted just clear of the face, and to full height over clamps and screws "
         "that are marked on the blank"));
  least_ = new LengthField(range_of("run.leastWood"));
  least_->setObjectName(QStringLiteral("leastWood"));
  holding_ = new QLineEdit;
  holding_->setObjectName(QStringLiteral("holding"));
  held_ = new Fold(tr("Travel and holding"), QStringLiteral("holdingOpen"));
  look_round_ = new QCheckBox(tr("A first file that runs round the job in the air"));
  look_round_->setObjectName(QStringLiteral("lookRound"));
  look_round_->setToolTip(
      tr("With the spindle off, at travel height, once round all that the bits take up: to see what "
         "stands in the way before anything is cut"));
  held_->body()->addWidget(look_round_);
  held_->body()->addWidget(low_);
  held_->body()->addWidget(make_row(tr("Least wood under cuts"), least_));
  held_->body()->addWidget(make_row(tr("Held down by"), holding_));
  waste_ = new LengthField(from_least(0.5, "run.wasteBoard"), true);
  waste_->setObjectName(QStringLiteral("wasteBoard"));
  waste_->setPlaceholderText(tr("not said"));
  waste_->setToolTip(
      tr("How thick the board or sheet is that lies between the blank and the machine's bed: what comes "
         "through must end in it"));
  held_->body()->addWidget(make_row(tr("Waste board"), waste_));
  connect(waste_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.document.edit(tr("say how thick the waste board is"),
                        [&](Job& job) { job.run.waste_board = mm.value_or(0); });
  });
  stops_ = new QLineEdit;
  stops_->setObjectName(QStringLiteral("stops"));
  stops_->setMaxLength(400);
  stops_->setPlaceholderText(tr("stops, a fence, a wedge"));
  stops_->setToolTip(tr("Where the board is laid against, so that the next one lies in the same place"));
  held_->body()->addWidget(make_row(tr("Lies against"), stops_));
  screws_ = new QPushButton(tr("Find places for screws"));
  screws_->setObjectName(QStringLiteral("placeScrews"));
  screws_->setToolTip(
      tr("In the waste, clear of every cut: their holes are drilled first, in a file of its own, then the "
         "screws go in and everything keeps clear of their heads"));
  held_->body()->addWidget(screws_, 0, Qt::AlignLeft);
  mark_ = new QPushButton(tr("Make a witness mark"));
  mark_->setObjectName(QStringLiteral("placeWitness"));
  mark_->setToolTip(
      tr("A dimple in the waste that the first bit makes before all else: later bits are held over it with "
         "the spindle still, and where the tip does not meet it, x and y were lost"));
  held_->body()->addWidget(mark_, 0, Qt::AlignLeft);
  connect(mark_, &QPushButton::clicked, this, [this] { place_in_waste(tr("a witness mark"), InWaste::Mark); });
  screws_say_ = make_label({}, "plain");
  screws_say_->setObjectName(QStringLiteral("screwsSay"));
  held_->body()->addWidget(screws_say_);
  connect(screws_, &QPushButton::clicked, this,
          [this] { place_in_waste(tr("screws that hold the board"), InWaste::Screws); });
  column_->addWidget(held_);
  rehearse_ = new QPushButton(tr("Rehearse it…"));
  rehearse_->setObjectName(QStringLiteral("rehearse"));
  rehearse_->setToolTip(
      tr("The files run through a simulated controller, and the bit is seen over the board as it is "
         "carved; something that goes wrong can be thrown in"));
  column_->addWidget(rehearse_, 0, Qt::AlignLeft);
  connect(rehearse_, &QPushButton::clicked, this, &RunTicket::rehearsal_wanted);
  add_rule();
  add_heading(tr("Bits, in this order (drag to change)"));
  order_ = new QListWidget;
  order_->setObjectName(QStringLiteral("order"));
  order_->setDragDropMode(QAbstractItemView::InternalMove);
  order_->setDefaultDropAction(Qt::MoveAction);
  order_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  order_->setWordWrap(true);
  order_->setAccessibleName(tr("Bits in the order in which they come; drag them, or press Alt and an arrow"));
  order_->setToolTip(
      tr("Drag a bit to another place, or choose it and press Alt and an arrow. What must come first "
         "still comes first."));
  order_->installEventFilter(this);
  column_->addWidget(order_);
  order_says_ = make_label({}, "plain");
  order_says_->setObjectName(QStringLiteral("orderSays"));
  column_->addWidget(order_says_);
  own_order_ = new QPushButton(tr("Take Doyen's order"));
  own_order_->setObjectName(QStringLiteral("ownOrder"));
  column_->addWidget(own_order_, 0, Qt::AlignLeft);
  connect(own_order_, &QPushButton::clicked, this,
          [this] { shop_.document.edit(tr("take Doyen's order"), [](Job& job) { job.run.order.clear(); }); });
  // The view is still handling its drop: the edit, which fills the list anew, comes after it.
  connect(order_->model(), &QAbstractItemModel::rowsMoved, this, [this] {
    if (!filling_)
      QMetaObject::invokeMethod(
          this, [this] { take_order(); }, Qt::QueuedConnection);
  });
  inlay_ = new InlayRunSection(shop_);
  column_->addWidget(inlay_);
  add_rule();
  add_heading(tr("Before you start"));
  column_->addWidget(
      make_label(tr("Eyes and ears covered, dust extraction on, no loose sleeves. Work held so that it cannot lift. "
                    "Spindle still, machine locked or unplugged, before a bit is changed. Stop within reach. "
                    "The machine's own instructions and local rules come first."),
                 "faded"));
  written_ = make_label({}, "plain");
  written_->setObjectName(QStringLiteral("written"));
  written_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  column_->addWidget(written_);
  opens_ = new QWidget;
  auto* opens = new QHBoxLayout(opens_);
  opens->setContentsMargins(0, 0, 0, 0);
  const auto add_opener = [&](const QString& words, const char* name, const QString& file) {
    auto* button = new QPushButton(words);
    button->setObjectName(QLatin1String(name));
    opens->addWidget(button);
    connect(button, &QPushButton::clicked, this,
            [this, file] { Q_EMIT open_wanted(written_folder_ + QLatin1Char('/') + file); });
  };
  add_opener(tr("Open the folder"), "openFolder", {});
  add_opener(tr("Open the run sheet"), "openSheet", QStringLiteral("runsheet.pdf"));
  opens->addStretch();
  column_->addWidget(opens_);
  opens_->hide();
  test_ = new QWidget;
  auto* tested = new QVBoxLayout(test_);
  tested->setContentsMargins(0, 0, 0, 0);
  tested->addWidget(make_label(tr("When the test is cut"), "heading"));
  test_says_ = make_label({}, "plain");
  test_says_->setObjectName(QStringLiteral("testSays"));
  tested->addWidget(test_says_);
  came_out_ = new QPushButton(tr("It came out as it should: remember it"));
  came_out_->setObjectName(QStringLiteral("cameOut"));
  tested->addWidget(came_out_, 0, Qt::AlignLeft);
  connect(came_out_, &QPushButton::clicked, this, [this] {
    Q_EMIT came_out_well();
    refresh();
  });
  column_->addWidget(test_);
  again_ = new AgainSection(shop_);
  column_->addWidget(again_);
  column_->addWidget(left_over_ = new LeftOverSection(shop_));
  connect(again_, &AgainSection::write_wanted, this, &RunTicket::write_wanted);
  after_ = new AfterRunSection(shop_);
  connect(after_, &AfterRunSection::kept, this, &RunTicket::log_kept);
  connect(after_, &AfterRunSection::rest_wanted, again_, &AgainSection::unfold);
  connect(after_, &AfterRunSection::log_wanted, this, &RunTicket::log_wanted);
  connect(after_, &AfterRunSection::job_wanted, this, &RunTicket::job_wanted);
  column_->addWidget(after_);
  next_one_ = new NextBoardSection(shop_);
  column_->addWidget(next_one_);
  column_->addStretch();

  connect(machine_, &QComboBox::activated, this, [this] {
    QSettings().setValue(QStringLiteral("machine"), machine_->currentData());  // the next new job begins with it
    shop_.document.edit(tr("choose the machine"),
                        [&](Job& job) { job.run.machine = machine_->currentData().toString().toStdString(); });
  });
  connect(files_, &QComboBox::activated, this,
          [this](int i) { shop_.document.edit(tr("change the files"), [&](Job& job) { job.run.one_file = i == 1; }); });
  connect(lies_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("turn the blank on the bed"), [&](Job& job) { job.run.on_bed = static_cast<OnBed>(i); });
  });
  connect(turn_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("turn it about another edge"),
                        [&](Job& job) { job.run.turn = i == 1 ? TurnOver::FrontEdge : TurnOver::LeftEdge; });
  });
  connect(low_, &QCheckBox::clicked, this, [this](bool on) {
    shop_.document.edit(on ? tr("travel low where it is safe") : tr("always travel at full height"),
                        [&](Job& job) { job.run.low_travel = on; });
  });
  connect(stops_, &QLineEdit::editingFinished, this, [this] {
    shop_.document.edit(tr("say what it lies against"),
                        [&](Job& job) { job.run.stops = stops_->text().toStdString(); });
  });
  connect(look_round_, &QCheckBox::clicked, this, [this](bool on) {
    shop_.document.edit(on ? tr("a file that runs round the job") : tr("no file that runs round the job"),
                        [&](Job& job) { job.run.look_round = on; });
  });
  connect(least_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.document.edit(tr("change the wood kept under grooves"), [&](Job& job) { job.run.least_wood = *mm; });
  });
  connect(holding_, &QLineEdit::editingFinished, this, [this] {
    shop_.document.edit(tr("say how it is held"), [&](Job& job) { job.run.holding = holding_->text().toStdString(); });
  });
}

void RunTicket::list_machines() {
  const std::vector<MachineProfile>& machines = machine_table().machines;
  if (listed_ == machines) return;
  listed_ = machines;
  machine_->clear();
  for (const MachineProfile& m : machines)
    machine_->addItem(QString::fromStdString(m.name), QString::fromStdString(m.id));
}

// The witness mark is made by the bit that comes first.
void RunTicket::place_in_waste(const QString& what, InWaste which) {
  BitId first;
  if (shop_.plan) {
    for (const BitRun& run : shop_.plan->runs) {
      if (first.empty() && run.side == Side::Front && run.screws == 0) first = run.bit.id;
    }
  }
  try {
    Job with = shop_.document.job();
    work_off_thread(this, tr("Looking for places…"), [&, rack = shop_.rack](const Cancel& cancel, const Told&) {
      const Cancel::Scope stops(cancel);
      with = which == InWaste::Pins     ? with_turning_pins(with, rack)
             : which == InWaste::Screws ? with_screws(with, rack, kScrewHead)
                                        : with_witness(with, rack, first);
    });
    shop_.document.edit(what, [&](Job& job) { job.items = with.items; });
  } catch (const Cancelled&) {
    return;
  } catch (const Problem& problem) {
    screws_problem_ = QString::fromUtf8(problem.what());
    screws_problem_of_ = shop_.document.job();
    refused_ = which;
    refresh();
  }
}

void RunTicket::show_screws() {
  const Job& job = shop_.document.job();
  const auto heads = static_cast<int>(screw_heads(job).size());
  const bool any = screws_problem_of_ && *screws_problem_of_ == job, refused = any && refused_ != InWaste::Pins;
  const auto pins = std::count_if(job.items.begin(), job.items.end(), is_turning_pin);
  const bool no_pins = any && refused_ == InWaste::Pins;
  pins_->setText(pins > 0 ? tr("Find their places anew") : tr("Find places for two pins"));
  pins_say_->setVisible(job.has_back() && (no_pins || pins > 0));
  pins_say_->setText(no_pins ? screws_problem_
                             : tr("The board is turned over onto two pins: x and y stay where they are. They can be "
                                  "moved like any piece, one as the other lies when the board is turned over."));
  screws_->setText(heads > 0 ? tr("Find their places anew") : tr("Find places for screws"));
  screws_say_->setVisible(refused || heads > 0);
  screws_say_->setText(refused      ? screws_problem_
                       : heads == 1 ? tr("One screw holds the board; it can be moved like any piece.")
                                    : tr("%1 screws hold the board; each can be moved like any piece.").arg(heads));
}

void RunTicket::show_test() {
  const Job& job = shop_.document.job();
  test_->setVisible(!job.run.test_of.empty());
  if (job.run.test_of.empty()) return;
  Rack as_is = shop_.rack;
  const bool open = keep_tested(as_is, job);
  test_says_->setText(
      open ? tr("Look at the corners, the thinnest wood and the depth. If strokes came out too wide or too "
                "narrow, measure the bit (the rack keeps measured figures) or set zero again, and cut it anew.")
           : tr("Kept: its bits are tested in this wood."));
  came_out_->setVisible(open);
}

void RunTicket::refresh() {
  const Job& job = shop_.document.job();
  show_screws();
  show_test();
  // What was written speaks of that job as it was; under another, or after an edit, it would say what is not so.
  written_->setVisible(job == written_job_);
  opens_->setVisible(job == written_job_ && !written_folder_.isEmpty());
  list_machines();
  machine_->setCurrentIndex(machine_->findData(QString::fromStdString(job.run.machine)));
  files_->setCurrentIndex(job.run.one_file ? 1 : 0);
  lies_->setCurrentIndex(static_cast<int>(job.run.on_bed));
  const bool back = job.has_back();
  turn_->setCurrentIndex(job.run.turn == TurnOver::FrontEdge ? 1 : 0);
  turn_->parentWidget()->setVisible(back);
  show_row(pins_, back);
  low_->setChecked(job.run.low_travel);
  look_round_->setChecked(job.run.look_round);
  zero_->refresh();
  least_->show_length(job.run.least_wood, job.lengths);
  waste_->show_length(job.run.waste_board > 0 ? std::optional(job.run.waste_board) : std::nullopt, job.lengths);
  if (!holding_->hasFocus()) {
    holding_->setText(QString::fromStdString(job.run.holding));
    holding_->setCursorPosition(0);
    holding_->setToolTip(holding_->text());
  }
  if (!stops_->hasFocus()) {
    stops_->setText(QString::fromStdString(job.run.stops));
    stops_->setCursorPosition(0);
  }
  held_->set_summary(job.run.holding.empty() ? tr("not said how it is held") : QString::fromStdString(job.run.holding));
  inlay_->refresh();
  after_->refresh();
  again_->refresh();
  left_over_->refresh();
  next_one_->refresh();
  rehearse_->setEnabled(shop_.plan && !shop_.plan->runs.empty());
  if (!shop_.plan) return;
  list_order();
  say_order();
}

void RunTicket::list_order() {
  filling_ = true;
  const int chosen = order_->currentRow();
  order_->clear();
  int number = 0;
  for (const BitRun& run : shop_.plan->runs) {
    QStringList turns;
    for (const Operation* op : run.operations) {
      if (run.screws > 0) break;  // always before everything else
      const QString turn = QString::fromStdString(turn_of(*op));
      if (!turns.contains(turn)) turns << turn;
    }
    QPixmap dye(10, 10);
    dye.fill(theme::dye(number));
    auto* row = new QListWidgetItem(
        QIcon(dye),
        tr("%1. %2%3\n%4\n%5 · deepest %6")
            .arg(number + 1)
            .arg(QString::fromStdString(run.bit.name),
                 (run.side == Side::Back ? tr(", back") : QString()) + (run.later ? tr(", after gluing") : QString()) +
                     (run.screws > 0 ? tr(", then the screws go in") : QString()),
                 QString::fromStdString(run.file), QString::fromStdString(format_duration(run.time.seconds)),
                 shop_.show(run.deepest)));
    row->setData(Qt::UserRole, turns);
    if (run.screws > 0) row->setFlags(row->flags() & ~Qt::ItemIsDragEnabled);
    row->setToolTip(row->text());
    order_->addItem(row);
    ++number;
  }
  int high = 4;
  for (int i = 0; i < order_->count(); ++i) high += order_->sizeHintForRow(i);
  order_->setFixedHeight(std::max(high, 30));
  order_->setCurrentRow(std::min(chosen, order_->count() - 1));
  filling_ = false;
}

// What the user's order costs against Doyen's own, and what of it could not be kept.
void RunTicket::say_order() {
  const Job& job = shop_.document.job();
  own_order_->setVisible(!job.run.order.empty());
  if (shop_.plan->runs.empty()) return order_says_->setText(tr("Nothing is cut yet."));
  if (job.plates.strips.wanted && job.plates.there())
    return order_says_->setText(
        tr("This is one strip. What is written are all of them, each in a folder of its own, numbered in the order in "
           "which they are picked up; and the cut list for the saw."));
  if (job.plates.there())
    return order_says_->setText(
        tr("This is one plate. What is written are its sheets, each with all its plates, in a "
           "folder of its own; their bits come in the same order."));
  if (job.panels.there())
    return order_says_->setText(
        tr("This is the whole sign. What is written are its panels, each with its files and its run sheet in a folder "
           "of its own, and a list of them all."));
  if (job.made_as_parts())
    return order_says_->setText(
        tr("This is how the parts are drawn. What is written are the boards that they are laid on, each with its files "
           "and its run sheet in a folder of its own."));
  if (job.run.order.empty())
    return order_says_->setText(shop_.plan->runs.size() > 1 ? tr("This order needs the fewest bit changes.")
                                                            : QString());
  const double more = shop_.plan->seconds - shop_.plan->own_seconds;
  const int changes = shop_.plan->bit_changes() - shop_.plan->own_bit_changes;
  QString words =
      more > 1    ? tr("Your order takes %1 longer than Doyen's").arg(QString::fromStdString(format_duration(more)))
      : more < -1 ? tr("Your order takes %1 less than Doyen's").arg(QString::fromStdString(format_duration(-more)))
                  : tr("Your order takes as long as Doyen's");
  if (changes > 0)
    words += changes == 1 ? tr(", with one more bit change") : tr(", with %1 more bit changes").arg(changes);
  words += QLatin1Char('.');
  // Where a turn comes before one that was wished earlier, something had to wait for a floor or for its piece's own
  // order.
  std::size_t latest = 0;
  for (const BitRun& run : shop_.plan->runs) {
    for (const Operation* op : run.operations) {
      const auto at = std::find(job.run.order.begin(), job.run.order.end(), turn_of(*op));
      if (at == job.run.order.end()) continue;
      const auto place = static_cast<std::size_t>(at - job.run.order.begin());
      if (place < latest) {
        words += tr(" The %1 comes later than you asked: what it cuts lies on a floor, or in a piece, that another bit "
                    "must do first.")
                     .arg(QString::fromStdString(run.bit.name));
        return order_says_->setText(words);
      }
      latest = std::max(latest, place);
    }
  }
  order_says_->setText(words);
}

void RunTicket::take_order() {
  std::vector<std::string> order;
  for (int i = 0; i < order_->count(); ++i) {
    for (const QString& turn : order_->item(i)->data(Qt::UserRole).toStringList()) {
      if (std::find(order.begin(), order.end(), turn.toStdString()) == order.end()) order.push_back(turn.toStdString());
    }
  }
  shop_.document.edit(tr("change the order of the bits"), [&](Job& job) { job.run.order = order; });
}

bool RunTicket::eventFilter(QObject* object, QEvent* event) {
  if (object == order_ && event->type() == QEvent::KeyPress) {
    const auto* key = static_cast<QKeyEvent*>(event);
    const int row = order_->currentRow(), to = key->key() == Qt::Key_Up ? row - 1 : row + 1;
    const bool moves = (key->modifiers() & Qt::AltModifier) && (key->key() == Qt::Key_Up || key->key() == Qt::Key_Down);
    if (moves && row >= 0 && to >= 0 && to < order_->count()) {
      filling_ = true;
      QListWidgetItem* item = order_->takeItem(row);
      order_->insertItem(to, item);
      order_->setCurrentRow(to);
      filling_ = false;
      take_order();
      return true;
    }
  }
  return Ticket::eventFilter(object, event);
}

void RunTicket::show_written(const QString& words, bool fine, const QString& folder) {
  written_job_ = shop_.document.job();
  written_folder_ = folder;
  written_->setVisible(true);
  opens_->setVisible(!folder.isEmpty());
  if (fine && !folder.isEmpty()) after_->ask();
  written_->setStyleSheet(fine ? QStringLiteral("color: #3E5E40;") : QStringLiteral("color: #9C3B2E;"));
  QString breakable = words;  // a long path may wrap after each of its folders
  written_->setText(breakable.replace(QLatin1Char('/'), QStringLiteral("/\u200B"))
                        .replace(QLatin1Char('-'), QStringLiteral("-\u200B")));
}

}  // namespace doyen
