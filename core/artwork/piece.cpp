#include "artwork/piece.hpp"

#include <algorithm>
#include <map>
#include <mutex>
#include <numbers>

#include "measure/length.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

constexpr double kLeastSize = 0.1;      // mm
constexpr double kMostSize = 20'000.0;  // mm

void check_size(double mm, const char* what) {
  if (!(mm >= kLeastSize && mm <= kMostSize)) {
    throw bad_input(std::string(what) + " must lie between 0.1 mm and 20 m, not " + format_number(mm, 3) + " mm.");
  }
}

struct SetGlyph {
  Path path;  // mm about its own origin
  Point origin;
  std::string text;
};

struct SetWords {
  std::vector<SetGlyph> glyphs;
  std::vector<std::string> missing;
  std::string notice;
};

std::vector<std::string> lines_of(const std::string& words) {
  std::vector<std::string> lines(1);
  for (const char c : words) {
    if (c == '\n')
      lines.emplace_back();
    else if (c != '\r')
      lines.back() += c;
  }
  return lines;
}

Box ink_of(const ShapedGlyph& glyph) {
  Box box;
  for (const PathStep& s : glyph.path.steps) {
    if (s.kind == PathStep::Kind::Close) continue;
    box.add(glyph.origin + s.to);
    if (s.kind == PathStep::Kind::Curve) {
      box.add(glyph.origin + s.c1);
      box.add(glyph.origin + s.c2);
    }
  }
  return box;
}

// Capitals one high, then scaled: the block's origin is the middle between the first line's cap tops and the last
// line's baseline, and its left, centre or right by alignment.
SetWords set_words(const Lettering& l) {
  if (!l.fit_width) check_size(l.cap_height, "The cap height");
  if (l.fit_width) check_size(l.width, "The lettering's width");
  const double pitch = line_pitch(l.face) * l.line_spacing / 100;
  const double extra = l.letter_spacing / 100;
  SetWords out;
  std::vector<ShapedLine> lines;
  double widest = 0;
  for (const std::string& words : lines_of(l.words)) {
    ShapedLine line = shape_line(l.face, words);
    double shift = 0, left = 1e300, right = -1e300;
    for (ShapedGlyph& g : line.glyphs) {
      g.origin.x += shift;
      shift += extra;
      const Box ink = ink_of(g);
      if (ink.empty()) continue;
      left = std::min(left, ink.left);
      right = std::max(right, ink.right);
    }
    if (right > left) {  // set flush by ink, not by advance: what is carved is what is measured
      for (ShapedGlyph& g : line.glyphs) g.origin.x -= left;
      line.advance = right - left;
    } else {
      line.advance = 0;
    }
    widest = std::max(widest, line.advance);
    for (const std::string& m : line.missing) {
      if (std::find(out.missing.begin(), out.missing.end(), m) == out.missing.end()) out.missing.push_back(m);
    }
    lines.push_back(std::move(line));
  }
  const double scale = l.fit_width ? (widest > 0 ? l.width / widest : 1) : l.cap_height;
  const double block = 1 + pitch * static_cast<double>(lines.size() - 1);
  for (std::size_t i = 0; i < lines.size(); ++i) {
    const double base = block / 2 - 1 - pitch * static_cast<double>(i);
    const double share = l.align == Align::Left ? 0 : l.align == Align::Centre ? 0.5 : 1;
    const double left = -share * lines[i].advance;
    for (const ShapedGlyph& g : lines[i].glyphs) {
      if (g.path.empty()) continue;
      out.glyphs.push_back({transformed(g.path, Transform::scale(scale, scale)),
                            Point{g.origin.x + left, g.origin.y + base} * scale, g.text});
    }
  }
  return out;
}

SetWords words_or_kept(const Lettering& l) {
  if (face_installed(l.face)) return set_words(l);
  const std::string missing = "The face “" + l.face.family + " " + l.face.style + "” is not installed";
  if (l.kept.data.empty() || l.kept.key != lettering_key(l)) {
    throw bad_input(missing + ", and no outlines of these words were kept; choose another face.");
  }
  SetWords out;
  out.notice = missing + "; the outlines kept in the job are used until the words are edited.";
  out.glyphs.push_back({parse_path(l.kept.data), {}, l.words});
  return out;
}

