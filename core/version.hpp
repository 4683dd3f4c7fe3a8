// Which Doyen this is.
#pragma once

namespace doyen {

const char* version();  // such as "0.1.0"

}  // namespace doyen
