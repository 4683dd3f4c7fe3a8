// Where each plate of a list is found: a table of sheet, place, row of the list and its words; of strips, of their
// numbers, lengths and the boards that they are sawn from (CSV, RFC 4180).
#pragma once

#include <string>

#include "job/job.hpp"

namespace doyen {

std::string plates_found_csv(const Job& job);

}  // namespace doyen
