// What stays of a sign that is cut out or pierced must hold in the hand and on the wall.
#include <algorithm>
#include <cmath>

#include "geometry/necks.hpp"
#include "geometry/united.hpp"
#include "stock/species.hpp"
#include "stock/strength.hpp"
#include "verdicts/room.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

// Fibres run across a neck when the grain lies nearer to a right angle to it than along it.
bool runs_across(const Neck& neck, Grain grain) {
  return grain == Grain::AlongWidth ? std::abs(neck.along.x) < std::abs(neck.along.y)
                                    : std::abs(neck.along.y) < std::abs(neck.along.x);
}

class Strength {
 public:
  Strength(const Situation& s, std::vector<Verdict>& out)
      : s_(s), out_(out), wood_(wood_class_of(s.job.blank)), thick_(s.job.blank.thinnest()) {
    limits_[0] = least_neck(wood_, thick_, false);
    limits_[1] = least_neck(wood_, thick_, true);
  }

  // Of one body of wood: all that goes through it, and its own piece, empty for the blank.
  void look_at(const Region& body, const std::string& piece, std::uint64_t mark) {
    std::vector<std::uint64_t> marks{mark};
    std::vector<std::size_t> through;
    for (std::size_t i = 0; i < s_.job.items.size(); ++i) {
      if (s_.job.items[i].cut.kind != Kind::Pierce || s_.pieces[i].outlines == nullptr) continue;
      if (!bounds(body).meets(s_.pieces[i].box)) continue;
      through.push_back(i);
      marks.push_back(s_.pieces[i].mark);
    }
    if (piece.empty() && through.empty()) return;  // a whole board
    const auto necks = s_.found("necks", marks, [&] {
      Region wood = body;
      if (!through.empty()) {
        std::vector<Region> open;
        for (const std::size_t i : through) open.push_back(s_.pieces[i].outlines->region);
        wood = subtract(body, united(std::move(open)));
      }
      return necks_of(wood, std::max(limits_[0], limits_[1]));
    });
    int said = 0;
    for (const Neck& neck : necks) {
      const bool across = limits_[1] > limits_[0] && runs_across(neck, s_.job.blank.grain);  // sheet has no grain
      if (neck.width >= limits_[across ? 1 : 0] - 0.05 || ++said > kMost) continue;
      say_of(neck, across, piece, through);
    }
  }

 private:
  static constexpr int kMost = 12;

  void say_of(const Neck& neck, bool across, const std::string& piece, const std::vector<std::size_t>& through) {
    const Item* item = s_.job.find(piece);
    const std::string whom = item == nullptr ? say("the board") : "“" + item->piece.name + "”";
    const double limit = limits_[across ? 1 : 0];
    std::vector<Remedy> remedies = move_away(neck, limit - neck.width, through);
    if (across && neck.width >= limits_[0])
      remedies.push_back({say("Take the board with its grain the other way"), [](Job& job) {
                            job.blank.grain =
                                job.blank.grain == Grain::AlongWidth ? Grain::AlongHeight : Grain::AlongWidth;
                          }});
    out_.push_back({Grade::Mind, "thin-neck", piece, neck.at,
                    across ? say("{0} is only {1} wide here, and its grain runs across.", whom, s_.show(neck.width))
                           : say("{0} is only {1} wide here.", whom, s_.show(neck.width)),
                    say("It breaks easily: {0} would hold in a board so thick (common practice).", s_.show(limit)),
                    std::move(remedies)});
  }

  // The nearest opening, out of the way.
  std::vector<Remedy> move_away(const Neck& neck, double by, const std::vector<std::size_t>& through) {
    const Item* nearest = nullptr;
    double least = 1e300;
    Point towards;
    for (const std::size_t i : through) {
      const Box box = s_.pieces[i].box;
      const Point in{std::clamp(neck.at.x, box.left, box.right), std::clamp(neck.at.y, box.bottom, box.top)};
      if (const double far = distance(in, neck.at); far < least) {
        least = far;
        nearest = &s_.job.items[i];
        towards = box.centre() - neck.at;
      }
    }
    if (nearest == nullptr) return {};
    Point side{-neck.along.y, neck.along.x};
    if (side.x * towards.x + side.y * towards.y < 0) side = side * -1;
    const Point move = rounded_outwards(side * (by + 0.1), s_.job.lengths.unit);
    return {{say("Move {0} {1}", "“" + nearest->piece.name + "”", way_in_words(move, s_.job.lengths)),
             [id = nearest->piece.id, move](Job& job) { move_piece(job, id, move); }}};
  }

  const Situation& s_;
  std::vector<Verdict>& out_;
  std::string wood_;
  double thick_;
  double limits_[2];
};

}  // namespace

void check_strength(const Situation& s, std::vector<Verdict>& out) {
  Strength strength(s, out);
  bool cut_out = false;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.job.items[i].cut.kind != Kind::CutOut || s.pieces[i].outlines == nullptr) continue;
    cut_out = true;
    strength.look_at(s.pieces[i].outlines->region, s.job.items[i].piece.id, s.pieces[i].mark);
  }
  if (!cut_out) strength.look_at(region_of(s.job.blank), {}, 1);
}

}  // namespace doyen
