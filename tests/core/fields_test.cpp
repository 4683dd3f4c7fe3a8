// What a newer Doyen, or a hand, wrote beside what this one knows: kept at every level, named, and never put elsewhere.
#include <unistd.h>

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>

#include "failing_calls.hpp"
#include "job/job.hpp"
#include "json_reading.hpp"
#include "oracle.hpp"
#include "own_home.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "storage/atomic_file.hpp"
#include "treatments/start.hpp"
#include "wording/say.hpp"

using namespace doyen;

namespace {

Job two_pieces() {
  Job job;
  job.blank.keep_outs = {{KeepOut::Kind::Clamp, 10, 20, 40, 30}, {KeepOut::Kind::Screw, 90, 20, 12, 12}};
  Item drawn{{"art", "Art", oracle::drawing("M0 0 L10 0 L10 10 Z"), {50, 50}, 0}, {}};
  std::get<Drawing>(drawn.piece.what).traced = TracedFrom{to_base64("a picture"), {}};
  drawn.cut.kind = Treatment::Kind::CutOut;
  drawn.cut.bit = "flat-1/4in";
  drawn.cut.through.tabs.placed = {{0, 0.25}, {0, 0.75}};
  Derived link;
  link.how = Derived::How::Link;
  link.from = {"art"};
  link.bridges = {{{0, 0}, {1, 1}}, {{2, 2}, {3, 3}}};
  job.items = {drawn, {{"made", "Made", link, {0, 0}, 0}, {}}};
  job.run.feeds["v60"] = {1000, 300, 18000, 2};
  return job;
}

// A mark at every level, each with a value that says where it belongs.
std::string with_marks() {
  Json j = parse_json(write_job(two_pieces()), "job");
  j["top"] = "top";
  j["lengths"]["mark"] = "lengths";
  j["blank"]["mark"] = "blank";
  j["blank"]["keepOuts"][0]["mark"] = "clamp";
  j["blank"]["keepOuts"][1]["mark"] = "screw";
  j["pieces"][0]["mark"] = "art";
  j["pieces"][0]["cut"]["mark"] = "cut";
  j["pieces"][0]["cut"]["tabs"]["mark"] = "tabs";
  j["pieces"][0]["cut"]["tabs"]["placed"][1]["mark"] = "second tab";
  j["pieces"][0]["drawing"]["parts"][0]["mark"] = "part";
  j["pieces"][1]["madeFrom"]["bridges"][1]["mark"] = "second bridge";
  j["run"]["feeds"]["v60"]["mark"] = "feeds";
  j["pieces"][0]["drawing"]["traced"]["mark"] = "traced";
  // What says nothing else is not written by itself.
  j["pieces"][0]["cut"]["moves"] = {{"mark", "moves"}};
  j["pieces"][0]["cut"]["insert"] = {{"thickness", 0}, {"mark", "insert"}};
  return j.dump();
}

}  // namespace

TEST_CASE("what a newer Doyen wrote is kept at every level, whatever is edited beside it") {
  Job job = read_job(with_marks(), "job");
  CHECK(parse_json(write_job(job), "again") == parse_json(write_job(read_job(write_job(job), "x")), "again"));
  Json j = parse_json(write_job(job), "job");
  CHECK(j["top"] == "top");
  CHECK(j["lengths"]["mark"] == "lengths");
  CHECK(j["blank"]["mark"] == "blank");
  CHECK(j["blank"]["keepOuts"][1]["mark"] == "screw");
  CHECK(j["pieces"][0]["cut"]["tabs"]["placed"][1]["mark"] == "second tab");
  CHECK_FALSE(j["pieces"][0]["cut"]["tabs"]["placed"][0].contains("mark"));
  CHECK(j["pieces"][0]["drawing"]["parts"][0]["mark"] == "part");
  CHECK(j["pieces"][1]["madeFrom"]["bridges"][1]["mark"] == "second bridge");
  CHECK(j["run"]["feeds"]["v60"]["mark"] == "feeds");
  CHECK(j["pieces"][0]["drawing"]["traced"]["mark"] == "traced");
  CHECK(j["pieces"][0]["cut"]["moves"]["mark"] == "moves");
  CHECK(j["pieces"][0]["cut"]["insert"]["mark"] == "insert");
  // The clamp is taken away, the screw moved, the pieces change places: each keeps what is its own.
  std::swap(job.items[0], job.items[1]);
  job.items[1].piece.at = {70, 70};
  job.items[1].cut.through.tabs.placed.erase(job.items[1].cut.through.tabs.placed.begin());
  job.blank.keep_outs[1].x = 95;
  j = parse_json(write_job(job), "job");
  CHECK(j["pieces"][1]["mark"] == "art");
  CHECK(j["pieces"][1]["cut"]["tabs"]["placed"][0]["mark"] == "second tab");
  CHECK(j["blank"]["keepOuts"][1]["mark"] == "screw");
  job.blank.keep_outs.erase(job.blank.keep_outs.begin());
  j = parse_json(write_job(job), "job");
  CHECK_FALSE(j["blank"]["keepOuts"][0].value("mark", "") == "clamp");
}

