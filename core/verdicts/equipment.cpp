// Bits and machine: what is missing, of the wrong kind, without feeds, out of travel.
#include <algorithm>
#include <set>

#include "stock/species.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {
namespace {

std::vector<std::string> bits_of(const Item& item) {
  if (item.cut.kind == Treatment::Kind::None) return {};
  std::vector<std::string> ids{item.cut.bit};
  if (item.cut.kind == Treatment::Kind::Incise && item.cut.floor_limit) {
    ids.insert(ids.end(), item.cut.clearing.begin(), item.cut.clearing.end());
  }
  return ids;
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
                   "“" + s.job.blank.species + "” is not in the table of woods.",
                   "Feeds for soft wood are used; choose a wood under Blank.",
                   {}});
  }
  std::set<std::string> said;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const Point at = s.pieces[i].outlines == nullptr ? item.piece.at : bounds(s.pieces[i].outlines->region).centre();
    bool main = true;
    for (const std::string& id : bits_of(item)) {
      const Bit* bit = s.rack.find(id);
      const bool wants_v = main && item.cut.kind == Treatment::Kind::Incise;
      const bool any_kind = main && item.cut.kind == Treatment::Kind::Line;
      main = false;
      if (bit == nullptr) {
        out.push_back({Grade::Stop,
                       "bit-missing",
                       item.piece.id,
                       at,
                       "The bit “" + id + "” of “" + item.piece.name + "” is not in the rack.",
                       "Choose another, or add it to the rack.",
                       {}});
        continue;
      }
      if (!any_kind && ((wants_v && bit->kind != BitKind::V) || (!wants_v && bit->kind != BitKind::Flat))) {
        out.push_back({Grade::Stop,
                       "bit-wrong-kind",
                       item.piece.id,
                       at,
                       "The " + bit->name + " cannot do this: “" + item.piece.name + "” needs a " +
                           (wants_v ? "V bit." : "flat bit."),
                       "",
                       {}});
        continue;
      }
      if (bit->feeds_in(wood).known() || !said.insert(id + "/" + wood).second) continue;
      out.push_back({Grade::Stop,
                     "no-feeds",
                     item.piece.id,
                     at,
                     "The " + bit->name + " has no feeds for " + wood + " wood.",
                     "Give feed, plunge and spindle speed in the rack; no file is written with a guess.",
                     {}});
    }
  }
}

void check_machine(const Situation& s, std::vector<Verdict>& out) {
  const MachineProfile& m = s.machine;
  if (machine_table().find(s.job.run.machine) == nullptr) {
    out.push_back({Grade::Mind,
                   "unknown-machine",
                   "",
                   {},
                   "The machine profile “" + s.job.run.machine + "” is not known here.",
                   "“" + m.name + "” is used instead.",
                   {}});
  }
  Box reach;
  double deepest = 0;
  for (const PieceState& piece : s.pieces) {
    if (piece.cuts == nullptr) continue;
    for (const Operation& op : piece.cuts->operations) {
      deepest = std::max(deepest, op.depth);
      for (const Pass& pass : op.passes) {
        for (const Point3& p : pass.points) reach.add(p.flat());
      }
    }
  }
  if (reach.empty()) return;
  if (reach.width() > m.travel[0] || reach.height() > m.travel[1]) {
    out.push_back({Grade::Stop,
                   "past-travel",
                   "",
                   reach.centre(),
                   "The cuts span " + s.show(reach.width()) + " × " + s.show(reach.height()) +
                       "; the machine travels " + s.show(m.travel[0]) + " × " + s.show(m.travel[1]) + ".",
                   "Turn the board, make the work smaller, or choose the machine it is meant for.",
                   {}});
  }
  if (deepest + m.clearance > m.travel[2]) {
    out.push_back({Grade::Stop,
                   "past-travel-down",
                   "",
                   reach.centre(),
                   "The deepest cut and the clearance together, " + s.show(deepest + m.clearance) +
                       ", are more than the machine's travel down.",
                   "",
                   {}});
  }
}

}  // namespace doyen
