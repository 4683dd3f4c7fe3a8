#include "planning/sums.hpp"

#include <algorithm>

#include "grounds/grounds.hpp"
#include "machine/motion.hpp"
#include "planning/fill.hpp"
#include "planning/trials.hpp"
#include "stock/species.hpp"

namespace doyen {
namespace {

std::string n(double v, int decimals = 3) { return format_number(v, decimals); }

// Bare figures in the job's unit, three decimals of an inch or two of a millimetre.
class Figures {
 public:
  explicit Figures(const LengthStyle& style) : inch_(style.unit == Unit::Inch) {}
  [[nodiscard]] std::string operator()(double mm) const { return inch_ ? n(mm / kMmPerInch, 4) : n(mm, 3); }
  [[nodiscard]] std::string with_unit(double mm) const { return (*this)(mm) + (inch_ ? " in" : " mm"); }

 private:
  bool inch_;
};

const Bit* bit_of(const Plan& plan, const std::string& id) {
  for (const BitRun& run : plan.runs) {
    if (run.bit.id == id) return &run.bit;
  }
  return nullptr;
}

}  // namespace

namespace {

// What depths count from.
std::string side_of(const Item& item) { return item.cut.back ? "the back" : "the face"; }

}  // namespace

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
  sum.title = "How " + f.with_unit(cuts.deepest) + " comes about";
  sum.lines.push_back("widest stroke " + f(widest) + ", half of it " + f(half));
  std::string top = f(half);
  if (bit->tip > 0) {
    sum.lines.push_back("less half the tip flat of " + f(bit->tip) + ": " + f(half - bit->tip / 2));
    top = f(half - bit->tip / 2);
  }
  sum.lines.push_back(top + " ÷ tan(" + n(bit->true_angle(), 2) + "° ÷ 2) = " + top + " ÷ " + n(bit->tan_half(), 4) +
                      " = " + f(closed));
  if (cuts.limit < closed)
    sum.lines.push_back(std::string(cuts.limited_by_body ? "the bit's body allows " : "the floor limit holds it at ") +
                        f(cuts.limit));
  if (cuts.ground > 0) sum.lines.push_back("its ground lies " + f(cuts.ground) + " below " + side_of(*item));
  sum.result = "= " + f.with_unit(cuts.deepest) + " below " + side_of(*item);
  return sum;
}

Sum floor_depth_sum(const Plan& plan, const std::string& id) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr) return {};
  const Figures f(plan.job.lengths);
  Sum sum;
  sum.title = "How deep it lies";
  const Item* ground = plan.job.find(piece->around.ground.of);
  if (piece->cuts.ground > 0)
    sum.lines.push_back("its ground, " +
                        (ground == nullptr ? std::string("as you said") : "the floor of “" + ground->piece.name + "”") +
                        ", lies " + f(piece->cuts.ground) + " below " + side_of(*item));
  if (item->cut.kind == Treatment::Kind::Recess && item->cut.insert.thickness > 0) {
    sum.lines.push_back("insert " + f(item->cut.insert.thickness) + " thick, cover " + f(item->cut.insert.cover));
    sum.lines.push_back("room of " + f(item->cut.insert.clearance) + " all round it");
  } else {
    sum.lines.push_back("and it goes " + f(item->cut.depth) + " below that");
  }
  const Bit* bit = bit_of(plan, item->cut.bit);
  if (item->cut.kind == Treatment::Kind::Bevel && bit != nullptr)
    sum.lines.push_back("width " + f(item->cut.depth) + " × tan(" + n(bit->true_angle(), 2) +
                        "° ÷ 2) = " + f(item->cut.depth * bit->tan_half()));
  if (piece->around.grown != 0)
    sum.lines.push_back("kept " + f(std::abs(piece->around.grown)) + " clear for the bevel on its edge");
  sum.result = "= " + f.with_unit(piece->cuts.deepest) + " below " + side_of(*item);
  return sum;
}

