// Off-cuts: kept by several windows, never lost to a broken file, and offered only where the board fits with its grain.
#include <catch2/catch.hpp>
#include <random>

#include "job/off_cuts.hpp"
#include "own_home.hpp"
#include "problem.hpp"
#include "storage/aside.hpp"
#include "storage/atomic_file.hpp"

using namespace doyen;

namespace {

OffCut oak(double along, double across, double thick = 19) {
  return {"", "white-oak", along, across, thick, "shelf 2"};
}

Blank oak_board(double width, double height, Grain grain = Grain::AlongWidth) {
  Blank blank;
  blank.width = width;
  blank.height = height;
  blank.readings = {19, 19.2};
  blank.species = "white-oak";
  blank.grain = grain;
  return blank;
}

}  // namespace

TEST_CASE("off-cuts are kept and taken out one by one; a file that cannot be read is put aside") {
  const OwnHome home;
  CHECK(load_off_cuts().empty());
  CHECK(keep_off_cut(oak(300, 120)).empty());
  CHECK(keep_off_cut(oak(400, 100)).empty());
  std::vector<OffCut> all = load_off_cuts();
  REQUIRE(all.size() == 2);
  CHECK(all[0].id != all[1].id);
  CHECK(all[0].place == "shelf 2");
  all[1].place = "under the bench";
  (void)keep_off_cut(all[1]);
  CHECK(load_off_cuts()[1].place == "under the bench");
  (void)drop_off_cut(all[0].id);
  REQUIRE(load_off_cuts().size() == 1);
  (void)keep_off_cut(oak(50, 50));
  CHECK(load_off_cuts()[0].id != load_off_cuts()[1].id);
  // What could not be read again is not kept.
  const std::string sound = read_file(off_cuts_path());
  CHECK_THROWS_AS(keep_off_cut(oak(0, 10)), Problem);
  CHECK_THROWS_AS(keep_off_cut(oak(1e9, 10)), Problem);
  CHECK(read_file(off_cuts_path()) == sound);
  for (const char* broken : {"{", "{}", R"({"format":"doyen-off-cuts/1","offCuts":[{"id":"a"}]})"}) {
    write_file_atomically(off_cuts_path(), broken);
    CHECK_THROWS_AS(load_off_cuts(), Problem);
    const std::string aside = keep_off_cut(oak(10, 10));
    CHECK(read_file(aside) == broken);
    CHECK(load_off_cuts().size() == 1);
  }
}

TEST_CASE("an off-cut is offered where it holds the board, its grain with the board's, of its wood and thickness") {
  CHECK(fits(oak(300, 120), oak_board(300, 120)));
  CHECK_FALSE(fits(oak(120, 300), oak_board(300, 120)));  // the grain would run across
  CHECK(fits(oak(300, 120), oak_board(120, 300, Grain::AlongHeight)));
  CHECK_FALSE(fits(oak(299, 120), oak_board(300, 120)));
  CHECK_FALSE(fits(oak(300, 120, 18.8), oak_board(300, 120)));
  CHECK(fits(oak(300, 120, 21), oak_board(300, 120)));
  CHECK_FALSE(fits(oak(300, 120, 22), oak_board(300, 120)));
  OffCut other = oak(300, 120);
  other.species = "black-walnut";
  CHECK_FALSE(fits(other, oak_board(300, 120)));
  // Sheets have no grain that is seen: either way.
  Blank sheet = oak_board(300, 120);
  sheet.species = "mdf";
  CHECK(fits({"", "mdf", 120, 300, 19, ""}, sheet));
  // The smallest that holds it is offered first.
  const std::vector<OffCut> some = fitting({oak(900, 200), oak(310, 130), oak(100, 100)}, oak_board(300, 120));
  REQUIRE(some.size() == 2);
  CHECK(some.front().along == 310);
}

TEST_CASE("over random sizes the board lies within what it is cut from, once that is used") {
  std::mt19937 random(5);
  const auto length = [&] { return 20.0 + static_cast<double>(random() % 400); };
  int used = 0;
  for (int i = 0; i < 4000; ++i) {
    Job job;
    job.blank = oak_board(length(), length(), random() % 2 == 0 ? Grain::AlongWidth : Grain::AlongHeight);
    if (random() % 2 == 0) job.blank.species = "mdf";
    OffCut o = oak(length(), length());
    o.species = job.blank.species;
    const bool cut_out = random() % 2 == 0;
    PlainShape shape;
    shape.width = 10;
    shape.height = 10;
    Treatment cut;
    cut.kind = cut_out ? Treatment::Kind::CutOut : Treatment::Kind::Recess;
    job.items.push_back({{"a", "a", shape, {10, 10}, 0}, cut});
    if (!fits(o, job.blank)) continue;
    ++used;
    Job on = job;
    use_off_cut(on, o);
    CHECK(on.blank.width >= job.blank.width - 0.1);
    CHECK(on.blank.height >= job.blank.height - 0.1);
    CHECK(on.blank.grain == job.blank.grain);
    CHECK(on.blank.thickest() == o.thickness);
    if (cut_out)
      CHECK(on.blank.width * on.blank.height == Approx(o.along * o.across));
    else
      CHECK(on.blank.width == job.blank.width);
  }
  CHECK(used > 200);
}

TEST_CASE("off-cuts are shared out among boards: each fits, none twice, and none is refused what is left over") {
  std::mt19937 random(4);
  const auto size = [&] { return 60.0 + static_cast<double>(random() % 300); };
  for (int round = 0; round < 200; ++round) {
    std::vector<OffCut> all;
    for (unsigned i = 0; i < 1 + random() % 6; ++i) {
      all.push_back(oak(size(), size(), 19 + 0.5 * static_cast<double>(random() % 4)));
      all.back().id = "o" + std::to_string(i);
    }
    std::vector<Blank> boards;
    for (unsigned i = 0; i < 1 + random() % 4; ++i) boards.push_back(oak_board(size(), size()));
    const auto offered = shared_out(all, boards);
    REQUIRE(offered.size() == boards.size());
    std::vector<std::string> taken;
    for (std::size_t i = 0; i < boards.size(); ++i) {
      for (const OffCut& one : all) {
        const bool free = std::find(taken.begin(), taken.end(), one.id) == taken.end();
        if (!offered[i]) CHECK_FALSE((free && fits(one, boards[i])));
        // The smallest that is free, by area.
        if (offered[i] && free && fits(one, boards[i]))
          CHECK(offered[i]->along * offered[i]->across <= one.along * one.across + 1e-9);
      }
      if (!offered[i]) continue;
      CHECK(fits(*offered[i], boards[i]));
      CHECK(std::find(taken.begin(), taken.end(), offered[i]->id) == taken.end());
      taken.push_back(offered[i]->id);
    }
  }
  CHECK(off_cut_in_words(oak(420, 180), {}) == "White oak, 420 × 180 × 19 mm, shelf 2");
}
