#include "verdicts/room.hpp"

#include <cmath>

#include "geometry/polyline.hpp"
#include "wording/say.hpp"

namespace doyen {

std::pair<double, Point> nearest_outline(const Region& one, const Region& other) {
  double best = 1e300;
  Point at;
  const auto look = [&](const Region& from, const Region& to) {
    for (const Island& island : from.islands) {
      for (const Ring& ring : island.rings) {
        for (const Point& p : ring) {
          const double d = distance_to_outline(to, p);
          if (d < best) {
            best = d;
            at = p;
          }
        }
      }
    }
  };
  look(one, other);
  look(other, one);
  return {best, at};
}

double rounded_up(double mm, Unit unit) {
  const double step = unit == Unit::Inch ? kMmPerInch / 16 : 1;
  return std::ceil(mm / step - 1e-6) * step;
}

Point rounded_outwards(Point by, Unit unit) {
  return {std::copysign(rounded_up(std::abs(by.x), unit), by.x), std::copysign(rounded_up(std::abs(by.y), unit), by.y)};
}

std::string way_in_words(Point by, const LengthStyle& lengths) {
  std::string words;
  const auto add = [&](double mm, const std::string& more, const std::string& less) {
    if (std::abs(mm) < 1e-6) return;
    words += (words.empty() ? "" : say(" and ")) + depth_in_words(std::abs(mm), lengths) + (mm > 0 ? more : less);
  };
  add(by.x, say(" to the right"), say(" to the left"));
  add(by.y, say(" to the back"), say(" to the front"));
  return words;
}

void move_piece(Job& job, const std::string& id, Point by) { job.shift(id, by); }

void scale_piece(Job& job, const std::string& id, double by, Point middle) {
  Item* item = job.find(id);
  if (item == nullptr) return;
  item->piece.at = middle + (item->piece.at - middle) * by;
  size_piece(item->piece, by, by);
}

double whole_percent(double scale) { return std::floor(scale * 100 + 1e-9) / 100; }

std::string percent_smaller(double scale) { return say("Make {0} % smaller", format_number((1 - scale) * 100, 1)); }

}  // namespace doyen
