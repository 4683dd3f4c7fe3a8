// One piece's plan: its outlines, what lies round it, how it is cut.
#pragma once

#include <memory>
#include <string>

#include "cancel.hpp"
#include "job/job.hpp"
#include "treatments/piece_cuts.hpp"

namespace doyen {

struct PiecePlan {
  Outlines outlines;
  Surroundings around;
  PieceCuts cuts;
  std::string problem;    // why the piece could not be set; empty when all is well
  std::uint64_t key = 0;  // another number for every one that was worked out
};

// The outlines alone: a plan of a piece without cuts.
std::shared_ptr<const PiecePlan> set_piece(const Job& job, const Item& item);

class PlacedCuts;

// The piece as it was set, cut: on each of the grounds that it lies on, from the side that was asked for. Throws
// Cancelled; other trouble is the plan's `problem`.
std::shared_ptr<const PiecePlan> cut_set_piece(const PiecePlan& set, const Item& item, const Surroundings& around,
                                               const Job& job, PlacedCuts& placed);

// On a board that cuts run off: its moves end just past those sides, its tabs and holes are those on the board.
std::shared_ptr<const PiecePlan> kept_to_board(std::shared_ptr<const PiecePlan> piece, const Job& job,
                                               const Rack& rack);

}  // namespace doyen
