#include "version.hpp"

namespace doyen {

const char* version() { return DOYEN_VERSION; }

}  // namespace doyen
