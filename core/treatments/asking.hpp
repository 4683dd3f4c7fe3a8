// What looks say to the judge: what the wood shall look like where a piece is.
#pragma once

#include <limits>
#include <memory>
#include <utility>
#include <vector>

#include "artwork/piece.hpp"
#include "geometry/polyline.hpp"
#include "stock/turn_over.hpp"
#include "treatments/surroundings.hpp"
#include "treatments/treatment.hpp"
#include "wanted/features.hpp"

namespace doyen {

struct WantedPiece {
  std::string id;
  const Outlines* outlines = nullptr;  // as seen from the front; null: it cannot be set
  const Treatment* cut = nullptr;
  const Surroundings* around = nullptr;
  bool must = true;          // it is asked for; else it only may be taken
  double smallest_flat = 0;  // mm, diameter of the smallest flat bit that is chosen for it; 0: none
  std::uint64_t key = 0;     // changes whenever anything of the above does
};

std::vector<Line2> rings_as_lines(const Region& region);  // closed: each ends where it begins

// One piece as the side that is looked at has it. Depths and heights are mm below the face, positive.
class Asking {
 public:
  Asking(const WantedPiece& piece, const Blank& blank, const Rack& rack, Side side, TurnOver turn);

  const WantedPiece& piece;
  const Treatment& cut;
  const Blank& blank;
  const Bit* const bit;  // its own; null where the rack has none of that name
  Region region, sunk, raised;
  std::vector<Line2> lines;
  double below = 0;  // its ground
  [[nodiscard]] const Bit* of_kind(BitKind kind) const { return bit != nullptr && bit->kind == kind ? bit : nullptr; }
  [[nodiscard]] Point place(Point front) const;  // of a place as seen from the front

  // What may be asked for. `from`: the ground that it starts at.
  void groove(const Region& area, double limit, double sunk, double from);  // by its V
  void floor(const Region& area, double depth, double from);                // by the flat bits chosen for it
  void opening(const Region& area, double depth, const Region& reached);    // from the face
  void may_fall(const Region& area, double depth);                          // it may be taken and need not be
  void line(const std::vector<Line2>& along, double depth) { line(along, depth, *bit); }
  void line(const std::vector<Line2>& along, double depth, const Bit& by);
  void hatch(const Region& edge, double depth);
  void bevel(const Region& outline, bool inwards, double depth);
  void slit(const Region& body, bool inside);  // right through, with its tabs

  std::vector<std::unique_ptr<wanted::Feature>> features;
  std::unique_ptr<wanted::Kerf> kerf;

 private:
  void add(double ground, std::unique_ptr<wanted::Feature> feature);
  // Where the tabs stand on this side's body: by hand, or where the treatment's rules put them.
  struct TabOn {
    Point at, along;
    bool straight;
  };
  [[nodiscard]] std::vector<TabOn> tabs_on(const Region& body, double diameter, bool inside) const;
  Side side_;
  TurnOver turn_;
};

}  // namespace doyen
