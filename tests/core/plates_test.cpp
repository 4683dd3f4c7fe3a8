// Plates from a list: how many go on a sheet, what stands on each, how long entries are set, what is found before
// cutting; and that a plate on its sheet is cut as it would be alone.
#include <geos_c.h>

#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "inlay/plugs.hpp"
#include "plates/plates.hpp"
#include "problem.hpp"
#include "remedies.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

Item words(const char* id, const char* column, double cap, Point at, double room, double least, bool two_lines) {
  Lettering l;
  l.words = "Example";
  l.face = {"EB Garamond", "Regular"};
  l.cap_height = cap;
  l.list = {column, room, least, two_lines, false};
  Item item{{id, id, l, at, 0}, cut(Kind::Incise, 1)};
  return item;
}

Job labels(std::vector<ListRow> rows) {
  Job job = board(80, 30, 9);
  job.items.push_back(words("name", "Name", 7, {40, 18}, 56, 4.5, true));
  job.items.push_back(words("latin", "Latin", 4, {40, 8}, 60, 2.5, false));
  job.plates.columns = {"Name", "Latin"};
  job.plates.rows = std::move(rows);
  job.plates.bit = "flat-3mm";
  job.plates.gap = 9;
  return job;
}

std::vector<ListRow> some_rows(std::size_t count) {
  std::vector<ListRow> rows;
  for (std::size_t i = 0; i < count; ++i)
    rows.push_back({"Plant " + std::to_string(i + 1), "Planta " + std::to_string(i + 1)});
  return rows;
}

double ink_width(const Job& job, const Item& item) { return bounds(job.outlines(item)).width(); }

}  // namespace

TEST_CASE("as many plates go on a sheet as common practice counts") {
  // 2.5 × 2 in plates with a 0.2 in margin on 12 × 8 in: 4 × 3 = 12; 14 records need two sheets (common practice, no
  // source).
  Job job = labels(some_rows(14));
  job.blank.width = 2.5 * 25.4;
  job.blank.height = 2 * 25.4;
  job.plates.sheet_width = 12 * 25.4;
  job.plates.sheet_height = 8 * 25.4;
  job.plates.margin = job.plates.gap = 0.2 * 25.4;
  PlateGrid grid = plate_grid(job);
  CHECK(grid.across == 4);
  CHECK(grid.deep == 3);
  CHECK(grid.sheets == 2);
  CHECK(plate_sheet(job, 1).rows == std::vector<std::size_t>{12, 13});
  CHECK_THROWS_AS(plate_sheet(job, 2), Problem);
  // 130 labels of 80 × 30 mm on 600 × 300, margin 10, gap 6: 6 × 7, four sheets, four on the last (worked out by hand).
  job = labels(some_rows(130));
  job.plates.gap = 6;
  grid = plate_grid(job);
  CHECK(grid.per_sheet() == 42);
  CHECK(grid.sheets == 4);
  CHECK(plate_sheet(job, 3).rows.size() == 4);
  // Exactly full counts, a hair too small does not.
  job.plates.sheet_width = 20 + 6 * 80 + 5 * 6;
  CHECK(plate_grid(job).across == 6);
  job.plates.sheet_width -= 0.01;
  CHECK(plate_grid(job).across == 5);
}

TEST_CASE("random sheets: every row once, each plate with its own words in its own place, none over another") {
  std::mt19937 random(3);
  const auto between = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  GEOSContextHandle_t geos = GEOS_init_r();
  for (int round = 0; round < 12; ++round) {
    Job job = labels(some_rows(1 + random() % 60));
    PlateList& list = job.plates;
    list.sheet_width = between(90, 500);
    list.sheet_height = between(55, 400);
    list.margin = between(0, 4);
    list.gap = between(3.5, 12);
    if (random() % 3 == 0) list.left_out = {1};
    if (random() % 3 == 0) list.sorted_by = "Latin";
    const PlateGrid grid = plate_grid(job);
    if (grid.per_sheet() == 0) continue;
    std::vector<std::size_t> seen;
    for (std::size_t s = 0; s < grid.sheets; ++s) {
      const PlateSheet sheet = plate_sheet(job, s);
      std::vector<GEOSGeometry*> boxes;
      for (std::size_t k = 0; k < sheet.rows.size(); ++k) {
        const Point c = sheet.corners[k];
        CHECK(c.x >= list.margin - 1e-9);
        CHECK(c.y >= list.margin - 1e-9);
        CHECK(c.x + 80 <= list.sheet_width - list.margin + 1e-6);
        CHECK(c.y + 30 <= list.sheet_height - list.margin + 1e-6);
        boxes.push_back(GEOSGeom_createRectangle_r(geos, c.x, c.y, c.x + 80, c.y + 30));
        const std::string id = "plate-" + std::to_string(sheet.rows[k] + 1) + "-name";
        const Item* item = sheet.job.find(id);
        REQUIRE(item != nullptr);
        CHECK(std::get<Lettering>(item->piece.what).words == "Plant " + std::to_string(sheet.rows[k] + 1));
        CHECK(item->piece.at.x == Approx(c.x + 40));
        CHECK(item->piece.at.y == Approx(c.y + 18));
        seen.push_back(sheet.rows[k]);
      }
      for (std::size_t a = 0; a < boxes.size(); ++a) {
        for (std::size_t b = a + 1; b < boxes.size(); ++b) {
          double apart = 0;
          GEOSDistance_r(geos, boxes[a], boxes[b], &apart);
          CHECK(apart >= list.gap - 1e-6);
        }
      }
      for (GEOSGeometry* box : boxes) GEOSGeom_destroy_r(geos, box);
    }
    CHECK(seen.size() == list.rows.size() - list.left_out.size());
    std::sort(seen.begin(), seen.end());
    CHECK(std::adjacent_find(seen.begin(), seen.end()) == seen.end());
  }
  GEOS_finish_r(geos);
}

