#include "rack/own_rack.hpp"

#include <filesystem>

#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "storage/system_calls.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

namespace fs = std::filesystem;

bool stands(const std::string& path) {
  std::error_code error;
  return fs::exists(path, error);
}

std::string name_aside(const std::string& path) {
  for (int n = 1;; ++n) {
    std::string aside = path + ".damaged-" + std::to_string(n);
    if (!stands(aside)) return aside;
  }
}

}  // namespace

std::string own_rack_path() { return user_file("rack.json"); }

Rack load_shipped_rack() {
  const std::string path = data_file("rack.json");
  return read_rack(read_file(path), path);
}

Rack load_rack() {
  const std::string own = own_rack_path();
  return stands(own) ? read_rack(read_file(own), own) : load_shipped_rack();
}

KeptRack keep_own_rack(const Rack& before, const Rack& after) {
  const std::string path = own_rack_path();
  make_folder(path.substr(0, path.rfind('/')));
  KeptRack kept{after, {}};
  bool damaged = false;
  if (stands(path)) {
    try {
      kept.rack = with_changes(read_rack(read_file(path), path), before, after);
    } catch (const Problem&) {
      damaged = true;
    }
  }
  const std::string text = write_rack(kept.rack);
  (void)read_rack(text, say("The rack"));
  if (damaged) {
    kept.aside = name_aside(path);
    if (SystemCalls::now().rename(path, kept.aside) != 0)
      throw cannot_write(say("The damaged rack “{0}” could not be put aside.", path));
  }
  try {
    write_file_atomically(path, text);
  } catch (const Problem&) {
    if (damaged) (void)SystemCalls::now().rename(kept.aside, path);
    throw;
  }
  return kept;
}

}  // namespace doyen
