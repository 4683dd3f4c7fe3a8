// What the user accepts of what was found stays on view, a grade lower, with the reason, and can be taken back.
#include "verdicts/accepted.hpp"

#include <catch2/catch.hpp>

#include "oracle.hpp"
#include "planning/plan.hpp"
#include "random_jobs.hpp"

using namespace doyen;
using namespace workbench;

TEST_CASE(
    "every warning and stop of random jobs can be accepted with a reason, is a grade lower then, and comes back") {
  const Rack rack = load_rack();
  int tried = 0;
  for (unsigned seed = 300; seed < 330; ++seed) {
    const Job job = JobMaker(seed).job();
    const Plan before = plan(job, rack, machine_for(job));
    for (const Verdict& v : before.verdicts) {
      if (v.grade == Grade::Note) continue;
      INFO("seed " << seed << ", " << v.code);
      Job then = job;
      accept(then, acceptance_name(v), "tried on an offcut");
      const Job again = read_job(write_job(then), "kept");  // it stays with the job
      CHECK(again == then);
      const Plan after = plan(again, rack, machine_for(again));
      for (const Verdict& w : after.verdicts) {
        if (acceptance_name(w) != acceptance_name(v) || !w.accepted) continue;
        CHECK(w.because == "tried on an offcut");
        CHECK(w.why.find("tried on an offcut") != std::string::npos);
      }
      const auto of_grade = [&](const Plan& p, Grade grade) {
        return std::count_if(p.verdicts.begin(), p.verdicts.end(), [&](const Verdict& w) {
          return acceptance_name(w) == acceptance_name(v) && w.grade == grade;
        });
      };
      CHECK(of_grade(after, Grade::Stop) == 0);
      // Nothing else is changed by it.
      CHECK(after.verdicts.size() == before.verdicts.size());
      CHECK(after.seconds == before.seconds);
      const auto accepted =
          std::find_if(after.verdicts.begin(), after.verdicts.end(), [](const Verdict& w) { return w.accepted; });
      REQUIRE(accepted != after.verdicts.end());
      Job back = again;
      take_back_acceptance(back, acceptance_name(*accepted));
      CHECK(back == job);
      ++tried;
    }
  }
  CHECK(tried > 40);
}

TEST_CASE("what is accepted of one piece is not accepted of another") {
  Job job = board();
  for (const char* id : {"a", "b"}) {
    Item item;
    item.piece = {id, id, PlainShape{PlainShape::Kind::Rectangle, 30, 30}, {*id == 'a' ? 30.0 : 90.0, 40}, 0};
    item.cut = cut(Kind::CutOut, 1);
    item.cut.through.tabs.wanted = false;
    job.items.push_back(item);
  }
  const Rack rack = load_rack();
  accept(job, "no-tabs/a", "glued to the bed with paper between");
  const Plan p = plan(job, rack, machine_for(job));
  int stops = 0, accepted = 0;
  for (const Verdict& v : p.verdicts) {
    if (v.code != "no-tabs") continue;
    stops += v.grade == Grade::Stop ? 1 : 0;
    accepted += v.accepted ? 1 : 0;
    CHECK(v.accepted == (v.piece == "a"));
  }
  CHECK(stops == 1);
  CHECK(accepted == 1);
}
