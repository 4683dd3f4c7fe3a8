#include "judge/wanted.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

#include "treatments/holes.hpp"
#include "treatments/piece_cuts.hpp"
#include "treatments/recess/recess_shape.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr float kFace = 0;
constexpr float kBottomless = -1e6F;
constexpr double kWall = 0.02;  // mm either way of an upright wall that no sentence is made of
constexpr double kChord =
    0.005;  // mm that offsets and rings of flattened outlines are off: much in height beside steep flanks
constexpr double kGround = 0.03;   // mm that a piece's ground may differ from where it is cut
constexpr double kReached = 0.05;  // mm inside of what a bit can reach from which on it must have come

std::uint64_t mixed(std::uint64_t a, std::uint64_t b) {
  a ^= b + 0x9E3779B97F4A7C15ULL + (a << 6) + (a >> 2);
  return a;
}

// What one part of a treatment takes away, as heights; kFace asks for nothing.
struct Request {
  float low = kFace, high = kFace, reach = kFace;
};

// One thing that is taken away, with everything that its cells are asked.
class Feature {
 public:
  virtual ~Feature() = default;
  Feature() = default;
  Feature(const Feature&) = delete;
  Feature& operator=(const Feature&) = delete;

  // Lowers the bounds where this is asked for.
  virtual void apply(const CellGrid& grid, WantedBounds& out) const = 0;
  // Farther than this outside `box` nothing is asked.
  Box box;
  std::uint64_t key = 0;
  double ground = 0;     // mm below the face that it starts from
  bool anywhere = true;  // not only where that ground is wanted
  bool asked = true;     // else it may be taken and need not be

 protected:
  void take(WantedBounds& out, std::size_t i, const Request& r) const {
    if (r.low >= 0) return;
    // It is cut where its ground is: beside it stands wood that it must not touch.
    if (!anywhere && out.low[i] > -ground + kGround) return;
    out.low[i] = std::min(out.low[i], r.low);
    if (!asked) return;
    out.high[i] = std::min(out.high[i], r.high);
    out.reach[i] = std::min(out.reach[i], r.reach);
  }
};

// A V-groove whose outline lies `sunk` mm below its ground; its flanks run on upwards past the outline.
class GrooveWanted : public Feature {
 public:
  GrooveWanted(const Region& region, double z, double tan_half, double tip, double limit, double sunk)
      : region_(region), outline_(region), z_(z), tan_(tan_half), tip_(tip), limit_(limit), sunk_(sunk) {
    box = ::doyen::bounds(region_).grown(sunk_ * tan_ + 0.1);
  }

  void apply(const CellGrid& grid, WantedBounds& out) const override {
    // With a tip flat the bottom lies as deep as the farthest place within the flat allows: a few cells more are seen.
    const int halo = tip_ > 0 ? static_cast<int>(std::ceil(tip_ / 2 / grid.cell)) + 1 : 0;
    const CellGrid wide = grid.grown(halo);
    const double most = std::max(limit_ * tan_ + tip_, sunk_ * tan_) + grid.cell;
    const SeenFigure seen(region_, outline_, wide, most);
    if (seen.away()) return;
    for (int r = 0; r < grid.rows; ++r) {
      for (int c = 0; c < grid.columns; ++c) {
        const std::size_t w = wide.at(c + halo, r + halo);
        const double d = seen.distance(w);
        Request ask;
        if (seen.inside(w)) {
          ask.low = static_cast<float>(z_ - std::min(limit_, (d + kChord) / tan_));
          const double deep = std::min(
              limit_, std::max(0.0, (halo > 0 ? farthest(wide, seen, c + halo, r + halo) : d) - tip_ / 2) / tan_);
          ask.reach = static_cast<float>(z_ - deep);
          // Corners and strokes that the flat does not enter are left; its flat bottom is what it makes.
          ask.high = deep > 0 ? ask.reach : static_cast<float>(z_ - std::min(limit_, d / tan_));
        } else {
          const double up = z_ + d / tan_;
          if (sunk_ <= 0 || d >= most || up >= 0) continue;
          ask.low = static_cast<float>(up);
          ask.high = ask.reach = static_cast<float>(std::min(0.0, up + tip_ / tan_));
        }
        take(out, grid.at(c, r), ask);
      }
    }
  }

