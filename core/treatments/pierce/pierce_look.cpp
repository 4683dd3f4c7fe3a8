// Pierced: an opening right through the wood.
#include <algorithm>

#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/pierce/pierce_parts.hpp"
#include "treatments/through/through_look.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace pierce {

void add_choices(Record<Treatment>& all) {
  static const Record<PierceChoices> own = [] {
    Record<PierceChoices> f;
    f.flag("slug", &PierceChoices::slug).always();
    return f;
  }();
  all.within(&Treatment::pierce, own, used_by({Treatment::Kind::Pierce}));
}

void ask(Asking& wood) {
  const Bit* flat = wood.of_kind(BitKind::Flat);
  if (flat == nullptr) return;
  Region region = wood.region;
  if (wood.piece.around->grown < 0) region = grow(region, wood.piece.around->grown, Corner::Sharp);
  const double depth = through_depth(wood.cut.through, wood.blank), radius = flat->true_diameter() / 2;
  Region cleared, slugs;
  for (const Island& island : region.islands) {
    const bool falls = wood.cut.pierce.slug && !grow(Region{{island}}, -3 * radius).empty();
    (falls ? slugs : cleared).islands.push_back(island);
  }
  if (!cleared.empty()) wood.opening(cleared, depth, ::doyen::opening(cleared, radius));
  if (slugs.empty()) return;
  wood.may_fall(slugs, depth);
  wood.slit(slugs, true);
}

}  // namespace pierce

constinit const Look kPierce{
    .kind = Treatment::Kind::Pierce,
    .word = "pierce",
    .done = "pierced",
    .through = true,
    .takes_area = true,
    .bit = [](const Treatment&) { return WantedBit::Flat; },
    .clears = [](const Treatment& t) { return !t.pierce.slug; },
    .turns = [](const Treatment& t) { return !t.pierce.slug; },
    .fields = pierce::add_choices,
    .start = start_through,
    .cut = cut_pierce,
    .ask = pierce::ask,
    .check = check_pierce,
};

}  // namespace doyen
