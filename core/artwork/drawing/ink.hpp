// Ink of a picture, pixel by pixel: its specks and holes by their true areas, and what was settled by hand.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

#include "cancel.hpp"

namespace doyen {

struct Ink {
  int width = 0, height = 0;         // px
  std::vector<std::uint8_t> pixels;  // width × height, row 0 at the top, 1 where there is ink
  [[nodiscard]] std::size_t at(int x, int y) const {
    return static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
  }
};

// A speck or hole that shall be ink, or paper, whatever its size; in px of the picture.
struct SettledPixel {
  int x = 0, y = 0;
  bool ink = false;
};

enum class Cleaned : std::uint8_t { AsItWas, Dropped, Filled };

// Fills holes (paper that meets no edge, joined by sides) of less than `holes` px², then drops specks (ink joined by
// sides or corners) of less than `specks` px²; settled ones are as was said. What hangs on the picture's edge is never
// filled. Says for each pixel what became of it. Throws Cancelled.
std::vector<Cleaned> clean_ink(Ink& ink, double specks, double holes, const std::vector<SettledPixel>& settled,
                               const Cancel& cancel = {});

// Whether light falls so unevenly on a picture of ink on paper that one cut by brightness takes shadow for ink, or
// light ink for paper: whether much of it is of brightnesses between ink and paper that change from place to place (a
// flat grey does not). `grey`: width × height, 0 black to 255 white. Common practice, thresholds from trials.
bool uneven_light(const std::vector<std::uint8_t>& grey, int width, int height);

}  // namespace doyen
