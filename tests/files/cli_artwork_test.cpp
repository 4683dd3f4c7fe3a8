// Artwork by the command line: DXF drawings, pictures, single-line words, lines followed; and back out as outlines.
#include <catch2/catch.hpp>

#include "command_line.hpp"
#include "files/imported.hpp"
#include "files/svg/svg_read.hpp"
#include "job/job.hpp"
#include "json_reading.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace command_line;

namespace {

// How it ended; what it said is added to `said`.
int ended(const std::string& words, std::string* said = nullptr) {
  const Ended e = doyen_cli(words);
  if (said != nullptr) *said += e.said;
  return e.code;
}

// A plate with two holes and an open scratch, in inches, as a draughtsman's file states it.
std::string plate_dxf() {
  std::string s = "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n1\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n";
  s += "0\nLWPOLYLINE\n8\nplate\n90\n4\n70\n1\n10\n0\n20\n0\n10\n4\n20\n0\n10\n4\n20\n2\n10\n0\n20\n2\n";
  for (const char* x : {"0.5", "3.5"}) s += std::string("0\nCIRCLE\n8\nplate\n10\n") + x + "\n20\n1\n40\n0.25\n";
  s += "0\nLINE\n8\nscratch\n10\n1\n20\n0.5\n11\n3\n21\n1.5\n0\nENDSEC\n0\nEOF\n";
  return s;
}

}  // namespace

TEST_CASE("a DXF plate in inches is imported at its size, its holes open, its scratch a line") {
  const Folder out;
  write_file_atomically(out / "plate.dxf", plate_dxf());
  std::string said;
  REQUIRE(ended("import " + (out / "plate.dxf") + " --blank 6x4x3/4in --treatment cutout --bits flat-1/4in --out " +
                    (out / "p.doyen"),
                &said) == 0);
  const Job job = load_job(out / "p.doyen");
  const auto& d = std::get<Drawing>(job.items[0].piece.what);
  CHECK(d.page_width == Approx(4 * 25.4).margin(0.01));
  REQUIRE(d.parts.size() == 2);
  CHECK(d.parts[0].group == "plate");
  CHECK(d.parts[1].group == "scratch");
  CHECK(d.parts[1].line);
  Drawing plate = d;
  plate.parts.edit().pop_back();
  CHECK(area(drawing_region(plate)) == Approx((8 - 2 * M_PI * 0.0625) * 25.4 * 25.4).epsilon(2e-3));
  // Outlines lie on the drawing's own page when asked, on the blank's otherwise.
  REQUIRE(ended("outlines " + (out / "p.doyen") + " --as-drawn --svg " + (out / "p.svg")) == 0);
  const Imported back = read_svg(read_file(out / "p.svg"), "p.svg");
  CHECK(back.drawing.page_width == Approx(4 * 25.4).margin(0.01));
  REQUIRE(ended("outlines " + (out / "p.doyen") + " --svg " + (out / "q.svg")) == 0);
  CHECK(read_svg(read_file(out / "q.svg"), "q.svg").drawing.page_width == Approx(6 * 25.4).margin(0.01));
}

TEST_CASE("a photograph is traced, kept in the job, and planned") {
  const Folder out;
  std::string said;
  REQUIRE(ended("import " + data_file("demo/heron-ink.jpg") +
                    " --blank 200x200x18mm --width 120mm --limit 2 --bits v60,flat-1/16in --out " + (out / "h.doyen"),
                &said) == 0);
  const Job job = load_job(out / "h.doyen");
  const auto& d = std::get<Drawing>(job.items[0].piece.what);
  REQUIRE(d.traced);
  CHECK(bounds(outlines_of(job.items[0].piece).region).width() == Approx(120).margin(0.05));
  REQUIRE(ended("plan " + (out / "h.doyen") + " --out " + (out / "o"), &said) == 0);
  CHECK(fs::exists(out / "o/plan.json"));
  CHECK_THAT(said, Catch::Contains("cut as wanted"));
}

TEST_CASE("single-line words are engraved along their lines, at their depth") {
  const Folder out;
  REQUIRE(ended("text 'Rue 12' --font 'Single line roman' --cap 12 --blank 100x50x3mm --treatment line --bits "
                "engrave20 --depth 0.02in --out " +
                (out / "r.doyen")) == 0);
  REQUIRE(ended("plan " + (out / "r.doyen") + " --out " + (out / "o")) == 0);
  const Json plan = parse_json(read_file(out / "o/plan.json"), "plan");
  const Json& op = plan["files"][0]["operations"][0];
  CHECK(op["treatment"] == "line");
  CHECK(op["depth"].get<double>() == Approx(0.508));
  CHECK(op["length"].get<double>() > 60);
}

TEST_CASE("incising single lines is a stop with a remedy") {
  const Folder out;
  REQUIRE(ended("text Rue --font 'Single line script' --cap 12 --blank 100x50x3mm --out " + (out / "r.doyen")) == 0);
  std::string said;
  CHECK(ended("check " + (out / "r.doyen"), &said) == 1);
  CHECK_THAT(said, Catch::Contains("single lines") && Catch::Contains("Follow the lines"));
}

TEST_CASE("what is no artwork is refused with what would be") {
  const Folder out;
  write_file_atomically(out / "a.txt", "just words");
  write_file_atomically(out / "empty.svg", "");
  write_file_atomically(out / "cut.png", "\x89PNG\r\n\x1a\n");
  for (const auto& [file, says] :
       {std::pair{"a.txt", "neither an SVG nor a DXF"}, {"empty.svg", "empty"}, {"cut.png", "PNG"}}) {
    std::string said;
    CHECK(ended("import " + (out / file) + " --blank 100x50x19mm --out " + (out / "x"), &said) == 3);
    CHECK_THAT(said, Catch::Contains(says) && Catch::Contains(file));
  }
  CHECK_FALSE(fs::exists(out / "x"));
}

TEST_CASE("the plaque of the demo plans without a stop: words on arcs, a traced heron, a rim that follows the plaque",
          "[heavy]") {
  const Folder out;
  std::string said;
  REQUIRE(ended("plan " + data_file("demo/heron-plaque.doyen") + " --out " + (out / "o"), &said) == 0);
  CHECK_THAT(said, !Catch::Contains("stop ") && Catch::Contains("cut as wanted"));
  Job job = load_job(data_file("demo/heron-plaque.doyen"));
  const auto rim = [&] { return bounds(outlines_of(job.find("rim")->piece, job.source()).region).width(); };
  const double before = rim();
  std::get<PlainShape>(job.find("plaque")->piece.what).width += 10;
  CHECK(rim() == Approx(before + 10).margin(0.01));
}
