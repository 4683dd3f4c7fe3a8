#include "verdicts/room.hpp"

#include <cmath>

#include "geometry/polyline.hpp"

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

void move_piece(Job& job, const std::string& id, Point by) { job.shift(id, by); }

void scale_piece(Job& job, const std::string& id, double by, Point middle) {
  Item* item = job.find(id);
  if (item == nullptr) return;
  item->piece.at = middle + (item->piece.at - middle) * by;
  size_piece(item->piece, by, by);
}

std::string percent_smaller(double by) {
  return "Make " + format_number(std::ceil((1 - by) * 1000) / 10, 1) + " % smaller";
}

}  // namespace doyen
