// Where a large sign is best parted: through gaps and the middles of stripes, where no fine feature is cut.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

// The largest panel that is wanted, mm: as was said, else as far as the machine travels from where zero is taken, with
// room for bits that run off the sides.
struct LargestPanel {
  double width = 0, height = 0;
};
LargestPanel largest_panel(const PanelChoices& choices, const MachineProfile& machine, OnBed lies);

// The outlines of a job's pieces, along its items; null where there are none. Who has them gives them; else they are
// made.
using OutlinesOf = std::vector<std::shared_ptr<const Outlines>>;
OutlinesOf cut_outlines(const Job& job);

// How much a seam at a place would harm what is cut there.
class SeamCosts {
 public:
  // Seams from front to back (`upright`), or from left to right.
  SeamCosts(const Job& job, bool upright) : SeamCosts(job, upright, cut_outlines(job)) {}
  SeamCosts(const Job& job, bool upright, const OutlinesOf& outlines);
  // mm of outline that lie beside it, the nearer the more; what must not be parted (inlays, holes, inserts) costs more
  // than anything else.
  [[nodiscard]] double at(double place) const;
  // Pieces that must not be parted and would be, by id.
  [[nodiscard]] std::vector<std::string> parted_whole(double place) const;
  // The best place no farther off than that, mm; the place itself where none is better.
  [[nodiscard]] double calmest(double place, double within) const;
  [[nodiscard]] double length() const { return length_; }

 private:
  struct Kept {
    std::string piece;
    double from = 0, to = 0;
  };
  [[nodiscard]] std::size_t step_of(double mm) const;
  void add_side(double a, double b, double mm);
  void spread();
  double length_ = 0;
  std::vector<double> edges_;  // mm of outline in each step along the sign
  std::vector<Kept> kept_;
  std::vector<double> costs_;  // along the same steps
};

// As few panels as do, none larger than that; of all such ways the one whose seams harm least, panels as alike as may
// be. Throws Problem{BadInput} when that would take more seams than there may be.
PanelChoices propose_seams(const Job& job, const LargestPanel& largest);

// Letters, and other islands of a piece, that a seam cuts through.
struct CutThrough {
  std::string piece;  // id
  int islands = 0;
};
std::vector<CutThrough> cut_by_seam(const Job& job, const OutlinesOf& outlines, bool upright, double place);

}  // namespace doyen
