#include "judge/judge.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <cstring>
#include <map>
#include <numbers>

#include "judge/hash.hpp"
#include "judge/ready.hpp"
#include "relief/carve.hpp"

namespace doyen {

// What was found in one tile. Operations are counted among those that touch the tile.
struct JudgeMemory::Tile {
  struct Found {
    Fault::Kind kind;
    int operation;  // -1: none
    double mm = 0;
    double mm2 = 0;
    Point at{};  // of the tile's side
  };
  std::vector<Found> found;
  std::vector<char> cuts;  // per operation: it takes some wood here
  double within = 0;
  Judgement::Left left;
  std::vector<Judgement::LeftRun> runs;
};

namespace {

using Kind = Fault::Kind;
using Tile = JudgeMemory::Tile;

constexpr double kGouge = 0.02;    // mm
constexpr double kLeft = 0.05;     // mm
constexpr double kSlack = 1e-3;    // mm of rounding: files hold four decimals, cells are floats
constexpr double kShaving = 0.05;  // mm: less is no cut into solid wood
constexpr int kTile = 192;         // cells

struct Step {
  std::uint32_t operation, move;
};

// The board's side in tiles.
class SideJudge {
 public:
  SideJudge(const JudgeTask& task, const JudgedSide& side, double cell, const Cancel& cancel)
      : task_(task), wanted_(*side.wanted), side_(side.side), top_(side.top), cell_(cell), cancel_(cancel) {
    columns_ = cells_along(task.board.width());
    rows_ = cells_along(task.board.height());
    across_ = (columns_ + kTile - 1) / kTile;
    along_ = (rows_ + kTile - 1) / kTile;
    for (const std::size_t w : side.worked) {
      cancel.check();
      ready_.push_back(ready(task.worked[w]));
    }
    steps_.resize(static_cast<std::size_t>(across_) * static_cast<std::size_t>(along_));
    for (std::uint32_t o = 0; o < ready_.size(); ++o) {
      for (std::uint32_t m = 0; m < ready_[o].cut.size(); ++m) bin(o, m);
    }
  }

  void run(JudgeMemory* memory, std::unordered_map<std::uint64_t, std::shared_ptr<const Tile>>& kept,
           std::size_t& worked_out, Judgement& out) {
    std::vector<std::shared_ptr<const Tile>> tiles(steps_.size());
    std::vector<std::uint64_t> keys(steps_.size());
    std::vector<std::size_t> missing;
    for (std::size_t t = 0; t < steps_.size(); ++t) {
      keys[t] = key_of_tile(t);
      if (memory != nullptr) {
        const auto it = memory->tiles.find(keys[t]);
        if (it != memory->tiles.end()) tiles[t] = it->second;
      }
      if (!tiles[t]) missing.push_back(t);
    }
    tbb::parallel_for(
        std::size_t{0}, missing.size(),
        [&](std::size_t k) {
          cancel_.check();
          tiles[missing[k]] = look_at(missing[k]);
        },
        tbb::simple_partitioner());
    worked_out += missing.size();
    for (std::size_t t = 0; t < tiles.size(); ++t) kept.emplace(keys[t], tiles[t]);
    gather(tiles, out);
  }

 private:
  // Cells whose middle lies on the board: what hangs over its edge is no wood.
  [[nodiscard]] int cells_along(double mm) const {
    return std::max(1, static_cast<int>(std::ceil(mm / cell_ - 0.5 - 1e-6)));
  }
  struct Cells {
    int column, row, columns, rows;
  };
  [[nodiscard]] Cells cells_of(std::size_t tile) const {
    const int c = static_cast<int>(tile) % across_ * kTile, r = static_cast<int>(tile) / across_ * kTile;
    return {c, r, std::min(kTile, columns_ - c), std::min(kTile, rows_ - r)};
  }
  [[nodiscard]] Box box_of(std::size_t tile) const {
    const Cells n = cells_of(tile);
    return {task_.board.left + n.column * cell_, task_.board.bottom + n.row * cell_,
            task_.board.left + (n.column + n.columns) * cell_, task_.board.bottom + (n.row + n.rows) * cell_};
  }

