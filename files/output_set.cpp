#include "files/output_set.hpp"
#include "files/cut_list.hpp"

#include <algorithm>
#include <filesystem>
#include <map>
#include <optional>

#include "files/list/plates_found.hpp"
#include "files/outputs.hpp"
#include "files/panel_list.hpp"
#include "files/png_write.hpp"
#include "json_reading.hpp"
#include "planning/further_boards.hpp"
#include "storage/atomic_file.hpp"
#include "storage/file_set.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

namespace fs = std::filesystem;

constexpr const char* kPlan = "plan.json";
constexpr std::size_t kMostFiles = 5000;

// The set that stands in a folder, as its plan.json tells.
struct LastSet {
  std::string job, key;
  std::map<std::string, std::string> marks;  // by name
};

bool lies_inside(const std::string& name) {
  const fs::path path(name);
  return !name.empty() && !path.is_absolute() && std::find(path.begin(), path.end(), "..") == path.end();
}

std::optional<LastSet> last_set(const std::string& folder) {
  const std::string path = folder + "/" + kPlan;
  std::error_code error;
  if (!fs::is_regular_file(path, error)) return {};
  try {
    const Json json = parse_json(read_file(path), path);
    const JsonView plan(json, path);
    if (!plan.has("set")) return {};
    const JsonView view = plan.object("set");
    LastSet set{view.text("job"), view.text("key"), {}};
    for (const Json& each : view.array("files", kMostFiles)) {
      const JsonView file(each, path + ".set.files");
      if (lies_inside(file.text("name"))) set.marks[file.text("name")] = file.text("mark");
    }
    return set;
  } catch (const Problem&) {
    return {};  // not one of Doyen's: nothing there is ours
  }
}

// Still as it was written.
bool unchanged(const std::string& folder, const std::string& name, const LastSet& set) {
  const auto mark = set.marks.find(name);
  if (mark == set.marks.end()) return false;
  try {
    return mark_of(read_file(folder + "/" + name)) == mark->second;
  } catch (const Problem&) {
    return false;
  }
}

std::string listed(const std::vector<std::string>& names) {
  std::string words;
  constexpr std::size_t kShown = 4;
  for (std::size_t i = 0; i < std::min(kShown, names.size()); ++i) words += (i > 0 ? ", " : "") + names[i];
  if (names.size() > kShown) words += " and " + std::to_string(names.size() - kShown) + " more";
  return words;
}

// What must go with the new set. Throws InTheWay.
std::vector<std::string> make_way(const std::string& folder, const std::vector<SetFile>& coming,
                                  const OutputOrder& order) {
  const std::optional<LastSet> last = last_set(folder);
  const bool own = last && std::find(order.job_keys.begin(), order.job_keys.end(), last->key) != order.job_keys.end();
  std::vector<std::string> in_way;
  for (const SetFile& file : coming) {
    std::error_code error;
    if (!fs::exists(folder + "/" + file.name, error)) continue;
    if (file.name == kPlan ? !own : !(own && unchanged(folder, file.name, *last))) in_way.push_back(file.name);
  }
  if (!in_way.empty() && !order.replace) {
    if (last && !own)
      throw in_the_way(say("The folder “{0}” holds the files of another job, “{1}” ({2}). Nothing was written.", folder,
                           last->job, listed(in_way)));
    throw in_the_way(
        own ? say("The folder “{0}” holds files that were changed since Doyen wrote them: {1}. Nothing was written.",
                  folder, listed(in_way))
            : say("The folder “{0}” holds files that are not this job's: {1}. Nothing was written.", folder,
                  listed(in_way)));
  }
  std::vector<std::string> gone;
  if (!last || !(own || order.replace)) return gone;
  for (const auto& each : last->marks) {
    const std::string& name = each.first;
    const bool comes = std::any_of(coming.begin(), coming.end(), [&](const SetFile& f) { return f.name == name; });
    if (!comes && unchanged(folder, name, *last)) gone.push_back(name);
  }
  return gone;
}

// One board's files, with their names inside the set's folder; its plan comes last and is returned to be completed.
struct BoardFiles {
  std::vector<SetFile> files;
  Json plan;
  Judgement judgement;
};

// Of a plate that many are made like, or a sign that is made of panels: it is not cut itself, its boards are.
BoardFiles files_of_pattern(const Plan& given, const std::vector<FurtherPlan>& further, const Cancel& cancel) {
  BoardFiles out;
  out.files.push_back({"proof.png", png_bytes(board_picture(given, 1400, Side::Front, cancel))});
  if (given.job.plates.there()) {
    out.files.push_back({"plates.csv", plates_found_csv(given.job)});
  } else if (given.job.made_as_panels()) {
    std::vector<const Plan*> panels;
    for (const FurtherPlan& other : further) {
      if (other.kind == FurtherBoard::Kind::Panel) panels.push_back(&other.plan);
    }
    out.files.push_back({"panels.pdf", panel_list_pdf(given, panels, cancel)});
  }
  if (given.job.plates.strips.wanted) out.files.push_back({"cut-list.pdf", cut_list_pdf(given.job)});
  out.plan = plan_json(given);
  out.plan["files"] = Json::array();
  out.plan["lookRound"] = Json::array();
  return out;
}

