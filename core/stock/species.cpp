#include "stock/species.hpp"

#include <cctype>
#include <charconv>

#include "json_reading.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

Colour read_colour(const JsonView& view, const char* key) {
  const std::string text = view.text(key);
  unsigned value = 0;
  const bool shaped = text.size() == 7 && text[0] == '#';
  if (!shaped || std::from_chars(text.data() + 1, text.data() + 7, value, 16).ptr != text.data() + 7) {
    throw view.wrong(key, say("a colour such as #A06A40 was expected"));
  }
  return {(value >> 16 & 255) / 255.0, (value >> 8 & 255) / 255.0, (value & 255) / 255.0};
}

// “Brass plate” as it stands within an English sentence; MDF stays.
std::string lower_first(std::string name) {
  if (name.size() > 1 && std::islower(static_cast<unsigned char>(name[1])) != 0)
    name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
  return name;
}

}  // namespace

const Species* SpeciesTable::find(const WoodId& id) const {
  for (const Species& s : species) {
    if (s.id == id) return &s;
  }
  return nullptr;
}

SpeciesTable read_species(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  SpeciesTable table;
  std::size_t i = 0;
  for (const Json& entry : JsonView(document, where).array("species", 1000)) {
    const JsonView v(entry, where + ".species[" + std::to_string(i++) + "]");
    Species s;
    s.id = v.text("id");
    s.name = v.text("name");
    s.wood_class = v.text("class");
    s.density = v.number("density", 50, 20000);
    s.side_hardness = v.number("sideHardness", 0, 100000);
    s.shrink_radial = v.number("shrinkRadial", 0, 30);
    s.shrink_tangential = v.number("shrinkTangential", 0, 30);
    s.change_radial = v.number("changeRadial", 0, 0.02);
    s.change_tangential = v.number("changeTangential", 0, 0.02);
    s.open_pores = v.flag_or("openPores", false);
    s.resinous = v.flag_or("resinous", false);
    s.source = v.text("source");
    s.light = read_colour(v, "light");
    s.dark = read_colour(v, "dark");
    s.ring = v.number("ring", 0.2, 50);
    s.figure = v.number("figure", 0, 1);
    table.species.push_back(std::move(s));
  }
  if (table.species.empty()) throw bad_input(say("{0}: no species stand there.", where));
  return table;
}

const SpeciesTable& species_table() {
  // Said in the user's language, which stands when Doyen starts.
  static const SpeciesTable table = [] {
    SpeciesTable read = read_data("species.json", read_species);
    for (Species& s : read.species) {
      if (s.wood_class != "soft" && s.wood_class != "hard" && s.wood_class != "sheet")
        s.in_sentence = say(lower_first(s.name));
      s.name = say(s.name);
    }
    return read;
  }();
  return table;
}

std::string wood_class_of(const Blank& blank) {
  const Species* species = species_table().find(blank.species);
  return species == nullptr ? "soft" : species->wood_class;
}

std::string class_in_words(const Blank& blank) {
  const std::string wood = wood_class_of(blank);
  if (wood == "soft") return say("soft wood");
  if (wood == "hard") return say("hard wood");
  if (wood == "sheet") return say("sheet goods");
  return species_table().find(blank.species)->in_sentence;
}

}  // namespace doyen
