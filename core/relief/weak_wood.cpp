#include "relief/weak_wood.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include "relief/cell_distance.hpp"

namespace doyen {
namespace {

using Cells = std::vector<unsigned char>;

constexpr int kLevels = 5;         // widths that are told apart, up to what holds along the grain, and across it
constexpr double kSlack = 0.75;    // cells that a disc may miss of what it sweeps
constexpr double kHangs = 1.3;     // a point hangs on one end and reaches so many radii beyond: narrower than 52°
constexpr double kCrumb = 1.5;     // mm²: smaller places are the grid's
constexpr double kFoot = 0.85;     // of the depth: where a wall's width is taken
constexpr double kThrough = 0.01;  // mm that are no wood any more

// A part of the wood too narrow for a disc, and how it hangs on the rest.
struct Narrow {
  std::vector<std::size_t> cells;
  WeakPlace::Kind kind = WeakPlace::Kind::Neck;
  bool across = false;
  double tall = 0;            // mm, of a wall: what it must be as wide as
  std::size_t narrowest = 0;  // the cell; of what hangs on one end or none, where it is widest
};

class WeakFinder {
 public:
  WeakFinder(const CarvedWood& wood, const WeakLimits& limits, const Cancel& cancel)
      : wood_(wood),
        limits_(limits),
        cancel_(cancel),
        inside_(wood.front.columns()),
        columns_(inside_ + 2),
        rows_(wood.front.rows() + 2),
        cell_(wood.front.cell()),
        claimed_(columns_ * rows_, 0) {}

  WeakMap run() {
    if (inside_ == 0 || wood_.front.rows() == 0) return {};
    find_skins();
    find_necks();
    std::vector<double> stands = wood_.stands;
    std::sort(stands.begin(), stands.end(), std::greater<>());
    for (const double tall : stands) find_walls(tall);
    return drawn();
  }

 private:
  [[nodiscard]] float front_at(std::size_t cell) const {
    return wood_.front.at(cell % columns_ - 1, cell / columns_ - 1);
  }
  // One cell all round lies off the wood.
  template <typename Says>
  Cells cells_where(const Says& says) const {
    Cells found(columns_ * rows_, 0);
    for (std::size_t r = 0; r + 2 < rows_; ++r) {
      for (std::size_t c = 0; c < inside_; ++c) {
        const std::size_t i = r * inside_ + c;
        found[(r + 1) * columns_ + c + 1] = wood_.kept[i] != 0 && says(i, wood_.front.at(c, r)) ? 1 : 0;
      }
    }
    return found;
  }
  static Cells others(Cells cells) {
    for (unsigned char& c : cells) c = c == 0 ? 1 : 0;
    return cells;
  }
  [[nodiscard]] double left_at(std::size_t i, float front) const {
    return wood_.thickness + front - (wood_.under.empty() ? 0 : wood_.under[i]);
  }
  [[nodiscard]] Point middle(std::size_t cell) const {
    return {wood_.front.x_of(0) + (static_cast<double>(cell % columns_) - 1) * cell_,
            wood_.front.y_of(0) + (static_cast<double>(cell / columns_) - 1) * cell_};
  }
  template <typename Tell>
  void neighbours(std::size_t cell, const Tell& tell) const {
    for (const std::ptrdiff_t dy : {-1, 0, 1}) {
      for (const std::ptrdiff_t dx : {-1, 0, 1}) {
        const std::ptrdiff_t at = static_cast<std::ptrdiff_t>(cell) + dy * static_cast<std::ptrdiff_t>(columns_) + dx;
        if ((dx != 0 || dy != 0) && at >= 0 && at < static_cast<std::ptrdiff_t>(columns_ * rows_))
          tell(static_cast<std::size_t>(at));
      }
    }
  }

