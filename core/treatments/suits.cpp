#include "treatments/suits.hpp"

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

}  // namespace doyen
