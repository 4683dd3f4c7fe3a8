#include <QGridLayout>
#include <QPainter>
#include <cmath>

#include "inlay/look_start.hpp"
#include "parts/flow_layout.hpp"
#include "parts/theme.hpp"
#include "stages/cuts/cuts_ticket.hpp"

namespace doyen {
namespace {

// A treatment as a picture of its profile.
QIcon profile_picture(Treatment::Kind kind, qreal ratio) {
  QPixmap pixmap(QSize(52, 30) * ratio);
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Qt::transparent);
  QPainter p(&pixmap);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(QColor(0x9A, 0x6B, 0x45), 1));
  p.setBrush(QColor(0xDB, 0xBE, 0x98));
  switch (kind) {
    case Treatment::Kind::None:
      p.drawRect(QRectF(6, 5, 40, 20));
      break;
    case Treatment::Kind::Incise:
      p.drawPolygon(QPolygonF{{6, 5}, {17, 5}, {26, 20}, {35, 5}, {46, 5}, {46, 25}, {6, 25}});
      break;
    case Treatment::Kind::Line:
      p.drawPolygon(QPolygonF{{6, 5}, {22, 5}, {26, 11}, {30, 5}, {46, 5}, {46, 25}, {6, 25}});
      break;
    case Treatment::Kind::Raise:
      p.drawPolygon(QPolygonF{{6, 14}, {17, 14}, {21, 5}, {31, 5}, {35, 14}, {46, 14}, {46, 25}, {6, 25}});
      break;
    case Treatment::Kind::Recess:
      p.drawPolygon(QPolygonF{{6, 5}, {15, 5}, {15, 16}, {37, 16}, {37, 5}, {46, 5}, {46, 25}, {6, 25}});
      break;
    case Treatment::Kind::Pierce:
      p.drawRect(QRectF(6, 5, 13, 20));
      p.drawRect(QRectF(33, 5, 13, 20));
      break;
    case Treatment::Kind::Bevel:
      p.drawPolygon(QPolygonF{{14, 5}, {38, 5}, {46, 14}, {46, 25}, {6, 25}, {6, 14}});
      break;
    case Treatment::Kind::Drill:
      p.drawPolygon(QPolygonF{{6, 5}, {23, 5}, {23, 19}, {29, 19}, {29, 5}, {46, 5}, {46, 25}, {6, 25}});
      break;
    case Treatment::Kind::Plane:
      p.drawRect(QRectF(6, 11, 40, 14));
      p.setPen(QPen(QColor(0xB8, 0xA9, 0x93), 1, Qt::DashLine));
      p.drawLine(QPointF(6, 5), QPointF(46, 5));
      break;
    case Treatment::Kind::Inlay:
    case Treatment::Kind::Plug:
      p.drawPolygon(QPolygonF{{6, 8}, {13, 8}, {19, 19}, {33, 19}, {39, 8}, {46, 8}, {46, 25}, {6, 25}});
      p.setBrush(QColor(0xF3, 0xE7, 0xCC));
      p.drawPolygon(QPolygonF{{14, 8}, {19.5, 17}, {32.5, 17}, {38, 8}, {46, 5}, {46, 1}, {6, 1}, {6, 5}});
      break;
    case Treatment::Kind::HangerSlot:  // seen from behind: the head's hole and the slot above it
      p.drawRect(QRectF(6, 5, 40, 20));
      p.setBrush(QColor(0x7A, 0x50, 0x32));
      p.setPen(Qt::NoPen);
      p.drawEllipse(QRectF(21.5, 14, 9, 9));
      p.drawRoundedRect(QRectF(23.8, 7, 4.4, 12), 2.2, 2.2);
      break;
    case Treatment::Kind::CutOut:
      p.drawRect(QRectF(15, 5, 22, 20));
      p.setPen(QPen(QColor(0xB8, 0xA9, 0x93), 1, Qt::DashLine));
      p.setBrush(Qt::NoBrush);
      p.drawLine(QPointF(2, 5), QPointF(8, 5));
      p.drawLine(QPointF(44, 5), QPointF(50, 5));
      p.drawLine(QPointF(8, 5), QPointF(8, 25));
      p.drawLine(QPointF(44, 5), QPointF(44, 25));
      break;
  }
  return QIcon(pixmap);
}

}  // namespace

