#include "planning/outputs.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include "json_reading.hpp"
#include "planning/look_round.hpp"
#include "relief/carve.hpp"
#include "run/gcode.hpp"
#include "run/placement.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

GcodeJob::Part part_of(const BitRun& run, int number) {
  GcodeJob::Part part{&run.bit, run.feeds, number, {}, true, {}};
  for (const Operation* op : run.operations) {
    part.passes.push_back(&op->passes);
    part.feed_shares.push_back(op->feed_share);
  }
  return part;
}

Json bit_json(const Bit& bit) {
  return {{"name", bit.id},
          {"title", bit.name},
          {"kind", to_word(bit.kind)},
          {"diameter", bit.true_diameter()},
          {"angle", bit.true_angle()},
          {"tip", bit.tip},
          {"neck", bit.neck},
          {"flutes", bit.flutes},
          {"direction", to_word(bit.direction)}};
}

void carve_section(HeightField& field, const GcodeSection& section, const Bit& bit, const Placement& lies,
                   const Cancel& cancel) {
  std::vector<Pass> passes = section.passes;
  for (Pass& pass : passes) {
    for (Point3& p : pass.points) p = lies.on_board(p);
  }
  carve(field, passes, bit, cancel);
}

}  // namespace

HeightField relief_of(const Plan& plan, const Box& area, double cell, const Cancel& cancel, Side side) {
  HeightField field(area, cell);
  field.clear();
  for (const BitRun& run : plan.runs) {
    if (run.side != side) continue;
    for (const Operation* op : run.operations) carve(field, op->passes, run.bit, cancel);
  }
  return field;
}

namespace {

std::string place_in_words(const Job& job, Side side) {
  const ZeroPlace place = job.run.zero_place;
  if (place == ZeroPlace::Centre) return say("the middle of the blank");
  // Said of the board where it lies as drawn and face up; else of how it lies.
  const bool as_drawn = side == Side::Front && job.run.on_bed == OnBed::AsDrawn;
  switch (place) {
    case ZeroPlace::RightFront:
      return as_drawn ? say("the blank's right front corner") : say("the corner that lies right front on the bed");
    case ZeroPlace::LeftBack:
      return as_drawn ? say("the blank's left back corner") : say("the corner that lies left at the back of the bed");
    case ZeroPlace::RightBack:
      return as_drawn ? say("the blank's right back corner") : say("the corner that lies right at the back of the bed");
    case ZeroPlace::MiddleFront:
      return say("the middle of the edge that lies in front");
    case ZeroPlace::MiddleLeft:
      return say("the middle of the edge that lies left");
    case ZeroPlace::MiddleRight:
      return say("the middle of the edge that lies right");
    case ZeroPlace::MiddleBack:
      return say("the middle of the edge that lies behind");
    case ZeroPlace::Pin: {
      const Point at = zero_lying(job);
      return say("the middle of the turning pin, {0} from the left and {1} from the front edge as the board lies",
                 depth_in_words(at.x, job.lengths), depth_in_words(at.y, job.lengths));
    }
    case ZeroPlace::Centre:
    case ZeroPlace::LeftFront:
      break;
  }
  return as_drawn             ? say("the blank's left front corner")
         : side == Side::Back ? say("the corner that lies left front when it is turned over")
                              : say("the corner that lies left front on the bed");
}

}  // namespace

std::string zero_in_words(const Job& job, Side side) {
  if (job.run.plate > 0) {
    Job without = job;
    without.run.plate = 0;
    const std::string thick = depth_in_words(job.run.plate, job.lengths), on = zero_in_words(without, side);
    return by_paper(job.run) ? say("a slip of paper of {0} on {1}", thick, on)
                             : say("a touch plate of {0} on {1}", thick, on);
  }
  const std::string place = place_in_words(job, side);
  if (job.run.zero_surface == ZeroSurface::Bed)
    return job.run.waste_board > 0 ? say("the waste board under the blank, at {0}", place)
                                   : say("the bed under the blank, at {0}", place);
  if (side == Side::Back) return say("the blank's back, at {0}", place);
  if (job.run.zero_floor > 0)
    return say("the floor that is sunk {0} below the face, x and y at {1}",
               depth_in_words(job.run.zero_floor, job.lengths), place);
  if (job.run.zero_below > 0)
    return say("the board's own face beside what stands above it, {0} below the highest wood, at {1}",
               depth_in_words(job.run.zero_below, job.lengths), place);
  return job.blank.film > 0 ? say("the masking film on the blank's face, at {0}", place)
                            : say("the blank's face, at {0}", place);
}

