// Whether a bit can be a treatment's own.
#pragma once

#include "rack/bit.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

bool suits(const Bit& bit, WantedBit wanted);

}  // namespace doyen
