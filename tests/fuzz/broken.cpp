#include <cstdio>
#include <cstdlib>

#include "fuzz_target.hpp"

namespace fuzz {

void broken(const std::string& promise) {
  std::fprintf(stderr, "promise broken: %s\n", promise.c_str());
  std::abort();
}

}  // namespace fuzz
