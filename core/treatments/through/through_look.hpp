// What pierced openings and cut-outs have in common when they are written, and when they are chosen.
#pragma once

#include "fields/record.hpp"
#include "treatments/look.hpp"

namespace doyen {

const Record<ThroughChoices>& through_fields();

// Tabs that suit the board, where none were chosen.
void start_through(Treatment& cut, const LookStart& about);

// What is amiss with a piece that goes right through.
void check_through(const PieceSeen& piece, std::vector<Verdict>& out);

}  // namespace doyen
