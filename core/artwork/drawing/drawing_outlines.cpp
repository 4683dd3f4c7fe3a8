#include "artwork/drawing/drawing_outlines.hpp"

#include <list>
#include <memory>
#include <mutex>

#include "geometry/polyline.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen::making {

namespace {
constexpr double kClosed = 0.02;  // mm: ends of a line nearer than this are one
}  // namespace

// Each part is cleaned by its own rule, cleaned rings then joined under the non-zero rule in one go.
Outlines parts_outlines(const Drawing& drawing, const Transform& place, double scale) {
  Outlines out;
  std::vector<Ring> rings, enclosing;
  std::size_t points = 0;
  for (const Drawing::Part& part : drawing.parts) {
    if (part.left_out) continue;
    Flat flat = flatten(transformed(parse_path(part.data), place), kFlatness, !part.line);
    for (const auto* lines : {&flat.closed, &flat.open}) {
      for (const auto& line : *lines) points += line.size();
    }
    check_points(points);
    if (!part.line) {
      for (Island& island : clean(flat.closed, part.even_odd ? Fill::EvenOdd : Fill::NonZero).islands) {
        for (Ring& ring : island.rings) rings.push_back(std::move(ring));
      }
      continue;
    }
    std::vector<Line2> lines = std::move(flat.open);
    if (drawing.lines == Drawing::Lines::Enclose) {
      for (Line2& line : lines) {
        const bool closed = line.size() > 3 && distance(line.front(), line.back()) <= kClosed;
        (closed ? enclosing : out.open).push_back(std::move(line));
      }
      std::move(flat.closed.begin(), flat.closed.end(), std::back_inserter(enclosing));
      continue;
    }
    for (Ring& ring : flat.closed) {
      ring.push_back(ring.front());
      lines.push_back(std::move(ring));
    }
    if (drawing.lines == Drawing::Lines::Followed) {
      for (Line2& line : lines) out.lines.push_back(std::move(line));
      continue;
    }
    const double width = part.stroke > 0 ? part.stroke * scale : drawing.hairline;
    for (Island& island : stroked(lines, width, part.end, part.joint).islands) {
      for (Ring& ring : island.rings) rings.push_back(std::move(ring));
    }
  }
  for (Island& island : clean(enclosing, Fill::EvenOdd).islands) {
    for (Ring& ring : island.rings) rings.push_back(std::move(ring));
  }
  out.region = clean(rings);
  return out;
}

namespace {

// The last ones that were worked out, known by what they hang on.
template <typename Key, typename Value>
class Lately {
 public:
  explicit Lately(std::size_t most) : most_(most) {}
  template <typename Make>
  std::shared_ptr<const Value> get(const Key& key, Make make) {
    {
      const std::scoped_lock hold(lock_);
      for (auto it = known_.begin(); it != known_.end(); ++it) {
        if (!(it->first == key)) continue;
        known_.splice(known_.begin(), known_, it);
        return it->second;
      }
    }
    auto value = std::make_shared<const Value>(make());  // without the lock: it may take long
    const std::scoped_lock hold(lock_);
    known_.emplace_front(key, value);
    if (known_.size() > most_) known_.pop_back();
    return value;
  }

 private:
  std::size_t most_;
  std::mutex lock_;
  std::list<std::pair<Key, std::shared_ptr<const Value>>> known_;
};

struct BoxKey {
  std::uint64_t parts;  // Shared::mark()
  Drawing::Lines lines;
  friend bool operator==(const BoxKey&, const BoxKey&) = default;
};
struct OutlinesKey {
  BoxKey box;
  double scale, tall, hairline, thicken, turn;
  bool mirrored;
  friend bool operator==(const OutlinesKey&, const OutlinesKey&) = default;
};

}  // namespace

namespace {

// What the box hangs on: not on which parts are left out.
std::string content_of(const Drawing& drawing) {
  std::string key;
  for (const Drawing::Part& part : drawing.parts) {
    key += part.data + (part.even_odd ? 'e' : 'n') + (part.line ? 'l' : 'f');
    if (part.line) key += std::to_string(static_cast<int>(drawing.lines));
    if (part.line && drawing.lines == Drawing::Lines::Wide) key += format_number(part.stroke, 4);
  }
  return key;
}

Box box_of_content(const Drawing& drawing) {
  static Lately<std::string, Box> known(16);
  return *known.get(content_of(drawing), [&] {
    Drawing whole = drawing;
    for (Drawing::Part& part : whole.parts.edit()) part.left_out = false;
    const Outlines all = parts_outlines(whole, {}, 1);
    Box box = bounds(all);
    for (const Line2& line : all.open) {
      for (const Point& p : line) box.add(p);
    }
    return box;
  });
}

}  // namespace

Box drawing_box(const Drawing& drawing) {
  static Lately<BoxKey, Box> known(64);  // boxes are asked for at every move
  return *known.get({drawing.parts.mark(), drawing.lines}, [&] { return box_of_content(drawing); });
}

// From the page to the drawing's own origin, unturned.
Transform own_place(const Drawing& drawing) {
  if (!(drawing.scale > 1e-6 && drawing.scale < 1e6)) throw bad_input(say("The drawing's scale cannot be right."));
  const Box box = drawing_box(drawing);
  if (box.empty()) throw bad_input(say("The drawing “{0}” has no outlines.", drawing.name));
  const Point middle = box.centre();
  const double sx = drawing.mirrored ? -drawing.scale : drawing.scale;
  return Transform::move(-middle.x, -middle.y).then(Transform::scale(sx, -drawing.scale * drawing.tall));
}

Outlines drawing_outlines(const Drawing& drawing, double turn, Point at) {
  static Lately<OutlinesKey, Outlines> known(12);
  Outlines out = *known.get({{drawing.parts.mark(), drawing.lines},
                             drawing.scale,
                             drawing.tall,
                             drawing.hairline,
                             drawing.thicken,
                             turn,
                             drawing.mirrored},
                            [&] {
                              const Transform place = own_place(drawing).then(Transform::turn(turn));
                              Outlines made = parts_outlines(drawing, place, drawing.scale);
                              if (drawing.thicken > 0) made.region = grow(made.region, drawing.thicken);
                              return made;
                            });
  move_on_grid(out, at);
  return out;
}

}  // namespace doyen::making
