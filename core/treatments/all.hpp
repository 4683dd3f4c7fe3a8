// The treatments: one line each, in the order in which people are offered them.
#pragma once

#include <array>

#include "treatments/look.hpp"

namespace doyen {

extern const Look kNotCut, kIncise, kRaise, kRecess, kPierce, kCutOut, kBevel, kLine, kDrill, kPlane, kHangerSlot,
    kInlay, kPlug;

struct ListedLook {
  Treatment::Kind kind;
  const Look& look;
};
inline constexpr std::array kLooks{
    ListedLook{Treatment::Kind::Incise, kIncise}, ListedLook{Treatment::Kind::Raise, kRaise},
    ListedLook{Treatment::Kind::Recess, kRecess}, ListedLook{Treatment::Kind::Pierce, kPierce},
    ListedLook{Treatment::Kind::CutOut, kCutOut}, ListedLook{Treatment::Kind::Bevel, kBevel},
    ListedLook{Treatment::Kind::Line, kLine},     ListedLook{Treatment::Kind::Drill, kDrill},
    ListedLook{Treatment::Kind::Plane, kPlane},   ListedLook{Treatment::Kind::HangerSlot, kHangerSlot},
    ListedLook{Treatment::Kind::Inlay, kInlay},   ListedLook{Treatment::Kind::Plug, kPlug},
    ListedLook{Treatment::Kind::None, kNotCut},
};

// A kind that is forgotten, or listed twice, does not compile.
consteval bool every_kind_is_listed() {
  for (std::size_t kind = 0; kind < kLooks.size(); ++kind) {
    int times = 0;
    for (const ListedLook& listed : kLooks) times += listed.kind == static_cast<Treatment::Kind>(kind) ? 1 : 0;
    if (times != 1) return false;
  }
  return kLooks.size() == static_cast<std::size_t>(Treatment::Kind::Plug) + 1;
}
static_assert(every_kind_is_listed(), "each Treatment::Kind stands once in kLooks");

}  // namespace doyen
