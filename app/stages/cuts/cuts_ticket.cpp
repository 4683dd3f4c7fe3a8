#include "stages/cuts/cuts_ticket.hpp"

#include "stages/cuts/floor_section.hpp"
#include "stages/cuts/incise_section.hpp"
#include "stages/cuts/line_section.hpp"
#include "stages/cuts/through_section.hpp"
#include "treatments/start.hpp"

namespace doyen {

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
  chosen->addWidget(make_label(tr("How should it look?"), "faded"));
  look_ = new LookTiles;
  chosen->addWidget(look_);
  ground_ = new LengthField(range_of("pieces[].cut.ground"), true);
  ground_->setObjectName(QStringLiteral("ground"));
  ground_->setPlaceholderText(tr("found by Doyen"));
  ground_->setToolTip(tr("How far below the face the ground lies that it starts from; empty lets Doyen find it"));
  chosen->addSpacing(2);

  inlay_section_ = new InlaySection(shop_);
  sections_ = {new InciseSection(shop_), new LineSection(shop_), new ThroughSection(shop_), new FloorSection(shop_),
               inlay_section_};
  for (LookSection* section : sections_) chosen->addWidget(section);
  face_ = new QComboBox;
  face_->setObjectName(QStringLiteral("side"));
  face_->addItems({tr("from the front"), tr("from the back")});
  connect(face_, &QComboBox::activated, this, [this](int i) {
    shop_.edit_cuts(i == 1 ? tr("cut it from the back") : tr("cut it from the front"),
                    [&](Item& item) { item.cut.back = i == 1; });
  });
  moves_ = new MovesSection(shop_);
  connect(moves_, &MovesSection::rack_wanted, this, &CutsTicket::rack_wanted);
  connect(ground_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.edit_cuts(mm ? tr("say the ground it lies on") : tr("let Doyen find its ground"),
                    [&](Item& item) { item.cut.ground = mm; });
  });
  resin_ = new ResinRow(shop_);
  connect(inlay_section_, &InlaySection::proof_wanted, this, &CutsTicket::proof_wanted);
  connect(inlay_section_, &InlaySection::answer_wanted, this, &CutsTicket::answer_wanted);
  chosen->addWidget(make_line());
  verdicts_ = new VerdictList(shop_);
  chosen->addWidget(verdicts_);
  // What most jobs leave as it is stands below, folded.
  lies_ = new Fold(tr("Side, ground and filling"), QStringLiteral("sideOpen"));
  lies_->body()->addWidget(make_row(tr("Cut"), face_));
  lies_->body()->addWidget(make_row(tr("Ground"), ground_));
  lies_->body()->addWidget(resin_);
  chosen->addWidget(lies_);
  chosen->addWidget(moves_);
  column_->addWidget(chosen_);
  column_->addStretch();

  connect(look_, &LookTiles::chosen, this, [this](Treatment::Kind kind) {
    shop_.edit_cuts(
        tr("change how it should look"),
        [&](Item& item) {
          const Job& job = shop_.document.job();
          const auto widest = [&](const Bit& v) { return InlaySection::widest_stroke(shop_, item.piece.id, v); };
          item.cut = start_look(kind, item.cut, {job.blank, job.lengths, shop_.rack, widest});
        },
        Workshop::Of::All);
  });
}

void CutsTicket::open_sums(bool open) {
  for (LookSection* section : sections_) section->open_sums(open);
}

// What they have in common, and for which of them goes what is set here.
void CutsTicket::show_several(const Item& item) {
  const QStringList all = shop_.chosen(), alike = shop_.chosen_alike();
  title_->setText(tr("%1 pieces").arg(all.size()));
  double least = 1e300, most = 0;
  for (const QString& id : alike) {
    const PiecePlan* piece = shop_.plan ? shop_.plan->piece(id.toStdString()) : nullptr;
    if (piece == nullptr || piece->cuts.deepest <= 0) continue;
    least = std::min(least, piece->cuts.deepest);
    most = std::max(most, piece->cuts.deepest);
  }
  QString depths;
  if (most > 0) {
    const QString from = shop_.show(least), to = shop_.show(most);
    depths = from == to ? tr(" All go %1 deep.").arg(to) : tr(" They go %1 to %2 deep.").arg(from, to);
  }
  const QString look = tr(look_of(item.cut.kind).done);
  lies_on_->setText(
      (alike.size() == all.size()
           ? tr("A look and its figures are set for all of them; shown are those of “%1”.")
           : tr("A look is set for all of them, its figures for the %1 that are %2; shown are those of “%3”.")
                 .arg(alike.size())
                 .arg(look))
          .arg(QString::fromStdString(item.piece.name)) +
      depths);
}

