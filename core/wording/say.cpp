#include "wording/say.hpp"

#include <charconv>
#include <memory>
#include <mutex>

namespace doyen {
namespace {

std::mutex lock;
std::shared_ptr<const Catalogue> spoken;  // null: English

std::shared_ptr<const Catalogue> catalogue() {
  const std::lock_guard hold(lock);
  return spoken;
}

// What stands between braces: a number, and words for one and for many where it is a count.
std::string filled(std::string_view inside, const std::vector<Quantity>& with) {
  std::size_t which = 0;
  const auto [end, error] = std::from_chars(inside.data(), inside.data() + inside.size(), which);
  if (error != std::errc() || which >= with.size()) return "{" + std::string(inside) + "}";
  const Quantity& quantity = with[which];
  const std::string_view words = inside.substr(static_cast<std::size_t>(end - inside.data()));
  if (words.empty()) return quantity.words();
  const std::size_t many = words.find('|', 1);
  if (many == std::string_view::npos) return quantity.words();
  return std::string(quantity.one() ? words.substr(1, many - 1) : words.substr(many + 1));
}

}  // namespace

std::string said(std::string_view english, const std::vector<Quantity>& with) {
  std::string sentence;
  if (const auto known = catalogue(); known != nullptr) sentence = (*known)(english);
  if (sentence.empty()) sentence = english;
  if (with.empty()) return sentence;
  std::string out;
  out.reserve(sentence.size() + 40);
  for (std::size_t at = 0; at < sentence.size();) {
    const std::size_t open = sentence.find('{', at), close = sentence.find('}', open);
    if (open == std::string::npos || close == std::string::npos) {
      out.append(sentence, at);
      break;
    }
    out.append(sentence, at, open - at);
    out += filled(std::string_view(sentence).substr(open + 1, close - open - 1), with);
    at = close + 1;
  }
  return out;
}

void speak(Catalogue catalogue) {
  const std::lock_guard hold(lock);
  spoken = catalogue ? std::make_shared<const Catalogue>(std::move(catalogue)) : nullptr;
}

}  // namespace doyen
