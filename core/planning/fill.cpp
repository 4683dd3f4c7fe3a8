#include "planning/fill.hpp"

#include <algorithm>
#include <cmath>

#include "relief/carve.hpp"
#include "relief/height_field.hpp"

namespace doyen {

namespace {

ResinFill room_below(const HeightField& field, double level) {
  ResinFill room;
  double depth = 0;
  Point moment{0, 0};
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c) {
      const double here = std::max(0.0, level - field.at(c, r));
      depth += here;
      moment = moment + Point{field.x_of(c), field.y_of(r)} * here;
    }
  }
  room.volume = depth * field.cell() * field.cell();
  room.centre = depth > 0 ? moment * (1 / depth) : field.box().centre();
  return room;
}

}  // namespace

ResinFill fill_of(const Plan& plan, const std::string& piece, const Cancel& cancel) {
  ResinFill fill;
  const Item* item = plan.job.find(piece);
  const PiecePlan* cut = plan.piece(piece);
  if (item == nullptr || cut == nullptr || cut->cuts.operations.empty()) return fill;
  Box box;
  double widest = 0;
  for (const BitRun& run : plan.runs) {
    for (const Operation* op : run.operations) {
      if (op->piece != piece) continue;
      widest = std::max(widest, run.bit.true_diameter() / 2);
      for (const Pass& pass : op->passes) {
        for (const Point3& p : pass.points) box.add(p.flat());
      }
    }
  }
  if (box.empty()) return fill;
  box = box.grown(widest + 1);
  const double cell = std::clamp(std::sqrt(box.width() * box.height() / 2e6), 0.05, 1.0);
  HeightField field(box, cell);
  field.clear();
  for (const BitRun& run : plan.runs) {
    for (const Operation* op : run.operations) {
      if (op->piece == piece) carve(field, op->passes, run.bit, cancel);
    }
  }
  fill = room_below(field, -cut->cuts.ground);
  if (item->cut.kind == Treatment::Kind::Recess && item->cut.insert.thickness > 0)
    fill.insert = area(grow(cut->outlines.region, -item->cut.insert.clearance)) * item->cut.insert.thickness;
  return fill;
}

}  // namespace doyen
