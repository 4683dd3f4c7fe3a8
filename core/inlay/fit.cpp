#include "inlay/fit.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "planning/outputs.hpp"
#include "problem.hpp"
#include "relief/carve.hpp"
#include "run/gcode.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kBeside = 3;       // mm round the art that is looked at
constexpr double kInTheWay = 0.02;  // mm of wood that gives way under the clamp
constexpr double kApart = 4;        // mm between places that are listed

// A board's front before gluing, as its files have it.
std::vector<Halves::Stay> stays_of(const Plan& plan, MovesFrom from, const Cancel& cancel) {
  std::vector<Halves::Stay> stays;
  const auto counts = [](const BitRun& run) { return run.side == Side::Front && !run.later; };
  if (from == MovesFrom::Plan) {
    for (const BitRun& run : plan.runs) {
      if (!counts(run)) continue;
      Halves::Stay& stay = stays.emplace_back(Halves::Stay{run.bit, {}});
      for (const Operation* op : run.operations)
        stay.passes.insert(stay.passes.end(), op->passes.begin(), op->passes.end());
    }
    return stays;
  }
  std::size_t run = 0;
  for (const OutputFile& file : gcode_files(plan)) {
    cancel.check();
    if (run >= plan.runs.size()) break;
    const Placement lies = placement_of(plan.job, plan.machine, plan.runs[run].side);
    for (GcodeSection& section : read_gcode(file.text, file.name, lies.z).sections) {
      if (run >= plan.runs.size())
        throw bad_input(say("{0}: there are more bits in the files than in the plan.", file.name));
      const BitRun& planned = plan.runs[run++];
      if (!counts(planned)) continue;
      for (Pass& pass : section.passes) {
        for (Point3& p : pass.points) p = lies.on_board(p);
      }
      stays.push_back({planned.bit, std::move(section.passes)});
    }
  }
  return stays;
}

Bit as_it_is(Bit bit, const WhatIf& what_if) {
  if (bit.kind != BitKind::V) return bit;
  bit.measured_angle = bit.true_angle() + what_if.angle;
  if (what_if.tip >= 0) bit.tip = what_if.tip;
  return bit;
}

// Carves with a spindle that leans by `tilt` degrees to the right: everything is turned the other way until the bit
// stands upright, carved there, and the surface turned back.
void carve_leaning(HeightField& field, const std::vector<Halves::Stay>& stays, double zero, const WhatIf& what_if,
                   const Cancel& cancel) {
  const double angle = what_if.tilt * std::numbers::pi / 180, c = std::cos(angle), s = std::sin(angle);
  const Box box = field.box();
  const Point middle = box.centre();  // turned about it, so that heights stay small
  HeightField turned(box.grown(2), field.cell());
  // The face leans now; all of it is kept below zero, where carving looks.
  const double down = (box.width() / 2 + 3) * std::abs(std::tan(angle));
  for (std::size_t r = 0; r < turned.rows(); ++r) {
    for (std::size_t k = 0; k < turned.columns(); ++k)
      turned.row(r)[k] = static_cast<float>((turned.x_of(k) - middle.x) * std::tan(angle) - down);
  }
  for (const Halves::Stay& stay : stays) {
    std::vector<Pass> passes = stay.passes;
    for (Pass& pass : passes) {
      for (Point3& p : pass.points) {
        const double x = p.x - middle.x, z = p.z + zero;
        p = {middle.x + x * c - z * s, p.y, x * s + z * c - down};
      }
    }
    carve(turned, passes, as_it_is(stay.bit, what_if), cancel);
  }
  field.clear();
  const double cell = turned.cell();
  const std::size_t rows = std::min(field.rows(), turned.rows());
  const auto first = static_cast<std::size_t>(std::lround((field.y_of(0) - turned.y_of(0)) / cell));
  for (std::size_t r = 0; r < rows; ++r) {
    const float* from = turned.row(std::min(r + first, turned.rows() - 1));
    float* to = field.row(r);
    // Along the turned row places come back in order; between two of them the surface runs straight.
    double last_x = 0, last_z = 0;
    std::size_t k = 0;
    for (std::size_t i = 0; i < turned.columns(); ++i) {
      const double u = turned.x_of(i) - middle.x, v = from[i] + down;
      const double x = middle.x + u * c + v * s, z = -u * s + v * c;
      while (k < field.columns() && field.x_of(k) <= x) {
        const double share = i == 0 || x <= last_x ? 1 : (field.x_of(k) - last_x) / (x - last_x);
        to[k++] = static_cast<float>(std::min(0.0, last_z + (z - last_z) * std::clamp(share, 0.0, 1.0)));
      }
      last_x = x;
      last_z = z;
    }
  }
}

void carve_all(HeightField& field, const std::vector<Halves::Stay>& stays, double zero, const WhatIf& what_if,
               const Cancel& cancel) {
  if (what_if.tilt != 0) return carve_leaning(field, stays, zero, what_if, cancel);
  field.clear();
  for (const Halves::Stay& stay : stays) {
    std::vector<Pass> passes = stay.passes;
    for (Pass& pass : passes) {
      for (Point3& p : pass.points) p.z += zero;
    }
    carve(field, passes, as_it_is(stay.bit, what_if), cancel);
  }
}

