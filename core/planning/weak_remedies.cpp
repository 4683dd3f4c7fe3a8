#include "planning/weak_remedies.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/polyline.hpp"
#include "stock/species.hpp"
#include "treatments/suits.hpp"
#include "verdicts/room.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

class Helpers {
 public:
  Helpers(const Plan& plan, const WeakPlace& place, double cell)
      : plan_(plan), job_(plan.job), place_(place), spare_(std::max(0.15, 2 * cell)) {}

  std::vector<Remedy> take() {
    switch (place_.kind) {
      case WeakPlace::Kind::Wall:
        lower({Kind::Raise, Kind::Recess, Kind::Incise}, lacks_height());
        slope();
        thicken({Kind::Raise});
        break;
      case WeakPlace::Kind::Skin:
        lower({Kind::Recess, Kind::Incise, Kind::Raise, Kind::HangerSlot, Kind::Inlay}, lacks());
        break;
      case WeakPlace::Kind::Neck:
      case WeakPlace::Kind::Point:
        thicken({Kind::CutOut, Kind::Raise});
        move_off();
        turn_grain();
        break;
    }
    plywood();
    return std::move(out_);
  }

 private:
  [[nodiscard]] double lacks() const { return std::max(0.0, place_.holds - place_.width) + spare_; }
  // mm that a wall so wide stands too high.
  [[nodiscard]] double lacks_height() const {
    return place_.holds > 0 ? place_.tall * std::max(0.0, 1 - place_.width / place_.holds) + spare_ : 0;
  }

  // mm from the place to a piece's outlines; zero within them.
  [[nodiscard]] double away(std::size_t i) const {
    const Region& region = plan_.pieces[i]->outlines.region;
    if (contains(region, place_.at)) return 0;
    double least = 1e300;
    for (const Island& island : region.islands) {
      for (const Ring& ring : island.rings)
        least = std::min(least, distance(on_ring(ring, share_nearest(ring, place_.at)).at, place_.at));
    }
    return least;
  }
  // The nearest piece of these looks; null where none is near.
  [[nodiscard]] const Item* nearest(const std::vector<Kind>& of) const {
    const double reach = std::max(5.0, 2 * place_.holds);
    const Item* best = nullptr;
    double least = reach;
    for (std::size_t i = 0; i < job_.items.size(); ++i) {
      const Item& item = job_.items[i];
      if (std::find(of.begin(), of.end(), item.cut.kind) == of.end() || !plan_.pieces[i]->problem.empty()) continue;
      if (const double far = away(i); far < least || (best == nullptr && far <= least)) {
        least = far;
        best = &item;
      }
    }
    return best;
  }
  void add(std::string words, const std::string& piece, const std::function<void(Item&)>& change) {
    out_.push_back({std::move(words), [piece, change](Job& job) {
                      if (Item* it = job.find(piece)) change(*it);
                    }});
  }
  [[nodiscard]] std::string show(double mm) const { return size_in_words(mm, job_.lengths); }
  [[nodiscard]] static std::string quoted(const Item& item) { return "“" + item.piece.name + "”"; }

  // Up to a tenth of a millimetre, or 1/64 in.
  [[nodiscard]] double finely_up(double mm) const {
    const double step = job_.lengths.unit == Unit::Inch ? kMmPerInch / 64 : 0.1;
    return std::ceil(mm / step - 1e-6) * step;
  }

