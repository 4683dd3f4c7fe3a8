// Where there is room on a board, and pieces carried from one job to another.
#include <catch2/catch.hpp>
#include <random>

#include "job/clip.hpp"
#include "job/room.hpp"
#include "made_pieces.hpp"
#include "problem.hpp"

using namespace doyen;

namespace {

using Shape = PlainShape::Kind;

Item shape(const char* id, double w, double h, Point at, Treatment::Kind look = Treatment::Kind::Recess) {
  Item item;
  item.piece = {id, id, PlainShape{Shape::Rectangle, w, h}, at, 0};
  item.cut.kind = look;
  return item;
}
Box box_at(Point p, double w, double h) { return {p.x - w / 2, p.y - h / 2, p.x + w / 2, p.y + h / 2}; }

}  // namespace

// Against the definition, by Clipper: whatever place is given, the box lies within the margin and meets nothing.
TEST_CASE("a free place meets nothing, and none is missed that is wide enough") {
  std::mt19937 random(3);
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  int found = 0, none = 0;
  for (int round = 0; round < 120; ++round) {
    Job job;
    job.blank.width = some(150, 900);
    job.blank.height = some(100, 500);
    job.blank.margin = some(0, 20);
    Region taken;
    const int pieces = static_cast<int>(some(0, 9));
    for (int i = 0; i < pieces; ++i) {
      Item item = shape(("p" + std::to_string(i)).c_str(), some(5, 200), some(5, 150),
                        {some(0, job.blank.width), some(0, job.blank.height)});
      item.piece.turn = some(0, 90);
      taken = unite(taken, outlines_of(item.piece).region);
      job.items.push_back(std::move(item));
    }
    const double w = some(5, 250), h = some(5, 150);
    const std::optional<Point> place = Room(job).nearest(w, h, job.blank.box().centre());
    INFO(round << ": " << w << " × " << h);
    const auto area_of = [](const Box& b) {
      return clean({{{b.left, b.bottom}, {b.right, b.bottom}, {b.right, b.top}, {b.left, b.top}}});
    };
    if (place) {
      ++found;
      const Box box = box_at(*place, w, h), room = job.blank.box().grown(-job.blank.margin + 1e-6);
      CHECK(room.contains({box.left, box.bottom}));
      CHECK(room.contains({box.right, box.top}));
      CHECK(intersect(area_of(box), taken).empty());
      continue;
    }
    ++none;
    // Places that are clear by 8 mm all round would have been seen.
    for (int look = 0; look < 200; ++look) {
      const Box box = box_at({some(0, job.blank.width), some(0, job.blank.height)}, w, h), wide = box.grown(8);
      const Box room = job.blank.box().grown(-job.blank.margin);
      if (!room.contains({box.left, box.bottom}) || !room.contains({box.right, box.top})) continue;
      CHECK_FALSE(intersect(area_of(wide), taken).empty());
    }
  }
  CHECK(found > 20);
  CHECK(none > 20);
}

TEST_CASE("an outline that is cut out, and a panel, hold what is added; clamps do not") {
  Job job;
  job.blank.width = 400;
  job.blank.height = 200;
  job.items.push_back(shape("sign", 360, 160, {200, 100}, Treatment::Kind::CutOut));
  CHECK(Room(job).nearest(100, 40, {200, 100}) == Point{200, 100});
  job.items[0].cut.kind = Treatment::Kind::None;
  CHECK(Room(job).nearest(100, 40, {200, 100}) == Point{200, 100});
  job.items[0].cut.kind = Treatment::Kind::Recess;  // a floor is a piece like others
  CHECK_FALSE(Room(job).nearest(100, 40, {200, 100}));
  job.items.clear();
  job.blank.keep_outs = {{KeepOut::Kind::Clamp, 200, 100, 30}};
  const std::optional<Point> beside = Room(job).nearest(60, 40, {200, 100});
  REQUIRE(beside);
  CHECK(distance(*beside, {200, 100}) > 30);
  CHECK_FALSE(Room(job).nearest(390, 40, {200, 100}));  // no place within the margin
}

