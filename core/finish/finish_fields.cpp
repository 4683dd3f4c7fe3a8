#include "finish/finish_fields.hpp"

#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostColours = 5000, kLongestColour = 80;

void read_colours(FinishChoices& finish, const JsonView& v) {
  if (!v.has("colours")) return;
  const JsonView colours = v.object("colours");
  if (colours.json().size() > kMostColours)
    throw v.wrong("colours", say("at most {0} colours were expected", kMostColours));
  for (const auto& [piece, colour] : colours.json().items()) {
    if (!colour.is_string() || colour.get<std::string>().size() > kLongestColour)
      throw v.wrong("colours", say("a few words for each piece were expected"));
    finish.colours[piece] = colour.get<std::string>();
  }
}

}  // namespace

const Record<FinishChoices>& finish_fields() {
  static const Record<FinishChoices> fields = [] {
    using F = FinishChoices;
    using School = FinishSchool;
    Record<F> f;
    f.choice("school", &F::school,
             Words<School>{{"none", School::None},
                           {"maskPaint", School::MaskPaint},
                           {"paintSand", School::PaintSand},
                           {"paintedBoard", School::PaintedBoard},
                           {"oil", School::Oil},
                           {"varnish", School::Varnish}});
    f.flag("outdoors", &F::outdoors);
    f.own(
         "colours", read_colours, [](const F& finish) { return Json(finish.colours); },
         [](const F& finish) { return !finish.colours.empty(); })
        .takes("words by piece");
    f.text("colour", &F::colour, kLongestColour);
    f.number("designMinutes", &F::design_minutes, {0, 100'000});
    f.number("copies", &F::copies, {1, 100'000});
    f.number("roundOver", &F::round_over, {0, 100});
    return f;
  }();
  return fields;
}

}  // namespace doyen
