#include "run/plain_words.hpp"

#include <cstdint>

namespace doyen {
namespace {

// U+00C0 to U+017F, how each is spelled without its accent; '|' between them.
constexpr const char* kSpelled =
    "A|A|A|A|A|A|AE|C|E|E|E|E|I|I|I|I|D|N|O|O|O|O|O|x|O|U|U|U|U|Y|Th|ss|a|a|a|a|a|a|ae|c|e|e|e|e|i|i|i|i|d|n|o|o|o|o|o|"
    "-|"
    "o|u|u|u|u|y|th|y|A|a|A|a|A|a|C|c|C|c|C|c|C|c|D|d|D|d|E|e|E|e|E|e|E|e|E|e|G|g|G|g|G|g|G|g|H|h|H|h|I|i|I|i|I|i|I|i|"
    "I|"
    "i|IJ|ij|J|j|K|k|k|L|l|L|l|L|l|L|l|L|l|N|n|N|n|N|n|n|N|n|O|o|O|o|O|o|OE|oe|R|r|R|r|R|r|S|s|S|s|S|s|S|s|T|t|T|t|T|t|"
    "U|"
    "u|U|u|U|u|U|u|U|u|U|u|W|w|Y|y|Y|Z|z|Z|z|Z|z|s|";

std::string spelled(std::uint32_t letter) {
  if (letter < 0xC0 || letter > 0x17F) return {};
  const char* at = kSpelled;
  for (std::uint32_t k = 0xC0; k < letter; ++k) {
    while (*at != '|' && *at != 0) ++at;
    if (*at == 0) return {};
    ++at;
  }
  std::string out;
  while (*at != '|' && *at != 0) out += *at++;
  return out;
}

}  // namespace

std::string plain_for_machine(const std::string& text) {
  std::string out;
  constexpr std::size_t kMost = 120;
  for (std::size_t i = 0; i < text.size() && out.size() < kMost;) {
    const auto c = static_cast<unsigned char>(text[i++]);
    std::string add = " ";
    if ((c >= '0' && c <= '9') || (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z') || c == '-' || c == '.') {
      add = static_cast<char>(c);
    } else if (c >= 0xC0) {
      const int more = c >= 0xF0 ? 3 : c >= 0xE0 ? 2 : 1;
      std::uint32_t letter = c & (0x3FU >> more);
      for (int k = 0; k < more && i < text.size() && (static_cast<unsigned char>(text[i]) & 0xC0U) == 0x80U; ++k)
        letter = letter << 6U | (static_cast<unsigned char>(text[i++]) & 0x3FU);
      if (letter == 0xB0)
        add = " deg";
      else if (letter == 0xD7)
        add = "x";
      else if (letter == 0x2013 || letter == 0x2014)
        add = "-";
      else if (const std::string plain = spelled(letter); !plain.empty())
        add = plain;
    }
    if (add == " " && (out.empty() || out.back() == ' ')) continue;
    out += add;
  }
  while (!out.empty() && out.back() == ' ') out.pop_back();
  return out;
}

std::string plain_for_file(const std::string& text) {
  std::string out;
  for (const char c : plain_for_machine(text)) out += c == ' ' ? '-' : c;
  while (!out.empty() && (out.front() == '.' || out.front() == '-')) out.erase(out.begin());
  return out.empty() ? "bit" : out;
}

std::string small_for_file(const std::string& text) {
  std::string all;
  for (const char c : plain_for_machine(text)) {
    if (c >= 'A' && c <= 'Z')
      all += static_cast<char>(c - 'A' + 'a');
    else if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9'))
      all += c;
    else if (!all.empty() && all.back() != '-')
      all += '-';
  }
  while (!all.empty() && all.back() == '-') all.pop_back();
  return all;
}

std::string word_in_file(const std::string& said) {
  const std::size_t colon = said.find(':');
  return small_for_file(colon == std::string::npos ? said : said.substr(colon + 1));
}

}  // namespace doyen
