#include "job/size_sign.hpp"

#include "job/layout.hpp"

namespace doyen {
namespace {

void size_depths(Treatment& cut, double factor) {
  using Kind = Treatment::Kind;
  switch (cut.kind) {
    case Kind::Incise:
      if (cut.incise.floor_limit) *cut.incise.floor_limit *= factor;
      break;
    case Kind::Recess:
      if (cut.insert.thickness <= 0) cut.depth *= factor;
      break;
    case Kind::Raise:
    case Kind::Line:
    case Kind::Bevel:
    case Kind::Plane:
      cut.depth *= factor;
      break;
    default:
      break;
  }
}

}  // namespace

void size_sign(Job& job, double factor, bool depths) {
  if (!(factor > 1e-3 && factor < 1e3)) return;
  job.blank.width *= factor;
  job.blank.height *= factor;
  job.blank.margin *= factor;
  for (KeepOut& place : job.blank.keep_outs) {
    place.x *= factor;
    place.y *= factor;
  }
  if (depths) job.finish.round_over *= factor;
  for (std::vector<double>* seams : {&job.panels.across, &job.panels.deep}) {
    for (double& at : *seams) at *= factor;
  }
  std::vector<std::string> sized;
  for (Item& item : job.items) {
    sized.push_back(item.piece.id);
    item.cut.margin *= factor;
    item.cut.raise.terrace *= factor;
    item.cut.line.hatch *= factor;
    item.cut.drill.spacing *= factor;
    if (depths) size_depths(item.cut, factor);
    if (auto* shape = std::get_if<PlainShape>(&item.piece.what)) {
      if (shape->from_edge) *shape->from_edge *= factor;
    } else if (auto* words = std::get_if<Lettering>(&item.piece.what)) {
      if (!words->inside_margin_share) words->inside_margin *= factor;
      words->list.room *= factor;
      words->list.least *= factor;
    }
  }
  scale_layout(job, sized, factor, {0, 0});
}

}  // namespace doyen
