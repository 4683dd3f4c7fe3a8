// A verdict is told of a job, and goes with each of its remedies: the remedy is taken, and the job planned anew.
#pragma once

#include <catch2/catch.hpp>

#include "workbench.hpp"

namespace workbench {

// `mends` false for those that need not lift it.
inline void check_remedies_mend(
    const Job& job, const std::string& code,
    const std::function<bool(const Remedy&)>& mends = [](const Remedy&) { return true; }) {
  INFO(code);
  const Plan p = planned(job);
  const Verdict* verdict = find(p, code);
  REQUIRE(verdict != nullptr);
  REQUIRE_FALSE(verdict->remedies.empty());
  for (const Remedy& remedy : verdict->remedies) {
    INFO(remedy.label);
    Job mended = job;
    remedy.apply(mended);
    CHECK_FALSE(mended == job);
    if (mends(remedy)) CHECK(find(planned(mended), code) == nullptr);
    CHECK_NOTHROW(read_job(write_job(mended), "mended"));
  }
}

}  // namespace workbench
