// The arithmetic behind a number, with the figures put in: what a ticket opens when asked how it comes about.
#pragma once

#include <string>
#include <vector>

#include "planning/plan.hpp"

namespace doyen {

struct Sum {
  std::string title;               // such as “How 0.289 in comes about”
  std::vector<std::string> lines;  // one step a line, figures in
  std::string result;              // the last line
  std::string page{};              // of the guide: why it is so, and when it matters
};

Sum floor_depth_sum(const Plan& plan, const std::string& id);  // recesses, raised grounds, bevels, holes, planed areas
Sum clearing_sum(const Plan& plan, const std::string& id);     // which flat bits clear a floor, and why
Sum time_sum(const Plan& plan);                                // the whole run
// Seconds that this run would take less at a share (such as 1.5) of the feed asked for, plunges as they are.
double saved_by_feed(const Plan& plan, std::size_t run, double share);
Sum run_time_sum(const Plan& plan, std::size_t run);  // one bit's time and the feed it reaches
Sum chip_sum(const Plan& plan, std::size_t run);      // feed = rpm × flutes × chip load
Sum run_sum(const Plan& plan, std::size_t run);       // both of them
// How much resin fills it level; its moves are carved for it. Throws Cancelled.
Sum resin_sum(const Plan& plan, const std::string& id, const Cancel& cancel = {});
Sum weight_sum(const Blank& blank, const LengthStyle& lengths);    // the blank's weight from density
Sum movement_sum(const Blank& blank, const LengthStyle& lengths);  // across the grain for 4 per cent of moisture

}  // namespace doyen
