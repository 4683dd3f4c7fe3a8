// Outlines as they are drawn: with no more points than the screen shows.
#pragma once

#include <QPainterPath>
#include <QRectF>
#include <QTransform>

namespace doyen {

// The path, made of straight lines, as `to_px` maps it, where it is seen: what lies beyond `seen` (px, with room for
// the pen) is left out or passes by outside of it, and no point left out lies farther than a fifth of a pixel from what
// is drawn. A fill inside `seen` stays what it was.
QPainterPath on_screen(const QPainterPath& path, const QTransform& to_px, const QRectF& seen);

}  // namespace doyen
