// Numbers counted up from plate to plate: by hand, and against printf on random spans.
#include "plates/serials.hpp"

#include <catch2/catch.hpp>
#include <cstdio>
#include <random>

#include "plates/plates.hpp"
#include "problem.hpp"

using namespace doyen;

TEST_CASE("numbers keep what stands before them and how many figures they were written with") {
  CHECK(serial_numbers("1-3") == std::vector<std::string>{"1", "2", "3"});
  CHECK(serial_numbers("A08 - A11") == std::vector<std::string>{"A08", "A09", "A10", "A11"});
  CHECK(serial_numbers("MPG-007-9") == std::vector<std::string>{"MPG-007", "MPG-008", "MPG-009"});
  CHECK(serial_numbers("MPG-007-MPG-009").back() == "MPG-009");
  CHECK(serial_numbers("Beet 9", 3) == std::vector<std::string>{"Beet 9", "Beet 10", "Beet 11"});
  CHECK(serial_numbers("98-102").back() == "102");
  std::mt19937 random(3);
  for (int round = 0; round < 200; ++round) {
    const auto from = static_cast<unsigned>(random() % 2000), count = static_cast<unsigned>(1 + random() % 50);
    const int figures = 1 + static_cast<int>(random() % 6);
    const auto printed = [&](unsigned number) {
      char words[32];
      std::snprintf(words, sizeof words, "N%0*u", figures, number);
      return std::string(words);
    };
    const std::vector<std::string> all = serial_numbers(printed(from) + "-" + printed(from + count - 1));
    REQUIRE(all.size() == count);
    for (unsigned i = 0; i < count; ++i) CHECK(all[i] == printed(from + i));
  }
}

TEST_CASE("what is no span of numbers is said") {
  for (const char* wrong : {"", "many", "5", "9-3", "A1-B7", "1-", "-", "1-99999999", "12345678901-12345678902"}) {
    INFO(wrong);
    CHECK_THROWS_AS(serial_numbers(wrong), Problem);
  }
  CHECK_THROWS_WITH(serial_numbers("1-40", 130), Catch::Contains("130 rows"));
}

TEST_CASE("numbers are a list of their own, or a column beside the others, and no other column is touched") {
  const PlateList alone = with_numbers({}, "1-40", "Number");
  CHECK(alone.columns == std::vector<std::string>{"Number"});
  CHECK(alone.rows.size() == 40);
  PlateList names;
  names.columns = {"Name", "Latin"};
  names.rows = std::vector<ListRow>{{"Rue", "Ruta"}, {"Sage", "Salvia"}};
  names.left_out = {2};
  const PlateList both = with_numbers(names, "A09", "Number");
  CHECK(both.columns == std::vector<std::string>{"Name", "Latin", "Number"});
  CHECK(both.rows[1] == ListRow{"Sage", "Salvia", "A10"});
  CHECK(both.left_out == names.left_out);
  const PlateList again = with_numbers(both, "1", "Number");  // what is there stays
  CHECK(again.columns.back() == "Number 2");
  CHECK(again.rows[0] == ListRow{"Rue", "Ruta", "A09", "1"});
}
