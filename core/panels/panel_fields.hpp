// A sign's panels as they stand in a job's file.
#pragma once

#include "fields/record.hpp"
#include "panels/panel_choices.hpp"

namespace doyen {

const Record<PanelChoices>& panel_fields();

}  // namespace doyen
