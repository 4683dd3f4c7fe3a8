// Not cut: a guide, a panel's edge, or what another piece is made from.
#include "treatments/all.hpp"

namespace doyen {
constinit const Look kNotCut{
    .kind = Treatment::Kind::None,
    .word = "none",
    .done = "not cut",
    .needs_area = false,
};

}  // namespace doyen
