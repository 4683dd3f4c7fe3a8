#include "log/log_texts.hpp"

#include <algorithm>
#include <cctype>
#include <sstream>

#include "json_reading.hpp"
#include "log/entry_fields.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostEntries = 1'000'000;

// ASCII letters only: others are found as they are written.
std::string lower(std::string s) {
  std::transform(s.begin(), s.end(), s.begin(), [](unsigned char c) { return c < 128 ? std::tolower(c) : c; });
  return s;
}

std::string all_words(const LogEntry& e) {
  std::string all = e.made + ' ' + e.job + ' ' + e.machine + ' ' + e.wood + ' ' + e.words + ' ' + e.why;
  if (const Species* wood = species_table().find(e.wood)) all += ' ' + wood->name;
  for (const LoggedBit& bit : e.bits) all += ' ' + bit.bit + ' ' + bit.name;
  for (const MishapSeen& f : e.mishaps) all += ' ' + mishap_in_words(f.mishap) + ' ' + to_word(f.mishap);
  for (const std::string& line : e.changed) all += ' ' + line;
  return lower(all);
}

}  // namespace

bool matches(const LogEntry& entry, const std::string& search) {
  const std::string all = all_words(entry);
  std::istringstream words(lower(search));
  for (std::string word; words >> word;) {
    if (all.find(word) == std::string::npos) return false;
  }
  return true;
}

std::string outcome_in_words(const LogEntry& entry, const LengthStyle& lengths) {
  if (entry.well) return say("came out well");
  std::string all;
  for (const MishapSeen& f : entry.mishaps) {
    std::string one = mishap_in_words(f.mishap);
    if (f.mm > 0) one = say("{0}, by {1}", one, depth_in_words(f.mm, lengths));
    const auto bit =
        std::find_if(entry.bits.begin(), entry.bits.end(), [&](const LoggedBit& b) { return b.bit == f.bit; });
    if (!f.bit.empty()) one = say("{0}, with {1}", one, bit == entry.bits.end() ? std::string(f.bit) : bit->name);
    all += (all.empty() ? "" : "; ") + one;
  }
  return all.empty() ? say("nothing said yet") : all;
}

std::string log_json(const std::vector<LogEntry>& entries) {
  Json list = Json::array();
  for (const LogEntry& entry : entries) list.push_back(log_entry_fields().write(entry));
  return json_text({{"format", "doyen-log/1"}, {"units", "mm, s, mm/min"}, {"entries", list}}, 1) + "\n";
}

std::vector<LogEntry> read_log_json(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  const JsonView top(document, where);
  if (top.text("format") != "doyen-log/1") throw top.wrong("format", say("doyen-log/1 was expected"));
  std::vector<LogEntry> entries;
  std::size_t i = 0;
  for (const Json& each : top.array("entries", kMostEntries))
    entries.push_back(log_entry_fields().read(JsonView(each, where + ".entries[" + std::to_string(i++) + "]")));
  return entries;
}

}  // namespace doyen
