// A test cut: what is hardest in a job, cut small in the same wood by the same bits, before the sign itself is.
#pragma once

#include "planning/plan.hpp"

namespace doyen {

// The bits of grooves and raised letters, of floors, openings, lines, holes and parts cut out, that were never tested
// in this board's wood (Bit::tested), nor came out well in it by the log, in the order in which they are used. Inlays
// have their ladder (inlay/ladder.hpp).
std::vector<BitId> untested(const Plan& plan);

// Of all that a V cuts in the job: its narrowest and its widest stroke, a pointed corner, and two
// strokes with the tightest gap that lies within a piece, cut as they are there; and of all
// else one sample for each set of bits, as deep as there: a floor, an opening, a part with its tabs, a line, a hole. A
// job of its own on a piece of the same wood, with a border of 15 mm. Throws Problem{BadInput} when nothing of it is in
// the job, and Cancelled.
Job test_cut_job(const Plan& plan, const Cancel& cancel = {});

// What a test that came out well says to the rack: those bits are tested in that wood. False where nothing was new.
bool keep_tested(Rack& rack, const Job& test);

}  // namespace doyen
