// Lettering, shapes, drawings and made pieces as they stand in a job's file.
#pragma once

#include "artwork/piece.hpp"
#include "fields/record.hpp"

namespace doyen {

// mm, of anything that is set or drawn.
inline constexpr double kLargestArt = 20'000;

const Words<Drawing::Lines>& line_words();  // wide, followed, enclose

const Record<Lettering>& lettering_fields();
const Record<PlainShape>& shape_fields();
const Record<Drawing>& drawing_fields();
const Record<Derived>& derived_fields();

}  // namespace doyen
