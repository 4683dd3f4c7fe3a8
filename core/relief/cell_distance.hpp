// How far every cell lies from the nearest of some cells.
#pragma once

#include <cstddef>
#include <vector>

namespace doyen {

// In cells, from middle to middle, row after row; 1e9 everywhere where none is marked. Exact (Felzenszwalb and
// Huttenlocher, Distance Transforms of Sampled Functions, 2012): a time as long as there are cells.
std::vector<float> distances_to(const std::vector<unsigned char>& marked, std::size_t columns, std::size_t rows);

// The numbers of connected groups of marked cells, from 1 on; 0 where none is marked. Cells that touch by a corner are
// connected. `count`: how many there are.
std::vector<int> groups_of(const std::vector<unsigned char>& marked, std::size_t columns, std::size_t rows, int& count);

}  // namespace doyen
