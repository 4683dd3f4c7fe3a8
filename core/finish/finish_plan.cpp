#include "finish/finish_plan.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include "geometry/polyline.hpp"
#include "planning/fill.hpp"
#include "planning/finished_look.hpp"
#include "plates/plates.hpp"
#include "treatments/look.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kSquareMetre = 1e6;  // mm²
constexpr double kWaste = 1.1;        // what stays in cup and brush (common practice, no source)

using School = FinishSchool;
using When = FinishStep::When;

class Making {
 public:
  Making(const Plan& plan, const FinishFigures& figures, const ProductTable& products, const Cancel& cancel)
      : plan_(plan), job_(plan.job), figures_(figures), products_(products), cancel_(cancel) {}

  FinishPlan make() {
    const School school = job_.finish.school;
    if (school == School::None && !has_resin() && job_.finish.round_over <= 0) return {};
    if (job_.plates.there()) out_.boards = std::max(1, static_cast<int>(plate_rows(job_.plates).size()));
    many_ = out_.boards;
    before_run(school);
    step(When::Run, say("At the machine: cut it"), say("the run sheet"), {}, many_ * plan_.seconds / 60, 0);
    step(When::AfterRun, say("Blow and brush the dust out of every groove and corner"), say("soft brush, dust mask"),
         {}, 5 + 20 * many_ * figures_.carved / kSquareMetre, 0);
    round_over();
    resin();
    after_run(school);
    warn(school);
    return std::move(out_);
  }

 private:
  void step(When when, const std::string& words, const std::string& tools, const std::string& caution, double minutes,
            double wait) {
    out_.steps.push_back({when, words, tools, caution, std::ceil(minutes), wait});
  }
  void sand(When when, const std::string& words, const std::string& grits, double area) {
    step(when, words, grits, say("Dust mask, extraction running."), 8 + 60 * many_ * area / kSquareMetre, 0);
  }

  // One product over an area in all its coats; the last coat waits `wait` hours.
  void coats(When when, const std::string& id, const std::string& on, double area, double wait,
             const std::string& colour = {}) {
    const Product& product = products_.of(id);
    const std::string name = colour.empty() ? product.name : say("{0}, {1}", product.name, colour);
    for (int coat = 1; coat <= product.coats; ++coat) {
      const std::string thin = coat <= product.thinned_coats ? " " + say("Thin it half and half.") : std::string();
      const std::string between = product.id == "varnish" && coat > 1 ? say("brush, 320 between coats")
                                  : product.id == "sealer"            ? say("brush or roller; cut back at 400 when dry")
                                                                      : say("brush or roller");
      step(when, say("{0} on {1}, coat {2} of {3}.", name, on, coat, product.coats) + thin, between, product.caution,
           5 + 25 * many_ * area / kSquareMetre, coat < product.coats ? product.recoat_hours : wait);
    }
    quantity(product, name, area);
  }

  void quantity(const Product& product, const std::string& name, double of_one) {
    const double area = many_ * of_one;
    FinishQuantity q{name, area, product.coats, 0, {}};
    if (product.metres_per_litre > 0)
      q.litres = area / kSquareMetre * product.coats / product.metres_per_litre * kWaste;
    q.words = q.litres > 0 ? say("{0}: {1}, {2} {2|coat|coats}, about {3}", name, format_area(area, job_.lengths),
                                 product.coats, filling_in_words(q.litres * 1e6, job_.lengths))
                           : say("{0}: {1}", name, format_area(area, job_.lengths));
    out_.quantities.push_back(std::move(q));
  }

  void before_run(School school) {
    const double board = job_.blank.width * job_.blank.height;
    const double sealer_dry = products_.of("sealer").recoat_hours, paint_cured = products_.of("paint").cure_hours;
    sand(When::BeforeRun, say("Sand the board's face flat"), say("120, then 180"), board);
    if (school == School::MaskPaint) {
      coats(When::BeforeRun, "sealer", say("the whole face, so that film holds and paint does not creep"), board,
            sealer_dry);
      step(When::BeforeRun,
           say("Lay {0} over the whole face, without bubbles, and press it down at the edges",
               products_.of("film").name),
           say("felt-edged squeegee"), {}, 5 + 30 * many_ * board / kSquareMetre, 0);
      quantity(products_.of("film"), products_.of("film").name, board * kWaste);
    }
    if (school == School::PaintedBoard) {
      coats(When::BeforeRun, "sealer", say("the whole face"), board, sealer_dry);
      // A face is masked or cut when its paint has cured.
      coats(When::BeforeRun, "paint", say("the whole face"), board, paint_cured, job_.finish.colour);
    }
  }

