// What was said is kept: whatever can be made can be saved and opened, and nothing that stands is lost to a full disk.
#include <sys/stat.h>

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>

#include "failing_calls.hpp"
#include "job/job.hpp"
#include "problem.hpp"
#include "random_jobs.hpp"
#include "storage/atomic_file.hpp"

using namespace workbench;
namespace fs = std::filesystem;

namespace {

struct Folder {
  fs::path at;
  Folder() {
    std::string name = (fs::temp_directory_path() / "doyen-kept-XXXXXX").string();
    at = ::mkdtemp(name.data());
  }
  ~Folder() { fs::remove_all(at); }
  Folder(const Folder&) = delete;
  Folder& operator=(const Folder&) = delete;
  std::string operator/(const char* name) const { return (at / name).string(); }
};

// The same job but for what saving adds: outlines of lettering, kept for machines without its face.
Job without_outlines(Job job) {
  for (Item& item : job.items) {
    if (auto* l = std::get_if<Lettering>(&item.piece.what)) l->kept = {};
  }
  return job;
}

}  // namespace

TEST_CASE("random jobs are opened as they were saved, with all that another look had been told") {
  for (unsigned seed = 40'000; seed < 40'120; ++seed) {
    const Job job = seed % 2 == 0 ? JobMaker(seed).job() : SignMaker(seed).job();
    INFO("seed " << seed);
    CHECK(without_outlines(read_job(job_text(job), "job")) == without_outlines(job));
  }
}

TEST_CASE("every figure of a treatment survives, whatever look is chosen at the moment") {
  Job job = board();
  for (int kind = 0; kind <= static_cast<int>(Kind::Plug); ++kind) {
    Treatment t;
    t.kind = static_cast<Kind>(kind);
    t.depth = 2.5;
    t.raise.panel = "panel";
    t.margin = 7;
    t.raise.sloped = false;
    t.pierce.slug = t.bevel.inside = t.resin = t.inlay.v_alone = t.through.taped = t.back = true;
    t.drill.peck = 1.5;
    t.drill.spacing = 20;
    t.insert = {3, 0.2, 0.5, 12, Insert::Corners::Slot, false, "brass"};
    t.raise.steps = 3;
    t.raise.terrace = 5;
    t.line.hatch = 2;
    t.line.hatch_angle = 30;
    t.slot.length = 20;
    t.through.skin = 0.5;
    t.inlay.contact = 3;
    t.inlay.wood = "black-cherry";
    t.through.tabs = {false, 6, 8, 2, {{0, 0.25}}};
    t.through.over_cut = 0.4;
    t.ground = 1;
    add(job, ("p" + std::to_string(kind)).c_str(), {kBox, 20, 20}, {50, 50}, t);
  }
  Lettering words;
  words.words = "Rue";
  words.width = 123;
  words.arc_below = true;
  words.along_start = 0.25;
  words.inside_margin = 9;
  words.inside_margin_share = true;
  job.items.push_back({{"w", "w", words, {100, 80}, 0}, {}});
  add(job, "s", {kBox, 20, 20, 0, 0, PlainShape::CornerForm::Scooped, 9, 0.3, 11}, {60, 60}, {});
  CHECK(without_outlines(read_job(job_text(job), "job")) == without_outlines(job));
}