TEST_CASE("a plate on its sheet is cut as it would be alone, by the files read back") {
  Job job = labels({{"Sage", "Salvia"}, {"Rosemary", "Salvia rosmarinus"}, {"Thyme", ""}});
  job.plates.sheet_width = 190;
  job.plates.sheet_height = 90;
  const PlateSheet sheet = plate_sheet(job, 0);
  const Plan whole = planned(sheet.job);
  for (const Verdict& v : whole.verdicts) {
    INFO(v.code << ": " << v.text);
    CHECK(v.grade != Grade::Stop);
  }
  constexpr double kCell = 0.25;
  const HeightField relief = carved(whole, kCell);
  for (std::size_t k = 0; k < sheet.rows.size(); ++k) {
    INFO("row " << sheet.rows[k] + 1);
    const Job alone = plate_of(job, sheet.rows[k]);
    const HeightField own = carved(planned(alone), kCell);
    double worst = 0, deepest = 0;
    for (double y = 3; y < 27; y += kCell) {
      for (double x = 3; x < 77; x += kCell) {
        const double a = at(own, {x, y}), b = at(relief, sheet.corners[k] + Point{x, y});
        deepest = std::min(deepest, a);
        worst = std::max(worst, std::abs(a - b));
      }
    }
    CHECK(deepest < -0.3);
    CHECK(worst < 0.03);
  }
  // The plate is cut free along its own edge.
  for (const Point corner : sheet.corners) {
    int through = 0;
    for (int x = 6; x < 75; ++x) through += at(relief, corner + Point{static_cast<double>(x), -1.5}) < -9 ? 1 : 0;
    CHECK(through > 40);  // all but the tabs
  }
  // A row without Latin has none, and no piece that says nothing.
  CHECK(sheet.job.find("plate-3-latin") == nullptr);
}

TEST_CASE("an entry that is too long is set smaller, then in two lines, then refused") {
  Job job = labels({{"Sage", "Salvia"},
                    {"Apothecary's rose", "Rosa gallica"},
                    {"Yellow horned poppy of the shingle", "Glaucium"},
                    {"An entry that is far too long for any plate of this size", "Longus"}});
  const Lettering& name = std::get<Lettering>(job.items[0].piece.what);
  using How = SetEntry::How;
  const How expected[] = {How::AsIs, How::Smaller, How::TwoLines, How::TooLong};
  for (std::size_t row = 0; row < 4; ++row) {
    INFO(job.plates.rows[row][0]);
    const SetEntry set = set_entry(name, job.plates.rows[row][0], 56);
    CHECK(set.how == expected[row]);
    CHECK(set.cap_height >= 4.5 - 1e-9);
    CHECK(set.cap_height <= 7);
    const Job plate = plate_of(job, row);
    // Measured on the outlines themselves, not by what set them.
    const double wide = ink_width(plate, plate.items[0]);
    if (set.how != How::TooLong) CHECK(wide <= 56.02);
    if (set.how == How::Smaller) CHECK(wide == Approx(56).margin(0.3));
    const bool broken = std::get<Lettering>(plate.items[0].piece.what).words.find('\n') != std::string::npos;
    CHECK(broken == (set.how == How::TwoLines || set.how == How::TooLong));
  }
  // One size for all: that of the longest.
  std::get<Lettering>(job.items[0].piece.what).list.one_size = true;
  job.plates.left_out = {3, 4};
  const Job first = plate_of(job, 0), second = plate_of(job, 1);
  CHECK(std::get<Lettering>(first.items[0].piece.what).cap_height ==
        Approx(std::get<Lettering>(second.items[0].piece.what).cap_height));
  CHECK(ink_width(second, second.items[0]) == Approx(56).margin(0.3));
}

