#include "files/svg/svg_tree.hpp"

#define XML_DTD 1  // declares what guards against entities that grow without end
#include <expat.h>

#include <algorithm>

#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen::svg {
namespace {

constexpr std::size_t kMostElements = 300'000;
constexpr std::size_t kMostAttributes = 3'000'000;  // of all elements
constexpr int kDeepest = 200;
constexpr float kMostExpansion = 4;  // bytes that entities may make of one

std::string local(const char* name) {
  const std::string s = name;
  const auto colon = s.rfind(':');
  return colon == std::string::npos ? s : s.substr(colon + 1);
}

class TreeBuilder {
 public:
  explicit TreeBuilder(Reading& reading) : reading_(reading) {}

  std::unique_ptr<Element> build(const std::string& text, const std::string& where) {
    const std::unique_ptr<XML_ParserStruct, decltype(&XML_ParserFree)> parser(XML_ParserCreate(nullptr),
                                                                              XML_ParserFree);
    XML_SetUserData(parser.get(), this);
    parser_ = parser.get();
    XML_SetBillionLaughsAttackProtectionMaximumAmplification(parser.get(), kMostExpansion);
    XML_SetElementHandler(parser.get(), start, end);
    XML_SetCharacterDataHandler(parser.get(), characters);
    // By the piece, so that it can be stopped between them.
    constexpr std::size_t kPiece = 16u << 20;  // larger: a tag over many of them is gone through again for each
    XML_Status status = XML_STATUS_OK;
    for (std::size_t at = 0; at < text.size() && status == XML_STATUS_OK && problem_.empty(); at += kPiece) {
      const std::size_t n = std::min(kPiece, text.size() - at);
      status = XML_Parse(parser.get(), text.data() + at, static_cast<int>(n), at + n == text.size() ? 1 : 0);
      try {
        reading_.look();
      } catch (const Problem& problem) {
        throw bad_input(where + ": " + problem.what());
      }
      reading_.done(0.3 * static_cast<double>(at) / static_cast<double>(text.size()));
    }
    const std::string place = say("{0}, line {1}", where, XML_GetCurrentLineNumber(parser.get()));
    if (!problem_.empty()) throw bad_input(place + ": " + problem_);
    if (status != XML_STATUS_OK) {
      throw bad_input(
          say("{0}: this is not SVG as it should be ({1}).", place, XML_ErrorString(XML_GetErrorCode(parser.get()))));
    }
    if (!root_ || root_->name != "svg") throw bad_input(say("{0}: an SVG drawing was expected.", where));
    return std::move(root_);
  }

 private:
  static void start(void* user, const char* name, const char** attributes) {
    auto& self = *static_cast<TreeBuilder*>(user);
    if (!self.problem_.empty()) return;
    if (self.reading_.cancel().requested()) return self.stop("cancelled.");
    if (++self.count_ > kMostElements) return self.stop("more than 300,000 elements, too many to be a sign.");
    if (self.open_.size() >= kDeepest) return self.stop("elements nested more than 200 deep.");
    auto element = std::make_unique<Element>();
    element->name = local(name);
    for (; *attributes != nullptr; attributes += 2) {
      element->attributes[local(attributes[0])] = attributes[1];
      if (++self.attributes_ > kMostAttributes)
        return self.stop("more than three million attributes, too many to be a sign.");
    }
    Element* raw = element.get();
    if (self.open_.empty())
      self.root_ = std::move(element);
    else
      self.open_.back()->children.push_back(std::move(element));
    self.open_.push_back(raw);
  }
  static void end(void* user, const char*) {
    auto& self = *static_cast<TreeBuilder*>(user);
    if (self.problem_.empty() && !self.open_.empty()) self.open_.pop_back();
  }
  static void characters(void* user, const char* s, int n) {
    auto& self = *static_cast<TreeBuilder*>(user);
    if (self.open_.empty()) return;
    const std::string& in = self.open_.back()->name;
    if (in == "style" || in == "text" || in == "tspan" || in == "a")
      self.open_.back()->text.append(s, static_cast<std::size_t>(n));
  }
  void stop(const std::string& why) {
    problem_ = why;
    XML_StopParser(parser_, XML_FALSE);
  }

  Reading& reading_;
  XML_Parser parser_ = nullptr;
  std::unique_ptr<Element> root_;
  std::vector<Element*> open_;
  std::size_t count_ = 0, attributes_ = 0;
  std::string problem_;
};

}  // namespace

std::unique_ptr<Element> read_tree(const std::string& text, const std::string& where, Reading& reading) {
  return TreeBuilder(reading).build(text, where);
}

}  // namespace doyen::svg
