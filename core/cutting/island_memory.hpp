// Islands whose groove somebody still holds: a letter that only moved is not worked out again. Internal to cutting/.
#pragma once

#include <memory>

#include "cutting/groove.hpp"

namespace doyen {

// As plan_island() has it. Islands that are equal but for their place share one. May be asked from any thread.
std::shared_ptr<const IslandGroove> remembered_island(const Island& island, const GrooveShape& shape);

}  // namespace doyen
