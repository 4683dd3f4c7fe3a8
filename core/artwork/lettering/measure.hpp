// How wide words are, without setting them.
#pragma once

#include "artwork/lettering/lettering.hpp"

namespace doyen {

struct MeasuredWords {
  double width = 0;                  // of the longest line's ink, capitals being 1 high
  std::vector<std::string> missing;  // characters the face lacks
};
// Those words as this lettering would set them, straight. Remembered by face, spacing and words; a face that is not
// installed measures nothing. May be asked from any thread.
MeasuredWords measured(const Lettering& lettering, const std::string& words);

}  // namespace doyen