 private:
  [[nodiscard]] double farthest(const CellGrid& wide, const SeenFigure& seen, int column, int row) const {
    const int n = static_cast<int>(tip_ / 2 / wide.cell);
    double most = seen.distance(wide.at(column, row));
    for (int dr = -n; dr <= n; ++dr) {
      for (int dc = -n; dc <= n; ++dc) {
        if (std::hypot(dr, dc) * wide.cell > tip_ / 2) continue;
        const std::size_t i = wide.at(column + dc, row + dr);
        if (seen.inside(i)) most = std::max(most, seen.distance(i));
      }
    }
    return most;
  }

  Region region_;
  OutlineSegments outline_;
  double z_, tan_, tip_, limit_, sunk_;
};

// A flat floor with upright walls.
class FloorWanted : public Feature {
 public:
  // `reached`: what of it the bits can reach. Without `must` it may be taken and need not be.
  FloorWanted(Region region, double z, Region reached, bool must = true)
      : region_(std::move(region)),
        reached_(std::move(reached)),
        outline_(region_),
        reach_outline_(reached_),
        z_(z),
        must_(must) {
    box = ::doyen::bounds(region_).grown(0.1);
  }

  void apply(const CellGrid& grid, WantedBounds& out) const override {
    const SeenFigure seen(region_, outline_, grid, kReached + 0.01);
    if (seen.away()) return;
    const SeenFigure reached(reached_, reach_outline_, grid, kReached + 0.01);
    const auto z = static_cast<float>(z_);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      if (!seen.inside(i) && seen.distance(i) > kWall) continue;
      Request ask{z, kFace, kFace};
      if (must_ && seen.inside(i) && seen.distance(i) > kReached) ask.high = z;
      if (seen.inside(i) && reached.inside(i) && reached.distance(i) > kReached) ask.reach = z;
      take(out, i, ask);
    }
  }

 private:
  Region region_, reached_;
  OutlineSegments outline_, reach_outline_;
  double z_;
  bool must_;
};

// What a bit leaves that follows lines at one depth.
class LineWanted : public Feature {
 public:
  LineWanted(OutlineSegments line, double z, const Bit& bit, double above)
      : line_(std::move(line)), z_(z), bit_(bit), above_(above) {
    // So far beside the line the bit still cuts below its ground.
    most_ = bit.kind == BitKind::Keyhole ? bit.true_diameter() / 2 : half_width(above - z);
    box = line_.box().grown(most_ + 0.1);
  }

  void apply(const CellGrid& grid, WantedBounds& out) const override {
    if (!line_.near(grid.box().grown(most_ + 0.1))) return;
    std::vector<float> away(grid.size(), static_cast<float>(most_ + 1));
    line_.lower_to_distance(grid, most_ + 0.1, away);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      const double d = away[i];
      if (d > most_ + kWall) continue;
      const double near = bit_.profile(std::max(0.0, d - kWall)), far = bit_.profile(std::min(d + kWall, most_));
      Request ask{static_cast<float>(std::min(above_, z_ + near)), kFace, kFace};
      if (d < most_ - kWall) ask.high = ask.reach = static_cast<float>(std::min(above_, z_ + far));
      take(out, i, ask);
    }
  }

 private:
  [[nodiscard]] double half_width(double depth) const {
    double inner = 0, outer = bit_.true_diameter() / 2;
    if (bit_.profile(outer) <= depth) return outer;
    for (int k = 0; k < 60; ++k) {
      const double middle = (inner + outer) / 2;
      (bit_.profile(middle) <= depth ? inner : outer) = middle;
    }
    return inner;
  }

  OutlineSegments line_;
  double z_;
  Bit bit_;
  double above_;  // z of its ground
  double most_ = 0;
};

// The inside of a shape filled with lines: nothing deeper than they are, and its edge followed.
class HatchWanted : public Feature {
 public:
  HatchWanted(const Region& edge, double z, const Bit& bit, double above)
      : edge_(edge), outline_(edge), line_(outline_, z, bit, above), z_(z) {
    box = ::doyen::bounds(edge_).grown(bit.true_diameter() / 2 + 0.1);
  }
  void apply(const CellGrid& grid, WantedBounds& out) const override {
    line_.anywhere = anywhere;
    line_.ground = ground;
    line_.asked = asked;
    line_.apply(grid, out);
    const SeenFigure seen(edge_, outline_, grid, 0);
    if (seen.away()) return;
    for (std::size_t i = 0; i < grid.size(); ++i) {
      if (seen.inside(i)) take(out, i, {static_cast<float>(z_), kFace, kFace});
    }
  }

