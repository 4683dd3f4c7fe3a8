// What is known of a wood or sheet: figures with their source, and what it looks like. From data/species.json.
#pragma once

#include <string>
#include <vector>

#include "measure/id.hpp"
#include "stock/blank.hpp"

namespace doyen {

struct Colour {
  double red = 0, green = 0, blue = 0;  // 0 to 1
};

struct Species {
  WoodId id;
  std::string name;          // in the user's language where it is one of species_table()
  std::string in_sentence;   // of what stands for its class, the same within a sentence: “brass plate”
  std::string wood_class;    // which feeds apply: soft, hard, sheet
  double density = 0;        // kg/m³ at 12 per cent moisture
  double side_hardness = 0;  // N
  double shrink_radial = 0;  // per cent, green to oven dry
  double shrink_tangential = 0;
  double change_radial = 0;  // dimensional change coefficient, per per cent of moisture content
  double change_tangential = 0;
  bool open_pores = false;  // ring-porous, or with pores wide enough to hold sanding dust
  bool resinous = false;    // oils or resin keep glue from holding
  std::string source;       // where the figures come from
  Colour light, dark;       // earlywood and latewood
  double ring = 3;          // mm between growth rings on the face, as drawn
  double figure = 1;        // 0 none (MDF) to 1 strongly marked
};

struct SpeciesTable {
  std::vector<Species> species;
  [[nodiscard]] const Species* find(const WoodId& id) const;  // null when unknown
};

SpeciesTable read_species(const std::string& json, const std::string& where);  // throws Problem{BadInput}
const SpeciesTable& species_table();                                           // data/species.json, read once

// The class of the board's wood; soft where its wood is not in the table.
std::string wood_class_of(const Blank& blank);
// What its feeds are kept for, as a person says it: soft wood, hard wood, sheet goods, else the material itself, such
// as brass.
std::string class_in_words(const Blank& blank);

}  // namespace doyen
