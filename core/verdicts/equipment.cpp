// Bits and machine: what is missing, of the wrong kind, without feeds, out of travel.
#include <algorithm>
#include <set>

#include "holding/screws.hpp"
#include "machine/motion.hpp"
#include "run/placement.hpp"
#include "stock/species.hpp"
#include "treatments/start.hpp"
#include "treatments/suits.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

struct Need {
  std::string bit;
  WantedBit wanted;
};

std::vector<Need> needs_of(const Item& item, const Rack& rack) {
  std::vector<Need> needs;
  if (wanted_bit(item.cut) != WantedBit::None) needs.push_back({item.cut.bit, wanted_bit(item.cut)});
  if (clears_floor(item.cut)) {
    for (const std::string& id : item.cut.clearing) {
      const Bit* bit = rack.find(id);
      if (bit == nullptr || !clears(*bit, item.cut, rack.find(item.cut.bit)))
        needs.push_back({id, WantedBit::Flat});
      else
        needs.push_back({id, WantedBit::Any});
    }
  }
  return needs;
}

std::string words_for(WantedBit wanted) {
  switch (wanted) {
    case WantedBit::V:
      return say("V bit");
    case WantedBit::Flat:
      return say("flat bit");
    case WantedBit::Keyhole:
      return say("keyhole bit");
    default:
      return say("bit that cuts from above");
  }
}

// The chip a tooth takes: too thin it rubs, too thick the bit may break.
void check_chip(const Situation& s, const Bit& bit, const std::string& wood, const Item& item, Point at,
                std::vector<Verdict>& out) {
  const Feeds feeds = bit.feeds_in(wood);
  const double chip = chip_load(bit, feeds);
  const ChipBounds bounds = chip_bounds(bit, wood);
  if (chip >= bounds.least * 0.999 && chip <= bounds.most * 1.001) return;
  const bool thick = chip > bounds.most;
  const double fitting = (thick ? bounds.most : bounds.least) * feeds.rpm * bit.flutes;
  const auto in = [&](double mm) {
    return s.job.lengths.unit == Unit::Inch ? say("{0} in", format_number(mm / kMmPerInch, 4))
                                            : say("{0} mm", format_number(mm, 3));
  };
  out.push_back({Grade::Mind,
                 thick ? "chip-too-thick" : "chip-too-thin",
                 item.piece.id,
                 at,
                 say("The {0} takes a chip of {1} per tooth; {2} to {3} is usual in {4}.", bit.name, in(chip),
                     in(bounds.least), in(bounds.most), class_in_words(s.job.blank)),
                 thick ? say("It may break, or tear what it cuts; feed slower or turn faster.")
                       : say("It rubs, burns and goes blunt; feed faster or turn slower."),
                 {{say("Feed {0} in this job", s.show_feed(fitting)), [id = bit.id, feeds, fitting](Job& job) {
                     Feeds own = feeds;
                     own.feed = fitting;
                     job.run.feeds[id] = own;
                   }}}});
}

}  // namespace

namespace {

// A line or a hole deeper than the bit's flutes.
void check_flutes(const Situation& s, const Item& item, const PieceState& state, std::vector<Verdict>& out) {
  using Kind = Treatment::Kind;
  const Bit* bit = s.rack.find(item.cut.bit);
  if ((item.cut.kind != Kind::Line && item.cut.kind != Kind::Drill) || bit == nullptr || state.cuts == nullptr) return;
  const double edge = bit->body_depth(), deep = item.cut.depth;
  if (state.cuts->operations.empty() || deep <= edge + 1e-6) return;
  std::vector<Remedy> remedies{PieceSeen{s, item, state, {}, {}}.deep(edge)};
  for (const Bit& other : s.rack.bits) {
    if (other.kind != bit->kind || other.body_depth() < deep || other.id == bit->id) continue;
    remedies.push_back({say("Use the {0}", other.name), [id = item.piece.id, to = other.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.bit = to;
                        }});
    break;
  }
  out.push_back({Grade::Stop, "flutes-too-short", item.piece.id, state.cuts->deepest_at,
                 say("The {0} cuts {1} deep; “{2}” needs {3}.", bit->name, s.show(edge), item.piece.name, s.show(deep)),
                 say("Deeper, the shank would rub and burn."), std::move(remedies)});
}

// What goes in the place of a bit that is not there, or that cannot do it.
std::vector<Remedy> instead(const Situation& s, const Item& item, const std::string& id) {
  const auto& clearing = item.cut.clearing;
  if (clears_floor(item.cut) && std::find(clearing.begin(), clearing.end(), id) != clearing.end()) {
    return {{say("Clear without it"), [piece = item.piece.id, id](Job& job) {
               if (Item* it = job.find(piece)) std::erase(it->cut.clearing, id);
             }}};
  }
  const Bit* usual = usual_bit(item.cut, s.rack);
  if (usual == nullptr) return {};
  return {{say("Use the {0}", usual->name), [piece = item.piece.id, to = usual->id](Job& job) {
             if (Item* it = job.find(piece)) it->cut.bit = to;
           }}};
}

}  // namespace

