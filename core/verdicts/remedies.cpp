#include "verdicts/remedies.hpp"

#include "holding/turning_pins.hpp"
#include "problem.hpp"
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
            Item* it = job.find(piece);
            if (it == nullptr) return;
            it->cut.through.tabs.wanted = true;
            it->cut.through.taped = false;
          }};
}

Remedy clear_opening(const std::string& piece) {
  return {say("Clear it"), [piece](Job& job) {
            if (Item* it = job.find(piece)) it->cut.pierce.slug = false;
          }};
}

Remedy PieceSeen::deep(double most) const {
  const double mm = said_within(most, s.job.lengths);
  return {say("Make it {0} deep", s.show(mm)), [id = item.piece.id, mm](Job& job) {
            if (Item* it = job.find(id)) it->cut.depth = mm;
          }};
}

Remedy PieceSeen::propose_bits() const {
  return {say("Let Doyen propose bits"), [id = item.piece.id](Job& job) {
            if (Item* it = job.find(id)) it->cut.clearing.clear();
          }};
}

std::optional<Remedy> find_turning_pins(const Situation& s, const std::string& label) {
  try {
    (void)with_turning_pins(s.job, s.rack);
  } catch (const Problem&) {
    return {};
  }
  return Remedy{label, [rack = s.rack](Job& job) {
                  try {
                    job = with_turning_pins(job, rack);
                  } catch (const Problem&) {
                    return;  // there was room when it was offered
                  }
                }};
}

}  // namespace doyen
