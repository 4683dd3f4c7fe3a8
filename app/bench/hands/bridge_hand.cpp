#include "bench/hands/bridge_hand.hpp"

#include <cmath>

#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {

void BridgeHand::job_changed() {
  bridges_.clear();
  const Item* item = this->item();
  const auto* made = item == nullptr ? nullptr : std::get_if<Derived>(&item->piece.what);
  if (made == nullptr || made->how != Derived::How::Link || bench_.stage() != Stage::Artwork) return;
  try {
    bridges_ = outlines_of(item->piece, bench_.job().source()).bridges;
  } catch (const Problem&) {
    // The verdict says why it cannot be set.
  }
}

void BridgeHand::paint(QPainter& p) {
  for (const Derived::Bridge& b : bridges_) {
    p.setPen(QPen(theme::kPlum, 1.6, Qt::DashLine));
    p.drawLine(bench_.to_screen(b.from), bench_.to_screen(b.to));
    dot(p, bench_.to_screen(b.from), 4, false);
    dot(p, bench_.to_screen(b.to), 4, false);
  }
}

std::optional<BridgeHand::Grip> BridgeHand::grip_at(QPointF at) const {
  for (std::size_t i = 0; i < bridges_.size(); ++i) {
    const Derived::Bridge& b = bridges_[i];
    // Where the ends lie close together on the screen, the whole bridge is taken.
    const QPointF d = bench_.to_screen(b.to) - bench_.to_screen(b.from);
    const bool tight = std::hypot(d.x(), d.y()) < 3 * bench_detail::kGrip;
    if (near(at, (b.from + b.to) * 0.5) || (tight && (near(at, b.from) || near(at, b.to)))) return Grip{i, 2};
    if (near(at, b.from)) return Grip{i, 0};
    if (near(at, b.to)) return Grip{i, 1};
  }
  return std::nullopt;
}

bool BridgeHand::press(QPointF at) {
  const auto grip = grip_at(at);
  if (!grip) return false;
  begin_drag();
  held_ = *grip;
  last_ = bench_.to_board(at);
  return true;
}

void BridgeHand::drag(QPointF at) {
  const Point now = bench_.to_board(at), by = now - last_;
  last_ = now;
  move(held_, by);
}

std::vector<HandGrip> BridgeHand::grips() {
  std::vector<HandGrip> all;
  for (std::size_t i = 0; i < bridges_.size(); ++i) {
    const Point ends[] = {bridges_[i].from, bridges_[i].to, (bridges_[i].from + bridges_[i].to) * 0.5};
    const char* of[] = {"one end of bridge %1 of %2", "the other end of bridge %1 of %2", "bridge %1 of %2, whole"};
    for (int end = 0; end < 3; ++end) {
      all.push_back({ends[end], words(of[end]).arg(i + 1).arg(bridges_.size()), [this, i, end](Point by) {
                       begin_drag();
                       move({i, end}, by);
                     }});
    }
  }
  return all;
}

void BridgeHand::move(const Grip& grip, Point by) {
  if (grip.bridge >= bridges_.size()) return;
  std::vector<Derived::Bridge> all = bridges_;
  Derived::Bridge& b = all[grip.bridge];
  if (grip.end != 1) b.from = b.from + by;
  if (grip.end != 0) b.to = b.to + by;
  edit(words("move a bridge"), [id = bench_.selected().toStdString(), all](Job& job) {
    if (Item* item = job.find(id)) set_bridges(item->piece, all, job.source());
  });
}

bool BridgeHand::hovers(QPointF at) const { return grip_at(at).has_value(); }

}  // namespace doyen
