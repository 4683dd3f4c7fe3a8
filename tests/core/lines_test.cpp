// Outlines without a filling: what they enclose, and a sentence where a look needs an area and there are lines only.
#include <catch2/catch.hpp>
#include <numbers>

#include "json_reading.hpp"
#include "oracle.hpp"
#include "planning/judged.hpp"
#include "rack/own_rack.hpp"

using namespace doyen;

namespace {

// A frame with a round hole in it, drawn as two outlines; a third line that closes nothing.
Drawing frame(bool with_open) {
  Drawing d = oracle::drawing("M0 0 L60 0 L60 40 L0 40 Z");
  d.parts.edit().push_back(d.parts[0]);
  d.parts.edit()[1].data = "M40 20 A10 10 0 0 1 20 20 A10 10 0 0 1 40 20 L40 20";  // comes back without saying so
  if (with_open) {
    d.parts.edit().push_back(d.parts[0]);
    d.parts.edit()[2].data = "M5 5 L20 5 L20 9";
  }
  for (Drawing::Part& p : d.parts.edit()) {
    p.line = true;
    p.stroke = 0.2;
  }
  return d;
}

Job job_of(const Drawing& d, Treatment::Kind kind) {
  Job job;
  job.blank.width = 120;
  job.blank.height = 100;
  Item item{{"frame", "Frame", d, {60, 50}, 0}, {}};
  item.cut.kind = kind;
  item.cut.depth = 2;
  if (goes_through(kind)) item.cut.bit = "flat-1/8in";
  job.items = {item};
  return job;
}

std::vector<Verdict> verdicts_of(const Job& job, const std::string& code) {
  std::vector<Verdict> found;
  for (const Verdict& v : plan(job, load_shipped_rack(), machine_for(job)).verdicts) {
    if (v.code == code) found.push_back(v);
  }
  return found;
}

}  // namespace

TEST_CASE("closed lines enclose areas, one within another a hole") {
  Drawing d = frame(false);
  CHECK(area(drawing_region(d)) == Approx(0.2 * (2 * 100 + 2 * std::numbers::pi * 10)).epsilon(0.01));  // their width
  d.lines = Drawing::Lines::Enclose;
  CHECK(area(drawing_region(d)) == Approx(60 * 40 - std::numbers::pi * 100).epsilon(1e-3));
  const Outlines with_open = [] {
    Drawing open = frame(true);
    open.lines = Drawing::Lines::Enclose;
    return outlines_of({"f", "F", open, {0, 0}, 0});
  }();
  CHECK(area(with_open.region) == Approx(60 * 40 - std::numbers::pi * 100).epsilon(1e-3));
  CHECK(with_open.open.size() == 1);
  Job job = job_of(d, Treatment::Kind::Recess);
  CHECK(read_job(write_job(job), "job") == job);
  // Jobs of before said it with a flag.
  Json j = parse_json(write_job(job), "job");
  Json& drawing = j["pieces"][0]["drawing"];
  drawing.erase("lines");
  drawing["followLines"] = true;
  CHECK(std::get<Drawing>(read_job(j.dump(), "job").items[0].piece.what).lines == Drawing::Lines::Followed);
  CHECK(not_known(read_job(j.dump(), "job")).empty());
}

TEST_CASE("lines to be followed under a look that needs an area are told, and every remedy mends it") {
  using Kind = Treatment::Kind;
  for (const Kind kind :
       {Kind::Incise, Kind::Raise, Kind::Recess, Kind::Pierce, Kind::CutOut, Kind::Bevel, Kind::Plane, Kind::Inlay}) {
    INFO(to_word(kind));
    Drawing d = frame(false);
    d.lines = Drawing::Lines::Followed;
    const Job job = job_of(d, kind);
    const std::vector<Verdict> only = verdicts_of(job, "only-lines");
    REQUIRE(only.size() == 1);
    CHECK(only[0].grade == Grade::Stop);
    REQUIRE(only[0].remedies.size() == 3);
    for (const Remedy& remedy : only[0].remedies) {
      INFO(remedy.label);
      Job mended = job;
      remedy.apply(mended);
      CHECK_FALSE(mended == job);
      CHECK(verdicts_of(mended, "only-lines").empty());
    }
    // Beside an area the lines alone are not cut.
    d.parts.edit()[0].line = false;
    const std::vector<Verdict> beside = verdicts_of(job_of(d, kind), "lines-not-cut");
    REQUIRE(beside.size() == 1);
    CHECK(beside[0].text.find("1 line of") == 0);
    for (const Remedy& remedy : beside[0].remedies) {
      Job mended = job_of(d, kind);
      remedy.apply(mended);
      CHECK(verdicts_of(mended, "lines-not-cut").empty());
    }
  }
  Drawing followed = frame(true);
  followed.lines = Drawing::Lines::Followed;
  CHECK(verdicts_of(job_of(followed, Kind::Line), "only-lines").empty());
  Drawing open = frame(true);
  open.lines = Drawing::Lines::Enclose;
  const std::vector<Verdict> said = verdicts_of(job_of(open, Kind::Recess), "open-lines");
  REQUIRE(said.size() == 1);
  CHECK(said[0].grade == Grade::Mind);
  REQUIRE(said[0].remedies.size() == 1);
  Job wide = job_of(open, Kind::Recess);
  said[0].remedies[0].apply(wide);
  CHECK(verdicts_of(wide, "open-lines").empty());
  {
    auto& p = open.parts.edit();
    p.erase(p.begin(), p.begin() + 2);
  };
  const std::vector<Verdict> none = verdicts_of(job_of(open, Kind::Recess), "open-lines");
  REQUIRE(none.size() == 1);
  CHECK(none[0].grade == Grade::Stop);
}
