#include "finish/hanging.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "planning/outputs.hpp"
#include "problem.hpp"
#include "treatments/hanger_slot/slot_places.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kWoodRound = 12;  // mm of wood round a hanger
constexpr double kSkin = 3;        // mm that a screw keeps from the front's deepest cut

std::vector<Point> slots_of(const Job& job) {
  std::vector<Point> places;
  for (const Item& item : job.items) {
    if (item.cut.kind != Treatment::Kind::HangerSlot) continue;
    for (const SlotPlace& slot : slot_places(job.outlines(item), item.cut.slot)) places.push_back(slot.end);
  }
  std::sort(places.begin(), places.end(), [](Point a, Point b) { return a.x < b.x; });
  return places;
}

std::size_t how_many(const Box& box, double kilograms) {
  const double wide = box.width();
  std::size_t count = wide <= 250 && kilograms <= 1 ? 1 : 2;
  if (wide > 1200) count = std::max(count, static_cast<std::size_t>(std::ceil(wide / 600)));
  return std::max(count, static_cast<std::size_t>(std::ceil(kilograms / 5)));
}

// At one height, alike on both sides of where it balances, as high and as wide as the wood allows.
std::vector<Point> found_places(const Region& shape, Point centre, std::size_t count) {
  const Box box = bounds(shape);
  const Region room = grow(shape, -kWoodRound);
  for (double high = 0.85; high > 0.05; high -= 0.05) {
    const double y = centre.y + (box.top - centre.y) * high;
    for (double wide = count == 1 ? 0 : 0.8; wide >= 0; wide -= 0.05) {
      const double reach = std::min(centre.x - box.left, box.right - centre.x) * wide;
      if (count > 1 && reach < kWoodRound) break;
      std::vector<Point> places;
      for (std::size_t i = 0; i < count; ++i) {
        const double share = count == 1 ? 0 : 2.0 * static_cast<double>(i) / static_cast<double>(count - 1) - 1;
        places.push_back({centre.x + reach * share, y});
      }
      if (std::all_of(places.begin(), places.end(), [&](Point p) { return contains(room, p); })) return places;
      if (count == 1) break;
    }
  }
  throw bad_input(
      say("No place above its middle has {0} mm of wood all round for a hanger.", format_number(kWoodRound, 0)));
}

// By moments about the outer two; what lies between them carries nothing of its own.
std::vector<double> loads_on(const std::vector<Point>& places, Point centre) {
  std::vector<double> loads(places.size(), 0);
  if (places.size() == 1) return {1};
  const double left = places.front().x, right = places.back().x;
  if (places.empty() || right - left < 1) return loads;
  loads.back() = (centre.x - left) / (right - left);
  loads.front() = 1 - loads.back();
  return loads;
}

// It turns until it balances: about one hanger, or about the outer one that alone still carries; else as askew as the
// two stand in height.
double tilt_on(const std::vector<Point>& places, Point centre) {
  if (places.empty()) return 0;
  const auto about = [&](Point p) {
    return std::atan2(centre.x - p.x, std::max(1.0, p.y - centre.y)) * -180 / std::numbers::pi;
  };
  if (places.size() == 1 || places.back().x - places.front().x < 1) return about(places.front());
  if (centre.x < places.front().x) return about(places.front());
  if (centre.x > places.back().x) return about(places.back());
  const Point d = places.back() - places.front();
  return -std::atan2(d.y, d.x) * 180 / std::numbers::pi;
}

// mm of wood behind the front's deepest cut near those places.
double wood_behind(const Plan& plan, const FinishFigures& figures, const std::vector<Point>& places) {
  double deepest = 0;
  for (const Point place : places) {
    const HeightField field = relief_of(plan, Box{place.x - 4, place.y - 4, place.x + 4, place.y + 4}, 0.5);
    for (std::size_t r = 0; r < field.rows(); ++r) {
      for (std::size_t c = 0; c < field.columns(); ++c) deepest = std::max<double>(deepest, -field.at(c, r));
    }
  }
  return std::max(0.0, std::min(figures.thick, plan.job.blank.thinnest()) - deepest - kSkin);
}

}  // namespace

Hanging hanging_of(const Plan& plan, const FinishFigures& figures) {
  Hanging out;
  out.kilograms = figures.kilograms;
  out.centre = figures.centre;
  out.places = slots_of(plan.job);
  out.slots = !out.places.empty();
  Region shape = plan.finished_shape();
  if (shape.empty()) shape = region_of(plan.job.blank);
  if (!out.slots) {
    out.places = found_places(shape, figures.centre, how_many(bounds(shape), figures.kilograms));
    out.screw = wood_behind(plan, figures, out.places);
  }
  out.loads = loads_on(out.places, out.centre);
  out.tilt = tilt_on(out.places, out.centre);
  return out;
}

Job with_slots_level(const Job& job, const Hanging& hanging) {
  Job out = job;
  if (!hanging.slots) return out;
  const double middle = (hanging.places.front().x + hanging.places.back().x) / 2;
  double highest = -1e300;
  for (const Point p : hanging.places) highest = std::max(highest, p.y);
  for (const Item& item : job.items) {
    if (item.cut.kind != Treatment::Kind::HangerSlot) continue;
    const std::vector<SlotPlace> own = slot_places(job.outlines(item), item.cut.slot);
    if (own.empty()) continue;
    // Places on the board are seen from the front, of what is cut from the back, too.
    out.shift(item.piece.id, {hanging.centre.x - middle, highest - own.front().end.y});
  }
  return out;
}

std::vector<std::string> hanging_in_words(const Plan& plan, const Hanging& hanging) {
  const LengthStyle& lengths = plan.job.lengths;
  const auto show = [&](double mm) { return size_in_words(mm, lengths); };
  const Region shape = plan.finished_shape();
  const Box box = shape.empty() ? plan.job.blank.box() : bounds(shape);
  std::vector<std::string> words;
  words.push_back(say("It weighs {0} and balances {1} from its left and {2} from its lower edge, seen from the front.",
                      weight_in_words(hanging.kilograms, lengths), show(hanging.centre.x - box.left),
                      show(hanging.centre.y - box.bottom)));
  for (std::size_t i = 0; i < hanging.places.size(); ++i) {
    const Point p = hanging.places[i];
    const std::string share = format_number(std::round(hanging.loads[i] * 100), 0);
    // What is said of the back is measured there: from its own left.
    words.push_back(hanging.slots
                        ? say("Slot {0}: the screw's head rests {1} from the left and {2} below the top, seen from the "
                              "front; it carries {3} % of it.",
                              i + 1, show(p.x - box.left), show(box.top - p.y), share)
                        : say("Hanger {0}: on the back, {1} from its left and {2} below the top, which is {3} from the "
                              "left on the wall.",
                              i + 1, show(box.right - p.x), show(box.top - p.y), show(p.x - box.left)));
  }
  if (!hanging.slots)
    words.push_back(hanging.screw > 0
                        ? say("Screws into the back at most {0} long.", depth_in_words(hanging.screw, lengths))
                        : say("There is no wood behind the carving for screws there: glue a batten on, or move them."));
  words.push_back(hanging.level() ? say("So it hangs level.")
                                  : say("So it hangs askew by {0}°.", format_number(std::abs(hanging.tilt), 1)));
  return words;
}

}  // namespace doyen