  std::vector<std::vector<std::size_t>> lists_of(const Cells& cells) const {
    int count = 0;
    const std::vector<int> group = groups_of(cells, columns_, rows_, count);
    std::vector<std::vector<std::size_t>> lists(static_cast<std::size_t>(count));
    for (std::size_t i = 0; i < group.size(); ++i) {
      if (group[i] > 0) lists[static_cast<std::size_t>(group[i] - 1)].push_back(i);
    }
    return lists;
  }

  // Where a narrow part meets what a disc reaches: the cells of each end.
  [[nodiscard]] std::vector<std::vector<std::size_t>> ends_of(const std::vector<std::size_t>& cells,
                                                              const Cells& reached) const {
    std::map<std::size_t, int> ends;  // the cells beside it, two deep, so that a ragged end stays one
    for (const std::size_t i : cells) {
      neighbours(i, [&](std::size_t n) {
        if (reached[n] == 0) return;
        ends[n] = 0;
        neighbours(n, [&](std::size_t m) {
          if (reached[m] != 0) ends[m] = 0;
        });
      });
    }
    std::vector<std::vector<std::size_t>> found;
    for (auto& [first, seen] : ends) {
      if (seen != 0) continue;
      seen = 1;
      std::vector<std::size_t> end{first};
      for (std::size_t k = 0; k < end.size(); ++k) {
        neighbours(end[k], [&](std::size_t next) {
          const auto it = ends.find(next);
          if (it == ends.end() || it->second != 0) return;
          it->second = 1;
          end.push_back(next);
        });
      }
      found.push_back(std::move(end));
    }
    return found;
  }

  // The narrowest that one must pass from the first end to the second, as a way to air in cells: cells are let in, the
  // farthest from air first, until both ends are joined.
  [[nodiscard]] std::size_t bottleneck(std::vector<std::size_t> cells,
                                       const std::vector<std::vector<std::size_t>>& ends,
                                       const std::vector<float>& to_air) const {
    std::map<std::size_t, std::size_t> joined;  // a cell, and one nearer to its group's first
    const auto root = [&](std::size_t i) {
      while (joined[i] != i) i = joined[i] = joined[joined[i]];
      return i;
    };
    for (const std::vector<std::size_t>& end : ends) {
      for (const std::size_t i : end) joined[i] = end.front();
    }
    std::sort(cells.begin(), cells.end(), [&](std::size_t a, std::size_t b) { return to_air[a] > to_air[b]; });
    for (const std::size_t i : cells) {
      joined[i] = i;
      neighbours(i, [&](std::size_t n) {
        if (joined.count(n) > 0) joined[root(n)] = root(i);
      });
      if (root(ends[0].front()) == root(ends[1].front())) return i;
    }
    return cells.front();
  }

  [[nodiscard]] bool across(Point way) const {
    return limits_.grain && (limits_.grain_up ? std::abs(way.x) > std::abs(way.y) : std::abs(way.y) > std::abs(way.x));
  }

  [[nodiscard]] Point middle_of(const std::vector<std::size_t>& cells) const {
    Point sum;
    for (const std::size_t i : cells) sum = sum + middle(i);
    return sum * (1.0 / static_cast<double>(cells.size()));
  }

  [[nodiscard]] Narrow narrow_of(std::vector<std::size_t> cells, const std::vector<std::vector<std::size_t>>& ends,
                                 const std::vector<float>& to_air) const {
    const bool tied = ends.size() > 1;
    Narrow part;
    part.kind = ends.size() == 1 ? WeakPlace::Kind::Point : WeakPlace::Kind::Neck;
    // What hangs on nothing has sides that run either way.
    part.across = ends.empty() ? limits_.grain : across(middle_of(tied ? ends[1] : cells) - middle_of(ends[0]));
    part.narrowest = tied ? bottleneck(cells, ends, to_air)
                          : *std::max_element(cells.begin(), cells.end(),
                                              [&](std::size_t i, std::size_t k) { return to_air[i] < to_air[k]; });
    part.cells = std::move(cells);
    return part;
  }

