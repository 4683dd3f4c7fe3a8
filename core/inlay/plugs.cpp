#include "inlay/plugs.hpp"

#include <algorithm>
#include <cmath>

#include "artwork/lettering/single_line_faces.hpp"
#include "inlay/nest.hpp"
#include "run/plain_words.hpp"
#include "treatments/piece_cuts.hpp"
#include "treatments/suits.hpp"
#include "treatments/through/through.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

struct Art {
  const Item* item;
  Region region;  // as it will lie, but for its place: mirrored when it is a plug
  Box box;
  Point pocket;  // the middle of what it is for
};

// A job file may name any wood; a folder takes only what is safe in a name.
std::string folder_of(const std::string& what, const std::string& material) {
  std::string own = what + "-";
  for (const char c : material) {
    const bool plain = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-';
    own += plain ? c : '_';
  }
  own.resize(std::min<std::size_t>(own.size(), 60));
  return own;
}

Job board_for(const Job& job, const std::string& name, double thickness, const std::string& material, double margin) {
  Job board;
  board.name = job.name + ", " + name;
  board.lengths = job.lengths;
  board.run = job.run;
  board.run.order.clear();
  board.run.holding = say("Screws or clamps at the board's edges, outside what is cut; tape under thin sheets.");
  board.run.mill_level.reset();
  board.run.keep_zero = KeepZero::Corner;
  board.run.least_wood =
      std::min(job.run.least_wood, usual_least_wood({.width = 1, .height = 1, .readings = {thickness}}));
  board.blank.readings = {thickness};
  board.blank.species = material;
  board.blank.grain = job.blank.grain;
  board.blank.margin = margin;
  board.blank.bed_unevenness = job.blank.bed_unevenness;
  return board;
}

std::string rung_in_words(const Job& job, const Inlay& inlay) {
  return format_length(inlay.sloped ? inlay.contact : inlay.allowance, job.lengths, false);
}

constexpr double kLabelHigh = 5, kLabelDeep = 0.4;  // mm

// A rung's figure, engraved on the plugs' board in front of its plug's background.
Item label_item(const Job& job, const Art& art, Point at, double clear) {
  Lettering words;
  words.words = rung_in_words(job, art.item->cut.inlay);
  words.face = single_line_faces().front();
  words.cap_height = kLabelHigh;
  Item item;
  item.piece.id = art.item->piece.id + "-figure";
  item.piece.name = say("Figure {0}", words.words);
  item.piece.what = words;
  item.piece.at = {at.x, at.y - art.box.height() / 2 - clear - kLabelHigh / 2};
  item.cut.kind = Treatment::Kind::Line;
  item.cut.bit = art.item->cut.bit;
  item.cut.depth = kLabelDeep;
  return item;
}

// Lays the art out on the board; `clear` round each.
std::vector<SetOut::Place> set_out(Job& board, const std::vector<Art>& arts, double clear, double room) {
  std::vector<Region> shapes;
  bool labelled = false;
  for (const Art& art : arts) labelled = labelled || art.item->cut.inlay.rung.has_value();
  const double label = labelled ? kLabelHigh + 4 : 0;
  for (const Art& art : arts) {
    const Region about = transformed(art.region, Transform::move(-art.box.centre().x, -art.box.centre().y));
    const double wide = art.box.width() / 2, high = art.box.height() / 2;
    // A figure has its place in front and, for the middle to stay the middle, as much is left behind.
    shapes.push_back(
        label == 0
            ? about
            : clean({{{-wide, -high - label}, {wide, -high - label}, {wide, high + label}, {-wide, high + label}}}));
  }
  const SetOut nested = nest(shapes, clear, !labelled);
  // The raster leaves a little on each side: what is asked for lies evenly in the board.
  Box all;
  for (std::size_t i = 0; i < shapes.size(); ++i) {
    const Box own = bounds(shapes[i]);
    const Point at = nested.places[i].at;
    all.add(Box{at.x - own.width() / 2, at.y - own.height() / 2, at.x + own.width() / 2, at.y + own.height() / 2});
  }
  board.blank.width = std::ceil(all.width() + 2 * (clear + room));
  board.blank.height = std::ceil(all.height() + 2 * (clear + room));
  const Point by = Point{board.blank.width / 2, board.blank.height / 2} - all.centre();
  std::vector<SetOut::Place> places = nested.places;
  for (SetOut::Place& place : places) place.at = place.at + by;
  return places;
}

