// What lights carved wood: its own colours, its flanks and shadows. Not for use outside relief/.
#pragma once

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "relief/picture.hpp"

namespace doyen::lighting {

// Value noise: repeatable, smooth, between 0 and 1.
inline float lattice(int x, int y) {
  auto h = static_cast<std::uint32_t>(x) * 374761393U + static_cast<std::uint32_t>(y) * 668265263U;
  h = (h ^ (h >> 13)) * 1274126177U;
  return static_cast<float>((h ^ (h >> 16)) & 0xFFFFFF) / 16777215.0F;
}

// The whole number at or below it: in place, where std::floor is a call.
inline int down(float x) {
  const int cut = static_cast<int>(x);
  return cut - (static_cast<float>(cut) > x ? 1 : 0);
}

// Neighbours mostly lie in one square of the lattice, so its corners are kept.
class Noise {
 public:
  float operator()(float x, float y) {
    const int ix = down(x), iy = down(y);
    const float fx = static_cast<float>(ix), fy = static_cast<float>(iy);
    if (ix != ix_ || iy != iy_ || !known_) {
      ix_ = ix;
      iy_ = iy;
      known_ = true;
      a_ = lattice(ix, iy);
      b_ = lattice(ix + 1, iy);
      c_ = lattice(ix, iy + 1);
      d_ = lattice(ix + 1, iy + 1);
    }
    float tx = x - fx, ty = y - fy;
    tx = tx * tx * (3 - 2 * tx);
    ty = ty * ty * (3 - 2 * ty);
    return (a_ + (b_ - a_) * tx) * (1 - ty) + (c_ + (d_ - c_) * tx) * ty;
  }

 private:
  int ix_ = 0, iy_ = 0;
  bool known_ = false;
  float a_ = 0, b_ = 0, c_ = 0, d_ = 0;
};

struct Rgb {
  float r, g, b;
};

// Paint that covers all but a little of the grain.
inline Rgb painted(const Rgb& wood, const Colour& paint) {
  constexpr float kShows = 0.1F;
  const auto mix = [&](float own, double colour) { return own * kShows + static_cast<float>(colour) * (1 - kShows); };
  return {mix(wood.r, paint.red), mix(wood.g, paint.green), mix(wood.b, paint.blue)};
}

// A board sawn off the pith: growth rings are shells round an axis below the board that wanders along the grain. One is
// asked for neighbour after neighbour.
class Wood {
 public:
  Wood(const Species& species, Grain grain) : s_(species), along_width_(grain == Grain::AlongWidth) {}

  Rgb at(float x, float y, float z) {
    const float u = along_width_ ? x : y;  // along the grain
    const float v = along_width_ ? y : x;
    const Slow slow = along_width_ ? between_knots(u, v) : slow_at(u, v);
    const float across = v + slow.wander - 40;
    const float below = z - 85;
    const float shell =
        std::sqrt(across * across * 0.55F + below * below) / static_cast<float>(s_.ring) + 0.35F * slow.wobble;
    const float phase = shell - static_cast<float>(down(shell));
    // Earlywood darkens slowly into latewood, then breaks off sharply.
    const float late = phase * phase * (phase < 0.92F ? 1.0F : (1.0F - phase) / 0.08F);
    const float fibre = fibre_(u * 0.16F, v * 3.1F) - 0.5F;
    const auto figure = static_cast<float>(s_.figure);
    const float mix = std::clamp(0.22F + figure * (0.75F * late + 0.35F * slow.streak) + 0.22F * fibre, 0.0F, 1.0F);
    const auto blend = [&](double light, double dark) { return static_cast<float>(light + (dark - light) * mix); };
    return {blend(s_.light.red, s_.dark.red), blend(s_.light.green, s_.dark.green), blend(s_.light.blue, s_.dark.blue)};
  }

 private:
  // What changes slowly along the grain.
  struct Slow {
    float wander = 0, wobble = 0, streak = 0;
  };
  Slow slow_at(float u, float v) {
    return {(far_(u * 0.0035F, v * 0.009F) - 0.5F) * 46 + (near_(u * 0.011F + 31, v * 0.03F) - 0.5F) * 9,
            wobble_(u * 0.02F, v * 0.25F) - 0.5F, streak_(u * 0.012F + 7, v * 0.55F) - 0.5F};
  }
  // Along a row it is worked out every 2 mm, a twenty-fifth of its shortest wave, and straight between.
  Slow between_knots(float u, float v) {
    constexpr float kKnot = 2;
    const float knot = static_cast<float>(down(u / kKnot));
    if (v != row_ || knot != knot_) {
      left_ = v == row_ && knot == knot_ + 1 ? right_ : slow_at(knot * kKnot, v);
      right_ = slow_at((knot + 1) * kKnot, v);
      row_ = v;
      knot_ = knot;
    }
    const float t = u / kKnot - knot;
    return {left_.wander + (right_.wander - left_.wander) * t, left_.wobble + (right_.wobble - left_.wobble) * t,
            left_.streak + (right_.streak - left_.streak) * t};
  }

