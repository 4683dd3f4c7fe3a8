#include "artwork/drawing/clean_up.hpp"

#include <algorithm>
#include <set>

#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostPlaces = 200;

// One part as it lies on the board.
struct Laid {
  std::size_t index;
  Region region;             // empty for lines
  std::vector<Line2> lines;  // of stroke lines
  Box box;
};

class Reporter {
 public:
  Reporter(const Piece& piece, const Box& board, const CleanUpLimits& limits,
           const std::function<std::string(double)>& show, const FeedAlong& feed, const Cancel& cancel)
      : piece_(piece),
        drawing_(std::get<Drawing>(piece.what)),
        board_(board),
        limits_(limits),
        show_(show),
        feed_(feed),
        cancel_(cancel) {
    lay();
  }

  std::vector<Finding> run() {
    using Look = void (Reporter::*)();
    for (const Look look :
         {&Reporter::open_ends, &Reporter::doubled, &Reporter::hidden, &Reporter::nesting, &Reporter::off_board,
          &Reporter::small_parts, &Reporter::crossings, &Reporter::needless_points}) {
      cancel_.check();
      (this->*look)();
    }
    return std::move(found_);
  }

 private:
  // Lays every wanted part on the board, as outlines_of() does: about the middle of the whole drawing.
  void lay() {
    place_ = drawing_place(piece_);
    for (std::size_t i = 0; i < drawing_.parts.size(); ++i) {
      const Drawing::Part& part = drawing_.parts[i];
      if (part.left_out) continue;
      Laid laid{i, {}, {}, {}};
      cancel_.check();
      const Flat flat = flatten(transformed(parse_path(part.data), place_), kFlatness, !part.line);
      points_ += part.line ? 0 : count(flat.closed);
      if (part.line) {
        laid.lines = flat.open;
        for (const Line2& line : flat.open) {
          for (const Point& p : line) laid.box.add(p);
        }
      } else {
        laid.region = clean(flat.closed, part.even_odd ? Fill::EvenOdd : Fill::NonZero);
        laid.box = bounds(laid.region);
      }
      if (!laid.box.empty()) laid_.push_back(std::move(laid));
    }
  }
  static std::size_t count(const std::vector<Ring>& rings) {
    std::size_t n = 0;
    for (const Ring& ring : rings) n += ring.size();
    return n;
  }
  void add(const char* code, std::string text, std::vector<Point> at, std::string remedy,
           std::function<void(Drawing&)> mend) {
    if (at.size() > kMostPlaces) at.resize(kMostPlaces);
    found_.push_back({code, std::move(text), std::move(at), {{std::move(remedy), std::move(mend)}}});
  }
  static std::string times(std::size_t n, const std::string& one, const std::string& many) {
    return n == 1 ? say("One ") + one : std::to_string(n) + " " + many;
  }

  // Leaves parts out by their places in the list; the original data stays.
  static std::function<void(Drawing&)> leave_out(std::set<std::size_t> parts) {
    return [parts = std::move(parts)](Drawing& d) {
      for (const std::size_t i : parts) {
        if (i < d.parts.size()) d.parts.edit()[i].left_out = true;
      }
    };
  }

  void open_ends() {
    struct End {
      std::size_t part;
      Point at;
    };
    std::vector<End> ends;
    for (const Laid& laid : laid_) {
      for (const Line2& line : laid.lines) {
        if (distance(line.front(), line.back()) < 1e-6) continue;
        ends.push_back({laid.index, line.front()});
        ends.push_back({laid.index, line.back()});
      }
    }
    if (ends.empty() || ends.size() > 4000) return;
    std::vector<Point> at;
    std::set<std::size_t> joinable;
    for (std::size_t i = 0; i < ends.size(); ++i) {
      for (std::size_t k = i + 1; k < ends.size(); ++k) {
        if (distance(ends[i].at, ends[k].at) > limits_.join) continue;
        at.push_back(ends[i].at);
        joinable.insert(ends[i].part);
        joinable.insert(ends[k].part);
      }
    }
    if (at.empty()) return;
    const double page = limits_.join / drawing_.scale;
    add("open-ends",
        say("{0} within {1} of each other.",
            times(at.size(), say("pair of open ends lies"), say("pairs of open ends lie")), show_(limits_.join)),
        at, say("Join them"), [page](Drawing& d) { join_ends(d, page); });
  }

