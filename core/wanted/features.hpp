// The kinds of things that are taken away, each as what its cells are asked: how deep they may be, and how deep they
// must. From outlines and bits' shapes alone.
#pragma once

#include <cstdint>
#include <memory>
#include <vector>

#include "cutting/tabs.hpp"
#include "rack/bit.hpp"
#include "wanted/outline_distance.hpp"

namespace doyen {

// mm, heights below the face negative. Kept wood has `low` 0: nobody asked to take anything there.
struct WantedBounds {
  std::vector<float> low;    // no lower than
  std::vector<float> high;   // no higher than, where some bit could come everywhere
  std::vector<float> reach;  // no higher than, with the bits that are chosen: never below `high`
  // Where it is asked for: what is most likely between `low` and `high`, for pictures alone; nothing is judged by it.
  std::vector<float> likely{};
};

namespace wanted {

inline constexpr float kFace = 0;
inline constexpr double kWall = 0.02;     // mm either way of an upright wall that no sentence is made of
inline constexpr double kReached = 0.05;  // mm inside of what a bit can reach from which on it must have come

inline std::uint64_t mixed(std::uint64_t a, std::uint64_t b) {
  a ^= b + 0x9E3779B97F4A7C15ULL + (a << 6) + (a >> 2);
  return a;
}

// What one part of a treatment takes away, as heights; kFace asks for nothing.
struct Request {
  float low = kFace, high = kFace, reach = kFace;
  float likely = kFace;  // where it is another than `high`
};

// One thing that is taken away, with everything that its cells are asked.
class Feature {
 public:
  virtual ~Feature() = default;
  Feature() = default;
  Feature(const Feature&) = delete;
  Feature& operator=(const Feature&) = delete;

  // Lowers the bounds where this is asked for.
  virtual void apply(const CellGrid& grid, WantedBounds& out) const = 0;
  // Farther than this outside `box` nothing is asked.
  Box box;
  std::uint64_t key = 0;
  double ground = 0;     // mm below the face that it starts from
  bool anywhere = true;  // not only where that ground is wanted
  bool asked = true;     // else it may be taken and need not be

 protected:
  void take(WantedBounds& out, std::size_t i, const Request& r) const;
};

// Heights are z, mm; angles as the tangent of half of them; `tip` a tip flat's diameter.

// A V-groove whose outline lies at z, `sunk` mm below its ground; its flanks run on upwards past the outline.
std::unique_ptr<Feature> groove(const Region& region, double z, double tan_half, double tip, double limit, double sunk);

// A flat floor with upright walls. `reached`: what of it the bits can reach. Without `must` it may be taken and need
// not be.
std::unique_ptr<Feature> floor(const Region& region, double z, const Region& reached, bool must = true);

// What a bit leaves that follows lines at z, from a ground at `above`.
std::unique_ptr<Feature> line(const OutlineSegments& line, double z, const Bit& bit, double above);

// The inside of a shape filled with lines: nothing deeper than they are, and its edge followed.
std::unique_ptr<Feature> hatch(const Region& edge, double z, const Bit& bit, double above);

// A V-chamfer that falls from an outline at z, and the other flank of the same V where nothing else takes that away.
std::unique_ptr<Feature> bevel(const Region& region, bool inwards, double z, double depth, double tan_half, double tip);

// The slit that a through cut leaves beside its line, with the tabs that stand in it.
struct KerfAsked {
  struct Tab {
    Point at, along, out;
    bool straight = true;  // the outline runs straight there: what stands can be told
  };
  Region kept;  // the slit runs outside of it (of cut-outs), or inside of it (of openings)
  bool inside = false;
  double width = 0;   // mm
  double bottom = 0;  // z
  std::vector<Tab> tabs;
  TabShape shape;
  double tab_top = 0;  // z
};
class Kerf : public Feature {
 public:
  Region others;  // what other cut-outs keep, drawn in a little, which this slit must not enter
};
std::unique_ptr<Kerf> kerf(KerfAsked asked);

}  // namespace wanted
}  // namespace doyen
