#include "inlay/ladder.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "artwork/lettering/single_line_faces.hpp"
#include "treatments/suits.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kWide = 30, kHigh = 12;      // mm, a rung's art
constexpr double kPitchX = 44, kPitchY = 36;  // mm from one to the next
constexpr double kEdge = 16, kWordsHigh = 5;  // mm

// A point, two straight flanks and a round end: what inlays are made of.
Region rung_art() {
  const double r = kHigh / 2, middle = kWide / 2 - r;
  Ring ring{{-kWide / 2, 0}, {-kWide / 2 + kHigh, -r}};
  constexpr int kSteps = 48;
  for (int i = 0; i <= kSteps; ++i) {
    const double a = -std::numbers::pi / 2 + std::numbers::pi * i / kSteps;
    ring.push_back({middle + r * std::cos(a), r * std::sin(a)});
  }
  ring.push_back({-kWide / 2 + kHigh, r});
  return clean({ring});
}

}  // namespace

namespace {

// The board that the rungs lie on: as the job's own, as large as they need.
Job board_for(const Job& like, int across, int down) {
  Job job;
  job.name = say("{0}, test ladder", like.name);
  job.lengths = like.lengths;
  job.run = like.run;
  job.run.order.clear();
  job.run.mill_level.reset();
  job.run.keep_zero = KeepZero::Corner;
  job.blank = {};
  job.blank.species = like.blank.species;
  job.blank.readings = like.blank.readings;
  job.blank.grain = like.blank.grain;
  job.blank.bed_unevenness = like.blank.bed_unevenness;
  job.blank.margin = 4;
  job.blank.width = 2 * kEdge + (across - 1) * kPitchX + kWide;
  job.blank.height = 2 * kEdge + (down - 1) * kPitchY + kHigh + kWordsHigh + 5;
  return job;
}

// Rung `i` of `rungs`; `known`: what a former ladder showed of this V.
Treatment rung_cut(const Treatment& cut, const LadderSettings& settings, int i, int rungs, double known) {
  Treatment rung = cut;
  rung.kind = Treatment::Kind::Inlay;
  rung.back = false;
  rung.ground.reset();
  Inlay& inlay = rung.inlay;
  if (inlay.sloped) {
    const double asked = inlay.contact;
    inlay.contact = std::clamp(asked + (i - 0.5 * (rungs - 1)) * settings.step, 0.1, rung.depth - 0.1);
    inlay.rung = inlay.contact - asked + known;
  } else {
    inlay.allowance = i * settings.step / 2;
    inlay.rung = inlay.allowance;
  }
  return rung;
}

Item label_for(const Item& rung, const std::string& figure, const std::string& bit) {
  Lettering words;
  words.words = figure;
  words.face = single_line_faces().front();
  words.cap_height = kWordsHigh;
  Item label;
  label.piece.id = rung.piece.id + "-label";
  label.piece.name = say("Figure {0}", figure);
  label.piece.what = words;
  label.piece.at = {rung.piece.at.x, rung.piece.at.y - kHigh / 2 - 5 - kWordsHigh / 2};
  label.cut.kind = Treatment::Kind::Line;
  label.cut.bit = bit;
  label.cut.depth = 0.4;
  return label;
}

}  // namespace

Job ladder_job(const Job& like, const Treatment& cut, const Rack& rack, const LadderSettings& settings) {
  const int rungs = std::clamp(settings.rungs, 2, 12);
  const int across = std::min(rungs, rungs > 6 ? (rungs + 1) / 2 : rungs), down = (rungs + across - 1) / across;
  Job job = board_for(like, across, down);
  Outlines art;
  art.region = rung_art();
  const Bit* v = rack.find(cut.bit);
  const double known = v == nullptr ? 0 : v->ladder_contact.value_or(0);
  for (int i = 0; i < rungs; ++i) {
    const int column = i % across, row = i / across;
    Item item;
    item.cut = rung_cut(cut, settings, i, rungs, known);
    const Inlay& inlay = item.cut.inlay;
    const std::string figure = format_length(inlay.sloped ? inlay.contact : inlay.allowance, job.lengths, false);
    item.piece.id = "rung-" + std::to_string(i + 1);
    item.piece.name = inlay.sloped ? say("Contact {0}", figure) : say("Allowance {0}", figure);
    item.piece.what = frozen(art, item.piece.name);
    item.piece.at = {kEdge + kWide / 2 + column * kPitchX, job.blank.height - kEdge - kHigh / 2 - row * kPitchY};
    job.items.push_back(item);
    job.items.push_back(label_for(item, figure, inlay.sloped || v != nullptr ? cut.bit : id_of(usual_v(rack))));
  }
  return job;
}

std::string keep_answer(Rack& rack, const Treatment& rung) {
  if (rung.kind != Treatment::Kind::Inlay || !rung.inlay.rung) return {};
  for (Bit& bit : rack.bits) {
    if (rung.inlay.sloped && bit.id == rung.bit) {
      bit.ladder_contact = *rung.inlay.rung;
      return bit.name;
    }
    if (!rung.inlay.sloped && !rung.clearing.empty() && bit.id == rung.clearing.back()) {
      bit.ladder_allowance = rung.inlay.allowance;
      return bit.name;
    }
  }
  return {};
}

}  // namespace doyen