  // Chains lines whose ends are nearer than `near` on the page; what closes becomes a filled outline.
  static void join_ends(Drawing& d, double near) {
    std::vector<Drawing::Part>& parts = d.parts.edit();
    for (bool again = true; again;) {
      again = false;
      for (std::size_t i = 0; i < parts.size() && !again; ++i) {
        if (!parts[i].line || parts[i].left_out) continue;
        Path a = parse_path(parts[i].data);
        if (a.steps.size() < 2) continue;
        if (a.steps.size() > 2 && distance(a.steps.front().to, a.steps.back().to) <= near) {
          a.close();
          parts[i].line = false;
          parts[i].even_odd = true;
          parts[i].data = path_data(a, 5);
          continue;
        }
        for (std::size_t k = 0; k < parts.size() && !again; ++k) {
          if (k == i || !parts[k].line || parts[k].left_out) continue;
          Path b = parse_path(parts[k].data);
          if (b.steps.size() < 2) continue;
          const Point end = a.steps.back().to, start = a.steps.front().to;
          if (distance(end, b.steps.front().to) > near && distance(end, b.steps.back().to) <= near) b = reversed(b);
          if (distance(end, b.steps.front().to) > near) {
            if (distance(start, b.steps.back().to) > near && distance(start, b.steps.front().to) > near) continue;
            a = reversed(a);
            if (distance(a.steps.back().to, b.steps.front().to) > near) b = reversed(b);
          }
          for (std::size_t s = 0; s < b.steps.size(); ++s)
            s == 0 ? a.line(b.steps[0].to) : a.steps.push_back(b.steps[s]);
          parts[i].data = path_data(a, 5);
          parts.erase(parts.begin() + static_cast<std::ptrdiff_t>(k));
          again = true;
        }
      }
    }
  }
  static Path reversed(const Path& path) {
    Path out;
    const auto& s = path.steps;
    std::size_t last = s.size();
    while (last > 1 && s[last - 1].kind == PathStep::Kind::Close) --last;
    out.move(s[last - 1].to);
    for (std::size_t i = last; i-- > 1;) {
      if (s[i].kind == PathStep::Kind::Curve)
        out.curve(s[i].c2, s[i].c1, s[i - 1].to);
      else
        out.line(s[i - 1].to);
    }
    return out;
  }

  void doubled() {
    std::set<std::size_t> extra;
    std::vector<Point> at;
    for (std::size_t i = 0; i < laid_.size(); ++i) {
      for (std::size_t k = 0; k < i && laid_.size() < 3000; ++k) {
        const Box &a = laid_[i].box, &b = laid_[k].box;
        if (extra.contains(laid_[k].index) || laid_[i].region.empty() != laid_[k].region.empty()) continue;
        if (std::abs(a.left - b.left) > 0.02 || std::abs(a.right - b.right) > 0.02 || std::abs(a.top - b.top) > 0.02 ||
            std::abs(a.bottom - b.bottom) > 0.02)
          continue;
        const bool same =
            laid_[i].region.empty()
                ? drawing_.parts[laid_[i].index].data == drawing_.parts[laid_[k].index].data
                : area(subtract(laid_[i].region, laid_[k].region)) + area(subtract(laid_[k].region, laid_[i].region)) <
                      0.01 * area(laid_[i].region);
        if (!same) continue;
        extra.insert(laid_[i].index);
        at.push_back(a.centre());
        break;
      }
    }
    if (!extra.empty())
      add("doubled", say("{0} exactly on another.", times(extra.size(), say("outline lies"), say("outlines lie"))), at,
          say("Keep one of each"), leave_out(extra));
  }

  void hidden() {
    if (laid_.size() > 2000) return;
    std::set<std::size_t> under;
    std::vector<Point> at;
    for (std::size_t i = 0; i < laid_.size(); ++i) {
      if (laid_[i].region.empty()) continue;
      for (std::size_t k = 0; k < laid_.size(); ++k) {
        if (k == i || laid_[k].region.empty() || under.contains(laid_[k].index) ||
            area(laid_[k].region) <= area(laid_[i].region) * 1.02)
          continue;
        const Box &a = laid_[i].box, &b = laid_[k].box;
        if (a.left < b.left || a.right > b.right || a.bottom < b.bottom || a.top > b.top) continue;
        if (!subtract(laid_[i].region, laid_[k].region).empty()) continue;
        under.insert(laid_[i].index);
        at.push_back(a.centre());
        break;
      }
    }
    if (under.empty()) return;
    add("hidden",
        say("{0} wholly inside another filled part and change nothing in the wood.",
            times(under.size(), say("part lies"), say("parts lie"))),
        at, say("Leave them out"), leave_out(under));
    found_.back().mends.push_back({say("Make holes of them"), [under](Drawing& d) { make_holes(d, under); }});
  }

