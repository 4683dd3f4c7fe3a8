// Spoiled boards: what is cut again is what was cut, and nothing else; a patch takes the broken letter whole; planed
// boards keep their depths. Judged by carving the written files.
#include <catch2/catch.hpp>

#include "planning/further_boards.hpp"
#include "problem.hpp"
#include "random_jobs.hpp"
#include "rescue/rescue.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

constexpr double kFine = 0.25;  // mm

Job gate_sign() { return load_job(data_file("demo/gate-sign.doyen")); }

void for_each_cell(const HeightField& f, const std::function<void(Point, float)>& act) {
  for (std::size_t r = 0; r < f.rows(); ++r) {
    for (std::size_t c = 0; c < f.columns(); ++c) act({f.x_of(c), f.y_of(r)}, f.at(c, r));
  }
}

}  // namespace

TEST_CASE("one letter is cut again as it was, and no other") {
  const Plan p = planned(gate_sign());
  const std::vector<PartOfPiece> parts = parts_of_piece(p, "name");
  REQUIRE(parts.size() == 8);  // M a r r o w b y
  CHECK(parts[2].name.find("“r”") != std::string::npos);
  const Box letter = bounds(parts[2].region), next = bounds(parts[3].region);
  CHECK(letter.right < next.right);
  const Job again = only_these(p, {{"name"}, 2});
  CHECK(again.blank == p.job.blank);
  CHECK(again.run.zero_place == p.job.run.zero_place);
  const Plan q = planned(again);
  CHECK(q.runs.size() <= p.runs.size());
  const HeightField was = carved(p, kFine), is = carved(q, kFine);
  double off = 0;
  std::size_t inside = 0, outside = 0;
  for_each_cell(is, [&](Point at, float z) {
    if (z < -0.01 && !letter.grown(kFine).contains(at)) ++outside;
    if (z > -0.5) return;
    ++inside;
    off = std::max(off, static_cast<double>(std::abs(z - workbench::at(was, at))));
  });
  CHECK(outside == 0);
  CHECK(inside > 100);
  CHECK(off < 0.05);
  CHECK_THROWS_AS(only_these(p, {{"name"}, 99}), Problem);
  CHECK_THROWS_AS(only_these(p, {}), Problem);
}

TEST_CASE("a patch takes all of a broken letter, 2 mm below its deepest, and comes with its own board") {
  Job job = gate_sign();
  const Plan p = planned(job);
  const PartOfPiece letter = parts_of_piece(p, "name")[2];
  const Job patch = patch_for(p, {{"name"}, 2});
  const Plan q = planned(patch);
  CHECK_FALSE(q.has_stop());
  const HeightField was = carved(p, kFine), is = carved(q, kFine);
  double least = 1e300;
  for_each_cell(was, [&](Point at, float z) {
    if (z < -0.3 && bounds(letter.region).contains(at))
      least = std::min(least, static_cast<double>(z - workbench::at(is, at)));
  });
  CHECK(least > 2 - 0.01);
  // The piece that is let in: of the same wood, as thick as the recess is deep, smaller all round.
  const std::vector<FurtherBoard> boards = further_boards(patch, load_rack());
  REQUIRE(boards.size() == 1);
  CHECK(boards.front().job.blank.species == job.blank.species);
  CHECK(boards.front().job.blank.grain == job.blank.grain);
  CHECK(boards.front().job.blank.thickest() == Approx(patch.items.front().cut.depth));
  const Box recess = bounds(patch.outlines(patch.items.front()).region);
  const Box in = bounds(boards.front().job.outlines(boards.front().job.items.front()).region);
  CHECK(in.width() == Approx(recess.width() - 0.1).margin(0.01));
  CHECK(recess.width() == Approx(bounds(letter.region).width() + 6).margin(0.01));
  CHECK_FALSE(planned(boards.front().job).has_stop());
  // A board that is too thin for it is said, in words.
  job.blank.readings = {11};
  const Plan thin = planned(job);
  CHECK_THROWS_WITH(patch_for(thin, {{"name"}, 2}), Catch::Contains("plane the face"));
}

TEST_CASE("a planed board is cut as deep as it was, from its new face") {
  const Job job = gate_sign();
  const Plan p = planned(job);
  const Job mended = planed(job, 1.5);
  CHECK(mended.blank.thickest() == Approx(job.blank.thickest() - 1.5));
  const Plan q = planned(mended);
  const HeightField was = carved(p, 0.5), is = carved(q, 0.5);
  const Box name = bounds(p.piece("name")->outlines);
  double off = 0;
  for_each_cell(was, [&](Point at, float z) {
    if (name.contains(at)) off = std::max(off, static_cast<double>(std::abs(z - workbench::at(is, at))));
  });
  CHECK(off < 0.02);
  // Right through: the thinner board and its over-cut, by hand.
  CHECK(q.piece("outline")->cuts.deepest == Approx(p.piece("outline")->cuts.deepest - 1.5));
  // What makes it clean lies below everything that does not go through.
  double deepest = 0;
  for_each_cell(carved(p, 0.5), [&](Point at, float z) {
    (void)at;
    if (z > -12) deepest = std::max(deepest, -static_cast<double>(z));  // all but the cut-out
  });
  CHECK(planed_clean(p) > deepest);
  CHECK(planed_clean(p) < deepest + 1);
  CHECK_THROWS_AS(planed(job, 30), Problem);
}

