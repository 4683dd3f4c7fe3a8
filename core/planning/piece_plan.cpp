#include "planning/piece_plan.hpp"

#include <algorithm>
#include <atomic>
#include <optional>

#include "cutting/run_off.hpp"
#include "geometry/polyline.hpp"
#include "grounds/grounds.hpp"
#include "planning/placed_cuts.hpp"
#include "problem.hpp"
#include "treatments/look.hpp"

namespace doyen {
namespace {

// What is cut from the back is worked out on the board turned over; what it says of places is said of the front again.
PieceCuts cut_from_back(const Item& item, const Outlines& outlines, const Surroundings& around, const Job& job,
                        PlacedCuts& placed) {
  const Blank& blank = job.blank;
  const TurnOver turn = job.run.turn;
  const auto point = [&](Point p) { return turned_over(p, blank, turn); };
  // A slot hangs by the sign's own up and down, whichever edge the board is turned about.
  const bool as_seen = look_of(item.cut.kind).to_back;
  if (as_seen) {
    PieceCuts cuts = placed.cut(item.piece.id, outlines, item.cut, blank, around);
    for (Operation& op : cuts.operations) {
      op.passes = turned_over(std::move(op.passes), blank, turn);
      op.back = true;
    }
    return cuts;
  }
  Outlines over = outlines;
  over.region = turned_over(outlines.region, blank, turn);
  for (Line2& line : over.lines) {
    for (Point& p : line) p = point(p);
  }
  Surroundings round = around;
  for (Region* region : {&round.sunk, &round.raised, &round.floor, &round.part_floor, &round.open})
    *region = turned_over(*region, blank, turn);
  // Tabs count along the outlines as seen from the front, whose rings run the other way here.
  Treatment cut = item.cut;
  const auto ring = [](const Outlines& o, int island) -> const Ring* {
    return island < 0 || island >= static_cast<int>(o.region.islands.size())
               ? nullptr
               : &o.region.islands[static_cast<std::size_t>(island)].rings.front();
  };
  for (TabPlace& place : cut.through.tabs.placed) {
    const Ring *front = ring(outlines, place.island), *back = ring(over, place.island);
    if (front != nullptr && back != nullptr) place.along = share_nearest(*back, point(on_ring(*front, place.along).at));
  }
  PieceCuts cuts = placed.cut(item.piece.id, over, cut, blank, round);
  for (Operation& op : cuts.operations) op.back = true;
  cuts.floor = turned_over(cuts.floor, blank, turn);
  cuts.lost = turned_over(cuts.lost, blank, turn);
  cuts.unreached.at = point(cuts.unreached.at);
  cuts.deepest_at = point(cuts.deepest_at);
  for (Point& hole : cuts.holes) hole = point(hole);
  if (cuts.cut_out) {
    for (PlacedTab& tab : cuts.cut_out->tabs) {
      tab.at = point(tab.at);
      if (const Ring* front = ring(outlines, tab.place.island)) tab.place.along = share_nearest(*front, tab.at);
      tab.along = turn == TurnOver::LeftEdge ? Point{-tab.along.x, tab.along.y} : Point{tab.along.x, -tab.along.y};
    }
  }
  return cuts;
}

// What is cut from one ground.
PieceCuts cut_part(const Item& item, const PartOnGround& part, bool whole, const Job& job, PlacedCuts& placed) {
  if (item.cut.back) return cut_from_back(item, part.outlines, part.around, job, placed);
  if (whole) {
    if (const std::optional<Upright> piece = upright(job, item, part.around))
      return placed.cut(item.piece.id, *piece, item.cut, job.blank, part.around);
  }
  return placed.cut(item.piece.id, part.outlines, item.cut, job.blank, part.around);
}

// What is cut of the same piece from another ground.
void add_part(PieceCuts& all, PieceCuts part) {
  for (Operation& op : part.operations) all.operations.push_back(std::move(op));
  for (const std::string& bit : part.bits) {
    if (std::find(all.bits.begin(), all.bits.end(), bit) == all.bits.end()) all.bits.push_back(bit);
  }
  all.holes.insert(all.holes.end(), part.holes.begin(), part.holes.end());
  for (auto [to, from] : {std::pair{&all.floor, &part.floor}, std::pair{&all.lost, &part.lost}})
    to->islands.insert(to->islands.end(), from->islands.begin(), from->islands.end());
  all.floor_by_v += part.floor_by_v;
  all.limited_by_body = all.limited_by_body || part.limited_by_body;
  if (part.unreached.width > all.unreached.width) {
    all.unreached.at = part.unreached.at;
    all.unreached.width = part.unreached.width;
  }
  all.unreached.area += part.unreached.area;
  if (all.groove && part.groove)
    all.groove->places.insert(all.groove->places.end(), part.groove->places.begin(), part.groove->places.end());
  else if (part.groove)
    all.groove = std::move(part.groove);
  if (part.deepest > all.deepest) {
    all.deepest = part.deepest;
    all.deepest_at = part.deepest_at;
    all.ground = part.ground;
  }
}

}  // namespace

std::shared_ptr<const PiecePlan> set_piece(const Job& job, const Item& item) {
  auto out = std::make_shared<PiecePlan>();
  try {
    out->outlines = job.outlines(item);
  } catch (const Problem& problem) {
    out->problem = problem.what();
  }
  return out;
}

std::shared_ptr<const PiecePlan> cut_set_piece(const PiecePlan& set, const Item& item, const Surroundings& around,
                                               const Job& job, PlacedCuts& placed) {
  static std::atomic<std::uint64_t> worked_out{0};
  auto out = std::make_shared<PiecePlan>(set);
  out->around = around;
  out->key = ++worked_out;
  try {
    if (out->problem.empty()) {
      bool first = true;
      const std::vector<PartOnGround> parts = parts_on_grounds(out->outlines, around);
      for (const PartOnGround& part : parts) {
        PieceCuts cuts = cut_part(item, part, parts.size() == 1, job, placed);
        if (first)
          out->cuts = std::move(cuts);
        else
          add_part(out->cuts, std::move(cuts));
        first = false;
      }
    }
  } catch (const Problem& problem) {
    out->problem = problem.what();
  }
  return out;
}

std::shared_ptr<const PiecePlan> kept_to_board(std::shared_ptr<const PiecePlan> piece, const Job& job,
                                               const Rack& rack) {
  const Blank& blank = job.blank;
  if (!blank.runs_off.any() || !piece->problem.empty()) return piece;
  constexpr double kClear = 1;  // mm that a bit's edge comes to lie past the side
  constexpr double kFar = 1e6;  // mm
  auto out = std::make_shared<PiecePlan>(*piece);
  const auto room = [&](double half, bool back) {
    const Box box = blank.runs_off.grown(blank.box(), half + kClear, kFar);
    return back ? turned_over(box, blank, job.run.turn) : box;
  };
  double widest = 0;
  bool back = false;
  for (Operation& op : out->cuts.operations) {
    const Bit* bit = rack.find(op.bit);
    const double half = bit == nullptr ? 0 : bit->true_diameter() / 2;
    widest = std::max(widest, half);
    back = op.back;
    op.passes = kept_inside(std::move(op.passes), room(half, op.back));
    // What runs along beside the board touches nothing.
    std::erase_if(op.passes, [&](const Pass& pass) {
      double lowest = 0;
      for (const Point3& p : pass.points) lowest = std::min(lowest, p.z);
      const double touches = bit == nullptr ? 0 : bit->half_width_at(-lowest);
      const Box wood = blank.runs_off.grown(blank.box(), touches, kFar);
      return kept_inside({pass}, op.back ? turned_over(wood, blank, job.run.turn) : wood).empty();
    });
  }
  if (out->cuts.cut_out)
    out->cuts.cut_out->passes = kept_inside(std::move(out->cuts.cut_out->passes), room(widest, back));
  std::erase_if(out->cuts.operations, [](const Operation& op) { return op.passes.empty(); });
  const Box board = room(0, false);
  std::erase_if(out->cuts.holes, [&](Point p) { return !board.contains(p); });
  if (out->cuts.cut_out)
    std::erase_if(out->cuts.cut_out->tabs, [&](const PlacedTab& tab) { return !board.contains(tab.at); });
  return out;
}

}  // namespace doyen
