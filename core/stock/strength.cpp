#include "stock/strength.hpp"

#include <algorithm>

#include "json_reading.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {

StrengthTable read_strength(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  const JsonView top(document, where);
  if (top.text("format") != "doyen-strength/1") throw top.wrong("format", say("“doyen-strength/1” was expected"));
  StrengthTable table;
  table.source = top.text("source");
  const JsonView classes = top.object("classes");
  for (const auto& [name, each] : classes.json().items()) {
    const JsonView one(each, classes.where() + "." + name);
    table.classes[name] = {one.number("along", 0.01, 5),  one.number("across", 0.01, 5), one.number("least", 0, 100),
                           one.number("skin", 0, 100),    one.number("wall", 0.01, 10),  one.number("cut", 0.1, 1e5),
                           one.number("shear", 0.01, 1e4)};
  }
  const JsonView tape = top.object("tape");
  table.tape = {tape.number("upCut", 0, 1e6), tape.number("other", 0, 1e6)};
  const JsonView hold = top.object("hold");
  table.hold = {hold.number("clamp", 0.1, 1e6), hold.number("screw", 0.1, 1e6)};
  return table;
}

const StrengthTable& strength_table() {
  static const StrengthTable table = read_data("strength.json", read_strength);
  return table;
}

namespace {

NeckLimits limits_of(const std::string& wood_class) {
  const auto found = strength_table().classes.find(wood_class);
  return found == strength_table().classes.end() ? NeckLimits{} : found->second;
}

}  // namespace

double least_neck(const std::string& wood_class, double thickness, bool across) {
  const NeckLimits limits = limits_of(wood_class);
  return std::max(limits.least, thickness * (across ? limits.across : limits.along));
}

double least_skin(const std::string& wood_class) { return limits_of(wood_class).skin; }

double least_wall(const std::string& wood_class) { return limits_of(wood_class).wall; }

double cutting_resistance(const std::string& wood_class) { return limits_of(wood_class).cut; }

double shear_strength(const std::string& wood_class) { return limits_of(wood_class).shear; }

}  // namespace doyen