TEST_CASE("what ran off the board is cut smaller, all of it within the margin") {
  Job job = gate_sign();
  const Plan fine = planned(job);
  CHECK_THROWS_AS(within_margin(fine), Problem);
  job.shift("name", {90, 0});
  const Plan p = planned(job);
  REQUIRE(find(p, "outside-board") != nullptr);
  const Plan q = planned(within_margin(p));
  INFO((find(q, "outside-board") == nullptr ? "" : find(q, "outside-board")->text));
  CHECK(find(q, "outside-board") == nullptr);
  const Box name = bounds(q.piece("name")->outlines), room = job.blank.box().grown(-job.blank.margin + 0.01);
  CHECK(room.contains({name.left, name.bottom}));
  CHECK(room.contains({name.right, name.top}));
}

TEST_CASE(
    "what was cut from the back is patched from the back; strokes are patched, too; two signs on a board stay in it") {
  Job job = board(240, 160, 30);
  PlainShape shape;
  shape.width = 30;
  shape.height = 20;
  Treatment recess = cut(Kind::Recess, 3);
  recess.back = true;
  add(job, "back", shape, {60, 80}, recess);
  Treatment line = cut(Kind::Line, 2);
  add(job, "line", shape, {160, 80}, line);
  const Plan p = planned(job);
  const Job patch = patch_for(p, {{"back", "line"}, {}});
  REQUIRE(patch.items.size() == 2);
  CHECK(patch.items[0].cut.back);
  CHECK_FALSE(patch.items[1].cut.back);
  for (std::size_t i = 0; i < 2; ++i) {
    const Box was = bounds(job.outlines(job.items[i])), is = bounds(patch.outlines(patch.items[i]));
    CHECK(is.width() == Approx(was.width() + 6).margin(0.01));
    CHECK(is.centre().x == Approx(was.centre().x).margin(0.01));
  }
  CHECK_FALSE(planned(patch).has_stop());
  // Two signs cut out of one board, one over its edge.
  Job two = board(240, 160, 18);
  add(two, "left", shape, {15, 80}, cut(Kind::CutOut, 0));
  add(two, "right", shape, {239, 80}, cut(Kind::CutOut, 0));
  const Plan off = planned(two);
  REQUIRE(find(off, "outside-board") != nullptr);
  const Plan in = planned(within_margin(off));
  CHECK(find(in, "outside-board") == nullptr);
}

TEST_CASE("what ran off the board is moved within the margin by the least, as large as it is") {
  Job job = board(240, 160, 18);
  job.blank.margin = 10;
  add(job, "over", {kBox, 40, 30}, {225, 80}, cut(Kind::Recess, 3, {"flat-1/8in"}));
  add(job, "beside", {kBox, 40, 30}, {150, 100}, cut(Kind::Recess, 3, {"flat-1/8in"}));
  const Plan p = planned(job);
  REQUIRE(find(p, "outside-board") != nullptr);
  const Plan q = planned(moved_within(p));
  CHECK(find(q, "outside-board") == nullptr);
  CHECK(find(q, "inside-margin") == nullptr);
  // By hand: its right edge stood at 245 mm and comes to 230; all of it goes as one, and nothing is smaller.
  const Box is = bounds(q.piece("over")->outlines), beside = bounds(q.piece("beside")->outlines);
  CHECK(is.right == Approx(230).margin(1e-3));
  CHECK(is.bottom == Approx(65).margin(1e-3));
  CHECK(beside.right == Approx(155).margin(1e-3));
  CHECK(is.width() == Approx(40).margin(1e-3));
  CHECK_THROWS_WITH(moved_within(q), Catch::Contains("already"));
  job.blank.margin = 62;
  CHECK_THROWS_WITH(moved_within(planned(job)), Catch::Contains("cut it smaller"));
}

