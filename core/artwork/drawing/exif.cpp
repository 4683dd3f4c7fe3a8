#include "artwork/drawing/exif.hpp"

#include <cstdint>
#include <optional>

namespace doyen {
namespace {

class Bytes {
 public:
  explicit Bytes(const std::string& all) : all_(all) {}
  bool little = false;
  [[nodiscard]] std::optional<std::uint32_t> number(std::size_t at, std::size_t size) const {
    if (at > all_.size() || all_.size() - at < size) return {};
    std::uint32_t v = 0;
    for (std::size_t k = 0; k < size; ++k) {
      const std::size_t from = little ? at + size - 1 - k : at + k;
      v = v << 8U | static_cast<unsigned char>(all_[from]);
    }
    return v;
  }

 private:
  const std::string& all_;
};

}  // namespace

int exif_orientation(const std::string& bytes) {
  Bytes in(bytes);
  if (in.number(0, 2).value_or(0) != 0xFFD8) return 1;
  std::size_t at = 2;
  for (int segments = 0; segments < 200; ++segments) {
    const auto marker = in.number(at, 2), size = in.number(at + 2, 2);
    if (!marker || !size || (*marker & 0xFF00U) != 0xFF00U || *marker == 0xFFDA || *size < 2) return 1;
    if (*marker == 0xFFE1 && bytes.compare(at + 4, 6, std::string("Exif\0\0", 6)) == 0) {
      const std::size_t tiff = at + 10;
      const auto order = in.number(tiff, 2);
      if (order != 0x4949U && order != 0x4D4DU) return 1;
      in.little = order == 0x4949U;
      const auto first = in.number(tiff + 4, 4);
      if (!first) return 1;
      const std::size_t table = tiff + *first;
      const std::uint32_t entries = in.number(table, 2).value_or(0);
      for (std::uint32_t k = 0; k < entries && k < 1000; ++k) {
        const std::size_t entry = table + 2 + 12 * static_cast<std::size_t>(k);
        if (in.number(entry, 2) != 274U) continue;
        const std::uint32_t how = in.number(entry + 8, 2).value_or(1);
        return how >= 1 && how <= 8 ? static_cast<int>(how) : 1;
      }
      return 1;
    }
    at += 2 + *size;
  }
  return 1;
}

}  // namespace doyen
