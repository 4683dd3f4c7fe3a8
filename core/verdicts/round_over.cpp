// The front edges are rounded over when the sign is cut: what is carved there goes with the wood.
#include <algorithm>
#include <cmath>

#include "geometry/united.hpp"
#include "holding/screws.hpp"
#include "problem.hpp"
#include "treatments/look.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kHair = 0.02;  // mm, that arcs and cells are out by
constexpr double kCrumb = 0.5;  // mm²

// What leaves the machine: all that is cut out, without openings; the board, where nothing is.
Region sign_of(const Situation& s) {
  std::vector<Region> signs;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.job.items[i].cut.kind == Treatment::Kind::CutOut && s.pieces[i].outlines != nullptr)
      signs.push_back(filled(s.pieces[i].outlines->region));
  }
  Region sign = united(std::move(signs));
  return sign.empty() ? region_of(s.job.blank) : sign;
}

bool clear_of_edge(const Region& sign, const Region& cut, double from_edge) {
  return area(subtract(cut, grow(sign, -(from_edge - kHair)))) < kCrumb;
}

// How far it keeps from the edge, mm, as far as `most`.
double clear_by(const Region& sign, const Region& cut, double most) {
  double least = 0;
  for (int i = 0; i < 12; ++i) {
    const double middle = (least + most) / 2;
    (clear_of_edge(sign, cut, middle) ? least : most) = middle;
  }
  return least;
}

// In figures that such bits come in, and that can be said.
double bit_radius(double most, Unit unit) {
  const double step = unit == Unit::Inch ? kMmPerInch / 16 : 0.5;
  return std::floor(most / step + 1e-6) * step;
}

bool lies_at_the_front(const Item& item) {
  return item.cut.kind != Treatment::Kind::None && item.cut.kind != Treatment::Kind::CutOut && !item.cut.back &&
         !look_of(item.cut.kind).to_back;
}

}  // namespace

void check_round_over(const Situation& s, std::vector<Verdict>& out) {
  const double radius = s.job.finish.round_over;
  if (radius <= 0) return;
  Region sign;
  try {
    sign = sign_of(s);
  } catch (const Problem&) {
    return;  // the board's outline is said elsewhere
  }
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    if (!lies_at_the_front(item) || s.pieces[i].outlines == nullptr) continue;
    // What lies in the waste beside it is none of the edge's.
    const Region cut = intersect(cut_region(s.job, item, *s.pieces[i].outlines, s.rack), sign);
    if (cut.empty() || clear_of_edge(sign, cut, radius)) continue;
    const double stays = clear_by(sign, cut, radius), smaller = bit_radius(stays, s.job.lengths.unit);
    std::vector<Remedy> remedies;
    if (smaller >= 1)
      remedies.push_back(
          {say("Round it over by {0}", s.show(smaller)), [smaller](Job& job) { job.finish.round_over = smaller; }});
    remedies.push_back({say("Leave the edges square"), [](Job& job) { job.finish.round_over = 0; }});
    out.push_back({Grade::Mind, "into-round-over", item.piece.id, bounds(cut).centre(),
                   say("“{0}” is carved {1} from the edge, which is rounded over by {2}.", item.piece.name,
                       s.show(std::round(stays * 10) / 10), s.show(radius)),
                   say("What is carved there goes with the wood."), std::move(remedies)});
  }
}

}  // namespace doyen
