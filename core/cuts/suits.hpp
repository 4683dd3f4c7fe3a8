// Whether a bit can be a treatment's own.
#pragma once

#include "cuts/treatment.hpp"
#include "rack/bit.hpp"

namespace doyen {

bool suits(const Bit& bit, WantedBit wanted);

}  // namespace doyen
