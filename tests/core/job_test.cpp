// The job file: round trips, keys of a newer Doyen, and whatever a damaged or hostile file may hold.
#include "job/job.hpp"

#include <sys/resource.h>

#include <catch2/catch.hpp>
#include <csignal>
#include <cstdlib>
#include <filesystem>
#include <random>

#include "json_reading.hpp"
#include "oracle.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;

namespace {

std::string demo_text() { return read_file(data_file("demo/gate-sign.doyen")); }

// A job with every kind of piece and every setting away from its default.
Job full_job() {
  Job job;
  job.name = "Every “kind” of piece";
  job.lengths = {Unit::Inch, true, 32};
  job.blank = {500, 300, {18.1, 18.4}, "sugar-maple", Grain::AlongHeight, 9, 0.25, 0.3};
  job.blank.keep_outs = {{KeepOut::Kind::Screw, 10, 20, 12, 12}, {KeepOut::Kind::GlueLine, 250, 150, 500, 2}};
  Lettering l;
  l.words = "Sage\n& Rue";
  l.face = {"Cabin", "Bold"};
  l.fit_width = true;
  l.width = 210;
  l.align = Align::Right;
  l.letter_spacing = 7;
  l.line_spacing = 120;
  Item words{{"words", "Words", l, {10, 20}, 15}, {}};
  words.cut.kind = Treatment::Kind::Incise;
  words.cut.bit = "v90";
  words.cut.incise.floor_limit = 2.5;
  words.cut.clearing = {"flat-3mm", "flat-6mm"};
  Item frame{{"frame", "Frame", PlainShape{PlainShape::Kind::Ellipse, 120, 80, 0, 4}, {250, 150}, 0}, {}};
  Drawing art = oracle::drawing("M0 0 L10 0 L10 10 Z", true);
  art.parts.edit()[0].group = "leaves";
  art.parts.edit().push_back(art.parts[0]);
  art.parts.edit()[1].line = true;
  art.parts.edit()[1].even_odd = false;
  art.parts.edit()[1].stroke = 0.7;
  art.parts.edit()[1].end = StrokeEnd::Round;
  art.parts.edit()[1].left_out = true;
  art.scale = 2;
  art.mirrored = true;
  art.lines = Drawing::Lines::Followed;
  art.traced = TracedFrom{to_base64("not really a picture"), {}};
  art.traced->settings.picked = {0, 2};
  art.traced->settings.colours = 4;
  Item drawing{{"art", "Art", art, {1, 2}, 3}, {}};
  drawing.cut.kind = Treatment::Kind::CutOut;
  drawing.cut.bit = "flat-1/4in";
  drawing.cut.through.over_cut = 0.5;
  drawing.cut.through.tabs = {true, 6, 8, 4, {{0, 0.25}, {0, 0.75}}};
  Lettering arched = l;
  arched.fit_width = false;
  arched.width = Lettering{}.width;  // says nothing when it does not rule
  arched.arc_radius = 120;
  arched.arc_below = true;
  arched.pairs = {{"ag", -3.5}, {"& ", 2}};
  Lettering within = l;
  within.inside = "frame";
  within.inside_margin = 12;
  within.inside_margin_share = true;
  within.stroke = 0.8;
  Lettering along = l;
  along.along = "frame";
  along.along_start = 0.25;
  PlainShape star{PlainShape::Kind::Star, 80, 80, 0, 2};
  star.points = 7;
  star.inner = 0.4;
  PlainShape arch{PlainShape::Kind::ArchTop, 80, 80};
  arch.rise = 15;
  arch.corner_form = PlainShape::CornerForm::Scooped;
  Derived grown;
  grown.from = {"frame"};
  grown.distance = -2.5;
  grown.corner = Corner::Flat;
  grown.steps = 3;
  Derived copies;
  copies.how = Derived::How::Along;
  copies.from = {"art", "frame"};
  copies.count = 0;
  copies.turned = false;
  Item line{{"line", "Line", grown, {0, 0}, 5}, {}};
  line.cut.kind = Treatment::Kind::Line;
  line.cut.bit = "v60";
  line.cut.depth = 0.4;
  job.items = {words,
               frame,
               drawing,
               line,
               {{"arched", "Arched", arched, {1, 1}, 0}, {}},
               {{"within", "Within", within, {0, 0}, 0}, {}},
               {{"along", "Along", along, {0, 0}, 0}, {}},
               {{"star", "Star", star, {9, 9}, 0}, {}},
               {{"arch", "Arch", arch, {9, 9}, 0}, {}},
               {{"copies", "Copies", copies, {0, 0}, 0}, {}}};
  job.run = {"inch-plain", true, ZeroSurface::Bed, ZeroPlace::Centre, 4, "Tape.", TurnOver::LeftEdge, true, {}, {}};
  return job;
}

std::string refusal(const std::string& text) {
  try {
    read_job(text, "bad.doyen");
  } catch (const Problem& problem) {
    CHECK(problem.kind() == Problem::Kind::BadInput);
    return problem.what();
  }
  return "";
}

std::string with(const std::string& key, const Json& value) {
  Json j = Json::parse(demo_text());
  j[Json::json_pointer(key)] = value;
  return j.dump();
}

}  // namespace

