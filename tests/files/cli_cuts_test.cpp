// Ways of cutting by the command line: everything of a treatment by name, the back, inlays with their plugs and their
// fit.

#include <catch2/catch.hpp>

#include "command_line.hpp"
#include "job/job.hpp"
#include "json_reading.hpp"
#include "rack/own_rack.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "treatments/all.hpp"
#include "treatments/start.hpp"

using namespace doyen;
using namespace command_line;

namespace {

const std::string kSprig = "import " + data_file("demo/sprig.svg") + " --blank 200x220x20mm --width 60mm ";

}  // namespace

TEST_CASE("anything of a treatment can be said by its name, and what is none is refused with a sentence") {
  const Folder out;
  Ended e = doyen_cli(kSprig +
                      "--treatment raise --depth 4 --cut steps=3 --cut terrace=5 --cut moves.way=alongGrain --cut "
                      "moves.leaveOn=0.2 --out " +
                      (out / "r.doyen"));
  INFO(e.said);
  REQUIRE(e.code == 0);
  const Treatment t = load_job(out / "r.doyen").items.at(0).cut;
  CHECK(t.raise.steps == 3);
  CHECK(t.raise.terrace == Approx(5));
  CHECK(t.moves.way == Moves::Way::AlongGrain);
  CHECK(t.moves.leave_on == Approx(0.2));
  for (const char* wrong : {"steps", "=3", "steps=many", "bit.x=1", "moves.way=sideways", "steps=1000"}) {
    e = doyen_cli(kSprig + "--treatment raise --cut " + wrong + " --out " + (out / "w.doyen"));
    INFO(wrong << ": " << e.said);
    CHECK(e.code > 1);
    CHECK(e.said.size() > 20);
    CHECK_THAT(e.said, !Catch::Contains("unexpected"));
    CHECK_FALSE(fs::exists(out / "w.doyen"));
  }
}

TEST_CASE("each look begins as it begins in the window, and what it makes no use of is said") {
  const Folder out;
  const Rack rack = load_shipped_rack();
  for (const ListedLook& listed : kLooks) {
    if (!listed.look.chosen || listed.kind == Treatment::Kind::None) continue;
    const char* word = listed.look.word;
    const Ended e = doyen_cli(kSprig + "--treatment " + word + " --out " + (out / "l.doyen"));
    INFO(word << ": " << e.said);
    REQUIRE(e.code == 0);
    const Job job = load_job(out / "l.doyen");
    const Item& item = job.items.at(0);
    REQUIRE(to_word(item.cut.kind) == std::string(word));
    const Treatment start = start_look(item.cut.kind, {}, {job.blank, job.lengths, rack, [&](const Bit& v) {
                                                             return widest_stroke_of(outlines_of(item.piece).region, v);
                                                           }});
    CHECK(item.cut == start);
  }
  Ended e = doyen_cli(kSprig + "--treatment incise --cut steps=3 --out " + (out / "u.doyen"));
  CHECK(e.code == 0);
  CHECK_THAT(e.said, Catch::Contains("makes no use of “steps”"));
  CHECK(load_job(out / "u.doyen").items.at(0).cut.raise.steps == 3);
  e = doyen_cli("check " + (out / "u.doyen"));
  CHECK_THAT(e.said, Catch::Contains("makes no use of “steps”"));
  for (const char* wrong : {"tabz=3", "moves.speed=2"}) {
    e = doyen_cli(kSprig + "--treatment cutout --cut " + wrong + " --out " + (out / "w.doyen"));
    INFO(wrong << ": " << e.said);
    CHECK(e.code == 2);
    CHECK_THAT(e.said, Catch::Contains("is not the name of anything in a treatment"));
  }
  // A slip of the hand in a job's file is listed.
  Json j = parse_json(read_file(out / "l.doyen"), "l");
  j["pieces"][0]["cut"]["dept"] = 3;
  write_file_atomically(out / "slip.doyen", j.dump());
  e = doyen_cli("check " + (out / "slip.doyen"));
  CHECK_THAT(e.said, Catch::Contains("pieces.drawing-1.cut.dept"));
}

