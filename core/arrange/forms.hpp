// The forms that an arrangement can have: blocks laid about a middle of their own, in cap heights of the main line. Not
// for use outside arrange/.
#pragma once

#include "arrange/blocks.hpp"

namespace doyen::arranging {

struct Laid {
  std::shared_ptr<const Block> block;
  Point at;         // of the block's own origin, main cap heights
  double size = 1;  // its cap height, or the motif's height, in main cap heights
  [[nodiscard]] Box box() const;
};
struct Form {
  std::string name;
  std::vector<Laid> blocks;
  Ring hull{};         // of all outlines' points
  bool left = false;   // set to the left of the room, not in its middle
  bool round = false;  // as wide as it is high
  [[nodiscard]] Box box() const;
};

// What there is to arrange, in reading order.
struct Content {
  struct Words {
    std::string id;
    ArrangeWish::Role role;
  };
  std::vector<Words> words;
  std::vector<std::string> motif;
};

// Every form that this content can take, several of one name where their figures differ. Throws Problem{BadInput} when
// words cannot be set, and Cancelled.
std::vector<Form> forms_for(const Job& job, const Content& content);

}  // namespace doyen::arranging
