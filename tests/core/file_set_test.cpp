// A folder's files are replaced whole or not at all: every system call fails once in turn, and once for good as a kill
// leaves it.
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <map>

#include "failing_calls.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/file_set.hpp"

using namespace doyen;
using workbench::Failing;
namespace fs = std::filesystem;

namespace {

using Contents = std::map<std::string, std::string>;

Contents contents(const fs::path& folder) {
  Contents all;
  for (const auto& entry : fs::recursive_directory_iterator(folder)) {
    if (entry.is_regular_file()) all[fs::relative(entry.path(), folder).string()] = read_file(entry.path().string());
  }
  return all;
}

// A folder with a set of three files, one of them in a folder of its own, and something of the user's beside them.
struct Place {
  fs::path root, folder;
  Place() {
    std::string name = (fs::temp_directory_path() / "doyen-set-XXXXXX").string();
    root = ::mkdtemp(name.data());
    folder = root / "out";
    fs::create_directories(folder / "plugs");
    for (const auto& [file, text] : old()) write_file_atomically((folder / file).string(), text);
  }
  ~Place() { fs::remove_all(root); }
  Place(const Place&) = delete;
  Place& operator=(const Place&) = delete;
  static Contents old() {
    return {
        {"01-v60.nc", "old one"}, {"02-flat.nc", "old two"}, {"plugs/01-v60.nc", "old plug"}, {"letter.txt", "mine"}};
  }
  static std::vector<SetFile> coming() {
    return {
        {"01-v60.nc", "new one"}, {"03-ball.nc", "new three"}, {"plugs/01-v60.nc", "new plug"}, {"inlay/a.nc", "n"}};
  }
  static Contents fresh() {
    return {{"01-v60.nc", "new one"},
            {"03-ball.nc", "new three"},
            {"plugs/01-v60.nc", "new plug"},
            {"inlay/a.nc", "n"},
            {"letter.txt", "mine"}};
  }
};

}  // namespace

TEST_CASE("a set replaces the last one, and what is not of it stays") {
  const Place place;
  replace_file_set(place.folder.string(), Place::coming(), {"02-flat.nc", "never-there.nc"});
  CHECK(contents(place.folder) == Place::fresh());
  const std::string deep = (place.root / "a/b/c").string();
  replace_file_set(deep, {{"x.nc", "x"}});
  CHECK(contents(deep) == Contents{{"x.nc", "x"}});
}

TEST_CASE("a failure at any system call leaves the old set whole") {
  int calls = 0;
  {
    const Place place;
    Failing count(-1, false);
    const SystemCalls::Instead instead(count);
    replace_file_set(place.folder.string(), Place::coming(), {"02-flat.nc"});
    calls = count.seen;
  }
  REQUIRE(calls > 30);
  int failed = 0;
  for (int n = 1; n <= calls; ++n) {
    INFO("call " << n << " of " << calls);
    const Place place;
    bool threw = false;
    {
      Failing failing(n, false);
      const SystemCalls::Instead instead(failing);
      try {
        replace_file_set(place.folder.string(), Place::coming(), {"02-flat.nc"});
      } catch (const Problem& problem) {
        threw = true;
        CHECK(problem.kind() == Problem::Kind::CannotWrite);
      }
    }
    failed += threw ? 1 : 0;
    // What cannot be swept up is swept up next time; the set itself is the one or the other.
    Contents now = contents(place.folder);
    std::erase_if(now, [](const auto& file) { return file.first.rfind(".doyen-replacing-", 0) == 0; });
    CHECK(now == (threw ? Place::old() : Place::fresh()));
    replace_file_set(place.folder.string(), Place::coming(), {"02-flat.nc"});
    CHECK(contents(place.folder) == Place::fresh());
  }
  CHECK(failed > calls / 2);
}

TEST_CASE("whenever it is killed, the next start finds the old set or the new one") {
  bool old_stood = false, new_stood = false;
  for (int n = 1; n < 200; ++n) {
    INFO("killed at call " << n);
    const Place place;
    bool killed = false;
    {
      Failing failing(n, true);
      const SystemCalls::Instead instead(failing);
      try {
        replace_file_set(place.folder.string(), Place::coming(), {"02-flat.nc"});
      } catch (const Problem&) {
        killed = true;
      }
      killed = killed || failing.seen >= n;
    }
    mend_file_set(place.folder.string());
    const Contents now = contents(place.folder);
    CHECK((now == Place::old() || now == Place::fresh()));
    old_stood = old_stood || now == Place::old();
    new_stood = new_stood || now == Place::fresh();
    if (!killed) break;
  }
  CHECK(old_stood);
  CHECK(new_stood);
}

TEST_CASE("killed at any moment of replacing, over and over, the set is one or the other", "[heavy]") {
  const Place place;
  const std::string job_file = (place.root / "sign.doyen").string();
  write_file_atomically(job_file, std::string(200'000, 'o'));
  int killed_within = 0;
  for (int round = 0; round < 60; ++round) {
    const pid_t child = ::fork();
    REQUIRE(child >= 0);
    if (child == 0) {
      ::alarm(60);  // should nobody come to kill it
      for (;;) {
        replace_file_set(place.folder.string(), Place::coming(), {"02-flat.nc"});
        write_file_atomically(job_file, std::string(200'000, 'n'));
        replace_file_set(place.folder.string(),
                         {{"01-v60.nc", "old one"}, {"02-flat.nc", "old two"}, {"plugs/01-v60.nc", "old plug"}},
                         {"03-ball.nc", "inlay/a.nc"});
        write_file_atomically(job_file, std::string(200'000, 'o'));
      }
    }
    ::usleep(static_cast<useconds_t>(500 + 737 * round % 9000));
    ::kill(child, SIGKILL);
    int status = 0;
    ::waitpid(child, &status, 0);
    REQUIRE(WIFSIGNALED(status));
    for (const auto& entry : fs::directory_iterator(place.folder))
      killed_within += entry.path().filename().string().rfind(".doyen-replacing-", 0) == 0;
    mend_file_set(place.folder.string());
    const Contents now = contents(place.folder);
    INFO("round " << round);
    CHECK((now == Place::old() || now == Place::fresh()));
    const std::string job = read_file(job_file);
    CHECK((job == std::string(200'000, 'n') || job == std::string(200'000, 'o')));
  }
  CHECK(killed_within > 0);
}

TEST_CASE("a journal that names files elsewhere is left alone") {
  const Place place;
  const fs::path stage = place.folder / ".doyen-replacing-evil00";
  fs::create_directories(stage / "old");
  write_file_atomically((stage / "old/0").string(), "evil");
  write_file_atomically((stage / "journal.json").string(), R"({"steps":[{"name":"../letter.txt","stood":true}]})");
  write_file_atomically((place.root / "letter.txt").string(), "dear");
  CHECK_THROWS_AS(mend_file_set(place.folder.string()), Problem);
  CHECK(read_file((place.root / "letter.txt").string()) == "dear");
}
