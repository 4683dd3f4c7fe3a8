// The run sheet as poppler reads it: everything that must be known at the machine, for every kind of board, in the
// job's own unit.
#include <catch2/catch.hpp>
#include <cstring>
#include <memory>
#include <set>

#include "command_line.hpp"
#include "files/output_set.hpp"
#include "files/outputs.hpp"
#include "files/run_sheet.hpp"
#include "holding/screws.hpp"
#include "inlay/steps.hpp"
#include "json_reading.hpp"
#include "rack/own_rack.hpp"
#include "run/gcode.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

using namespace doyen;
using namespace command_line;

namespace {

using Kind = Treatment::Kind;

// Without any white space: where lines wrap, and how wide gaps are set, is the sheet's own affair.
std::string packed(const std::string& text) {
  std::string out;
  for (const char c : text) {
    if (c != ' ' && c != '\n' && c != '\f') out += c;
  }
  return out;
}

auto says(const std::string& words) { return Catch::Contains(packed(words)); }

// The sheet of a job in words.
std::string sheet_of(const Job& job, const Folder& out, int* pages = nullptr) {
  const Plan p = plan(job, load_rack(), machine_for(job));
  Judgement fine;
  fine.cell = 0.5;
  const std::string file = out / "sheet.pdf";
  const Picture back = p.has_back() ? board_picture(p, 300, Side::Back) : Picture();
  write_file_atomically(file, run_sheet_pdf(p, board_picture(p, 300), fine, p.has_back() ? &back : nullptr));
  std::string text = run("pdftotext -raw " + file + " -").said;
  if (pages != nullptr) *pages = static_cast<int>(std::count(text.begin(), text.end(), '\f'));
  return packed(text);
}

Job demo(const char* name) { return load_job(data_file(std::string("demo/") + name + ".doyen")); }

Item lid_outline() {
  Item lid{{"lid", "Lid", PlainShape{PlainShape::Kind::Rectangle, 200, 120}, {132, 74}, 0}, {}};
  lid.cut.kind = Kind::CutOut;
  lid.cut.bit = "flat-1/4in";
  lid.cut.through.tabs.count = 4;
  return lid;
}

}  // namespace

TEST_CASE("every demo's sheet names its board, zero, bits, files, times and cautions", "[heavy]") {
  const Folder out;
  for (const char* name : {"gate-sign", "heron-plaque", "gate-sign-raised", "seed-drawer", "sundial-plate",
                           "fingerpost", "inlaid-lid", "test-ladder"}) {
    INFO(name);
    const Job job = demo(name);
    const Plan p = plan(job, load_rack(), machine_for(job));
    int pages = 0;
    const std::string text = sheet_of(job, out, &pages);
    CHECK(pages <= 3);
    CHECK_THAT(text, says(job.name));
    CHECK_THAT(text, says(format_length(job.blank.width, job.lengths)));
    CHECK_THAT(text, says("Zero: ") && says("y away from you"));
    CHECK_THAT(text, says("Eyes and ears covered") && says("Stop within reach") && says("local rules"));
    CHECK_THAT(text, says(format_duration(p.seconds)));
    for (const BitRun& run : p.runs) {
      CHECK_THAT(text, says(run.file));
      CHECK_THAT(text, says(run.bit.name));
      CHECK_THAT(text, says(format_number(run.feeds.rpm, 0) + " /min"));
    }
    if (p.bit_changes() > 0) CHECK_THAT(text, says("spindle stopped and still"));
    for (const Verdict& v : p.verdicts) CHECK_THAT(text, says(v.text.substr(0, 30)));
    CHECK_THAT(text, says("what really happened"));
    // Lengths are written in the job's unit, never in both.
    CHECK_THAT(text, says(job.lengths.unit == Unit::Inch ? " in" : " mm"));
    CHECK_THAT(text, says(job.lengths.unit == Unit::Inch ? "in/min" : "mm/min"));
  }
}

