#include "stock/blank_fields.hpp"

#include "wording/say.hpp"

namespace doyen {
namespace {

const Record<KeepOut>& keep_out_fields() {
  using K = KeepOut::Kind;
  static const Record<KeepOut> fields = [] {
    Record<KeepOut> f;
    f.choice("kind", &KeepOut::kind,
             Words<K>{{"clamp", K::Clamp},
                      {"screw", K::Screw},
                      {"knot", K::Knot},
                      {"sapwood", K::Sapwood},
                      {"crack", K::Crack},
                      {"glueLine", K::GlueLine}})
        .always();
    f.number("x", &KeepOut::x, {-kFar, kFar}).needed();
    f.number("y", &KeepOut::y, {-kFar, kFar}).needed();
    f.number("width", &KeepOut::width, {0.1, kFar}).needed();
    f.number("height", &KeepOut::height, {0.1, kFar}).needed();
    f.number("stands", &KeepOut::stands, {0, 300});
    using Up = KeepOut::Up;
    f.choice("up", &KeepOut::up, Words<Up>{{"whichever", Up::Whichever}, {"front", Up::Front}, {"back", Up::Back}});
    return f;
  }();
  return fields;
}

const Record<RunsOff>& runs_off_fields() {
  static const Record<RunsOff> fields = [] {
    Record<RunsOff> f;
    f.flag("left", &RunsOff::left);
    f.flag("right", &RunsOff::right);
    f.flag("front", &RunsOff::front);
    f.flag("back", &RunsOff::back);
    return f;
  }();
  return fields;
}

void read_readings(Blank& b, const JsonView& v) {
  b.readings.clear();
  for (const Json& reading : v.array("readings", 100)) {
    if (!reading.is_number() || !(reading.get<double>() >= 0.2 && reading.get<double>() <= 1000))
      throw v.wrong("readings", say("thicknesses from 0.2 to 1000 mm were expected"));
    b.readings.push_back(reading.get<double>());
  }
  if (b.readings.empty()) throw v.wrong("readings", say("at least one thickness in mm was expected"));
}

void look_at_edge(Blank& b, const JsonView& v) {
  if (b.form != BlankForm::Outline) return;
  if (b.edge.empty()) throw v.wrong("edge", say("this is missing"));
  try {
    if (region_of(b).empty()) throw bad_input(say("it encloses nothing."));
  } catch (const Problem& problem) {
    throw bad_input(v.where() + ".edge: " + problem.what());
  }
}

}  // namespace

const Record<Blank>& blank_fields() {
  static const Record<Blank> fields = [] {
    Record<Blank> f;
    f.number("width", &Blank::width, {1, kFar}).needed();
    f.number("height", &Blank::height, {1, kFar}).needed();
    f.own(
         "readings", read_readings, [](const Blank& b) { return Json(b.readings); }, [](const Blank&) { return true; })
        .takes("a list of numbers, 0.2 to 1000");
    f.text("species", &Blank::species).always();
    f.choice("grain", &Blank::grain, Words<Grain>{{"width", Grain::AlongWidth}, {"height", Grain::AlongHeight}})
        .always();
    f.number("margin", &Blank::margin, {0, 1000}).always();
    f.number("film", &Blank::film, {0, 5}).always();
    f.number("bedUnevenness", &Blank::bed_unevenness, {0, 20}).always();
    f.choice("form", &Blank::form,
             Words<BlankForm>{
                 {"rectangle", BlankForm::Rectangle}, {"oval", BlankForm::Oval}, {"outline", BlankForm::Outline}});
    f.text("edge", &Blank::edge);
    f.record("runsOff", &Blank::runs_off, runs_off_fields());
    f.records("keepOuts", &Blank::keep_outs, keep_out_fields(), 500);
    f.afterwards(look_at_edge);
    return f;
  }();
  return fields;
}

}  // namespace doyen
