// Screws that hold the board down: their holes are drilled before anything else, then they go in, and from then on
// their heads stand in the way.
#pragma once

#include "job/job.hpp"

namespace doyen {

// Its holes are for such screws.
bool holds_board(const Item& item);

struct ScrewHead {
  KeepOut place;      // a circle: where the head lies
  std::string piece;  // id of the piece whose hole it goes into
};
// As large as the outlines that are drilled, 10 mm where only points or lines are. What cannot be made has none.
std::vector<ScrewHead> screw_heads(const Job& job);

// Metal that stands on the board while it is cut: clamps and screws marked on the blank, and those heads.
std::vector<KeepOut> metal_on(const Job& job);

inline constexpr double kOverMetal = 3;  // mm that travel stands above it

// Where the bits of a piece go, as far as its outlines say: with the strip beside what is cut out, the ground sunk
// round what is raised, and only along the outline where that is all that is cut.
Region cut_region(const Job& job, const Item& item, const Outlines& outlines, const Rack& rack);

// Where something that serves the run may stand, as points: in the waste outside of what is cut out, `from_edge` mm
// from the board's edges, `from_cuts` from every cut, and clear of clamps. Throws Problem{BadInput} when nothing is cut
// out.
std::vector<Point> free_waste(const Job& job, const Rack& rack, double from_edge, double from_cuts);
// The same as a region, and as points all over one: on a grid, and its own corners.
Region waste_room(const Job& job, const Rack& rack, double from_edge, double from_cuts);
std::vector<Point> free_places(const Job& job, const Region& room);

// Places for the middles of screws with heads of this width (mm): in the waste outside of what is cut out, clear of
// every cut and every clamp, one towards each corner of the board and no farther apart than 400 mm along its edges
// (common practice, no source). Throws Problem{BadInput} when nothing is cut out, or fewer than two find room.
std::vector<Point> places_for_screws(const Job& job, const Rack& rack, double head);

// The job with those screws as pieces, a group of its own: circles as large as the heads, drilled in their middles
// right through, as far as the bit reaches. They take the place of such screws that were there before. Throws as
// places_for_screws(), and Problem{BadInput} without a bit that drills.
Job with_screws(const Job& job, const Rack& rack, double head);

inline constexpr double kScrewHead = 10;  // mm, of a 5 mm wood screw with a washer head (common practice, no source)

}  // namespace doyen
