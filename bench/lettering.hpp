// Generated lettering of about so many segments: the same for every benchmark.
#pragma once

#include <string>

#include "artwork/piece.hpp"

namespace doyen::bench {

// Distinct glyphs are turned and sized a little so that no two islands are equal; repeated ones are left alike.
inline Region lettering(std::size_t segments, bool repeated) {
  const std::string words =
      segments < 10'000 ? "Rosemary" : "Hamburgefonstiv RAKQWXYZ &@ 0123456789 sphinx of black quartz";
  std::vector<Ring> rings;
  Region all;
  for (int line = 0; point_count(all) < segments; ++line) {
    Lettering l;
    l.words = words;
    l.face = {"EB Garamond", "Bold"};
    l.cap_height = repeated ? 60 : 60 + 0.37 * line;
    const Piece piece{"b", "b", l, {2000.0, 150.0 * line}, 0};
    Region row = outlines_of(piece).region;
    if (!repeated) {  // equal letters of one line become unequal, too
      for (std::size_t i = 0; i < row.islands.size(); ++i) {
        for (Ring& ring : row.islands[i].rings) {
          for (Point& p : ring) p = {snap_to_grid(p.x * (1 + 1e-4 * static_cast<double>(i))), p.y};
        }
      }
    }
    all.islands.insert(all.islands.end(), row.islands.begin(), row.islands.end());
  }
  return all;
}

}  // namespace doyen::bench