  const Species& s_;
  bool along_width_;
  Noise far_, near_, wobble_, fibre_, streak_;
  Slow left_, right_;
  float row_ = 1e30F, knot_ = 1e30F;
};

// x, y, z towards the light, of length one: from the upper left.
inline constexpr Rgb kUsualLight{-0.52F, 0.55F, 0.65F};

class Lighter {
 public:
  static constexpr std::size_t kBlock = 4;  // cells along a side, whose mean height stands for all of them
  Lighter(const HeightField& field, double thickness, const Rgb& light = kUsualLight)
      : f_(field), floor_(static_cast<float>(-thickness)), light_(light), full_(std::max(light.b, 0.45F)) {
    make_blur();
  }

  // The sky stays as it is.
  void set_light(const Rgb& light) {
    light_ = light;
    full_ = std::max(light.b, 0.45F);
  }
  [[nodiscard]] bool through(std::size_t c, std::size_t r) const { return f_.at(c, r) <= floor_ + 1e-3F; }
  // The wood's own colour there, or the bed's, before any light.
  Rgb own_colour(Wood& wood, std::size_t c, std::size_t r) const {
    return through(c, r) ? Rgb{0.62F, 0.56F, 0.47F}
                         : wood.at(static_cast<float>(f_.x_of(c)), static_cast<float>(f_.y_of(r)), f_.at(c, r));
  }
  Rgb shade(Wood& wood, std::size_t c, std::size_t r) const { return shade(own_colour(wood, c, r), c, r); }
  // Of the face where it is whole, without a look at what lies round it.
  [[nodiscard]] float on_whole_face() const { return 0.36F + 0.64F * std::max(0.0F, light_.b) / full_; }
  [[nodiscard]] bool whole_face(std::size_t c, std::size_t r) const {
    return f_.at(c, r) == 0 && height(c + 1, r) == 0 && height(c == 0 ? 0 : c - 1, r) == 0 && height(c, r + 1) == 0 &&
           height(c, r == 0 ? 0 : r - 1) == 0;
  }
  Rgb shade(const Rgb& base, std::size_t c, std::size_t r) const {
    const auto cell = static_cast<float>(f_.cell());
    const float z = f_.at(c, r);
    const float zx = (height(c + 1, r) - height(c == 0 ? 0 : c - 1, r)) / (2 * cell);
    const float zy = (height(c, r + 1) - height(c, r == 0 ? 0 : r - 1)) / (2 * cell);
    const float scale = 1 / std::sqrt(zx * zx + zy * zy + 1);
    const float nx = -zx * scale, ny = -zy * scale, nz = scale;
    const float straight = std::max(0.0F, nx * light_.r + ny * light_.g + nz * light_.b) / full_;
    const float lit = z < -0.02F ? 1 - 0.75F * shadow(c, r, z) : 1;
    const float open = z < -0.02F ? openness(c, r, z) : 1;
    float light = 0.36F * open + 0.64F * straight * lit * (0.55F + 0.45F * open);
    // Flanks cut across the fibres drink the light: end grain looks darker than the face.
    const float steep = 1 - nz;
    const float darker = through(c, r) ? 0.55F : 1 - 0.30F * steep - (z < -0.02F ? 0.10F : 0.0F);
    light *= darker;
    return {base.r * light, base.g * (light * (1 - 0.03F * steep)), base.b * (light * (1 - 0.06F * steep))};
  }

  // How much of the light is kept from that height over the cell, 0 to 1.
  [[nodiscard]] float shadowed(std::size_t c, std::size_t r, float z) const { return shadow(c, r, z); }

 private:
  float height(std::size_t c, std::size_t r) const {
    return std::max(f_.at(std::min(c, f_.columns() - 1), std::min(r, f_.rows() - 1)), floor_);
  }

