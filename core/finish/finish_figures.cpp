#include "finish/finish_figures.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

#include "planning/fill.hpp"
#include "planning/finished_look.hpp"
#include "planning/outputs.hpp"
#include "stock/species.hpp"
#include "stock/turn_over.hpp"
#include "treatments/look.hpp"

namespace doyen {
namespace {

constexpr double kCut = 0.02;    // mm below the face from where it counts as cut
constexpr double kResin = 1100;  // kg/m³ of cast epoxy (from memory, no source)

double triangle(const std::array<double, 3>& a, const std::array<double, 3>& b) {
  const double x = a[1] * b[2] - a[2] * b[1], y = a[2] * b[0] - a[0] * b[2], z = a[0] * b[1] - a[1] * b[0];
  return std::sqrt(x * x + y * y + z * z) / 2;
}

// The surface over the square between four cells' middles, mm².
double quad_area(const HeightField& f, std::size_t c, std::size_t r) {
  const double s = f.cell(), z00 = f.at(c, r), z10 = f.at(c + 1, r), z01 = f.at(c, r + 1), z11 = f.at(c + 1, r + 1);
  return triangle({s, 0, z10 - z00}, {s, s, z11 - z00}) + triangle({0, s, z01 - z00}, {s, s, z11 - z00});
}

double length_of(const Region& region) {
  double length = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) length += distance(ring[i], ring[(i + 1) % ring.size()]);
    }
  }
  return length;
}

// What stays: of all that is cut out, or the board, without what is cut through it.
struct Left {
  std::vector<unsigned char> inside;
  const HeightField* front = nullptr;
  const HeightField* back = nullptr;  // in its own coordinates; none where nothing is cut from it
  double thick = 0;
};

// mm of wood in that cell's column.
double wood_at(const Left& left, const Job& job, std::size_t c, std::size_t r) {
  const HeightField& f = *left.front;
  double wood = left.thick + std::min(0.0f, f.at(c, r));
  if (left.back != nullptr) {
    const Point there = turned_over(Point{f.x_of(c), f.y_of(r)}, job.blank, job.run.turn);
    const auto columns = left.back->columns_in(there.x - f.cell() / 2, there.x + f.cell() / 2);
    const auto rows = left.back->rows_in(there.y - f.cell() / 2, there.y + f.cell() / 2);
    if (columns.begin < columns.end && rows.begin < rows.end)
      wood += std::min(0.0f, left.back->at(columns.begin, rows.begin));
  }
  return std::max(0.0, wood);
}

// Which piece's outlines each cell lies in: its index plus one, the last one that covers it.
std::vector<std::uint16_t> owners(const Plan& plan, const HeightField& field) {
  std::vector<std::uint16_t> of(field.columns() * field.rows(), 0);
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const Item& item = plan.job.items[i];
    if (item.cut.back || item.cut.kind == Treatment::Kind::CutOut || plan.pieces[i]->cuts.operations.empty()) continue;
    const std::vector<unsigned char> inside = cells_inside(plan.pieces[i]->outlines.region, field);
    for (std::size_t k = 0; k < of.size(); ++k) {
      if (inside[k] != 0) of[k] = static_cast<std::uint16_t>(i + 1);
    }
  }
  return of;
}

void add_surface(const Plan& plan, const Left& left, FinishFigures& out) {
  const HeightField& f = *left.front;
  const std::vector<std::uint16_t> of = owners(plan, f);
  const auto stays = [&](std::size_t c, std::size_t r) {
    return left.inside[r * f.columns() + c] != 0 && wood_at(left, plan.job, c, r) > kCut;
  };
  for (std::size_t r = 0; r + 1 < f.rows(); ++r) {
    for (std::size_t c = 0; c + 1 < f.columns(); ++c) {
      if (!stays(c, r) || !stays(c + 1, r) || !stays(c, r + 1) || !stays(c + 1, r + 1)) continue;
      const double lowest = std::min({f.at(c, r), f.at(c + 1, r), f.at(c, r + 1), f.at(c + 1, r + 1)});
      const double area = quad_area(f, c, r);
      if (lowest > -kCut) {
        out.face += area;
        continue;
      }
      out.carved += area;
      // A wall belongs to the piece at its foot.
      const std::size_t k = r * f.columns() + c;
      const std::uint16_t owner = std::max({of[k], of[k + 1], of[k + f.columns()], of[k + f.columns() + 1]});
      if (owner > 0) out.by_piece[plan.job.items[owner - 1u].piece.id] += area;
    }
  }
}

