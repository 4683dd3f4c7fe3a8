// What reading one file may cost, how far it is, and whether it is still wanted.
#pragma once

#include <chrono>
#include <functional>
#include <string>
#include <vector>

#include "cancel.hpp"

namespace doyen {

class Reading {
 public:
  static constexpr double kMostSeconds = 60;
  static constexpr std::size_t kMostPoints = 4'000'000;

  // `told` gets the share that is done, 0 to 1, from the thread that reads; it may be empty.
  explicit Reading(Cancel cancel = {}, std::function<void(double)> told = {}, double seconds = kMostSeconds,
                   std::size_t points = kMostPoints);

  // Before every element, record or outline. Throws Cancelled, and Problem{BadInput} when it takes too long.
  void step() {
    if (++steps_ % 32 == 0) look();
  }
  void look();  // the same at once
  // Before points are made, whatever makes them. Throws Problem{BadInput} when they are too many for a drawing.
  void points(std::size_t more);
  void done(double share);
  [[nodiscard]] const Cancel& cancel() const { return cancel_; }

 private:
  Cancel cancel_;
  std::function<void(double)> told_;
  double seconds_;
  std::size_t most_points_, points_ = 0, steps_ = 0;
  double told_share_ = 0;
  std::chrono::steady_clock::time_point begun_ = std::chrono::steady_clock::now();
};

// What could not be taken, a sentence each: the first forty, each once, and how often anything else was left out.
class LeftOut {
 public:
  void add(const std::string& sentence);
  [[nodiscard]] std::vector<std::string> sentences() const;

 private:
  static constexpr std::size_t kMostTold = 40;
  std::vector<std::string> told_;
  std::size_t more_ = 0;
};

}  // namespace doyen
