#include "inlay/ladder.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "artwork/single_line_faces.hpp"
#include "treatments/suits.hpp"

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

Job ladder_job(const Job& like, const Treatment& cut, const Rack& rack, const LadderSettings& settings) {
  const int rungs = std::clamp(settings.rungs, 2, 12);
  const int across = std::min(rungs, rungs > 6 ? (rungs + 1) / 2 : rungs), down = (rungs + across - 1) / across;
  Job job;
  job.name = like.name + ", test ladder";
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
  Outlines art;
  art.region = rung_art();
  const Bit* v = rack.find(cut.bit);
  const double known = v == nullptr ? 0 : v->ladder_contact.value_or(0);
  for (int i = 0; i < rungs; ++i) {
    const int column = i % across, row = i / across;
    const Point at{kEdge + kWide / 2 + column * kPitchX, job.blank.height - kEdge - kHigh / 2 - row * kPitchY};
    Item item;
    item.cut = cut;
    item.cut.kind = Treatment::Kind::Inlay;
    item.cut.back = false;
    item.cut.ground.reset();
    Inlay& inlay = item.cut.inlay;
    if (inlay.sloped) {
      const double asked = inlay.contact;
      inlay.contact = std::clamp(asked + (i - 0.5 * (rungs - 1)) * settings.step, 0.1, item.cut.depth - 0.1);
      inlay.rung = inlay.contact - asked + known;
    } else {
      inlay.allowance = i * settings.step / 2;
      inlay.rung = inlay.allowance;
    }
    const std::string figure = format_length(inlay.sloped ? inlay.contact : inlay.allowance, job.lengths, false);
    item.piece.id = "rung-" + std::to_string(i + 1);
    item.piece.name = (inlay.sloped ? "Contact " : "Allowance ") + figure;
    item.piece.what = frozen(art, item.piece.name);
    item.piece.at = at;
    job.items.push_back(item);
    Lettering words;
    words.words = figure;
    words.face = single_line_faces().front();
    words.cap_height = kWordsHigh;
    Item label;
    label.piece.id = item.piece.id + "-label";
    label.piece.name = "Figure " + figure;
    label.piece.what = words;
    label.piece.at = {at.x, at.y - kHigh / 2 - 5 - kWordsHigh / 2};
    label.cut.kind = Treatment::Kind::Line;
    label.cut.bit = inlay.sloped || v != nullptr ? cut.bit : id_of(usual_v(rack));
    label.cut.depth = 0.4;
    job.items.push_back(std::move(label));
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
