// What a piece shall look like, and the choices that go with it.
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace doyen {

// Where a tab stands: on which island's outer ring, and how far along it as a share from 0 to 1.
struct TabPlace {
  int island = 0;
  double along = 0;
  friend bool operator==(const TabPlace&, const TabPlace&) = default;
};

struct Tabs {
  bool wanted = true;
  int count = 4;
  double length = 6.35;          // mm of wood along the outline
  double height = 3.175;         // mm above the underside
  std::vector<TabPlace> placed;  // by hand; empty lets Doyen place them
  friend bool operator==(const Tabs&, const Tabs&) = default;
};

struct Treatment {
  enum class Kind { None, Incise, CutOut, Line };
  Kind kind = Kind::None;
  std::string bit = "v60";            // the V of a groove, the flat bit of a cut-out, whatever follows a line
  double depth = 1;                   // mm, of Line: how deep the bit follows it
  std::optional<double> floor_limit;  // mm; none lets the groove go as deep as the stroke asks
  std::vector<std::string> clearing;  // flat bits for floors, in any order; larger ones go first
  std::optional<double> over_cut;     // mm past the underside; none lets Doyen choose
  Tabs tabs;
  friend bool operator==(const Treatment&, const Treatment&) = default;
};

const char* to_word(Treatment::Kind kind);  // none, incise, cutout, line

}  // namespace doyen
