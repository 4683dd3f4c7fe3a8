#include "artwork/drawing/ink.hpp"

#include <algorithm>

namespace doyen {
namespace {

// The patches of one colour, each with its pixels in a row of `order`.
struct Patch {
  std::size_t from = 0, count = 0;
  bool at_edge = false;
};

class Patches {
 public:
  Patches(const Ink& ink, bool of_ink, const Cancel& cancel) : label_(ink.pixels.size(), 0) {
    order_.reserve(ink.pixels.size() / 2);
    for (int y = 0; y < ink.height; ++y) {
      if (y % 64 == 0) cancel.check();
      for (int x = 0; x < ink.width; ++x) {
        if ((ink.pixels[ink.at(x, y)] != 0) == of_ink && label_[ink.at(x, y)] == 0) flood(ink, of_ink, x, y);
      }
    }
  }
  [[nodiscard]] const std::vector<Patch>& all() const { return patches_; }
  // The patch's place among all, from 1; 0 where the other colour lies.
  [[nodiscard]] std::uint32_t of(std::size_t pixel) const { return label_[pixel]; }
  template <typename Act>
  void each_pixel(const Patch& patch, Act act) const {
    for (std::size_t i = patch.from; i < patch.from + patch.count; ++i) act(order_[i]);
  }

 private:
  void flood(const Ink& ink, bool of_ink, int x0, int y0) {
    Patch patch{order_.size(), 0, false};
    const auto mark = static_cast<std::uint32_t>(patches_.size() + 1);
    const auto take = [&](int x, int y) {
      const std::size_t i = ink.at(x, y);
      if ((ink.pixels[i] != 0) != of_ink || label_[i] != 0) return;
      label_[i] = mark;
      order_.push_back(i);
      patch.at_edge = patch.at_edge || x == 0 || y == 0 || x == ink.width - 1 || y == ink.height - 1;
    };
    take(x0, y0);
    for (std::size_t next = patch.from; next < order_.size(); ++next) {
      const int x = static_cast<int>(order_[next] % static_cast<std::size_t>(ink.width)),
                y = static_cast<int>(order_[next] / static_cast<std::size_t>(ink.width));
      for (int dy = -1; dy <= 1; ++dy) {
        for (int dx = -1; dx <= 1; ++dx) {
          if ((dx == 0 && dy == 0) || (!of_ink && dx != 0 && dy != 0)) continue;
          if (x + dx < 0 || y + dy < 0 || x + dx >= ink.width || y + dy >= ink.height) continue;
          take(x + dx, y + dy);
        }
      }
    }
    patch.count = order_.size() - patch.from;
    patches_.push_back(patch);
  }

  std::vector<std::uint32_t> label_;
  std::vector<std::size_t> order_;
  std::vector<Patch> patches_;
};

// Turns the patches of one colour that are too small, or were said to be the other, into it.
void turn_small(Ink& ink, bool of_ink, double least, const std::vector<SettledPixel>& settled, const Ink& before,
                std::vector<Cleaned>& became, const Cancel& cancel) {
  const bool asked = std::any_of(settled.begin(), settled.end(), [&](const SettledPixel& s) {
    return (before.pixels[before.at(s.x, s.y)] != 0) == of_ink;
  });
  if (least <= 0 && !asked) return;
  const Patches patches(ink, of_ink, cancel);
  std::vector<std::int8_t> said(patches.all().size() + 1, -1);  // 1 ink, 0 paper
  for (const SettledPixel& s : settled) {
    const std::size_t i = before.at(s.x, s.y);
    if ((before.pixels[i] != 0) == of_ink && patches.of(i) > 0) said[patches.of(i)] = s.ink ? 1 : 0;
  }
  for (std::size_t k = 0; k < patches.all().size(); ++k) {
    const Patch& patch = patches.all()[k];
    if (!of_ink && patch.at_edge) continue;
    const int word = said[k + 1];
    const bool turn = word >= 0 ? (word == 1) != of_ink : static_cast<double>(patch.count) < least;
    if (!turn) continue;
    patches.each_pixel(patch, [&](std::size_t i) {
      ink.pixels[i] = of_ink ? 0 : 1;
      became[i] = of_ink ? Cleaned::Dropped : Cleaned::Filled;
    });
  }
}

}  // namespace

std::vector<Cleaned> clean_ink(Ink& ink, double specks, double holes, const std::vector<SettledPixel>& settled,
                               const Cancel& cancel) {
  std::vector<Cleaned> became(ink.pixels.size(), Cleaned::AsItWas);
  std::vector<SettledPixel> inside;
  for (const SettledPixel& s : settled) {
    if (s.x >= 0 && s.y >= 0 && s.x < ink.width && s.y < ink.height) inside.push_back(s);
  }
  const Ink before = ink;
  turn_small(ink, false, holes, inside, before, became, cancel);
  turn_small(ink, true, specks, inside, before, became, cancel);
  return became;
}

bool uneven_light(const std::vector<std::uint8_t>& grey, int width, int height) {
  if (width < 64 || height < 64) return false;
  // The darkest and lightest twentieths are ink and paper for certain.
  std::vector<std::size_t> histogram(256, 0);
  for (const std::uint8_t v : grey) ++histogram[v];
  const auto at_share = [&](double share) {
    std::size_t seen = 0;
    const auto wanted = static_cast<std::size_t>(share * static_cast<double>(grey.size()));
    for (int v = 0; v < 256; ++v) {
      seen += histogram[static_cast<std::size_t>(v)];
      if (seen > wanted) return v;
    }
    return 255;
  };
  const double dark = at_share(0.01), light = at_share(0.97), range = light - dark;
  if (range < 40) return false;
  // Of each small square the middle brightness of its lighter half: paper, or, where all is ink, ink.
  constexpr int kAcross = 24;
  std::vector<double> between;
  int squares = 0;
  for (int row = 0; row < kAcross; ++row) {
    for (int column = 0; column < kAcross; ++column) {
      const int x0 = width * column / kAcross, x1 = width * (column + 1) / kAcross;
      const int y0 = height * row / kAcross, y1 = height * (row + 1) / kAcross;
      std::vector<std::uint8_t> values;
      for (int y = y0; y < y1; ++y) {
        for (int x = x0; x < x1; ++x)
          values.push_back(
              grey[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)]);
      }
      if (values.size() < 4) continue;
      ++squares;
      const auto upper = values.begin() + static_cast<std::ptrdiff_t>(values.size() * 3 / 4);
      std::nth_element(values.begin(), upper, values.end());
      const double share = (*upper - dark) / range;
      if (share > 0.25 && share < 0.78) between.push_back(share);
    }
  }
  if (static_cast<double>(between.size()) < 0.04 * squares) return false;
  // A flat grey is of one brightness but for its blurred edges.
  std::sort(between.begin(), between.end());
  return between[between.size() * 3 / 4] - between[between.size() / 4] > 0.08;
}

}  // namespace doyen
