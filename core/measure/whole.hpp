// From a figure to a count.
#pragma once

#include <algorithm>
#include <cmath>

namespace doyen {

// Rounded up to a whole number from `least` to `most`; what is no number gives `least`. Turning a figure to an integer
// without such bounds is undefined as soon as a file says something huge.
inline int whole_up(double figure, int least, int most) {
  if (!(figure > least)) return least;
  return figure >= most ? most : static_cast<int>(std::ceil(figure));
}

}  // namespace doyen
