// The log: kept whole whenever it is stopped, by several at once, on a full disk, in older and newer forms; and what is
// learnt from it, by hand-worked figures.
#include <signal.h>
#include <sqlite3.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <random>

#include "log/entry_of.hpp"
#include "log/lessons.hpp"
#include "log/log_book.hpp"
#include "log/log_texts.hpp"
#include "own_home.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "treatments/through/through.hpp"
#include "workbench.hpp"

using namespace doyen;

namespace {

LogEntry random_entry(std::mt19937& random) {
  const auto below = [&](unsigned n) { return static_cast<unsigned>(random() % n); };
  const auto text = [&] {
    static const std::vector<std::string> kParts{"oak",  "“é”", "'; DROP TABLE entries; --", "\n", ",", "\"",
                                                 "日本", " "};
    std::string all;
    for (unsigned i = below(5); i > 0; --i) all += kParts[below(static_cast<unsigned>(kParts.size()))];
    return all;
  };
  LogEntry e;
  e.made = "2026-1" + std::to_string(below(3)) + "-0" + std::to_string(1 + below(9)) + "T10:00:00Z";
  e.kind = below(4) == 0 ? MadeKind::TestCut : MadeKind::Run;
  for (std::string* s : {&e.job, &e.file, &e.mark, &e.machine, &e.words, &e.why, &e.job_text}) *s = text();
  e.wood = WoodId(text());
  e.thickness = below(400) / 8.0;
  if (below(2) == 0) e.over_cut = below(100) / 64.0;
  e.told = below(10'000) / 4.0;
  e.took = below(10'000) / 4.0;
  e.well = below(2) == 0;
  for (unsigned i = below(3); i > 0; --i)
    e.mishaps.push_back(
        {all_mishaps()[below(static_cast<unsigned>(all_mishaps().size()))], below(64) / 32.0, BitId(text())});
  for (unsigned i = below(3); i > 0; --i) e.changed.push_back(text());
  for (unsigned i = below(4); i > 0; --i)
    e.bits.push_back(
        {BitId("b" + std::to_string(i)), text(), below(4000) / 2.0, below(900) / 2.0, below(24'000) / 1.0, 12.5, 3.25});
  for (unsigned i = below(2); i > 0; --i) e.inlays.push_back({text(), BitId("v60"), below(2) == 0, 5, 3.75, 0.125});
  return e;
}

// Read by the database's own calls, not by ours.
std::string asked(const std::string& path, const std::string& sql) {
  sqlite3* db = nullptr;
  REQUIRE(sqlite3_open(path.c_str(), &db) == SQLITE_OK);
  std::string found;
  char* problem = nullptr;
  const auto take = [](void* into, int n, char** values, char**) {
    for (int i = 0; i < n; ++i) *static_cast<std::string*>(into) += values[i] == nullptr ? "-" : values[i];
    return 0;
  };
  const int code = sqlite3_exec(db, sql.c_str(), take, &found, &problem);
  INFO(sql << ": " << (problem == nullptr ? "" : problem));
  sqlite3_free(problem);
  sqlite3_close(db);
  REQUIRE(code == SQLITE_OK);
  return found;
}

// Runs in a process of its own; returns its id.
template <typename Work>
pid_t beside(Work work) {
  const pid_t child = fork();
  REQUIRE(child >= 0);
  if (child != 0) return child;
  int code = 1;
  try {
    code = work();
  } catch (...) {
    code = 99;
  }
  _exit(code);
}

int ended(pid_t child) {
  int status = 0;
  REQUIRE(waitpid(child, &status, 0) == child);
  return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

LogEntry like(const Job& job, const std::string& made) {
  LogEntry e;
  e.made = made;
  e.job = "another";
  e.machine = job.run.machine;
  e.wood = job.blank.species;
  return e;
}

// The one lesson of that kind, if there is one.
std::optional<Lesson> lesson_of(const std::string& code, const Job& job, const std::vector<LogEntry>& log) {
  std::optional<Lesson> found;
  for (Lesson& lesson : lessons_for(job, load_rack(), log)) {
    if (lesson.code == code) found = std::move(lesson);
  }
  return found;
}

Job demo(const char* name) { return load_job(data_file(std::string("demo/") + name + ".doyen")); }

}  // namespace

TEST_CASE("random entries come back from the log as they were kept, in the order in which they were made") {
  const OwnHome home;
  std::mt19937 random(7);
  std::vector<LogEntry> kept;
  LogBook book(log_path());
  for (int i = 0; i < 60; ++i) {
    kept.push_back(random_entry(random));
    kept.back().id = book.add(
        kept.back(), i % 5 == 0 ? std::vector<std::string>{std::string("\x89PNG\0x", 6)} : std::vector<std::string>{});
  }
  std::stable_sort(kept.begin(), kept.end(), [](const LogEntry& a, const LogEntry& b) {
    return a.made != b.made ? a.made > b.made : a.id > b.id;
  });
  std::vector<LogEntry> found = book.entries();
  REQUIRE(found.size() == kept.size());
  for (std::size_t i = 0; i < kept.size(); ++i) {
    found[i].job_text = book.job_text(found[i].id);
    CHECK(found[i] == kept[i]);
  }
  CHECK(asked(log_path(), "SELECT count(*) FROM pictures") == "12");
  CHECK(book.pictures(kept.back().id).size() <= 1);
  // As text, and read again.
  std::vector<LogEntry> again = read_log_json(log_json(found), "here");
  REQUIRE(again.size() == found.size());
  for (std::size_t i = 0; i < again.size(); ++i) {
    again[i].id = found[i].id;
    CHECK(again[i] == found[i]);
  }
  // Taken out: the pictures go with it, and nothing else.
  const LogEntry gone = kept.front();
  book.add_picture(gone.id, "one more");
  const std::string others =
      asked(log_path(), "SELECT count(*) FROM pictures WHERE entry <> " + std::to_string(gone.id));
  book.remove(gone.id);
  CHECK(book.entries().size() == kept.size() - 1);
  CHECK(asked(log_path(), "SELECT count(*) FROM pictures") == others);
}

TEST_CASE("a log is whole whenever whoever writes it is killed, and has all that was said to be kept") {
  const OwnHome home;
  std::mt19937 random(11);
  CHECK(LogBook(log_path()).entries().empty());
  std::size_t kept = 0;
  for (int round = 0; round < 8; ++round) {
    int line[2];
    REQUIRE(pipe(line) == 0);
    const pid_t child = beside([&] {
      LogBook book(log_path());
      std::mt19937 own(static_cast<unsigned>(round));
      for (;;) {
        (void)book.add(random_entry(own), {std::string(20'000, 'p')});
        if (write(line[1], "k", 1) != 1) return 1;
      }
    });
    close(line[1]);
    char c = 0;
    for (int i = 0; i < 2 && read(line[0], &c, 1) == 1; ++i) ++kept;
    usleep(static_cast<useconds_t>(random() % 60'000));
    kill(child, SIGKILL);
    ended(child);
    while (read(line[0], &c, 1) == 1) ++kept;
    close(line[0]);
    LogBook book(log_path());
    CHECK(asked(log_path(), "PRAGMA integrity_check") == "ok");
    const std::size_t there = book.entries().size();
    CHECK(there >= kept);
    CHECK(there <= kept + 1);  // one may have been on the disk before it was said
    CHECK(asked(log_path(), "SELECT count(*) FROM pictures") == std::to_string(there));
    kept = there;
  }
  CHECK(kept >= 16);
}

TEST_CASE("several windows write into one log, and none loses what another kept") {
  const OwnHome home;
  std::vector<pid_t> windows;
  for (unsigned i = 0; i < 3; ++i)
    windows.push_back(beside([i] {
      LogBook book(log_path());  // makes the tables, where no other has yet
      std::mt19937 random(i);
      for (int k = 0; k < 25; ++k) (void)book.add(random_entry(random));
      return 0;
    }));
  for (const pid_t window : windows) CHECK(ended(window) == 0);
  CHECK(LogBook(log_path()).entries().size() == 75);
  // What another window keeps is seen here.
  const auto before = known_log();
  CHECK(before->size() == 75);
  CHECK(known_log() == before);
  CHECK(ended(beside([] {
          std::mt19937 random(9);
          return LogBook(log_path()).add(random_entry(random)) > 0 ? 0 : 1;
        })) == 0);
  CHECK(known_log()->size() == 76);
}

TEST_CASE("where nothing more can be written it is said, and the log stays as it was") {
  const OwnHome home;
  std::mt19937 random(3);
  (void)LogBook(log_path()).add(random_entry(random));
  // A disk that is full: files may grow no more (setrlimit).
  const int code = ended(beside([] {
    signal(SIGXFSZ, SIG_IGN);
    LogBook book(log_path());
    const rlimit most{40'000, 40'000};
    if (setrlimit(RLIMIT_FSIZE, &most) != 0) return 2;
    std::mt19937 own(4);
    for (int i = 0; i < 50; ++i) {
      try {
        (void)book.add(random_entry(own), {std::string(20'000, 'p')});
      } catch (const Problem& problem) {
        return problem.kind() == Problem::Kind::CannotWrite ? 10 + std::min(i, 5) : 3;
      }
    }
    return 4;
  }));
  CHECK(code >= 10);
  LogBook book(log_path());
  CHECK(asked(log_path(), "PRAGMA integrity_check") == "ok");
  CHECK(book.entries().size() == static_cast<std::size_t>(1 + code - 10));
  if (geteuid() != 0) {
    std::filesystem::permissions(log_path(), std::filesystem::perms::owner_read);
    CHECK_THROWS_AS(LogBook(log_path()).add(random_entry(random)), Problem);
  }
}

TEST_CASE("an older log is brought up to date; a newer one, a damaged one and one that is none are left alone") {
  const OwnHome home;
  make_folder(home.folder + "/doyen");
  // As the first version made it, written down by hand.
  asked(
      log_path(),
      "CREATE TABLE entries (id INTEGER PRIMARY KEY AUTOINCREMENT, made TEXT NOT NULL, kind TEXT NOT NULL, job TEXT "
      "NOT "
      "NULL, file TEXT NOT NULL, mark TEXT NOT NULL, machine TEXT NOT NULL, wood TEXT NOT NULL, thickness REAL NOT "
      "NULL, "
      "over_cut REAL, told REAL NOT NULL, took REAL NOT NULL, well INTEGER NOT NULL, mishaps TEXT NOT NULL, words TEXT "
      "NOT NULL, changed TEXT NOT NULL, why TEXT NOT NULL, bits TEXT NOT NULL, inlays TEXT NOT NULL, job_text TEXT NOT "
      "NULL); PRAGMA user_version = 1;"
      "INSERT INTO entries VALUES (4,'2026-01-02T03:04:05Z','run','Old','','m','mm-plain','oak',18,0.3,60,66,0,"
      "'[{\"mishap\":\"moved\"}]','w','[\"a\"]','','[]','[]','');");
  {
    LogBook book(log_path());
    REQUIRE(book.entries().size() == 1);
    CHECK(book.entries().front().mishaps.front().mishap == Mishap::Moved);
    book.add_picture(4, "png");
    CHECK(book.pictures(4).size() == 1);
  }
  asked(log_path(), "PRAGMA user_version = 99");
  const std::string newer = read_file(log_path());
  CHECK_THROWS_WITH(LogBook(log_path()), Catch::Contains("newer"));
  CHECK(read_file(log_path()) == newer);
  CHECK(known_log()->empty());
  CHECK_THAT(log_problem(), Catch::Contains("newer"));
  for (const std::string& other :
       {std::string("{"), std::string("a shopping list\n"), newer.substr(0, 3000), std::string(9000, 'x')}) {
    write_file_atomically(log_path(), other);
    CHECK_THROWS_AS(LogBook(log_path()).entries(), Problem);
    CHECK(read_file(log_path()) == other);
    CHECK(known_log()->empty());
    CHECK_FALSE(log_problem().empty());
  }
  std::filesystem::remove(log_path());
  asked(log_path(), "CREATE TABLE recipes (name TEXT)");
  CHECK_THROWS_WITH(LogBook(log_path()), Catch::Contains("no log"));
  CHECK(asked(log_path(), "SELECT count(*) FROM sqlite_master") == "1");
  // Put aside on request, a new one is begun.
  const std::string aside = put_log_aside();
  CHECK(asked(aside, "SELECT count(*) FROM recipes") == "0");
  CHECK(LogBook(log_path()).entries().empty());
}

TEST_CASE("cuts that came short are asked deeper the next time on that machine, until it came out well") {
  const Job job = demo("gate-sign");
  LogEntry shortfall = like(job, "2026-05-02T10:00:00Z");
  shortfall.over_cut = 0.25;
  shortfall.mishaps = {{Mishap::NotThrough, 0.3, {}}};
  // By hand: 0.25 + 0.3.
  const auto lesson = lesson_of("learnt-through", job, {shortfall});
  REQUIRE(lesson);
  Job mended = job;
  lesson->apply(mended);
  CHECK(*mended.find(lesson->piece)->cut.through.over_cut ==
        Approx(0.55).margin(0.0254));  // in whole thousandths of an inch
  CHECK_FALSE(lesson_of("learnt-through", mended, {shortfall}));
  // On another machine it says nothing; nor after a run that came out well with less.
  LogEntry elsewhere = shortfall;
  elsewhere.machine = "another";
  CHECK_FALSE(lesson_of("learnt-through", job, {elsewhere}));
  LogEntry well = like(job, "2026-05-03T10:00:00Z");
  well.over_cut = 0.25;
  well.well = true;
  CHECK_FALSE(lesson_of("learnt-through", job, {well, shortfall}));
  CHECK(lesson_of("learnt-through", job, {shortfall, well}));
  // Well with a little more than what came short: no more than that is asked.
  well.over_cut = 0.4;
  const auto as_later = lesson_of("learnt-through", job, {well, shortfall});
  REQUIRE(as_later);
  CHECK_THAT(as_later->sum, Catch::Contains("later run"));
  Job like_it = job;
  as_later->apply(like_it);
  CHECK(*like_it.find(as_later->piece)->cut.through.over_cut == Approx(0.4).margin(0.0254));
  CHECK_FALSE(lesson_of("learnt-through", like_it, {well, shortfall}));
  // Of two that came short, the one that needs more.
  LogEntry worse = shortfall;
  worse.mishaps.front().mm = 0.5;
  lesson_of("learnt-through", job, {shortfall, worse})->apply(mended);
  CHECK(*mended.find(lesson->piece)->cut.through.over_cut == Approx(0.75).margin(0.0254));
}

TEST_CASE("what came out too shallow on this machine is said until it came out well; twice is no slip") {
  const Job job = demo("gate-sign");
  LogEntry shallow = like(job, "2026-05-02T10:00:00Z");
  shallow.mishaps = {{Mishap::TooShallow, 0.3, {}}};
  auto lesson = lesson_of("learnt-depth", job, {shallow});
  REQUIRE(lesson);
  CHECK_THAT(lesson->text, Catch::Contains("too shallow"));
  CHECK_FALSE(lesson->apply);
  LogEntry well = like(job, "2026-05-03T10:00:00Z");
  well.well = true;
  CHECK_FALSE(lesson_of("learnt-depth", job, {well, shallow}));
  LogEntry elsewhere = shallow;
  elsewhere.machine = "another";
  CHECK_FALSE(lesson_of("learnt-depth", job, {elsewhere}));
  // By hand: the mean of 0.3 and 0.5 mm is 0.4, 0.016 in.
  LogEntry more = shallow;
  more.mishaps.front().mm = 0.5;
  lesson = lesson_of("learnt-depth", job, {more, shallow});
  REQUIRE(lesson);
  CHECK_THAT(lesson->text, Catch::Contains("0.016 in") || Catch::Contains("0.4 mm"));
  CHECK_THAT(lesson->sum, Catch::Contains("2 times"));
  // The other way since then: that run alone.
  LogEntry deep = shallow;
  deep.mishaps = {{Mishap::TooDeep, 0.2, {}}};
  lesson = lesson_of("learnt-depth", job, {deep, more, shallow});
  REQUIRE(lesson);
  CHECK_THAT(lesson->text, Catch::Contains("too deep"));
  // A depth that was asked too small is no fault of the machine's.
  LogEntry asked = shallow;
  asked.mishaps.front().mm = 4;
  CHECK_FALSE(lesson_of("learnt-depth", job, {asked}));
}

TEST_CASE("how a run came out is said anew, and one picture of several is taken out; all else stays") {
  std::mt19937 random(11);
  const OwnHome home;
  LogBook book(log_path());
  const LogEntry entry = random_entry(random);
  const std::int64_t id = book.add(entry, {"one", "two", "three"});
  const std::int64_t other = book.add(random_entry(random), {"four"});
  book.say_outcome(id, false, {{Mishap::Rough, 0, BitId("v60")}, {Mishap::TooDeep, 0.5, {}}}, 90.5);
  book.remove_picture(id, 1);
  book.remove_picture(id, 7);  // there is none
  CHECK(book.pictures(id) == std::vector<std::string>{"one", "three"});
  CHECK(book.pictures(other) == std::vector<std::string>{"four"});
  for (const LogEntry& e : book.entries()) {
    if (e.id != id) continue;
    LogEntry wanted = entry;
    wanted.id = id;
    wanted.job_text.clear();  // entries() leaves it out
    wanted.well = false;
    wanted.took = 90.5;
    wanted.mishaps = {{Mishap::Rough, 0, BitId("v60")}, {Mishap::TooDeep, 0.5, {}}};
    CHECK(e == wanted);
  }
  CHECK(asked(log_path(), "SELECT took FROM entries WHERE id = " + std::to_string(id)) == "90.5");
}

TEST_CASE("a bit that broke wood out is fed as it came out well, or three quarters as fast") {
  const Job job = demo("gate-sign");
  const double now = load_rack().find("v60")->feeds_in("soft").feed;
  LogEntry rough = like(job, "2026-05-02T10:00:00Z");
  rough.bits = {{"v60", "V", now, 500, 16'000, 60, 5}};
  rough.mishaps = {{Mishap::BrokeOut, 0, "v60"}};
  auto lesson = lesson_of("learnt-feed", job, {rough});
  REQUIRE(lesson);
  Job mended = job;
  lesson->apply(mended);
  CHECK(mended.run.feeds.at("v60").feed == Approx(0.75 * now).margin(10));
  CHECK_FALSE(lesson_of("learnt-feed", mended, {rough}));
  LogEntry well = like(job, "2026-05-01T10:00:00Z");
  well.bits = {{"v60", "V", 0.9 * now, 500, 16'000, 60, 5}};
  well.well = true;
  lesson = lesson_of("learnt-feed", job, {rough, well});
  REQUIRE(lesson);
  lesson->apply(mended);
  CHECK(mended.run.feeds.at("v60").feed == Approx(0.9 * now));
  // A new bit later cut well as fast as ever; another wood, another bit, or nobody knows which: nothing is said.
  well.bits.front().feed = now;
  CHECK_FALSE(lesson_of("learnt-feed", job, {well, rough}));
  for (const auto& change : std::vector<std::function<void(LogEntry&)>>{
           [](LogEntry& e) { e.wood = "white-oak"; }, [](LogEntry& e) { e.mishaps.front().bit = "flat-1/8in"; },
           [](LogEntry& e) { e.mishaps.front().bit.clear(); }}) {
    LogEntry other = rough;
    change(other);
    CHECK_FALSE(lesson_of("learnt-feed", job, {other}));
  }
  CHECK(came_out_well({well}, "v60", job.blank.species));
  CHECK_FALSE(came_out_well({rough}, "v60", job.blank.species));
}

TEST_CASE("an inlay that stood high or open is asked otherwise the next time, by the flank's own slope") {
  const Job job = demo("inlaid-lid");  // 60° V, pocket 5 mm, contact 3.8 mm
  const Item& sprig = *job.find("sprig");
  REQUIRE(sprig.cut.inlay.contact == 3.8);
  LogEntry run = like(job, "2026-05-02T10:00:00Z");
  run.inlays = {{"Sprig", "v60", true, 5, 3.8, 0}};
  run.mishaps = {{Mishap::InlayTight, 0.3, {}}};
  auto lesson = lesson_of("learnt-inlay", job, {run});
  REQUIRE(lesson);
  Job mended = job;
  lesson->apply(mended);
  CHECK(mended.find("sprig")->cut.inlay.contact == Approx(4.1));  // it comes to lie 0.3 mm deeper
  CHECK_FALSE(lesson_of("learnt-inlay", mended, {run}));
  // Open by 0.1 mm: 0.1 / tan 30° = 0.173 mm less contact closes it.
  run.mishaps = {{Mishap::InlayGap, 0.1, {}}};
  lesson = lesson_of("learnt-inlay", job, {run});
  REQUIRE(lesson);
  mended = job;
  lesson->apply(mended);
  CHECK(mended.find("sprig")->cut.inlay.contact == Approx(3.8 - 0.1732).margin(0.001));
  CHECK_FALSE(lesson_of("learnt-inlay", mended, {run}));
  // So tight that the pocket has no room for it: words only.
  run.mishaps = {{Mishap::InlayTight, 1.1, {}}};
  lesson = lesson_of("learnt-inlay", job, {run});
  REQUIRE(lesson);
  CHECK_FALSE(lesson->apply);
  // Another depth is another fit; a later run that came out well is the last word.
  LogEntry well = run;
  well.well = true;
  well.mishaps.clear();
  CHECK_FALSE(lesson_of("learnt-inlay", job, {well, run}));
  run.inlays.front().depth = 4;
  CHECK_FALSE(lesson_of("learnt-inlay", job, {run}));
}

TEST_CASE("what was changed since the last run is said by names; a count of boards is no change") {
  Job job = demo("gate-sign");
  const std::string mark = fingerprint(job);
  job.run.made = 3;
  job.run.accepted.push_back("a/b");
  CHECK(fingerprint(job) == mark);
  job.run.made = 0;
  job.run.accepted.clear();
  const std::string before = write_job(job);
  Item& name = *job.find("name");
  name.cut.depth = 6;
  CHECK(fingerprint(job) != mark);
  std::vector<std::string> lines = what_changed(before, write_job(job));
  REQUIRE(lines.size() == 1);
  CHECK_THAT(lines.front(),
             Catch::Contains("“" + name.piece.name + "”") && Catch::Contains("depth") && Catch::EndsWith("→ 6"));
  job.items.pop_back();
  job.blank.width += 10;
  lines = what_changed(before, write_job(job));
  CHECK(lines.size() == 3);
  CHECK(what_changed(before, before).empty());

  const Plan plan = doyen::plan(job, load_rack(), machine_for(job));
  LogEntry last;
  last.job_text = before;
  const LogEntry entry = entry_of(plan, "/a/b.doyen", "2026-11-28T10:00:00Z", &last);
  CHECK(entry.changed.size() == 3);
  CHECK(entry.bits.size() >= 2);
  double told = 0;
  for (const BitRun& run : plan.runs) told += run.time.seconds;
  CHECK(entry.told == Approx(told));
  // Found again by its file although it was changed; by its mark wherever it lies.
  LogEntry of_file = entry;
  of_file.mark = "x";
  of_file.job = "x";
  CHECK(last_of(job, "/a/b.doyen", {of_file}) != nullptr);
  CHECK(last_of(job, "/c.doyen", {of_file}) == nullptr);
  CHECK(last_of(job, "/c.doyen", {entry}) != nullptr);
  // By its name, too, unless nobody has named it yet.
  Job another = job;
  another.blank.width += 1;
  CHECK(last_of(another, "/c.doyen", {entry}) != nullptr);
  another.name = Job{}.name;
  LogEntry unnamed = entry;
  unnamed.job = another.name;
  CHECK(last_of(another, "/c.doyen", {unnamed}) == nullptr);
}

TEST_CASE("a job is the same when it was saved and opened again: nothing of it was changed") {
  for (const char* name : {"gate-sign", "inlaid-lid", "fingerpost"}) {
    const Job job = demo(name);
    const std::filesystem::path file = std::filesystem::temp_directory_path() / "doyen-same-job.doyen";
    save_job(job, file.string());
    const Job again = load_job(file.string());
    std::filesystem::remove(file);
    CHECK(fingerprint(again) == fingerprint(job));
    CHECK(what_changed(write_job(job), write_job(again)) == std::vector<std::string>{});
  }
}

TEST_CASE("entries are found by every word that is asked for") {
  LogEntry e;
  e.made = "2026-03-04T05:06:07Z";
  e.job = "Potting shed";
  e.wood = "black-walnut";
  e.mishaps = {{Mishap::BrokeOut, 0, "v60"}};
  e.words = "Größe war falsch";
  CHECK(matches(e, ""));
  CHECK(matches(e, "walnut POTTING"));
  CHECK(matches(e, "broke 2026-03"));
  CHECK(matches(e, "Größe"));
  CHECK_FALSE(matches(e, "walnut oak"));
}