void CutsTicket::refresh() {
  const Item* item = shop_.item();
  choose_->setVisible(item == nullptr);
  chosen_->setVisible(item != nullptr);
  if (item == nullptr) {
    title_->setText(tr("Cuts"));
    lies_on_->setText(shop_.document.job().items.empty()
                          ? tr("Nothing lies on the board yet: go to Artwork first.")
                          : tr("Choose a piece here or on the board, and say how it should look."));
    pieces_->clear();
    for (const Item& it : shop_.document.job().items) {
      QString words = it.cut.kind != Treatment::Kind::None          ? tr(look_of(it.cut.kind).done)
                      : shop_.document.job().is_source(it.piece.id) ? tr("only a source, not cut")
                      : shop_.document.job().undecided(it)          ? tr("not cut yet")
                                                                    : tr("not cut");
      if (const PiecePlan* p = shop_.plan ? shop_.plan->piece(it.piece.id) : nullptr;
          p != nullptr && p->cuts.deepest > 0)
        words += tr(", %1 deep").arg(shop_.show(p->cuts.deepest));
      auto* row = new QListWidgetItem(QString::fromStdString(it.piece.name) + QStringLiteral("  ·  ") + words);
      row->setData(Qt::UserRole, QString::fromStdString(it.piece.id));
      pieces_->addItem(row);
    }
  } else {
    title_->setText(tr("“%1”").arg(QString::fromStdString(item->piece.name)));
    const PiecePlan* piece = shop_.piece_plan();
    QString ground = item->cut.back ? tr("the back") : tr("the face");
    if (piece != nullptr && piece->around.ground.below > 0) {
      const Item* floor = shop_.document.job().find(piece->around.ground.of);
      ground = (floor == nullptr ? tr("a ground you gave, %1 down")
                                 : tr("the floor of “%1”, %2 down").arg(QString::fromStdString(floor->piece.name)));
      ground = ground.arg(shop_.show(piece->around.ground.below));
    }
    lies_on_->setText(tr("%1 · lies on: %2").arg(tr(kind_word(item->piece)), ground));
    if (shop_.chosen().size() > 1) show_several(*item);
    ground_->show_length(item->cut.ground, shop_.document.job().lengths);
    face_->setCurrentIndex(item->cut.back ? 1 : 0);
    face_->parentWidget()->setVisible(item->cut.kind != Treatment::Kind::None &&
                                      item->cut.kind != Treatment::Kind::Inlay);
    moves_->setVisible(item->cut.kind != Treatment::Kind::None);
    if (item->cut.kind != Treatment::Kind::None) moves_->refresh(*item, piece);
    ground_->parentWidget()->setVisible(item->cut.kind != Treatment::Kind::None && !goes_through(item->cut.kind));
    for (LookSection* section : sections_) {
      section->setVisible(section->fits(item->cut));
      if (section->fits(item->cut)) section->refresh(*item, piece);
    }
    resin_->setVisible(ResinRow::fits(item->cut.kind));
    if (ResinRow::fits(item->cut.kind)) resin_->refresh(*item);
    lies_->setVisible(item->cut.kind != Treatment::Kind::None);
    QStringList set{item->cut.kind == Treatment::Kind::Inlay ? ground : face_->currentText()};
    if (item->cut.ground) set << tr("ground given");
    if (item->cut.resin) set << tr("filled with resin");
    lies_->set_summary(set.join(QStringLiteral(", ")));
    look_->show_chosen(item->cut.kind);
    verdicts_->show_for(shop_.selected, false);
  }
}

}  // namespace doyen
