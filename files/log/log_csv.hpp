// The log for a spreadsheet: RFC 4180, UTF-8, a heading and one row an entry, the newest first. Lengths in mm, times in
// s, feeds in mm/min; what there may be several of stands in one cell, parted by “; ”.
#pragma once

#include <string>
#include <vector>

#include "log/entry.hpp"

namespace doyen {

std::string log_csv(const std::vector<LogEntry>& entries);

}  // namespace doyen
