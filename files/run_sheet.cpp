#include "files/run_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <map>
#include <tuple>

#include "files/paper.hpp"
#include "files/png_write.hpp"
#include "files/run_sheet_bits.hpp"
#include "files/run_sheet_board.hpp"
#include "files/run_sheet_finish.hpp"
#include "holding/screws.hpp"
#include "inlay/plugs.hpp"
#include "inlay/steps.hpp"
#include "job/job.hpp"
#include "machine/timings.hpp"
#include "planning/sums.hpp"
#include "run/gcode.hpp"
#include "stock/species.hpp"
#include "storage/atomic_file.hpp"
#include "treatments/look.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Sheet = Paper;

std::vector<std::string> cautions_before() {
  return {
      say("Eyes and ears covered, dust extraction running, no loose sleeves, gloves, hair or cords near the spindle."),
      say("Work held down so that it cannot lift or creep; clamps and screws clear of every cut and of travel."),
      say("Stop within reach. Stay beside the machine; on a first run keep a hand at the stop."),
      say("The machine's own instructions and local rules come first.")};
}

// Such as “left and front”; empty where they run off none.
std::string sides_that_cuts_run_off(const RunsOff& off) {
  std::vector<std::string> sides;
  if (off.left) sides.push_back(say("left edge"));
  if (off.right) sides.push_back(say("right edge"));
  if (off.front) sides.push_back(say("front edge"));
  if (off.back) sides.push_back(say("back edge"));
  std::string words;
  for (std::size_t i = 0; i < sides.size(); ++i)
    words += (i == 0 ? "" : i + 1 == sides.size() ? say(" and ") : ", ") + sides[i];
  return words;
}

// A few of the names, quoted.
std::string some_of(const std::vector<std::string>& names) {
  constexpr std::size_t kNamed = 4;
  std::string words;
  for (std::size_t i = 0; i < std::min(kNamed, names.size()); ++i) words += (i > 0 ? ", “" : "“") + names[i] + "”";
  return names.size() > kNamed ? words + say(" and {0} more", names.size() - kNamed) : words;
}

// What is done by hand about parts that come free, or hang by tabs or a skin; said once for all that are alike.
void say_through(Sheet& sheet, const Plan& plan) {
  const Job& job = plan.job;
  const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
  using Tabbed = std::tuple<std::size_t, double, double>;
  std::map<Tabbed, std::vector<std::string>> tabbed;
  std::map<double, std::vector<std::string>> skinned;
  std::vector<std::string> taped;
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    const Item& item = job.items[i];
    if (!goes_through(item.cut.kind)) continue;
    const PieceCuts& cuts = plan.pieces[i]->cuts;
    const ThroughChoices& through = item.cut.through;
    if (cuts.cut_out && !cuts.cut_out->tabs.empty())
      tabbed[{cuts.cut_out->tabs.size(), through.tabs.length, through.tabs.height}].push_back(item.piece.name);
    if (through.skin > 0) skinned[through.skin].push_back(item.piece.name);
    if (through.taped) taped.push_back(item.piece.name);
  }
  for (const auto& [tabs, names] : tabbed)
    sheet.paragraph(
        say("{0} {1|hangs|hang each} by {2} {2|tab|tabs}, {3} long and {4} high at the underside. With the "
            "board off the bed: saw or chisel through each from the back, away from you and from the kept "
            "side, then pare and sand it flush.",
            some_of(names), names.size(), std::get<0>(tabs), show(std::get<1>(tabs)), show(std::get<2>(tabs))),
        11);
  if (!taped.empty()) sheet.paragraph(say("Tape {0} down before the run: parts of it come free.", some_of(taped)), 11);
  for (const auto& [skin, names] : skinned)
    sheet.paragraph(
        say("A skin of about {0} stays under {1}: part it with a knife after the run.", show(skin), some_of(names)),
        11);
}

