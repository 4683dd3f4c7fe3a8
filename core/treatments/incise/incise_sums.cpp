#include "treatments/incise/incise_sums.hpp"

#include <algorithm>

#include "planning/figures.hpp"
#include "planning/trials.hpp"
#include "stock/species.hpp"
#include "wording/say.hpp"

namespace doyen {

using namespace sums;

Sum depth_sum(const Plan& plan, const std::string& id) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr || !piece->cuts.groove) return {};
  const Bit* bit = bit_of(plan, item->cut.bit);
  if (bit == nullptr) return {};
  const Figures f(plan.job.lengths);
  const PieceCuts& cuts = piece->cuts;
  const double widest = cuts.groove->widest_stroke(), half = widest / 2;
  const double closed = (half - bit->tip / 2) / bit->tan_half();
  Sum sum;
  sum.title = say("How {0} comes about", f.with_unit(cuts.deepest));
  sum.page = "why-depth.md";
  sum.lines.push_back(say("widest stroke {0}, half of it {1}", f(widest), f(half)));
  std::string top = f(half);
  if (bit->tip > 0) {
    sum.lines.push_back(say("less half the tip flat of {0}: {1}", f(bit->tip), f(half - bit->tip / 2)));
    top = f(half - bit->tip / 2);
  }
  sum.lines.push_back(say("{0} ÷ tan({1}° ÷ 2) = {2} ÷ {3} = {4}", top, n(bit->true_angle(), 2), top,
                          n(bit->tan_half(), 4), f(closed)));
  if (cuts.limit < closed)
    sum.lines.push_back(
        std::string(cuts.limited_by_body ? say("the bit's body allows ") : say("the floor limit holds it at ")) +
        f(cuts.limit));
  if (cuts.ground > 0) sum.lines.push_back(say("its ground lies {0} below {1}", f(cuts.ground), side_of(*item)));
  sum.result = say("= {0} below {1}", f.with_unit(cuts.deepest), side_of(*item));
  return sum;
}

VSeconds v_seconds(const Plan& plan, const Rack& rack, const std::string& id, const Cancel& cancel) {
  VSeconds seconds;
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr || !piece->problem.empty()) return seconds;
  const std::string wood = wood_class_of(plan.job.blank);
  for (const Bit& bit : rack_for(plan.job, rack).bits) {
    if (bit.kind != BitKind::V || !bit.feeds_in(wood).known()) continue;
    Treatment cut = item->cut;
    cut.bit = bit.id;
    seconds[bit.id] = try_cut(plan, rack, id, cut, cancel).seconds;
  }
  return seconds;
}

Sum v_table_sum(const Plan& plan, const Rack& rack, const std::string& id, const VSeconds* seconds) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr || !piece->cuts.groove) return {};
  const Figures f(plan.job.lengths);
  const Groove& groove = *piece->cuts.groove;
  const double widest = groove.widest_stroke(), thinnest = groove.narrowest_stroke();
  const double whole = area(piece->outlines.region);
  const double wood = plan.job.blank.thinnest() - plan.job.run.least_wood - piece->cuts.ground;
  Sum sum;
  sum.title = say("What each V of the rack would do here");
  sum.page = "why-depth.md";
  // The fairest is the one that goes deepest without passing the wood that may be taken or its own body.
  const Bit* fair = nullptr;
  double fair_depth = 0;
  for (const Bit& bit : rack.bits) {
    if (bit.kind != BitKind::V) continue;
    const double limit = std::min(item->cut.incise.floor_limit.value_or(1e300), bit.body_depth());
    const double open = std::max(0.0, (widest - bit.tip) / 2 / bit.tan_half()), deep = std::min(open, limit);
    const double shallow = std::min(deep, std::max(0.0, (thinnest - bit.tip) / 2 / bit.tan_half()));
    std::string says = say("{0} to {1} deep", f(shallow), f(deep));
    if (open > limit + 1e-6) {
      const double flat = area(grow(piece->outlines.region, -(limit * bit.tan_half() + bit.tip / 2))) / whole * 100;
      says += say(", {0} % ends flat{1}", n(flat, 0),
                  (limit < item->cut.incise.floor_limit.value_or(1e300) ? say(" under its body") : ""));
    }
    if (deep > wood) says += say("; too deep for the wood");
    if (seconds != nullptr && seconds->contains(bit.id))
      says += say("; takes {0}", format_duration(seconds->at(bit.id)));
    sum.lines.push_back(bit.name + ": " + says);
    if (open <= bit.body_depth() + 1e-6 && deep <= wood && deep > fair_depth) {
      fair = &bit;
      fair_depth = deep;
    }
  }
  sum.result = fair == nullptr ? say("none takes these strokes to their full depth")
                               : say("deepest that the wood and its body allow: the {0}", fair->name);
  return sum;
}