CutsTicket::CutsTicket(Workshop& shop) : Ticket(shop) {
  title_ = add_title({});
  lies_on_ = make_label({}, "faded");
  column_->addWidget(lies_on_);

  choose_ = new QWidget;
  auto* choose = new QVBoxLayout(choose_);
  choose->setContentsMargins(0, 0, 0, 0);
  pieces_ = new QListWidget;
  pieces_->setMinimumHeight(190);
  pieces_->setAccessibleName(tr("Pieces and how they are cut"));
  choose->addWidget(pieces_);
  column_->addWidget(choose_);
  connect(pieces_, &QListWidget::itemClicked, this,
          [this](QListWidgetItem* row) { shop_.select(row->data(Qt::UserRole).toString()); });
  connect(pieces_, &QListWidget::itemActivated, this,
          [this](QListWidgetItem* row) { shop_.select(row->data(Qt::UserRole).toString()); });

  chosen_ = new QWidget;
  auto* chosen = new QVBoxLayout(chosen_);
  chosen->setContentsMargins(0, 0, 0, 0);
  chosen->setSpacing(7);
  chosen->addWidget(make_label(tr("It shall look"), "faded"));
  auto* tiles = new QGridLayout;
  tiles->setSpacing(1);
  look_ = new QButtonGroup(this);
  const std::pair<Treatment::Kind, QString> looks[] = {
      {Treatment::Kind::Incise, tr("incised")},  {Treatment::Kind::Raise, tr("raised")},
      {Treatment::Kind::Recess, tr("recessed")}, {Treatment::Kind::Line, tr("line")},
      {Treatment::Kind::Bevel, tr("bevelled")},  {Treatment::Kind::Drill, tr("drilled")},
      {Treatment::Kind::Plane, tr("planed")},    {Treatment::Kind::Pierce, tr("pierced")},
      {Treatment::Kind::CutOut, tr("cut out")},  {Treatment::Kind::HangerSlot, tr("hanger")},
      {Treatment::Kind::Inlay, tr("inlaid")},    {Treatment::Kind::None, tr("not cut")}};
  for (const auto& [kind, word] : looks) {
    auto* tile = new QToolButton;
    tile->setIcon(profile_picture(kind, devicePixelRatioF()));
    tile->setIconSize(QSize(36, 22));
    tile->setText(word);
    tile->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    tile->setCheckable(true);
    tile->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    tile->setMinimumHeight(52);
    tile->setMinimumWidth(40);
    tile->setStyleSheet(QStringLiteral(
        "QToolButton { background: white; border: 1px solid #D8CFBF; border-radius: 6px; color: #2B2A28; font-size: "
        "8.5pt; }"
        "QToolButton:checked { background: #ECE7EF; border: 1.5px solid #5B4A6F; color: #4B3C5D; font-weight: 600; }"
        "QToolButton:focus { border: 1.5px solid #5B4A6F; }"));
    look_->addButton(tile, static_cast<int>(kind));
    tile->setObjectName(QStringLiteral("look-%1").arg(QLatin1String(to_word(kind))));
    tiles->addWidget(tile, tiles->count() / 4, tiles->count() % 4);
  }
  chosen->addLayout(tiles);
  ground_ = new LengthField(0, 500, true);
  ground_->setObjectName(QStringLiteral("ground"));
  ground_->setPlaceholderText(tr("found by Doyen"));
  ground_->setToolTip(tr("How far below the face the ground lies that it starts from; empty lets Doyen find it"));
  chosen->addSpacing(2);

  incise_ = new QWidget;
  auto* incise = new QVBoxLayout(incise_);
  incise->setContentsMargins(0, 0, 0, 0);
  incise->setSpacing(7);
  v_bit_ = new QComboBox;
  v_bit_->setObjectName(QStringLiteral("vBit"));
  incise->addWidget(make_row(tr("V bit"), v_bit_));
  limit_ = new LengthField(0.05, 500, true);
  limit_->setObjectName(QStringLiteral("limit"));
  limit_->setPlaceholderText(tr("none: full depth"));
  limit_->setToolTip(
      tr("Wide strokes end in a flat floor at this depth; leave empty to let every stroke go as deep as it is wide"));
  incise->addWidget(make_row(tr("Floor limit"), limit_));
  clearing_box_ = new QWidget;
  auto* clearing = new QVBoxLayout(clearing_box_);
  clearing->setContentsMargins(0, 0, 0, 0);
  clearing->setSpacing(3);
  clearing->addWidget(make_label(tr("Floors are cleared first, large bits before small, with"), "faded"));
  auto* boxes = new QWidget;
  auto* grid = new QGridLayout(boxes);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(2);
  int k = 0;
  for (const Bit& bit : shop_.rack.bits) {
    if (bit.kind != BitKind::Flat) continue;
    auto* box = new QCheckBox(QString::fromStdString(bit.name));
    box->setProperty("bit", QString::fromStdString(bit.id));
    clearing_ << box;
    grid->addWidget(box, k / 2, k % 2);
    ++k;
    connect(box, &QCheckBox::clicked, this, [this, box](bool on) {
      const std::string id = box->property("bit").toString().toStdString();
      shop_.edit_item(on ? tr("clear with the %1").arg(box->text()) : tr("leave out the %1").arg(box->text()),
                      [&](Item& item) {
                        std::erase(item.cut.clearing, id);
                        if (on) item.cut.clearing.push_back(id);
                      });
    });
  }
  clearing->addWidget(boxes);
  incise->addWidget(clearing_box_);
  depth_ = new NumberCard(tr("Goes down to"));
  floor_ = new NumberCard(tr("Flat floors"));
  letters_ = make_label({}, "faded");
  incise->addWidget(make_line());
  incise->addWidget(depth_);
  angles_ = new NumberCard(tr("Other angles"));
  incise->addWidget(angles_);
  incise->addWidget(floor_);
  incise->addWidget(letters_);
  chosen->addWidget(incise_);

  line_ = new QWidget;
  auto* line = new QVBoxLayout(line_);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(7);
  line_bit_ = new QComboBox;
  line_bit_->setObjectName(QStringLiteral("lineBit"));
  line_depth_ = new LengthField(0.01, 100);
  line_depth_->setObjectName(QStringLiteral("lineDepth"));
  line->addWidget(
      make_label(tr("The bit follows the line, or the outline where there is no line, at one depth."), "faded"));
  line->addWidget(make_row(tr("Bit"), line_bit_));
  line->addWidget(make_row(tr("Depth"), line_depth_));
  hatch_ = new LengthField(0.02, 1000, true);
  hatch_->setObjectName(QStringLiteral("hatch"));
  hatch_->setPlaceholderText(tr("not filled"));
  hatch_->setToolTip(tr("Fills the inside with lines so far apart"));
  line->addWidget(make_row(tr("Filled, every"), hatch_));
  hatch_angle_ = new QDoubleSpinBox;
  hatch_angle_->setRange(-180, 180);
  hatch_angle_->setDecimals(1);
  hatch_angle_->setSuffix(QStringLiteral("°"));
  hatch_angle_->setKeyboardTracking(false);
  hatch_angle_->setObjectName(QStringLiteral("hatchAngle"));
  line->addWidget(make_row(tr("Lines at"), hatch_angle_));
  connect(hatch_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_item(mm ? tr("fill it with lines every %1").arg(shop_.show(*mm)) : tr("follow the outline only"),
                    [&](Item& item) { item.cut.hatch = mm.value_or(0); });
  });
  connect(hatch_angle_, &QDoubleSpinBox::valueChanged, this, [this](double degrees) {
    if (!filling_) shop_.edit_item(tr("turn the lines"), [&](Item& item) { item.cut.hatch_angle = degrees; });
  });
  line_wide_ = make_label({}, "faded");
  line->addWidget(line_wide_);
  chosen->addWidget(line_);

  cut_out_ = new QWidget;
  auto* cut = new QVBoxLayout(cut_out_);
  cut->setContentsMargins(0, 0, 0, 0);
  cut->setSpacing(7);
  flat_bit_ = new QComboBox;
  over_ = new LengthField(0, 50, true);
  over_->setPlaceholderText(tr("as the bed asks"));
  cut->addWidget(make_row(tr("Flat bit"), flat_bit_));
  cut->addWidget(make_row(tr("Past underside"), over_));
  skin_ = new LengthField(0.05, 20, true);
  skin_->setObjectName(QStringLiteral("skin"));
  skin_->setPlaceholderText(tr("none: right through"));
  skin_->setToolTip(tr("Wood that stays under the cut, to be parted with a knife"));
  cut->addWidget(make_row(tr("Skin left"), skin_));
  taped_ = new QCheckBox(tr("Taped down before the run"));
  taped_->setObjectName(QStringLiteral("taped"));
  cut->addWidget(taped_);
  connect(skin_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_item(mm ? tr("leave a skin of %1").arg(shop_.show(*mm)) : tr("cut right through"),
                    [&](Item& item) { item.cut.skin = mm.value_or(0); });
  });
  connect(taped_, &QCheckBox::clicked, this, [this](bool on) {
    shop_.edit_item(on ? tr("tape it down") : tr("do not tape it"), [&](Item& item) { item.cut.taped = on; });
  });
  slug_ = new QCheckBox(tr("Only cut round: the waste falls out whole"));
  slug_->setObjectName(QStringLiteral("slug"));
  cut->addWidget(slug_);
  connect(slug_, &QCheckBox::clicked, this, [this](bool on) {
    shop_.edit_item(on ? tr("let the waste fall out whole") : tr("clear the opening"),
                    [&](Item& item) { item.cut.slug = on; });
  });
  tabs_ = new QCheckBox(tr("Held by tabs"));
  tab_count_ = new QSpinBox;
  tab_count_->setRange(2, 60);
  tab_count_->setObjectName(QStringLiteral("tabCount"));
  tab_length_ = new LengthField(0.5, 200);
  tab_height_ = new LengthField(0.1, 100);
  cut->addWidget(tabs_);
  cut->addWidget(make_row(tr("How many"), tab_count_));
  cut->addWidget(make_row(tr("Length"), tab_length_));
  cut->addWidget(make_row(tr("Height"), tab_height_));
  place_tabs_ = new QPushButton(tr("Let Doyen place them"));
  place_tabs_->setToolTip(tr("Tabs can be dragged along the outline on the board; this takes them back"));
  cut->addWidget(place_tabs_, 0, Qt::AlignLeft);
  through_ = new NumberCard(tr("Goes down to"));
  bed_ = new NumberCard(tr("Marks the bed by up to"));
  cut->addWidget(make_line());
  cut->addWidget(through_);
  cut->addWidget(bed_);
  chosen->addWidget(cut_out_);
  floor_section_ = new FloorSection(shop_);
  chosen->addWidget(floor_section_);
  inlay_section_ = new InlaySection(shop_);
  chosen->addWidget(inlay_section_);
  face_ = new QComboBox;
  face_->setObjectName(QStringLiteral("side"));
  face_->addItems({tr("from the front"), tr("from the back")});
  chosen->addWidget(make_row(tr("Cut"), face_));
  connect(face_, &QComboBox::activated, this, [this](int i) {
    shop_.edit_item(i == 1 ? tr("cut it from the back") : tr("cut it from the front"),
                    [&](Item& item) { item.cut.back = i == 1; });
  });
  chosen->addWidget(make_row(tr("Ground"), ground_));
  moves_ = new MovesSection(shop_);
  chosen->addWidget(moves_);
  connect(moves_, &MovesSection::rack_wanted, this, &CutsTicket::rack_wanted);
  connect(ground_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_item(mm ? tr("say the ground it lies on") : tr("let Doyen find its ground"),
                    [&](Item& item) { item.cut.ground = mm; });
  });
  resin_ = new ResinRow(shop_);
  chosen->addWidget(resin_);
  connect(inlay_section_, &InlaySection::proof_wanted, this, &CutsTicket::proof_wanted);
  connect(inlay_section_, &InlaySection::answer_wanted, this, &CutsTicket::answer_wanted);
  chosen->addWidget(make_line());
  verdicts_ = new VerdictList(shop_);
  chosen->addWidget(verdicts_);
  column_->addWidget(chosen_);
  column_->addStretch();

  connect(look_, &QButtonGroup::idClicked, this, [this](int kind) {
    shop_.edit_item(tr("change how it shall look"), [&](Item& item) {
      item.cut = start_look(static_cast<Treatment::Kind>(kind), item.cut, shop_.document.job(), shop_.rack,
                            [&](const Bit& v) { return InlaySection::widest_stroke(shop_, item.piece.id, v); });
    });
  });
  for (QComboBox* box : {v_bit_, flat_bit_, line_bit_}) {
    connect(box, &QComboBox::activated, this, [this, box] {
      shop_.edit_item(tr("take the %1").arg(box->currentText()),
                      [&](Item& item) { item.cut.bit = box->currentData().toString().toStdString(); });
    });
  }
  connect(limit_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_item(mm ? tr("set a floor limit of %1").arg(shop_.show(*mm)) : tr("let it go to full depth"),
                    [&](Item& item) { item.cut.floor_limit = mm; });
  });
  connect(line_depth_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_item(tr("follow the line %1 deep").arg(shop_.show(*mm)), [&](Item& item) { item.cut.depth = *mm; });
  });
  connect(over_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_item(tr("change the over-cut"), [&](Item& item) { item.cut.over_cut = mm; });
  });
  connect(tabs_, &QCheckBox::clicked, this, [this](bool on) {
    shop_.edit_item(on ? tr("hold it by tabs") : tr("leave out the tabs"),
                    [&](Item& item) { item.cut.tabs.wanted = on; });
  });
  connect(tab_count_, &QSpinBox::valueChanged, this, [this](int n) {
    if (filling_) return;
    shop_.edit_item(
        tr("change the number of tabs"),
        [&](Item& item) {
          item.cut.tabs.count = n;
          item.cut.tabs.placed.clear();
        },
        QStringLiteral("tabs"));
  });
  connect(tab_length_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_item(tr("change the tabs' length"), [&](Item& item) { item.cut.tabs.length = *mm; });
  });
  connect(tab_height_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_item(tr("change the tabs' height"), [&](Item& item) { item.cut.tabs.height = *mm; });
  });
  connect(place_tabs_, &QPushButton::clicked, this, [this] {
    shop_.edit_item(tr("let Doyen place the tabs"), [](Item& item) { item.cut.tabs.placed.clear(); });
  });
}