TEST_CASE("outlines without a filling are imported as what they enclose, where that is asked for") {
  const Folder out;
  write_file_atomically(out / "ring.svg",
                        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'>"
                        "<g fill='none' stroke='#000' stroke-width='.2'><rect x='10' y='10' width='80' height='80'/>"
                        "<circle cx='50' cy='50' r='20'/></g></svg>");
  const std::string import = "import " + (out / "ring.svg") + " --blank 200x200x19mm --treatment recess --depth 3mm ";
  REQUIRE(doyen_cli(import + "--lines enclose --out " + (out / "a.doyen")).code == 0);
  const Job job = load_job(out / "a.doyen");
  CHECK(area(outlines_of(job.items[0].piece).region) == Approx(6400 - M_PI * 400).epsilon(1e-3));
  CHECK(doyen_cli("check " + (out / "a.doyen")).code == 0);
  REQUIRE(doyen_cli(import + "--lines followed --out " + (out / "b.doyen")).code == 0);
  const Ended e = doyen_cli("check " + (out / "b.doyen"));
  CHECK(e.code == 1);
  CHECK_THAT(e.said, Catch::Contains("are no area to cut"));
  CHECK(doyen_cli(import + "--lines dotted --out " + (out / "c.doyen")).code == 2);
}

TEST_CASE("the back has files, a relief and a picture of its own") {
  const Folder out;
  REQUIRE(doyen_cli("plan " + data_file("demo/fingerpost.doyen") + " --out " + (out / "o")).code == 0);
  for (const char* name : {"01-marrowby-upper-back-1-2in-up-pierce.nc", "02-marrowby-upper-back-keyhole-3-8in-slot.nc",
                           "03-marrowby-upper-back-v60-carve.nc", "04-marrowby-upper-v60-carve.nc", "proof-back.png"})
    CHECK(fs::exists(out / (std::string("o/") + name)));
  const Json plan = parse_json(read_file(out / "o/plan.json"), "plan");
  CHECK(plan["files"][0]["side"] == "back");
  CHECK(plan["files"][3]["side"] == "front");
  CHECK(plan["turnOver"] == "leftEdge");
  std::string files;
  for (const Json& file : plan["files"]) files += " " + (out / ("o/" + file["path"].get<std::string>()));
  REQUIRE(doyen_cli("readback" + files + " --plan " + (out / "o/plan.json") + " --back --cell 0.5 --height " +
                    (out / "b.npy"))
              .code == 0);
  REQUIRE(doyen_cli("relief " + data_file("demo/fingerpost.doyen") + " --back --cell 0.5 --height " + (out / "r.npy"))
              .code == 0);
  REQUIRE(doyen_cli("relief " + data_file("demo/fingerpost.doyen") + " --cell 0.5 --height " + (out / "f.npy")).code ==
          0);
  CHECK(read_file(out / "b.npy").size() == read_file(out / "r.npy").size());
  CHECK(read_file(out / "r.npy") != read_file(out / "f.npy"));
}

TEST_CASE("one file where it is asked for: a side each, and a single bit's called by the bit") {
  const Folder out;
  REQUIRE(doyen_cli("plan " + data_file("demo/fingerpost.doyen") + " --one-file --out " + (out / "o")).code == 0);
  CHECK(fs::exists(out / "o/01-marrowby-upper-back-all-bits.nc"));
  CHECK(fs::exists(out / "o/02-marrowby-upper-all-bits.nc"));
  REQUIRE(doyen_cli("plan " + data_file("demo/gate-sign.doyen") + " --one-file --out " + (out / "g")).code == 0);
  CHECK(fs::exists(out / "g/01-marrowby-gate-all-bits.nc"));
}

