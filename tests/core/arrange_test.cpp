// Boards laid out: over random sets of pieces and boards nothing overlaps, leaves its margin or changes its order.
#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <random>
#include <set>

#include "arrange/arrangement.hpp"
#include "made_pieces.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "treatments/start.hpp"

using namespace doyen;
using Role = ArrangeWish::Role;

namespace {

Item words(const Job& job, const std::string& text, double cap, Point at) {
  Item item;
  Lettering l;
  l.words = text;
  l.cap_height = cap;
  item.piece = {job.fresh_id("lettering"), text, l, at, 0};
  item.cut.kind = Treatment::Kind::Incise;
  item.cut.bit = "v60";
  return item;
}
// A leaf: two arcs between two points.
Item leaf(const Job& job, Point at) {
  Item item;
  Drawing d;
  d.page_width = 40;
  d.page_height = 60;
  Drawing::Part part;
  part.id = "leaf";
  part.data = "M20 0 C45 20 45 40 20 60 C-5 40 -5 20 20 0 Z";
  d.parts = std::vector<Drawing::Part>{part};
  item.piece = {job.fresh_id("drawing"), "Leaf", d, at, 0};
  item.cut.kind = Treatment::Kind::Incise;
  item.cut.bit = "v60";
  return item;
}
Job gate() {
  Job job;
  job.blank.width = 600;
  job.blank.height = 225;
  job.items.push_back(words(job, "Marrowby", 60, {300, 150}));
  job.items.push_back(words(job, "Physic Garden", 30, {300, 80}));
  job.items.push_back(leaf(job, {60, 110}));
  return job;
}
Region region_now(const Job& job, const std::string& id) { return job.outlines(*job.find(id)).region; }

// What the search promises, looked at by the outlines of the proposed job alone.
void check(const Job& before, const ArrangeWish& wish, const Arrangement& a) {
  INFO(a.form << " / " << a.frame);
  std::vector<std::string> placed, in_order;
  for (const ArrangeWish::Part& part : wish.parts) {
    if (part.role == Role::Main || part.role == Role::Second || part.role == Role::Small) in_order.push_back(part.id);
    if (part.role != Role::Stays && part.role != Role::Outline && part.role != Role::Border) placed.push_back(part.id);
  }
  std::map<std::string, Region> regions;
  for (const Item& item : a.job.items) regions[item.piece.id] = region_now(a.job, item.piece.id);
  const Box inside = a.job.blank.box().grown(-a.job.blank.margin + 0.05);
  Region others, lines;
  for (const std::string& id : placed) {
    const Region& own = regions[id];
    const Box box = bounds(own);
    REQUIRE_FALSE(own.empty());
    CHECK(box.left >= inside.left);
    CHECK(box.right <= inside.right);
    CHECK(box.bottom >= inside.bottom);
    CHECK(box.top <= inside.top);
    // Several drawings of one motif lie to each other as they lay: here they may overlap.
    const bool motif = std::holds_alternative<Drawing>(a.job.find(id)->piece.what);
    CHECK(intersect(own, motif ? lines : others).empty());
    others = unite(others, own);
    if (!motif) lines = unite(lines, own);
    for (const KeepOut& place : a.job.blank.keep_outs) CHECK(intersect(own, region_of(place)).empty());
  }
  // The border and the outline keep clear of all of it, and hold it.
  for (const Item& item : a.job.items) {
    if (std::find(placed.begin(), placed.end(), item.piece.id) != placed.end()) continue;
    const Region& own = regions[item.piece.id];
    if (item.cut.kind == Treatment::Kind::CutOut)
      CHECK(area(subtract(others, own)) < 0.01);
    else
      CHECK(intersect(others, own).empty());
  }
  // Read from the back to the front, and what lies side by side from the left to the right.
  for (std::size_t i = 0; i + 1 < in_order.size(); ++i) {
    const Box one = bounds(regions[in_order[i]]), two = bounds(regions[in_order[i + 1]]);
    CHECK((one.right < two.left || one.centre().y > two.centre().y));
  }
  // Importance is kept: no lesser line is higher than a greater one.
  for (const ArrangeWish::Part& one : wish.parts) {
    for (const ArrangeWish::Part& two : wish.parts) {
      const bool both = one.role <= Role::Small && two.role <= Role::Small && one.role < two.role;
      if (!both) continue;
      const auto cap = [&](const std::string& id) {
        return std::get<Lettering>(a.job.find(id)->piece.what).cap_height;
      };
      CHECK(cap(one.id) >= cap(two.id) - 1e-9);
    }
  }
  // Words, faces, looks and bits are the user's.
  for (const Item& item : before.items) {
    const Item* now = a.job.find(item.piece.id);
    REQUIRE(now != nullptr);
    CHECK(now->cut == item.cut);
    if (const auto* l = std::get_if<Lettering>(&item.piece.what)) {
      CHECK(std::get<Lettering>(now->piece.what).words == l->words);
      CHECK(std::get<Lettering>(now->piece.what).face == l->face);
    }
  }
  CHECK(a.job.blank == before.blank);
}

}  // namespace

