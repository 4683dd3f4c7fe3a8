#include "artwork/artwork_fields.hpp"
#include "artwork/drawing/drawing_limits.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

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
         [](const Part& p) { return Json(p.even_odd ? "evenodd" : "nonzero"); }, [](const Part& p) { return !p.line; })
        .takes("nonzero, evenodd");
    f.flag("leftOut", &Part::left_out);
    f.text("d", &Part::data).needed();
    f.afterwards([](Part& p, const JsonView& v) {
      try {
        const Path path = parse_path(p.data);
        for (const PathStep& s : path.steps) {
          if (std::abs(s.to.x) > kFarthest || std::abs(s.to.y) > kFarthest)
            throw bad_input(say("a point lies more than 100 m away."));
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
             if (!c.is_number_integer()) throw v.wrong("picked", say("a list of whole numbers was expected"));
             t.settings.picked.push_back(c.get<int>());
           }
         },
         [](const TracedFrom& t) { return Json(t.settings.picked); }, [](const TracedFrom&) { return true; })
        .takes("a list of whole numbers");
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
      if (t.png.size() > (80u << 20)) throw v.wrong("png", say("at most 80 MB were expected"));
      (void)from_base64(t.png.get());
    });
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
    f.number("tall", &D::tall, {0.02, 50});
    f.optional_record("traced", &D::traced, traced_fields());
    f.records("original", &D::original, part_fields(), kMostParts);
    f.afterwards([](D& d, const JsonView& v) {
      if (!v.has("name")) d.name = "drawing";
      if (d.parts.empty()) throw v.wrong("parts", say("at least one part was expected"));
    });
    return f;
  }();
  return fields;
}

}  // namespace doyen
