#include "planning/expected.hpp"

#include <algorithm>

#include "planning/finished_look.hpp"

namespace doyen {

void add_by_grounds(const WantedPiece& piece, std::list<std::vector<PartOnGround>>& kept,
                    std::vector<WantedPiece>& looks) {
  if (piece.outlines == nullptr || piece.around->ground.half_on.empty()) {
    looks.push_back(piece);
    return;
  }
  kept.push_back(parts_on_grounds(*piece.outlines, *piece.around));
  WantedPiece one = piece;
  for (const PartOnGround& part : kept.back()) {
    one.outlines = &part.outlines;
    one.around = &part.around;
    one.key = one.key * 31 + 1;
    looks.push_back(one);
  }
}

HeightField expected_relief(const SetJob& set, const Box& area, double cell, Side side, const Cancel& cancel) {
  const Cancel::Scope stops(cancel);
  const Job& job = set.plan.job;
  std::list<std::vector<PartOnGround>> kept;
  std::vector<WantedPiece> looks;
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    const PiecePlan& piece = *set.plan.pieces[i];
    if (!piece.problem.empty()) continue;
    add_by_grounds({job.items[i].piece.id, &piece.outlines, &job.items[i].cut, &set.around[i]}, kept, looks);
  }
  const Wanted wanted(looks, job.blank, set.plan.rack, side, job.run.turn);
  cancel.check();
  HeightField field(area, cell);
  const CellGrid grid{
      {field.x_of(0), field.y_of(0)}, field.cell(), static_cast<int>(field.columns()), static_cast<int>(field.rows())};
  WantedBounds bounds;
  wanted.bounds(grid, bounds, true);
  for (std::size_t r = 0; r < field.rows(); ++r) {
    const float* from = bounds.likely.data() + r * field.columns();
    std::copy(from, from + field.columns(), field.row(r));
  }
  if (side == Side::Front) take_off_by_hand(field, set.plan);
  return field;
}

}  // namespace doyen
