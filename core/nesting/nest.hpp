// Boards that a job's cut-outs are laid on, close together: everything that is cut out, with what is cut into it,
// turned as the grain allows. The job stays as it is drawn; each board is a job of its own.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"
#include "nesting/pack.hpp"
#include "rack/bit.hpp"

namespace doyen {

// One part: an outline that is cut out, and what lies in it.
struct NestPart {
  std::string name;                 // such as “M of MARROWBY”
  std::string piece;                // that cuts it out
  Region shape;                     // mm, where it is drawn: its outline, and what its cuts take beside it
  std::vector<Item> items;          // its own pieces where they are drawn, as drawings, in the job's order
  std::vector<std::string> from{};  // along `items`: the job's pieces that they are of
};

struct NestParts {
  std::vector<NestPart> parts;
  // Pieces that would be cut, and are not: they lie in no part, or over several.
  std::vector<std::string> beside, over_several;
  double bit = 0;  // mm: the widest slit that parts them
  // The board as it is drawn is held by screws, or turned over onto pins: each that parts are laid on is, too.
  bool screws = false, pins = false;
};
// Throws Problem{BadInput} as outlines_of().
NestParts nest_parts(const Job& job, const Rack& rack);

struct NestedBoard {
  Job job;                         // a job like any other: the parts where they lie on it
  std::vector<std::size_t> parts;  // as indices of NestParts::parts
  double share = 0;                // 0 to 1, of the board's wood that is in its parts
};
struct Nested {
  NestParts drawn;
  std::vector<NestedBoard> boards;
  std::vector<std::size_t> without;  // parts that no board has room for
};
Nested nested(const Job& job, const Rack& rack);

// “Board 1: 12 parts, 64 % used”.
std::string board_in_words(const Nested& laid, std::size_t board);

// How far the boards' edges, clamps and faults keep from a part, mm.
double nest_margin(const Job& job, const NestParts& parts);

// “3 × 1200 × 600; 800 × 400”: how many (one where it is not said), from left to right, from front to back. Throws
// Problem{BadInput} for what is no such list.
std::vector<NestBoard> parse_nest_boards(const std::string& words, Unit unit);
std::string nest_boards_in_words(const std::vector<NestBoard>& boards, const LengthStyle& style);

}  // namespace doyen
