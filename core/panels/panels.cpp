#include "panels/panels.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include "cancel.hpp"
#include "geometry/path.hpp"
#include "holding/screws.hpp"
#include "job/layout.hpp"
#include "measure/list_entries.hpp"
#include "problem.hpp"
#include "treatments/start.hpp"
#include "treatments/through/through.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// Where a panel ends on the sign in one direction, mm.
struct Span {
  double from = 0, to = 0;
  bool seam_before = false, seam_behind = false;
};

std::vector<Span> spans(double whole, const std::vector<double>& seams, double gap) {
  std::vector<Span> all{{0, whole, false, false}};
  for (const double at : seams) {
    Span& last = all.back();
    if (at - gap / 2 - last.from < kNarrowestPanel || whole - at - gap / 2 < kNarrowestPanel) continue;
    last.to = at - gap / 2;
    last.seam_behind = true;
    all.push_back({at + gap / 2, whole, true, false});
  }
  return all;
}

struct Parted {
  std::vector<Span> columns, rows;  // from the left, from the front
};
Parted parted(const Job& job) {
  const PanelChoices& panels = job.panels;
  return {spans(job.blank.width, panels.across, panels.gap), spans(job.blank.height, panels.deep, panels.gap)};
}

// The sign's wood between those places. Empty where there is none worth a panel.
Region wood_in(const Job& job, const Box& box) {
  constexpr double kCrumb = 100;  // mm²
  if (job.blank.form == BlankForm::Rectangle) return region_of(box);
  Region wood = intersect(region_of(job.blank), region_of(box));
  return area(wood) < kCrumb ? Region{} : wood;
}

std::string letter_of(std::size_t i) {
  std::string letters(1, static_cast<char>('A' + i % 26));
  for (i /= 26; i > 0; i /= 26) letters.insert(letters.begin(), static_cast<char>('A' + (i - 1) % 26));
  return letters;
}

void give_wood(Job& out, const Job& job, const Panel& panel) {
  Blank& blank = out.blank;
  const Parted seams = parted(job);
  const Span &column = seams.columns[panel.column], &row = seams.rows[seams.rows.size() - 1 - panel.row];
  blank.width = panel.box.width();
  blank.height = panel.box.height();
  blank.runs_off = {column.seam_before || job.blank.runs_off.left, column.seam_behind || job.blank.runs_off.right,
                    row.seam_before || job.blank.runs_off.front, row.seam_behind || job.blank.runs_off.back};
  blank.keep_outs.clear();
  for (KeepOut place : job.blank.keep_outs) {
    if (!place.box().meets(panel.box)) continue;
    place.x -= panel.box.left;
    place.y -= panel.box.bottom;
    blank.keep_outs.push_back(place);
  }
  if (blank.form == BlankForm::Rectangle) return;
  const Region wood = wood_in(job, panel.box);
  blank.edge.clear();
  if (area(wood) > blank.width * blank.height - 1) {
    blank.form = BlankForm::Rectangle;
    return;
  }
  Path edge;
  for (const Island& island : wood.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) i == 0 ? edge.move(ring[i]) : edge.line(ring[i]);
      edge.close();
    }
  }
  blank.form = BlankForm::Outline;
  blank.edge = path_data(edge, 4);
}

// What a piece is cut over lies on the panel with some of it; what cannot be set is there to be said.
bool lies_on(const Job& job, const Item& item, const Box& panel) {
  constexpr double kBeside = kLargestRunOff + 80;  // mm: slits reach beyond their outlines
  try {
    Box box = bounds(job.outlines(item));
    // The whole ground is the work of the pieces that are raised from it.
    const bool raised = item.cut.kind == Treatment::Kind::Raise;
    const Item* ground = raised ? job.find(item.cut.raise.panel) : nullptr;
    if (ground != nullptr) box.add(bounds(job.outlines(*ground)));
    return box.empty() || box.grown(kBeside + (raised ? item.cut.margin : 0)).meets(panel);
  } catch (const Problem&) {
    return true;
  }
}

// What the panel has nothing of goes, unless something on it is made from it or counted by it.
void leave_out_others(Job& out, const Job& job, const Box& panel) {
  std::set<std::string> kept;
  for (const Item& item : job.items) {
    if (!lies_on(job, item, panel)) continue;
    for (const Piece* piece : job.with_sources(item.piece)) kept.insert(piece->id);
    if (!item.cut.raise.panel.empty()) kept.insert(item.cut.raise.panel);
  }
  for (bool more = true; more;) {  // and what those are made from in turn
    more = false;
    for (const Item& item : job.items) {
      if (!kept.contains(item.piece.id)) continue;
      for (const std::string& source : sources_of(item.piece)) more = kept.insert(source).second || more;
    }
  }
  std::erase_if(out.items, [&](const Item& item) { return !kept.contains(item.piece.id); });
}

