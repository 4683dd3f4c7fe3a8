#include "stock/blank.hpp"

#include <algorithm>

namespace doyen {

double Blank::thickest() const { return *std::max_element(readings.begin(), readings.end()); }
double Blank::thinnest() const { return *std::min_element(readings.begin(), readings.end()); }

}  // namespace doyen
