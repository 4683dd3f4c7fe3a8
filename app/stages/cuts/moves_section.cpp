#include "stages/cuts/moves_section.hpp"

#include <QHBoxLayout>

#include "cutting/proposals.hpp"
#include "parts/flow_layout.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

QDoubleSpinBox* number(double least, double most, const QString& name) {
  auto* box = new QDoubleSpinBox;
  box->setRange(least, most);
  box->setDecimals(0);
  box->setKeyboardTracking(false);
  box->setObjectName(name);
  return box;
}

}  // namespace

MovesSection::MovesSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  build_moves();
  build_feeds();
  column->addWidget(moves_);
  column->addWidget(feeds_);
}

void MovesSection::edit(const QString& name, const std::function<void(Moves&)>& change) {
  if (!filling_) shop_.edit_cuts(name, [&](Item& item) { change(item.cut.moves); });
}

void MovesSection::build_moves() {
  moves_ = new Fold(tr("How the bits move"), QStringLiteral("movesOpen"));
  QVBoxLayout* rows = moves_->body();
  way_ = new QComboBox;
  way_->setObjectName(QStringLiteral("way"));
  way_->addItems({tr("in rings"), tr("in rows along the grain"), tr("in rows across the grain")});
  rows->addWidget(make_row(tr("Floors"), way_));
  entry_ = new QComboBox;
  entry_->setObjectName(QStringLiteral("entry"));
  entry_->addItems({tr("down a ramp"), tr("down a helix")});
  entry_->setToolTip(
      tr("A ramp runs along the way that is cut; a helix needs room, and where there is none it is a ramp"));
  rows->addWidget(make_row(tr("The bit enters"), entry_));
  ramp_ = new QComboBox;
  ramp_->setObjectName(QStringLiteral("ramp"));
  ramp_->setToolTip(
      tr("How steeply it goes down, on a ramp or a helix: long ways spare the bit, short ones save time and room"));
  for (const int along : {30, 20, 10, 5, 3}) ramp_->addItem(tr("1 down in %1 along").arg(along), 1.0 / along);
  rows->addWidget(make_row(tr("It sinks"), ramp_));
  connect(ramp_, &QComboBox::activated, this, [this] {
    edit(tr("sink by %1").arg(ramp_->currentText()), [&](Moves& m) { m.ramp = ramp_->currentData().toDouble(); });
  });
  v_floor_ = new QComboBox;
  v_floor_->setObjectName(QStringLiteral("vFloor"));
  for (const auto& [words, floor] :
       {std::pair(tr("to be painted"), Moves::VFloor::Painted), std::pair(tr("to be oiled"), Moves::VFloor::Oiled),
        std::pair(tr("like a mirror"), Moves::VFloor::Mirror)})
    v_floor_->addItem(words, ridge_height(floor));
  v_floor_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  rows->addWidget(make_row(tr("Floors by the V"), v_floor_));
  connect(v_floor_, &QComboBox::activated, this, [this](int i) {
    edit(tr("leave floors %1").arg(v_floor_->itemText(i)),
         [&](Moves& m) { m.v_floor = static_cast<Moves::VFloor>(i); });
  });
  turn_ = new QComboBox;
  turn_->setObjectName(QStringLiteral("keptWood"));
  turn_->addItems({tr("kept wood on the right"), tr("kept wood on the left")});
  turn_->setToolTip(tr(
      "On the bit's right as it goes, the chip begins thick and the edge comes out cleaner. On its left, it pulls less "
      "on machines with play."));
  rows->addWidget(make_row(tr("Direction round an edge"), turn_));
  step_ = number(5, 95, QStringLiteral("stepover"));
  step_->setSuffix(tr(" % of the bit"));
  rows->addWidget(make_row(tr("Step over"), step_));
  leave_on_ = new LengthField(from_least(0.02, "pieces[].cut.moves.leaveOn"), true);
  leave_on_->setObjectName(QStringLiteral("leaveOn"));
  leave_on_->setPlaceholderText(tr("nothing"));
  leave_on_->setToolTip(tr("Left on upright walls, and taken by one last clean pass at full depth"));
  rows->addWidget(make_row(tr("Left on walls"), leave_on_));
  connect(way_, &QComboBox::activated, this, [this](int i) {
    edit(tr("clear %1").arg(way_->itemText(i)), [&](Moves& m) { m.way = static_cast<Moves::Way>(i); });
  });
  connect(entry_, &QComboBox::activated, this, [this](int i) {
    edit(tr("go in %1").arg(entry_->itemText(i)), [&](Moves& m) { m.entry = static_cast<Moves::Entry>(i); });
  });
  connect(turn_, &QComboBox::activated, this,
          [this](int i) { edit(tr("turn the cutting direction"), [&](Moves& m) { m.climb = i == 0; }); });
  connect(step_, &QDoubleSpinBox::valueChanged, this, [this](double percent) {
    edit(tr("step over %1 %").arg(percent), [&](Moves& m) { m.stepover = percent / 100; });
  });
  connect(leave_on_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change what is left on walls"), [&](Moves& m) { m.leave_on = mm.value_or(0); });
  });
}