  void bin(std::uint32_t operation, std::uint32_t move) {
    const Box& box = ready_[operation].cut.box(move);
    const double side = cell_ * kTile;
    const auto index = [&](double at, double origin, int most) {
      return std::clamp(static_cast<int>(std::floor(std::clamp((at - origin) / side, -1.0, 1e6))), 0, most - 1);
    };
    if (!box.meets(task_.board)) return;
    for (int r = index(box.bottom, task_.board.bottom, along_); r <= index(box.top, task_.board.bottom, along_); ++r) {
      for (int c = index(box.left, task_.board.left, across_); c <= index(box.right, task_.board.left, across_); ++c)
        steps_[static_cast<std::size_t>(r) * static_cast<std::size_t>(across_) + static_cast<std::size_t>(c)].push_back(
            {operation, move});
    }
  }

  [[nodiscard]] std::uint64_t key_of_tile(std::size_t t) const {
    Hash h;
    h.add(static_cast<std::uint64_t>(t));
    h.add(static_cast<std::uint64_t>(side_ == Side::Back ? 1 : 0));
    for (const double v : {cell_, task_.board.right, task_.board.top}) h.add(v);
    h.add(wanted_.key(box_of(t).grown(1)));
    std::uint32_t last = ~0U;
    for (const Step& step : steps_[t]) {
      if (step.operation == last) continue;
      last = step.operation;
      h.add(ready_[last].key);
    }
    return h.value();
  }

  [[nodiscard]] std::shared_ptr<const Tile> look_at(std::size_t t) const {
    auto tile = std::make_shared<Tile>();
    HeightField field(box_of(t), cell_);
    field.clear();
    CarveWatch watch;
    watch.by.assign(field.columns() * field.rows(), 0xFFFF);
    const std::vector<Step>& steps = steps_[t];
    int local = -1;
    for (std::size_t i = 0; i < steps.size();) {
      const std::uint32_t o = steps[i].operation;
      watch.operation = static_cast<std::uint16_t>(++local);
      tile->cuts.push_back(0);
      Window window;
      Tile::Found bite{Kind::Bite, local}, plunge{Kind::Plunge, local}, rub{Kind::Rub, local};
      for (; i < steps.size() && steps[i].operation == o; ++i)
        if (one_move(field, o, steps[i].move, watch, window, bite, plunge, rub)) tile->cuts.back() = 1;
      window.look(*ready_[o].worked, bite, true);
      if (ready_[o].too_deep) shank(field, watch, local, ready_[o].edge, rub);
      for (const Tile::Found& found : {bite, plunge, rub}) {
        if (found.mm > 0) tile->found.push_back(found);
      }
    }
    compare(field, watch, *tile);
    return tile;
  }

  // Too much at once over some way: how wide a chip is that. A last clean pass along a wall takes a thin shaving as
  // high as the wall, which is no bite.
  struct Window {
    double way = 0, area = 0;  // mm that the bit went, mm² of cells that lost too much at once
    Tile::Found found{Kind::Bite, -1};
    void look(const Worked& worked, Tile::Found& bite, bool last) {
      const double wide = worked.bit.true_diameter();
      if (way < wide / 2 && !last) return;
      constexpr double kShare = 0.2;  // of the bit's diameter; plans keep to 0.15, cells are coarse
      const bool thin = worked.bit.kind == BitKind::Flat && area / std::max(way, wide / 2) <= kShare * wide;
      if (found.mm > bite.mm && !thin) {
        bite.mm = found.mm;
        bite.at = found.at;
      }
      way = area = found.mm = 0;
    }
  };

  bool one_move(HeightField& field, std::uint32_t o, std::uint32_t move, CarveWatch& watch, Window& window,
                Tile::Found& bite, Tile::Found& plunge, Tile::Found& rub) const {
    const Ready& op = ready_[o];
    watch.taken = watch.above_tip = 0;
    watch.over = 0;
    const auto bites = static_cast<float>(op.worked->most_at_once * 1.02 + 0.03);
    const bool plunges = op.plunges(move);
    watch.limit = plunges ? static_cast<float>(kShaving) : bites;
    window.way += op.cut.length_in(move, field.box().grown(op.worked->bit.true_diameter() / 2));
    op.cut.carve_watched(field, move, watch);
    const std::size_t shaved = plunges ? watch.over : 0;
    if (plunges && watch.taken <= bites) watch.over = 0;
    if (watch.taken <= 0.002F) {
      window.look(*op.worked, bite, false);
      return false;
    }
    const auto place = [&](std::size_t i) {
      return Point{field.x_of(i % field.columns()), field.y_of(i / field.columns())};
    };
    if (watch.over > 0 && watch.taken > window.found.mm) {
      window.found.mm = watch.taken;
      window.found.at = place(watch.taken_at);
    }
    window.area += static_cast<double>(watch.over) * cell_ * cell_;
    window.look(*op.worked, bite, false);
    if (watch.taken > plunge.mm && solid(shaved, op.worked->bit)) {
      plunge.mm = watch.taken;
      plunge.at = place(watch.taken_at);
    }
    if (watch.above_tip > op.edge + 0.1 && watch.above_tip - op.edge > rub.mm) {
      rub.mm = watch.above_tip - op.edge;
      rub.at = place(watch.above_at);
    }
    return true;
  }

