// The blank: the piece of wood before cutting. Its face is z = 0; x runs along its width, y away from the user.
#pragma once

#include <string>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

enum class Grain { AlongWidth, AlongHeight };

struct Blank {
  double width = 600, height = 225;  // mm
  std::vector<double> readings{19};  // mm, thickness as measured in several places; never empty
  std::string species = "western-red-cedar";
  Grain grain = Grain::AlongWidth;
  double margin = 12;           // mm that artwork keeps from the edges
  double film = 0;              // mm, masking film on the face
  double bed_unevenness = 0.1;  // mm, how uneven the bed and the board's cupping are together

  [[nodiscard]] double thickest() const;
  [[nodiscard]] double thinnest() const;
  [[nodiscard]] Box box() const { return {0, 0, width, height}; }
  friend bool operator==(const Blank&, const Blank&) = default;
};

}  // namespace doyen
