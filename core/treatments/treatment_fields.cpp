#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

const Words<Kind>& looks() {
  static const Words<Kind> words = [] {
    Words<Kind> all;
    for (int kind = 0; kind <= static_cast<int>(Kind::Plug); ++kind)
      all.emplace_back(to_word(static_cast<Kind>(kind)), static_cast<Kind>(kind));
    return all;
  }();
  return words;
}

Record<Treatment>::Test of(std::initializer_list<Kind> kinds) {
  return [kinds = std::vector<Kind>(kinds)](const Treatment& t) {
    return std::find(kinds.begin(), kinds.end(), t.kind) != kinds.end();
  };
}

// Looks that are asked how deep they go.
bool has_depth(const Treatment& t) {
  return makes_ground(t.kind) ||
         of({Kind::Line, Kind::Bevel, Kind::Drill, Kind::HangerSlot, Kind::Inlay, Kind::Plug})(t);
}
bool through(const Treatment& t) { return goes_through(t.kind); }
bool is_cut(const Treatment& t) { return t.kind != Kind::None; }

const Record<TabPlace>& tab_place_fields() {
  static const Record<TabPlace> fields = [] {
    Record<TabPlace> f;
    f.number("island", &TabPlace::island, {0, 1e6}).always();
    f.number("along", &TabPlace::along, {0, 1}).needed();
    return f;
  }();
  return fields;
}

const Record<Tabs>& tabs_fields() {
  static const Record<Tabs> fields = [] {
    Record<Tabs> f;
    f.flag("wanted", &Tabs::wanted).always();
    f.number("count", &Tabs::count, {2, 60}).always();
    f.number("length", &Tabs::length, {0.5, 500}).always();
    f.number("height", &Tabs::height, {0.1, 200}).always();
    f.records("placed", &Tabs::placed, tab_place_fields(), 500).always();
    return f;
  }();
  return fields;
}

const Record<Insert>& insert_fields() {
  static const Record<Insert> fields = [] {
    using C = Insert::Corners;
    Record<Insert> f;
    f.number("thickness", &Insert::thickness, {0, 500}).needed();
    f.number("clearance", &Insert::clearance, {0, 50}).always();
    f.number("cover", &Insert::cover, {0, 500}).always();
    f.number("notch", &Insert::notch, {0, 500}).always();
    f.choice("corners", &Insert::corners, Words<C>{{"plain", C::Plain}, {"round", C::Round}, {"slot", C::Slot}})
        .always();
    f.flag("cut", &Insert::cut);
    f.text("material", &Insert::material).also_when([](const Insert& i) { return i.cut; });
    return f;
  }();
  return fields;
}

const Record<Moves>& moves_fields() {
  static const Record<Moves> fields = [] {
    using W = Moves::Way;
    using E = Moves::Entry;
    Record<Moves> f;
    f.choice("way", &Moves::way,
             Words<W>{{"rings", W::Rings}, {"alongGrain", W::AlongGrain}, {"acrossGrain", W::AcrossGrain}})
        .always();
    f.choice("entry", &Moves::entry, Words<E>{{"ramp", E::Ramp}, {"helix", E::Helix}}).always();
    f.flag("climb", &Moves::climb).always();
    f.number("stepover", &Moves::stepover, {0.05, 0.95}).always();
    f.number("leaveOn", &Moves::leave_on, {0, 10}).always();
    return f;
  }();
  return fields;
}

const Record<Inlay>& inlay_fields() {
  static const Record<Inlay> fields = [] {
    Record<Inlay> f;
    f.flag("sloped", &Inlay::sloped).always();
    f.number("contact", &Inlay::contact, {0.05, 200}).always();
    f.number("sawGap", &Inlay::saw_gap, {0, 100}).always();
    f.number("allowance", &Inlay::allowance, {0, 5}).always();
    f.number("ease", &Inlay::ease, {0, 20}).always();
    f.text("wood", &Inlay::wood).always();
    f.number("thickness", &Inlay::thickness, {0.5, 300}).always();
    f.flag("crossed", &Inlay::crossed).always();
    f.number("moisture", &Inlay::moisture, {0, 30}).always();
    f.optional("rung", &Inlay::rung, {-50, 50});
    return f;
  }();
  return fields;
}

