#include "treatments/suits.hpp"

#include <cmath>

namespace doyen {

bool suits(const Bit& bit, WantedBit wanted) {
  switch (wanted) {
    case WantedBit::V:
      return bit.kind == BitKind::V;
    case WantedBit::Flat:
      return bit.kind == BitKind::Flat;
    case WantedBit::Keyhole:
      return bit.kind == BitKind::Keyhole;
    case WantedBit::Any:
      return bit.kind != BitKind::Keyhole;  // it cuts nothing that is seen but slots
    case WantedBit::None:
      break;
  }
  return true;
}

bool clears(const Bit& bit, const Treatment& cut, const Bit* own) {
  using Kind = Treatment::Kind;
  if (bit.kind == BitKind::Flat) return true;
  const bool slopes = cut.kind == Kind::Incise || (cut.kind == Kind::Raise && cut.raise.sloped);
  return bit.kind == BitKind::V && bit.tip >= kLeastTip - 1e-9 && slopes && own != nullptr && own->id != bit.id &&
         own->kind == BitKind::V && bit.tan_half() <= own->tan_half() + 1e-3;
}

const Bit* nearest_bit(const Rack& rack, BitKind kind, const std::function<double(const Bit&)>& away) {
  const Bit* best = nullptr;
  for (const Bit& bit : rack.bits) {
    if (bit.kind == kind && (best == nullptr || away(bit) < away(*best))) best = &bit;
  }
  return best;
}

const Bit* usual_v(const Rack& rack) {
  constexpr double kUsualAngle = 60;  // degrees
  return nearest_bit(rack, BitKind::V, [](const Bit& b) { return std::abs(b.angle - kUsualAngle); });
}

const Bit* flat_nearest(const Rack& rack, double across) {
  return nearest_bit(rack, BitKind::Flat, [across](const Bit& b) { return std::abs(b.diameter - across); });
}

const Bit* pressing_like(const Rack& rack, const Bit& own) {
  const auto suits = [&](const Bit& bit) {
    return bit.kind == own.kind && bit.direction != CutDirection::UpCut && bit.flute_length >= own.flute_length &&
           std::abs(bit.true_diameter() - own.true_diameter()) < 0.05;
  };
  const auto found = std::find_if(rack.bits.begin(), rack.bits.end(), suits);
  return found == rack.bits.end() ? nullptr : &*found;
}

const Bit* flat_nearest_for(const Rack& rack, double across, double deep) {
  constexpr double kTooShort = 1e6;  // mm farther than any
  return nearest_bit(rack, BitKind::Flat, [across, deep](const Bit& b) {
    return std::abs(b.diameter - across) + (b.flute_length > 0 && b.flute_length < deep ? kTooShort : 0);
  });
}

}  // namespace doyen
