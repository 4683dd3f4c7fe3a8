// Grooves against the bit and the wood: strokes wider than the body, too little wood left, what is not reached, floors.
#include <algorithm>

#include "holding/witness.hpp"
#include "treatments/suits.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// The bit of this kind in the rack with the least change that passes `test`.
template <typename Test>
const Bit* best_bit(const Rack& rack, Test test, double (*cost)(const Bit&)) {
  const Bit* best = nullptr;
  for (const Bit& bit : rack.bits) {
    if (test(bit) && (best == nullptr || cost(bit) < cost(*best))) best = &bit;
  }
  return best;
}

Remedy use_v(const std::string& id, const Bit& bit) {
  return {say("Use the {0}", bit.name), [id, bit_id = bit.id](Job& job) {
            if (Item* item = job.find(id)) item->cut.bit = bit_id;
          }};
}

}  // namespace

void check_stroke_width(const Situation& s, std::vector<Verdict>& out) {
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const PieceCuts* cuts = s.pieces[i].cuts;
    if (cuts == nullptr || !cuts->groove || !cuts->limited_by_body) continue;
    const Bit& bit = *s.rack.find(item.cut.bit);
    const double widest = cuts->groove->widest_stroke();
    std::vector<Remedy> remedies;
    remedies.push_back(
        {say("Floor limit {0}", s.show(bit.body_depth())), [id = item.piece.id, limit = bit.body_depth()](Job& job) {
           if (Item* it = job.find(id)) it->cut.incise.floor_limit = std::floor(limit * 100) / 100;
         }});
    const Bit* wider = best_bit(
        s.rack,
        [&](const Bit& b) {
          return b.kind == BitKind::V && b.body_depth() >= (widest - b.tip) / 2 / b.tan_half() &&
                 (widest - b.tip) / 2 / b.tan_half() < s.job.blank.thinnest() - s.job.run.least_wood;
        },
        [](const Bit& b) { return b.true_angle(); });
    if (wider != nullptr) remedies.push_back(use_v(item.piece.id, *wider));
    const std::string letter = letter_at(*s.pieces[i].outlines, cuts->groove->widest_at());
    out.push_back({Grade::Mind, "stroke-wider-than-bit", item.piece.id, cuts->groove->widest_at(),
                   say("A stroke {0} wide{1} is too wide for the {2}.", s.show(widest),
                       (letter.empty() ? "" : say(" in {0}", letter)), bit.name),
                   say("Its cutting edge ends {0} above the tip: deeper, the shank would scrape. The groove is held "
                       "there with a flat floor.",
                       s.show(bit.body_depth())),
                   std::move(remedies)});
  }
}

void check_wood_left(const Situation& s, std::vector<Verdict>& out) {
  const double thinnest = s.job.blank.thinnest();
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const PieceCuts* cuts = s.pieces[i].cuts;
    if (cuts == nullptr || cuts->operations.empty() || goes_through(item.cut.kind) || serves_the_run(item)) continue;
    // A hole may be drilled right through.
    if (item.cut.kind == Treatment::Kind::Drill && cuts->deepest >= s.job.blank.thickest()) continue;
    const double left = thinnest - cuts->deepest;
    if (left >= s.job.run.least_wood) continue;
    const double allowed = std::max(0.1, thinnest - s.job.run.least_wood);
    std::vector<Remedy> remedies;
    const double own = said_within(allowed - cuts->ground, s.job.lengths);  // mm below the piece's own ground
    const bool incised = item.cut.kind == Treatment::Kind::Incise;
    const bool insert =
        item.cut.kind == Treatment::Kind::Recess && item.cut.insert.thickness > 0;  // it makes the depth
    if (own >= 0.1 && !insert) {
      remedies.push_back({incised ? say("Floor limit {0}", s.show(own)) : say("Make it {0} deep", s.show(own)),
                          [id = item.piece.id, own, incised](Job& job) {
                            Item* it = job.find(id);
                            if (it == nullptr) return;
                            if (incised)
                              it->cut.incise.floor_limit = own;
                            else
                              it->cut.depth = own;
                          }});
    }
    const double widest = incised ? cuts->groove->widest_stroke() : 0;
    const Bit* blunter = best_bit(
        s.rack,
        [&](const Bit& b) {
          return b.kind == BitKind::V &&
                 (widest - b.tip) / 2 / b.tan_half() <= std::min(allowed - cuts->ground, b.body_depth());
        },
        [](const Bit& b) { return b.true_angle(); });
    if (incised && blunter != nullptr) remedies.push_back(use_v(item.piece.id, *blunter));
    const std::string deep = say("“{0}” goes {1} deep", item.piece.name, s.show(cuts->deepest));
    out.push_back({Grade::Stop, left <= 0 ? "deeper-than-wood" : "too-little-wood-left", item.piece.id,
                   cuts->deepest_at,
                   left <= 0 ? say("{0}: right through the board.", deep)
                             : say("{0} and leaves {1} of wood.", deep, s.show(left)),
                   say("The thinnest reading is {0}; you asked for at least {1}.", s.show(thinnest),
                       s.show(s.job.run.least_wood)),
                   std::move(remedies)});
  }
}

