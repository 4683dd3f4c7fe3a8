#include "planning/weak_map.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/united.hpp"
#include "planning/outputs.hpp"
#include "stock/species.hpp"
#include "stock/strength.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kWeakCells = 1'200'000;  // about so many look at the whole board

// The floors' depths, those that hardly differ once.
std::vector<double> stands_of(const Plan& plan) {
  std::vector<double> depths;
  for (const auto& piece : plan.pieces) {
    for (const Operation& op : piece->cuts.operations) {
      if (!op.back && op.depth > 0.5 && op.depth < plan.job.blank.thinnest()) depths.push_back(op.depth);
    }
  }
  std::sort(depths.begin(), depths.end(), std::greater<>());
  std::vector<double> apart;
  constexpr std::size_t kMost = 6;
  for (const double depth : depths) {
    if (apart.size() < kMost && (apart.empty() || depth < 0.85 * apart.back())) apart.push_back(depth);
  }
  return apart;
}

std::vector<unsigned char> kept_cells(const Plan& plan, const HeightField& field) {
  std::vector<Region> kept;
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    if (plan.job.items[i].cut.kind == Treatment::Kind::CutOut) kept.push_back(plan.pieces[i]->outlines.region);
  }
  return cells_inside(kept.empty() ? region_of(plan.job.blank) : united(std::move(kept)), field);
}

}  // namespace

WeakMap weak_places(const Plan& plan, const Cancel& cancel) {
  const Blank& blank = plan.job.blank;
  const Box board = blank.box();
  const double cell = std::clamp(std::sqrt(board.width() * board.height() / kWeakCells), 0.2, 3.0);
  CarvedWood wood;
  wood.front = relief_of(plan, board, cell, cancel);
  wood.kept = kept_cells(plan, wood.front);
  wood.thickness = blank.thinnest();
  wood.stands = stands_of(plan);
  if (plan.has_back()) {
    const TurnOver turn = plan.job.run.turn;
    const HeightField under = relief_of(plan, turned_over(board, blank, turn), cell, cancel, Side::Back);
    wood.under.resize(wood.kept.size());
    for (std::size_t r = 0; r < wood.front.rows(); ++r) {
      for (std::size_t c = 0; c < wood.front.columns(); ++c) {
        const std::size_t x = turn == TurnOver::LeftEdge ? under.columns() - 1 - std::min(c, under.columns() - 1) : c;
        const std::size_t y = turn == TurnOver::LeftEdge ? r : under.rows() - 1 - std::min(r, under.rows() - 1);
        wood.under[r * wood.front.columns() + c] =
            -under.at(std::min(x, under.columns() - 1), std::min(y, under.rows() - 1));
      }
    }
  }
  const std::string of = wood_class_of(blank);
  WeakLimits limits;
  limits.along = least_neck(of, wood.thickness, false);
  limits.across = least_neck(of, wood.thickness, true);
  limits.skin = least_skin(of);
  limits.wall = least_wall(of);
  limits.grain = limits.across > limits.along;  // sheets and plastics have none
  limits.grain_up = blank.grain == Grain::AlongHeight;
  return weak_wood(wood, limits, cancel);
}

std::string weak_in_words(const WeakPlace& place, const LengthStyle& lengths) {
  const std::string wide = size_in_words(place.width, lengths), holds = size_in_words(place.holds, lengths);
  switch (place.kind) {
    case WeakPlace::Kind::Neck:
      return place.across ? say("neck {0}, grain across; {1} hold", wide, holds)
                          : say("neck {0}; {1} hold", wide, holds);
    case WeakPlace::Kind::Point:
      return place.across ? say("point {0}, grain across; {1} hold", wide, holds)
                          : say("point {0}; {1} hold", wide, holds);
    case WeakPlace::Kind::Wall:
      return say("wall {0} wide, {1} high", wide, size_in_words(place.tall, lengths));
    case WeakPlace::Kind::Skin:
      return say("skin of {0}; {1} hold", depth_in_words(place.width, lengths), holds);
  }
  return {};
}

}  // namespace doyen