  // What is cut there less deep: each that reaches the place, so that skins are mended from either side.
  void lower(const std::vector<Kind>& of, double by) {
    for (std::size_t i = 0; i < job_.items.size(); ++i) {
      const Item& item = job_.items[i];
      if (std::find(of.begin(), of.end(), item.cut.kind) == of.end() || away(i) > std::max(3.0, place_.width)) continue;
      const bool limit = item.cut.kind == Kind::Incise;
      const double deep = limit ? plan_.pieces[i]->cuts.deepest - plan_.pieces[i]->cuts.ground : item.cut.depth;
      if (deep - by < kLeastDeep) continue;
      const double mm = said_within(deep - by, job_.lengths);
      if (limit)
        add(say("A flat floor in {0} at {1}", quoted(item), show(mm)), item.piece.id,
            [mm](Item& it) { it.cut.incise.floor_limit = mm; });
      else
        add(say("Make {0} {1} deep", quoted(item), show(mm)), item.piece.id, [mm](Item& it) { it.cut.depth = mm; });
    }
  }
  void slope() {
    const Item* item = nearest({Kind::Raise});
    if (item == nullptr || item->cut.raise.sloped) return;
    const Bit* own = plan_.rack.find(item->cut.bit);
    const Bit* v = own != nullptr && own->kind == BitKind::V ? own : usual_v(plan_.rack);
    if (v == nullptr) return;
    add(say("Slope the flanks of {0} with the {1}", quoted(*item), v->name), item->piece.id, [id = v->id](Item& it) {
      it.cut.raise.sloped = true;
      it.cut.bit = id;
    });
  }
  // Art that can be thickened by itself: lettering, drawings, frames.
  void thicken(const std::vector<Kind>& of) {
    const Item* item = nearest(of);
    if (item == nullptr) return;
    const double side = finely_up(lacks() / 2);
    const std::string words = say("Thicken {0} by {1} a side", quoted(*item), show(side));
    if (std::holds_alternative<Lettering>(item->piece.what))
      add(words, item->piece.id, [side](Item& it) { std::get<Lettering>(it.piece.what).thicken += side; });
    else if (std::holds_alternative<Drawing>(item->piece.what))
      add(words, item->piece.id, [side](Item& it) { std::get<Drawing>(it.piece.what).thicken += side; });
    else if (const auto* shape = std::get_if<PlainShape>(&item->piece.what); shape != nullptr && shape->band > 0)
      add(say("Make the frame {0} {1} wide", quoted(*item), show(shape->band + 2 * side)), item->piece.id,
          [side](Item& it) { std::get<PlainShape>(it.piece.what).band += 2 * side; });
  }
  // The nearest opening, or those on either side by half as much each.
  void move_off() {
    struct Side {
      const Item* item;
      Point way;  // away from the place, of length one
      double far;
    };
    std::vector<Side> sides;
    for (std::size_t i = 0; i < job_.items.size(); ++i) {
      const Item& item = job_.items[i];
      if (item.cut.kind != Kind::Pierce || !plan_.pieces[i]->problem.empty()) continue;
      const double far = away(i);
      const Point way = bounds(plan_.pieces[i]->outlines).centre() - place_.at;
      if (far < std::max(5.0, 2 * place_.holds) && length(way) > 1e-6)
        sides.push_back({&item, way * (1 / length(way)), far});
    }
    std::sort(sides.begin(), sides.end(), [](const Side& a, const Side& b) { return a.far < b.far; });
    if (sides.empty()) return;
    const Side& first = sides.front();
    const auto moved = [&](const Side& side, double by) {
      return std::pair(side.item->piece.id, rounded_outwards(side.way * by, job_.lengths.unit));
    };
    const auto whole = moved(first, lacks());
    out_.push_back({say("Move {0} {1}", quoted(*first.item), way_in_words(whole.second, job_.lengths)),
                    [whole](Job& job) { move_piece(job, whole.first, whole.second); }});
    const auto other = std::find_if(sides.begin() + 1, sides.end(), [&](const Side& side) {
      return side.way.x * first.way.x + side.way.y * first.way.y < -0.5;
    });
    if (other == sides.end()) return;
    out_.push_back({say("Move {0} and {1} apart, each by half of it", quoted(*first.item), quoted(*other->item)),
                    [one = moved(first, lacks() / 2), two = moved(*other, lacks() / 2)](Job& job) {
                      move_piece(job, one.first, one.second);
                      move_piece(job, two.first, two.second);
                    }});
  }
  void turn_grain() {
    if (!place_.across) return;
    out_.push_back({say("Take the board with its grain the other way"), [](Job& job) {
                      job.blank.grain = job.blank.grain == Grain::AlongWidth ? Grain::AlongHeight : Grain::AlongWidth;
                    }});
  }
  void plywood() {
    const std::string wood = wood_class_of(job_.blank);
    if (wood != "soft" && wood != "hard") return;
    const Species* sheet = species_table().find("birch-plywood");
    if (sheet == nullptr) return;
    out_.push_back({say("Make it of {0}", sheet->name), [](Job& job) { job.blank.species = "birch-plywood"; }});
  }

  static constexpr double kLeastDeep = 0.5;  // mm; less is no depth any more
  const Plan& plan_;
  const Job& job_;
  const WeakPlace& place_;
  double spare_;  // mm more than what just holds: it is measured in cells
  std::vector<Remedy> out_;
};

double weak_area(const WeakMap& map, WeakPlace::Kind kind) {
  double mm2 = 0;
  for (const WeakPlace& place : map.places) mm2 += place.kind == kind ? place.mm2 : 0;
  return mm2;
}

// Something as weak in the same way lies where the place was.
bool still_weak(const WeakMap& before, std::size_t place, const WeakMap& after) {
  std::vector<WeakMap::Run> lay;
  for (const WeakMap::Run& run : before.runs) {
    if (run.place == place) lay.push_back(run);
  }
  return std::any_of(after.runs.begin(), after.runs.end(), [&](const WeakMap::Run& run) {
    if (after.places[run.place].kind != before.places[place].kind) return false;
    return std::any_of(lay.begin(), lay.end(), [&](const WeakMap::Run& old) {
      return std::abs(old.y - run.y) < 0.75 * before.cell && run.x0 < old.x1 && old.x0 < run.x1;
    });
  });
}

}  // namespace

std::vector<Remedy> weak_remedies(const Plan& plan, const WeakMap& map, std::size_t place) {
  return Helpers(plan, map.places[place], map.cell).take();
}

std::optional<Mended> mends_weak(const Plan& plan, const WeakMap& before, std::size_t place, const Remedy& remedy,
                                 const Cancel& cancel) {
  Job job = plan.job;
  remedy.apply(job);
  if (job == plan.job) return std::nullopt;
  const Plan then = doyen::plan(job, plan.rack, plan.machine, nullptr, cancel);
  if (then.runs.empty() || then.count(Grade::Stop) > plan.count(Grade::Stop)) return std::nullopt;
  const WeakMap after = weak_places(then, cancel);
  const WeakPlace& was = before.places[place];
  if (still_weak(before, place, after) || after.places.size() > before.places.size()) return std::nullopt;
  // Moved elsewhere it is no better.
  if (weak_area(after, was.kind) > weak_area(before, was.kind) - was.mm2 / 2) return std::nullopt;
  return Mended{after.places.size(), then.seconds};
}

}  // namespace doyen
