#include "planning/sums.hpp"

#include <algorithm>

#include "grounds/grounds.hpp"
#include "machine/motion.hpp"
#include "planning/figures.hpp"
#include "planning/fill.hpp"
#include "planning/trials.hpp"
#include "run/placement.hpp"
#include "stock/species.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace sums {

const Bit* bit_of(const Plan& plan, const std::string& id) {
  for (const BitRun& run : plan.runs) {
    if (run.bit.id == id) return &run.bit;
  }
  return nullptr;
}

// What depths count from.
std::string side_of(const Item& item) { return item.cut.back ? say("the back") : say("the face"); }

}  // namespace sums

using namespace sums;

Sum floor_depth_sum(const Plan& plan, const std::string& id) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr) return {};
  const Figures f(plan.job.lengths);
  Sum sum;
  sum.title = say("How deep it lies");
  sum.page = "why-floors.md";
  const Item* ground = plan.job.find(piece->around.ground.of);
  if (piece->cuts.ground > 0)
    sum.lines.push_back(say("its ground, {0}, lies {1} below {2}",
                            (ground == nullptr ? say("as you said") : say("the floor of “{0}”", ground->piece.name)),
                            f(piece->cuts.ground), side_of(*item)));
  if (item->cut.kind == Treatment::Kind::Recess && item->cut.insert.thickness > 0) {
    sum.lines.push_back(say("insert {0} thick, cover {1}", f(item->cut.insert.thickness), f(item->cut.insert.cover)));
    sum.lines.push_back(say("room of {0} all round it", f(item->cut.insert.clearance)));
  } else {
    sum.lines.push_back(say("and it goes {0} below that", f(item->cut.depth)));
  }
  const Bit* bit = bit_of(plan, item->cut.bit);
  if (item->cut.kind == Treatment::Kind::Bevel && bit != nullptr)
    sum.lines.push_back(say("width {0} × tan({1}° ÷ 2) = {2}", f(item->cut.depth), n(bit->true_angle(), 2),
                            f(item->cut.depth * bit->tan_half())));
  if (piece->around.grown != 0)
    sum.lines.push_back(say("kept {0} clear for the bevel on its edge", f(std::abs(piece->around.grown))));
  sum.result = say("= {0} below {1}", f.with_unit(piece->cuts.deepest), side_of(*item));
  return sum;
}

Sum clearing_sum(const Plan& plan, const std::string& id) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr || piece->cuts.floor.empty()) return {};
  const Figures f(plan.job.lengths);
  Sum sum;
  sum.title = item->cut.clearing.empty() ? say("Why these bits") : say("What these bits reach");
  sum.page = "why-floors.md";
  const double whole = area(piece->cuts.floor);
  for (const std::string& used : piece->cuts.bits) {
    const Bit* bit = bit_of(plan, used);
    if (bit == nullptr) continue;
    const double reach = area(opening(piece->cuts.floor, bit->true_diameter() / 2)) / whole * 100;
    sum.lines.push_back(say("{0}: passes gaps of {1}, reaches {2} %", bit->name, f(bit->true_diameter()), n(reach, 1)));
  }
  if (item->cut.clearing.empty())
    sum.lines.push_back(
        say("the largest that clears most, then the largest that reaches nearly what the smallest would"));
  sum.result = say("floor of {0} cm²", n(whole / 100, 1));
  return sum;
}

Sum time_sum(const Plan& plan) {
  Sum sum;
  sum.title = say("How {0} comes about", format_duration(plan.seconds));
  sum.page = "why-time.md";
  for (const BitRun& run : plan.runs) sum.lines.push_back(run.bit.name + ": " + format_duration(run.time.seconds));
  const int pauses = static_cast<int>(std::max<std::size_t>(plan.runs.size(), 1)) - 1 - plan.bit_changes();
  if (pauses > 0)
    sum.lines.push_back(say("{0} pause{0||s} by hand, for screws or to turn the board × {1}", pauses,
                            format_duration(plan.machine.bit_change_seconds)));
  if (plan.bit_changes() > 0) {
    sum.lines.push_back(
        say("{0} bit change{0||s} × {1}", plan.bit_changes(), format_duration(plan.machine.bit_change_seconds)));
  }
  sum.result = say("= {0} at the machine", format_duration(plan.seconds));
  return sum;
}

double saved_by_feed(const Plan& plan, std::size_t i, double share) {
  const BitRun& run = plan.runs[i];
  const Travel travel = travel_of(plan.job, plan.machine, run.side);
  const auto seconds = [&](double of) {
    std::vector<TimedPasses> work;
    for (const Operation* op : run.operations) {
      work.push_back({&op->passes, run.feeds, run.bit.kind});
      work.back().feeds.feed *= op->feed_share * of;
    }
    return run_time(work, machine_along_board(plan.machine, plan.job.run.on_bed), {}, &travel).seconds;
  };
  return seconds(1) - seconds(share);
}

