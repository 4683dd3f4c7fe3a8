#include "inlay_section.hpp"

#include "machine/profile.hpp"
#include "problem.hpp"
#include "stock/species.hpp"

namespace doyen {
namespace {

void show_row(QWidget* field, bool shown) { field->parentWidget()->setVisible(shown); }

QColor colour_of(const std::string& id) {
  const Species* s = species_table().find(id);
  if (s == nullptr) return {0xC5, 0xA5, 0x82};
  return QColor::fromRgbF(static_cast<float>(s->light.red), static_cast<float>(s->light.green),
                          static_cast<float>(s->light.blue));
}

}  // namespace

InlaySection::InlaySection(Workshop& shop) : shop_(shop) {
  pool_.setMaxThreadCount(1);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  about_ =
      make_label(tr("A pocket in this board, and a mirrored plug on a board of its own. Both are written."), "faded");
  column->addWidget(about_);
  build_fields(column);
  column->addWidget(make_line());
  build_proof(column);
}

InlaySection::~InlaySection() {
  cancel_.request();
  pool_.waitForDone();
}

void InlaySection::edit(const QString& name, const std::function<void(Treatment&)>& change) {
  if (!filling_) shop_.edit_item(name, [&](Item& item) { change(item.cut); });
}

void InlaySection::build_fields(QVBoxLayout* column) {
  flanks_ = new QComboBox;
  flanks_->setObjectName(QStringLiteral("inlayFlanks"));
  flanks_->addItems({tr("sloped, by one V"), tr("upright")});
  flanks_->setToolTip(
      tr("Sloped flanks close as they are pressed and forgive a little; upright ones need an exact machine "
         "and corners as round as the bit"));
  column->addWidget(make_row(tr("Flanks"), flanks_));
  bit_ = new QComboBox;
  bit_->setObjectName(QStringLiteral("inlayBit"));
  bit_->setToolTip(tr("The same bit cuts both halves: another angle would not close"));
  column->addWidget(make_row(tr("V, for both"), bit_));
  clearing_ = new QComboBox;
  clearing_->setObjectName(QStringLiteral("inlayClearing"));
  column->addWidget(make_row(tr("Floors with"), clearing_));
  const auto field = [&](LengthField*& f, const QString& label, const char* name, double least, double most) {
    f = new LengthField(least, most);
    f->setObjectName(QLatin1String(name));
    column->addWidget(make_row(label, f));
  };
  field(pocket_, tr("Pocket, deep"), "pocketDepth", 0.1, 200);
  field(contact_, tr("Contact"), "contact", 0.05, 200);
  contact_->setToolTip(
      tr("How far below the face the plug's outline comes to lie; less than the pocket, or it bottoms out"));
  field(saw_, tr("Saw gap"), "sawGap", 0, 100);
  saw_->setToolTip(tr("Room for the saw between the face and the plug's board"));
  field(allowance_, tr("Room a side"), "allowance", 0, 5);
  field(ease_, tr("Corners eased"), "ease", 0, 20);
  ease_->setToolTip(tr("Both halves' corners are rounded by this radius"));
  wood_ = new QComboBox;
  wood_->setObjectName(QStringLiteral("plugWood"));
  for (const Species& s : species_table().species)
    wood_->addItem(QString::fromStdString(s.name), QString::fromStdString(s.id));
  column->addWidget(make_row(tr("Plug of"), wood_));
  field(thickness_, tr("Its board, thick"), "plugThickness", 0.5, 300);
  connect(flanks_, &QComboBox::activated, this, [this](int i) {
    edit(i == 0 ? tr("slope the inlay's flanks") : tr("make the inlay's flanks upright"), [&](Treatment& t) {
      t.inlay.sloped = i == 0;
      const Bit* v = shop_.rack.find(t.bit);
      if (i == 0 && (v == nullptr || v->kind != BitKind::V)) t.bit = "v60";
    });
  });
  connect(bit_, &QComboBox::activated, this, [this] {
    edit(tr("take the %1").arg(bit_->currentText()),
         [&](Treatment& t) { t.bit = bit_->currentData().toString().toStdString(); });
  });
  connect(clearing_, &QComboBox::activated, this, [this] {
    edit(tr("clear floors with the %1").arg(clearing_->currentText()), [&](Treatment& t) {
      t.clearing.clear();
      const std::string id = clearing_->currentData().toString().toStdString();
      if (!id.empty()) t.clearing.push_back(id);
    });
  });
  connect(wood_, &QComboBox::activated, this, [this] {
    edit(tr("make the plug of %1").arg(wood_->currentText()),
         [&](Treatment& t) { t.inlay.wood = wood_->currentData().toString().toStdString(); });
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

void InlaySection::build_proof(QVBoxLayout* column) {
  gaps_ = new NumberCard(tr("Glue gap"));
  column->addWidget(gaps_);
  prove_ = new QPushButton(tr("Prove the fit"));
  prove_->setObjectName(QStringLiteral("proveFit"));
  prove_->setToolTip(tr("Both halves are carved in the computer from their moves, and mated"));
  column->addWidget(prove_, 0, Qt::AlignLeft);
  found_ = make_label({}, "plain");
  found_->setObjectName(QStringLiteral("fitFound"));
  column->addWidget(found_);
  ease_now_ = new QPushButton;
  ease_now_->setObjectName(QStringLiteral("easeNow"));
  column->addWidget(ease_now_, 0, Qt::AlignLeft);
  sanded_ = new QComboBox;
  sanded_->setObjectName(QStringLiteral("sanded"));
  for (const double mm : {0.0, 0.2, 0.5, 1.0})
    sanded_->addItem(mm == 0 ? tr("as levelled") : tr("sanded %1 mm further").arg(mm), mm);
  column->addWidget(make_row(tr("The face"), sanded_));
  face_ = new QLabel;
  face_->setObjectName(QStringLiteral("fitFace"));
  face_->setAccessibleName(tr("The face after levelling: plug, board, and any open line in red"));
  column->addWidget(face_);
  connect(prove_, &QPushButton::clicked, this, &InlaySection::prove);
  connect(sanded_, &QComboBox::activated, this, &InlaySection::show_face);
  connect(ease_now_, &QPushButton::clicked, this, [this] {
    const double by = ease_now_->property("by").toDouble();
    edit(tr("ease both halves' corners"), [&](Treatment& t) { t.inlay.ease = by; });
  });
}

Sum InlaySection::sum_of(const Item& item) const {
  const doyen::Inlay& inlay = item.cut.inlay;
  Sum sum;
  sum.title = tr("How the halves meet").toStdString();
  sum.lines.push_back(
      tr("glue gap: pocket %1 − contact %2 = %3")
          .arg(shop_.show(item.cut.depth), shop_.show(inlay.contact), shop_.show(item.cut.depth - inlay.contact))
          .toStdString());
  const Bit* v = shop_.rack.find(item.cut.bit);
  if (inlay.sloped && v != nullptr && v->kind == BitKind::V)
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

void InlaySection::refresh(const Item& item, const PiecePlan* piece) {
  filling_ = true;
  const Treatment& t = item.cut;
  const LengthStyle& lengths = shop_.document.job().lengths;
  flanks_->setCurrentIndex(t.inlay.sloped ? 0 : 1);
  bit_->clear();
  clearing_->clear();
  clearing_->addItem(tr("what Doyen proposes"), QString());
  for (const Bit& bit : shop_.rack.bits) {
    const QString id = QString::fromStdString(bit.id), name = QString::fromStdString(bit.name);
    if (bit.kind == BitKind::V) bit_->addItem(name, id);
    if (bit.kind == BitKind::Flat) clearing_->addItem(name, id);
  }
  bit_->setCurrentIndex(bit_->findData(QString::fromStdString(t.bit)));
  clearing_->setCurrentIndex(
      t.clearing.empty() ? 0 : std::max(0, clearing_->findData(QString::fromStdString(t.clearing.front()))));
  show_row(bit_, t.inlay.sloped);
  pocket_->show_length(t.depth, lengths);
  contact_->show_length(t.inlay.contact, lengths);
  saw_->show_length(t.inlay.saw_gap, lengths);
  allowance_->show_length(t.inlay.allowance, lengths);
  show_row(allowance_, !t.inlay.sloped);
  ease_->show_length(t.inlay.ease, lengths);
  wood_->setCurrentIndex(wood_->findData(QString::fromStdString(t.inlay.wood)));
  thickness_->show_length(t.inlay.thickness, lengths);
  gaps_->show_number(shop_.show(t.depth - t.inlay.contact), tr("under the plug"), sum_of(item));
  prove_->setEnabled(!busy_ && piece != nullptr && !piece->cuts.operations.empty());
  if (proved_ != shop_.plan || proved_piece_ != item.piece.id) {  // said of another plan
    fit_.reset();
    found_->setText({});
    ease_now_->hide();
  }
  show_row(sanded_, fit_ != nullptr);
  face_->setVisible(fit_ != nullptr);
  filling_ = false;
}

void InlaySection::prove() {
  const Item* item = shop_.item();
  if (item == nullptr || !shop_.plan || busy_) return;
  busy_ = true;
  prove_->setEnabled(false);
  found_->setText(tr("Carving both halves…"));
  const quint64 mine = ++generation_;
  proved_ = shop_.plan;
  proved_piece_ = item->piece.id;
  cancel_ = Cancel();
  pool_.start([this, mine, pocket = shop_.plan, id = item->piece.id, rack = shop_.rack, cancel = cancel_] {
    std::shared_ptr<const Fit> fit;
    QString problem;
    try {
      for (const PlugBoard& board : plug_boards(pocket->job)) {
        for (const PlugPlace& place : board.places) {
          if (place.piece != id) continue;
          const Plan plug = plan(board.job, rack, machine_for(board.job), nullptr, cancel);
          const Box box = bounds(pocket->piece(id)->outlines.region);
          const double cell = std::clamp(std::sqrt(box.width() * box.height() / 1.5e6), 0.03, 0.5);
          fit = std::make_shared<const Fit>(fit_of(*pocket, plug, place, cell, {}, cancel));
        }
      }
      if (!fit) problem = tr("There is no plug for this piece.");
    } catch (const std::exception& error) {
      problem = QString::fromUtf8(error.what());
    }
    QMetaObject::invokeMethod(
        this,
        [this, mine, fit, problem] {
          if (mine != generation_) return;
          busy_ = false;
          prove_->setEnabled(true);
          if (!problem.isEmpty()) return found_->setText(problem);
          show_fit(fit);
        },
        Qt::QueuedConnection);
  });
}

void InlaySection::show_fit(const std::shared_ptr<const Fit>& fit) {
  const Item* item = shop_.item();
  if (item == nullptr || item->piece.id != proved_piece_ || proved_ != shop_.plan) return found_->setText({});
  fit_ = fit;
  const Face face = face_after(*fit, 0);
  QString words = std::abs(fit->rides_up) < 0.03 ? tr("The flanks close.")
                  : fit->rides_up > 0
                      ? tr("The plug rides up by %1: it touches first at %2, %3.")
                            .arg(shop_.show(fit->rides_up), shop_.show(fit->binds_at.x), shop_.show(fit->binds_at.y))
                      : tr("The plug goes %1 deeper than meant before it touches.").arg(shop_.show(-fit->rides_up));
  words += QLatin1Char(' ') + tr("Glue gap %1, saw gap %2.")
                                  .arg(fit->glue_gap > 0 ? shop_.show(fit->glue_gap) : tr("none: no flat floors"),
                                       shop_.show(fit->saw_gap));
  words += QLatin1Char(' ') + (face.widest_gap <= 2 * fit->pocket.cell()
                                   ? tr("No open line at the face.")
                                   : tr("The widest open line at the face is %1.").arg(shop_.show(face.widest_gap)));
  found_->setText(words);
  if (fit->rides_up > 0.03) shop_.go_to(fit->binds_at);
  const Bit* v = shop_.rack.find(item->cut.bit);
  const double ease = v == nullptr || !item->cut.inlay.sloped ? 0 : ease_that_seats(item->cut.inlay, *v);
  ease_now_->setVisible(fit->rides_up > 0.03 && v != nullptr && v->tip > 0 && item->cut.inlay.ease < ease - 1e-6);
  ease_now_->setText(tr("Ease corners by %1, so that it seats").arg(shop_.show(ease)));
  ease_now_->setProperty("by", ease);
  show_row(sanded_, true);
  face_->show();
  show_face();
}

// The face as it will be seen, from above: the two woods, and what stays open in red.
void InlaySection::show_face() {
  const Item* item = shop_.item();
  if (!fit_ || item == nullptr) return;
  const Face face = face_after(*fit_, sanded_->currentData().toDouble());
  const int columns = static_cast<int>(fit_->pocket.columns()), rows = static_cast<int>(fit_->pocket.rows());
  QImage image(columns, rows, QImage::Format_RGB32);
  const QRgb board = colour_of(shop_.document.job().blank.species).rgb(), plug = colour_of(item->cut.inlay.wood).rgb(),
             open = qRgb(0x9C, 0x3B, 0x2E);
  for (int r = 0; r < rows; ++r) {
    auto* line = reinterpret_cast<QRgb*>(image.scanLine(rows - 1 - r));
    for (int c = 0; c < columns; ++c) {
      const FaceWood wood =
          face.cells[static_cast<std::size_t>(r) * fit_->pocket.columns() + static_cast<std::size_t>(c)];
      line[c] = wood == FaceWood::Board ? board : wood == FaceWood::Plug ? plug : open;
    }
  }
  const QSize room(width() - 4, 220);
  face_->setPixmap(QPixmap::fromImage(image.scaled(room, Qt::KeepAspectRatio, Qt::SmoothTransformation)));
}

}  // namespace doyen
