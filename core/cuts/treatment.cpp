#include "cuts/treatment.hpp"

namespace doyen {

const char* to_word(Treatment::Kind kind) {
  static constexpr const char* kWords[] = {"none", "incise", "cutout", "line"};
  return kWords[static_cast<int>(kind)];
}

}  // namespace doyen