double density_of(const WoodId& material) {
  const Species* species = species_table().find(material);
  return species == nullptr ? 0 : species->density;
}

// Plugs fill their pockets up to the face with their glue; inserts and resin lie in theirs.
void add_let_in(const Plan& plan, FinishFigures& out, const Cancel& cancel) {
  const double wood = out.kilograms;  // none where the board's own is not in the table
  Point moment = out.centre * wood;
  for (const Item& item : plan.job.items) {
    const bool plug = item.cut.kind == Treatment::Kind::Inlay;
    const bool resin = item.cut.resin && look_of(item.cut.kind).resin;
    const bool insert = item.cut.kind == Treatment::Kind::Recess && item.cut.insert.thickness > 0;
    if (!plug && !resin && !insert) continue;
    const ResinFill fill = fill_of(plan, item.piece.id, cancel);
    double kilograms = plug ? fill.volume * density_of(item.cut.inlay.wood) : 0;
    if (resin) kilograms += fill.resin() * kResin;
    if (insert) kilograms += std::min(fill.volume, fill.insert) * density_of(item.cut.insert.material);
    kilograms *= 1e-9;
    out.let_in += kilograms;
    moment = moment + fill.centre * kilograms;
  }
  out.kilograms += out.let_in;
  if (out.let_in > 0 && wood > 0) out.centre = moment * (1 / out.kilograms);
}

}  // namespace

FinishFigures finish_figures(const Plan& plan, const Cancel& cancel) {
  FinishFigures out;
  const Blank& blank = plan.job.blank;
  const Box box = blank.box();
  out.cell = std::clamp(std::sqrt(box.width() * box.height() / 1.5e6), 0.1, 2.0);
  out.thick = std::accumulate(blank.readings.begin(), blank.readings.end(), 0.0) /
              static_cast<double>(std::max<std::size_t>(1, blank.readings.size()));
  Region shape = sign_of(plan);
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    if (plan.job.items[i].cut.kind == Treatment::Kind::Pierce && plan.pieces[i]->problem.empty())
      shape = subtract(shape, plan.pieces[i]->outlines.region);
  }
  const HeightField front = relief_of(plan, box, out.cell, cancel);
  HeightField back;
  Left left{cells_inside(shape, front), &front, nullptr, out.thick};
  if (plan.has_back()) {
    back = relief_of(plan, box, out.cell, cancel, Side::Back);
    left.back = &back;
  }
  Point moment{0, 0};
  std::size_t cells = 0;
  for (std::size_t r = 0; r < front.rows(); ++r) {
    for (std::size_t c = 0; c < front.columns(); ++c) {
      if (left.inside[r * front.columns() + c] == 0) continue;
      const double wood = wood_at(left, plan.job, c, r);
      cells += wood > kCut ? 1 : 0;
      out.volume += wood;
      moment = moment + Point{front.x_of(c), front.y_of(r)} * wood;
    }
  }
  out.centre = out.volume > 0 ? moment * (1 / out.volume) : box.centre();
  const double cell = out.cell * out.cell;
  out.volume *= cell;
  out.flat = static_cast<double>(cells) * cell;
  add_surface(plan, left, out);
  out.edges = length_of(shape) * out.thick;
  out.kilograms = out.volume * 1e-9 * density_of(blank.species);
  add_let_in(plan, out, cancel);
  return out;
}

}  // namespace doyen
