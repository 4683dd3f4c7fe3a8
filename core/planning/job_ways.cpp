// Ways to cut a whole job.
#include "planning/job_ways.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include "job/size_sign.hpp"
#include "run/order.hpp"
#include "stock/species.hpp"
#include "stock/strength.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// Two bits of one shape, which only differ in their flutes.
bool alike(const Bit& a, const Bit& b) {
  constexpr double kSame = 0.06;  // mm: what a bit's own width is sure to
  return a.id != b.id && a.kind == b.kind && std::abs(a.true_diameter() - b.true_diameter()) < kSame &&
         a.angle == b.angle && std::abs(a.tip - b.tip) < kSame;
}

std::string leaves_in_words(const Bit& bit) {
  switch (bit.direction) {
    case CutDirection::UpCut:
      return say("as an up-cut leaves them, which may tear at the face");
    case CutDirection::DownCut:
      return say("as a down-cut leaves them, which may tear below and packs chips in");
    case CutDirection::Compression:
      return say("as a compression bit leaves them");
    case CutDirection::Straight:
      break;
  }
  return say("as straight flutes leave them");
}

// What a piece is cleared by, and the same with one bit in the place of another.
using Cleared = std::vector<std::pair<std::string, std::vector<BitId>>>;

Cleared cleared_with(const Plan& plan, const BitId& was, const BitId& by) {
  Cleared all;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const std::vector<BitId>& said = plan.job.items[i].cut.clearing;
    std::vector<BitId> once;
    bool has = false;
    for (const BitId& bit : said.empty() ? plan.pieces[i]->cuts.bits : said) {
      has = has || bit == was;
      const BitId& now = bit == was ? by : bit;
      if (std::find(once.begin(), once.end(), now) == once.end()) once.push_back(now);
    }
    if (has) all.emplace_back(plan.job.items[i].piece.id, std::move(once));
  }
  return all;
}

// One bit takes the other's place everywhere in the job.
std::function<void(Job&)> replaced(const Plan& plan, const BitId& was, const BitId& by) {
  return [cleared = cleared_with(plan, was, by), was, by](Job& job) {
    for (Item& item : job.items) {
      if (item.cut.bit == was) item.cut.bit = by;
    }
    for (const auto& [id, bits] : cleared) {
      if (Item* item = job.find(id)) item->cut.clearing = bits;
    }
    for (std::string& turn : job.run.order) {
      if (turn == was) turn = by;
      if (turn == was + "#out") turn = by + "#out";
    }
  };
}

// Of two bits of one shape, each does the other's work.
void add_alike(const Plan& plan, std::vector<Way>& ways) {
  std::set<std::pair<BitId, BitId>> tried;
  for (const BitRun& a : plan.runs) {
    for (const BitRun& b : plan.runs) {
      if (!alike(a.bit, b.bit) || ways.size() >= kMostWays || !tried.emplace(a.bit.id, b.bit.id).second) continue;
      ways.push_back(
          {say("The {0} does the {1}'s work, too: walls come out {2}", a.bit.name, b.bit.name, leaves_in_words(a.bit)),
           replaced(plan, b.bit.id, a.bit.id)});
    }
  }
}

// The bit comes back to the same board, and only for cut-outs.
bool back_for_cut_outs(const BitRun& first, const BitRun& again) {
  return first.bit.id == again.bit.id && first.side == again.side && first.later == again.later && first.screws == 0 &&
         again.screws == 0 && std::all_of(again.operations.begin(), again.operations.end(), [](const Operation* op) {
           return op->kind == Operation::Kind::Profile;
         });
}

// The order of the bits as it is, but with the later of two runs straight behind the earlier.
std::vector<std::string> in_one_stay(const Plan& plan, std::size_t first, std::size_t again) {
  std::vector<std::string> order;
  const auto add = [&](const BitRun& run) {
    for (const Operation* op : run.operations) {
      if (std::find(order.begin(), order.end(), turn_of(*op)) == order.end()) order.push_back(turn_of(*op));
    }
  };
  for (std::size_t n = 0; n < plan.runs.size(); ++n) {
    if (n != again) add(plan.runs[n]);
    if (n == first) add(plan.runs[again]);
  }
  return order;
}

// A bit that comes back only for cut-outs does them in its first stay.
void add_one_stay(const Plan& plan, std::vector<Way>& ways) {
  for (std::size_t i = 0; i + 2 < plan.runs.size(); ++i) {
    for (std::size_t k = i + 2; k < plan.runs.size(); ++k) {
      if (!back_for_cut_outs(plan.runs[i], plan.runs[k]) || ways.size() >= kMostWays) continue;
      ways.push_back({say("The {0} in one stay, cut-outs and all: they hang on their tabs while the {1} works",
                          plan.runs[i].bit.name, plan.runs[k - 1].bit.name),
                      [order = in_one_stay(plan, i, k)](Job& job) { job.run.order = order; }});
    }
  }
}