TEST_CASE("what is not known, and what a look makes no use of, is named") {
  const std::vector<std::string> names = not_known(read_job(with_marks(), "job"));
  CHECK(names.size() == 15);
  const auto named = [&](const std::string& name) {
    return std::find(names.begin(), names.end(), name) != names.end();
  };
  CHECK(named("top"));
  CHECK(named("blank.keepOuts.2.mark"));
  CHECK(named("pieces.art.cut.tabs.placed.2.mark"));
  CHECK(named("run.feeds.v60.mark"));
  CHECK(not_known(two_pieces()).empty());
  Job job = two_pieces();
  CHECK(unused_choices(job).empty());
  job.items[0].cut.raise.steps = 3;
  job.items[0].cut.incise.floor_limit = 2;
  std::string unused;
  for (const UnusedChoice& u : unused_choices(job)) unused += u.piece + "." + u.key + " ";
  CHECK(unused == "art.floorLimit art.steps ");
}

TEST_CASE("a job and a rack are what they were when they are saved and opened, in whatever order a file says things") {
  const Job job = read_job(with_marks(), "job");
  CHECK(read_job(write_job(job), "again") == job);
  Json j = parse_json(with_marks(), "job");
  Json turned = Json::object();
  std::vector<std::string> keys;
  for (const auto& [key, value] : j.items()) keys.push_back(key);
  for (auto key = keys.rbegin(); key != keys.rend(); ++key) turned[*key] = j[*key];
  CHECK(read_job(turned.dump(), "turned") == job);
  j = parse_json(write_rack(load_shipped_rack()), "rack");
  Json feeds = Json::object();
  feeds["soft"] = j["bits"][0]["feeds"]["soft"];
  feeds["soft"]["b"] = 1;
  feeds["hard"] = feeds["soft"];
  feeds["hard"]["a"] = 2;
  j["bits"][0]["feeds"] = feeds;  // not in the order of the alphabet
  const Rack rack = read_rack(j.dump(), "rack");
  CHECK(read_rack(write_rack(rack), "again") == rack);
}

TEST_CASE("a rack keeps what is written beside what this Doyen knows") {
  Json j = parse_json(write_rack(load_shipped_rack()), "rack");
  j["mark"] = "rack";
  j["bits"][3]["mark"] = "fourth";
  const std::string id = j["bits"][3]["id"];
  const std::string wood = j["bits"][3]["feeds"].items().begin().key();
  j["bits"][3]["feeds"][wood]["mark"] = "feeds";
  Rack rack = read_rack(j.dump(), "rack");
  Rack changed = rack;
  changed.bits.erase(changed.bits.begin());
  changed.bits[2].measured_diameter = 6.2;
  const Json again = parse_json(write_rack(with_changes(rack, rack, changed)), "rack");
  CHECK(again["mark"] == "rack");
  CHECK(again["source"] == j["source"]);
  CHECK(again["bits"][2]["id"] == id);
  CHECK(again["bits"][2]["mark"] == "fourth");
  CHECK(again["bits"][2]["feeds"][wood]["mark"] == "feeds");
}

