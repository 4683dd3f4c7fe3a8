// What is wrong with a drawing, each with its places and a remedy that changes the drawing and nothing else.
#pragma once

#include "artwork/piece.hpp"
#include "cancel.hpp"

namespace doyen {

struct Mend {
  std::string label;  // what its button says
  std::function<void(Drawing&)> apply;
};

struct Finding {
  std::string code;  // open-ends, doubled, hidden, nesting, off-board, specks, hairlines, crossings, needless-points
  std::string text;  // what, with figures
  std::vector<Point> at;  // places on the board, the first the most telling; at most 200
  std::vector<Mend> mends;
};

struct CleanUpLimits {
  double join = 1.0;      // mm on the board: open ends nearer than this belong together
  double speck = 1.0;     // mm²: parts smaller than this are specks
  double hairline = 0.2;  // mm: filled parts thinner than this everywhere are hairlines
  double thin = 0.02;     // mm: points that move the outline by less are needless
};

// The feed in mm/min that a machine reaches along outlines, and the one asked for; for the report on points.
struct ReachedFeed {
  double reached = 0, asked = 0;
};
using FeedAlong = std::function<ReachedFeed(const Region&)>;

// `board` is the blank; `show` prints a length; `feed` may be empty. The piece must hold a drawing; its outlines'
// problems throw as outlines_of() does. Throws Cancelled.
std::vector<Finding> clean_up_report(const Piece& piece, const Box& board, const CleanUpLimits& limits,
                                     const std::function<std::string(double)>& show, const FeedAlong& feed = {},
                                     const Cancel& cancel = {});

}  // namespace doyen
