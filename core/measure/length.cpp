#include "measure/length.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numeric>
#include <optional>

#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kMmPerFoot = 304.8;
constexpr double kLargest = 1e6;  // mm: a kilometre of board is a slip of the finger

// Recursive descent over: sum := product (('+'|'-') product)*, product := term ('*' number | '/' number)*,
// term := length. Fractions bind to the number before a unit, so `1 1/2"` is one length.
class Reader {
 public:
  Reader(std::string_view text, Unit unit) : text_(text), unit_(unit) {}

  double read() {
    skip_space();
    if (at_end()) throw complain(say("nothing is written there"));
    double total = signed_product();
    for (skip_space(); !at_end(); skip_space()) {
      const char sign = peek();
      if (sign != '+' && sign != '-') throw complain(say("could not make sense of “{0}”", rest()));
      ++at_;
      const double next = product();
      total += sign == '+' ? next : -next;
    }
    if (!std::isfinite(total) || std::abs(total) > kLargest) throw complain(say("that is far too large for a board"));
    return total;
  }

 private:
  [[nodiscard]] bool at_end() const { return at_ >= text_.size(); }
  [[nodiscard]] char peek() const { return at_end() ? '\0' : text_[at_]; }
  [[nodiscard]] std::string rest() const { return std::string(text_.substr(at_)); }
  void skip_space() {
    while (!at_end()) {
      if (peek() == ' ' || peek() == '\t') {
        ++at_;
      } else if (text_.substr(at_, 2) == "\xC2\xA0") {
        at_ += 2;
      } else {
        break;
      }
    }
  }

  [[nodiscard]] Problem complain(const std::string& why) const {
    return bad_input(say("“{0}” is not a length: {1}. Write it like 3/8, 1 1/2\", 12.7 mm or 3/16 + 0.01.",
                         std::string(text_.substr(0, 60)), why));
  }

  double signed_product() {
    skip_space();
    if (peek() == '-') {
      ++at_;
      return -product();
    }
    return product();
  }

  double product() {
    double value = term();
    for (skip_space(); peek() == '*' || peek() == '/'; skip_space()) {
      const char op = peek();
      ++at_;
      const double by = plain_number();
      if (op == '/' && by == 0) throw complain(say("it divides by nothing"));
      value = op == '*' ? value * by : value / by;
    }
    return value;
  }

  double plain_number() {
    skip_space();
    const char* begin = text_.data() + at_;
    std::string digits;
    std::size_t n = 0;
    bool point = false;
    while (at_ + n < text_.size()) {
      const char c = begin[n];
      if (c >= '0' && c <= '9') {
        digits += c;
      } else if ((c == '.' || c == ',') && !point) {
        digits += '.';
        point = true;
      } else {
        break;
      }
      ++n;
    }
    if (digits.empty() || digits == ".") {
      throw complain(at_end() ? say("a number is missing at the end") : say("a number was expected at “{0}”", rest()));
    }
    if (n > 40) throw complain(say("the number is too long"));
    // 1,250 is one and a quarter to one half of the world and twelve hundred and fifty to the other.
    const std::string_view whole(begin, n);
    const std::size_t comma = whole.find(',');
    if (comma != std::string_view::npos && comma > 0 && comma <= 3 && whole[0] != '0' && n - comma == 4)
      throw complain(say("“{0}” could be {1}.{2} or {3}{4}; leave the comma out, or write a point", std::string(whole),
                         std::string(whole.substr(0, comma)), std::string(whole.substr(comma + 1)),
                         std::string(whole.substr(0, comma)), std::string(whole.substr(comma + 1))));
    at_ += n;
    double value = 0;
    std::from_chars(digits.data(), digits.data() + digits.size(), value);
    return value;
  }

  // A number with its fraction: `3`, `3/8`, `1 1/2`, `1-1/2`, `0.125`.
  double mixed_number() {
    skip_space();
    if (const double part = fraction_sign(); part > 0) return part;
    double value = plain_number();
    const std::size_t after = at_;
    skip_space();
    if (peek() == '/') {
      ++at_;
      const double below = plain_number();
      if (below == 0) throw complain(say("it divides by nothing"));
      return value / below;
    }
    if (const auto fraction = following_fraction()) return value + *fraction;
    if (const double part = fraction_sign(); part > 0) return value + part;
    at_ = after;
    return value;
  }

