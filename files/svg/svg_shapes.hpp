// The basic shapes of SVG as paths, in user units (W3C SVG 1.1, chapters 7 to 9).
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "files/svg/svg_style.hpp"
#include "files/svg/svg_tree.hpp"
#include "geometry/path.hpp"

namespace doyen::svg {

// W3C SVG 1.1, 7.8: uniform scaling placed by alignment, or stretched for "none". `view`: x, y, width, height.
Transform view_box(const std::vector<double>& view, double w, double h, const std::string& aspect);

// What the element draws; none where it draws nothing. `note` is told what could not be taken. Throws Problem.
std::optional<Path> path_of(const Element& e, Point viewport, const std::function<void(const std::string&)>& note);

// Dashes by their lengths in user units; every second one is a gap.
std::vector<Line2> dashed(const std::vector<Line2>& lines, const std::vector<double>& lengths);

}  // namespace doyen::svg
