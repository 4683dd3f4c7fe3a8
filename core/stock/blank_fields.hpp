// The blank as it stands in a job's file.
#pragma once

#include "fields/record.hpp"
#include "stock/blank.hpp"

namespace doyen {

const Record<Blank>& blank_fields();

}  // namespace doyen
