// One row of a list for other programs (RFC 4180): every entry in quotes, ended by CR LF.
#pragma once

#include <string>
#include <vector>

namespace doyen {

void add_csv_row(std::string& text, const std::vector<std::string>& row);

}  // namespace doyen
