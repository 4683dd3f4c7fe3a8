#include "files/run_sheet_board.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "holding/screws.hpp"
#include "run/bed.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

void ink(cairo_t* cr, Tint tint, double wide) {
  cairo_set_source_rgb(cr, tint.r, tint.g, tint.b);
  cairo_set_line_width(cr, wide);
}

// A side's picture in a frame on the page, turned as the board lies on the bed.
struct Framed {
  Box lying;  // mm at the machine
  double left, top, scale;
  [[nodiscard]] double wide() const { return lying.width() * scale; }
  [[nodiscard]] double high() const { return lying.height() * scale; }
  [[nodiscard]] Point at(Point machine) const {
    return {left + (machine.x - lying.left) * scale, top + (lying.top - machine.y) * scale};
  }
};

void draw_side(cairo_t* cr, const Framed& frame, const Blank& blank, OnBed turn, const Picture& side) {
  cairo_save(cr);
  cairo_translate(cr, frame.left + frame.wide() / 2, frame.top + frame.high() / 2);
  cairo_rotate(cr, -degrees_of(turn) * M_PI / 180);
  const double w = blank.width * frame.scale, h = blank.height * frame.scale;
  draw_picture(cr, side, -w / 2, -h / 2, w, h);
  cairo_restore(cr);
  ink(cr, kInk, 0.8);
  cairo_rectangle(cr, frame.left, frame.top, frame.wide(), frame.high());
  cairo_stroke(cr);
}

// The edge that the board is turned about, as it lies with that side up.
std::array<Point, 2> hinge(const Job& job, Side side) {
  const Box b = job.blank.box();
  std::array<Point, 2> edge = job.run.turn == TurnOver::LeftEdge
                                  ? std::array{Point{b.left, b.bottom}, Point{b.left, b.top}}
                                  : std::array{Point{b.left, b.bottom}, Point{b.right, b.bottom}};
  if (side == Side::Back) {
    for (Point& p : edge) p = turned_over(p, job.blank, job.run.turn);
  }
  return edge;
}

void draw_arrow(cairo_t* cr, double left, double right, double y) {
  ink(cr, kPlum, 1.6);
  cairo_move_to(cr, left, y);
  cairo_curve_to(cr, left + (right - left) * 0.25, y - 16, left + (right - left) * 0.75, y - 16, right, y);
  cairo_stroke(cr);
  cairo_move_to(cr, right - 7, y - 8);
  cairo_line_to(cr, right, y);
  cairo_line_to(cr, right - 10, y - 1);
  cairo_stroke(cr);
}

}  // namespace

void draw_board(Paper& sheet, const Plan& plan, const Picture& side, double most_high) {
  const Blank& blank = plan.job.blank;
  const Placement lies = seen_placement_of(plan.job);
  const Box lying = lies.at_machine(plan.job.blank.box());
  const double scale = std::min((kPageWidth - 2 * kEdge - 40) / lying.width(), most_high / lying.height());
  const Point from_corner = zero_lying(plan.job), share{from_corner.x / lying.width(), from_corner.y / lying.height()};
  // Room for the axis where zero lies at the back.
  const Framed frame{lying, kEdge + 34, sheet.y + (share.y == 1 ? 40 : 16), scale};
  cairo_t* cr = sheet.cr();
  draw_side(cr, frame, blank, lies.turn, side);
  const double w = frame.wide(), h = frame.high();
  const auto show = [&](double mm) { return depth_in_words(mm, plan.job.lengths); };
  sheet.text(show(lying.width()), frame.left + w / 2 - 30, frame.top - 15, 200, 10, true);
  sheet.text(show(lying.height()), kEdge - 8, frame.top + h / 2 - 14, 44, 9, true);
  // The zero, as a ring with a cross through it, and which way the axes run.
  const double zx = frame.left + share.x * w, zy = frame.top + (1 - share.y) * h;
  ink(cr, kPlum, 1.6);
  cairo_new_path(cr);
  cairo_arc(cr, zx, zy, 7, 0, 2 * M_PI);
  cairo_stroke(cr);
  const double right = plan.machine.x_left ? -1 : 1, up = plan.machine.y_near ? -1 : 1;
  for (const auto& [dx, dy] : {std::pair{30.0 * right, 0.0}, std::pair{0.0, -30.0 * up}}) {
    cairo_move_to(cr, zx - dx / 2.5, zy - dy / 2.5);
    cairo_line_to(cr, zx + dx, zy + dy);
    cairo_stroke(cr);
  }
  // Beside the picture where zero lies at its left front corner.
  const bool at_corner = share.x == 0 && share.y == 0;
  sheet.text("x", right > 0 ? zx + 32 : zx - 40, at_corner ? zy + 2 : zy - 8, 20, 10, true, kPlum);
  sheet.text("y", at_corner ? zx - 12 : zx - 3, up > 0 ? zy - (at_corner ? 40 : 46) : zy + 32, 20, 10, true, kPlum);
  sheet.text(say("front: the side you stand at"), frame.left + w / 2 - 60, frame.top + h + 3, 260, 10, false, kFaded);
  sheet.y = frame.top + h + 22;
}

