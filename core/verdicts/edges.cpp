// Artwork past the board, inside the margin, or too near a frame.
#include <algorithm>

#include "holding/witness.hpp"
#include "job/follows_edge.hpp"
#include "treatments/look.hpp"
#include "verdicts/room.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

bool is_frame(const Item& item) {
  const auto* shape = std::get_if<PlainShape>(&item.piece.what);
  return shape != nullptr && shape->band > 0;
}

class EdgeCheck {
 public:
  EdgeCheck(const Situation& s, std::vector<Verdict>& out) : s_(s), out_(out) {}

  void run() {
    std::vector<std::uint64_t> cut_out, frames;
    for (std::size_t i = 0; i < s_.job.items.size(); ++i) {
      if (s_.pieces[i].outlines == nullptr) continue;
      if (s_.job.items[i].cut.kind == Treatment::Kind::CutOut) cut_out.push_back(s_.pieces[i].mark);
      if (is_frame(s_.job.items[i])) frames.push_back(s_.pieces[i].mark);
    }
    for (std::size_t i = 0; i < s_.job.items.size(); ++i) {
      if (s_.pieces[i].outlines == nullptr || s_.pieces[i].outlines->region.empty()) continue;
      // What is not cut may lie anywhere; planing and steps behind the edge run past edges on purpose.
      const Treatment::Kind kind = s_.job.items[i].cut.kind;
      if (kind == Treatment::Kind::None || kind == Treatment::Kind::Plane || follows_edge(s_.job, s_.job.items[i]))
        continue;
      std::vector<std::uint64_t> of{s_.pieces[i].mark};
      of.insert(of.end(), cut_out.begin(), cut_out.end());
      of.push_back(0);
      of.insert(of.end(), frames.begin(), frames.end());
      for (Verdict& v : s_.found("edges", std::move(of), [&] { return look(s_, i); })) out_.push_back(std::move(v));
    }
  }

 private:
  static std::vector<Verdict> look(const Situation& s, std::size_t i) {
    std::vector<Verdict> found;
    EdgeCheck one(s, found);
    if (s.job.items[i].cut.kind == Treatment::Kind::CutOut)
      one.check_cut_out(i);
    else
      one.check_inside(i);
    return found;
  }
  const Region& region(std::size_t i) const { return s_.pieces[i].outlines->region; }

  void check_cut_out(std::size_t i) {
    const Box need = bounds(region(i));
    const Blank& blank = s_.job.blank;
    constexpr double kBeyond = 20'000;  // mm
    const Box board = blank.runs_off.grown(blank.box(), kBeyond);
    const Piece& piece = s_.job.items[i].piece;
    const double over =
        std::max({board.left - need.left, need.right - board.right, board.bottom - need.bottom, need.top - board.top});
    const bool past_edge = over <= 1e-6 && s_.job.blank.form != BlankForm::Rectangle &&
                           !subtract(region(i), grow(room_for_art(blank), 0.01)).empty();
    if (past_edge) {
      out_.push_back({Grade::Stop,
                      "outside-board",
                      piece.id,
                      need.centre(),
                      say("“{0}” reaches past the board's edge.", piece.name),
                      say("The piece would come out incomplete."),
                      {{say("Centre it on the board"), [id = piece.id, by = blank.box().centre() - need.centre()](
                                                           Job& job) { move_piece(job, id, by); }}}});
    }
    if (over > 1e-6) {
      out_.push_back({Grade::Stop,
                      "outside-board",
                      piece.id,
                      need.centre(),
                      say("“{0}” reaches {1} past the board.", piece.name, s_.show(over)),
                      say("The piece would come out incomplete."),
                      {{say("Centre it on the board"), [id = piece.id, by = blank.box().centre() - need.centre()](
                                                           Job& job) { move_piece(job, id, by); }}}});
    }
  }

  // What the piece must stay inside of: the cut-out round it, or else the board.
  std::pair<Region, std::string> keep_inside(std::size_t i) const {
    const Point middle = bounds(region(i)).centre();
    for (std::size_t k = 0; k < s_.job.items.size(); ++k) {
      if (k == i || s_.pieces[k].outlines == nullptr || s_.job.items[k].cut.kind != Treatment::Kind::CutOut) continue;
      if (s_.pieces[k].box.contains(middle) && contains(region(k), middle)) return {region(k), say("the cut edge")};
    }
    return {room_for_art(s_.job.blank), say("the board's edge")};
  }