TEST_CASE("what is too long at its least height is narrowed before it is broken, and no narrower than was said") {
  Job job = labels({{"Apothecary's rose", "Rosa gallica"},
                    {"Yellow horned poppy", "Glaucium"},
                    {"Yellow horned poppy of the shingle", "Glaucium"}});
  Lettering& name = std::get<Lettering>(job.items[0].piece.what);
  name.list.narrowest = 70;
  using How = SetEntry::How;
  const How expected[] = {How::Smaller, How::Narrower, How::TwoLines};
  for (std::size_t row = 0; row < 3; ++row) {
    INFO(job.plates.rows[row][0]);
    const SetEntry set = set_entry(name, job.plates.rows[row][0], 56);
    CHECK(set.how == expected[row]);
    const Job plate = plate_of(job, row);
    const double wide = ink_width(plate, plate.items[0]);  // of the outlines
    CHECK(wide <= 56.02);
    if (set.how != How::Narrower) {
      CHECK(set.letter_width == 100);
      continue;
    }
    CHECK(wide == Approx(56).margin(0.3));
    CHECK(set.letter_width >= 70);
    CHECK(set.letter_width < 100);
    CHECK(set.cap_height == Approx(name.list.least));
  }
  // Spaces between letters are not narrowed with them: the width comes out all the same.
  name.letter_spacing = 12;
  const SetEntry spaced = set_entry(name, "Yellow horned poppy", 62);
  if (spaced.how == How::Narrower) {
    Item item = job.items[0];
    auto& l = std::get<Lettering>(item.piece.what);
    l.words = spaced.words;
    l.cap_height = spaced.cap_height;
    l.letter_width = spaced.letter_width;
    l.list = {};
    CHECK(bounds(outlines_of(item.piece).region).width() == Approx(62).margin(0.3));
  }
}

TEST_CASE("what is wrong with a list is found before cutting, and each remedy mends it") {
  const Job fine = labels(some_rows(5));
  const auto with = [&](const std::function<void(Job&)>& change) {
    Job job = fine;
    change(job);
    return job;
  };
  const auto lettering = [](Job& job, std::size_t i) -> Lettering& {
    return std::get<Lettering>(job.items[i].piece.what);
  };
  const std::pair<const char*, Job> cases[] = {
      {"plate-too-long",
       with([](Job& j) { j.plates.rows.edit()[2][1] = "Planta longissima sine fine in hortis omnibus crescens"; })},
      {"plate-letters-missing", with([](Job& j) { j.plates.rows.edit()[1][0] = "Sage 漢"; })},
      {"plate-empty", with([](Job& j) { j.plates.rows.edit()[3][0].clear(); })},
      {"plate-doubled", with([](Job& j) { j.plates.rows.edit()[4] = j.plates.rows[0]; })},
      {"plate-no-column", with([&](Job& j) { lettering(j, 1).list.column = "Family"; })},
      {"plate-columns-alike", with([&](Job& j) { lettering(j, 1).list.column = "Name"; })},
      {"plate-no-room", with([](Job& j) { j.plates.sheet_width = 90; })},
      {"plate-none", with([](Job& j) {
         j.plates.left_out = {1, 2, 3, 4, 5};
       })},
      {"plate-gap", with([](Job& j) { j.plates.gap = 2; })},
      {"plate-gap", with([](Job& j) { j.plates.gap = 6; })},
  };
  const Plan before = planned(fine);
  for (const auto& [code, job] : cases) CHECK(find(before, code) == nullptr);
  // Long ones in two lines may still be too long; then it says so of them.
  for (const auto& [code, job] : cases)
    check_remedies_mend(job, code, [](const Remedy& r) { return r.label.find("two lines") == std::string::npos; });
  const Job unsaid = with([&](Job& j) {
    lettering(j, 0).list = {};
    lettering(j, 1).list = {};
  });
  CHECK(find(planned(unsaid), "plate-nothing-listed") != nullptr);
  // The row is named by its number, counted from 1.
  CHECK_THAT(find(planned(cases[1].second), "plate-letters-missing")->text,
             Catch::Contains("2 “Sage") && Catch::Contains("漢"));
}

