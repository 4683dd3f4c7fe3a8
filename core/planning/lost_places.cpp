#include "planning/lost_places.hpp"

namespace doyen {
namespace {

bool of_side(const Item& item, Side side) { return item.cut.back == (side == Side::Back); }

}  // namespace

bool loses_something(const Plan& plan, Side side) {
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    if (of_side(plan.job.items[i], side) && !plan.pieces[i]->cuts.lost.empty()) return true;
  }
  return false;
}

void show_lost(CellPaint& paint, const HeightField& field, const Plan& plan, Side side, const Colour& colour) {
  if (paint.of.empty()) paint.of.assign(field.columns() * field.rows(), 0);
  const std::uint8_t number = paint.number_of({colour});
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const Region& lost = plan.pieces[i]->cuts.lost;
    if (lost.empty() || !of_side(plan.job.items[i], side)) continue;
    const std::vector<unsigned char> inside = cells_inside(lost, field);
    for (std::size_t cell = 0; cell < inside.size(); ++cell) {
      if (inside[cell] != 0) paint.of[cell] = number;
    }
  }
}

}  // namespace doyen
