#include "treatments/treatment_fields.hpp"

#include <algorithm>

#include "treatments/all.hpp"

namespace doyen {
namespace {

const Words<Treatment::Kind>& words() {
  static const Words<Treatment::Kind> words = [] {
    Words<Treatment::Kind> all;
    for (const ListedLook& listed : kLooks) all.emplace_back(listed.look.word, listed.kind);
    return all;
  }();
  return words;
}

bool asks_depth(const Treatment& t) { return look_of(t.kind).asks_depth; }
bool is_cut(const Treatment& t) { return t.kind != Treatment::Kind::None; }

const Record<Moves>& moves_fields() {
  static const Record<Moves> fields = [] {
    using W = Moves::Way;
    using E = Moves::Entry;
    Record<Moves> f;
    f.choice("way", &Moves::way,
             Words<W>{{"rings", W::Rings}, {"alongGrain", W::AlongGrain}, {"acrossGrain", W::AcrossGrain}})
        .always();
    f.choice("entry", &Moves::entry, Words<E>{{"ramp", E::Ramp}, {"helix", E::Helix}}).always();
    // The bit goes so that the wood that is kept lies on its right, or on its left.
    f.flag("keptWoodRight", &Moves::climb).always();
    f.number("rowStep", &Moves::stepover, {0.05, 0.95}).always();
    f.formerly("climb", [](Moves& m, const JsonView& v) { m.climb = v.flag_or("climb", m.climb); });
    f.formerly("stepover", [](Moves& m, const JsonView& v) {
      if (v.has("stepover")) m.stepover = v.number("stepover", 0.05, 0.95);
    });
    f.number("ramp", &Moves::ramp, {0.01, 1});
    f.number("leaveOn", &Moves::leave_on, {0, 10}).always();
    using F = Moves::VFloor;
    f.choice("vFloor", &Moves::v_floor, Words<F>{{"painted", F::Painted}, {"oiled", F::Oiled}, {"mirror", F::Mirror}});
    return f;
  }();
  return fields;
}

void add_shared(Record<Treatment>& f) {
  using T = Treatment;
  f.choice("look", &T::kind, words()).always();
  f.text("bit", &T::bit);
  f.number_within("depth", &T::depth,
                  [](const T& t) {
                    return Range{asks_depth(t) ? 0.01 : 0, 1000};
                  })
      .also_when(asks_depth)
      .used_when(asks_depth);
  f.texts("clearing", &T::clearing, 20, "a list of bit ids was expected").used_when(clears_floor);
  f.optional("ground", &T::ground, {0, 1000}).used_when(is_cut);
  const auto margin = used_by({T::Kind::Raise, T::Kind::Plug});
  f.number("panelMargin", &T::margin, {0.1, 5000}).also_when(margin).used_when(margin);
  f.record("moves", &T::moves, moves_fields()).used_when(is_cut);
  f.flag("resin", &T::resin).used_when([](const T& t) { return look_of(t.kind).resin; });
  f.flag("back", &T::back).used_when(is_cut);
  f.flag("leftUncut", &T::left_uncut).used_when([](const T& t) { return t.kind == T::Kind::None; });
}

}  // namespace

Record<Treatment>::Test used_by(std::initializer_list<Treatment::Kind> kinds) {
  return [kinds = std::vector<Treatment::Kind>(kinds)](const Treatment& t) {
    return std::find(kinds.begin(), kinds.end(), t.kind) != kinds.end();
  };
}

const Record<Treatment>& treatment_fields() {
  static const Record<Treatment> fields = [] {
    Record<Treatment> f;
    add_shared(f);
    for (const ListedLook& listed : kLooks) listed.look.fields(f);
    return f;
  }();
  return fields;
}

}  // namespace doyen
