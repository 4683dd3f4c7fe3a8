// The user's own machines, which all jobs share: kept under the XDG data folder, beside those that come with Doyen.
#pragma once

#include <string>

#include "machine/profile.hpp"

namespace doyen {

std::string own_machines_path();

// What was wrong with the user's file when it was last looked at: then only what comes with Doyen is known, and the
// file is left as it is. Empty when nothing was.
const std::string& own_machines_problem();

// Keeps one as it is now, in its place or as a new one; or takes one away. The file is read again before, so that what
// another window keeps meanwhile stays. A file that cannot be read is put aside; where it lies then is returned.
// Throws Problem{BadInput} where it could not be read again, and {CannotWrite}: whatever stood there is then still
// there.
std::string keep_machine(const MachineProfile& machine);
std::string drop_machine(const std::string& id);

// An id that no machine has yet, from a name.
std::string fresh_machine_id(const std::string& name);

}  // namespace doyen
