// The cut list of strips from a list: which board is sawn into which, on paper for the saw.
#pragma once

#include <string>

#include "job/job.hpp"

namespace doyen {

// A PDF of A4 pages: each board with its strips, their numbers, words and lengths, boxes to tick. Where no boards are
// named, only the strips.
std::string cut_list_pdf(const Job& job);

}  // namespace doyen
