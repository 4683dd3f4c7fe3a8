// Both boards of one inlay, planned, for the tests that mate them.
#pragma once

#include <catch2/catch.hpp>
#include <functional>

#include "inlay/fit.hpp"
#include "rack/own_rack.hpp"

namespace inlaid {

using namespace doyen;

using Kind = Treatment::Kind;
inline constexpr auto kRectangle = PlainShape::Kind::Rectangle;

struct Both {
  Job job;
  Plan pocket, plug;
  PlugPlace place;
};

// Art on a 200 × 160 board, pocket 5.0, contact 3.8, saw gap 1.2 mm unless told otherwise.
inline Both inlaid_board(const decltype(Piece::what)& what, Point at, const Rack& rack,
                         const std::function<void(Treatment&)>& change = {}) {
  Both h;
  h.job.blank.width = 200;
  h.job.blank.height = 160;
  h.job.blank.readings = {20};
  h.job.blank.species = "black-walnut";
  Item item{{"art", "Art", what, at, 0}, {}};
  item.cut.kind = Kind::Inlay;
  item.cut.bit = "v60";
  item.cut.depth = 5;
  if (change) change(item.cut);
  h.job.items.push_back(item);
  h.pocket = plan(h.job, rack, machine_for(h.job));
  const std::vector<FurtherBoard> boards = plug_boards(h.job);
  REQUIRE(boards.size() == 1);
  REQUIRE(boards[0].places.size() == 1);
  h.plug = plan(boards[0].job, rack, machine_for(boards[0].job));
  h.place = boards[0].places[0];
  for (const Plan* p : {&h.pocket, &h.plug}) {
    for (const auto& piece : p->pieces) CHECK(piece->problem.empty());
    for (const Verdict& v : p->verdicts) {
      INFO(v.text);
      if (v.code != "upright-corners-bind") CHECK(v.grade != Grade::Stop);
    }
  }
  return h;
}

// The rack as it comes, its V bits as wide as the work asks.
inline Rack wide_rack() {
  Rack rack = load_rack();
  for (Bit& bit : rack.bits) {
    if (bit.kind == BitKind::V && bit.tip == 0) {
      bit.diameter = 60;
      bit.flute_length = 50;
    }
  }
  return rack;
}

inline const PlainShape kBar{PlainShape::Kind::Rectangle, 60, 30};

// A treatment as the Inlay look gives it, with what tests change most.
inline Treatment inlay_of(double depth = 5, double contact = 3.8, const char* wood = "sugar-maple",
                          bool crossed = false) {
  Treatment t;
  t.kind = Kind::Inlay;
  t.bit = "v60";
  t.depth = depth;
  t.inlay.contact = contact;
  t.inlay.wood = wood;
  t.inlay.crossed = crossed;
  return t;
}

inline Job walnut(double width = 240, double height = 160) {
  Job job;
  job.blank.width = width;
  job.blank.height = height;
  job.blank.readings = {20};
  job.blank.margin = 2;
  job.blank.species = "black-walnut";
  return job;
}

}  // namespace inlaid
