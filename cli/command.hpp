// A command of doyen-cli: a file of its own, and a line in main.cpp's list.
#pragma once

#include <functional>
#include <stdexcept>
#include <string>

#include "cli/arguments.hpp"
#include "job/job.hpp"
#include "planning/plan.hpp"
#include "rack/own_rack.hpp"

namespace doyen::cli {

// How the program ends.
inline constexpr int kFine = 0, kStop = 1, kUsage = 2, kBadInput = 3, kCannotWrite = 4;

// The words themselves make no sense: ends with kUsage.
struct Usage : std::runtime_error {
  using std::runtime_error::runtime_error;
};

struct Command {
  const char* name;
  const char* about;
  // Says what it takes, and returns what it does, which returns how the program ends. May throw Usage and Problem.
  std::function<std::function<int()>(Arguments&)> make;
};

Command plan_command();
Command check_command();
Command fit_command();
Command ladder_command();
Command testcut_command();
Command again_command();
Command list_command();
Command finish_command();
Command log_command();
Command rescue_command();
Command offcuts_command();
Command relief_command();
Command import_command();
Command text_command();
Command outlines_command();
Command readback_command();
Command keys_command();
Command ways_command();
Command customer_command();

// What several of them share.
Plan plan_of(const Job& job, const std::string& unit = {});
void say_verdicts(const Plan& plan);
// What a look makes no use of is kept, but said.
void say_unused(const Job& job);
double cell_of(const std::string& text);  // mm, of “0.1mm”

}  // namespace doyen::cli
