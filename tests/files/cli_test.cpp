// doyen-cli by its contract: what it writes, what it says, how it ends.
#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>

#include "command_line.hpp"
#include "json_reading.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace command_line;

namespace {

std::string demo() { return data_file("demo/gate-sign.doyen"); }

// A .npy file's shape and values, read by the published layout of NumPy's format 1.0.
struct Heights {
  std::size_t rows = 0, columns = 0;
  std::vector<float> z;
};
Heights read_npy(const std::string& path) {
  const std::string bytes = read_file(path);
  REQUIRE(bytes.substr(0, 6) == "\x93NUMPY");
  std::uint16_t header = 0;
  std::memcpy(&header, bytes.data() + 8, 2);
  const std::string text = bytes.substr(10, header);
  CHECK_THAT(text, Catch::Contains("<f4") && Catch::Contains("False"));
  Heights out;
  REQUIRE(std::sscanf(text.c_str() + text.find("'shape': (") + 10, "%zu, %zu", &out.rows, &out.columns) == 2);
  out.z.resize(out.rows * out.columns);
  REQUIRE(bytes.size() == 10 + header + out.z.size() * 4);
  std::memcpy(out.z.data(), bytes.data() + 10 + header, out.z.size() * 4);
  return out;
}

}  // namespace

TEST_CASE("plan writes the files in run order, the plan, the proof and the run sheet") {
  const Folder out;
  const Ended e = doyen_cli("plan " + demo() + " --out " + (out / "gate"));
  INFO(e.said);
  REQUIRE(e.code == 0);
  const Json plan = parse_json(read_file(out / "gate/plan.json"), "plan.json");
  CHECK(plan["format"] == "doyen-plan/1");
  for (const char* key : {"blank", "zero", "files", "machine", "bitChanges", "seconds", "verdicts"})
    CHECK(plan.contains(key));
  std::string files;
  double seconds = plan["machine"]["bitChangeSeconds"].get<double>() * plan["bitChanges"].get<double>();
  for (const Json& f : plan["files"]) {
    CHECK(fs::file_size(out / ("gate/" + f["path"].get<std::string>())) > 200);
    for (const char* key : {"name", "kind", "diameter", "angle", "tip", "flutes", "direction"})
      CHECK(f["bit"].contains(key));
    for (const Json& op : f["operations"])
      for (const char* key : {"piece", "treatment", "ground", "depth", "seconds", "lifts", "length"})
        CHECK(op.contains(key));
    seconds += f["seconds"].get<double>();
    files += " " + (out / ("gate/" + f["path"].get<std::string>()));
  }
  CHECK(plan["seconds"].get<double>() == Approx(seconds).epsilon(1e-6));
  CHECK(read_file(out / "gate/proof.png").substr(1, 3) == "PNG");
  CHECK(read_file(out / "gate/runsheet.pdf").substr(0, 5) == "%PDF-");
  // The sheet, read by poppler, says what must be known at the machine.
  const std::string sheet = run("pdftotext -layout " + (out / "gate/runsheet.pdf") + " -").said;
  for (const char* words : {"Marrowby", "zero", "left front corner", "01-", "1/4 in", "Unplug", "eyes"}) {
    INFO(words);
    CHECK_THAT(sheet, Catch::Contains(words, Catch::CaseSensitive::No));
  }

  // Read back and carved by itself, the files are the relief.
  REQUIRE(doyen_cli("readback" + files + " --plan " + (out / "gate/plan.json") + " --height " + (out / "back.npy") +
                    " --cell 0.5")
              .code == 0);
  REQUIRE(doyen_cli("relief " + demo() + " --height " + (out / "meant.npy") + " --cell 0.5mm --png " + (out / "r.png"))
              .code == 0);
  const Heights back = read_npy(out / "back.npy"), meant = read_npy(out / "meant.npy");
  REQUIRE(back.z.size() == meant.z.size());
  CHECK(back.columns == Approx(609.6 / 0.5).margin(1.5));
  std::size_t off = 0;
  for (std::size_t i = 0; i < back.z.size(); ++i) off += std::abs(back.z[i] - meant.z[i]) > 0.02F;
  CHECK(static_cast<double>(off) < 5e-4 * static_cast<double>(back.z.size()));
}

