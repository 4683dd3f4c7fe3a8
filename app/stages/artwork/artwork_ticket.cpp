#include <QMenu>
#include <QShortcut>

#include "bench/hands/all.hpp"
#include "parts/flow_layout.hpp"
#include "problem.hpp"
#include "stages/artwork/artwork_ticket.hpp"

namespace doyen {

QList<std::pair<PlainShape::Kind, QString>> ArtworkTicket::shape_names() {
  using K = PlainShape::Kind;
  return {{K::Rectangle, tr("Rectangle")}, {K::Ellipse, tr("Oval")},
          {K::ArchTop, tr("Arch top")},    {K::Polygon, tr("Even polygon")},
          {K::Star, tr("Star")},           {K::Ribbon, tr("Ribbon")},
          {K::Line, tr("Line")},           {K::Shield, tr("Shield")},
          {K::Heart, tr("Heart")},         {K::Bow, tr("Part of a disc")},
          {K::Arc, tr("Curved line")}};
}

ArtworkSection::ArtworkSection(Workshop& shop) : shop_(shop) {
  column_ = new QVBoxLayout(this);
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(7);
}

QPushButton* ArtworkSection::add_button(QLayout* layout, const QString& text, const QString& name) {
  auto* button = new QPushButton(text);
  button->setObjectName(name);
  layout->addWidget(button);
  return button;
}

QSpinBox* ArtworkSection::spin(Range range) {
  return spin(static_cast<int>(range.least), static_cast<int>(range.most));
}

QSpinBox* ArtworkSection::spin(int least, int most, const QString& suffix) {
  auto* box = new QSpinBox;
  box->setRange(least, most);
  box->setSuffix(suffix);
  return box;
}

void ArtworkSection::refresh_again() {
  if (const Item* item = shop_.item()) refresh(*item);
}

void ArtworkSection::fill_pieces(QComboBox* box, const std::string& chosen) {
  const Item* own = shop_.item();
  QStringList names, ids;
  for (const Item& item : shop_.document.job().items) {
    if (own != nullptr && item.piece.id == own->piece.id) continue;
    names << QString::fromStdString(item.piece.name);
    ids << QString::fromStdString(item.piece.id);
  }
  // Filled anew only where it says something else: with hundreds of pieces that is felt.
  bool same = box->count() == ids.size();
  for (int i = 0; same && i < box->count(); ++i)
    same = box->itemText(i) == names[i] && box->itemData(i).toString() == ids[i];
  if (!same) {
    box->clear();
    for (int i = 0; i < ids.size(); ++i) box->addItem(names[i], ids[i]);
  }
  box->setCurrentIndex(static_cast<int>(ids.indexOf(QString::fromStdString(chosen))));
}

doyen::Box ArtworkSection::box() const { return shop_.bench->box_of(shop_.selected); }

ArtworkTicket::ArtworkTicket(Workshop& shop) : Ticket(shop) {
  add_title(tr("Artwork"));
  auto* adders = new QWidget;
  auto* flow = new FlowLayout(adders, 6);
  const auto add_button = [](QLayout* layout, const QString& text, const QString& name) {
    auto* button = new QPushButton(text);
    button->setObjectName(name);
    layout->addWidget(button);
    return button;
  };
  connect(add_button(flow, tr("+ Lettering"), QStringLiteral("addLettering")), &QPushButton::clicked, this,
          &ArtworkTicket::add_lettering);
  auto* art = add_button(flow, tr("+ Drawing or picture…"), QStringLiteral("addDrawing"));
  art->setToolTip(tr("An SVG or DXF drawing, or a picture to trace: PNG, JPEG, BMP, WebP"));
  connect(art, &QPushButton::clicked, this, &ArtworkTicket::add_drawing);
  auto* shapes = add_button(flow, tr("+ Shape"), QStringLiteral("addShape"));
  auto* menu = new QMenu(shapes);
  for (const auto& [kind, name] : shape_names())
    connect(menu->addAction(name), &QAction::triggered, this, [this, kind = kind] { Q_EMIT add_shape(kind); });
  menu->addSeparator();
  connect(menu->addAction(tr("Drawn by hand on the board")), &QAction::triggered, this, [this] {
    shop_.bench->draw().set_active(true);
    shop_.bench->setFocus();
  });
  connect(menu->addAction(tr("Border round the board")), &QAction::triggered, this, &ArtworkTicket::add_border);
  shapes->setMenu(menu);
  made_ = add_button(flow, tr("+ From this piece"), QStringLiteral("madeFrom"));
  made_->setToolTip(tr("Something new from the chosen piece, which follows it"));
  auto* made_menu = new QMenu(made_);
  for (const auto& [how, name] : MadeSection::names())
    connect(made_menu->addAction(name), &QAction::triggered, this, [this, how = how] { Q_EMIT make_from(how); });
  made_->setMenu(made_menu);
  auto* lay_out = add_button(flow, tr("Lay it out for me…"), QStringLiteral("layItOut"));
  lay_out->setToolTip(tr("Arrangements of all that is there, on this board, to choose from"));
  connect(lay_out, &QPushButton::clicked, this, &ArtworkTicket::lay_out_wanted);
  column_->addWidget(adders);
  list_ = new QListWidget;
  list_->setFixedHeight(112);
  list_->setAccessibleName(tr("Pieces on the board"));
  column_->addWidget(list_);
  auto* remove = new QShortcut(QKeySequence::Delete, list_);
  remove->setContext(Qt::WidgetShortcut);
  connect(remove, &QShortcut::activated, this, &ArtworkTicket::remove_piece);
  list_->setSelectionMode(QAbstractItemView::ExtendedSelection);
  connect(list_, &QListWidget::itemSelectionChanged, this, [this] {
    if (filling_) return;
    // The one that was clicked last is the one whose figures are shown.
    QStringList chosen;
    for (const QListWidgetItem* row : list_->selectedItems()) {
      const QString id = row->data(Qt::UserRole).toString();
      row == list_->currentItem() ? chosen.prepend(id) : chosen.append(id);
    }
    chosen.isEmpty() ? shop_.select({}) : shop_.bench->choose(chosen);
  });
  notice_ = make_label({}, "faded");
  column_->addWidget(notice_);
  column_->addWidget(lettering_ = new LetteringSection(shop));
  column_->addWidget(shape_ = new ShapeSection(shop));
  column_->addWidget(drawing_ = new DrawingSection(shop));
  column_->addWidget(derived_ = new MadeSection(shop));
  column_->addWidget(place_ = new PlaceSection(shop));
  column_->addStretch();
  bar_ = new PlaceBar(shop);
  connect(shop_.bench, &Bench::hand_changed, bar_, &PlaceBar::refresh);
  connect(lettering_, &LetteringSection::letter_bench_wanted, this, &ArtworkTicket::letter_bench_wanted);
  connect(drawing_, &DrawingSection::trace_again, this, &ArtworkTicket::trace_again);
  connect(derived_, &MadeSection::freeze_piece, this, &ArtworkTicket::freeze_piece);
  connect(place_, &PlaceSection::remove_piece, this, &ArtworkTicket::remove_piece);
  connect(place_, &PlaceSection::copy_piece, this, &ArtworkTicket::copy_piece);
  connect(shop_.bench, &Bench::measured, place_, &PlaceSection::show_measured);
  connect(shop_.bench, &Bench::clicked, this, [this](const QString& id, Point at) {
    const Item* item = shop_.item();
    if (isVisible() && item != nullptr && id == shop_.selected && std::holds_alternative<Drawing>(item->piece.what))
      drawing_->choose_part_at(at);
  });
}

// The bar at the frame comes and goes with it.
void ArtworkTicket::showEvent(QShowEvent* event) {
  Ticket::showEvent(event);
  bar_->refresh();
}

void ArtworkTicket::hideEvent(QHideEvent* event) {
  bar_->leave();
  Ticket::hideEvent(event);
}

void ArtworkTicket::focus_words() { lettering_->focus_words(); }

void ArtworkTicket::refresh() {
  filling_ = true;
  const Job& job = shop_.document.job();
  // Rows stay what they are while someone chooses among them.
  while (list_->count() > static_cast<int>(job.items.size())) delete list_->takeItem(list_->count() - 1);
  const QStringList chosen = shop_.chosen();
  for (int i = 0; i < static_cast<int>(job.items.size()); ++i) {
    const Item& item = job.items[static_cast<std::size_t>(i)];
    const bool source = item.cut.kind == Treatment::Kind::None && job.is_source(item.piece.id);
    if (i >= list_->count()) list_->addItem(new QListWidgetItem);
    QListWidgetItem* row = list_->item(i);
    row->setText(QString::fromStdString(item.piece.name) + QStringLiteral("  ·  ") + tr(kind_word(item.piece)) +
                 (source                                                          ? tr("  ·  only a source, not cut")
                  : job.undecided(item)                                           ? tr("  ·  not cut yet")
                  : item.cut.left_uncut && item.cut.kind == Treatment::Kind::None ? tr("  ·  not cut")
                                                                                  : QString()));
    const QString id = QString::fromStdString(item.piece.id);
    row->setData(Qt::UserRole, id);
    if (id == shop_.selected) list_->setCurrentItem(row, QItemSelectionModel::NoUpdate);
    if (row->isSelected() != chosen.contains(id)) row->setSelected(chosen.contains(id));
  }
  if (shop_.selected.isEmpty()) list_->setCurrentItem(nullptr, QItemSelectionModel::NoUpdate);
  const Item* item = shop_.item();
  const auto show = [&](ArtworkSection* section, bool shown) {
    section->setVisible(shown);
    if (shown) section->refresh(*item);
  };
  show(lettering_, item != nullptr && std::holds_alternative<Lettering>(item->piece.what));
  show(shape_, item != nullptr && std::holds_alternative<PlainShape>(item->piece.what));
  show(drawing_, item != nullptr && std::holds_alternative<Drawing>(item->piece.what));
  show(derived_, item != nullptr && std::holds_alternative<Derived>(item->piece.what));
  show(place_, item != nullptr);
  bar_->refresh();
  made_->setEnabled(item != nullptr);
  notice_->setVisible(item == nullptr);
  notice_->setText(
      job.items.empty()
          ? tr("Nothing lies on the board yet. Begin with lettering, or drop a drawing or a picture on the board.")
          : tr("Choose a piece here or on the board. N and P walk through them; arrows move the chosen one."));
  filling_ = false;
}

}  // namespace doyen
