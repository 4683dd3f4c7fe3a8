// Lays out a board: lines of words, a motif, a border and an outline in arrangements that fit this very board, best
// first. A search over forms, no templates: each form is laid about its own middle in cap heights of its main line,
// then made as large as the room allows.
//
// The measures (common practice, no source, where none is named): lesser lines are 0.62 and 0.38 of the main line's cap
// height; the white between lines is 0.55 of their mean cap height; the white to the edge is 6 per cent of the board's
// lesser side, or its margin where that is more; the middle lies 2 per cent of the room's height above the room's own.
#pragma once

#include <functional>

#include "cancel.hpp"
#include "planning/sums.hpp"

namespace doyen {

struct ArrangeWish {
  enum class Role { Main, Second, Small, Motif, Border, Outline, Stays };
  struct Part {
    std::string id;
    Role role = Role::Stays;
    friend bool operator==(const Part&, const Part&) = default;
  };
  std::vector<Part> parts;  // of every piece; words in reading order
  bool border = false;      // there shall be one, whether there is a piece for it or not
  bool outline = false;     // the sign is cut out in a shape that suits
  friend bool operator==(const ArrangeWish&, const ArrangeWish&) = default;
};
// What the job looks like: the tallest words are the main line, the largest drawing the motif.
ArrangeWish usual_wish(const Job& job);

// The role that a piece can play: what is made from others, or sized in shares of one, lies where those put it.
bool may_be(const Item& item, ArrangeWish::Role role);
// Another outline can be tried: the board is a rectangle, and what goes round the sign is one plain shape, or nothing
// yet.
bool may_try_outlines(const Job& job, const ArrangeWish& wish);

struct Arrangement {
  std::string form;   // such as “In an arch over the motif”
  std::string frame;  // such as “border with scooped corners”; empty for none
  Job job;            // every piece live, placed and sized; border and outline are new pieces where there were none
  double merit = 0;   // 0 to 1
  double cap_height = 0, least_cap_height = 0;  // mm, of the main line and of the smallest one; 0 without words
  std::vector<std::string> reasons;             // in words, the most telling first
  Sum sum;                                      // the measures, figures in
  std::shared_ptr<const Plan> plan;             // once it was planned
};

// The best of all that fit, at most so many: each form in the setting that suits it best, then in others. Not planned
// yet. Throws Problem{BadInput} when there is nothing to arrange or no room for it, and Cancelled.
std::vector<Arrangement> arrangements(const Job& job, const Rack& rack, const ArrangeWish& wish, std::size_t most,
                                      const Cancel& cancel = {});

// The best of them (at most `most`) that neither the plan nor the judge of its files finds a stop in, each told as soon
// as that is known, from the calling thread; its merit then counts the time at the machine, too. Throws as
// arrangements(), and Problem{BadInput} with the plan's own words when every one has a stop.
void propose(const Job& job, const Rack& rack, const ArrangeWish& wish, std::size_t most, const Cancel& cancel,
             const std::function<void(Arrangement)>& tell);

}  // namespace doyen
