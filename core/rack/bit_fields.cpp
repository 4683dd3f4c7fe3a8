#include "rack/bit_fields.hpp"

#include "wording/say.hpp"

namespace doyen {
namespace {

// One list for both: what a rack may leave out, a job says.
Record<Feeds> feeds_from(double least, double least_rpm) {
  Record<Feeds> f;
  const auto ask = [&](const char* key, double Feeds::*member, Range range) {
    f.number(key, member, range).always();
    if (least > 0) f.needed();
  };
  ask("feed", &Feeds::feed, {least, kMostFeed});
  ask("plunge", &Feeds::plunge, {least, kMostFeed});
  ask("rpm", &Feeds::rpm, {least_rpm, 100'000});
  f.number("depthPerPass", &Feeds::depth_per_pass, {0, 100}).always();
  return f;
}

const Record<Feeds>& rack_feeds_fields() {
  static const Record<Feeds> fields = feeds_from(0, 0);
  return fields;
}

template <typename Enum>
Words<Enum> words_of(int count) {
  Words<Enum> words;
  for (int i = 0; i < count; ++i) words.emplace_back(to_word(static_cast<Enum>(i)), static_cast<Enum>(i));
  return words;
}

bool cone(const Bit& b) { return b.kind == BitKind::V || b.kind == BitKind::Taper; }
bool keyhole(const Bit& b) { return b.kind == BitKind::Keyhole; }

// Figures that only some kinds of bits have.
void add_kind_figures(Record<Bit>& f) {
  const auto only = [](const char* key, double Bit::*member, bool (*has)(const Bit&),
                       std::function<Range(const Bit&)> range) {
    return [=](Bit& b, const JsonView& v) {
      if (has(b)) b.*member = v.number(key, range(b).least, range(b).most);
    };
  };
  f.own(
      "angle",
      only("angle", &Bit::angle, cone,
           [](const Bit&) {
             return Range{1, 175};
           }),
      [](const Bit& b) { return Json(b.angle); }, [](const Bit& b) { return b.angle > 0; });
  f.number_within("tip", &Bit::tip, [](const Bit& b) { return Range{0, b.diameter}; }).always();
  f.own(
      "neck",
      only("neck", &Bit::neck, keyhole,
           [](const Bit& b) {
             return Range{0.5, b.diameter};
           }),
      [](const Bit& b) { return Json(b.neck); }, keyhole);
  f.own(
      "headHeight",
      only("headHeight", &Bit::head_height, keyhole,
           [](const Bit&) {
             return Range{0.5, 100};
           }),
      [](const Bit& b) { return Json(b.head_height); }, keyhole);
}

const Record<Bit>& bit_fields() {
  static const Record<Bit> fields = [] {
    Record<Bit> f;
    f.text("id", &Bit::id).needed();
    f.text("name", &Bit::name).needed();
    f.choice("kind", &Bit::kind, words_of<BitKind>(5)).needed();
    f.number("diameter", &Bit::diameter, {0.05, 150}).needed();
    add_kind_figures(f);
    f.number("flutes", &Bit::flutes, {1, 12}).always();
    f.choice("direction", &Bit::direction, words_of<CutDirection>(4)).always();
    f.number("fluteLength", &Bit::flute_length, {0.1, 300}).needed();
    f.flag("centreCutting", &Bit::centre_cutting).always();
    f.optional("measuredDiameter", &Bit::measured_diameter, {0.05, 150});
    f.own(
        "measuredAngle",
        [](Bit& b, const JsonView& v) {
          if (cone(b) && v.has("measuredAngle")) b.measured_angle = v.number("measuredAngle", 1, 175);
        },
        [](const Bit& b) { return Json(*b.measured_angle); },
        [](const Bit& b) { return b.measured_angle.has_value(); });
    f.optional("ladderContact", &Bit::ladder_contact, {-5, 5});
    f.optional("ladderAllowance", &Bit::ladder_allowance, {0, 5});
    f.texts("tested", &Bit::tested, 500, "a list of woods was expected");
    f.records_by_name("feeds", &Bit::feeds, rack_feeds_fields(), 100).always();
    return f;
  }();
  return fields;
}

}  // namespace

const Record<Feeds>& job_feeds_fields() {
  static const Record<Feeds> fields = feeds_from(1, 100);
  return fields;
}

const Record<Rack>& rack_fields() {
  static const Record<Rack> fields = [] {
    Record<Rack> f;
    f.own(
        "format", [](Rack&, const JsonView&) {}, [](const Rack&) { return Json("doyen-rack/1"); },
        [](const Rack&) { return true; });
    f.records("bits", &Rack::bits, bit_fields(), 500).always();
    f.afterwards([](Rack& rack, const JsonView& v) {
      for (std::size_t i = 0; i < rack.bits.size(); ++i) {
        if (rack.find(rack.bits[i].id) != &rack.bits[i])
          throw bad_input(say("{0}: the bit “{1}” stands there twice.", v.where(), rack.bits[i].id));
      }
    });
    return f;
  }();
  return fields;
}

Rack read_rack(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  Rack rack = rack_fields().read(JsonView(document, where));
  rack.unknown = fields::kept_text(rack_fields().beside(document));
  return rack;
}

std::string write_rack(const Rack& rack) {
  Json j = rack_fields().write(rack);
  if (!rack.unknown.empty()) rack_fields().put_beside(j, parse_json(rack.unknown, "unknown"));
  return json_text(j, 2) + "\n";
}

}  // namespace doyen
