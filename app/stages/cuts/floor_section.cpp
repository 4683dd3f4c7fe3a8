#include "stages/cuts/floor_section.hpp"

#include "stages/cuts/look_tiles.hpp"
#include "stock/species.hpp"

namespace doyen {
namespace {

QWidget* holder_with_column(QVBoxLayout*& column) {
  auto* holder = new QWidget;
  column = new QVBoxLayout(holder);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  return holder;
}

}  // namespace

FloorSection::FloorSection(Workshop& shop) : LookSection(shop) {
  QVBoxLayout* column = column_;
  about_ = make_label({}, "faded");
  column->addWidget(about_);
  build_choices(column);
  build_insert(column);
  add_bit_rows();
  column->addWidget(make_line());
  deep_ = new NumberCard(tr("Goes down to"));
  floor_ = new NumberCard(tr("Cleared with"));
  reach_ = make_label({}, "faded");
  column->addWidget(deep_);
  column->addWidget(floor_);
  column->addWidget(reach_);
}

void FloorSection::build_choices(QVBoxLayout* column) {
  depth_ = new LengthField(from_least(0.02, "pieces[].cut.depth"));
  depth_->setObjectName(QStringLiteral("floorDepth"));
  column->addWidget(make_row(tr("Depth"), depth_));
  flanks_ = new QComboBox;
  flanks_->setObjectName(QStringLiteral("flanks"));
  flanks_->addItems({tr("sloped, by a V"), tr("upright")});
  column->addWidget(make_row(tr("Flanks"), flanks_));
  side_ = new QComboBox;
  side_->setObjectName(QStringLiteral("bevelSide"));
  side_->addItems({tr("outwards, round a piece"), tr("inwards, round a floor")});
  column->addWidget(make_row(tr("Slopes"), side_));
  bit_ = new BitBox(shop_);
  bit_->setObjectName(QStringLiteral("floorBit"));
  column->addWidget(make_row(tr("Bit"), bit_));
  panel_ = new QComboBox;
  panel_->setObjectName(QStringLiteral("panel"));
  panel_->setToolTip(tr("How far the ground round it is sunk"));
  column->addWidget(make_row(tr("Lower the ground"), panel_));
  margin_ = new LengthField(range_of("pieces[].cut.panelMargin"));
  margin_->setObjectName(QStringLiteral("panelMargin"));
  column->addWidget(make_row(tr("Margin"), margin_));
  steps_ = new QSpinBox;
  set_range(steps_, "pieces[].cut.steps");
  steps_->setKeyboardTracking(false);
  steps_->setObjectName(QStringLiteral("steps"));
  steps_->setToolTip(tr("How many even steps lead down to the ground"));
  column->addWidget(make_row(tr("Steps down"), steps_));
  terrace_ = new LengthField(range_of("pieces[].cut.terrace"));
  terrace_->setObjectName(QStringLiteral("terrace"));
  column->addWidget(make_row(tr("Each flat"), terrace_));
  slot_ = new LengthField(range_of("pieces[].cut.slotLength"));
  slot_->setObjectName(QStringLiteral("slotLength"));
  slot_->setToolTip(tr("How far the screw's head slides from its hole"));
  column->addWidget(make_row(tr("Slot length"), slot_));
  connect(steps_, &QSpinBox::valueChanged, this, [this](int n) {
    edit(n == 1 ? tr("one step down") : tr("%1 steps down").arg(n), [&](Treatment& t) { t.raise.steps = n; });
  });
  connect(terrace_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change the steps' width"), [&](Treatment& t) { t.raise.terrace = *mm; });
  });
  connect(slot_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change the slot's length"), [&](Treatment& t) { t.slot.length = *mm; });
  });
  peck_ = new LengthField(from_least(0.1, "pieces[].cut.drillStep"), true);
  peck_->setPlaceholderText(tr("as the bit allows"));
  column->addWidget(make_row(tr("Drill in steps of"), peck_));
  spacing_ = new LengthField(from_least(0.5, "pieces[].cut.spacing"), true);
  spacing_->setPlaceholderText(tr("one in each middle"));
  spacing_->setObjectName(QStringLiteral("holeSpacing"));
  column->addWidget(make_row(tr("Along the line"), spacing_));
  connect(depth_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("make it %1 deep").arg(shop_.show(*mm)), [&](Treatment& t) { t.depth = *mm; });
  });
  connect(flanks_, &QComboBox::activated, this, [this](int i) {
    edit(i == 0 ? tr("slope the flanks") : tr("make the flanks upright"),
         [&](Treatment& t) { t.raise.sloped = i == 0; });
  });
  connect(side_, &QComboBox::activated, this,
          [this](int i) { edit(tr("turn the bevel"), [&](Treatment& t) { t.bevel.inside = i == 1; }); });
  connect_bits(bit_);
  connect(panel_, &QComboBox::activated, this, [this] {
    edit(tr("choose how far it is sunk"),
         [&](Treatment& t) { t.raise.panel = panel_->currentData().toString().toStdString(); });
  });
  connect(margin_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change the margin round it"), [&](Treatment& t) { t.margin = *mm; });
  });
  connect(peck_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change the drilling steps"), [&](Treatment& t) { t.drill.peck = mm.value_or(0); });
  });
  screws_ = new QCheckBox(tr("For screws that hold the board"));
  screws_->setObjectName(QStringLiteral("holdingScrews"));
  screws_->setToolTip(
      tr("Drilled before anything else, in a file of its own; then the screws go in, and every other cut "
         "and travel keeps clear of their heads, as large as the outline is here"));
  column->addWidget(screws_);
  connect(screws_, &QCheckBox::clicked, this, [this](bool on) {
    edit(on ? tr("drill it for a screw that holds the board") : tr("make it a hole like others"),
         [&](Treatment& t) { t.drill.screws = on; });
  });
  witness_ = new QCheckBox(tr("The mark that later bits are held over"));
  witness_->setObjectName(QStringLiteral("witness"));
  witness_->setToolTip(
      tr("Made before all else: each later bit is held over it with the spindle still, and where its "
         "tip does not meet the mark, x and y were lost"));
  column->addWidget(witness_);
  connect(witness_, &QCheckBox::clicked, this, [this](bool on) {
    edit(on ? tr("make it the witness mark") : tr("make it a hole like others"),
         [&](Treatment& t) { t.drill.witness = on; });
  });
  connect(spacing_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("space the holes"), [&](Treatment& t) { t.drill.spacing = mm.value_or(0); });
  });
}

