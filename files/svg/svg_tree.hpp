// An SVG's elements as a tree, by expat: nothing outside the file is opened, and what is too much is refused.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "files/reading.hpp"

namespace doyen::svg {

struct Element {
  std::string name;
  std::map<std::string, std::string> attributes;
  std::vector<std::unique_ptr<Element>> children;
  std::string text;  // of style sheets and of text
  [[nodiscard]] std::string get(const std::string& key) const {
    const auto it = attributes.find(key);
    return it == attributes.end() ? std::string() : it->second;
  }
};

// Limits: 300,000 elements, three million attributes, 200 levels, entities that grow fourfold. Throws Problem{BadInput}
// with file and line, and Cancelled.
std::unique_ptr<Element> read_tree(const std::string& text, const std::string& where, Reading& reading);

}  // namespace doyen::svg
