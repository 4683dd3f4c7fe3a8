// How pieces are cut wherever they lie: worked out as if a piece stood upright and its box began at zero, then put in
// its place. So a piece that was only moved or turned is not worked out again, and cuts alike in every place.
#pragma once

#include <optional>
#include <string>

#include "cancel.hpp"
#include "job/job.hpp"
#include "planning/plan_cache.hpp"
#include "rack/asked_rack.hpp"
#include "treatments/piece_cuts.hpp"

namespace doyen {

// A turned piece as it stood before it was turned about that point.
struct Upright {
  Outlines outlines;
  double degrees = 0;  // counter-clockwise
  Point about;         // mm on the board
};

// The piece upright; none where it is not turned, or is not cut alike however it is turned.
std::optional<Upright> upright(const Job& job, const Item& item, const Surroundings& around);

class PlacedCuts {
 public:
  PlacedCuts(const Rack& rack, PlanCache& cache, const Cancel& cancel) : rack_(rack), cache_(cache), cancel_(cancel) {}
  // As cut_piece() has it.
  PieceCuts cut(const std::string& id, const Outlines& outlines, const Treatment& treatment, const Blank& blank,
                const Surroundings& around);
  // The same of what is turned.
  PieceCuts cut(const std::string& id, const Upright& piece, const Treatment& treatment, const Blank& blank,
                const Surroundings& around);
  // What all of that asked of the rack.
  [[nodiscard]] const AskedRack::Asked& asked() const { return asked_; }

 private:
  // With the walls of its ground left out.
  PieceCuts without_floor(const std::string& id, const Outlines& outlines, const Treatment& treatment,
                          const Blank& blank, const Surroundings& around);

  const Rack& rack_;
  PlanCache& cache_;
  const Cancel& cancel_;
  AskedRack::Asked asked_;
};

}  // namespace doyen