TEST_CASE("an inlay writes both boards, closes, and is written whole or not at all", "[heavy]") {
  const Folder out;
  Ended e = doyen_cli(kSprig + "--treatment inlay --species black-walnut --bits v60 --out " + (out / "i.doyen"));
  INFO(e.said);
  REQUIRE(e.code == 0);
  e = doyen_cli("fit " + (out / "i.doyen") + " --cell 0.2mm");
  CHECK(e.code == 0);
  CHECK_THAT(e.said, Catch::Contains("rides up") && Catch::Contains("glue gap"));
  CHECK(doyen_cli("fit " + (out / "i.doyen") + " --cell 0").code > 1);
  e = doyen_cli("plan " + (out / "i.doyen") + " --out " + (out / "o"));
  INFO(e.said);
  CHECK(e.code == 0);
  CHECK(fs::exists(out / "o/plugs-sugar-maple/board.doyen"));
  CHECK(doyen_cli("check " + (out / "o/plugs-sugar-maple/board.doyen")).code == 0);
  // A wood whose name would lead out of the folder stays in it.
  Json job = parse_json(read_file(out / "i.doyen"), "i");
  job["pieces"][0]["cut"]["inlay"]["wood"] = "../../maple";
  write_file_atomically(out / "n.doyen", job.dump());
  e = doyen_cli("plan " + (out / "n.doyen") + " --out " + (out / "n/deep"));
  INFO(e.said);
  CHECK(e.code == 0);
  CHECK(fs::exists(out / "n/deep/plugs-______maple/plan.json"));
  // A plug that cannot be cut keeps the pocket's board from being written, too.
  job["pieces"][0]["cut"]["inlay"]["thickness"] = 5.2;
  job["pieces"][0]["cut"]["inlay"]["wood"] = "sugar-maple";
  write_file_atomically(out / "t.doyen", job.dump());
  CHECK(doyen_cli("plan " + (out / "t.doyen") + " --out " + (out / "t")).code != 0);
  CHECK_FALSE(fs::exists(out / "t/plan.json"));
  CHECK(doyen_cli("fit " + data_file("demo/gate-sign.doyen")).code > 1);
}

TEST_CASE("the fit says what it forgives and the ways to make it; faults, other bits and ladders by the command line",
          "[heavy]") {
  const Folder out;
  const std::string job = data_file("demo/inlaid-lid.doyen");
  Ended e = doyen_cli("fit " + job + " --cell 0.2mm --forgives");
  INFO(e.said);
  CHECK(e.code == 0);
  CHECK_THAT(e.said, Catch::Contains("pocket 0.1 mm too shallow: lies 0.1 mm higher") &&
                         Catch::Contains("spindle leans 0.5° to the right"));
  e = doyen_cli("fit " + job + " --cell 0.2mm --pocket-zero 0.15mm");
  CHECK(e.code == 1);  // it does not seat then
  CHECK_THAT(e.said, Catch::Contains("rides up 0.15 mm") && Catch::Contains("binds by"));
  e = doyen_cli("fit " + job + " --cell 0.2mm --pocket-zero -0.1mm");
  CHECK(e.code == 0);
  CHECK(doyen_cli("fit " + job + " --tilt 40").code == 2);
  // The plugs' board as it is kept: the same closes, cut by another bit it is refused with the reason.
  REQUIRE(doyen_cli("plan " + job + " --out " + (out / "o")).code == 0);
  const std::string plugs = out / "o/plugs-sugar-maple/board.doyen";
  CHECK(doyen_cli("fit " + job + " --cell 0.2mm --plugs " + plugs).code == 0);
  Json board = parse_json(read_file(plugs), "b");
  board["pieces"][0]["cut"]["bit"] = "v90";
  write_file_atomically(out / "v90.doyen", board.dump());
  e = doyen_cli("fit " + job + " --cell 0.2mm --plugs " + (out / "v90.doyen"));
  CHECK(e.code == 3);
  CHECK_THAT(e.said, Catch::Contains("same bit") && Catch::Contains("90°"));
  // A ladder that plans and closes rung by rung.
  REQUIRE(doyen_cli("ladder " + job + " --rungs 3 --step 0.2mm --out " + (out / "l.doyen")).code == 0);
  e = doyen_cli("fit " + (out / "l.doyen") + " --cell 0.2mm");
  CHECK(e.code == 0);
  CHECK_THAT(e.said, Catch::Contains("Contact 3.6") && Catch::Contains("Contact 4"));
  CHECK(doyen_cli("plan " + (out / "l.doyen") + " --out " + (out / "lo")).code == 0);
  CHECK(doyen_cli("ladder " + data_file("demo/gate-sign.doyen") + " --out " + (out / "n.doyen")).code == 3);
  // A test cut that plans; where there is nothing to test it says so.
  REQUIRE(doyen_cli("testcut " + data_file("demo/gate-sign.doyen") + " --out " + (out / "t.doyen")).code == 0);
  CHECK(doyen_cli("check " + (out / "t.doyen")).code == 0);
  CHECK(doyen_cli("testcut " + data_file("demo/test-ladder.doyen") + " --out " + (out / "u.doyen")).code == 3);
  CHECK_FALSE(fs::exists(out / "n.doyen"));
  CHECK(doyen_cli("check " + data_file("demo/test-ladder.doyen")).code == 0);
}

