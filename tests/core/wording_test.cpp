// What is said can be said in another language: sentences and their quantities are apart.
#include "wording/say.hpp"

#include <catch2/catch.hpp>
#include <set>

#include "planning/plan.hpp"
#include "random_jobs.hpp"

using namespace doyen;
using namespace workbench;

namespace {

// While it lives, Doyen speaks so.
struct Speaking {
  explicit Speaking(Catalogue how) { speak(std::move(how)); }
  ~Speaking() { speak({}); }
  Speaking(const Speaking&) = delete;
  Speaking& operator=(const Speaking&) = delete;
};

}  // namespace

TEST_CASE("a sentence is filled with its quantities, and counts choose their words") {
  CHECK(say("Nothing lies on the board yet.") == "Nothing lies on the board yet.");
  CHECK(say("{0} of “{1}”", "0.2 in", std::string("oak")) == "0.2 in of “oak”");
  CHECK(say("{1} before {0}", 1, "b") == "b before 1");
  CHECK(say("{0} {0|line|lines} {0|is|are} not cut", 1) == "1 line is not cut");
  CHECK(say("{0} {0|line|lines} {0|is|are} not cut", std::size_t{3}) == "3 lines are not cut");
  CHECK(say("{0} bit change{0||s}", 0) == "0 bit changes");
  // A slip in a sentence is seen, not swallowed, and never a crash.
  CHECK(say("{2} and {x} and {", "a") == "{2} and {x} and {");
}

TEST_CASE("what a name holds is never taken for a place in the sentence") {
  CHECK(say("“{0}” is {1}", "{1}", "cut") == "“{1}” is cut");
}

TEST_CASE("another language puts the same quantities in its own order") {
  const Speaking backwards([](std::string_view english) -> std::string {
    if (english == "{0} of {1} lies") return "von {1} liegt {0}";
    return {};
  });
  CHECK(say("{0} of {1} lies", "a", "b") == "von b liegt a");
  CHECK(say("unknown {0}", "x") == "unknown x");
}

TEST_CASE("everything that the checks say of random jobs goes through the catalogue") {
  std::set<std::string> bare;
  std::size_t heard = 0;
  const Rack rack = load_rack();
  const Speaking marked([](std::string_view english) { return "⟦" + std::string(english) + "⟧"; });
  const auto listen = [&](const std::string& code, const std::string& words) {
    if (words.empty()) return;
    ++heard;
    if (words.find("⟦") == std::string::npos) bare.insert(code + ": " + words);
  };
  for (unsigned seed = 1; seed <= 60; ++seed) {
    const Job job = JobMaker(seed).job();
    const Plan planned = plan(job, rack, machine_for(job));
    for (const Verdict& v : planned.verdicts) {
      listen(v.code, v.text);
      listen(v.code, v.why);
      for (const Remedy& r : v.remedies) listen(v.code, r.label);
    }
  }
  INFO(heard << " sentences");
  CHECK(heard > 400);
  for (const std::string& one : bare) UNSCOPED_INFO(one);
  CHECK(bare.empty());
}