// Warnings, then notes, each kind once where there are many of it.
void say_verdicts(Sheet& sheet, const Plan& plan) {
  if (plan.count(Grade::Stop) + plan.count(Grade::Mind) > 0) {
    sheet.need(60);
    sheet.paragraph(say("Warnings"), 12, true, kBrick, 1);
  }
  constexpr std::size_t kEach = 3;  // so many of a kind are said in full
  std::map<std::pair<Grade, std::string>, std::vector<const Verdict*>> kinds;
  std::vector<std::vector<const Verdict*>*> order;
  for (const Verdict& v : plan.verdicts) {
    auto& kind = kinds[{v.grade, v.code}];
    if (kind.empty()) order.push_back(&kind);
    kind.push_back(&v);
  }
  for (const auto* kind : order) {
    for (std::size_t i = 0; i < std::min(kEach, kind->size()); ++i) {
      const Verdict& v = *(*kind)[i];
      if (v.grade == Grade::Note) {
        sheet.paragraph(v.text + " " + v.why, 10, false, kFaded, 2);
        continue;
      }
      sheet.need(34);
      sheet.paragraph((v.grade == Grade::Stop ? say("STOP") : say("Warning")) + "  " + v.text + " " + v.why, 10.5,
                      false, kInk, 2);
    }
    std::vector<std::string> names;
    for (std::size_t i = kEach; i < kind->size(); ++i) {
      const Item* item = plan.job.find((*kind)[i]->piece);
      if (item != nullptr) names.push_back(item->piece.name);
    }
    if (names.empty()) continue;
    sheet.paragraph(say("The same of {0}.", some_of(names)), 10, false,
                    kind->front()->grade == Grade::Note ? kFaded : kInk, 2);
  }
}

std::string axes_in_words(const MachineProfile& machine) {
  if (!machine.x_left && !machine.y_near) return say("x runs to the right, y away from you, z up.");
  if (machine.x_left && machine.y_near) return say("x runs to the left, y towards you, z up.");
  return machine.x_left ? say("x runs to the left, y away from you, z up.")
                        : say("x runs to the right, y towards you, z up.");
}

// Where zero is, which way the axes run, and what is set again when.
void say_zero(Sheet& sheet, const Plan& plan) {
  const Job& job = plan.job;
  const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
  sheet.paragraph(plan.has_back()
                      ? say("Zero: {0}; for the back, below. The same for every bit of a side.", zero_in_words(job))
                      : say("Zero: {0}, the same for every bit.", zero_in_words(job)),
                  14, true, kPlum);
  if (job.run.zero_surface == ZeroSurface::Bed)
    sheet.paragraph(
        say("The bed can only be touched where the blank does not lie: set z beside it, on the same board or "
            "sheet that it lies on, never on a lower table or a clamp; x and y at the blank."),
        11);
  sheet.paragraph(
      axes_in_words(plan.machine) + " " +
          (plan.machine.keeps_length
               ? say("Do not move the board between bits; this machine's bits sit equally deep, so "
                     "z is set once.")
               : say("Do not move the board between bits; after each change set z on this same "
                     "surface.")) +
          (job.blank.film > 0 && job.run.zero_floor <= 0
               ? " " + say("The film's {0} is allowed for: touch off on top of the film.", show(job.blank.film))
               : std::string()) +
          " " +
          (by_paper(job.run)
               ? say("Lay the slip of paper under the bit and bring it down until the paper is just held; its {0} is "
                     "taken off by these files.",
                     show(job.run.plate))
           : job.run.plate > 0
               ? say("The touch plate's {0} is taken off by these files: your machine must not do it again. Take the "
                     "plate away before the run.",
                     show(job.run.plate))
           : plan.machine.takes_off_plate
               ? say("A touch plate's thickness is taken off by your machine, not by these files.")
           : plan.machine.plate > 0
               ? say("Your touch plate's {0} is not taken off by these files: take it off by hand.",
                     show(plan.machine.plate))
               : say("A touch plate's thickness is taken off by you or your machine, not by these files.")),
      11);
}