 private:
  Region edge_;
  OutlineSegments outline_;
  mutable LineWanted line_;
  double z_;
};

// A V-chamfer that falls from an outline, and the other flank of the same V where nothing else takes that away.
class BevelWanted : public Feature {
 public:
  BevelWanted(const Region& region, bool inwards, double z, double depth, double tan_half, double tip)
      : region_(region), outline_(region), inwards_(inwards), z_(z), depth_(depth), tan_(tan_half), tip_(tip) {
    box = ::doyen::bounds(region_).grown(inwards ? 0.1 : 6 * depth * tan_half + tip + 0.1);
  }
  void apply(const CellGrid& grid, WantedBounds& out) const override {
    const double run = depth_ * tan_, whole = 2 * run + tip_;
    // Where two edges meet outwards the tip follows them to where they cross, up to four times as far (Corner::Sharp).
    const double most = whole + 4 * run;
    if (!outline_.near(grid.box().grown(most))) return;
    const SeenFigure seen(region_, outline_, grid, most);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      const double d = seen.distance(i);
      if (seen.inside(i) != inwards_ || d >= most) continue;
      const double deep = std::min(depth_, std::min(d, most - d) / tan_);
      Request ask{static_cast<float>(z_ - deep), kFace, kFace};
      // At corners the two chamfers meet in a mitre that is less deep than the distance says.
      if (d < run) ask.high = ask.reach = static_cast<float>(z_ - 0.3 * deep);
      take(out, i, ask);
    }
  }

 private:
  Region region_;
  OutlineSegments outline_;
  bool inwards_;
  double z_, depth_, tan_, tip_;
};

// The slit that a through cut leaves beside its line, with the tabs that stand in it.
class KerfWanted : public Feature {
 public:
  struct Tab {
    Point at, along, out;
    bool straight = true;  // the outline runs straight there: what stands can be told
  };
  // The slit runs outside of what is kept (of cut-outs), or inside of it (of openings).
  KerfWanted(Region kept, bool inside, double width, double bottom, std::vector<Tab> tabs, TabShape shape,
             double tab_top)
      : kept_(std::move(kept)),
        outline_(kept_),
        inside_(inside),
        width_(width),
        bottom_(bottom),
        tabs_(std::move(tabs)),
        shape_(shape),
        tab_top_(tab_top) {
    box = ::doyen::bounds(kept_).grown(inside ? 0.1 : width + 0.1);
  }
  Region others;  // what other cut-outs keep, drawn in a little, which this slit must not enter
  void apply(const CellGrid& grid, WantedBounds& out) const override {
    if (!outline_.near(grid.box().grown(width_ + 2 * kReached))) return;
    const SeenFigure seen(kept_, outline_, grid, width_ + kReached);
    std::vector<std::uint8_t> theirs;
    if (!others.empty()) mark_inside(others, grid, theirs);
    std::vector<const Tab*> tabs;  // that may reach into the grid
    for (const Tab& tab : tabs_) {
      if (grid.box().grown(tab_half() + width_ + 1).contains(tab.at)) tabs.push_back(&tab);
    }
    const auto bottom = static_cast<float>(bottom_);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      const double d = seen.distance(i);
      const bool beside = seen.inside(i) == inside_;
      if ((beside ? d > width_ + kWall : d > kWall) || (!theirs.empty() && theirs[i] != 0)) continue;
      const bool must = beside && d > kReached && d < width_ - kReached;
      Request ask{bottom, must ? bottom : kFace, must ? bottom : kFace};
      if (beside && !tabs.empty()) at_tab(tabs, grid.middle(i), d, ask, out.low[i]);
      take(out, i, ask);
    }
  }

 private:
  // How far along from a tab's middle the slit may rise to it: longer where outlines bend.
  [[nodiscard]] double tab_half() const { return 0.7 * (shape_.length + width_) + 0.3; }
  void at_tab(const std::vector<const Tab*>& tabs, Point p, double d, Request& ask, float& low) const {
    for (const Tab* one : tabs) {
      const Tab& tab = *one;
      const double u = std::abs(dot(p - tab.at, tab.along)), v = dot(p - tab.at, tab.out);
      if (u > tab_half() || v < -1 || v > width_ + 1) continue;
      ask.high = ask.reach = kFace;  // between the tab and the slit rises its ramp
      // A little within its ends, since outlines bend.
      const bool stands = tab.straight && std::abs(v - d) < 0.3 && u < shape_.length / 2 - shape_.ramp - 0.3 &&
                          d > kWall && d < width_ - kReached;
      if (!stands) continue;
      ask.low = static_cast<float>(tab_top_);
      low = std::max(low, ask.low);  // the tab is wanted, though it stands in waste
    }
  }

  Region kept_;
  OutlineSegments outline_;
  bool inside_;
  double width_, bottom_;
  std::vector<Tab> tabs_;
  TabShape shape_;
  double tab_top_;
};

