// What Doyen says: a sentence in English, with its quantities apart, so that it can be said in another language. The
// English itself is the name a sentence goes by, as in the window's tr().
#pragma once

#include <concepts>
#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace doyen {

// What is put into a sentence: words as they stand (a name, a length in the user's unit), or a count.
class Quantity {
 public:
  Quantity(std::string words) : words_(std::move(words)) {}
  Quantity(std::string_view words) : words_(words) {}
  Quantity(const char* words) : words_(words) {}
  Quantity(char letter) : words_(1, letter) {}
  Quantity(std::integral auto count) : words_(std::to_string(count)), one_(count == 1) {}
  [[nodiscard]] const std::string& words() const { return words_; }
  [[nodiscard]] bool one() const { return one_; }

 private:
  std::string words_;
  bool one_ = false;
};

// The sentence with its quantities: {0} is the first; {0|line|lines} the word that goes with the first, a count: one of
// them, or any other number.
std::string said(std::string_view english, const std::vector<Quantity>& with);
template <typename... Of>
std::string say(std::string_view english, const Of&... with) {
  return said(english, {Quantity(with)...});
}

// The English sentence in the user's language, with the same quantities in any order; empty where it is not known.
using Catalogue = std::function<std::string(std::string_view english)>;
// For everything said from now on, by any thread; an empty one speaks English.
void speak(Catalogue catalogue);

}  // namespace doyen
