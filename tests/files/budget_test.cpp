// What a file may cost: points, time, memory; and that reading can be stopped. All of these took minutes or gigabytes
// once. The files are our own inventions of what somebody hostile, or a careless program, would write.
#include <catch2/catch.hpp>
#include <cmath>

#include "files/dxf/dxf_read.hpp"
#include "files/svg/svg_read.hpp"
#include "json_reading.hpp"
#include "problem.hpp"

using namespace doyen;

namespace {

std::string svg(const std::string& body) {
  return "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='100mm' "
         "height='100mm' viewBox='0 0 100 100'>" +
         body + "</svg>";
}
std::string times(int n, const std::string& what) {
  std::string out;
  for (int i = 0; i < n; ++i) out += what;
  return out;
}
const std::string kSquare = "<rect x='1' y='1' width='5' height='5'/>";

// Clipping paths in each other that are slow to cut.
std::string slow_svg() {
  std::string body, outline;
  for (int i = 0; i < 150; ++i)
    outline += std::to_string((i * 7919) % 100) + "," + std::to_string((i * 104729 + i * i) % 100) + " ";
  for (int i = 0; i < 20; ++i)
    body += "<clipPath id='c" + std::to_string(i) + "'><path d='M" + outline + "z'/></clipPath>";
  for (int i = 0; i < 4000; ++i) body += "<g clip-path='url(#c" + std::to_string(i % 20) + ")'>" + kSquare + "</g>";
  return svg(body);
}

std::string entity(const std::string& kind, const std::string& layer,
                   std::initializer_list<std::pair<int, double>> figures) {
  std::string out = "0\n" + kind + "\n8\n" + layer + "\n";
  for (const auto& [code, value] : figures) out += std::to_string(code) + "\n" + std::to_string(value) + "\n";
  return out;
}
std::string dxf(const std::string& body) { return "0\nSECTION\n2\nENTITIES\n" + body + "0\nENDSEC\n0\nEOF\n"; }

}  // namespace

TEST_CASE("reading can be stopped, and says how far it is") {
  Cancel cancel;
  double last = 0;
  const auto told = [&](double share) {
    CHECK(share >= last);
    CHECK(share <= 1);
    last = share;
    cancel.request();
  };
  try {
    (void)read_svg(slow_svg(), "slow.svg", Reading(cancel, told));
    FAIL("it was stopped");
  } catch (const Cancelled&) {
  }
  CHECK(last > 0);
  CHECK(last < 0.9);
  std::string lines;
  for (int i = 0; i < 2000; ++i) lines += entity("LINE", "A", {{10, i}, {20, 0}, {11, i}, {21, 5}});
  try {
    (void)read_dxf(dxf(lines), "lines.dxf", Reading(cancel));
    FAIL("it was stopped");
  } catch (const Cancelled&) {
  }
}

TEST_CASE("what takes longer than a minute, or makes more points than a drawing has, is refused by name") {
  const auto in_no_time = [] { return Reading({}, {}, 0.02); };
  const auto few_points = [] { return Reading({}, {}, Reading::kMostSeconds, 1000); };
  CHECK_THROWS_WITH(read_svg(slow_svg(), "slow.svg", in_no_time()), Catch::Contains("slow.svg: it was still not read"));
  const std::string words = "<text y='50' font-family='DejaVu Sans' font-size='9'>Marrowby</text>";
  CHECK(read_svg(svg(words), "words.svg").drawing.parts.size() >= 8);
  CHECK_THROWS_WITH(read_svg(svg(times(20, words)), "words.svg", few_points()),
                    Catch::Contains("words.svg: the drawing has more than"));
  std::string circles;
  for (int i = 0; i < 100; ++i) circles += entity("CIRCLE", "A", {{10, 3 * i}, {20, 0}, {40, 1}});
  CHECK_THROWS_WITH(read_dxf(dxf(circles), "many.dxf", few_points()),
                    Catch::Contains("many.dxf: the drawing has more than"));
}

