#include "files/svg/svg_read.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <optional>
#include <set>

#include "artwork/drawing/drawing_limits.hpp"
#include "files/svg/svg_shapes.hpp"
#include "files/svg/svg_style.hpp"
#include "files/svg/svg_tree.hpp"
#include "geometry/polyline.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using namespace svg;

constexpr int kMostUses = 20'000;
constexpr std::size_t kMostWalked = 2'000'000;  // elements, each as often as it is used
constexpr std::size_t kLongestStyle = 4000;     // characters of a value that says how something is painted

class SvgWalker {
 public:
  SvgWalker(const Element& root, Imported& out, Reading& reading) : out_(out), reading_(reading) { index(root); }

  void walk_root(const Element& root) {
    const std::vector<double> view = numbers(root.get("viewBox"));
    const bool has_view = view.size() == 4 && view[2] > 0 && view[3] > 0;
    const bool has_width = !root.get("width").empty() && root.get("width").find('%') == std::string::npos;
    const bool has_height = !root.get("height").empty() && root.get("height").find('%') == std::string::npos;
    double w = has_width ? units(root.get("width"), 100) : 0, h = has_height ? units(root.get("height"), 100) : 0;
    if (has_view) {
      if (!has_width && !has_height) {
        w = view[2];
        h = view[3];
        out_.sized = false;
        out_.assumed = "The file states no size: 96 units to the inch were taken. Give the width you want.";
      } else if (!has_width) {
        w = h * view[2] / view[3];
      } else if (!has_height) {
        h = w * view[3] / view[2];
      }
    } else if (!has_width || !has_height) {
      out_.sized = false;
      out_.assumed = "The file states no size: 96 units to the inch were taken. Give the width you want.";
      w = has_width ? w : 300;
      h = has_height ? h : 150;
    }
    out_.drawing.page_width = w * kMmPerUnit;
    out_.drawing.page_height = h * kMmPerUnit;
    Transform place = Transform::scale(kMmPerUnit, kMmPerUnit);
    if (has_view) place = view_box(view, w, h, root.get("preserveAspectRatio")).then(place);
    viewport_ = has_view ? Point{view[2], view[3]} : Point{w, h};
    Style style;
    style = styled(root, style);
    double walked = 0;
    for (const auto& child : root.children) {
      walk(*child, place, style, "");
      reading_.done(0.3 + 0.7 * ++walked / static_cast<double>(root.children.size()));
    }
    out_.left_out = left_out_.sentences();
  }

 private:
  void index(const Element& e) {
    if (const std::string id = e.get("id"); !id.empty()) by_id_.emplace(id, &e);
    if (e.name == "style") sheet_.add(e.text);
    for (const auto& child : e.children) index(*child);
  }

  Style styled(const Element& e, Style style) {
    std::map<std::string, std::string> found;
    for (const char* key :
         {"fill", "stroke", "stroke-width", "fill-rule", "display", "visibility", "fill-opacity", "stroke-opacity",
          "opacity", "stroke-linecap", "stroke-linejoin", "stroke-dasharray", "clip-rule", "clip-path", "font-family",
          "font-size", "font-weight", "font-style", "text-anchor"}) {
      if (const std::string v = e.get(key); !v.empty()) found[key] = v;
    }
    sheet_.apply(e, found);
    read_declarations(e.get("style"), found);
    const auto take = [&](const char* key, std::string& into) {
      const auto it = found.find(key);
      if (it == found.end() || it->second == "inherit") return;
      if (it->second.size() > kLongestStyle) return note_left_out("A way of painting that is pages long was left out.");
      into = it->second;
    };
    take("fill", style.fill);
    take("stroke", style.stroke);
    take("fill-rule", style.fill_rule);
    take("clip-rule", style.clip_rule);
    take("stroke-linecap", style.cap);
    take("stroke-linejoin", style.join);
    take("stroke-dasharray", style.dashes);
    take("font-family", style.family);
    take("font-weight", style.weight);
    take("font-style", style.slant);
    take("text-anchor", style.anchor);
    if (found.contains("font-size")) style.font_size = units(found["font-size"], style.font_size, style.font_size);
    if (found.contains("stroke-width")) style.stroke_width = units(found["stroke-width"], style.stroke_width);
    if (found.contains("visibility")) style.visible = found["visibility"] == "visible";
    if (found.contains("display") && found["display"] == "none") style.shown = false;
    for (const char* key : {"fill-opacity", "stroke-opacity", "opacity"}) {
      if (found.contains(key) && units(found[key], 1) < 0.3) style.faint = true;
    }
    for (const char* key : {"fill-opacity", "opacity"}) {
      if (found.contains(key) && units(found[key], 1) <= 0) style.fill = "none";
    }
    for (const char* key : {"stroke-opacity", "opacity"}) {
      if (found.contains(key) && units(found[key], 1) <= 0) style.stroke = "none";
    }
    return style;
  }

