// What Boost.Polygon's predicates compute with where doubles are not enough: its own numbers (voronoi_ctypes.hpp) in
// words of 64 bits instead of 32, and powers of two without calls. Every result is the library's to the last bit; the
// diagram takes little more than half of the time. Internal to geometry/.
#pragma once

#include <bit>
#include <boost/polygon/detail/voronoi_ctypes.hpp>
#include <cmath>
#include <concepts>
#include <cstdint>
#include <utility>

namespace doyen {

// A whole number of up to 2,048 bits, more than the predicates need for coordinates of 32. Not initialised.
class WideInt {
 public:
  WideInt() {}  // NOLINT: the predicates declare dozens of them and fill in those that they use
  template <std::signed_integral T>
  WideInt(T value)  // NOLINT: as the library's own, from plain numbers
      : count_(value > 0   ? 1
               : value < 0 ? -1
                           : 0) {
    word_[0] = value < 0 ? 0 - static_cast<std::uint64_t>(value) : static_cast<std::uint64_t>(value);
  }
  WideInt(const WideInt& other) : count_(other.count_) { copy(other); }  // NOLINT: only the words in use
  WideInt& operator=(const WideInt& other) {                             // NOLINT: onto itself, too
    count_ = other.count_;
    copy(other);
    return *this;
  }
  ~WideInt() = default;

  [[nodiscard]] int sign() const { return count_ > 0 ? 1 : count_ < 0 ? -1 : 0; }

  WideInt operator-() const {
    WideInt out(*this);
    out.count_ = -count_;
    return out;
  }
  friend WideInt operator+(const WideInt& a, const WideInt& b) { return sum(a, b, b.count_); }
  friend WideInt operator-(const WideInt& a, const WideInt& b) { return sum(a, b, -b.count_); }
  friend WideInt operator*(const WideInt& a, const WideInt& b) {
    WideInt out;
    const int n = a.words(), m = b.words();
    if (n == 0 || m == 0) {
      out.count_ = 0;
      return out;
    }
    out.word_[n] = multiplied(a.word_, n, b.word_[0], out.word_);
    for (int k = 1; k < m; ++k) out.word_[n + k] = multiplied_onto(a.word_, n, b.word_[k], out.word_ + k);
    const int count = n + m - (out.word_[n + m - 1] == 0 ? 1 : 0);
    out.count_ = (a.count_ < 0) == (b.count_ < 0) ? count : -count;
    return out;
  }

  // Its uppermost 96 bits rounded as the library rounds them, and the power of two that this is to be taken times.
  [[nodiscard]] std::pair<double, int> rounded() const {
    constexpr double kHalfWord = 0x1p32;
    const int n = words();
    if (n == 0) return {0, 0};
    const int halves = 2 * n - (word_[n - 1] >> 32 == 0 ? 1 : 0);
    double value = 0;
    if (halves <= 2) {
      value = static_cast<double>(word_[0]);
    } else {
      for (int i = halves - 1; i >= halves - 3; --i) value = value * kHalfWord + half(i);
    }
    return {count_ < 0 ? -value : value, halves <= 2 ? 0 : (halves - 3) * 32};
  }

 private:
  __extension__ using Double = unsigned __int128;
  static constexpr int kWords = 32;

  [[nodiscard]] int words() const { return count_ < 0 ? -count_ : count_; }
  [[nodiscard]] double half(int i) const {
    return static_cast<double>(static_cast<std::uint32_t>(word_[i / 2] >> (32 * (i % 2))));
  }
  void copy(const WideInt& other) {
    const int n = words();
    for (int i = 0; i < n; ++i) word_[i] = other.word_[i];
  }

  // a + b, b with the sign that is given.
  static WideInt sum(const WideInt& a, const WideInt& b, int b_count) {
    if (b_count == 0) return a;
    WideInt out;
    const int n = a.words(), m = b.words();
    if (n == 0 || (a.count_ < 0) == (b_count < 0)) {
      const bool longer = n >= m;
      const int count = longer ? added(a, n, b, m, out) : added(b, m, a, n, out);
      out.count_ = b_count < 0 ? -count : count;
      return out;
    }
    const bool larger = n != m ? n > m : above(a, b, n);
    const int count = larger ? taken(a, n, b, m, out) : taken(b, m, a, n, out);
    out.count_ = (larger ? a.count_ : b_count) < 0 ? -count : count;
    return out;
  }
  static bool above(const WideInt& a, const WideInt& b, int n) {
    for (int i = n - 1; i >= 0; --i) {
      if (a.word_[i] != b.word_[i]) return a.word_[i] > b.word_[i];
    }
    return true;
  }
  // Of the sizes alone; how many words that takes.
  static int added(const WideInt& a, int n, const WideInt& b, int m, WideInt& out) {
    unsigned char carry = 0;
    for (int i = 0; i < n; ++i) {
      const std::uint64_t one = a.word_[i], with = one + carry, other = i < m ? b.word_[i] : 0, all = with + other;
      carry = static_cast<unsigned char>((with < one) | (all < other));
      out.word_[i] = all;
    }
    if (carry == 0) return n;
    out.word_[n] = 1;
    return n + 1;
  }
  static int taken(const WideInt& a, int n, const WideInt& b, int m, WideInt& out) {  // a is no less
    unsigned char borrow = 0;
    int count = 0;
    for (int i = 0; i < n; ++i) {
      const std::uint64_t one = a.word_[i], other = i < m ? b.word_[i] : 0, less = one - other, all = less - borrow;
      borrow = static_cast<unsigned char>((one < other) | (less < borrow));
      out.word_[i] = all;
      if (all != 0) count = i + 1;
    }
    return count;
  }
  static std::uint64_t multiplied(const std::uint64_t* a, int n, std::uint64_t by, std::uint64_t* out) {
    std::uint64_t carry = 0;
    for (int i = 0; i < n; ++i) {
      const Double product = static_cast<Double>(a[i]) * by + carry;
      out[i] = static_cast<std::uint64_t>(product);
      carry = static_cast<std::uint64_t>(product >> 64);
    }
    return carry;
  }
  static std::uint64_t multiplied_onto(const std::uint64_t* a, int n, std::uint64_t by, std::uint64_t* out) {
    std::uint64_t carry = 0;
    for (int i = 0; i < n; ++i) {
      const Double product = static_cast<Double>(a[i]) * by + out[i] + carry;
      out[i] = static_cast<std::uint64_t>(product);
      carry = static_cast<std::uint64_t>(product >> 64);
    }
    return carry;
  }