TEST_CASE("style sheets, attributes and repeats do not multiply") {
  std::string selectors, rules;
  for (int i = 0; i < 3000; ++i) {
    selectors += (i > 0 ? ",.a" : ".a") + std::to_string(i);
    rules += "b" + std::to_string(i) + ":1;";
  }
  CHECK_THROWS_WITH(read_svg(svg("<style>" + selectors + "{" + rules + "}</style>" + kSquare), "css.svg"),
                    Catch::Contains("300,000 rules"));
  CHECK(read_svg(svg("<style>" + times(1'000'000, "/**/") + "rect{fill:red}/*</style>" + kSquare), "t.svg")
            .drawing.parts.size() == 1);
  const Imported painted =
      read_svg(svg("<g fill='" + std::string(3'000'000, 'x') + "'>" + times(3000, kSquare) + "</g>"), "t.svg");
  CHECK(painted.drawing.parts.size() == 3000);
  REQUIRE(painted.left_out.size() == 1);
  CHECK(painted.left_out[0].find("pages long") != std::string::npos);
  CHECK_THROWS_WITH(
      read_svg(svg("<defs><g id='a'>" + times(2000, "<g/>") + "</g></defs>" + times(1100, "<use xlink:href='#a'/>")),
               "t.svg"),
      Catch::Contains("two million times"));
  std::string missing;
  for (int i = 0; i < 2000; ++i) missing += "<text font-family='No Such Face " + std::to_string(i) + "'>w</text>";
  CHECK(read_svg(svg(missing + kSquare), "t.svg").left_out.size() == 41);
}

TEST_CASE("three million attributes are refused", "[heavy]") {
  CHECK_THROWS_WITH(
      read_svg(svg(times(290'000, "<g a='' b='' c='' d='' e='' f='' g='' h='' i='' j='' k=''/>")), "t.svg"),
      Catch::Contains("three million attributes"));
}

TEST_CASE("an entity does not grow a drawing without end") {
  std::string words = "<!DOCTYPE svg [<!ENTITY a '" + times(4000, "1 ") + "'>";
  for (const char* level : {"b", "c", "d"})
    words += std::string("<!ENTITY ") + level + " '" +
             times(60, std::string("&") + static_cast<char>(level[0] - 1) + ";") + "'>";
  CHECK_THROWS_WITH(read_svg(words + "]>" + svg("<path d='M0 0 L&d;'/>"), "t.svg"), Catch::Contains("t.svg, line 1"));
}

TEST_CASE("many circles side by side, many rings in rings and many layers are read at once") {
  std::string side_by_side, rings, layers, kinds;
  for (int i = 0; i < 6000; ++i)
    side_by_side += entity("CIRCLE", "A", {{10, 3 * (i % 100)}, {20, 3 * (i / 100)}, {40, 1}});
  for (int i = 0; i < 3000; ++i) rings += entity("CIRCLE", "A", {{10, 0}, {20, 0}, {40, 1 + 0.05 * i}});
  for (int i = 0; i < 6000; ++i)
    layers +=
        entity("LINE", "L" + std::to_string(i), {{10, 0}, {20, 0}, {11, 100 * std::cos(i)}, {21, 100 * std::sin(i)}});
  for (int i = 0; i < 3000; ++i) kinds += entity("K" + std::to_string(i), "A", {});
  CHECK(read_dxf(dxf(side_by_side), "t.dxf").drawing.parts.size() == 6000);
  // Every second one is the hole of the one around it.
  const Imported nested = read_dxf(dxf(rings), "t.dxf");
  CHECK(nested.drawing.parts.size() == 1500);
  const std::string& outer = nested.drawing.parts[0].data;
  CHECK(std::count(outer.begin(), outer.end(), 'M') == 2);
  CHECK(read_dxf(dxf(layers), "t.dxf").drawing.parts.size() == 6000);
  CHECK(read_dxf(dxf(kinds + layers), "t.dxf").left_out.size() <= 41);
}

TEST_CASE("a Doyen file of millions of values is refused before they fill the memory") {
  CHECK_THROWS_WITH(parse_json("[" + times(5'000'001, "1,") + "1]", "job"), Catch::Contains("five million values"));
  CHECK(parse_json("[\"" + std::string(6'000'000, ',') + "\"]", "job").size() == 1);
}
