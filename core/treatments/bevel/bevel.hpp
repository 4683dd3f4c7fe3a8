// A slope along an outline.
#pragma once

namespace doyen {

struct BevelChoices {
  bool inside = false;  // it falls inwards from the outline (a floor's rim); else outwards
  friend bool operator==(const BevelChoices&, const BevelChoices&) = default;
};

}  // namespace doyen
