// Names on strips: lengths against the words' own extent, places by hand; the cut list against every way of sawing
// small lists (exhaustion), and rules that any saw keeps.
#include <algorithm>
#include <catch2/catch.hpp>
#include <numeric>
#include <random>
#include <set>

#include "planning/further_boards.hpp"
#include "plates/plates.hpp"
#include "plates/strips.hpp"
#include "problem.hpp"
#include "run/placement.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

Job named(std::vector<ListRow> rows) {
  Job job = board(120, 40, 12);
  Lettering l;
  l.words = "Example";
  l.face = {"EB Garamond", "Regular"};
  l.cap_height = 14;
  l.list.column = "Name";
  job.items.push_back({{"name", "name", l, {60, 20}, 0}, cut(Kind::Incise, 1)});
  job.plates.columns = {"Name"};
  job.plates.rows = std::move(rows);
  job.plates.strips.wanted = true;
  return job;
}

std::vector<ListRow> some_names() {
  return {{"Rue"}, {"Sweet woodruff"}, {"Lemon balm"}, {"Common rosemary, upright"}};
}

Box extent_of(const Job& job, const char* id) { return bounds(job.outlines(*job.find(id))); }

// The fewest strips that are left over whatever way the rest is sawn: all of them tried.
std::size_t least_left(const std::vector<double>& strips, std::vector<double>& room, double kerf, std::size_t at = 0) {
  if (at == strips.size()) return 0;
  std::size_t best = 1 + least_left(strips, room, kerf, at + 1);
  for (double& left : room) {
    if (left < strips[at]) continue;
    const double before = left;
    left -= strips[at] + kerf;
    best = std::min(best, least_left(strips, room, kerf, at + 1));
    left = before;
  }
  return best;
}

}  // namespace

TEST_CASE("a strip is as long as its words and both ends, rounded up, the words in its middle as they were set") {
  Job job = named(some_names());
  for (std::size_t row = 0; row < 4; ++row) {
    const Job plate = plate_of(job, row), strip = strip_of(job, row);
    INFO(plate.find("name")->piece.name);
    const double words = extent_of(plate, "name").width();
    CHECK(strip.blank.width >= words + 2 * 15 - 1e-6);
    CHECK(strip.blank.width < std::max(60.0, words + 2 * 15 + 5));
    CHECK(std::remainder(strip.blank.width, 5) == Approx(0).margin(1e-9));
    CHECK(extent_of(strip, "name").centre().x == Approx(strip.blank.width / 2).margin(1e-6));
    CHECK(extent_of(strip, "name").width() == Approx(words));  // none is set smaller
    CHECK(extent_of(strip, "name").centre().y == Approx(extent_of(plate, "name").centre().y));
    CHECK(strip.blank.height == 40);
    CHECK_FALSE(strip.plates.there());
    CHECK(strip_lengths(job)[row] == Approx(strip.blank.width));
  }
  job.plates.strips.least = 92;
  CHECK(strip_of(job, 0).blank.width == 92);  // “Rue” needs less
}

TEST_CASE("a frame grows with its strip, and screw holes keep their distance from its ends") {
  Job job = named(some_names());
  add(job, "frame", {kBox, 112, 32}, {60, 20}, cut(Kind::Line, 0.5));
  add(job, "hole-left", {PlainShape::Kind::Ellipse, 4, 4}, {8, 20}, cut(Kind::Drill, 12, {}, "flat-1/8in"));
  add(job, "hole-right", {PlainShape::Kind::Ellipse, 4, 4}, {112, 20}, cut(Kind::Drill, 12, {}, "flat-1/8in"));
  job.plates.strips.ends = 6;
  for (std::size_t row = 0; row < 4; ++row) {
    const Job strip = strip_of(job, row);
    const double length = strip.blank.width;
    INFO(row << ": " << length);
    CHECK(extent_of(strip, "frame").left == Approx(4).margin(1e-6));
    CHECK(extent_of(strip, "frame").right == Approx(length - 4).margin(1e-6));
    CHECK(extent_of(strip, "hole-left").centre().x == Approx(8).margin(1e-6));
    CHECK(extent_of(strip, "hole-right").centre().x == Approx(length - 8).margin(1e-6));
    // By hand: a hole of 4 mm, 8 mm from its end, and 3 mm of wood: words keep 13 mm from both ends.
    CHECK(extent_of(strip, "name").left >= 13 - 1e-6);
    CHECK(extent_of(strip, "name").right <= length - 13 + 1e-6);
  }
  // Shown on the bench it is that strip, and shown again it stays so.
  Job shown = job;
  show_strip(shown, 1);
  CHECK(shown.blank.width == Approx(strip_of(job, 1).blank.width));
  CHECK(extent_of(shown, "frame").right == Approx(shown.blank.width - 4).margin(1e-6));
  const Job once = shown;
  show_strip(shown, 1);
  CHECK(shown == once);
  for (std::size_t row = 0; row < 4; ++row) CHECK(strip_lengths(shown)[row] == Approx(strip_lengths(job)[row]));
}