TEST_CASE("a job written and read again is the same job") {
  const Job job = full_job();
  const std::string text = write_job(job);
  CHECK(read_job(text, "x") == job);
  CHECK(write_job(read_job(text, "x")) == text);
}

TEST_CASE("keys that this Doyen does not know are kept on saving") {
  Json j = Json::parse(demo_text());
  j["weather"] = "rain";
  j["blank"]["colour"] = Json::array({1, 2});
  j["pieces"][2]["drawing"]["mood"] = "bold";
  const Job job = read_job(j.dump(), "x");
  const Json again = Json::parse(write_job(job));
  CHECK(again["weather"] == "rain");
  CHECK(again["blank"]["colour"] == Json::array({1, 2}));
  CHECK(again["pieces"][2]["drawing"]["mood"] == "bold");
}

TEST_CASE("a newer format is refused politely, another file plainly") {
  CHECK_THAT(refusal(with("/format", "doyen-job/2")), Catch::Contains("newer Doyen"));
  CHECK_THAT(refusal(with("/format", "recipe")), Catch::Contains("not a Doyen job"));
}

TEST_CASE("mistakes in a job file are named with their place and what was expected") {
  CHECK_THAT(refusal(with("/blank/width", "wide")), Catch::Contains("blank.width") && Catch::Contains("number"));
  CHECK_THAT(refusal(with("/blank/width", -5)), Catch::Contains("blank.width") && Catch::Contains("from 1"));
  CHECK_THAT(refusal(with("/blank/readings", Json::array())), Catch::Contains("thickness"));
  CHECK_THAT(refusal(with("/blank/readings/1", "thick")), Catch::Contains("thickness"));
  CHECK_THAT(refusal(with("/blank/grain", "sideways")), Catch::Contains("width, height"));
  CHECK_THAT(refusal(with("/pieces/0/cut/look", "glued")), Catch::Contains("pieces[0]") && Catch::Contains("incise"));
  CHECK_THAT(refusal(with("/pieces/1/id", "outline")), Catch::Contains("id of its own"));
  CHECK_THAT(refusal(with("/pieces/0/shape", nullptr)), Catch::Contains("pieces[0]"));
  CHECK_THAT(refusal(with("/pieces/2/drawing/parts/0/d", "M0 0 L 1")), Catch::Contains("parts[0].d"));
  CHECK_THAT(refusal(with("/pieces/2/drawing/parts/0/d", "M0 0 L1e9 0 Z")), Catch::Contains("100 m"));
  CHECK_THAT(refusal("{\"format\": \"doyen-job/1\""), Catch::Contains("line"));
  CHECK_THAT(refusal(std::string(100, '[') + std::string(100, ']')), Catch::Contains("64"));
  CHECK_THAT(refusal("[1]"), Catch::Contains("object"));
  CHECK_THAT(refusal(""), Catch::Contains("bad.doyen"));
}

TEST_CASE("numbers that are none do not get in") {
  std::string text = demo_text();
  const auto at = text.find("609.5");
  REQUIRE(at != std::string::npos);
  for (const char* bad : {"NaN", "1e999", "-1e400", "Infinity"}) {
    std::string broken = text;
    broken.replace(at, broken.find(',', at) - at, bad);
    CHECK_FALSE(refusal(broken).empty());
  }
}

