// Names on strips: each row of the list on a strip as long as its words need, sawn from the boards there are, and all
// run in one fixture. A strip is a job like any other.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

// The row's strip: the plate with its words, as long as they are with wood at both ends, rounded up. What stands on it
// keeps its arrangement and lies in its middle; holes and slots beside all words stay as far from their end; plain
// shapes that reach into the wood beside the words at both ends, frames, are as much longer as the strip is. The list
// is gone from it.
Job strip_of(const Job& job, std::size_t row);

// The pattern as that row's strip: its length, words and frame.
void show_strip(Job& job, std::size_t row);

// Strips instead of plates, the board shown as that row's; or plates again, the board as long as it was before.
void make_strips(Job& job, bool strips, std::size_t row);
// How long the pattern would be as a strip with the words that it shows, mm; and the pattern at that length, its words
// so far beside the middle.
double shown_length(const Job& job);
void set_shown_length(Job& job, double length, double off = 0);

// mm, along plate_rows(): of every strip that is made.
std::vector<double> strip_lengths(const Job& job);

struct SawnBoard {
  double length = 0;                // mm
  std::vector<std::size_t> strips;  // from its one end on, as indices along plate_rows()
  double left = 0;                  // mm that stay, behind the last cut
};
struct CutList {
  std::vector<SawnBoard> boards;      // those that are sawn
  std::vector<std::size_t> without;   // strips that no board is left for
  [[nodiscard]] double used() const;  // mm of boards that are sawn
};
// Longest strips first, each from the board where it leaves least; of two ways of beginning boards, the better. Where
// some are left over, other orders are tried.
CutList cut_list(const std::vector<double>& strips, const std::vector<double>& boards, double kerf);
CutList cut_list(const Job& job);

// “3 × 1200; 900” in the job's unit. Throws Problem{BadInput} for what is no such list.
std::vector<double> parse_boards(const std::string& words, Unit unit);
std::string boards_in_words(const std::vector<double>& boards, const LengthStyle& style);

}  // namespace doyen
