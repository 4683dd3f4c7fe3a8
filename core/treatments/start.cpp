#include "treatments/start.hpp"

#include <algorithm>
#include <cmath>

#include "cutting/groove.hpp"
#include "treatments/suits.hpp"

namespace doyen {
namespace {

constexpr double kUsualFlat = kMmPerInch / 4;  // mm
constexpr std::size_t kMostLookedAt = 20'000;  // points

}  // namespace

const Bit* usual_bit(const Treatment& cut, const Rack& rack) {
  if (const Look& look = look_of(cut.kind); look.usual_bit != nullptr) return look.usual_bit(rack);
  switch (wanted_bit(cut)) {
    case WantedBit::V:
    case WantedBit::Any:
      return usual_v(rack);
    case WantedBit::Flat:
      return flat_nearest(rack, kUsualFlat);
    case WantedBit::Keyhole:
    case WantedBit::None:
      break;
  }
  return nullptr;
}

double widest_stroke_of(const Region& art, const Bit& v) {
  if (art.empty() || point_count(art) > kMostLookedAt) return 0;
  return plan_groove(art, {v.tan_half(), v.tip}).widest_stroke();
}

Treatment start_look(Treatment::Kind kind, const Treatment& was, const LookStart& about) {
  const Look& look = look_of(kind);
  Treatment cut = was;
  cut.kind = kind;
  cut.left_uncut = kind == Treatment::Kind::None;
  if (look_of(was.kind).to_back) cut.back = false;  // only what goes to the back by itself comes from there again
  const Bit* bit = about.rack.find(cut.bit);
  if (bit == nullptr || !suits(*bit, wanted_bit(cut)) || !look.takes(*bit)) {
    if (const Bit* usual = usual_bit(cut, about.rack)) cut.bit = usual->id;
  }
  // What stands in a look that begins deeper was chosen, even where it is the same figure.
  if (look.starts_deep && !look_of(was.kind).starts_deep && cut.depth == Treatment{}.depth)
    cut.depth = std::max(0.5, std::round(about.blank.thinnest() / 5 * 2) / 2);
  look.start(cut, about);
  return cut;
}

}  // namespace doyen
