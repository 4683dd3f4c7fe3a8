// How a piece is cut, as it stands in a job's file and in what the command line takes.
#pragma once

#include "fields/record.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

// Its looks by their words; a field that only some looks need says which (Record::unused()): what another look was
// given is kept with the piece all the same.
const Record<Treatment>& treatment_fields();

}  // namespace doyen