TEST_CASE("a cut list saws every strip once, none over a board's end, and leaves none over where all can be sawn") {
  std::mt19937 random(2);
  int best = 0, all = 0;
  for (int round = 0; round < 300; ++round) {
    std::vector<double> strips(1 + random() % 7), boards(1 + random() % 3);
    for (double& strip : strips) strip = 60 + 5 * static_cast<double>(random() % 40);
    for (double& each : boards) each = 300 + 50 * static_cast<double>(random() % 12);
    const double kerf = random() % 2 == 0 ? 3 : 0;
    const CutList list = cut_list(strips, boards, kerf);
    std::vector<std::size_t> seen = list.without;
    std::multiset<double> there(boards.begin(), boards.end());
    for (const SawnBoard& board : list.boards) {
      REQUIRE(there.contains(board.length));
      there.erase(there.find(board.length));
      double sawn = 0;
      for (const std::size_t strip : board.strips) sawn += strips[strip];
      const double cuts = kerf * static_cast<double>(board.strips.size());
      CHECK(sawn + cuts - kerf <= board.length + 1e-6);
      CHECK(board.left == Approx(std::max(0.0, board.length - sawn - cuts)).margin(1e-6));
      CHECK_FALSE(board.strips.empty());
      seen.insert(seen.end(), board.strips.begin(), board.strips.end());
    }
    std::sort(seen.begin(), seen.end());
    std::vector<std::size_t> every(strips.size());
    std::iota(every.begin(), every.end(), std::size_t{0});
    CHECK(seen == every);
    for (const std::size_t strip : list.without) {  // nothing that is left would have held it
      for (const SawnBoard& board : list.boards) CHECK(board.left < strips[strip]);
      for (const double unused : there) CHECK(unused < strips[strip]);
    }
    const std::size_t least = least_left(strips, boards, kerf);
    if (least > 0) continue;  // then boards are fetched
    best += list.without.empty() ? 1 : 0;
    ++all;
  }
  CHECK(all > 50);
  CHECK(best == all);
  // By hand: five of 200 with a kerf of 3 from one of 1012: 5 × 200 + 4 × 3, the last cut is none.
  CHECK(cut_list({200, 200, 200, 200, 200}, {1012}, 3).without.empty());
  CHECK(cut_list({200, 200, 200, 200, 200}, {1011.9}, 3).without.size() == 1);
}

TEST_CASE("boards are typed as numbers and lengths, and what is none is said") {
  CHECK(parse_boards("3 × 1200; 900", Unit::Millimetre) == std::vector<double>{1200, 1200, 1200, 900});
  const std::vector<double> inches = parse_boards("2x48; 36 1/2\"", Unit::Inch);
  REQUIRE(inches.size() == 3);
  CHECK(inches[1] == Approx(48 * 25.4));
  CHECK(inches[2] == Approx(36.5 * 25.4));
  CHECK(parse_boards("", Unit::Millimetre).empty());
  CHECK(parse_boards(boards_in_words({1200, 1200, 900.5}, {}), Unit::Millimetre) ==
        std::vector<double>{1200, 1200, 900.5});
  for (const char* wrong : {"three", "0 × 900", "1.5 × 900", "900; -3", "2 × ", "1e9 × 900", "nan"}) {
    INFO(wrong);
    CHECK_THROWS_AS(parse_boards(wrong, Unit::Millimetre), Problem);
  }
}

TEST_CASE("strips are boards of their own in picking order, each planned alike; too few boards are said and mended") {
  Job job = named(some_names());
  job.plates.sorted_by = "Name";
  const std::vector<FurtherBoard> boards = further_boards(job, load_rack());
  REQUIRE(boards.size() == 4);
  CHECK(boards[0].folder == "strip-1-common-upright");
  CHECK(boards[1].folder == "strip-2-lemon-balm");
  CHECK(boards[2].folder == "strip-3-rue");
  for (const FurtherBoard& each : boards) {
    const Plan p = planned(each.job);
    INFO(each.folder);
    CHECK_FALSE(p.has_stop());
    CHECK(p.runs.front().file.find("strip-" + each.folder.substr(6, 1)) != std::string::npos);
  }
  const std::vector<double> lengths = strip_lengths(job);
  job.plates.strips.boards = {*std::max_element(lengths.begin(), lengths.end()) + 3};
  const Plan short_of = planned(job);
  const Verdict* verdict = find(short_of, "strip-no-board");
  REQUIRE(verdict != nullptr);
  REQUIRE(verdict->remedies.size() == 2);
  for (const Remedy& remedy : verdict->remedies) {
    INFO(remedy.label);
    Job mended = job;
    remedy.apply(mended);
    CHECK(find(planned(mended), "strip-no-board") == nullptr);
  }
  // Words longer than any board are too long, and are set smaller where that may be.
  job.plates.strips.boards = {120};
  CHECK(find(planned(job), "plate-too-long") != nullptr);
  std::get<Lettering>(job.find("name")->piece.what).list.least = 3;
  CHECK(find(planned(job), "plate-too-long") == nullptr);
  CHECK(*std::max_element(lengths.begin(), lengths.end()) > 120);
  for (const double length : strip_lengths(job)) CHECK(length <= 120);
  CHECK(read_job(write_job(job), "job") == job);
}

