#include "treatments/all.hpp"

#include <algorithm>

namespace doyen {

const Look& look_of(Treatment::Kind kind) {
  return std::find_if(kLooks.begin(), kLooks.end(), [kind](const ListedLook& l) { return l.kind == kind; })->look;
}

const char* to_word(Treatment::Kind kind) { return look_of(kind).word; }
bool goes_through(Treatment::Kind kind) { return look_of(kind).through; }
bool makes_ground(Treatment::Kind kind) { return look_of(kind).ground; }
WantedBit wanted_bit(const Treatment& cut) { return look_of(cut.kind).bit(cut); }
bool clears_floor(const Treatment& cut) { return look_of(cut.kind).clears(cut); }
bool upright_walls(const Treatment& cut) { return look_of(cut.kind).upright(cut); }
double floor_depth(const Treatment& cut) { return look_of(cut.kind).floor_depth(cut); }

}  // namespace doyen
