#include "machine/motion.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace doyen {
namespace {

struct Direction {
  std::array<double, 3> u{};
  double len = 0;
};

Direction direction(const Point3& a, const Point3& b) {
  Direction d;
  d.len = distance(a, b);
  if (d.len > 0) d.u = {(b.x - a.x) / d.len, (b.y - a.y) / d.len, (b.z - a.z) / d.len};
  return d;
}

// The largest value along a direction that keeps every axis within its own.
double along(const Direction& d, const std::array<double, 3>& per_axis) {
  double least = 1e300;
  for (std::size_t i = 0; i < 3; ++i) {
    if (std::abs(d.u[i]) > 1e-9) least = std::min(least, per_axis[i] / std::abs(d.u[i]));
  }
  return least;
}

double travel_seconds(const Point3& a, const Point3& b, const MachineProfile& m) {
  const Direction d = direction(a, b);
  if (d.len <= 0) return 0;
  return rest_to_rest(d.len, along(d, m.rapid) / 60, along(d, m.acceleration));
}

}  // namespace

double junction_speed(double acceleration, double deviation, double theta) {
  const double s = std::sin(theta / 2);
  if (s >= 1 - 1e-12) return 1e9;
  return std::sqrt(std::max(0.0, acceleration * deviation * s / (1 - s)));
}

double rest_to_rest(double length, double feed, double acceleration) {
  if (length <= 0) return 0;
  if (length >= feed * feed / acceleration) return length / feed + feed / acceleration;
  return 2 * std::sqrt(length / acceleration);
}

double feed_along(const Point3& from, const Point3& to, const Feeds& feeds, const MachineProfile& machine) {
  const Direction d = direction(from, to);
  double feed = feeds.feed;
  if (d.u[2] < -1e-9) feed = std::min(feed, feeds.plunge / -d.u[2]);
  return std::min(feed, along(d, machine.feed_most));
}

double pass_seconds(const Pass& pass, const Feeds& feeds, const MachineProfile& machine) {
  const std::size_t n = pass.points.size();
  if (n < 2 || feeds.feed <= 0 || feeds.plunge <= 0) return 0;
  std::vector<Direction> way;
  std::vector<double> most, accel;
  way.reserve(n - 1);
  for (std::size_t i = 1; i < n; ++i) {
    const Direction d = direction(pass.points[i - 1], pass.points[i]);
    if (d.len < 1e-9) continue;
    way.push_back(d);
    most.push_back(feed_along(pass.points[i - 1], pass.points[i], feeds, machine) / 60);
    accel.push_back(along(d, machine.acceleration));
  }
  const std::size_t m = way.size();
  std::vector<double> corner(m + 1, 0.0);  // speed at the start of each segment; rest at both ends
  for (std::size_t i = 1; i < m; ++i) {
    double cosine = 0;
    for (std::size_t k = 0; k < 3; ++k) cosine -= way[i - 1].u[k] * way[i].u[k];
    const double theta = std::acos(std::clamp(cosine, -1.0, 1.0));
    const double a = std::min(accel[i - 1], accel[i]);
    corner[i] = std::min({junction_speed(a, machine.corner_deviation, theta), most[i - 1], most[i]});
  }
  for (std::size_t i = m; i-- > 0;) {
    corner[i] = std::min(corner[i], std::sqrt(corner[i + 1] * corner[i + 1] + 2 * accel[i] * way[i].len));
  }
  double seconds = 0;
  for (std::size_t i = 0; i < m; ++i) {
    const double in = corner[i];
    corner[i + 1] = std::min(corner[i + 1], std::sqrt(in * in + 2 * accel[i] * way[i].len));
    const double out = corner[i + 1], a = accel[i];
    const double peak = std::min(most[i], std::sqrt((2 * a * way[i].len + in * in + out * out) / 2));
    const double up = std::max(0.0, peak * peak - in * in) / (2 * a),
                 down = std::max(0.0, peak * peak - out * out) / (2 * a);
    const double level = std::max(0.0, way[i].len - up - down);
    seconds += (peak - in) / a + (peak - out) / a + (peak > 0 ? level / peak : 0);
  }
  return seconds;
}

double Travel::between(Point from, Point to) const {
  if (low >= high) return high;
  for (const Box& box : in_the_way) {
    // The part of the way that lies within the box's span, axis by axis.
    double enter = 0, leave = 1;
    const double starts[] = {from.x, from.y}, ways[] = {to.x - from.x, to.y - from.y};
    const double least[] = {box.left, box.bottom}, most[] = {box.right, box.top};
    for (int axis = 0; axis < 2; ++axis) {
      if (std::abs(ways[axis]) < 1e-9) {
        if (starts[axis] < least[axis] || starts[axis] > most[axis]) leave = -1;
        continue;
      }
      const double a = (least[axis] - starts[axis]) / ways[axis], b = (most[axis] - starts[axis]) / ways[axis];
      enter = std::max(enter, std::min(a, b));
      leave = std::min(leave, std::max(a, b));
    }
    if (enter <= leave) return high;
  }
  return low;
}

RunTime run_time(const std::vector<Pass>& passes, const Feeds& feeds, const MachineProfile& machine, Point from,
                 const Travel* travel) {
  RunTime time;
  if (!feeds.known()) return time;
  Point3 here{from.x, from.y, machine.clearance};
  bool in_wood = false;  // the bit stands at the end of a pass, not yet lifted
  for (const Pass& pass : passes) {
    const Point3& first = pass.points.front();
    const double high = travel == nullptr || !in_wood ? machine.clearance : travel->between(here.flat(), first.flat());
    if (in_wood) {
      const Point3 lifted{here.x, here.y, high};
      time.seconds += travel_seconds(here, lifted, machine);
      here = lifted;
    }
    in_wood = true;
    const Point3 above{first.x, first.y, high};
    const double approach = travel == nullptr ? kApproach : travel->approach;
    const Point3 near{first.x, first.y, approach};
    time.seconds += travel_seconds(here, above, machine) + travel_seconds(above, near, machine);
    time.travel += distance(here.flat(), above.flat());
    if (first.z < approach) {
      const double plunge = std::min(feeds.plunge, machine.feed_most[2]) / 60;
      time.seconds += rest_to_rest(approach - first.z, plunge, machine.acceleration[2]);
    }
    const double cutting = pass_seconds(pass, feeds, machine);
    time.in_wood += cutting;
    time.length += path_length(pass);
    time.seconds += cutting;
    here = pass.points.back();
    ++time.lifts;
  }
  if (in_wood) time.seconds += travel_seconds(here, {here.x, here.y, machine.clearance}, machine);
  return time;
}

}  // namespace doyen