  // Parts drawn one on another as ink and paper: each of `inner` joins the smallest filled part round it, under the
  // even-odd rule.
  static void make_holes(Drawing& d, const std::set<std::size_t>& inner) {
    std::vector<Drawing::Part>& parts = d.parts.edit();
    std::vector<Region> regions;
    for (const Drawing::Part& part : parts) {
      const Flat flat = part.line ? Flat{} : flatten(parse_path(part.data), kFlatness, true);
      regions.push_back(clean(flat.closed, part.even_odd ? Fill::EvenOdd : Fill::NonZero));
    }
    for (const std::size_t i : inner) {
      if (i >= parts.size()) continue;
      std::size_t round = parts.size();
      for (std::size_t k = 0; k < parts.size(); ++k) {
        if (k == i || inner.contains(k) || regions[k].empty() || parts[k].left_out) continue;
        if (!subtract(regions[i], regions[k]).empty()) continue;
        if (round == parts.size() || area(regions[k]) < area(regions[round])) round = k;
      }
      if (round == parts.size()) continue;
      parts[round].data = ring_data(subtract(regions[round], regions[i]));
      parts[round].even_odd = true;
      regions[round] = subtract(regions[round], regions[i]);
      parts[i].left_out = true;
    }
  }
  static std::string ring_data(const Region& region) {
    Path path;
    for (const Island& island : region.islands) {
      for (const Ring& ring : island.rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) i == 0 ? path.move(ring[0]) : path.line(ring[i]);
        path.close();
      }
    }
    return path_data(path, 5);
  }

  // Inner outlines that run the same way as the one round them: under the non-zero rule what should be a hole is
  // filled.
  void nesting() {
    std::set<std::size_t> wrong;
    std::vector<Point> at;
    for (const Laid& laid : laid_) {
      const Drawing::Part& part = drawing_.parts[laid.index];
      if (part.line || part.even_odd || laid.region.empty()) continue;
      const std::vector<Ring> rings = flatten(transformed(parse_path(part.data), place_), kFlatness, true).closed;
      if (rings.size() < 2 || rings.size() > 3000) continue;
      const Region holes = subtract(laid.region, clean(rings, Fill::EvenOdd));
      bool whole = false;  // one of the part's own outlines, not only where outlines cross
      for (const Island& hole : holes.islands) {
        whole = std::any_of(rings.begin(), rings.end(), [&](const Ring& ring) {
          const double own = std::abs(signed_area(ring));
          return std::abs(own - signed_area(hole.rings.front())) < 0.01 * own;
        });
        if (!whole) continue;
        wrong.insert(laid.index);
        at.push_back(bounds(hole).centre());
      }
    }
    if (wrong.empty()) return;
    add("nesting",
        say("{0} the same way as the one round it, so that its inside is carved and not left standing.",
            times(at.size(), say("inner outline runs"), say("inner outlines run"))),
        at, say("Make them holes"), [wrong](Drawing& d) {
          for (const std::size_t i : wrong) {
            if (i < d.parts.size()) d.parts.edit()[i].even_odd = true;
          }
        });
  }

  void off_board() {
    std::set<std::size_t> off;
    std::vector<Point> at;
    for (const Laid& laid : laid_) {
      if (board_.meets(laid.box)) continue;
      off.insert(laid.index);
      at.push_back(laid.box.centre());
    }
    if (!off.empty() && off.size() < laid_.size())
      add("off-board", say("{0} beside the board.", times(off.size(), say("stray part lies"), say("stray parts lie"))),
          at, say("Leave them out"), leave_out(off));
  }

  void small_parts() {
    std::set<std::size_t> specks, hairs;
    std::vector<Point> speck_at, hair_at;
    for (const Laid& laid : laid_) {
      if (laid.region.empty()) continue;
      if (area(laid.region) < limits_.speck) {
        specks.insert(laid.index);
        speck_at.push_back(laid.box.centre());
      } else if (opening(laid.region, limits_.hairline / 2).empty()) {
        hairs.insert(laid.index);
        hair_at.push_back(laid.box.centre());
      }
    }
    if (!specks.empty() && specks.size() < laid_.size())
      add("specks",
          say("{0} smaller than {1} mm².", times(specks.size(), say("speck is"), say("specks are")),
              std::to_string(static_cast<int>(limits_.speck))),
          speck_at, say("Drop them"), leave_out(specks));
    if (!hairs.empty())
      add("hairlines",
          say("{0} thinner than {1} all along.", times(hairs.size(), say("part is"), say("parts are")),
              show_(limits_.hairline)),
          hair_at, say("Leave them out"), leave_out(hairs));
  }

  void crossings() {
    std::vector<Point> at;
    if (laid_.size() > 1500) return;
    for (std::size_t i = 0; i < laid_.size(); ++i) {
      for (std::size_t k = 0; k < i; ++k) {
        if (laid_[i].region.empty() || laid_[k].region.empty() || !laid_[i].box.meets(laid_[k].box)) continue;
        const Region both = intersect(laid_[i].region, laid_[k].region);
        if (both.empty() || area(both) > 0.98 * std::min(area(laid_[i].region), area(laid_[k].region))) continue;
        at.push_back(bounds(both).centre());
      }
    }
    if (at.empty()) return;
    add("crossings",
        say("{0}; they are carved as one, and can be joined for good.",
            times(at.size(), say("pair of outlines overlaps"), say("pairs of outlines overlap"))),
        at, say("Join them into one"), [](Drawing& d) {
          Drawing flat = d;
          flat.scale = flat.tall = 1;
          flat.mirrored = false;
          const Region joined = drawing_region_as_drawn(flat);
          std::vector<Drawing::Part> parts;
          for (const Drawing::Part& p : d.parts) {
            if (p.line || p.left_out) parts.push_back(p);
          }
          int number = 1;
          for (const Island& island : joined.islands) {
            Drawing::Part part;
            part.id = "joined-" + std::to_string(number++);
            part.even_odd = true;
            part.data = ring_data(Region{{island}});
            parts.push_back(std::move(part));
          }
          d.parts = std::move(parts);
        });
  }

  void needless_points() {
    std::size_t after = 0;
    Region as_is, thin;
    for (const Laid& laid : laid_) {
      if (laid.region.empty()) continue;
      const Region less = thinned(laid.region, limits_.thin);
      after += point_count(less);
      as_is.islands.insert(as_is.islands.end(), laid.region.islands.begin(), laid.region.islands.end());
      thin.islands.insert(thin.islands.end(), less.islands.begin(), less.islands.end());
    }
    if (points_ < 200 || after > points_ * 3 / 4) return;
    std::string feeds = say(", and the machine could keep its feed");
    if (feed_) {
      const ReachedFeed was = feed_(as_is), now = feed_(thin);
      if (now.reached < 0.98 * was.reached) return;  // corners that were curves: what is needless helps, too
      const auto number = [](double v) { return std::to_string(std::lround(v)); };
      const std::string of = say(" of the {0} mm/min asked for", number(now.asked));
      feeds = now.reached > 1.02 * was.reached ? say(", and the feed along them would rise from {0} to {1}{2}",
                                                     number(was.reached), number(now.reached), of)
                                               : say("; the feed along them stays at {0}{1}", number(was.reached), of);
    }
    const double page = limits_.thin / drawing_.scale;
    add("needless-points",
        say("{0} points; thinned within {1} there would be {2}{3}.", points_, show_(limits_.thin), after, feeds),
        {piece_.at}, say("Thin them"), [page](Drawing& d) {
          for (Drawing::Part& part : d.parts.edit()) {
            if (part.line || part.left_out) continue;
            Path path;
            for (Ring ring : flatten(parse_path(part.data), std::min(kFlatness, page / 2), true).closed) {
              ring.push_back(ring.front());
              const Line2 line = thinned(ring, page);
              if (line.size() < 4) continue;
              for (std::size_t i = 0; i + 1 < line.size(); ++i) i == 0 ? path.move(line[0]) : path.line(line[i]);
              path.close();
            }
            if (!path.empty()) part.data = path_data(path, 5);
          }
        });
  }

  const Piece& piece_;
  const Drawing& drawing_;
  const Box& board_;
  const CleanUpLimits& limits_;
  const std::function<std::string(double)>& show_;
  const FeedAlong& feed_;
  const Cancel& cancel_;
  Transform place_;
  std::vector<Laid> laid_;
  std::size_t points_ = 0;
  std::vector<Finding> found_;
};

}  // namespace

std::vector<Finding> clean_up_report(const Piece& piece, const Box& board, const CleanUpLimits& limits,
                                     const std::function<std::string(double)>& show, const FeedAlong& feed,
                                     const Cancel& cancel) {
  return Reporter(piece, board, limits, show, feed, cancel).run();
}

}  // namespace doyen
