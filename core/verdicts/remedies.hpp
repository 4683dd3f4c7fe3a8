// Remedies that several checks offer.
#pragma once

#include "verdicts/verdict.hpp"

namespace doyen {

Remedy leave_skin(const std::string& piece);  // under a through cut, to be cut by hand
Remedy tape_down(const std::string& piece);   // the user's to say
Remedy hold_by_tabs(const std::string& piece);
Remedy clear_opening(const std::string& piece);  // instead of letting its middle fall

// Places for two pins that the board is turned over onto, the old ones given up; nothing where there is no room.
std::optional<Remedy> find_turning_pins(const Situation& s, const std::string& label);

}  // namespace doyen