void check_reach(const Situation& s, std::vector<Verdict>& out) {
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const PieceCuts* cuts = s.pieces[i].cuts;
    if (cuts == nullptr) continue;
    const Bit* bit =
        s.rack.find(wanted_bit(item.cut) == WantedBit::None && !cuts->bits.empty() ? cuts->bits.back() : item.cut.bit);
    if (bit == nullptr) continue;
    if (cuts->cut_out && !cuts->cut_out->lost_holes.empty()) {
      out.push_back({Grade::Mind,
                     "hole-too-small",
                     item.piece.id,
                     cuts->deepest_at,
                     say("An opening of “{0}” is narrower than the {1}.", item.piece.name, bit->name),
                     say("It would stay closed; take a smaller bit."),
                     {}});
    }
    const double worth_saying = cuts->groove ? 0.5 : 0.2;  // mm²: below this it is the rounding of sharp corners
    if (cuts->unreached.area < worth_saying) continue;
    std::vector<Remedy> remedies;
    if (cuts->groove) {
      const Bit* sharper = best_bit(
          s.rack,
          [&](const Bit& b) { return b.kind == BitKind::V && b.tip < bit->tip / 2 && b.body_depth() >= cuts->deepest; },
          [](const Bit& b) { return -b.true_angle(); });
      if (sharper != nullptr) remedies.push_back(use_v(item.piece.id, *sharper));
    } else {
      const Bit* smaller = best_bit(
          s.rack,
          [&](const Bit& b) {
            return b.kind == BitKind::Flat && b.true_diameter() < bit->true_diameter() &&
                   b.flute_length >= cuts->deepest;
          },
          [](const Bit& b) { return -b.true_diameter(); });
      if (smaller != nullptr && wanted_bit(item.cut) == WantedBit::Flat) {
        remedies.push_back(use_v(item.piece.id, *smaller));
      } else if (smaller != nullptr) {
        remedies.push_back({say("Follow with the {0}", smaller->name),
                            [id = item.piece.id, all = cuts->bits, more = smaller->id](Job& job) {
                              Item* it = job.find(id);
                              if (it == nullptr) return;
                              it->cut.clearing = all;
                              it->cut.clearing.push_back(more);
                            }});
      }
    }
    out.push_back({Grade::Mind, "unreached", item.piece.id, cuts->unreached.at,
                   say("{0} of “{1}” cannot be reached by the {2}.", format_area(cuts->unreached.area, s.job.lengths),
                       item.piece.name, bit->name),
                   say("The corners stay round. The largest part is about {0} wide.", s.show(cuts->unreached.width)),
                   std::move(remedies)});
  }
}

void check_floor(const Situation& s, std::vector<Verdict>& out) {
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const PieceCuts* cuts = s.pieces[i].cuts;
    if (cuts == nullptr || cuts->floor.empty() || !cuts->groove) continue;
    const double whole = area(cuts->floor);
    if (cuts->floor_by_v < 25 || cuts->floor_by_v < 0.2 * whole) continue;
    // The one that levels most of those that pass most of the floor.
    const Bit* own = s.rack.find(item.cut.bit);
    const Bit* fits = s.rack.find(s.found("bit that passes the floor", {s.pieces[i].mark}, [&] {
      std::vector<const Bit*> bits;
      for (const Bit& bit : s.rack.bits) {
        if (clears(bit, item.cut, own) && bit.flute_length >= cuts->limit) bits.push_back(&bit);
      }
      std::stable_sort(bits.begin(), bits.end(), [](const Bit* a, const Bit* b) { return a->levels() < b->levels(); });
      // The wider a bit, the less it passes.
      const auto first_too_wide = std::partition_point(bits.begin(), bits.end(), [&](const Bit* bit) {
        return area(opening(cuts->floor, bit->levels() / 2)) > 0.6 * whole;
      });
      if (first_too_wide == bits.begin()) return std::string();
      // Of bits as wide the first in the rack, as everywhere.
      const double widest = (*(first_too_wide - 1))->levels();
      return std::string(
          (*std::find_if(bits.begin(), bits.end(), [&](const Bit* bit) { return bit->levels() >= widest; }))->id);
    }));
    std::vector<Remedy> remedies;
    if (fits != nullptr &&
        std::find(item.cut.clearing.begin(), item.cut.clearing.end(), fits->id) == item.cut.clearing.end()) {
      remedies.push_back(
          {say("Clear it first with the {0}", fits->name), [id = item.piece.id, bit = fits->id](Job& job) {
             if (Item* it = job.find(id)) it->cut.clearing.push_back(bit);
           }});
    }
    if (item.cut.kind == Treatment::Kind::Incise)
      remedies.push_back({say("Let it go to full depth"), [id = item.piece.id](Job& job) {
                            if (Item* it = job.find(id)) it->cut.incise.floor_limit.reset();
                          }});
    const double share = cuts->floor_by_v / whole * 100;
    out.push_back(
        {Grade::Mind, "floor-by-v-alone", item.piece.id, bounds(cuts->floor.islands.front()).centre(),
         say("Only the V's tip reaches {0} % of the flat floor in “{1}”.", format_number(share, 0), item.piece.name),
         say("That is slow, and leaves ridges up to {0} high.", s.show(ridge_height(item.cut.moves.v_floor))),
         std::move(remedies)});
  }
}

}  // namespace doyen
