#include "job/layout.hpp"

#include <algorithm>
#include <numbers>

#include "geometry/hull.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// Its place is its own: it does not hang on another piece's.
bool stands_alone(const Piece& piece) { return sources_of(piece).empty(); }

Box box_of(const Job& job, const std::string& id) {
  const Item* item = job.find(id);
  if (item == nullptr) return {};
  try {
    return bounds(outlines_of(item->piece, job.source()));
  } catch (const Problem&) {
    return {};
  }
}

}  // namespace

void shift_layout(Job& job, Point by) {
  for (Item& item : job.items) {
    if (stands_alone(item.piece)) item.piece.at = item.piece.at + by;
  }
}

bool may_turn_layout(const Job& job) {
  using How = Derived::How;
  return std::all_of(job.items.begin(), job.items.end(), [](const Item& item) {
    if (const auto* d = std::get_if<Derived>(&item.piece.what))
      return d->how == How::Grow || d->how == How::Join || d->how == How::TakeAway || d->how == How::Overlap;
    const auto* l = std::get_if<Lettering>(&item.piece.what);
    return stands_alone(item.piece) || (l != nullptr && !l->along.empty());
  });
}

void turn_layout(Job& job, double degrees, Point about) {
  const Transform turn = Transform::turn(degrees);
  for (Item& item : job.items) {
    Piece& piece = item.piece;
    if (!stands_alone(piece)) {  // its place is a shift from where its sources put it
      piece.at = turn.apply(piece.at);
      continue;
    }
    piece.at = turn.apply(piece.at - about) + about;
    piece.turn = std::remainder(piece.turn + degrees, 360);
  }
}

std::vector<std::string> on_their_own(const Job& job, const std::vector<std::string>& ids) {
  std::vector<std::string> own;
  for (const std::string& id : ids) {
    const Item* item = job.find(id);
    if (item == nullptr) continue;
    const std::vector<std::string> from = sources_of(item->piece);
    const auto chosen = [&](const std::string& source) {
      return std::find(ids.begin(), ids.end(), source) != ids.end();
    };
    if (std::none_of(from.begin(), from.end(), chosen)) own.push_back(id);
  }
  return own;
}

void shift_chosen(Job& job, const std::vector<std::string>& ids, Point by) {
  for (const std::string& id : on_their_own(job, ids)) job.shift(id, by);
}

void turn_chosen(Job& job, const std::vector<std::string>& ids, double degrees, Point about) {
  Job those;
  for (const std::string& id : ids) {
    if (const Item* item = job.find(id)) those.items.push_back(*item);
  }
  const std::vector<std::string> own = on_their_own(job, ids);
  for (const Item& item : those.items) {
    const bool alone = std::find(own.begin(), own.end(), item.piece.id) != own.end();
    if (alone && !stands_alone(item.piece))
      throw bad_input(
          say("“{0}” hangs on a piece that is not chosen: choose that, too, to turn both.", item.piece.name));
  }
  if (!may_turn_layout(those))
    throw bad_input(
        say("Copies, mirror images and what is laid out in shares keep their direction: leave them out to turn the "
            "others."));
  turn_layout(those, degrees, about);
  for (const Item& item : those.items) job.find(item.piece.id)->piece = item.piece;
}

void line_up(Job& job, const std::vector<std::string>& ids, LineUp how) {
  if (ids.empty()) return;
  const Box to = box_of(job, ids.front());
  if (to.empty()) return;
  for (std::size_t i = 1; i < ids.size(); ++i) {
    const Box own = box_of(job, ids[i]);
    if (own.empty()) continue;
    const Point by[] = {{to.left - own.left, 0},     {to.centre().x - own.centre().x, 0}, {to.right - own.right, 0},
                        {0, to.bottom - own.bottom}, {0, to.centre().y - own.centre().y}, {0, to.top - own.top}};
    job.shift(ids[i], by[static_cast<int>(how)]);
  }
}

void space_out(Job& job, const std::vector<std::string>& ids, bool across, std::optional<double> gap) {
  struct Placed {
    std::string id;
    double low, high;
  };
  std::vector<Placed> row;
  for (const std::string& id : ids) {
    const Box b = box_of(job, id);
    if (!b.empty()) row.push_back({id, across ? b.left : b.bottom, across ? b.right : b.top});
  }
  std::stable_sort(row.begin(), row.end(),
                   [](const Placed& a, const Placed& b) { return a.low + a.high < b.low + b.high; });
  if (row.size() < 2 || (row.size() < 3 && !gap)) return;
  double filled = 0;
  for (const Placed& p : row) filled += p.high - p.low;
  const double each = gap ? *gap : (row.back().high - row.front().low - filled) / static_cast<double>(row.size() - 1);
  double at = row.front().low;
  for (const Placed& p : row) {
    const double by = at - p.low;
    job.shift(p.id, across ? Point{by, 0} : Point{0, by});
    at += p.high - p.low + each;
  }
}

void group(Job& job, const std::vector<std::string>& ids) {
  ungroup(job, ids);
  if (ids.size() < 2) return;
  std::string name;
  const auto taken = [&](const std::string& one) {
    return std::any_of(job.items.begin(), job.items.end(), [&](const Item& item) { return item.group == one; });
  };
  for (int i = 1; name.empty() || taken(name); ++i) name = "group-" + std::to_string(i);
  for (const std::string& id : ids) {
    if (Item* item = job.find(id)) item->group = name;
  }
}

