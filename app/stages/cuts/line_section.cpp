#include "stages/cuts/line_section.hpp"

#include "stages/cuts/look_tiles.hpp"

namespace doyen {

LineSection::LineSection(Workshop& shop) : LookSection(shop) {
  line_bit_ = new BitBox(shop_);
  line_bit_->setObjectName(QStringLiteral("lineBit"));
  line_depth_ = new LengthField(from_least(0.01, "pieces[].cut.depth"));
  line_depth_->setObjectName(QStringLiteral("lineDepth"));
  column_->addWidget(make_label(LookTiles::about(Treatment::Kind::Line), "faded"));
  column_->addWidget(make_row(tr("Bit"), line_bit_));
  column_->addWidget(make_row(tr("Depth"), line_depth_));
  hatch_ = new LengthField(from_least(0.02, "pieces[].cut.hatch"), true);
  hatch_->setObjectName(QStringLiteral("hatch"));
  hatch_->setPlaceholderText(tr("not filled"));
  hatch_->setToolTip(tr("Fills the inside with lines so far apart"));
  column_->addWidget(make_row(tr("Filled, every"), hatch_));
  hatch_angle_ = new QDoubleSpinBox;
  set_range(hatch_angle_, "pieces[].cut.hatchAngle");
  hatch_angle_->setDecimals(1);
  hatch_angle_->setSuffix(QStringLiteral("°"));
  hatch_angle_->setKeyboardTracking(false);
  hatch_angle_->setObjectName(QStringLiteral("hatchAngle"));
  column_->addWidget(make_row(tr("Lines at"), hatch_angle_));
  connect(hatch_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(mm ? tr("fill it with lines every %1").arg(shop_.show(*mm)) : tr("follow the outline only"),
         [&](Treatment& t) { t.line.hatch = mm.value_or(0); });
  });
  connect(hatch_angle_, &QDoubleSpinBox::valueChanged, this,
          [this](double degrees) { edit(tr("turn the lines"), [&](Treatment& t) { t.line.hatch_angle = degrees; }); });
  line_wide_ = make_label({}, "faded");
  column_->addWidget(line_wide_);
  connect_bits(line_bit_);
  connect(line_depth_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("follow the line %1 deep").arg(shop_.show(*mm)), [&](Treatment& t) { t.depth = *mm; });
  });
}

// How wide a line the bit leaves at its depth, which is what the eye sees.
void LineSection::refresh(const Item& item, const PiecePlan* piece) {
  filling_ = true;
  line_bit_->refresh(std::nullopt, item, piece);
  line_depth_->show_length(item.cut.depth, shop_.document.job().lengths);
  hatch_->show_length(item.cut.line.hatch > 0 ? std::optional(item.cut.line.hatch) : std::nullopt,
                      shop_.document.job().lengths);
  hatch_angle_->setValue(item.cut.line.hatch_angle);
  const bool inside = piece != nullptr && !piece->outlines.region.empty();
  hatch_->parentWidget()->setVisible(inside);
  hatch_angle_->parentWidget()->setVisible(inside && item.cut.line.hatch > 0);
  filling_ = false;
  const Bit* bit = shop_.rack.find(item.cut.bit);
  if (bit == nullptr) return line_wide_->setText({});
  double low = 0, high = bit->true_diameter() / 2;
  for (int i = 0; i < 50; ++i) {
    const double middle = (low + high) / 2;
    (bit->profile(middle) <= item.cut.depth ? low : high) = middle;
  }
  line_wide_->setText(tr("Leaves a line %1 wide at the face.").arg(shop_.show(2 * low)));
}

}  // namespace doyen