  // The parts of the wood that a disc of this radius, in cells, cannot reach, without corners.
  std::vector<Narrow> narrow_parts(const Cells& wood, const std::vector<float>& to_air, double radius) const {
    cancel_.check();
    Cells middles(wood.size(), 0);
    for (std::size_t i = 0; i < wood.size(); ++i) middles[i] = wood[i] != 0 && to_air[i] - 0.5 >= radius ? 1 : 0;
    const std::vector<float> to_middles = distances_to(middles, columns_, rows_);
    Cells reached(wood.size(), 0), lost(wood.size(), 0);
    for (std::size_t i = 0; i < wood.size(); ++i) {
      if (wood[i] != 0) (to_middles[i] <= radius + kSlack ? reached : lost)[i] = 1;
    }
    const std::vector<float> to_reached = distances_to(reached, columns_, rows_);
    std::vector<Narrow> parts;
    for (std::vector<std::size_t>& cells : lists_of(lost)) {
      float reach = 0;
      for (const std::size_t i : cells) reach = std::max(reach, to_reached[i]);
      if (reach < 2) continue;
      const std::vector<std::vector<std::size_t>> ends = ends_of(cells, reached);
      if (ends.size() == 1 && reach < kHangs * radius) continue;  // a corner
      parts.push_back(narrow_of(std::move(cells), ends, to_air));
    }
    return parts;
  }

  [[nodiscard]] double holds(const Narrow& part, double along, double over) const {
    return part.tall > 0 ? limits_.wall * part.tall : part.across ? over : along;
  }

  // Of wood that is narrower than it may be along or across its fibres: place by place. `suits`: whether a part counts.
  template <typename Suits>
  void find_narrow(const Cells& wood, double along, double over, WeakPlace like, const Suits& suits) {
    const std::vector<float> to_air = distances_to(others(wood), columns_, rows_);
    std::vector<double> widths;
    for (int level = 1; level <= kLevels; ++level) {
      widths.push_back(along * level / kLevels);
      if (limits_.grain && over > along) widths.push_back(over * level / kLevels);
    }
    std::sort(widths.begin(), widths.end());
    Cells weak(wood.size(), 0);
    std::vector<std::pair<double, Narrow>> parts;  // with the width of the disc, the narrowest first
    for (const double wide : widths) {
      for (Narrow& part : narrow_parts(wood, to_air, wide / 2 / cell_)) {
        if (!suits(part) || wide > holds(part, along, over) + 1e-9) continue;
        for (const std::size_t i : part.cells) weak[i] = 1;
        parts.emplace_back(wide, std::move(part));
      }
    }
    for (const std::vector<std::size_t>& cells : lists_of(weak)) {
      const Narrow* worst = first_in(parts, cells);
      if (worst == nullptr) continue;
      WeakPlace place = like;
      if (place.kind == WeakPlace::Kind::Neck) place.kind = worst->kind;
      place.across = worst->across;
      place.holds = holds(*worst, along, over);
      place.tall = worst->tall;
      place.at = middle(worst->narrowest);
      place.width = (2 * to_air[worst->narrowest] - 0.5) * cell_;  // of an odd or even number of cells
      claim(cells, place);
    }
  }

  // The part of the narrowest disc that these cells hold.
  static const Narrow* first_in(const std::vector<std::pair<double, Narrow>>& parts,
                                const std::vector<std::size_t>& cells) {
    for (const auto& [wide, part] : parts) {
      if (std::binary_search(cells.begin(), cells.end(), part.cells.front())) return &part;
    }
    return nullptr;
  }

  // These cells for this place, unless most of them are another's already.
  void claim(const std::vector<std::size_t>& cells, WeakPlace place) {
    std::size_t free = 0;
    for (const std::size_t i : cells) free += claimed_[i] == 0 ? 1 : 0;
    place.mm2 = static_cast<double>(free) * cell_ * cell_;
    if (2 * free < cells.size() || place.mm2 < kCrumb) return;
    place.breaks = place.width < place.holds / 2;
    places_.push_back(place);
    for (const std::size_t i : cells) {
      if (claimed_[i] == 0) claimed_[i] = places_.size();
    }
  }