TEST_CASE("pieces are carried with what they are made from; names and ids stay unique") {
  Job job;
  job.items.push_back(shape("leaf", 20, 10, {50, 50}));
  job.items.push_back(shape("other", 30, 10, {150, 50}));
  Item ring;
  ring.piece = {"ring", "Ring", Derived{.how = Derived::How::Round, .from = {"leaf"}, .count = 5}, {0, 0}, 0};
  ring.cut.kind = Treatment::Kind::Incise;
  ring.cut.bit = "v60";
  job.items.push_back(ring);

  // Within the job the source is there already: only the copy comes.
  const std::string clip = clip_of(job, {"ring"});
  Job here = job;
  const std::vector<std::string> copied = put_clip(here, clip, {30, 0});
  REQUIRE(copied.size() == 1);
  CHECK(here.items.size() == 4);
  const Item& copy = *here.find(copied[0]);
  CHECK(copy.piece.name == "Ring 2");
  CHECK(std::get<Derived>(copy.piece.what).from == std::vector<std::string>{"leaf"});
  CHECK(copy.cut == ring.cut);
  CHECK(bounds(here.outlines(copy)).left == Approx(bounds(job.outlines(ring)).left + 30).margin(0.001));

  // Elsewhere its source comes along, to be only that, even where another piece has its id.
  Job there;
  there.items.push_back(shape("leaf", 90, 90, {300, 100}));
  const std::vector<std::string> put = put_clip(there, clip, {});
  REQUIRE(put.size() == 1);
  REQUIRE(there.items.size() == 3);
  const std::string source = std::get<Derived>(there.find(put[0])->piece.what).from.front();
  CHECK(source != "leaf");
  CHECK(there.find(source)->cut.kind == Treatment::Kind::None);
  CHECK(bounds(there.outlines(*there.find(put[0]))).width() == Approx(bounds(job.outlines(ring)).width()).margin(0.01));

  // Source and copy together move once.
  Job both = job;
  const std::vector<std::string> two = put_clip(both, clip_of(job, {"leaf", "ring"}), {7, 0});
  REQUIRE(two.size() == 2);
  CHECK(bounds(both.outlines(*both.find(two[1]))).left == Approx(bounds(job.outlines(ring)).left + 7).margin(0.001));

  CHECK(clip_of(job, {"nobody"}).empty());
  for (const char* wrong :
       {"", "words", "{}", R"({"format":"doyen-pieces/2"})", R"({"format":"doyen-pieces/1","job":7})"})
    CHECK_THROWS_AS(put_clip(here, wrong, {}), Problem);
}

TEST_CASE("a lettering is called by its words, and names are numbered") {
  CHECK(name_of_words("Marrowby\n  Physic  Garden ") == "Marrowby Physic Garden");
  CHECK(name_of_words(" \n") == "Lettering");
  const std::string umlauts = "ääääääääääääääääääääääää";  // two bytes each
  const std::string name = name_of_words(umlauts);
  CHECK(name.ends_with("…"));
  CHECK(umlauts.starts_with(name.substr(0, name.size() - 3)));
  CHECK((name.size() - 3) % 2 == 0);
  Job job;
  job.items.push_back(shape("a", 5, 5, {0, 0}));
  CHECK(job.fresh_name("b") == "b");
  CHECK(job.fresh_name("a") == "a 2");
  job.items.push_back(shape("a 2", 5, 5, {0, 0}));
  CHECK(job.fresh_name("a") == "a 3");
}

TEST_CASE("what is left uncut on purpose is asked about no more, and its file says so") {
  Job job;
  job.items.push_back(shape("guide", 20, 10, {50, 50}, Treatment::Kind::None));
  CHECK(job.undecided(job.items[0]));
  job.items[0].cut.left_uncut = true;
  CHECK_FALSE(job.undecided(job.items[0]));
  const Job again = read_job(write_job(job), "again");
  CHECK(again.items[0].cut.left_uncut);
  // A source and a panel owe no look either.
  job.items[0].cut.left_uncut = false;
  Item made_from;
  made_from.piece = {"made", "Made", Derived{.how = Derived::How::Grow, .from = {"guide"}}, {0, 0}, 0};
  made_from.cut.kind = Treatment::Kind::Incise;
  made_from.cut.bit = "v60";
  job.items.push_back(made_from);
  CHECK_FALSE(job.undecided(job.items[0]));
}
