#include "cutting/pass.hpp"

#include <algorithm>

namespace doyen {

double path_length(const Pass& pass) {
  double total = 0;
  for (std::size_t i = 1; i < pass.points.size(); ++i) total += distance(pass.points[i - 1], pass.points[i]);
  return total;
}

double path_length(const std::vector<Pass>& passes) {
  double total = 0;
  for (const Pass& pass : passes) total += path_length(pass);
  return total;
}

double deepest(const std::vector<Pass>& passes) {
  double z = 0;
  for (const Pass& pass : passes) {
    for (const Point3& p : pass.points) z = std::min(z, p.z);
  }
  return z;
}

}  // namespace doyen