// A plug as it lies on its board, and as it comes to lie in its pocket: mirrored, side by side.
void draw_mirrored(Sheet& sheet, const Plan& plan) {
  Region art;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    if (plan.job.items[i].cut.kind != Treatment::Kind::Plug || !plan.pieces[i]->problem.empty()) continue;
    art = plan.pieces[i]->outlines.region;
    break;
  }
  if (art.empty()) return;
  const Box box = bounds(art);
  const double wide = 120, high = 60, scale = std::min(wide / box.width(), high / box.height());
  sheet.need(high + 30);
  cairo_t* cr = sheet.cr();
  const auto draw = [&](double left, bool mirrored, const std::string& words) {
    cairo_new_path(cr);
    for (const Island& island : art.islands) {
      for (const Ring& ring : island.rings) {
        for (std::size_t k = 0; k < ring.size(); ++k) {
          const double x = mirrored ? box.right - ring[k].x : ring[k].x - box.left;
          const double px = left + x * scale, py = sheet.y + (box.top - ring[k].y) * scale;
          k == 0 ? cairo_move_to(cr, px, py) : cairo_line_to(cr, px, py);
        }
        cairo_close_path(cr);
      }
    }
    cairo_set_fill_rule(cr, CAIRO_FILL_RULE_EVEN_ODD);
    cairo_set_source_rgb(cr, kLine.r, kLine.g, kLine.b);
    cairo_fill_preserve(cr);
    cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
    cairo_set_line_width(cr, 0.8);
    cairo_stroke(cr);
    sheet.text(words, left, sheet.y + box.height() * scale + 4, 190, 9, false, kFaded);
  };
  draw(kEdge, false, say("as it lies on this board"));
  draw(kEdge + 200, true, say("as it lies in its pocket, turned over"));
  sheet.y += box.height() * scale + 22;
}

// Inlays, plugs, inserts, resin: what belongs to it, and in which order it is put together.
template <typename Show>
void what_it_is_part_of(Sheet& sheet, const Plan& plan, const Show& show) {
  const Job& job = plan.job;
  bool plugs = false;
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::Plug && !plugs) {
      plugs = true;
      sheet.paragraph(
          say("This board holds plugs. They lie mirrored, as they must: each is turned over into its pocket in the "
              "other board. Saw them apart within their sunk background before gluing."),
          11, true);
      draw_mirrored(sheet, plan);
    }
    if (item.cut.kind == Treatment::Kind::Plug)
      sheet.paragraph(
          say("“{0}” should stop {1} above the other board's face.", item.piece.name, show(item.cut.inlay.saw_gap)),
          10);
    if (item.cut.kind == Treatment::Kind::Recess && item.cut.insert.cut && item.cut.insert.thickness > 0)
      sheet.paragraph(say("“{0}” takes an insert of {1}, {2} thick, that is cut from a sheet of its own.",
                          item.piece.name, item.cut.insert.material, show(item.cut.insert.thickness)),
                      10);
    if (item.cut.resin && look_of(item.cut.kind).resin) {
      const Sum sum = resin_sum(plan, item.piece.id);
      if (!sum.result.empty())
        sheet.paragraph(say("“{0}” is filled with resin: {1}. Seal the wood first. Gloves and moving air; the resin's "
                            "own sheet comes first.",
                            item.piece.name, sum.result.substr(sum.result.find(' ') + 1)),
                        10);
    }
  }
  const std::vector<InlayStep> steps = inlay_steps(plan);
  if (steps.empty()) return;
  sheet.need(120);
  sheet.paragraph(say("From two boards to one"), 12, true, kPlum, 1);
  int number = 1;
  for (const InlayStep& step : steps) {
    sheet.need(44);
    sheet.paragraph(std::to_string(number++) + ".  " + step.board + ".  " + step.words, 10, false, kInk, 1);
    if (!step.caution.empty()) sheet.paragraph(step.caution, 9, false, kBrick, 3);
  }
}

