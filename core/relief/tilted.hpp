// The carved board lying on a table, seen from any side under a light from any side; drawn on the processor alone.
#pragma once

#include <memory>

#include "relief/picture.hpp"

namespace doyen {

// Where one stands and how near.
struct Stance {
  double turn = -16;  // degrees: the board's right end comes nearer above zero
  double tilt = 50;   // degrees: 0 straight from above, 90 along the table
  double zoom = 1;    // 1: all of it is seen
  Point towards;      // mm on the board, from its middle: what lies in the picture's middle
};
// Where the light comes from.
struct LightPlace {
  double from = 133;   // degrees on the board, counter-clockwise from its right
  double height = 40;  // degrees above the table
  friend bool operator==(const LightPlace&, const LightPlace&) = default;
};

class TiltedBoard {
 public:
  // `carved` covers the board; finer than the screen's points is of no use. `paint`: along its cells. Throws Cancelled.
  TiltedBoard(const HeightField& carved, const WoodLook& look, const CellPaint& paint = {}, const LightPlace& lamp = {},
              const Cancel& cancel = {});
  ~TiltedBoard();
  TiltedBoard(const TiltedBoard&) = delete;
  TiltedBoard& operator=(const TiltedBoard&) = delete;

  // The light's own pass over the board: as costly as its picture from above.
  void light(const LightPlace& lamp, const Cancel& cancel = {});
  // What is seen in so many pixels; `table`: the colour (0xAARRGGBB) of what it lies on.
  [[nodiscard]] Picture seen(const Stance& stance, std::size_t width, std::size_t height, std::uint32_t table) const;
  // Pixels a millimetre across the picture, from that stance.
  [[nodiscard]] double scale(const Stance& stance, std::size_t width, std::size_t height) const;
  // Where a place (mm on the board, z above its face) comes to lie, pixels from the left and the top.
  [[nodiscard]] Point on_picture(const Stance& stance, std::size_t width, std::size_t height, Point at, double z) const;

  struct Inside;  // of those who draw it

 private:
  std::unique_ptr<Inside> in_;
};

}  // namespace doyen