  // ½ and its like, one character (Unicode, Number Forms and Latin-1). 0 when there is none.
  double fraction_sign() {
    static constexpr struct {
      std::string_view sign;
      double share;
    } kSigns[] = {{"½", 1.0 / 2}, {"¼", 1.0 / 4}, {"¾", 3.0 / 4}, {"⅛", 1.0 / 8}, {"⅜", 3.0 / 8},
                  {"⅝", 5.0 / 8}, {"⅞", 7.0 / 8}, {"⅓", 1.0 / 3}, {"⅔", 2.0 / 3}};
    for (const auto& each : kSigns) {
      if (text_.substr(at_, each.sign.size()) != each.sign) continue;
      at_ += each.sign.size();
      return each.share;
    }
    return 0;
  }

  // The `1/2` of `1 1/2` or `1-1/2`; leaves the place alone when there is none.
  std::optional<double> following_fraction() {
    std::size_t k = at_;
    if (k < text_.size() && text_[k] == '-') ++k;
    const std::size_t start = k;
    auto digits = [&] {
      const std::size_t from = k;
      while (k < text_.size() && text_[k] >= '0' && text_[k] <= '9') ++k;
      return k > from;
    };
    if (!digits() || k >= text_.size() || text_[k] != '/') return std::nullopt;
    const std::size_t slash = k++;
    if (!digits() || slash - start > 6 || k - slash > 7) return std::nullopt;
    const double above = std::stod(std::string(text_.substr(start, slash - start)));
    const double below = std::stod(std::string(text_.substr(slash + 1, k - slash - 1)));
    if (below == 0) throw complain(say("it divides by nothing"));
    at_ = k;
    return above / below;
  }

  double term() {
    skip_space();
    const double value = mixed_number();
    skip_space();
    const double factor = unit_factor();
    if (factor != kMmPerFoot) return value * factor;
    // 1' 6": what follows the feet are inches.
    const std::size_t after = at_;
    skip_space();
    if (peek() == '-' && at_ + 1 < text_.size() && text_[at_ + 1] >= '0' && text_[at_ + 1] <= '9') ++at_;
    if (peek() >= '0' && peek() <= '9') {
      const double inches = mixed_number();
      skip_space();
      const std::size_t unit_at = at_;
      if (unit_factor() == kMmPerInch && at_ > unit_at) return value * factor + inches * kMmPerInch;
    }
    at_ = after;
    return value * factor;
  }

  double unit_factor() {
    static constexpr struct {
      std::string_view word;
      double mm;
    } kUnits[] = {{"inches", kMmPerInch}, {"inch", kMmPerInch}, {"in.", kMmPerInch}, {"in", kMmPerInch},
                  {"\"", kMmPerInch},     {"″", kMmPerInch},    {"”", kMmPerInch},   {"''", kMmPerInch},
                  {"mm.", 1.0},           {"mm", 1.0},          {"cm", 10.0},        {"feet", kMmPerFoot},
                  {"foot", kMmPerFoot},   {"ft.", kMmPerFoot},  {"ft", kMmPerFoot},  {"'", kMmPerFoot},
                  {"′", kMmPerFoot},      {"’", kMmPerFoot},    {"m", 1000.0}};
    for (const auto& unit : kUnits) {
      std::string here(text_.substr(at_, unit.word.size()));
      for (char& c : here) c = c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
      if (here != unit.word) continue;
      at_ += unit.word.size();
      return unit.mm;
    }
    return unit_ == Unit::Inch ? kMmPerInch : 1.0;
  }

  std::string_view text_;
  Unit unit_;
  std::size_t at_ = 0;
};

std::string as_fraction(double inches, int denominator) {
  const double scaled = std::abs(inches) * denominator;
  const auto units = static_cast<long>(std::lround(scaled));
  if (std::abs(scaled - static_cast<double>(units)) > 0.0005 * denominator) return {};
  const long whole = units / denominator;
  long above = units % denominator;
  long below = denominator;
  const long common = std::gcd(above, below);
  if (common > 0) {
    above /= common;
    below /= common;
  }
  std::string text = inches < 0 && units != 0 ? "-" : "";
  if (above == 0) return text + std::to_string(whole);
  if (whole != 0) text += std::to_string(whole) + " ";
  return text + std::to_string(above) + "/" + std::to_string(below);
}

}  // namespace

