#include "treatments/through/through.hpp"

#include <algorithm>

#include "stock/species.hpp"
#include "treatments/through/through_look.hpp"

namespace doyen {
namespace {

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

}  // namespace

const Record<ThroughChoices>& through_fields() {
  static const Record<ThroughChoices> fields = [] {
    using T = ThroughChoices;
    Record<T> f;
    f.number("skin", &T::skin, {0, 100});
    f.flag("taped", &T::taped);
    f.optional("overCut", &T::over_cut, {0, 100});
    f.record("tabs", &T::tabs, tabs_fields()).always();
    return f;
  }();
  return fields;
}

Tabs usual_tabs(const Blank& blank) {
  Tabs tabs;
  const bool soft = wood_class_of(blank) == "soft";
  tabs.height = std::clamp(blank.thinnest() * (soft ? 0.22 : 0.17), std::min(0.8, blank.thinnest() / 2), 5.0);
  tabs.length = std::clamp(blank.thinnest() * (soft ? 0.4 : 0.33), 4.0, 12.0);
  return tabs;
}

double default_over_cut(const Blank& blank) { return std::max(0.25, blank.bed_unevenness + 0.1); }

double through_depth(const ThroughChoices& through, const Blank& blank) {
  if (through.skin > 0) return blank.thinnest() - std::min(through.skin, blank.thinnest() - 0.1);
  return blank.thickest() + through.over_cut.value_or(default_over_cut(blank));
}

void start_through(Treatment& cut, const LookStart& about) {
  if (cut.through.tabs == Tabs{}) cut.through.tabs = usual_tabs(about.blank);
}

}  // namespace doyen