TEST_CASE("text makes a job whose letters are as deep as their strokes ask, and inches are written when asked") {
  const Folder out;
  Ended e = doyen_cli(
      "text 'Sage\\nRue' --font 'Cabin:Bold' --cap 1in --blank 8x6x3/4in --treatment incise --bits v60 --limit 3/16in "
      "--out " +
      (out / "a.doyen"));
  INFO(e.said);
  REQUIRE(e.code == 0);
  REQUIRE(doyen_cli("plan " + (out / "a.doyen") + " --unit in --one-file --out " + (out / "o")).code == 0);
  const std::string code = read_file(out / "o/01-sage-rue-v60-carve.nc");
  CHECK_THAT(code, Catch::Contains("G20"));
  const Json plan = parse_json(read_file(out / "o/plan.json"), "p");
  CHECK(plan["blank"]["width"].get<double>() == Approx(203.2));
  CHECK(plan["files"][0]["operations"][0]["depth"].get<double>() <= 3.0 / 16 * 25.4 + 1e-6);
  REQUIRE(doyen_cli("outlines " + (out / "a.doyen") + " --svg " + (out / "a.svg")).code == 0);
  CHECK_THAT(read_file(out / "a.svg"), Catch::Contains("203.2mm"));
}

TEST_CASE("import centres and scales a drawing; as drawn, outlines lie on the file's own page") {
  const Folder out;
  const std::string sprig = data_file("demo/sprig.svg");
  REQUIRE(
      doyen_cli("import " + sprig + " --blank 200x150x19mm --width 60mm --treatment incise --out " + (out / "s.doyen"))
          .code == 0);
  REQUIRE(doyen_cli("outlines " + (out / "s.doyen") + " --as-drawn --svg " + (out / "s.svg")).code == 0);
  REQUIRE(doyen_cli("relief " + (out / "s.doyen") + " --height " + (out / "s.npy") + " --cell 0.5").code == 0);
  const Heights h = read_npy(out / "s.npy");
  std::size_t left = h.columns, right = 0;
  for (std::size_t i = 0; i < h.z.size(); ++i) {
    if (h.z[i] >= 0) continue;
    left = std::min(left, i % h.columns);
    right = std::max(right, i % h.columns);
  }
  CHECK(static_cast<double>(right - left + 1) * 0.5 == Approx(60).margin(1.1));
  CHECK(static_cast<double>(right + left + 1) * 0.25 == Approx(100).margin(1));
}

TEST_CASE("check ends with 1 and says what, where and the remedy when a stop stands; plan writes nothing then",
          "[heavy]") {
  const Folder out;
  Json job = Json::parse(read_file(demo()));
  job["pieces"][3]["x"] = 20;
  write_file_atomically(out / "off.doyen", job.dump());
  const Ended said = doyen_cli("check " + (out / "off.doyen"));
  CHECK(said.code == 1);
  CHECK_THAT(said.said, Catch::Contains("stop") && Catch::Contains("Marrowby") && Catch::Contains("remedy"));
  const Ended json = doyen_cli("check --json " + (out / "off.doyen"));
  const Json document = parse_json(json.said, "check");
  const Json& verdicts = document["verdicts"];
  REQUIRE(verdicts.is_array());
  for (const char* key : {"gouge", "left", "bite", "rub", "air"}) CHECK(document["judge"].contains(key));
  for (const char* key : {"grade", "code", "piece", "at", "text", "remedy"}) CHECK(verdicts[0].contains(key));
  CHECK(doyen_cli("plan " + (out / "off.doyen") + " --out " + (out / "o")).code == 1);
  CHECK_FALSE(fs::exists(out / "o"));
  CHECK(doyen_cli("plan " + (out / "off.doyen") + " --anyway --out " + (out / "o")).code == 1);
  CHECK(fs::exists(out / "o/plan.json"));
}

TEST_CASE("every way to go wrong has its exit code and a sentence") {
  const Folder out;
  const auto ends = [](const std::string& words, int code, const std::string& says) {
    const Ended e = doyen_cli(words);
    INFO(words << ": " << e.said);
    CHECK(e.code == code);
    CHECK_THAT(e.said, Catch::Contains(says, Catch::CaseSensitive::No));
    CHECK_THAT(e.said, !Catch::Contains("terminate") && !Catch::Contains("std::"));
  };
  ends("", 2, "subcommand");
  ends("carve x", 2, "");
  ends("plan " + demo(), 2, "--out");
  ends("relief " + demo(), 2, "--png");
  ends("plan " + (out / "none.doyen") + " --out " + (out / "o"), 3, "none.doyen");
  write_file_atomically(out / "bad.doyen", "{\"format\":");
  ends("check " + (out / "bad.doyen"), 3, "bad.doyen");
  ends("text Hi --font 'No Face' --cap 20 --blank 100x50x19mm --out " + (out / "x"), 3, "No Face");
  ends("text Hi --font Cabin --cap tall --blank 100x50x19mm --out " + (out / "x"), 3, "not a length");
  ends("text Hi --font Cabin --cap 20 --blank 100x50 --out " + (out / "x"), 3, "thickness");
  ends("text Hi --font Cabin --cap 20 --blank 100x50x19mm --bits v61 --out " + (out / "x"), 3, "v61");
  ends("text Hi --font Cabin --cap 20 --blank 100x50x19mm --treatment glue --out " + (out / "x"), 2, "glue");
  ends("import " + demo() + " --blank 100x50x19mm --out " + (out / "x"), 3, "gate-sign");
  ends("relief " + demo() + " --height " + (out / "h.npy") + " --cell 0.0001", 3, "cell");
  ends("plan " + demo() + " --out /proc/no", 4, "/proc/no");
  ends("relief " + demo() + " --png /proc/no.png", 4, "/proc/no.png");
  write_file_atomically(out / "file", "x");
  ends("plan " + demo() + " --out " + (out / "file"), 4, "file");
  CHECK(read_file(out / "file") == "x");
  ends("readback " + (out / "file") + " --plan " + (out / "file") + " --height " + (out / "h"), 3, "file");
  CHECK_FALSE(fs::exists(out / "x"));
}

