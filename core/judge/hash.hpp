// A mark of many figures, to know again what was judged before.
#pragma once

#include <cstdint>
#include <cstring>
#include <string>

namespace doyen {

class Hash {
 public:
  void add(const void* data, std::size_t bytes) {
    const auto* p = static_cast<const unsigned char*>(data);
    while (bytes >= 8) {
      std::uint64_t word = 0;
      std::memcpy(&word, p, 8);
      mix(word);
      p += 8;
      bytes -= 8;
    }
    for (; bytes > 0; --bytes) mix(*p++);
  }
  void add(double v) { add(&v, sizeof v); }
  void add(std::uint64_t v) { mix(v); }
  void add(const std::string& s) {
    mix(s.size());
    add(s.data(), s.size());
  }
  [[nodiscard]] std::uint64_t value() const { return h_; }

 private:
  void mix(std::uint64_t v) {
    h_ ^= v + 0x9E3779B97F4A7C15ULL + (h_ << 6) + (h_ >> 2);
    h_ *= 0x100000001B3ULL;
    h_ ^= h_ >> 29;
  }
  std::uint64_t h_ = 0xCBF29CE484222325ULL;
};

}  // namespace doyen
