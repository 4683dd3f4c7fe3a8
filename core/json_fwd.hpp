// JSON by name only: whoever looks inside includes json_reading.hpp.
#pragma once

#include <nlohmann/json_fwd.hpp>

namespace doyen {

using Json = nlohmann::ordered_json;

}  // namespace doyen
