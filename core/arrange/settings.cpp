#include "arrange/settings.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/hull.hpp"
#include "problem.hpp"
#include "treatments/start.hpp"
#include "wording/say.hpp"

namespace doyen::arranging {
namespace {

using Kind = PlainShape::Kind;
using Corners = PlainShape::CornerForm;
using Role = ArrangeWish::Role;

constexpr double kWhite = 0.06;    // of the lesser side: white to an edge or border
constexpr double kRound = 0.25;    // of the board: what is smaller goes round nothing
constexpr double kBorder = 0.016;  // of the lesser side: how wide a new border is carved

double round_to_unit(double mm, const Job& job) {
  const double unit = job.lengths.unit == Unit::Inch ? kMmPerInch / 16 : 1;
  return std::max(unit, unit * std::round(mm / unit));
}

// An edge, a panel or another outline: it holds what is arranged.
bool goes_round(const Job& job, const Item& item) {
  return !item.cut.back && (item.cut.kind == Treatment::Kind::CutOut || item.cut.kind == Treatment::Kind::Bevel ||
                            job.bounds_a_panel(item.piece.id));
}

struct Shapes {
  Kind kind = Kind::Rectangle;
  std::string word;
};

class SettingMaker {
 public:
  SettingMaker(const Job& job, const Rack& rack, const ArrangeWish& wish) : job_(job), rack_(rack), wish_(wish) {
    for (const ArrangeWish::Part& part : wish.parts) {
      if (part.role == Role::Border) border_ = part.id;
      if (part.role == Role::Outline) outline_ = part.id;
    }
    least_ = std::min(job.blank.width, job.blank.height);
    for (const Item& item : job.items) {
      if (item.piece.id == outline_ || item.piece.id == border_ || !goes_round(job, item)) continue;
      try {
        const Region inside = filled(job.outlines(item).region);
        const Box box = bounds(inside);
        if (box.width() * box.height() < kRound * job.blank.width * job.blank.height) continue;
        around_.push_back(inside);
        least_ = std::min({least_, box.width(), box.height()});
      } catch (const Problem&) {
        continue;  // its verdict says so
      }
    }
  }

  [[nodiscard]] bool may_try_outlines() const {
    const PlainShape* shape = shape_of(outline_);
    return job_.blank.form == BlankForm::Rectangle && around_.empty() &&
           (outline_.empty() || (shape != nullptr && shape->shares_of.empty()));
  }

  std::vector<Setting> all() {
    std::vector<Setting> out;
    for (const Shapes& shape : outlines()) {
      for (const std::optional<Corners>& corners : borders()) {
        Setting one;
        one.job = job_;
        try {
          make(one, shape, corners);
        } catch (const Problem&) {
          continue;  // too small a board for it
        }
        if (!one.room.empty()) out.push_back(std::move(one));
      }
    }
    if (out.empty())
      throw bad_input(
          say("The board leaves no room inside its margin of {0}; make the margin or the outline's distance smaller.",
              size_in_words(job_.blank.margin, job_.lengths)));
    return out;
  }

 private:
  [[nodiscard]] const PlainShape* shape_of(const std::string& id) const {
    const Item* item = job_.find(id);
    return item == nullptr ? nullptr : std::get_if<PlainShape>(&item->piece.what);
  }
  // An outline that is drawn, or follows another piece, stays as it is, as one does that nobody wants changed, or that
  // has edges and panels of its own.
  [[nodiscard]] bool fixed() const {
    const PlainShape* shape = shape_of(outline_);
    return !outline_.empty() && (!wish_.outline || shape == nullptr || !shape->shares_of.empty() || !around_.empty());
  }

  [[nodiscard]] bool reshaped() const { return wish_.outline && may_try_outlines(); }

  [[nodiscard]] std::vector<Shapes> outlines() const {
    if (!reshaped()) return {{}};
    std::vector<Shapes> all{
        {Kind::Rectangle, say("rounded plate")}, {Kind::Ellipse, "oval"}, {Kind::ArchTop, say("arch top")}};
    const double w = job_.blank.width, h = job_.blank.height;
    if (h > 0.6 * w) all.push_back({Kind::Shield, "shield"});
    if (w > 2.5 * h) all.push_back({Kind::Ribbon, say("strip with notched ends")});
    return all;
  }
  [[nodiscard]] std::vector<std::optional<Corners>> borders() const {
    if (!wish_.border) return {std::nullopt};
    if (reshaped() || !outline_.empty() || job_.blank.form != BlankForm::Rectangle) return {Corners::Round};
    return {Corners::Round, Corners::Scooped, Corners::Clipped};
  }

  // The piece of that id, or a new one of that look.
  Item& piece_of(Job& job, const std::string& id, const std::string& name, Treatment::Kind look) const {
    if (Item* there = job.find(id)) return *there;
    Item item;
    item.piece.id = job.fresh_id("shape");
    item.piece.name = job.fresh_name(name);
    item.piece.what = PlainShape{};
    item.cut = start_look(look, {}, {job.blank, job.lengths, rack_, [](const Bit&) { return 0.0; }});
    job.items.push_back(std::move(item));
    return job.items.back();
  }

  [[nodiscard]] double through_bit(const Treatment& cut) const {
    const Bit* bit = rack_.find(cut.bit);
    return bit == nullptr ? 6.35 : bit->diameter;
  }

