// Drawings: from a file, traced from a picture, or drawn by hand.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "artwork/drawing/trace.hpp"
#include "geometry/polyline.hpp"
#include "geometry/region.hpp"
#include "shared.hpp"

namespace doyen {

// The picture that a drawing was traced from, and how, so that it can be traced again.
struct TracedFrom {
  Shared<std::string> png;  // base64
  TraceSettings settings;
  friend bool operator==(const TracedFrom&, const TracedFrom&) = default;
};

struct Drawing {
  struct Part {
    std::string id;     // the file's own
    std::string group;  // the file's group or layer
    std::string data;   // SVG path data in mm on the drawing's page, y down
    bool even_odd = false;
    bool line = false;  // a stroke line, not a filled outline
    double stroke = 0;  // mm on the page, lines only: how wide the file paints it; 0 where it does not say
    StrokeEnd end = StrokeEnd::Flat;
    StrokeJoint joint = StrokeJoint::Pointed;
    bool left_out = false;  // the user does not want it
    friend bool operator==(const Part&, const Part&) = default;
  };
  std::string name;                        // the file it came from
  double page_width = 0, page_height = 0;  // mm
  Shared<std::vector<Part>> parts;
  double scale = 1;
  bool mirrored = false;
  // What stroke lines are: carved as wide as they are painted, followed by the bit, or outlines of what they enclose:
  // closed ones then, every second inwards the hole of the one around it; open ones enclose nothing and are not cut.
  enum class Lines { Wide, Followed, Enclose };
  Lines lines = Lines::Wide;
  double hairline = 0.5;  // mm on the board: the width carved for lines that state none
  double thicken = 0;     // mm on the board, added on every side of filled parts
  std::optional<TracedFrom> traced;
  Shared<std::vector<Part>> original;  // the parts as they came, once mending or point editing changed them; else empty
  double tall = 1;                     // its height, as a share of what its own proportions give at that scale
  friend bool operator==(const Drawing&, const Drawing&) = default;
};

}  // namespace doyen
