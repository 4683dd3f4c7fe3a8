// Ids: text that names one thing of one kind. The id of a bit is no id of a wood, nor the other way round.
#pragma once

#include <string>

namespace doyen {

template <typename Of>
struct Id : std::string {
  using std::string::string;
  Id() = default;
  Id(const std::string& text) : std::string(text) {}
  Id(std::string&& text) : std::string(std::move(text)) {}
  template <typename Other>
  Id(const Id<Other>&) = delete;
  template <typename Other>
  Id& operator=(const Id<Other>&) = delete;
};

using BitId = Id<struct BitTag>;    // in a rack, such as v60 or flat-1/8in
using WoodId = Id<struct WoodTag>;  // in the table of woods and sheets, such as sugar-maple

}  // namespace doyen