TEST_CASE("every truncation and hundreds of random changes are refused or read, never worse") {
  const std::string text = demo_text();
  for (std::size_t n = 0; n < text.size(); n += 7) CHECK_FALSE(refusal(text.substr(0, n)).empty());
  std::mt19937 random(17);
  std::uniform_int_distribution<std::size_t> place(0, text.size() - 1);
  std::uniform_int_distribution<int> byte(0, 255);
  for (int round = 0; round < 600; ++round) {
    std::string broken = text;
    for (int k = 0; k < 3; ++k) broken[place(random)] = static_cast<char>(byte(random));
    try {
      write_job(read_job(broken, "x"));
    } catch (const Problem& problem) {
      CHECK(std::string(problem.what()).size() > 10);
    }
  }
}

TEST_CASE("saving is whole or not at all") {
  const auto folder = std::filesystem::temp_directory_path() / ("doyen-job-" + std::to_string(getpid()));
  std::filesystem::create_directories(folder);
  const std::string path = (folder / "sign.doyen").string();
  Job job = full_job();
  save_job(job, path);
  const std::string before = read_file(path);

  // A disk that is full: this process may write no file longer than 200 bytes.
  std::signal(SIGXFSZ, SIG_IGN);
  rlimit old{};
  getrlimit(RLIMIT_FSIZE, &old);
  const rlimit small{200, old.rlim_max};
  setrlimit(RLIMIT_FSIZE, &small);
  job.name = "Another";
  CHECK_THROWS_AS(save_job(job, path), Problem);
  setrlimit(RLIMIT_FSIZE, &old);
  CHECK(read_file(path) == before);
  CHECK(std::distance(std::filesystem::directory_iterator(folder), {}) == 1);  // no temporary file stays behind

  // A folder that takes no files, root or not; and a folder where the file should be.
  CHECK_THROWS_AS(save_job(job, "/proc/nowhere/sign.doyen"), Problem);
  std::filesystem::create_directories(folder / "taken.doyen" / "inner");
  CHECK_THROWS_AS(save_job(job, (folder / "taken.doyen").string()), Problem);
  CHECK(std::filesystem::exists(folder / "taken.doyen" / "inner"));
  std::filesystem::remove_all(folder);
}

TEST_CASE("lettering keeps its outlines for a machine without the face") {
  Job job = full_job();
  keep_outlines(job.items[0].piece);
  const double there = area(outlines_of(job.items[0].piece).region);
  auto& l = std::get<Lettering>(job.items[0].piece.what);
  REQUIRE_FALSE(l.kept.data.empty());
  l.face.family = "No Such Face";
  l.kept.key = lettering_key(l);
  const Outlines kept = outlines_of(job.items[0].piece);
  CHECK(area(kept.region) == Approx(there).epsilon(1e-3));
  CHECK_THAT(kept.notice, Catch::Contains("not installed"));
  l.words = "Edited";
  CHECK_THROWS_AS(outlines_of(job.items[0].piece), Problem);
}

TEST_CASE("reading a file that is missing, a folder or too large says so") {
  CHECK_THROWS_WITH(read_file("/no/such/file"), Catch::Contains("/no/such/file"));
  CHECK_THROWS_AS(read_file("/tmp"), Problem);
  CHECK_THROWS_WITH(read_file(data_file("rack.json"), 100), Catch::Contains("rack.json"));
}

TEST_CASE("words of older files are read, and written as they are called now") {
  const std::string old =
      R"({"format": "doyen-job/1", "name": "Old", "blank": {"width": 100, "height": 50, "readings": [18]},
    "pieces": [{"id": "a", "name": "A", "x": 50, "y": 25, "turn": 0,
      "shape": {"form": "rectangle", "width": 20, "height": 10, "cornerRadius": 0, "band": 0},
      "cut": {"look": "drill", "bit": "flat-1/8in", "depth": 4, "peck": 1.5,
              "moves": {"climb": false, "stepover": 0.25}}}]})";
  Job job;
  try {
    job = read_job(old, "old");
  } catch (const Problem& problem) {
    FAIL(problem.what());
  }
  CHECK(job.items[0].cut.drill.peck == 1.5);
  CHECK_FALSE(job.items[0].cut.moves.climb);
  CHECK(job.items[0].cut.moves.stepover == 0.25);
  CHECK(not_known(job).empty());
  const std::string now = write_job(job);
  for (const char* word : {"peck", "climb", "stepover"})
    CHECK(now.find(std::string("\"") + word + "\"") == std::string::npos);
  for (const char* word : {"drillStep", "keptWoodRight", "rowStep"})
    CHECK(now.find(std::string("\"") + word + "\"") != std::string::npos);
  CHECK(read_job(now, "now") == job);
}
