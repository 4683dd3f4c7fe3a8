// Proof: what would go wrong, with its remedies, and whether inlays close.
#pragma once

#include "parts/fold.hpp"
#include "stages/proof/fit_section.hpp"

namespace doyen {

class ProofTicket : public Ticket {
  Q_OBJECT
 public:
  ProofTicket(Workshop& shop, FitKeeper& keeper);
  void refresh() override;
  [[nodiscard]] FitSection& fit() { return *fit_; }

 private:
  FitSection* fit_;
  QLabel *summary_, *judged_;
  NumberCard* time_;
  Fold* by_bit_;
  VerdictList* verdicts_;
};

}  // namespace doyen
