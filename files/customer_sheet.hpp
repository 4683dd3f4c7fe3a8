// The customer's sheet: a page to look at, check letter by letter, and sign; with its price where that is wanted.
#pragma once

#include <string>
#include <vector>

#include "planning/plan.hpp"
#include "relief/picture.hpp"

namespace doyen {

struct ShownSign {
  const Plan& plan;
  const Picture& board;  // carved
  std::string price{};   // in words, such as quote_in_words(); empty: none stands on the sheet
};

// A4 as PDF, one page unless the wording is long. Of a job that is cut out only what is cut out is shown, in a setting
// of plain colour. Lengths in the job's unit. Two signs (not more) stand on it as A and B, to choose from.
std::string customer_sheet_pdf(const std::vector<ShownSign>& signs);
// The same as a PNG, to be sent and looked at; the PDF is what is printed true to size.
std::string customer_sheet_png(const std::vector<ShownSign>& signs);

// The wording as it is carved, a line each, in the order in which the pieces stand.
std::vector<std::string> carved_words(const Job& job);
// “M a r r o w b y  (8 letters)”: what a person checks letter by letter.
std::string spelled(const std::string& words);
// What the customer gets: the cut-outs' box, else the board; mm on the board.
Box finished_box(const Plan& plan);

}  // namespace doyen