void ungroup(Job& job, const std::vector<std::string>& ids) {
  for (const std::string& id : ids) {
    const Item* item = job.find(id);
    if (item == nullptr || item->group.empty()) continue;
    for (Item& other : job.items) {
      if (&other != item && other.group == item->group) other.group.clear();
    }
    job.find(id)->group.clear();
  }
}

bool is_group(const Job& job, const std::vector<std::string>& ids) {
  const Item* first = ids.empty() ? nullptr : job.find(ids.front());
  if (first == nullptr || first->group.empty()) return false;
  std::size_t members = 0;
  for (const Item& item : job.items) members += item.group == first->group ? 1 : 0;
  return members == ids.size() && std::all_of(ids.begin(), ids.end(), [&](const std::string& id) {
           const Item* item = job.find(id);
           return item != nullptr && item->group == first->group;
         });
}

void scale_layout(Job& job, const std::vector<std::string>& ids, double factor, Point about) {
  if (!(factor > 1e-3 && factor < 1e3)) return;
  for (const std::string& id : ids) {
    Item* item = job.find(id);
    if (item == nullptr) continue;
    if (auto* d = std::get_if<Derived>(&item->piece.what)) {  // what it is made from is scaled for itself
      for (double* length : {&d->distance, &d->band, &d->step_x, &d->step_y, &d->radius, &d->bridge}) *length *= factor;
      for (Derived::Bridge& b : d->bridges) b = {b.from * factor, b.to * factor};
      item->piece.at = item->piece.at * factor;
      continue;
    }
    if (const auto* s = std::get_if<PlainShape>(&item->piece.what)) {
      if (!s->shares_of.empty()) continue;  // follows its base
    }
    item->piece.at = about + (item->piece.at - about) * factor;
    size_piece(item->piece, factor, factor);
    if (auto* s = std::get_if<PlainShape>(&item->piece.what)) s->band *= factor;
  }
}

void fill_board(Job& job, const std::string& id, double margin) {
  Item* item = job.find(id);
  const Box box = box_of(job, id), room = job.blank.box().grown(-margin);
  if (item == nullptr || box.empty() || room.width() <= 0 || room.height() <= 0) return;
  auto* shape = std::get_if<PlainShape>(&item->piece.what);
  const bool free = shape != nullptr && shape->kind != PlainShape::Kind::Line && shape->shares_of.empty() &&
                    std::abs(std::remainder(item->piece.turn, 90)) < 1e-9;
  double kx = room.width() / box.width(), ky = box.height() > 0 ? room.height() / box.height() : kx;
  if (!free) kx = ky = std::min(kx, ky);
  const bool sideways = std::abs(std::remainder(item->piece.turn, 180)) > 45;
  if (stands_alone(item->piece)) size_piece(item->piece, sideways ? ky : kx, sideways ? kx : ky);
  const Box now = box_of(job, id);
  if (!now.empty()) job.shift(id, room.centre() - now.centre());
}

void follow_board(Job& job, const Job& before) {
  for (Item& item : job.items) {
    auto* shape = std::get_if<PlainShape>(&item.piece.what);
    if (shape == nullptr || !shape->from_edge) continue;
    const Item* was = before.find(item.piece.id);
    const auto* old = was == nullptr ? nullptr : std::get_if<PlainShape>(&was->piece.what);
    const bool by_hand = old != nullptr && job.blank == before.blank && old->from_edge == shape->from_edge &&
                         (old->width != shape->width || old->height != shape->height ||
                          was->piece.at != item.piece.at || was->piece.turn != item.piece.turn);
    if (by_hand || !shape->shares_of.empty()) {
      shape->from_edge.reset();
      continue;
    }
    const double w = job.blank.width - 2 * *shape->from_edge, h = job.blank.height - 2 * *shape->from_edge;
    if (w < 1 || h < 1) continue;
    shape->width = w;
    shape->height = h;
    item.piece.at = job.blank.box().centre();
    item.piece.turn = 0;
  }
}

// One side of the smallest rectangle round a convex outline lies along one of its sides (H. Freeman and R. Shapira,
// 1975), so every side of the hull is tried.
SmallestBox smallest_box(const Outlines& outlines) {
  std::vector<Point> points;
  for (const Island& island : outlines.region.islands)
    points.insert(points.end(), island.rings.front().begin(), island.rings.front().end());
  for (const Line2& line : outlines.lines) points.insert(points.end(), line.begin(), line.end());
  const std::vector<Point> hull = convex_hull(std::move(points));
  SmallestBox best;
  double least = 1e300;
  for (std::size_t i = 0; i < hull.size(); ++i) {
    const Point side = hull[(i + 1) % hull.size()] - hull[i];
    if (length(side) < 1e-9) continue;
    const double turn = -std::atan2(side.y, side.x) * 180 / std::numbers::pi;
    Box box;
    for (const Point& p : hull) box.add(Transform::turn(turn).apply(p));
    const double area = box.width() * box.height();
    if (area >= least - 1e-9) continue;
    least = area;
    double into = std::fmod(turn, 90);
    if (into < 0) into += 90;
    const bool swapped = std::lround((turn - into) / 90) % 2 != 0;
    best = {into, swapped ? box.height() : box.width(), swapped ? box.width() : box.height()};
  }
  return best;
}

}  // namespace doyen