  // Outside every cut-out, where there are some: it would be carved into what is thrown away.
  bool lies_in_waste(std::size_t i) {
    using Kind = Treatment::Kind;
    const Item& item = s_.job.items[i];
    const Kind kind = item.cut.kind;
    // Marks, pins and screws belong there, and edges.
    constexpr double kPin = 15;  // mm
    const Box size = bounds(region(i));
    if (serves_the_run(item)) return false;
    if (kind == Kind::Pierce && std::max(size.width(), size.height()) < kPin) return false;
    if (look_of(kind).in_waste) return false;
    const Region* nearest_body = nullptr;
    for (std::size_t k = 0; k < s_.job.items.size(); ++k) {
      if (k == i || s_.pieces[k].outlines == nullptr || s_.job.items[k].cut.kind != Kind::CutOut || region(k).empty())
        continue;
      nearest_body = &region(k);
      if (!s_.pieces[k].box.meets(size)) continue;
      if (!region(i).empty() && contains(region(k), region(i).islands.front().rings.front().front()))
        return false;  // nearly always
      if (!intersect(region(k), region(i)).empty()) return false;
    }
    if (nearest_body == nullptr) return false;
    const Box own = bounds(region(i)), room = bounds(*nearest_body);
    std::vector<Remedy> remedies;
    if (own.width() < room.width() && own.height() < room.height())
      remedies.push_back({say("Move it onto the piece"), [id = item.piece.id, by = room.centre() - own.centre()](
                                                             Job& job) { move_piece(job, id, by); }});
    remedies.push_back({say("Do not cut it"), [id = item.piece.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.kind = Treatment::Kind::None;
                        }});
    out_.push_back({Grade::Stop, "in-the-waste", item.piece.id, own.centre(),
                    say("“{0}” lies outside the cut edge, in the waste.", item.piece.name),
                    say("It would be cut into wood that is thrown away."), std::move(remedies)});
    return true;
  }

  // Its box stands for a piece of many points where that is enough, which it nearly always is.
  static bool lies_within(const Region& own, const Region& room) {
    return own.empty() || subtract(region_of(bounds(own)), room).empty();
  }

  void check_inside(std::size_t i) {
    const Piece& piece = s_.job.items[i].piece;
    if (lies_in_waste(i)) return;
    const auto [inside, edge] = keep_inside(i);
    const Region whole = grow(inside, 0.001);
    const Region out = lies_within(region(i), whole) ? Region{} : subtract(region(i), whole);
    if (!out.empty()) {
      report_outside(piece, region(i), inside, edge, bounds(out).centre());
      return;
    }
    const double margin = s_.job.blank.margin;
    // A bevel belongs on an edge, screws that hold the board in its waste.
    const Item& item = s_.job.items[i];
    if (margin <= 0 || item.cut.kind == Treatment::Kind::Bevel || serves_the_run(item)) return;
    if (!is_frame(s_.job.items[i])) {
      for (std::size_t k = 0; k < s_.job.items.size(); ++k) {
        if (k == i || s_.pieces[k].outlines == nullptr || !is_frame(s_.job.items[k])) continue;
        if (!bounds(region(k)).grown(margin).meets(bounds(region(i)))) continue;
        const Region near_line = grow(region(k), margin - 0.01);
        const auto clear = [&](const Region& own) {
          return own.empty() || intersect(near_line, region_of(bounds(own))).empty() ||
                 intersect(near_line, own).empty();
        };
        if (clear(region(i))) continue;
        report_near(piece, region(i), region(k), say("the line “{0}”", s_.job.items[k].piece.name), bounds(region(k)),
                    clear);
        return;
      }
      const Region room = grow(inside, -margin + 0.01, Corner::Sharp);
      const auto clear = [&](const Region& own) { return lies_within(own, room) || subtract(own, room).empty(); };
      if (!clear(region(i))) report_near(piece, region(i), inside, edge, bounds(inside), clear);
    }
  }