FurtherBoard plugs_of(const Job& job, const std::vector<Art>& arts, double thickness, double room) {
  const Inlay& inlay = arts.front().item->cut.inlay;
  FurtherBoard board;
  board.job = board_for(job, "plugs", thickness, inlay.wood, std::min(6.0, room / 2));
  board.folder = folder_of(word_in_file(inlay.crossed ? say("files: plugs-crossed") : say("files: plugs")), inlay.wood);
  if (inlay.crossed)
    board.job.blank.grain = job.blank.grain == Grain::AlongWidth ? Grain::AlongHeight : Grain::AlongWidth;
  const std::vector<SetOut::Place> places = set_out(board.job, arts, kPlugBackground + 0.5, room);
  for (std::size_t i = 0; i < arts.size(); ++i) {
    const Art& art = arts[i];
    Outlines turned;
    const Point middle = art.box.centre();
    turned.region =
        places[i].half_turn ? transformed(art.region, Transform{-1, 0, 0, -1, 2 * middle.x, 2 * middle.y}) : art.region;
    Item item;
    item.piece.id = art.item->piece.id;
    item.piece.name = say("{0}, plug", art.item->piece.name);
    item.piece.what = frozen(turned, item.piece.name);
    item.piece.at = places[i].at;
    item.cut = art.item->cut;
    item.cut.kind = Treatment::Kind::Plug;
    item.cut.margin = kPlugBackground;
    item.cut.ground.reset();
    item.cut.back = false;
    board.job.items.push_back(std::move(item));
    // Where it came to lie to the last micrometre: a drawing's origin is the middle of its box.
    const Box own = bounds(outlines_of(board.job.items.back().piece).region);
    board.places.push_back({art.item->piece.id, art.pocket, own.centre(), places[i].half_turn});
  }
  for (std::size_t i = 0; i < arts.size(); ++i) {
    if (arts[i].item->cut.inlay.rung)
      board.job.items.push_back(label_item(job, arts[i], places[i].at, kPlugBackground + 1));
  }
  return board;
}

// As round in its corners as the bit that finishes the recess leaves them.
double corner_of(const Treatment& cut, const Rack& rack) {
  if (cut.insert.corners != Insert::Corners::Plain) return 0;
  double smallest = 1e300;
  for (const std::string& id : cut.clearing) {
    if (const Bit* bit = rack.find(id)) smallest = std::min(smallest, bit->true_diameter());
  }
  return smallest > 1e200 ? 3.175 / 2 : smallest / 2;
}

}  // namespace

std::vector<FurtherBoard> plug_boards(const Job& job, double room) {
  std::vector<std::pair<std::string, bool>> woods;
  for (const Item& item : job.items) {
    const std::pair<std::string, bool> wood{item.cut.inlay.wood, item.cut.inlay.crossed};
    if (item.cut.kind == Treatment::Kind::Inlay && std::find(woods.begin(), woods.end(), wood) == woods.end())
      woods.push_back(wood);
  }
  std::vector<FurtherBoard> boards;
  for (const auto& [wood, crossed] : woods) {
    std::vector<Art> arts;
    double thickness = 0.5;
    for (const Item& item : job.items) {
      if (item.cut.kind != Treatment::Kind::Inlay || item.cut.inlay.wood != wood || item.cut.inlay.crossed != crossed)
        continue;
      const Region region = job.outlines(item).region;
      if (region.empty()) continue;
      const Point middle = bounds(region).centre();
      Art art{&item, transformed(region, Transform{-1, 0, 0, 1, 2 * middle.x, 0}), {}, middle};
      art.box = bounds(art.region);
      thickness = std::max(thickness, item.cut.inlay.thickness);
      arts.push_back(std::move(art));
    }
    if (!arts.empty()) boards.push_back(plugs_of(job, arts, thickness, room));
  }
  return boards;
}