Sum clearing_sum(const Plan& plan, const std::string& id) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr || piece->cuts.floor.empty()) return {};
  const Figures f(plan.job.lengths);
  Sum sum;
  sum.title = item->cut.clearing.empty() ? "Why these bits" : "What these bits reach";
  const double whole = area(piece->cuts.floor);
  for (const std::string& used : piece->cuts.bits) {
    const Bit* bit = bit_of(plan, used);
    if (bit == nullptr) continue;
    const double reach = area(opening(piece->cuts.floor, bit->true_diameter() / 2)) / whole * 100;
    sum.lines.push_back(bit->name + ": passes gaps of " + f(bit->true_diameter()) + ", reaches " + n(reach, 1) + " %");
  }
  if (item->cut.clearing.empty())
    sum.lines.push_back("the largest that clears most, then the largest that reaches nearly what the smallest would");
  sum.result = "floor of " + n(whole / 100, 1) + " cm²";
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
  sum.title = "What each V of the rack would do here";
  // The fairest is the one that goes deepest without passing the wood that may be taken or its own body.
  const Bit* fair = nullptr;
  double fair_depth = 0;
  for (const Bit& bit : rack.bits) {
    if (bit.kind != BitKind::V) continue;
    const double limit = std::min(item->cut.incise.floor_limit.value_or(1e300), bit.body_depth());
    const double open = std::max(0.0, (widest - bit.tip) / 2 / bit.tan_half()), deep = std::min(open, limit);
    const double shallow = std::min(deep, std::max(0.0, (thinnest - bit.tip) / 2 / bit.tan_half()));
    std::string says = f(shallow) + " to " + f(deep) + " deep";
    if (open > limit + 1e-6) {
      const double flat = area(grow(piece->outlines.region, -(limit * bit.tan_half() + bit.tip / 2))) / whole * 100;
      says += ", " + n(flat, 0) + " % ends flat" +
              (limit < item->cut.incise.floor_limit.value_or(1e300) ? " under its body" : "");
    }
    if (deep > wood) says += "; too deep for the wood";
    if (seconds != nullptr && seconds->contains(bit.id)) says += "; takes " + format_duration(seconds->at(bit.id));
    sum.lines.push_back(bit.name + ": " + says);
    if (open <= bit.body_depth() + 1e-6 && deep <= wood && deep > fair_depth) {
      fair = &bit;
      fair_depth = deep;
    }
  }
  sum.result = fair == nullptr ? "none takes these strokes to their full depth"
                               : "deepest that the wood and its body allow: the " + fair->name;
  return sum;
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
  sum.title = "Which strokes end flat";
  sum.lines.push_back("2 × " + f(piece->cuts.limit) + " × tan(" + n(bit->true_angle(), 2) + "° ÷ 2)" +
                      (bit->tip > 0 ? " + tip " + f(bit->tip) : ""));
  sum.lines.push_back("= 2 × " + f(piece->cuts.limit) + " × " + n(bit->tan_half(), 4) +
                      (bit->tip > 0 ? " + " + f(bit->tip) : ""));
  sum.result = "strokes wider than " + f.with_unit(width) + " get a flat floor";
  return sum;
}

Sum through_sum(const Plan& plan, const std::string& id) {
  const Item* item = plan.job.find(id);
  if (item == nullptr) return {};
  const Blank& blank = plan.job.blank;
  const Figures f(plan.job.lengths);
  const double over = item->cut.through.over_cut.value_or(default_over_cut(blank));
  Sum sum;
  sum.title = "How " + f.with_unit(blank.thickest() + over) + " comes about";
  std::string readings;
  for (const double r : blank.readings) readings += (readings.empty() ? "" : ", ") + f(r);
  sum.lines.push_back("thickest of the readings " + readings + ": " + f(blank.thickest()));
  sum.lines.push_back("plus the over-cut of " + f(over));
  sum.result = "= " + f.with_unit(blank.thickest() + over) + " below " + side_of(*item);
  return sum;
}

Sum bed_sum(const Plan& plan, const std::string& id) {
  const Item* item = plan.job.find(id);
  if (item == nullptr) return {};
  const Blank& blank = plan.job.blank;
  const Figures f(plan.job.lengths);
  const double over = item->cut.through.over_cut.value_or(default_over_cut(blank));
  Sum sum;
  sum.title = "How far the bed is marked";
  sum.lines.push_back("over-cut " + f(over) + " + (thickest " + f(blank.thickest()) + " − thinnest " +
                      f(blank.thinnest()) + ")");
  sum.result = "up to " + f.with_unit(over + blank.thickest() - blank.thinnest());
  return sum;
}

Sum time_sum(const Plan& plan) {
  Sum sum;
  sum.title = "How " + format_duration(plan.seconds) + " comes about";
  for (const BitRun& run : plan.runs) sum.lines.push_back(run.bit.name + ": " + format_duration(run.time.seconds));
  if (plan.bit_changes() > 0) {
    sum.lines.push_back(std::to_string(plan.bit_changes()) + " bit change" + (plan.bit_changes() == 1 ? "" : "s") +
                        " × " + format_duration(plan.machine.bit_change_seconds));
  }
  sum.result = "= " + format_duration(plan.seconds) + " at the machine";
  return sum;
}

