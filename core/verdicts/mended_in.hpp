// At which of the stages what a verdict finds is mended.
#pragma once

#include "verdicts/verdict.hpp"

namespace doyen {

enum class MendedIn { Blank, Artwork, Cuts, Run };
// By its code; what is not about the board, the art or the machine is about how things are cut.
MendedIn mended_in(const Verdict& verdict);

}  // namespace doyen
