// G-code out and in. The words are those of ISO 6983-1 and NIST's RS274/NGC report (NISTIR 6556); see docs/gcode.md.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cutting/pass.hpp"
#include "job/job.hpp"
#include "machine/motion.hpp"
#include "machine/profile.hpp"
#include "rack/bit.hpp"
#include "run/placement.hpp"

namespace doyen {

struct GcodeJob {
  std::string title;  // such as the job's name
  std::string zero;   // what zero means, in words
  Placement placed;
  struct Part {
    const Bit* bit = nullptr;
    Feeds feeds;
    int number = 1;  // in the run's order; the tool number where the machine has them
    std::vector<const std::vector<Pass>*> passes;
    bool arcs = false;                  // round stretches, level or evenly sinking, may be written as arcs
    std::vector<double> feed_shares{};  // along `passes`: of the feed; missing ones are 1
  };
  std::vector<Part> parts{};       // one, or all for one file with pauses
  std::optional<Travel> travel{};  // how high between passes; none: always at the machine's clearance
};

// Throws Problem{BadInput} when a coordinate is not a number or lies farther from the work than the machine travels.
std::string write_gcode(const GcodeJob& job, const MachineProfile& machine);

// Once round a box with the spindle off, at one height, at half the machine's pace; then back over zero. In the file's
// coordinates, mm.
struct LookRound {
  std::string title, zero;
  Box box;
  double height = 0;
};
std::string write_look_round(const LookRound& look, const MachineProfile& machine);

// What a file does, read back by the letter: metric, absolute, relative to zero.
struct GcodeSection {  // from one bit change or pause to the next
  struct Rapid {
    Point3 from, to;
    std::size_t before = 0;  // the pass that comes next
  };
  std::vector<Pass> passes;                // feed moves, arcs as chords of 0.001 mm
  std::vector<std::vector<double>> feeds;  // along `passes`, to each point, mm/min; the first of each says nothing
  std::vector<int> work;  // along `passes`: the number that a comment “(work 2)” or “; work 2” gave; 0 where none came
  std::vector<Rapid> rapids;
  double deepest = 0;     // mm, the lowest z of any feed move
  int rapid_in_wood = 0;  // rapid moves that go below `safe`
  double spindle = 0;
  double fastest_feed = 0;  // mm/min, of moves that go sideways
};
struct GcodeProgram {
  std::vector<GcodeSection> sections;
  bool ended = false;  // M2 or M30 came
};
// Independent of the writer. `face` is the height of the wood's face in the file's coordinates, mm.
// Throws Problem{BadInput} with line and word.
GcodeProgram read_gcode(const std::string& text, const std::string& where, double face = 0);

}  // namespace doyen
