#include "machine/profile.hpp"

#include <algorithm>
#include <utility>

#include "fields/record.hpp"
#include "json_reading.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Axes = std::array<double, 3>;

void add_axes(Record<MachineProfile>& f, const char* key, Axes MachineProfile::*member, double most) {
  f.own(
       key,
       [=](MachineProfile& m, const JsonView& view) {
         const Json& list = view.array(key, 3);
         if (list.size() != 3) throw view.wrong(key, say("three numbers, for x, y and z, were expected"));
         for (std::size_t i = 0; i < 3; ++i) {
           if (!list[i].is_number()) throw view.wrong(key, say("three numbers were expected"));
           const double value = list[i].get<double>();
           if (!(value > 0 && value <= most)) throw view.wrong(key, say("numbers above zero were expected"));
           (m.*member)[i] = value;
         }
       },
       [=](const MachineProfile& m) {
         Json list = Json::array();
         for (const double value : m.*member) list.push_back(value);
         return list;
       },
       [](const MachineProfile&) { return true; })
      .takes("three numbers");
}

const Record<MachineProfile>& machine_fields() {
  static const Record<MachineProfile> fields = [] {
    using M = MachineProfile;
    Record<M> f;
    f.text("id", &M::id, 100).needed();
    f.text("name", &M::name, 200).needed();
    f.choice("unit", &M::unit, Words<Unit>{{"mm", Unit::Millimetre}, {"in", Unit::Inch}}).needed();
    f.number("decimals", &M::decimals, {2, 6}).needed();
    f.flag("arcs", &M::arcs).always();
    f.flag("lineNumbers", &M::line_numbers).always();
    f.choice("bitChange", &M::bit_change,
             Words<BitChange>{
                 {"none", BitChange::None}, {"pause", BitChange::Pause}, {"toolNumber", BitChange::ToolNumber}})
        .always();
    f.text("pauseWord", &M::pause_word, 40).always();
    f.flag("dwellInMilliseconds", &M::dwell_in_ms);
    f.flag("bitsKeepLength", &M::keeps_length);
    f.number("touchPlate", &M::plate, {0, 100});
    f.flag("takesOffPlate", &M::takes_off_plate);
    f.choice("home", &M::home,
             Words<HomeCorner>{{"unknown", HomeCorner::Unknown},
                               {"leftFront", HomeCorner::LeftFront},
                               {"rightFront", HomeCorner::RightFront},
                               {"leftBack", HomeCorner::LeftBack},
                               {"rightBack", HomeCorner::RightBack}});
    f.text("fileEnding", &M::file_ending, 8);
    f.flag("commentsBehindSemicolon", &M::semicolons);
    f.flag("percentLines", &M::percent_lines);
    f.text("endWord", &M::end_word, 4);
    f.number("bedWide", &M::bed_wide, {0, 100'000});
    f.number("bedDeep", &M::bed_deep, {0, 100'000});
    f.number("bedLeft", &M::bed_left, {-10'000, 10'000});
    f.number("bedFront", &M::bed_front, {-10'000, 10'000});
    f.flag("xToTheLeft", &M::x_left);
    f.flag("yTowardsYou", &M::y_near);
    f.texts("places", &M::places, kMostPlaces, "a list of bit ids was expected, the first in place 1");
    f.number("holesApart", &M::hole_pitch, {0, 1000});
    f.number("holesWide", &M::hole_wide, {1, 100});
    f.number("holesX", &M::hole_x, {-10'000, 100'000});
    f.number("holesY", &M::hole_y, {-10'000, 100'000});
    f.number("spindleLeast", &M::spindle_least, {0, 200'000}).needed();
    f.number_within("spindleMost", &M::spindle_most, [](const M& m) {
       return Range{m.spindle_least, 200'000};
     }).needed();
    add_axes(f, "travel", &M::travel, 100'000);
    add_axes(f, "rapid", &M::rapid, 200'000);
    add_axes(f, "feedMax", &M::feed_most, 200'000);
    add_axes(f, "acceleration", &M::acceleration, 100'000);
    f.number("cornerDeviation", &M::corner_deviation, {0.0001, 5}).needed();
    f.number("movesPerSecond", &M::moves_per_second, {0, 1e6});
    f.number("movesAhead", &M::moves_ahead, {0, 1e6});
    f.number("leastStep", &M::least_step, {0, 1});
    f.number("clearance", &M::clearance, {0.5, 200}).needed();
    f.number("spinUpSeconds", &M::spin_up_seconds, {0, 120}).always();
    f.number("bitChangeSeconds", &M::bit_change_seconds, {0, 7200}).always();
    return f;
  }();
  return fields;
}

// A pause's word stands in a line of its own in the file; a file's ending is letters and digits.
void check(const MachineProfile& m, const JsonView& v) {
  const bool fine = !m.pause_word.empty() && std::all_of(m.pause_word.begin(), m.pause_word.end(), [](char c) {
    return (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '.' || c == ' ';
  });
  if (!fine) throw v.wrong("pauseWord", say("a word as in the file was expected, such as M0"));
  if (!sound_file_ending(m.file_ending))
    throw v.wrong("fileEnding", say("one to five letters or digits were expected, such as nc"));
  if (m.end_word != "M30" && m.end_word != "M2") throw v.wrong("endWord", say("M30 or M2 was expected"));
}

}  // namespace

std::string put_into_place(MachineProfile& machine, const std::string& bit, int place) {
  std::string was;
  std::replace(machine.places.begin(), machine.places.end(), bit, std::string());
  if (place > 0) {
    const auto at = static_cast<std::size_t>(place) - 1;
    machine.places.resize(std::max(machine.places.size(), at + 1));
    was = std::exchange(machine.places[at], bit);
  }
  while (!machine.places.empty() && machine.places.back().empty()) machine.places.pop_back();
  return was;
}

bool sound_file_ending(const std::string& ending) {
  constexpr std::size_t kMost = 5;
  // The set's own sheets and pictures are told by theirs.
  const bool taken = ending == "pdf" || ending == "png" || ending == "json";
  return !ending.empty() && ending.size() <= kMost && !taken && std::all_of(ending.begin(), ending.end(), [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
  });
}

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
    MachineProfile m = machine_fields().read(v);
    check(m, v);
    m.unknown = fields::kept_text(machine_fields().beside(entry));
    if (table.find(m.id) != nullptr) throw v.wrong("id", say("“{0}” stands there twice", m.id));
    table.machines.push_back(std::move(m));
  }
  if (table.machines.empty()) throw bad_input(say("{0}: no machines stand there.", where));
  return table;
}

std::string write_machines(const MachineTable& table) {
  Json document{{"format", "doyen-machines/1"}, {"units", "mm, mm/min, mm/s2, seconds"}, {"machines", Json::array()}};
  for (const MachineProfile& m : table.machines) {
    Json entry = machine_fields().write(m);
    if (!m.unknown.empty()) machine_fields().put_beside(entry, parse_json(m.unknown, "machine"));
    document["machines"].push_back(std::move(entry));
  }
  return json_text(document, 1) + "\n";
}

}  // namespace doyen
