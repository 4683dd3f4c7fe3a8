// A plan's run as an entry of the log, before anything is said of how it came out.
#pragma once

#include "log/entry.hpp"
#include "planning/plan.hpp"

namespace doyen {

// `before`: the last entry of the same job, with its text; what was changed since is said. `file`: where the job is
// kept. `made`: UTC.
LogEntry entry_of(const Plan& plan, const std::string& file, const std::string& made, const LogEntry* before = nullptr);

// The bit that makes an inlay's flanks: its V, or the first of its flat bits.
BitId flank_bit(const Treatment& cut);

// The same for the same job: how often it was made and what was accepted do not count.
std::string fingerprint(const Job& job);

// What differs between two job files, by the names of pieces and the files' own keys (docs/job-format.md), such as
// “Marrowby”, depth: 2 → 6. Lengths in mm. Of lists of figures only that they differ, and at most forty lines.
std::vector<std::string> what_changed(const std::string& before, const std::string& after);

// The newest entry of this job: by its fingerprint, else by its file, else by its name, unless that is a new job's.
// `log` has the newest first; null for none.
const LogEntry* last_of(const Job& job, const std::string& file, const std::vector<LogEntry>& log);

}  // namespace doyen
