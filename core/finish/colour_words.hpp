// Colours as people say them.
#pragma once

#include <optional>
#include <string>

#include "stock/species.hpp"

namespace doyen {

// “dark green”, “pale blue”, “Dunkelrot”, or #1a2b3c; in English or German, upper or lower case. Words that say nothing
// of it are passed over (“gloss black”), and no part of another word counts (“coloured”). None where no colour is
// known. As on a screen, 0 to 1 (sRGB).
std::optional<Colour> colour_of_words(const std::string& words);

}  // namespace doyen
