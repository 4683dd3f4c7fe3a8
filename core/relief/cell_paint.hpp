// Colours on the cells of a board, for its pictures.
#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "relief/height_field.hpp"
#include "stock/species.hpp"

namespace doyen {

// What lies on a cell: paint, or another wood that is let in.
struct Coat {
  Colour colour{};
  const Species* wood = nullptr;  // with its own grain, which runs so; null: paint
  Grain grain = Grain::AlongWidth;
};

struct CellPaint {
  std::vector<std::uint8_t> of{};  // along the field's cells, row after row: 0 is bare wood; empty: all of it is
  std::vector<Coat> coats{};       // what 1, 2, … of those stand for
  // Null for bare wood.
  [[nodiscard]] const Coat* at(std::size_t cell) const {
    const std::size_t number = cell < of.size() ? of[cell] : 0;
    return number == 0 || number > coats.size() ? nullptr : &coats[number - 1];
  }
  // The number of a coat, added where it is new; 0 when there are too many.
  std::uint8_t number_of(const Coat& coat);
};

inline constexpr float kCarvedBelow = -0.05F;  // mm: what lies lower is carved

// The face in one colour and all that is carved in another; none: bare.
CellPaint face_and_cuts(const HeightField& field, const std::optional<Colour>& face, const std::optional<Colour>& cuts);

}  // namespace doyen
