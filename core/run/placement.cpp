#include "run/placement.hpp"

#include <cmath>
#include <utility>

#include "wording/say.hpp"

namespace doyen {

namespace {

Point turned_on_bed(Point d, OnBed turn) {
  switch (turn) {
    case OnBed::QuarterLeft:
      return {-d.y, d.x};
    case OnBed::Half:
      return {-d.x, -d.y};
    case OnBed::QuarterRight:
      return {d.y, -d.x};
    case OnBed::AsDrawn:
      break;
  }
  return d;
}

// Taken off from zero, so that it is never a minus zero.
Point counted(Point seen, const Placement& by) {
  return {by.x_left ? 0 - seen.x : seen.x, by.y_near ? 0 - seen.y : seen.y};
}

}  // namespace

Point Placement::turned(Point d) const { return counted(turned_on_bed(d, turn), *this); }
Point Placement::at_machine(Point p) const { return counted(turned_on_bed(p, turn) + Point{x, y}, *this); }
Point3 Placement::at_machine(const Point3& p) const {
  const Point q = at_machine(p.flat());
  return {q.x, q.y, p.z + z};
}

Point Placement::on_board(Point p) const {
  const Point d = counted(p, *this) - Point{x, y};
  switch (turn) {
    case OnBed::QuarterLeft:
      return {d.y, -d.x};
    case OnBed::Half:
      return {-d.x, -d.y};
    case OnBed::QuarterRight:
      return {-d.y, d.x};
    case OnBed::AsDrawn:
      break;
  }
  return d;
}
Point3 Placement::on_board(const Point3& p) const {
  const Point q = on_board(p.flat());
  return {q.x, q.y, p.z - z};
}

Box Placement::at_machine(const Box& on_board) const {
  Box lying;
  lying.add(at_machine(Point{on_board.left, on_board.bottom}));
  lying.add(at_machine(Point{on_board.right, on_board.top}));
  return lying;
}

double zero_below_face(const Job& job) {
  return job.run.zero_floor > 0 ? job.run.zero_floor : job.run.zero_below - job.blank.film;
}

Point zero_lying(const Job& job) {
  const Placement turned{0, 0, 0, job.run.on_bed};
  const Box lying = turned.at_machine(job.blank.box());
  if (job.run.zero_place == ZeroPlace::Pin) {
    const Item* pin = job.find(kFirstPin);
    return pin == nullptr ? Point{} : turned.at_machine(pin->piece.at) - Point{lying.left, lying.bottom};
  }
  const Point share = zero_share(job.run.zero_place);
  return {share.x * lying.width(), share.y * lying.height()};
}

Placement placement_of(const Job& job, const MachineProfile& machine, Side side) {
  Placement placed = seen_placement_of(job, side);
  placed.x_left = machine.x_left;
  placed.y_near = machine.y_near;
  return placed;
}

Placement seen_placement_of(const Job& job, Side side) {
  Placement placed{0, 0, 0, job.run.on_bed};
  const Box lying = placed.at_machine(job.blank.box());
  const Point zero = zero_lying(job);
  // Taken off from zero itself, so that it is never a minus zero.
  placed.x = 0 - (lying.left + zero.x);
  placed.y = 0 - (lying.bottom + zero.y);
  placed.z = job.run.zero_surface == ZeroSurface::Bed ? job.blank.thickest()
             : side == Side::Front                    ? zero_below_face(job)
                                                      : 0;
  placed.z -= job.run.plate;  // zero is its top
  return placed;
}

Placement placement_with_zero(const Point3& zero, OnBed turn) {
  Placement placed{0, 0, 0 - zero.z, turn};
  const Point at = placed.turned(zero.flat());
  placed.x = 0 - at.x;
  placed.y = 0 - at.y;
  return placed;
}

Point zero_share(ZeroPlace place) {
  switch (place) {
    case ZeroPlace::LeftFront:
    case ZeroPlace::Pin:
      break;
    case ZeroPlace::Centre:
      return {0.5, 0.5};
    case ZeroPlace::RightFront:
      return {1, 0};
    case ZeroPlace::LeftBack:
      return {0, 1};
    case ZeroPlace::RightBack:
      return {1, 1};
    case ZeroPlace::MiddleFront:
      return {0.5, 0};
    case ZeroPlace::MiddleLeft:
      return {0, 0.5};
    case ZeroPlace::MiddleRight:
      return {1, 0.5};
    case ZeroPlace::MiddleBack:
      return {0.5, 1};
  }
  return {0, 0};
}

MachineProfile machine_along_board(MachineProfile machine, OnBed turn) {
  if (turn != OnBed::QuarterLeft && turn != OnBed::QuarterRight) return machine;
  for (auto* axes : {&machine.travel, &machine.rapid, &machine.feed_most, &machine.acceleration})
    std::swap((*axes)[0], (*axes)[1]);
  return machine;
}

int degrees_of(OnBed turn) { return 90 * static_cast<int>(turn); }

OnBed turned_by(double degrees) { return static_cast<OnBed>(std::lround(degrees / 90) % 4); }

std::string lying_in_words(OnBed turn) {
  switch (turn) {
    case OnBed::QuarterLeft:
      return say("turned a quarter to the left: what is drawn at the left lies in front");
    case OnBed::Half:
      return say("turned half round: what is drawn in front lies behind");
    case OnBed::QuarterRight:
      return say("turned a quarter to the right: what is drawn at the right lies in front");
    case OnBed::AsDrawn:
      break;
  }
  return {};
}

}  // namespace doyen
