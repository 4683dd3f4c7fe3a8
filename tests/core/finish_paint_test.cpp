// The board in the colours of its finish: what is said in words, where paint lies, what is filled.
#include <catch2/catch.hpp>

#include "finish/colour_words.hpp"
#include "finish/finish_paint.hpp"
#include "planning/lost_places.hpp"
#include "relief/picture.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

double brightness(const Colour& c) { return 0.2126 * c.red + 0.7152 * c.green + 0.0722 * c.blue; }

// Which of its parts is greatest.
char hue(const char* words) {
  const std::optional<Colour> c = colour_of_words(words);
  REQUIRE(c);
  return c->red > std::max(c->green, c->blue) ? 'r' : c->green > c->blue ? 'g' : 'b';
}

std::size_t cell_at(const HeightField& f, Point p) {
  return f.rows_in(f.box().bottom, p.y).end * f.columns() - f.columns() + f.columns_in(f.box().left, p.x).end - 1;
}

}  // namespace

TEST_CASE("colours are known by their words in both languages, dark and light of them too") {
  for (const auto& [words, wanted] : std::map<const char*, char>{{"red", 'r'},
                                                                 {"Dunkelrot", 'r'},
                                                                 {"oxide red", 'r'},
                                                                 {"green", 'g'},
                                                                 {"DARK GREEN", 'g'},
                                                                 {"grün", 'g'},
                                                                 {"GRÜN", 'g'},
                                                                 {"pale blue", 'b'},
                                                                 {"Navy, two coats", 'b'},
                                                                 {"#1020f0", 'b'}})
    CHECK(hue(words) == wanted);
  const auto light = [](const char* words) { return brightness(*colour_of_words(words)); };
  CHECK(light("dark green") < light("green"));
  CHECK(light("hellgrün") > light("grün"));
  CHECK(light("gloss black") < 0.2);
  CHECK(light("weiß") > 0.8);
  CHECK(light("shell white") == Approx(light("white")));
  CHECK(light("tiefblau") < light("blau"));
  CHECK(light("#ffffff") == Approx(1));
  for (const char* none : {"", "sea mist", "coloured", "carrot", "shell", "lightfast", "#12", "#zzzzzz", "RAL 6005"})
    CHECK_FALSE(colour_of_words(none));
}

TEST_CASE("paint lies in what is carved, each piece in its own colour, and bare wood stays bare") {
  Job job = board(120, 60, 18);
  add(job, "left", {kBox, 30, 30}, {30, 30}, cut(Kind::Recess, 3, {"flat-1/8in"}));
  add(job, "right", {kBox, 30, 30}, {90, 30}, cut(Kind::Recess, 3, {"flat-1/8in"}));
  job.finish.school = FinishSchool::PaintSand;
  job.finish.colour = "white";
  job.finish.colours["right"] = "dark blue";
  CHECK(is_coloured(job));
  const Plan p = planned(job);
  HeightField front = relief_of(p, job.blank.box(), 0.2);
  const FinishPaint paint = finish_paint(p, front);
  CHECK(paint.not_known.empty());
  const auto colour = [&](const FinishPaint& of, Point at) -> const Colour* {
    const Coat* coat = of.paint.at(cell_at(front, at));
    return coat == nullptr ? nullptr : &coat->colour;
  };
  REQUIRE(colour(paint, {30, 30}) != nullptr);
  CHECK(brightness(*colour(paint, {30, 30})) > 0.8);
  REQUIRE(colour(paint, {90, 30}) != nullptr);
  CHECK(colour(paint, {90, 30})->blue > colour(paint, {90, 30})->red);
  CHECK(colour(paint, {60, 30}) == nullptr);
  CHECK(workbench::at(front, {30, 30}) == Approx(-3));  // paint fills nothing
  // A painted board: the face, and not what is carved through it.
  job.finish.school = FinishSchool::PaintedBoard;
  const FinishPaint face = finish_paint(planned(job), front);
  CHECK(colour(face, {60, 30}) != nullptr);
  CHECK(colour(face, {30, 30}) == nullptr);
  // Words that name no colour are told, and lie nowhere.
  job.finish.colour = "sea mist";
  const FinishPaint unknown = finish_paint(planned(job), front);
  CHECK(unknown.not_known == std::vector<std::string>{"sea mist"});
  CHECK(colour(unknown, {60, 30}) == nullptr);
  // Oil colours nothing.
  job.finish.school = FinishSchool::Oil;
  CHECK_FALSE(is_coloured(job));
}

