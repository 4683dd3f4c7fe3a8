#include "planning/test_cut.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include "log/lessons.hpp"
#include "log/log_book.hpp"
#include "planning/fitness.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kEdge = 15, kApart = 12;  // mm round the board, and between samples
constexpr double kLong = 40;               // mm, a stroke
constexpr double kCorner = 24;             // mm, from a corner's base to its point

bool tested_by(const Item& item) {
  return (item.cut.kind == Kind::Incise || item.cut.kind == Kind::Raise) && !item.cut.back && !item.cut.bit.empty();
}

// What one bit has to do in a job.
struct Hardest {
  double narrowest = 1e300, widest = 0, gap = 1e300;
  Treatment narrow, wide, tight;  // of the piece where that is
};

std::map<std::pair<Kind, BitId>, Hardest> hardest_in(const Plan& plan, const Cancel& cancel) {
  std::map<std::pair<Kind, BitId>, Hardest> all;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const Item& item = plan.job.items[i];
    const Bit* bit = plan.rack.find(item.cut.bit);
    if (!tested_by(item) || bit == nullptr || !plan.pieces[i]->problem.empty()) continue;
    const Fitness fit = fitness_of(plan.pieces[i]->outlines.region, *bit, {}, plan.machine, cancel);
    if (!(fit.thinnest > 0)) continue;
    Hardest& h = all[{item.cut.kind, item.cut.bit}];
    if (fit.thinnest < h.narrowest) {
      h.narrowest = fit.thinnest;
      h.narrow = item.cut;
    }
    if (fit.widest > h.widest) {
      h.widest = fit.widest;
      h.wide = item.cut;
    }
    if (fit.gap > 0 && fit.gap < h.gap) {
      h.gap = fit.gap;
      h.tight = item.cut;
    }
  }
  return all;
}

Ring rectangle(double left, double bottom, double width, double height) {
  return {{left, bottom}, {left + width, bottom}, {left + width, bottom + height}, {left, bottom + height}};
}

class Samples {
 public:
  explicit Samples(const Job& like) {
    job_.name = say("{0}, test cut", like.name);
    job_.lengths = like.lengths;
    job_.run = like.run;
    job_.run.order.clear();
    job_.run.accepted.clear();
    job_.run.reasons.clear();
    job_.run.keep_zero = KeepZero::Corner;
    job_.run.mill_level.reset();
    job_.blank = like.blank;
    job_.blank.form = BlankForm::Rectangle;
    job_.blank.edge.clear();
    job_.blank.keep_outs.clear();
    job_.blank.margin = 4;
    job_.run.test_of.clear();
  }

  void row(const std::pair<Kind, BitId>& of, const Hardest& h) {
    job_.run.test_of.push_back(of.second);
    // A raised sample stands in a ground sunk round it.
    const double round = of.first == Kind::Raise ? std::max(6.0, h.narrow.margin) : 0;
    x_ = kEdge + round;
    high_ = 0;
    const auto show = [&](double mm) { return depth_in_words(mm, job_.lengths); };
    add(say("Narrowest stroke, {0}", show(h.narrowest)), {rectangle(0, 0, kLong, h.narrowest)}, h.narrow, round);
    add(say("Widest stroke, {0}", show(h.widest)), {rectangle(0, 0, kLong, h.widest)}, h.wide, round);
    add(say("Pointed corner"), {{{0, 0}, {h.widest, 0}, {h.widest / 2, kCorner}}}, h.wide, round);
    if (h.gap < 1e299)
      add(say("Tightest gap, {0}", show(h.gap)),
          {rectangle(0, 0, kLong, h.narrowest), rectangle(0, h.narrowest + h.gap, kLong, h.narrowest)}, h.tight, round);
    y_ += high_ + kApart + round;
    wide_ = std::max(wide_, x_ - kApart);
  }

  Job take() {
    job_.blank.width = std::max(80.0, std::ceil(wide_ + kEdge));
    job_.blank.height = std::max(50.0, std::ceil(y_ - kApart + kEdge));
    return std::move(job_);
  }

 private:
  void add(const std::string& name, const std::vector<Ring>& rings, const Treatment& cut, double round) {
    Outlines art;
    art.region = clean(rings);
    const Box box = bounds(art.region);
    Item item;
    item.piece.id = job_.fresh_id("sample");
    item.piece.name = job_.fresh_name(name);
    item.piece.what = frozen(art, item.piece.name);
    item.piece.at = {x_ + box.width() / 2, y_ + round + box.height() / 2};
    item.cut = cut;
    item.cut.ground.reset();
    item.cut.raise.panel.clear();
    if (round > 0) item.cut.margin = round;
    job_.items.push_back(std::move(item));
    x_ += box.width() + kApart + 2 * round;
    high_ = std::max(high_, box.height() + round);
  }

  Job job_;
  double x_ = kEdge, y_ = kEdge, high_ = 0, wide_ = 0;
};

}  // namespace

std::vector<BitId> untested(const Plan& plan) {
  std::vector<BitId> bits;
  const auto log = known_log();
  for (const BitRun& run : plan.runs) {
    const std::vector<WoodId>& tested = run.bit.tested;
    if (std::find(tested.begin(), tested.end(), plan.job.blank.species) != tested.end()) continue;
    if (came_out_well(*log, run.bit.id, plan.job.blank.species)) continue;
    const bool cuts = std::any_of(plan.job.items.begin(), plan.job.items.end(),
                                  [&](const Item& item) { return tested_by(item) && item.cut.bit == run.bit.id; });
    if (cuts && std::find(bits.begin(), bits.end(), run.bit.id) == bits.end()) bits.push_back(run.bit.id);
  }
  return bits;
}

Job test_cut_job(const Plan& plan, const Cancel& cancel) {
  const auto hardest = hardest_in(plan, cancel);
  if (hardest.empty()) throw bad_input(say("Nothing here is incised or raised, so there is no stroke to test."));
  Samples samples(plan.job);
  for (const auto& [of, h] : hardest) samples.row(of, h);
  return samples.take();
}

bool keep_tested(Rack& rack, const Job& test) {
  bool kept = false;
  for (Bit& bit : rack.bits) {
    const auto& of = test.run.test_of;
    if (std::find(of.begin(), of.end(), bit.id) == of.end()) continue;
    if (std::find(bit.tested.begin(), bit.tested.end(), test.blank.species) != bit.tested.end()) continue;
    bit.tested.push_back(test.blank.species);
    kept = true;
  }
  return kept;
}

}  // namespace doyen
