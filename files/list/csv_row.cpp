#include "files/list/csv_row.hpp"

#include <csv.h>

namespace doyen {

// By the package that lists are read with.
void add_csv_row(std::string& text, const std::vector<std::string>& row) {
  for (std::size_t i = 0; i < row.size(); ++i) {
    std::string entry(2 * row[i].size() + 2, '\0');
    entry.resize(csv_write(entry.data(), entry.size(), row[i].data(), row[i].size()));
    text += (i > 0 ? "," : "") + entry;
  }
  text += "\r\n";
}

}  // namespace doyen
