// Lists of what stands on plates: CSV (RFC 4180) and what programs make of it: tabs or semicolons between the columns,
// UTF-8, UTF-16 or Western European letters of one byte.
#pragma once

#include <string>
#include <vector>

#include "files/reading.hpp"
#include "plates/plate_list.hpp"

namespace doyen {

enum class Headings { Found, First, None };  // found: by what the first row says; in the first row; there are none

struct ListRead {
  std::vector<std::string> columns;
  std::vector<ListRow> rows;       // as long as `columns`; rows that say nothing at all are left out
  bool headings = false;           // the first row was taken for them
  char between = ',';              // what stands between the columns
  std::vector<std::string> notes;  // what was done to read it, a sentence each
};

// `where` names it in sentences. Throws Problem{BadInput} for what is no list: broken quotes, nothing in it, too many
// rows or columns, bytes that are no text.
ListRead read_list(const std::string& bytes, const std::string& where, Headings headings = Headings::Found,
                   const Reading& reading = Reading());

}  // namespace doyen
