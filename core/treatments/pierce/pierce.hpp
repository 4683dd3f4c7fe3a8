// Openings.
#pragma once

namespace doyen {

struct PierceChoices {
  bool slug = false;  // only cut round, the waste falls out whole; else it is cleared
  friend bool operator==(const PierceChoices&, const PierceChoices&) = default;
};

}  // namespace doyen
