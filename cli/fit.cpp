// fit: the proof that inlays close, from the G-code of both halves.
#include "inlay/fit.hpp"

#include <cstdio>

#include "cli/command.hpp"
#include "inlay/plugs.hpp"
#include "inlay/schools.hpp"
#include "measure/length.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct FitOptions {
  std::string job, plugs, cell = "0.1mm", pocket_zero = "0", plug_zero = "0", tip;
  double angle = 0, tilt = 0;
  bool forgives = false, ways = false;
};

double signed_length(const std::string& text) {
  return text.starts_with('-') ? -parse_length(text.substr(1), Unit::Millimetre) : parse_length(text, Unit::Millimetre);
}

void say_what_it_forgives(const Halves& halves, double cell, const LengthStyle& lengths) {
  const auto show = [&](double mm) { return depth_in_words(mm, lengths); };
  for (const Forgiven& row : what_it_forgives(halves, cell, lengths.unit)) {
    const std::string lies =
        std::abs(row.rides_up) < 0.005
            ? "lies as meant"
            : (row.rides_up > 0 ? "lies " + show(row.rides_up) + " higher" : "goes " + show(-row.rides_up) + " deeper");
    std::printf("  %s: %s; open line %s; glue gap %s\n", fault_in_words(row.fault, lengths).c_str(), lies.c_str(),
                show(row.open_line).c_str(), show(row.glue_gap).c_str());
  }
}

void say_ways(const Job& job, const std::string& piece, const Rack& rack) {
  for (const InlayWay& way : ways_to_inlay(job, piece, rack)) {
    if (!way.problem.empty())
      std::printf("  %s: %s\n", way.name.c_str(), way.problem.c_str());
    else
      std::printf("  %s: %s, %d bit changes; lost %s mm²; exact %s; %s\n", way.name.c_str(),
                  format_duration(way.seconds).c_str(), way.bit_changes, format_number(way.lost, 1).c_str(),
                  way.exact.c_str(), way.snaps.c_str());
  }
}

// The proof that an inlay closes, piece by piece, from the G-code of both halves.
int run_fit(const FitOptions& options) {
  const Job job = load_job(options.job);
  const Rack rack = load_rack();
  const double cell = cell_of(options.cell);
  WhatIf what_if;
  what_if.pocket_zero = signed_length(options.pocket_zero);
  what_if.plug_zero = signed_length(options.plug_zero);
  what_if.angle = options.angle;
  if (!options.tip.empty()) what_if.tip = parse_length(options.tip, Unit::Millimetre);
  what_if.tilt = options.tilt;
  const Plan pocket = plan(job, rack, machine_for(job));
  bool any = false, closes = true;
  std::vector<FurtherBoard> boards = plug_boards(job);
  if (!options.plugs.empty()) {  // the halves as they are kept in another job file
    const Job kept = load_job(options.plugs);
    for (FurtherBoard& board : boards) {
      for (const PlugPlace& place : board.places) {
        if (kept.find(place.piece) != nullptr) board.job = kept;
      }
    }
  }
  for (const FurtherBoard& board : boards) {
    const Plan plugs = plan(board.job, rack, machine_for(board.job));
    for (const PlugPlace& place : board.places) {
      const Halves halves = halves_of(pocket, plugs, place);
      const Fit fit = mate(halves, cell, what_if);
      const Face face = face_after(fit, 0);
      const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
      std::printf("%s: rides up %s at %s, %s; glue gap %s; saw gap %s; widest open line %s\n",
                  job.find(place.piece)->piece.name.c_str(), show(fit.rides_up).c_str(), show(fit.binds_at.x).c_str(),
                  show(fit.binds_at.y).c_str(), show(fit.glue_gap).c_str(), show(fit.saw_gap).c_str(),
                  show(face.widest_gap).c_str());
      for (const FitPlace& at : binding_places(fit))
        std::printf("  binds by %s at %s, %s\n", show(at.mm).c_str(), show(at.at.x).c_str(), show(at.at.y).c_str());
      for (const FitPlace& at : face.open)
        std::printf("  open by %s at %s, %s\n", show(at.mm).c_str(), show(at.at.x).c_str(), show(at.at.y).c_str());
      if (options.forgives) say_what_it_forgives(halves, cell, job.lengths);
      if (options.ways) say_ways(job, place.piece, rack);
      any = true;
      closes = closes && fit.rides_up < 0.03;
    }
  }
  if (!any) throw bad_input(options.job + ": there is no inlay in it.");
  return closes ? kFine : kStop;
}

}  // namespace

Command fit_command() {
  return {"fit", "Mate every inlay's pocket and plug, and say how they close", [](Arguments& a) {
            auto o = std::make_shared<FitOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--plugs", o->plugs, "The plugs' board as another job file has it");
            a.text("--cell", o->cell, "Cell size, such as 0.1mm");
            a.text("--pocket-zero", o->pocket_zero, "How much too high the pocket's zero was set, such as 0.1mm");
            a.text("--plug-zero", o->plug_zero, "The same for the plug's board");
            a.number("--angle", o->angle, -20, 20, "Degrees that the bit is blunter than it was measured");
            a.text("--tip", o->tip, "Another tip flat, such as 0.2mm");
            a.number("--tilt", o->tilt, -10, 10, "Degrees that the spindle leans to the right");
            a.flag("--forgives", o->forgives, "Try the usual faults one by one");
            a.flag("--ways", o->ways, "Lay the ways to make it side by side");
            return [o] { return run_fit(*o); };
          }};
}

}  // namespace doyen::cli
