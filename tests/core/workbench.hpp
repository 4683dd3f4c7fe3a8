// Small jobs of plain shapes, planned and carved from their written files: what the tests of treatments are made of.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "json_reading.hpp"
#include "planning/outputs.hpp"
#include "rack/own_rack.hpp"

// Defined by the sanitizers' runtime, where there is one.
extern "C" __attribute__((weak)) void __asan_init();

namespace workbench {

using namespace doyen;

inline bool under_sanitizers() { return &__asan_init != nullptr; }

using Kind = Treatment::Kind;
inline constexpr auto kBox = PlainShape::Kind::Rectangle;

inline Job board(double width = 240, double height = 160, double thick = 18) {
  Job job;
  job.blank.width = width;
  job.blank.height = height;
  job.blank.readings = {thick};
  job.blank.margin = 2;
  return job;
}

inline Treatment cut(Kind kind, double depth, std::vector<BitId> clearing = {}, const char* bit = "v60") {
  Treatment t;
  t.kind = kind;
  t.depth = depth;
  t.clearing = std::move(clearing);
  t.bit = goes_through(kind) ? "flat-1/4in" : bit;
  return t;
}

inline void add(Job& job, const char* id, const PlainShape& shape, Point at, const Treatment& t) {
  job.items.push_back({{id, id, shape, at, 0}, t});
}

inline Plan planned(const Job& job) { return plan(job, load_rack(), machine_for(job)); }

// The board as the written files leave it, by the independent reader.
inline HeightField carved(const Plan& p, double cell, Side side = Side::Front) {
  std::map<std::string, std::string> files;
  for (const OutputFile& f : gcode_files(p)) files[f.name] = f.text;
  return carve_files(plan_json(p), "plan", files, cell, side);
}

inline float at(const HeightField& f, Point p) {
  return f.at(static_cast<std::size_t>((p.x - f.x_of(0)) / f.cell() + 0.5),
              static_cast<std::size_t>((p.y - f.y_of(0)) / f.cell() + 0.5));
}

inline const Verdict* find(const Plan& p, const std::string& code) {
  for (const Verdict& v : p.verdicts) {
    if (v.code == code) return &v;
  }
  return nullptr;
}

}  // namespace workbench
