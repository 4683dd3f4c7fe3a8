#include "planning/drills.hpp"

#include <algorithm>
#include <cmath>

#include "planning/again.hpp"
#include "planning/outputs.hpp"
#include "relief/carve.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kHigh = 1, kAside = 10, kLost = 5, kThicker = 0.8;  // mm, what is thrown in
constexpr double kSeen = 0.05;                                       // mm of depth that an eye or a nail finds

const BitRun* longest(const Plan& plan, Side side) {
  const BitRun* best = nullptr;
  for (const BitRun& run : plan.runs) {
    if (run.side == side && (best == nullptr || run.time.seconds > best->time.seconds)) best = &run;
  }
  return best;
}

// The first run of a side that comes with another bit than the one before it.
const BitRun* first_change(const Plan& plan, Side side) {
  for (std::size_t i = 1; i < plan.runs.size(); ++i) {
    if (plan.runs[i].side == side && plan.runs[i - 1].side == side && plan.runs[i].bit.id != plan.runs[i - 1].bit.id)
      return &plan.runs[i];
  }
  return nullptr;
}

bool anything_through(const Plan& plan, Side side) {
  return std::any_of(plan.runs.begin(), plan.runs.end(),
                     [&](const BitRun& run) { return run.side == side && goes_through_in(run); });
}

// Halfway through the longest run, where its bit stands then: surely in the way.
KeepOut clamp_in_the_way(const Plan& plan, Side side) {
  Point at = plan.job.blank.box().centre();
  if (const BitRun* run = longest(plan, side)) {
    std::size_t number = pass_count(*run) / 2;
    for (const Operation* op : run->operations) {
      if (number < op->passes.size()) {
        at = op->passes[number].points.front().flat();
        break;
      }
      number -= op->passes.size();
    }
  }
  return {KeepOut::Kind::Clamp, at.x, at.y, 40, 20};
}

Pass moved(Pass pass, const Point3& off) {
  for (Point3& p : pass.points) p = {p.x + off.x, p.y + off.y, p.z + off.z};
  return pass;
}

// One run as it goes with what is thrown in, until the bit meets metal.
class Run {
 public:
  Run(const Plan& plan, const BitRun& run, const Thrown& thrown)
      : travel_(travel_of(plan.job, plan.machine, run.side)), run_(run), thrown_(thrown) {}
  std::optional<Point> carve_into(HeightField& field, const Cancel& cancel) {
    const Bit& bit = thrown_.bit ? *thrown_.bit : run_.bit;
    const auto from = static_cast<std::size_t>(std::lround(thrown_.from * static_cast<double>(pass_count(run_))));
    std::size_t number = 0;
    std::vector<Pass> passes;
    std::optional<Point> hit;
    for (const Operation* op : run_.operations) {
      for (const Pass& pass : op->passes) {
        if (hit) break;
        Pass now = number++ < from ? pass : moved(pass, thrown_.off);
        hit = met(now, bit);
        if (!hit) passes.push_back(std::move(now));
      }
    }
    carve(field, passes, bit, cancel);
    return hit;
  }

 private:
  std::optional<Point> met(const Pass& pass, const Bit& bit) {
    if (!thrown_.metal) return {};
    const KeepOut& metal = *thrown_.metal;
    const double radius = bit.true_diameter() / 2;
    const Point3 down = pass.points.front();
    if (last_) {
      const double high = travel_.between(*last_, down.flat());
      if (const auto hit = first_hit(metal, {last_->x, last_->y, high}, {down.x, down.y, high}, radius)) return hit;
    }
    for (std::size_t i = 0; i < pass.points.size(); ++i) {
      if (const auto hit = first_hit(metal, pass.points[i > 0 ? i - 1 : 0], pass.points[i], radius)) return hit;
    }
    last_ = pass.points.back().flat();
    return {};
  }
  Travel travel_;
  const BitRun& run_;
  const Thrown& thrown_;
  std::optional<Point> last_;
};