TEST_CASE("how far each bit goes is what its file says, read by the letter") {
  const Folder out;
  for (const bool one_file : {false, true}) {
    Job job = demo("fingerpost");  // from both sides, zero in a corner of each
    job.run.one_file = one_file;
    const Plan p = plan(job, load_rack(), machine_for(job));
    const std::string text = sheet_of(job, out);
    std::size_t at = 0;
    for (const OutputFile& file : gcode_files(p)) {
      for (const GcodeSection& section : read_gcode(file.text, file.name).sections) {
        Box box;
        double lowest = 1e9;
        for (const Pass& pass : section.passes) {
          for (const Point3& q : pass.points) {
            box.add(q.flat());
            lowest = std::min(lowest, q.z);
          }
        }
        const auto next = [&](const char* after) {
          at = text.find(after, at);
          REQUIRE(at != std::string::npos);
          at += std::strlen(after);
          return std::stod(text.substr(at, 12));
        };
        CHECK(next("inxfrom") == Approx(box.left).margin(0.011));  // the sheet says hundredths of a millimetre
        CHECK(next("to") == Approx(box.right).margin(0.011));
        CHECK(next("inyfrom") == Approx(box.bottom).margin(0.011));
        CHECK(next("to") == Approx(box.top).margin(0.011));
        CHECK(next("lowestz") == Approx(lowest).margin(0.011));
      }
    }
  }
}

TEST_CASE("the sheet says when the screws go in, how many, how wide their heads may be, and that the bit stays",
          "[heavy]") {
  const Folder out;
  for (const double head : {8.0, 15.0}) {
    Job job = with_screws(demo("dibber-board"), load_rack(), 8);
    for (Item& item : job.items) {
      if (auto* shape = std::get_if<PlainShape>(&item.piece.what); shape != nullptr && holds_board(item))
        shape->width = shape->height = head;
    }
    const Plan p = plan(job, load_rack(), machine_for(job));
    const std::string text = sheet_of(job, out);
    const auto count = std::to_string(screw_heads(job).size());
    CHECK_THAT(text, says("Drive one into each of the " + count + " holes"));
    CHECK_THAT(text, says("no wider than " + depth_in_words(head, job.lengths)));
    CHECK_THAT(text, says(p.runs[0].file));
    REQUIRE(p.runs.size() > 1);
    if (p.runs[0].bit.id == p.runs[1].bit.id) CHECK_THAT(text, says("The same bit: leave it where it is"));
  }
}

TEST_CASE("the sheet says how tabs are parted, how the board is turned, and where the bed is touched") {
  const Folder out;
  Job job = demo("fingerpost");
  const std::string text = sheet_of(job, out);
  std::size_t tabs = 0;
  const Plan p = plan(job, load_rack(), machine_for(job));
  for (const auto& piece : p.pieces) tabs += piece->cuts.cut_out ? piece->cuts.cut_out->tabs.size() : 0;
  REQUIRE(tabs > 0);
  CHECK_THAT(text, says("hangs by " + std::to_string(tabs) + " tabs") && says("saw or chisel through each"));
  CHECK_THAT(text, says("front up") && says("back up") && says("one and the same corner of the wood"));
  CHECK_THAT(text, !says("set z beside it"));
  job.run.zero_surface = ZeroSurface::Bed;
  CHECK_THAT(sheet_of(job, out), says("The bed can only be touched where the blank does not lie"));
  CHECK_THAT(sheet_of(demo("gate-sign"), out), !says("back up"));
}

TEST_CASE("what comes after the machine stands on the sheet where the job says its finish") {
  const Folder out;
  Job job = demo("heron-plaque");
  job.finish.school = FinishSchool::None;
  CHECK_THAT(sheet_of(job, out), !says("Before and after the machine"));
  job.finish.school = FinishSchool::Oil;
  CHECK_THAT(sheet_of(job, out),
             says("Before and after the machine") && says("Oily rags heat by themselves") && says("then wait 24 h"));
}

TEST_CASE("the carrying board's sheet leads from two boards to one, with the second run set apart") {
  const Folder out;
  Job job = demo("inlaid-lid");
  job.items.push_back(lid_outline());
  job.run.mill_level = 4;
  REQUIRE(keep_zero_by(job, KeepZero::Marks, load_rack()) == 2);
  const std::string text = sheet_of(job, out);
  std::size_t at = 0;
  for (const char* words :
       {"From two boards to one", "1. Carrying board, Black walnut", "Cut the pockets", "2. Plugs of Sugar maple",
        "plugs-sugar-maple", "mirrored", "3. Carrying board", "Glue", "Clamp", "Wait", "Saw the plugs off about 4 mm",
        "folder levelling", "Sand", "Second run, bevels and cut-outs", "witness marks", "Holding",
        "Bits, in this order", "Second run: only when the inlays are glued"}) {
    INFO(words);
    const std::size_t next = text.find(packed(words), at);
    CHECK(next != std::string::npos);
    if (next != std::string::npos) at = next;
  }
  // The glued file stands behind that heading, the pocket's before it.
  const std::size_t heading = text.find(packed("Second run: only when"));
  CHECK(text.rfind("glued-1-4in-up-cut-out.nc") > heading);
  CHECK(text.rfind("01-marrowby-herb-lid-") < heading);
  CHECK_THAT(text, says("Fingers clear of the saw"));
}

