#include "files/run_sheet_bits.hpp"

#include <algorithm>
#include <map>
#include <set>

#include "files/run_sheet_board.hpp"
#include "holding/screws.hpp"
#include "holding/turning_pins.hpp"
#include "holding/witness.hpp"
#include "planning/file_names.hpp"
#include "planning/look_round.hpp"
#include "run/placement.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

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
void look_round_step(Paper& sheet, const Plan& plan, const BitRun* before, const BitRun& run) {
  if (!plan.job.run.look_round || (before != nullptr && before->side == run.side)) return;
  const std::optional<Reach> reach = reach_of(plan, run.side);
  if (!reach) return;
  const auto show = [&](double mm) { return depth_in_words(mm, plan.job.lengths); };
  sheet.y +=
      3 +
      sheet.text(say("First a look round: {0}, no bit in the spindle. It goes round all that the bits take up, "
                     "in x from {1} to {2}, in y from {3} to {4}, at z {5}, in the air with the spindle off. "
                     "Nothing may stand in its way, and it must stay over the board where you expect it.",
                     look_round_name(plan.job.name, run.side, plan.machine.file_ending), show(reach->body.left),
                     show(reach->body.right), show(reach->body.bottom), show(reach->body.top), show(reach->highest)),
                 kEdge + 26, sheet.y, kPageWidth - 2 * kEdge - 26, 11, true, kPlum);
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

void said_large(Paper& sheet, const std::string& words) {
  sheet.y += 4 + sheet.text(words, kEdge, sheet.y, kPageWidth - 2 * kEdge, 11, true, kPlum);
  sheet.need(56);
}

struct Sides {
  const Picture& front;
  const Picture* back;
};

// Which side comes up, when it is another than before.
void side_step(Paper& sheet, const Plan& plan, const BitRun* before, const BitRun& run, const Sides& sides) {
  if (!plan.has_back() || (before != nullptr && before->side == run.side)) return;
  const bool first = before == nullptr;
  const std::string words =
      run.side == Side::Back
          ? (first ? say("The back first. Lay the board with its back up: {0}", turning_in_words(plan.job))
                   : say("The back. {0}", turning_in_words(plan.job)))
          : (first ? say("The front first, face up.")
                   : say("The front. Turn the board face up again, about the same edge as before."));
  // Pictured when the back comes up, which is turned to from the front, and when the front does after it.
  const bool turned = run.side == Side::Back || !first;
  if (turned && sides.back != nullptr) {
    sheet.need(190);
    draw_turning(sheet, plan, sides.front, *sides.back, run.side == Side::Back ? Side::Front : Side::Back);
  }
  const std::string zero = zero_in_words(plan.job, run.side);
  const bool pinned = !first && std::any_of(plan.job.items.begin(), plan.job.items.end(), is_turning_pin);
  const bool same = first || before->bit.id == run.bit.id;
  const std::string anew =
      pinned
          ? say("First a pin into each of its two holes, down into the waste board, and the turned board over them: x "
                "and y are where they were. Set z anew: zero is {0}.{1}",
                zero, same ? "" : " " + say("Change the bit, too."))
      : same ? say("Set x, y and z anew: zero is {0}.", zero)
             : say("Set x, y and z anew: zero is {0}. Change the bit, too.", zero);
  said_large(sheet, words + " " + anew + " " +
                        say("Spindle still, machine locked or unplugged, while the board and bits are handled."));
  if (run.side == Side::Back && sides.back != nullptr) {
    sheet.need(150);
    draw_board(sheet, plan, *sides.back, 110);
  }
}

// What is done by hand before a run.
void steps_before(Paper& sheet, const Plan& plan, const BitRun* before, const BitRun& run, const Sides& sides) {
  side_step(sheet, plan, before, run, sides);
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
                            kEdge + 26, sheet.y, kPageWidth - 2 * kEdge - 26, 10.5, false, same ? kFaded : kBrick);
}

// The mark that bits are held over, where there is one: made by the first, looked for by the others.
void witness_step(Paper& sheet, const Plan& plan, const BitRun* before, const BitRun& run) {
  if (run.side != Side::Front || run.screws > 0) return;
  const bool made = std::any_of(run.operations.begin(), run.operations.end(),
                                [](const Operation* op) { return op->kind == Operation::Kind::Mark; });
  const bool stands = std::any_of(plan.runs.data(), &run, [](const BitRun& earlier) {
    return std::any_of(earlier.operations.begin(), earlier.operations.end(),
                       [](const Operation* op) { return op->kind == Operation::Kind::Mark; });
  });
  const bool changed = before == nullptr || before->bit.id != run.bit.id || before->side != run.side;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const Item& item = plan.job.items[i];
    if (!is_witness(item) || plan.pieces[i]->cuts.holes.empty() || !(made || (stands && changed))) continue;
    const Point at = placement_of(plan.job, plan.machine).at_machine(plan.pieces[i]->cuts.holes.front());
    const std::string x = depth_in_words(at.x, plan.job.lengths), y = depth_in_words(at.y, plan.job.lengths);
    sheet.y += 3 + sheet.text(made ? say("It makes the witness mark first, at x {0}, y {1}.", x, y)
                                   : say("With the spindle still, bring its tip down over the witness mark, x {0}, y "
                                         "{1}: where it does not meet it, x and y were lost; set them again there.",
                                         x, y),
                              kEdge + 26, sheet.y, kPageWidth - 2 * kEdge - 26, 11, true, kPlum);
  }
}

