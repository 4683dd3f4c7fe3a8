// Lists that are typed into one field, such as “600; 1200”.
#pragma once

#include <algorithm>
#include <string>
#include <vector>

namespace doyen {

// What stands between the semicolons; what is blank is left out.
inline std::vector<std::string> list_entries(const std::string& words) {
  std::vector<std::string> entries;
  for (std::size_t at = 0; at <= words.size();) {
    const std::size_t end = std::min(words.find(';', at), words.size());
    std::string entry = words.substr(at, end - at);
    at = end + 1;
    if (entry.find_first_not_of(" \t") != std::string::npos) entries.push_back(std::move(entry));
  }
  return entries;
}

}  // namespace doyen
