#include "finish/colour_words.hpp"

#include <algorithm>
#include <array>
#include <cctype>
#include <utility>
#include <vector>

namespace doyen {
namespace {

struct Named {
  const char* word;
  int rgb;
};
// As paint looks on wood, a little less bright than a screen's own (from memory, no source). The first that is said
// counts, so names of two words come before their parts.
constexpr std::array kNames{
    Named{"off-white", 0xEDE6D6}, Named{"oxide red", 0x8A2F25}, Named{"gold leaf", 0xD9A93A},
    Named{"black", 0x202020},     Named{"schwarz", 0x202020},   Named{"white", 0xF4F1E8},
    Named{"weiß", 0xF4F1E8},      Named{"weiss", 0xF4F1E8},     Named{"cream", 0xEADDB8},
    Named{"creme", 0xEADDB8},     Named{"ivory", 0xEFE6CC},     Named{"elfenbein", 0xEFE6CC},
    Named{"golden", 0xD9A93A},    Named{"gold", 0xD9A93A},      Named{"silver", 0xB9BCBE},
    Named{"silber", 0xB9BCBE},    Named{"copper", 0xB06A3C},    Named{"kupfer", 0xB06A3C},
    Named{"bronze", 0x8C6A38},    Named{"brass", 0xC2A14D},     Named{"messing", 0xC2A14D},
    Named{"turquoise", 0x3C9A96}, Named{"türkis", 0x3C9A96},    Named{"teal", 0x2B6E70},
    Named{"orange", 0xD5782A},    Named{"yellow", 0xE3BE3C},    Named{"gelb", 0xE3BE3C},
    Named{"maroon", 0x6B2630},    Named{"burgundy", 0x6B2630},  Named{"pink", 0xD98FA0},
    Named{"rosa", 0xD98FA0},      Named{"purple", 0x6A4585},    Named{"violet", 0x6A4585},
    Named{"violett", 0x6A4585},   Named{"lila", 0x8460A0},      Named{"navy", 0x22385E},
    Named{"blue", 0x33589A},      Named{"blau", 0x33589A},      Named{"green", 0x3C7A4A},
    Named{"grün", 0x3C7A4A},      Named{"gruen", 0x3C7A4A},     Named{"olive", 0x6E6E3A},
    Named{"oliv", 0x6E6E3A},      Named{"brown", 0x6B4528},     Named{"braun", 0x6B4528},
    Named{"grey", 0x7C7E7C},      Named{"gray", 0x7C7E7C},      Named{"grau", 0x7C7E7C},
    Named{"amber", 0xB98A4E},     Named{"bernstein", 0xB98A4E}, Named{"red", 0xA8342C},
    Named{"rot", 0xA8342C},
};

Colour of_rgb(int rgb) {
  const auto part = [rgb](int shift) { return static_cast<double>(rgb >> shift & 255) / 255; };
  return {part(16), part(8), part(0)};
}

// Letters of ASCII alone: umlauts are looked for as both cases of them are written.
std::string lower(std::string words) {
  for (char& c : words) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  for (const auto& [large, small] : {std::pair{"Ü", "ü"}, std::pair{"ẞ", "ß"}}) {
    for (std::size_t at = 0; (at = words.find(large, at)) != std::string::npos;)
      words.replace(at, std::char_traits<char>::length(large), small);
  }
  return words;
}

std::optional<Colour> hex(const std::string& words) {
  const std::size_t at = words.find('#');
  if (at == std::string::npos || at + 7 > words.size()) return {};
  int rgb = 0;
  for (std::size_t i = at + 1; i < at + 7; ++i) {
    const auto c = static_cast<unsigned char>(words[i]);
    if (std::isxdigit(c) == 0) return {};
    rgb = rgb * 16 + (std::isdigit(c) != 0 ? c - '0' : c - 'a' + 10);
  }
  return of_rgb(rgb);
}

// What stands between all that is no letter; beyond ASCII every byte belongs to one.
std::vector<std::string> words_of(const std::string& said) {
  std::vector<std::string> words(1);
  for (const char c : said) {
    const auto byte = static_cast<unsigned char>(c);
    if (byte >= 0x80 || std::isalpha(byte) != 0)
      words.back() += c;
    else if (!words.back().empty())
      words.emplace_back();
  }
  return words;
}

// Takes the beginning off a German compound, such as “dunkelrot”.
bool begins_with_one_of(std::string& word, std::initializer_list<const char*> any) {
  for (const char* start : any) {
    if (!word.starts_with(start)) continue;
    word.erase(0, std::char_traits<char>::length(start));
    return true;
  }
  return false;
}

bool is_one_of(const std::string& word, std::initializer_list<const char*> any) {
  return std::any_of(any.begin(), any.end(), [&](const char* one) { return word == one; });
}

Colour mixed(const Colour& a, double to, double share) {
  const auto mix = [&](double own) { return own + (to - own) * share; };
  return {mix(a.red), mix(a.green), mix(a.blue)};
}

}  // namespace

std::optional<Colour> colour_of_words(const std::string& said) {
  const std::string all = lower(said);
  if (const std::optional<Colour> colour = hex(all)) return colour;
  std::vector<std::string> words = words_of(all);
  bool dark = false, light = false;
  for (std::string& word : words) {
    dark = begins_with_one_of(word, {"dunkel", "tief"}) || is_one_of(word, {"dark", "deep"}) || dark;
    light = begins_with_one_of(word, {"hell", "blass"}) || is_one_of(word, {"light", "pale", "pastel"}) || light;
  }
  const auto is_said = [&](const Named& name) {
    const std::string own = name.word;
    if (own.find_first_of(" -") != std::string::npos) return all.find(own) != std::string::npos;
    return std::find(words.begin(), words.end(), own) != words.end();
  };
  const auto found = std::find_if(kNames.begin(), kNames.end(), is_said);
  if (found == kNames.end()) return {};
  constexpr double kDarker = 0.42, kLighter = 0.45;
  const Colour colour = of_rgb(found->rgb);
  return dark ? mixed(colour, 0, kDarker) : light ? mixed(colour, 1, kLighter) : colour;
}

}  // namespace doyen