bool is_cut(const HeightField& field, std::size_t c, std::size_t r) { return field.at(c, r) < -kSeen; }

Box cut_box(const HeightField& field) {
  Box box;
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c) {
      if (is_cut(field, c, r)) box.add(Point{field.x_of(c), field.y_of(r)});
    }
  }
  return box;
}

struct Shares {
  double higher = 0, lower = 0, same = 0;  // of what is cut in either
};
// `got` against `wanted` carried along by so many cells.
Shares compared(const HeightField& wanted, const HeightField& got, long across, long up) {
  Shares shares;
  double all = 0;
  const auto columns = static_cast<long>(got.columns()), rows = static_cast<long>(got.rows());
  for (long r = std::max(0L, up); r < std::min(rows, rows + up); ++r) {
    for (long c = std::max(0L, across); c < std::min(columns, columns + across); ++c) {
      const double g = got.at(static_cast<std::size_t>(c), static_cast<std::size_t>(r)),
                   w = wanted.at(static_cast<std::size_t>(c - across), static_cast<std::size_t>(r - up));
      if (g > -kSeen && w > -kSeen) continue;
      ++all;
      (g > w + kSeen ? shares.higher : g < w - kSeen ? shares.lower : shares.same) += 1;
    }
  }
  if (all > 0) shares = {shares.higher / all, shares.lower / all, shares.same / all};
  return shares;
}

// Of what was to come through, the share that did not.
double not_through(const Plan& plan, const HeightField& wanted, const Drilled& got) {
  double all = 0, hangs = 0;
  for (std::size_t r = 0; r < wanted.rows(); ++r) {
    for (std::size_t c = 0; c < wanted.columns(); ++c) {
      if (wanted.at(c, r) > -plan.job.blank.thickest()) continue;
      ++all;
      hangs += got.board.at(c, r) > -got.thickness ? 1 : 0;
    }
  }
  return all > 0 ? hangs / all : 0;
}

bool meets(const Box& box, Point p, double radius) {
  const double dx = std::max({box.left - p.x, p.x - box.right, 0.0}),
               dy = std::max({box.bottom - p.y, p.y - box.top, 0.0});
  return std::hypot(dx, dy) < radius;
}

}  // namespace

std::vector<KeepOut> standing_metal(const Plan& plan, Side side) {
  std::vector<KeepOut> metal;
  for (KeepOut place : plan.job.blank.keep_outs) {
    if (!place.metal() || (place.up == KeepOut::Up::Back) != (side == Side::Back)) continue;
    if (side == Side::Back) {
      const Point there = turned_over(Point{place.x, place.y}, plan.job.blank, plan.job.run.turn);
      place.x = there.x;
      place.y = there.y;
    }
    metal.push_back(place);
  }
  return metal;
}

std::optional<Point> first_hit(const KeepOut& metal, const Point3& a, const Point3& b, double radius) {
  if (std::min(a.z, b.z) > metal.above_face()) return {};
  const Box box = metal.box();
  const int parts = std::max(1, static_cast<int>(std::ceil(distance(a, b) / 0.5)));
  for (int k = 0; k <= parts; ++k) {
    const Point p = a.flat() + (b.flat() - a.flat()) * (static_cast<double>(k) / parts);
    if (meets(box, p, radius)) return p;
  }
  return {};
}

double thickness_with(const Plan& plan, Drill drill) {
  return plan.job.blank.thickest() + (drill == Drill::ThickerBoard ? kThicker : 0);
}

std::vector<Drill> drills_of(const Plan& plan, Side side) {
  std::vector<Drill> drills{Drill::None};
  if (longest(plan, side) == nullptr) return drills;
  drills.insert(drills.end(), {Drill::ZeroHigh, Drill::ZeroAside});
  if (first_change(plan, side) != nullptr) drills.push_back(Drill::WrongBit);
  drills.insert(drills.end(), {Drill::Clamp, Drill::LostSteps});
  if (side == Side::Front && plan.job.blank.film > kSeen && plan.job.run.zero_surface == ZeroSurface::Face &&
      plan.job.run.zero_floor <= 0)
    drills.push_back(Drill::FilmForgotten);
  if (anything_through(plan, side) || plan.job.run.zero_surface == ZeroSurface::Bed)
    drills.push_back(Drill::ThickerBoard);
  return drills;
}

