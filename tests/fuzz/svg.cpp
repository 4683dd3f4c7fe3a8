#include "files/svg/svg_read.hpp"

#include "fuzz_target.hpp"
#include "problem.hpp"

using namespace doyen;

FUZZ_TARGET(svg) {
  try {
    (void)read_svg(bytes, "file");
  } catch (const Problem&) {
  }
}
