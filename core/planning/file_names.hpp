// What the machine's files are called: number, job, bit and what it does, told apart on a small display by how they
// begin. Letters, digits, dashes and points only.
#pragma once

#include <string>

#include "planning/runs.hpp"

namespace doyen {

// The job's name for it, whole words of it up to 13 letters, small: “Marrowby gate sign” becomes “marrowby-gate”;
// “Lid, plugs of maple” “lid-plugs”, “Labels, sheet 2 of 4” “labels-sheet-2”.
std::string job_in_file(const std::string& job);

// “02-marrowby-gate-v60-carve.nc”; “01-fingerpost-back-1-4in-up-clear.nc” where an end mill's direction tells two
// alike apart. `all_bits`: of all bits of a side, “01-marrowby-gate-all-bits.nc”.
std::string file_name(const std::string& job, int number, const BitRun& run, bool all_bits,
                      const std::string& ending = "nc");

// “00-marrowby-gate-look-round.nc”
std::string look_round_name(const std::string& job, Side side, const std::string& ending = "nc");

}  // namespace doyen
