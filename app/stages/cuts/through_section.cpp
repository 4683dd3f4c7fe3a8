#include "stages/cuts/through_section.hpp"

#include "job/edge_bevel.hpp"
#include "planning/sums.hpp"
#include "treatments/through/through_sums.hpp"

namespace doyen {

ThroughSection::ThroughSection(Workshop& shop) : LookSection(shop) {
  flat_bit_ = new BitBox(shop_);
  flat_bit_->setObjectName(QStringLiteral("flatBit"));
  over_ = new LengthField(range_of("pieces[].cut.overCut"), true);
  over_->setPlaceholderText(tr("as the bed asks"));
  column_->addWidget(make_row(tr("Flat bit"), flat_bit_));
  down_ = new Fold(tr("How far down"), QStringLiteral("downOpen"));
  down_->body()->addWidget(make_row(tr("Cuts into the bed by"), over_));
  skin_ = new LengthField(from_least(0.05, "pieces[].cut.skin"), true);
  skin_->setObjectName(QStringLiteral("skin"));
  skin_->setPlaceholderText(tr("none: right through"));
  skin_->setToolTip(tr("Wood that stays under the cut, to be parted with a knife"));
  down_->body()->addWidget(make_row(tr("Wood left at the bottom"), skin_));
  taped_ = new QCheckBox(tr("Taped down before the run"));
  taped_->setObjectName(QStringLiteral("taped"));
  down_->body()->addWidget(taped_);
  connect(skin_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(mm ? tr("leave a skin of %1").arg(shop_.show(*mm)) : tr("cut right through"),
         [&](Treatment& t) { t.through.skin = mm.value_or(0); });
  });
  connect(taped_, &QCheckBox::clicked, this, [this](bool on) {
    edit(on ? tr("tape it down") : tr("do not tape it"), [&](Treatment& t) { t.through.taped = on; });
  });
  slug_ = new QCheckBox(tr("Cut round it only; the middle drops out"));
  slug_->setObjectName(QStringLiteral("slug"));
  column_->addWidget(slug_);
  connect(slug_, &QCheckBox::clicked, this, [this](bool on) {
    edit(on ? tr("let the middle drop out") : tr("clear the opening"), [&](Treatment& t) { t.pierce.slug = on; });
  });
  bevel_ = new QCheckBox(tr("Bevelled edge"));
  bevel_->setObjectName(QStringLiteral("bevelledEdge"));
  bevel_->setToolTip(tr("A slope along its edge that follows the outline; the cut makes room for it"));
  bevel_depth_ = new LengthField(from_least(0.1, "pieces[].cut.depth"));
  bevel_depth_->setObjectName(QStringLiteral("bevelDepth"));
  bevel_depth_->setAccessibleName(tr("Depth of the bevel"));
  bevel_row_ = new QWidget;
  auto* bevel = new QHBoxLayout(bevel_row_);
  bevel->setContentsMargins(0, 0, 0, 0);
  bevel->addWidget(bevel_);
  bevel->addWidget(bevel_depth_, 1);
  column_->addWidget(bevel_row_);
  connect(bevel_, &QCheckBox::clicked, this, [this](bool on) {
    const std::string id = shop_.selected.toStdString();
    shop_.document.edit(on ? tr("bevel its edge") : tr("leave its edge square"),
                        [&](Job& job) { on ? add_bevel(job, id, shop_.rack) : remove_bevel(job, id); });
  });
  connect(bevel_depth_, &LengthField::entered, this, [this](std::optional<double> mm) {
    if (filling_ || !mm) return;
    const Item* edge = bevel_of(shop_.document.job(), shop_.selected.toStdString());
    if (edge == nullptr) return;
    shop_.document.edit(tr("bevel it %1 deep").arg(shop_.show(*mm)),
                        [&, id = edge->piece.id](Job& job) { job.find(id)->cut.depth = *mm; });
  });
  tabs_ = new QCheckBox(tr("Held by tabs"));
  tab_count_ = new QSpinBox;
  set_range(tab_count_, "pieces[].cut.tabs.count");
  tab_count_->setObjectName(QStringLiteral("tabCount"));
  tab_length_ = new LengthField(range_of("pieces[].cut.tabs.length"));
  tab_height_ = new LengthField(range_of("pieces[].cut.tabs.height"));
  column_->addWidget(tabs_);
  column_->addWidget(make_row(tr("How many"), tab_count_));
  tab_picture_ = new TabPicture(tab_length_, tab_height_);
  column_->addWidget(tab_picture_);
  place_tabs_ = new QPushButton(tr("Let Doyen place them"));
  place_tabs_->setToolTip(tr("Tabs can be dragged along the outline on the board; this takes them back"));
  column_->addWidget(place_tabs_, 0, Qt::AlignLeft);
  column_->addWidget(down_);
  through_ = new NumberCard(tr("Goes down to"));
  bed_ = new NumberCard(tr("Marks the bed by up to"));
  column_->addWidget(make_line());
  column_->addWidget(through_);
  column_->addWidget(bed_);
  connect_bits(flat_bit_);
  connect(over_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change the over-cut"), [&](Treatment& t) { t.through.over_cut = mm; });
  });
  connect(tabs_, &QCheckBox::clicked, this, [this](bool on) {
    edit(on ? tr("hold it by tabs") : tr("leave out the tabs"), [&](Treatment& t) { t.through.tabs.wanted = on; });
  });
  connect(tab_count_, &QSpinBox::valueChanged, this, [this](int n) {
    if (filling_) return;
    shop_.edit_cuts(
        tr("change the number of tabs"),
        [&](Item& item) {
          item.cut.through.tabs.count = n;
          item.cut.through.tabs.placed.clear();
        },
        Workshop::Of::SameLook, QStringLiteral("tabs"));
  });
  connect(tab_length_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change the tabs' length"), [&](Treatment& t) { t.through.tabs.length = *mm; });
  });
  connect(tab_height_, &LengthField::entered, this, [this](std::optional<double> mm) {
    edit(tr("change the tabs' height"), [&](Treatment& t) { t.through.tabs.height = *mm; });
  });
  connect(place_tabs_, &QPushButton::clicked, this,
          [this] { edit(tr("let Doyen place the tabs"), [](Treatment& t) { t.through.tabs.placed.clear(); }); });
}