// Thicknesses that boards are sold in, the thickest first, mm (common practice, no source).
std::vector<double> usual_thicknesses(Unit unit) {
  if (unit != Unit::Inch) return {40, 30, 27, 24, 21, 18, 15, 12, 9, 6};
  std::vector<double> all;
  for (const double inches : {2.0, 1.5, 1.25, 1.0, 0.75, 0.625, 0.5, 0.375, 0.25}) all.push_back(inches * kMmPerInch);
  return all;
}

// What goes through costs a pass for every few millimetres: the next thinner board that still holds every floor.
void add_thinner_board(const Plan& plan, std::vector<Way>& ways) {
  const Blank& blank = plan.job.blank;
  double deepest = 0;
  bool through = false;
  for (const auto& piece : plan.pieces) {
    for (const Operation& op : piece->cuts.operations) {
      const bool goes = op.depth - op.ground >= blank.thinnest();
      through = through || goes;
      if (!goes) deepest = std::max(deepest, op.depth);
    }
  }
  if (!through || ways.size() >= kMostWays || plan.job.made_as_others()) return;
  const double least = deepest + least_skin(wood_class_of(blank));
  for (const double thick : usual_thicknesses(plan.job.lengths.unit)) {
    if (thick > blank.thinnest() - 2 || thick < least) continue;
    ways.push_back({say("A board {0} thick instead of {1}", depth_in_words(thick, plan.job.lengths),
                        depth_in_words(blank.thickest(), plan.job.lengths)),
                    [less = blank.thickest() - thick](Job& job) {
                      for (double& reading : job.blank.readings) reading -= less;
                    }});
    ways.back().another_board = true;
    return;
  }
}

// The whole sign smaller, its depths as they are: the board is another one then.
void add_smaller(const Plan& plan, std::vector<Way>& ways) {
  constexpr double kSmaller = 0.9;
  if (ways.size() >= kMostWays || plan.job.made_as_others()) return;
  const auto side = [&](double mm) { return size_in_words(mm * kSmaller, plan.job.lengths, false); };
  ways.push_back({say("The whole sign at 90 %: a board {0} × {1}", side(plan.job.blank.width),
                      size_in_words(plan.job.blank.height * kSmaller, plan.job.lengths)),
                  [](Job& job) { size_sign(job, kSmaller, false); }});
  ways.back().another_board = true;
}

}  // namespace

std::vector<Way> job_ways(const Plan& plan) {
  std::vector<Way> ways{{say("As it is"), {}}};
  if (!plan.job.run.order.empty())
    ways.push_back({say("The bits in Doyen's own order"), [](Job& job) { job.run.order.clear(); }});
  add_alike(plan, ways);
  add_one_stay(plan, ways);
  std::vector<const BitRun*> runs;
  for (const BitRun& run : plan.runs) runs.push_back(&run);
  std::sort(runs.begin(), runs.end(),
            [](const BitRun* a, const BitRun* b) { return a->time.seconds < b->time.seconds; });
  std::set<BitId> tried;
  for (const BitRun* run : runs) {
    const BitId& bit = run->bit.id;
    std::vector<std::pair<std::string, std::vector<BitId>>> fewer;  // pieces, and the bits that clear them then
    bool can = tried.insert(bit).second;
    for (std::size_t i = 0; i < plan.job.items.size() && can; ++i) {
      const PieceCuts& cuts = plan.pieces[i]->cuts;
      const bool uses = std::any_of(cuts.operations.begin(), cuts.operations.end(),
                                    [&](const Operation& op) { return op.bit == bit; });
      if (!uses) continue;
      std::vector<BitId> rest = cuts.bits;
      std::erase(rest, bit);
      can = rest.size() < cuts.bits.size() && !rest.empty() && plan.job.items[i].cut.bit != bit;
      fewer.emplace_back(plan.job.items[i].piece.id, std::move(rest));
    }
    if (!can || fewer.empty() || ways.size() >= kMostWays) continue;
    ways.push_back({say("Without the {0} anywhere", run->bit.name), [fewer](Job& job) {
                      for (const auto& [id, bits] : fewer) {
                        if (Item* it = job.find(id)) it->cut.clearing = bits;
                      }
                    }});
  }
  add_thinner_board(plan, ways);
  add_smaller(plan, ways);
  if (ways.size() < 2) return {};
  return ways;
}

}  // namespace doyen