  // Deepest grounds first, then what is cut into them: a brush that slips then spoils nothing that is done.
  void paint() {
    std::map<std::string, double> areas;
    std::map<std::string, std::vector<std::string>> names;
    double left = figures_.carved;
    for (const Item& item : job_.items) {
      const auto area = figures_.by_piece.find(item.piece.id);
      const auto colour = job_.finish.colours.find(item.piece.id);
      if (area == figures_.by_piece.end() || colour == job_.finish.colours.end() || colour->second.empty()) continue;
      areas[colour->second] += area->second;
      names[colour->second].push_back(item.piece.name);
      left -= area->second;
    }
    if (left > 0.01 * figures_.carved) {
      const std::string rest = names.empty() ? say("all that is carved") : say("all else that is carved");
      const std::string colour = job_.finish.colour;
      out_.paint_map.push_back(colour.empty() ? rest : rest + ": " + colour);
      coats(When::AfterRun, "paint", rest, left, products_.of("paint").recoat_hours, colour);
    }
    for (const auto& [colour, area] : areas) {
      std::string on;
      for (const std::string& name : names[colour]) on += (on.empty() ? "“" : ", “") + name + "”";
      out_.paint_map.push_back(on + ": " + colour);
      coats(When::AfterRun, "paint", on, area, products_.of("paint").recoat_hours, colour);
    }
  }

  void clear_coats() {
    // The last clear coat has cured before it is hung.
    const double all = figures_.face + figures_.carved + figures_.edges + (job_.finish.outdoors ? figures_.flat : 0);
    coats(When::AfterRun, "varnish",
          job_.finish.outdoors ? say("face, carving, edges and back") : say("face, carving and edges"), all,
          products_.of("varnish").cure_hours);
  }

  void after_run(School school) {
    const double sealer_dry = products_.of("sealer").recoat_hours, paint_cured = products_.of("paint").cure_hours;
    switch (school) {
      case School::MaskPaint:
        coats(When::AfterRun, "sealer", say("the cut wood inside the film"), figures_.carved, sealer_dry);
        paint();
        step(When::AfterRun,
             say("Peel the film off while the paint is dry to the touch and not yet hard, flat back over itself"),
             say("knife tip, tweezers"), {}, 10 + 100 * many_ * figures_.face / kSquareMetre, paint_cured);
        clear_coats();
        break;
      case School::PaintSand:
        coats(When::AfterRun, "sealer", say("face and carving"), figures_.carved + figures_.face, sealer_dry);
        paint();
        out_.steps.back().wait = paint_cured;
        sand(When::AfterRun, say("Sand the face back until only the carving is painted"),
             say("180, then 240, on a flat block"), figures_.face);
        clear_coats();
        break;
      case School::PaintedBoard:
        coats(When::AfterRun, "sealer", say("the cut wood"), figures_.carved, sealer_dry);
        if (job_.finish.outdoors) clear_coats();
        break;
      case School::Oil:
        sand(When::AfterRun, say("Sand face and edges"), say("180, then 240"), figures_.face + figures_.edges);
        coats(When::AfterRun, "oil", say("all of it, the rest wiped off after a quarter of an hour"),
              figures_.face + figures_.carved + figures_.edges + figures_.flat, products_.of("oil").cure_hours);
        break;
      case School::Varnish:
        sand(When::AfterRun, say("Sand face and edges"), say("180, then 240"), figures_.face + figures_.edges);
        clear_coats();
        break;
      case School::None:
        break;
    }
  }

