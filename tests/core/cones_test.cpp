// Engraving cones that clear fine grounds: by a cone's own profile (half its tip, and as much more to a side as its
// slope says; any textbook), by the depth of what its files carve, and by what is left over for the finer tip.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "planning/judged.hpp"
#include "planning/trials.hpp"
#include "planning/ways.hpp"
#include "remedies.hpp"
#include "treatments/suits.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

constexpr double kDeep = 0.3;
const Point kMiddle{40, 20};
constexpr double kRadius = 4;  // of the raised disc

// A disc stands in a sunk ground of a brass plate.
Job plate(std::vector<BitId> clearing) {
  Job job = board(80, 40, 3);
  job.blank.species = "brass";
  Treatment raise = cut(Kind::Raise, kDeep, std::move(clearing), "engrave20");
  raise.margin = 3;
  add(job, "disc", {PlainShape::Kind::Ellipse, 2 * kRadius, 2 * kRadius}, kMiddle, raise);
  return job;
}

const double kTan = std::tan(10 * std::numbers::pi / 180);

}  // namespace

TEST_CASE("a cone with a wide tip clears a plate's ground, and its flank stays off what stands") {
  const Plan p = planned(plate({"engrave20-0.5mm"}));
  const Bit* cone = p.rack.find("engrave20-0.5mm");
  REQUIRE(cone != nullptr);
  int moves = 0;
  double lowest = 0;
  for (const Worked& w : worked_by(p, gcode_files(p))) {
    if (w.bit.id != cone->id) continue;
    for (const Pass& pass : w.passes) {
      for (std::size_t i = 1; i < pass.points.size(); ++i) {
        for (const double t : {0.0, 0.25, 0.5, 0.75, 1.0}) {
          const Point3 &a = pass.points[i - 1], &b = pass.points[i];
          const double z = a.z + (b.z - a.z) * t;
          const double away = distance(kMiddle, {a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t}) - kRadius;
          // At the face the cone is half its tip and depth × slope wide; the flank begins at the outline there.
          if (z < 0) CHECK(away >= cone->tip / 2 - z * kTan - 0.012);
          lowest = std::min(lowest, z);
          ++moves;
        }
      }
    }
  }
  CHECK(moves > 100);
  CHECK(lowest == Approx(-kDeep).margin(0.001));
  const Judgement judged = judge_files(p, gcode_files(p), 0.1);
  CHECK(judged.faults.empty());
  // Floor in the middle of the ground, flank at the disc's edge, the face on the disc.
  const HeightField wood = carved(p, 0.02);
  CHECK(at(wood, kMiddle + Point{kRadius + 1.5, 0}) == Approx(-kDeep).margin(0.012));
  CHECK(at(wood, kMiddle + Point{kRadius + 0.5 * kDeep * kTan, 0}) == Approx(-kDeep / 2).margin(0.08));
  CHECK(at(wood, kMiddle) == 0);
}

TEST_CASE("where the wide tip has been the fine one has little left, and the ladder offers it") {
  const Plan fine = planned(plate({"flat-1/2in"}));  // passes nowhere: the V's own tip goes over all of it
  const Plan cleared = planned(plate({"engrave20-0.5mm"}));
  const auto& rest = cleared.pieces.front()->cuts;
  CHECK(rest.floor_by_v < 0.2 * fine.pieces.front()->cuts.floor_by_v);
  CHECK(cleared.seconds < fine.seconds);
  const Plan proposed = planned(plate({}));
  bool offered = false;
  for (const Way& way : ways_of(proposed, load_rack(), "disc"))
    offered = offered || way.words.find("0.5 mm tip") != std::string::npos;
  CHECK(offered);
}

TEST_CASE("a floor that only a fine tip makes is told, with the cone as a remedy that mends it") {
  Job job = plate({});
  job.blank.species = "acrylic";
  job.items.front().cut.kind = Kind::Incise;
  job.items.front().cut.incise.floor_limit = kDeep;
  job.items.front().piece.what = PlainShape{PlainShape::Kind::Rectangle, 50, 1.4};  // no flat bit fits
  const Plan p = planned(job);
  const Verdict* v = find(p, "floor-by-v-alone");
  REQUIRE(v != nullptr);
  REQUIRE_FALSE(v->remedies.empty());
  CHECK(v->remedies.front().label.find("engraving cone") != std::string::npos);
  check_remedies_mend(job, "floor-by-v-alone");
}

TEST_CASE("cones clear only where walls slope as they do, and never upright ones") {
  const Rack rack = load_rack();
  const Bit &fine = *rack.find("engrave20"), &wide = *rack.find("engrave20-0.5mm"), &v60 = *rack.find("v60");
  Treatment raise = cut(Kind::Raise, kDeep);
  CHECK(clears(wide, raise, &fine));
  CHECK(clears(wide, raise, &v60));         // steeper than the flank: it stays clear of it
  CHECK_FALSE(clears(v60, raise, &fine));   // no flat tip
  CHECK_FALSE(clears(fine, raise, &v60));   // 0.1 mm levels too little
  CHECK_FALSE(clears(wide, raise, &wide));  // its own bit does the rest anyway
  Bit blunt = wide;
  blunt.id = "blunt";
  blunt.angle = 90;
  CHECK_FALSE(clears(blunt, raise, &fine));  // it would cut the flank
  raise.raise.sloped = false;
  CHECK_FALSE(clears(wide, raise, &fine));
  CHECK_FALSE(clears(wide, cut(Kind::Recess, 1), nullptr));
  CHECK(clears(*rack.find("flat-1/8in"), cut(Kind::Recess, 1), nullptr));
  // Chosen all the same, it is told, and can be left out.
  Job job = plate({"engrave20-0.5mm"});
  job.items.front().cut.raise.sloped = false;
  CHECK(find(planned(job), "bit-wrong-kind") != nullptr);
  check_remedies_mend(job, "bit-wrong-kind");
}