double parse_length(std::string_view text, Unit unit) {
  if (text.size() > 200) throw bad_input(say("A length of more than 200 characters cannot be right."));
  return Reader(text, unit).read();
}

std::string format_number(double value, int decimals) {
  char buffer[64];
  const auto end = std::to_chars(buffer, buffer + sizeof buffer, value, std::chars_format::fixed, decimals).ptr;
  std::string text(buffer, end);
  if (text.find('.') != std::string::npos) {
    text.erase(text.find_last_not_of('0') + 1);
    if (text.back() == '.') text.pop_back();
  }
  return text == "-0" ? "0" : text;
}

const char* unit_name(Unit unit) { return unit == Unit::Inch ? "in" : "mm"; }

namespace {

std::string rounded(double mm, const LengthStyle& style, bool with_unit, int inch_decimals, int mm_decimals) {
  std::string text;
  mm += std::copysign(1e-8, mm);  // what was reckoned to lie half way between two figures goes up
  if (style.unit == Unit::Inch) {
    const double inches = mm / kMmPerInch;
    if (style.fractions) text = as_fraction(inches, style.denominator);
    if (!text.empty()) return with_unit ? text + "\"" : text;
    text = format_number(inches, std::abs(inches) >= 100 ? std::min(2, inch_decimals) : inch_decimals);
  } else {
    text = format_number(mm, std::abs(mm) >= 1000 ? std::min(1, mm_decimals) : mm_decimals);
  }
  return with_unit ? text + " " + unit_name(style.unit) : text;
}

}  // namespace

std::string format_length(double mm, const LengthStyle& style, bool with_unit) {
  return rounded(mm, style, with_unit, 4, 3);
}
std::string depth_in_words(double mm, const LengthStyle& style) { return rounded(mm, style, true, 3, 2); }
std::string size_in_words(double mm, const LengthStyle& style, bool with_unit) {
  return rounded(mm, style, with_unit, 2, 1);
}

double said_within(double mm, const LengthStyle& style) {
  const double step = style.unit == Unit::Inch ? kMmPerInch / 1000 : 0.01;
  return std::floor(mm / step + 1e-6) * step;
}

std::string weight_in_words(double kg, const LengthStyle& style) {
  const bool metric = style.unit == Unit::Millimetre;
  const double whole = metric ? kg : kg / kKgPerPound, parts = metric ? kg * 1000 : whole * 16;
  if (whole >= 1) return format_number(whole, 2) + (metric ? " kg" : " lb");
  return format_number(parts, parts < 10 ? 1 : 0) + (metric ? " g" : " oz");
}

std::string filling_in_words(double mm3, const LengthStyle& style) {
  if (style.unit == Unit::Millimetre) return format_number(mm3 / 1000, 1) + " ml";
  return format_number(mm3 / 29573.5, 2) + " US fl oz";
}

std::string format_area(double mm2, const LengthStyle& style) {
  const bool inch = style.unit == Unit::Inch, cm = !inch && mm2 >= 100;
  const double value = inch ? mm2 / (kMmPerInch * kMmPerInch) : cm ? mm2 / 100 : mm2;
  if (!(value > 0) || !std::isfinite(value)) return std::string("0 ") + unit_name(style.unit) + "²";
  const int before = static_cast<int>(std::floor(std::log10(value))) + 1;  // digits before the point
  const double step = std::pow(10, before - 2);
  return format_number(std::round(value / step) * step, std::clamp(2 - before, 0, 4)) + " " +
         (cm ? "cm" : unit_name(style.unit)) + "²";
}

std::string format_duration(double seconds) {
  const auto total = static_cast<long>(std::lround(seconds));
  if (total < 60) return std::to_string(total) + " s";
  const long minutes = (total + 30) / 60;
  if (minutes < 60) return say("{0} min", minutes);
  return say("{0} h {1} min", minutes / 60, minutes % 60);
}

}  // namespace doyen
