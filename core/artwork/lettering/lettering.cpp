// Words to outlines: straight, on an arc, along another piece, or fitted inside one.
#include <algorithm>
#include <numbers>

#include "artwork/lettering/single_line_faces.hpp"
#include "artwork/making.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen::making {
namespace {

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

ShapedLine shaped(const Lettering& l, const std::string& words) {
  ShapedLine line = is_single_line(l.face) ? shape_single_line(l.face, words) : shape_line(l.face, words);
  if (l.letter_width == 100) return line;
  const double k = l.letter_width / 100;
  for (ShapedGlyph& g : line.glyphs) {
    g.path = transformed(g.path, Transform::scale(k, 1));
    g.origin.x *= k;
    g.advance *= k;
  }
  line.advance *= k;
  return line;
}

double pitch_of(const Lettering& l) {
  return (is_single_line(l.face) ? 1.6 : line_pitch(l.face)) * l.line_spacing / 100;
}

// One line, capitals 1 high, spaced and set flush: ink begins at 0, `advance` is the ink's width.
ShapedLine spaced_line(const Lettering& l, const std::string& words) {
  ShapedLine line = shaped(l, words);
  double shift = 0, left = 1e300, right = -1e300;
  const ShapedGlyph* before = nullptr;
  for (ShapedGlyph& g : line.glyphs) {
    if (before != nullptr) {
      const auto pair = l.pairs.find(before->text + g.text);
      if (pair != l.pairs.end()) shift += pair->second / 100;
    }
    before = &g;
    g.origin.x += shift;
    shift += l.letter_spacing / 100;
    const Box ink = ink_of(g);
    if (ink.empty()) continue;
    left = std::min(left, ink.left);
    right = std::max(right, ink.right);
  }
  line.advance = 0;
  if (right > left) {  // by ink, not by advance: what is carved is what is measured
    for (ShapedGlyph& g : line.glyphs) g.origin.x -= left;
    line.advance = right - left;
  }
  return line;
}

// Where a line's letters stand: at `along` mm from its middle and `down` mm below the first line's base.
struct Stand {
  Point at;
  double degrees = 0;
};
using Course = std::function<Stand(double along, double down)>;

Course arc_course(double radius, bool below) {
  return [=](double along, double down) {
    const double r = below ? radius + down : radius - down;
    if (r < 0.5) throw bad_input(say("The arc is too small for so many lines; give it a larger radius."));
    const double a = along / r;
    const Point at =
        below ? Point{r * std::sin(a), radius - r * std::cos(a)} : Point{r * std::sin(a), r * std::cos(a) - radius};
    return Stand{at, (below ? a : -a) * 180 / std::numbers::pi};
  };
}

// Along the first stroke line of a piece, or round its largest outline with the letters standing outside.
Course piece_course(const Outlines& way, double start) {
  Line2 line;
  bool closed = false;
  if (!way.lines.empty()) {
    line = *std::max_element(way.lines.begin(), way.lines.end(),
                             [](const Line2& a, const Line2& b) { return a.size() < b.size(); });
  } else {
    double most = 0;
    for (const Island& island : way.region.islands) {
      if (signed_area(island.rings.front()) > most) {
        most = signed_area(island.rings.front());
        line = island.rings.front();
      }
    }
    std::reverse(line.begin(), line.end());
    if (!line.empty()) line.push_back(line.front());
  }
  if (line.size() < 2) throw bad_input(say("The piece that the words follow has no outline."));
  closed = distance(line.front(), line.back()) < 1e-6;
  std::vector<double> run{0};
  for (std::size_t i = 1; i < line.size(); ++i) run.push_back(run.back() + distance(line[i - 1], line[i]));
  return [line = std::move(line), run = std::move(run), closed, start](double along, double down) {
    const double whole = run.back();
    double s = whole * start + along;
    if (closed) s = std::fmod(std::fmod(s, whole) + whole, whole);
    const auto next = std::upper_bound(run.begin(), run.end(), s);
    const auto i = static_cast<std::size_t>(
        std::clamp<std::ptrdiff_t>(next - run.begin(), 1, static_cast<std::ptrdiff_t>(line.size()) - 1));
    const double len = run[i] - run[i - 1];
    const Point d = len > 0 ? (line[i] - line[i - 1]) * (1 / len) : Point{1, 0};
    const Point at = line[i - 1] + d * (s - run[i - 1]);
    return Stand{at + Point{d.y, -d.x} * down, std::atan2(d.y, d.x) * 180 / std::numbers::pi};
  };
}

SetWords set_straight_or_along(const Lettering& l, const Course& course) {
  SetWords out;
  out.lines = is_single_line(l.face);
  std::vector<ShapedLine> lines;
  double widest = 0;
  for (const std::string& words : lines_of(l.words)) {
    ShapedLine line = spaced_line(l, words);
    widest = std::max(widest, line.advance);
    for (const std::string& m : line.missing) {
      if (std::find(out.missing.begin(), out.missing.end(), m) == out.missing.end()) out.missing.push_back(m);
    }
    lines.push_back(std::move(line));
  }
  const double pitch = pitch_of(l);
  const double scale = l.fit_width ? (widest > 0 ? l.width / widest : 1) : l.cap_height;
  const double block = 1 + pitch * static_cast<double>(lines.size() - 1);
  const double share = l.align == Align::Left ? 0 : l.align == Align::Centre ? 0.5 : 1;
  for (std::size_t i = 0; i < lines.size(); ++i) {
    for (const ShapedGlyph& g : lines[i].glyphs) {
      if (g.path.empty()) continue;
      const Path path = transformed(g.path, Transform::scale(scale, scale));
      const double x = g.origin.x - share * lines[i].advance;
      if (!course) {
        const double base = block / 2 - 1 - pitch * static_cast<double>(i);
        out.glyphs.push_back({path, Point{x, g.origin.y + base} * scale, 0, g.text});
        continue;
      }
      // The middle of the letter's own width stands on the way.
      const double middle = g.advance / 2;
      const Stand stand = course((x + middle) * scale, pitch * static_cast<double>(i) * scale);
      const Transform turn = Transform::turn(stand.degrees);
      out.glyphs.push_back({path, stand.at + turn.apply(Point{-middle, g.origin.y} * scale), stand.degrees, g.text});
    }
  }
  return out;
}

SetWords words_or_kept(const Lettering& l, const Ask& ask) {
  if (is_single_line(l.face) || face_installed(l.face)) return set_words(l, ask);
  const std::string missing = say("The face “{0} {1}” is not installed", l.face.family, l.face.style);
  if (l.kept.data.empty() || l.kept.key != lettering_key(l)) {
    throw bad_input(say("{0}, and no outlines of these words were kept; choose another face.", missing));
  }
  SetWords out;
  out.notice = say("{0}; the outlines kept in the job are used until the words are edited.", missing);
  out.glyphs.push_back({parse_path(l.kept.data.get()), {}, 0, l.words});
  return out;
}

// Rounds every glyph about its own origin and moves it by whole grid steps, so that equal letters stay equal.
Outlines placed(const SetWords& set, const Transform& turn, Point at, double stroke) {
  Outlines out;
  std::vector<Ring> all;
  for (const SetGlyph& glyph : set.glyphs) {
    const Point place = turn.apply(glyph.origin) + at;
    const Point origin{snap_to_grid(place.x), snap_to_grid(place.y)};
    const Transform own = glyph.degrees == 0 ? turn : Transform::turn(glyph.degrees).then(turn);
    Box box;
    const auto on_board = [&](std::vector<Point>& points) {
      for (Point& p : points) {
        p = {snap_to_grid(p.x) + origin.x, snap_to_grid(p.y) + origin.y};
        box.add(p);
      }
    };
    Flat flat = flatten(transformed(glyph.path, own), kFlatness, !set.lines);
    for (Line2& line : flat.open) {
      on_board(line);
      out.lines.push_back(std::move(line));
    }
    for (Ring& ring : flat.closed) {
      on_board(ring);
      if (set.lines) {
        ring.push_back(ring.front());
        out.lines.push_back(std::move(ring));
      } else {
        all.push_back(std::move(ring));
      }
    }
    if (!box.empty()) out.letters.push_back({glyph.text, box});
  }
  if (set.lines && stroke > 0) {
    out.region = sweep(out.lines, stroke / 2);
    out.lines.clear();
  } else {
    out.region = clean(all);
  }
  return out;
}

// The largest cap height that leaves the margin everywhere, and where the words' origin lies then.
Lettering fitted(const Lettering& l, const Region& room, Point& at) {
  const Point middle = bounds(room).centre();
  Lettering trial = l;
  trial.inside.clear();
  trial.fit_width = false;
  trial.cap_height = 100;
  Region words = placed(set_straight_or_along(trial, nullptr), {}, {0, 0}, std::max(0.2, l.stroke)).region;
  if (words.empty()) return trial;
  const Box box = bounds(words);
  words = transformed(words, Transform::move(-box.centre().x, -box.centre().y));
  const auto fits = [&](double scale) {
    const double margin = l.inside_margin_share ? l.inside_margin / 100 * box.height() * scale : l.inside_margin;
    const Region target = margin > 0 ? grow(room, -margin) : room;
    if (target.empty()) return false;
    return subtract(transformed(words, Transform::scale(scale, scale).then(Transform::move(middle.x, middle.y))),
                    target)
        .empty();
  };
  double low = 0.002, high = std::max(bounds(room).width() / box.width(), bounds(room).height() / box.height());
  if (!fits(low))
    throw bad_input(
        say("There is no room for the words inside the piece they should fit; the margin may be too wide."));
  while (high / low > 1.002) {
    const double half = std::sqrt(low * high);
    (fits(half) ? low : high) = half;
  }
  trial.cap_height = 100 * low;
  at = middle - box.centre() * low;
  return trial;
}

}  // namespace