std::vector<Line2> rings_as_lines(const Region& region) {
  std::vector<Line2> lines;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      lines.push_back(ring);
      lines.back().push_back(ring.front());
    }
  }
  return lines;
}

}  // namespace

struct Wanted::Impl {
  struct Placed {
    std::string id;
    Region region;
    double size = 0;
  };
  std::vector<std::unique_ptr<Feature>> features;  // in the order in which grounds carry each other
  std::vector<std::unique_ptr<KerfWanted>> kerfs;
  Region kept;  // inside all cut-outs, when there are any
  OutlineSegments kept_edge;
  bool cut_out = false;
  double waste_floor = 0;
  Region board;  // where it is no rectangle
  OutlineSegments board_edge;
  std::vector<Placed> placed;
  std::uint64_t board_key = 0;
};

namespace {

// Turns one piece's treatment into features.
class Asker {
 public:
  Asker(const WantedPiece& piece, const Blank& blank, const Rack& rack, Side side, TurnOver turn)
      : piece_(piece), cut_(*piece.cut), blank_(blank), side_(side), turn_(turn), bit_(rack.find(piece.cut->bit)) {
    const bool over = side == Side::Back;
    region_ = over ? turned_over(piece.outlines->region, blank, turn) : piece.outlines->region;
    sunk_ = over ? turned_over(piece.around->sunk, blank, turn) : piece.around->sunk;
    raised_ = over ? turned_over(piece.around->raised, blank, turn) : piece.around->raised;
    lines_ = piece.outlines->lines;
    for (Line2& line : lines_) {
      for (Point& p : line) p = place(p);
    }
    below_ = goes_through(cut_.kind) ? 0 : piece.around->ground.below;
  }

  std::vector<std::unique_ptr<Feature>> features;
  std::unique_ptr<KerfWanted> kerf;

  void ask() {
    switch (cut_.kind) {
      case Kind::None:
      case Kind::CutOut:
        break;
      case Kind::Incise:
        groove(region_, cut_.floor_limit.value_or(1e9), 0, below_);
        break;
      case Kind::Line:
        line();
        break;
      case Kind::Raise:
        raise();
        break;
      case Kind::Recess:
        floor(recess_shape(region_, cut_, piece_.around->grown, piece_.smallest_flat / 2), floor_depth(cut_), below_);
        break;
      case Kind::Plane:
        floor(region_, cut_.depth, below_);
        break;
      case Kind::Pierce:
        pierce();
        break;
      case Kind::Bevel:
        if (v() && !region_.empty())
          add<BevelWanted>(below_, region_, cut_.inside, -below_, cut_.depth, bit_->tan_half(), bit_->tip);
        break;
      case Kind::Drill:
        drill();
        break;
      case Kind::Inlay:
        pocket();
        break;
      case Kind::Plug:
        plug();
        break;
      case Kind::HangerSlot:
        slot();
        break;
    }
  }

  // The body that a cut-out frees, and its slit.
  Region body() const {
    return piece_.around->grown > 0 ? grow(region_, piece_.around->grown, Corner::Sharp) : region_;
  }
  void kerf_of_cut_out() {
    if (bit_ == nullptr || bit_->kind != BitKind::Flat || region_.empty()) return;
    slit(body(), false);
  }

 private:
  [[nodiscard]] Point place(Point p) const { return side_ == Side::Back ? turned_over(p, blank_, turn_) : p; }
  [[nodiscard]] bool v() const { return bit_ != nullptr && bit_->kind == BitKind::V; }
  [[nodiscard]] bool on_ground() const {
    return piece_.around->ground.overruled || below_ <= 0 || goes_through(cut_.kind);
  }

