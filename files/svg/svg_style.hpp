// How an SVG's elements are painted and placed: style sheets, declarations, lengths, transforms (W3C SVG 1.1).
#pragma once

#include <map>
#include <string>
#include <vector>

#include "files/svg/svg_tree.hpp"
#include "geometry/region.hpp"
#include "measure/length.hpp"

namespace doyen::svg {

inline constexpr double kUnitsPerInch = 96;  // W3C SVG 1.1 with CSS: 96 px to the inch
inline constexpr double kMmPerUnit = kMmPerInch / kUnitsPerInch;

struct Style {
  std::string fill = "black", stroke = "none", fill_rule = "nonzero";
  std::string cap = "butt", join = "miter", dashes = "none", clip_rule = "nonzero";
  std::string family = "serif", weight = "normal", slant = "normal", anchor = "start";
  double stroke_width = 1, font_size = 16;
  bool visible = true, shown = true;
  bool faint = false;  // painted so thinly that it is hardly seen
};

// Type, class and id selectors, alone or in lists.
class StyleSheet {
 public:
  // Throws Problem{BadInput} when there are more than 300,000 declarations, each selector's counted for itself.
  void add(const std::string& css);
  // What is said of this element goes over what stands in `out`.
  void apply(const Element& e, std::map<std::string, std::string>& out) const;

 private:
  std::map<std::string, std::map<std::string, std::string>> rules_;
  std::size_t count_ = 0;
};

std::string trimmed(const std::string& s);
void read_declarations(const std::string& text, std::map<std::string, std::string>& out);
// A length attribute in user units; per cent of `whole`.
double units(const std::string& text, double otherwise, double whole = 0);
std::vector<double> numbers(const std::string& text);  // all that stand in it; what is none is passed over
Transform read_transform(const std::string& text);

}  // namespace doyen::svg
