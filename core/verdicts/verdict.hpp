// What a check says: a sentence with a place, a grade and remedies that do something.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "job/job.hpp"
#include "measure/feed.hpp"
#include "treatments/piece_cuts.hpp"
#include "verdicts/verdict_memory.hpp"

namespace doyen {

// Stop: would spoil wood, break a bit or be unsafe. Mind: look at this. Note: good to know.
enum class Grade { Note, Mind, Stop };

struct Remedy {
  std::string label;                // what the button says
  std::function<void(Job&)> apply;  // pure change of the job; empty when the remedy is only words
  // It says what the user has done or decided (a clamp moved, a piece taped down): theirs to say, never taken by a key.
  bool says_of_shop = false;
};

struct Verdict {
  Grade grade = Grade::Note;
  std::string code;   // stable, such as "outside-board"
  std::string piece;  // id; empty when it is about the whole job
  Point at;           // mm on the board: where the bench goes
  std::string text;   // what and where
  std::string why;    // one more sentence
  std::vector<Remedy> remedies;
  bool accepted = false;  // by the user: a grade lower than it was found
  std::string because{};  // why
};

const char* to_word(Grade grade);  // note, warning, stop

// Everything a check may look at. `pieces` runs along job.items.
struct PieceState {
  const Outlines* outlines = nullptr;
  const PieceCuts* cuts = nullptr;
  const Surroundings* around = nullptr;
  std::string problem;     // why there are no outlines
  Box box{};               // of the outlines
  std::uint64_t mark = 0;  // another number for another piece, outlines or cuts; 0: not known
};
struct Situation {
  const Job& job;
  const Rack& rack;
  const MachineProfile& machine;
  std::vector<PieceState> pieces;
  VerdictMemory* memory = nullptr;
  std::uint64_t mark = 0;  // of all but the pieces

  // What `make` finds of the board and these pieces: as it is remembered, while none of them has changed.
  template <typename Make>
  auto found(const char* what, std::vector<std::uint64_t> of, Make make) const {
    if (memory == nullptr) return make();
    of.push_back(mark);
    return memory->answer({what, std::move(of)}, make);
  }

  [[nodiscard]] std::string show_feed(double mm_a_minute) const { return feed_in_words(mm_a_minute, job.lengths); }
  [[nodiscard]] std::string show(double mm) const { return depth_in_words(mm, job.lengths); }
};

// One piece with its outlines and cuts, for what its look checks of it (Look::check).
struct PieceSeen {
  const Situation& s;
  const Item& item;
  const PieceState& state;  // with outlines and cuts
  std::string name;         // quoted
  Point at;                 // the middle of its outlines

  // Its floors are cleared, too, when the ground is sunk for another piece of its panel.
  [[nodiscard]] bool cleared_with_another() const {
    return state.cuts->operations.empty() && !state.around->with.empty();
  }
  [[nodiscard]] Remedy deep(double most) const;  // make it so deep, in a figure that can be said
  [[nodiscard]] Remedy propose_bits() const;     // let Doyen choose those that clear
};

// A check looks and adds what it has to say. One file each; all_checks() is the one place where they are listed.
using Check = void (*)(const Situation&, std::vector<Verdict>&);
const std::vector<Check>& all_checks();

// Every check's verdicts, gravest first.
std::vector<Verdict> judge(const Situation& situation);

void check_pieces(const Situation&, std::vector<Verdict>&);  // artwork that cannot be set, characters a face lacks
void check_edges(const Situation&, std::vector<Verdict>&);   // past the board, inside the margin, too near a frame
void check_stroke_width(const Situation&, std::vector<Verdict>&);  // strokes wider than the V's body
void check_wood_left(const Situation&, std::vector<Verdict>&);     // deeper than the wood, or too little left under it
void check_reach(const Situation&, std::vector<Verdict>&);         // what no chosen bit reaches
void check_floor(const Situation&, std::vector<Verdict>&);         // floors that only the V's tip makes
void check_strength(const Situation&, std::vector<Verdict>&);      // necks that break
void check_looks(const Situation&, std::vector<Verdict>&);         // what each look finds of its own pieces
void check_keep_outs(const Situation&, std::vector<Verdict>&);     // clamps, screws, knots, cracks in the way
void check_bits(const Situation&, std::vector<Verdict>&);          // bits missing, of the wrong kind, without feeds
void check_machine(const Situation&, std::vector<Verdict>&);       // the machine itself, its plate and controller
void check_bed(const Situation&, std::vector<Verdict>&);           // its travel, and what stands on its bed
void check_held(const Situation&, std::vector<Verdict>&);          // clamps and screws against the bits' push
void check_zero(const Situation&, std::vector<Verdict>&);          // whether what zero is taken on is there

void check_neighbours(const Situation&, std::vector<Verdict>&);  // slits, tabs' hold, walls, heaps, rims
void check_grounds(const Situation&, std::vector<Verdict>&);     // half on a floor, floors no bit can clear
void check_loose(const Situation&, std::vector<Verdict>&);       // parts that all the through cuts set free
void check_back(const Situation&, std::vector<Verdict>&);        // the wood between both sides
void check_inlays(const Situation&, std::vector<Verdict>&);      // what of a board must wait until plugs are glued
void check_plates(const Situation&, std::vector<Verdict>&);      // a list of plates and its sheets
void check_panels(const Situation&, std::vector<Verdict>&);      // panels too large, seams through what they spoil
void check_round_over(const Situation&, std::vector<Verdict>&);  // art where the edges are rounded over afterwards
void check_nest(const Situation&, std::vector<Verdict>&);        // parts that no board has room for
void check_learnt(const Situation& s, std::vector<Verdict>& out);
void check_blank_size(const Situation&, std::vector<Verdict>&);  // what would come out of a smaller blank

}  // namespace doyen
