#include "files/reading.hpp"

#include <algorithm>

#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {

Reading::Reading(Cancel cancel, std::function<void(double)> told, double seconds, std::size_t points)
    : cancel_(std::move(cancel)), told_(std::move(told)), seconds_(seconds), most_points_(points) {}

void Reading::look() {
  cancel_.check();
  if (std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count() > seconds_)
    throw bad_input(say("it was still not read after a minute; a drawing with less in it was expected."));
}

void Reading::points(std::size_t more) {
  step();
  points_ += more;
  if (points_ > most_points_) throw bad_input(say("the drawing has more than four million points."));
}

void Reading::done(double share) {
  if (share < told_share_ + 0.01) return;
  told_share_ = share;
  if (told_) told_(std::min(share, 1.0));
}

void LeftOut::add(const std::string& sentence) {
  if (std::find(told_.begin(), told_.end(), sentence) != told_.end()) return;
  if (told_.size() < kMostTold)
    told_.push_back(sentence);
  else
    ++more_;
}

std::vector<std::string> LeftOut::sentences() const {
  std::vector<std::string> out = told_;
  if (more_ > 0)
    out.push_back(more_ == 1 ? "One more thing was left out." : std::to_string(more_) + " more things were left out.");
  return out;
}

}  // namespace doyen
