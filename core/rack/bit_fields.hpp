// The rack as it stands in its file, and feeds as they stand in a job's.
#pragma once

#include "fields/record.hpp"
#include "rack/bit.hpp"

namespace doyen {

const Record<Rack>& rack_fields();
// A job's own feeds: all of them are said.
const Record<Feeds>& job_feeds_fields();

}  // namespace doyen
