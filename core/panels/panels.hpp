// The panels of a large sign: a job each, planned, proved and written like any other. What is cut across a seam is
// worked out once for the whole sign and runs off the panels' edges there, so that it matches.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"
#include "rack/bit.hpp"

namespace doyen {

inline constexpr std::size_t kMostSeams = 30;    // in each direction
inline constexpr double kFarthestSeam = 20'000;  // mm
inline constexpr double kNarrowestPanel = 20;    // mm: narrower ones are none
inline constexpr double kLargestRunOff = 20;     // mm that the widest usual bit goes past a side

struct Panel {
  int number = 1;                   // from the sign's upper left, as one reads, as it hangs
  std::size_t column = 0, row = 0;  // from the left, from the top
  Box box;                          // mm on the sign, without the gaps on the wall
};
// Those that wood is in, in the order of their numbers. A sign without seams is one panel. Throws Problem{BadInput}
// where the board's outline is no path.
std::vector<Panel> panels_of(const Job& job);

// Two panels' edges that meet at a seam.
struct MatingEdge {
  std::string letter;       // that both edges get
  bool upright = true;      // the seam runs from front to back, else from left to right
  double at = 0;            // mm: the seam's middle, from the sign's left, or its front
  double from = 0, to = 0;  // mm along the seam, from the sign's front, or its left
  int one = 0, other = 0;   // numbers of the panels: left and right of it, or below and above
  [[nodiscard]] Point place(double along) const { return upright ? Point{at, along} : Point{along, at}; }
};
std::vector<MatingEdge> mating_edges(const Job& job);

// mm along the seam, from the sign's front or left: the middles of its dowels, evenly, no farther apart than was said.
std::vector<double> dowels_of(const Job& job, const MatingEdge& edge);
// How deep a dowel's hole goes into either edge, mm (common practice, no source).
double dowel_depth(const Job& job);

// mm on the sign: the middles of a panel's screws, beside its edges, no farther apart than was said where nothing is
// in the way, clear of what is cut.
std::vector<Point> screws_of(const Job& job, const Rack& rack, const Panel& panel);

// The panel's own job: its wood, what is cut of it, holes for its screws. Throws Problem{BadInput} when there are to be
// such holes and no bit of the rack makes them.
Job panel_job(const Job& job, const Rack& rack, const Panel& panel);

// “600; 1200” in the job's unit, ascending. Throws Problem{BadInput} for what is no such list.
std::vector<double> parse_seams(const std::string& words, Unit unit);
std::string seams_in_words(const std::vector<double>& seams, const LengthStyle& style);

}  // namespace doyen