TEST_CASE("what could not be opened again is refused when it is made, not when it is opened") {
  const Job before = [] {
    Job job = board();
    add(job, "box", {kBox, 60, 40}, {100, 80}, cut(Kind::Recess, 3));
    Lettering words;
    words.words = "Rue";
    job.items.push_back({{"words", "words", words, {100, 80}, 0}, cut(Kind::Incise, 1)});
    job.items.push_back({{"art", "art", oracle::drawing("M0 0 h40 v6 h-40 z"), {50, 50}, 0}, cut(Kind::Incise, 1)});
    return job;
  }();
  REQUIRE_NOTHROW(check_job(before, Job{}));
  const auto refused = [&](const std::function<void(Job&)>& change) {
    Job after = before;
    change(after);
    REQUIRE_FALSE(after == before);
    CHECK_THROWS_AS(check_job(after, before), Problem);
    const Folder folder;
    save_job(before, folder / "a.doyen");
    const std::string stood = read_file(folder / "a.doyen");
    CHECK_THROWS_AS(save_job(after, folder / "a.doyen"), Problem);
    CHECK(read_file(folder / "a.doyen") == stood);
  };
  refused([](Job& job) { std::get<PlainShape>(job.items[0].piece.what).width = -4; });
  refused([](Job& job) { std::get<PlainShape>(job.items[0].piece.what).width = 0.01; });
  refused([](Job& job) { std::get<Lettering>(job.items[1].piece.what).words.assign(30'000, 'a'); });
  refused([](Job& job) { std::get<Drawing>(job.items[2].piece.what).page_width = 1e7; });
  refused([](Job& job) { std::get<Drawing>(job.items[2].piece.what).scale = 1e-9; });
  refused([](Job& job) { job.items[2].piece.at.x = 1e6; });
  refused([](Job& job) { job.items[0].cut.depth = 5000; });
  refused([](Job& job) { job.run.feeds["v60"] = {200'000, 500, 18000, 3}; });
  refused([](Job& job) { job.blank.readings = {0.01}; });
  refused([](Job& job) { job.blank.width = std::nan(""); });
  // A feed of 3000 inches a minute is fast, and can be kept.
  Job fast = before;
  fast.run.feeds["v60"] = {3000 * 25.4, 500, 18000, 3};
  CHECK_NOTHROW(check_job(fast, before));
  CHECK(read_job(job_text(fast), "job").run.feeds == fast.run.feeds);
}

TEST_CASE("a failure at any system call of saving leaves the old file whole") {
  const Folder folder;
  const std::string path = folder / "sign.doyen";
  Job old = board();
  old.name = "Old";
  save_job(old, path);
  Job fresh = old;
  fresh.name = "New";
  int calls = 0;
  {
    Failing count(-1, false);
    const SystemCalls::Instead instead(count);
    save_job(fresh, folder / "other.doyen");
    calls = count.seen;
  }
  REQUIRE(calls >= 5);
  for (const bool for_good : {false, true}) {
    for (int n = 1; n <= calls; ++n) {
      save_job(old, path);
      bool threw = false;
      {
        Failing failing(n, for_good);
        const SystemCalls::Instead instead(failing);
        try {
          save_job(fresh, path);
        } catch (const Problem&) {
          threw = true;
        }
      }
      INFO("call " << n << (for_good ? " and all after it" : ""));
      CHECK(load_job(path).name == (threw ? "Old" : "New"));
    }
  }
}

TEST_CASE("a file that may not be changed is not changed, whoever owns it") {
  namespace fs = std::filesystem;
  const fs::path folder = fs::temp_directory_path() / ("doyen-owner-" + std::to_string(getpid()));
  fs::remove_all(folder);
  fs::create_directories(folder);
  const std::string path = (folder / "sign.doyen").string();
  write_file_atomically(path, "another's");
  REQUIRE(::chmod(path.c_str(), 0444) == 0);
  REQUIRE(::chmod(folder.c_str(), 0777) == 0);
  const bool root = ::geteuid() == 0;
  if (root) REQUIRE(::seteuid(65534) == 0);  // nobody: root may change anything
  CHECK_THROWS_WITH(write_file_atomically(path, "mine"), Catch::Contains("may not be changed"));
  const bool whole = read_file(path) == "another's";
  if (root) REQUIRE(::seteuid(0) == 0);
  CHECK(whole);
  CHECK(std::distance(fs::directory_iterator(folder), fs::directory_iterator()) == 1);
  REQUIRE(::chmod(path.c_str(), 0644) == 0);
  fs::remove_all(folder);
}

TEST_CASE("where a file is expected and something else stands, that stays") {
  const Folder folder;
  fs::create_directory(folder.at / "dir.doyen");
  CHECK_THROWS_AS(save_job(board(), folder / "dir.doyen"), Problem);
  CHECK_THROWS_AS(load_job(folder / "dir.doyen"), Problem);
  REQUIRE(::mkfifo((folder / "pipe.doyen").c_str(), 0600) == 0);
  CHECK_THROWS_AS(save_job(board(), folder / "pipe.doyen"), Problem);
  CHECK_THROWS_AS(load_job(folder / "pipe.doyen"), Problem);  // and does not wait for somebody to write into it
  CHECK(fs::is_fifo(folder.at / "pipe.doyen"));
  // A link keeps pointing where it points.
  save_job(board(), folder / "real.doyen");
  fs::create_symlink("real.doyen", folder.at / "link.doyen");
  Job job = board();
  job.name = "Through the link";
  save_job(job, folder / "link.doyen");
  CHECK(fs::is_symlink(folder.at / "link.doyen"));
  CHECK(load_job(folder / "real.doyen").name == "Through the link");
}