void ThroughSection::refresh(const Item& item, const PiecePlan* piece) {
  filling_ = true;
  const LengthStyle& lengths = shop_.document.job().lengths;
  flat_bit_->refresh(BitKind::Flat, item, piece);
  over_->show_length(item.cut.through.over_cut, lengths);
  over_->parentWidget()->setVisible(item.cut.through.skin <= 0);
  skin_->show_length(item.cut.through.skin > 0 ? std::optional(item.cut.through.skin) : std::nullopt, lengths);
  taped_->setChecked(item.cut.through.taped);
  tabs_->setChecked(item.cut.through.tabs.wanted);
  tab_count_->setValue(item.cut.through.tabs.count);
  tab_length_->show_length(item.cut.through.tabs.length, lengths);
  tab_height_->show_length(item.cut.through.tabs.height, lengths);
  tab_picture_->show_tab(item.cut.through.tabs.length, item.cut.through.tabs.height, shop_.document.job().blank);
  tab_picture_->setEnabled(item.cut.through.tabs.wanted);
  tab_count_->setEnabled(item.cut.through.tabs.wanted);
  QStringList down{item.cut.through.skin > 0 ? tr("a skin of %1 stays").arg(shop_.show(item.cut.through.skin))
                                             : tr("right through")};
  if (item.cut.through.taped) down << tr("taped down");
  down_->set_summary(down.join(QStringLiteral(", ")));
  place_tabs_->setEnabled(item.cut.through.tabs.wanted && !item.cut.through.tabs.placed.empty());
  const bool pierced = item.cut.kind == Treatment::Kind::Pierce, tabs = !pierced || item.cut.pierce.slug;
  const Item* edge = pierced ? nullptr : bevel_of(shop_.document.job(), item.piece.id);
  bevel_row_->setVisible(!pierced);
  bevel_->setChecked(edge != nullptr);
  bevel_->setText(edge != nullptr ? tr("Bevelled edge, so deep") : tr("Bevelled edge"));
  bevel_depth_->setVisible(edge != nullptr);
  if (edge != nullptr) bevel_depth_->show_length(edge->cut.depth, lengths);
  slug_->setVisible(pierced);
  slug_->setChecked(item.cut.pierce.slug);
  tabs_->setVisible(tabs);
  place_tabs_->setVisible(tabs);
  tab_picture_->setVisible(tabs);
  show_row(tab_count_, tabs);
  filling_ = false;
  const bool known = piece != nullptr && !piece->cuts.operations.empty();
  through_->setVisible(known);
  bed_->setVisible(known);
  if (!known) return;
  bed_->setVisible(item.cut.through.skin <= 0);
  through_->show_number(shop_.show(piece->cuts.deepest),
                        item.cut.through.skin > 0 ? tr("but for the skin") : tr("right through"),
                        [plan = shop_.plan, id = item.piece.id] { return through_sum(*plan, id); });
  const Blank& blank = shop_.plan->job.blank;
  const double over = item.cut.through.over_cut.value_or(default_over_cut(blank));
  bed_->show_number(shop_.show(over + blank.thickest() - blank.thinnest()), tr("lay waste sheet beneath"),
                    [plan = shop_.plan, id = item.piece.id] { return bed_sum(*plan, id); });
}

}  // namespace doyen
