// Lengths: 1 in = 25.4 mm exactly (international yard and pound agreement, 1959).
#include "measure/length.hpp"

#include <catch2/catch.hpp>
#include <random>

#include "problem.hpp"

using namespace doyen;

TEST_CASE("lengths are read as sign makers write them") {
  const struct {
    const char* text;
    Unit unit;
    double mm;
  } cases[] = {
      {"3/8", Unit::Inch, 9.525},
      {"1 1/2\"", Unit::Millimetre, 38.1},
      {"1-1/2 in", Unit::Millimetre, 38.1},
      {"12.7 mm", Unit::Inch, 12.7},
      {"12.7mm", Unit::Inch, 12.7},
      {"0.125", Unit::Inch, 3.175},
      {"0,125", Unit::Inch, 3.175},
      {"3/16 + 0.01", Unit::Inch, 5.0165},
      {"3/16 - 0.01", Unit::Inch, 4.5085},
      {"2 * 1/8", Unit::Inch, 6.35},
      {"1/2 / 2", Unit::Inch, 6.35},
      {"1 in + 3 mm", Unit::Millimetre, 28.4},
      {"2 ft", Unit::Millimetre, 609.6},
      {"1.2 m", Unit::Inch, 1200},
      {"5 cm", Unit::Inch, 50},
      {"  7  ", Unit::Millimetre, 7},
      {".5", Unit::Millimetre, 0.5},
      {"-3", Unit::Millimetre, -3},
      {"3/4 inch", Unit::Millimetre, 19.05},
      {"1″", Unit::Millimetre, 25.4},
      {"1'", Unit::Millimetre, 304.8},
      {"1' 6\"", Unit::Millimetre, 457.2},
      {"2 ft 3 1/2 in", Unit::Millimetre, 698.5},
      {"1½", Unit::Inch, 38.1},
      {"1 ½ in.", Unit::Millimetre, 38.1},
      {"¾\"", Unit::Millimetre, 19.05},
      {"½", Unit::Millimetre, 0.5},
      {"12 MM", Unit::Inch, 12},
      {"2 in.", Unit::Millimetre, 50.8},
      {"2 Inches", Unit::Millimetre, 50.8},
      {"1,25", Unit::Millimetre, 1.25},
      {"1250,5", Unit::Millimetre, 1250.5},
      {"0,250", Unit::Millimetre, 0.25},
  };
  for (const auto& c : cases) {
    INFO(c.text);
    CHECK(parse_length(c.text, c.unit) == Approx(c.mm).margin(1e-9));
  }
}

TEST_CASE("nonsense is refused with a sentence that says what was expected") {
  for (const char* text :
       {"",    "   ", "abc", "3/",   "/8",   "1//2",        "3/0",  "1 2",   "12 mm mm", "1 +",  "nan",
        "inf", "1e5", "--3", "0x10", "1..2", "99999999999", "3 8/", "1 1/0", "mm",       "1,250"}) {
    INFO(text);
    try {
      parse_length(text, Unit::Millimetre);
      FAIL("was taken");
    } catch (const Problem& problem) {
      CHECK(problem.kind() == Problem::Kind::BadInput);
      CHECK(std::string(problem.what()).find("is not a length") != std::string::npos);
    }
  }
  CHECK_THROWS_AS(parse_length(std::string(5000, '9'), Unit::Inch), Problem);
}

TEST_CASE("what is 1.25 to one half of the world and 1250 to the other is asked about, with both") {
  try {
    parse_length("1,250mm", Unit::Millimetre);
    FAIL("was taken");
  } catch (const Problem& problem) {
    const std::string words = problem.what();
    CHECK(words.find("1.250") != std::string::npos);
    CHECK(words.find("1250") != std::string::npos);
  }
}

TEST_CASE("lengths are printed in the unit that is asked for") {
  const LengthStyle mm{}, inch{Unit::Inch, false, 64}, fraction{Unit::Inch, true, 64};
  CHECK(format_length(4.7625, mm) == "4.763 mm");
  CHECK(format_length(4.7625, inch) == "0.1875 in");
  CHECK(format_length(4.7625, fraction) == "3/16\"");
  CHECK(format_length(38.1, fraction) == "1 1/2\"");
  CHECK(format_length(25.4, fraction) == "1\"");
  CHECK(format_length(0, fraction) == "0\"");
  CHECK(format_length(-4.7625, fraction) == "-3/16\"");
  CHECK(format_length(-0.0001, mm) == "0 mm");
  CHECK(format_length(5.08, fraction, false) == "0.2");  // no 64th is near: decimals
  CHECK(format_length(1234.5678, mm) == "1234.6 mm");
}