std::vector<FurtherBoard> insert_boards(const Job& job, const Rack& rack, double room) {
  std::vector<std::pair<std::string, double>> sheets;
  const auto wanted = [](const Treatment& cut) {
    return cut.kind == Treatment::Kind::Recess && cut.insert.cut && cut.insert.thickness > 0;
  };
  for (const Item& item : job.items) {
    const std::pair<std::string, double> sheet{item.cut.insert.material, item.cut.insert.thickness};
    if (wanted(item.cut) && std::find(sheets.begin(), sheets.end(), sheet) == sheets.end()) sheets.push_back(sheet);
  }
  std::vector<FurtherBoard> boards;
  for (const auto& [material, thickness] : sheets) {
    std::vector<Art> arts;
    for (const Item& item : job.items) {
      if (!wanted(item.cut) || item.cut.insert.material != material || item.cut.insert.thickness != thickness) continue;
      const Region whole = job.outlines(item).region;
      const double corner = corner_of(item.cut, rack);
      Art art{&item,
              grow(corner > 0 ? opening(whole, corner) : whole, -item.cut.insert.clearance),
              {},
              bounds(whole).centre()};
      if (art.region.empty()) continue;
      art.box = bounds(art.region);
      arts.push_back(std::move(art));
    }
    if (arts.empty()) continue;
    FurtherBoard board;
    board.kind = FurtherBoard::Kind::Inserts;
    board.job = board_for(job, "inserts", thickness, material, std::min(4.0, room / 2));
    board.folder =
        folder_of(word_in_file(say("files: inserts")), material) + "-" + folder_of(format_number(thickness, 2), "mm");
    const std::vector<SetOut::Place> places = set_out(board.job, arts, 6, room);
    for (std::size_t i = 0; i < arts.size(); ++i) {
      const Art& art = arts[i];
      Outlines outlines;
      outlines.region = art.region;
      Item item;
      item.piece.id = art.item->piece.id;
      item.piece.name = say("{0}, insert", art.item->piece.name);
      item.piece.what = frozen(outlines, item.piece.name);
      item.piece.at = places[i].at;
      item.piece.turn = places[i].half_turn ? 180 : 0;
      item.cut.kind = Treatment::Kind::CutOut;
      item.cut.bit = id_of(flat_nearest_for(rack, kMmPerInch / 8, thickness + default_over_cut(board.job.blank)));
      item.cut.through.tabs = usual_tabs(board.job.blank);
      board.job.items.push_back(std::move(item));
      board.places.push_back({art.item->piece.id, art.pocket, places[i].at, places[i].half_turn});
    }
    boards.push_back(std::move(board));
  }
  return boards;
}

std::vector<FurtherBoard> levelling_boards(const Job& job, const Rack& rack) {
  if (!job.run.mill_level) return {};
  constexpr double kForSanding = 0.1;  // mm
  const double high = *job.run.mill_level;
  const Bit* bit = nullptr;  // the widest
  for (const Bit& b : rack.bits) {
    if (b.kind == BitKind::Flat && (bit == nullptr || b.true_diameter() > bit->true_diameter())) bit = &b;
  }
  FurtherBoard board;
  board.kind = FurtherBoard::Kind::Levelling;
  board.job = board_for(job, "levelling", job.blank.thickest() + high, job.blank.species, 0);
  board.folder = word_in_file(say("files: levelling"));
  board.job.blank.width = job.blank.width;
  board.job.blank.height = job.blank.height;
  board.job.run.holding = job.run.holding;
  board.job.blank.keep_outs = job.blank.keep_outs;
  board.job.run.zero_surface = job.run.zero_surface;
  board.job.run.zero_below = job.run.zero_surface == ZeroSurface::Face ? high : 0;
  board.job.run.low_travel = false;
  Region stubs;
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::Inlay && item.cut.ground.value_or(0) <= 0)
      stubs = unite(stubs, grow(job.outlines(item).region, kPlugBackground + 1, Corner::Round, 0.05));
  }
  if (stubs.empty() || bit == nullptr || high <= kForSanding + 0.05) return {};
  Outlines area;
  area.region = intersect(stubs, region_of(job.blank));
  if (area.region.empty()) return {};
  Item item;
  item.piece.id = "level";
  item.piece.name = say("Plugs, milled level");
  item.piece.what = frozen(area, item.piece.name);
  item.piece.at = bounds(area.region).centre();
  item.cut.kind = Treatment::Kind::Plane;
  item.cut.depth = high - kForSanding;
  item.cut.clearing = {bit->id};
  board.job.items.push_back(std::move(item));
  return {board};
}

}  // namespace doyen
