// The carved board as wood under a light from the upper left.
#pragma once

#include <cstdint>
#include <vector>

#include "cancel.hpp"
#include "relief/cell_paint.hpp"
#include "relief/height_field.hpp"
#include "stock/blank.hpp"
#include "stock/species.hpp"

namespace doyen {

struct Picture {
  std::size_t width = 0, height = 0;
  std::vector<std::uint32_t> pixels;  // 0xAARRGGBB, row 0 at the top (the farthest from the user)
  [[nodiscard]] std::uint32_t at(std::size_t x, std::size_t y) const { return pixels[y * width + x]; }
};

struct WoodLook {
  Species species;
  Grain grain = Grain::AlongWidth;
  double thickness = 19;  // mm; cells lower than this show the bed
  Box board;              // cells outside are transparent
  Region edge;            // of boards that are no rectangle: so are cells outside this
};

// One pixel from every `shrink` × `shrink` cells, averaged.
Picture lit_picture(const HeightField& field, const WoodLook& look, std::size_t shrink = 1, const Cancel& cancel = {},
                    const CellPaint& paint = {});

// Only what a change of the field inside `changed` can show: its shadows and the light round it, too. The picture was
// made from this field as it was before, with the same look and `shrink`; when cancelled it is half of either.
void light_again(Picture& picture, const HeightField& field, const WoodLook& look, std::size_t shrink,
                 const Box& changed, const Cancel& cancel = {}, const CellPaint& paint = {});

// The wood's own colour at a place inside the board, before any light: for pictures and section strips alike.
Colour wood_colour(const Species& species, Grain grain, double x, double y, double z);

WoodLook wood_look(const Blank& blank);

}  // namespace doyen
