#include "log/entry_of.hpp"

#include <algorithm>
#include <map>

#include "json_reading.hpp"
#include "measure/length.hpp"
#include "storage/atomic_file.hpp"
#include "treatments/through/through.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kLargestJob = 512 * 1024;  // bytes of a job file that is kept with its run
constexpr std::size_t kMostChanges = 40, kLongestValue = 60;

// What one run of the machine says of a job is not the job.
Job without_history(Job job) {
  job.run.made = 0;
  job.run.accepted.clear();
  job.run.reasons.clear();
  return job;
}

std::string value_in_words(const Json& value) {
  if (value.is_null()) return "–";
  if (value.is_number()) return format_number(value.get<double>(), 4);
  std::string words = value.is_string() ? value.get<std::string>() : json_text(value);
  if (words.size() > kLongestValue) words = words.substr(0, words.find_last_of(" ,", kLongestValue)) + "…";
  return words;
}

// Members of a list by what they are called; others by their place.
std::string called(const Json& element, std::size_t place) {
  return element.is_object() && element.contains("id") && element["id"].is_string() ? element["id"].get<std::string>()
                                                                                    : std::to_string(place + 1);
}

// “inlay, saw gap” of inlay.sawGap.
std::string key_in_words(const std::string& path) {
  std::string words;
  for (const char c : path) {
    if (c == '.')
      words += ", ";
    else if (c >= 'A' && c <= 'Z')
      words += {' ', static_cast<char>(c - 'A' + 'a')};
    else
      words += c;
  }
  return words;
}

class Differences {
 public:
  void look(const std::string& path, const Json& a, const Json& b) {
    if (a == b || lines_.size() >= kMostChanges) return;
    if (path == "lettering.kept") return;  // follows from what was said, and only saved jobs have it
    const bool records = (a.is_object() || a.is_null()) && (b.is_object() || b.is_null());
    if (records)
      look_in_objects(path, a, b);
    else if (a.is_array() && b.is_array() && of_records(a) && of_records(b))
      look_in_lists(path, a, b);
    else
      add(path, value_in_words(a) + " → " + value_in_words(b));
  }
  [[nodiscard]] std::vector<std::string> lines() && { return std::move(lines_); }

 private:
  static bool of_records(const Json& list) {
    return std::all_of(list.begin(), list.end(), [](const Json& each) { return each.is_object(); });
  }
  static const Json& member(const Json& of, const std::string& key) {
    static const Json kNone;
    return of.is_object() && of.contains(key) ? of[key] : kNone;
  }
  void add(const std::string& path, const std::string& what) {
    const std::string key = key_in_words(path);
    lines_.push_back(in_.empty()   ? key + ": " + what
                     : key.empty() ? in_ + ": " + what
                                   : in_ + ", " + key + ": " + what);
  }
  void look_in_objects(const std::string& path, const Json& a, const Json& b) {
    const auto under = [&](const std::string& key) {
      return key == "cut" ? path : path.empty() ? key : path + "." + key;
    };
    for (const auto& [key, value] : a.items()) look(under(key), value, member(b, key));
    for (const auto& [key, value] : b.items()) {
      if (member(a, key).is_null()) look(under(key), Json(), value);
    }
  }
  // Members go by their names, and what is said of them begins there.
  void look_in_lists(const std::string& path, const Json& a, const Json& b) {
    std::map<std::string, const Json*> then;
    for (std::size_t i = 0; i < a.size(); ++i) then[called(a[i], i)] = &a[i];
    const std::string outside = in_;
    const auto inside = [&](const Json& element, const std::string& id) {
      const Json& name = member(element, "name");
      const std::string words = name.is_string() ? "“" + name.get<std::string>() + "”" : path + " " + id;
      in_ = outside.empty() ? words : outside + ", " + words;
    };
    for (std::size_t i = 0; i < b.size(); ++i) {
      const std::string id = called(b[i], i);
      inside(b[i], id);
      if (const auto found = then.find(id); found != then.end()) {
        look({}, *found->second, b[i]);
        then.erase(found);
      } else {
        add({}, "+");
      }
    }
    for (const auto& [id, gone] : then) {
      inside(*gone, id);
      add({}, "−");
    }
    in_ = outside;
  }
  std::vector<std::string> lines_;
  std::string in_;
};