std::string drill_in_words(const Plan& plan, Drill drill) {
  const auto show = [&](double mm) { return depth_in_words(mm, plan.job.lengths); };
  switch (drill) {
    case Drill::ZeroHigh:
      return say("Zero was set {0} too high", show(kHigh));
    case Drill::ZeroAside:
      return say("Zero was set {0} too far to the right", show(kAside));
    case Drill::WrongBit:
      return say("A bit was not changed");
    case Drill::Clamp:
      return say("A clamp stands in the way");
    case Drill::LostSteps:
      return say("The carriage was jolted {0} aside", show(kLost));
    case Drill::FilmForgotten:
      return say("Zero was taken on the wood instead of the film");
    case Drill::ThickerBoard:
      return say("The board is {0} thicker than it was read", show(kThicker));
    case Drill::None:
      break;
  }
  return say("Nothing: as it is planned");
}

Thrown thrown_in(const Plan& plan, Drill drill, const BitRun& run) {
  Thrown thrown;
  const Side side = run.side;
  switch (drill) {
    case Drill::None:
      break;
    case Drill::ZeroHigh:
      thrown.off.z = kHigh;
      break;
    case Drill::ZeroAside:
      thrown.off.x = kAside;
      break;
    case Drill::WrongBit:
      if (&run == first_change(plan, side)) thrown.bit = (&run - 1)->bit;
      break;
    case Drill::Clamp:
      thrown.metal = clamp_in_the_way(plan, side);
      break;
    case Drill::LostSteps: {
      const BitRun* jolted = longest(plan, side);
      if (&run < jolted) break;
      thrown.off.x = kLost;
      thrown.from = &run == jolted ? 0.5 : 0;
      break;
    }
    case Drill::FilmForgotten:
      thrown.off.z = -plan.job.blank.film;
      break;
    case Drill::ThickerBoard:
      // From the bed everything stands as it stood, in more wood; from the face only what is to come through is short.
      if (plan.job.run.zero_surface == ZeroSurface::Bed) thrown.off.z = -kThicker;
      break;
  }
  return thrown;
}

Drilled carve_with(const Plan& plan, Drill drill, double cell, Side side, const Cancel& cancel) {
  Drilled out{HeightField(plan.job.blank.box(), cell), {}, thickness_with(plan, drill)};
  out.board.clear();
  for (const BitRun& run : plan.runs) {
    if (run.side != side || out.hit) continue;
    const Thrown thrown = thrown_in(plan, drill, run);
    out.hit = Run(plan, run, thrown).carve_into(out.board, cancel);
  }
  return out;
}

std::vector<Seen> all_seen() {
  return {Seen::AsWanted,  Seen::Shallow,  Seen::Deep,       Seen::Aside,
          Seen::HalfAside, Seen::OddShape, Seen::NotThrough, Seen::HitMetal};
}

std::string seen_in_words(Seen seen) {
  switch (seen) {
    case Seen::AsWanted:
      return say("Everything is as it was wanted");
    case Seen::Shallow:
      return say("Everything is too shallow, lines too narrow");
    case Seen::Deep:
      return say("Everything is too deep, lines too wide");
    case Seen::Aside:
      return say("Everything lies aside, the same way");
    case Seen::HalfAside:
      return say("A part lies right, the rest aside");
    case Seen::OddShape:
      return say("It lies right, but something has another shape");
    case Seen::NotThrough:
      return say("It looks right, but what is cut out does not come through");
    case Seen::HitMetal:
      return say("The bit ran into metal");
  }
  return {};
}

