#include "bench/hands/keep_out_hand.hpp"

#include <cmath>

#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {

std::optional<std::size_t> KeepOutHand::at(QPointF px) const {
  if (bench_.stage() != Stage::Blank) return std::nullopt;
  const auto& all = bench_.job().blank.keep_outs;
  const double more = 3 / bench_.pixels_per_mm();
  for (std::size_t i = all.size(); i-- > 0;) {
    if (all[i].box().grown(more).contains(bench_.to_board(px))) return i;
  }
  return std::nullopt;
}

bool KeepOutHand::hovers(QPointF px) const { return at(px).has_value(); }

bool KeepOutHand::press(QPointF px) {
  const auto found = at(px);
  if (!found) return false;
  begin_drag();
  held_ = *found;
  last_ = bench_.to_board(px);
  Q_EMIT bench_.keep_out_chosen(static_cast<int>(held_));
  return true;
}

void KeepOutHand::drag(QPointF px) {
  const Point now = bench_.to_board(px), by = now - last_;
  last_ = now;
  move(held_, by);
}

void KeepOutHand::move(std::size_t which, Point by) {
  edit(words("move what to stay clear of"), [which, by](Job& job) {
    if (which >= job.blank.keep_outs.size()) return;
    KeepOut& place = job.blank.keep_outs[which];
    place.x = std::clamp(place.x + by.x, -500.0, job.blank.width + 500);
    place.y = std::clamp(place.y + by.y, -500.0, job.blank.height + 500);
  });
}

std::vector<HandGrip> KeepOutHand::grips() {
  std::vector<HandGrip> all;
  if (bench_.stage() != Stage::Blank) return all;
  const auto& places = bench_.job().blank.keep_outs;
  for (std::size_t i = 0; i < places.size(); ++i) {
    all.push_back({places[i].box().centre(), words("to stay clear of, %1 of %2").arg(i + 1).arg(places.size()),
                   [this, i](Point by) {
                     begin_drag();
                     Q_EMIT bench_.keep_out_chosen(static_cast<int>(i));
                     move(i, by);
                   }});
  }
  return all;
}

}  // namespace doyen
