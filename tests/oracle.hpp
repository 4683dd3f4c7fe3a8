// What results are judged against: brute force over the very outlines, apart from the code under test.
#pragma once

#include <algorithm>
#include <cmath>
#include <random>
#include <string>
#include <vector>

#include "artwork/piece.hpp"
#include "cutting/groove.hpp"
#include "geometry/region.hpp"
#include "rack/bit.hpp"

namespace oracle {

using namespace doyen;

struct Segment {
  double ax, ay, bx, by;
};

inline std::vector<Segment> segments(const Region& region) {
  std::vector<Segment> out;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
        out.push_back({ring[j].x, ring[j].y, ring[i].x, ring[i].y});
    }
  }
  return out;
}

// Exact distance to the nearest outline, by looking at the segments that a coarse grid says can be near enough.
class Distance {
 public:
  explicit Distance(const Region& region) : segments_(segments(region)), box_(bounds(region).grown(1)) {
    columns_ = static_cast<int>(box_.width() / kCell) + 1;
    rows_ = static_cast<int>(box_.height() / kCell) + 1;
    cells_.resize(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_));
    for (std::size_t i = 0; i < segments_.size(); ++i) {
      const Segment& s = segments_[i];
      const int c0 = column(std::min(s.ax, s.bx)), c1 = column(std::max(s.ax, s.bx));
      const int r0 = row(std::min(s.ay, s.by)), r1 = row(std::max(s.ay, s.by));
      for (int r = r0; r <= r1; ++r) {
        for (int c = c0; c <= c1; ++c)
          cells_[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(c)]
              .push_back(i);
      }
    }
  }
  [[nodiscard]] double at(double x, double y) const {
    const int c = column(x), r = row(y);
    double best = 1e300;
    for (int ring = 0; ring < std::max(columns_, rows_) + 1; ++ring) {
      if (best <= (ring - 1) * kCell) break;
      for (int rr = r - ring; rr <= r + ring; ++rr) {
        if (rr < 0 || rr >= rows_) continue;
        const bool edge_row = rr == r - ring || rr == r + ring;
        for (int cc = c - ring; cc <= c + ring; cc += edge_row || ring == 0 ? 1 : 2 * ring) {
          if (cc < 0 || cc >= columns_) continue;
          for (const std::size_t i : cells_[static_cast<std::size_t>(rr) * static_cast<std::size_t>(columns_) +
                                            static_cast<std::size_t>(cc)]) {
            best = std::min(best, to_segment(segments_[i], x, y));
          }
        }
      }
    }
    return best;
  }
  static double to_segment(const Segment& s, double x, double y) {
    const double dx = s.bx - s.ax, dy = s.by - s.ay, len2 = dx * dx + dy * dy;
    const double t = len2 > 0 ? std::clamp(((x - s.ax) * dx + (y - s.ay) * dy) / len2, 0.0, 1.0) : 0;
    return std::hypot(x - s.ax - t * dx, y - s.ay - t * dy);
  }

 private:
  static constexpr double kCell = 1.0;
  [[nodiscard]] int column(double x) const {
    return std::clamp(static_cast<int>((x - box_.left) / kCell), 0, columns_ - 1);
  }
  [[nodiscard]] int row(double y) const {
    return std::clamp(static_cast<int>((y - box_.bottom) / kCell), 0, rows_ - 1);
  }
  std::vector<Segment> segments_;
  Box box_;
  int columns_ = 0, rows_ = 0;
  std::vector<std::vector<std::size_t>> cells_;
};

inline Piece lettering(const std::string& words, const std::string& family, const std::string& style, double cap,
                       double turn = 0) {
  Lettering l;
  l.words = words;
  l.face = {family, style};
  l.cap_height = cap;
  return {"words", words, l, {150, 60}, turn};
}

// A drawing of one part with this path data.
inline Drawing drawing(const std::string& data, bool even_odd = false) {
  Drawing d;
  d.name = "drawing";
  d.page_width = d.page_height = 50;
  d.parts.edit().emplace_back();
  d.parts.edit()[0].id = "p";
  d.parts.edit()[0].data = data;
  d.parts.edit()[0].even_odd = even_odd;
  return d;
}

inline Bit v_bit(double angle, double tip = 0, double body = 80) {
  Bit bit;
  bit.id = "v";
  bit.name = "V";
  bit.kind = BitKind::V;
  bit.angle = angle;
  bit.diameter = body;
  bit.tip = tip;
  bit.flute_length = 300;
  bit.feeds["soft"] = {2000, 500, 16000, 300};
  return bit;
}

inline Bit flat_bit(double diameter) {
  Bit bit;
  bit.id = "flat";
  bit.name = "flat";
  bit.kind = BitKind::Flat;
  bit.diameter = diameter;
  bit.flute_length = 60;
  bit.feeds["soft"] = {2000, 500, 16000, 3};
  return bit;
}

inline Region rectangle(double x, double y, double w, double h) {
  return clean({{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}});
}

// A star-shaped polygon with this many corners: random, never crossing itself.
inline Ring random_ring(std::mt19937& random, Point middle, double least, double most, int corners) {
  std::uniform_real_distribution<double> radius(least, most);
  Ring ring;
  for (int i = 0; i < corners; ++i) {
    const double a = 2 * M_PI * i / corners, r = radius(random);
    ring.push_back({middle.x + r * std::cos(a), middle.y + r * std::sin(a)});
  }
  return ring;
}

}  // namespace oracle
