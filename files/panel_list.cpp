#include "files/panel_list.hpp"

#include <algorithm>

#include "files/outputs.hpp"
#include "files/paper.hpp"
#include "finish/hanging.hpp"
#include "panels/panels.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

class PanelPages {
 public:
  PanelPages(const Plan& sign, const std::vector<const Plan*>& plans, const Cancel& cancel)
      : sign_(sign),
        job_(sign.job),
        plans_(plans),
        cancel_(cancel),
        panels_(panels_of(job_)),
        edges_(mating_edges(job_)) {}

  std::string write() {
    page_.paragraph(say("{0}: {1} panels", job_.name, panels_.size()), 20, true);
    const Species* species = species_table().find(job_.blank.species);
    page_.paragraph(
        say("{0} × {1} of {2}, {3} thick. Saw every panel to its size, square, before it is carved; write its number "
            "and the letters of its edges on its back. Edges of one letter meet.",
            show(job_.blank.width), show(job_.blank.height),
            species == nullptr ? std::string(job_.blank.species) : species->name,
            depth_in_words(job_.blank.thickest(), job_.lengths)),
        11);
    if (job_.panels.gap > 0)
      page_.paragraph(
          say("A gap of {0} stays between them on the wall: it is counted in all that follows.", show(job_.panels.gap)),
          11);
    page_.y += 4;
    draw_sign();
    list_panels();
    list_edges();
    list_screws();
    page_.paragraph(say("Bits run off the edges that meet: no clamp, stop or finger there. Lift heavy panels with a "
                        "second person. What holds them must suit the wall; local rules come first."),
                    10, false, kBrick);
    return page_.finish();
  }

 private:
  [[nodiscard]] std::string show(double mm) const { return size_in_words(mm, job_.lengths); }

  // A letter or number on a ground of its own, about its middle.
  void sign_on_picture(const std::string& words, double x, double y, double size, Tint ground) {
    cairo_t* cr = page_.cr();
    cairo_set_source_rgb(cr, 1, 1, 1);
    cairo_new_path(cr);
    cairo_arc(cr, x, y, size * 0.85, 0, 6.2832);
    cairo_fill_preserve(cr);
    cairo_set_source_rgb(cr, ground.r, ground.g, ground.b);
    cairo_set_line_width(cr, 1.2);
    cairo_stroke(cr);
    page_.text(words, x - size * 0.31 * static_cast<double>(words.size()), y - size * 0.68, 60, size, true, ground);
  }

  // The whole sign as it hangs, with what stands on its pieces' backs.
  void draw_sign() {
    constexpr double kMostHigh = 330;  // pt
    const Box box = job_.blank.box();
    const double scale = std::min((kPageWidth - 2 * kEdge) / box.width(), kMostHigh / box.height());
    const double left = (kPageWidth - box.width() * scale) / 2, top = page_.y, high = box.height() * scale;
    cairo_t* cr = page_.cr();
    draw_picture(cr, board_picture(sign_, 1400, Side::Front, cancel_), left, top, box.width() * scale, high);
    const auto x_of = [&](double mm) { return left + mm * scale; };
    const auto y_of = [&](double mm) { return top + high - mm * scale; };
    for (const MatingEdge& edge : edges_) {
      const Point a = edge.place(edge.from), b = edge.place(edge.to);
      cairo_set_source_rgb(cr, 1, 1, 1);
      cairo_set_line_width(cr, std::max(1.6, job_.panels.gap * scale));
      cairo_move_to(cr, x_of(a.x), y_of(a.y));
      cairo_line_to(cr, x_of(b.x), y_of(b.y));
      cairo_stroke(cr);
    }
    for (const MatingEdge& edge : edges_) {
      const Point middle = edge.place(edge.from + 0.62 * (edge.to - edge.from));
      sign_on_picture(edge.letter, x_of(middle.x), y_of(middle.y), 9, kPlum);
    }
    for (const Panel& panel : panels_) {
      constexpr double kFromCorner = 16;  // pt
      sign_on_picture(std::to_string(panel.number), x_of(panel.box.left) + kFromCorner,
                      y_of(panel.box.bottom) - kFromCorner, 12, kInk);
    }
    page_.y = top + high + 10;
  }

