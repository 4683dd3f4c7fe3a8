// How pieces are cut wherever they lie: worked out as if a piece's box began at zero, then put in its place. So a piece
// that was only moved is not worked out again, and cuts alike in every place.
#pragma once

#include <string>

#include "cancel.hpp"
#include "planning/plan_cache.hpp"
#include "rack/asked_rack.hpp"
#include "treatments/piece_cuts.hpp"

namespace doyen {

class PlacedCuts {
 public:
  PlacedCuts(const Rack& rack, PlanCache& cache, const Cancel& cancel) : rack_(rack), cache_(cache), cancel_(cancel) {}
  // As cut_piece() has it.
  PieceCuts cut(const std::string& id, const Outlines& outlines, const Treatment& treatment, const Blank& blank,
                const Surroundings& around);
  // What all of that asked of the rack.
  [[nodiscard]] const AskedRack::Asked& asked() const { return asked_; }

 private:
  const Rack& rack_;
  PlanCache& cache_;
  const Cancel& cancel_;
  AskedRack::Asked asked_;
};

}  // namespace doyen