// Ruled lines as far as the page goes, three or more; a last page of its own is ruled whole.
void lines_for_notes(Sheet& sheet) {
  constexpr double kApart = 23;  // pt: a hand's writing (with its rule)
  sheet.need(30 + 3 * kApart);
  sheet.rule();
  sheet.paragraph(say("Notes: what really happened, what to do differently"), 11, true);
  while (sheet.y + kApart < kPageHeight - kEdge) {
    sheet.y += kApart - 7;
    sheet.rule();
  }
}

}  // namespace

std::string run_sheet_pdf(const Plan& plan, const Picture& board, const Judgement& judgement, const Picture* back) {
  const Job& job = plan.job;
  const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
  Sheet sheet;
  sheet.paragraph(job.name, 22, true);
  const Species* species = species_table().find(job.blank.species);
  std::string readings;
  for (const double r : job.blank.readings)
    readings += (readings.empty() ? "" : ", ") + format_length(r, job.lengths, false);
  const std::string wood = species == nullptr ? std::string(job.blank.species) : species->name;
  readings += std::string(" ") + unit_name(job.lengths.unit);
  sheet.paragraph(job.blank.grain == Grain::AlongWidth
                      ? say("{0}, {1} × {2}, thickness read as {3}. Grain runs left to right.", wood,
                            show(job.blank.width), show(job.blank.height), readings)
                      : say("{0}, {1} × {2}, thickness read as {3}. Grain runs front to back.", wood,
                            show(job.blank.width), show(job.blank.height), readings),
                  11);
  if (plan.has_stop()) {
    sheet.paragraph(
        say("STOP: written although something would spoil wood, break a bit or be unsafe. Read the list at the end."),
        13, true, kBrick);
  }
  if (const std::string lying = lying_in_words(job.run.on_bed); !lying.empty())
    sheet.paragraph(say("The board lies on the bed {0}.", lying), 13, true, kPlum);
  draw_board(sheet, plan, board, 175);
  say_zero(sheet, plan);
  what_it_is_part_of(sheet, plan, show);
  draw_bed(sheet, plan, board);
  if (!job.run.stops.empty()) sheet.paragraph(say("It lies against: {0}", job.run.stops), 11);
  sheet.paragraph(say("Holding: {0}", job.run.holding), 11);
  if (job.run.made > 0)
    sheet.paragraph(
        say("Made {0} {0|time|times} before. What changes from board to board is its thickness: measure it.",
            job.run.made),
        11);
  say_through(sheet, plan);
  sheet.rule();
  sheet.paragraph(say("Before you start"), 12, true, kBrick, 1);
  for (const std::string& caution : cautions_before()) sheet.paragraph("•  " + caution, 11, false, kInk, 1);
  const std::string sides = sides_that_cuts_run_off(plan.job.blank.runs_off);
  if (!sides.empty())
    sheet.paragraph(
        "•  " + say("Bits run off the board at its {0}: no clamp, stop or hand there, and nothing in the way "
                    "for a bit's width beyond.",
                    sides),
        11, true, kBrick, 1);
  sheet.y += 4;
  sheet.need(150);  // the table's heading does not stand alone at a page's foot
  sheet.rule();
  sheet.paragraph(say("Bits, in this order   ·   in all about {0} with {1} bit {1|change|changes}",
                      format_duration(plan.seconds), plan.bit_changes()),
                  13, true);
  if (!plan.runs.empty())
    sheet.paragraph(likely_in_words(plan.cutting_seconds(), plan.machine.id, plan.seconds - plan.cutting_seconds()), 10,
                    false, kFaded, 3);
  bits_table(sheet, plan, board, back);
  sheet.need(60);
  sheet.paragraph(judgement.cut_as_wanted()
                      ? say("The files were read back and carved in the computer: {0}.",
                            judged_in_words(judgement, plan.job.lengths))
                      : say("The files were read back and carved in the computer, and they are {0}.",
                            judged_in_words(judgement, plan.job.lengths)),
                  11, true, judgement.cut_as_wanted() ? kInk : kBrick);
  say_verdicts(sheet, plan);
  finish_steps(sheet, plan);
  lines_for_notes(sheet);
  return sheet.finish();
}

}  // namespace doyen
