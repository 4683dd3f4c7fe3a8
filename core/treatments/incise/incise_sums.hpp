// The arithmetic of incised pieces.
#pragma once

#include <map>

#include "planning/sums.hpp"

namespace doyen {

Sum depth_sum(const Plan& plan, const std::string& piece);  // how deep a groove goes
Sum floor_sum(const Plan& plan, const std::string& piece);  // which strokes get a flat floor
// Seconds that every V bit of the rack would take for this incised piece, by bit id: each is planned for itself. Throws
// Cancelled.
using VSeconds = std::map<std::string, double>;
VSeconds v_seconds(const Plan& plan, const Rack& rack, const std::string& id, const Cancel& cancel = {});
// What every V of the rack would do here; `seconds` as v_seconds() found them, null leaves the times out.
Sum v_table_sum(const Plan& plan, const Rack& rack, const std::string& id, const VSeconds* seconds);
// What floor limits up to full depth would do here, each planned for itself, the knee of their times marked. Throws
// Cancelled.
Sum limit_table_sum(const Plan& plan, const Rack& rack, const std::string& id, const Cancel& cancel = {});
// Which of the points lies farthest from the straight line between the first and the last, both made of one height and
// width (the usual reckoning of a curve's knee; from memory, no source); past the end where the curve is as good as
// straight, within a tenth, or as good as level, within a twentieth. `at` rises.
std::size_t knee_of(const std::vector<double>& at, const std::vector<double>& of);
// The letters whose strokes are wider than the floor limit leaves pointed, in order, each once.
std::vector<std::string> letters_with_floor(const PiecePlan& piece);

}  // namespace doyen