TEST_CASE("words say no more digits than can be told apart in the wood") {
  const LengthStyle mm{}, inch{Unit::Inch, false, 64}, fraction{Unit::Inch, true, 64};
  CHECK(depth_in_words(7.34519, mm) == "7.35 mm");
  CHECK(depth_in_words(7.34519, inch) == "0.289 in");  // 7.34519 / 25.4 = 0.28918
  CHECK(depth_in_words(4.7625, fraction) == "3/16\"");
  CHECK(size_in_words(321.3719, mm) == "321.4 mm");
  CHECK(size_in_words(321.3719, inch, false) == "12.65");  // 12.6524
  CHECK(format_area(39.21, mm) == "39 mm²");
  CHECK(format_area(1764, mm) == "18 cm²");
  CHECK(format_area(310, mm) == "3.1 cm²");
  CHECK(format_area(39.21, inch) == "0.061 in²");  // 39.21 / 645.16 = 0.06078
  CHECK(format_area(310, inch) == "0.48 in²");
  CHECK(format_area(0.4, mm) == "0.4 mm²");
  CHECK(format_area(99.96, mm) == "100 mm²");
  CHECK(format_area(0, mm) == "0 mm²");
}

TEST_CASE("what is printed is read back as the same length") {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> any(0, 900);
  for (int i = 0; i < 2000; ++i) {
    const double mm = any(random);
    for (const LengthStyle style :
         {LengthStyle{}, LengthStyle{Unit::Inch, false, 64}, LengthStyle{Unit::Inch, true, 64}}) {
      const double step = style.unit == Unit::Inch ? (style.fractions ? 0.013 : 0.0013) : 0.0051;
      CHECK(std::abs(parse_length(format_length(mm, style), Unit::Millimetre) - mm) <= step);
    }
  }
  for (int k = 1; k < 640; ++k) {  // every 64th of an inch to ten inches comes back exactly
    const double mm = k * kMmPerInch / 64;
    CHECK(parse_length(format_length(mm, {Unit::Inch, true, 64}), Unit::Millimetre) == Approx(mm).margin(1e-9));
  }
}

TEST_CASE("durations are told in the words one would use") {
  CHECK(format_duration(12.4) == "12 s");
  CHECK(format_duration(59.6) == "1 min");
  CHECK(format_duration(14 * 60) == "14 min");
  CHECK(format_duration(85 * 60) == "1 h 25 min");
}

TEST_CASE("areas are written in the job's unit, square") {  // 1 in = 25.4 mm exactly
  LengthStyle mm, inch;
  mm.unit = Unit::Millimetre;
  inch.unit = Unit::Inch;
  CHECK(format_area(39.24, mm) == "39 mm²");
  CHECK(format_area(1234.6, mm) == "12 cm²");
  CHECK(format_area(645.16, inch) == "1 in²");
  CHECK(format_area(39.24, inch) == "0.061 in²");
  CHECK(format_area(64516 * 0.123, inch) == "12 in²");
}

TEST_CASE("a length to be set is one that can be said, and never more than was asked") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> some(0.05, 40);
  for (const LengthStyle& style :
       {LengthStyle{}, LengthStyle{Unit::Inch, false, 64}, LengthStyle{Unit::Inch, true, 64}}) {
    for (int i = 0; i < 400; ++i) {
      const double asked = some(random), set = said_within(asked, style);
      CHECK(set <= asked + 1e-6);
      CHECK(set > asked - 0.0255);
      CHECK(parse_length(depth_in_words(set, style), style.unit) == Approx(set).margin(style.fractions ? 0.013 : 1e-9));
    }
  }
}

TEST_CASE("weights and fillings are said in the job's own system") {
  // Handbook 44 of the National Institute of Standards and Technology, appendix C: 1 avoirdupois pound = 453.592 37 g
  // exactly, 1 US fluid ounce = 29.573 53 ml; 1 lb/ft³ = 16.018 46 kg/m³; 1 lbf = 4.448 222 N (from memory).
  const LengthStyle mm, inch{Unit::Inch, false, 64};
  CHECK(weight_in_words(0.45359237, inch) == "1 lb");
  CHECK(weight_in_words(1.5, mm) == "1.5 kg");
  CHECK(filling_in_words(29573.53, inch) == "1 US fl oz");
  CHECK(filling_in_words(73000, mm) == "73 ml");
  CHECK(1 / kPoundsPerFoot == Approx(16.01846).epsilon(1e-6));
  CHECK(kNewtonsPerPound == Approx(4.448222).epsilon(1e-6));
}