const Bit* bit_for_holes(const Job& job, const Rack& rack) {
  const Bit* best = nullptr;
  const double deep = job.blank.thickest() + default_over_cut(job.blank);
  for (const Bit& bit : rack.bits) {
    if (bit.kind != BitKind::Flat || bit.true_diameter() > job.panels.hole - 1e-6 || bit.flute_length < deep) continue;
    if (best == nullptr || bit.true_diameter() > best->true_diameter()) best = &bit;
  }
  if (best == nullptr)
    throw bad_input(say("No end mill in the rack makes a hole {0} wide right through {1}.",
                        size_in_words(job.panels.hole, job.lengths),
                        depth_in_words(job.blank.thickest(), job.lengths)));
  return best;
}

void add_screw_holes(Job& out, const Job& job, const Rack& rack, const Panel& panel) {
  const Bit* bit = bit_for_holes(job, rack);
  const LookStart start{out.blank, out.lengths, rack, [](const Bit&) { return 0.0; }};
  int number = 1;
  for (const Point at : screws_of(job, rack, panel)) {
    Item item;
    item.piece.id = out.fresh_id("screw-hole");
    item.piece.name = say("Screw {0}", number++);
    item.piece.what = PlainShape{PlainShape::Kind::Ellipse, job.panels.hole, job.panels.hole};
    item.piece.at = at - Point{panel.box.left, panel.box.bottom};
    item.cut = start_look(Treatment::Kind::Pierce, Treatment{}, start);
    item.cut.bit = bit->id;
    item.cut.clearing.clear();
    item.cut.pierce.slug = false;
    item.cut.through.tabs.wanted = false;
    item.group = "panel-screws";
    out.items.push_back(std::move(item));
  }
}

}  // namespace

std::vector<Panel> panels_of(const Job& job) {
  const Parted seams = parted(job);
  std::vector<Panel> all;
  for (std::size_t row = 0; row < seams.rows.size(); ++row) {
    const Span& deep = seams.rows[seams.rows.size() - 1 - row];
    for (std::size_t column = 0; column < seams.columns.size(); ++column) {
      const Span& across = seams.columns[column];
      const Region wood = wood_in(job, {across.from, deep.from, across.to, deep.to});
      if (!wood.empty()) all.push_back({static_cast<int>(all.size()) + 1, column, row, bounds(wood)});
    }
  }
  return all;
}

std::vector<MatingEdge> mating_edges(const Job& job) {
  const std::vector<Panel> panels = panels_of(job);
  const Parted seams = parted(job);
  const double gap = job.panels.gap;
  const auto number_at = [&](std::size_t column, std::size_t row) {
    const auto found =
        std::find_if(panels.begin(), panels.end(), [&](const Panel& p) { return p.column == column && p.row == row; });
    return found == panels.end() ? 0 : found->number;
  };
  std::vector<MatingEdge> all;
  const auto add = [&](bool upright, double at, const Span& along, int one, int other) {
    constexpr double kBeside = 0.1;  // mm
    if (one == 0 || other == 0) return;
    const double half = gap / 2 + kBeside;
    const Box strip =
        upright ? Box{at - half, along.from, at + half, along.to} : Box{along.from, at - half, along.to, at + half};
    Region wood = region_of(strip);
    if (job.blank.form != BlankForm::Rectangle) wood = intersect(wood, region_of(job.blank));
    if (wood.empty()) return;
    const Box box = bounds(wood);
    all.push_back({letter_of(all.size()), upright, at, upright ? box.bottom : box.left, upright ? box.top : box.right,
                   one, other});
  };
  const std::size_t rows = seams.rows.size();
  for (std::size_t row = 0; row < rows; ++row) {
    for (std::size_t column = 0; column + 1 < seams.columns.size(); ++column)
      add(true, seams.columns[column].to + gap / 2, seams.rows[rows - 1 - row], number_at(column, row),
          number_at(column + 1, row));
    for (std::size_t column = 0; row + 1 < rows && column < seams.columns.size(); ++column)
      add(false, seams.rows[rows - 2 - row].to + gap / 2, seams.columns[column], number_at(column, row + 1),
          number_at(column, row));
  }
  return all;
}

double dowel_depth(const Job& job) { return std::max(15.0, 2.5 * job.panels.hole); }

std::vector<double> dowels_of(const Job& job, const MatingEdge& edge) {
  constexpr double kFromEnd = 40, kLeast = 60;  // mm (common practice, no source)
  const double length = edge.to - edge.from;
  if (length < kLeast) return {edge.from + length / 2};
  const double end = std::min(kFromEnd, length / 4), room = length - 2 * end;
  const int parts = std::max(1, static_cast<int>(std::ceil(room / job.panels.apart - 1e-9)));
  std::vector<double> places;
  for (int i = 0; i <= parts; ++i) places.push_back(edge.from + end + room * i / parts);
  return places;
}

