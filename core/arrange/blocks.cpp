#include "arrange/blocks.hpp"

#include <algorithm>
#include <cmath>

namespace doyen::arranging {
namespace {

constexpr double kSet = 20;     // mm: the cap height at which words are measured
constexpr double kApart = 0.1;  // of the size: how near points lie to each other

Point scaled(Point p, double k) { return p * k; }
Box scaled(const Box& b, double k) { return {b.left * k, b.bottom * k, b.right * k, b.top * k}; }

void add_points(Block& block, const Line2& line, bool closed, double k) {
  for (std::size_t i = 0; i + (closed ? 0 : 1) < line.size(); ++i) {
    const Point a = scaled(line[i], k), b = scaled(line[(i + 1) % line.size()], k);
    const int steps = std::max(1, static_cast<int>(std::ceil(distance(a, b) / kApart)));
    for (int s = 0; s < steps; ++s) {
      const Point p = a + (b - a) * (static_cast<double>(s) / steps);
      // Curves come in steps far finer than anything is judged by here.
      if (block.points.empty() || distance(block.points.back(), p) > kApart / 4) block.points.push_back(p);
    }
  }
}

void take(Block& block, const Outlines& outlines, double k) {
  for (const Island& island : outlines.region.islands) add_points(block, island.rings.front(), true, k);
  for (const Line2& line : outlines.lines) add_points(block, line, false, k);
  for (const Point& p : block.points) block.box.add(p);
  const Box whole = scaled(bounds(outlines), k);
  if (!whole.empty()) block.box.add(whole);
}

// As it is set in an arrangement.
void set(Lettering& words, const Block& block, double size) {
  // What was measured in lengths grows along.
  const double k = words.cap_height > 0 ? size / words.cap_height : 1;
  words.stroke *= k;
  words.thicken *= k;
  words.cap_height = size;
  words.fit_width = false;
  words.along.clear();
  words.inside.clear();
  words.arc_radius = std::abs(block.radius) * size;
  words.arc_below = block.radius < 0;
  words.align = block.left ? Align::Left : Align::Centre;
  words.letter_spacing += block.spacing;
}

}  // namespace

double ratio_of(ArrangeWish::Role role) {
  return role == ArrangeWish::Role::Second ? 0.62 : role == ArrangeWish::Role::Small ? 0.38 : 1;
}

Block words_block(const Job& job, const std::string& id, ArrangeWish::Role role, double radius, double spacing,
                  bool left) {
  Block block{{id}, true, role, radius, spacing, left, {}, {}, {}, 0, 0};
  Piece piece = job.find(id)->piece;
  set(std::get<Lettering>(piece.what), block, kSet);
  piece.at = {};
  piece.turn = 0;
  const Outlines outlines = outlines_of(piece, job.source());
  take(block, outlines, 1 / kSet);
  for (const LetterMark& letter : outlines.letters) {
    if (!letter.box.empty()) block.boxes.push_back(scaled(letter.box, 1 / kSet));
  }
  if (block.boxes.empty()) block.boxes.push_back(block.box);
  return block;
}

Block motif_block(const Job& job, const std::vector<std::string>& ids) {
  Block block{ids, false, ArrangeWish::Role::Motif, 0, 0, false, {}, {}, {}, 0, 0};
  Box whole;
  for (const std::string& id : ids) whole.add(bounds(outlines_of(job.find(id)->piece, job.source())));
  if (!(whole.height() > 0)) return block;
  for (const std::string& id : ids) {
    Piece piece = job.find(id)->piece;
    piece.at = piece.at - whole.centre();
    Outlines outlines = outlines_of(piece, job.source());
    take(block, outlines, 1 / whole.height());
    block.boxes.push_back(scaled(bounds(outlines), 1 / whole.height()));
  }
  return block;
}

void place(Job& job, const Block& block, double size, Point at) {
  if (block.words) {
    Piece& piece = job.find(block.ids.front())->piece;
    set(std::get<Lettering>(piece.what), block, size);
    piece.at = at;
    piece.turn = 0;
    return;
  }
  Box whole;
  for (const std::string& id : block.ids) whole.add(bounds(outlines_of(job.find(id)->piece, job.source())));
  const double k = size / whole.height();
  for (const std::string& id : block.ids) {
    Piece& piece = job.find(id)->piece;
    const Point from = piece.at - whole.centre();
    size_piece(piece, k, k);
    if (auto* shape = std::get_if<PlainShape>(&piece.what)) shape->band *= k;
    piece.at = at + from * k;
  }
}

}  // namespace doyen::arranging
