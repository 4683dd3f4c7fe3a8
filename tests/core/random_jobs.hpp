// Jobs made at random from a seed: heaps of anything with any treatment, and signs laid out as people lay them out.
#pragma once

#include <random>
#include <string>
#include <vector>

#include "job/job.hpp"
#include "oracle.hpp"
#include "workbench.hpp"

namespace workbench {

// What both are made with.
class Dice {
 protected:
  explicit Dice(unsigned seed) : random_(seed) {}
  double between(double least, double most) { return std::uniform_real_distribution<double>(least, most)(random_); }
  int whole(int least, int most) { return std::uniform_int_distribution<int>(least, most)(random_); }
  bool flip(double share = 0.5) { return between(0, 1) < share; }
  std::string pick(const std::vector<std::string>& from) {
    return from[static_cast<std::size_t>(whole(0, static_cast<int>(from.size()) - 1))];
  }
  // Any way round, zero anywhere; told by its size, so that all else stays as the seed has it.
  static void lay_on_bed(Job& job) {
    const int digits = static_cast<int>(job.blank.width * 100);
    job.run.on_bed = static_cast<OnBed>(digits % 4);
    job.run.zero_place = static_cast<ZeroPlace>(digits / 4 % 9);
  }
  std::mt19937 random_;
};

class JobMaker : Dice {
 public:
  explicit JobMaker(unsigned seed) : Dice(seed) {}

  Job job() {
    Job job;
    job.name = "Random";
    job.lengths.unit = flip() ? Unit::Inch : Unit::Millimetre;
    job.blank.width = between(120, 320);
    job.blank.height = between(90, 240);
    job.blank.readings = {between(8, 30)};
    if (flip()) job.blank.readings.push_back(job.blank.readings[0] + between(0, 0.6));
    job.blank.species = pick({"western-red-cedar", "black-walnut", "white-oak", "mdf", "birch-plywood", "teak"});
    job.blank.grain = flip() ? Grain::AlongWidth : Grain::AlongHeight;
    job.blank.margin = between(0, 10);
    if (flip(0.2)) job.blank.film = 0.25;
    job.run.one_file = flip(0.3);
    job.run.zero_surface = flip(0.3) ? ZeroSurface::Bed : ZeroSurface::Face;
    job.run.zero_place = flip(0.3) ? ZeroPlace::Centre : ZeroPlace::LeftFront;
    lay_on_bed(job);
    job.run.cut_out_last = flip(0.7);
    job.run.low_travel = flip();
    if (flip(0.2)) job.run.mill_level = between(0.5, 6);
    const auto& machines = machine_table().machines;
    job.run.machine = machines[static_cast<std::size_t>(whole(0, static_cast<int>(machines.size()) - 1))].id;
    const int pieces = whole(1, 4);
    for (int i = 0; i < pieces; ++i) job.items.push_back(item(job, i));
    return job;
  }

 private:
  Item item(const Job& job, int i) {
    Item item;
    item.piece.id = "p" + std::to_string(i);
    item.piece.name = "Piece " + std::to_string(i);
    item.piece.at = {between(20, job.blank.width - 20), between(20, job.blank.height - 20)};
    item.piece.turn = flip(0.3) ? between(-180, 180) : 0;
    const double wide = between(3, job.blank.width / 2), high = between(3, job.blank.height / 2);
    if (flip(0.4)) {
      Region region = clean(
          {oracle::random_ring(random_, {0, 0}, std::min(wide, high) / 4, std::min(wide, high) / 2, whole(3, 12))});
      item.piece.what = frozen({region, {}, {}, {}, {}, {}}, item.piece.name);
    } else {
      item.piece.what = PlainShape{flip() ? PlainShape::Kind::Rectangle : PlainShape::Kind::Ellipse, wide, high};
    }
    item.cut = treatment(job);
    return item;
  }

