// log: what was run and how it came out: kept, looked through, written for other programs.
#include <chrono>
#include <cmath>
#include <cstdio>
#include <filesystem>

#include "cli/command.hpp"
#include "files/log/log_csv.hpp"
#include "log/entry_of.hpp"
#include "log/log_book.hpp"
#include "log/log_texts.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

namespace doyen::cli {
namespace {

struct LogOptions {
  std::string job, words, why, when, search, csv, json, from;
  std::vector<std::string> mishaps;
  double took = 0;  // minutes
  int remove = 0;
  bool well = false;
};

// “not-through=0.3”, “broke-out@v60”, “moved”: the kind, mm, and the bit that did it.
MishapSeen mishap_from(const std::string& words) {
  MishapSeen seen;
  std::string kind = words;
  if (const auto at = kind.find('@'); at != std::string::npos) {
    seen.bit = BitId(kind.substr(at + 1));
    kind.resize(at);
  }
  if (const auto is = kind.find('='); is != std::string::npos) {
    seen.mm = parse_length(kind.substr(is + 1), Unit::Millimetre);
    kind.resize(is);
  }
  const std::optional<Mishap> mishap = mishap_of(kind);
  if (!mishap) {
    std::string known;
    for (const Mishap each : all_mishaps()) known += (known.empty() ? "" : ", ") + std::string(to_word(each));
    throw Usage("--fault: one of " + known + " was expected, not “" + kind + "”.");
  }
  if (seen.mm < 0 || (seen.mm > 0 && !has_amount(*mishap)))
    throw Usage("--fault: no such length goes with “" + kind + "”.");
  seen.mishap = *mishap;
  return seen;
}

std::string now_in_utc() {
  const auto now = std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now());
  const std::time_t t = std::chrono::system_clock::to_time_t(now);
  std::tm utc{};
  gmtime_r(&t, &utc);
  char text[32];
  std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%SZ", &utc);
  return text;
}

// 2026-11-28T14:30:00Z
void check_time(const std::string& words) {
  const std::string form = "dddd-dd-ddTdd:dd:ddZ";
  bool fine = words.size() == form.size();
  for (std::size_t i = 0; fine && i < form.size(); ++i)
    fine = form[i] == 'd' ? words[i] >= '0' && words[i] <= '9' : words[i] == form[i];
  if (!fine) throw Usage("--when: a time such as 2026-11-28T14:30:00Z was expected, not “" + words + "”.");
}

void keep(LogBook& book, const LogOptions& options) {
  if (options.well && !options.mishaps.empty()) throw Usage("--well and --fault exclude each other.");
  if (!options.when.empty()) check_time(options.when);
  const Plan plan = plan_of(load_job(options.job));
  const std::string file = std::filesystem::absolute(options.job).lexically_normal().string();
  const std::vector<LogEntry> log = book.entries();
  LogEntry before;
  const LogEntry* last = last_of(plan.job, file, log);
  if (last != nullptr) {
    before = *last;
    before.job_text = book.job_text(last->id);
  }
  LogEntry entry =
      entry_of(plan, file, options.when.empty() ? now_in_utc() : options.when, last == nullptr ? nullptr : &before);
  entry.took = 60 * options.took;
  entry.well = options.well;
  entry.words = options.words;
  entry.why = options.why;
  for (const std::string& mishap : options.mishaps) entry.mishaps.push_back(mishap_from(mishap));
  entry.id = book.add(entry);
  std::printf("Kept as %lld.\n", static_cast<long long>(entry.id));
  for (const std::string& line : entry.changed) std::printf("changed since the last one: %s\n", line.c_str());
}

void list(const std::vector<LogEntry>& entries) {
  for (const LogEntry& e : entries) {
    std::printf("%lld  %s  %s  %s on %s: %s\n", static_cast<long long>(e.id), e.made.c_str(), e.job.c_str(),
                e.wood.c_str(), e.machine.c_str(), outcome_in_words(e, {}).c_str());
    std::printf("    told %s%s\n", format_duration(e.told).c_str(),
                e.took > 0 ? (", took " + format_duration(e.took)).c_str() : "");
    for (const std::string& line : e.changed) std::printf("    changed: %s\n", line.c_str());
    for (const auto& [what, words] : {std::pair("why", e.why), std::pair("said", e.words)}) {
      if (!words.empty()) std::printf("    %s: %s\n", what, words.c_str());
    }
  }
}

int run_log(const LogOptions& options) {
  LogBook book(log_path());
  if (!options.from.empty()) {
    const std::vector<LogEntry> read = read_log_json(read_file(options.from), options.from);
    std::printf("%zu entries taken in.\n", book.take(read));
  }
  if (!options.job.empty()) keep(book, options);
  if (options.remove > 0) book.remove(options.remove);
  std::vector<LogEntry> entries = book.entries();
  std::erase_if(entries, [&](const LogEntry& e) { return !matches(e, options.search); });
  if (!options.csv.empty()) write_file_atomically(options.csv, log_csv(entries));
  if (!options.json.empty()) {
    for (LogEntry& entry : entries) entry.job_text = book.job_text(entry.id);
    write_file_atomically(options.json, log_json(entries));
  }
  if (options.csv.empty() && options.json.empty() && options.job.empty()) list(entries);
  return kFine;
}

}  // namespace

Command log_command() {
  return {"log", "What was run and how it came out: keep it, look through it, write it for other programs",
          [](Arguments& a) {
            auto o = std::make_shared<LogOptions>();
            a.text("--keep", o->job, "Keep a run of this job");
            a.number("--took", o->took, 0, 100'000, "Minutes that the machine ran, bit changes left out");
            a.flag("--well", o->well, "It came out well");
            a.texts("--fault", o->mishaps,
                    "What went wrong, such as not-through=0.3 (mm), broke-out@v60 (the bit), moved");
            a.text("--words", o->words, "In your own words");
            a.text("--why", o->why, "Why it was changed since the last time");
            a.text("--when", o->when, "When, in UTC, such as 2026-11-28T14:30:00Z; now without it");
            a.text("--search", o->search, "Only entries in which all these words stand");
            a.text("--csv", o->csv, "Write them as a CSV file");
            a.text("--json", o->json, "Write them as a JSON file");
            a.text("--from", o->from, "Take in the entries of such a JSON file");
            a.whole("--remove", o->remove, 1, 1'000'000'000, "Take this entry out");
            return [o] { return run_log(*o); };
          }};
}

}  // namespace doyen::cli
