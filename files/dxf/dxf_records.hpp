// A DXF's records as a cautious reader hands them on: nothing in them that a drawing does not need, nothing that
// declares more than it holds, no line longer than a reader takes.
#pragma once

#include <cstddef>
#include <map>
#include <string>

#include "files/reading.hpp"

namespace doyen {

struct DxfRecords {
  std::string text;                             // what is handed on
  std::map<std::string, std::size_t> left_out;  // by what it is, how often
  bool ended = false;                           // the file's own end mark was there
};

// Group codes as in the published DXF reference. Only entities that make outlines are kept; left out and counted are
// those on paper space (67), invisible (60), and on layers that are frozen (70, bit 1) or switched off (62 below 0).
// Throws Problem{BadInput} for binary files and for records that declare more points than they hold.
DxfRecords sound_records(const std::string& text, Reading& reading);

}  // namespace doyen
