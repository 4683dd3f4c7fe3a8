#include "files/dxf/dxf_read.hpp"

#include "fuzz_target.hpp"
#include "problem.hpp"

using namespace doyen;

FUZZ_TARGET(dxf) {
  try {
    (void)read_dxf(bytes, "file");
  } catch (const Problem&) {
  }
}
