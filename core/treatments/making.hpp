// What the looks make operations with. Not for use outside treatments/.
#pragma once

#include <limits>

#include "cutting/clearing.hpp"
#include "treatments/piece_cuts.hpp"

namespace doyen::cutting {

struct Piece {
  const std::string& id;
  const Outlines& outlines;
  const Treatment& cut;
  const Blank& blank;
  const AskedRack& rack;
  const Cancel& cancel;
  const Surroundings& around;
  std::string wood;  // class
  const Bit* bit;    // its own, as chosen; null where the rack has none of that name

  [[nodiscard]] const Bit* of_kind(BitKind kind) const { return bit != nullptr && bit->kind == kind ? bit : nullptr; }
  // The same with other choices, or other surroundings, which must outlive it.
  [[nodiscard]] Piece with(const Treatment& choices) const {
    return {id, outlines, choices, blank, rack, cancel, around, wood, bit};
  }
  [[nodiscard]] Piece on(const Surroundings& other) const {
    return {id, outlines, cut, blank, rack, cancel, other, wood, bit};
  }
};

// An empty operation of this piece on its own ground; depth in mm below that.
Operation operation(const Piece& piece, Operation::Kind kind, const Bit& bit, double depth);

Region without_dust(Region region);
// Adds to what no chosen bit reaches.
void note_lost(PieceCuts& out, const Region& lost);

// Clears the floor down to `depth` below the piece's ground with its flat bits, large ones first, small ones only where
// they help; with `propose` the rack's fitting ones when none are chosen. Other work may go on beside it with what is
// cleared, where anything is.
void clear_with(const Piece& piece, const DrawnIn& floor, double depth, bool propose, PieceCuts& out,
                const WithCleared& with_cleared = {});

void upright_floor(const Piece& piece, const Region& region, double depth, PieceCuts& out);  // walls straight down

// Those of these ids that clear a floor of the piece, what levels most first.
std::vector<const Bit*> clearing_large_first(const Piece& piece);

// What is carved away by a V: its outline lies on the ground, or `sunk` mm below it, its flank running on upwards then.
struct GrooveAsked {
  const Region& region;
  double limit = std::numeric_limits<double>::infinity();  // mm, its floor's depth below the outline; infinite for none
  double sunk = 0;
  bool propose = true;   // flat bits for the floor where none are chosen
  bool v_alone = false;  // no flat bit at all: its tip goes over the floor, too
};
void groove(const Piece& piece, const Bit& v, const GrooveAsked& asked, PieceCuts& out);

}  // namespace doyen::cutting
