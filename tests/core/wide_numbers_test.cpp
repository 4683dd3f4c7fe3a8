// The numbers of the Voronoi diagram's predicates against other libraries' whole numbers, and against the ones that
// come with the diagram.
#include <boost/multiprecision/cpp_int.hpp>
#include <boost/polygon/voronoi.hpp>
#include <catch2/catch.hpp>
#include <random>

#include "geometry/wide_numbers.hpp"
#include "some_shape.hpp"

using namespace doyen;

namespace {

using Whole = boost::multiprecision::cpp_int;
using Theirs = boost::polygon::detail::extended_int<64>;

// The same number in three forms: ours, Boost.Polygon's and Boost.Multiprecision's.
struct Number {
  WideInt ours;
  Theirs theirs;
  Whole whole;
};

Number number(std::int64_t value) { return {WideInt(value), Theirs(value), Whole(value)}; }
Number operator+(const Number& a, const Number& b) { return {a.ours + b.ours, a.theirs + b.theirs, a.whole + b.whole}; }
Number operator-(const Number& a, const Number& b) { return {a.ours - b.ours, a.theirs - b.theirs, a.whole - b.whole}; }
Number operator*(const Number& a, const Number& b) { return {a.ours * b.ours, a.theirs * b.theirs, a.whole * b.whole}; }

void check(const Number& n) {
  REQUIRE(n.ours.sign() == n.whole.sign());
  const auto [value, power] = n.ours.rounded();
  REQUIRE(std::pair(value, power) == n.theirs.p());  // to the last bit
  // Within two roundings of the number itself.
  const Whole off = abs(n.whole - (Whole(value) << power));
  REQUIRE(off <= (abs(n.whole) >> 51));
}

// One and a half thousand bits, as the predicates come to at most, from figures with many ones and zeros among them.
Number grown(std::mt19937_64& random) {
  const auto some = [&]() -> std::int64_t {
    const auto bits = static_cast<std::int64_t>(random());
    switch (random() % 6) {
      case 0:
        return 0;
      case 1:
        return static_cast<std::int64_t>(random() % 3) - 1;
      case 2:
        return (std::int64_t{1} << (random() % 62)) - static_cast<std::int64_t>(random() % 2);
      case 3:
        return bits >> 32;
      default:
        return bits >> (random() % 40 + 1);
    }
  };
  std::vector<Number> all;
  for (int i = 0; i < 6; ++i) all.push_back(number(some()));
  for (int i = 0; i < 30; ++i) {
    const Number &a = all[random() % all.size()], &b = all[random() % all.size()];
    const std::size_t bits = (a.whole == 0 ? 0 : msb(abs(a.whole))) + (b.whole == 0 ? 0 : msb(abs(b.whole)));
    const auto which = random() % 3;
    Number next = which == 0 ? a + b : which == 1 || bits >= 1500 ? a - b : a * b;
    check(next);
    all.push_back(std::move(next));
  }
  return all.back();
}

template <typename Numbers>
void build(const Region& region, boost::polygon::voronoi_diagram<double>& out) {
  boost::polygon::voronoi_builder<std::int32_t, Numbers, boost::polygon::detail::voronoi_predicates<Numbers>> builder;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
        builder.insert_segment(to_grid(ring[j].x), to_grid(ring[j].y), to_grid(ring[i].x), to_grid(ring[i].y));
    }
  }
  builder.construct(&out);
}

}  // namespace

TEST_CASE("wide whole numbers add, take and multiply as other libraries' do") {
  std::mt19937_64 random(5);
  for (int i = 0; i < 3000; ++i) grown(random);
  // Carries and borrows that run through all words.
  Number large = number(1);
  for (int i = 0; i < 20; ++i) large = large * number(std::int64_t{1} << 60);
  const Number ones = large - number(1);
  for (const Number& n :
       {ones, number(1) - large, ones + number(1), number(-1) - ones, large - large, ones * number(-3)})
    check(n);
}

TEST_CASE("wide doubles come to what the diagram's own come to, to the last bit") {
  using Own = boost::polygon::detail::extended_exponent_fpt<double>;
  std::mt19937_64 random(6);
  std::uniform_real_distribution<double> share(-1, 1);
  for (int i = 0; i < 20'000; ++i) {
    const double a = random() % 20 == 0 ? 0 : share(random), b = random() % 20 == 0 ? 0.25 : share(random);
    const int p = static_cast<int>(random() % 400) - 200, q = p + static_cast<int>(random() % 130) - 65;
    const WideDouble x(a, p), y(b, q);
    const Own u(a, p), v(b, q);
    CHECK((x + y).plain() == (u + v).d());
    CHECK((x - y).plain() == (u - v).d());
    CHECK((x * y).plain() == (u * v).d());
    CHECK((x / y).plain() == (u / v).d());
    CHECK((-x).plain() == (-u).d());
    CHECK(is_pos(x) == u.is_pos());
    CHECK(is_neg(x) == u.is_neg());
    CHECK(is_zero(x) == u.is_zero());
    if (a > 0) {
      CHECK(x.sqrt().plain() == u.sqrt().d());
    }
  }
}

TEST_CASE("diagrams are the same with either numbers") {
  std::mt19937 random(7);
  for (int kind = 0; kind < 60; ++kind) {
    const Region region = some_shape(random, kind);
    boost::polygon::voronoi_diagram<double> ours, theirs;
    build<WideNumbers>(region, ours);
    build<boost::polygon::detail::voronoi_ctype_traits<std::int32_t>>(region, theirs);
    REQUIRE(ours.num_vertices() == theirs.num_vertices());
    REQUIRE(ours.num_edges() == theirs.num_edges());
    bool same = true;
    for (std::size_t i = 0; i < ours.num_vertices(); ++i)
      same = same && ours.vertices()[i].x() == theirs.vertices()[i].x() &&
             ours.vertices()[i].y() == theirs.vertices()[i].y();
    for (std::size_t i = 0; i < ours.num_cells(); ++i)
      same = same && ours.cells()[i].source_index() == theirs.cells()[i].source_index();
    CHECK(same);
  }
}
