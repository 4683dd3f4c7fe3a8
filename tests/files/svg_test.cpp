// SVG in: coverage against librsvg, units and viewBox by the published rules, and hostile files.
#include "files/svg/svg_read.hpp"
#include "files/svg/svg_write.hpp"

#include <librsvg/rsvg.h>

#include <catch2/catch.hpp>

#include "coverage.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;

namespace {

Imported read(const std::string& body, const std::string& root = "width='100mm' height='80mm' viewBox='0 0 100 80'") {
  return read_svg("<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' " + root + ">" +
                      body + "</svg>",
                  "t.svg");
}

double drawn_area(const std::string& body) { return area(drawing_region_as_drawn(read(body).drawing)); }

Box drawn_box(const std::string& root) {
  return bounds(drawing_region_as_drawn(read("<rect width='10' height='20'/>", root).drawing));
}

}  // namespace

TEST_CASE("units and viewBox map as SVG 1.1 says") {  // published: W3C SVG 1.1, 7.8 and 7.10; 96 px to the inch
  CHECK(drawn_box("width='100mm' height='80mm' viewBox='0 0 100 80'").width() == Approx(10).margin(1e-3));
  CHECK(drawn_box("width='960' height='960'").width() == Approx(10 * 25.4 / 96).margin(1e-3));
  CHECK(drawn_box("width='1in' height='1in' viewBox='0 0 96 96'").height() == Approx(20 * 25.4 / 96).margin(1e-3));
  CHECK(drawn_box("width='72pt' height='72pt' viewBox='0 0 25.4 25.4'").width() == Approx(10).margin(1e-3));
  // A wide page for a square view: uniform scaling, in the middle; at the left with xMin; stretched with none.
  const std::string wide = "width='200mm' height='100mm' viewBox='0 0 100 100' ";
  CHECK(drawn_box(wide).left == Approx(50).margin(1e-3));
  CHECK(drawn_box(wide + "preserveAspectRatio='xMinYMid'").left == Approx(0).margin(1e-3));
  CHECK(drawn_box(wide + "preserveAspectRatio='xMaxYMid'").left == Approx(100).margin(1e-3));
  CHECK(drawn_box(wide + "preserveAspectRatio='none'").width() == Approx(20).margin(1e-3));
  CHECK(drawn_box("viewBox='5 5 100 100'").left == Approx(-5 * 25.4 / 96).margin(1e-3));
  CHECK_FALSE(read("<rect width='1' height='1'/>", "viewBox='0 0 9 9'").sized);
}

TEST_CASE("shapes have their areas") {  // any handbook of mathematics
  CHECK(drawn_area("<circle cx='50' cy='40' r='10'/>") == Approx(M_PI * 100).epsilon(1e-3));
  CHECK(drawn_area("<ellipse cx='50' cy='40' rx='10' ry='5'/>") == Approx(M_PI * 50).epsilon(1e-3));
  CHECK(drawn_area("<rect x='1' y='1' width='20' height='10' rx='2'/>") == Approx(200 - (4 - M_PI) * 4).epsilon(1e-3));
  CHECK(drawn_area("<polygon points='0,0 10,0 10,10'/>") == Approx(50).epsilon(1e-4));
  CHECK(drawn_area("<path d='M0 0h10v10h-10z M2 2h6v6h-6z' fill-rule='evenodd'/>") == Approx(64).epsilon(1e-4));
  CHECK(drawn_area("<line x1='10' y1='10' x2='30' y2='10' stroke='#000' stroke-width='2'/>") > 40 - 1e-3);
  CHECK(drawn_area("<rect width='10' height='10' transform='rotate(45) scale(2)'/>") == Approx(400).epsilon(1e-4));
  CHECK(drawn_area("<g transform='translate(20,20)'><rect id='r' width='5' height='5'/></g><use href='#r' x='40'/>") ==
        Approx(50).epsilon(1e-4));
  CHECK(drawn_area("<style>.no{fill:none} rect{fill:red}</style><rect class='no' width='9' height='9'/><rect width='3' "
                   "height='3'/>") == Approx(9).epsilon(1e-4));
  CHECK(drawn_area("<rect style='display:none' width='9' height='9'/><rect width='2' height='2'/>") ==
        Approx(4).epsilon(1e-4));
}

