// Off-cuts: what is left of boards, kept with its size and place, for plates, patches and tests. One file of the user's
// own, which all jobs share, under the XDG data folder.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

struct OffCut {
  std::string id{};
  WoodId species{};
  double along = 0, across = 0;  // mm, with the grain and across it
  double thickness = 0;          // mm
  std::string place{};           // where it lies, such as “shelf 2”
  friend bool operator==(const OffCut&, const OffCut&) = default;
};

std::string off_cuts_path();
// Throws Problem{BadInput} where the file cannot be read; empty where there is none.
std::vector<OffCut> load_off_cuts();
std::vector<OffCut> read_off_cuts(const std::string& json, const std::string& where);
// Each reads the file again before, so that what another window keeps stays. A file that cannot be read is put aside;
// where it lies then is returned. `kept` gets a fresh id where it has none. Throws Problem{CannotWrite}, and {BadInput}
// for what could not be read again.
std::string keep_off_cut(const OffCut& kept);
std::string drop_off_cut(const std::string& id);

// Of the blank's wood, and as thick: no thinner, and no more than 2 mm thicker (common practice, no source).
bool as_thick(const OffCut& off_cut, const Blank& blank);
// Large enough for the job's board with the grain as the job has it (sheets have none: either way), and as_thick().
bool fits(const OffCut& off_cut, const Blank& blank);
// Those of them that fit, the smallest first.
std::vector<OffCut> fitting(const std::vector<OffCut>& all, const Blank& blank);

// For boards that are cut side by side, in their order: each the smallest that fits and no other has taken; none where
// there is none.
std::vector<std::optional<OffCut>> shared_out(std::vector<OffCut> all, const std::vector<Blank>& boards);
// Such as “White oak, 420 × 180 × 19 mm, shelf 2”.
std::string off_cut_in_words(const OffCut& off_cut, const LengthStyle& lengths);

// The job on it: its thickness is the job's, and its size, too, where the sign is cut out of the board; else the board
// stays as large as it is and is sawn from it first.
void use_off_cut(Job& job, const OffCut& off_cut);

}  // namespace doyen
