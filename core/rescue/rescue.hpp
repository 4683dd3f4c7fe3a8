// A spoiled board: what can be done now, as jobs of their own on the same board and the same zero.
#pragma once

#include "geometry/region.hpp"
#include "log/entry.hpp"
#include "planning/plan.hpp"

namespace doyen {

// A letter of a lettering, or an island of another piece: what can break by itself.
struct PartOfPiece {
  std::string name;  // “no. 3, “r””
  Region region;     // mm on the board
};
// In the order of the words; an i and its dot are one. Empty where the piece is one whole, is cut from the back, or
// together with others (raised, let in): then only all of it is cut again.
std::vector<PartOfPiece> parts_of_piece(const Plan& plan, const std::string& id);

// What is cut anew: pieces, or one part of one.
struct CutAnew {
  std::vector<std::string> pieces;    // ids
  std::optional<std::size_t> part{};  // of the one piece, counted from 0
};

// Only these are cut, as they were; all raised pieces of a ground go together. Throws Problem{BadInput} for none.
Job only_these(const Plan& plan, const CutAnew& anew);

// A recess with upright walls round each, 2 mm deeper than was cut there, and its patch from the same wood with the
// grain along the board's. It can be let in level, and then only_these() cuts the letter again. Throws
// Problem{BadInput} where too little wood would stay below.
Job patch_for(const Plan& plan, const CutAnew& anew);

// The face planed down by so much, and everything cut again: depths follow the new thickness. Throws Problem{BadInput}
// where nothing would stay.
Job planed(const Job& job, double off);
// Cut again in the same place, what is left of the old cuts disappears in the new ones: then a little is enough (common
// practice, no source). mm.
inline constexpr double kUsuallyPlaned = 1.5;
// How much must come off so that nothing of what was cut stays, for what is cut elsewhere. mm.
double planed_clean(const Plan& plan);

// Everything smaller, about the board's middle, so that it lies within the margin: what ran off the edge, planed and
// cut again. Throws Problem{BadInput} where it lies within it already, or something cannot be scaled.
Job within_margin(const Plan& plan);

// Everything moved by the least that brings it within the margin, as large as it is: what ran off the edge, on a board
// planed clean or turned over. Throws Problem{BadInput} where it lies within it already, or is too large for that.
Job moved_within(const Plan& plan);

// A board of the same wood with what fills these: plugs for grooves, with the same V, inserts for recesses and
// openings, a millimetre proud; inlays' plugs again, put right by what was seen of them. Throws Problem{BadInput} for
// what cannot be filled so, and for pieces that need several boards.
Job fill_piece_for(const Plan& plan, const CutAnew& anew, const std::vector<MishapSeen>& mishaps = {});

// What to do first, in words: glue, leave it on the machine, find zero again; common practice, no source.
std::vector<std::string> first_aid(Mishap mishap);

// Which of those above can help; and the rest of a file, or a deeper round, which “If it was stopped” writes.
enum class Rescue { OnlyThese, Patch, Planed, WithinMargin, MovedWithin, FillPiece, RestOfFile };
std::vector<Rescue> rescues_for(Mishap mishap);

}  // namespace doyen