void check_bits(const Situation& s, std::vector<Verdict>& out) {
  const std::string wood = wood_class_of(s.job.blank);
  const Species* species = species_table().find(s.job.blank.species);
  if (species == nullptr) {
    out.push_back({Grade::Mind,
                   "unknown-species",
                   "",
                   s.job.blank.box().centre(),
                   say("“{0}” is not in the table of woods.", s.job.blank.species),
                   say("Feeds for soft wood are used; choose a wood under Blank."),
                   {}});
  }
  std::set<std::string> said;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const Point at = s.pieces[i].outlines == nullptr ? item.piece.at : bounds(s.pieces[i].outlines->region).centre();
    check_flutes(s, item, s.pieces[i], out);
    for (const auto& [id, wanted] : needs_of(item, s.rack)) {
      const Bit* bit = s.rack.find(id);
      if (bit == nullptr) {
        out.push_back({Grade::Stop, "bit-missing", item.piece.id, at,
                       id.empty() ? say("No bit is chosen for “{0}”.", item.piece.name)
                                  : say("The bit “{0}” of “{1}” is not in the rack.", id, item.piece.name),
                       say("Choose another, or add it to the rack."), instead(s, item, id)});
        continue;
      }
      if (!suits(*bit, wanted)) {
        out.push_back({Grade::Stop, "bit-wrong-kind", item.piece.id, at,
                       say("The {0} cannot do this: “{1}” needs a {2}.", bit->name, item.piece.name, words_for(wanted)),
                       "", instead(s, item, id)});
        continue;
      }
      if (!said.insert(id + "/" + wood).second) continue;
      if (bit->feeds_in(wood).known()) {
        check_chip(s, *bit, wood, item, at, out);
        continue;
      }
      out.push_back({Grade::Stop,
                     "no-feeds",
                     item.piece.id,
                     at,
                     say("The {0} has no feeds for {1}.", bit->name, class_in_words(s.job.blank)),
                     say("Give feed, plunge and spindle speed in the rack; no file is written with a guess."),
                     {}});
    }
  }
}

namespace {

// Where the controller, not feed or acceleration, says how long a piece takes.
void check_controller(const Situation& s, std::vector<Verdict>& out) {
  if (!slow_controller(s.machine)) return;
  constexpr double kWorthSaying = 1.1, kLeast = 30;  // times as long, s; from memory, no source
  const MachineProfile machine = machine_along_board(s.machine, s.job.run.on_bed);
  MachineProfile free = machine;
  free.moves_per_second = 0;
  free.moves_ahead = 0;
  const std::string wood = wood_class_of(s.job.blank);
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const PieceState& piece = s.pieces[i];
    if (piece.cuts == nullptr) continue;
    double takes = 0, would = 0;
    for (const Operation& op : piece.cuts->operations) {
      const Bit* bit = s.rack.find(op.bit);
      if (bit == nullptr || !bit->feeds_in(wood).known()) continue;
      Feeds feeds = bit->feeds_in(wood);
      feeds.feed *= op.feed_share;
      takes += run_time(op.passes, feeds, machine, {}, nullptr, bit->kind).in_wood;
      would += run_time(op.passes, feeds, free, {}, nullptr, bit->kind).in_wood;
    }
    if (takes < kWorthSaying * would || takes - would < kLeast) continue;
    out.push_back({Grade::Note,
                   "controller-slow",
                   s.job.items[i].piece.id,
                   piece.cuts->deepest_at,
                   say("The controller holds “{0}” back: {1} in the wood instead of {2}.", s.job.items[i].piece.name,
                       format_duration(takes), format_duration(would)),
                   say("It takes in {0} moves a second and knows {1} ahead. Outlines of fewer points help, and arcs "
                       "where it understands them; a higher feed gains nothing.",
                       format_number(s.machine.moves_per_second, 0), s.machine.moves_ahead),
                   {}});
  }
}