void add_floors(Record<Treatment>& f) {
  using T = Treatment;
  const auto raise = of({Kind::Raise});
  f.number_within("depth", &T::depth,
                  [](const T& t) {
                    return Range{has_depth(t) ? 0.01 : 0, 1000};
                  })
      .also_when(has_depth)
      .used_when(has_depth);
  f.optional("floorLimit", &T::floor_limit, {0.01, 1000}).used_when(of({Kind::Incise}));
  f.texts("clearing", &T::clearing, 20, "a list of bit ids was expected").used_when(clears_floor);
  f.optional("ground", &T::ground, {0, 1000}).used_when(is_cut);
  f.text("panel", &T::panel).used_when(raise);
  f.number("panelMargin", &T::margin, {0.1, 5000})
      .also_when(of({Kind::Raise, Kind::Plug}))
      .used_when(of({Kind::Raise, Kind::Plug}));
  f.flag("sloped", &T::sloped).also_when(raise).used_when(raise);
  const auto stepped = [](const T& t) { return t.steps != T{}.steps || t.terrace != T{}.terrace; };
  f.number("steps", &T::steps, {1, 20}).also_when(stepped).used_when(raise);
  f.number("terrace", &T::terrace, {0, 1000}).also_when(stepped).used_when(raise);
  f.record("insert", &T::insert, insert_fields()).used_when(of({Kind::Recess}));
  f.record("moves", &T::moves, moves_fields()).used_when(is_cut);
}

void add_lines_and_holes(Record<Treatment>& f) {
  using T = Treatment;
  const auto line = of({Kind::Line}), drill = of({Kind::Drill}), slot = of({Kind::HangerSlot});
  const auto hatched = [](const T& t) { return t.hatch != T{}.hatch || t.hatch_angle != T{}.hatch_angle; };
  f.number("hatch", &T::hatch, {0, 1000}).also_when(hatched).used_when(line);
  f.number("hatchAngle", &T::hatch_angle, {-360, 360}).also_when(hatched).used_when(line);
  f.number("slotLength", &T::slot_length, {0.5, 500}).also_when(slot).used_when(slot);
  f.number("peck", &T::peck, {0, 500}).used_when(drill);
  f.number("spacing", &T::spacing, {0, 5000}).used_when(drill);
  f.flag("inside", &T::inside).also_when(of({Kind::Bevel})).used_when(of({Kind::Bevel}));
  f.flag("resin", &T::resin).used_when(of({Kind::Incise, Kind::Line, Kind::Recess}));
}

void add_through_cuts(Record<Treatment>& f) {
  using T = Treatment;
  f.flag("slug", &T::slug).also_when(of({Kind::Pierce})).used_when(of({Kind::Pierce}));
  f.number("skin", &T::skin, {0, 100}).used_when(through);
  f.flag("taped", &T::taped).used_when(through);
  f.optional("overCut", &T::over_cut, {0, 100}).used_when(through);
  f.record("tabs", &T::tabs, tabs_fields()).also_when(through).used_when(through);
}

}  // namespace

const Record<Treatment>& treatment_fields() {
  static const Record<Treatment> fields = [] {
    using T = Treatment;
    const auto joint = of({Kind::Inlay, Kind::Plug});
    Record<T> f;
    f.choice("look", &T::kind, looks()).always();
    f.text("bit", &T::bit).always();
    add_floors(f);
    add_lines_and_holes(f);
    add_through_cuts(f);
    f.record("inlay", &T::inlay, inlay_fields()).also_when(joint).used_when(joint);
    f.flag("vAlone", &T::v_alone).used_when(joint);
    f.flag("back", &T::back).used_when(is_cut);
    return f;
  }();
  return fields;
}

}  // namespace doyen
