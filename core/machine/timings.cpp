#include "machine/timings.hpp"

#include <filesystem>

#include "json_reading.hpp"
#include "log/log_book.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kKept = 20;  // of a machine: it wears, and is tuned
constexpr double kDay = 24.0 * 3600.0;

}  // namespace

std::optional<double> Timings::factor(const std::string& machine) const {
  const auto found = of.find(machine);
  if (found == of.end() || found->second.empty()) return {};
  Timed all;
  for (const Timed& one : found->second) {
    all.told += one.told;
    all.took += one.took;
  }
  return all.took / all.told;
}

Likely likely_seconds(double told, std::optional<double> factor) {
  if (factor) return {told * *factor, told * *factor};
  return {0.95 * told, 1.3 * told};
}

Timings known_timings() {
  Timings all;
  try {
    all = load_timings();
  } catch (const Problem&) {
    all = {};
  }
  const auto log = known_log();
  for (auto entry = log->rbegin(); entry != log->rend(); ++entry) {
    const Timed timed{entry->told, entry->took};
    if (timed.took > 0 && timed.told > 0 && !unlikely(timed)) all.of[entry->machine].push_back(timed);
  }
  for (auto& [machine, runs] : all.of) {
    if (runs.size() > kKept) runs.erase(runs.begin(), runs.end() - kKept);
  }
  return all;
}

std::string likely_in_words(double told, const std::string& machine, double besides) {
  const std::optional<double> factor = known_timings().factor(machine);
  const Likely likely = likely_seconds(told, factor);
  const auto words = [&](double s) { return format_duration(besides + s); };
  return factor ? say("likely {0}, as it was timed", words(likely.to))
                : say("likely {0} to {1}: never timed", words(likely.from), words(likely.to));
}

bool unlikely(const Timed& timed) { return timed.took < 0.3 * timed.told || timed.took > 4 * timed.told; }

Timings read_timings(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  const JsonView top(document, where);
  if (top.text("format") != "doyen-timings/1") throw top.wrong("format", say("doyen-timings/1 was expected"));
  Timings timings;
  for (const Json& machine : top.array("machines", 1000)) {
    const JsonView v(machine, where + ".machines");
    std::vector<Timed>& runs = timings.of[v.text("id")];
    for (const Json& run : v.array("runs", 1000)) {
      const JsonView r(run, v.where() + ".runs");
      runs.push_back({r.number("told", 0.001, 1000 * kDay), r.number("took", 0.001, 1000 * kDay)});
    }
  }
  return timings;
}

std::string timings_path() { return user_file("machine-times.json"); }

Timings load_timings() {
  const std::string path = timings_path();
  std::error_code error;
  return std::filesystem::exists(path, error) ? read_timings(read_file(path), path) : Timings{};
}

}  // namespace doyen
