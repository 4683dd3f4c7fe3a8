// The log as text: to be searched, and for other programs.
#pragma once

#include <string>
#include <vector>

#include "log/entry.hpp"
#include "measure/length.hpp"

namespace doyen {

// Every word of the search stands somewhere in the entry: job, wood, machine, bits, mishaps, words, date. Case does not
// matter.
bool matches(const LogEntry& entry, const std::string& search);

// “not through, by 0.3 mm; rough or torn, with 60° V, 1/2 in body”.
std::string outcome_in_words(const LogEntry& entry, const LengthStyle& lengths);

std::string log_json(const std::vector<LogEntry>& entries);  // "doyen-log/1", everything but pictures
// Throws Problem{BadInput}.
std::vector<LogEntry> read_log_json(const std::string& json, const std::string& where);

}  // namespace doyen