TEST_CASE("the plugs' sheet says that they are mirrored, in words and beside two pictures") {
  const Folder out;
  const std::vector<FurtherPlan> boards = plan_further(demo("inlaid-lid"), load_rack(), false);
  REQUIRE(boards.size() == 1);
  const std::string text = sheet_of(boards[0].plan.job, out);
  CHECK_THAT(text, says("This board holds plugs") && says("mirrored, as they must"));
  CHECK_THAT(text, says("as it lies on this board") && says("as it lies in its pocket, turned over"));
  CHECK_THAT(text, says("should stop 1.2 mm above the other board's face"));
  CHECK_THAT(text, says("Sugar maple"));
}

TEST_CASE("resin, inserts and levelling are on their sheets with their cautions") {
  const Folder out;
  Job job = demo("inlaid-lid");
  job.run.mill_level = 3;
  Item badge{{"badge", "Badge", PlainShape{PlainShape::Kind::Ellipse, 24, 24}, {225, 35}, 0}, {}};
  badge.cut.kind = Kind::Recess;
  badge.cut.resin = true;
  badge.cut.insert.thickness = 2;
  badge.cut.insert.cover = 1;
  badge.cut.insert.cut = true;
  badge.cut.insert.material = "brass";
  job.items.push_back(badge);
  Item hole = badge;  // as it was chosen while it was a recess; an opening holds no resin
  hole.piece.id = "hole";
  hole.piece.name = "Hole";
  hole.piece.at = {190, 35};
  hole.cut.kind = Kind::Pierce;
  hole.cut.bit = "flat-1/8in";
  job.items.push_back(hole);
  const std::string text = sheet_of(job, out);
  CHECK_THAT(text, !says("“Hole” is filled with resin"));
  CHECK_THAT(text, says("“Badge” takes an insert of brass, 2 mm thick"));
  CHECK_THAT(text, says("“Badge” is filled with resin:") && says("ml to mix") && says("Gloves and moving air"));
  bool levelled = false, inserted = false;
  for (const FurtherPlan& board : plan_further(job, load_rack(), false)) {
    const std::string own = sheet_of(board.plan.job, out);
    if (board.folder == "levelling") {
      levelled = true;
      CHECK_THAT(own, says("own face beside what stands above it, 3 mm below the highest wood"));
    }
    if (board.folder.starts_with("inserts")) {
      inserted = true;
      CHECK_THAT(own, says("Brass plate") && says("Badge, insert"));
    }
  }
  CHECK(levelled);
  CHECK(inserted);
}

TEST_CASE("a sheet that was written although something stops says so in large letters") {
  const Folder out;
  Job job = demo("inlaid-lid");
  job.items[0].cut.inlay.contact = 6;  // deeper than the pocket
  const std::string text = sheet_of(job, out);
  CHECK_THAT(text, says("STOP: written although something would spoil wood"));
  CHECK_THAT(text, says("bottoms out before its flanks close"));
  // And inches are inches all through.
  job = demo("inlaid-lid");
  job.lengths.unit = Unit::Inch;
  const std::string inches = sheet_of(job, out);
  CHECK_THAT(inches, says(" in × ") && says("in/min") && !says("mm/min"));
}

TEST_CASE("in another language none of the sheets' own sentences stays English, cautions least of all") {
  const Folder out;
  const std::string path = data_file("words/de.json");
  const Json words = parse_json(read_file(path), path);
  const auto heard = std::make_shared<std::set<std::string>>();
  speak([&words, heard](std::string_view english) {
    const auto found = words["core"].find(std::string(english));
    if (found == words["core"].end()) return std::string();
    heard->insert(std::string(english));
    return found->get<std::string>();
  });
  for (const char* name : {"gate-sign", "fingerpost", "inlaid-lid"}) {
    INFO(name);
    const std::string text = sheet_of(demo(name), out);
    CHECK_THAT(text, says("Vor dem Start") && says("Augen und Ohren geschützt") && says("Null: "));
    for (const auto& [english, german] : words["core"].items()) {
      // What has a long run of words without a quantity in it would be found if it had stayed.
      const std::string start = english.substr(0, english.find('{'));
      if (start.size() < 24 || german.get<std::string>().substr(0, start.size()) == start) continue;
      INFO(english);
      CHECK(text.find(packed(start)) == std::string::npos);
    }
  }
  CHECK(heard->contains("Before you start"));
  speak({});
}