Sum run_time_sum(const Plan& plan, std::size_t i) {
  if (i >= plan.runs.size()) return {};
  const BitRun& run = plan.runs[i];
  const bool inch = plan.job.lengths.unit == Unit::Inch;
  const double k = inch ? kMmPerInch : 1;
  const std::string speed = inch ? " in/min" : " mm/min";
  Sum sum;
  sum.title = say("How {0} comes about", format_duration(run.time.seconds));
  sum.page = "why-time.md";
  sum.lines.push_back(say("{0}{1} in the wood in {2}", n(run.time.length / k / (inch ? 12 : 1000), 1),
                          (inch ? " ft" : " m"), format_duration(run.time.in_wood)));
  sum.lines.push_back(say("asked for {0}{1}, reached {2}{3}", n(run.feeds.feed / k, 0), speed,
                          n(run.time.reached_feed() / k, 0), speed));
  sum.lines.push_back(say("{0} lifts, plunges and travel: {1}", run.time.lifts,
                          format_duration(run.time.seconds - run.time.in_wood - plan.machine.spin_up_seconds)));
  // What asking for more would gain, before anybody tries it at the machine.
  constexpr double kMore = 1.5;
  const double saved = saved_by_feed(plan, i, kMore);
  const std::string more = n(kMore * run.feeds.feed / k, 0) + speed;
  sum.lines.push_back(saved < 1 ? say("asked for {0} it would take as long: corners and short ways hold it back", more)
                                : say("asked for {0} it would take {1} less", more, format_duration(saved)));
  sum.lines.push_back(say("acceleration {0} mm/s², corners within {1} mm", n(plan.machine.acceleration[0], 0),
                          n(plan.machine.corner_deviation, 3)));
  sum.result =
      say("= {0} with {1} s to spin up", format_duration(run.time.seconds), n(plan.machine.spin_up_seconds, 0));
  return sum;
}

Sum chip_sum(const Plan& plan, std::size_t i) {
  if (i >= plan.runs.size()) return {};
  const BitRun& run = plan.runs[i];
  const Figures f(plan.job.lengths);
  Sum sum;
  sum.title = say("Chip load");
  sum.page = "why-feeds.md";
  sum.lines.push_back(say("feed ÷ (turns a minute × flutes)"));
  sum.lines.push_back(f(run.feeds.feed) + " ÷ (" + n(run.feeds.rpm, 0) + " × " + std::to_string(run.bit.flutes) + ")");
  sum.result = say("= {0} a tooth", f.with_unit(chip_load(run.bit, run.feeds)));
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
  const auto ml = [&](double mm3) { return filling_in_words(mm3, plan.job.lengths); };
  sum.title = say("Resin that fills it level");
  sum.page = "finish.md";
  sum.lines.push_back(say("under its surface, from the carved relief: {0}", ml(fill.volume)));
  if (fill.insert > 0) sum.lines.push_back(say("− the insert {0}", ml(fill.insert)));
  sum.lines.push_back(say("+ {0} % that stays in cup and brush (common practice): {1}", n(100 * kResinWaste, 0),
                          ml(fill.resin() * kResinWaste)));
  sum.result = say("= {0} to mix", ml(fill.resin() * (1 + kResinWaste)));
  return sum;
}

Sum weight_sum(const Blank& blank, const LengthStyle& lengths) {
  const Species* s = species_table().find(blank.species);
  if (s == nullptr) return {};
  double mean = 0;
  for (const double r : blank.readings) mean += r / static_cast<double>(blank.readings.size());
  const bool whole = blank.form == BlankForm::Rectangle;
  const double face = whole ? blank.width * blank.height : area(region_of(blank)), litres = face * mean / 1e6;
  const Figures f(lengths);
  Sum sum;
  sum.title = say("Weight of the blank");
  sum.page = "why-wood.md";
  sum.lines.push_back(whole ? say("{0} × {1} × {2}", f(blank.width), f(blank.height), f.with_unit(mean))
                            : say("{0} of face × {1}", format_area(face, lengths), f.with_unit(mean)));
  sum.lines.push_back(lengths.unit == Unit::Inch
                          ? say("× {0} lb/ft³ ({1})", n(s->density * kPoundsPerFoot, 1), s->source)
                          : say("× {0} kg/m³ ({1})", n(s->density, 0), s->source));
  sum.result = "= " + weight_in_words(litres * s->density / 1000, lengths);
  return sum;
}

Sum movement_sum(const Blank& blank, const LengthStyle& lengths) {
  const Species* s = species_table().find(blank.species);
  if (s == nullptr) return {};
  const double across = blank.grain == Grain::AlongWidth ? blank.height : blank.width;
  const Figures f(lengths);
  Sum sum;
  sum.title = say("Movement across the grain");
  sum.page = "why-wood.md";
  sum.lines.push_back(say("{0} × {1} per % ({2})", f.with_unit(across), n(s->change_tangential, 5), s->source));
  sum.lines.push_back(say("× 4 % of moisture, flat-sawn"));
  sum.result = say("= {0}", f.with_unit(across * s->change_tangential * 4));
  return sum;
}

}  // namespace doyen
