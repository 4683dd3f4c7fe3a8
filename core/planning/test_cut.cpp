#include "planning/test_cut.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

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
constexpr double kMostWide = 260;          // mm of plain samples side by side

bool grooves(const Item& item) {
  return (item.cut.kind == Kind::Incise || item.cut.kind == Kind::Raise) && !item.cut.back && !item.cut.bit.empty();
}

// Looks whose sample is plain: a floor, an opening, a part with its tabs, a line, a hole.
bool plainly(const Item& item) {
  switch (item.cut.kind) {
    case Kind::Recess:
    case Kind::Pierce:
    case Kind::CutOut:
    case Kind::Line:
      return !item.cut.back;
    case Kind::Drill:
      return !item.cut.back && !item.cut.drill.screws && !item.cut.drill.witness;
    default:
      return false;
  }
}

// A test ladder is a test itself.
bool is_ladder(const Job& job) {
  return std::any_of(job.items.begin(), job.items.end(),
                     [](const Item& item) { return item.cut.inlay.rung.has_value(); });
}

// The bits by which such a piece is made, all of them.
std::vector<BitId> bits_of(const Item& item, const PieceCuts& cuts) {
  std::vector<BitId> bits;
  for (const Operation& op : cuts.operations) {
    if (op.piece == item.piece.id && std::find(bits.begin(), bits.end(), op.bit) == bits.end()) bits.push_back(op.bit);
  }
  return bits;
}

// Of pieces that are alike in this, one sample is enough: the deepest.
struct Plain {
  double deepest = 0, across = 0;  // mm below the face; of its largest bit
  Treatment cut;
};

std::map<std::pair<Kind, std::vector<BitId>>, Plain> plain_in(const Plan& plan) {
  std::map<std::pair<Kind, std::vector<BitId>>, Plain> all;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const Item& item = plan.job.items[i];
    const PieceCuts& cuts = plan.pieces[i]->cuts;
    if (!plainly(item) || !plan.pieces[i]->problem.empty() || cuts.operations.empty()) continue;
    std::vector<BitId> bits = bits_of(item, cuts);
    Plain& plain = all[{item.cut.kind, bits}];
    if (cuts.deepest < plain.deepest) continue;
    plain.deepest = cuts.deepest;
    plain.cut = item.cut;
    // What Doyen proposed for the piece may not fit its sample by itself.
    if (item.cut.kind == Kind::Recess) plain.cut.clearing = cuts.bits;
    for (const BitId& id : bits) {
      const Bit* bit = plan.rack.find(id);
      if (bit != nullptr) plain.across = std::max(plain.across, bit->true_diameter());
    }
  }
  return all;
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
    if (!grooves(item) || bit == nullptr || !plan.pieces[i]->problem.empty()) continue;
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
    tests(of.second);
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
    end_row(round);
  }

  // One sample each: beside each other while there is room.
  void plain(Kind kind, const std::vector<BitId>& bits, const Plain& how) {
    for (const BitId& bit : bits) tests(bit);
    const auto show = [&](double mm) { return depth_in_words(mm, job_.lengths); };
    const double wide = std::max(16.0, std::ceil(2.2 * how.across));
    if (kind == Kind::CutOut) {
      if (!outline_ || how.deepest > outline_->deepest) outline_ = how;
      return;
    }
    if (x_ + std::max(kLong, 2 * wide) > kMostWide) {
      end_row(0);
      begin_row();
    }
    switch (kind) {
      case Kind::Recess:
        add(say("Floor, {0} deep", show(how.deepest)), {rectangle(0, 0, std::max(kLong, 2 * wide), wide)}, how.cut, 0);
        break;
      case Kind::Pierce:
        add(say("Opening"), {rectangle(0, 0, std::max(30.0, wide), std::max(30.0, wide))}, how.cut, 0);
        break;
      case Kind::Line:
        add(say("Line, {0} deep", show(how.deepest)), {rectangle(0, 0, kLong, wide)}, how.cut, 0);
        break;
      default:
        add(say("Hole, {0} deep", show(how.deepest)), {rectangle(0, 0, wide, wide)}, how.cut, 0);
        break;
    }
  }

  // The rows of grooves are ended; plain samples begin in one of their own.
  void begin_row() {
    x_ = kEdge;
    high_ = 0;
  }
  void end_row(double round) {
    if (high_ <= 0) return;
    y_ += high_ + kApart + round;
    wide_ = std::max(wide_, x_ - kApart);
  }

  Job take() {
    job_.blank.width = std::max(80.0, std::ceil(wide_ + kEdge));
    job_.blank.height = std::max(50.0, std::ceil(y_ - kApart + kEdge));
    if (outline_) cut_all_out(*outline_);
    return std::move(job_);
  }

 private:
  // The test piece itself is cut out as the sign is, with its tabs: all samples lie in it.
  void cut_all_out(const Plain& how) {
    constexpr double kInside = 5;  // mm of the border that stays with it
    const double by = std::ceil(how.across) + kEdge;
    const double wide = job_.blank.width - 2 * kInside, high = job_.blank.height - 2 * kInside;
    for (Item& item : job_.items) item.piece.at = item.piece.at + Point{by, by};
    x_ = by + kInside;
    y_ = by + kInside;
    job_.blank.width += 2 * by;
    job_.blank.height += 2 * by;
    add(say("Cut out, as the sign is"), {rectangle(0, 0, wide, high)}, how.cut, 0);
  }
  void tests(const BitId& bit) {
    std::vector<BitId>& of = job_.run.test_of;
    if (std::find(of.begin(), of.end(), bit) == of.end()) of.push_back(bit);
  }
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
    item.cut.through.tabs.placed.clear();
    if (item.cut.kind == Kind::Drill) item.cut.drill.spacing = 0;
    if (round > 0) item.cut.margin = round;
    job_.items.push_back(std::move(item));
    x_ += box.width() + kApart + 2 * round;
    high_ = std::max(high_, box.height() + round);
  }

  Job job_;
  std::optional<Plain> outline_;
  double x_ = kEdge, y_ = kEdge, high_ = 0, wide_ = 0;
};

}  // namespace

