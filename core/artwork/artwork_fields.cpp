#include "artwork/artwork_fields.hpp"

#include "artwork/drawing/drawing_limits.hpp"

namespace doyen {
namespace {

constexpr double kLargest = 20'000;  // mm, of anything that is set or drawn

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
  if (pairs.json().size() > 2000) throw v.wrong("pairs", "at most 2,000 pairs of letters were expected");
  for (const auto& [pair, by] : pairs.json().items()) l.pairs[pair] = pairs.number(pair.c_str(), -200, 1000);
}

const Record<Drawing::Part>& part_fields() {
  static const Record<Drawing::Part> fields = [] {
    using Part = Drawing::Part;
    const auto line = [](const Part& p) { return p.line; };
    Record<Part> f;
    f.text("id", &Part::id).always();
    f.text("group", &Part::group).always();
    f.flag("line", &Part::line);
    f.number("stroke", &Part::stroke, {0, 10'000}).only_when(line);
    f.choice("end", &Part::end,
             Words<StrokeEnd>{{"flat", StrokeEnd::Flat}, {"round", StrokeEnd::Round}, {"square", StrokeEnd::Square}})
        .only_when(line);
    f.choice("joint", &Part::joint,
             Words<StrokeJoint>{{"pointed", StrokeJoint::Pointed}, {"round", StrokeJoint::Round}})
        .only_when(line);
    f.own(
        "rule", [](Part& p, const JsonView& v) { p.even_odd = v.text_or("rule", "nonzero") == "evenodd"; },
        [](const Part& p) { return Json(p.even_odd ? "evenodd" : "nonzero"); }, [](const Part& p) { return !p.line; });
    f.flag("leftOut", &Part::left_out);
    f.text("d", &Part::data).needed();
    f.afterwards([](Part& p, const JsonView& v) {
      try {
        const Path path = parse_path(p.data);
        for (const PathStep& s : path.steps) {
          if (std::abs(s.to.x) > kFarthest || std::abs(s.to.y) > kFarthest)
            throw bad_input("a point lies more than 100 m away.");
        }
      } catch (const Problem& problem) {
        throw bad_input(v.where() + ".d: " + problem.what());
      }
    });
    return f;
  }();
  return fields;
}

const Record<TraceSettings::Settled>& settled_fields() {
  static const Record<TraceSettings::Settled> fields = [] {
    using S = TraceSettings::Settled;
    Record<S> f;
    f.number("x", &S::x, {0, 1}).needed();
    f.number("y", &S::y, {0, 1}).needed();
    f.flag("ink", &S::ink).always();
    return f;
  }();
  return fields;
}

const Record<TracedFrom>& traced_fields() {
  static const Record<TracedFrom> fields = [] {
    Record<TracedFrom> f;
    const auto number = [&](const char* key, double TraceSettings::*member, Range range) {
      f.number(
           key, [member](auto& t) -> auto& { return t.settings.*member; }, range)
          .always();
    };
    f.flag(
         "automatic", [](auto& t) -> auto& { return t.settings.automatic; })
        .always();
    number("cut", &TraceSettings::cut, {0, 255});
    f.flag(
         "uneven", [](auto& t) -> auto& { return t.settings.uneven; })
        .always();
    f.flag(
         "invert", [](auto& t) -> auto& { return t.settings.invert; })
        .always();
    f.number("colours", [](auto& t) -> auto& { return t.settings.colours; }, {0, 12}).always();
    f.own(
        "picked",
        [](TracedFrom& t, const JsonView& v) {
          for (const Json& c : v.array("picked", 12)) {
            if (!c.is_number_integer()) throw v.wrong("picked", "a list of whole numbers was expected");
            t.settings.picked.push_back(c.get<int>());
          }
        },
        [](const TracedFrom& t) { return Json(t.settings.picked); }, [](const TracedFrom&) { return true; });
    number("specks", &TraceSettings::specks, {0, 1e6});
    number("holes", &TraceSettings::holes, {0, 1e6});
    number("smoothness", &TraceSettings::smoothness, {0, 20});
    number("corners", &TraceSettings::corners, {0, 1});
    number("straighten", &TraceSettings::straighten, {-180, 180});
    number("cropLeft", &TraceSettings::crop_left, {0, 0.95});
    number("cropTop", &TraceSettings::crop_top, {0, 0.95});
    number("cropRight", &TraceSettings::crop_right, {0, 0.95});
    number("cropBottom", &TraceSettings::crop_bottom, {0, 0.95});
    f.records(
        "settled", [](auto& t) -> auto& { return t.settings.settled; }, settled_fields(), 10'000);
    f.text("png", &TracedFrom::png).needed();
    f.afterwards([](TracedFrom& t, const JsonView& v) {
      if (t.png.size() > (80u << 20)) throw v.wrong("png", "at most 80 MB were expected");
      (void)from_base64(t.png.get());
    });
    return f;
  }();
  return fields;
}

const Record<Derived::Bridge>& bridge_fields() {
  static const Record<Derived::Bridge> fields = [] {
    Record<Derived::Bridge> f;
    const Range far{-kFar, kFar};
    f.number(
         "fromX", [](auto& b) -> auto& { return b.from.x; }, far)
        .needed();
    f.number(
         "fromY", [](auto& b) -> auto& { return b.from.y; }, far)
        .needed();
    f.number(
         "toX", [](auto& b) -> auto& { return b.to.x; }, far)
        .needed();
    f.number(
         "toY", [](auto& b) -> auto& { return b.to.y; }, far)
        .needed();
    return f;
  }();
  return fields;
}

}  // namespace

const Words<Drawing::Lines>& line_words() {
  using Lines = Drawing::Lines;
  static const Words<Lines> words{{"wide", Lines::Wide}, {"followed", Lines::Followed}, {"enclose", Lines::Enclose}};
  return words;
}

const Record<Lettering>& lettering_fields() {
  static const Record<Lettering> fields = [] {
    using L = Lettering;
    const Range size{0.1, kLargest};
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
        [](const L& l) { return Json(l.width); }, [](const L& l) { return l.fit_width; });
    f.choice("align", &L::align,
             Words<Align>{{"left", Align::Left}, {"centre", Align::Centre}, {"right", Align::Right}})
        .always();
    f.number("letterSpacing", &L::letter_spacing, {-90, 1000}).always();
    f.number("lineSpacing", &L::line_spacing, {10, 1000}).always();
    f.own(
        "pairs", read_pairs, [](const L& l) { return Json(l.pairs); }, [](const L& l) { return !l.pairs.empty(); });
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
    f.record("kept", &L::kept, kept_fields()).only_when([](const L& l) { return !l.kept.data.empty(); });
    return f;
  }();
  return fields;
}

const Record<PlainShape>& shape_fields() {
  static const Record<PlainShape> fields = [] {
    using S = PlainShape;
    using K = S::Kind;
    using C = S::CornerForm;
    // In shares of another piece's height, or in mm.
    const auto from = [](double least) {
      return [least](const S& s) { return Range{s.shares_of.empty() ? least : 1e-6, kLargest}; };
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
    f.number("cornerRadius", &S::corner_radius, {0, kLargest}).always();
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

const Record<Drawing>& drawing_fields() {
  static const Record<Drawing> fields = [] {
    using D = Drawing;
    const auto has_lines = [](const D& d) {
      return std::any_of(d.parts.begin(), d.parts.end(), [](const D::Part& p) { return p.line; });
    };
    Record<D> f;
    f.text("name", &D::name).always();
    f.number("pageWidth", &D::page_width, {0, kFar}).always();
    f.number("pageHeight", &D::page_height, {0, kFar}).always();
    f.number("scale", &D::scale, {1e-6, 1e6}).always();
    f.flag("mirrored", &D::mirrored).always();
    // Before there was a third way, a flag said whether lines are followed.
    f.formerly("followLines", [](D& d, const JsonView& v) {
      if (v.flag_or("followLines", false)) d.lines = D::Lines::Followed;
    });
    f.choice(
         "lines", &D::lines,
         Words<D::Lines>{{"wide", D::Lines::Wide}, {"followed", D::Lines::Followed}, {"enclose", D::Lines::Enclose}})
        .also_when(has_lines);
    f.number("hairline", &D::hairline, {0.01, 1000}).also_when(has_lines);
    f.records("parts", &D::parts, part_fields(), kMostParts).always();
    f.number("thicken", &D::thicken, {0, 1000});
    f.optional_record("traced", &D::traced, traced_fields());
    f.records("original", &D::original, part_fields(), kMostParts);
    f.afterwards([](D& d, const JsonView& v) {
      if (!v.has("name")) d.name = "drawing";
      if (d.parts.empty()) throw v.wrong("parts", "at least one part was expected");
    });
    return f;
  }();
  return fields;
}

const Record<Derived>& derived_fields() {
  static const Record<Derived> fields = [] {
    using D = Derived;
    using How = D::How;
    Record<D> f;
    f.choice("how", &D::how,
             Words<How>{{"grow", How::Grow},
                        {"join", How::Join},
                        {"takeAway", How::TakeAway},
                        {"overlap", How::Overlap},
                        {"split", How::Split},
                        {"mirror", How::Mirror},
                        {"grid", How::Grid},
                        {"round", How::Round},
                        {"along", How::Along},
                        {"link", How::Link}})
        .always();
    f.texts("from", &D::from, 500, "a list of piece ids was expected").always();
    f.number("distance", &D::distance, {-5000, 5000}).always();
    f.choice("corner", &D::corner,
             Words<Corner>{{"round", Corner::Round}, {"sharp", Corner::Sharp}, {"flat", Corner::Flat}})
        .always();
    f.number("steps", &D::steps, {1, 50}).always();
    f.number("band", &D::band, {0, 5000}).always();
    f.number("columns", &D::columns, {1, 500}).always();
    f.number("rows", &D::rows, {1, 500}).always();
    f.number("stepX", &D::step_x, {-kFar, kFar}).always();
    f.number("stepY", &D::step_y, {-kFar, kFar}).always();
    f.number("count", &D::count, {0, 2000}).always();
    f.number("radius", &D::radius, {-kFar, kFar}).always();
    f.flag("turned", &D::turned).always();
    f.number("angle", &D::angle, {-3600, 3600}).always();
    f.number("share", &D::share, {0, 1}).always();
    f.flag("firstSide", &D::first_side).always();
    const auto linked = [](const D& d) { return d.how == How::Link || !d.bridges.empty(); };
    f.number("bridge", &D::bridge, {0.1, 1000}).also_when(linked);
    f.records("bridges", &D::bridges, bridge_fields(), 2000).also_when(linked);
    return f;
  }();
  return fields;
}

}  // namespace doyen
