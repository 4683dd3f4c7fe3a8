#include "inlay/plugs.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

struct Art {
  const Item* item;
  Outlines outlines;
  Box box;
};

// Rows from the front, each as deep as its deepest art: the tallest first, so that rows waste little. The width is what
// makes the board about twice as wide as deep, or what the widest asks.
Box lay_out(std::vector<Art>& arts, std::vector<Point>& middles, double room) {
  std::stable_sort(arts.begin(), arts.end(),
                   [](const Art& a, const Art& b) { return a.box.height() > b.box.height(); });
  double area = 0, widest = 0;
  for (const Art& art : arts) {
    area += (art.box.width() + room) * (art.box.height() + room);
    widest = std::max(widest, art.box.width());
  }
  const double wide = std::max(widest + 2 * room, std::sqrt(2 * area) + room);
  double x = room, y = room, row = 0;
  Box all;
  for (const Art& art : arts) {
    if (x > room && x + art.box.width() + room > wide) {
      x = room;
      y += row + room;
      row = 0;
    }
    middles.push_back({x + art.box.width() / 2, y + art.box.height() / 2});
    all.add(Point{x + art.box.width() + room, y + art.box.height() + room});
    x += art.box.width() + room;
    row = std::max(row, art.box.height());
  }
  return {0, 0, all.right, all.top};
}

}  // namespace

std::vector<PlugBoard> plug_boards(const Job& job, double room) {
  std::vector<std::string> woods;
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::Inlay &&
        std::find(woods.begin(), woods.end(), item.cut.inlay.wood) == woods.end())
      woods.push_back(item.cut.inlay.wood);
  }
  std::vector<PlugBoard> boards;
  for (const std::string& wood : woods) {
    std::vector<Art> arts;
    double thickness = 0.5;
    for (const Item& item : job.items) {
      if (item.cut.kind != Treatment::Kind::Inlay || item.cut.inlay.wood != wood) continue;
      Art art{&item, job.outlines(item), {}};
      if (art.outlines.region.empty()) continue;
      art.box = bounds(art.outlines.region);
      thickness = std::max(thickness, item.cut.inlay.thickness);
      arts.push_back(std::move(art));
    }
    if (arts.empty()) continue;
    // Round each plug its background is sunk this far, so that its flanks are free and it can be sawn off.
    constexpr double kBackground = 8;
    std::vector<Point> middles;
    const Box box = lay_out(arts, middles, room + 2 * kBackground);
    PlugBoard board;
    Job& plugs = board.job;
    plugs.name = job.name + ", plugs";
    plugs.lengths = job.lengths;
    plugs.run = job.run;
    plugs.run.order.clear();
    plugs.run.least_wood =
        std::min(job.run.least_wood, usual_least_wood({.width = 1, .height = 1, .readings = {thickness}}));
    plugs.blank.width = std::ceil(box.width());
    plugs.blank.height = std::ceil(box.height());
    plugs.blank.readings = {thickness};
    plugs.blank.species = wood;
    plugs.blank.grain = job.blank.grain;
    plugs.blank.margin = std::min(6.0, room / 2);
    plugs.blank.bed_unevenness = job.blank.bed_unevenness;
    for (std::size_t i = 0; i < arts.size(); ++i) {
      const Art& art = arts[i];
      const Point middle = art.box.centre();
      Outlines mirrored;
      mirrored.region = transformed(art.outlines.region, Transform{-1, 0, 0, 1, 2 * middle.x, 0});
      Item item;
      item.piece.id = art.item->piece.id;
      item.piece.name = art.item->piece.name + ", plug";
      item.piece.what = frozen(mirrored, item.piece.name);
      item.piece.at = middles[i];
      item.cut = art.item->cut;
      item.cut.kind = Treatment::Kind::Plug;
      item.cut.margin = kBackground;
      item.cut.ground.reset();
      item.cut.back = false;
      plugs.items.push_back(std::move(item));
      const Box own = bounds(job.items.empty() ? Region{} : outlines_of(plugs.items.back().piece).region);
      // Where it came to lie to the last micrometre: a drawing's origin is the middle of its box.
      board.places.push_back({art.item->piece.id, middle, own.centre()});
    }
    boards.push_back(std::move(board));
  }
  return boards;
}

}  // namespace doyen
