// In which order the bits come: fewest changes that keep what must come first first.
#pragma once

#include <vector>

#include "cutting/operation.hpp"

namespace doyen {

// Operations of each piece, in the order in which they must happen. Returns groups of one bit each; within a group the
// operations keep their pieces' order. Every clearing and groove comes before any cut-out.
struct OrderedGroup {
  std::string bit;
  std::vector<const Operation*> operations;
};
// `grounds` gives for each piece the pieces whose floors it waits for, as indices; empty: nothing waits.
// `wish` lists bits as the user wants them, by turn_of(); what must come first within a piece, and grounds, still do,
// but cut-outs then come where they are wished.
std::vector<OrderedGroup> order_operations(const std::vector<std::vector<const Operation*>>& per_piece,
                                           const std::vector<std::vector<std::size_t>>& grounds = {},
                                           const std::vector<std::string>& wish = {});

// What a wish calls the turn in which this bit does this: its id, with “#out” for cut-outs.
std::string turn_of(const Operation& op);

}  // namespace doyen
