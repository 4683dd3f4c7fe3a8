#include "stages/artwork/holes_section.hpp"

#include <QPushButton>

#include "bench/bench.hpp"
#include "parts/flow_layout.hpp"
#include "problem.hpp"
#include "treatments/start.hpp"

namespace doyen {
namespace {

constexpr int kMostListed = 300;  // the largest

}  // namespace

HolesSection::HolesSection(Workshop& shop) : Fold(tr("Its holes"), QStringLiteral("holesOpen")), shop_(shop) {
  set_summary(tr("filled, or cut through"));
  list_ = new QListWidget;
  list_->setObjectName(QStringLiteral("holes"));
  list_->setFixedHeight(92);
  list_->setSelectionMode(QAbstractItemView::ExtendedSelection);
  list_->setAccessibleName(tr("Holes of the drawing, the largest first"));
  list_->setToolTip(tr("Click a hole on the board, or choose here"));
  body()->addWidget(list_);
  auto* holder = new QWidget;
  auto* flow = new FlowLayout(holder, 6);
  fill_ = new QPushButton(tr("Fill the chosen"));
  fill_->setObjectName(QStringLiteral("fillHoles"));
  fill_->setToolTip(tr("Each becomes a part of the drawing, which can be left out again"));
  through_ = new QPushButton(tr("Cut them through"));
  through_->setObjectName(QStringLiteral("cutHoles"));
  through_->setToolTip(tr("They become a piece of their own that is cut through the board; what stands in them stays"));
  flow->addWidget(fill_);
  flow->addWidget(through_);
  body()->addWidget(holder);
  connect(list_, &QListWidget::itemSelectionChanged, this, &HolesSection::show_chosen);
  connect(fill_, &QPushButton::clicked, this, &HolesSection::fill);
  connect(through_, &QPushButton::clicked, this, &HolesSection::cut_through);
  connect(this, &Fold::opened, this, [this] {
    if (const Item* item = shop_.item()) refresh(*item);
  });
}

void HolesSection::refresh(const Item& item) {
  if (!std::holds_alternative<Drawing>(item.piece.what)) return;
  if (!open() || of_ == item.piece) return;
  of_ = item.piece;
  look();
}

void HolesSection::look() {
  try {
    holes_ = holes_of(outlines_of(of_).region);
  } catch (const Problem&) {
    holes_.clear();  // the verdict says why it cannot be set
  }
  filling_ = true;
  list_->clear();
  for (const Hole& hole : holes_) {
    if (list_->count() == kMostListed) break;
    const Box box = bounds(hole.ring);
    const LengthStyle& lengths = shop_.document.job().lengths;
    list_->addItem(tr("%1 × %2").arg(QString::fromStdString(size_in_words(box.width(), lengths, false)),
                                     QString::fromStdString(size_in_words(box.height(), lengths))));
  }
  filling_ = false;
  if (holes_.empty()) list_->addItem(tr("It has none."));
  list_->setEnabled(!holes_.empty());
  set_summary(holes_.size() == 1 ? tr("one hole") : tr("%1 holes").arg(holes_.size()));
  show_chosen();
}

std::vector<Hole> HolesSection::chosen() const {
  std::vector<Hole> found;
  for (int r = 0; r < list_->count() && static_cast<std::size_t>(r) < holes_.size(); ++r) {
    if (list_->item(r)->isSelected()) found.push_back(holes_[static_cast<std::size_t>(r)]);
  }
  return found;
}

void HolesSection::show_chosen() {
  if (filling_) return;
  std::vector<Region> regions;
  for (const Hole& hole : chosen()) regions.push_back(hole.clear);
  fill_->setEnabled(!regions.empty());
  through_->setEnabled(!regions.empty());
  if (isVisible()) shop_.bench->show_highlight(regions);
}

bool HolesSection::choose_at(Point at) {
  const Item* item = shop_.item();
  if (item == nullptr || !std::holds_alternative<Drawing>(item->piece.what)) return false;
  if (!(of_ == item->piece)) {
    of_ = item->piece;
    look();
  }
  for (std::size_t i = std::min<std::size_t>(holes_.size(), kMostListed); i-- > 0;) {
    if (!bounds(holes_[i].ring).contains(at) || !contains(holes_[i].clear, at)) continue;
    set_open(true);
    list_->clearSelection();
    list_->setCurrentRow(static_cast<int>(i));
    list_->item(static_cast<int>(i))->setSelected(true);
    return true;
  }
  return false;
}

void HolesSection::fill() {
  const std::vector<Hole> holes = chosen();
  if (holes.empty()) return;
  shop_.edit_item(holes.size() == 1 ? tr("fill a hole") : tr("fill %1 holes").arg(holes.size()),
                  [&](Item& item) { fill_holes(item.piece, holes); });
}

void HolesSection::cut_through() {
  const Item* item = shop_.item();
  const std::vector<Hole> holes = chosen();
  if (item == nullptr || holes.empty()) return;
  Item made{piece_of_holes(item->piece, holes), {}};
  const Job& now = shop_.document.job();
  made.cut =
      start_look(Treatment::Kind::Pierce, {}, {now.blank, now.lengths, shop_.rack, [](const Bit&) { return 0.0; }});
  shop_.document.edit(tr("cut holes through"), [&](Job& job) {
    made.piece.id = job.fresh_id("drawing");
    job.items.push_back(made);
  });
}

}  // namespace doyen
