#include "cutting/profile.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "cutting/clearing.hpp"
#include "geometry/polyline.hpp"
#include "measure/whole.hpp"

namespace doyen {
namespace {

constexpr double kLeaveSlope = 1;  // mm up a mm along, where the bit leaves along its own slit

struct Sample {
  double s;  // mm along the ring from its start
  Point at;
};

// The bit's path round one ring, with z by depth and tabs. `tab_at` are distances along the ring of the tabs' middles.
class ProfileWriter {
 public:
  // `beside`: from the line's start to the middle of the wider slit that was cut before it, where there is one.
  ProfileWriter(Ring ring, const CutOutShape& shape, std::vector<double> tab_at, Point beside)
      : ring_(std::move(ring)), shape_(shape), tab_at_(std::move(tab_at)), beside_(beside), total_(ring_length(ring_)) {
    const TabShape tab = tab_shape(shape.tabs, shape.thickness);
    bottom_ = -(shape.thickness + shape.over_cut);
    top_ = -shape.thickness + tab.height;
    slope_ = tab.ramp > 0 ? tab.height / tab.ramp : 1e9;
    // The bit's round leaves the tab as long as was asked at the underside.
    at_underside_ = (tab.length + shape.diameter) / 2;
    make_samples();
  }

  Pass write() const {
    Pass pass;
    const int levels = whole_up(-bottom_ / std::max(0.05, shape_.depth_per_pass) - 1e-9, 1, 100'000);
    const double drop = bottom_ / levels;
    add(pass, samples_.front().at, 0);
    double sloped = 0;  // mm from the start on: how far the last ramp's slope still stands when its level is reached
    for (int level = 1; level <= levels; ++level) {
      const double above = drop * (level - 1), z = drop * level;
      const double ramp = (above - z) / shape_.ramp_slope;
      // Round once on the way down to this level (as many rounds as the ramp needs), then on.
      const int rounds = whole_up(ramp / total_, 1, 100'000);
      for (int k = 0; k < rounds; ++k) {
        run(
            pass,
            [&](double s) {
              const double gone = total_ * k + s;
              return gone >= ramp ? z : above + (z - above) * gone / ramp;
            },
            ramp - total_ * k);
      }
      sloped = std::min(ramp - total_ * (rounds - 1), total_);
    }
    // On at full depth until the slope is gone; the rest of the way round is cut already.
    run(
        pass, [&](double) { return bottom_; }, 1e300, sloped);
    leave(pass, sloped);
    return pass;
  }

  [[nodiscard]] const Ring& ring() const { return ring_; }

  // Once round at full depth, where a wider ring has been cut through before: it only takes the wood that was left on.
  Pass write_clean() const {
    Pass pass;
    add(pass, samples_.front().at + beside_, std::max(bottom_, tab_floor(0)));
    run(pass, [&](double) { return bottom_; });
    leave(pass, 0);
    return pass;
  }

 private:
  // On along the slit and upwards from `begin` mm along: never sideways into the waste or a neighbour, and no mark
  // stays where it is lifted.
  void leave(Pass& pass, double begin) const {
    const double rise = std::min({-bottom_, 2 * shape_.diameter, total_ / 2});
    const std::size_t legs = samples_.size() - 1;
    for (std::size_t k = 0; k < 2 * legs; ++k) {  // twice round, as it may begin anywhere
      const std::size_t i = k % legs + 1;
      const double lap = k < legs ? 0 : total_;
      const double from = samples_[i - 1].s, to = samples_[i].s;
      if (to + lap <= begin) continue;
      const double s = std::min(to, begin + rise - lap);
      const Point at = samples_[i - 1].at + (samples_[i].at - samples_[i - 1].at) * ((s - from) / (to - from));
      add(pass, at, std::max(bottom_ + (s + lap - begin) * kLeaveSlope, tab_floor(s)));
      if (s < to) return;
    }
  }
  static void add(Pass& pass, Point p, double z) {
    const Point3 q{p.x, p.y, z};
    if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
  }

  void make_samples() {
    std::vector<double> stops;
    double run = 0;
    for (std::size_t i = 0; i < ring_.size(); ++i) {
      stops.push_back(run);
      run += distance(ring_[i], ring_[(i + 1) % ring_.size()]);
    }
    for (const double t : tab_at_) {
      const double foot = away_at(bottom_), head = away_at(top_);
      for (const double d : {-foot, -head, head, foot}) stops.push_back(std::fmod(t + d + 4 * total_, total_));
    }
    stops.push_back(total_);
    std::sort(stops.begin(), stops.end());
    for (const double s : stops) {
      const Point at = s >= total_ ? ring_.front() : on_ring(ring_, s / total_).at;
      if (samples_.empty() || s - samples_.back().s > 1e-7) samples_.push_back({s, at});
    }
  }

  // How far from a tab's middle the bit's own middle passes this height.
  [[nodiscard]] double away_at(double z) const {
    return std::max(0.0, at_underside_ - (z + shape_.thickness) / slope_);
  }
  // The height that tabs allow at s.
  [[nodiscard]] double tab_floor(double s) const {
    double floor = -1e300;
    for (const double t : tab_at_) {
      double away = std::abs(s - t);
      away = std::min(away, total_ - away);
      if (away < away_at(bottom_))
        floor = std::max(floor, std::min(top_, -shape_.thickness + (at_underside_ - away) * slope_));
    }
    return floor;
  }

  // From the line's start to `until` mm along it; `bend`: where the depth bends.
  template <typename Depth>
  void run(Pass& pass, Depth depth, double bend = 1e300, double until = 1e300) const {
    Sample last = samples_.front();
    const auto go_to = [&](const Sample& to) {
      // Between two stops a tab's slope can cross the level: add the crossing so that the line follows the higher one.
      if (to.s > last.s) add_crossing(pass, last, to, depth);
      add(pass, to.at, std::max(depth(to.s), tab_floor(to.s)));
      last = to;
    };
    for (const Sample& sample : samples_) {
      for (const double stop : {std::min(bend, until), std::max(bend, until)}) {
        if (stop <= last.s + 1e-9 || stop >= sample.s - 1e-9) continue;
        go_to({stop, last.at + (sample.at - last.at) * ((stop - last.s) / (sample.s - last.s))});
        if (stop == until) return;
      }
      go_to(sample);
      if (sample.s >= until) return;
    }
  }

  template <typename Depth>
  void add_crossing(Pass& pass, const Sample& a, const Sample& b, Depth depth) const {
    const double da = tab_floor(a.s) - depth(a.s), db = tab_floor(b.s) - depth(b.s);
    if (std::abs(da) > 1e6 || std::abs(db) > 1e6 || (da > 0) == (db > 0)) return;
    const double t = da / (da - db);
    if (t <= 1e-6 || t >= 1 - 1e-6) return;
    const double s = a.s + (b.s - a.s) * t;
    add(pass, a.at + (b.at - a.at) * t, std::max(depth(s), tab_floor(s)));
  }

  Ring ring_;
  CutOutShape shape_;
  std::vector<double> tab_at_;
  Point beside_;
  double total_, bottom_ = 0, top_ = 0, slope_ = 1, at_underside_ = 0;
  std::vector<Sample> samples_;
};

// Where along the ring to begin: on a long straight stretch, away from corners and from tabs. Returns the place's
// segment and how far along it.
std::pair<std::size_t, double> begin_of(const Ring& ring, const std::vector<double>& tab_at) {
  std::vector<double> run{0};
  std::size_t longest = 0;
  for (std::size_t k = 0; k < ring.size(); ++k) {
    run.push_back(run.back() + distance(ring[k], ring[(k + 1) % ring.size()]));
    if (run[k + 1] - run[k] > run[longest + 1] - run[longest]) longest = k;
  }
  const double most = run[longest + 1] - run[longest];
  double best = -1, chosen = most / 2;
  for (const double share : {0.5, 0.25, 0.75}) {
    double away = most;  // as far as it goes
    for (const double t : tab_at) {
      const double d = std::abs(t - (run[longest] + share * most));
      away = std::min({away, d, run.back() - d});
    }
    if (away > best * 1.05 + 1e-9) {
      best = away;
      chosen = share * most;
    }
  }
  return {longest, chosen};
}

// One writer for every line that the bit's middle follows `aside` mm beside the outlines.
template <typename Write>
void follow(const Region& region, const CutOutShape& shape, double aside, const std::vector<PlacedTab>& tabs,
            const Cancel& cancel, Write write) {
  const double side = shape.inside ? -1 : 1;
  const Region centres = grow(region, side * aside);
  for (const Island& island : centres.islands) {
    cancel.check();
    // Holes before the outer line, so that the piece is still held. The kept wood on the bit's right cuts cleaner
    // (climb).
    for (std::size_t r = island.rings.size(); r-- > 0;) {
      Ring ring = island.rings[r];
      const bool reversed = shape.inside != shape.climb;
      if (reversed) std::reverse(ring.begin(), ring.end());
      std::vector<double> tab_at;
      if (r == 0) {
        for (const PlacedTab& tab : tabs) {
          const Ring& outer = region.islands[static_cast<std::size_t>(tab.place.island)].rings.front();
          const bool own = shape.inside ? contains(Island{{outer}}, island.rings[0].front())
                                        : contains(Island{{island.rings[0]}}, outer.front());
          if (!own) continue;
          const Point outward{tab.along.y, -tab.along.x};
          tab_at.push_back(share_nearest(ring, tab.at + outward * (side * aside)) * ring_length(ring));
        }
      }
      const auto [segment, into] = begin_of(ring, tab_at);
      const double total = ring_length(ring);
      double start = into;
      for (std::size_t k = 0; k < segment; ++k) start += distance(ring[k], ring[k + 1]);
      const OnRing first = on_ring(ring, start / total);
      Ring turned{first.at};
      for (std::size_t k = 1; k <= ring.size(); ++k) turned.push_back(ring[(segment + k) % ring.size()]);
      for (double& t : tab_at) t = std::fmod(t - start + total, total);
      const Point left{-first.along.y, first.along.x};
      const Point beside = left * (reversed != shape.inside ? shape.leave_on : -shape.leave_on);
      write(ProfileWriter(std::move(turned), shape, std::move(tab_at), beside));
    }
  }
}

}  // namespace

CutOut plan_cut_out(const Region& region, const CutOutShape& shape, const Cancel& cancel) {
  CutOut out;
  std::vector<TabPlace> places;
  if (shape.tabs.wanted)
    places =
        shape.tabs.placed.empty() ? place_tabs(region, shape.tabs, shape.diameter, shape.inside) : shape.tabs.placed;
  std::erase_if(places,
                [&](const TabPlace& p) { return p.island < 0 || p.island >= static_cast<int>(region.islands.size()); });
  for (const TabPlace& place : places) {
    const OnRing on = on_ring(region.islands[static_cast<std::size_t>(place.island)].rings.front(), place.along);
    out.tabs.push_back({place, on.at, on.along});
  }
  for (std::size_t i = 0; i < region.islands.size() && !shape.inside; ++i) {
    std::size_t holes = region.islands[i].rings.size() - 1;
    if (holes == 0) continue;
    const Region own = grow(Region{{region.islands[i]}}, shape.diameter / 2);
    if (own.islands.empty() || own.islands.front().rings.size() - 1 < holes)
      out.lost_holes.push_back(static_cast<int>(i));
  }
  follow(region, shape, shape.diameter / 2 + shape.leave_on, out.tabs, cancel,
         [&](const ProfileWriter& writer) { out.passes.push_back(writer.write()); });
  if (shape.leave_on > 0) {
    // Where the wider slit did not come, in narrow places, or the shaving is thick, it goes down in steps, too.
    const Region slit = grow(region, (shape.inside ? -1 : 1) * (shape.diameter / 2 + shape.leave_on));
    const double far = std::max(2 * shape.leave_on, 0.35 * shape.diameter);
    const auto thin = [&](const ProfileWriter& writer) {
      return shape.leave_on <= kCleanShare * shape.diameter && !slit.empty() &&
             std::all_of(writer.ring().begin(), writer.ring().end(),
                         [&](Point p) { return distance_to_outline(slit, p) < far; });
    };
    follow(region, shape, shape.diameter / 2, out.tabs, cancel, [&](const ProfileWriter& writer) {
      out.passes.push_back(thin(writer) ? writer.write_clean() : writer.write());
    });
  }
  return out;
}

}  // namespace doyen
