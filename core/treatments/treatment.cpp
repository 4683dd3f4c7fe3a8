#include "treatments/treatment.hpp"

namespace doyen {

const char* to_word(Treatment::Kind kind) {
  static constexpr const char* kWords[] = {"none",  "incise", "cutout", "line",       "raise", "recess", "pierce",
                                           "bevel", "drill",  "plane",  "hangerSlot", "inlay", "plug"};
  return kWords[static_cast<int>(kind)];
}

WantedBit wanted_bit(const Treatment& cut) {
  using Kind = Treatment::Kind;
  switch (cut.kind) {
    case Kind::Incise:
    case Kind::Bevel:
      return WantedBit::V;
    case Kind::Raise:
      return cut.sloped ? WantedBit::V : WantedBit::None;
    case Kind::CutOut:
    case Kind::Pierce:
      return WantedBit::Flat;
    case Kind::Inlay:
    case Kind::Plug:
      return cut.inlay.sloped ? WantedBit::V : WantedBit::None;
    case Kind::HangerSlot:
      return WantedBit::Keyhole;
    case Kind::Line:
    case Kind::Drill:
      return WantedBit::Any;
    default:
      return WantedBit::None;
  }
}

bool upright_walls(const Treatment& cut) {
  using Kind = Treatment::Kind;
  switch (cut.kind) {
    case Kind::Raise:
      return !cut.sloped;
    case Kind::Inlay:
    case Kind::Plug:
      return !cut.inlay.sloped;
    case Kind::Recess:
      return true;
    default:
      return false;
  }
}

bool clears_floor(const Treatment& cut) {
  return makes_ground(cut.kind) || cut.kind == Treatment::Kind::Inlay || cut.kind == Treatment::Kind::Plug ||
         (cut.kind == Treatment::Kind::Incise && cut.floor_limit.has_value());
}

}  // namespace doyen
