// How a board lies at the machine: turned on the bed, and where zero is taken. From board coordinates (the side's face,
// its left front corner as drawn) to those in the files, and back.
#pragma once

#include "cutting/pass.hpp"
#include "job/job.hpp"
#include "machine/profile.hpp"

namespace doyen {

struct Placement {
  double x = 0, y = 0, z = 0;  // mm to the right, away from the user and up, added to what was turned
  OnBed turn = OnBed::AsDrawn;
  bool x_left = false, y_near = false;  // the machine counts the other way (MachineProfile)

  // Turned clockwise on the board runs anticlockwise in the machine's figures.
  [[nodiscard]] bool mirrors() const { return x_left != y_near; }

  [[nodiscard]] Point turned(Point direction) const;  // a direction on the board as one at the machine
  [[nodiscard]] Point at_machine(Point on_board) const;
  [[nodiscard]] Point3 at_machine(const Point3& on_board) const;
  [[nodiscard]] Box at_machine(const Box& on_board) const;
  [[nodiscard]] Point on_board(Point at_machine) const;
  [[nodiscard]] Point3 on_board(const Point3& at_machine) const;
};

// Zero on the face lies on top of the masking film when there is one (on the front only); zero on the bed lies
// `thickest` below the face; a touch plate that the files take off lies between. Both sides lie turned alike, and take
// zero at the place that lies there with that side up.
Placement placement_of(const Job& job, const MachineProfile& machine, Side side = Side::Front);
// The same as it is seen from in front of the machine, x to the right and y away, whichever way the machine counts: for
// pictures, and for where zero lies on the board.
Placement seen_placement_of(const Job& job, Side side = Side::Front);
// mm that zero lies below the face, where it is taken on the front: on a floor, on what stands lower, or less than
// nothing on its film.
double zero_below_face(const Job& job);
// The one whose zero lies at that place of the board, at that height.
Placement placement_with_zero(const Point3& zero, OnBed turn);

// Where zero is taken, as seen at the machine: 0 left or front, 0.5 the middle, 1 right or back.
Point zero_share(ZeroPlace place);

// The same, mm from the left front corner of the board as it lies, and of either side: a pin's place is one and the
// same of the bed, since its hole comes to lie there, or the other's. Where there is no pin it is that corner.
Point zero_lying(const Job& job);

// The machine with its x and y as the board's, which are each other's where it lies a quarter turned: what times and
// reaches are worked out with in board coordinates.
MachineProfile machine_along_board(MachineProfile machine, OnBed turn);

int degrees_of(OnBed turn);       // 0, 90, 180 or 270, anticlockwise seen from above
OnBed turned_by(double degrees);  // the nearest of them

// How it lies on the bed, such as “turned a quarter to the left: what is drawn left lies in front”; empty when as
// drawn.
std::string lying_in_words(OnBed turn);

}  // namespace doyen