void FloorSection::build_insert(QVBoxLayout* column) {
  thickness_ = new LengthField(from_least(0.05, "pieces[].cut.insert.thickness"), true);
  thickness_->setObjectName(QStringLiteral("insertThickness"));
  thickness_->setPlaceholderText(tr("nothing let in"));
  thickness_->setToolTip(tr("A coin, acrylic, hardware: its thickness makes the depth"));
  column->addWidget(make_row(tr("Insert, thick"), thickness_));
  QVBoxLayout* rows = nullptr;
  insert_ = holder_with_column(rows);
  clearance_ = new LengthField(range_of("pieces[].cut.insert.clearance"));
  cover_ = new LengthField(range_of("pieces[].cut.insert.cover"));
  notch_ = new LengthField(range_of("pieces[].cut.insert.notch"), true);
  notch_->setPlaceholderText(tr("none"));
  corners_ = new QComboBox;
  corners_->addItems({tr("as the bit leaves them"), tr("eased by round holes"), tr("eased by slots")});
  rows->addWidget(make_row(tr("Room all round"), clearance_));
  rows->addWidget(make_row(tr("Insert lies below the face by"), cover_));
  rows->addWidget(make_row(tr("Finger notch"), notch_));
  rows->addWidget(make_row(tr("Corners"), corners_));
  sheet_ = new QComboBox;
  sheet_->setObjectName(QStringLiteral("insertSheet"));
  sheet_->addItem(tr("bought or found"), QString());
  for (const Species& s : species_table().species)
    sheet_->addItem(tr("cut from %1").arg(QString::fromStdString(s.name)), QString::fromStdString(s.id));
  sheet_->setToolTip(tr("What is cut for it gets a sheet, files and a run sheet of its own"));
  rows->addWidget(make_row(tr("The insert"), sheet_));
  connect(sheet_, &QComboBox::activated, this, [this](int i) {
    edit(i == 0 ? tr("do not cut the insert") : tr("cut the insert, too"), [&](Treatment& t) {
      t.insert.cut = i > 0;
      if (i > 0) t.insert.material = sheet_->currentData().toString().toStdString();
    });
  });
  column->addWidget(insert_);
  connect(thickness_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("let something in"), [&](Treatment& t) { t.insert.thickness = mm.value_or(0); });
  });
  const auto field = [this](LengthField* f, const QString& name, double Insert::*member) {
    connect(f, &LengthField::entered, this, [this, name, member](std::optional<double> mm) {
      edit(name, [&](Treatment& t) { t.insert.*member = mm.value_or(0); });
    });
  };
  field(clearance_, tr("change the room round the insert"), &Insert::clearance);
  field(cover_, tr("change what is left above the insert"), &Insert::cover);
  field(notch_, tr("change the finger notch"), &Insert::notch);
  connect(corners_, &QComboBox::activated, this, [this](int i) {
    edit(tr("ease the corners"), [&](Treatment& t) { t.insert.corners = static_cast<Insert::Corners>(i); });
  });
}

void FloorSection::open_sums(bool open) { deep_->set_open(open); }

