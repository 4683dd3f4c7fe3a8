// How a job's cut-outs are laid on boards, as it stands in the job's file.
#pragma once

#include "fields/record.hpp"
#include "nesting/nest_choices.hpp"

namespace doyen {

const Record<NestChoices>& nest_fields();

}  // namespace doyen
