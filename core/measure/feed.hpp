// Feeds as they are said.
#pragma once

#include <string>

#include "measure/length.hpp"

namespace doyen {

// “1500 mm/min”, or “59 in/min” where lengths are in inches.
std::string feed_in_words(double mm_a_minute, const LengthStyle& style);

}  // namespace doyen