Sum run_time_sum(const Plan& plan, std::size_t i) {
  if (i >= plan.runs.size()) return {};
  const BitRun& run = plan.runs[i];
  const bool inch = plan.job.lengths.unit == Unit::Inch;
  const double k = inch ? kMmPerInch : 1;
  const std::string speed = inch ? " in/min" : " mm/min";
  Sum sum;
  sum.title = "How " + format_duration(run.time.seconds) + " comes about";
  sum.lines.push_back(n(run.time.length / k / (inch ? 12 : 1000), 1) + (inch ? " ft" : " m") + " in the wood in " +
                      format_duration(run.time.in_wood));
  sum.lines.push_back("asked for " + n(run.feeds.feed / k, 0) + speed + ", reached " +
                      n(run.time.reached_feed() / k, 0) + speed);
  sum.lines.push_back(std::to_string(run.time.lifts) + " lifts, plunges and travel: " +
                      format_duration(run.time.seconds - run.time.in_wood - plan.machine.spin_up_seconds));
  sum.lines.push_back("acceleration " + n(plan.machine.acceleration[0], 0) + " mm/s², corners within " +
                      n(plan.machine.corner_deviation, 3) + " mm");
  sum.result =
      "= " + format_duration(run.time.seconds) + " with " + n(plan.machine.spin_up_seconds, 0) + " s to spin up";
  return sum;
}

Sum chip_sum(const Plan& plan, std::size_t i) {
  if (i >= plan.runs.size()) return {};
  const BitRun& run = plan.runs[i];
  const Figures f(plan.job.lengths);
  Sum sum;
  sum.title = "Chip load";
  sum.lines.push_back("feed ÷ (turns a minute × flutes)");
  sum.lines.push_back(f(run.feeds.feed) + " ÷ (" + n(run.feeds.rpm, 0) + " × " + std::to_string(run.bit.flutes) + ")");
  sum.result = "= " + f.with_unit(chip_load(run.bit, run.feeds)) + " a tooth";
  return sum;
}

Sum run_sum(const Plan& plan, std::size_t run) {
  Sum sum = run_time_sum(plan, run);
  const Sum chip = chip_sum(plan, run);
  sum.lines.push_back(chip.title + ":");
  sum.lines.insert(sum.lines.end(), chip.lines.begin(), chip.lines.end());
  sum.lines.push_back(chip.result);
  return sum;
}

Sum resin_sum(const Plan& plan, const std::string& id, const Cancel& cancel) {
  const ResinFill fill = fill_of(plan, id, cancel);
  Sum sum;
  if (fill.volume <= 0) return sum;
  sum.title = "Resin that fills it level";
  sum.lines.push_back("under its surface, from the carved relief: " + n(fill.volume / 1000, 1) + " ml");
  if (fill.insert > 0) sum.lines.push_back("− the insert " + n(fill.insert / 1000, 1) + " ml");
  sum.lines.push_back("+ " + n(100 * kResinWaste, 0) + " % that stays in cup and brush (common practice): " +
                      n(fill.resin() * kResinWaste / 1000, 1) + " ml");
  sum.result = "= " + n(fill.resin() * (1 + kResinWaste) / 1000, 1) + " ml to mix";
  return sum;
}

Sum weight_sum(const Blank& blank) {
  const Species* s = species_table().find(blank.species);
  if (s == nullptr) return {};
  double mean = 0;
  for (const double r : blank.readings) mean += r / static_cast<double>(blank.readings.size());
  const bool whole = blank.form == BlankForm::Rectangle;
  const double face = whole ? blank.width * blank.height : area(region_of(blank)), litres = face * mean / 1e6;
  Sum sum;
  sum.title = "Weight of the blank";
  sum.lines.push_back(whole ? n(blank.width, 1) + " × " + n(blank.height, 1) + " × " + n(mean, 2) +
                                  " mm = " + n(litres, 2) + " litres"
                            : n(face / 100, 1) + " cm² of face × " + n(mean, 2) + " mm = " + n(litres, 2) + " litres");
  sum.lines.push_back("× " + n(s->density, 0) + " kg/m³ (" + s->source + ")");
  sum.result = "= " + n(litres * s->density / 1000, 2) + " kg";
  return sum;
}

Sum movement_sum(const Blank& blank) {
  const Species* s = species_table().find(blank.species);
  if (s == nullptr) return {};
  const double across = blank.grain == Grain::AlongWidth ? blank.height : blank.width;
  Sum sum;
  sum.title = "Movement across the grain";
  sum.lines.push_back(n(across, 1) + " mm × " + n(s->change_tangential, 5) + " per % (" + s->source + ")");
  sum.lines.push_back("× 4 % of moisture, flat-sawn");
  sum.result = "= " + n(across * s->change_tangential * 4, 2) + " mm";
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