TEST_CASE("a fill piece goes into what was carved, as the written files leave it, and stands proud") {
  Job job = board(240, 160, 15);
  add(job, "window", {kBox, 40, 30}, {60, 80}, cut(Kind::Pierce, 0));
  add(job, "pocket", {kBox, 40, 30}, {180, 80}, cut(Kind::Recess, 4, {"flat-1/8in"}));
  const Plan p = planned(job);
  for (const auto& one : std::map<std::string, double>{{"window", 15}, {"pocket", 4}}) {
    const std::string& id = one.first;
    const double deep = one.second;
    const Job fill = fill_piece_for(p, {{id}, {}});
    CHECK(fill.blank.species == job.blank.species);
    CHECK(fill.blank.grain == job.blank.grain);
    CHECK(fill.blank.thickest() == Approx(deep + 1));
    const Plan q = planned(fill);
    for (const Verdict& v : q.verdicts) {
      INFO(v.code << ": " << v.text);
      CHECK(v.grade != Grade::Stop);
    }
    // It fits: set down in the pocket, no wood of it lies where the board's files left wood.
    const HeightField hole = carved(p, 0.1);
    const Region piece = q.finished_shape();
    const Point by = bounds(p.piece(id)->outlines.region).centre() - bounds(piece).centre();
    const Region there = transformed(piece, Transform::move(by.x, by.y));
    CHECK(area(there) > 0.97 * 40 * 30);
    std::size_t binds = 0;
    for_each_cell(hole, [&](Point at, float z) {
      if (z > -deep + 0.05 && contains(there, at)) ++binds;
    });
    CHECK(binds == 0);
  }
  CHECK_THROWS_WITH(fill_piece_for(p, {{"window", "pocket"}, {}}), Catch::Contains("one depth"));
  // A groove: a plug by the same V, which the mating of both halves says fits.
  const Plan sign = planned(gate_sign());
  const Job plug = fill_piece_for(sign, {{"name"}, 2});
  REQUIRE(plug.items.size() == 1);
  CHECK(plug.items.front().cut.kind == Kind::Plug);
  CHECK(plug.items.front().cut.bit == sign.job.find("name")->cut.bit);
  CHECK_FALSE(planned(plug).has_stop());
  CHECK_THROWS_AS(fill_piece_for(sign, {{"outline"}, {}}), Problem);
}

TEST_CASE("an inlay's plug is made again, put right by what was seen of it") {
  Job job = board(240, 160, 18);
  Treatment inlay = cut(Kind::Inlay, 5, {"flat-1/8in"});
  inlay.inlay.contact = 4;
  add(job, "leaf", {PlainShape::Kind::Ellipse, 60, 40}, {120, 80}, inlay);
  const Plan p = planned(job);
  const auto contact = [&](Mishap mishap, double mm) {
    return fill_piece_for(p, {{"leaf"}, {}}, {{mishap, mm, {}}}).items.front().cut.inlay.contact;
  };
  CHECK(contact(Mishap::InlayTight, 0.3) == Approx(4.3));
  CHECK(contact(Mishap::InlayGap, 0.1) == Approx(4 - 0.1 / std::tan(30 * 3.14159265358979 / 180)));
  CHECK(contact(Mishap::InlayGap, 0) == Approx(4));
}

TEST_CASE("a letter that was cut from the back is cut again there, and no other") {
  Job job = board(300, 100, 18);
  Lettering words;
  words.words = "Back";
  words.cap_height = 40;
  Item item;
  item.piece = {"word", "word", words, {150, 50}, 0};
  item.cut = cut(Kind::Incise, 2, {"flat-1/8in"});
  item.cut.incise.floor_limit = 2;
  item.cut.back = true;
  job.items.push_back(item);
  const Plan p = planned(job);
  const std::vector<PartOfPiece> parts = parts_of_piece(p, "word");
  REQUIRE(parts.size() == 4);
  const HeightField was = carved(p, kFine, Side::Back);
  for (std::size_t i = 0; i < parts.size(); ++i) {
    const HeightField is = carved(planned(only_these(p, {{"word"}, i})), kFine, Side::Back);
    double off = 0;
    std::size_t cells = 0, all = 0;
    for_each_cell(is, [&](Point at, float z) {
      all += workbench::at(was, at) < -0.5 ? 1 : 0;
      if (z > -0.5) return;
      ++cells;
      off = std::max(off, static_cast<double>(std::abs(z - workbench::at(was, at))));
    });
    CHECK(cells > 100);
    CHECK(cells < all / 2);
    CHECK(off < 0.05);
  }
}

TEST_CASE("in random jobs, a piece that is cut again goes nowhere deeper than it was cut before", "[heavy]") {
  int cut = 0;
  for (unsigned seed = 500; seed < 512; ++seed) {
    const Job job = JobMaker(seed).job();
    const Plan p = planned(job);
    if (p.runs.empty()) continue;
    const HeightField was = carved(p, 0.5);
    for (const Item& item : job.items) {
      if (item.cut.kind == Kind::None || item.cut.back) continue;
      INFO("seed " << seed << ", " << item.piece.id << ", " << to_word(item.cut.kind));
      const Plan q = planned(only_these(p, {{item.piece.id}, {}}));
      if (q.runs.empty()) continue;
      const HeightField is = carved(q, 0.5);
      double deeper = 0;
      for_each_cell(
          is, [&](Point at, float z) { deeper = std::max(deeper, static_cast<double>(workbench::at(was, at) - z)); });
      CHECK(deeper < 0.05);
      ++cut;
    }
  }
  CHECK(cut > 10);
}