std::string turning_in_words(const Job& job) {
  return job.run.turn == TurnOver::LeftEdge
             ? say("Turn the board over about its left edge, as a page: what was left lies right, the front stays in "
                   "front.")
             : say("Turn the board over about its front edge, as a calendar: what was in front lies behind, left stays "
                   "left.");
}

std::vector<OutputFile> gcode_files(const Plan& plan) {
  std::vector<OutputFile> files;
  for (std::size_t i = 0; i < plan.runs.size();) {
    const BitRun& first = plan.runs[i];
    const Side side = first.side;
    const Travel travel = travel_of(plan.job, plan.machine, side);
    const bool all = plan.job.run.one_file;
    GcodeJob job{plan.job.name + (all ? "" : ", file " + first.file) + (side == Side::Back ? ", back" : "") +
                     (first.later ? ", after gluing" : ""),
                 zero_in_words(plan.job, side),
                 placement_of(plan.job, plan.machine, side),
                 {},
                 travel};
    MachineProfile machine = plan.machine;
    for (; i < plan.runs.size() && plan.runs[i].file == first.file; ++i)
      job.parts.push_back(part_of(plan.runs[i], static_cast<int>(i) + 1));
    if (job.parts.size() > 1 && machine.bit_change == BitChange::None) machine.bit_change = BitChange::Pause;
    files.push_back({first.file, write_gcode(job, machine)});
  }
  return files;
}

namespace {

Json files_json(const Plan& plan) {
  const Job& job = plan.job;
  const MachineProfile machine = machine_along_board(plan.machine, job.run.on_bed);
  Json files = Json::array();
  for (const BitRun& run : plan.runs) {
    Json operations = Json::array();
    for (const Operation* op : run.operations) {
      Feeds feeds = run.feeds;
      feeds.feed *= op->feed_share;
      const Travel travel = travel_of(job, plan.machine, run.side);
      const RunTime t = run_time(op->passes, feeds, machine, {}, &travel, run.bit.kind);
      operations.push_back({{"piece", op->piece},
                            {"treatment", op->treatment},
                            {"ground", op->ground},
                            {"depth", op->depth},
                            {"seconds", t.seconds},
                            {"lifts", t.lifts},
                            {"length", t.length},
                            {"feedShare", op->feed_share}});
    }
    files.push_back({{"path", run.file},
                     {"side", run.side == Side::Back ? "back" : "front"},
                     {"afterGluing", run.later},
                     {"bit", bit_json(run.bit)},
                     {"seconds", run.time.seconds},
                     {"deepest", run.deepest},
                     {"feed", run.feeds.feed},
                     {"feedReached", run.time.reached_feed()},
                     {"operations", std::move(operations)}});
  }
  return files;
}

Json look_round_names(const Plan& plan) {
  Json names = Json::array();
  for (const OutputFile& file : look_round_files(plan)) names.push_back(file.name);
  return names;
}

Json verdicts_json(const Plan& plan) {
  Json verdicts = Json::array();
  for (const Verdict& v : plan.verdicts) {
    std::string remedy;
    for (const Remedy& r : v.remedies) remedy += (remedy.empty() ? "" : "; or: ") + r.label;
    verdicts.push_back({{"grade", to_word(v.grade)},
                        {"code", v.code},
                        {"piece", v.piece},
                        {"at", {{"x", v.at.x}, {"y", v.at.y}}},
                        {"text", v.text + (v.why.empty() ? "" : " " + v.why)},
                        {"remedy", remedy}});
  }
  return verdicts;
}

}  // namespace