double middle_of(std::vector<float>& values) {
  if (values.empty()) return 0;
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

// The gravest places, each far enough from those before it.
std::vector<FitPlace> far_apart(std::vector<FitPlace> places, std::size_t most) {
  std::sort(places.begin(), places.end(), [](const FitPlace& a, const FitPlace& b) { return a.mm > b.mm; });
  std::vector<FitPlace> kept;
  for (const FitPlace& place : places) {
    if (kept.size() >= most) break;
    const bool near =
        std::any_of(kept.begin(), kept.end(), [&](const FitPlace& k) { return distance(k.at, place.at) < kApart; });
    if (!near) kept.push_back(place);
  }
  return kept;
}

}  // namespace

double ease_that_seats(const Inlay& inlay, const Bit& v) { return inlay.contact * v.tan_half() + v.tip / 2; }

double fit_cell(const Region& art) {
  const Box box = bounds(art).grown(kBeside);
  return std::clamp(std::sqrt(box.width() * box.height() / 1.5e6), 0.03, 0.5);
}

Halves halves_of(const Plan& pocket, const Plan& plug, const PlugPlace& place, MovesFrom from, const Cancel& cancel) {
  const Item *item = pocket.job.find(place.piece), *other = plug.job.find(place.piece);
  const PiecePlan *hole = pocket.piece(place.piece), *fill = plug.piece(place.piece);
  if (item == nullptr || item->cut.kind != Treatment::Kind::Inlay || hole == nullptr || fill == nullptr ||
      other == nullptr)
    throw bad_input(say("“{0}” is no inlay with a plug.", place.piece));
  if (hole->cuts.operations.empty() || fill->cuts.operations.empty())
    throw bad_input(say("“{0}” has no moves for {1}", item->piece.name,
                        (hole->cuts.operations.empty() ? say("its pocket.") : say("its plug."))));
  Halves halves;
  halves.place = place;
  halves.art = hole->outlines.region;
  halves.ground = hole->cuts.ground;
  halves.depth = item->cut.depth;
  halves.inlay = item->cut.inlay;
  halves.inlay.contact = other->cut.inlay.contact;  // as the plug is really cut
  halves.inlay.saw_gap = other->cut.inlay.saw_gap;
  halves.pocket = stays_of(pocket, from, cancel);
  halves.plug = stays_of(plug, from, cancel);
  if (item->cut.inlay.sloped) {
    const auto flank = [](const std::vector<Halves::Stay>& stays, const std::string& id) -> const Bit* {
      for (const Halves::Stay& stay : stays) {
        if (stay.bit.id == id) return &stay.bit;
      }
      return nullptr;
    };
    const Bit *a = flank(halves.pocket, item->cut.bit), *b = flank(halves.plug, other->cut.bit);
    if (a != nullptr && b != nullptr && std::abs(a->true_angle() - b->true_angle()) > 0.01)
      throw bad_input(say(
          "The pocket of “{0}” is cut by the {1} and its plug by the {2}: flanks of {3}° and {4}° cannot close. Cut "
          "both by the same bit.",
          item->piece.name, a->name, b->name, format_number(a->true_angle(), 1), format_number(b->true_angle(), 1)));
  }
  return halves;
}

Fit mate(const Halves& halves, double cell, const WhatIf& what_if, const Cancel& cancel) {
  Fit fit;
  const Region near = grow(halves.art, kBeside);
  fit.pocket = HeightField(bounds(near), cell);
  carve_all(fit.pocket, halves.pocket, what_if.pocket_zero, what_if, cancel);
  if (halves.ground > 0) {
    for (std::size_t r = 0; r < fit.pocket.rows(); ++r) {
      for (std::size_t c = 0; c < fit.pocket.columns(); ++c) fit.pocket.row(r)[c] += static_cast<float>(halves.ground);
    }
  }
  const Box box = fit.pocket.box();
  const Point a = halves.place.on_plug({box.left, box.bottom}), b = halves.place.on_plug({box.right, box.top});
  HeightField own({std::min(a.x, b.x), std::min(a.y, b.y), std::max(a.x, b.x), std::max(a.y, b.y)}, cell);
  carve_all(own, halves.plug, what_if.plug_zero, what_if, cancel);
  const double contact = halves.inlay.contact, floor = halves.depth, background = contact + halves.inlay.saw_gap;
  const std::size_t columns = fit.pocket.columns(), rows = std::min(fit.pocket.rows(), own.rows());
  const bool upside = halves.place.half_turn;  // then rows run the other way and columns the same
  fit.plug = HeightField(bounds(near), cell);
  fit.plug.clear();
  const std::vector<unsigned char> inside = cells_inside(near, fit.pocket);
  std::vector<float> glue, saw;
  double least = 1e300;
  for (std::size_t r = 0; r < rows; ++r) {
    cancel.check();
    for (std::size_t c = 0; c < columns; ++c) {
      // Turned over: its face looks down, and its contact plane lies on the carrying board's face.
      const float z = own.at(std::min(upside ? c : columns - 1 - c, own.columns() - 1), upside ? rows - 1 - r : r);
      fit.plug.row(r)[c] = static_cast<float>(-z - contact);
      if (inside[r * columns + c] == 0) {
        fit.plug.row(r)[c] = static_cast<float>(background - contact);  // sawn away
        continue;
      }
      const float under = fit.pocket.at(c, r), gap = fit.plug.at(c, r) - under;
      if (gap < least) {
        least = gap;
        fit.binds_at = {fit.pocket.x_of(c), fit.pocket.y_of(r)};
      }
      if (gap < -kInTheWay) fit.overlap += cell * cell;
      if (under < -floor + what_if.pocket_zero + 0.03 && z > -0.01F) glue.push_back(gap);
      if (under > -0.01F && z < -background + what_if.plug_zero + 0.06) saw.push_back(gap);
    }
  }
  // Upright flanks do not stop it: it is held where it is meant to lie.
  fit.rides_up = halves.inlay.sloped ? -least : std::max(0.0, -least);
  fit.glue_gap = middle_of(glue);
  fit.saw_gap = middle_of(saw);
  return fit;
}