void CutsTicket::open_sums(bool open) {
  depth_->set_open(open);
  floor_section_->open_sums(open);
  through_->set_open(open);
}

void CutsTicket::fill_bits(QComboBox* box, std::optional<BitKind> kind, const std::string& chosen) {
  box->clear();
  for (const Bit& bit : shop_.rack.bits) {
    if (kind ? bit.kind == *kind : bit.kind != BitKind::Keyhole)
      box->addItem(QString::fromStdString(bit.name), QString::fromStdString(bit.id));
  }
  const int at = box->findData(QString::fromStdString(chosen));
  if (at < 0)
    box->addItem(tr("%1 (not in the rack)").arg(QString::fromStdString(chosen)), QString::fromStdString(chosen));
  box->setCurrentIndex(at < 0 ? box->count() - 1 : at);
}

void CutsTicket::refresh_incise(const Item& item, const PiecePlan* piece) {
  fill_bits(v_bit_, BitKind::V, item.cut.bit);
  limit_->show_length(item.cut.floor_limit, shop_.document.job().lengths);
  clearing_box_->setVisible(item.cut.floor_limit.has_value());
  for (QCheckBox* box : clearing_) {
    const std::string id = box->property("bit").toString().toStdString();
    box->setChecked(std::find(item.cut.clearing.begin(), item.cut.clearing.end(), id) != item.cut.clearing.end());
  }
  const bool known = piece != nullptr && piece->cuts.groove.has_value();
  depth_->setVisible(known);
  angles_->setVisible(known);
  floor_->setVisible(known && std::isfinite(piece->cuts.limit));
  letters_->setVisible(known);
  if (!known) return;
  const PieceCuts& cuts = piece->cuts;
  const std::string letter = letter_at(piece->outlines, cuts.deepest_at);
  depth_->show_number(shop_.show(cuts.deepest),
                      letter.empty() ? QString() : tr("in %1").arg(QString::fromStdString(letter)),
                      depth_sum(*shop_.plan, item.piece.id));
  show_angles(item);
  const Sum floor = floor_sum(*shop_.plan, item.piece.id);
  QStringList flats;
  for (const std::string& l : letters_with_floor(*piece)) flats << QString::fromStdString(l);
  const double width = 2 * cuts.groove->shape.limit_radius();
  floor_->show_number(tr("over %1").arg(shop_.show(width)), tr("wide strokes"), floor);
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

// How wide a line the bit leaves at its depth, which is what the eye sees.
void CutsTicket::refresh_line(const Item& item) {
  fill_bits(line_bit_, std::nullopt, item.cut.bit);
  line_depth_->show_length(item.cut.depth, shop_.document.job().lengths);
  hatch_->show_length(item.cut.hatch > 0 ? std::optional(item.cut.hatch) : std::nullopt, shop_.document.job().lengths);
  hatch_angle_->setValue(item.cut.hatch_angle);
  const PiecePlan* piece = shop_.piece_plan();
  const bool inside = piece != nullptr && !piece->outlines.region.empty();
  hatch_->parentWidget()->setVisible(inside);
  hatch_angle_->parentWidget()->setVisible(inside && item.cut.hatch > 0);
  const Bit* bit = shop_.rack.find(item.cut.bit);
  if (bit == nullptr) return line_wide_->setText({});
  double low = 0, high = bit->true_diameter() / 2;
  for (int i = 0; i < 50; ++i) {
    const double middle = (low + high) / 2;
    (bit->profile(middle) <= item.cut.depth ? low : high) = middle;
  }
  line_wide_->setText(tr("Leaves a line %1 wide at the face.").arg(shop_.show(2 * low)));
}

void CutsTicket::refresh_cut_out(const Item& item, const PiecePlan* piece) {
  const LengthStyle& lengths = shop_.document.job().lengths;
  fill_bits(flat_bit_, BitKind::Flat, item.cut.bit);
  over_->show_length(item.cut.over_cut, lengths);
  over_->parentWidget()->setVisible(item.cut.skin <= 0);
  skin_->show_length(item.cut.skin > 0 ? std::optional(item.cut.skin) : std::nullopt, lengths);
  taped_->setChecked(item.cut.taped);
  tabs_->setChecked(item.cut.tabs.wanted);
  tab_count_->setValue(item.cut.tabs.count);
  tab_length_->show_length(item.cut.tabs.length, lengths);
  tab_height_->show_length(item.cut.tabs.height, lengths);
  for (QWidget* w :
       {static_cast<QWidget*>(tab_count_), static_cast<QWidget*>(tab_length_), static_cast<QWidget*>(tab_height_)})
    w->setEnabled(item.cut.tabs.wanted);
  place_tabs_->setEnabled(item.cut.tabs.wanted && !item.cut.tabs.placed.empty());
  const bool pierced = item.cut.kind == Treatment::Kind::Pierce, tabs = !pierced || item.cut.slug;
  slug_->setVisible(pierced);
  slug_->setChecked(item.cut.slug);
  tabs_->setVisible(tabs);
  place_tabs_->setVisible(tabs);
  for (QWidget* w :
       {static_cast<QWidget*>(tab_count_), static_cast<QWidget*>(tab_length_), static_cast<QWidget*>(tab_height_)})
    w->parentWidget()->setVisible(tabs);
  const bool known = piece != nullptr && !piece->cuts.operations.empty();
  through_->setVisible(known);
  bed_->setVisible(known);
  if (!known) return;
  bed_->setVisible(item.cut.skin <= 0);
  through_->show_number(shop_.show(piece->cuts.deepest),
                        item.cut.skin > 0 ? tr("but for the skin") : tr("right through"),
                        through_sum(*shop_.plan, item.piece.id));
  const Blank& blank = shop_.plan->job.blank;
  const double over = item.cut.over_cut.value_or(default_over_cut(blank));
  bed_->show_number(shop_.show(over + blank.thickest() - blank.thinnest()), tr("lay waste sheet beneath"),
                    bed_sum(*shop_.plan, item.piece.id));
}

void CutsTicket::refresh() {
  filling_ = true;
  const Item* item = shop_.item();
  choose_->setVisible(item == nullptr);
  chosen_->setVisible(item != nullptr);
  if (item == nullptr) {
    title_->setText(tr("Cuts"));
    lies_on_->setText(shop_.document.job().items.empty()
                          ? tr("Nothing lies on the board yet: go to Artwork first.")
                          : tr("Choose a piece here or on the board, and say how it shall look."));
    pieces_->clear();
    for (const Item& it : shop_.document.job().items) {
      static const char* const kWords[] = {
          QT_TR_NOOP("not cut"), QT_TR_NOOP("incised"),  QT_TR_NOOP("cut out"),     QT_TR_NOOP("line followed"),
          QT_TR_NOOP("raised"),  QT_TR_NOOP("recessed"), QT_TR_NOOP("pierced"),     QT_TR_NOOP("bevelled"),
          QT_TR_NOOP("drilled"), QT_TR_NOOP("planed"),   QT_TR_NOOP("hanger slot"), QT_TR_NOOP("inlaid"),
          QT_TR_NOOP("plug")};
      QString words = tr(kWords[static_cast<int>(it.cut.kind)]);
      if (const PiecePlan* p = shop_.plan ? shop_.plan->piece(it.piece.id) : nullptr;
          p != nullptr && p->cuts.deepest > 0)
        words += tr(", %1 deep").arg(shop_.show(p->cuts.deepest));
      auto* row = new QListWidgetItem(QString::fromStdString(it.piece.name) + QStringLiteral("  ·  ") + words);
      row->setData(Qt::UserRole, QString::fromStdString(it.piece.id));
      pieces_->addItem(row);
    }
  } else {
    title_->setText(QStringLiteral("“%1”").arg(QString::fromStdString(item->piece.name)));
    const PiecePlan* piece = shop_.piece_plan();
    QString ground = item->cut.back ? tr("the back") : tr("the face");
    if (piece != nullptr && piece->around.ground.below > 0) {
      const Item* floor = shop_.document.job().find(piece->around.ground.of);
      ground = (floor == nullptr ? tr("a ground you gave, %1 down")
                                 : tr("the floor of “%1”, %2 down").arg(QString::fromStdString(floor->piece.name)));
      ground = ground.arg(shop_.show(piece->around.ground.below));
    }
    lies_on_->setText(tr("%1 · lies on: %2").arg(tr(kind_word(item->piece)), ground));
    ground_->show_length(item->cut.ground, shop_.document.job().lengths);
    face_->setCurrentIndex(item->cut.back ? 1 : 0);
    face_->parentWidget()->setVisible(item->cut.kind != Treatment::Kind::None &&
                                      item->cut.kind != Treatment::Kind::Inlay);
    moves_->setVisible(item->cut.kind != Treatment::Kind::None);
    if (item->cut.kind != Treatment::Kind::None) moves_->refresh(*item, piece);
    ground_->parentWidget()->setVisible(item->cut.kind != Treatment::Kind::None && !goes_through(item->cut.kind));
    floor_section_->setVisible(FloorSection::fits(item->cut.kind));
    if (FloorSection::fits(item->cut.kind)) floor_section_->refresh(*item, piece);
    const bool inlay = item->cut.kind == Treatment::Kind::Inlay;
    inlay_section_->setVisible(inlay);
    if (inlay) inlay_section_->refresh(*item, piece);
    resin_->setVisible(ResinRow::fits(item->cut.kind));
    if (ResinRow::fits(item->cut.kind)) resin_->refresh(*item);
    if (auto* button = look_->button(static_cast<int>(item->cut.kind))) button->setChecked(true);
    incise_->setVisible(item->cut.kind == Treatment::Kind::Incise);
    line_->setVisible(item->cut.kind == Treatment::Kind::Line);
    if (item->cut.kind == Treatment::Kind::Line) refresh_line(*item);
    cut_out_->setVisible(goes_through(item->cut.kind));
    if (item->cut.kind == Treatment::Kind::Incise) refresh_incise(*item, piece);
    if (goes_through(item->cut.kind)) refresh_cut_out(*item, piece);
    verdicts_->show_for(shop_.selected, false);
  }
  filling_ = false;
}

void CutsTicket::show_angles(const Item& item) {
  if (angles_plan_ != shop_.plan || angles_piece_ != item.piece.id) {
    angles_cancel_.request();
    angles_cancel_ = Cancel();
    angles_plan_ = shop_.plan;
    angles_piece_ = item.piece.id;
    angles_seconds_.reset();
    angles_pool_.start([this, plan = shop_.plan, rack = shop_.rack, id = item.piece.id, cancel = angles_cancel_] {
      VSeconds seconds;
      try {
        seconds = v_seconds(*plan, rack, id, cancel);
      } catch (const std::exception&) {
        return;  // cancelled: another piece or plan is looked at; a bit that cannot be planned has no time
      }
      QMetaObject::invokeMethod(
          this,
          [this, plan, id, seconds] {
            if (plan != angles_plan_ || id != angles_piece_) return;
            angles_seconds_ = seconds;
            if (const Item* now = shop_.item(); now != nullptr && now->piece.id == id) show_angles(*now);
          },
          Qt::QueuedConnection);
    });
  }
  const Sum angles = v_table_sum(*shop_.plan, shop_.rack, item.piece.id, angles_seconds_ ? &*angles_seconds_ : nullptr);
  angles_->show_number(tr("%1 V bits").arg(angles.lines.size()), tr("in the rack"), angles);
}

CutsTicket::~CutsTicket() {
  angles_cancel_.request();
  angles_pool_.waitForDone();
}

}  // namespace doyen
