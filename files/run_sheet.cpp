#include "files/run_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <set>

#include "files/paper.hpp"
#include "files/png_write.hpp"
#include "holding/screws.hpp"
#include "holding/witness.hpp"
#include "inlay/plugs.hpp"
#include "inlay/steps.hpp"
#include "job/job.hpp"
#include "machine/timings.hpp"
#include "planning/look_round.hpp"
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

// The feeds as the file has them: slower where something asks for that.
std::string feeds_in_words(const Plan& plan, const BitRun& run) {
  const std::string per_minute = plan.job.lengths.unit == Unit::Inch ? " in/min" : " mm/min";
  const double k = plan.job.lengths.unit == Unit::Inch ? kMmPerInch : 1;
  std::map<double, std::set<std::string>, std::greater<>> shares;  // and why
  for (const Operation* op : run.operations) shares[op->feed_share].insert(op->slowed);
  std::string words;
  for (const auto& [share, why] : shares) {
    words += (words.empty() ? "" : ", ") + format_number(run.feeds.feed * share / k, 0) + per_minute;
    if (share < 1 && !why.begin()->empty()) words += " (" + say(*why.begin()) + ")";
  }
  return words;
}

// How far the bit's middle goes, counted from zero as at the machine: what a look round the board is held against.
std::string reach_in_words(const Plan& plan, const BitRun& run) {
  const std::optional<Reach> reach = reach_of(plan, run);
  if (!reach) return {};
  const auto show = [&](double mm) { return depth_in_words(mm, plan.job.lengths); };
  const Box& box = reach->middle;
  return say("Its middle goes in x from {0} to {1}, in y from {2} to {3}, lowest z {4}.", show(box.left),
             show(box.right), show(box.bottom), show(box.top), show(reach->lowest));
}

// The file that goes round the job in the air, before the first bit of a side.
void look_round_step(Sheet& sheet, const Plan& plan, const BitRun* before, const BitRun& run) {
  if (!plan.job.run.look_round || (before != nullptr && before->side == run.side)) return;
  const std::optional<Reach> reach = reach_of(plan, run.side);
  if (!reach) return;
  const auto show = [&](double mm) { return depth_in_words(mm, plan.job.lengths); };
  sheet.y +=
      3 +
      sheet.text(say("First a look round: {0}, no bit in the spindle. It goes round all that the bits take up, "
                     "in x from {1} to {2}, in y from {3} to {4}, at z {5}, in the air with the spindle off. "
                     "Nothing may stand in its way, and it must stay over the board where you expect it.",
                     run.side == Side::Back ? "00-back-look-round.nc" : "00-look-round.nc", show(reach->body.left),
                     show(reach->body.right), show(reach->body.bottom), show(reach->body.top), show(reach->highest)),
                 kEdge + 26, sheet.y, kPageWidth - 2 * kEdge - 26, 10, true, kPlum);
}

// mm: what all the screws of that side may be as wide as.
double narrowest_head(const Plan& plan, const BitRun& run) {
  double least = 1e300;
  for (const ScrewHead& head : screw_heads(plan.job)) {
    const bool here = std::any_of(run.operations.begin(), run.operations.end(),
                                  [&](const Operation* op) { return op->piece == head.piece; });
    if (here) least = std::min(least, head.place.width);
  }
  return least;
}

void said_large(Sheet& sheet, const std::string& words) {
  sheet.y += 4 + sheet.text(words, kEdge, sheet.y, kPageWidth - 2 * kEdge, 11, true, kPlum);
  sheet.need(56);
}

// Which side comes up, when it is another than before.
void side_step(Sheet& sheet, const Plan& plan, const BitRun* before, const BitRun& run) {
  if (!plan.has_back() || (before != nullptr && before->side == run.side)) return;
  const bool first = before == nullptr;
  const std::string words =
      run.side == Side::Back
          ? (first ? say("The back first. Lay the board with its back up: {0}", turning_in_words(plan.job))
                   : say("The back. {0}", turning_in_words(plan.job)))
          : (first ? say("The front first, face up.")
                   : say("The front. Turn the board face up again, about the same edge as before."));
  const std::string zero = zero_in_words(plan.job, run.side);
  const bool same = first || before->bit.id == run.bit.id;
  const std::string anew = same ? say("Set x, y and z anew: zero is {0}.", zero)
                                : say("Set x, y and z anew: zero is {0}. Change the bit, too.", zero);
  said_large(sheet, words + " " + anew + " " +
                        say("Spindle still, machine locked or unplugged, while the board and bits are handled."));
}

