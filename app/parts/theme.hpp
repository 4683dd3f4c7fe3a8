// The window's colours, sizes and type in one place.
#pragma once

#include <QApplication>
#include <QColor>
#include <QFont>

namespace doyen::theme {

// On the board, whatever its wood, marks are white with a dark edge: the one or the other stands out from any wood.
inline const QColor kMark{0xFF, 0xFF, 0xFF}, kMarkEdge{0x2B, 0x2A, 0x28};
inline const QColor kLinen{0xF2, 0xED, 0xE3}, kChalk{0xFB, 0xF8, 0xF2}, kBench{0xE4, 0xDC, 0xCB};
inline const QColor kInk{0x2B, 0x2A, 0x28}, kFaded{0x6E, 0x67, 0x5C}, kHairline{0xD8, 0xCF, 0xBF};
inline const QColor kPlum{0x5B, 0x4A, 0x6F}, kPlumPale{0xEC, 0xE7, 0xEF};
inline const QColor kFern{0x4E, 0x73, 0x50}, kStone{0x7A, 0x74, 0x66}, kAmber{0xB7, 0x79, 0x1F},
    kBrick{0x9C, 0x3B, 0x2E};

// The muted dyes of the time beam: madder, weld, woad, walnut, lichen, ash.
QColor dye(int i);

inline constexpr int kTicketWidth = 332;
inline constexpr int kStripHeight = 166;

// While it lives nothing is styled: what is put together meanwhile inherits its style once, at the end, and not again
// with every widget that it is put into.
class Unstyled {
 public:
  Unstyled();
  ~Unstyled();
  Unstyled(const Unstyled&) = delete;
  Unstyled& operator=(const Unstyled&) = delete;

 private:
  QString sheet_;
};

QFont font(double points, bool bold = false);
void apply(QApplication& app);

}  // namespace doyen::theme
