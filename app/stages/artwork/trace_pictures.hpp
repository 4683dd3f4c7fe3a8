// What a traced picture is shown by: the picture itself, the ink found in it, what was dropped or filled, what is lost.
#pragma once

#include <QImage>
#include <QPainterPath>

#include "artwork/drawing/trace.hpp"

namespace doyen {

QImage image_of(const std::vector<std::uint32_t>& pixels, int w, int h);
// Ink in plum, everything else clear.
QImage ink_image(const Traced& traced);
// What was dropped or filled, in amber.
QImage cleaned_image(const Traced& traced);
QImage straightened(const QImage& picture, double degrees);
// The board's millimetres back to the picture's pixels.
QPainterPath on_picture(const Region& region, double mm_per_pixel);

}  // namespace doyen
