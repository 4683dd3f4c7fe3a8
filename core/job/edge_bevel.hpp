// The bevelled edge of a sign that is cut out: a piece of its own that follows the outline.
#pragma once

#include "job/job.hpp"

namespace doyen {

// The bevel that falls along just this piece's outline: one that is made from it, or one drawn alike; null for none.
const Item* bevel_of(const Job& job, const std::string& id);

// Gives the piece a bevelled edge that follows it, as a new piece; one that it has already stays.
void add_bevel(Job& job, const std::string& id, const Rack& rack);
void remove_bevel(Job& job, const std::string& id);

}  // namespace doyen