TEST_CASE("of a sign that is cut out, the waste and the tabs in the slit stay bare") {
  Job job = board(160, 100, 12);
  add(job, "sign", {kBox, 120, 60}, {80, 50}, cut(Kind::CutOut, 0));
  add(job, "word", {kBox, 40, 10}, {80, 50}, cut(Kind::Incise, 2));
  job.finish.school = FinishSchool::MaskPaint;
  job.finish.colour = "black";
  const Plan p = planned(job);
  HeightField front = relief_of(p, job.blank.box(), 0.25);
  const FinishPaint paint = finish_paint(p, front);
  const std::vector<unsigned char> in = cells_inside(grow(p.finished_shape(), 0.2), front);
  std::size_t painted = 0, outside = 0;
  for (std::size_t cell = 0; cell < in.size(); ++cell) {
    if (paint.paint.at(cell) == nullptr) continue;
    ++painted;
    outside += in[cell] == 0 ? 1 : 0;
  }
  CHECK(painted > 1000);
  CHECK(outside == 0);
}

TEST_CASE("resin and plugs fill what they are let into, inserts as high as they are, resin over them") {
  Job job = board(200, 60, 18);
  Treatment resin = cut(Kind::Recess, 5, {"flat-1/8in"});
  resin.resin = true;
  Treatment sheet = cut(Kind::Recess, 5, {"flat-1/8in"});
  sheet.insert.thickness = 3;
  sheet.insert.cover = 2;
  Treatment covered = sheet;
  covered.resin = true;
  Treatment plug = cut(Kind::Inlay, 5, {"flat-1/8in"});
  plug.inlay.contact = 4;
  plug.inlay.wood = "sugar-maple";
  add(job, "resin", {kBox, 30, 30}, {25, 30}, resin);
  add(job, "sheet", {kBox, 30, 30}, {75, 30}, sheet);
  add(job, "covered", {kBox, 30, 30}, {125, 30}, covered);
  add(job, "plug", {kBox, 30, 30}, {175, 30}, plug);
  job.finish.colours["resin"] = "red";
  const Plan p = planned(job);
  HeightField front = relief_of(p, job.blank.box(), 0.2);
  const FinishPaint paint = finish_paint(p, front);
  CHECK(workbench::at(front, {25, 30}) == Approx(0).margin(1e-6));
  CHECK(workbench::at(front, {75, 30}) == Approx(-2).margin(1e-3));
  CHECK(workbench::at(front, {125, 30}) == Approx(0).margin(1e-6));
  CHECK(workbench::at(front, {175, 30}) == Approx(0).margin(1e-6));
  const Coat* poured = paint.paint.at(cell_at(front, {25, 30}));
  REQUIRE(poured != nullptr);
  CHECK(poured->colour.red > 1.5 * poured->colour.green);
  const Coat* maple = paint.paint.at(cell_at(front, {175, 30}));
  REQUIRE(maple != nullptr);
  REQUIRE(maple->wood != nullptr);
  CHECK(maple->wood->id == "sugar-maple");
  CHECK(maple->grain == job.blank.grain);
  CHECK(paint.paint.at(cell_at(front, {50, 30})) == nullptr);
  // In the picture, too: red where red resin lies.
  const Picture seen = lit_picture(front, wood_look(job.blank), 1, {}, paint.paint);
  const std::uint32_t pixel = seen.at(static_cast<std::size_t>(25 / 0.2), static_cast<std::size_t>(30 / 0.2));
  CHECK((pixel >> 16 & 255U) > 1.5 * (pixel >> 8 & 255U));
}

TEST_CASE("what no bit reaches is coloured where wood stays in the corners, and nowhere else") {
  Job job = board(120, 60, 18);
  add(job, "pocket", {kBox, 60, 30}, {60, 30}, cut(Kind::Recess, 3, {"flat-1/2in"}));
  const Plan p = planned(job);
  REQUIRE(loses_something(p, Side::Front));
  CHECK_FALSE(loses_something(p, Side::Back));
  const HeightField front = relief_of(p, job.blank.box(), 0.1);
  CellPaint paint;
  show_lost(paint, front, p, Side::Front, {1, 0, 0});
  double lost = 0;
  std::size_t carved_away = 0;
  for (std::size_t r = 0; r < front.rows(); ++r) {
    for (std::size_t c = 0; c < front.columns(); ++c) {
      if (paint.at(r * front.columns() + c) == nullptr) continue;
      lost += 0.1 * 0.1;
      carved_away += front.at(c, r) < -2.9F ? 1 : 0;
    }
  }
  // Four corners that a bit of 6.35 mm radius leaves: (4 - π) r².
  CHECK(lost == Approx((4 - 3.14159265) * 6.35 * 6.35).epsilon(0.05));
  CHECK(static_cast<double>(carved_away) < 0.05 * lost / 0.01);
}
