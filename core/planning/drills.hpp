// What goes wrong at machines, thrown into a rehearsal on purpose: how it changes what is cut, what is seen then, and
// what to do. Each is worked out by carving, with and without it.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "planning/plan.hpp"
#include "relief/height_field.hpp"

namespace doyen {

enum class Drill { None, ZeroHigh, ZeroAside, WrongBit, Clamp, LostSteps, FilmForgotten, ThickerBoard };

// Those that can happen to this side: no film is forgotten where there is none, no bit mistaken where there is one.
std::vector<Drill> drills_of(const Plan& plan, Side side = Side::Front);
std::string drill_in_words(const Plan& plan, Drill drill);  // what is thrown in

// How a run goes with it. Coordinates of the board as it lies then, its side up, mm.
struct Thrown {
  Point3 off{};                    // the bit stands so far beside where the file says
  double from = 0;                 // from this share of the run's passes on; before it stands right
  std::optional<Bit> bit{};        // in the spindle instead of the run's
  std::optional<KeepOut> metal{};  // stands on the board, in the way
};
Thrown thrown_in(const Plan& plan, Drill drill, const BitRun& run);

// Clamps and screws marked on the blank that stand there while that side is up, in its coordinates. One that nobody
// said that of stands while the front is.
std::vector<KeepOut> standing_metal(const Plan& plan, Side side);
// Where a bit of that radius first meets metal on its way from a to b, if it stands low enough there. Board
// coordinates.
std::optional<Point> first_hit(const KeepOut& metal, const Point3& a, const Point3& b, double radius);

// mm: of the board that really lies there then.
double thickness_with(const Plan& plan, Drill drill);

// That side as its runs leave it with that thrown in, in cells of `cell` mm; `hit`: where the bit met metal first, and
// nothing after that is cut.
struct Drilled {
  HeightField board;
  std::optional<Point> hit;
  double thickness = 0;  // of the board that really lies there
};
Drilled carve_with(const Plan& plan, Drill drill, double cell, Side side = Side::Front, const Cancel& cancel = {});

// What a person sees on the board, and may choose among.
enum class Seen { AsWanted, Shallow, Deep, Aside, HalfAside, OddShape, NotThrough, HitMetal };
std::string seen_in_words(Seen seen);
std::vector<Seen> all_seen();
// Told from the boards themselves, knowing nothing of what was thrown in.
Seen seen_on(const Plan& plan, const HeightField& wanted, const Drilled& got);
// What was thrown in, what it does in this job by its figures, and what to do at the machine.
std::string foretold(const Plan& plan, Drill drill, Side side = Side::Front);

}  // namespace doyen