TEST_CASE("ids and groups are kept, what cannot be taken is listed") {
  const Imported d = read("<g id='leaves'><rect id='one' width='9' height='9'/></g><image href='x.png'/>");
  REQUIRE(d.drawing.parts.size() == 1);
  CHECK(d.drawing.parts[0].id == "one");
  CHECK(d.drawing.parts[0].group == "leaves");
  REQUIRE(d.left_out.size() == 1);
  CHECK_THAT(d.left_out[0], Catch::Contains("picture"));
}

TEST_CASE("the sprig covers what librsvg paints") {
  const std::string path = data_file("demo/sprig.svg");
  CHECK(coverage::overlap_with_librsvg(path) >= 0.98);
}

TEST_CASE("hostile drawings are refused with a sentence or taken without what is hostile") {
  const auto refused = [](const std::string& text, const std::string& says) {
    CHECK_THROWS_WITH(read_svg(text, "bad.svg"), Catch::Contains("bad.svg") && Catch::Contains(says));
  };
  refused("", "bad.svg");
  refused("<svg", "line");
  refused("<html/>", "SVG");
  refused("<svg xmlns='http://www.w3.org/2000/svg'></svg>", "no filled or stroked");
  std::string deep, close;
  for (int i = 0; i < 400; ++i) deep += "<g>", close += "</g>";
  refused("<svg>" + deep + "<rect width='1' height='1'/>" + close + "</svg>", "200 deep");
  // Entities that multiply: expat stops them.
  std::string bomb = "<!DOCTYPE svg [<!ENTITY a0 'aaaaaaaaaa'>";
  for (int i = 1; i < 12; ++i) {
    bomb += "<!ENTITY a" + std::to_string(i) + " '";
    for (int k = 0; k < 10; ++k) bomb += "&a" + std::to_string(i - 1) + ";";
    bomb += "'>";
  }
  refused(bomb + "]><svg><style>&a11;</style><rect width='1' height='1'/></svg>", "bad.svg");
  // An outside entity is never fetched.
  const std::string outside =
      "<!DOCTYPE svg [<!ENTITY x SYSTEM 'file:///etc/passwd'>]><svg><rect id='a&x;' width='9' height='9'/></svg>";
  try {
    for (const auto& part : read_svg(outside, "bad.svg").drawing.parts) CHECK(part.id.size() < 3);
  } catch (const Problem&) {
    SUCCEED();
  }
  // A drawing that uses itself, and numbers that are none.
  CHECK_FALSE(read("<g id='a'><rect width='5' height='5'/><use href='#a'/></g>").left_out.empty());
  CHECK_FALSE(read("<rect width='5' height='5'/><path d='M0 0 L nan 5 Z'/>").left_out.empty());
  CHECK(read("<rect width='5' height='5'/><rect width='1e30' height='5'/>").drawing.parts.size() == 1);
  // Doubling uses: two to the fortieth copies.
  std::string doubling = "<g id='g0'><rect width='1' height='1'/></g>";
  for (int i = 1; i < 40; ++i) {
    const std::string n = std::to_string(i - 1);
    doubling += "<g id='g" + std::to_string(i) + "'><use href='#g" + n + "'/><use href='#g" + n + "'/></g>";
  }
  CHECK_THROWS_AS(read("<defs>" + doubling + "</defs><use href='#g39'/>"), Problem);
}

TEST_CASE("every truncation and random changes of a drawing are refused or read") {
  const std::string text = read_file(data_file("demo/sprig.svg"));
  const auto attempt = [](const std::string& broken) {
    try {
      read_svg(broken, "t.svg");
    } catch (const Problem& problem) {
      CHECK(std::string(problem.what()).size() > 10);
    }
  };
  for (std::size_t n = 0; n < text.size(); n += 5) attempt(text.substr(0, n));
  unsigned seed = 12345;
  for (int round = 0; round < 500; ++round) {
    std::string broken = text;
    for (int k = 0; k < 4; ++k) {
      seed = seed * 1664525u + 1013904223u;
      broken[(seed >> 8) % broken.size()] = static_cast<char>(seed & 0xFF);
    }
    attempt(broken);
  }
}

TEST_CASE("outlines written as SVG are read back at the same place and size") {
  const Region region = clean({{{10, 10}, {60, 12}, {40, 50}}});
  const Imported again = read_svg(write_svg({{"a<b\x02\x1b\n\"", region}}, 100, 80, true), "t.svg");
  CHECK(again.sized);
  const Region back = drawing_region_as_drawn(again.drawing);
  CHECK(area(back) == Approx(area(region)).epsilon(1e-4));
  CHECK(bounds(back).top == Approx(70).margin(1e-3));  // y down: 80 − 10
}
