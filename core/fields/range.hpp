// What a number in a file may be.
#pragma once

namespace doyen {

struct Range {
  double least = 0, most = 0;
};

}  // namespace doyen
