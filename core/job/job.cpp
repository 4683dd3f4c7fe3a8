#include "job/job.hpp"

#include <algorithm>
#include <utility>

#include "job/follows_edge.hpp"
#include "treatments/look.hpp"

namespace doyen {

double usual_least_wood(const Blank& blank) { return std::min(3.0, blank.thinnest() / 4); }

void take_readings(Job& job, const std::vector<double>& readings) {
  const bool usual = job.run.least_wood == usual_least_wood(job.blank);
  job.blank.readings = readings;
  if (usual) job.run.least_wood = usual_least_wood(job.blank);  // a thin plate keeps less
}

void Job::shift(const std::string& id, Point by) {
  if (Item* item = find(id)) shift_piece(item->piece, by, source());
}

bool Job::bounds_a_panel(const std::string& id) const {
  return std::any_of(items.begin(), items.end(), [&](const Item& item) {
    return item.cut.kind == Treatment::Kind::Raise && item.cut.raise.panel == id;
  });
}

bool Job::undecided(const Item& item) const {
  return item.cut.kind == Treatment::Kind::None && !item.cut.left_uncut && !is_source(item.piece.id) &&
         !bounds_a_panel(item.piece.id);
}

std::string Job::fresh_name(const std::string& wanted) const {
  const auto taken = [&](const std::string& tried) {
    return std::any_of(items.begin(), items.end(), [&](const Item& item) { return item.piece.name == tried; });
  };
  if (!taken(wanted)) return wanted;
  for (int i = 2;; ++i) {
    std::string numbered = wanted + " " + std::to_string(i);
    if (!taken(numbered)) return numbered;
  }
}

const Item* Job::find(const std::string& id) const {
  const auto it = std::find_if(items.begin(), items.end(), [&](const Item& i) { return i.piece.id == id; });
  return it == items.end() ? nullptr : &*it;
}

bool Job::has_back() const {
  return std::any_of(items.begin(), items.end(),
                     [](const Item& i) { return i.cut.back && i.cut.kind != Treatment::Kind::None; });
}

Outlines Job::outlines(const Item& item) const {
  Outlines out = outlines_of(item.piece, source());
  if (!item.cut.back || item.cut.kind == Treatment::Kind::None || look_of(item.cut.kind).to_back ||
      follows_edge(*this, item))
    return out;
  const Point middle = bounds(out).centre();
  // Whoever reads the back walks round the sign: up stays up, whichever edge the board is turned over about for
  // cutting.
  const Transform mirror{-1, 0, 0, 1, 2 * middle.x, 0};
  out.region = transformed(out.region, mirror);
  for (Line2& line : out.lines) {
    for (Point& p : line) p = mirror.apply(p);
  }
  for (LetterMark& letter : out.letters) {
    const Point a = mirror.apply({letter.box.left, letter.box.bottom}),
                b = mirror.apply({letter.box.right, letter.box.top});
    letter.box = {std::min(a.x, b.x), std::min(a.y, b.y), std::max(a.x, b.x), std::max(a.y, b.y)};
  }
  return out;
}

PieceSource Job::source() const {
  return [this](const std::string& id) -> const Piece* {
    const Item* item = find(id);
    return item == nullptr ? nullptr : &item->piece;
  };
}

std::vector<const Piece*> Job::with_sources(const Piece& piece) const {
  std::vector<const Piece*> all{&piece};
  for (std::size_t i = 0; i < all.size() && all.size() < 1000; ++i) {
    for (const std::string& id : sources_of(*all[i])) {
      const Item* item = find(id);
      if (item != nullptr && std::find(all.begin(), all.end(), &item->piece) == all.end()) all.push_back(&item->piece);
    }
  }
  return all;
}

bool Job::is_source(const std::string& id) const {
  return std::any_of(items.begin(), items.end(), [&](const Item& item) {
    const std::vector<std::string> from = sources_of(item.piece);
    return std::find(from.begin(), from.end(), id) != from.end();
  });
}

Item* Job::find(const std::string& id) { return const_cast<Item*>(std::as_const(*this).find(id)); }

std::string Job::fresh_id(const std::string& stem) const {
  for (int i = 1;; ++i) {
    std::string id = stem + "-" + std::to_string(i);
    if (find(id) == nullptr) return id;
  }
}

}  // namespace doyen
