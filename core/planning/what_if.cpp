#include "planning/what_if.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include "job/layout.hpp"
#include "problem.hpp"
#include "stock/species.hpp"

namespace doyen {
namespace {

bool meant(const Item& item, const std::string& piece) { return piece.empty() || item.piece.id == piece; }

void size_pieces(Job& then, const Job& job, const std::string& piece, double factor) {
  std::vector<std::string> ids;
  Box all;
  for (const Item& item : job.items) {
    if (!meant(item, piece)) continue;
    try {
      all.add(bounds(job.outlines(item)));
      ids.push_back(item.piece.id);
    } catch (const Problem&) {
      continue;  // its verdict says so, then as before
    }
  }
  if (!ids.empty()) scale_layout(then, ids, factor, all.centre());
}

void change_feeds(Job& then, const Plan& plan, const std::string& piece, const Supposed& asked) {
  std::set<BitId> bits;
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    if (!meant(plan.job.items[i], piece)) continue;
    for (const Operation& op : plan.pieces[i]->cuts.operations) bits.insert(op.bit);
  }
  if (!asked.v.empty()) bits.insert(asked.v);
  const std::string wood = wood_class_of(plan.job.blank);
  for (const BitId& id : bits) {
    const Bit* bit = plan.rack.find(id);
    Feeds feeds = bit == nullptr ? Feeds{} : bit->feeds_in(wood);
    if (!feeds.known()) continue;
    feeds.feed *= asked.feed;
    feeds.plunge *= asked.feed;
    then.run.feeds[id] = feeds;
  }
}

void change_cut(Treatment& cut, const Rack& rack, const Supposed& asked) {
  if (asked.floor_limit && cut.kind == Treatment::Kind::Incise) {
    cut.incise.floor_limit = asked.floor_limit;
    if (!std::isfinite(*asked.floor_limit)) cut.incise.floor_limit.reset();
  }
  if (!asked.v.empty() && wanted_bit(cut) == WantedBit::V && rack.find(cut.bit) != nullptr) cut.bit = asked.v;
}

}  // namespace

Job what_if(const Plan& plan, const std::string& piece, const Supposed& asked) {
  const Job& job = plan.job;
  Job then = job;
  if (asked.thickness) {
    const double more = *asked.thickness - job.blank.thickest();
    for (double& reading : then.blank.readings) reading = std::max(0.2, reading + more);
  }
  if (asked.size != 1) size_pieces(then, job, piece, asked.size);
  if (asked.feed != 1) change_feeds(then, plan, piece, asked);
  for (Item& item : then.items) {
    if (meant(item, piece)) change_cut(item.cut, plan.rack, asked);
  }
  return then;
}

double closing_depth(const Plan& plan, const std::string& piece) {
  double deepest = 0;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    const auto& groove = plan.pieces[i]->cuts.groove;
    const Bit* v = plan.rack.find(plan.job.items[i].cut.bit);
    if (!meant(plan.job.items[i], piece) || plan.job.items[i].cut.kind != Treatment::Kind::Incise || !groove ||
        v == nullptr)
      continue;
    deepest = std::max(deepest, (groove->widest_stroke() - v->tip) / 2 / v->tan_half());
  }
  return deepest;
}

WhatChanges what_changes(const Plan& then, const Plan* before) {
  WhatChanges out;
  out.seconds = then.seconds;
  out.stops = then.count(Grade::Stop);
  out.minds = then.count(Grade::Mind);
  out.bit_changes = then.bit_changes();
  for (const auto& piece : then.pieces) {
    out.unreached += piece->cuts.unreached.area;
    out.deepest = std::max(out.deepest, piece->cuts.deepest);
  }
  for (const Verdict& v : then.verdicts) {
    if (v.grade == Grade::Note) continue;
    const bool known =
        before != nullptr && std::any_of(before->verdicts.begin(), before->verdicts.end(), [&](const Verdict& was) {
          return was.code == v.code && was.piece == v.piece && was.grade >= v.grade;
        });
    if (!known) out.verdicts.push_back(v);
  }
  return out;
}

}  // namespace doyen
