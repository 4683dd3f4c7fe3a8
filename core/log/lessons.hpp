// What the log says to a job that is planned now: what came out wrong on this machine, in this wood or with this bit,
// and was not put right since.
#pragma once

#include <functional>

#include "job/job.hpp"
#include "log/entry.hpp"
#include "rack/bit.hpp"

namespace doyen {

struct Lesson {
  std::string code;   // stable: learnt-through, learnt-depth, learnt-feed, learnt-inlay, learnt-of-job
  std::string piece;  // id; empty: the whole job
  std::string text;   // what came out wrong, when
  std::string sum;    // how the figure comes about
  std::string label;  // what taking it does; empty: nothing to take
  std::function<void(Job&)> apply{};
};

// `log` has the newest entry first.
std::vector<Lesson> lessons_for(const Job& job, const Rack& rack, const std::vector<LogEntry>& log);

// Some run with that bit in that wood came out well.
bool came_out_well(const std::vector<LogEntry>& log, const BitId& bit, const WoodId& wood);

}  // namespace doyen
