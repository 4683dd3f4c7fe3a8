#include "artwork/artwork_fields.hpp"
#include "plates/plate_list_fields.hpp"

#include "wording/say.hpp"

namespace doyen {
namespace {

const Record<Lettering::Kept>& kept_fields() {
  static const Record<Lettering::Kept> fields = [] {
    Record<Lettering::Kept> f;
    f.text("key", &Lettering::Kept::key).needed();
    f.text("outlines", &Lettering::Kept::data).needed();
    f.afterwards([](Lettering::Kept& kept, const JsonView&) { (void)parse_path(kept.data.get()); });
    return f;
  }();
  return fields;
}

void read_pairs(Lettering& l, const JsonView& v) {
  if (!v.has("pairs")) return;
  const JsonView pairs = v.object("pairs");
  if (pairs.json().size() > 2000) throw v.wrong("pairs", say("at most 2,000 pairs of letters were expected"));
  for (const auto& [pair, by] : pairs.json().items()) l.pairs[pair] = pairs.number(pair.c_str(), -200, 1000);
}

}  // namespace

const Record<Lettering>& lettering_fields() {
  static const Record<Lettering> fields = [] {
    using L = Lettering;
    const Range size{0.1, kLargestArt};
    Record<L> f;
    f.text("words", &L::words, 20'000).needed();
    f.text(
         "family", [](auto& l) -> auto& { return l.face.family; })
        .needed();
    f.text(
         "style", [](auto& l) -> auto& { return l.face.style; })
        .always();
    f.number("capHeight", &L::cap_height, size).always();
    // Fitted to a width, that width has a key of its own.
    f.number("width", &L::width, size).only_when([](const L& l) { return !l.fit_width && l.width != L{}.width; });
    f.own(
         "fitWidth",
         [size](L& l, const JsonView& v) {
           l.fit_width = v.has("fitWidth");
           if (l.fit_width) l.width = v.number("fitWidth", size.least, size.most);
         },
         [](const L& l) { return Json(l.width); }, [](const L& l) { return l.fit_width; })
        .takes(size);
    f.choice("align", &L::align,
             Words<Align>{{"left", Align::Left}, {"centre", Align::Centre}, {"right", Align::Right}})
        .always();
    f.number("letterSpacing", &L::letter_spacing, {-90, 1000}).always();
    f.number("lineSpacing", &L::line_spacing, {10, 1000}).always();
    f.number("letterWidth", &L::letter_width, {20, 400});
    f.own(
         "pairs", read_pairs, [](const L& l) { return Json(l.pairs); }, [](const L& l) { return !l.pairs.empty(); })
        .takes("by two letters: -200 to 1000");
    f.number("arcRadius", &L::arc_radius, {0, kFar});
    f.flag("arcBelow", &L::arc_below).also_when([](const L& l) { return l.arc_radius > 0; });
    f.text("along", &L::along);
    f.number("alongStart", &L::along_start, {0, 1}).also_when([](const L& l) { return !l.along.empty(); });
    f.text("inside", &L::inside);
    const auto inside = [](const L& l) { return !l.inside.empty(); };
    f.number("insideMargin", &L::inside_margin, {0, 5000}).also_when(inside);
    f.flag("insideMarginIsShare", &L::inside_margin_share).also_when(inside);
    f.number("stroke", &L::stroke, {0, 1000});
    f.number("thicken", &L::thicken, {0, 1000});
    f.record("list", &L::list, from_list_fields()).only_when([](const L& l) { return !l.list.column.empty(); });
    f.record("kept", &L::kept, kept_fields()).only_when([](const L& l) { return !l.kept.data.empty(); });
    return f;
  }();
  return fields;
}

}  // namespace doyen
