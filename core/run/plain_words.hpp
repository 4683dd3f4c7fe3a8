// Words that every controller shows and none obeys.
#pragma once

#include <string>

namespace doyen {

// Letters, digits, spaces, dashes and points only, at most 120 of them: some controllers obey !, ~, ? and $ even inside
// comments. Accents are spelled out (é becomes e, ß ss), a degree sign is “deg”, all else becomes a space.
std::string plain_for_machine(const std::string& text);

// The same for a file's name: no spaces, no point at its beginning, never empty.
std::string plain_for_file(const std::string& text);

// A word of file names in the user's language, from a sentence such as “files: carve”: what stands behind the colon,
// its letters and digits small, with a dash between words.
std::string word_in_file(const std::string& said);
// A text's letters and digits so.
std::string small_for_file(const std::string& text);

}  // namespace doyen