namespace {

// mm of plain wood round a screw's middle (common practice, no source).
double head_of(const PanelChoices& choices) { return choices.hole / 2 + 4; }

// Where a screw's middle may lie: in the panel's wood, clear of all that is cut.
Region room_for_screws(const Job& job, const Rack& rack, const Panel& panel) {
  const PanelChoices& choices = job.panels;
  const double head = head_of(choices);
  Region room = grow(wood_in(job, panel.box), -std::min(choices.inset, head) + 0.01, Corner::Sharp);
  Region shape;
  for (const Item& item : job.items) {
    Cancel::check_here();
    if (item.cut.kind == Treatment::Kind::None || item.cut.kind == Treatment::Kind::Plane) continue;
    try {
      const Outlines outlines = job.outlines(item);
      if (item.cut.kind == Treatment::Kind::CutOut) shape = unite(shape, outlines.region);
      if (!bounds(outlines).grown(item.cut.margin + head + kLargestRunOff).meets(panel.box)) continue;
      room = subtract(room, grow(cut_region(job, item, outlines, rack), head));
    } catch (const Problem&) {
      continue;  // its own verdict says so
    }
  }
  return shape.empty() ? room : intersect(room, grow(shape, -head));
}

// At even distances from one place to the other; where one is taken, at the nearest free place along the way.
void put_along(std::vector<Point>& places, const Region& room, Point from, Point to, int parts, double apart) {
  constexpr double kStep = 2;  // mm
  const Point way = to - from;
  const double whole = length(way), most = whole / std::max(1, parts) / 2;
  // True where there is a screw then, this one or another close by.
  const auto tried = [&](int i, double by) {
    const double share = (whole > 0 ? by / whole : 0) + static_cast<double>(i) / std::max(1, parts);
    const Point p = from + way * std::clamp(share, 0.0, 1.0);
    if (!contains(room, p)) return false;
    const auto close = [&](Point other) { return distance(other, p) < apart; };
    if (std::none_of(places.begin(), places.end(), close)) places.push_back(p);
    return true;
  };
  for (int i = 0; i <= parts; ++i) {
    for (double off = 0; off <= most; off += kStep) {
      if (tried(i, off) || (off > 0 && tried(i, -off))) break;
    }
  }
}

}  // namespace

std::vector<Point> screws_of(const Job& job, const Rack& rack, const Panel& panel) {
  const PanelChoices& choices = job.panels;
  const double head = head_of(choices);
  const Region room = room_for_screws(job, rack, panel);
  // Along each edge in turn; where a place is taken, the nearest free one along it.
  const Box line = panel.box.grown(-choices.inset);
  std::vector<Point> places;
  if (line.right < line.left || line.top < line.bottom) return places;
  const auto put = [&](Point from, Point to, int parts) { put_along(places, room, from, to, parts, 2 * head); };
  const auto parts = [&](double mm) { return std::max(1, static_cast<int>(std::ceil(mm / choices.apart - 1e-9))); };
  const int wide = parts(line.width()), high = parts(line.height());
  put({line.left, line.bottom}, {line.right, line.bottom}, wide);
  put({line.left, line.top}, {line.right, line.top}, wide);
  put({line.left, line.bottom}, {line.left, line.top}, high);
  put({line.right, line.bottom}, {line.right, line.top}, high);
  return places;
}

Job panel_job(const Job& job, const Rack& rack, const Panel& panel) {
  Job out = job;
  out.panels = {};
  out.run.made = 0;
  out.name = say("{0}, panel {1}", job.name, panel.number);
  leave_out_others(out, job, panel.box);
  give_wood(out, job, panel);
  shift_layout(out, Point{} - Point{panel.box.left, panel.box.bottom});
  if (job.panels.join == PanelChoices::Join::Screws) add_screw_holes(out, job, rack, panel);
  return out;
}

std::vector<double> parse_seams(const std::string& words, Unit unit) {
  std::vector<double> seams;
  for (const std::string& part : list_entries(words)) {
    const double place = parse_length(part, unit);
    if (!(place > 0 && place <= kFarthestSeam))
      throw bad_input(say("“{0}”: the place of a seam was expected, larger than 0.", part));
    seams.push_back(place);
  }
  if (seams.size() > kMostSeams) throw bad_input(say("At most {0} seams were expected.", kMostSeams));
  std::sort(seams.begin(), seams.end());
  return seams;
}

std::string seams_in_words(const std::vector<double>& seams, const LengthStyle& style) {
  std::string words;
  for (const double at : seams) words += (words.empty() ? "" : "; ") + format_length(at, style);
  return words;
}

}  // namespace doyen