  std::string cut_out(Setting& one, const Shapes& shape) const {
    const PlainShape* was = shape_of(outline_);
    Item& item = piece_of(one.job, outline_, say("Outline"), Treatment::Kind::CutOut);
    PlainShape s = was == nullptr ? PlainShape{} : *was;
    // The bit runs round it, on the board, and leaves a frame that holds.
    const double inset = std::max(job_.blank.margin, 0.5 * least_ * kWhite) + through_bit(item.cut);
    s.kind = shape.kind;
    s.band = 0;
    s.from_edge.reset();
    s.width = job_.blank.width - 2 * inset;
    s.height = job_.blank.height - 2 * inset;
    if (s.width < 5 || s.height < 5) throw bad_input(say("no room"));
    if (s.kind == Kind::Shield) s.width = std::min(s.width, 0.95 * s.height);
    if (s.kind == Kind::ArchTop) s.rise = std::min(s.width / 2, s.height) * 0.4;
    if (s.kind == Kind::Rectangle && s.corner_radius <= 0) s.corner_radius = round_to_unit(least_ / 10, job_);
    item.piece.what = s;
    item.piece.at = job_.blank.box().centre();
    item.piece.turn = 0;
    return item.piece.id;
  }

  void frame_board(Setting& one, Corners corners) const {
    const PlainShape* was = shape_of(border_);
    Item& item = piece_of(one.job, border_, say("Border"), Treatment::Kind::Incise);
    PlainShape s = was == nullptr ? PlainShape{} : *was;
    s.kind = job_.blank.form == BlankForm::Rectangle ? Kind::Rectangle : Kind::Ellipse;
    s.shares_of.clear();
    if (s.band <= 0) s.band = round_to_unit(kBorder * least_, job_);
    if (s.corner_radius <= 0) s.corner_radius = round_to_unit(least_ / 10, job_);
    s.corner_form = corners;
    s.from_edge = std::max(job_.blank.margin, s.from_edge.value_or(0));
    s.width = job_.blank.width - 2 * *s.from_edge;
    s.height = job_.blank.height - 2 * *s.from_edge;
    if (std::min(s.width, s.height) < 8 * s.band) throw bad_input(say("no room"));
    item.piece.what = s;
    item.piece.at = job_.blank.box().centre();
    item.piece.turn = 0;
    one.room = filled(outlines_of(item.piece).region);
    one.room = grow(one.room, -(s.band + one.white), Corner::Sharp, 0.05);
  }
  // Evenly inside the outline, whatever its form; it follows it.
  void frame_outline(Setting& one, const std::string& outline) const {
    Item& item = piece_of(one.job, border_, say("Border"), Treatment::Kind::Incise);
    Derived d;
    d.how = Derived::How::Grow;
    d.from = {outline};
    d.corner = Corner::Sharp;
    d.distance = -std::max(job_.blank.margin, round_to_unit(0.4 * kWhite * least_, job_));
    d.band = round_to_unit(kBorder * least_, job_);
    if (const PlainShape* was = shape_of(border_); was != nullptr && was->band > 0) d.band = was->band;
    if (const auto* was = std::get_if<Derived>(&item.piece.what); was != nullptr && was->how == d.how) d = *was;
    item.piece.what = d;
    item.piece.at = {};
    item.piece.turn = 0;
    const Region all = filled(outlines_of(item.piece, one.job.source()).region);
    one.room = grow(all, -(d.band + one.white), Corner::Sharp, 0.05);
  }

  void keep_border(Setting& one) const {
    const Region border = one.job.outlines(*one.job.find(border_)).region;
    const Region within = left_inside(border);
    one.room = intersect(one.room, grow(within.empty() ? filled(border) : within, -one.white, Corner::Sharp, 0.05));
  }

  void make(Setting& one, const Shapes& shape, const std::optional<Corners>& corners) const {
    one.white = std::max(job_.blank.margin, kWhite * least_);
    if (corners) one.white = kWhite * least_;
    std::string outline = fixed() ? outline_ : std::string();
    if (reshaped()) {
      outline = cut_out(one, shape);
      one.frame = shape.word;
    }
    const Region edge =
        outline.empty() ? region_of(job_.blank) : filled(one.job.outlines(*one.job.find(outline)).region);
    one.room = grow(edge, -one.white, Corner::Sharp, 0.05);
    for (const Region& inside : around_) one.room = intersect(one.room, grow(inside, -one.white, Corner::Sharp, 0.05));
    if (corners && job_.find(border_) != nullptr && fixed()) {  // both are the user's
      keep_border(one);
    } else if (corners) {
      if (outline.empty())
        frame_board(one, *corners);
      else
        frame_outline(one, outline);
      const std::string border = *corners == Corners::Scooped   ? say("border with scooped corners")
                                 : *corners == Corners::Clipped ? say("border with clipped corners")
                                                                : "border";
      one.frame += (one.frame.empty() ? "" : ", ") + border;
    }
    const Box box = bounds(one.room);
    one.round = box.width() < 1.5 * box.height() && box.height() < 1.5 * box.width();
    if (one.room.islands.size() != 1 || one.room.islands.front().rings.size() != 1) return;
    Ring hull = convex_hull(one.room.islands.front().rings.front());
    if (signed_area(hull) > 1.001 * area(one.room)) return;
    // A chord of it lies inside: fewer points do, and lose under a thousandth of the room.
    for (const Point& p : hull) {
      if (one.convex.empty() || distance(one.convex.back(), p) > 0.01 * least_) one.convex.push_back(p);
    }
  }

  const Job& job_;
  const Rack& rack_;
  const ArrangeWish& wish_;
  std::string border_, outline_;
  std::vector<Region> around_;  // edges and panels that stay
  double least_ = 1;
};

}  // namespace

std::vector<Setting> settings_for(const Job& job, const Rack& rack, const ArrangeWish& wish) {
  return SettingMaker(job, rack, wish).all();
}

}  // namespace doyen::arranging

namespace doyen {

bool may_try_outlines(const Job& job, const ArrangeWish& wish) {
  const Rack none;
  return arranging::SettingMaker(job, none, wish).may_try_outlines();
}

}  // namespace doyen