  // More than a shaving beside the bit, as it stands where two bits' edges do not quite meet: a few per cent of what it
  // covers.
  [[nodiscard]] bool solid(std::size_t cells, const Bit& bit) const {
    constexpr double kShare = 0.03;
    if (bit.kind != BitKind::Flat) return cells > 0;
    const double wide = bit.true_diameter() / 2;
    return cells > 1 && static_cast<double>(cells) * cell_ * cell_ > kShare * std::numbers::pi * wide * wide;
  }

  // Wood that stands right beside what this operation cut, higher than its flutes are long: the shank is as wide as the
  // body there.
  static void shank(const HeightField& field, const CarveWatch& watch, int local, double edge, Tile::Found& rub) {
    const std::size_t columns = field.columns(), rows = field.rows();
    const auto own = [&](std::size_t c, std::size_t r) {
      return watch.by[r * columns + c] == static_cast<std::uint16_t>(local);
    };
    for (std::size_t r = 0; r < rows; ++r) {
      for (std::size_t c = 0; c + 1 < columns; ++c) {
        for (const auto& [c2, r2] : {std::pair{c + 1, r}, std::pair{c, std::min(r + 1, rows - 1)}}) {
          if (own(c, r) == own(c2, r2)) continue;
          const bool first = own(c, r);
          const double low = first ? field.at(c, r) : field.at(c2, r2),
                       high = first ? field.at(c2, r2) : field.at(c, r);
          if (high - low - edge > std::max(0.1, rub.mm)) {
            rub.mm = high - low - edge;
            rub.at = {field.x_of(c), field.y_of(r)};
          }
        }
      }
    }
  }

  // Most rows hold no fault and nothing left: told at a glance.
  static bool row_is_as_wanted(const float* z, const WantedBounds& bounds, std::size_t from, int columns,
                               double& within) {
    float under = 0, over = 0, left = 0;
    const float *low = &bounds.low[from], *reach = &bounds.reach[from], *high = &bounds.high[from];
    for (int c = 0; c < columns; ++c) {
      under = std::max(under, low[c] - z[c]);
      over = std::max(over, z[c] - reach[c]);
      left = std::max(left, z[c] - high[c]);
    }
    constexpr auto kAt = static_cast<float>(kSlack / 2);  // nearer to the limit each cell is looked at
    if (under > kGouge + kAt || over > kLeft + kAt || left > kLeft + kAt) return false;
    within = std::max({within, std::min<double>(under, kGouge), std::min<double>(over, kLeft)});
    return true;
  }