std::vector<BitId> untested(const Plan& plan) {
  std::vector<BitId> bits;
  if (is_ladder(plan.job)) return bits;
  const auto log = known_log();
  for (const BitRun& run : plan.runs) {
    const std::vector<WoodId>& tested = run.bit.tested;
    if (std::find(tested.begin(), tested.end(), plan.job.blank.species) != tested.end()) continue;
    if (came_out_well(*log, run.bit.id, plan.job.blank.species)) continue;
    bool cuts = false;
    for (std::size_t i = 0; i < plan.job.items.size() && !cuts; ++i) {
      const Item& item = plan.job.items[i];
      const std::vector<BitId> by = plainly(item) ? bits_of(item, plan.pieces[i]->cuts) : std::vector<BitId>{};
      cuts = (grooves(item) && item.cut.bit == run.bit.id) || std::find(by.begin(), by.end(), run.bit.id) != by.end();
    }
    if (cuts && std::find(bits.begin(), bits.end(), run.bit.id) == bits.end()) bits.push_back(run.bit.id);
  }
  return bits;
}

Job test_cut_job(const Plan& plan, const Cancel& cancel) {
  const auto hardest = hardest_in(plan, cancel);
  const auto plain = plain_in(plan);
  if (is_ladder(plan.job) || (hardest.empty() && plain.empty()))
    throw bad_input(say("Nothing is cut here that a test could try."));
  Samples samples(plan.job);
  for (const auto& [of, h] : hardest) samples.row(of, h);
  samples.begin_row();
  for (const auto& [of, how] : plain) samples.plain(of.first, of.second, how);
  samples.end_row(0);
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
