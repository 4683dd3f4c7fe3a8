// What lies on the bench under Proof: woods where they stand, open lines and wood in the way in their colours.
#include "parts/theme.hpp"
#include "rack/own_rack.hpp"
#include "stages/proof/boards_view.hpp"
#include "stock/species.hpp"
#include "window_probe.hpp"
#include "work/fit_keeper.hpp"

using namespace probe;

namespace {

struct Joint {
  Job job;
  Halves halves;
};

Joint joint() {
  Joint j;
  j.job.blank.width = 120;
  j.job.blank.height = 80;
  j.job.blank.readings = {20};
  j.job.blank.species = "black-walnut";
  Item item{{"bar", "Bar", PlainShape{PlainShape::Kind::Rectangle, 40, 20}, {60, 40}, 0}, {}};
  item.cut.kind = Treatment::Kind::Inlay;
  item.cut.bit = "v60";
  item.cut.depth = 5;
  j.job.items.push_back(item);
  const Rack rack = load_rack();
  const FurtherBoard board = plug_boards(j.job).at(0);
  j.halves =
      halves_of(plan(j.job, rack, machine_for(j.job)), plan(board.job, rack, machine_for(board.job)), board.places[0]);
  return j;
}

QColor at(const QImage& image, const Fit& fit, Point p) {
  const Box box = fit.pocket.box();
  const int x = static_cast<int>((p.x - box.left) / fit.pocket.cell());
  return image.pixelColor(x, image.height() - 1 - static_cast<int>((p.y - box.bottom) / fit.pocket.cell()));
}

int count(const QImage& image, const QColor& colour) {
  int n = 0;
  for (int y = 0; y < image.height(); ++y) {
    for (int x = 0; x < image.width(); ++x) n += image.pixelColor(x, y) == colour;
  }
  return n;
}

}  // namespace

TEST_CASE("the levelled face shows plug and board in their own woods, and open lines in red") {
  const Joint j = joint();
  const Fit fit = mate(j.halves, 0.1);
  const QImage face = fit_picture(fit, j.halves, j.job, FitKeeper::Show::Levelled, 0);
  REQUIRE(face.width() == static_cast<int>(fit.pocket.columns()));
  const QColor maple = at(face, fit, {60, 40}), walnut = at(face, fit, {60, 51.5});
  CHECK(maple.lightness() > walnut.lightness() + 60);
  const Species &m = *species_table().find("sugar-maple"), &w = *species_table().find("black-walnut");
  CHECK(std::abs(maple.redF() - m.light.red) < 0.2);
  CHECK(std::abs(walnut.redF() - w.light.red) < 0.25);
  CHECK(at(face, fit, {82.8, 52.8}).alpha() == 0);  // beyond what is looked at the board itself is seen
  CHECK(count(face, theme::kBrick) == 0);
  // A blunter bit opens the line all round: about the bar's outline times its width.
  WhatIf blunt;
  blunt.angle = 3;
  const Fit open = mate(j.halves, 0.1, blunt);
  const QImage gaping = fit_picture(open, j.halves, j.job, FitKeeper::Show::Levelled, 0);
  const double wide = face_after(open, 0).widest_gap;
  CHECK(wide > 0.15);
  CHECK(count(gaping, theme::kBrick) * 0.01 < 130 * wide);
  CHECK(count(gaping, theme::kBrick) * 0.01 > 40 * 0.1);
}

TEST_CASE("the picture of gaps tells closed flanks, the glue's room and wood in the way") {
  const Joint j = joint();
  const Fit fit = mate(j.halves, 0.1);
  const QImage gaps = fit_picture(fit, j.halves, j.job, FitKeeper::Show::Gaps, 0);
  CHECK(count(gaps, theme::kBrick) == 0);
  CHECK(at(gaps, fit, {60, 40}) == gap_colour(1.2));           // over the floor, as wide as the glue gap
  CHECK(at(gaps, fit, {60, 40 + 10 - 0.6}) == gap_colour(0));  // on the flank
  WhatIf shallow;
  shallow.pocket_zero = 0.2;
  const Fit binds = mate(j.halves, 0.1, shallow);
  const QImage red = fit_picture(binds, j.halves, j.job, FitKeeper::Show::Gaps, 0);
  // All flanks stand in the way then: the ring between the outline and the land.
  CHECK(count(red, theme::kBrick) * 0.01 > 100);
  CHECK(fit_picture(fit, j.halves, j.job, FitKeeper::Show::Carved, 0).isNull());
  // Wider gaps are darker, step by step.
  for (const double mm : {0.05, 0.1, 0.3, 0.6, 1.0, 1.6})
    CHECK(gap_colour(mm).lightness() > gap_colour(mm * 1.3).lightness());
  CHECK(gap_colour(5) == gap_colour(2));
}

TEST_CASE(
    "the plug's own relief is seen as it comes to lie: its land bright, its background in shade of its own wood") {
  const Joint j = joint();
  const Fit fit = mate(j.halves, 0.1);
  const QImage plug = fit_picture(fit, j.halves, j.job, FitKeeper::Show::Plug, 0);
  CHECK_FALSE(plug.isNull());
  CHECK(at(plug, fit, {60, 40}).alpha() == 255);
  CHECK(at(plug, fit, {82.8, 52.8}).alpha() == 0);
  // Flanks that face the light and flanks that do not.
  CHECK(at(plug, fit, {60, 40 + 9}).lightness() != at(plug, fit, {60, 40 - 9}).lightness());
}
