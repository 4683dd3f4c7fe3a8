#include "fields/record.hpp"

#include <set>
#include <unordered_map>

#include "measure/length.hpp"
#include "storage/atomic_file.hpp"
#include "wording/say.hpp"

namespace doyen::fields {
namespace {

std::string id_of(const Json& element) {
  return element.is_object() && element.contains("id") && element["id"].is_string() ? element["id"].get<std::string>()
                                                                                    : "";
}

std::string name_of(const Json& element) {
  const std::string id = id_of(element);
  return id.empty() ? "mark " + mark_of(json_text(element)) : "id " + id;
}

}  // namespace

Json beside_list(const std::vector<std::pair<Json, Json>>& written_and_left) {
  Json list = Json::array();
  for (std::size_t i = 0; i < written_and_left.size(); ++i) {
    const auto& [written, left] = written_and_left[i];
    if (left.empty()) continue;
    list.push_back({{"at", i},
                    {"of", written_and_left.size()},
                    {"name", name_of(written)},
                    {"has_id", !id_of(written).empty()},
                    {"left", left}});
  }
  return list;
}

void for_each_beside(Json& list, const Json& left, const std::function<void(Json& element, const Json& inner)>& act) {
  if (!list.is_array() || !left.is_array()) return;
  std::unordered_multimap<std::string, std::size_t>
      places;  // by id, or by what is written before anything is put there
  for (std::size_t i = 0; i < list.size(); ++i) places.emplace(name_of(list[i]), i);
  std::set<std::size_t> taken;
  const auto give = [&](std::size_t i, const Json& one) {
    taken.insert(i);
    act(list[i], one["left"]);
  };
  std::vector<const Json*> homeless;
  for (const Json& one : left) {
    const auto it = places.find(one["name"].get<std::string>());
    if (it != places.end()) {
      give(it->second, one);
      places.erase(it);
    } else if (!one["has_id"].get<bool>()) {
      homeless.push_back(&one);
    }
  }
  // What was edited since stands where it stood, as long as nothing was added or taken away.
  for (const Json* one : homeless) {
    const auto at = (*one)["at"].get<std::size_t>();
    if ((*one)["of"].get<std::size_t>() == list.size() && !taken.contains(at)) give(at, *one);
  }
}

Json json_of(double value) { return value; }
Json json_of(int value) { return value; }
Json json_of(bool value) { return value; }
Json json_of(const std::string& value) { return value; }
Json json_of(const char* value) { return value; }
Json json_of(const std::vector<std::string>& value) { return value; }

std::string kept_text(const Json& beside) {
  return beside.empty() ? std::string() : nlohmann::json(beside).dump();  // with its keys sorted
}

std::string element_name(const Json& entry) {
  return entry["has_id"].get<bool>() ? entry["name"].get<std::string>().substr(3)
                                     : std::to_string(entry["at"].get<std::size_t>() + 1);
}

std::string in_words(Range range, bool whole) {
  return format_number(range.least, 6) + " to " + format_number(range.most, 6) + (whole ? ", whole" : "");
}

void no_such_word(const JsonView& v, const std::string& key, const std::string& word, const std::string& known) {
  throw v.wrong(key, say("“{0}” is not known; one of {1} was expected", word.substr(0, 40), known));
}

}  // namespace doyen::fields
