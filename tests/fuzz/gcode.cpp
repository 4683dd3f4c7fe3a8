#include "run/gcode.hpp"

#include "fuzz_target.hpp"
#include "problem.hpp"

using namespace doyen;

FUZZ_TARGET(gcode) {
  try {
    (void)read_gcode(bytes, "file");
  } catch (const Problem&) {
  }
}