TEST_CASE("further boards: inserts, levelling, a second run, each with files and a run sheet of its own", "[heavy]") {
  const Folder out;
  Json job = parse_json(read_file(data_file("demo/inlaid-lid.doyen")), "lid");
  job["run"]["millLevel"] = 4;
  Json lid = job["pieces"][0], badge = job["pieces"][0];
  for (Json* piece : {&lid, &badge}) {
    piece->erase("drawing");
    (*piece)["turn"] = 0;
  }
  lid["id"] = "lid";
  lid["shape"] = {{"form", "rectangle"}, {"width", 220}, {"height", 120}};
  lid["x"] = 132;
  lid["y"] = 74;
  lid["cut"] = {{"look", "cutout"}, {"bit", "flat-1/4in"}};
  badge["id"] = "badge";
  badge["shape"] = {{"form", "ellipse"}, {"width", 24}, {"height", 24}};
  badge["x"] = 215;
  badge["y"] = 40;
  badge["cut"] = {{"look", "recess"},
                  {"bit", "v60"},
                  {"depth", 3},
                  {"resin", true},
                  {"insert", {{"thickness", 2}, {"cover", 1}, {"cut", true}, {"material", "brass"}}}};
  job["pieces"].push_back(lid);
  job["pieces"].push_back(badge);
  write_file_atomically(out / "all.doyen", job.dump());
  const Ended e = doyen_cli("plan " + (out / "all.doyen") + " --out " + (out / "o"));
  INFO(e.said);
  REQUIRE(e.code == 0);
  for (const char* name : {"plugs-sugar-maple/runsheet.pdf", "inserts-brass-2-mm/runsheet.pdf",
                           "levelling/runsheet.pdf", "levelling/board.doyen", "runsheet.pdf"})
    CHECK(fs::exists(out / (std::string("o/") + name)));
  const Json plan = parse_json(read_file(out / "o/plan.json"), "plan");
  CHECK(plan["files"].back()["afterGluing"] == true);
  CHECK_THAT(plan["files"].back()["path"].get<std::string>(), Catch::Contains("glued"));
  CHECK(plan["files"][0]["afterGluing"] == false);
}

TEST_CASE("the command line writes the rest of a file, and a deeper cut-out; what makes no sense is said") {
  const Folder out;
  const std::string job = data_file("demo/gate-sign.doyen");
  const auto again = [&](const std::string& words) {
    return doyen_cli("again " + job + " " + words + " --out " + (out / "a.nc"));
  };
  const Ended late = again("--file 2 --after 6");
  INFO(late.said);
  REQUIRE(late.code == 0);
  const std::string half = read_file(out / "a.nc");
  REQUIRE(again("--file 2 --from 1").code == 0);
  const std::string whole = read_file(out / "a.nc");
  CHECK(half.size() < whole.size());
  CHECK(half.find("M30") != std::string::npos);
  // It goes on as the whole does: its last hundred lines are the same.
  CHECK(half.substr(half.size() - 2000) == whole.substr(whole.size() - 2000));
  REQUIRE(again("--file 3 --deeper 0.3mm").code == 0);
  CHECK(again("--file 1 --deeper 0.3mm").code == 3);  // nothing of it goes through
  CHECK(again("--file 9 --from 1").code == 3);
  CHECK(again("--file 2 --from 99999").code == 3);
  CHECK(again("--file 2").code == 2);
  CHECK(again("--file 2 --from x").code == 2);
  CHECK(again("--file 2 --from 1 --after 3").code == 2);
}
