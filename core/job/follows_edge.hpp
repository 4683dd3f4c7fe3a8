// What is made from the sign's own edge and lies where that is, on either side of the board.
#pragma once

#include <algorithm>
#include <string>

#include "job/job.hpp"

namespace doyen {

// Grown from nothing but what is cut out, and past it: such as a step behind the edge. It is not mirrored when it is
// cut from the back, and may reach into the waste.
inline bool follows_edge(const Job& job, const Item& item) {
  const auto* made = std::get_if<Derived>(&item.piece.what);
  if (made == nullptr || made->how != Derived::How::Grow || made->distance <= 0 || made->band <= made->distance)
    return false;
  if (item.cut.kind != Treatment::Kind::Recess || !item.cut.back) return false;
  return !made->from.empty() && std::all_of(made->from.begin(), made->from.end(), [&](const std::string& id) {
    const Item* source = job.find(id);
    return source != nullptr && source->cut.kind == Treatment::Kind::CutOut;
  });
}

}  // namespace doyen