  void find_skins() {
    if (limits_.skin <= 0) return;
    std::vector<float> left(columns_ * rows_, 1e9F);
    const Cells thin = cells_where([&](std::size_t i, float front) {
      const double stays = left_at(i, front);
      const bool skin = stays > kThrough && stays < limits_.skin && stays < wood_.thickness - kThrough;
      if (skin) left[(i / inside_ + 1) * columns_ + i % inside_ + 1] = static_cast<float>(stays);
      return skin;
    });
    for (const std::vector<std::size_t>& cells : lists_of(thin)) {
      const std::size_t worst = *std::min_element(cells.begin(), cells.end(),
                                                  [&](std::size_t a, std::size_t b) { return left[a] < left[b]; });
      WeakPlace place;
      place.kind = WeakPlace::Kind::Skin;
      place.width = left[worst];
      place.holds = limits_.skin;
      place.at = middle(worst);
      claim(cells, place);
    }
  }

  void find_necks() {
    if (limits_.along <= 0) return;
    const double least = std::max(limits_.skin, kThrough);  // a skin ties nothing
    const Cells wood = cells_where([&](std::size_t i, float front) { return left_at(i, front) > least; });
    find_narrow(wood, limits_.along, limits_.across, {}, [](Narrow&) { return true; });
  }

  // What stands between floors so deep, measured at its foot: sloped flanks, as a V leaves them, make that wide.
  void find_walls(double deep) {
    if (deep < 0.5 || deep > wood_.thickness - 0.5) return;
    const Cells standing = cells_where([&](std::size_t, float front) { return front > -kFoot * deep; });
    WeakPlace like;
    like.kind = WeakPlace::Kind::Wall;
    find_narrow(standing, limits_.wall * deep, limits_.wall * deep, like, [&](Narrow& part) {
      double crest = -deep;
      for (const std::size_t i : part.cells) crest = std::max<double>(crest, front_at(i));
      part.tall = deep + crest;  // where two flanks meet below the face it stands less high
      return true;
    });
  }

  WeakMap drawn() const {
    WeakMap map;
    map.cell = cell_;
    std::vector<std::size_t> order(places_.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
      const WeakPlace &p = places_[a], &q = places_[b];
      return p.breaks != q.breaks ? p.breaks : p.width / p.holds < q.width / q.holds;
    });
    std::vector<std::size_t> number(places_.size() + 1, 0);
    for (std::size_t i = 0; i < order.size(); ++i) {
      map.places.push_back(places_[order[i]]);
      number[order[i] + 1] = i;
    }
    for (std::size_t r = 1; r + 1 < rows_; ++r) {
      for (std::size_t c = 1; c + 1 < columns_; ++c) {
        const std::size_t place = claimed_[r * columns_ + c];
        if (place == 0) continue;
        const std::size_t first = c;
        while (c + 1 < columns_ && claimed_[r * columns_ + c + 1] == place) ++c;
        const Point a = middle(r * columns_ + first), b = middle(r * columns_ + c);
        map.runs.push_back({a.x - cell_ / 2, b.x + cell_ / 2, a.y, number[place]});
      }
    }
    return map;
  }

  const CarvedWood& wood_;
  const WeakLimits& limits_;
  const Cancel& cancel_;
  std::size_t inside_, columns_, rows_;
  double cell_;
  std::vector<std::size_t> claimed_;  // by which place, from 1 on
  std::vector<WeakPlace> places_;
};

}  // namespace

WeakMap weak_wood(const CarvedWood& wood, const WeakLimits& limits, const Cancel& cancel) {
  return WeakFinder(wood, limits, cancel).run();
}

}  // namespace doyen