TEST_CASE("a clamp stays as far from its end, and a plate that was shown as strips is a plate again as it was") {
  Job job = named(some_names());
  job.find("name")->piece.at.x = 71;  // beside the middle, as somebody wanted it
  add(job, "hole", {PlainShape::Kind::Ellipse, 4, 4}, {8, 20}, cut(Kind::Drill, 12, {}, "flat-1/8in"));
  job.blank.keep_outs = {{KeepOut::Kind::Clamp, 5, 36, 10, 8, 12}, {KeepOut::Kind::Knot, 110, 5, 6, 6}};
  show_row(job, 1);
  Job strips = job;
  strips.plates.strips.wanted = false;
  make_strips(strips, true, 1);
  for (std::size_t row = 0; row < 4; ++row) {
    show_strip(strips, row);
    const Job strip = strip_of(strips, row);
    INFO(row << ": " << strip.blank.width);
    REQUIRE(strip.blank.keep_outs.size() == 2);
    CHECK(strip.blank.keep_outs[0].x == Approx(5));
    CHECK(strip.blank.keep_outs[1].x == Approx(strip.blank.width - 10));
    CHECK(strips.blank.keep_outs[1].x == Approx(strips.blank.width - 10));
  }
  show_strip(strips, 1);
  make_strips(strips, false, 1);
  CHECK(strips.blank.width == Approx(120));
  CHECK(strips.find("name")->piece.at.x == Approx(71).margin(1e-6));
  CHECK(strips.find("hole")->piece.at.x == Approx(8).margin(1e-6));
  CHECK(strips.blank.keep_outs[1].x == Approx(110).margin(1e-6));
  CHECK(strips.plates.strips.plate == 0);
}

TEST_CASE("strips are as long whichever of them the board shows, also with an emblem beside the words") {
  Job job = named(some_names());
  add(job, "emblem", {PlainShape::Kind::Ellipse, 44, 20}, {60, 20}, cut(Kind::Recess, 1, {"flat-1/8in"}));
  add(job, "frame", {kBox, 112, 32}, {60, 20}, cut(Kind::Line, 0.5));
  add(job, "hole", {PlainShape::Kind::Ellipse, 4, 4}, {18, 20}, cut(Kind::Drill, 12, {}, "flat-1/8in"));
  const std::vector<double> lengths = strip_lengths(job);
  for (std::size_t row = 0; row < 4; ++row) {
    Job shown = job;
    show_strip(shown, row);
    for (std::size_t k = 0; k < 4; ++k) {
      INFO("shown " << row << ", made " << k);
      CHECK(strip_lengths(shown)[k] == Approx(lengths[k]));
      const Job a = strip_of(shown, k), b = strip_of(job, k);
      for (const char* id : {"emblem", "frame", "hole", "name"}) {
        CHECK(extent_of(a, id).left == Approx(extent_of(b, id).left).margin(1e-3));
        CHECK(extent_of(a, id).right == Approx(extent_of(b, id).right).margin(1e-3));
      }
    }
  }
}

TEST_CASE("zero that lies elsewhere on strips of another length is said, and taken to the end that is pushed home") {
  // By hand: counted from the end that is pushed home, zero must be as far on a strip of 100 as on one of 200.
  for (int turned = 0; turned < 4; ++turned) {
    for (int corner = 0; corner < 4; ++corner) {
      for (int place = 0; place < 9; ++place) {
        Job job = named(some_names());
        job.run.on_bed = static_cast<OnBed>(turned);
        job.run.fixture.corner = static_cast<Fixture::Corner>(corner);
        job.run.zero_place = static_cast<ZeroPlace>(place);
        const auto from_home = [&](double length) {
          job.blank.width = length;
          const Box lying = turned % 2 == 0 ? Box{0, 0, length, 40} : Box{0, 0, 40, length};
          const Point home{corner % 2 == 0 ? 0 : lying.width(), corner < 2 ? 0 : lying.height()};
          const Point share = zero_share(job.run.zero_place);
          return Point{share.x * lying.width(), share.y * lying.height()} - home;
        };
        const bool moves = ::doyen::length(from_home(200) - from_home(100)) > 1e-9;
        INFO("turned " << turned << ", corner " << corner << ", zero " << place);
        const Plan p = planned(job);
        const Verdict* verdict = find(p, "strip-zero-moves");
        CHECK((verdict != nullptr) == moves);
        if (verdict == nullptr) continue;
        verdict->remedies.at(0).apply(job);
        CHECK(::doyen::length(from_home(200) - from_home(100)) < 1e-9);
      }
    }
  }
}
