// The machine's bed from above: where the board lies on it, what it lies against, and how far the bits may go there.
// Bed coordinates are mm from the left front end of the machine's travel, x to the right, y away from the user;
// lying coordinates the same from the left front corner of the board as it lies.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "run/placement.hpp"

namespace doyen {

Placement lying_placement(const Job& job);  // from board coordinates to lying ones; heights as on the board
Box lying_box(const Blank& blank, OnBed turn);

// Where lying coordinates begin on the bed; nothing where it was not said.
std::optional<Point> left_front_on_bed(const Job& job);
// Where they would begin with the board in the middle of the travel.
Point middle_of_travel(const Job& job, const MachineProfile& machine);
// Where the corner that is pushed home lies when they begin at `origin`.
Point pushed_corner(const Job& job, Point origin);
// Says it: moves the corner that is pushed home by so much, mm.
void move_on_bed(Job& job, Point by);

Box travel_box(const MachineProfile& machine);  // as far as it goes, bed coordinates
Box bed_box(const MachineProfile& machine);     // what a board can lie on

struct FixturePart {
  enum class What { Stop, Fence, Dowel, Wedge };
  What what = What::Stop;
  Box box;  // lying coordinates; of a dowel, round about its middle
};
// The kind's parts beside the board, in the machine's holes where dowels stand in holes that are known.
std::vector<FixturePart> fixture_parts(const Job& job, const MachineProfile& machine);
double fixture_stands(const Job& job);                 // mm above the bed
std::string corner_in_words(const Fixture& fixture);   // “left front corner”: the one that is pushed home
std::string fixture_in_words(const Fixture& fixture);  // “two stops at the front…”; empty for none

// By how much the board would have to be moved so that its dowels stand in the machine's holes, the nearest; nothing
// where it has no holes, no dowels, or does not say where the board lies.
std::optional<Point> off_the_holes(const Job& job, const MachineProfile& machine);

// The least move, mm, that brings a box of lying coordinates into the machine's travel where the board lies now, by
// whole holes where it lies against dowels; zero where it is inside. Nothing where there is none.
std::optional<Point> into_travel(const Box& reach, const Job& job, const MachineProfile& machine);

// Where zero lies, counted from the corner that the machine homes to, in its own figures, mm. Nothing where the place
// on the bed or that corner was not said.
std::optional<Point> zero_from_home(const Job& job, const MachineProfile& machine);

}  // namespace doyen
