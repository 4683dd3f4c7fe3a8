// Raised: it stays standing, the ground round it is sunk.
#include <algorithm>

#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/raise/raise_parts.hpp"
#include "treatments/suits.hpp"
#include "treatments/treatment_fields.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace raise {

void add_choices(Record<Treatment>& all) {
  static const Record<RaiseChoices> own = [] {
    using R = RaiseChoices;
    const auto stepped = [](const R& r) { return r.steps != R{}.steps || r.terrace != R{}.terrace; };
    Record<R> f;
    f.text("panel", &R::panel);
    f.flag("sloped", &R::sloped).always();
    f.number("steps", &R::steps, {1, 20}).also_when(stepped);
    f.number("terrace", &R::terrace, {0, 1000}).also_when(stepped);
    return f;
  }();
  all.within(&Treatment::raise, own, used_by({Treatment::Kind::Raise}));
}

void ask(Asking& wood) {
  const RaiseChoices& raise = wood.cut.raise;
  const int steps = std::max(1, raise.steps);
  const double each = wood.cut.depth / steps;
  const Bit* v = wood.of_kind(BitKind::V);
  const double run = raise.sloped && v != nullptr ? each * v->tan_half() + v->tip / 2 : 0;
  Region region = wood.sunk;
  for (int k = 0; k < steps && !region.empty(); ++k) {
    const double below = wood.below + k * each;
    if (raise.sloped)
      wood.groove(region, each, 0, below);
    else
      wood.floor(region, each, below);
    if (k + 1 == steps) break;
    const Region next = run > 0 ? grow(region, -run) : region;
    region = subtract(next, grow(wood.raised, (k + 1) * (run + raise.terrace)));
  }
}

// The bit that comes nearest to its walls; null where that is none of the rack's.
const Bit* nearest_to_walls(const Situation& s, const Treatment& cut) {
  const Bit* least = nullptr;
  for (const BitId& id : cut.clearing) {
    const Bit* bit = s.rack.find(id);
    if (bit != nullptr && (least == nullptr || bit->true_diameter() < least->true_diameter())) least = bit;
  }
  return least;
}

bool lifts_chips(const Bit* bit) { return bit == nullptr || bit->direction == CutDirection::UpCut; }

// Of a stroke's width, so much of its height counts where the bit does not lift the fibres (common practice, no
// source).
constexpr double kPressed = 0.8;

// Upright strokes that stand higher than they are wide lift or break, sooner under a bit that lifts the chips; a slope
// makes their foot wider.
void check_delicate(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const Treatment& cut = item.cut;
  const Region& kept = state.outlines->region;
  const Bit* bit = nearest_to_walls(s, cut);
  const double counts = lifts_chips(bit) ? 1 : kPressed;
  if (cut.raise.sloped || kept.empty() || !stands_thin(kept, cut.depth * counts)) return;
  const double holds = s.found("height that holds", {state.mark, lifts_chips(bit) ? 1U : 0U}, [&] {
    double low = 0, high = cut.depth;
    for (int i = 0; i < 7; ++i) {
      const double middle = (low + high) / 2;
      (stands_thin(kept, middle * counts) ? high : low) = middle;
    }
    return low;
  });
  std::vector<Remedy> remedies{{say("Slope its flanks"), [id = item.piece.id](Job& job) {
                                  if (Item* it = job.find(id)) it->cut.raise.sloped = true;
                                }}};
  if (holds > 0.3) remedies.push_back(piece.deep(holds));
  const Bit* presses = bit != nullptr && lifts_chips(bit) ? pressing_like(s.rack, *bit) : nullptr;
  if (presses != nullptr && !stands_thin(kept, cut.depth * kPressed))
    remedies.push_back(
        {say("Clear it with the {0}", presses->name), [id = item.piece.id, from = bit->id, to = presses->id](Job& job) {
           if (Item* it = job.find(id)) std::replace(it->cut.clearing.begin(), it->cut.clearing.end(), from, to);
         }});
  out.push_back({Grade::Mind, "stands-thin", item.piece.id, at,
                 say("Strokes of {0} stand {1} high, higher than they are wide.", name, s.show(cut.depth)),
                 lifts_chips(bit)
                     ? say("They lift or break along the grain, the sooner under a bit that lifts the chips "
                           "(common practice).")
                     : say("They lift or break along the grain (common practice)."),
                 std::move(remedies)});
}

// The panel must leave something to lower.
void check(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  check_delicate(piece, out);
  if (!state.around->sunk.empty() || piece.cleared_with_another()) return;
  const std::string& id = item.piece.id;
  out.push_back({Grade::Stop,
                 "nothing-sunk",
                 id,
                 at,
                 say("The panel is no larger than {0}, so nothing can be lowered round it.", name),
                 say("Choose a larger panel, or a margin."),
                 {{say("Take a margin of 10 mm"), [id](Job& job) {
                     Item* it = job.find(id);
                     if (it == nullptr) return;
                     it->cut.raise.panel.clear();
                     it->cut.margin = 10;
                   }}}});
}

}  // namespace raise

constinit const Look kRaise{
    .kind = Treatment::Kind::Raise,
    .word = "raise",
    .done = "raised",
    .ground = true,
    .asks_depth = true,
    .starts_deep = true,
    .takes_area = true,
    .bit = [](const Treatment& t) { return t.raise.sloped ? WantedBit::V : WantedBit::None; },
    .clears = [](const Treatment&) { return true; },
    .upright = [](const Treatment& t) { return !t.raise.sloped; },
    .fields = raise::add_choices,
    .cut = cut_raise,
    .ask = raise::ask,
    .check = raise::check,
};

}  // namespace doyen