void draw_turning(Paper& sheet, const Plan& plan, const Picture& front, const Picture& back, Side from) {
  const Job& job = plan.job;
  constexpr double kMostHigh = 74, kGap = 46;
  const double most_wide = (kPageWidth - 2 * kEdge - kGap) / 2 - 12;
  const Box whole = seen_placement_of(job).at_machine(job.blank.box());
  const double scale = std::min(most_wide / whole.width(), kMostHigh / whole.height());
  sheet.need(whole.height() * scale + 46);
  sheet.y += 16;
  cairo_t* cr = sheet.cr();
  const Side sides[] = {from, from == Side::Front ? Side::Back : Side::Front};
  double left = kEdge + 6;
  for (const Side side : sides) {
    const Placement lies = seen_placement_of(job, side);
    const Framed frame{lies.at_machine(job.blank.box()), left, sheet.y, scale};
    draw_side(cr, frame, job.blank, lies.turn, side == Side::Front ? front : back);
    const std::array<Point, 2> edge = hinge(job, side);
    const Point a = frame.at(lies.at_machine(edge[0])), b = frame.at(lies.at_machine(edge[1]));
    ink(cr, kPlum, 3);
    cairo_move_to(cr, a.x, a.y);
    cairo_line_to(cr, b.x, b.y);
    cairo_stroke(cr);
    // The corner that lies left front as drawn, face up.
    const Point corner = side == Side::Front ? Point{0, 0} : turned_over(Point{0, 0}, job.blank, job.run.turn);
    const Point dot = frame.at(lies.at_machine(corner));
    cairo_new_path(cr);
    cairo_arc(cr, dot.x, dot.y, 4.5, 0, 2 * M_PI);
    ink(cr, kBrick, 1);
    cairo_fill(cr);
    sheet.text(side == Side::Front ? say("front up") : say("back up"), left, sheet.y + frame.high() + 5, most_wide, 10,
               false, kFaded);
    left += frame.wide() + kGap;
  }
  const double wide = whole.width() * scale;
  draw_arrow(cr, kEdge + 6 + wide + 8, kEdge + 6 + wide + kGap - 8, sheet.y + whole.height() * scale / 2 + 6);
  sheet.y += whole.height() * scale + 20;
  sheet.y += 4 + sheet.text(say("The thick edge is the one that the board is turned about; the dot is one and the same "
                                "corner of the wood. Mark it with a pencil before you turn the board."),
                            kEdge, sheet.y, kPageWidth - 2 * kEdge, 10, false, kInk);
}

