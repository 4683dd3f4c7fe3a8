#include "relief/cell_paint.hpp"

namespace doyen {

std::uint8_t CellPaint::number_of(const Coat& coat) {
  for (std::size_t i = 0; i < coats.size(); ++i) {
    const Coat& one = coats[i];
    if (one.colour.red == coat.colour.red && one.colour.green == coat.colour.green &&
        one.colour.blue == coat.colour.blue && one.wood == coat.wood && one.grain == coat.grain)
      return static_cast<std::uint8_t>(i + 1);
  }
  constexpr std::size_t kMost = 255;
  if (coats.size() >= kMost) return 0;
  coats.push_back(coat);
  return static_cast<std::uint8_t>(coats.size());
}

CellPaint face_and_cuts(const HeightField& field, const std::optional<Colour>& face,
                        const std::optional<Colour>& cuts) {
  CellPaint paint;
  if (!face && !cuts) return paint;
  const std::uint8_t on_face = face ? paint.number_of({*face}) : 0, in_cuts = cuts ? paint.number_of({*cuts}) : 0;
  paint.of.resize(field.columns() * field.rows());
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c)
      paint.of[r * field.columns() + c] = field.at(c, r) < kCarvedBelow ? in_cuts : on_face;
  }
  return paint;
}

}  // namespace doyen
