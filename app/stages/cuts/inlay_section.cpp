#include "stages/cuts/inlay_section.hpp"

#include "cutting/groove.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "treatments/inlay/figures.hpp"
#include "treatments/start.hpp"
#include "treatments/suits.hpp"

namespace doyen {
namespace {

// How deep the pocket really is: a stroke that closes before the depth asked for has no floor there.
double floor_of_pocket(const Workshop& shop, const Item& item) {
  const Bit* v = shop.rack.find(item.cut.bit);
  if (!item.cut.inlay.sloped || v == nullptr || v->kind != BitKind::V) return item.cut.depth;
  const double closes =
      std::max(0.0, InlaySection::widest_stroke(shop, item.piece.id, *v) - v->tip) / 2 / v->tan_half();
  return closes > 0 ? std::min(item.cut.depth, closes) : item.cut.depth;
}

}  // namespace

double InlaySection::widest_stroke(const Workshop& shop, const std::string& piece, const Bit& v) {
  const PiecePlan* planned = shop.plan ? shop.plan->piece(piece) : nullptr;
  if (planned == nullptr || !planned->problem.empty()) return 0;
  if (planned->cuts.groove) return planned->cuts.groove->widest_stroke();
  return widest_stroke_of(planned->outlines.region, v);
}

InlaySection::InlaySection(Workshop& shop) : LookSection(shop) {
  QVBoxLayout* column = column_;
  about_ = make_label(tr("A pocket here, its plug on its own board."), "faded");
  column->addWidget(about_);
  rung_ = make_label({}, "plain");
  rung_->setObjectName(QStringLiteral("rung"));
  column->addWidget(rung_);
  keep_ = new QPushButton;
  keep_->setObjectName(QStringLiteral("keepRung"));
  column->addWidget(keep_, 0, Qt::AlignLeft);
  build_fields(column);
  connect_fields();
  column->addWidget(make_line());
  gaps_ = new NumberCard(tr("Glue gap"));
  column->addWidget(gaps_);
  moved_ = make_label({}, "faded");
  moved_->setObjectName(QStringLiteral("moved"));
  column->addWidget(moved_);
  start_ = new QPushButton(tr("Figures from the strokes"));
  start_->setObjectName(QStringLiteral("startFigures"));
  column->addWidget(start_, 0, Qt::AlignLeft);
  prove_ = new QPushButton(tr("See how it closes"));
  prove_->setObjectName(QStringLiteral("proveFit"));
  prove_->setToolTip(tr("Both halves, carved in the computer from their files and put together, under Proof"));
  column->addWidget(prove_, 0, Qt::AlignLeft);
  connect(start_, &QPushButton::clicked, this, [this] {
    const std::string id = shop_.selected.toStdString();
    edit(tr("take the figures from the strokes"), [&](Treatment& t) {
      const Job& job = shop_.document.job();
      start_inlay(t, {job.blank, job.lengths, shop_.rack, [&](const Bit& v) { return widest_stroke(shop_, id, v); }});
    });
  });
  connect(prove_, &QPushButton::clicked, this, &InlaySection::proof_wanted);
  connect(keep_, &QPushButton::clicked, this, [this] {
    if (const Item* item = shop_.item()) Q_EMIT answer_wanted(item->cut);
  });
}

// Every edit of the joint says what else it moved.
void InlaySection::edit(const QString& name, const std::function<void(Treatment&)>& change) {
  if (filling_) return;
  const Item* item = shop_.item();
  if (item == nullptr) return;
  Treatment after = item->cut;
  change(after);
  const Bit* v = shop_.rack.find(after.bit);
  QStringList lines;
  for (const std::string& line : what_moved(item->cut, after, v, shop_.document.job().lengths))
    lines << QString::fromStdString(line);
  moved_->setText(lines.isEmpty() ? QString() : tr("That moved: ") + lines.join(QStringLiteral("; ")));
  moved_piece_ = shop_.selected;
  shop_.edit_item(name, [&](Item& it) { change(it.cut); });
}

void InlaySection::build_fields(QVBoxLayout* column) {
  flanks_ = new QComboBox;
  flanks_->setObjectName(QStringLiteral("inlayFlanks"));
  flanks_->addItems({tr("sloped, by one V"), tr("upright")});
  flanks_->setToolTip(
      tr("Sloped flanks close as they are pressed and forgive a little; upright ones need an exact machine "
         "and corners as round as the bit"));
  column->addWidget(make_row(tr("Flanks"), flanks_));
  bit_ = new BitBox(shop_);
  bit_->setObjectName(QStringLiteral("inlayBit"));
  bit_->setToolTip(tr("The same bit cuts both halves: another angle would not close"));
  column->addWidget(make_row(tr("V, for both"), bit_));
  v_alone_ = new QCheckBox(tr("The V alone clears the floors"));
  v_alone_->setObjectName(QStringLiteral("inlayVAlone"));
  v_alone_->setToolTip(tr("One bit for all of it, and no change; wide floors take far longer"));
  column->addWidget(v_alone_);
  add_bit_rows();
  clearing_->setObjectName(QStringLiteral("inlayFloors"));
  QVBoxLayout* rows = column;
  const auto field = [&](LengthField*& f, const QString& label, const char* name, Range range) {
    f = new LengthField(range);
    f->setObjectName(QLatin1String(name));
    rows->addWidget(make_row(label, f));
  };
  field(pocket_, tr("Pocket depth"), "pocketDepth", from_least(0.1, "pieces[].cut.depth"));
  field(contact_, tr("Plug goes in by"), "contact", range_of("pieces[].cut.inlay.contact"));
  contact_->setToolTip(
      tr("How far below the face the plug's outline comes to lie; less than the pocket, or it bottoms out"));
  field(allowance_, tr("Room a side"), "allowance", range_of("pieces[].cut.inlay.allowance"));
  field(ease_, tr("Corners eased"), "ease", range_of("pieces[].cut.inlay.ease"));
  ease_->setToolTip(tr("Both halves' corners are rounded by this radius"));
  plug_ = new Fold(tr("The plug's board"), QStringLiteral("plugOpen"));
  rows = plug_->body();
  field(saw_, tr("Space for the saw"), "sawGap", range_of("pieces[].cut.inlay.sawGap"));
  saw_->setToolTip(tr("Room for the saw between the face and the plug's board"));
  wood_ = new QComboBox;
  wood_->setObjectName(QStringLiteral("plugWood"));
  for (const Species& s : species_table().species)
    wood_->addItem(QString::fromStdString(s.name), QString::fromStdString(s.id));
  plug_->body()->addWidget(make_row(tr("Plug of"), wood_));
  field(thickness_, tr("Plug board thickness"), "plugThickness", range_of("pieces[].cut.inlay.thickness"));
  grain_ = new QComboBox;
  grain_->setObjectName(QStringLiteral("plugGrain"));
  grain_->addItems({tr("along this board's"), tr("across it")});
  plug_->body()->addWidget(make_row(tr("Its grain runs"), grain_));
  moisture_ = new QDoubleSpinBox;
  moisture_->setObjectName(QStringLiteral("moisture"));
  set_range(moisture_, "pieces[].cut.inlay.moisture");
  moisture_->setDecimals(1);
  moisture_->setSuffix(tr(" %"));
  moisture_->setKeyboardTracking(false);
  moisture_->setToolTip(
      tr("How far the wood's moisture will change where the sign hangs: about 4 in a heated room's "
         "year, 8 and more outdoors (common practice)"));
  plug_->body()->addWidget(make_row(tr("Moisture will change by"), moisture_));
  column->addWidget(plug_);
}

void InlaySection::connect_fields() {
  connect(flanks_, &QComboBox::activated, this, [this](int i) {
    edit(i == 0 ? tr("slope the inlay's flanks") : tr("make the inlay's flanks upright"), [&](Treatment& t) {
      t.inlay.sloped = i == 0;
      if (i == 1) t.inlay.v_alone = false;
      const Bit* v = shop_.rack.find(t.bit);
      if (i == 0 && (v == nullptr || v->kind != BitKind::V)) t.bit = id_of(usual_v(shop_.rack));
    });
  });
  connect(bit_, &BitBox::taken, this, [this](const QString& bit, const QString& name) {
    edit(tr("take the %1").arg(name), [&](Treatment& t) { t.bit = bit.toStdString(); });
  });
  connect(v_alone_, &QCheckBox::clicked, this, [this](bool on) {
    edit(on ? tr("clear floors with the V alone") : tr("clear floors with flat bits"), [&](Treatment& t) {
      t.inlay.v_alone = on;
      if (on) t.clearing.clear();
    });
  });
  connect(wood_, &QComboBox::activated, this, [this] {
    edit(tr("make the plug of %1").arg(wood_->currentText()),
         [&](Treatment& t) { t.inlay.wood = wood_->currentData().toString().toStdString(); });
  });
  connect(grain_, &QComboBox::activated, this, [this](int i) {
    edit(i == 0 ? tr("lay the plug's grain along the board's") : tr("lay the plug's grain across the board's"),
         [&](Treatment& t) { t.inlay.crossed = i == 1; });
  });
  connect(moisture_, &QDoubleSpinBox::valueChanged, this, [this](double percent) {
    edit(tr("say how far the moisture changes"), [&](Treatment& t) { t.inlay.moisture = percent; });
  });
  connect(pocket_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change the pocket's depth"), [&](Treatment& t) { t.depth = *mm; });
  });
  const auto figure = [this](LengthField* f, const QString& name, double doyen::Inlay::*member) {
    connect(f, &LengthField::entered, this, [this, name, member](std::optional<double> mm) {
      edit(name, [&](Treatment& t) { t.inlay.*member = *mm; });
    });
  };
  figure(contact_, tr("change the contact depth"), &doyen::Inlay::contact);
  figure(saw_, tr("change the saw gap"), &doyen::Inlay::saw_gap);
  figure(allowance_, tr("change the room on each side"), &doyen::Inlay::allowance);
  figure(ease_, tr("ease both halves' corners"), &doyen::Inlay::ease);
  figure(thickness_, tr("change the plug's thickness"), &doyen::Inlay::thickness);
}

