#include "storage/file_set.hpp"

#include <fcntl.h>
#include <sys/stat.h>

#include <algorithm>
#include <cerrno>
#include <filesystem>
#include <system_error>

#include "json_reading.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/system_calls.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

namespace fs = std::filesystem;

// Beside the files, while they are replaced: new/N holds what comes, old/N what was taken away, and the journal says
// which names those are. As long as the journal stands, the old set can be put back.
constexpr const char* kStage = ".doyen-replacing-";
constexpr const char* kJournal = "journal.json";

// Exists in any form, a link to nothing included.
bool stands(const std::string& path) {
  std::error_code error;
  return fs::exists(fs::symlink_status(path, error));
}

void sync_folder(const std::string& path) {
  const int folder = ::open(path.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
  if (folder < 0) return;
  (void)SystemCalls::now().fsync(folder);
  (void)SystemCalls::now().close(folder);
}

// The stage goes as far as it can be taken away; what stays without its journal is swept up next time.
void sweep(const std::string& stage) {
  SystemCalls& calls = SystemCalls::now();
  for (const char* part : {"/new", "/old"}) {
    std::error_code error;
    for (const auto& entry : fs::directory_iterator(stage + part, error)) (void)calls.unlink(entry.path().string());
    (void)calls.rmdir(stage + part);
  }
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(stage, error)) (void)calls.unlink(entry.path().string());
  (void)calls.rmdir(stage);
}

struct Step {
  std::string name;
  bool comes = true;  // else it only goes
  bool stood = false;
};

// Whatever of the steps was done is undone. Safe to be done twice.
bool put_back(const std::string& folder, const std::string& stage, const std::vector<Step>& steps) {
  SystemCalls& calls = SystemCalls::now();
  bool all = true;
  for (std::size_t i = steps.size(); i-- > 0;) {
    const std::string place = folder + "/" + steps[i].name, n = std::to_string(i);
    if (stands(stage + "/old/" + n)) {
      all = calls.rename(stage + "/old/" + n, place) == 0 && all;
    } else if (!steps[i].stood && steps[i].comes && !stands(stage + "/new/" + n) && stands(place)) {
      all = calls.unlink(place) == 0 && all;
    }
  }
  return all;
}

std::vector<Step> steps_of(const std::string& journal) {
  std::vector<Step> steps;
  const Json json = parse_json(read_file(journal), journal);
  const JsonView view(json, journal);
  for (const Json& each : view.array("steps", 100'000)) {
    const JsonView step(each, journal + ".steps");
    steps.push_back({step.text("name"), step.flag_or("comes", true), step.flag_or("stood", false)});
    const fs::path name(steps.back().name);
    if (name.is_absolute() || std::find(name.begin(), name.end(), "..") != name.end())
      throw bad_input(say("“{0}” names a file outside its folder; it was left alone.", journal));
  }
  return steps;
}

std::string journal_of(const std::vector<Step>& steps) {
  Json json;
  json["about"] =
      say("Doyen is replacing the files of this folder. If it was killed, the old ones are put back when it next "
          "writes here.");
  json["steps"] = Json::array();
  for (const Step& step : steps)
    json["steps"].push_back({{"name", step.name}, {"comes", step.comes}, {"stood", step.stood}});
  return json_text(json, 1);
}

// The folders that are missing on the way to this one, made; those that were made are remembered.
void make_missing(const std::string& path, std::vector<std::string>& made) {
  if (path.empty() || fs::is_directory(path)) return;
  make_missing(fs::path(path).parent_path().string(), made);
  if (SystemCalls::now().mkdir(path) != 0 && !(errno == EEXIST && fs::is_directory(path)))
    throw cannot_write(say("The folder “{0}” could not be made: {1}.", path, reason()));
  made.push_back(path);
}

}  // namespace

void mend_file_set(const std::string& folder) {
  std::error_code error;
  std::vector<std::string> stages;
  for (const auto& entry : fs::directory_iterator(folder, error)) {
    if (entry.path().filename().string().rfind(kStage, 0) == 0 && entry.is_directory(error))
      stages.push_back(entry.path().string());
  }
  for (const std::string& stage : stages) {
    const std::string journal = stage + "/" + kJournal;
    if (stands(journal)) {
      if (!put_back(folder, stage, steps_of(journal)))
        throw cannot_write(say("What an interrupted run left in “{0}” could not be put back: {1}.", stage, reason()));
      (void)SystemCalls::now().unlink(journal);
    }
    sweep(stage);
  }
}