// What is said of several boards together: the worst of each.
void add_worst(Judgement& all, const Judgement& one) {
  all.cell = std::max(all.cell, one.cell);
  all.cells += one.cells;
  all.within = std::max(all.within, one.within);
  all.faults.insert(all.faults.end(), one.faults.begin(), one.faults.end());
  if (one.left.mm > all.left.mm) all.left = one.left;
}

BoardFiles files_of(const Plan& given, const std::string& folder, bool anyway, const Cancel& cancel) {
  BoardFiles out;
  const std::vector<OutputFile> gcode = gcode_files(given);
  out.judgement = judge_files(given, gcode, writing_cell(given.job.blank), cancel);
  Plan plan = given;
  add_judgement(plan, out.judgement);
  if (spoils(out.judgement, plan.job) && !anyway) {
    const auto first = std::find_if(plan.verdicts.begin(), plan.verdicts.end(),
                                    [](const Verdict& v) { return v.grade == Grade::Stop; });
    throw bad_input(say("Nothing was written. {0} {1}", first->text, first->why));
  }
  OutputSource source(plan, gcode, out.judgement, cancel);
  for (const Output make : outputs()) {
    for (SetFile& file : make(source)) {
      file.name.insert(0, folder);
      out.files.push_back(std::move(file));
    }
  }
  out.plan = plan_json(plan, judgement_json(out.judgement));
  return out;
}

}  // namespace

std::string key_of_job_file(const std::string& path) {
  std::error_code error;
  const fs::path whole = fs::weakly_canonical(fs::absolute(path, error), error);
  return mark_of(error ? path : whole.string());
}

std::vector<FurtherPlan> plan_further(const Job& job, const Rack& rack, bool anyway, const Cancel& cancel) {
  std::vector<FurtherPlan> plans;
  PlanCache cache;  // what stands on several sheets alike is worked out once
  for (const FurtherBoard& board : further_boards(job, rack)) {
    plans.push_back({plan(board.job, rack, machine_for(board.job), &cache, cancel), board.folder, board.kind});
    const Plan& planned = plans.back().plan;
    if (planned.has_stop() && !anyway)
      throw bad_input(say("Nothing was written: the board for “{0}” cannot be cut so. {1}", board.folder,
                          planned.verdicts.front().text + " " + planned.verdicts.front().why));
  }
  return plans;
}

Written write_outputs(const Plan& plan, const std::vector<FurtherPlan>& further, const std::string& folder,
                      const OutputOrder& order, const Cancel& cancel) {
  mend_file_set(folder);
  // Everything is worked out before the first file is touched.
  const auto told = [&](std::size_t boards) {
    if (order.told) order.told(static_cast<double>(boards) / static_cast<double>(further.size() + 1));
  };
  const bool pattern = plan.job.made_as_others();
  BoardFiles board = pattern ? files_of_pattern(plan, further, cancel) : files_of(plan, "", order.anyway, cancel);
  told(1);
  std::vector<SetFile> files = std::move(board.files);
  bool spoilt = spoils(board.judgement, plan.job);
  std::size_t boards = 1;
  Json sheets = Json::array();
  double seconds = 0;
  for (const FurtherPlan& other : further) {
    BoardFiles its = files_of(other.plan, other.folder + "/", order.anyway, cancel);
    std::move(its.files.begin(), its.files.end(), std::back_inserter(files));
    if (pattern) {
      spoilt = spoilt || spoils(its.judgement, other.plan.job);
      add_worst(board.judgement, its.judgement);
      sheets.push_back({{"folder", other.folder}, {"seconds", other.plan.seconds}});
      seconds += other.plan.seconds;
    }
    files.push_back({other.folder + "/" + kPlan, json_text(its.plan, 1) + "\n"});
    files.push_back({other.folder + "/board.doyen", job_text(other.plan.job)});
    told(++boards);
  }
  Json set{{"job", plan.job.name},
           {"key", order.job_keys.empty() ? std::string() : order.job_keys.front()},
           {"files", Json::array()}};
  for (const SetFile& file : files) set["files"].push_back({{"name", file.name}, {"mark", mark_of(file.bytes)}});
  if (pattern) {
    board.plan[plan.job.plates.there()     ? "sheets"
               : plan.job.made_as_panels() ? "panels"
                                           : "boards"] = std::move(sheets);
    board.plan["seconds"] = seconds;
  }
  board.plan["set"] = std::move(set);
  files.push_back({kPlan, json_text(board.plan, 1) + "\n"});
  cancel.check();
  replace_file_set(folder, files, make_way(folder, files, order));
  Written written{{}, std::move(board.judgement), spoilt};
  for (const SetFile& file : files) written.names.push_back(file.name);
  // The board's own files first, its plan among them.
  std::stable_partition(written.names.begin(), written.names.end(),
                        [](const std::string& name) { return name.find('/') == std::string::npos; });
  return written;
}

}  // namespace doyen
