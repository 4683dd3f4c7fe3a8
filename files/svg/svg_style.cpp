#include "files/svg/svg_style.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numbers>

#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen::svg {
namespace {

constexpr std::size_t kMostRules = 300'000;  // declarations of style sheets, each selector's own

}  // namespace

std::string trimmed(const std::string& s) {
  const auto from = s.find_first_not_of(" \t\r\n");
  if (from == std::string::npos) return {};
  return s.substr(from, s.find_last_not_of(" \t\r\n") - from + 1);
}

void read_declarations(const std::string& text, std::map<std::string, std::string>& out) {
  std::size_t from = 0;
  while (from < text.size()) {
    std::size_t to = text.find(';', from);
    if (to == std::string::npos) to = text.size();
    const std::string one = text.substr(from, to - from);
    const auto colon = one.find(':');
    if (colon != std::string::npos) {
      std::string value = trimmed(one.substr(colon + 1));
      if (const auto bang = value.find('!'); bang != std::string::npos) value = trimmed(value.substr(0, bang));
      out[trimmed(one.substr(0, colon))] = value;
    }
    from = to + 1;
  }
}

void StyleSheet::add(const std::string& css_with_comments) {
  std::string css;
  for (std::size_t at = 0; at < css_with_comments.size();) {
    const std::size_t open = std::min(css_with_comments.find("/*", at), css_with_comments.size());
    css.append(css_with_comments, at, open - at);
    const std::size_t close = css_with_comments.find("*/", open);
    at = close == std::string::npos ? css_with_comments.size() : close + 2;
  }
  std::size_t from = 0;
  while (true) {
    const std::size_t open = css.find('{', from), close = css.find('}', from);
    if (open == std::string::npos || close == std::string::npos || close < open) break;
    std::map<std::string, std::string> declarations;
    read_declarations(css.substr(open + 1, close - open - 1), declarations);
    std::string selectors = css.substr(from, open - from) + ",";
    std::size_t s = 0;
    for (std::size_t comma; (comma = selectors.find(',', s)) != std::string::npos; s = comma + 1) {
      auto& rule = rules_[trimmed(selectors.substr(s, comma - s))];
      if ((count_ += declarations.size()) > kMostRules)
        throw bad_input(say("its style sheets have more than 300,000 rules, too many to be a sign."));
      for (const auto& [k, v] : declarations) rule[k] = v;
    }
    from = close + 1;
  }
}

void StyleSheet::apply(const Element& e, std::map<std::string, std::string>& out) const {
  const auto use = [&](const std::string& selector) {
    const auto it = rules_.find(selector);
    if (it == rules_.end()) return;
    for (const auto& [k, v] : it->second) out[k] = v;
  };
  use(e.name);
  std::string classes = e.get("class") + " ";
  std::size_t from = 0;
  for (std::size_t space; (space = classes.find(' ', from)) != std::string::npos; from = space + 1) {
    const std::string one = classes.substr(from, space - from);
    use("." + one);
    use(e.name + "." + one);
  }
  if (const std::string id = e.get("id"); !id.empty()) use("#" + id);
}

double units(const std::string& text, double otherwise, double whole) {
  const std::string s = trimmed(text);
  double value = 0;
  const auto [end, error] = std::from_chars(s.data() + (s.starts_with('+') ? 1 : 0), s.data() + s.size(), value);
  if (error != std::errc() || !std::isfinite(value)) return otherwise;
  const std::string unit = trimmed(std::string(end, s.data() + s.size()));
  static const std::map<std::string, double> kUnits{{"", 1},
                                                    {"px", 1},
                                                    {"pt", 96.0 / 72},
                                                    {"pc", 16},
                                                    {"in", 96},
                                                    {"mm", 1 / kMmPerUnit},
                                                    {"cm", 10 / kMmPerUnit},
                                                    {"Q", 0.25 / kMmPerUnit},
                                                    {"em", 16},
                                                    {"ex", 8}};
  if (unit == "%") return value / 100 * whole;
  const auto it = kUnits.find(unit);
  return it == kUnits.end() ? otherwise : value * it->second;
}

std::vector<double> numbers(const std::string& text) {
  std::vector<double> out;
  const char* p = text.data();
  const char* end = p + text.size();
  while (p < end) {
    double v = 0;
    const char* from = *p == '+' ? p + 1 : p;
    const auto [next, error] = std::from_chars(from, end, v);
    if (error != std::errc()) {
      ++p;
    } else {
      if (!std::isfinite(v)) v = 0;
      out.push_back(v);
      p = next;
    }
  }
  return out;
}

Transform read_transform(const std::string& text) {
  Transform total;
  std::size_t from = 0;
  std::vector<Transform> steps;
  while (true) {
    const std::size_t open = text.find('(', from), close = text.find(')', from);
    if (open == std::string::npos || close == std::string::npos || close < open) break;
    std::string name = trimmed(text.substr(from, open - from));
    while (!name.empty() && (name.front() == ',' || name.front() == ' ')) name.erase(0, 1);
    const auto n = numbers(text.substr(open + 1, close - open - 1));
    const auto arg = [&](std::size_t i, double otherwise = 0) { return i < n.size() ? n[i] : otherwise; };
    Transform t;
    if (name == "matrix" && n.size() == 6)
      t = {n[0], n[1], n[2], n[3], n[4], n[5]};
    else if (name == "translate")
      t = Transform::move(arg(0), arg(1));
    else if (name == "scale")
      t = Transform::scale(arg(0, 1), arg(1, arg(0, 1)));
    else if (name == "rotate")
      t = Transform::move(-arg(1), -arg(2)).then(Transform::turn(arg(0))).then(Transform::move(arg(1), arg(2)));
    else if (name == "skewX")
      t = {1, 0, std::tan(arg(0) * std::numbers::pi / 180), 1, 0, 0};
    else if (name == "skewY")
      t = {1, std::tan(arg(0) * std::numbers::pi / 180), 0, 1, 0, 0};
    steps.push_back(t);
    from = close + 1;
  }
  for (std::size_t i = steps.size(); i-- > 0;) total = total.then(steps[i]);
  return total;
}

}  // namespace doyen::svg
