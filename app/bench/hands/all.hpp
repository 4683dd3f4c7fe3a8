// Every hand of the bench, a file each.
#pragma once

#include "bench/hands/arc_hand.hpp"
#include "bench/hands/bridge_hand.hpp"
#include "bench/hands/draw_hand.hpp"
#include "bench/hands/keep_out_hand.hpp"
#include "bench/hands/key_hand.hpp"
#include "bench/hands/measure_hand.hpp"
#include "bench/hands/point_hand.hpp"
#include "bench/hands/seam_hand.hpp"
