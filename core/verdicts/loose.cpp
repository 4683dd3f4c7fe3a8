// Parts that come free: whatever the through cuts of all pieces together set loose, found in the relief itself.
#include <algorithm>
#include <cmath>
#include <map>
#include <vector>

#include "relief/carve.hpp"
#include "stock/species.hpp"
#include "stock/strength.hpp"
#include "treatments/suits.hpp"
#include "verdicts/remedies.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kCellsLoose = 400'000;  // about so many look at the whole board
constexpr double kLeast = 9;             // mm²: smaller crumbs are dust

struct Part {
  double area = 0;  // mm²
  Point at;         // its first cell; inside it
  bool at_edge = false;
};

// The connected parts of the wood that is left when every through cut is made. Tabs and uncut floors connect.
std::vector<Part> parts_left(const Situation& s) {
  const Box board = s.job.blank.box();
  const double cell = std::clamp(std::sqrt(board.width() * board.height() / kCellsLoose), 0.3, 3.0);
  HeightField field(board, cell);
  field.clear();
  for (const PieceState& piece : s.pieces) {
    if (piece.cuts == nullptr) continue;
    for (const Operation& op : piece.cuts->operations) {
      const Bit* bit = s.rack.find(op.bit);
      if (bit != nullptr && op.depth - op.ground >= s.job.blank.thinnest())
        carve(field, op.back ? turned_over(op.passes, s.job.blank, s.job.run.turn) : op.passes, *bit,
              Cancel::current());
    }
  }
  const auto thickness = static_cast<float>(s.job.blank.thinnest());
  const std::size_t columns = field.columns(), rows = field.rows();
  std::vector<char> seen(columns * rows, 0);
  const auto wood = [&](std::size_t c, std::size_t r) { return field.at(c, r) > -thickness + 0.01F; };
  std::vector<Part> parts;
  std::vector<std::pair<std::size_t, std::size_t>> open;
  for (std::size_t r0 = 0; r0 < rows; ++r0) {
    for (std::size_t c0 = 0; c0 < columns; ++c0) {
      if (seen[r0 * columns + c0] != 0 || !wood(c0, r0)) continue;
      Part part;
      part.at = {field.x_of(c0), field.y_of(r0)};
      seen[r0 * columns + c0] = 1;
      open.assign(1, {c0, r0});
      while (!open.empty()) {
        const auto [c, r] = open.back();
        open.pop_back();
        part.area += cell * cell;
        part.at_edge = part.at_edge || c == 0 || r == 0 || c + 1 == columns || r + 1 == rows;
        const auto look = [&](std::size_t nc, std::size_t nr) {
          if (nc >= columns || nr >= rows || seen[nr * columns + nc] != 0 || !wood(nc, nr)) return;
          seen[nr * columns + nc] = 1;
          open.emplace_back(nc, nr);
        };
        look(c + 1, r);
        look(c - 1, r);  // wraps to a huge number at the edge, which is refused
        look(c, r + 1);
        look(c, r - 1);
      }
      parts.push_back(part);
    }
  }
  return parts;
}

// Of a part as thick as the board.
std::string weight_of(const Situation& s, double area) {
  const Species* wood = species_table().find(s.job.blank.species);
  const double kilograms = wood == nullptr ? 0 : area * s.job.blank.thinnest() * 1e-9 * wood->density;
  return weight_in_words(kilograms, s.job.lengths);
}

// Whose through cut frees what lies there: the smallest piece round it.
const Item* freed_by(const Situation& s, Point at) {
  const Item* by = nullptr;
  double least = 1e300;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.pieces[i].outlines == nullptr || !goes_through(s.job.items[i].cut.kind)) continue;
    const Box box = bounds(*s.pieces[i].outlines).grown(0.5);
    if (!box.contains(at) || box.width() * box.height() >= least) continue;
    least = box.width() * box.height();
    by = &s.job.items[i];
  }
  return by;
}

std::vector<Remedy> loose_remedies(const Item& by) {
  std::vector<Remedy> remedies = {leave_skin(by.piece.id), tape_down(by.piece.id), hold_by_tabs(by.piece.id)};
  if (by.cut.kind == Kind::Pierce) remedies.push_back(clear_opening(by.piece.id));
  return remedies;
}

bool lifts(const Situation& s, const Item& item) {
  const Bit* bit = s.rack.find(item.cut.bit);
  return bit != nullptr && bit->direction == CutDirection::UpCut;
}

