#include "artwork/artwork_fields.hpp"

namespace doyen {

const Record<PlainShape>& shape_fields() {
  static const Record<PlainShape> fields = [] {
    using S = PlainShape;
    using K = S::Kind;
    using C = S::CornerForm;
    // In shares of another piece's height, or in mm.
    const auto from = [](double least) {
      return [least](const S& s) { return Range{s.shares_of.empty() ? least : 1e-6, kLargestArt}; };
    };
    Record<S> f;
    f.choice("form", &S::kind,
             Words<K>{{"rectangle", K::Rectangle},
                      {"ellipse", K::Ellipse},
                      {"archTop", K::ArchTop},
                      {"polygon", K::Polygon},
                      {"star", K::Star},
                      {"ribbon", K::Ribbon},
                      {"line", K::Line},
                      {"shield", K::Shield},
                      {"heart", K::Heart},
                      {"bow", K::Bow},
                      {"arc", K::Arc}})
        .always();
    f.text("sharesOf", &S::shares_of);
    f.number_within("width", &S::width, from(0.1)).needed();
    f.number_within("height", &S::height, from(0.1)).always();
    f.number("cornerRadius", &S::corner_radius, {0, kLargestArt}).always();
    f.number("band", &S::band, {0, 10'000}).always();
    f.choice("cornerForm", &S::corner_form,
             Words<C>{{"round", C::Round}, {"scooped", C::Scooped}, {"clipped", C::Clipped}, {"arched", C::Arched}});
    f.number("points", &S::points, {3, 200}).also_when([](const S& s) {
      return s.kind == K::Polygon || s.kind == K::Star;
    });
    f.number("inner", &S::inner, {0.05, 0.98}).also_when([](const S& s) { return s.kind == K::Star; });
    f.optional("fromEdge", &S::from_edge, {0, 10'000});
    f.number_within("rise", &S::rise, from(0.05)).also_when([](const S& s) { return s.kind == K::ArchTop; });
    return f;
  }();
  return fields;
}

}  // namespace doyen