  template <typename F, typename... A>
  void add(double ground, A&&... args) {
    auto feature = std::make_unique<F>(std::forward<A>(args)...);
    feature->ground = ground;
    feature->anywhere = ground <= 0 || (on_ground() && ground == below_);
    feature->key = mixed(piece_.key, features.size());
    features.push_back(std::move(feature));
  }

  void groove(const Region& region, double limit, double sunk, double below) {
    if (!v() || region.empty()) return;
    const double body = bit_->body_depth() - sunk;
    if (body <= 0.01) return;
    add<GrooveWanted>(below, region, -below - sunk, bit_->tan_half(), bit_->tip, std::min(limit, body), sunk);
  }

  void floor(const Region& region, double depth, double below) {
    if (region.empty()) return;
    const double radius = piece_.smallest_flat / 2;
    add<FloorWanted>(below, region, -below - depth, radius > 0 ? opening(region, radius) : Region{});
  }

  void line() {
    if (bit_ == nullptr || bit_->kind == BitKind::Keyhole) return;
    const double z = -below_ - cut_.depth;
    if (!lines_.empty()) add<LineWanted>(below_, OutlineSegments(lines_), z, *bit_, -below_);
    if (region_.empty()) return;
    if (cut_.hatch <= 0) {
      add<LineWanted>(below_, OutlineSegments(rings_as_lines(region_)), z, *bit_, -below_);
      return;
    }
    const double half = bit_->half_width_at(cut_.depth);
    const Region edge = grow(region_, -half);
    if (!edge.empty()) add<HatchWanted>(below_, edge, z, *bit_, -below_);
  }

  void raise() {
    const int steps = std::max(1, cut_.steps);
    const double each = cut_.depth / steps;
    const double run = cut_.sloped && v() ? each * bit_->tan_half() + bit_->tip / 2 : 0;
    Region region = sunk_;
    for (int k = 0; k < steps && !region.empty(); ++k) {
      const double below = below_ + k * each;
      if (cut_.sloped)
        groove(region, each, 0, below);
      else
        floor(region, each, below);
      if (k + 1 == steps) break;
      const Region next = run > 0 ? grow(region, -run) : region;
      region = subtract(next, grow(raised_, (k + 1) * (run + cut_.terrace)));
    }
  }

  void pierce() {
    if (bit_ == nullptr || bit_->kind != BitKind::Flat) return;
    Region region = region_;
    if (piece_.around->grown < 0) region = grow(region, piece_.around->grown, Corner::Sharp);
    const double depth = through_depth(cut_, blank_), radius = bit_->true_diameter() / 2;
    Region cleared, slugs;
    for (const Island& island : region.islands) {
      const bool falls = cut_.slug && !grow(Region{{island}}, -3 * radius).empty();
      (falls ? slugs : cleared).islands.push_back(island);
    }
    if (!cleared.empty()) add<FloorWanted>(0, cleared, -depth, opening(cleared, radius));
    if (slugs.empty()) return;
    // Its middle may be taken, and need not be.
    add<FloorWanted>(0, slugs, -depth, Region{}, false);
    slit(slugs, true);
  }

  void slit(const Region& body, bool inside) {
    const double diameter = bit_->true_diameter(), depth = through_depth(cut_, blank_);
    std::vector<KerfWanted::Tab> tabs;
    const double thickness = cut_.skin > 0 ? blank_.thinnest() : blank_.thickest();
    if (cut_.tabs.wanted) {
      for (const TabOn& tab : tabs_on(body, diameter, inside)) {
        const Point along = tab.along;
        const double out = inside ? -1 : 1;
        tabs.push_back({tab.at, along, Point{along.y, -along.x} * out, tab.straight});
      }
    }
    // What the bit cannot enter stays with the piece (or the rest): corners of the other side.
    const double r = diameter / 2;
    const Region kept = inside ? opening(body, r) : grow(grow(body, r), -r);
    kerf =
        std::make_unique<KerfWanted>(kept, inside, diameter, -depth, std::move(tabs), tab_shape(cut_.tabs, thickness),
                                     -thickness + tab_shape(cut_.tabs, thickness).height);
    kerf->key = mixed(piece_.key, 99);
  }