  Treatment treatment(const Job& job) {
    constexpr Kind kKinds[] = {Kind::None,   Kind::Incise, Kind::CutOut, Kind::Line,  Kind::Raise,      Kind::Recess,
                               Kind::Pierce, Kind::Bevel,  Kind::Drill,  Kind::Plane, Kind::HangerSlot, Kind::Inlay};
    Treatment t;
    t.kind = kKinds[whole(0, 11)];
    const double thick = job.blank.thinnest();
    t.depth = between(0.2, thick * 0.7);
    const WantedBit wanted = wanted_bit(t);
    t.bit = wanted == WantedBit::V         ? pick({"v30", "v60", "v90", "engrave20"})
            : wanted == WantedBit::Flat    ? pick({"flat-1/8in", "flat-1/4in", "flat-3mm"})
            : wanted == WantedBit::Keyhole ? "keyhole-3/8in"
                                           : pick({"v60", "flat-1/8in", "ball-1/8in"});
    if (t.kind == Kind::Incise && flip()) t.incise.floor_limit = between(0.3, thick * 0.6);
    if (flip(0.4)) t.clearing = {pick({"flat-1/8in", "flat-1/4in", "flat-1/2in"})};
    t.raise.sloped = flip();
    t.raise.steps = flip(0.2) ? whole(2, 4) : 1;
    t.raise.terrace = between(1, 6);
    t.pierce.slug = flip();
    t.bevel.inside = flip();
    t.back = t.kind == Kind::HangerSlot || (t.kind != Kind::Inlay && flip(0.15));
    t.moves.way = flip() ? Moves::Way::Rings : Moves::Way::AlongGrain;
    t.moves.entry = flip() ? Moves::Entry::Ramp : Moves::Entry::Helix;
    t.moves.climb = flip();
    t.moves.stepover = between(0.15, 0.7);
    t.moves.leave_on = flip(0.2) ? 0.2 : 0;
    t.resin = flip(0.2);
    t.inlay.v_alone = false;
    t.through.tabs = usual_tabs(job.blank);
    t.inlay.sloped = flip(0.7);
    if (t.kind == Kind::Inlay && t.inlay.sloped && t.bit != "v30" && t.bit != "v90") t.bit = "v60";
    t.inlay.contact = t.depth * between(0.5, 0.95);
    t.inlay.saw_gap = between(0.5, 2);
    t.inlay.thickness = t.inlay.contact + t.inlay.saw_gap + between(0.5, 10);
    t.inlay.crossed = flip(0.2);
    t.inlay.wood = pick({"sugar-maple", "black-cherry"});
    if (t.kind == Kind::Recess && flip(0.3)) {
      t.insert.thickness = between(0.5, thick * 0.4);
      t.insert.cut = flip();
      t.insert.material = pick({"acrylic", "brass", "shell"});
    }
    return t;
  }
};

// A board with an outline to be cut out, floors and raised shapes on it, and grooves, lines and holes on those, at
// every distance from each other, with exact figures among them.
class SignMaker : Dice {
 public:
  explicit SignMaker(unsigned seed) : Dice(seed) {}

  Job job() {
    Job job = board(between(150, 280), between(110, 200), between(12, 24));
    job.name = "Random sign";
    if (flip()) job.blank.readings.push_back(job.blank.readings[0] + between(0, 0.5));
    job.blank.species = pick({"western-red-cedar", "black-walnut", "birch-plywood"});
    job.run.zero_surface = flip(0.3) ? ZeroSurface::Bed : ZeroSurface::Face;
    job.run.turn = flip() ? TurnOver::LeftEdge : TurnOver::FrontEdge;
    lay_on_bed(job);
    job.run.one_file = flip(0.2);
    const Point middle = job.blank.box().centre();
    const double wide = job.blank.width - 30, high = job.blank.height - 30;
    if (flip(0.6)) outline(job, middle, wide, high);
    const int ground = whole(0, 3);
    const double inner_wide = wide * between(0.5, 0.85), inner_high = high * between(0.5, 0.85);
    if (ground == 1) recess(job, middle, inner_wide, inner_high);
    if (ground == 2) raised(job, middle, inner_wide, inner_high);
    if (ground == 3) planed(job, middle, inner_wide, inner_high);
    const int more = whole(1, 4);
    for (int i = 0; i < more; ++i) small(job, middle, inner_wide, inner_high);
    return job;
  }

