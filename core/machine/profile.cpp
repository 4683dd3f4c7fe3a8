#include "machine/profile.hpp"

#include "json_reading.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::array<double, 3> read_three(const JsonView& view, const char* key, double most) {
  const Json& list = view.array(key, 3);
  if (list.size() != 3) throw view.wrong(key, say("three numbers, for x, y and z, were expected"));
  std::array<double, 3> out{};
  for (std::size_t i = 0; i < 3; ++i) {
    if (!list[i].is_number()) throw view.wrong(key, say("three numbers were expected"));
    out[i] = list[i].get<double>();
    if (!(out[i] > 0 && out[i] <= most)) throw view.wrong(key, say("numbers above zero were expected"));
  }
  return out;
}

}  // namespace

const MachineProfile* MachineTable::find(const std::string& id) const {
  for (const MachineProfile& m : machines) {
    if (m.id == id) return &m;
  }
  return nullptr;
}

MachineTable read_machines(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  MachineTable table;
  std::size_t i = 0;
  for (const Json& entry : JsonView(document, where).array("machines", 200)) {
    const JsonView v(entry, where + ".machines[" + std::to_string(i++) + "]");
    MachineProfile m;
    m.id = v.text("id");
    m.name = v.text("name");
    const std::string unit = v.text("unit");
    if (unit != "mm" && unit != "in") throw v.wrong("unit", say("mm or in was expected"));
    m.unit = unit == "in" ? Unit::Inch : Unit::Millimetre;
    m.decimals = static_cast<int>(v.number("decimals", 2, 6));
    m.arcs = v.flag_or("arcs", true);
    m.line_numbers = v.flag_or("lineNumbers", false);
    const std::string change = v.text_or("bitChange", "none");
    if (change == "none")
      m.bit_change = BitChange::None;
    else if (change == "pause")
      m.bit_change = BitChange::Pause;
    else if (change == "toolNumber")
      m.bit_change = BitChange::ToolNumber;
    else
      throw v.wrong("bitChange", say("none, pause or toolNumber was expected"));
    m.pause_word = v.text_or("pauseWord", "M0");
    m.spindle_least = v.number("spindleLeast", 0, 200000);
    m.spindle_most = v.number("spindleMost", m.spindle_least, 200000);
    m.travel = read_three(v, "travel", 100000);
    m.rapid = read_three(v, "rapid", 200000);
    m.feed_most = read_three(v, "feedMax", 200000);
    m.acceleration = read_three(v, "acceleration", 100000);
    m.corner_deviation = v.number("cornerDeviation", 0.0001, 5);
    m.moves_per_second = v.number_or("movesPerSecond", 0, 0, 1e6);
    m.moves_ahead = static_cast<int>(v.number_or("movesAhead", 0, 0, 1e6));
    m.clearance = v.number("clearance", 0.5, 200);
    m.spin_up_seconds = v.number_or("spinUpSeconds", 4, 0, 120);
    m.bit_change_seconds = v.number_or("bitChangeSeconds", 180, 0, 7200);
    table.machines.push_back(std::move(m));
  }
  if (table.machines.empty()) throw bad_input(say("{0}: no machines stand there.", where));
  return table;
}

const MachineTable& machine_table() {
  // Said in the user's language, which stands when Doyen starts.
  static const MachineTable table = [] {
    MachineTable read = read_data("machines.json", read_machines);
    for (MachineProfile& m : read.machines) m.name = say(m.name);
    return read;
  }();
  return table;
}

}  // namespace doyen
