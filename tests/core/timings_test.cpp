// What machines really took: from the log and from the file of earlier Doyens.
#include <catch2/catch.hpp>

#include "log/log_book.hpp"
#include "machine/timings.hpp"
#include "own_home.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

using namespace doyen;

namespace {

void keep(const std::string& machine, double told, double took) {
  LogEntry entry;
  entry.made = "2026-11-28T10:00:00Z";
  entry.machine = machine;
  entry.told = told;
  entry.took = took;
  (void)LogBook(log_path()).add(entry);
}

}  // namespace

TEST_CASE("a machine that was timed is told by what it took over what was told; one that was not by a range") {
  const OwnHome home;
  CHECK(known_timings().of.empty());
  CHECK_FALSE(known_timings().factor("a"));
  CHECK(likely_seconds(100, {}).from == Approx(95));
  CHECK(likely_seconds(100, {}).to == Approx(130));
  keep("a", 600, 690);
  keep("a", 1200, 1290);
  keep("b", 100, 80);
  keep("b", 100, 0);       // not said
  keep("b", 100, 60'000);  // another unit
  // By hand: (690 + 1290) / (600 + 1200) = 1.1.
  CHECK(*known_timings().factor("a") == Approx(1.1));
  CHECK(*known_timings().factor("b") == Approx(0.8));
  CHECK(likely_seconds(100, known_timings().factor("a")).to == Approx(110));
  // What an earlier Doyen kept counts, too: (690 + 1290 + 420) / (600 + 1200 + 200) = 1.2.
  write_file_atomically(timings_path(),
                        R"({"format":"doyen-timings/1","machines":[{"id":"a","runs":[{"told":200,"took":420}]}]})");
  CHECK(*known_timings().factor("a") == Approx(1.2));
  for (int i = 0; i < 30; ++i) keep("a", 100, 100.0 + i);
  CHECK(known_timings().of.at("a").size() == 20);
  CHECK(known_timings().of.at("a").front().took == 110);
  // A file that nobody can read is said, stays as it is, and takes nothing from the log.
  for (const char* broken :
       {"{", "{}", R"({"format":"doyen-timings/1","machines":[{"id":"a","runs":[{"told":0,"took":1}]}]})",
        R"({"format":"doyen-timings/1","machines":[{"id":"a","runs":[{"told":1}]}]})"}) {
    write_file_atomically(timings_path(), broken);
    CHECK_THROWS_AS(load_timings(), Problem);
    CHECK(known_timings().of.at("a").size() == 20);
    CHECK(read_file(timings_path()) == broken);
  }
  CHECK(unlikely({1000, 25}));  // typed in another unit
  CHECK_FALSE(unlikely({1000, 1500}));
}