std::vector<LineMeasure> measure_lines(const Lettering& l) {
  std::vector<LineMeasure> measures;
  for (const std::string& words : lines_of(l.words)) {
    ShapedLine line = spaced_line(l, words);
    measures.push_back({line.advance, std::move(line.missing)});
  }
  return measures;
}

SetWords set_words(const Lettering& l, const Ask& ask) {
  if (!l.fit_width) check_size(l.cap_height, say("The cap height"));
  if (l.fit_width) check_size(l.width, say("The lettering's width"));
  if (!(l.letter_width >= 20 && l.letter_width <= 400))
    throw bad_input(say("The letters' width: 20 to 400 per cent of the face's own was expected."));
  if (!l.along.empty()) return set_straight_or_along(l, piece_course(ask(l.along), l.along_start));
  if (l.arc_radius > 0) return set_straight_or_along(l, arc_course(l.arc_radius, l.arc_below));
  return set_straight_or_along(l, nullptr);
}

Outlines lettering_outlines(const Lettering& l, const Transform& turn, Point at, const Ask& ask) {
  SetWords set;
  Point shift = at;
  if (!l.inside.empty()) {
    Point origin;
    const Lettering fit = fitted(l, ask(l.inside).region, origin);
    set = words_or_kept(fit, ask);
    shift = at + origin;
  } else {
    set = words_or_kept(l, ask);
  }
  if (!(l.thicken >= 0 && l.thicken < 1000)) throw bad_input(say("The strokes' thickening cannot be right."));
  Outlines out = placed(set, turn, shift, l.stroke);
  if (l.thicken > 0) out.region = grow(out.region, l.thicken);
  out.missing = std::move(set.missing);
  out.notice = std::move(set.notice);
  return out;
}

}  // namespace doyen::making
