// Proof: what would go wrong, with its remedies, and whether inlays close.
#pragma once

#include "parts/fold.hpp"
#include "stages/proof/fit_section.hpp"
#include "stages/proof/weak_section.hpp"
#include "stages/proof/what_if_section.hpp"

namespace doyen {

class ProofTicket : public Ticket {
  Q_OBJECT
 public:
  ProofTicket(Workshop& shop, FitKeeper& keeper);
  void refresh() override;
  [[nodiscard]] FitSection& fit() { return *fit_; }

 Q_SIGNALS:
  void tilt_wanted();
  void test_wanted();  // a test cut of this job

 private:
  FitSection* fit_;
  void show_untested();
  QLabel *summary_, *judged_, *untested_;
  QPushButton* test_;
  NumberCard* time_;
  Fold* by_bit_;
  WhatIfSection* what_if_;
  WeakSection* weak_;
  VerdictList* verdicts_;
};

}  // namespace doyen
