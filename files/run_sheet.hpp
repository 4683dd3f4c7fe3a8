// The run sheet: the paper taken to the machine. Large, plain, complete.
#pragma once

#include <string>

#include "planning/judged.hpp"
#include "relief/picture.hpp"

namespace doyen {

// A PDF of A4 pages. `judgement` says what the written files do to the wood; `back` is the board's back where something
// is cut from it. Lengths in the job's unit.
std::string run_sheet_pdf(const Plan& plan, const Picture& board, const Judgement& judgement,
                          const Picture* back = nullptr);

}  // namespace doyen
