#include <algorithm>

#include "treatments/look.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {

const std::vector<Check>& all_checks() {
  static const std::vector<Check> kChecks{
      check_pieces,    check_edges,      check_keep_outs, check_bits,   check_stroke_width,
      check_wood_left, check_reach,      check_floor,     check_looks,  check_neighbours,
      check_machine,   check_bed,        check_grounds,   check_loose,  check_back,
      check_inlays,    check_blank_size, check_strength,  check_plates, check_panels,
      check_nest,      check_round_over, check_learnt,    check_zero,   check_held};
  return kChecks;
}

void check_looks(const Situation& s, std::vector<Verdict>& out) {
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const PieceState& state = s.pieces[i];
    if (state.outlines == nullptr || state.cuts == nullptr) continue;
    const PieceSeen piece{s, item, state, "“" + item.piece.name + "”", bounds(*state.outlines).centre()};
    look_of(item.cut.kind).check(piece, out);
  }
}

namespace {

// What it says hangs on where pieces lie on the board: where they are laid on others, these have it said of them.
bool is_of_place(Check check) {
  static const std::vector<Check> kOfPlace{check_edges, check_keep_outs, check_neighbours, check_blank_size,
                                           check_zero,  check_inlays,    check_held};
  return std::find(kOfPlace.begin(), kOfPlace.end(), check) != kOfPlace.end();
}

}  // namespace

std::vector<Verdict> judge(const Situation& situation) {
  std::vector<Verdict> verdicts;
  const bool elsewhere = situation.job.made_as_parts();
  for (const Check check : all_checks()) {
    if (!elsewhere || !is_of_place(check)) check(situation, verdicts);
  }
  std::stable_sort(verdicts.begin(), verdicts.end(),
                   [](const Verdict& a, const Verdict& b) { return a.grade > b.grade; });
  return verdicts;
}

const char* to_word(Grade grade) {
  switch (grade) {
    case Grade::Note:
      return "note";
    case Grade::Mind:
      return "warning";
    case Grade::Stop:
      return "stop";
  }
  return "";
}

}  // namespace doyen
