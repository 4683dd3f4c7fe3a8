// What a plan hands over: G-code, the plan as data, the relief; and the files read back against the plan's own moves.
#pragma once

#include <map>

#include "json_fwd.hpp"
#include "planning/plan.hpp"
#include "relief/height_field.hpp"

namespace doyen {

// The board as the plan's moves leave it, inside `area` (board coordinates) with cells of `cell` mm.
// `side` Back: as it lies with the back up, in that side's coordinates and with its own face as zero.
HeightField relief_of(const Plan& plan, const Box& area, double cell, const Cancel& cancel = {},
                      Side side = Side::Front);

struct OutputFile {
  std::string name;
  std::string text;
};
// One file per bit, or one with pauses (machine profiles with tool numbers change by themselves).
std::vector<OutputFile> gcode_files(const Plan& plan);
std::string zero_in_words(const Job& job, Side side = Side::Front);
std::string turning_in_words(const Job& job);  // how the board is turned over between the sides

// `judge`: what judgement_json() says of the files.
Json plan_json(const Plan& plan);
Json plan_json(const Plan& plan, const Json& judge);

// Reads the files back with the independent reader, carves them and compares with the plan's relief.
struct ReadBack {
  double worst = 0;  // mm, the largest difference of any cell
  Point at;
  double cell = 0;  // mm
  std::size_t cells = 0;
  int rapids_in_wood = 0;
  [[nodiscard]] bool agrees() const { return worst <= 0.02 && rapids_in_wood == 0; }
};
ReadBack read_back(const Plan& plan, const std::vector<OutputFile>& files, double cell, const Cancel& cancel = {});

// Carves G-code files by a plan.json: the relief that the machine would leave. Texts by file name.
// Throws Problem{BadInput} when the plan or a file is not as expected.
HeightField carve_files(const Json& plan, const std::string& where, const std::map<std::string, std::string>& files,
                        double cell, Side side = Side::Front);

}  // namespace doyen
