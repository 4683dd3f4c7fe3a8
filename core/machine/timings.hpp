// How long machines really ran, against what was told: what each is told by from then on.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace doyen {

struct Timed {
  double told = 0, took = 0;  // s of all files of a board, bit changes left out
};

struct Timings {
  std::map<std::string, std::vector<Timed>> of;  // by the machine's id, the last one last
  // What the machine takes longer than its figures say: all that it took over all that was told. None: never timed.
  [[nodiscard]] std::optional<double> factor(const std::string& machine) const;
};

// What is likely for so many seconds told: as the machine was timed, or a range where it never was (5 % less to 30 %
// more: from memory, no source). Seconds.
struct Likely {
  double from = 0, to = 0;
};
Likely likely_seconds(double told, std::optional<double> factor);

// What stands there and in the log, the newest twenty of each machine; what cannot be read is as if it were not there.
Timings known_timings();
// “likely 22 min to 28 min: never timed”, or one figure where the machine was; `besides`, s, is added as it is: the
// changes of bits.
std::string likely_in_words(double told, const std::string& machine, double besides = 0);

// Took so much less or so much longer (0.3 or 4 times; from memory, no source) that it was something else: another
// unit, another job.
bool unlikely(const Timed& timed);

Timings read_timings(const std::string& json, const std::string& where);  // throws Problem{BadInput}
// Where earlier Doyens kept them, under the XDG data folder: it is read, and the log holds what came since.
std::string timings_path();
Timings load_timings();  // of that file; empty where there is none. Throws Problem

}  // namespace doyen
