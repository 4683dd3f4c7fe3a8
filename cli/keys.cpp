// doyen-cli keys: what a job file may hold, for whoever writes one by hand.
#include <cstdio>

#include "cli/command.hpp"
#include "fields/record.hpp"

namespace doyen::cli {

Command keys_command() {
  return {"keys", "Lists every key of a job file and what it takes, as a Markdown table.", [](Arguments&) {
            return [] {
              std::printf("| key | takes |\n|---|---|\n");
              for (const KnownKey& key : known_keys())
                std::printf("| `%s` | %s |\n", key.path.c_str(), key.takes.c_str());
              return kFine;
            };
          }};
}

}  // namespace doyen::cli