Sum limit_table_sum(const Plan& plan, const Rack& rack, const std::string& id, const Cancel& cancel) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  const Bit* bit = item == nullptr ? nullptr : bit_of(plan, item->cut.bit);
  if (piece == nullptr || bit == nullptr || !piece->cuts.groove) return {};
  const Figures f(plan.job.lengths);
  const double closes = std::max(0.0, (piece->cuts.groove->widest_stroke() - bit->tip) / 2 / bit->tan_half());
  const double unit = plan.job.lengths.unit == Unit::Inch ? kMmPerInch / 100 : 0.1;
  std::vector<double> limits;
  for (const double share : {0.2, 0.35, 0.5, 0.65, 0.8})
    limits.push_back(std::max(unit, std::round(closes * share / unit) * unit));
  if (item->cut.incise.floor_limit) limits.push_back(*item->cut.incise.floor_limit);
  std::erase_if(limits, [&](double limit) { return limit >= closes - 1e-6; });
  std::sort(limits.begin(), limits.end());
  limits.erase(std::unique(limits.begin(), limits.end(), [](double a, double b) { return std::abs(a - b) < 1e-6; }),
               limits.end());
  limits.push_back(closes);  // full depth
  std::vector<double> seconds;
  for (const double limit : limits) {
    Treatment cut = item->cut;
    cut.incise.floor_limit = limit;
    if (limit >= closes - 1e-6) cut.incise.floor_limit.reset();
    seconds.push_back(try_cut(plan, rack, id, cut, cancel).seconds);
  }
  const std::size_t knee = knee_of(limits, seconds);
  Sum sum;
  sum.title = say("What each floor limit would do here");
  sum.page = "why-depth.md";
  for (std::size_t i = 0; i < limits.size(); ++i) {
    const bool full = i + 1 == limits.size();
    const double flat = full ? 0 : area(grow(piece->outlines.region, -(limits[i] * bit->tan_half() + bit->tip / 2)));
    std::string line = full ? say("full depth, {0}: {1}, nothing ends flat", f(closes), format_duration(seconds[i]))
                            : say("{0}: {1}, {2} ends flat", f(limits[i]), format_duration(seconds[i]),
                                  format_area(flat, plan.job.lengths));
    if (i == knee) line += say("  ◆ the knee: beyond it little changes");
    sum.lines.push_back(line);
  }
  sum.result = say("at {0} every stroke has closed: a deeper limit changes nothing", f.with_unit(closes));
  return sum;
}

std::size_t knee_of(const std::vector<double>& at, const std::vector<double>& of) {
  const std::size_t last = at.size() - 1;
  if (at.size() < 3) return at.size();
  const auto [low, high] = std::minmax_element(of.begin(), of.end());
  const double wide = at[last] - at[0], tall = *high - *low;
  if (!(wide > 0) || !(tall > 0.05 * *high)) return at.size();
  std::size_t best = at.size();
  double farthest = 0.1;
  for (std::size_t i = 1; i < last; ++i) {
    const double share = (at[i] - at[0]) / wide;
    const double straight = of[0] + (of[last] - of[0]) * share;
    const double off = std::abs(of[i] - straight) / tall;
    if (off > farthest) {
      farthest = off;
      best = i;
    }
  }
  return best;
}

Sum floor_sum(const Plan& plan, const std::string& id) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr || !piece->cuts.groove || !std::isfinite(piece->cuts.limit)) return {};
  const Bit* bit = bit_of(plan, item->cut.bit);
  if (bit == nullptr) return {};
  const Figures f(plan.job.lengths);
  const double width = 2 * piece->cuts.groove->shape.limit_radius();
  Sum sum;
  sum.title = say("Which strokes end flat");
  sum.page = "why-depth.md";
  sum.lines.push_back(say("2 × {0} × tan({1}° ÷ 2){2}", f(piece->cuts.limit), n(bit->true_angle(), 2),
                          (bit->tip > 0 ? say(" + tip {0}", f(bit->tip)) : "")));
  sum.lines.push_back(say("= 2 × {0} × {1}{2}", f(piece->cuts.limit), n(bit->tan_half(), 4),
                          (bit->tip > 0 ? " + " + f(bit->tip) : "")));
  sum.result = say("strokes wider than {0} get a flat floor", f.with_unit(width));
  return sum;
}

std::vector<std::string> letters_with_floor(const PiecePlan& piece) {
  std::vector<std::string> letters;
  std::vector<Island> islands = piece.cuts.floor.islands;
  std::sort(islands.begin(), islands.end(),
            [](const Island& a, const Island& b) { return bounds(a).left < bounds(b).left; });
  for (const Island& island : islands) {
    const std::string letter = letter_at(piece.outlines, bounds(island).centre());
    if (!letter.empty() && std::find(letters.begin(), letters.end(), letter) == letters.end())
      letters.push_back(letter);
  }
  return letters;
}

}  // namespace doyen