TEST_CASE("rows are named as they are typed, or refused with what was expected") {
  CHECK(parse_rows("57, 60-62", 130) == std::vector<int>{57, 60, 61, 62});
  CHECK(parse_rows(" 3 ;1,  2", 3) == std::vector<int>{1, 2, 3});
  CHECK(parse_rows("", 5).empty());
  CHECK(rows_in_words({1, 2, 3, 7, 9, 10}) == "1-3, 7, 9, 10");
  for (int seed = 0; seed < 200; ++seed) {
    std::mt19937 random(static_cast<unsigned>(seed));
    std::set<int> rows;
    for (auto k = random() % 12; k > 0; --k) rows.insert(1 + static_cast<int>(random() % 40));
    const std::vector<int> asked(rows.begin(), rows.end());
    CHECK(parse_rows(rows_in_words(asked), 40) == asked);
  }
  for (const char* wrong : {"x", "0", "-3", "5-2", "1,,2", "3.5", "1-", "99999999999"})
    CHECK_THROWS_AS(parse_rows(wrong, 100), Problem);
  CHECK_THROWS_WITH(parse_rows("131", 130), Catch::Contains("no row 131") && Catch::Contains("130"));
}

TEST_CASE("one spoiled plate is made again alone on an off-cut") {
  Job job = labels(some_rows(130));
  job.plates.only = {57};
  job.plates.sheet_width = 100;
  job.plates.sheet_height = 50;
  REQUIRE(plate_grid(job).sheets == 1);
  const PlateSheet sheet = plate_sheet(job, 0);
  CHECK(sheet.rows == std::vector<std::size_t>{56});
  CHECK(std::get<Lettering>(sheet.job.find("plate-57-name")->piece.what).words == "Plant 57");
  CHECK(planned(sheet.job).count(Grade::Stop) == 0);
}

TEST_CASE("the list stays in the job's file as it is, and what cannot be kept is refused") {
  Job job = labels({{"Sage \"dwarf\"", "a,b"}, {"Öl", "×"}});
  job.plates.only = {2};
  job.plates.sorted_by = "Latin";
  job.plates.skin = 0.3;
  const Job again = read_job(write_job(job), "again");
  CHECK(again == job);
  const auto wrong = [&](const std::string& from, const std::string& to) {
    std::string text = write_job(job);
    const auto at = text.find(from);
    REQUIRE(at != std::string::npos);
    text.replace(at, from.size(), to);
    try {
      (void)read_job(text, "job");
    } catch (const Problem& problem) {
      return std::string(problem.what());
    }
    return std::string();
  };
  CHECK_THAT(wrong("\"Öl\"", "7"), Catch::Contains("plates") && Catch::Contains("texts were expected"));
  Job twice = job;
  twice.plates.columns = {"Latin", "Latin"};
  CHECK_THROWS_WITH(read_job(write_job(twice), "job"), Catch::Contains("stands there twice"));
  CHECK_THAT(wrong("\"margin\": 10", "\"margin\": -1"), Catch::Contains("margin"));
  // A job without a list says nothing of one.
  CHECK(write_job(board()).find("plates") == std::string::npos);
}

TEST_CASE("made pieces, grounds and what was accepted come along to every plate") {
  Job job = labels(some_rows(3));
  add(job, "dot", {kBox, 4, 4}, {8, 15}, cut(Kind::Incise, 1));
  Derived grid;
  grid.how = Derived::How::Grid;
  grid.from = {"dot"};
  grid.columns = 2;
  grid.step_x = 60;
  job.items.push_back({{"dots", "dots", grid, {0, 0}, 0}, cut(Kind::Incise, 1)});
  job.run.accepted = {"thin-wood/name"};
  job.finish.colours["dots"] = "green";
  const PlateSheet sheet = plate_sheet(job, 0);
  for (std::size_t k = 0; k < 3; ++k) {
    const std::string own = "plate-" + std::to_string(sheet.rows[k] + 1) + "-";
    const Item* dots = sheet.job.find(own + "dots");
    REQUIRE(dots != nullptr);
    CHECK(std::get<Derived>(dots->piece.what).from == std::vector<std::string>{own + "dot"});
    const Box on_sheet = bounds(sheet.job.outlines(*dots)), alone = bounds(job.outlines(*job.find("dots")));
    CHECK(on_sheet.left - sheet.corners[k].x == Approx(alone.left).margin(0.002));
    CHECK(on_sheet.bottom - sheet.corners[k].y == Approx(alone.bottom).margin(0.002));
    CHECK(sheet.job.finish.colours.at(own + "dots") == "green");
    CHECK(std::count(sheet.job.run.accepted.begin(), sheet.job.run.accepted.end(), "thin-wood/" + own + "name") == 1);
  }
}
