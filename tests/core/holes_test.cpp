// Holes of drawings against areas known by construction, at whatever place, turn, scale and mirroring.
#include "artwork/drawing/holes.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "artwork/drawing/drawing_outlines.hpp"
#include "planning/plan.hpp"
#include "problem.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

// 100 mm square, with a hole of 40 mm in which a block of 10 mm stands, and a round hole of 12 mm beside it.
Piece pierced_square() {
  Drawing drawing;
  drawing.name = "square.svg";
  drawing.page_width = drawing.page_height = 100;
  Drawing::Part part;
  part.data = "M0 0H100V100H0Z M30 30V70H70V30Z M45 45H55V55H45Z M80 14 A6 6 0 1 0 92 14 A6 6 0 1 0 80 14Z";
  part.even_odd = true;
  drawing.parts = std::vector<Drawing::Part>{part};
  return {"art", "Art", drawing, {150, 100}, 0};
}

double cut_area(const Piece& piece) { return area(outlines_of(piece).region); }

}  // namespace

TEST_CASE("the holes are found with their areas, the largest first, and what stands in them is known") {
  const std::vector<Hole> holes = holes_of(outlines_of(pierced_square()).region);
  REQUIRE(holes.size() == 2);
  CHECK(holes[0].mm2 == Approx(1600));
  CHECK(area(holes[0].clear) == Approx(1500));
  CHECK(holes[1].mm2 == Approx(M_PI * 36).epsilon(3e-3));
  CHECK(holes_of({}).empty());
}

TEST_CASE("filled holes add just their area, what stays stays where it is, and the drawing goes back as it came") {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> any(0, 1);
  for (int i = 0; i < 30; ++i) {
    Piece piece = pierced_square();
    auto& drawing = std::get<Drawing>(piece.what);
    drawing.scale = 0.2 + 2 * any(random);
    drawing.tall = 0.5 + any(random);
    drawing.mirrored = any(random) < 0.5;
    drawing.thicken = any(random) < 0.3 ? any(random) : 0;
    piece.turn = 360 * any(random);
    piece.at = {300 * any(random), 200 * any(random)};
    INFO("scale " << drawing.scale << ", tall " << drawing.tall << ", mirrored " << drawing.mirrored << ", thicker by "
                  << drawing.thicken << ", turned " << piece.turn);
    const Region before = outlines_of(piece).region;
    const std::vector<Hole> holes = holes_of(before);
    if (holes.size() != 2) continue;  // thickened until one has closed
    Piece filled = piece;
    fill_holes(filled, {holes[0]});
    const Region after = outlines_of(filled).region;
    CHECK(area(after) == Approx(area(before) + area(holes[0].clear)).epsilon(1e-3));
    CHECK(area(subtract(before, grow(after, 0.01))) < 0.01);  // nothing has moved
    CHECK(area(subtract(after, grow(unite(before, holes[0].clear), 0.02))) < 0.01);
    CHECK(holes_of(after).size() == 1);
    // It is a part like any other.
    auto& parts = std::get<Drawing>(filled.what).parts.edit();
    REQUIRE(parts.size() == 2);
    parts.back().left_out = true;
    CHECK(cut_area(filled) == Approx(area(before)).epsilon(1e-6));
    CHECK(std::get<Drawing>(filled.what).original == drawing.parts);
    // Cut through on its own: just the hole, without what stands in it.
    const Piece own = piece_of_holes(piece, holes);
    const Region through = outlines_of(own).region;
    const double wanted = area(holes[0].clear) + holes[1].mm2;
    CHECK(area(through) == Approx(wanted).epsilon(1e-3));
    CHECK(area(intersect(through, before)) < 0.01 * wanted);
  }
}

TEST_CASE(
    "holes of a drawing in groups are filled in a group of their own; pieces that are no drawings stay as they are") {
  Piece piece = pierced_square();
  auto& parts = std::get<Drawing>(piece.what).parts.edit();
  parts.front().group = "ink";
  fill_holes(piece, holes_of(outlines_of(piece).region));
  CHECK(std::get<Drawing>(piece.what).parts[1].group == "ink");  // there is only one
  Piece two = pierced_square();
  auto& more = std::get<Drawing>(two.what).parts.edit();
  Drawing::Part other = more.front();
  other.data = "M120 0H130V10H120Z";
  other.group = "second";
  more.push_back(other);
  fill_holes(two, holes_of(outlines_of(two).region));
  CHECK(std::get<Drawing>(two.what).parts.size() == 4);
  CHECK(std::get<Drawing>(two.what).parts[2].group != "second");
  CHECK_FALSE(std::get<Drawing>(two.what).parts[2].group.empty());
  Piece plain{"p", "P", PlainShape{PlainShape::Kind::Rectangle, 20, 10}, {50, 50}, 0};
  const Piece was = plain;
  fill_holes(plain, holes_of(outlines_of(pierced_square()).region));
  CHECK(plain == was);
}