void note_inlays(const Plan& plan, LogEntry& entry) {
  for (const Item& item : plan.job.items) {
    if (item.cut.kind != Treatment::Kind::Inlay) continue;
    const Inlay& inlay = item.cut.inlay;
    entry.inlays.push_back(
        {item.piece.name, flank_bit(item.cut), inlay.sloped, item.cut.depth, inlay.contact, inlay.allowance});
  }
}

}  // namespace

BitId flank_bit(const Treatment& cut) {
  if (cut.inlay.sloped || cut.clearing.empty()) return cut.bit;
  return cut.clearing.front();
}

std::string fingerprint(const Job& job) {
  Job said = without_history(job);
  for (Item& item : said.items) {
    if (auto* words = std::get_if<Lettering>(&item.piece.what)) words->kept = {};  // only saved jobs have it
  }
  return mark_of(write_job(said));
}

std::vector<std::string> what_changed(const std::string& before, const std::string& after) {
  Differences all;
  all.look({}, parse_json(before, ""), parse_json(after, ""));
  return std::move(all).lines();
}

LogEntry entry_of(const Plan& plan, const std::string& file, const std::string& made, const LogEntry* before) {
  const Job job = without_history(plan.job);
  LogEntry e;
  e.made = made;
  e.kind = job.run.test_of.empty() ? MadeKind::Run : MadeKind::TestCut;
  e.job = job.name;
  e.file = file;
  e.mark = fingerprint(job);
  e.machine = job.run.machine;
  e.wood = job.blank.species;
  e.thickness = job.blank.thickest();
  for (const Item& item : job.items) {
    if (!goes_through(item.cut.kind)) continue;
    const double over = item.cut.through.over_cut.value_or(default_over_cut(job.blank));
    e.over_cut = std::min(e.over_cut.value_or(over), over);
  }
  for (const BitRun& run : plan.runs) {
    e.told += run.time.seconds;
    const auto same =
        std::find_if(e.bits.begin(), e.bits.end(), [&](const LoggedBit& b) { return b.bit == run.bit.id; });
    LoggedBit& bit = same != e.bits.end() ? *same
                                          : e.bits.emplace_back(LoggedBit{run.bit.id, run.bit.name, run.feeds.feed,
                                                                          run.feeds.plunge, run.feeds.rpm, 0, 0});
    bit.told += run.time.seconds;
    bit.deepest = std::max(bit.deepest, run.deepest);
  }
  note_inlays(plan, e);
  std::string text = write_job(job);
  if (text.size() <= kLargestJob) e.job_text = std::move(text);
  if (before != nullptr && !before->job_text.empty() && !e.job_text.empty())
    e.changed = what_changed(before->job_text, e.job_text);
  return e;
}

const LogEntry* last_of(const Job& job, const std::string& file, const std::vector<LogEntry>& log) {
  const std::string mark = fingerprint(job);
  const auto first = [&](auto is) -> const LogEntry* {
    const auto found = std::find_if(log.begin(), log.end(), is);
    return found == log.end() ? nullptr : &*found;
  };
  if (const LogEntry* same = first([&](const LogEntry& e) { return e.mark == mark; })) return same;
  if (!file.empty()) {
    if (const LogEntry* there = first([&](const LogEntry& e) { return e.file == file; })) return there;
  }
  const std::string usual = Job{}.name;  // by which nothing is known
  if (job.name == usual || job.name == say(usual)) return nullptr;
  return first([&](const LogEntry& e) { return e.job == job.name; });
}

}  // namespace doyen