Sum InlaySection::sum_of(const Item& item) const {
  const doyen::Inlay& inlay = item.cut.inlay;
  const Job& job = shop_.document.job();
  Sum sum;
  sum.title = tr("How the halves meet").toStdString();
  sum.page = "why-inlay.md";
  const Bit* v = shop_.rack.find(item.cut.bit);
  const bool sloped = inlay.sloped && v != nullptr && v->kind == BitKind::V;
  if (sloped) {
    const InlayStart start = inlay_start(widest_stroke(shop_, item.piece.id, *v), *v, job.blank, job.lengths);
    for (const std::string& line : start.why) sum.lines.push_back(tr("start: ").toStdString() + line);
  }
  const double deep = floor_of_pocket(shop_, item);
  if (deep < item.cut.depth - 1e-6)
    sum.lines.push_back(tr("the widest stroke closes at %1, before the pocket's %2")
                            .arg(shop_.show(deep), shop_.show(item.cut.depth))
                            .toStdString());
  sum.lines.push_back(
      tr("glue gap: pocket %1 − contact %2 = %3")
          .arg(shop_.show(deep), shop_.show(inlay.contact), shop_.show(std::max(0.0, deep - inlay.contact)))
          .toStdString());
  if (sloped)
    sum.lines.push_back(tr("the plug's land is smaller than the art by contact × tan(%1° ÷ 2) = %2 a side")
                            .arg(v->true_angle())
                            .arg(shop_.show(inlay.contact * v->tan_half()))
                            .toStdString());
  sum.lines.push_back(
      tr("the plug's board is cut %1 + %2 = %3 deep")
          .arg(shop_.show(inlay.contact), shop_.show(inlay.saw_gap), shop_.show(inlay.contact + inlay.saw_gap))
          .toStdString());
  sum.result = tr("sawn off %1 above this face, then levelled").arg(shop_.show(inlay.saw_gap)).toStdString();
  return sum;
}