void FloorSection::refresh(const Item& item, const PiecePlan* piece) {
  using Kind = Treatment::Kind;
  filling_ = true;
  const Treatment& t = item.cut;
  const Job& job = shop_.document.job();
  about_->setText(LookTiles::about(t.kind));
  depth_->show_length(t.depth, job.lengths);
  const bool insert = t.kind == Kind::Recess && t.insert.thickness > 0;
  show_row(depth_, !insert);
  flanks_->setCurrentIndex(t.raise.sloped ? 0 : 1);
  show_row(flanks_, t.kind == Kind::Raise);
  side_->setCurrentIndex(t.bevel.inside ? 1 : 0);
  show_row(side_, t.kind == Kind::Bevel);
  const WantedBit wanted = wanted_bit(t);
  bit_->refresh(wanted == WantedBit::V         ? std::optional(BitKind::V)
                : wanted == WantedBit::Keyhole ? std::optional(BitKind::Keyhole)
                                               : std::nullopt,
                item, piece);
  show_row(bit_, wanted != WantedBit::None);
  panel_->clear();
  panel_->addItem(tr("by a margin round it"), QString());
  for (const Item& other : job.items) {
    if (other.piece.id != item.piece.id)
      panel_->addItem(tr("up to “%1”").arg(QString::fromStdString(other.piece.name)),
                      QString::fromStdString(other.piece.id));
  }
  panel_->setCurrentIndex(std::max(0, panel_->findData(QString::fromStdString(t.raise.panel))));
  show_row(panel_, t.kind == Kind::Raise);
  margin_->show_length(t.margin, job.lengths);
  show_row(margin_, t.kind == Kind::Raise && t.raise.panel.empty());
  steps_->setValue(t.raise.steps);
  show_row(steps_, t.kind == Kind::Raise);
  terrace_->show_length(t.raise.terrace, job.lengths);
  show_row(terrace_, t.kind == Kind::Raise && t.raise.steps > 1);
  slot_->show_length(t.slot.length, job.lengths);
  show_row(slot_, t.kind == Kind::HangerSlot && (piece == nullptr || !piece->outlines.region.empty()));
  peck_->show_length(t.drill.peck > 0 ? std::optional(t.drill.peck) : std::nullopt, job.lengths);
  spacing_->show_length(t.drill.spacing > 0 ? std::optional(t.drill.spacing) : std::nullopt, job.lengths);
  show_row(peck_, t.kind == Kind::Drill);
  show_row(spacing_, t.kind == Kind::Drill);
  screws_->setChecked(t.drill.screws);
  witness_->setChecked(t.drill.witness);
  screws_->setVisible(t.kind == Kind::Drill);
  witness_->setVisible(t.kind == Kind::Drill);
  thickness_->show_length(insert ? std::optional(t.insert.thickness) : std::nullopt, job.lengths);
  show_row(thickness_, t.kind == Kind::Recess);
  insert_->setVisible(insert);
  clearance_->show_length(t.insert.clearance, job.lengths);
  cover_->show_length(t.insert.cover, job.lengths);
  notch_->show_length(t.insert.notch > 0 ? std::optional(t.insert.notch) : std::nullopt, job.lengths);
  corners_->setCurrentIndex(static_cast<int>(t.insert.corners));
  sheet_->setCurrentIndex(t.insert.cut ? std::max(0, sheet_->findData(QString::fromStdString(t.insert.material))) : 0);
  // What is sunk together with another piece is cleared by that one's bits.
  clearing_->setVisible(clears_floor(t) && (piece == nullptr || piece->around.with.empty()));
  refresh_bit_rows(item, piece);
  const bool known = piece != nullptr && piece->problem.empty() && !piece->cuts.operations.empty();
  deep_->setVisible(known);
  floor_->setVisible(known && !piece->cuts.bits.empty());
  reach_->setVisible(piece != nullptr && (known || !piece->around.with.empty()));
  if (known) {
    deep_->show_number(shop_.show(piece->cuts.deepest), t.back ? tr("below the back") : tr("below the face"),
                       [plan = shop_.plan, id = item.piece.id] { return floor_depth_sum(*plan, id); });
    QStringList names;
    for (const std::string& id : piece->cuts.bits) {
      const Bit* bit = shop_.rack.find(id);
      names << (bit == nullptr ? QString::fromStdString(id) : QString::fromStdString(bit->name));
    }
    floor_->show_number(names.join(QStringLiteral(", ")), t.clearing.empty() ? tr("proposed") : tr("as you chose"),
                        [plan = shop_.plan, id = item.piece.id] { return clearing_sum(*plan, id); });
    const auto count = static_cast<int>(piece->cuts.holes.size());
    const bool slots = t.kind == Kind::HangerSlot;
    reach_->setText(count > 0 ? (slots ? (count == 1 ? tr("One slot.") : tr("%1 slots.").arg(count))
                                       : (count == 1 ? tr("One hole.") : tr("%1 holes.").arg(count)))
                    : piece->cuts.unreached.area < 0.005
                        ? tr("All of it is reached.")
                        : tr("%1 stay unreached, marked on the board.")
                              .arg(QString::fromStdString(format_area(piece->cuts.unreached.area, job.lengths))));
  } else if (piece != nullptr && !piece->around.with.empty()) {
    const Item* with = job.find(piece->around.with);
    reach_->setText(tr("The ground is sunk together with “%1”, of the same panel.")
                        .arg(with == nullptr ? QString() : QString::fromStdString(with->piece.name)));
  }
  filling_ = false;
}

}  // namespace doyen
