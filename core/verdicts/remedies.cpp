#include "verdicts/remedies.hpp"

#include "wording/say.hpp"

namespace doyen {

Remedy leave_skin(const std::string& piece) {
  return {say("Leave a skin to cut by hand"), [piece](Job& job) {
            constexpr double kSkin = 0.5;  // mm, that a knife still parts (common practice, no source)
            if (Item* it = job.find(piece)) it->cut.through.skin = kSkin;
          }};
}

Remedy tape_down(const std::string& piece) {
  return {say("I will tape it down"),
          [piece](Job& job) {
            if (Item* it = job.find(piece)) it->cut.through.taped = true;
          },
          true};
}

Remedy hold_by_tabs(const std::string& piece) {
  return {say("Hold it with tabs"), [piece](Job& job) {
            if (Item* it = job.find(piece)) it->cut.through.tabs.wanted = true;
          }};
}

Remedy clear_opening(const std::string& piece) {
  return {say("Clear it"), [piece](Job& job) {
            if (Item* it = job.find(piece)) it->cut.pierce.slug = false;
          }};
}

}  // namespace doyen
