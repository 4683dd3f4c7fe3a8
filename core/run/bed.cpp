#include "run/bed.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "wording/say.hpp"

namespace doyen {
namespace {

// mm: blocks of wood as they are sawn for it, a bar, dowels (common practice, no source).
constexpr double kBlock = 40, kDeep = 20, kDowel = 10, kShort = 130;

double dowel_of(const MachineProfile& machine) { return machine.hole_wide > 0 ? machine.hole_wide : kDowel; }

// A part that touches an edge of the board from outside: `along` its middle along the edge, `wide` its size there.
struct Edge {
  bool upright = false;  // a left or right edge
  double at = 0;         // mm, where the edge lies
  double outwards = -1;  // −1 where the part lies left of, or in front of it
  [[nodiscard]] Box part(double along, double wide, double deep) const {
    const double low = outwards < 0 ? at - deep : at, high = low + deep;
    return upright ? Box{low, along - wide / 2, high, along + wide / 2}
                   : Box{along - wide / 2, low, along + wide / 2, high};
  }
};

// The nearest to `wanted` of the holes at `first` + n·`apart`.
double hole_near(double wanted, double first, double apart) {
  return first + std::round((wanted - first) / apart) * apart;
}

}  // namespace

Box lying_box(const Blank& blank, OnBed turn) {
  const bool quarter = turn == OnBed::QuarterLeft || turn == OnBed::QuarterRight;
  return quarter ? Box{0, 0, blank.height, blank.width} : Box{0, 0, blank.width, blank.height};
}

Box travel_box(const MachineProfile& machine) { return {0, 0, machine.travel[0], machine.travel[1]}; }

Box bed_box(const MachineProfile& machine) {
  const double left = machine.bed_wide > 0 ? -machine.bed_left : 0,
               front = machine.bed_deep > 0 ? -machine.bed_front : 0;
  return {left, front, left + (machine.bed_wide > 0 ? machine.bed_wide : machine.travel[0]),
          front + (machine.bed_deep > 0 ? machine.bed_deep : machine.travel[1])};
}

Placement lying_placement(const Job& job) {
  Placement placed{0, 0, 0, job.run.on_bed};
  const Box lying = placed.at_machine(job.blank.box());
  placed.x = 0 - lying.left;
  placed.y = 0 - lying.bottom;
  return placed;
}

std::optional<Point> left_front_on_bed(const Job& job) {
  const Fixture& f = job.run.fixture;
  if (!f.placed()) return {};
  const Box lying = lying_box(job.blank, job.run.on_bed);
  return Point{*f.x - (f.left() ? 0 : lying.width()), *f.y - (f.front() ? 0 : lying.height())};
}

Point middle_of_travel(const Job& job, const MachineProfile& machine) {
  const Box lying = lying_box(job.blank, job.run.on_bed);
  return {(machine.travel[0] - lying.width()) / 2, (machine.travel[1] - lying.height()) / 2};
}

Point pushed_corner(const Job& job, Point origin) {
  const Box lying = lying_box(job.blank, job.run.on_bed);
  const Fixture& f = job.run.fixture;
  return origin + Point{f.left() ? 0 : lying.width(), f.front() ? 0 : lying.height()};
}

void move_on_bed(Job& job, Point by) {
  Fixture& f = job.run.fixture;
  f.x = f.x.value_or(0) + by.x;
  f.y = f.y.value_or(0) + by.y;
}

double fixture_stands(const Job& job) {
  return job.run.fixture.stands > 0 ? job.run.fixture.stands : job.blank.thinnest() / 2;
}

namespace {

// Where a fixture's parts stand along the board's longer edge and on its shorter one, mm from the low corner.
struct PartPlaces {
  std::vector<double> along;
  double end = 0;
};

PartPlaces part_places(const Fixture& f, bool wide, double length, double breadth) {
  PartPlaces places;
  // Counted from the corner that is pushed home.
  const auto from_corner = [](double mm, double edge, bool low) { return low ? mm : edge - mm; };
  for (const std::optional<double>& said : {f.first, f.second}) {
    if (said) places.along.push_back(from_corner(*said, length, wide ? f.left() : f.front()));
  }
  if (places.along.empty() && length < kShort) places.along = {length / 2};
  if (places.along.empty()) places.along = {length / 6, length * 5 / 6};
  places.end = f.end ? from_corner(*f.end, breadth, wide ? f.front() : f.left()) : breadth / 2;
  return places;
}

// Dowels go where the bed has holes.
std::vector<FixturePart> dowels_at(const Job& job, const MachineProfile& machine, const Edge& longer,
                                   const Edge& shorter, const PartPlaces& places) {
  std::vector<FixturePart> parts;
  const double d = dowel_of(machine);
  const std::optional<Point> origin = left_front_on_bed(job);
  const auto stand = [&](const Edge& edge, double wanted) {
    if (origin && machine.hole_pitch > 0) {
      const double from = edge.upright ? origin->y : origin->x;
      wanted = hole_near(wanted + from, edge.upright ? machine.hole_y : machine.hole_x, machine.hole_pitch) - from;
    }
    parts.push_back({FixturePart::What::Dowel, edge.part(wanted, d, d)});
  };
  for (const double at : places.along) stand(longer, at);
  stand(shorter, places.end);
  return parts;
}

}  // namespace

std::vector<FixturePart> fixture_parts(const Job& job, const MachineProfile& machine) {
  using What = FixturePart::What;
  const Fixture& f = job.run.fixture;
  if (f.kind == Fixture::Kind::None) return {};
  const Box lying = lying_box(job.blank, job.run.on_bed);
  const Edge side{true, f.left() ? 0 : lying.width(), f.left() ? -1.0 : 1.0};
  const Edge end{false, f.front() ? 0 : lying.height(), f.front() ? -1.0 : 1.0};
  const bool wide = lying.width() >= lying.height();
  const Edge &longer = wide ? end : side, &shorter = wide ? side : end;
  const double length = std::max(lying.width(), lying.height()), breadth = std::min(lying.width(), lying.height());
  const PartPlaces places = part_places(f, wide, length, breadth);
  if (f.kind == Fixture::Kind::Dowels) return dowels_at(job, machine, longer, shorter, places);
  const double block = f.part_long > 0 ? f.part_long : kBlock, deep = f.part_wide > 0 ? f.part_wide : kDeep;
  std::vector<FixturePart> parts;
  if (f.kind == Fixture::Kind::Fence)
    parts.push_back({What::Fence, longer.part(length / 2, f.part_long > 0 ? f.part_long : length, deep)});
  else
    for (const double at : places.along) parts.push_back({What::Stop, longer.part(at, block, deep)});
  parts.push_back({What::Stop, shorter.part(places.end, std::min(block, breadth), deep)});
  if (f.kind == Fixture::Kind::Stops) {
    Edge across = shorter;
    across.at = length - shorter.at;
    across.outwards = -shorter.outwards;
    parts.push_back({What::Wedge, across.part(places.end, std::min(block, breadth), deep)});
  }
  return parts;
}

std::string corner_in_words(const Fixture& fixture) {
  if (fixture.left()) return fixture.front() ? say("left front corner") : say("left back corner");
  return fixture.front() ? say("right front corner") : say("right back corner");
}

std::string fixture_in_words(const Fixture& fixture) {
  const std::string corner = corner_in_words(fixture);
  switch (fixture.kind) {
    case Fixture::Kind::Stops:
      return say("stops at its {0}, and a wedge opposite", corner);
    case Fixture::Kind::Fence:
      return say("a fence along its longer edge, and a stop, at its {0}", corner);
    case Fixture::Kind::Dowels:
      return say("dowels in the bed's holes, at its {0}", corner);
    case Fixture::Kind::None:
      break;
  }
  return {};
}

std::optional<Point> off_the_holes(const Job& job, const MachineProfile& machine) {
  const Fixture& f = job.run.fixture;
  if (f.kind != Fixture::Kind::Dowels || !f.placed() || machine.hole_pitch <= 0) return {};
  // A dowel's middle lies half its width outside of each edge that meets at the corner.
  const double r = dowel_of(machine) / 2;
  const Point middle{*f.x + (f.left() ? -r : r), *f.y + (f.front() ? -r : r)};
  return Point{hole_near(middle.x, machine.hole_x, machine.hole_pitch) - middle.x,
               hole_near(middle.y, machine.hole_y, machine.hole_pitch) - middle.y};
}

std::optional<Point> into_travel(const Box& reach, const Job& job, const MachineProfile& machine) {
  const std::optional<Point> origin = left_front_on_bed(job);
  if (!origin) return {};
  constexpr double kHair = 1e-6;  // mm
  const double pitch = job.run.fixture.kind == Fixture::Kind::Dowels ? machine.hole_pitch : 0;
  const auto least = [&](double low, double high, double travel) -> std::optional<double> {
    if (low >= -kHair && high <= travel + kHair) return 0;
    double by = low < 0 ? -low : travel - high;
    if (pitch > 0) by = by > 0 ? std::ceil(by / pitch - kHair) * pitch : std::floor(by / pitch + kHair) * pitch;
    if (low + by < -kHair || high + by > travel + kHair) return {};
    return by;
  };
  const auto x = least(origin->x + reach.left, origin->x + reach.right, machine.travel[0]);
  const auto y = least(origin->y + reach.bottom, origin->y + reach.top, machine.travel[1]);
  if (!x || !y) return {};
  return Point{*x, *y};
}

std::optional<Point> zero_from_home(const Job& job, const MachineProfile& machine) {
  const std::optional<Point> origin = left_front_on_bed(job);
  if (!origin || machine.home == HomeCorner::Unknown) return {};
  const bool right = machine.home == HomeCorner::RightFront || machine.home == HomeCorner::RightBack;
  const bool back = machine.home == HomeCorner::LeftBack || machine.home == HomeCorner::RightBack;
  const Point seen = *origin + zero_lying(job) - Point{right ? machine.travel[0] : 0, back ? machine.travel[1] : 0};
  return Point{machine.x_left ? 0 - seen.x : seen.x, machine.y_near ? 0 - seen.y : seen.y};
}

}  // namespace doyen
