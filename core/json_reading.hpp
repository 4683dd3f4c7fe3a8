// Reading JSON with sentences for mistakes: one way for every file that Doyen reads.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

#include "json_fwd.hpp"
#include "problem.hpp"

// It is made once, in json_reading.cpp: everywhere else it costs more to compile than all of ours.
extern template class nlohmann::basic_json<nlohmann::ordered_map>;

namespace doyen {

// Throws Problem{BadInput} with line and column. Refuses nesting deeper than 64.
Json parse_json(const std::string& text, const std::string& where);

// A document as text, with its records indented by so many spaces, or on one line. Text in it that is not UTF-8 is
// replaced, never a reason to lose the rest.
std::string json_text(const Json& json, int indent = -1);

// Looks at one object and keeps the path to it for its sentences.
class JsonView {
 public:
  JsonView(const Json& json, std::string where);
  [[nodiscard]] const Json& json() const { return json_; }
  [[nodiscard]] const std::string& where() const { return where_; }
  [[nodiscard]] bool has(const char* key) const;

  [[nodiscard]] double number(const char* key, double least, double most) const;
  [[nodiscard]] double number_or(const char* key, double otherwise, double least, double most) const;
  [[nodiscard]] std::string text(const char* key) const;
  [[nodiscard]] std::string text_or(const char* key, const std::string& otherwise) const;
  [[nodiscard]] bool flag_or(const char* key, bool otherwise) const;
  [[nodiscard]] JsonView object(const char* key) const;
  // The elements of an array, at most `most`; an absent key is an empty array.
  [[nodiscard]] const Json& array(const char* key, std::size_t most) const;
  [[nodiscard]] Problem wrong(const std::string& key, const std::string& why) const;

 private:
  [[nodiscard]] const Json& need(const char* key) const;
  const Json& json_;
  std::string where_;
};

}  // namespace doyen
