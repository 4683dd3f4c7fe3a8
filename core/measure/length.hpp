// Lengths as sign makers write them: parse and print. Inside, every length is a double in millimetres.
// 1 in = 25.4 mm exactly (international yard and pound agreement, 1959).
#pragma once

#include <string>
#include <string_view>

namespace doyen {

inline constexpr double kMmPerInch = 25.4;
inline constexpr double kKgPerPound = 0.45359237;                                 // the same agreement
inline constexpr double kPoundsPerFoot = 0.3048 * 0.3048 * 0.3048 / kKgPerPound;  // lb/ft³ of 1 kg/m³
inline constexpr double kNewtonsPerPound = kKgPerPound * 9.80665;                 // of a pound-force

enum class Unit { Millimetre, Inch };

// How a length is shown. `fractions` applies to inches only: to the nearest `denominator`-th when that is exact
// within half a thousandth of an inch, decimals otherwise.
struct LengthStyle {
  Unit unit = Unit::Millimetre;
  bool fractions = false;
  int denominator = 64;
  friend bool operator==(const LengthStyle&, const LengthStyle&) = default;
};

// Reads `3/8`, `1 1/2"`, `12.7 mm`, `0.125in`, `1-1/2 in`, `3/16 + 0.01`, `2 * 1/8`; a comma may stand for the
// decimal point. A number without a unit takes `unit`. Returns millimetres.
// Throws Problem{BadInput} naming the place and what was expected; never returns NaN or infinity.
double parse_length(std::string_view text, Unit unit);

// As typed, for fields, tables of measured figures and sums: `4.763 mm`, `0.1875 in`, `3/16"`. `with_unit` false leaves
// the unit off.
std::string format_length(double mm, const LengthStyle& style, bool with_unit = true);
// Rounded to what can be told apart in the wood, for words: depths and gaps to 0.01 mm or 0.001 in, sizes and places to
// 0.1 mm or 0.01 in; fractions stay fractions where they are exact.
std::string depth_in_words(double mm, const LengthStyle& style);
std::string size_in_words(double mm, const LengthStyle& style, bool with_unit = true);
// The largest length that depth_in_words() says in full and that is not above `mm`: what a remedy sets is what it says.
double said_within(double mm, const LengthStyle& style);
// A weight as “1.24 kg”, where lengths are in inches as “2.73 lb”.
std::string weight_in_words(double kg, const LengthStyle& style);
// What fills a hollow, as “73 ml”, where lengths are in inches as “2.5 US fl oz”, which is 29.5735 ml.
std::string filling_in_words(double mm3, const LengthStyle& style);
// Two figures that matter: “39 mm²”, “18 cm²”, “0.061 in²”.
std::string format_area(double mm2, const LengthStyle& style);

// A plain number, for angles, percentages, counts; trailing zeros dropped.
std::string format_number(double value, int decimals);

// `45 s`, `14 min`, `1 h 25 min`.
std::string format_duration(double seconds);

const char* unit_name(Unit unit);  // "mm" or "in"

}  // namespace doyen