  void compare(const HeightField& field, const CarveWatch& watch, Tile& tile) const {
    const CellGrid grid{
        {field.x_of(0), field.y_of(0)}, cell_, static_cast<int>(field.columns()), static_cast<int>(field.rows())};
    WantedBounds bounds;
    wanted_.bounds(grid, bounds);
    std::map<int, Tile::Found> gouges;
    Tile::Found missed{Kind::Missed, -1};
    for (int r = 0; r < grid.rows; ++r) {
      if (row_is_as_wanted(field.row(static_cast<std::size_t>(r)), bounds, grid.at(0, r), grid.columns, tile.within))
        continue;
      double run_from = 0;
      bool running = false;
      for (int c = 0; c < grid.columns; ++c) {
        const std::size_t i = grid.at(c, r);
        const double z = field.at(static_cast<std::size_t>(c), static_cast<std::size_t>(r));
        const double under = bounds.low[i] - z, over = z - bounds.reach[i], left = z - bounds.high[i];
        tile.within = std::max({tile.within, std::min(under, kGouge), std::min(over, kLeft)});
        if (under > kGouge + kSlack) {
          Tile::Found& g = gouges.try_emplace(watch.by[i], Tile::Found{Kind::Gouge, watch.by[i]}).first->second;
          note(g, under, grid.middle(c, r));
        }
        if (over > kLeft + kSlack) note(missed, over, grid.middle(c, r));
        const bool is_left = left > kLeft + kSlack;
        if (is_left) {
          tile.left.mm2 += cell_ * cell_;
          if (left > tile.left.mm) {
            tile.left.mm = left;
            tile.left.at = grid.middle(c, r);
          }
        }
        if (is_left && !running) run_from = grid.middle(c, r).x - cell_ / 2;
        const bool ends = running && (!is_left || c + 1 == grid.columns);
        if (ends || (is_left && c + 1 == grid.columns))
          tile.runs.push_back(
              {run_from, grid.middle(c, r).x + (is_left ? cell_ / 2 : -cell_ / 2), grid.middle(c, r).y});
        running = is_left;
      }
    }
    for (const auto& [op, found] : gouges) tile.found.push_back(found);
    // Dust in corners goes with the first stroke of sandpaper.
    constexpr double kDust = 0.1;  // mm²
    if (missed.mm2 > kDust) tile.found.push_back(missed);
  }

  void note(Tile::Found& found, double mm, Point at) const {
    found.mm2 += cell_ * cell_;
    if (mm <= found.mm) return;
    found.mm = mm;
    found.at = at;
  }

  [[nodiscard]] Point seen(Point p) const { return side_ == Side::Back ? turned_over(p, task_.blank, task_.turn) : p; }

  void gather(const std::vector<std::shared_ptr<const Tile>>& tiles, Judgement& out) const {
    std::map<std::pair<int, std::string>, Fault> faults;  // by kind, and by operation or piece
    std::vector<char> cuts(ready_.size(), 0);
    for (std::size_t t = 0; t < tiles.size(); ++t) {
      std::vector<std::uint32_t> here;  // the tile's operations
      for (const Step& step : steps_[t]) {
        if (here.empty() || here.back() != step.operation) here.push_back(step.operation);
      }
      const Tile& tile = *tiles[t];
      for (std::size_t k = 0; k < here.size() && k < tile.cuts.size(); ++k) cuts[here[k]] |= tile.cuts[k];
      for (const Tile::Found& found : tile.found) add(faults, found, here);
      out.within = std::max(out.within, tile.within);
      out.left.mm2 += tile.left.mm2;
      if (tile.left.mm > out.left.mm) {
        out.left.mm = tile.left.mm;
        out.left.at = seen(tile.left.at);
      }
      for (const Judgement::LeftRun& run : tile.runs) {
        const Point a = seen({run.x0, run.y}), b = seen({run.x1, run.y});
        out.left_runs.push_back({std::min(a.x, b.x), std::max(a.x, b.x), a.y});
      }
    }
    for (auto& [key, fault] : faults) {
      fault.at = seen(fault.at);
      keep(out, std::move(fault));
    }
    out.cells += static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_);
    for (std::size_t o = 0; o < ready_.size(); ++o) {
      if (cuts[o] == 0 && cuts_air(o)) keep(out, blamed(Kind::Air, *ready_[o].worked, 0, first_of(o)));
    }
    rapids(out);
  }

  // The same fault may show in two states of the wood: said once.
  static void keep(Judgement& out, Fault fault) {
    for (const Fault& f : out.faults) {
      if (f.kind == fault.kind && f.file == fault.file && f.piece == fault.piece && f.bit == fault.bit &&
          f.mm >= fault.mm)
        return;
    }
    out.faults.push_back(std::move(fault));
  }

  void add(std::map<std::pair<int, std::string>, Fault>& faults, const Tile::Found& found,
           const std::vector<std::uint32_t>& here) const {
    const bool by_work = found.operation >= 0 && static_cast<std::size_t>(found.operation) < here.size();
    const std::string hurt = wanted_.piece_at(found.at);
    const std::string whose = by_work ? "o" + std::to_string(here[static_cast<std::size_t>(found.operation)]) : hurt;
    const auto key = std::pair{static_cast<int>(found.kind), whose};
    auto it = faults.find(key);
    if (it == faults.end()) {
      Fault fault;
      fault.kind = found.kind;
      if (by_work) {
        const Worked& w = *ready_[here[static_cast<std::size_t>(found.operation)]].worked;
        fault.piece = w.piece;
        fault.file = w.file;
        fault.bit = w.bit.id;
        fault.treatment = w.treatment;
      } else {
        fault.piece = hurt;
      }
      it = faults.emplace(key, std::move(fault)).first;
    }
    Fault& fault = it->second;
    fault.mm2 += found.mm2;
    if (found.mm <= fault.mm) return;
    fault.mm = found.mm;
    fault.at = found.at;
    fault.hurt = hurt;
  }

