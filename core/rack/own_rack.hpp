// Where racks are kept: the one that comes with Doyen, and the user's own, which all jobs share.
#pragma once

#include <string>

#include "rack/bit.hpp"

namespace doyen {

std::string own_rack_path();  // under the XDG data folder
Rack load_shipped_rack();
// The user's own rack if there is one, else the one that comes with Doyen. Throws Problem{BadInput}.
Rack load_rack();

struct KeptRack {
  Rack rack;          // as it stands now, with what others changed in it meanwhile
  std::string aside;  // where a damaged file that stood there was put; empty when none did
};
// Keeps what was changed from `before` to `after` as the user's own rack. A file that cannot be read is put aside,
// never overwritten; what could not be read again is not written. Throws Problem{CannotWrite} and {BadInput}; whatever
// stood there is then still there.
KeptRack keep_own_rack(const Rack& before, const Rack& after);

}  // namespace doyen