// Rounds every glyph about its own origin and moves it by whole grid steps, so that equal letters stay equal.
Outlines outlines_of_words(const Lettering& lettering, const Transform& turn, Point at) {
  SetWords set = words_or_kept(lettering);
  Outlines out;
  out.missing = std::move(set.missing);
  out.notice = std::move(set.notice);
  std::vector<Ring> all;
  for (const SetGlyph& glyph : set.glyphs) {
    const Point place = turn.apply(glyph.origin) + at;
    const Point origin{snap_to_grid(place.x), snap_to_grid(place.y)};
    Box box;
    for (Ring& ring : flatten(transformed(glyph.path, turn), kFlatness, true).closed) {
      for (Point& p : ring) {
        p = {snap_to_grid(p.x) + origin.x, snap_to_grid(p.y) + origin.y};
        box.add(p);
      }
      all.push_back(std::move(ring));
    }
    if (!box.empty()) out.letters.push_back({glyph.text, box});
  }
  out.region = clean(all);
  return out;
}

Path ellipse_path(double rx, double ry) {
  const std::string r = format_number(rx, 6) + " " + format_number(ry, 6);
  return parse_path("M" + format_number(rx, 6) + " 0 A" + r + " 0 0 1 " + format_number(-rx, 6) + " 0 A" + r +
                    " 0 0 1 " + format_number(rx, 6) + " 0 Z");
}

Path rectangle_path(double w, double h, double radius) {
  const double r = std::clamp(radius, 0.0, std::min(w, h) / 2);
  const double x = w / 2, y = h / 2;
  Path p;
  if (r < 1e-6) {
    p.move({-x, -y});
    p.line({x, -y});
    p.line({x, y});
    p.line({-x, y});
  } else {
    const double k = r * (1 - 4.0 / 3 * (std::numbers::sqrt2 - 1));  // control point's distance from the corner
    p.move({-x + r, -y});
    p.line({x - r, -y});
    p.curve({x - k, -y}, {x, -y + k}, {x, -y + r});
    p.line({x, y - r});
    p.curve({x, y - k}, {x - k, y}, {x - r, y});
    p.line({-x + r, y});
    p.curve({-x + k, y}, {-x, y - k}, {-x, y - r});
    p.line({-x, -y + r});
    p.curve({-x, -y + k}, {-x + k, -y}, {-x + r, -y});
  }
  p.close();
  return p;
}

Region region_of_shape(const PlainShape& s, const Transform& place) {
  check_size(s.width, "The width");
  check_size(s.height, "The height");
  const auto outline = [&](double inset) {
    const double w = s.width - 2 * inset, h = s.height - 2 * inset;
    const Path path = s.kind == PlainShape::Kind::Ellipse ? ellipse_path(w / 2, h / 2)
                                                          : rectangle_path(w, h, s.corner_radius - inset);
    return clean(flatten(transformed(path, place), kFlatness, true).closed);
  };
  const Region outer = outline(0);
  if (s.band <= 0 || 2 * s.band >= std::min(s.width, s.height) - kLeastSize) return outer;
  return subtract(outer, outline(s.band));
}

// Every part is cleaned by its own rule; cleaned rings then join under the non-zero rule in one go.
Region parts_region(const Drawing& drawing, const Transform& place) {
  std::vector<Ring> rings;
  for (const Drawing::Part& part : drawing.parts) {
    const Flat flat = flatten(transformed(parse_path(part.data), place), kFlatness, true);
    for (Island& island : clean(flat.closed, part.even_odd ? Fill::EvenOdd : Fill::NonZero).islands) {
      for (Ring& ring : island.rings) rings.push_back(std::move(ring));
    }
  }
  return clean(rings);
}

