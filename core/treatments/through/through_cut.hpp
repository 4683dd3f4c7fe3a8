// What pierced openings and cut-outs have in common when they are cut.
#pragma once

#include "treatments/making.hpp"

namespace doyen::cutting {

// The bit, the wood and the choices of a piece that goes right through.
CutOutShape through_shape(const Piece& piece, const Bit& flat);
// From the face down, whatever the piece lies on.
Operation through_operation(const Piece& piece, Operation::Kind kind, const Bit& flat, const CutOutShape& shape);
void finish_through(const CutOutShape& shape, PieceCuts& out);

}  // namespace doyen::cutting
