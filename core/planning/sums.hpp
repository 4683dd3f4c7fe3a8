// The arithmetic behind a number, with the figures put in: what a ticket opens when asked how it comes about.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "planning/plan.hpp"

namespace doyen {

struct Sum {
  std::string title;               // such as “How 0.289 in comes about”
  std::vector<std::string> lines;  // one step a line, figures in
  std::string result;              // the last line
};

Sum depth_sum(const Plan& plan, const std::string& piece);     // how deep a groove goes
Sum floor_depth_sum(const Plan& plan, const std::string& id);  // recesses, raised grounds, bevels, holes, planed areas
Sum clearing_sum(const Plan& plan, const std::string& id);     // which flat bits clear a floor, and why
// Seconds that every V bit of the rack would take for this incised piece, by bit id: each is planned for itself. Throws
// Cancelled.
using VSeconds = std::map<std::string, double>;
VSeconds v_seconds(const Plan& plan, const Rack& rack, const std::string& id, const Cancel& cancel = {});
// What every V of the rack would do here; `seconds` as v_seconds() found them, null leaves the times out.
Sum v_table_sum(const Plan& plan, const Rack& rack, const std::string& id, const VSeconds* seconds);
Sum floor_sum(const Plan& plan, const std::string& piece);    // which strokes get a flat floor
Sum through_sum(const Plan& plan, const std::string& piece);  // how deep a cut-out goes
Sum bed_sum(const Plan& plan, const std::string& piece);      // how far the bed is marked
Sum time_sum(const Plan& plan);                               // the whole run
Sum run_time_sum(const Plan& plan, std::size_t run);          // one bit's time and the feed it reaches
Sum chip_sum(const Plan& plan, std::size_t run);              // feed = rpm × flutes × chip load
Sum run_sum(const Plan& plan, std::size_t run);               // both of them
// How much resin fills it level; its moves are carved for it. Throws Cancelled.
Sum resin_sum(const Plan& plan, const std::string& id, const Cancel& cancel = {});
Sum weight_sum(const Blank& blank);    // the blank's weight from density
Sum movement_sum(const Blank& blank);  // across the grain for 4 per cent of moisture

// The letters whose strokes are wider than the floor limit leaves pointed, in order, each once.
std::vector<std::string> letters_with_floor(const PiecePlan& piece);

}  // namespace doyen
