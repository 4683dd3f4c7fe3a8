#include "inlay/look_start.hpp"

#include <algorithm>
#include <cmath>

#include "cutting/groove.hpp"
#include "inlay/figures.hpp"
#include "treatments/piece_cuts.hpp"
#include "treatments/suits.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kUsualAngle = 60;              // degrees
constexpr double kUsualFlat = kMmPerInch / 4;   // mm
constexpr double kUsualDrill = kMmPerInch / 8;  // mm
constexpr std::size_t kMostLookedAt = 20'000;   // points

const Bit* nearest(const Rack& rack, BitKind kind, const std::function<double(const Bit&)>& away) {
  const Bit* best = nullptr;
  for (const Bit& bit : rack.bits) {
    if (bit.kind == kind && (best == nullptr || away(bit) < away(*best))) best = &bit;
  }
  return best;
}

const Bit* usual_bit(const Treatment& cut, const Rack& rack) {
  switch (wanted_bit(cut)) {
    case WantedBit::V:
      return nearest(rack, BitKind::V, [](const Bit& b) { return std::abs(b.angle - kUsualAngle); });
    case WantedBit::Keyhole:
      return nearest(rack, BitKind::Keyhole, [](const Bit& b) { return -b.diameter; });
    case WantedBit::Flat:
      return nearest(rack, BitKind::Flat, [](const Bit& b) { return std::abs(b.diameter - kUsualFlat); });
    case WantedBit::Any:
      if (cut.kind == Kind::Drill)
        return nearest(rack, BitKind::Flat, [](const Bit& b) { return std::abs(b.diameter - kUsualDrill); });
      return nearest(rack, BitKind::V, [](const Bit& b) { return std::abs(b.angle - kUsualAngle); });
    case WantedBit::None:
      break;
  }
  return nullptr;
}

// A V makes no hole that anyone asks for.
bool fits(const Bit& bit, const Treatment& cut) {
  return suits(bit, wanted_bit(cut)) && !(cut.kind == Kind::Drill && bit.kind == BitKind::V);
}

}  // namespace

double widest_stroke_of(const Region& art, const Bit& v) {
  if (art.empty() || point_count(art) > kMostLookedAt) return 0;
  return plan_groove(art, {v.tan_half(), v.tip}).widest_stroke();
}

void start_inlay(Treatment& cut, const Job& job, const Rack& rack,
                 const std::function<double(const Bit& v)>& widest_stroke) {
  const Bit* v = rack.find(cut.bit);
  if (v == nullptr || v->kind != BitKind::V) return;
  const InlayStart start = inlay_start(widest_stroke(*v), *v, job.blank, job.lengths);
  cut.depth = start.depth;
  cut.inlay.contact = start.contact;
  cut.inlay.saw_gap = start.saw_gap;
}

Treatment start_look(Kind look, const Treatment& was, const Job& job, const Rack& rack,
                     const std::function<double(const Bit& v)>& widest_stroke) {
  Treatment cut = was;
  cut.kind = look;
  // Only slots go to the back by themselves; inlays lie in the front.
  if (was.kind == Kind::HangerSlot || look == Kind::Inlay) cut.back = false;
  if (goes_through(look) && cut.tabs == Tabs{}) cut.tabs = usual_tabs(job.blank);
  const Bit* bit = rack.find(cut.bit);
  if (bit == nullptr || !fits(*bit, cut)) {
    if (const Bit* usual = usual_bit(cut, rack)) {
      bit = usual;
      cut.bit = usual->id;
    }
  }
  if (look == Kind::HangerSlot) {
    cut.back = true;
    if (bit != nullptr) cut.depth = std::min(bit->flute_length, std::round(2 * bit->head_height));
  }
  const bool deep = makes_ground(look) || look == Kind::Bevel || look == Kind::Drill;
  if (deep && cut.depth == Treatment{}.depth) cut.depth = std::max(0.5, std::round(job.blank.thinnest() / 5 * 2) / 2);
  if (look == Kind::Inlay || look == Kind::Bevel) cut.clearing.clear();
  if (look == Kind::Inlay) start_inlay(cut, job, rack, widest_stroke);
  return cut;
}

}  // namespace doyen