  // Where the tabs stand on this side's body: by hand, or where the treatment's rules put them.
  struct TabOn {
    Point at, along;
    bool straight;
  };
  [[nodiscard]] std::vector<TabOn> tabs_on(const Region& body, double diameter, bool inside) const {
    std::vector<TabOn> out;
    const bool by_hand = !cut_.tabs.placed.empty();
    for (const TabPlace& tab : by_hand ? cut_.tabs.placed : place_tabs(body, cut_.tabs, diameter, inside)) {
      const auto i = static_cast<std::size_t>(tab.island);
      const Region& front = piece_.outlines->region;
      if (tab.island < 0 || i >= body.islands.size() || i >= front.islands.size()) continue;
      const Ring& ring = body.islands[i].rings.front();
      // By hand they count along the outline as seen from the front, whose ring runs the other way on the back.
      const bool turned = by_hand && side_ == Side::Back;
      const double along =
          turned ? share_nearest(ring, place(on_ring(front.islands[i].rings.front(), tab.along).at)) : tab.along;
      const OnRing on = on_ring(ring, along);
      out.push_back(
          {on.at, on.along, tab_objection(body, {tab.island, along}, cut_.tabs.length, diameter, inside).empty()});
    }
    return out;
  }

  void drill() {
    if (bit_ == nullptr || bit_->kind == BitKind::Keyhole) return;
    std::vector<Line2> points;
    Outlines here = *piece_.outlines;
    for (const Point& p : drill_points(here, cut_)) points.push_back({place(p)});
    if (!points.empty()) add<LineWanted>(below_, OutlineSegments(points), -below_ - cut_.depth, *bit_, -below_);
  }

  void slot() {
    if (bit_ == nullptr || bit_->kind != BitKind::Keyhole) return;
    Bit head = *bit_, neck = *bit_;
    head.kind = neck.kind = BitKind::Flat;
    neck.diameter = bit_->neck;
    neck.measured_diameter.reset();
    std::vector<Line2> holes, necks;
    for (const SlotPlace& s : slot_places(*piece_.outlines, cut_)) {
      holes.push_back({place(s.hole)});
      necks.push_back({place(s.hole), place(s.end)});
    }
    if (holes.empty()) return;
    add<LineWanted>(below_, OutlineSegments(holes), -below_ - cut_.depth, head, -below_);
    add<LineWanted>(below_, OutlineSegments(necks), -below_ - cut_.depth, neck, -below_);
  }

  void pocket() {
    const Region art = eased(region_, cut_.inlay.ease);
    if (cut_.inlay.sloped)
      groove(art, cut_.depth, 0, below_);
    else
      floor(art, cut_.depth, below_);
  }

  void plug() {
    const doyen::Inlay& inlay = cut_.inlay;
    Region art = eased(region_, inlay.ease);
    if (!inlay.sloped) art = grow(art, -inlay.allowance);
    if (art.empty()) return;
    std::vector<Ring> outer;
    for (const Island& island : art.islands) outer.push_back(island.rings.front());
    const Region panel = grow(clean(outer), std::max(0.5, cut_.margin));
    const Region around = subtract(panel, art);
    if (inlay.sloped)
      groove(around, inlay.saw_gap, inlay.contact, 0);
    else
      floor(around, inlay.contact + inlay.saw_gap, 0);
  }

  const WantedPiece& piece_;
  const Treatment& cut_;
  const Blank& blank_;
  Side side_;
  TurnOver turn_;
  const Bit* bit_;
  Region region_, sunk_, raised_;
  std::vector<Line2> lines_;
  double below_ = 0;
};

}  // namespace

