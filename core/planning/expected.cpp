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

namespace {

bool same_cells(const HeightField& a, const HeightField& b) {
  return a.columns() == b.columns() && a.rows() == b.rows() && a.cell() == b.cell() && a.x_of(0) == b.x_of(0) &&
         a.y_of(0) == b.y_of(0);
}

// Round all cells that differ; empty where none does.
Box difference(const HeightField& a, const HeightField& b) {
  Box box;
  for (std::size_t r = 0; r < a.rows(); ++r) {
    const float *one = a.row(r), *other = b.row(r);
    const auto first = std::mismatch(one, one + a.columns(), other).first - one;
    if (first == static_cast<std::ptrdiff_t>(a.columns())) continue;
    auto last = static_cast<std::ptrdiff_t>(a.columns()) - 1;
    while (one[last] == other[last]) --last;
    box.add(Point{a.x_of(static_cast<std::size_t>(first)), a.y_of(r)});
    box.add(Point{a.x_of(static_cast<std::size_t>(last)), a.y_of(r)});
  }
  return box.empty() ? box : box.grown(a.cell());
}

}  // namespace

const Picture& ExpectedPicture::bring_up(const SetJob& set, const Box& area, double cell, Side side, std::size_t shrink,
                                         const Cancel& cancel) {
  HeightField now = expected_relief(set, area, cell, side, cancel);
  const Blank& blank = set.plan.job.blank;
  const bool followed = sound_ && shrink == shrink_ && blank == blank_ && same_cells(now, field_);
  const Box changed = followed ? difference(field_, now) : now.box();
  sound_ = false;
  field_ = std::move(now);
  const WoodLook look = wood_look(blank);
  if (!followed)
    picture_ = lit_picture(field_, look, shrink, cancel);
  else if (!changed.empty())
    light_again(picture_, field_, look, shrink, changed, cancel);
  blank_ = blank;
  shrink_ = shrink;
  sound_ = true;
  return picture_;
}

}  // namespace doyen