// What is done by hand before a run.
void steps_before(Sheet& sheet, const Plan& plan, const BitRun* before, const BitRun& run) {
  side_step(sheet, plan, before, run);
  if (run.later && (before == nullptr || !before->later))
    said_large(sheet, say("Second run: only when the inlays are glued, sawn off and level. The board goes back to its "
                          "place and zero is found again."));
  if (before == nullptr || before->side != run.side) return;
  if (before->screws > 0)
    said_large(sheet, say("Now the screws: spindle still, machine locked or unplugged. Drive one into each of the {0} "
                          "holes, with a head no wider than {1}, as flat as it goes, into the waste board and not into "
                          "the bed below it. They stay until this side is cut.",
                          before->screws, depth_in_words(narrowest_head(plan, *before), plan.job.lengths)));
  const bool same = before->bit.id == run.bit.id;
  sheet.y += 3 + sheet.text(same ? say("The same bit: leave it where it is, and zero with it.")
                            : plan.machine.keeps_length
                                ? say("Change the bit: spindle stopped and still, machine locked or unplugged. Keep x, "
                                      "y and z: this machine's bits sit equally deep.")
                                : say("Change the bit: spindle stopped and still, machine locked or unplugged. Keep x "
                                      "and y; set z again on the same surface."),
                            kEdge + 26, sheet.y, kPageWidth - 2 * kEdge - 26, 9, false, same ? kFaded : kBrick);
}

// The mark that bits are held over, where there is one: made by the first, looked for by the others.
void witness_step(Sheet& sheet, const Plan& plan, const BitRun* before, const BitRun& run) {
  if (run.side != Side::Front || run.screws > 0) return;
  const bool made = std::any_of(run.operations.begin(), run.operations.end(),
                                [](const Operation* op) { return op->kind == Operation::Kind::Mark; });
  const bool changed = before == nullptr || before->bit.id != run.bit.id || before->side != run.side;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const Item& item = plan.job.items[i];
    if (!is_witness(item) || plan.pieces[i]->cuts.holes.empty() || !(made || changed)) continue;
    const Point at = placement_of(plan.job).at_machine(plan.pieces[i]->cuts.holes.front());
    const std::string x = depth_in_words(at.x, plan.job.lengths), y = depth_in_words(at.y, plan.job.lengths);
    sheet.y += 3 + sheet.text(made ? say("It makes the witness mark first, at x {0}, y {1}.", x, y)
                                   : say("With the spindle still, bring its tip down over the witness mark, x {0}, y "
                                         "{1}: where it does not meet it, x and y were lost; set them again there.",
                                         x, y),
                              kEdge + 26, sheet.y, kPageWidth - 2 * kEdge - 26, 10, true, kPlum);
  }
}

// Where this bit goes, on the board as it lies: small, its ways in the wood as lines. Returns how high it is.
double draw_ways(Sheet& sheet, const Plan& plan, const BitRun& run, double left, double top, double most_wide) {
  const Placement lies = placement_of(plan.job, run.side);
  const Box board = plan.job.blank.box();
  Box lying;
  lying.add(lies.at_machine(Point{board.left, board.bottom}));
  lying.add(lies.at_machine(Point{board.right, board.top}));
  constexpr double kMostHigh = 62;
  const double scale = std::min(most_wide / lying.width(), kMostHigh / lying.height());
  const auto place = [&](Point p) { return Point{left + (p.x - lying.left) * scale, top + (lying.top - p.y) * scale}; };
  cairo_t* cr = sheet.cr();
  cairo_set_source_rgb(cr, kLine.r, kLine.g, kLine.b);
  cairo_set_line_width(cr, 0.6);
  cairo_rectangle(cr, left, top, lying.width() * scale, lying.height() * scale);
  cairo_stroke(cr);
  cairo_set_source_rgb(cr, kPlum.r, kPlum.g, kPlum.b);
  cairo_set_line_cap(cr, CAIRO_LINE_CAP_ROUND);
  constexpr double kLeast = 0.5;  // pt: what is nearer to the last point than that is not seen
  for (const Operation* op : run.operations) {
    for (const Pass& pass : op->passes) {
      Point last = place(lies.at_machine(pass.points.front().flat()));
      cairo_move_to(cr, last.x, last.y);
      cairo_line_to(cr, last.x, last.y);  // a hole is a dot
      for (const Point3& p : pass.points) {
        const Point at = place(lies.at_machine(p.flat()));
        if (distance(at, last) < kLeast) continue;
        cairo_line_to(cr, at.x, at.y);
        last = at;
      }
    }
  }
  cairo_stroke(cr);
  return lying.height() * scale;
}

