#include "files/run_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <set>

#include "files/paper.hpp"
#include "files/png_write.hpp"
#include "files/run_sheet_bits.hpp"
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

void draw_board(Sheet& sheet, const Plan& plan, const Picture& board) {
  const Blank& blank = plan.job.blank;
  const double most_wide = kPageWidth - 2 * kEdge - 40, most_high = 175;
  // As it lies on the bed.
  const Placement lies = placement_of(plan.job);
  const bool quarter = lies.turn == OnBed::QuarterLeft || lies.turn == OnBed::QuarterRight;
  const double wide = quarter ? blank.height : blank.width, deep = quarter ? blank.width : blank.height;
  const double scale = std::min(most_wide / wide, most_high / deep);
  const double w = wide * scale, h = deep * scale;
  // Room for the axis where zero lies at the back.
  const double left = kEdge + 34, top = sheet.y + (zero_share(plan.job.run.zero_place).y == 1 ? 40 : 16);
  cairo_t* cr = sheet.cr();
  cairo_save(cr);
  cairo_translate(cr, left + w / 2, top + h / 2);
  cairo_rotate(cr, -degrees_of(lies.turn) * M_PI / 180);
  draw_picture(cr, board, -blank.width * scale / 2, -blank.height * scale / 2, blank.width * scale,
               blank.height * scale);
  cairo_restore(cr);
  cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
  cairo_set_line_width(cr, 0.8);
  cairo_rectangle(cr, left, top, w, h);
  cairo_stroke(cr);
  const auto show = [&](double mm) { return depth_in_words(mm, plan.job.lengths); };
  sheet.text(show(wide), left + w / 2 - 30, top - 15, 200, 10, true);
  sheet.text(show(deep), kEdge - 8, top + h / 2 - 14, 44, 9, true);
  // The zero, as a ring with a cross through it, and which way the axes run.
  const Point share = zero_share(plan.job.run.zero_place);
  const double zx = left + share.x * w, zy = top + (1 - share.y) * h;
  cairo_set_source_rgb(cr, kPlum.r, kPlum.g, kPlum.b);
  cairo_set_line_width(cr, 1.6);
  cairo_new_path(cr);
  cairo_arc(cr, zx, zy, 7, 0, 2 * M_PI);
  cairo_stroke(cr);
  for (const auto& [dx, dy] : {std::pair{30.0, 0.0}, std::pair{0.0, -30.0}}) {
    cairo_move_to(cr, zx - dx / 2.5, zy - dy / 2.5);
    cairo_line_to(cr, zx + dx, zy + dy);
    cairo_stroke(cr);
  }
  // Beside the picture where zero lies at its left front corner.
  const bool at_corner = share.x == 0 && share.y == 0;
  sheet.text("x", zx + 32, at_corner ? zy + 2 : zy - 8, 20, 10, true, kPlum);
  sheet.text("y", at_corner ? zx - 12 : zx - 3, zy - (at_corner ? 40 : 46), 20, 10, true, kPlum);
  sheet.text(say("front: the side you stand at"), left + w / 2 - 60, top + h + 3, 260, 9, false, kFaded);
  sheet.y = top + h + 22;
}

std::vector<std::string> cautions_before() {
  return {
      say("Eyes and ears covered, dust extraction running, no loose sleeves, gloves, hair or cords near the spindle."),
      say("Work held down so that it cannot lift or creep; clamps and screws clear of every cut and of travel."),
      say("Stop within reach. Stay beside the machine; on a first run keep a hand at the stop."),
      say("The machine's own instructions and local rules come first.")};
}

// What is done by hand about parts that come free, or hang by a skin.
void say_through(Sheet& sheet, const Job& job) {
  const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
  for (const Item& item : job.items) {
    if (!goes_through(item.cut.kind)) continue;
    if (item.cut.through.taped)
      sheet.paragraph(say("Tape “{0}” down before the run: parts of it come free.", item.piece.name), 11);
    if (item.cut.through.skin > 0)
      sheet.paragraph(say("A skin of about {0} stays under “{1}”: part it with a knife after the run.",
                          show(item.cut.through.skin), item.piece.name),
                      11);
  }
}