TEST_CASE("whatever stood in the folder is untouched when the disk is full") {
  const Folder out;
  REQUIRE(doyen_cli("plan " + demo() + " --out " + (out / "o")).code == 0);
  const std::string before = read_file(out / "o/plan.json"), sheet = read_file(out / "o/runsheet.pdf");
  const Ended e =
      run("bash -c 'trap \"\" XFSZ; ulimit -f 2; exec " + cli() + " plan " + demo() + " --out " + (out / "o") + "'");
  INFO(e.said);
  CHECK(e.code == 4);
  CHECK(read_file(out / "o/plan.json") == before);
  CHECK(read_file(out / "o/runsheet.pdf") == sheet);
  for (const auto& entry : fs::directory_iterator(out / "o")) CHECK(fs::file_size(entry) > 0);
}

TEST_CASE("installed anywhere it finds its tables beside itself, and says which Doyen it is") {
  const Folder out;
  fs::create_directories(out.path / "bin");
  fs::create_directories(out.path / "share");
  const std::string program = out / "bin/doyen-cli";
  fs::copy_file(cli(), program);
  const Ended said = run(program + " --version");
  CHECK(said.code == 0);
  CHECK_THAT(said.said, Catch::Contains("Doyen 0."));
  fs::copy(fs::path(data_file("rack.json")).parent_path(), out.path / "share/doyen", fs::copy_options::recursive);
  CHECK(run(program + " check " + demo()).code == 0);
  // Those are the tables that it reads, not the ones of the tree that it was built from.
  write_file_atomically(out / "share/doyen/machines.json", "{ broken");
  const Ended broken = run(program + " check " + demo());
  CHECK(broken.code == 3);
  CHECK_THAT(broken.said, Catch::Contains(out / "share/doyen/machines.json"));
}

TEST_CASE("the job format's page lists every key that is read and written, and what it takes") {
  const Ended keys = doyen_cli("keys");
  REQUIRE(keys.code == 0);
  const std::string page =
      read_file(fs::path(data_file("rack.json")).parent_path().parent_path() / "docs/job-format.md");
  const std::size_t section = page.find("## Every key");
  REQUIRE(section != std::string::npos);
  CHECK(page.find(keys.said, section) != std::string::npos);
  // What a demo says is among them.
  for (const char* key : {"`format`", "`blank.readings`", "`pieces[].cut.look`", "`run.machine`"})
    CHECK_THAT(keys.said, Catch::Contains(key));
}

TEST_CASE("a drawing of a million points is planned or refused with a sentence", "[heavy]") {
  const Folder out;
  std::string d = "M";
  for (int i = 0; i < 1'000'000; ++i) {
    const double a = 2 * M_PI * i / 1e6, r = 60 + 20 * std::sin(40 * a) + 0.01 * std::sin(90'000 * a);
    char point[64];
    std::snprintf(point, sizeof point, "%.4f %.4f%c", 100 + r * std::cos(a), 100 + r * std::sin(a), i == 0 ? 'L' : ' ');
    d += point;
  }
  write_file_atomically(
      out / "dense.svg",
      "<svg xmlns='http://www.w3.org/2000/svg' width='200mm' height='200mm' viewBox='0 0 200 200'><path d='" + d +
          "Z'/></svg>");
  const Ended e =
      doyen_cli("import " + (out / "dense.svg") + " --blank 220x220x40mm --limit 3 --out " + (out / "dense.doyen"));
  INFO(e.said);
  REQUIRE(e.code == 0);
  const Ended checked = run("timeout 60 " + cli() + " check " + (out / "dense.doyen"));
  INFO(checked.said);
  CHECK((checked.code == 0 || checked.code == 1 || checked.code == 3));
}