TEST_CASE("what a job looks like tells what is the main line, the motif, the border and the outline") {
  Job job = gate();
  PlainShape frame{PlainShape::Kind::Rectangle, 570, 200};
  frame.band = 4;
  job.items.push_back({{"frame", "Frame", frame, {300, 112}, 0}, {}});
  job.items.back().cut.kind = Treatment::Kind::Incise;
  job.items.back().cut.bit = "v60";
  const ArrangeWish wish = usual_wish(job);
  std::map<std::string, Role> roles;
  for (const ArrangeWish::Part& part : wish.parts) roles[part.id] = part.role;
  CHECK(roles["lettering-1"] == Role::Main);
  CHECK(roles["lettering-2"] == Role::Second);
  CHECK(roles["drawing-1"] == Role::Motif);
  CHECK(roles["frame"] == Role::Border);
  CHECK(wish.border);
}

TEST_CASE("a sign is laid out in at least six ways, the same every time, and each can be carved", "[heavy]") {
  const Job job = gate();
  ArrangeWish wish = usual_wish(job);
  const std::vector<Arrangement> all = arrangements(job, load_shipped_rack(), wish, 99);
  std::set<std::string> forms;
  for (const Arrangement& a : all) {
    forms.insert(a.form);
    check(job, wish, a);
  }
  CHECK(forms.size() >= 6);
  const std::vector<Arrangement> again = arrangements(job, load_shipped_rack(), wish, 99);
  REQUIRE(again.size() == all.size());
  for (std::size_t i = 0; i < all.size(); ++i) CHECK(again[i].job == all[i].job);
  std::vector<Arrangement> told;
  propose(job, load_shipped_rack(), wish, 6, {}, [&](Arrangement a) { told.push_back(std::move(a)); });
  CHECK(told.size() == 6);
  for (const Arrangement& a : told) {
    CHECK_FALSE(a.plan->has_stop());
    // Time counts: 5 of 100 within half an hour, less in proportion after it.
    const auto bare = std::find_if(all.begin(), all.end(), [&](const Arrangement& b) { return b.job == a.job; });
    REQUIRE(bare != all.end());
    REQUIRE(a.plan->seconds > 0);
    CHECK(a.merit - bare->merit == Approx(0.05 * std::min(1.0, 1800 / a.plan->seconds)));
  }
}

TEST_CASE("a border and an outline are made where they are wished for, and the words stay inside", "[heavy]") {
  for (const double height : {225.0, 420.0}) {
    Job job = gate();
    job.blank.height = height;
    ArrangeWish wish = usual_wish(job);
    wish.border = true;
    for (const Arrangement& a : arrangements(job, load_shipped_rack(), wish, 8)) {
      CHECK(a.job.items.size() == job.items.size() + 1);
      check(job, wish, a);
    }
    wish.outline = true;
    std::set<std::string> frames;
    for (const Arrangement& a : arrangements(job, load_shipped_rack(), wish, 12)) {
      frames.insert(a.frame);
      CHECK(a.job.items.size() == job.items.size() + 2);
      check(job, wish, a);
    }
    CHECK(frames.size() >= 2);
  }
}

TEST_CASE("an outline is only tried otherwise where nothing else hangs on it") {
  Job job = gate();
  PlainShape plate{PlainShape::Kind::Rectangle, 560, 200};
  job.items.push_back({{"plate", "Plate", plate, {300, 112}, 0}, {}});
  job.items.back().cut.kind = Treatment::Kind::CutOut;
  ArrangeWish wish = usual_wish(job);
  CHECK(may_try_outlines(job, wish));
  wish.outline = true;
  bool other = false;
  for (const Arrangement& a : arrangements(job, load_shipped_rack(), wish, 12)) {
    check(job, wish, a);
    CHECK(a.job.items.size() == job.items.size());  // the plate itself takes the new form
    other = other || std::get<PlainShape>(a.job.find("plate")->piece.what).kind != PlainShape::Kind::Rectangle;
  }
  CHECK(other);
  // A bevelled edge of its own keeps the form.
  Item edge = *job.find("plate");
  edge.piece.id = "edge";
  edge.cut.kind = Treatment::Kind::Bevel;
  edge.cut.bit = "v60";
  job.items.push_back(edge);
  wish = usual_wish(job);
  CHECK_FALSE(may_try_outlines(job, wish));
  wish.outline = true;
  for (const Arrangement& a : arrangements(job, load_shipped_rack(), wish, 3))
    CHECK(a.job.find("plate")->piece == job.find("plate")->piece);
  // What is made from others cannot be a motif: it lies where they put it.
  Derived grown;
  grown.from = {"drawing-1"};
  CHECK_FALSE(may_be({{"g", "G", grown, {}, 0}, {}}, Role::Motif));
  CHECK(may_be(*job.find("drawing-1"), Role::Motif));
}