  Fault blamed(Kind kind, const Worked& w, double mm, Point at) const {
    Fault fault;
    fault.kind = kind;
    fault.mm = mm;
    fault.at = seen(at);
    fault.hurt = wanted_.piece_at(at);
    fault.piece = w.piece;
    fault.file = w.file;
    fault.bit = w.bit.id;
    fault.treatment = w.treatment;
    return fault;
  }

  [[nodiscard]] Point first_of(std::size_t o) const {
    const std::vector<Pass>& passes = ready_[o].worked->passes;
    return passes.empty() ? Point{} : passes.front().points.front().flat();
  }

  // No cell was lowered: cuts finer than a cell are looked at from near, at places along the operation.
  [[nodiscard]] bool cuts_air(std::size_t o) const {
    std::vector<Point3> lowest;
    for (const Pass& pass : ready_[o].worked->passes) {
      for (const Point3& p : pass.points) {
        if (p.z < 0 && task_.board.contains(p.flat())) lowest.push_back(p);
      }
    }
    constexpr std::size_t kLooks = 60;
    for (std::size_t k = 0; k < lowest.size(); k += std::max<std::size_t>(1, lowest.size() / kLooks)) {
      constexpr double kFine = 0.02;
      const Box box = Box{lowest[k].x, lowest[k].y, lowest[k].x, lowest[k].y}.grown(3 * kFine);
      HeightField field(box, kFine);
      field.clear();
      for (std::size_t e = 0; e < o; ++e) carve(field, ready_[e].worked->passes, ready_[e].worked->bit, cancel_);
      double before = 0;
      for (std::size_t r = 0; r < field.rows(); ++r) {
        for (std::size_t c = 0; c < field.columns(); ++c) before += field.at(c, r);
      }
      carve(field, ready_[o].worked->passes, ready_[o].worked->bit, cancel_);
      double after = 0;
      for (std::size_t r = 0; r < field.rows(); ++r) {
        for (std::size_t c = 0; c < field.columns(); ++c) after += field.at(c, r);
      }
      if (after < before - 0.002) return false;
    }
    return true;
  }

  // Only straight up may a bit leave the wood at rapid speed.
  void rapids(Judgement& out) const {
    for (const Ready& op : ready_) {
      Fault worst;
      for (const Worked::Rapid& r : op.worked->rapids) {
        const bool lifts = distance(r.from.flat(), r.to.flat()) < 1e-6 && r.to.z >= r.from.z;
        const double below = top_ - std::min(r.from.z, r.to.z);
        const bool sinks_from_above = distance(r.from.flat(), r.to.flat()) < 1e-6;
        const double deep = sinks_from_above ? top_ - r.to.z : below;
        if (lifts || deep <= 1e-3 || deep <= worst.mm) continue;
        worst = blamed(Kind::Rapid, *op.worked, deep, r.to.flat());
      }
      if (worst.mm > 0) keep(out, std::move(worst));
    }
  }

  const JudgeTask& task_;
  const Wanted& wanted_;
  Side side_;
  double top_;  // mm
  double cell_;
  const Cancel& cancel_;
  int columns_ = 0, rows_ = 0, across_ = 0, along_ = 0;
  std::vector<Ready> ready_;
  std::vector<std::vector<Step>> steps_;
};

}  // namespace

Judgement judge_work(const JudgeTask& task, double cell, const Cancel& cancel, JudgeMemory* memory) {
  Judgement out;
  out.cell = cell;
  std::unordered_map<std::uint64_t, std::shared_ptr<const Tile>> kept;
  std::size_t worked_out = 0;
  for (const JudgedSide& side : task.sides) SideJudge(task, side, cell, cancel).run(memory, kept, worked_out, out);
  if (memory != nullptr) {
    memory->tiles = std::move(kept);
    memory->worked_out = worked_out;
  }
  return out;
}

}  // namespace doyen