 private:
  std::string id(const Job& job, const char* stem) { return stem + std::to_string(job.items.size()); }
  double thin(const Job& job) { return job.blank.thinnest(); }

  void put(Job& job, const char* stem, const Piece& like, const Treatment& cut) {
    Item item{like, cut};
    item.piece.id = item.piece.name = id(job, stem);
    job.items.push_back(std::move(item));
  }
  Piece shape(PlainShape what, Point at, double turn = 0) { return {"", "", what, at, turn}; }

  // Every kind of corner: square, round, drawn in, pointed either way.
  PlainShape form(double wide, double high) {
    switch (whole(0, 5)) {
      case 0:
        return {PlainShape::Kind::Ellipse, wide, high};
      case 1: {
        PlainShape s{PlainShape::Kind::Rectangle, wide, high};
        s.corner_radius = std::min(wide, high) * between(0.02, 0.3);
        s.corner_form = static_cast<PlainShape::CornerForm>(whole(0, 3));
        return s;
      }
      case 2: {
        PlainShape s{PlainShape::Kind::Star, wide, high};
        s.points = whole(3, 8);
        s.inner = between(0.3, 0.8);
        return s;
      }
      case 3: {
        PlainShape s{PlainShape::Kind::Polygon, wide, high};
        s.points = whole(3, 9);
        return s;
      }
      default:
        return {PlainShape::Kind::Rectangle, wide, high};
    }
  }
  Treatment usual(const Job& job, Kind kind, double depth) {
    Treatment t = cut(kind, depth);
    t.through.tabs = usual_tabs(job.blank);
    t.moves.way = flip(0.7) ? Moves::Way::Rings : Moves::Way::AlongGrain;
    t.moves.entry = flip(0.7) ? Moves::Entry::Ramp : Moves::Entry::Helix;
    t.moves.climb = flip();
    t.moves.stepover = between(0.2, 0.7);
    if (flip(0.2)) t.moves.leave_on = between(0.1, 0.4);
    return t;
  }
  void outline(Job& job, Point middle, double wide, double high) {
    const PlainShape what = flip() ? PlainShape{PlainShape::Kind::Ellipse, wide, high} : form(wide, high);
    Treatment t = usual(job, Kind::CutOut, 1);
    put(job, "outline", shape(what, middle), t);
    if (!flip(0.4)) return;
    Treatment b = usual(job, Kind::Bevel, between(0.5, 3));
    b.bit = pick({"v60", "v90"});
    put(job, "bevel", shape(what, middle), b);
  }
  void recess(Job& job, Point middle, double wide, double high) {
    Treatment t = usual(job, Kind::Recess, between(0.5, thin(job) * 0.45));
    if (flip()) t.clearing = flip() ? std::vector<BitId>{"flat-1/4in", "flat-1/8in"} : std::vector<BitId>{"flat-1/8in"};
    put(job, "recess", shape(form(wide, high), middle), t);
    if (flip(0.3)) {
      Treatment deeper = usual(job, Kind::Recess, between(0.5, 3));
      put(job, "step", shape(form(wide / 2, high / 2), middle), deeper);
    }
  }
  void raised(Job& job, Point middle, double wide, double high) {
    const PlainShape panel{flip() ? PlainShape::Kind::Ellipse : PlainShape::Kind::Rectangle, wide, high};
    Treatment none;
    put(job, "panel", shape(panel, middle), none);
    const std::string of = job.items.back().piece.id;
    const double depth = between(0.5, 5);
    const bool sloped = flip(0.7);
    const std::string v = pick({"v30", "v60", "v90"});
    const int shapes = whole(1, 3);
    for (int i = 0; i < shapes; ++i) {
      Treatment t = usual(job, Kind::Raise, depth);
      t.bit = v;
      t.raise.sloped = sloped;
      t.raise.panel = of;
      if (flip(0.15)) t.raise.steps = 2;
      const double size = std::min(wide, high) * between(0.15, 0.4);
      put(job, "raised",
          shape(form(size, size), middle + Point{wide * between(-0.3, 0.3), high * between(-0.25, 0.25)},
                between(0, 90)),
          t);
    }
  }
  void planed(Job& job, Point middle, double wide, double high) {
    Treatment t = usual(job, Kind::Plane, between(0.3, 3));
    const bool whole_board = flip();
    put(job, "planed",
        shape({PlainShape::Kind::Rectangle, whole_board ? job.blank.width + 4 : wide,
               whole_board ? job.blank.height + 4 : high},
              middle),
        t);
  }
  void small(Job& job, Point middle, double wide, double high) {
    const Point at = middle + Point{wide * between(-0.45, 0.45), high * between(-0.45, 0.45)};
    const double size = between(4, 40);
    const double turn = flip() ? 0 : between(0, 180);
    switch (whole(0, 7)) {
      case 0: {  // a stroke that just closes at its limit
        Treatment t = usual(job, Kind::Incise, 1);
        const double across = between(2, 10);
        t.bit = "v90";
        t.incise.floor_limit = across / 2;
        put(job, "closes", shape({PlainShape::Kind::Rectangle, size + across, across}, at, turn), t);
        break;
      }
      case 1: {
        Treatment t = usual(job, Kind::Incise, 1);
        t.bit = pick({"v30", "v60", "v90", "engrave20"});
        if (flip()) t.incise.floor_limit = between(0.3, 4);
        if (flip(0.3)) t.clearing = {"flat-1/8in"};
        put(job, "groove", shape(form(size, size * between(0.2, 1)), at, turn), t);
        break;
      }
      case 2: {
        Treatment t = usual(job, Kind::Line, between(0.2, 4));
        t.bit = pick({"v60", "ball-1/8in", "flat-1/8in", "v90"});
        if (flip(0.2)) t.line.hatch = between(0.5, 3);
        put(job, "line", shape(form(size, size), at, turn), t);
        break;
      }
      case 3: {  // a hole of the bit's own size
        Treatment t = usual(job, Kind::Pierce, 1);
        t.bit = "flat-1/4in";
        put(job, "hole", shape({PlainShape::Kind::Ellipse, 6.35, 6.35}, at), t);
        break;
      }
      case 4: {
        Treatment t = usual(job, Kind::Pierce, 1);
        t.bit = pick({"flat-1/4in", "flat-1/8in"});
        t.pierce.slug = flip();
        put(job, "opening", shape(form(size + 5, size + 5), at, turn), t);
        break;
      }
      case 5: {
        Treatment t = usual(job, Kind::Drill, flip() ? job.blank.thickest() + 0.3 : between(1, 8));
        t.bit = "flat-1/4in";
        put(job, "drilled", shape({PlainShape::Kind::Ellipse, 6, 6}, at), t);
        break;
      }
      case 6: {
        Treatment t = usual(job, Kind::Inlay, between(2, 5));
        t.inlay.sloped = flip(0.7);
        t.inlay.contact = t.depth * 0.76;
        put(job, "inlay", shape(form(size + 4, size + 4), at, turn), t);
        break;
      }
      default: {
        Treatment t = usual(job, Kind::Incise, 1);
        t.back = true;
        t.incise.floor_limit = between(0.5, 2);
        put(job, "back", shape(form(size, size), at, turn), t);
        break;
      }
    }
  }
};

}  // namespace workbench
