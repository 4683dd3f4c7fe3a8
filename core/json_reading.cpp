#include "json_reading.hpp"

namespace doyen {

Json parse_json(const std::string& text, const std::string& where) {
  constexpr int kDeepest = 64;
  constexpr std::size_t kMostValues = 5'000'000;  // in memory each takes twenty times what it takes in the file
  int depth = 0;
  std::size_t values = 0;
  bool in_text = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (in_text) {
      if (c == '\\') ++i;
      if (c == '"') in_text = false;
    } else if (c == '"') {
      in_text = true;
    } else if (c == '{' || c == '[') {
      if (++depth > kDeepest) throw bad_input(where + ": nested more than 64 deep, which no Doyen file is.");
    } else if (c == '}' || c == ']') {
      --depth;
    }
    if (!in_text && (c == ',' || c == '[' || c == '{') && ++values > kMostValues)
      throw bad_input(where + ": more than five million values, which no Doyen file holds.");
  }
  try {
    return Json::parse(text);
  } catch (const Json::parse_error& error) {
    std::size_t line = 1, column = 1;
    for (std::size_t i = 0; i + 1 < error.byte && i < text.size(); ++i) {
      column = text[i] == '\n' ? 1 : column + 1;
      line += text[i] == '\n';
    }
    throw bad_input(where + ", line " + std::to_string(line) + ", column " + std::to_string(column) +
                    ": this is not JSON as it should be" +
                    (text.empty()               ? " (the file is empty)."
                     : error.byte > text.size() ? " (the file ends too early)."
                                                : "."));
  } catch (const Json::exception&) {
    throw bad_input(where + ": a number is too large or a text is not UTF-8.");
  }
}

}  // namespace doyen
