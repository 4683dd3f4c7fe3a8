#include "fuzz_target.hpp"
#include "problem.hpp"
#include "rack/bit.hpp"

using namespace doyen;

FUZZ_TARGET(rack) {
  try {
    const Rack rack = read_rack(bytes, "rack");
    try {
      if (!(read_rack(write_rack(rack), "rack") == rack)) fuzz::broken("a rack is written as it was read");
    } catch (const Problem& problem) {
      fuzz::broken(std::string("a rack that was read can be written and read: ") + problem.what());
    }
  } catch (const Problem&) {
  }
}