// Why a bit cannot make sloped flanks.
QString InlaySection::upright(const Bit& bit) {
  return bit.kind == BitKind::Flat || bit.kind == BitKind::Ball ? tr("its flanks do not slope") : QString();
}

void InlaySection::refresh(const Item& item, const PiecePlan* piece) {
  filling_ = true;
  const Treatment& t = item.cut;
  const LengthStyle& lengths = shop_.document.job().lengths;
  flanks_->setCurrentIndex(t.inlay.sloped ? 0 : 1);
  v_alone_->setChecked(t.inlay.v_alone);
  v_alone_->setVisible(t.inlay.sloped);
  refresh_bit_rows(item, piece);
  clearing_->setVisible(!t.inlay.v_alone);
  bit_->refresh(BitKind::V, item, piece, upright);
  show_row(bit_, t.inlay.sloped);
  pocket_->show_length(t.depth, lengths);
  contact_->show_length(t.inlay.contact, lengths);
  saw_->show_length(t.inlay.saw_gap, lengths);
  allowance_->show_length(t.inlay.allowance, lengths);
  show_row(allowance_, !t.inlay.sloped);
  ease_->show_length(t.inlay.ease, lengths);
  wood_->setCurrentIndex(wood_->findData(QString::fromStdString(t.inlay.wood)));
  thickness_->show_length(t.inlay.thickness, lengths);
  grain_->setCurrentIndex(t.inlay.crossed ? 1 : 0);
  moisture_->setValue(t.inlay.moisture);
  plug_->set_summary(tr("%1, %2").arg(wood_->currentText(), shop_.show(t.inlay.thickness)));
  gaps_->show_number(shop_.show(std::max(0.0, floor_of_pocket(shop_, item) - t.inlay.contact)), tr("under the plug"),
                     sum_of(item));
  if (moved_piece_ != shop_.selected) moved_->setText({});
  moved_->setVisible(!moved_->text().isEmpty());
  start_->setVisible(t.inlay.sloped && !t.inlay.rung);
  prove_->setEnabled(piece != nullptr && !piece->cuts.operations.empty());
  rung_->setVisible(t.inlay.rung.has_value());
  keep_->setVisible(t.inlay.rung.has_value());
  if (t.inlay.rung) {
    const std::string by = t.inlay.sloped || t.clearing.empty() ? t.bit : t.clearing.back();
    const Bit* bit = shop_.rack.find(by);
    const QString name = bit == nullptr ? QString::fromStdString(by) : QString::fromStdString(bit->name);
    const double value = t.inlay.sloped ? *t.inlay.rung : t.inlay.allowance;
    const QString figure = (t.inlay.sloped && value >= 0 ? QStringLiteral("+") : QString()) + shop_.show(value);
    rung_->setText(
        t.inlay.sloped
            ? tr("A pair of a test ladder: its contact is %1 of what is reckoned. When it is glued and level, "
                 "choose the pair whose line closes best: later inlays by the %2 start from it.")
                  .arg(figure, name)
            : tr("A pair of a test ladder: its allowance is %1 a side. Choose the tightest pair that goes in; it is "
                 "kept for the %2.")
                  .arg(figure, name));
    const std::optional<double> kept = bit == nullptr   ? std::nullopt
                                       : t.inlay.sloped ? bit->ladder_contact
                                                        : bit->ladder_allowance;
    const bool mine = kept && std::abs(*kept - value) < 1e-6;
    keep_->setText(mine ? tr("Kept for its bit") : tr("This one closed best: keep it"));
    keep_->setEnabled(!mine && bit != nullptr);
  }
  filling_ = false;
}

}  // namespace doyen