namespace {

// What it lies against, as a filled shape; dowels are round.
void draw_part(cairo_t* cr, const FixturePart& part, Point left_top, double scale) {
  cairo_new_path(cr);
  const Point middle = part.box.centre();
  if (part.what == FixturePart::What::Dowel)
    cairo_arc(cr, left_top.x + middle.x * scale, left_top.y - middle.y * scale, part.box.width() / 2 * scale, 0,
              2 * M_PI);
  else
    cairo_rectangle(cr, left_top.x + part.box.left * scale, left_top.y - part.box.top * scale, part.box.width() * scale,
                    part.box.height() * scale);
  cairo_set_source_rgb(cr, 0.55, 0.42, 0.28);
  cairo_fill_preserve(cr);
  ink(cr, kInk, 0.6);
  cairo_stroke(cr);
}

// A clamp, or a screw's head; `lying` where it stands.
void draw_metal(cairo_t* cr, const KeepOut& metal, const Box& lying, Point at, double scale) {
  const double w = lying.width() * scale, h = lying.height() * scale, left = at.x + lying.left * scale,
               top = at.y - lying.top * scale;
  cairo_new_path(cr);
  if (metal.round())
    cairo_arc(cr, left + w / 2, top + h / 2, std::max(1.2, w / 2), 0, 2 * M_PI);
  else
    cairo_rectangle(cr, left, top, w, h);
  cairo_set_source_rgb(cr, 0.44, 0.46, 0.49);
  cairo_fill_preserve(cr);
  ink(cr, kInk, 0.6);
  cairo_stroke(cr);
}

std::string bed_in_words(const Plan& plan) {
  const Job& job = plan.job;
  const Fixture& f = job.run.fixture;
  const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
  std::string words;
  if (f.kind != Fixture::Kind::None)
    words = say("It lies against {0}; they stand {1} above the bed.", fixture_in_words(f), show(fixture_stands(job)));
  if (job.run.waste_board > 0)
    words += (words.empty() ? "" : " ") + say("A waste board of {0} lies beneath it.", show(job.run.waste_board));
  if (!f.placed()) return words;
  words += (words.empty() ? "" : " ") +
           say("It lies with its {0} {1} from the left and {2} from the front end of the machine's travel.",
               corner_in_words(f), show(*f.x), show(*f.y));
  if (const std::optional<Point> home = zero_from_home(job, plan.machine))
    words += " " + say("Counted from home, zero lies at x {0}, y {1}: compare it with the machine's display.",
                       show(home->x), show(home->y));
  return words;
}

}  // namespace

void draw_bed(Paper& sheet, const Plan& plan, const Picture& front) {
  const Job& job = plan.job;
  const std::string words = bed_in_words(plan);
  if (words.empty()) return;
  const std::optional<Point> origin = left_front_on_bed(job);
  if (!origin) return sheet.paragraph(words, 11);
  constexpr double kWide = 130, kMostHigh = 110;
  const Box bed = bed_box(plan.machine);
  const double scale = std::min(kWide / bed.width(), kMostHigh / bed.height());
  const double w = bed.width() * scale, h = bed.height() * scale;
  sheet.need(h + 14);
  cairo_t* cr = sheet.cr();
  const double left = kEdge, top = sheet.y + 2;
  cairo_set_source_rgb(cr, 0.93, 0.90, 0.84);
  cairo_rectangle(cr, left, top, w, h);
  cairo_fill_preserve(cr);
  ink(cr, kFaded, 0.7);
  cairo_stroke(cr);
  const Point at{left + (origin->x - bed.left) * scale, top + h - (origin->y - bed.bottom) * scale};
  const Box lying = lying_box(job.blank, job.run.on_bed);
  draw_side(cr, {lying, at.x, at.y - lying.height() * scale, scale}, job.blank, job.run.on_bed, front);
  for (const FixturePart& part : fixture_parts(job, plan.machine)) draw_part(cr, part, at, scale);
  const Placement lies = lying_placement(job);
  for (const KeepOut& metal : metal_on(job)) {
    if (metal.stands_while(false)) draw_metal(cr, metal, lies.at_machine(metal.box()), at, scale);
  }
  const Point zero = zero_lying(job);
  cairo_new_path(cr);
  cairo_arc(cr, at.x + zero.x * scale, at.y - zero.y * scale, 3.5, 0, 2 * M_PI);
  ink(cr, kPlum, 1.4);
  cairo_stroke(cr);
  const double beside = left + w + 14;
  sheet.text(say("The bed from above; you stand below it."), beside, top, kPageWidth - kEdge - beside, 10, false,
             kFaded);
  const double high = sheet.text(words, beside, top + 16, kPageWidth - kEdge - beside, 11);
  sheet.y = top + std::max(h, 16 + high) + 8;
}

}  // namespace doyen
