// The whole layout at once: moved, turned, spread out. Pieces made from others come along with their sources.
#pragma once

#include "job/job.hpp"

namespace doyen {

void shift_layout(Job& job, Point by);

// Copies in rows, mirror images and the like keep directions of their own, which would not turn along.
bool may_turn_layout(const Job& job);
void turn_layout(Job& job, double degrees, Point about);

// The ways in which chosen pieces are lined up; the first of the ids stays where it is, except for gaps.
enum class LineUp { Left, Middle, Right, Front, MiddleAcross, Back };
void line_up(Job& job, const std::vector<std::string>& ids, LineUp how);

// Equal gaps between the chosen pieces' boxes, left to right or front to back: the given gap from the first on, or (no
// gap given) the room between the outermost two shared out. Fewer than three pieces without a gap stay.
void space_out(Job& job, const std::vector<std::string>& ids, bool across, std::optional<double> gap);

// Pieces that are chosen together from now on, or each for itself again. A group of one is none.
void group(Job& job, const std::vector<std::string>& ids);
void ungroup(Job& job, const std::vector<std::string>& ids);         // with all that belong to their groups
bool is_group(const Job& job, const std::vector<std::string>& ids);  // they are one group, whole

// Those of the chosen that do not come along by themselves when the others move: made from none of them, and not laid
// out in shares of one.
std::vector<std::string> on_their_own(const Job& job, const std::vector<std::string>& ids);

// All of them moved, or turned about a point, as one. Throws Problem where one of them keeps a direction of its own
// (copies in rows, mirror images) or hangs on a piece that is not chosen.
void shift_chosen(Job& job, const std::vector<std::string>& ids, Point by);
void turn_chosen(Job& job, const std::vector<std::string>& ids, double degrees, Point about);

// All of them larger or smaller by this factor about a point, whatever they are made of, their proportions kept.
void scale_layout(Job& job, const std::vector<std::string>& ids, double factor, Point about);

// As large as leaves this margin to the board on every side and in its middle: shapes that can be any size fill the
// board evenly, others keep their proportions. mm.
void fill_board(Job& job, const std::string& id, double margin);

// Shapes that go round the board (PlainShape::from_edge) are as large again as it is, in the edit that made it larger
// or smaller; one that the edit itself sized or moved stands on its own from then on. Does nothing when a board is too
// small.
void follow_board(Job& job, const Job& before);

// The angle in degrees (0 to 90) by which a turn makes the piece's box smallest, and that box's sides in mm.
struct SmallestBox {
  double turn = 0, width = 0, height = 0;
};
SmallestBox smallest_box(const Outlines& outlines);

}  // namespace doyen