Json plan_json(const Plan& plan) {
  const Job& job = plan.job;
  const Point3 zero = seen_placement_of(job).on_board(Point3{}),
               back_zero = seen_placement_of(job, Side::Back).on_board(Point3{});
  const MachineProfile& m = plan.machine;
  Json out{{"format", "doyen-plan/1"},
           {"job", job.name},
           {"blank", {{"width", job.blank.width}, {"height", job.blank.height}, {"thickness", job.blank.thickest()}}},
           {"zero",
            {{"surface", job.run.zero_surface == ZeroSurface::Bed ? "bed" : "face"},
             {"x", zero.x},
             {"y", zero.y},
             {"z", zero.z}}},
           {"turned", degrees_of(job.run.on_bed)},
           {"xToTheLeft", plan.machine.x_left},
           {"yTowardsYou", plan.machine.y_near},
           {"lookRound", look_round_names(plan)},
           {"turnOver", job.run.turn == TurnOver::LeftEdge ? "leftEdge" : "frontEdge"},
           {"zeroBack", {{"x", back_zero.x}, {"y", back_zero.y}, {"z", back_zero.z}}},
           {"files", files_json(plan)},
           {"machine",
            {{"id", m.id},
             {"rapid", m.rapid},
             {"feedMax", m.feed_most},
             {"acceleration", m.acceleration},
             {"cornerDeviation", m.corner_deviation},
             {"bitChangeSeconds", m.bit_change_seconds}}},
           {"bitChanges", plan.bit_changes()},
           {"seconds", plan.seconds},
           {"verdicts", verdicts_json(plan)}};
  return out;
}

Json plan_json(const Plan& plan, const Json& judge) {
  Json out = plan_json(plan);
  out["judge"] = judge;
  return out;
}

namespace {

// Compares one side's relief as meant with the one that the files leave.
void compare(const HeightField& meant, const HeightField& again, ReadBack& out) {
  for (std::size_t r = 0; r < meant.rows(); ++r) {
    for (std::size_t c = 0; c < meant.columns(); ++c) {
      // A wall that falls a hair to either side of a cell's middle is no difference in the wood: the neighbours decide.
      const double z = again.at(c, r);
      double off = std::abs(z - meant.at(c, r));
      if (off > out.worst && off > 0.02) {
        double low = meant.at(c, r), high = low;
        for (std::size_t rr = r == 0 ? 0 : r - 1; rr <= std::min(r + 1, meant.rows() - 1); ++rr) {
          for (std::size_t cc = c == 0 ? 0 : c - 1; cc <= std::min(c + 1, meant.columns() - 1); ++cc) {
            low = std::min<double>(low, meant.at(cc, rr));
            high = std::max<double>(high, meant.at(cc, rr));
          }
        }
        if (high - low > out.cell) off = std::max({0.0, low - z, z - high});
      }
      if (off > out.worst) {
        out.worst = off;
        out.at = {meant.x_of(c), meant.y_of(r)};
      }
    }
  }
  out.cells += meant.rows() * meant.columns();
}

}  // namespace

ReadBack read_back(const Plan& plan, const std::vector<OutputFile>& files, double cell, const Cancel& cancel) {
  const Box area = plan.job.blank.box();
  ReadBack out;
  out.cell = cell;
  std::size_t run = 0, file = 0;
  while (file < files.size()) {  // side by side; each side's files come together
    if (run >= plan.runs.size()) throw bad_input(say("{0}: there are more files than the plan has.", files[file].name));
    const Side side = plan.runs[run].side;
    const Placement lies = placement_of(plan.job, plan.machine, side);
    HeightField again(area, cell);
    again.clear();
    for (; file < files.size() && run < plan.runs.size() && plan.runs[run].side == side; ++file) {
      const GcodeProgram program = read_gcode(files[file].text, files[file].name, lies.z);
      if (!program.ended) throw bad_input(say("{0}: the file has no end.", files[file].name));
      for (const GcodeSection& section : program.sections) {
        if (run >= plan.runs.size())
          throw bad_input(say("{0}: there are more bits in the files than in the plan.", files[file].name));
        out.rapids_in_wood += section.rapid_in_wood;
        carve_section(again, section, plan.runs[run++].bit, lies, cancel);
      }
    }
    compare(relief_of(plan, area, cell, cancel, side), again, out);
  }
  if (run < plan.runs.size()) throw bad_input(say("There are fewer files than the plan has."));
  return out;
}

