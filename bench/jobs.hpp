// Jobs that several benchmarks work with.
#pragma once

#include <cmath>
#include <string>

#include "job/job.hpp"

namespace doyen::bench {

// A wavy leaf of 500 points, as SVG path data.
inline std::string leaf(Point middle, double radius, double waves) {
  std::string data = "M";
  for (int k = 0; k < 500; ++k) {
    const double a = 2 * M_PI * k / 500, r = radius + waves * std::sin(9 * a) + waves / 3 * std::sin(41 * a);
    data += format_number(middle.x + r * std::cos(a), 4) + " " + format_number(middle.y + r * std::sin(a), 4) +
            (k == 0 ? "L" : " ");
  }
  return data + "Z";
}

// A drawing of 2 MB: two hundred leaves, incised.
inline Job heavy_drawing() {
  Job job;
  job.blank.width = 900;
  job.blank.height = 700;
  Drawing d;
  d.page_width = d.page_height = 600;
  for (int i = 0; i < 200; ++i)
    d.parts.edit().push_back({"p" + std::to_string(i), "", leaf({20.0 + 38 * (i % 15), 20.0 + 38 * (i / 15)}, 5, 0.6)});
  job.items.push_back({{"art", "Art", d, {400, 300}, 0}, {}});
  job.items.back().cut.kind = Treatment::Kind::Incise;
  job.items.back().cut.bit = "v60";
  return job;
}

// Two hundred small words, each incised.
inline Job many_words() {
  Job job;
  job.blank.width = 1200;
  job.blank.height = 800;
  for (int i = 0; i < 200; ++i) {
    Lettering l;
    l.words = "bed " + std::to_string(i);
    l.cap_height = 12;
    Item item;
    item.piece = {"bed-" + std::to_string(i), l.words, l, {60.0 + 115 * (i % 10), 30.0 + 38 * (i / 10)}, 0};
    item.cut.kind = Treatment::Kind::Incise;
    item.cut.bit = "v60";
    job.items.push_back(std::move(item));
  }
  return job;
}

}  // namespace doyen::bench
