// The list of plates as it stands in a job's file.
#pragma once

#include "fields/record.hpp"
#include "plates/plate_list.hpp"

namespace doyen {

inline constexpr std::size_t kMostRows = 20'000, kMostColumns = 100;

const Record<PlateList>& plate_list_fields();
const Record<FromList>& from_list_fields();

}  // namespace doyen