  [[nodiscard]] std::string hangs_on(const Plan& plan, const FinishFigures& figures) const {
    try {
      const std::size_t places = hanging_of(plan, figures).places.size();
      return say("{0} {0|screw|screws}", places);
    } catch (const Problem&) {
      return say("no place for a screw");
    }
  }

  void list_panels() {
    const double columns[] = {kEdge + 18, kEdge + 52, kEdge + 190, kEdge + 350, kEdge + 430};
    page_.paragraph(say("Panels"), 13, true, kPlum);
    const auto row = [&](const std::vector<std::string>& words, bool bold) {
      page_.need(17);
      for (std::size_t i = 0; i < words.size(); ++i)
        page_.text(words[i], columns[i], page_.y, i + 1 < words.size() ? columns[i + 1] - columns[i] - 4 : 100,
                   bold ? 9 : 11, bold, bold ? kFaded : kInk);
      page_.y += 16;
    };
    row({"", say("Size"), say("From the sign's left and lower edge"), say("Weighs"), say("Hangs on")}, true);
    double all = 0;
    for (std::size_t i = 0; i < panels_.size() && i < plans_.size(); ++i) {
      const Panel& panel = panels_[i];
      const FinishFigures figures = finish_figures(*plans_[i], cancel_);
      all += figures.kilograms;
      cairo_t* cr = page_.cr();
      page_.need(17);
      cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
      cairo_set_line_width(cr, 0.9);
      cairo_rectangle(cr, kEdge + 1, page_.y + 2, 10, 10);
      cairo_stroke(cr);
      row({std::to_string(panel.number), show(panel.box.width()) + " × " + show(panel.box.height()),
           say("{0} and {1}", show(panel.box.left), show(panel.box.bottom)),
           weight_in_words(figures.kilograms, job_.lengths),
           job_.panels.join == PanelChoices::Join::Screws
               ? say("{0} {0|screw|screws}", screws_of(job_, sign_.rack, panel).size())
               : hangs_on(*plans_[i], figures)},
          false);
    }
    page_.paragraph(say("Together {0}.", weight_in_words(all, job_.lengths)), 11);
    page_.y += 4;
  }

  void list_edges() {
    if (edges_.empty()) return;
    const bool dowels = job_.panels.join == PanelChoices::Join::Dowels;
    page_.paragraph(say("Edges that meet"), 13, true, kPlum);
    if (dowels)
      page_.paragraph(
          say("Dowels of {0}: holes in the middle of the thickness, {1} deep into either edge, counted from "
              "the end that is said.",
              show(job_.panels.hole), show(dowel_depth(job_))),
          10);
    for (const MatingEdge& edge : edges_) {
      std::string words = edge.upright ? say("{0}: panel {1}, right edge, and panel {2}, left edge; {3} long",
                                             edge.letter, edge.one, edge.other, show(edge.to - edge.from))
                                       : say("{0}: panel {1}, upper edge, and panel {2}, lower edge; {3} long",
                                             edge.letter, edge.one, edge.other, show(edge.to - edge.from));
      if (dowels) {
        std::string places;
        for (const double along : dowels_of(job_, edge))
          places += (places.empty() ? "" : ", ") + show(along - edge.from);
        words += edge.upright ? say(". Dowels from the lower end: {0}", places)
                              : say(". Dowels from the left end: {0}", places);
      }
      page_.paragraph(words + ".", 11);
    }
    page_.y += 4;
  }

  void list_screws() {
    if (job_.panels.join != PanelChoices::Join::Screws) return;
    page_.paragraph(say("Screws on the wall, from the sign's left and lower edge"), 13, true, kPlum);
    for (const Panel& panel : panels_) {
      std::string places;
      for (const Point p : screws_of(job_, sign_.rack, panel))
        places += (places.empty() ? "" : "; ") + say("{0} and {1}", show(p.x), show(p.y));
      page_.paragraph(say("Panel {0}: {1}.", panel.number, places), 10);
    }
    page_.y += 4;
  }

  const Plan& sign_;
  const Job& job_;
  const std::vector<const Plan*>& plans_;
  const Cancel& cancel_;
  std::vector<Panel> panels_;
  std::vector<MatingEdge> edges_;
  Paper page_;
};

}  // namespace

std::string panel_list_pdf(const Plan& sign, const std::vector<const Plan*>& panels, const Cancel& cancel) {
  return PanelPages(sign, panels, cancel).write();
}

}  // namespace doyen