  // 5 minutes, and 2 for a metre of edge (common practice, no source).
  void round_over() {
    const double radius = job_.finish.round_over;
    if (radius <= 0) return;
    double edge = 0;
    for (const Island& island : sign_of(plan_).islands) edge += ring_length(island.rings.front());
    step(When::AfterRun, say("Round the front edges over by {0}", size_in_words(radius, job_.lengths)),
         say("router with a bearing bit, or plane and block; then 180"),
         say("Eyes and ears covered, the sign clamped; against the bit's turning, small pieces by hand."),
         5 + 2 * many_ * edge / 1000, 0);
  }

  [[nodiscard]] bool has_resin() const {
    return std::any_of(job_.items.begin(), job_.items.end(),
                       [](const Item& item) { return item.cut.resin && look_of(item.cut.kind).resin; });
  }

  void resin() {
    if (!has_resin()) return;
    const Product& product = products_.of("resin");
    double volume = 0, deepest = 0, area = 0;
    for (std::size_t i = 0; i < job_.items.size(); ++i) {
      const Item& item = job_.items[i];
      if (!item.cut.resin || !look_of(item.cut.kind).resin) continue;
      volume += fill_of(plan_, item.piece.id, cancel_).resin();
      deepest = std::max(deepest, plan_.pieces[i]->cuts.deepest - plan_.pieces[i]->cuts.ground);
      if (const auto own = figures_.by_piece.find(item.piece.id); own != figures_.by_piece.end()) area += own->second;
    }
    coats(When::AfterRun, "sealer", say("the pockets, so that no air rises out of the wood"), area,
          products_.of("sealer").cure_hours);
    const int pours = product.pour > 0 ? std::max(1, static_cast<int>(std::ceil(deepest / product.pour - 1e-9))) : 1;
    const double all = many_ * volume * (1 + kResinWaste);
    for (int pour = 1; pour <= pours; ++pour)
      step(When::AfterRun,
           say("Mix {0} of resin and pour it level, pour {1} of {2}", filling_in_words(all / pours, job_.lengths), pour,
               pours),
           say("scales, cups, a torch or heat gun for bubbles"), product.caution, 15 + 5 * many_,
           pour < pours ? product.recoat_hours : product.cure_hours);
    sand(When::AfterRun, say("Level the resin with the face"), say("plane or 80, then 120 to 400, wet"), area);
    out_.quantities.push_back(
        {product.name, many_ * area, 1, all * 1e-6,
         say("{0}: {1} to mix, in {2} {2|pour|pours}", product.name, filling_in_words(all, job_.lengths), pours)});
  }

  void warn(School school) {
    if (school == School::MaskPaint && job_.blank.film <= 0)
      out_.warnings.push_back(say(
          "The film's thickness is not said under Blank: zero taken on it would cut everything too shallow by it."));
    if (school != School::MaskPaint && school != School::None && job_.blank.film > 0)
      out_.warnings.push_back(say("A film is said under Blank, and this finish does without one."));
    if (out_.boards > 1)
      out_.warnings.push_back(
          say("Times and quantities are for all {0} plates of the list, each taken as the one that is drawn.",
              out_.boards));
    if (!job_.finish.outdoors) return;
    const auto used = [&](const char* id) {
      const std::string name = products_.of(id).name;
      return std::any_of(out_.quantities.begin(), out_.quantities.end(),
                         [&](const FinishQuantity& q) { return q.product.starts_with(name); });
    };
    for (const char* id : {"sealer", "paint", "oil", "varnish", "resin"}) {
      if (!products_.of(id).outdoors && used(id))
        out_.warnings.push_back(say("{0} does not last outdoors.", products_.of(id).name));
    }
  }

  const Plan& plan_;
  const Job& job_;
  const FinishFigures& figures_;
  const ProductTable& products_;
  const Cancel& cancel_;
  double many_ = 1;  // boards like this one
  FinishPlan out_;
};

}  // namespace

double FinishPlan::hand_minutes() const {
  double minutes = 0;
  for (const FinishStep& step : steps) minutes += step.when == FinishStep::When::Run ? 0 : step.minutes;
  return minutes;
}

FinishPlan finish_plan(const Plan& plan, const FinishFigures& figures, const ProductTable& products,
                       const Cancel& cancel) {
  return Making(plan, figures, products, cancel).make();
}

}  // namespace doyen
