#include "json_reading.hpp"

#include <cmath>

#include "wording/say.hpp"

template class nlohmann::basic_json<nlohmann::ordered_map>;

namespace doyen {
namespace {

std::string show(double v) {
  std::string text = std::to_string(v);
  text.erase(text.find_last_not_of('0') + 1);
  if (text.back() == '.') text.pop_back();
  return text;
}

}  // namespace

Json parse_json(const std::string& text, const std::string& where) {
  constexpr int kDeepest = 64;
  constexpr std::size_t kMostValues = 5'000'000;  // in memory each takes twenty times what it takes in the file
  int depth = 0;
  std::size_t values = 0;
  bool in_text = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (in_text) {
      if (c == '\\') ++i;
      if (c == '"') in_text = false;
    } else if (c == '"') {
      in_text = true;
    } else if (c == '{' || c == '[') {
      if (++depth > kDeepest) throw bad_input(say("{0}: nested more than 64 deep, which no Doyen file is.", where));
    } else if (c == '}' || c == ']') {
      --depth;
    }
    if (!in_text && (c == ',' || c == '[' || c == '{') && ++values > kMostValues)
      throw bad_input(say("{0}: more than five million values, which no Doyen file holds.", where));
  }
  try {
    return Json::parse(text);
  } catch (const Json::parse_error& error) {
    std::size_t line = 1, column = 1;
    for (std::size_t i = 0; i + 1 < error.byte && i < text.size(); ++i) {
      column = text[i] == '\n' ? 1 : column + 1;
      line += text[i] == '\n';
    }
    const std::string why = text.empty()               ? say(" (the file is empty)")
                            : error.byte > text.size() ? say(" (the file ends too early)")
                                                       : "";
    throw bad_input(say("{0}, line {1}, column {2}: this is not JSON as it should be{3}.", where, line, column, why));
  } catch (const Json::exception&) {
    throw bad_input(say("{0}: a number is too large or a text is not UTF-8.", where));
  }
}

std::string json_text(const Json& json, int indent) {
  return json.dump(indent, ' ', false, Json::error_handler_t::replace);
}

JsonView::JsonView(const Json& json, std::string where) : json_(json), where_(std::move(where)) {
  if (!json_.is_object()) throw bad_input(say("{0}: an object in braces was expected.", where_));
}

bool JsonView::has(const char* key) const { return json_.contains(key) && !json_[key].is_null(); }

const Json& JsonView::need(const char* key) const {
  if (!has(key)) throw wrong(key, say("this is missing"));
  return json_[key];
}

double JsonView::number(const char* key, double least, double most) const {
  const Json& value = need(key);
  if (!value.is_number()) throw wrong(key, say("a number was expected"));
  const double v = value.get<double>();
  if (!std::isfinite(v) || v < least || v > most)
    throw wrong(key, say("a number from {0} to {1} was expected, not {2}", show(least), show(most), show(v)));
  return v;
}

double JsonView::number_or(const char* key, double otherwise, double least, double most) const {
  return has(key) ? number(key, least, most) : otherwise;
}

std::string JsonView::text(const char* key) const {
  const Json& value = need(key);
  if (!value.is_string()) throw wrong(key, say("a text was expected"));
  return value.get<std::string>();
}

std::string JsonView::text_or(const char* key, const std::string& otherwise) const {
  return has(key) ? text(key) : otherwise;
}

bool JsonView::flag_or(const char* key, bool otherwise) const {
  if (!has(key)) return otherwise;
  if (!json_[key].is_boolean()) throw wrong(key, say("true or false was expected"));
  return json_[key].get<bool>();
}

JsonView JsonView::object(const char* key) const { return {need(key), where_ + "." + key}; }

const Json& JsonView::array(const char* key, std::size_t most) const {
  static const Json kNone = Json::array();
  if (!has(key)) return kNone;
  const Json& value = json_[key];
  if (!value.is_array()) throw wrong(key, say("a list in brackets was expected"));
  if (value.size() > most) throw wrong(key, say("at most {0} entries were expected", most));
  return value;
}

Problem JsonView::wrong(const std::string& key, const std::string& why) const {
  return bad_input(where_ + "." + key + ": " + why + ".");
}

}  // namespace doyen
