#include "panels/panel_fields.hpp"

#include <algorithm>

#include "panels/panels.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

void add_seams(Record<PanelChoices>& f, const char* key, std::vector<double> PanelChoices::*member) {
  f.own(
       key,
       [=](PanelChoices& panels, const JsonView& v) {
         if (!v.has(key)) return;
         std::vector<double>& seams = panels.*member;
         for (const Json& each : v.array(key, kMostSeams)) {
           if (!each.is_number() || !(each.get<double>() >= 0 && each.get<double>() <= kFarthestSeam))
             throw v.wrong(key, say("places of seams, 0 to {0} mm, were expected", format_number(kFarthestSeam, 0)));
           seams.push_back(each.get<double>());
         }
         std::sort(seams.begin(), seams.end());
       },
       [=](const PanelChoices& panels) {
         Json list = Json::array();
         for (const double at : panels.*member) list.push_back(at);
         return list;
       },
       [=](const PanelChoices& panels) { return !(panels.*member).empty(); })
      .takes("a list of places, mm");
}

}  // namespace

const Record<PanelChoices>& panel_fields() {
  static const Record<PanelChoices> fields = [] {
    using P = PanelChoices;
    using J = P::Join;
    Record<P> f;
    add_seams(f, "across", &P::across);
    add_seams(f, "deep", &P::deep);
    f.number("gap", &P::gap, {0, 500});
    f.number("mostWidth", &P::most_width, {0, 20'000});
    f.number("mostHeight", &P::most_height, {0, 20'000});
    f.choice("join", &P::join, Words<J>{{"butted", J::Butted}, {"dowels", J::Dowels}, {"screws", J::Screws}});
    f.number("hole", &P::hole, {1, 50});
    f.number("apart", &P::apart, {20, 5000});
    f.number("inset", &P::inset, {2, 1000});
    return f;
  }();
  return fields;
}

}  // namespace doyen
