// The keys of the log's entries, as they are kept and as other programs get them.
#pragma once

#include "fields/record.hpp"
#include "log/entry.hpp"
#include "rack/bit.hpp"

namespace doyen {

const Record<MishapSeen>& mishap_fields();
const Record<LoggedBit>& logged_bit_fields();
const Record<LoggedInlay>& logged_inlay_fields();
const Record<LogEntry>& log_entry_fields();

}  // namespace doyen