  // Marches towards the light; soft where the blocking edge is only just above the ray.
  float shadow(std::size_t c, std::size_t r, float z) const {
    const float cell = static_cast<float>(f_.cell());
    const float across = std::sqrt(light_.r * light_.r + light_.g * light_.g);
    const float ux = light_.r / across, uy = light_.g / across, climb = light_.b / across;
    float blocked = 0;
    float step = 1.2F;
    for (float gone = step; z + gone * cell * climb < 0.05F; gone += step) {
      const long x = down(static_cast<float>(c) + ux * gone + 0.5F), y = down(static_cast<float>(r) + uy * gone + 0.5F);
      if (x < 0 || y < 0 || x >= static_cast<long>(f_.columns()) || y >= static_cast<long>(f_.rows())) break;
      const float over = f_.at(static_cast<std::size_t>(x), static_cast<std::size_t>(y)) - (z + gone * cell * climb);
      blocked = std::max(blocked, std::min(1.0F, over / (0.25F + 0.3F * gone * cell)));
      if (blocked >= 1) break;
      step *= 1.08F;
    }
    return std::max(0.0F, blocked);
  }

  // How much of the sky a cell sees, from the mean height round it.
  float openness(std::size_t c, std::size_t r, float z) const {
    const std::size_t bc = std::min(c / kBlock, blur_columns_ - 1), br = std::min(r / kBlock, blur_rows_ - 1);
    const float mean = blur_[br * blur_columns_ + bc];
    return std::clamp(1 - 0.16F * (mean - z) / (0.35F + 0.12F * std::abs(z)) * 0.6F, 0.42F, 1.0F);
  }

  void make_blur() {
    blur_columns_ = (f_.columns() + kBlock - 1) / kBlock;
    blur_rows_ = (f_.rows() + kBlock - 1) / kBlock;
    std::vector<float> means(blur_columns_ * blur_rows_);
    tbb::parallel_for(std::size_t{0}, blur_rows_, [&](std::size_t br) {
      for (std::size_t bc = 0; bc < blur_columns_; ++bc) {
        float sum = 0;
        std::size_t n = 0;
        for (std::size_t r = br * kBlock; r < std::min(f_.rows(), (br + 1) * kBlock); ++r) {
          for (std::size_t c = bc * kBlock; c < std::min(f_.columns(), (bc + 1) * kBlock); ++c, ++n)
            sum += height(c, r);
        }
        means[br * blur_columns_ + bc] = sum / static_cast<float>(n);
      }
    });
    blur_ = means;
    const auto reach = static_cast<long>(std::clamp(3.0 / (f_.cell() * kBlock), 1.0, 8.0));
    tbb::parallel_for(std::size_t{0}, blur_rows_, [&](std::size_t br) {
      for (std::size_t bc = 0; bc < blur_columns_; ++bc) {
        float sum = 0;
        int n = 0;
        for (long dr = -reach; dr <= reach; ++dr) {
          for (long dc = -reach; dc <= reach; ++dc) {
            const long rr = static_cast<long>(br) + dr, cc = static_cast<long>(bc) + dc;
            if (rr < 0 || cc < 0 || rr >= static_cast<long>(blur_rows_) || cc >= static_cast<long>(blur_columns_))
              continue;
            sum += means[static_cast<std::size_t>(rr) * blur_columns_ + static_cast<std::size_t>(cc)];
            ++n;
          }
        }
        blur_[br * blur_columns_ + bc] = sum / static_cast<float>(n);
      }
    });
  }

  const HeightField& f_;
  float floor_;
  Rgb light_;
  float full_;  // what is lit so is lit in full
  std::vector<float> blur_;
  std::size_t blur_columns_ = 0, blur_rows_ = 0;
};

inline std::uint32_t pack(const Rgb& c) {
  const auto byte = [](float v) { return static_cast<std::uint32_t>(std::clamp(v, 0.0F, 1.0F) * 255 + 0.5F); };
  return 0xFF000000U | byte(c.r) << 16 | byte(c.g) << 8 | byte(c.b);
}

// The boards' wood and what lies on it, one cell after the other.
class Coated {
 public:
  explicit Coated(const CellPaint& paint) : paint_(paint) {
    for (const Coat& coat : paint.coats) {
      if (coat.wood != nullptr) woods_.emplace(&coat, Wood(*coat.wood, coat.grain));
    }
  }
  // Of that cell of a field: its own colour, or what lies on it; holes have nothing on them.
  Rgb seen(const Rgb& own, const Lighter& lighter, const HeightField& field, std::size_t c, std::size_t r) {
    const Coat* coat = lighter.through(c, r) ? nullptr : paint_.at(r * field.columns() + c);
    if (coat == nullptr) return own;
    return over(own, *coat, static_cast<float>(field.x_of(c)), static_cast<float>(field.y_of(r)), field.at(c, r));
  }
  Rgb over(const Rgb& own, const Coat& coat, float x, float y, float z) {
    const auto wood = woods_.find(&coat);
    return wood == woods_.end() ? painted(own, coat.colour) : wood->second.at(x, y, z);
  }

 private:
  const CellPaint& paint_;
  std::map<const Coat*, Wood> woods_;
};

}  // namespace doyen::lighting
