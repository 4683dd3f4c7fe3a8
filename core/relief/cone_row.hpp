// The lowest surface that a sharp cone leaves along one straight move, for a row of cells at a time.
#pragma once

namespace doyen {

// The move, seen from its start: s runs along it in plan, z = z0 + slope·s.
struct ConeMove {
  double x0, y0, z0, dx, dy, len, slope;  // (dx, dy) of length one
  double steep;                           // mm of height a mm away from the cone's axis; more than |slope|
  double shift;                           // how far the lowest s lies before a cell's foot, per mm beside the move
  double body;                            // mm, where the cone ends
};
struct ConeRow {
  double left, cell;  // mm: cell number c of the row has its middle at left + (c + 0.5)·cell
  int first, count;
  double y;  // mm from the move's start
};

// One height a cell into `z`; false where any lies beyond the cone's body, and its height is not told. The same
// figures, to the last bit, whatever the processor can do.
bool cone_row(const ConeMove& move, const ConeRow& row, float* z);

}  // namespace doyen