// What is asked more finely than the machine can stand: it goes from one step of its drives to the next.
void check_least_step(const Situation& s, std::vector<Verdict>& out) {
  using Kind = Treatment::Kind;
  const double step = s.machine.least_step;
  if (step <= 0) return;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const bool upright = item.cut.kind == Kind::Inlay && !item.cut.inlay.sloped;
    const bool let_in = item.cut.kind == Kind::Recess && item.cut.insert.thickness > 0;
    const double asked = upright ? item.cut.inlay.allowance : let_in ? item.cut.insert.clearance : 0;
    if (asked <= 0 || asked >= step - 1e-9 || s.pieces[i].cuts == nullptr) continue;
    const std::string shown = depth_in_words(step, s.job.lengths);
    out.push_back({Grade::Mind,
                   "finer-than-steps",
                   item.piece.id,
                   s.pieces[i].cuts->deepest_at,
                   say("“{0}” is to fit with {1} a side; the machine goes in steps of {2}.", item.piece.name,
                       depth_in_words(asked, s.job.lengths), shown),
                   say("It stands up to half a step off on either wall: the fit may come out tight or loose."),
                   {{say("Fit with {0} a side", shown), [id = item.piece.id, step, upright](Job& job) {
                       if (Item* it = job.find(id))
                         (upright ? it->cut.inlay.allowance : it->cut.insert.clearance) = step;
                     }}}});
  }
}

// A touch plate that is taken off twice, or by nobody, or by another thickness, sets every depth wrong by it.
void check_plate(const Situation& s, std::vector<Verdict>& out) {
  const MachineProfile& m = s.machine;
  const double files = s.job.run.plate;
  const Remedy leave{say("Leave it to the machine"), [](Job& job) { job.run.plate = 0; }};
  const Remedy take{say("Let the files take it off"), [thick = m.plate](Job& job) { job.run.plate = thick; }};
  if (m.takes_off_plate && files > 0) {
    out.push_back({Grade::Stop,
                   "plate-twice",
                   "",
                   {},
                   say("The files take off a touch plate of {0}, and so does the machine by itself.", s.show(files)),
                   say("Every cut would be {0} too deep.", s.show(files)),
                   {leave}});
  } else if (!m.takes_off_plate && m.plate > 0 && files > 0 && !by_paper(s.job.run) &&
             std::abs(files - m.plate) > 0.005) {
    out.push_back(
        {Grade::Mind,
         "plate-differs",
         "",
         {},
         say("The files take off a touch plate of {0}; this machine's is {1} thick.", s.show(files), s.show(m.plate)),
         say("Every cut would be wrong by the difference."),
         {{say("Take off {0}", s.show(m.plate)), take.apply}}});
  } else if (!m.takes_off_plate && m.plate > 0 && files <= 0) {
    out.push_back({Grade::Note,
                   "plate-by-hand",
                   "",
                   {},
                   say("This machine's touch plate of {0} is taken off neither by the machine nor by these files.",
                       s.show(m.plate)),
                   say("Where z is set with it, take it off by hand."),
                   {take}});
  }
}

// In a changer whose places are told, a bit that has none would be called by another's number.
void check_places(const Situation& s, std::vector<Verdict>& out) {
  const MachineProfile& m = s.machine;
  if (m.bit_change != BitChange::ToolNumber || m.places.empty()) return;
  std::string missing;
  std::set<std::string> told;
  for (const PieceState& piece : s.pieces) {
    if (piece.cuts == nullptr) continue;
    for (const Operation& op : piece.cuts->operations) {
      const Bit* bit = s.rack.find(op.bit);
      if (bit == nullptr || m.tool_of(bit->id, 0) > 0 || !told.insert(bit->id).second) continue;
      missing += (missing.empty() ? "" : ", ") + bit->name;
    }
  }
  if (missing.empty()) return;
  out.push_back({Grade::Stop,
                 "not-in-changer",
                 "",
                 {},
                 say("These bits have no place in this machine's changer: {0}.", missing),
                 say("It would take another bit in their stead. Give each its place under “Describe machines”, or take "
                     "bits that have one."),
                 {}});
}

}  // namespace

void check_machine(const Situation& s, std::vector<Verdict>& out) {
  const MachineProfile& m = s.machine;
  check_controller(s, out);
  check_least_step(s, out);
  if (machine_table().find(s.job.run.machine) == nullptr) {
    out.push_back({Grade::Mind,
                   "unknown-machine",
                   "",
                   {},
                   say("The machine profile “{0}” is not known here.", s.job.run.machine),
                   say("“{0}” is used instead.", m.name),
                   {}});
  }
  check_plate(s, out);
  check_places(s, out);
}

}  // namespace doyen