TEST_CASE("what is made from pieces that stay is kept clear as well") {
  Job job = gate();
  PlainShape spot{PlainShape::Kind::Ellipse, 14, 14};
  job.items.push_back({{"spot", "Spot", spot, {250, 140}, 0}, {}});  // where the main line would lie; not cut itself
  Derived rows;
  rows.how = Derived::How::Grid;
  rows.from = {"spot"};
  rows.columns = 3;
  rows.step_x = 50;
  job.items.push_back({{"spots", "Spots", rows, {}, 0}, {}});
  job.items.back().cut.kind = Treatment::Kind::Recess;
  const ArrangeWish wish = usual_wish(job);
  const std::vector<Arrangement> all = arrangements(job, load_shipped_rack(), wish, 4);
  REQUIRE_FALSE(all.empty());
  for (const Arrangement& a : all) {
    const Region spots = region_now(a.job, "spots");
    for (const char* id : {"lettering-1", "lettering-2", "drawing-1"})
      CHECK(intersect(region_now(a.job, id), spots).empty());
  }
}

TEST_CASE("what cannot be laid out is said") {
  Job job;
  CHECK_THROWS_AS(arrangements(job, load_shipped_rack(), usual_wish(job), 9), Problem);
  job.items.push_back(words(job, "A very long line of words for so small a tag as this", 10, {20, 10}));
  job.blank.width = 60;
  job.blank.height = 30;
  job.blank.margin = 12;
  CHECK_THROWS_WITH(arrangements(job, load_shipped_rack(), usual_wish(job), 9), Catch::Contains("do not fit"));
  job.blank.margin = 20;
  CHECK_THROWS_WITH(arrangements(job, load_shipped_rack(), usual_wish(job), 9), Catch::Contains("no room"));
}

TEST_CASE("over random sets of pieces and boards every arrangement keeps what it promises", "[heavy]") {
  std::mt19937 random(11);
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  const std::vector<std::string> texts{"Sage",    "Rue",   "Mint",    "Gate", "1624",
                                       "At dawn", "Thyme", "Old Bed", "Sloe", "The Garden"};
  const Rack rack = load_shipped_rack();
  int laid = 0, refused = 0, planned = 0;
  for (int round = 0; round < 60; ++round) {
    Job job;
    job.blank.width = some(150, 900);
    job.blank.height = some(100, 600);
    job.blank.margin = some(3, 20);
    const int lines = static_cast<int>(some(1, 3.99));
    for (int i = 0; i < lines; ++i)
      job.items.push_back(words(job, texts[static_cast<std::size_t>(some(0, 9.99))], some(10, 40),
                                {job.blank.width / 2, job.blank.height * (lines - i) / (lines + 1)}));
    if (some(0, 1) < 0.5) job.items.push_back(leaf(job, {some(0, job.blank.width), some(0, job.blank.height)}));
    if (some(0, 1) < 0.2) job.items.push_back(leaf(job, {some(0, job.blank.width), some(0, job.blank.height)}));
    if (some(0, 1) < 0.3) {
      const KeepOut::Kind kinds[] = {KeepOut::Kind::Clamp, KeepOut::Kind::Knot, KeepOut::Kind::Crack};
      job.blank.keep_outs.push_back({kinds[static_cast<std::size_t>(some(0, 2.99))], some(0, job.blank.width),
                                     some(0, job.blank.height), some(10, 50), some(10, 50)});
      if (job.blank.keep_outs.back().round()) job.blank.keep_outs.back().height = job.blank.keep_outs.back().width;
    }
    ArrangeWish wish = usual_wish(job);
    wish.border = some(0, 1) < 0.3;
    wish.outline = some(0, 1) < 0.3;
    INFO(round);
    try {
      const std::vector<Arrangement> all = arrangements(job, rack, wish, 4);
      REQUIRE_FALSE(all.empty());
      for (const Arrangement& a : all) check(job, wish, a);
      ++laid;
      if (round % 30 == 0) {
        propose(job, load_shipped_rack(), wish, 2, {}, [&](const Arrangement& a) {
          CHECK_FALSE(a.plan->has_stop());
          ++planned;
        });
      }
    } catch (const Problem& problem) {
      INFO(problem.what());
      ++refused;
    }
  }
  CHECK(laid > 45);
  CHECK(planned > 2);
}
