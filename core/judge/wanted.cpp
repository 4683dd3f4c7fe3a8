#include "judge/wanted.hpp"

#include <algorithm>
#include <functional>

#include "cancel.hpp"
#include "treatments/cut_out/cut_out.hpp"
#include "treatments/look.hpp"

namespace doyen {
namespace {

using LookKind = Treatment::Kind;
using wanted::kFace;
using wanted::kReached;
using wanted::kWall;
using wanted::mixed;

constexpr float kBottomless = -1e6F;

}  // namespace

struct Wanted::Impl {
  struct Placed {
    std::string id;
    Region region;
    double size = 0;
  };
  std::vector<std::unique_ptr<wanted::Feature>> features;  // in the order in which grounds carry each other
  std::vector<std::unique_ptr<wanted::Kerf>> kerfs;
  Region kept;  // inside all cut-outs, when there are any
  OutlineSegments kept_edge;
  bool cut_out = false;
  double waste_floor = 0;
  Region board;  // where it is no rectangle
  OutlineSegments board_edge;
  std::vector<Placed> placed;
  std::uint64_t board_key = 0;

  // While the pieces are gone through:
  struct Slit {
    wanted::Kerf* kerf;
    Region body;  // empty for openings
  };
  std::vector<Slit> slits;
  std::vector<Region> bodies;

  void take(const WantedPiece& piece, const Blank& blank, const Rack& rack, Side side, TurnOver turn);
  void part_slits();
  void take_board(const Blank& blank, Side side, TurnOver turn);
};

void Wanted::Impl::take(const WantedPiece& piece, const Blank& blank, const Rack& rack, Side side, TurnOver turn) {
  if (piece.outlines == nullptr || piece.cut == nullptr || piece.around == nullptr) return;
  if (piece.cut->kind == LookKind::None) return;
  const bool own = piece.cut->back == (side == Side::Back);
  if (!own && piece.cut->kind != LookKind::CutOut) return;
  Asking asker(piece, blank, rack, side, turn);
  Region body;
  if (piece.cut->kind == LookKind::CutOut && !piece.outlines->region.empty()) {
    const Bit* bit = rack.find(piece.cut->bit);
    if (bit != nullptr && bit->kind == BitKind::Flat) {
      body = cut_out_body(asker.region, piece.around->grown);
      bodies.push_back(body);
      cut_out = true;
      waste_floor = std::min(waste_floor, -through_depth(piece.cut->through, blank));
      board_key = mixed(board_key, piece.key);
    }
  }
  if (!own) return;
  look_of(piece.cut->kind).ask(asker);
  if (!asker.region.empty()) placed.push_back({piece.id, asker.region, area(asker.region)});
  for (auto& feature : asker.features) feature->asked = piece.must;
  if (asker.kerf) asker.kerf->asked = piece.must;
  for (auto& feature : asker.features) features.push_back(std::move(feature));
  if (asker.kerf) {
    slits.push_back({asker.kerf.get(), piece.cut->kind == LookKind::CutOut ? body : Region{}});
    kerfs.push_back(std::move(asker.kerf));
  }
}

// No slit may go into another body, but for one that holds its own whole: that is cut into on purpose.
void Wanted::Impl::part_slits() {
  for (const Slit& slit : slits) {
    for (const Region& other : bodies) {
      if (slit.body.empty() || !::doyen::bounds(other).meets(slit.kerf->box)) continue;
      if (subtract(slit.body, grow(other, 0.02)).empty()) continue;
      slit.kerf->others = unite(slit.kerf->others, subtract(grow(other, -kReached), slit.body));
    }
  }
}

void Wanted::Impl::take_board(const Blank& blank, Side side, TurnOver turn) {
  if (blank.form == BlankForm::Rectangle) return;
  board = region_of(blank);
  if (side == Side::Back) board = turned_over(board, blank, turn);
  board_edge = OutlineSegments(board);
  // The board's own form is nobody's piece: another one is judged anew.
  for (const Island& island : board.islands) {
    for (const Ring& ring : island.rings) {
      for (const Point& p : ring)
        board_key = mixed(mixed(board_key, std::hash<double>{}(p.x)), std::hash<double>{}(p.y));
    }
  }
}

Wanted::Wanted(const std::vector<WantedPiece>& pieces, const Blank& blank, const Rack& rack, Side side, TurnOver turn)
    : impl_(std::make_unique<Impl>()) {
  Impl& all = *impl_;
  for (const WantedPiece& piece : pieces) {
    Cancel::check_here();
    all.take(piece, blank, rack, side, turn);
  }
  // Floors carry what is cut into them: the higher ground first.
  std::stable_sort(all.features.begin(), all.features.end(),
                   [](const auto& a, const auto& b) { return a->ground < b->ground; });
  all.part_slits();
  if (all.cut_out) {
    for (const Region& body : all.bodies) all.kept = unite(all.kept, body);
    all.kept_edge = OutlineSegments(all.kept);
  }
  all.take_board(blank, side, turn);
  std::sort(all.placed.begin(), all.placed.end(),
            [](const Impl::Placed& a, const Impl::Placed& b) { return a.size < b.size; });
}

Wanted::~Wanted() = default;
Wanted::Wanted(Wanted&&) noexcept = default;

void Wanted::bounds(const CellGrid& grid, WantedBounds& out, bool likely) const {
  const Impl& all = *impl_;
  out.low.assign(grid.size(), kFace);
  out.high.assign(grid.size(), kFace);
  out.reach.assign(grid.size(), kFace);
  out.likely.assign(likely ? grid.size() : 0, kFace);
  const Box box = grid.box();
  const auto touches = [&](const wanted::Feature& f) { return f.box.meets(box.grown(grid.cell)); };
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
      if (likely) out.likely[i] = kFace;
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
