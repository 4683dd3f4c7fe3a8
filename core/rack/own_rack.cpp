#include "rack/own_rack.hpp"

#include <algorithm>

#include "problem.hpp"
#include "storage/aside.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// The names of the rack that comes with Doyen, as its file has them.
const std::vector<std::string>& shipped_names() {
  static const std::vector<std::string> names =
      read_data("rack.json", [](const std::string& text, const std::string& where) {
        std::vector<std::string> all;
        for (const Bit& bit : read_rack(text, where).bits) all.push_back(bit.name);
        return all;
      });
  return names;
}

// Names that come with Doyen are said in the user's language, and kept in English; the user's own stay as they are.
Rack said_in_words(Rack rack) {
  for (Bit& bit : rack.bits) {
    if (std::find(shipped_names().begin(), shipped_names().end(), bit.name) != shipped_names().end())
      bit.name = say(bit.name);
  }
  return rack;
}
Rack as_kept(Rack rack) {
  for (Bit& bit : rack.bits) {
    for (const std::string& name : shipped_names()) {
      if (bit.name == say(name)) bit.name = name;
    }
  }
  return rack;
}

}  // namespace

std::string own_rack_path() { return user_file("rack.json"); }

Rack load_shipped_rack() {
  const std::string path = data_file("rack.json");
  return said_in_words(read_rack(read_file(path), path));
}

Rack load_rack() {
  const std::string own = own_rack_path();
  return file_stands(own) ? said_in_words(read_rack(read_file(own), own)) : load_shipped_rack();
}

KeptRack keep_own_rack(const Rack& before, const Rack& after) {
  const std::string path = own_rack_path();
  make_folder(path.substr(0, path.rfind('/')));
  KeptRack kept{after, {}};
  bool damaged = false;
  if (file_stands(path)) {
    try {
      kept.rack = with_changes(said_in_words(read_rack(read_file(path), path)), before, after);
    } catch (const Problem&) {
      damaged = true;
    }
  }
  const std::string text = write_rack(as_kept(kept.rack));
  (void)read_rack(text, say("The rack"));
  kept.aside = write_putting_aside(path, text, damaged);
  return kept;
}

}  // namespace doyen
