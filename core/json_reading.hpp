// Reading JSON with sentences for mistakes: one way for every file that Doyen reads.
#pragma once

#include <cmath>
#include <nlohmann/json.hpp>
#include <string>

#include "json_fwd.hpp"
#include "problem.hpp"

namespace doyen {

// Throws Problem{BadInput} with line and column. Refuses nesting deeper than 64.
Json parse_json(const std::string& text, const std::string& where);

// Looks at one object and keeps the path to it for its sentences.
class JsonView {
 public:
  JsonView(const Json& json, std::string where) : json_(json), where_(std::move(where)) {
    if (!json_.is_object()) throw bad_input(where_ + ": an object in braces was expected.");
  }
  [[nodiscard]] const Json& json() const { return json_; }
  [[nodiscard]] const std::string& where() const { return where_; }
  [[nodiscard]] bool has(const char* key) const { return json_.contains(key) && !json_[key].is_null(); }

  [[nodiscard]] double number(const char* key, double least, double most) const {
    const Json& value = need(key);
    if (!value.is_number()) throw wrong(key, "a number was expected");
    const double v = value.get<double>();
    if (!std::isfinite(v) || v < least || v > most) {
      throw wrong(key, "a number from " + show(least) + " to " + show(most) + " was expected, not " + show(v));
    }
    return v;
  }
  [[nodiscard]] double number_or(const char* key, double otherwise, double least, double most) const {
    return has(key) ? number(key, least, most) : otherwise;
  }
  [[nodiscard]] std::string text(const char* key) const {
    const Json& value = need(key);
    if (!value.is_string()) throw wrong(key, "a text was expected");
    return value.get<std::string>();
  }
  [[nodiscard]] std::string text_or(const char* key, const std::string& otherwise) const {
    return has(key) ? text(key) : otherwise;
  }
  [[nodiscard]] bool flag_or(const char* key, bool otherwise) const {
    if (!has(key)) return otherwise;
    if (!json_[key].is_boolean()) throw wrong(key, "true or false was expected");
    return json_[key].get<bool>();
  }
  [[nodiscard]] JsonView object(const char* key) const { return {need(key), where_ + "." + key}; }
  // The elements of an array, at most `most`; an absent key is an empty array.
  [[nodiscard]] const Json& array(const char* key, std::size_t most) const {
    static const Json kNone = Json::array();
    if (!has(key)) return kNone;
    const Json& value = json_[key];
    if (!value.is_array()) throw wrong(key, "a list in brackets was expected");
    if (value.size() > most) throw wrong(key, "at most " + std::to_string(most) + " entries were expected");
    return value;
  }
  [[nodiscard]] Problem wrong(const std::string& key, const std::string& why) const {
    return bad_input(where_ + "." + key + ": " + why + ".");
  }

 private:
  [[nodiscard]] const Json& need(const char* key) const {
    if (!has(key)) throw wrong(key, "this is missing");
    return json_[key];
  }
  static std::string show(double v) {
    std::string text = std::to_string(v);
    text.erase(text.find_last_not_of('0') + 1);
    if (text.back() == '.') text.pop_back();
    return text;
  }
  const Json& json_;
  std::string where_;
};

}  // namespace doyen
