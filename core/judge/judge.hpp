// The judge: what the written files do to the wood, against what the wood shall look like. It knows nothing of the
// plan: files come through the independent reader, what is wanted comes from outlines and treatments
// (judge/wanted.hpp).
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <unordered_map>
#include <vector>

#include "cancel.hpp"
#include "cutting/pass.hpp"
#include "judge/wanted.hpp"
#include "rack/bit.hpp"

namespace doyen {

// One operation as a file does it, in board coordinates of its side.
struct Worked {
  struct Rapid {
    Point3 from, to;
  };
  std::string file;
  std::string piece;      // id; empty where the file does not say
  std::string treatment;  // its word
  Side side = Side::Front;
  bool later = false;  // after inlays are glued in and level
  Bit bit;
  double most_at_once = 0;  // mm of wood that the bit may take with one move
  double plunge = 0;        // mm/min that it may sink into wood
  std::vector<Pass> passes;
  std::vector<std::vector<double>> feeds;  // along `passes`: mm/min to each point; the first of each is not used
  std::vector<Rapid> rapids;
};

struct Fault {
  enum class Kind {
    Gouge,   // below what was wanted
    Missed,  // above it where a chosen bit could have come
    Bite,    // a move takes more at once than its bit may
    Plunge,  // it sinks faster than it may, or a bit that does not cut at its middle goes straight down
    Rub,     // body or shank against standing wood
    Air,     // a whole operation that cuts nothing
    Rapid,   // a rapid move where wood may be
  };
  Kind kind = Kind::Gouge;
  double mm = 0;                     // how deep, how much at once, how far above the cutting edge
  double mm2 = 0;                    // of the face, where it has an area
  Point at;                          // the worst place, as seen from the front
  std::string hurt;                  // id of the piece there; empty: bare board
  std::string piece;                 // id of the piece whose cutting does it; of Missed, whose it is
  std::string file, bit, treatment;  // what does it; empty for Missed
};
const char* to_word(Fault::Kind kind);  // gouge, missed, bite, plunge, rub, air, rapid

struct Judgement {
  double cell = 0;  // mm
  std::size_t cells = 0;
  double within = 0;  // mm: the largest difference between what is cut and what was wanted and can be reached
  std::vector<Fault> faults;
  struct Left {  // what no chosen bit reaches
    double mm = 0, mm2 = 0;
    Point at;
  } left;
  // Where that is, in rows of cells as seen from the front: for drawing.
  struct LeftRun {
    double x0, x1, y;
  };
  std::vector<LeftRun> left_runs;

  [[nodiscard]] bool has(Fault::Kind kind) const;
  [[nodiscard]] double worst(Fault::Kind kind) const;  // mm
  [[nodiscard]] double area(Fault::Kind kind) const;   // mm²
  [[nodiscard]] bool cut_as_wanted() const;            // nothing that would spoil wood or break a bit
};

// One state of the wood that is judged: a side as it is when everything is cut, or before inlays are glued in.
struct JudgedSide {
  Side side = Side::Front;
  const Wanted* wanted = nullptr;
  std::vector<std::size_t> worked;  // of the task's, those that have made it what it is, in their order
  double top = 0;                   // mm above the nominal face at which there may still be wood or film
};

struct JudgeTask {
  Box board;    // mm, 0 0 to width height
  Blank blank;  // for turning places of the back over
  TurnOver turn = TurnOver::LeftEdge;
  std::vector<Worked> worked;  // in the order of the files
  std::vector<JudgedSide> sides;
};

// Remembers what it found tile by tile, so that an edit judges again only what it touched. For one thread at a time.
class JudgeMemory {
 public:
  struct Tile;
  std::unordered_map<std::uint64_t, std::shared_ptr<const Tile>> tiles;
  std::size_t worked_out = 0;  // tiles that the last judging had to look at
};

// `cell`: mm. Tolerances: a gouge counts from 0.02 mm, what is left from 0.05 mm (geometry.md, tolerances); upright
// walls may stand 0.02 mm to either side.
Judgement judge_work(const JudgeTask& task, double cell, const Cancel& cancel = {}, JudgeMemory* memory = nullptr);

}  // namespace doyen