std::string cuts_in_words(CutDirection direction) {
  switch (direction) {
    case CutDirection::UpCut:
      return say("up-cut");
    case CutDirection::DownCut:
      return say("down-cut");
    case CutDirection::Compression:
      return say("compression");
    case CutDirection::Straight:
      break;
  }
  return say("straight flutes");
}

std::string pieces_of(const Plan& plan, const BitRun& run) {
  std::string what;
  std::set<std::string> named;
  for (const Operation* op : run.operations) {
    const Item* item = plan.job.find(op->piece);
    if (item != nullptr && named.insert(item->piece.name).second) what += (what.empty() ? "" : ", ") + item->piece.name;
  }
  return what;
}

// One bit: a box to tick, its number, what it is, its file and figures, and where it goes.
void bit_block(Sheet& sheet, const Plan& plan, const BitRun& run, int number, const double (&columns)[6]) {
  cairo_t* cr = sheet.cr();
  cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
  cairo_set_line_width(cr, 0.9);
  cairo_rectangle(cr, columns[0] + 1, sheet.y + 26, 11, 11);
  cairo_stroke(cr);
  sheet.text(std::to_string(number), columns[0], sheet.y, 24, 16, true);
  const double high = sheet.text(run.bit.name, columns[1], sheet.y, 160, 13, true);
  // A long name is set smaller rather than broken: it is looked for on the machine's screen.
  sheet.text(run.file, columns[2], sheet.y, 138, run.file.size() > 21 ? 9 : run.file.size() > 17 ? 10.5 : 12, true);
  sheet.text(format_duration(run.time.seconds), columns[3], sheet.y, 64, 12);
  sheet.text(depth_in_words(run.deepest, plan.job.lengths), columns[4], sheet.y, 64, 12);
  sheet.text(format_number(run.feeds.rpm, 0) + " /min", columns[5], sheet.y, 80, 12);
  sheet.y += std::max(20.0, high + 2);
  const bool inch = plan.job.lengths.unit == Unit::Inch;
  constexpr double kPicture = 120,
                   kClear = 5;  // pt; mm that a collet stays above the wood (common practice, no source)
  const double words_high =
      sheet.text(say("{0}. Feed {1}, plunge {2}{3}.", pieces_of(plan, run), feeds_in_words(plan, run),
                     format_number(run.feeds.plunge / (inch ? kMmPerInch : 1), 0), inch ? " in/min" : " mm/min") +
                     " " + reach_in_words(plan, run) + " " +
                     say("Cutting edges: {0}; out of the collet at least {1}.", cuts_in_words(run.bit.direction),
                         depth_in_words(run.deepest + kClear, plan.job.lengths)),
                 columns[1], sheet.y, kPageWidth - 2 * kEdge - 26 - kPicture - 14, 9, false, kFaded);
  const double picture_high = draw_ways(sheet, plan, run, kPageWidth - kEdge - kPicture, sheet.y + 2, kPicture);
  sheet.y += std::max({words_high, picture_high + 4, 18.0}) + 9;
}

void bits_table(Sheet& sheet, const Plan& plan) {
  const double columns[] = {kEdge, kEdge + 26, kEdge + 190, kEdge + 326, kEdge + 388, kEdge + 450};
  const std::string heads[] = {"", say("Bit"), say("File"), say("Time"), say("Deepest"), say("Spindle")};
  for (int i = 0; i < 6; ++i) sheet.text(heads[i], columns[i], sheet.y, 120, 9, false, kFaded);
  sheet.y += 15;
  int number = 1;
  const BitRun* before = nullptr;
  for (const BitRun& run : plan.runs) {
    sheet.need(120);
    steps_before(sheet, plan, before, run);
    look_round_step(sheet, plan, before, run);
    witness_step(sheet, plan, before, run);
    sheet.need(92);
    bit_block(sheet, plan, run, number++, columns);
    before = &run;
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
  for (const Item& item : job.items) {
    if (!goes_through(item.cut.kind)) continue;
    if (item.cut.through.taped)
      sheet.paragraph(say("Tape “{0}” down before the run: parts of it come free.", item.piece.name), 11);
    if (item.cut.through.skin > 0)
      sheet.paragraph(say("A skin of about {0} stays under “{1}”: part it with a knife after the run.",
                          show(item.cut.through.skin), item.piece.name),
                      11);
  }
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
