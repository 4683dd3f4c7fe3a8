#include "artwork/piece.hpp"

#include <algorithm>
#include <map>
#include <mutex>

#include "artwork/drawing/drawing_outlines.hpp"
#include "artwork/making.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// Follows pieces to their sources, each once, and stops where they lead back.
class Maker {
 public:
  explicit Maker(const PieceSource& source) : source_(source) {}

  Outlines make(const Piece& piece) {
    if (!std::isfinite(piece.at.x) || !std::isfinite(piece.at.y) || !std::isfinite(piece.turn)) {
      throw bad_input(say("“{0}” has a place that is not a number.", piece.name));
    }
    const Transform turn = Transform::turn(piece.turn);
    const Point at{snap_to_grid(piece.at.x), snap_to_grid(piece.at.y)};
    const Transform place = turn.then(Transform::move(at.x, at.y));
    const making::Ask ask = [&](const std::string& id) { return ask_for(id, piece); };
    if (const auto* lettering = std::get_if<Lettering>(&piece.what))
      return making::lettering_outlines(*lettering, turn, at, ask);
    if (const auto* shape = std::get_if<PlainShape>(&piece.what)) {
      if (shape->shares_of.empty()) return making::shape_outlines(*shape, place);
      const Box base = bounds(ask(shape->shares_of));
      if (base.empty()) throw bad_input(say("“{0}” is a share of a piece that has no size.", piece.name));
      const double h = base.height();
      const Point corner{base.left, base.bottom};
      return making::shape_outlines(
          making::of_share(*shape, h),
          turn.then(Transform::move(snap_to_grid(corner.x + piece.at.x * h), snap_to_grid(corner.y + piece.at.y * h))));
    }
    if (const auto* drawing = std::get_if<Drawing>(&piece.what))
      return making::drawing_outlines(*drawing, piece.turn, at);
    return making::derived_outlines(std::get<Derived>(piece.what), piece, ask);
  }

 private:
  Outlines ask_for(const std::string& id, const Piece& asking) {
    const Piece* piece = source_ ? source_(id) : nullptr;
    if (piece == nullptr)
      throw bad_input(say("“{0}” is made from the piece “{1}”, which is not there any more.", asking.name, id));
    if (std::find(open_.begin(), open_.end(), id) != open_.end() || id == asking.id || open_.size() > 40)
      throw bad_input(
          say("“{0}” and “{1}” are made from each other; one must stand by itself.", asking.name, piece->name));
    if (const auto known = made_.find(id); known != made_.end()) return known->second;
    open_.push_back(asking.id);
    Outlines found = make(*piece);
    open_.pop_back();
    return made_.emplace(id, std::move(found)).first->second;
  }

  const PieceSource& source_;
  std::vector<std::string> open_;
  std::map<std::string, Outlines> made_;
};

}  // namespace