void MovesSection::build_feeds() {
  feeds_ = new Fold(tr("How fast they go"), QStringLiteral("feedsOpen"));
  QVBoxLayout* rows = feeds_->body();
  which_ = new QComboBox;
  which_->setObjectName(QStringLiteral("feedsOf"));
  rows->addWidget(make_row(tr("Bit"), which_));
  feed_ = number(1, kMostFeed, QStringLiteral("feed"));
  plunge_ = number(1, kMostFeed, QStringLiteral("plunge"));
  rpm_ = number(100, 100000, QStringLiteral("rpm"));
  rpm_->setSuffix(tr(" turns/min"));
  rpm_->setSingleStep(500);
  pass_ = new LengthField({0.02, 100});
  pass_->setObjectName(QStringLiteral("passDepth"));
  rows->addWidget(make_row(tr("Goes along at"), feed_));
  rows->addWidget(make_row(tr("Goes down at"), plunge_));
  rows->addWidget(make_row(tr("Turns at"), rpm_));
  rows->addWidget(make_row(tr("Each pass takes"), pass_));
  chip_ = make_label({}, "faded");
  chip_->setObjectName(QStringLiteral("chip"));
  rows->addWidget(chip_);
  direction_ = make_label({}, "faded");
  rows->addWidget(direction_);
  auto* holder = new QWidget;
  auto* buttons = new FlowLayout(holder, 6);
  as_rack_ = new QPushButton(tr("Use the rack's figures"));
  as_rack_->setObjectName(QStringLiteral("asRack"));
  as_rack_->setToolTip(tr("This job's own figures are dropped"));
  keep_ = new QPushButton(tr("Save to the rack"));
  keep_->setObjectName(QStringLiteral("keepInRack"));
  keep_->setToolTip(tr("These figures become the bit's for this class of wood, in every job"));
  buttons->addWidget(as_rack_);
  buttons->addWidget(keep_);
  rows->addWidget(holder);
  connect(which_, &QComboBox::activated, this, [this] {
    if (const Item* item = shop_.item()) refresh(*item, shop_.piece_plan());
  });
  const auto scale = [this] { return shop_.document.job().lengths.unit == Unit::Inch ? kMmPerInch : 1.0; };
  connect(feed_, &QDoubleSpinBox::valueChanged, this, [this, scale](double v) {
    edit_feeds(tr("change the feed in this job"), [&](Feeds& f) { f.feed = v * scale(); });
  });
  connect(plunge_, &QDoubleSpinBox::valueChanged, this, [this, scale](double v) {
    edit_feeds(tr("change the plunge in this job"), [&](Feeds& f) { f.plunge = v * scale(); });
  });
  connect(rpm_, &QDoubleSpinBox::valueChanged, this,
          [this](double v) { edit_feeds(tr("change the spindle speed in this job"), [&](Feeds& f) { f.rpm = v; }); });
  connect(pass_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit_feeds(tr("change the depth a pass in this job"), [&](Feeds& f) { f.depth_per_pass = *mm; });
  });
  connect(as_rack_, &QPushButton::clicked, this, [this] {
    const std::string id = which_->currentData().toString().toStdString();
    shop_.document.edit(tr("take the rack's feeds"), [&](Job& job) { job.run.feeds.erase(id); });
  });
  connect(keep_, &QPushButton::clicked, this, [this] {
    const Bit* b = bit();
    if (b == nullptr) return;
    const Feeds feeds =
        rack_for(shop_.document.job(), shop_.rack).find(b->id)->feeds_in(wood_class_of(shop_.document.job().blank));
    const std::string id = b->id;
    Q_EMIT rack_wanted(QString::fromStdString(id), feeds);
    shop_.document.edit(tr("take the rack's feeds"), [&](Job& job) { job.run.feeds.erase(id); });
  });
}

