// The one exception type of the core: a sentence for the person at the bench, never a number for a programmer.
#pragma once

#include <stdexcept>
#include <string>

namespace doyen {

// BadInput: something read from outside is not what was expected (file, place and expectation are in the message).
// CannotWrite: the target could not be written; whatever stood there before is untouched.
// InTheWay: something that is not Doyen's to replace stands where it would write; nothing was touched.
class Problem : public std::runtime_error {
 public:
  enum class Kind { BadInput, CannotWrite, InTheWay };
  Problem(Kind kind, const std::string& sentence) : std::runtime_error(sentence), kind_(kind) {}
  [[nodiscard]] Kind kind() const { return kind_; }

 private:
  Kind kind_;
};

inline Problem bad_input(const std::string& sentence) { return {Problem::Kind::BadInput, sentence}; }
inline Problem in_the_way(const std::string& sentence) { return {Problem::Kind::InTheWay, sentence}; }
inline Problem cannot_write(const std::string& sentence) { return {Problem::Kind::CannotWrite, sentence}; }

}  // namespace doyen
