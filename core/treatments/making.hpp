// How each treatment becomes operations: piece_cuts.cpp puts them together. Not for use outside cuts/.
#pragma once

#include <functional>

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
};

// An empty operation of this piece on its own ground; depth in mm below that.
Operation operation(const Piece& piece, Operation::Kind kind, const Bit& bit, double depth);

Region without_dust(Region region);
// Adds to what no chosen bit reaches.
void note_lost(PieceCuts& out, const Region& lost);

// Clears the floor down to `depth` below the piece's ground with its flat bits, large ones first, small ones only where
// they help; with `propose` the rack's fitting ones when none are chosen. Returns what was cleared.
Region clear_with(const Piece& piece, const Region& floor, double depth, bool propose, PieceCuts& out);

void upright_floor(const Piece& piece, const Region& region, double depth, PieceCuts& out);  // walls straight down
// A sunk ground in even steps (geometry.md, grounds): `step` cuts one of them into its own cuts.
void terraces(const Piece& piece, double flank_run, PieceCuts& out,
              const std::function<void(const Piece&, const Region&, double depth, PieceCuts&)>& step);
void recess(const Piece& piece, PieceCuts& out);
void plane(const Piece& piece, PieceCuts& out);
void pierce(const Piece& piece, const Bit& flat, PieceCuts& out);
void cut_out(const Piece& piece, const Bit& flat, PieceCuts& out);
void bevel(const Piece& piece, const Bit& v, PieceCuts& out);
void drill(const Piece& piece, const Bit& bit, PieceCuts& out);
void hanger_slot(const Piece& piece, const Bit& keyhole, PieceCuts& out);

}  // namespace doyen::cutting