const Bit* MovesSection::bit() const { return shop_.rack.find(which_->currentData().toString().toStdString()); }

void MovesSection::edit_feeds(const QString& name, const std::function<void(Feeds&)>& change) {
  const Bit* b = bit();
  if (filling_ || b == nullptr) return;
  const std::string wood = wood_class_of(shop_.document.job().blank);
  Feeds feeds = rack_for(shop_.document.job(), shop_.rack).find(b->id)->feeds_in(wood);
  if (feeds.depth_per_pass <= 0) feeds.depth_per_pass = b->depth_per_pass(wood);
  const auto known = [](double v, double otherwise) { return v > 0 ? v : otherwise; };
  feeds = {known(feeds.feed, 1000), known(feeds.plunge, 300), known(feeds.rpm, 16000), feeds.depth_per_pass};
  change(feeds);
  const std::string id = b->id;
  shop_.document.edit(
      name, [&](Job& job) { job.run.feeds[id] = feeds; }, QStringLiteral("feeds-%1").arg(name));
}

// One that a file says and the list does not have stands there, too, as it is.
void MovesSection::show_ramp(double slope) {
  for (int i = ramp_->count() - 1; i >= 0; --i) {
    if (ramp_->itemData(i, Qt::UserRole + 1).toBool()) ramp_->removeItem(i);
  }
  for (int i = 0; i < ramp_->count(); ++i) {
    if (std::abs(ramp_->itemData(i).toDouble() - slope) < 1e-3) return ramp_->setCurrentIndex(i);
  }
  ramp_->addItem(tr("1 down in %1 along").arg(QString::fromStdString(format_number(1 / slope, 1))), slope);
  ramp_->setItemData(ramp_->count() - 1, true, Qt::UserRole + 1);
  ramp_->setCurrentIndex(ramp_->count() - 1);
}

void MovesSection::refresh(const Item& item, const PiecePlan* piece) {
  filling_ = true;
  const Treatment& t = item.cut;
  const Moves& m = t.moves;
  const bool floor = clears_floor(t), through = goes_through(t.kind);
  way_->setCurrentIndex(static_cast<int>(m.way));
  entry_->setCurrentIndex(static_cast<int>(m.entry));
  show_ramp(m.ramp);
  v_floor_->setCurrentIndex(static_cast<int>(m.v_floor));
  v_floor_->setToolTip(
      tr("Where only the V's tip reaches a flat floor it leaves ridges, here up to %1 high. Finer ones take "
         "more rows, and longer.")
          .arg(shop_.show(ridge_height(m.v_floor))));
  turn_->setCurrentIndex(m.climb ? 0 : 1);
  step_->setValue(std::round(m.stepover * 100));
  leave_on_->show_length(m.leave_on > 0 ? std::optional(m.leave_on) : std::nullopt, shop_.document.job().lengths);
  show_row(way_, floor);
  show_row(entry_, floor || t.kind == Treatment::Kind::Pierce);
  show_row(ramp_, floor || through);
  show_row(v_floor_, floor && wanted_bit(t) == WantedBit::V);
  show_row(step_, floor || t.kind == Treatment::Kind::Pierce);
  show_row(leave_on_, upright_walls(t) || through);
  moves_->setVisible(floor || through);
  moves_->set_summary(floor ? way_->currentText() : turn_->currentText());
  refresh_feeds(item, piece);
  filling_ = false;
}