namespace {

// One set on its way: what was made, and what undoes it.
class Replacing {
 public:
  explicit Replacing(const std::string& folder) : folder_(folder) {}

  void plan_steps(const std::vector<SetFile>& files, const std::vector<std::string>& gone) {
    const std::string whole = fs::path(folder_).lexically_normal().string();
    make_missing(whole.size() > 1 && whole.back() == '/' ? whole.substr(0, whole.size() - 1) : whole, made_);
    mend_file_set(folder_);
    for (const SetFile& file : files) {
      const std::string place = folder_ + "/" + file.name;
      const std::string parent = fs::path(file.name).parent_path().string();
      if (!parent.empty()) make_missing(folder_ + "/" + parent, made_);
      struct stat old {};
      const bool stood = ::stat(place.c_str(), &old) == 0;
      if (stood && !S_ISREG(old.st_mode))
        throw cannot_write(say("“{0}” is not a plain file, so it was not replaced.", place));
      steps_.push_back({file.name, true, stands(place)});
    }
    for (const std::string& name : gone) {
      if (stands(folder_ + "/" + name)) steps_.push_back({name, false, true});
    }
  }

  // Every new file beside the old ones, and the list of what is about to happen.
  void lay_ready(const std::vector<SetFile>& files) {
    std::string stage_name = folder_ + "/" + kStage + "XXXXXX";
    if (calls_.mkdtemp(stage_name.data()) == nullptr)
      throw cannot_write(say("Nothing could be written into “{0}”: {1}.", folder_, reason()));
    stage_ = stage_name;
    for (const char* part : {"/new", "/old"}) {
      if (calls_.mkdir(stage_ + part) != 0)
        throw cannot_write(say("Nothing could be written into “{0}”: {1}.", folder_, reason()));
    }
    for (std::size_t i = 0; i < files.size(); ++i) {
      try {
        write_file_atomically(stage_ + "/new/" + std::to_string(i), files[i].bytes);
      } catch (const Problem& problem) {
        throw cannot_write(say("“{0}/{1}” could not be written, so nothing in that folder was changed. {2}", folder_,
                               files[i].name, problem.what()));
      }
    }
    write_file_atomically(stage_ + "/" + kJournal, journal_of(steps_));
    sync_folder(stage_);
  }

  void change_over() {
    for (std::size_t i = 0; i < steps_.size(); ++i) {
      const std::string place = folder_ + "/" + steps_[i].name, n = std::to_string(i);
      if ((steps_[i].stood && calls_.rename(place, stage_ + "/old/" + n) != 0) ||
          (steps_[i].comes && calls_.rename(stage_ + "/new/" + n, place) != 0))
        throw cannot_write(
            say("“{0}” could not be replaced, so everything in that folder stands as it stood: {1}.", place, reason()));
    }
    sync_folder(folder_);
    // From here on the new set stands.
    if (calls_.unlink(stage_ + "/" + kJournal) != 0)
      throw cannot_write(say("“{0}” could not be brought up to date: {1}.", folder_, reason()));
  }

  void tidy_up() { sweep(stage_); }

  void undo() {
    if (!stage_.empty()) {
      if (put_back(folder_, stage_, steps_)) (void)calls_.unlink(stage_ + "/" + kJournal);
      if (!stands(stage_ + "/" + kJournal)) sweep(stage_);
    }
    for (std::size_t i = made_.size(); i-- > 0;) (void)calls_.rmdir(made_[i]);
  }

 private:
  const std::string& folder_;
  SystemCalls& calls_ = SystemCalls::now();
  std::vector<std::string> made_;  // folders
  std::string stage_;
  std::vector<Step> steps_;
};

}  // namespace

void replace_file_set(const std::string& folder, const std::vector<SetFile>& files,
                      const std::vector<std::string>& gone) {
  Replacing replacing(folder);
  try {
    replacing.plan_steps(files, gone);
    replacing.lay_ready(files);
    replacing.change_over();
  } catch (...) {
    replacing.undo();
    throw;
  }
  replacing.tidy_up();
}

}  // namespace doyen