Box drawing_box(const Drawing& drawing) {
  static std::mutex lock;
  static std::map<std::string, Box> known;  // by the parts' data: boxes are asked for at every move
  std::string key;
  for (const Drawing::Part& part : drawing.parts) key += part.data + (part.even_odd ? "e" : "n");
  {
    const std::scoped_lock hold(lock);
    const auto it = known.find(key);
    if (it != known.end()) return it->second;
  }
  const Box box = bounds(parts_region(drawing, {}));
  const std::scoped_lock hold(lock);
  if (known.size() > 64) known.clear();
  return known.emplace(std::move(key), box).first->second;
}

Region region_of_drawing(const Drawing& drawing, const Transform& place) {
  if (!(drawing.scale > 1e-6 && drawing.scale < 1e6)) throw bad_input("The drawing's scale cannot be right.");
  const Box box = drawing_box(drawing);
  if (box.empty()) throw bad_input("The drawing “" + drawing.name + "” has no filled outlines.");
  const Point middle = box.centre();
  const double sx = drawing.mirrored ? -drawing.scale : drawing.scale;
  const Transform own = Transform::move(-middle.x, -middle.y).then(Transform::scale(sx, -drawing.scale));
  return parts_region(drawing, own.then(place));
}

}  // namespace

Outlines outlines_of(const Piece& piece) {
  if (!std::isfinite(piece.at.x) || !std::isfinite(piece.at.y) || !std::isfinite(piece.turn)) {
    throw bad_input("“" + piece.name + "” has a place that is not a number.");
  }
  const Transform turn = Transform::turn(piece.turn);
  const Point at{snap_to_grid(piece.at.x), snap_to_grid(piece.at.y)};
  const Transform place = turn.then(Transform::move(at.x, at.y));
  if (const auto* lettering = std::get_if<Lettering>(&piece.what)) return outlines_of_words(*lettering, turn, at);
  Outlines out;
  if (const auto* shape = std::get_if<PlainShape>(&piece.what)) out.region = region_of_shape(*shape, place);
  if (const auto* drawing = std::get_if<Drawing>(&piece.what)) out.region = region_of_drawing(*drawing, place);
  return out;
}

Region drawing_region(const Drawing& drawing) { return region_of_drawing(drawing, {}); }
Region drawing_region_as_drawn(const Drawing& drawing) { return parts_region(drawing, {}); }

void keep_outlines(Piece& piece) {
  auto* lettering = std::get_if<Lettering>(&piece.what);
  if (lettering == nullptr || !face_installed(lettering->face)) return;
  const std::string key = lettering_key(*lettering);
  if (lettering->kept.key == key && !lettering->kept.data.empty()) return;
  Path all;
  for (const SetGlyph& glyph : set_words(*lettering).glyphs) {
    const Path moved = transformed(glyph.path, Transform::move(glyph.origin.x, glyph.origin.y));
    all.steps.insert(all.steps.end(), moved.steps.begin(), moved.steps.end());
  }
  lettering->kept = {key, path_data(all)};
}

std::string lettering_key(const Lettering& l) {
  return l.words + '|' + l.face.family + '|' + l.face.style + '|' +
         format_number(l.fit_width ? -l.width : l.cap_height, 4) + '|' + std::to_string(static_cast<int>(l.align)) +
         '|' + format_number(l.letter_spacing, 3) + '|' + format_number(l.line_spacing, 3);
}

std::string letter_at(const Outlines& outlines, Point p) {
  const LetterMark* best = nullptr;
  double nearest = 1e300;
  for (const LetterMark& mark : outlines.letters) {
    const double dx = std::max({mark.box.left - p.x, 0.0, p.x - mark.box.right});
    const double dy = std::max({mark.box.bottom - p.y, 0.0, p.y - mark.box.top});
    const double away = std::hypot(dx, dy) + 1e-3 * distance(mark.box.centre(), p);
    if (away < nearest) {
      nearest = away;
      best = &mark;
    }
  }
  return best == nullptr ? std::string() : "“" + best->text + "”";
}

const char* kind_word(const Piece& piece) {
  static constexpr const char* kWords[] = {"lettering", "shape", "drawing"};
  return kWords[piece.what.index()];
}

}  // namespace doyen
