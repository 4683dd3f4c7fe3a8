#include "measure/feed.hpp"

namespace doyen {

std::string feed_in_words(double mm_a_minute, const LengthStyle& style) {
  return style.unit == Unit::Inch ? format_number(mm_a_minute / kMmPerInch, 0) + " in/min"
                                  : format_number(mm_a_minute, 0) + " mm/min";
}

}  // namespace doyen
