// A treatment in a job file and on the command line: what all looks share, and each look's own choices.
#pragma once

#include <initializer_list>

#include "fields/record.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

const Record<Treatment>& treatment_fields();

// For Record::used_when and Record::within: the treatment is one of these.
Record<Treatment>::Test used_by(std::initializer_list<Treatment::Kind> kinds);

}  // namespace doyen