Seen seen_on(const Plan& plan, const HeightField& wanted, const Drilled& got) {
  constexpr double kFew = 0.02;
  if (got.hit) return Seen::HitMetal;
  const Shares plain = compared(wanted, got.board, 0, 0);
  if (plain.higher < kFew && plain.lower < kFew)
    return not_through(plan, wanted, got) > 0.5 ? Seen::NotThrough : Seen::AsWanted;
  // Of a wrong height nothing stays as it was; of a wrong bit all that other bits cut.
  constexpr double kMuch = 0.2;
  if (plain.lower < kFew) return plain.same < kMuch ? Seen::Shallow : Seen::OddShape;
  if (plain.higher < kFew) return plain.same < kMuch ? Seen::Deep : Seen::OddShape;
  const Point off = cut_box(got.board).centre() - cut_box(wanted).centre();
  const double cell = wanted.cell();
  const auto in_cells = [&](double mm) { return std::lround(mm / cell); };
  if (std::hypot(off.x, off.y) < 1.5 * cell) return Seen::OddShape;
  const Shares carried = compared(wanted, got.board, in_cells(off.x), in_cells(off.y));
  return carried.same > 0.9 ? Seen::Aside : Seen::HalfAside;
}

std::string foretold(const Plan& plan, Drill drill, Side side) {
  const auto show = [&](double mm) { return depth_in_words(mm, plan.job.lengths); };
  // Wood that is left under what is to come through when the bit stands so much too high.
  const auto hangs = [&](double high) {
    double lowest = 0;
    for (const BitRun& run : plan.runs) lowest = run.side == side ? std::max(lowest, run.deepest) : lowest;
    const double left = plan.job.blank.thickest() + high - lowest;
    if (!anything_through(plan, side)) return std::string();
    return " " + (left > 0 ? say("What is cut out still hangs by {0}.", show(left))
                           : say("What is cut out comes through all the same, by {0}.", show(-left)));
  };
  switch (drill) {
    case Drill::ZeroHigh:
      return say("Every cut is {0} shallower, and lines are narrower.", show(kHigh)) + hangs(kHigh) + " " +
             say("Stop. While the board has not moved, set z again on the same surface and run the same files once "
                 "more: "
                 "they go over it, deeper.");
    case Drill::ZeroAside:
      return say("Everything lies {0} to the right of where it was wanted, and may run off the edge there.",
                 show(kAside)) +
             " " + say("Stop before the wood is wasted: a look round in the air would have shown it.");
    case Drill::WrongBit: {
      const BitRun* run = first_change(plan, side);
      if (run == nullptr) break;
      return say("The {0} did what the {1} was to do: what it was to cut has another width and other flanks.",
                 (run - 1)->bit.name, run->bit.name) +
             " " + say("Stop, change the bit, set z anew, and run that file again: what was cut too wide stays.");
    }
    case Drill::Clamp:
      return say("The bit runs into the clamp; it breaks, or the board is torn loose.") + " " +
             say("Mark clamps and screws on the blank: then everything keeps clear of them, and what cannot is said.");
    case Drill::LostSteps:
      return say("From the jolt on everything lies {0} aside; what was cut before is right.", show(kLost)) + " " +
             say("Stop. The witness mark shows it before the next bit cuts: find x and y again there, then write the "
                 "rest "
                 "of the file from before the jolt.");
    case Drill::FilmForgotten:
      return say("Every cut is {0} deeper, and lines are wider: zero stood as much too low.",
                 show(plan.job.blank.film));
    case Drill::ThickerBoard:
      if (plan.job.run.zero_surface == ZeroSurface::Bed)
        return say("Everything is {0} deeper, counted from its face, and lines are wider.", show(kThicker)) + " " +
               say("Measure the board at several places, and put the readings in under Blank.");
      return say("The cuts are right, counted from the face.") + hangs(kThicker) + " " +
             say("While the board has not moved, write the cut-out once more, deeper.");
    case Drill::None:
      break;
  }
  return say("Everything comes out as it was wanted.");
}

}  // namespace doyen