namespace making {

PlainShape of_share(PlainShape shape, double mm) {
  for (double* length : {&shape.width, &shape.height, &shape.corner_radius, &shape.band, &shape.rise}) *length *= mm;
  shape.shares_of.clear();
  return shape;
}

void check_size(double mm, const std::string& what) {
  if (!(mm >= 0.1 && mm <= 20'000.0)) {
    throw bad_input(say("{0} must lie between 0.1 mm and 20 m, not {1} mm.", what, format_number(mm, 3)));
  }
}

}  // namespace making

Outlines outlines_of(const Piece& piece, const PieceSource& source) { return Maker(source).make(piece); }

void move_on_grid(Outlines& outlines, Point by) {
  outlines.region = moved_on_grid(std::move(outlines.region), by);
  // Lines need not lie on the grid: a thousandth of its step is kept of them, so that they are the same in every place.
  constexpr double kFine = kGrid / 1000;
  for (std::vector<Line2>* lines : {&outlines.lines, &outlines.open}) {
    for (Line2& line : *lines) {
      for (Point& p : line) p = {std::round((p.x + by.x) / kFine) * kFine, std::round((p.y + by.y) / kFine) * kFine};
    }
  }
  for (LetterMark& letter : outlines.letters)
    letter.box = Box{letter.box.left + by.x, letter.box.bottom + by.y, letter.box.right + by.x, letter.box.top + by.y};
  for (Derived::Bridge& bridge : outlines.bridges) bridge = {bridge.from + by, bridge.to + by};
}

Box bounds(const Outlines& outlines) {
  Box box = bounds(outlines.region);
  for (const Line2& line : outlines.lines) {
    for (const Point& p : line) box.add(p);
  }
  return box;
}

Transform drawing_place(const Piece& piece) {
  return making::own_place(std::get<Drawing>(piece.what))
      .then(Transform::turn(piece.turn))
      .then(Transform::move(snap_to_grid(piece.at.x), snap_to_grid(piece.at.y)));
}

void edit_parts(Piece& piece, const std::function<void(Drawing&)>& change) {
  auto* drawing = std::get_if<Drawing>(&piece.what);
  if (drawing == nullptr) return;
  const Transform before = drawing_place(piece);
  const Shared<std::vector<Drawing::Part>> parts = drawing->parts;
  change(*drawing);
  const auto as_drawn = [](Drawing::Part part) {
    part.left_out = false;
    return part;
  };
  if (drawing->original.empty() && parts.mark() != drawing->parts.mark() &&
      !std::equal(parts.begin(), parts.end(), drawing->parts.begin(), drawing->parts.end(),
                  [&](const Drawing::Part& a, const Drawing::Part& b) { return as_drawn(a) == as_drawn(b); }))
    drawing->original = parts;
  if (making::drawing_box(*drawing).empty()) return;
  piece.at = piece.at + (before.apply({0, 0}) - drawing_place(piece).apply({0, 0}));
}

void set_shares(Piece& piece, const std::string& of, const PieceSource& source) {
  auto* shape = std::get_if<PlainShape>(&piece.what);
  if (shape == nullptr || shape->shares_of == of) return;
  const auto base = [&](const std::string& id) {
    const Piece* other = source ? source(id) : nullptr;
    if (other == nullptr) throw bad_input(say("The piece “{0}” is not there any more.", id));
    const Box box = bounds(outlines_of(*other, source));
    if (box.height() <= 0) throw bad_input(say("“{0}” has no height to take shares of.", other->name));
    return box;
  };
  if (!shape->shares_of.empty()) {
    const Box was = base(shape->shares_of);
    *shape = making::of_share(*shape, was.height());
    piece.at = Point{was.left, was.bottom} + piece.at * was.height();
  }
  if (of.empty()) return;
  const Box now = base(of);
  *shape = making::of_share(*shape, 1 / now.height());
  piece.at = (piece.at - Point{now.left, now.bottom}) * (1 / now.height());
  shape->shares_of = of;
  outlines_of(piece, source);  // says so when pieces would be made from each other
}

void shift_piece(Piece& piece, Point by, const PieceSource& source) {
  const auto* shape = std::get_if<PlainShape>(&piece.what);
  const Piece* base = shape == nullptr || shape->shares_of.empty() || !source ? nullptr : source(shape->shares_of);
  const double height = base == nullptr ? 1 : bounds(outlines_of(*base, source)).height();
  if (height > 0) piece.at = piece.at + by * (1 / height);
}

std::vector<std::string> sources_of(const Piece& piece) {
  if (const auto* d = std::get_if<Derived>(&piece.what)) return d->from;
  std::vector<std::string> ids;
  if (const auto* s = std::get_if<PlainShape>(&piece.what)) {
    if (!s->shares_of.empty()) ids.push_back(s->shares_of);
  }
  if (const auto* l = std::get_if<Lettering>(&piece.what)) {
    if (!l->along.empty()) ids.push_back(l->along);
    if (!l->inside.empty()) ids.push_back(l->inside);
  }
  return ids;
}

void size_piece(Piece& piece, double across, double along) {
  if (auto* l = std::get_if<Lettering>(&piece.what)) {
    l->cap_height *= across;
    l->width *= across;
    l->arc_radius *= across;
    l->stroke *= across;
    l->thicken *= across;
  } else if (auto* s = std::get_if<PlainShape>(&piece.what)) {
    s->width *= across;
    s->height *= along;
    if (across == along) {
      s->corner_radius *= across;
      s->rise *= across;
    }
  } else if (auto* d = std::get_if<Drawing>(&piece.what)) {
    d->scale *= across;
    d->thicken *= across;
  }
}

Drawing frozen(const Outlines& outlines, const std::string& name) {
  Drawing d;
  d.name = name;
  const Box box = bounds(outlines);
  d.page_width = box.width();
  d.page_height = box.height();
  const Transform to_page{1, 0, 0, -1, -box.left, box.top};
  std::vector<Drawing::Part> parts;
  int number = 1;
  const auto add = [&](const std::vector<std::vector<Point>>& rings, bool line) {
    Path path;
    for (const auto& ring : rings) {
      for (std::size_t i = 0; i < ring.size(); ++i)
        i == 0 ? path.move(to_page.apply(ring[0])) : path.line(to_page.apply(ring[i]));
      if (!line) path.close();
    }
    Drawing::Part part;
    part.id = "part-" + std::to_string(number++);
    part.data = path_data(path, 4);
    part.even_odd = true;
    part.line = line;
    parts.push_back(std::move(part));
  };
  for (const Island& island : outlines.region.islands) add(island.rings, false);
  for (const Line2& line : outlines.lines) add({line}, true);
  d.parts = std::move(parts);
  if (!outlines.lines.empty()) d.lines = Drawing::Lines::Followed;
  return d;
}

void draw_shape(Piece& piece) {
  const auto* shape = std::get_if<PlainShape>(&piece.what);
  if (shape == nullptr) return;
  if (!shape->shares_of.empty())
    throw bad_input(say("“{0}” is sized in shares of another piece; give it lengths of its own first.", piece.name));
  const bool line = shape->kind == PlainShape::Kind::Line || shape->kind == PlainShape::Kind::Arc;
  Drawing d;
  d.name = piece.name;
  d.page_width = shape->width;
  d.page_height = shape->height;
  if (line && shape->band <= 0) d.lines = Drawing::Lines::Followed;
  Path whole;
  const Transform to_page{1, 0, 0, -1, shape->width / 2, shape->height / 2};
  for (const Path& path : making::shape_paths(*shape)) {
    const Path on_page = transformed(path, to_page);
    whole.steps.insert(whole.steps.end(), on_page.steps.begin(), on_page.steps.end());
  }
  Drawing::Part part;
  part.id = "shape";
  part.data = path_data(whole, 6);
  part.even_odd = true;
  part.line = line;
  part.stroke = line ? shape->band : 0;
  d.parts = std::vector<Drawing::Part>{std::move(part)};
  const Outlines before = outlines_of(piece);
  piece.what = std::move(d);
  // A drawing's origin is the middle of its own box.
  const Point off = bounds(before).centre() - bounds(outlines_of(piece)).centre();
  piece.at = piece.at + off;
}

Region drawing_region(const Drawing& drawing) { return making::drawing_outlines(drawing, 0, {}).region; }
Region drawing_region_as_drawn(const Drawing& drawing) { return making::parts_outlines(drawing, {}, 1).region; }

void keep_outlines(Piece& piece) {
  auto* lettering = std::get_if<Lettering>(&piece.what);
  if (lettering == nullptr || !face_installed(lettering->face)) return;
  // Words that follow another piece are set anew from it; what is kept is the straight setting's twin on their own.
  if (!lettering->along.empty() || !lettering->inside.empty()) return;
  const std::string key = lettering_key(*lettering);
  if (lettering->kept.key == key && !lettering->kept.data.empty()) return;
  Path all;
  for (const making::SetGlyph& glyph : making::set_words(*lettering, {}).glyphs) {
    const Path moved =
        transformed(glyph.path, Transform::turn(glyph.degrees).then(Transform::move(glyph.origin.x, glyph.origin.y)));
    all.steps.insert(all.steps.end(), moved.steps.begin(), moved.steps.end());
  }
  lettering->kept = {key, Shared(path_data(all))};
}

std::string lettering_key(const Lettering& l) {
  std::string key = l.words + '|' + l.face.family + '|' + l.face.style + '|' +
                    format_number(l.fit_width ? -l.width : l.cap_height, 4) + '|' +
                    std::to_string(static_cast<int>(l.align)) + '|' + format_number(l.letter_spacing, 3) + '|' +
                    format_number(l.line_spacing, 3);
  if (l.letter_width != 100) key += "|wide " + format_number(l.letter_width, 3);
  if (l.arc_radius > 0) key += "|arc " + format_number(l.arc_below ? -l.arc_radius : l.arc_radius, 4);
  for (const auto& [pair, by] : l.pairs) key += '|' + pair + format_number(by, 3);
  return key;
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

std::string name_of_words(const std::string& words) {
  constexpr std::size_t kLongest = 32;
  std::string name;
  for (const char c : words) {
    const bool space = c == ' ' || c == '\n' || c == '\t' || c == '\r';
    if (!space)
      name += c;
    else if (!name.empty() && name.back() != ' ')
      name += ' ';
  }
  while (!name.empty() && name.back() == ' ') name.pop_back();
  if (name.size() > kLongest) {
    std::size_t end = kLongest;
    while (end > 0 && (static_cast<unsigned char>(name[end]) & 0xC0U) == 0x80U) --end;  // not within a letter (UTF-8)
    name = name.substr(0, end) + "…";
  }
  return name.empty() ? say("Lettering") : name;
}

const char* kind_word(const Piece& piece) {
  struct Word {
    const char* operator()(const Lettering&) const { return "lettering"; }
    const char* operator()(const PlainShape&) const { return "shape"; }
    const char* operator()(const Drawing& d) const { return d.traced ? "traced picture" : "drawing"; }
    const char* operator()(const Derived&) const { return "made from others"; }
  };
  return std::visit(Word{}, piece.what);
}

}  // namespace doyen