TEST_CASE("a failure at any system call of keeping the rack leaves what stood there, damaged or not") {
  namespace fs = std::filesystem;
  const OwnHome own;
  const fs::path home = own.folder;
  const Rack shipped = load_shipped_rack();
  Rack changed = shipped;
  changed.bits[0].tip = 0.3;
  const std::string sound = write_rack(shipped);
  int failures = 0;
  for (const std::string& stood : {sound, std::string("{ no rack"), std::string()}) {
    for (int n = 1; n < 40; ++n) {
      fs::remove_all(home);
      fs::create_directories(home / "doyen");
      if (!stood.empty()) write_file_atomically(own_rack_path(), stood);
      INFO("call " << n << ", stood: " << stood.substr(0, 12));
      workbench::Failing failing(n, false);
      bool threw = false;
      {
        const SystemCalls::Instead instead(failing);
        try {
          (void)keep_own_rack(shipped, changed);
        } catch (const Problem& problem) {
          threw = true;
          CHECK(problem.kind() == Problem::Kind::CannotWrite);
        }
      }
      if (failing.seen < n) break;
      failures += threw;
      if (threw && !stood.empty()) {
        // Under its own name or, where putting it back failed, too, under the one beside it.
        const bool own = fs::exists(own_rack_path());
        CHECK(read_file(own ? own_rack_path() : own_rack_path() + ".damaged-1") == stood);
      } else if (!threw) {
        CHECK(load_rack().bits[0].tip == 0.3);
        if (stood == "{ no rack") CHECK(read_file(own_rack_path() + ".damaged-1") == stood);
      }
    }
  }
  CHECK(failures > 10);
}

TEST_CASE("a piece begins to be cut in one way, whoever asks") {  // shares and sizes: common practice, no source
  Job job;
  job.blank.readings = {20};
  const Rack rack = load_shipped_rack();
  using Kind = Treatment::Kind;
  const auto stroke = [](const Bit&) { return 20.0; };
  const auto start = [&](Kind kind, Treatment was = {}) {
    return start_look(kind, was, {job.blank, job.lengths, rack, stroke});
  };
  CHECK(start(Kind::Recess).depth == 4);
  CHECK(start(Kind::Drill).bit == "flat-1/8in");
  CHECK(start(Kind::Pierce).bit == "flat-1/4in");
  CHECK_FALSE(start(Kind::CutOut).through.tabs == Tabs{});
  CHECK(start(Kind::HangerSlot).back);
  CHECK(rack.find(start(Kind::HangerSlot).bit)->kind == BitKind::Keyhole);
  const Treatment inlay = start(Kind::Inlay);
  CHECK(inlay.depth == Approx(5));
  CHECK(inlay.inlay.contact == Approx(3.8).margin(0.11));
  // What was said stays where the new look understands it.
  Treatment own;
  own.kind = Kind::Recess;
  own.depth = 7;
  own.bit = "v90";
  CHECK(start(Kind::Raise, own).depth == 7);
  Treatment shallow = start(Kind::Recess);
  shallow.depth = 1;  // typed; another look begins with it, not with a figure of its own
  CHECK(start(Kind::Raise, shallow).depth == 1);
  CHECK(start(Kind::Raise, own).bit == "v90");
  CHECK(start(Kind::CutOut, own).bit == "flat-1/4in");
  // A rack without the usual bits gives its nearest.
  Rack small;
  for (const Bit& bit : rack.bits) {
    if (bit.id == "v90" || bit.id == "flat-1/2in") small.bits.push_back(bit);
  }
  CHECK(start_look(Kind::CutOut, {}, {job.blank, job.lengths, small, stroke}).bit == "flat-1/2in");
  CHECK(start_look(Kind::Incise, {}, {job.blank, job.lengths, small, stroke}).bit == "v90");
}

TEST_CASE("in another language the rack's own names are said in it, and kept in English; the user's stay") {
  namespace fs = std::filesystem;
  const OwnHome home;
  speak([](std::string_view english) {
    return english == "1/8 in flat" ? std::string("Schaftfräser 1/8 in") : std::string();
  });
  const Rack said = load_rack();
  CHECK(said.find("flat-1/8in")->name == "Schaftfräser 1/8 in");
  CHECK(said.find("flat-1/4in")->name == "1/4 in flat");  // there are no words for it
  Rack changed = said;
  for (Bit& bit : changed.bits) {
    if (bit.id == "flat-1/4in") bit.name = "my {0} best";
    if (bit.id == "flat-1/8in") bit.measured_diameter = 3.1;
  }
  CHECK(keep_own_rack(said, changed).rack.find("flat-1/8in")->name == "Schaftfräser 1/8 in");
  const std::string kept = read_file(own_rack_path());
  CHECK(kept.find("1/8 in flat") != std::string::npos);
  CHECK(kept.find("Schaftfr") == std::string::npos);
  CHECK(load_rack().find("flat-1/8in")->name == "Schaftfräser 1/8 in");
  CHECK(load_rack().find("flat-1/8in")->measured_diameter == 3.1);
  CHECK(load_rack().find("flat-1/4in")->name == "my {0} best");
  speak({});
  CHECK(load_rack().find("flat-1/8in")->name == "1/8 in flat");
}