  std::uint64_t word_[kWords];  // the least first; as many as count_ says
  int count_;                   // of words; negative where the number is
};

inline bool is_pos(const WideInt& x) { return x.sign() > 0; }
inline bool is_neg(const WideInt& x) { return x.sign() < 0; }
inline bool is_zero(const WideInt& x) { return x.sign() == 0; }

// A double whose power of two may be any int. Neither division by zero nor denormals (as the library's own).
class WideDouble {
 public:
  explicit WideDouble(double value) { split(value, 0); }
  WideDouble(double value, int power) { split(value, power); }

  [[nodiscard]] double share() const { return share_; }  // ±[½, 1), or 0
  WideDouble operator-() const { return WideDouble(-share_, power_); }
  friend WideDouble operator+(const WideDouble& a, const WideDouble& b) { return sum(a, b, b.share_); }
  friend WideDouble operator-(const WideDouble& a, const WideDouble& b) { return sum(a, b, -b.share_); }
  friend WideDouble operator*(const WideDouble& a, const WideDouble& b) {
    return {a.share_ * b.share_, a.power_ + b.power_};
  }
  friend WideDouble operator/(const WideDouble& a, const WideDouble& b) {
    return {a.share_ / b.share_, a.power_ - b.power_};
  }
  [[nodiscard]] WideDouble sqrt() const {
    const bool odd = (power_ & 1) != 0;
    return {std::sqrt(odd ? share_ * 2 : share_), (power_ - (odd ? 1 : 0)) >> 1};
  }
  [[nodiscard]] double plain() const { return std::ldexp(share_, power_); }

 private:
  static constexpr int kTooFar = 54;  // powers apart: nothing of the smaller is left in a sum

  void split(double value, int power) {
    const auto bits = std::bit_cast<std::uint64_t>(value);
    const int field = static_cast<int>(bits >> 52) & 0x7ff;
    if (field == 0 || field == 0x7ff) {
      share_ = std::frexp(value, &power_);
      power_ += power;
      return;
    }
    share_ = std::bit_cast<double>((bits & ~(0x7ffULL << 52)) | (0x3feULL << 52));
    power_ = field - 0x3fe + power;
  }
  static double scaled(double share, int power) {  // by 0 to kTooFar
    return share * std::bit_cast<double>(static_cast<std::uint64_t>(power + 0x3ff) << 52);
  }
  static WideDouble sum(const WideDouble& a, const WideDouble& b, double b_share) {
    if (a.share_ == 0 || b.power_ > a.power_ + kTooFar) return {b_share, b.power_};
    if (b_share == 0 || a.power_ > b.power_ + kTooFar) return a;
    if (a.power_ >= b.power_) return {scaled(a.share_, a.power_ - b.power_) + b_share, b.power_};
    return {scaled(b_share, b.power_ - a.power_) + a.share_, a.power_};
  }

  double share_ = 0;
  int power_ = 0;
};

inline bool is_pos(const WideDouble& x) { return x.share() > 0; }
inline bool is_neg(const WideDouble& x) { return x.share() < 0; }
inline bool is_zero(const WideDouble& x) { return x.share() == 0; }
inline WideDouble get_sqrt(const WideDouble& x) { return x.sqrt(); }

// The library's traits of whole coordinates of 32 bits, with these.
struct WideNumbers : boost::polygon::detail::voronoi_ctype_traits<std::int32_t> {
  struct ToDouble {
    template <typename T>
    double operator()(const T& x) const {
      return static_cast<double>(x);
    }
    double operator()(const WideInt& x) const {
      const auto [value, power] = x.rounded();
      return std::ldexp(value, power);
    }
    double operator()(const WideDouble& x) const { return x.plain(); }
  };
  struct ToWide {
    WideDouble operator()(const WideInt& x) const {
      const auto [value, power] = x.rounded();
      return {value, power};
    }
  };
  using big_int_type = WideInt;
  using efpt_type = WideDouble;
  using to_fpt_converter_type = ToDouble;
  using to_efpt_converter_type = ToWide;
};

}  // namespace doyen
