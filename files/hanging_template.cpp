#include "files/hanging_template.hpp"

#include <algorithm>
#include <cmath>

#include "files/paper.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kWide = 180, kHigh = 230;  // mm of the sign on a page
constexpr double kOver = 10;                // mm that pages overlap
constexpr double kLeft = 15, kTop = 22;     // mm

// Between the sign and one page: mm from the page's left top, down.
struct Tile {
  double left, top;  // mm on the board, of the page's corner
  [[nodiscard]] Point at(Point p) const { return Point{kLeft + p.x - left, kTop + top - p.y} * kPt; }
};

void line(cairo_t* cr, Point a, Point b) {
  cairo_move_to(cr, a.x, a.y);
  cairo_line_to(cr, b.x, b.y);
  cairo_stroke(cr);
}

void draw_sign(Paper& page, const Region& shape, const Hanging& hanging, const Tile& tile, const Box& box,
               const LengthStyle& lengths) {
  cairo_t* cr = page.cr();
  cairo_save(cr);
  cairo_rectangle(cr, kLeft * kPt, kTop * kPt, kWide * kPt, kHigh * kPt);
  cairo_clip(cr);
  cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
  cairo_set_line_width(cr, 0.8);
  for (const Island& island : shape.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point p = tile.at(ring[i]);
        i == 0 ? cairo_move_to(cr, p.x, p.y) : cairo_line_to(cr, p.x, p.y);
      }
      cairo_close_path(cr);
    }
  }
  cairo_stroke(cr);
  cairo_set_source_rgb(cr, kPlum.r, kPlum.g, kPlum.b);
  if (!hanging.places.empty()) {
    const double y = hanging.places.front().y;
    const double dashes[] = {8, 4};
    cairo_set_dash(cr, dashes, 2, 0);
    line(cr, tile.at({box.left - 50, y}), tile.at({box.right + 50, y}));
    cairo_set_dash(cr, nullptr, 0, 0);
  }
  cairo_set_line_width(cr, 1.2);
  for (const Point place : hanging.places) {
    constexpr double kArm = 8;  // mm
    line(cr, tile.at(place - Point{kArm, 0}), tile.at(place + Point{kArm, 0}));
    line(cr, tile.at(place - Point{0, kArm}), tile.at(place + Point{0, kArm}));
    const Point p = tile.at(place);
    cairo_new_path(cr);
    cairo_arc(cr, p.x, p.y, 2 * kPt, 0, 2 * M_PI);
    cairo_stroke(cr);
    page.text(say("drill here; {0} below the top", size_in_words(box.top - place.y, lengths)), p.x + 10, p.y + 6, 150,
              9, false, kPlum);
  }
  cairo_restore(cr);
}

// The page's frame to cut or fold by, its place, and the ruler.
void draw_frame(Paper& page, const std::string& name, const std::string& place) {
  cairo_t* cr = page.cr();
  page.text(name, kLeft * kPt, 8 * kPt, 120 * kPt, 12, true);
  page.text(place, 140 * kPt, 8 * kPt, 60 * kPt, 12, true, kPlum);
  page.text(say("True to size: print at 100 %, and lay a ruler on the line below. Sheets overlap by {0} mm, so that "
                "lines meet.",
                format_number(kOver, 0)),
            kLeft * kPt, 14 * kPt, 170 * kPt, 9, false, kFaded);
  cairo_set_source_rgb(cr, kLine.r, kLine.g, kLine.b);
  cairo_set_line_width(cr, 0.5);
  cairo_rectangle(cr, kLeft * kPt, kTop * kPt, kWide * kPt, kHigh * kPt);
  cairo_stroke(cr);
  cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
  cairo_set_line_width(cr, 0.9);
  const double y = (kTop + kHigh + 14) * kPt;
  line(cr, {kLeft * kPt, y}, {(kLeft + 100) * kPt, y});
  for (int mm = 0; mm <= 100; mm += 10) {
    const double x = (kLeft + mm) * kPt;
    line(cr, {x, y - (mm % 50 == 0 ? 9 : 5)}, {x, y});
  }
  page.text("100 mm", (kLeft + 103) * kPt, y - 9, 100, 10);
}

}  // namespace

std::string hanging_template_pdf(const Plan& plan, const Hanging& hanging) {
  Region shape = plan.finished_shape();
  if (shape.empty()) shape = region_of(plan.job.blank);
  const Box box = bounds(shape);
  const auto count = [](double length, double page) {
    return std::max(1, static_cast<int>(std::ceil((length - kOver + 2) / (page - kOver))));
  };
  const int columns = count(box.width(), kWide), rows = count(box.height(), kHigh);
  Paper page;
  for (int row = 0; row < rows; ++row) {
    for (int column = 0; column < columns; ++column) {
      if (row + column > 0) page.next_page();
      const Tile tile{box.left - 1 + column * (kWide - kOver), box.top + 1 - row * (kHigh - kOver)};
      draw_frame(page, say("{0}: for the wall, seen from the front", plan.job.name),
                 say("row {0}, sheet {1} of {2}", row + 1, column + 1, columns));
      draw_sign(page, shape, hanging, tile, box, plan.job.lengths);
    }
  }
  return page.finish();
}

}  // namespace doyen
