// A floor drawn in by any distance: by offsetting, or, where a groove's medial axes are there anyway, out of those.
#pragma once

#include <memory>
#include <vector>

#include "cutting/groove.hpp"
#include "geometry/axis_rings.hpp"
#include "geometry/region.hpp"

namespace doyen {

class DrawnIn {
  static constexpr double kArcError = 0.002;  // mm

 public:
  explicit DrawnIn(Region floor);
  // The floor that a groove has at its limit. The parts that the groove was planned of, in the same order, and the
  // groove itself must outlive it.
  DrawnIn(const Region& parts, const Groove& groove);

  [[nodiscard]] const Region& floor() const { return floor_; }
  // Whether drawing it in again and again is quicker from the floor itself than each time from the last.
  [[nodiscard]] bool at_once() const { return !parts_.empty(); }
  // All that lies `mm` or more within the floor's edge; arcs are chords of `arc_error` mm.
  [[nodiscard]] Region by(double mm, double arc_error = kArcError) const;
  // What a disc of radius `reach` sweeps whose centre goes all over `inside`, which is by(mm); it may reach beyond
  // the floor.
  [[nodiscard]] Region swept(const Region& inside, double mm, double reach, double arc_error) const;
  // The floor of one of the groove's parts.
  [[nodiscard]] const Region& of_part(std::size_t place) const { return part_floors_[place]; }

 private:
  struct Part {
    const Island& outline;
    Point origin;                      // mm on the board, where the axis begins
    std::unique_ptr<AxisRings> rings;  // null: too narrow for a floor
    [[nodiscard]] bool narrower_than(double d) const { return rings == nullptr || d >= rings->widest() - kGrid; }
  };
  [[nodiscard]] Region part_by(const Part& part, double mm, double arc_error) const;

  std::vector<Part> parts_;  // empty: by offsetting
  std::vector<Region> part_floors_;
  double within_ = 0;  // mm that the floor's edge lies inside the parts' outlines
  Region floor_;
};

}  // namespace doyen