namespace {

// As bit_json() writes it.
Bit bit_from(const JsonView& b) {
  Bit bit;
  bit.id = b.text("name");
  const std::string word = b.text("kind");
  const auto kinds = {BitKind::V, BitKind::Flat, BitKind::Ball, BitKind::Taper, BitKind::Keyhole};
  const auto kind = std::find_if(kinds.begin(), kinds.end(), [&](BitKind k) { return word == to_word(k); });
  if (kind == kinds.end()) throw b.wrong("kind", say("v, flat, ball, taper or keyhole was expected"));
  bit.kind = *kind;
  bit.diameter = b.number("diameter", 0.01, 500);
  bit.angle = b.number_or("angle", 0, 0, 179);
  bit.tip = b.number_or("tip", 0, 0, bit.diameter);
  bit.neck = b.number_or("neck", 0, 0, bit.diameter);
  if (bit.kind == BitKind::V && bit.angle <= 0)
    throw b.wrong("angle", say("an included angle above zero was expected"));
  return bit;
}

}  // namespace

HeightField carve_files(const Json& plan, const std::string& where, const std::map<std::string, std::string>& files,
                        double cell, Side side) {
  const JsonView top(plan, where);
  if (top.text("format") != "doyen-plan/1") throw bad_input(say("{0}.format: “doyen-plan/1” was expected.", where));
  const JsonView blank = top.object("blank");
  const JsonView zero = top.object(side == Side::Back && top.has("zeroBack") ? "zeroBack" : "zero");
  Placement lies =
      placement_with_zero({zero.number("x", -1e5, 1e5), zero.number("y", -1e5, 1e5), zero.number_or("z", 0, -1e4, 1e4)},
                          turned_by(top.number_or("turned", 0, 0, 270)));
  lies.x_left = top.flag_or("xToTheLeft", false);
  lies.y_near = top.flag_or("yTowardsYou", false);
  HeightField field({0, 0, blank.number("width", 1, 1e5), blank.number("height", 1, 1e5)}, cell);
  field.clear();
  std::map<std::string, std::size_t> seen;
  std::map<std::string, GcodeProgram> programs;
  std::size_t i = 0;
  for (const Json& entry : top.array("files", 1000)) {
    const JsonView file(entry, where + ".files[" + std::to_string(i++) + "]");
    const std::string path = file.text("path");
    const auto text = files.find(path);
    if (text == files.end()) continue;
    if ((file.text_or("side", "front") == "back") != (side == Side::Back)) {
      ++seen[path];
      continue;
    }
    const Bit bit = bit_from(file.object("bit"));
    auto program = programs.find(path);
    if (program == programs.end()) {
      program = programs.emplace(path, read_gcode(text->second, path, lies.z)).first;
      if (!program->second.ended)
        throw bad_input(say("{0}: the file has no end (M2 or M30); it may be cut off.", path));
      for (const GcodeSection& section : program->second.sections) {
        if (section.rapid_in_wood > 0) throw bad_input(say("{0}: a rapid move goes through the wood.", path));
      }
    }
    const std::size_t section = seen[path]++;
    if (section >= program->second.sections.size())
      throw bad_input(say("{0}: it holds fewer bits than the plan says.", path));
    carve_section(field, program->second.sections[section], bit, lies, {});
  }
  std::set<std::string> in_the_air;
  for (const Json& name : top.has("lookRound") ? top.array("lookRound", 10) : Json::array()) {
    if (name.is_string()) in_the_air.insert(name.get<std::string>());
  }
  for (const auto& [name, text] : files) {
    if (!seen.contains(name) && !in_the_air.contains(name))
      throw bad_input(say("{0} is not one of the files in {1}.", name, where));
  }
  return field;
}

}  // namespace doyen
