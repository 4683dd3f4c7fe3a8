#include "finish/hanging.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "geometry/united.hpp"
#include "job/follows_edge.hpp"
#include "planning/finished_look.hpp"
#include "planning/outputs.hpp"
#include "problem.hpp"
#include "treatments/hanger_slot/slot_places.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kWoodRound = 12;  // mm of wood round a hanger
constexpr double kSkin = 3;        // mm that a screw keeps from the front's deepest cut
// A step behind the edge (common practice, no source): so wide and deep, or as the sign allows.
constexpr double kFloatWide = 20, kFloatDeep = 6, kFloatNarrowest = 5, kFloatShallowest = 2;

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

// What is cut into the back, but for slots: no hanger holds there.
Region cut_from_back(const Plan& plan) {
  std::vector<Region> all;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const Treatment& cut = plan.job.items[i].cut;
    if (cut.back && cut.kind != Treatment::Kind::None && cut.kind != Treatment::Kind::HangerSlot)
      all.push_back(plan.pieces[i]->outlines.region);
  }
  return united(std::move(all));
}

// At one height, alike on both sides of where it balances, as high and as wide as the wood allows.
std::vector<Point> found_places(const Region& shape, const Region& room, Point centre, std::size_t count) {
  const Box box = bounds(shape);
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
  out.let_in = figures.let_in;
  out.centre = figures.centre;
  out.places = slots_of(plan.job);
  out.slots = !out.places.empty();
  const Region shape = sign_of(plan);
  if (!out.slots) {
    const Region room = grow(subtract(shape, cut_from_back(plan)), -kWoodRound);
    out.places = found_places(shape, room, figures.centre, how_many(bounds(shape), figures.kilograms));
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

std::string float_step_of(const Job& job) {
  for (const Item& item : job.items) {
    if (follows_edge(job, item)) return item.piece.id;
  }
  return {};
}

FloatStep float_step(const Plan& plan) {
  const Region shape = plan.finished_shape();
  if (shape.empty())
    throw bad_input(say("Nothing is cut out: a step behind its edge goes with a piece that is cut out."));
  if (!float_step_of(plan.job).empty()) throw bad_input(say("There is a step behind its edge already."));
  const Box box = bounds(shape);
  // In figures that can be said.
  const bool inch = plan.job.lengths.unit == Unit::Inch;
  const double unit = inch ? kMmPerInch / 16 : 0.5;
  const auto rounded = [unit](double mm) { return std::floor(mm / unit + 1e-6) * unit; };
  FloatStep step;
  step.width = std::min(inch ? kMmPerInch * 3 / 4 : kFloatWide, rounded(std::min(box.width(), box.height()) / 4));
  step.depth = std::min(inch ? kMmPerInch / 4 : kFloatDeep, rounded(plan.job.blank.thinnest() / 3));
  // What is carved at the edge from the front keeps wood below it.
  const double left = plan.job.blank.thinnest() - plan.job.run.least_wood;
  double deepest = 0;
  const Region edge = subtract(shape, grow(shape, -step.width));
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const Treatment& cut = plan.job.items[i].cut;
    if (cut.back || goes_through(cut.kind) || cut.kind == Treatment::Kind::None) continue;
    if (!intersect(plan.pieces[i]->outlines.region, edge).empty())
      deepest = std::max(deepest, plan.pieces[i]->cuts.deepest);
  }
  step.depth = std::min(step.depth, rounded(left - deepest));
  if (step.width < kFloatNarrowest)
    throw bad_input(say("It is too small for a step behind its edge: half of it must stand on the wall."));
  if (step.depth < kFloatShallowest)
    throw bad_input(
        say("What is carved near its edge leaves too little wood for a step behind it: {0} and {1} below stay of {2}.",
            depth_in_words(deepest, plan.job.lengths), depth_in_words(plan.job.run.least_wood, plan.job.lengths),
            depth_in_words(plan.job.blank.thinnest(), plan.job.lengths)));
  return step;
}

Job with_float_step(const Plan& plan) {
  const FloatStep step = float_step(plan);
  Job job = plan.job;
  const Bit* bit = nullptr;  // the widest flat that the step is wide enough for
  for (const Bit& b : plan.rack.bits) {
    if (b.kind == BitKind::Flat && b.true_diameter() < step.width &&
        (bit == nullptr || b.true_diameter() > bit->true_diameter()))
      bit = &b;
  }
  if (bit == nullptr)
    throw bad_input(say("No flat bit of the rack is narrower than {0}.", size_in_words(step.width, job.lengths)));
  Derived ring;
  ring.how = Derived::How::Grow;
  ring.distance = std::ceil(bit->true_diameter() / 2 + 0.5);  // into the waste: its corners go out, too
  ring.band = step.width + ring.distance;
  ring.corner = Corner::Sharp;
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::CutOut) ring.from.push_back(item.piece.id);
  }
  Item item;
  item.piece.id = job.fresh_id("float");
  item.piece.name = job.fresh_name(say("Step behind the edge"));
  item.piece.what = ring;
  item.cut.kind = Treatment::Kind::Recess;
  item.cut.back = true;
  item.cut.depth = step.depth;
  item.cut.bit = bit->id;
  item.cut.clearing = {bit->id};
  job.items.push_back(std::move(item));
  return job;
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
  if (hanging.let_in > 0.0005)
    words.push_back(say("Of that, plugs, inserts and resin weigh {0}.", weight_in_words(hanging.let_in, lengths)));
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