  void report_outside(const Piece& piece, const Region& own, const Region& inside, const std::string& edge, Point at) {
    const Box box = bounds(own), room = bounds(inside).grown(-s_.job.blank.margin);
    std::vector<Remedy> remedies;
    Point by;
    if (room.left > box.left)
      by.x = room.left - box.left;
    else if (room.right < box.right)
      by.x = room.right - box.right;
    if (room.bottom > box.bottom)
      by.y = room.bottom - box.bottom;
    else if (room.top < box.top)
      by.y = room.top - box.top;
    if (box.width() <= room.width() && box.height() <= room.height()) {
      const Point round = rounded_outwards(by, s_.job.lengths.unit);
      const bool fits = room.contains({box.left + round.x, box.bottom + round.y}) &&
                        room.contains({box.right + round.x, box.top + round.y});
      const Point move = fits ? round : by;
      remedies.push_back({say("Move it inside, {0}", way_in_words(move, s_.job.lengths)),
                          [id = piece.id, move](Job& job) { move_piece(job, id, move); }});
    }
    const double fit = std::min({1.0, room.width() / box.width(), room.height() / box.height()});
    if (fit < 1 && fit > 0.02) {
      remedies.push_back({percent_smaller(whole_percent(fit)),
                          [id = piece.id, fit, middle = box.centre(), to = room.centre()](Job& job) {
                            scale_piece(job, id, whole_percent(fit), middle);
                            move_piece(job, id, to - middle);
                          }});
    }
    out_.push_back({Grade::Stop, "outside-board", piece.id, at, say("“{0}” runs past {1}.", piece.name, edge),
                    say("What lies outside would not be on the sign."), std::move(remedies)});
  }

  template <typename Clear>
  void report_near(const Piece& piece, const Region& own, const Region& other, const std::string& what,
                   const Box& around, Clear clear) {
    const double margin = s_.job.blank.margin;
    const auto [gap, at] = nearest_outline(own, other);
    const bool overlaps = !intersect(own, other).empty() && what.starts_with(say("the line"));
    const Box box = bounds(own);
    // Away from whichever side is nearest.
    const double sides[] = {box.left - around.left, around.right - box.right, box.bottom - around.bottom,
                            around.top - box.top};
    const auto side = std::min_element(std::begin(sides), std::end(sides)) - std::begin(sides);
    static constexpr const char* kWords[] = {"to the right", "to the left", "to the back", "to the front"};
    static constexpr Point kWays[] = {{1, 0}, {-1, 0}, {0, 1}, {0, -1}};
    const Point way = kWays[side];
    std::vector<Remedy> remedies;
    const double least = least_move(s_.job.blank, own, way, margin - (overlaps ? 0 : gap) + 0.02, clear);
    const double round = rounded_up(least, s_.job.lengths.unit);
    const double by = clear(transformed(own, Transform::move(way.x * round, way.y * round))) ? round : least;
    const Box room = bounds(room_for_art(s_.job.blank)).grown(0.001);
    const bool stays = by > 0 && room.contains({box.left + way.x * by, box.bottom + way.y * by}) &&
                       room.contains({box.right + way.x * by, box.top + way.y * by});
    if (stays) {
      remedies.push_back({say("Move {0} {1}", std::string(kWords[side]), s_.show(by)),
                          [id = piece.id, move = way * by](Job& job) { move_piece(job, id, move); }});
    }
    const double scale = whole_percent(largest_scale(own, box.centre(), clear));
    if (scale > 0.05) {
      remedies.push_back({percent_smaller(scale), [id = piece.id, scale, middle = box.centre()](Job& job) {
                            scale_piece(job, id, scale, middle);
                          }});
    }
    out_.push_back({Grade::Mind, "inside-margin", piece.id, at,
                    "“" + piece.name + "” " +
                        (overlaps ? say("crosses {0}", what) : say("ends {0} from {1}", s_.show(gap), what)) + ".",
                    say("Your margin is {0}.", s_.show(margin)), std::move(remedies)});
  }

  const Situation& s_;
  std::vector<Verdict>& out_;
};

}  // namespace

void check_edges(const Situation& s, std::vector<Verdict>& out) { EdgeCheck(s, out).run(); }

}  // namespace doyen