// Parts of one piece that come free on tape which is too small to hold them.
struct OnTape {
  int parts = 0;
  Part least;
};

void say_tape(const Situation& s, const std::map<const Item*, OnTape>& taped, std::vector<Verdict>& out) {
  const TapeLimits& limits = strength_table().tape;
  for (const auto& [item, on] : taped) {
    std::vector<Remedy> remedies;
    const Bit* own = s.rack.find(item->cut.bit);
    if (const Bit* bit = own != nullptr && lifts(s, *item) ? pressing_like(s.rack, *own) : nullptr)
      remedies.push_back({say("Cut it with the {0}", bit->name), [id = item->piece.id, bit = bit->id](Job& job) {
                            if (Item* it = job.find(id)) it->cut.bit = bit;
                          }});
    for (Remedy& remedy : loose_remedies(*item)) {
      if (!remedy.says_of_shop) remedies.push_back(std::move(remedy));
    }
    out.push_back({Grade::Mind, "tape-holds-little", item->piece.id, on.least.at,
                   on.parts == 1 ? say("Tape alone holds a part of {0} of “{1}”.",
                                       format_area(on.least.area, s.job.lengths), item->piece.name)
                                 : say("Tape alone holds {0} small parts of “{1}”, the smallest {2}.", on.parts,
                                       item->piece.name, format_area(on.least.area, s.job.lengths)),
                   lifts(s, *item) ? say("Under a bit that lifts the chips it takes {0} to hold (common practice): "
                                         "smaller parts are pulled off and thrown.",
                                         format_area(limits.up_cut, s.job.lengths))
                                   : say("It takes about {0} to hold (common practice): smaller parts are pushed "
                                         "off and thrown.",
                                         format_area(limits.other, s.job.lengths)),
                   std::move(remedies)});
  }
}

}  // namespace

void check_loose(const Situation& s, std::vector<Verdict>& out) {
  bool through = false;
  for (const Item& item : s.job.items) through = through || goes_through(item.cut.kind);
  if (!through) return;
  std::vector<std::uint64_t> of;
  for (const PieceState& piece : s.pieces) {
    const auto goes = [&](const Operation& op) { return op.depth - op.ground >= s.job.blank.thinnest(); };
    if (piece.cuts != nullptr && std::any_of(piece.cuts->operations.begin(), piece.cuts->operations.end(), goes))
      of.push_back(piece.mark);
  }
  const std::vector<Part> parts = s.found("parts that are left", std::move(of), [&] { return parts_left(s); });
  // What reaches the board's edge is the frame that is clamped; without one, or where cuts run off the edge, the
  // largest part.
  const auto largest =
      std::max_element(parts.begin(), parts.end(), [](const Part& a, const Part& b) { return a.area < b.area; });
  const bool framed =
      !s.job.blank.runs_off.any() && std::any_of(parts.begin(), parts.end(), [](const Part& p) { return p.at_edge; });
  std::map<const Item*, OnTape> taped;
  for (const Part& part : parts) {
    if (part.area < kLeast || (framed ? part.at_edge : &part == &*largest)) continue;
    const Item* by = freed_by(s, part.at);
    // Said already, with remedies that fit the case better.
    const bool said =
        by != nullptr && std::any_of(out.begin(), out.end(), [&](const Verdict& v) {
          return v.piece == by->piece.id && (v.code == "no-tabs" || v.code == "loose-inside" || v.code == "slug-falls");
        });
    if (said) continue;
    if (by != nullptr && by->cut.through.taped) {
      const TapeLimits& limits = strength_table().tape;
      if (part.area >= (lifts(s, *by) ? limits.up_cut : limits.other)) continue;
      OnTape& on = taped[by];
      if (on.parts++ == 0 || part.area < on.least.area) on.least = part;
      continue;
    }
    out.push_back(
        {Grade::Mind, "comes-free", by == nullptr ? std::string() : by->piece.id, part.at,
         say("A loose part (about {0}, {1}){2} comes free before the cut ends.", format_area(part.area, s.job.lengths),
             weight_of(s, part.area), (by == nullptr ? "" : say(" in “{0}”", by->piece.name))),
         say("Tape it down, or hold it otherwise; a loose part can be caught by the bit and thrown."),
         by == nullptr ? std::vector<Remedy>() : loose_remedies(*by)});
  }
  say_tape(s, taped, out);
}

}  // namespace doyen
