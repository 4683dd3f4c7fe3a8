#include "stages/cuts/incise_section.hpp"
#include "treatments/incise/incise_sums.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {

InciseSection::InciseSection(Workshop& shop) : LookSection(shop) {
  v_bit_ = new BitBox(shop_);
  v_bit_->setObjectName(QStringLiteral("vBit"));
  column_->addWidget(make_row(tr("V bit"), v_bit_));
  limit_ = new LengthField(range_of("pieces[].cut.floorLimit"), true);
  limit_->setObjectName(QStringLiteral("limit"));
  limit_->setPlaceholderText(tr("none: full depth"));
  limit_->setToolTip(
      tr("Wide strokes end in a flat floor at this depth; leave empty to let every stroke go as deep as it is wide"));
  column_->addWidget(make_row(tr("Floor limit"), limit_));
  add_bit_rows();
  depth_ = new NumberCard(tr("Goes down to"));
  floor_ = new NumberCard(tr("Flat floors"));
  letters_ = make_label({}, "faded");
  column_->addWidget(make_line());
  column_->addWidget(depth_);
  angles_ = new NumberCard(tr("Other V bits"));
  column_->addWidget(angles_);
  limits_ = new NumberCard(tr("Other floor limits"));
  column_->addWidget(limits_);
  column_->addWidget(floor_);
  column_->addWidget(letters_);
  connect_bits(v_bit_);
  connect(limit_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(mm ? tr("set a floor limit of %1").arg(shop_.show(*mm)) : tr("let it go to full depth"),
         [&](Treatment& t) { t.incise.floor_limit = mm; });
  });
}

void InciseSection::refresh(const Item& item, const PiecePlan* piece) {
  v_bit_->refresh(BitKind::V, item, piece);
  limit_->show_length(item.cut.incise.floor_limit, shop_.document.job().lengths);
  clearing_->setVisible(item.cut.incise.floor_limit.has_value());
  refresh_bit_rows(item, piece);
  const bool known = piece != nullptr && piece->cuts.groove.has_value();
  depth_->setVisible(known);
  angles_->setVisible(known);
  limits_->setVisible(known);
  floor_->setVisible(known && std::isfinite(piece->cuts.limit));
  letters_->setVisible(known);
  if (!known) return;
  const PieceCuts& cuts = piece->cuts;
  const std::string letter = letter_at(piece->outlines, cuts.deepest_at);
  depth_->show_number(shop_.show(cuts.deepest),
                      letter.empty() ? QString() : tr("in %1").arg(QString::fromStdString(letter)),
                      [plan = shop_.plan, id = item.piece.id] { return depth_sum(*plan, id); });
  show_angles(item);
  limits_->show_number(tr("Compare times and flats"), {},
                       [plan = shop_.plan, rack = shop_.rack, id = item.piece.id](
                           const Cancel& cancel, const std::function<void(Sum)>& tell) {
                         tell(limit_table_sum(*plan, rack, id, cancel));
                       });
  QStringList flats;
  for (const std::string& l : letters_with_floor(*piece)) flats << QString::fromStdString(l);
  const double width = 2 * cuts.groove->shape.limit_radius();
  floor_->show_number(tr("over %1").arg(shop_.show(width)), tr("wide strokes"),
                      [plan = shop_.plan, id = item.piece.id] { return floor_sum(*plan, id); });
  QString words = tr("Strokes %1 to %2 wide.")
                      .arg(shop_.show(cuts.groove->narrowest_stroke()), shop_.show(cuts.groove->widest_stroke()));
  if (std::isfinite(cuts.limit)) {
    words +=
        QLatin1Char(' ') + (flats.isEmpty() ? (cuts.floor.empty() ? tr("No stroke is wide enough for a flat floor.")
                                                                  : tr("Part of it ends in a flat floor."))
                                            : tr("Flat floors in %1.").arg(flats.join(QStringLiteral(", "))));
  }
  letters_->setText(words);
}

void InciseSection::show_angles(const Item& item) {
  const std::vector<Bit>& bits = shop_.rack.bits;
  const auto count = std::count_if(bits.begin(), bits.end(), [](const Bit& b) { return b.kind == BitKind::V; });
  // The depths are known at once; the times need a plan by each bit.
  angles_->show_number(tr("Compare the %1 V bits").arg(count), {},
                       [plan = shop_.plan, rack = shop_.rack, id = item.piece.id](
                           const Cancel& cancel, const std::function<void(Sum)>& tell) {
                         tell(v_table_sum(*plan, rack, id, nullptr));
                         const VSeconds seconds = v_seconds(*plan, rack, id, cancel);
                         tell(v_table_sum(*plan, rack, id, &seconds));
                       });
}

}  // namespace doyen