Wanted::Wanted(const std::vector<WantedPiece>& pieces, const Blank& blank, const Rack& rack, Side side, TurnOver turn)
    : impl_(std::make_unique<Impl>()) {
  Impl& all = *impl_;
  std::vector<Region> bodies;
  struct Slit {
    KerfWanted* kerf;
    Region body;  // empty for openings
  };
  std::vector<Slit> slits;
  for (const WantedPiece& piece : pieces) {
    if (piece.outlines == nullptr || piece.cut == nullptr || piece.around == nullptr) continue;
    if (piece.cut->kind == Kind::None) continue;
    const bool own = piece.cut->back == (side == Side::Back);
    if (!own && piece.cut->kind != Kind::CutOut) continue;
    Asker asker(piece, blank, rack, side, turn);
    Region body;
    if (piece.cut->kind == Kind::CutOut && !piece.outlines->region.empty()) {
      const Bit* bit = rack.find(piece.cut->bit);
      if (bit != nullptr && bit->kind == BitKind::Flat) {
        body = asker.body();
        bodies.push_back(body);
        all.cut_out = true;
        all.waste_floor = std::min(all.waste_floor, -through_depth(*piece.cut, blank));
        all.board_key = mixed(all.board_key, piece.key);
        if (own) asker.kerf_of_cut_out();
      }
    }
    if (!own) continue;
    asker.ask();
    const Region region =
        side == Side::Back ? turned_over(piece.outlines->region, blank, turn) : piece.outlines->region;
    if (!region.empty()) all.placed.push_back({piece.id, region, area(region)});
    for (auto& feature : asker.features) feature->asked = piece.must;
    if (asker.kerf) asker.kerf->asked = piece.must;
    for (auto& feature : asker.features) all.features.push_back(std::move(feature));
    if (asker.kerf) {
      slits.push_back({asker.kerf.get(), piece.cut->kind == Kind::CutOut ? body : Region{}});
      all.kerfs.push_back(std::move(asker.kerf));
    }
  }
  // Floors carry what is cut into them: the higher ground first.
  std::stable_sort(all.features.begin(), all.features.end(),
                   [](const auto& a, const auto& b) { return a->ground < b->ground; });
  for (const Slit& slit : slits) {
    for (const Region& other : bodies) {
      // A body that holds this one whole is cut into on purpose.
      if (slit.body.empty() || !::doyen::bounds(other).meets(slit.kerf->box)) continue;
      if (subtract(slit.body, grow(other, 0.02)).empty()) continue;
      slit.kerf->others = unite(slit.kerf->others, subtract(grow(other, -kReached), slit.body));
    }
  }
  if (all.cut_out) {
    for (const Region& body : bodies) all.kept = unite(all.kept, body);
    all.kept_edge = OutlineSegments(all.kept);
  }
  if (blank.form != BlankForm::Rectangle) {
    all.board = region_of(blank);
    if (side == Side::Back) all.board = turned_over(all.board, blank, turn);
    all.board_edge = OutlineSegments(all.board);
    // The board's own form is nobody's piece: another one is judged anew.
    for (const Island& island : all.board.islands) {
      for (const Ring& ring : island.rings) {
        for (const Point& p : ring)
          all.board_key = mixed(mixed(all.board_key, std::hash<double>{}(p.x)), std::hash<double>{}(p.y));
      }
    }
  }
  std::sort(all.placed.begin(), all.placed.end(),
            [](const Impl::Placed& a, const Impl::Placed& b) { return a.size < b.size; });
}

Wanted::~Wanted() = default;
Wanted::Wanted(Wanted&&) noexcept = default;

void Wanted::bounds(const CellGrid& grid, WantedBounds& out) const {
  const Impl& all = *impl_;
  out.low.assign(grid.size(), kFace);
  out.high.assign(grid.size(), kFace);
  out.reach.assign(grid.size(), kFace);
  const Box box = grid.box();
  const auto touches = [&](const Feature& f) { return f.box.meets(box.grown(grid.cell)); };
  for (const auto& feature : all.features) {
    if (touches(*feature)) feature->apply(grid, out);
  }
  if (all.cut_out) {
    const SeenFigure kept(all.kept, all.kept_edge, grid, kReached);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      if (kept.inside(i) && kept.distance(i) > kWall) continue;
      out.low[i] = std::min(out.low[i], static_cast<float>(all.waste_floor));
      out.high[i] = out.reach[i] = kFace;
    }
  }
  for (const auto& kerf : all.kerfs) {
    if (touches(*kerf)) kerf->apply(grid, out);
  }
  if (!all.board.empty()) {
    const SeenFigure wood(all.board, all.board_edge, grid, 0);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      if (wood.inside(i)) continue;
      out.low[i] = kBottomless;
      out.high[i] = out.reach[i] = kFace;
    }
  }
}

std::uint64_t Wanted::key(const Box& box) const {
  std::uint64_t key = impl_->board_key;
  for (const auto& feature : impl_->features) {
    if (feature->box.meets(box)) key = mixed(key, feature->key);
  }
  for (const auto& kerf : impl_->kerfs) {
    if (kerf->box.meets(box)) key = mixed(key, kerf->key);
  }
  return key;
}

std::string Wanted::piece_at(Point p) const {
  for (const Impl::Placed& placed : impl_->placed) {
    if (::doyen::bounds(placed.region).contains(p) && contains(placed.region, p)) return placed.id;
  }
  return {};
}

}  // namespace doyen
