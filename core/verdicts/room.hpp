// Room between pieces: how far they stand apart, and by how much one must move or shrink. For checks and their
// remedies.
#pragma once

#include <algorithm>
#include <utility>

#include "job/job.hpp"

namespace doyen {

// The least distance between two regions' outlines, and where. By their points: outlines are flattened finely.
std::pair<double, Point> nearest_outline(const Region& one, const Region& other);

// Outwards to a round figure, 1/16 in or 1 mm: never less than is needed.
double rounded_up(double mm, Unit unit);
// The same of both parts of a move, whichever way they point.
Point rounded_outwards(Point by, Unit unit);
// “12 mm to the right and 3 mm to the back”.
std::string way_in_words(Point by, const LengthStyle& lengths);

void move_piece(Job& job, const std::string& id, Point by);
// Smaller about the middle of where it stands, whatever kind of piece it is.
void scale_piece(Job& job, const std::string& id, double by, Point middle);
double whole_percent(double scale);         // down to a whole per cent
std::string percent_smaller(double scale);  // “Make 12 % smaller”

// The least move along `way`, from `start` mm on, after which `clear(region)` holds; 0 when none on this board does.
template <typename Clear>
double least_move(const Blank& blank, const Region& own, Point way, double start, Clear clear) {
  const auto fits = [&](double by) { return clear(transformed(own, Transform::move(way.x * by, way.y * by))); };
  const double most = std::max(blank.width, blank.height);
  double low = 0, high = std::max(start, 0.02);
  while (!fits(high)) {
    low = high;
    high *= 1.6;
    if (high > most) return 0;
  }
  while (high - low > 0.02) {
    const double middle = (low + high) / 2;
    (fits(middle) ? high : low) = middle;
  }
  return high;
}

// The largest scale about the middle, at most 1, at which `clear(region)` holds; 0 when none does.
template <typename Clear>
double largest_scale(const Region& own, Point middle, Clear clear) {
  const auto fits = [&](double by) {
    return clear(transformed(own, Transform::move(-middle.x, -middle.y)
                                      .then(Transform::scale(by, by))
                                      .then(Transform::move(middle.x, middle.y))));
  };
  double low = 0.05, high = 1;
  if (!fits(low)) return 0;
  while (high - low > 0.0005) {
    const double half = (low + high) / 2;
    (fits(half) ? low : high) = half;
  }
  return low;
}

}  // namespace doyen