  void note_left_out(const std::string& what) { left_out_.add(what); }

  void walk(const Element& e, const Transform& parent, const Style& inherited, const std::string& group) {
    static const std::set<std::string> kSilent{"defs",           "style",    "title",  "desc",      "metadata",
                                               "symbol",         "clipPath", "mask",   "marker",    "linearGradient",
                                               "radialGradient", "pattern",  "filter", "namedview", "script"};
    reading_.step();
    if (++walked_ > kMostWalked) throw bad_input(say("the drawing repeats parts more than two million times."));
    if (kSilent.contains(e.name)) return;
    const Style style = styled(e, inherited);
    if (!style.shown) return;
    if (!e.get("mask").empty() && e.get("mask") != "none")
      note_left_out("A mask was left out: what it hides is shown whole.");
    Transform place = read_transform(e.get("transform")).then(parent);
    const ClipScope clip(*this, e, place);
    if (e.name == "switch") {  // the first that is no foreign matter is shown
      for (const auto& child : e.children) {
        if (child->name == "foreignObject") continue;
        return walk(*child, place, style, group);
      }
      return;
    }
    if (e.name == "g" || e.name == "a") {
      const std::string label = e.get("label").empty() ? e.get("id") : e.get("label");
      for (const auto& child : e.children) walk(*child, place, style, label.empty() ? group : label);
    } else if (e.name == "svg") {
      nested(e, place, style, group);
    } else if (e.name == "use") {
      follow_use(e, place, style, group);
    } else if (e.name == "image") {
      note_left_out("A picture inside the drawing was left out.");
    } else if (e.name == "text") {
      add_text(e, place, style, group);
    } else {
      add_shape(e, place, style, group);
    }
  }

  // While an element with a clipping path is walked, what it adds is cut by it, and by every one around it.
  struct ClipScope {
    SvgWalker& walker;
    bool on = false;
    ClipScope(SvgWalker& w, const Element& e, const Transform& place) : walker(w) {
      std::map<std::string, std::string> found;
      if (const std::string v = e.get("clip-path"); !v.empty()) found["clip-path"] = v;
      w.sheet_.apply(e, found);
      read_declarations(e.get("style"), found);
      const std::string ref = found["clip-path"];
      const auto open = ref.find('#');
      if (!ref.starts_with("url(") || open == std::string::npos) return;
      std::string id = ref.substr(open + 1);
      id = id.substr(0, id.find_first_of(")'\""));
      const auto it = w.by_id_.find(id);
      if (it == w.by_id_.end() || it->second->name != "clipPath" || w.clips_.size() > 20) return;
      if (it->second->get("clipPathUnits") == "objectBoundingBox") {
        w.note_left_out("A clipping path in shares of its object was left out: what it hides is shown whole.");
        return;
      }
      Region region = w.clip_region(*it->second, read_transform(it->second->get("transform")).then(place));
      if (!w.clips_.empty()) region = intersect(region, w.clips_.back());
      w.clips_.push_back(std::move(region));
      on = true;
    }
    ~ClipScope() {
      if (on) walker.clips_.pop_back();
    }
    ClipScope(const ClipScope&) = delete;
    ClipScope& operator=(const ClipScope&) = delete;
  };

  Region clip_region(const Element& clip, const Transform& place) {
    std::vector<Ring> rings;
    for (const auto& child : clip.children) {
      reading_.step();
      const Element* e = child.get();
      Transform t = read_transform(e->get("transform")).then(place);
      if (e->name == "use") {
        const std::string href = e->get("href");
        const auto it = href.starts_with("#") ? by_id_.find(href.substr(1)) : by_id_.end();
        if (it == by_id_.end()) continue;
        t = Transform::move(units(e->get("x"), 0), units(e->get("y"), 0)).then(t);
        e = it->second;
        t = read_transform(e->get("transform")).then(t);
      }
      std::optional<Path> path;
      try {
        path = drawn_by(*e);
      } catch (const Problem&) {
        continue;
      }
      if (!path) continue;
      reading_.points(path->steps.size());
      const bool odd = styled(*e, {}).clip_rule == "evenodd";
      try {
        for (Island& island :
             clean(flatten(transformed(*path, t), kFlatness, true).closed, odd ? Fill::EvenOdd : Fill::NonZero)
                 .islands) {
          for (Ring& ring : island.rings) rings.push_back(std::move(ring));
        }
      } catch (const Problem&) {
        note_left_out("A clipping path that makes no sense was left out.");
      }
    }
    return clean(rings);
  }