void MovesSection::refresh_feeds(const Item& item, const PiecePlan* piece) {
  const QString before = which_->currentData().toString();
  which_->clear();
  QStringList ids;
  if (piece != nullptr) {
    for (const Operation& op : piece->cuts.operations) {
      const QString id = QString::fromStdString(op.bit);
      const Bit* b = shop_.rack.find(op.bit);
      if (b == nullptr || ids.contains(id)) continue;
      ids << id;
      which_->addItem(QString::fromStdString(b->name), id);
    }
  }
  which_->setCurrentIndex(std::max(0, which_->findData(before)));
  const Bit* b = bit();
  feeds_->setVisible(b != nullptr);
  if (b == nullptr) return;
  const Job& job = shop_.document.job();
  const std::string wood = wood_class_of(job.blank);
  const Rack own = rack_for(job, shop_.rack);
  const Bit& used = *own.find(b->id);
  const Feeds feeds = used.feeds_in(wood);
  const bool inch = job.lengths.unit == Unit::Inch;
  const double k = inch ? kMmPerInch : 1;
  for (QDoubleSpinBox* box : {feed_, plunge_}) {
    box->setSuffix(inch ? tr(" in/min") : tr(" mm/min"));
    box->setSingleStep(inch ? 5 : 100);
    box->setMaximum(std::floor(kMostFeed / k));
  }
  feed_->setValue(feeds.feed / k);
  plunge_->setValue(feeds.plunge / k);
  rpm_->setValue(feeds.rpm);
  pass_->show_length(used.depth_per_pass(wood), job.lengths);
  const bool changed = job.run.feeds.contains(b->id);
  feeds_->set_summary(changed ? tr("this job's own") : tr("as in the rack"));
  as_rack_->setEnabled(changed);
  keep_->setEnabled(changed);
  const ChipBounds bounds = chip_bounds(used, wood);
  const auto show = [&](double mm) {
    return QString::fromStdString(inch ? format_number(mm / kMmPerInch, 4) : format_number(mm, 3));
  };
  QString words = tr("Takes a chip of %1 %2 per tooth; %3 to %4 is usual in %5.")
                      .arg(show(chip_load(used, feeds)), inch ? tr("in") : tr("mm"), show(bounds.least),
                           show(bounds.most), QString::fromStdString(class_in_words(job.blank)));
  double share = 1;
  for (const Operation& op : piece->cuts.operations) {
    if (op.bit != b->id || op.feed_share >= share) continue;
    share = op.feed_share;
    words += tr(" Here it goes at %1 % of this feed: %2.")
                 .arg(share * 100, 0, 'f', 0)
                 .arg(QString::fromStdString(say(op.slowed)));
  }
  words += changed ? tr(" This job's own figures.") : tr(" The rack's figures.");
  chip_->setText(words);
  direction_->setVisible(b->kind == BitKind::Flat);
  if (b->kind != BitKind::Flat) return;
  const Treatment& t = item.cut;
  const DirectionAdvice advice = goes_through(t.kind)
                                     ? direction_for_through(wood)
                                     : direction_for_floor(floor_depth(t), b->true_diameter(), upright_walls(t));
  const bool same = b->direction == advice.best;
  direction_->setText(same ? tr("Flutes: %1.").arg(QString::fromStdString(advice.why))
                           : tr("Flutes: %1. This bit is %2.")
                                 .arg(QString::fromStdString(advice.why), QLatin1String(to_word(b->direction))));
}

}  // namespace doyen
