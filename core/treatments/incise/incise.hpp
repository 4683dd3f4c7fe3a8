// A V-groove inside an outline.
#pragma once

#include <optional>

namespace doyen {

struct InciseChoices {
  std::optional<double> floor_limit;  // mm; none lets the groove go as deep as the stroke asks
  friend bool operator==(const InciseChoices&, const InciseChoices&) = default;
};

}  // namespace doyen