  static Path path_of_region(const Region& region) {
    Path out;
    for (const Island& island : region.islands) {
      for (const Ring& ring : island.rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) i == 0 ? out.move(ring[i]) : out.line(ring[i]);
        out.close();
      }
    }
    return out;
  }

  // A filled outline in mm, cut by the clipping paths around it.
  void add_fill(const std::string& id, const std::string& group, const Path& placed, bool even_odd) {
    Drawing::Part part;
    part.id = id;
    part.group = group;
    part.even_odd = even_odd;
    part.data = path_data(placed, 5);
    if (!clips_.empty()) {
      const Region cut = intersect(
          clean(flatten(placed, kFlatness, true).closed, even_odd ? Fill::EvenOdd : Fill::NonZero), clips_.back());
      if (cut.empty()) return;
      part.even_odd = false;
      part.data = path_data(path_of_region(cut), 5);
    }
    add_part(std::move(part));
  }
  void add_part(Drawing::Part part) {
    if (out_.drawing.parts.size() >= kMostParts)
      throw bad_input(say("the drawing has more than 200,000 outlines, too many to be a sign."));
    out_.drawing.parts.edit().push_back(std::move(part));
  }

  // Words with their face installed become outlines; each run of text begins where its x and y say, or goes on.
  void add_text(const Element& e, const Transform& place, const Style& style, const std::string& group) {
    Point pen{units(e.get("x"), 0), units(e.get("y"), 0)};
    add_text_run(e, place, style, group, pen, e.get("id"));
  }
  void add_text_run(const Element& e, const Transform& place, const Style& style, const std::string& group, Point& pen,
                    const std::string& id) {
    const std::string words = folded(e.text);
    if (!words.empty() && style.visible) set_text(words, place, style, group, pen, id);
    for (const auto& child : e.children) {
      if (child->name == "textPath") note_left_out("Text along a path was left out; add it as lettering.");
      if (child->name != "tspan" && child->name != "a") continue;
      const Style inner = styled(*child, style);
      if (!inner.shown) continue;
      if (!child->get("x").empty()) pen.x = units(child->get("x"), pen.x);
      if (!child->get("y").empty()) pen.y = units(child->get("y"), pen.y);
      pen.x += units(child->get("dx"), 0);
      pen.y += units(child->get("dy"), 0);
      add_text_run(*child, place, inner, group, pen, id);
    }
  }
  static std::string folded(const std::string& text) {
    std::string out;
    for (const char c : text) {
      const bool space = c == ' ' || c == '\n' || c == '\t' || c == '\r';
      if (space && (out.empty() || out.back() == ' ')) continue;
      out += space ? ' ' : c;
    }
    while (!out.empty() && out.back() == ' ') out.pop_back();
    return out;
  }
  static FaceName face_for(const Style& style) {
    std::string family = style.family.substr(0, style.family.find(','));
    std::erase_if(family, [](char c) { return c == '\'' || c == '"'; });
    const bool bold = style.weight == "bold" || style.weight == "bolder" || units(style.weight, 400) >= 600;
    const bool italic = style.slant == "italic" || style.slant == "oblique";
    return {trimmed(family), bold && italic ? "Bold Italic" : bold ? "Bold" : italic ? "Italic" : "Regular"};
  }
  void set_text(const std::string& words, const Transform& place, const Style& style, const std::string& group,
                Point& pen, const std::string& id) {
    const FaceName face = face_for(style);
    if (!face_installed(face)) {
      note_left_out("The text “" + words.substr(0, 40) + "” was left out: its face “" + face.family + " " + face.style +
                    "” is not installed. Add it as lettering.");
      return;
    }
    const ShapedLine line = shape_line(face, words);
    const double size = style.font_size * cap_share(face);
    double x = pen.x - (style.anchor == "middle" ? 0.5 : style.anchor == "end" ? 1 : 0) * line.advance * size;
    for (const ShapedGlyph& glyph : line.glyphs) {
      const Transform own =
          Transform::scale(size, -size).then(Transform::move(x + glyph.origin.x * size, pen.y - glyph.origin.y * size));
      reading_.points(glyph.path.steps.size());
      if (!glyph.path.empty() && style.fill != "none")
        add_fill(id, group, transformed(glyph.path, own.then(place)), false);
    }
    pen.x = x + line.advance * size;
    for (const std::string& m : line.missing) note_left_out("The face “" + face.family + "” has no “" + m + "”.");
  }

  void nested(const Element& e, const Transform& parent, const Style& style, const std::string& group) {
    Transform place = Transform::move(units(e.get("x"), 0), units(e.get("y"), 0)).then(parent);
    const std::vector<double> view = numbers(e.get("viewBox"));
    if (view.size() == 4 && view[2] > 0 && view[3] > 0) {
      place = view_box(view, units(e.get("width"), viewport_.x, viewport_.x),
                       units(e.get("height"), viewport_.y, viewport_.y), e.get("preserveAspectRatio"))
                  .then(place);
    }
    for (const auto& child : e.children) walk(*child, place, style, group);
  }

  void follow_use(const Element& e, const Transform& place, const Style& style, const std::string& group) {
    const std::string href = e.get("href");
    if (!href.starts_with("#")) {
      note_left_out("A reference to another file was not followed.");
      return;
    }
    const auto it = by_id_.find(href.substr(1));
    if (it == by_id_.end()) {
      note_left_out("A reference to “" + href.substr(0, 40) + "” leads nowhere.");
      return;
    }
    if (following_.contains(it->second) || following_.size() > 30) {
      note_left_out("A drawing that contains itself was left out.");
      return;
    }
    if (++uses_ > kMostUses) throw bad_input(say("the drawing repeats parts more than 20,000 times."));
    following_.insert(it->second);
    const Transform moved = Transform::move(units(e.get("x"), 0), units(e.get("y"), 0)).then(place);
    if (it->second->name == "symbol") {
      const Style inner = styled(*it->second, style);
      Transform inside = moved;
      const std::vector<double> view = numbers(it->second->get("viewBox"));
      if (view.size() == 4 && view[2] > 0 && view[3] > 0) {
        inside = view_box(view, units(e.get("width"), viewport_.x, viewport_.x),
                          units(e.get("height"), viewport_.y, viewport_.y), it->second->get("preserveAspectRatio"))
                     .then(moved);
      }
      for (const auto& child : it->second->children) walk(*child, inside, inner, group);
    } else {
      walk(*it->second, moved, style, group);
    }
    following_.erase(it->second);
  }

  std::optional<Path> drawn_by(const Element& e) {
    return path_of(e, viewport_, [this](const std::string& what) { note_left_out(what); });
  }

  // Whether a paint server lets the paper shine through somewhere.
  [[nodiscard]] bool fades(const std::string& paint, int depth = 0) const {
    const auto open = paint.find('#');
    if (open == std::string::npos || depth > 8) return false;
    const auto it = by_id_.find(paint.substr(open + 1, paint.find_first_of(")'\"", open) - open - 1));
    if (it == by_id_.end()) return false;
    for (const auto& stop : it->second->children) {
      std::map<std::string, std::string> found;
      if (const std::string v = stop->get("stop-opacity"); !v.empty()) found["stop-opacity"] = v;
      read_declarations(stop->get("style"), found);
      if (found.contains("stop-opacity") && units(found["stop-opacity"], 1) < 0.3) return true;
    }
    const std::string href = it->second->get("href");
    return href.starts_with("#") && fades(href, depth + 1);
  }

  void add_shape(const Element& e, const Transform& place, const Style& style, const std::string& group) {
    if (!style.visible) return;
    if (style.faint || fades(style.fill) || fades(style.stroke))
      note_left_out("Parts that fade or shine through were taken whole; leave them out if they should not be carved.");
    std::optional<Path> path;
    try {
      path = drawn_by(e);
    } catch (const Problem& problem) {
      note_left_out("A shape was left out: " + std::string(problem.what()));
    }
    if (!path || path->empty()) return;
    const Path placed = transformed(*path, place);
    for (const PathStep& s : placed.steps) {
      if (!std::isfinite(s.to.x + s.to.y) || std::abs(s.to.x) > kFarthest || std::abs(s.to.y) > kFarthest) {
        note_left_out("A shape more than 100 m away was left out.");
        return;
      }
    }
    reading_.points(placed.steps.size());
    if (style.fill != "none" && style.fill != "transparent") {
      add_fill(e.get("id"), group, placed, style.fill_rule == "evenodd");
    }
    if (style.stroke != "none" && style.stroke != "transparent" && style.stroke_width > 0)
      add_stroke(e, *path, place, style, group);
  }

  // A stroke stays a line with its width where it is scaled evenly; otherwise, or clipped, what it covers.
  void add_stroke(const Element& e, const Path& path, const Transform& place, const Style& style,
                  const std::string& group) {
    const double scale = std::sqrt(std::abs(place.determinant()));
    if (!(scale > 1e-9) || style.stroke_width * scale < 0.005) return;
    const bool even = std::abs(std::hypot(place.a, place.b) - std::hypot(place.c, place.d)) < 1e-4 * scale &&
                      std::abs(place.a * place.c + place.b * place.d) < 1e-4 * scale * scale;
    Drawing::Part part;
    part.id = e.get("id");
    part.group = group;
    part.end = style.cap == "round" ? StrokeEnd::Round : style.cap == "square" ? StrokeEnd::Square : StrokeEnd::Flat;
    part.joint = style.join == "round" ? StrokeJoint::Round : StrokeJoint::Pointed;
    std::vector<double> dashes = numbers(style.dashes);
    double total = 0;
    for (double& d : dashes) total += std::max(0.0, d);
    const bool broken = total > 0 && std::all_of(dashes.begin(), dashes.end(), [](double d) { return d >= 0; });
    if (even && clips_.empty() && !broken) {
      part.line = true;
      part.stroke = style.stroke_width * scale;
      part.data = path_data(transformed(path, place), 5);
      add_part(std::move(part));
      return;
    }
    // In the element's own units, large enough that grid and flatness stay fine, then onto the page.
    const Transform fine = Transform::scale(scale, scale);
    Flat flat = flatten(transformed(path, fine), kFlatness, false);
    std::vector<Line2> lines = std::move(flat.open);
    for (Ring& ring : flat.closed) {
      ring.push_back(ring.front());
      lines.push_back(std::move(ring));
    }
    if (broken) {
      double way = 0, pattern = 0;
      for (const Line2& line : lines) {
        for (std::size_t i = 1; i < line.size(); ++i) way += distance(line[i - 1], line[i]);
      }
      for (double& d : dashes) pattern += d = std::max(1e-3, d * scale);
      // A line of so many dashes is seen as a whole one.
      constexpr double kMostDashes = 5000;
      if (way / pattern * static_cast<double>(dashes.size()) > kMostDashes)
        note_left_out("A line of more than 5,000 dashes was taken as a whole one.");
      else
        lines = dashed(lines, dashes);
    }
    for (const Line2& line : lines) reading_.points(line.size());
    const Region covered = stroked(lines, style.stroke_width * scale, part.end, part.joint);
    add_fill(part.id, group, transformed(path_of_region(covered), Transform::scale(1 / scale, 1 / scale).then(place)),
             false);
  }

  Imported& out_;
  Reading& reading_;
  StyleSheet sheet_;
  std::map<std::string, const Element*> by_id_;
  std::set<const Element*> following_;
  LeftOut left_out_;
  std::vector<Region> clips_;  // mm on the page, each within the one before
  Point viewport_;
  int uses_ = 0;
  std::size_t walked_ = 0;
};

}  // namespace

Imported read_svg(const std::string& text, const std::string& where, Reading reading) {
  if (text.size() > (64u << 20)) throw bad_input(say("{0}: larger than 64 MB, too large for a drawing.", where));
  const std::unique_ptr<svg::Element> root = svg::read_tree(text, where, reading);
  Imported out;
  const auto slash = where.rfind('/');
  out.drawing.name = slash == std::string::npos ? where : where.substr(slash + 1);
  try {
    SvgWalker(*root, out, reading).walk_root(*root);
  } catch (const Problem& problem) {
    throw bad_input(where + ": " + problem.what());
  }
  if (out.drawing.parts.empty()) {
    std::string why;
    for (const std::string& s : out.left_out) why += " " + s;
    throw bad_input(say("{0}: no filled or stroked outlines stand in this drawing.{1}", where, why));
  }
  return out;
}

}  // namespace doyen
