// How narrow wood may become before it breaks in the hand or at the wall: data/strength.json, common practice.
#pragma once

#include <map>
#include <string>

namespace doyen {

// Widths as shares of the board's thickness: fibres along the neck, fibres across it; and mm that hold in any board.
// `skin`: mm that must be left over a cut from the other side. `wall`: a wall's width as a share of its height. `cut`
// and `shear`, N/mm²: its resistance to a cutting edge, and its strength in shear along the grain.
struct NeckLimits {
  double along = 0.35, across = 0.8, least = 3, skin = 2, wall = 1, cut = 40, shear = 5;
};

// How large a part must be for tape to hold it while it is cut free, mm²: under bits that lift the chips, and others.
struct TapeLimits {
  double up_cut = 2500, other = 800;
};

// What holds a board on the bed stands against a push along it, N: a clamp by its friction, a screw by its shank.
struct HoldLimits {
  double clamp = 300, screw = 800;
};

struct StrengthTable {
  std::map<std::string, NeckLimits> classes;  // by wood class
  TapeLimits tape;
  HoldLimits hold;
  std::string source;
};

StrengthTable read_strength(const std::string& json, const std::string& where);  // throws Problem{BadInput}
const StrengthTable& strength_table();                                           // read once

// mm, for this class of wood in a board so thick.
double least_neck(const std::string& wood_class, double thickness, bool across);

double least_skin(const std::string& wood_class);          // mm
double least_wall(const std::string& wood_class);          // a wall's width over its height
double cutting_resistance(const std::string& wood_class);  // N/mm²
double shear_strength(const std::string& wood_class);      // N/mm²

}  // namespace doyen
