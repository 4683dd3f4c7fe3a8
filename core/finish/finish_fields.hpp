// A job's finish as it stands in its file.
#pragma once

#include "fields/record.hpp"
#include "finish/finish_choices.hpp"

namespace doyen {

const Record<FinishChoices>& finish_fields();

}  // namespace doyen
