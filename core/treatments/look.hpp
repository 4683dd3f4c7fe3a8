// What a treatment knows of itself. Everything that goes over all treatments asks here; each look is one constant in
// its own folder, listed in treatments/all.hpp.
#pragma once

#include <functional>
#include <vector>

#include "measure/length.hpp"
#include "rack/bit.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

template <typename R>
class Record;
class Asking;
struct PieceCuts;
struct PieceSeen;
struct Verdict;
namespace cutting {
struct Piece;
}

// What the figures that a look begins with may hang on.
struct LookStart {
  const Blank& blank;
  const LengthStyle& lengths;
  const Rack& rack;
  std::function<double(const Bit& v)> widest_stroke;  // mm, of the piece's outlines; 0 where none is known
};

struct Look {
  Treatment::Kind kind = Treatment::Kind::None;
  const char* word = "";  // in job files and on the command line
  const char* done = "";  // what is said of the piece: it is “bevelled”

  bool chosen = true;        // people choose it; else it is made from another one
  bool through = false;      // right through the wood
  bool ground = false;       // leaves a floor that other things can be cut into
  bool asks_depth = false;   // the treatment's depth says how deep it goes
  bool starts_deep = false;  // a fifth of the board at first, where no depth was chosen
  bool needs_area = true;    // single lines are nothing to it
  bool takes_area = false;   // takes the wood inside its outline or round it: two of them in one place are a heap
  bool in_waste = false;     // belongs outside of what is cut out, too: marks, screws, edges
  bool on_edge = false;  // works along the outline only; where boards are glued to it, it waits until they are level
  bool resin = false;    // can be filled
  bool to_back = false;  // goes to the back by itself, and lies there as it is seen from the front

  // Its own bit; which of that kind it begins with, where not any will do; and which one when the piece has none such:
  // without the last, the one of its kind that is nearest to the usual.
  WantedBit (*bit)(const Treatment&) = [](const Treatment&) { return WantedBit::None; };
  bool (*takes)(const Bit&) = [](const Bit&) { return true; };
  const Bit* (*usual_bit)(const Rack&) = nullptr;
  // Flat bits clear a floor for it; they make its walls, upright.
  bool (*clears)(const Treatment&) = [](const Treatment&) { return false; };
  bool (*upright)(const Treatment&) = [](const Treatment&) { return false; };
  double (*floor_depth)(const Treatment&) = [](const Treatment& t) { return t.depth; };
  // Is cut alike however its piece is turned, where floors are cleared by rings: nothing of it hangs on up and down, on
  // the grain, or on which outline is which.
  bool (*turns)(const Treatment&) = [](const Treatment&) { return false; };

  // Adds its own choices to the list of fields.
  void (*fields)(Record<Treatment>&) = [](Record<Treatment>&) {};
  // Sets its usual figures; bits, and depths that start deep, are set already.
  void (*start)(Treatment&, const LookStart&) = [](Treatment&, const LookStart&) {};
  // Adds the operations that make it; a bit that is missing or of the wrong kind makes none.
  void (*cut)(const cutting::Piece&, PieceCuts&) = [](const cutting::Piece&, PieceCuts&) {};
  // Says what the wood shall look like. It must not look at operations: it is what they are judged by.
  void (*ask)(Asking&) = [](Asking&) {};
  // Says what is amiss with one piece that looks so; what concerns several pieces, or every look, is in verdicts/.
  void (*check)(const PieceSeen&, std::vector<Verdict>&) = [](const PieceSeen&, std::vector<Verdict>&) {};
};

const Look& look_of(Treatment::Kind kind);

}  // namespace doyen