Fit fit_of(const Plan& pocket, const Plan& plug, const PlugPlace& place, double cell, const WhatIf& what_if,
           const Cancel& cancel) {
  return mate(halves_of(pocket, plug, place, MovesFrom::Files, cancel), cell, what_if, cancel);
}

std::vector<FitPlace> binding_places(const Fit& fit, std::size_t most) {
  std::vector<FitPlace> places;
  for (std::size_t r = 0; r < fit.pocket.rows(); ++r) {
    for (std::size_t c = 0; c < fit.pocket.columns(); ++c) {
      const double mm = fit.in_the_way(c, r);
      if (mm > kInTheWay) places.push_back({{fit.pocket.x_of(c), fit.pocket.y_of(r)}, mm});
    }
  }
  return far_apart(std::move(places), most);
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
  std::vector<FitPlace> open;
  for (std::size_t i = 0; i < across.size(); ++i) {
    const double wide = static_cast<double>(across[i]) * fit.pocket.cell();
    if (across[i] > 1) open.push_back({{fit.pocket.x_of(i % columns), fit.pocket.y_of(i / columns)}, wide});
    if (wide <= face.widest_gap) continue;
    face.widest_gap = wide;
    face.at = {fit.pocket.x_of(i % columns), fit.pocket.y_of(i / columns)};
  }
  face.open = far_apart(std::move(open), 5);
  return face;
}

std::string fault_in_words(const WhatIf& fault, const LengthStyle& lengths) {
  std::string words;
  const auto add = [&](const std::string& one) { words += (words.empty() ? "" : ", ") + one; };
  const auto zero = [&](const std::string& board, double mm) {
    if (mm != 0) add(board + depth_in_words(std::abs(mm), lengths) + (mm > 0 ? say(" too shallow") : say(" too deep")));
  };
  zero(say("pocket "), fault.pocket_zero);
  zero(say("plug "), fault.plug_zero);
  if (fault.angle != 0)
    add(say("bit {0}{1}", format_number(std::abs(fault.angle), 2),
            (fault.angle > 0 ? say("° blunter") : say("° sharper"))));
  if (fault.tip >= 0) add(say("tip flat of {0}", depth_in_words(fault.tip, lengths)));
  if (fault.tilt != 0)
    add(say("spindle leans {0}{1}", format_number(std::abs(fault.tilt), 2),
            (fault.tilt > 0 ? say("° to the right") : say("° to the left"))));
  return words.empty() ? say("nothing amiss") : words;
}

std::vector<Forgiven> what_it_forgives(const Halves& halves, double cell, Unit unit, const Cancel& cancel) {
  const double zero = unit == Unit::Inch ? 0.004 * kMmPerInch : 0.1;
  const double straight = mate(halves, cell, {}, cancel).rides_up;
  std::vector<Forgiven> rows;
  const auto add = [&](const WhatIf& fault) {
    const Fit fit = mate(halves, cell, fault, cancel);
    Forgiven row{fault, fit.rides_up - straight, face_after(fit, 0).widest_gap, 0};
    if (row.open_line <= 1.5 * cell) row.open_line = 0;  // a cell that the line runs through
    row.glue_gap = fit.glue_gap > 0 ? std::max(0.0, fit.glue_gap + fit.rides_up) : 0;
    rows.push_back(row);
  };
  const auto fault = [](double WhatIf::*what, double amount) {
    WhatIf w;
    w.*what = amount;
    return w;
  };
  for (const double by : {zero, -zero}) add(fault(&WhatIf::pocket_zero, by));
  for (const double by : {zero, -zero}) add(fault(&WhatIf::plug_zero, by));
  if (halves.inlay.sloped) {
    for (const double by : {1.0, -1.0}) add(fault(&WhatIf::angle, by));
    add(fault(&WhatIf::tip, 2 * zero));
  }
  add(fault(&WhatIf::tilt, 0.5));
  return rows;
}

}  // namespace doyen
