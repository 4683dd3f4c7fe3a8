// ways: the same thing cut otherwise, side by side.
#include <cstdio>

#include "cli/command.hpp"
#include "json_reading.hpp"
#include "planning/ways.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct WaysOptions {
  std::string job, piece;
  bool as_json = false;
};

int run_ways(const WaysOptions& options) {
  const Job job = load_job(options.job);
  if (!options.piece.empty() && job.find(options.piece) == nullptr) {
    std::string known;
    for (const Item& item : job.items) known += (known.empty() ? "" : ", ") + item.piece.id;
    throw bad_input("--piece: there is no “" + options.piece + "”; there are " + known + ".");
  }
  const Plan now = plan_of(job);
  const Rack rack = load_rack();
  PlanCache cache;
  std::vector<Way> ways = ways_of(now, rack, options.piece);
  for (Way& way : ways) work_out(way, now, rack, options.piece, &cache);
  mark_best(ways);
  Json all = Json::array();
  for (const Way& way : ways) {
    std::string best;
    if (way.best_time) best += ", quickest";
    if (way.best_quality) best += ", cleanest";
    if (way.fewest_changes) best += ", fewest bit changes";
    if (options.as_json) {
      Json bits = Json::array();
      for (const auto& [name, seconds] : way.bits) bits.push_back({{"bit", name}, {"seconds", seconds}});
      all.push_back({{"way", way.words},
                     {"now", way.as_it_is()},
                     {"seconds", way.seconds},
                     {"bitChanges", way.bit_changes},
                     {"unreached", way.unreached},
                     {"stops", way.stops},
                     {"warnings", way.minds},
                     {"comesFree", way.comes_free},
                     {"bits", std::move(bits)},
                     {"quickest", way.best_time},
                     {"cleanest", way.best_quality},
                     {"fewestChanges", way.fewest_changes}});
      continue;
    }
    std::printf("%10s  %s%s\n", format_duration(way.seconds).c_str(), way.words.c_str(), best.c_str());
    if (way.unreached > 0.05)
      std::printf("            %s unreached\n", format_area(way.unreached, job.lengths).c_str());
    if (way.stops > 0) std::printf("            %d stops stand against it\n", way.stops);
  }
  if (options.as_json)
    std::printf("%s\n", all.dump(1).c_str());
  else if (ways.empty())
    std::printf("There is no other way to cut it with these bits.\n");
  return kFine;
}

}  // namespace

Command ways_command() {
  return {"ways", "Lays ways to cut a piece, or the whole job, side by side: time, bits, what stays", [](Arguments& a) {
            auto o = std::make_shared<WaysOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--piece", o->piece, "Its id; left out: the whole job");
            a.flag("--json", o->as_json);
            return [o] { return run_ways(*o); };
          }};
}

}  // namespace doyen::cli
