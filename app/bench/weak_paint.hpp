// Weak places on the board: hatched once where they are weak, crosswise where they would break, with their widths.
#pragma once

#include <QPainter>

#include "measure/length.hpp"
#include "relief/weak_wood.hpp"

namespace doyen {

// `to_px`: from mm on the board.
void paint_weak(QPainter& p, const WeakMap& map, const QTransform& to_px, const LengthStyle& lengths);

}  // namespace doyen