// Where zero is, which way the axes run, and what is set again when.
void say_zero(Sheet& sheet, const Plan& plan) {
  const Job& job = plan.job;
  const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
  sheet.paragraph(plan.has_back()
                      ? say("Zero: {0}; for the back, below. The same for every bit of a side.", zero_in_words(job))
                      : say("Zero: {0}, the same for every bit.", zero_in_words(job)),
                  14, true, kPlum);
  sheet.paragraph(
      (plan.machine.keeps_length
           ? say("x runs to the right, y away from you, z up. Do not move the board between bits; this machine's bits "
                 "sit equally deep, so z is set once.")
           : say("x runs to the right, y away from you, z up. Do not move the board between bits; after each change "
                 "set "
                 "z on this same surface.")) +
          (job.blank.film > 0
               ? " " + say("The film's {0} is allowed for: touch off on top of the film.", show(job.blank.film))
               : std::string()) +
          " " +
          (job.run.plate > 0
               ? say("The touch plate's {0} is taken off by these files: your machine must not do it again. Take the "
                     "plate away before the run.",
                     show(job.run.plate))
               : say("A touch plate's thickness is taken off by you or your machine, not by these files.")),
      10);
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

}  // namespace

std::string run_sheet_pdf(const Plan& plan, const Picture& board, const Judgement& judgement) {
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
  draw_board(sheet, plan, board);
  say_zero(sheet, plan);
  what_it_is_part_of(sheet, plan, show);
  if (!job.run.stops.empty()) sheet.paragraph(say("It lies against: {0}", job.run.stops), 11);
  sheet.paragraph(say("Holding: {0}", job.run.holding), 11);
  if (job.run.made > 0)
    sheet.paragraph(
        say("Made {0} {0|time|times} before. What changes from board to board is its thickness: measure it.",
            job.run.made),
        10);
  say_through(sheet, job);
  sheet.rule();
  sheet.paragraph(say("Before you start"), 12, true, kBrick, 1);
  for (const std::string& caution : cautions_before()) sheet.paragraph("•  " + caution, 9.5, false, kInk, 1);
  sheet.y += 4;
  sheet.rule();
  sheet.paragraph(say("Bits, in this order   ·   in all about {0} with {1} bit {1|change|changes}",
                      format_duration(plan.seconds), plan.bit_changes()),
                  13, true);
  if (!plan.runs.empty())
    sheet.paragraph(likely_in_words(plan.cutting_seconds(), plan.machine.id, plan.seconds - plan.cutting_seconds()), 10,
                    false, kFaded, 3);
  bits_table(sheet, plan);
  sheet.need(60);
  sheet.paragraph(judgement.cut_as_wanted()
                      ? say("The files were read back and carved in the computer: {0}.",
                            judged_in_words(judgement, plan.job.lengths))
                      : say("The files were read back and carved in the computer, and they are {0}.",
                            judged_in_words(judgement, plan.job.lengths)),
                  10, true, judgement.cut_as_wanted() ? kInk : kBrick);
  if (plan.count(Grade::Stop) + plan.count(Grade::Mind) > 0) {
    sheet.need(60);
    sheet.paragraph(say("Warnings"), 12, true, kBrick, 1);
    for (const Verdict& v : plan.verdicts) {
      if (v.grade == Grade::Note) continue;
      sheet.need(34);
      sheet.paragraph((v.grade == Grade::Stop ? say("STOP") : say("Warning")) + "  " + v.text + " " + v.why, 9.5, false,
                      kInk, 2);
    }
  }
  for (const Verdict& v : plan.verdicts) {
    if (v.grade == Grade::Note) sheet.paragraph(v.text + " " + v.why, 9, false, kFaded, 2);
  }
  sheet.need(90);
  sheet.rule();
  sheet.paragraph(say("Notes: what really happened, what to do differently"), 11, true);
  for (int i = 0; i < 4; ++i) {
    sheet.y += 16;
    sheet.rule();
  }
  return sheet.finish();
}

}  // namespace doyen