// Where this bit goes, on the board as it lies: small, its ways in the wood as lines. Returns how high it is.
double draw_ways(Paper& sheet, const Plan& plan, const BitRun& run, double left, double top, double most_wide) {
  const Placement lies = seen_placement_of(plan.job, run.side);
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
  constexpr std::size_t kNamed = 8;
  std::string what;
  std::set<std::string> named;
  for (const Operation* op : run.operations) {
    const Item* item = plan.job.find(op->piece);
    if (item == nullptr || !named.insert(item->piece.name).second || named.size() > kNamed) continue;
    what += (what.empty() ? "" : ", ") + item->piece.name;
  }
  return named.size() > kNamed ? what + say(" and {0} more", named.size() - kNamed) : what;
}

// One bit: a box to tick, its number, what it is, its file and figures, and where it goes.
void bit_block(Paper& sheet, const Plan& plan, const BitRun& run, int number, const double (&columns)[5]) {
  cairo_t* cr = sheet.cr();
  cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
  cairo_set_line_width(cr, 0.9);
  cairo_rectangle(cr, columns[0] + 1, sheet.y + 26, 11, 11);
  cairo_stroke(cr);
  sheet.text(std::to_string(number), columns[0], sheet.y, 24, 16, true);
  const double high = sheet.text(run.bit.name, columns[1], sheet.y, columns[2] - columns[1] - 8, 13, true);
  sheet.text(format_duration(run.time.seconds), columns[2], sheet.y, 70, 11);
  sheet.text(depth_in_words(run.deepest, plan.job.lengths), columns[3], sheet.y, 64, 11);
  sheet.text(format_number(run.feeds.rpm, 0) + " /min", columns[4], sheet.y, 80, 11);
  sheet.y += std::max(20.0, high + 2);
  // A line of its own, whole: it is looked for on the machine's screen.
  const std::string called =
      plan.machine.bit_change == BitChange::ToolNumber
          ? run.file + " · " + say("place {0}", std::to_string(plan.machine.tool_of(run.bit.id, number)))
          : run.file;
  sheet.y += sheet.text(called, columns[1], sheet.y, kPageWidth - kEdge - columns[1], 12, true, kPlum) + 2;
  const bool inch = plan.job.lengths.unit == Unit::Inch;
  constexpr double kPicture = 120,
                   kClear = 5;  // pt; mm that a collet stays above the wood (common practice, no source)
  const double words_high =
      sheet.text(say("{0}. Feed {1}, plunge {2}{3}.", pieces_of(plan, run), feeds_in_words(plan, run),
                     format_number(run.feeds.plunge / (inch ? kMmPerInch : 1), 0), inch ? " in/min" : " mm/min") +
                     " " + reach_in_words(plan, run) + " " +
                     say("Cutting edges: {0}; out of the collet at least {1}.", cuts_in_words(run.bit.direction),
                         depth_in_words(run.deepest + kClear, plan.job.lengths)),
                 columns[1], sheet.y, kPageWidth - 2 * kEdge - 26 - kPicture - 14, 10, false, kInk);
  const double picture_high = draw_ways(sheet, plan, run, kPageWidth - kEdge - kPicture, sheet.y + 2, kPicture);
  sheet.y += std::max({words_high, picture_high + 4, 18.0}) + 9;
}

}  // namespace

void bits_table(Paper& sheet, const Plan& plan, const Picture& front, const Picture* back) {
  const double columns[] = {kEdge, kEdge + 26, kEdge + 318, kEdge + 388, kEdge + 448};
  const std::string heads[] = {"", say("Bit, and its file"), say("Time"), say("Deepest"), say("Spindle")};
  for (int i = 0; i < 5; ++i) sheet.text(heads[i], columns[i], sheet.y, 120, 9, false, kFaded);
  sheet.y += 15;
  int number = 1;
  const BitRun* before = nullptr;
  for (const BitRun& run : plan.runs) {
    sheet.need(134);
    steps_before(sheet, plan, before, run, {front, back});
    look_round_step(sheet, plan, before, run);
    witness_step(sheet, plan, before, run);
    sheet.need(106);
    bit_block(sheet, plan, run, number++, columns);
    before = &run;
  }
}

}  // namespace doyen
