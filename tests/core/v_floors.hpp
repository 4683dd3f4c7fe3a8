// Floors for a V's tip that are no groove's: their edge is their own outline.
#pragma once

#include "cutting/v_floor.hpp"

inline std::vector<std::vector<doyen::Pass>> tidied(const doyen::Region& floor, const doyen::Region& rest,
                                                    const doyen::VFloor& v) {
  std::vector<std::vector<doyen::Pass>> goes;
  const std::vector<doyen::Region> rests = doyen::rests_by_part(floor, rest);
  for (std::size_t i = 0; i < floor.islands.size(); ++i) {
    const doyen::MedialAxis axis = doyen::medial_axis(floor.islands[i]);
    const doyen::Region part{{floor.islands[i]}};
    const auto own = doyen::tidy_floor_with_v({axis, axis.origin, 0, part}, rests[i], v);
    if (goes.size() < own.size()) goes.resize(own.size());
    for (std::size_t go = 0; go < own.size(); ++go) goes[go].insert(goes[go].end(), own[go].begin(), own[go].end());
  }
  return goes;
}
