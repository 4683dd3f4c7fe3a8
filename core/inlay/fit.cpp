#include "inlay/fit.hpp"

#include <algorithm>
#include <cmath>

#include "problem.hpp"
#include "relief/carve.hpp"

namespace doyen {
namespace {

constexpr double kBeside = 3;  // mm round the art that is looked at

// The front of one board as its bits leave it, with what may be wrong.
void carve_all(HeightField& field, const Plan& plan, double zero, const WhatIf& what_if, const Cancel& cancel) {
  field.clear();
  for (const BitRun& run : plan.runs) {
    if (run.side != Side::Front) continue;
    Bit bit = run.bit;
    if (bit.kind == BitKind::V) {
      bit.measured_angle = bit.true_angle() + what_if.angle;
      if (what_if.tip >= 0) bit.tip = what_if.tip;
    }
    for (const Operation* op : run.operations) {
      std::vector<Pass> passes = op->passes;
      for (Pass& pass : passes) {
        for (Point3& p : pass.points) p.z += zero;
      }
      carve(field, passes, bit, cancel);
    }
  }
}

double middle_of(std::vector<float>& values) {
  if (values.empty()) return 0;
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

}  // namespace

double ease_that_seats(const Inlay& inlay, const Bit& v) { return inlay.contact * v.tan_half() + v.tip / 2; }

Fit fit_of(const Plan& pocket, const Plan& plug, const PlugPlace& place, double cell, const WhatIf& what_if,
           const Cancel& cancel) {
  const Item* item = pocket.job.find(place.piece);
  const PiecePlan *hole = pocket.piece(place.piece), *fill = plug.piece(place.piece);
  if (item == nullptr || item->cut.kind != Treatment::Kind::Inlay || hole == nullptr || fill == nullptr)
    throw bad_input("“" + place.piece + "” is no inlay with a plug.");
  if (hole->cuts.operations.empty() || fill->cuts.operations.empty())
    throw bad_input("“" + item->piece.name + "” has no moves for " +
                    (hole->cuts.operations.empty() ? "its pocket." : "its plug."));
  Fit fit;
  const Region near = grow(hole->outlines.region, kBeside);
  fit.pocket = HeightField(bounds(near), cell);
  carve_all(fit.pocket, pocket, what_if.pocket_zero, what_if, cancel);
  const Box box = fit.pocket.box();
  const Point a = place.on_plug({box.left, box.bottom}), b = place.on_plug({box.right, box.top});
  HeightField own({b.x, a.y, a.x, b.y}, cell);
  carve_all(own, plug, what_if.plug_zero, what_if, cancel);
  const double contact = item->cut.inlay.contact, floor = item->cut.depth,
               background = contact + item->cut.inlay.saw_gap;
  const std::size_t columns = fit.pocket.columns(), rows = std::min(fit.pocket.rows(), own.rows());
  fit.plug = HeightField(bounds(near), cell);
  fit.plug.clear();
  std::vector<float> glue, saw;
  double least = 1e300;
  for (std::size_t r = 0; r < rows; ++r) {
    cancel.check();
    for (std::size_t c = 0; c < columns; ++c) {
      // Turned over: its face looks down, and its contact plane lies on the carrying board's face.
      const float z = own.at(std::min(columns - 1 - c, own.columns() - 1), r);
      fit.plug.row(r)[c] = static_cast<float>(-z - contact);
      if (!contains(near, {fit.pocket.x_of(c), fit.pocket.y_of(r)})) {
        fit.plug.row(r)[c] = static_cast<float>(background - contact);  // sawn away
        continue;
      }
      const float under = fit.pocket.at(c, r), gap = fit.plug.at(c, r) - under;
      if (gap < least) {
        least = gap;
        fit.binds_at = {fit.pocket.x_of(c), fit.pocket.y_of(r)};
      }
      if (gap < -0.02F) fit.overlap += cell * cell;
      if (under < -floor + what_if.pocket_zero + 0.03 && z > what_if.plug_zero - 0.01) glue.push_back(gap);
      if (under > -0.01F && z < -background + what_if.plug_zero + 0.06) saw.push_back(gap);
    }
  }
  // Upright flanks do not stop it: it is held where it is meant to lie.
  fit.rides_up = item->cut.inlay.sloped ? -least : std::max(0.0, -least);
  fit.glue_gap = middle_of(glue);
  fit.saw_gap = middle_of(saw);
  return fit;
}

Face face_after(const Fit& fit, double sanded) {
  const std::size_t columns = fit.pocket.columns(), rows = fit.pocket.rows();
  Face face;
  if (columns == 0 || rows == 0) return face;
  face.cells.resize(columns * rows);
  constexpr float kTouch = 0.01F;  // mm: halves that are so near close under the clamp
  for (std::size_t r = 0; r < rows; ++r) {
    for (std::size_t c = 0; c < columns; ++c) {
      const float board = fit.pocket.at(c, r), plug = fit.plug.at(c, r) + static_cast<float>(fit.rides_up);
      const auto level = static_cast<float>(-sanded);
      face.cells[r * columns + c] = board >= level - kTouch  ? FaceWood::Board
                                    : plug <= level + kTouch ? FaceWood::Plug
                                                             : FaceWood::Gap;
    }
  }
  // Across the line: the shorter of the two runs, along the row and along the column, that a gap's cell lies in.
  std::vector<std::size_t> across(columns * rows, 0);
  const auto runs = [&](std::size_t count, std::size_t length, auto index) {
    for (std::size_t k = 0; k < count; ++k) {
      for (std::size_t i = 0; i < length;) {
        std::size_t end = i;
        while (end < length && face.cells[index(k, end)] == FaceWood::Gap) ++end;
        for (std::size_t j = i; j < end; ++j) {
          std::size_t& run = across[index(k, j)];
          run = run == 0 ? end - i : std::min(run, end - i);
        }
        i = std::max(end, i + 1);
      }
    }
  };
  runs(rows, columns, [&](std::size_t r, std::size_t c) { return r * columns + c; });
  runs(columns, rows, [&](std::size_t c, std::size_t r) { return r * columns + c; });
  for (std::size_t i = 0; i < across.size(); ++i) {
    const double wide = static_cast<double>(across[i]) * fit.pocket.cell();
    if (wide <= face.widest_gap) continue;
    face.widest_gap = wide;
    face.at = {fit.pocket.x_of(i % columns), fit.pocket.y_of(i / columns)};
  }
  return face;
}

}  // namespace doyen
