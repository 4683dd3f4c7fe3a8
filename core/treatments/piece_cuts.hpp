// From what a piece shall look like to what the bits do. How each look is cut stands in its own folder.
#pragma once

#include <memory>
#include <optional>

#include "artwork/piece.hpp"
#include "cancel.hpp"
#include "cutting/groove.hpp"
#include "cutting/operation.hpp"
#include "cutting/profile.hpp"
#include "measure/id.hpp"
#include "rack/asked_rack.hpp"
#include "stock/blank.hpp"
#include "treatments/surroundings.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

// What no chosen bit reaches of a piece.
struct Unreached {
  double area = 0;   // mm²
  Point at;          // the middle of the largest part
  double width = 0;  // mm, about how wide that part is
};

struct PieceCuts {
  std::vector<Operation> operations;  // in the order in which they must happen
  std::optional<Groove> groove;       // incised pieces
  std::optional<CutOut> cut_out;      // cut-out pieces
  Region floor;                       // flat floors at the limit
  double limit = 0;                   // mm, the floor limit that was used; infinite without one
  bool limited_by_body = false;       // the bit's body set that limit, not the user
  double floor_by_v = 0;              // mm² of floor that only the V's tip goes over
  Unreached unreached;
  Region lost;               // where that is
  double ground = 0;         // mm below the face that it starts from
  std::vector<BitId> bits;   // ids of the clearing bits that are used, chosen or proposed, largest first
  std::vector<Point> holes;  // of Drill
  double deepest = 0;        // mm below the face, positive
  Point deepest_at;
};

// Wood class and thickness come from the blank, bits from the rack. A bit that is not in the rack, or of the wrong
// kind, yields no operations for its part: the verdicts say so.
PieceCuts cut_piece(const std::string& id, const Outlines& outlines, const Treatment& treatment, const Blank& blank,
                    const AskedRack& rack, const Cancel& cancel = {}, const Surroundings& around = {});

}  // namespace doyen
