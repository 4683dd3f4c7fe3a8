#include "job/job.hpp"

#include <algorithm>
#include <set>

#include "artwork/drawing_limits.hpp"
#include "storage/atomic_file.hpp"

namespace doyen {
namespace {

constexpr double kFar = 50'000;  // mm, the farthest any length in a job may be
constexpr std::size_t kMostPieces = 5000;

template <typename Enum>
Enum choice(const JsonView& v, const char* key, Enum otherwise,
            std::initializer_list<std::pair<const char*, Enum>> words) {
  if (!v.has(key)) return otherwise;
  const std::string word = v.text(key);
  std::string known;
  for (const auto& [name, value] : words) {
    if (word == name) return value;
    known += (known.empty() ? "" : ", ") + std::string(name);
  }
  throw v.wrong(key, "“" + word.substr(0, 40) + "” is not known; one of " + known + " was expected");
}

Blank read_blank(const JsonView& v) {
  Blank b;
  b.width = v.number("width", 1, kFar);
  b.height = v.number("height", 1, kFar);
  b.readings.clear();
  for (const Json& reading : v.array("readings", 100)) {
    if (!reading.is_number() || !(reading.get<double>() >= 0.2 && reading.get<double>() <= 1000)) {
      throw v.wrong("readings", "thicknesses from 0.2 to 1000 mm were expected");
    }
    b.readings.push_back(reading.get<double>());
  }
  if (b.readings.empty()) throw v.wrong("readings", "at least one thickness in mm was expected");
  b.form = choice(v, "form", b.form,
                  {{"rectangle", BlankForm::Rectangle}, {"oval", BlankForm::Oval}, {"outline", BlankForm::Outline}});
  if (b.form == BlankForm::Outline) {
    b.edge = v.text("edge");
    try {
      if (region_of(b).empty()) throw bad_input("it encloses nothing.");
    } catch (const Problem& problem) {
      throw bad_input(v.where() + ".edge: " + problem.what());
    }
  }
  b.species = v.text_or("species", b.species);
  b.grain = choice(v, "grain", Grain::AlongWidth, {{"width", Grain::AlongWidth}, {"height", Grain::AlongHeight}});
  b.margin = v.number_or("margin", b.margin, 0, 1000);
  b.film = v.number_or("film", 0, 0, 5);
  b.bed_unevenness = v.number_or("bedUnevenness", b.bed_unevenness, 0, 20);
  std::size_t i = 0;
  for (const Json& entry : v.array("keepOuts", 500)) {
    const JsonView k(entry, v.where() + ".keepOuts[" + std::to_string(i++) + "]");
    using K = KeepOut::Kind;
    KeepOut place;
    place.kind = choice(k, "kind", K::Clamp,
                        {{"clamp", K::Clamp},
                         {"screw", K::Screw},
                         {"knot", K::Knot},
                         {"sapwood", K::Sapwood},
                         {"crack", K::Crack},
                         {"glueLine", K::GlueLine}});
    place.x = k.number("x", -kFar, kFar);
    place.y = k.number("y", -kFar, kFar);
    place.width = k.number("width", 0.1, kFar);
    place.height = k.number("height", 0.1, kFar);
    b.keep_outs.push_back(place);
  }
  return b;
}

Json write_blank(const Blank& b) {
  Json j{{"width", b.width},
         {"height", b.height},
         {"readings", b.readings},
         {"species", b.species},
         {"grain", b.grain == Grain::AlongWidth ? "width" : "height"},
         {"margin", b.margin},
         {"film", b.film},
         {"bedUnevenness", b.bed_unevenness}};
  if (b.form == BlankForm::Oval) j["form"] = "oval";
  if (b.form == BlankForm::Outline) {
    j["form"] = "outline";
    j["edge"] = b.edge;
  }
  for (const KeepOut& k : b.keep_outs)
    j["keepOuts"].push_back(
        {{"kind", to_word(k.kind)}, {"x", k.x}, {"y", k.y}, {"width", k.width}, {"height", k.height}});
  return j;
}

Lettering read_lettering(const JsonView& v) {
  Lettering l;
  l.words = v.text("words");
  if (l.words.size() > 20'000) throw v.wrong("words", "at most 20,000 characters were expected");
  l.face = {v.text("family"), v.text_or("style", "Regular")};
  l.cap_height = v.number_or("capHeight", l.cap_height, 0.1, 20'000);
  l.fit_width = v.has("fitWidth");
  l.width = l.fit_width ? v.number("fitWidth", 0.1, 20'000) : v.number_or("width", l.width, 0.1, 20'000);
  l.align =
      choice(v, "align", Align::Centre, {{"left", Align::Left}, {"centre", Align::Centre}, {"right", Align::Right}});
  l.letter_spacing = v.number_or("letterSpacing", 0, -90, 1000);
  l.line_spacing = v.number_or("lineSpacing", 100, 10, 1000);
  if (v.has("pairs")) {
    const JsonView pairs = v.object("pairs");
    if (pairs.json().size() > 2000) throw v.wrong("pairs", "at most 2,000 pairs of letters were expected");
    for (const auto& [pair, by] : pairs.json().items()) l.pairs[pair] = pairs.number(pair.c_str(), -200, 1000);
  }
  l.arc_radius = v.number_or("arcRadius", 0, 0, kFar);
  l.arc_below = v.flag_or("arcBelow", false);
  l.along = v.text_or("along", "");
  l.along_start = v.number_or("alongStart", 0, 0, 1);
  l.inside = v.text_or("inside", "");
  l.inside_margin = v.number_or("insideMargin", l.inside_margin, 0, 5000);
  l.inside_margin_share = v.flag_or("insideMarginIsShare", false);
  l.stroke = v.number_or("stroke", 0, 0, 1000);
  l.thicken = v.number_or("thicken", 0, 0, 1000);
  if (v.has("kept")) {
    const JsonView kept = v.object("kept");
    l.kept = {kept.text("key"), kept.text("outlines")};
    parse_path(l.kept.data);
  }
  return l;
}

Json write_lettering(const Lettering& l) {
  static constexpr const char* kAligns[] = {"left", "centre", "right"};
  Json j{{"words", l.words}, {"family", l.face.family}, {"style", l.face.style}, {"capHeight", l.cap_height}};
  const Lettering usual;
  if (l.fit_width)
    j["fitWidth"] = l.width;
  else if (l.width != usual.width)
    j["width"] = l.width;
  j["align"] = kAligns[static_cast<int>(l.align)];
  j["letterSpacing"] = l.letter_spacing;
  j["lineSpacing"] = l.line_spacing;
  if (!l.pairs.empty()) j["pairs"] = l.pairs;
  // What does not show at the moment is kept, too: it was said once and may be wanted again.
  if (l.arc_radius > 0) j["arcRadius"] = l.arc_radius;
  if (l.arc_radius > 0 || l.arc_below) j["arcBelow"] = l.arc_below;
  if (!l.along.empty()) j["along"] = l.along;
  if (!l.along.empty() || l.along_start != usual.along_start) j["alongStart"] = l.along_start;
  if (!l.inside.empty()) j["inside"] = l.inside;
  if (!l.inside.empty() || l.inside_margin != usual.inside_margin || l.inside_margin_share) {
    j["insideMargin"] = l.inside_margin;
    j["insideMarginIsShare"] = l.inside_margin_share;
  }
  if (l.stroke > 0) j["stroke"] = l.stroke;
  if (l.thicken > 0) j["thicken"] = l.thicken;
  if (!l.kept.data.empty()) j["kept"] = {{"key", l.kept.key}, {"outlines", l.kept.data}};
  return j;
}

using ShapeKind = PlainShape::Kind;
using CornerForm = PlainShape::CornerForm;
constexpr std::initializer_list<std::pair<const char*, ShapeKind>> kShapes{{"rectangle", ShapeKind::Rectangle},
                                                                           {"ellipse", ShapeKind::Ellipse},
                                                                           {"archTop", ShapeKind::ArchTop},
                                                                           {"polygon", ShapeKind::Polygon},
                                                                           {"star", ShapeKind::Star},
                                                                           {"ribbon", ShapeKind::Ribbon},
                                                                           {"line", ShapeKind::Line}};
constexpr std::initializer_list<std::pair<const char*, CornerForm>> kCornerForms{{"round", CornerForm::Round},
                                                                                 {"scooped", CornerForm::Scooped},
                                                                                 {"clipped", CornerForm::Clipped},
                                                                                 {"arched", CornerForm::Arched}};
using How = Derived::How;
constexpr std::initializer_list<std::pair<const char*, How>> kHows{
    {"grow", How::Grow},   {"join", How::Join},     {"takeAway", How::TakeAway}, {"overlap", How::Overlap},
    {"split", How::Split}, {"mirror", How::Mirror}, {"grid", How::Grid},         {"round", How::Round},
    {"along", How::Along}, {"link", How::Link}};
constexpr std::initializer_list<std::pair<const char*, Corner>> kCorners{
    {"round", Corner::Round}, {"sharp", Corner::Sharp}, {"flat", Corner::Flat}};
constexpr std::initializer_list<std::pair<const char*, StrokeEnd>> kEnds{
    {"flat", StrokeEnd::Flat}, {"round", StrokeEnd::Round}, {"square", StrokeEnd::Square}};
constexpr std::initializer_list<std::pair<const char*, StrokeJoint>> kJoints{{"pointed", StrokeJoint::Pointed},
                                                                             {"round", StrokeJoint::Round}};

template <typename Enum>
const char* word_of(Enum value, std::initializer_list<std::pair<const char*, Enum>> words) {
  for (const auto& [name, known] : words) {
    if (known == value) return name;
  }
  return "";
}

PlainShape read_shape(const JsonView& v) {
  PlainShape s;
  s.kind = choice(v, "form", s.kind, kShapes);
  s.shares_of = v.text_or("sharesOf", "");
  const double least = s.shares_of.empty() ? 0.1 : 1e-6;
  s.width = v.number("width", least, 20'000);
  s.height = v.number_or("height", s.height, least, 20'000);
  s.corner_radius = v.number_or("cornerRadius", 0, 0, 20'000);
  s.band = v.number_or("band", 0, 0, 10'000);
  s.corner_form = choice(v, "cornerForm", s.corner_form, kCornerForms);
  s.points = static_cast<int>(v.number_or("points", s.points, 3, 200));
  s.inner = v.number_or("inner", s.inner, 0.05, 0.98);
  s.rise = v.number_or("rise", s.rise, s.shares_of.empty() ? 0.05 : 1e-6, 20'000);
  return s;
}

Json write_shape(const PlainShape& s) {
  Json j{{"form", word_of(s.kind, kShapes)},
         {"width", s.width},
         {"height", s.height},
         {"cornerRadius", s.corner_radius},
         {"band", s.band}};
  if (s.corner_form != CornerForm::Round) j["cornerForm"] = word_of(s.corner_form, kCornerForms);
  const PlainShape usual;
  if (s.kind == ShapeKind::Polygon || s.kind == ShapeKind::Star || s.points != usual.points) j["points"] = s.points;
  if (s.kind == ShapeKind::Star || s.inner != usual.inner) j["inner"] = s.inner;
  if (s.kind == ShapeKind::ArchTop || s.rise != usual.rise) j["rise"] = s.rise;
  if (!s.shares_of.empty()) j["sharesOf"] = s.shares_of;
  return j;
}

Derived read_derived(const JsonView& v) {
  Derived d;
  d.how = choice(v, "how", d.how, kHows);
  for (const Json& id : v.array("from", 500)) {
    if (!id.is_string()) throw v.wrong("from", "a list of piece ids was expected");
    d.from.push_back(id.get<std::string>());
  }
  d.distance = v.number_or("distance", d.distance, -5000, 5000);
  d.corner = choice(v, "corner", d.corner, kCorners);
  d.steps = static_cast<int>(v.number_or("steps", d.steps, 1, 50));
  d.band = v.number_or("band", d.band, 0, 5000);
  d.columns = static_cast<int>(v.number_or("columns", d.columns, 1, 500));
  d.rows = static_cast<int>(v.number_or("rows", d.rows, 1, 500));
  d.step_x = v.number_or("stepX", d.step_x, -kFar, kFar);
  d.step_y = v.number_or("stepY", d.step_y, -kFar, kFar);
  d.count = static_cast<int>(v.number_or("count", d.count, 0, 2000));
  d.radius = v.number_or("radius", d.radius, -kFar, kFar);
  d.turned = v.flag_or("turned", d.turned);
  d.angle = v.number_or("angle", d.angle, -3600, 3600);
  d.share = v.number_or("share", d.share, 0, 1);
  d.first_side = v.flag_or("firstSide", d.first_side);
  d.bridge = v.number_or("bridge", d.bridge, 0.1, 1000);
  for (const Json& entry : v.array("bridges", 2000)) {
    const JsonView b(entry, v.where() + ".bridges");
    d.bridges.push_back({{b.number("fromX", -kFar, kFar), b.number("fromY", -kFar, kFar)},
                         {b.number("toX", -kFar, kFar), b.number("toY", -kFar, kFar)}});
  }
  return d;
}

Json write_derived(const Derived& d) {
  Json j{{"how", word_of(d.how, kHows)},
         {"from", d.from},
         {"distance", d.distance},
         {"corner", word_of(d.corner, kCorners)},
         {"steps", d.steps},
         {"band", d.band},
         {"columns", d.columns},
         {"rows", d.rows},
         {"stepX", d.step_x},
         {"stepY", d.step_y},
         {"count", d.count},
         {"radius", d.radius},
         {"turned", d.turned},
         {"angle", d.angle},
         {"share", d.share},
         {"firstSide", d.first_side}};
  if (d.how == How::Link || d.bridge != Derived{}.bridge || !d.bridges.empty()) {
    j["bridge"] = d.bridge;
    j["bridges"] = Json::array();
    for (const Derived::Bridge& b : d.bridges)
      j["bridges"].push_back({{"fromX", b.from.x}, {"fromY", b.from.y}, {"toX", b.to.x}, {"toY", b.to.y}});
  }
  return j;
}

TracedFrom read_traced(const JsonView& v) {
  TracedFrom t;
  t.png = v.text("png");
  if (t.png.size() > (80u << 20)) throw v.wrong("png", "at most 80 MB were expected");
  from_base64(t.png);
  TraceSettings& s = t.settings;
  s.automatic = v.flag_or("automatic", s.automatic);
  s.cut = v.number_or("cut", s.cut, 0, 255);
  s.uneven = v.flag_or("uneven", s.uneven);
  s.invert = v.flag_or("invert", s.invert);
  s.colours = static_cast<int>(v.number_or("colours", s.colours, 0, 12));
  for (const Json& c : v.array("picked", 12)) {
    if (!c.is_number_integer()) throw v.wrong("picked", "a list of whole numbers was expected");
    s.picked.push_back(c.get<int>());
  }
  s.specks = v.number_or("specks", s.specks, 0, 1e6);
  s.holes = v.number_or("holes", s.holes, 0, 1e6);
  s.smoothness = v.number_or("smoothness", s.smoothness, 0, 20);
  s.corners = v.number_or("corners", s.corners, 0, 1);
  s.straighten = v.number_or("straighten", s.straighten, -180, 180);
  s.crop_left = v.number_or("cropLeft", 0, 0, 0.95);
  s.crop_top = v.number_or("cropTop", 0, 0, 0.95);
  s.crop_right = v.number_or("cropRight", 0, 0, 0.95);
  s.crop_bottom = v.number_or("cropBottom", 0, 0, 0.95);
  return t;
}

Json write_traced(const TracedFrom& t) {
  const TraceSettings& s = t.settings;
  return {{"automatic", s.automatic},    {"cut", s.cut},
          {"uneven", s.uneven},          {"invert", s.invert},
          {"colours", s.colours},        {"picked", s.picked},
          {"specks", s.specks},          {"holes", s.holes},
          {"smoothness", s.smoothness},  {"corners", s.corners},
          {"straighten", s.straighten},  {"cropLeft", s.crop_left},
          {"cropTop", s.crop_top},       {"cropRight", s.crop_right},
          {"cropBottom", s.crop_bottom}, {"png", t.png}};
}

std::vector<Drawing::Part> read_parts(const JsonView& v, const char* key) {
  std::vector<Drawing::Part> parts;
  std::size_t i = 0;
  for (const Json& entry : v.array(key, kMostParts)) {
    const JsonView p(entry, v.where() + "." + key + "[" + std::to_string(i++) + "]");
    Drawing::Part part;
    part.id = p.text_or("id", "");
    part.group = p.text_or("group", "");
    part.data = p.text("d");
    part.even_odd = p.text_or("rule", "nonzero") == "evenodd";
    part.line = p.flag_or("line", false);
    part.stroke = p.number_or("stroke", 0, 0, 10'000);
    part.end = choice(p, "end", part.end, kEnds);
    part.joint = choice(p, "joint", part.joint, kJoints);
    part.left_out = p.flag_or("leftOut", false);
    try {
      const Path path = parse_path(part.data);
      for (const PathStep& s : path.steps) {
        if (std::abs(s.to.x) > kFarthest || std::abs(s.to.y) > kFarthest)
          throw bad_input("a point lies more than 100 m away.");
      }
    } catch (const Problem& problem) {
      throw bad_input(p.where() + ".d: " + problem.what());
    }
    parts.push_back(std::move(part));
  }
  return parts;
}

Drawing read_drawing(const JsonView& v) {
  Drawing d;
  d.name = v.text_or("name", "drawing");
  d.page_width = v.number_or("pageWidth", 0, 0, kFar);
  d.page_height = v.number_or("pageHeight", 0, 0, kFar);
  d.scale = v.number_or("scale", 1, 1e-6, 1e6);
  d.mirrored = v.flag_or("mirrored", false);
  d.follow_lines = v.flag_or("followLines", false);
  d.hairline = v.number_or("hairline", d.hairline, 0.01, 1000);
  if (v.has("traced")) d.traced = read_traced(v.object("traced"));
  d.thicken = v.number_or("thicken", 0, 0, 1000);
  d.parts = read_parts(v, "parts");
  d.original = read_parts(v, "original");
  if (d.parts.empty()) throw v.wrong("parts", "at least one part was expected");
  return d;
}

Json write_parts(const std::vector<Drawing::Part>& list) {
  Json parts = Json::array();
  for (const Drawing::Part& p : list) {
    Json part{{"id", p.id}, {"group", p.group}};
    if (p.line) {
      part["line"] = true;
      part["stroke"] = p.stroke;
      part["end"] = word_of(p.end, kEnds);
      part["joint"] = word_of(p.joint, kJoints);
    } else {
      part["rule"] = p.even_odd ? "evenodd" : "nonzero";
    }
    if (p.left_out) part["leftOut"] = true;
    part["d"] = p.data;
    parts.push_back(std::move(part));
  }
  return parts;
}

Json write_drawing(const Drawing& d) {
  Json parts = write_parts(d.parts);
  Json j{{"name", d.name},
         {"pageWidth", d.page_width},
         {"pageHeight", d.page_height},
         {"scale", d.scale},
         {"mirrored", d.mirrored}};
  const Drawing usual;
  if (std::any_of(d.parts.begin(), d.parts.end(), [](const Drawing::Part& p) { return p.line; }) ||
      d.follow_lines != usual.follow_lines || d.hairline != usual.hairline) {
    j["followLines"] = d.follow_lines;
    j["hairline"] = d.hairline;
  }
  j["parts"] = std::move(parts);
  if (d.thicken > 0) j["thicken"] = d.thicken;
  if (d.traced) j["traced"] = write_traced(*d.traced);
  if (!d.original.empty()) j["original"] = write_parts(d.original);
  return j;
}

using Way = Moves::Way;
using Entry = Moves::Entry;
constexpr std::initializer_list<std::pair<const char*, Way>> kWays{
    {"rings", Way::Rings}, {"alongGrain", Way::AlongGrain}, {"acrossGrain", Way::AcrossGrain}};
constexpr std::initializer_list<std::pair<const char*, Entry>> kEntries{{"ramp", Entry::Ramp}, {"helix", Entry::Helix}};

Moves read_moves(const JsonView& v) {
  Moves m;
  m.way = choice(v, "way", m.way, kWays);
  m.entry = choice(v, "entry", m.entry, kEntries);
  m.climb = v.flag_or("climb", m.climb);
  m.stepover = v.number_or("stepover", m.stepover, 0.05, 0.95);
  m.leave_on = v.number_or("leaveOn", 0, 0, 10);
  return m;
}

Json write_moves(const Moves& m) {
  return {{"way", word_of(m.way, kWays)},
          {"entry", word_of(m.entry, kEntries)},
          {"climb", m.climb},
          {"stepover", m.stepover},
          {"leaveOn", m.leave_on}};
}

// Looks that are asked how deep they go.
bool has_depth(Treatment::Kind kind) {
  using Kind = Treatment::Kind;
  return makes_ground(kind) || kind == Kind::Line || kind == Kind::Bevel || kind == Kind::Drill ||
         kind == Kind::HangerSlot || kind == Kind::Inlay || kind == Kind::Plug;
}

Treatment read_treatment(const JsonView& v) {
  Treatment t;
  using Kind = Treatment::Kind;
  t.kind = choice(v, "look", Kind::None,
                  {{"none", Kind::None},
                   {"incise", Kind::Incise},
                   {"cutout", Kind::CutOut},
                   {"line", Kind::Line},
                   {"raise", Kind::Raise},
                   {"recess", Kind::Recess},
                   {"pierce", Kind::Pierce},
                   {"bevel", Kind::Bevel},
                   {"drill", Kind::Drill},
                   {"plane", Kind::Plane},
                   {"hangerSlot", Kind::HangerSlot},
                   {"inlay", Kind::Inlay},
                   {"plug", Kind::Plug}});
  if (v.has("depth")) t.depth = v.number("depth", has_depth(t.kind) ? 0.01 : 0, 1000);
  t.bit = v.text_or("bit", t.bit);
  if (v.has("floorLimit")) t.floor_limit = v.number("floorLimit", 0.01, 1000);
  for (const Json& bit : v.array("clearing", 20)) {
    if (!bit.is_string()) throw v.wrong("clearing", "a list of bit ids was expected");
    t.clearing.push_back(bit.get<std::string>());
  }
  if (v.has("ground")) t.ground = v.number("ground", 0, 1000);
  t.panel = v.text_or("panel", "");
  t.margin = v.number_or("panelMargin", t.margin, 0.1, 5000);
  t.sloped = v.flag_or("sloped", t.sloped);
  t.slug = v.flag_or("slug", t.slug);
  t.inside = v.flag_or("inside", t.inside);
  t.peck = v.number_or("peck", 0, 0, 500);
  t.spacing = v.number_or("spacing", 0, 0, 5000);
  if (v.has("insert")) {
    const JsonView i = v.object("insert");
    t.insert.thickness = i.number("thickness", 0, 500);
    t.insert.clearance = i.number_or("clearance", t.insert.clearance, 0, 50);
    t.insert.cover = i.number_or("cover", 0, 0, 500);
    t.insert.notch = i.number_or("notch", 0, 0, 500);
    t.insert.corners =
        choice(i, "corners", Insert::Corners::Plain,
               {{"plain", Insert::Corners::Plain}, {"round", Insert::Corners::Round}, {"slot", Insert::Corners::Slot}});
    t.insert.cut = i.flag_or("cut", false);
    t.insert.material = i.text_or("material", t.insert.material);
  }
  t.resin = v.flag_or("resin", false);
  t.v_alone = v.flag_or("vAlone", false);
  t.steps = static_cast<int>(v.number_or("steps", 1, 1, 20));
  t.terrace = v.number_or("terrace", t.terrace, 0, 1000);
  t.hatch = v.number_or("hatch", 0, 0, 1000);
  t.hatch_angle = v.number_or("hatchAngle", t.hatch_angle, -360, 360);
  t.slot_length = v.number_or("slotLength", t.slot_length, 0.5, 500);
  t.skin = v.number_or("skin", 0, 0, 100);
  t.taped = v.flag_or("taped", false);
  t.back = v.flag_or("back", false);
  if (v.has("inlay")) {
    const JsonView i = v.object("inlay");
    t.inlay.sloped = i.flag_or("sloped", t.inlay.sloped);
    t.inlay.contact = i.number_or("contact", t.inlay.contact, 0.05, 200);
    t.inlay.saw_gap = i.number_or("sawGap", t.inlay.saw_gap, 0, 100);
    t.inlay.allowance = i.number_or("allowance", t.inlay.allowance, 0, 5);
    t.inlay.ease = i.number_or("ease", 0, 0, 20);
    t.inlay.wood = i.text_or("wood", t.inlay.wood);
    t.inlay.thickness = i.number_or("thickness", t.inlay.thickness, 0.5, 300);
    t.inlay.crossed = i.flag_or("crossed", false);
    t.inlay.moisture = i.number_or("moisture", t.inlay.moisture, 0, 30);
    if (i.has("rung")) t.inlay.rung = i.number("rung", -50, 50);
  }
  if (v.has("moves")) t.moves = read_moves(v.object("moves"));
  if (v.has("overCut")) t.over_cut = v.number("overCut", 0, 100);
  if (v.has("tabs")) {
    const JsonView tabs = v.object("tabs");
    t.tabs.wanted = tabs.flag_or("wanted", true);
    t.tabs.count = static_cast<int>(tabs.number_or("count", 4, 2, 60));
    t.tabs.length = tabs.number_or("length", t.tabs.length, 0.5, 500);
    t.tabs.height = tabs.number_or("height", t.tabs.height, 0.1, 200);
    for (const Json& entry : tabs.array("placed", 500)) {
      const JsonView p(entry, tabs.where() + ".placed");
      t.tabs.placed.push_back({static_cast<int>(p.number_or("island", 0, 0, 1e6)), p.number("along", 0, 1)});
    }
  }
  return t;
}

Json write_treatment(const Treatment& t) {
  Json j{{"look", to_word(t.kind)}, {"bit", t.bit}};
  using Kind = Treatment::Kind;
  // What another look needs is kept, too, where somebody chose it: whoever changes his mind finds it again.
  const Treatment usual;
  if (has_depth(t.kind) || t.depth != usual.depth) j["depth"] = t.depth;
  if (t.ground) j["ground"] = *t.ground;
  if (!t.panel.empty()) j["panel"] = t.panel;
  if (t.kind == Kind::Raise || t.kind == Kind::Plug || t.margin != usual.margin) j["panelMargin"] = t.margin;
  if (t.kind == Kind::Raise || t.sloped != usual.sloped) j["sloped"] = t.sloped;
  if (t.steps != usual.steps || t.terrace != usual.terrace) {
    j["steps"] = t.steps;
    j["terrace"] = t.terrace;
  }
  if (t.hatch != usual.hatch || t.hatch_angle != usual.hatch_angle) {
    j["hatch"] = t.hatch;
    j["hatchAngle"] = t.hatch_angle;
  }
  if (t.kind == Kind::HangerSlot || t.slot_length != usual.slot_length) j["slotLength"] = t.slot_length;
  if (t.kind == Kind::Inlay || t.kind == Kind::Plug || !(t.inlay == usual.inlay)) {
    j["inlay"] = {{"sloped", t.inlay.sloped},       {"contact", t.inlay.contact}, {"sawGap", t.inlay.saw_gap},
                  {"allowance", t.inlay.allowance}, {"ease", t.inlay.ease},       {"wood", t.inlay.wood},
                  {"thickness", t.inlay.thickness}, {"crossed", t.inlay.crossed}, {"moisture", t.inlay.moisture}};
    if (t.inlay.rung) j["inlay"]["rung"] = *t.inlay.rung;
  }
  if (t.resin) j["resin"] = true;
  if (t.v_alone) j["vAlone"] = true;
  if (t.skin > 0) j["skin"] = t.skin;
  if (t.taped) j["taped"] = true;
  if (t.back) j["back"] = true;
  if (!(t.moves == Moves{})) j["moves"] = write_moves(t.moves);
  if (t.kind == Kind::Pierce || t.slug) j["slug"] = t.slug;
  if (t.kind == Kind::Bevel || t.inside) j["inside"] = t.inside;
  if (t.peck > 0) j["peck"] = t.peck;
  if (t.spacing > 0) j["spacing"] = t.spacing;
  if (!(t.insert == usual.insert)) {
    static constexpr const char* kCornerWords[] = {"plain", "round", "slot"};
    j["insert"] = {{"thickness", t.insert.thickness},
                   {"clearance", t.insert.clearance},
                   {"cover", t.insert.cover},
                   {"notch", t.insert.notch},
                   {"corners", kCornerWords[static_cast<int>(t.insert.corners)]}};
    if (t.insert.cut) j["insert"]["cut"] = true;
    if (t.insert.cut || t.insert.material != usual.insert.material) j["insert"]["material"] = t.insert.material;
  }
  if (t.floor_limit) j["floorLimit"] = *t.floor_limit;
  if (!t.clearing.empty()) j["clearing"] = t.clearing;
  if (t.over_cut) j["overCut"] = *t.over_cut;
  if (goes_through(t.kind) || !(t.tabs == usual.tabs)) {
    Json placed = Json::array();
    for (const TabPlace& p : t.tabs.placed) placed.push_back({{"island", p.island}, {"along", p.along}});
    j["tabs"] = {{"wanted", t.tabs.wanted},
                 {"count", t.tabs.count},
                 {"length", t.tabs.length},
                 {"height", t.tabs.height},
                 {"placed", placed}};
  }
  return j;
}

Item read_item(const JsonView& v) {
  Item item;
  item.piece.id = v.text("id");
  item.piece.name = v.text_or("name", item.piece.id);
  item.piece.at = {v.number_or("x", 0, -kFar, kFar), v.number_or("y", 0, -kFar, kFar)};
  item.piece.turn = v.number_or("turn", 0, -3600, 3600);
  const int kinds = v.has("lettering") + v.has("shape") + v.has("drawing") + v.has("madeFrom");
  if (kinds != 1) throw bad_input(v.where() + ": one of lettering, shape, drawing or madeFrom was expected.");
  if (v.has("lettering")) item.piece.what = read_lettering(v.object("lettering"));
  if (v.has("shape")) item.piece.what = read_shape(v.object("shape"));
  if (v.has("drawing")) item.piece.what = read_drawing(v.object("drawing"));
  if (v.has("madeFrom")) item.piece.what = read_derived(v.object("madeFrom"));
  if (v.has("cut")) item.cut = read_treatment(v.object("cut"));
  return item;
}

Json write_item(const Item& item) {
  const Piece& p = item.piece;
  Json j{{"id", p.id}, {"name", p.name}, {"x", p.at.x}, {"y", p.at.y}, {"turn", p.turn}};
  if (const auto* l = std::get_if<Lettering>(&p.what)) j["lettering"] = write_lettering(*l);
  if (const auto* s = std::get_if<PlainShape>(&p.what)) j["shape"] = write_shape(*s);
  if (const auto* d = std::get_if<Drawing>(&p.what)) j["drawing"] = write_drawing(*d);
  if (const auto* d = std::get_if<Derived>(&p.what)) j["madeFrom"] = write_derived(*d);
  j["cut"] = write_treatment(item.cut);
  return j;
}

RunSettings read_run(const JsonView& v) {
  RunSettings r;
  r.machine = v.text_or("machine", r.machine);
  r.one_file = v.flag_or("oneFile", false);
  r.zero_surface =
      choice(v, "zeroSurface", ZeroSurface::Face, {{"face", ZeroSurface::Face}, {"bed", ZeroSurface::Bed}});
  r.zero_place = choice(v, "zeroPlace", ZeroPlace::LeftFront,
                        {{"leftFront", ZeroPlace::LeftFront}, {"centre", ZeroPlace::Centre}});
  r.least_wood = v.number_or("leastWood", r.least_wood, 0, 500);
  r.holding = v.text_or("holding", r.holding);
  r.turn = choice(v, "turnOver", r.turn, {{"leftEdge", TurnOver::LeftEdge}, {"frontEdge", TurnOver::FrontEdge}});
  r.low_travel = v.flag_or("lowTravel", r.low_travel);
  if (v.has("accepted")) {
    for (const Json& entry : v.array("accepted", 1000)) {
      if (!entry.is_string()) throw v.wrong("accepted", "a list of names was expected");
      r.accepted.push_back(entry.get<std::string>());
    }
  }
  r.cut_out_last = v.flag_or("cutOutLast", r.cut_out_last);
  r.keep_zero = choice(v, "keepZero", r.keep_zero,
                       {{"corner", KeepZero::Corner}, {"marks", KeepZero::Marks}, {"pins", KeepZero::Pins}});
  if (v.has("millLevel")) r.mill_level = v.number("millLevel", 0.1, 200);
  r.zero_below = v.number_or("zeroBelow", 0, 0, 500);
  if (v.has("feeds")) {
    const JsonView feeds = v.object("feeds");
    if (feeds.json().size() > 500) throw v.wrong("feeds", "at most 500 bits were expected");
    for (const auto& [bit, entry] : feeds.json().items()) {
      const JsonView f(entry, feeds.where() + "." + bit);
      r.feeds[bit] = {f.number("feed", 1, kMostFeed), f.number("plunge", 1, kMostFeed), f.number("rpm", 100, 100000),
                      f.number_or("depthPerPass", 0, 0, 100)};
    }
  }
  for (const Json& bit : v.array("order", 500)) {
    if (!bit.is_string()) throw v.wrong("order", "a list of bit ids was expected");
    r.order.push_back(bit.get<std::string>());
  }
  return r;
}

constexpr const char* kFormat = "doyen-job/1";

// Keys that Doyen knows but leaves out when they say nothing: their absence after saving is meant.
const std::set<std::string>& optional_keys() {
  static const std::set<std::string> kKeys{
      "keepOuts",    "fitWidth",   "kept",     "floorLimit",   "clearing",
      "overCut",     "tabs",       "pairs",    "arcRadius",    "arcBelow",
      "along",       "alongStart", "inside",   "insideMargin", "insideMarginIsShare",
      "stroke",      "cornerForm", "points",   "inner",        "rise",
      "followLines", "hairline",   "traced",   "line",         "end",
      "joint",       "leftOut",    "depth",    "rule",         "thicken",
      "original",    "bridge",     "bridges",  "form",         "edge",
      "sharesOf",    "ground",     "panel",    "panelMargin",  "sloped",
      "slug",        "inside",     "peck",     "spacing",      "insert",
      "steps",       "terrace",    "hatch",    "hatchAngle",   "slotLength",
      "skin",        "taped",      "back",     "moves",        "turnOver",
      "lowTravel",   "feeds",      "order",    "inlay",        "resin",
      "rung",        "cut",        "material", "cutOutLast",   "keepZero",
      "millLevel",   "zeroBelow",  "vAlone",   "width",        "accepted"};
  return kKeys;
}

std::string id_of(const Json& piece) {
  return piece.is_object() && piece.contains("id") && piece["id"].is_string() ? piece["id"].get<std::string>() : "";
}

// What stands in `source` and not in `written`: the keys of a newer Doyen, or of the user's own. Pieces go by their id.
Json collect_unknown(const Json& source, const Json& written) {
  Json left = Json::object();
  for (const auto& [key, value] : source.items()) {
    if (!written.contains(key)) {
      if (!optional_keys().contains(key)) left[key] = value;
    } else if (value.is_object() && written[key].is_object()) {
      if (Json inner = collect_unknown(value, written[key]); !inner.empty()) left[key] = std::move(inner);
    } else if (key == "pieces" && value.is_array()) {
      Json by_id = Json::object();
      for (std::size_t i = 0; i < value.size() && i < written[key].size(); ++i) {
        if (Json inner = collect_unknown(value[i], written[key][i]); !inner.empty())
          by_id[id_of(value[i])] = std::move(inner);
      }
      if (!by_id.empty()) left[key] = std::move(by_id);
    }
  }
  return left;
}

void restore_unknown(Json& target, const Json& left) {
  for (const auto& [key, value] : left.items()) {
    if (!target.contains(key)) {
      target[key] = value;
    } else if (target[key].is_object() && value.is_object()) {
      restore_unknown(target[key], value);
    } else if (key == "pieces" && target[key].is_array() && value.is_object()) {
      for (Json& piece : target[key]) {
        if (value.contains(id_of(piece))) restore_unknown(piece, value[id_of(piece)]);
      }
    }
  }
}

}  // namespace

namespace {
Json job_json_of_run(const RunSettings& r) {
  Json j{{"machine", r.machine},
         {"oneFile", r.one_file},
         {"zeroSurface", r.zero_surface == ZeroSurface::Face ? "face" : "bed"},
         {"zeroPlace", r.zero_place == ZeroPlace::LeftFront ? "leftFront" : "centre"},
         {"leastWood", r.least_wood},
         {"holding", r.holding}};
  if (r.turn == TurnOver::FrontEdge) j["turnOver"] = "frontEdge";
  if (!r.low_travel) j["lowTravel"] = false;
  if (!r.accepted.empty()) j["accepted"] = r.accepted;
  if (!r.cut_out_last) j["cutOutLast"] = false;
  if (r.keep_zero != KeepZero::Corner) j["keepZero"] = r.keep_zero == KeepZero::Marks ? "marks" : "pins";
  if (r.mill_level) j["millLevel"] = *r.mill_level;
  if (r.zero_below > 0) j["zeroBelow"] = r.zero_below;
  for (const auto& [bit, f] : r.feeds)
    j["feeds"][bit] = {{"feed", f.feed}, {"plunge", f.plunge}, {"rpm", f.rpm}, {"depthPerPass", f.depth_per_pass}};
  if (!r.order.empty()) j["order"] = r.order;
  return j;
}

Json job_json(const Job& job) {
  Json pieces = Json::array();
  for (const Item& item : job.items) pieces.push_back(write_item(item));
  Json j{{"format", kFormat},
         {"name", job.name},
         {"lengths",
          {{"unit", unit_name(job.lengths.unit)},
           {"fractions", job.lengths.fractions},
           {"denominator", job.lengths.denominator}}},
         {"blank", write_blank(job.blank)},
         {"pieces", std::move(pieces)},
         {"run", job_json_of_run(job.run)}};
  return j;
}
}  // namespace

double usual_least_wood(const Blank& blank) { return std::min(3.0, blank.thinnest() / 4); }

void Job::shift(const std::string& id, Point by) {
  if (Item* item = find(id)) shift_piece(item->piece, by, source());
}

const Item* Job::find(const std::string& id) const {
  const auto it = std::find_if(items.begin(), items.end(), [&](const Item& i) { return i.piece.id == id; });
  return it == items.end() ? nullptr : &*it;
}

bool Job::has_back() const {
  return std::any_of(items.begin(), items.end(),
                     [](const Item& i) { return i.cut.back && i.cut.kind != Treatment::Kind::None; });
}

Outlines Job::outlines(const Item& item) const {
  Outlines out = outlines_of(item.piece, source());
  if (!item.cut.back || item.cut.kind == Treatment::Kind::None || item.cut.kind == Treatment::Kind::HangerSlot)
    return out;
  const Point middle = bounds(out).centre();
  // Whoever reads the back walks round the sign: up stays up, whichever edge the board is turned over about for
  // cutting.
  const Transform mirror{-1, 0, 0, 1, 2 * middle.x, 0};
  out.region = transformed(out.region, mirror);
  for (Line2& line : out.lines) {
    for (Point& p : line) p = mirror.apply(p);
  }
  for (LetterMark& letter : out.letters) {
    const Point a = mirror.apply({letter.box.left, letter.box.bottom}),
                b = mirror.apply({letter.box.right, letter.box.top});
    letter.box = {std::min(a.x, b.x), std::min(a.y, b.y), std::max(a.x, b.x), std::max(a.y, b.y)};
  }
  return out;
}

PieceSource Job::source() const {
  return [this](const std::string& id) -> const Piece* {
    const Item* item = find(id);
    return item == nullptr ? nullptr : &item->piece;
  };
}

std::vector<const Piece*> Job::with_sources(const Piece& piece) const {
  std::vector<const Piece*> all{&piece};
  for (std::size_t i = 0; i < all.size() && all.size() < 1000; ++i) {
    for (const std::string& id : sources_of(*all[i])) {
      const Item* item = find(id);
      if (item != nullptr && std::find(all.begin(), all.end(), &item->piece) == all.end()) all.push_back(&item->piece);
    }
  }
  return all;
}

bool Job::is_source(const std::string& id) const {
  return std::any_of(items.begin(), items.end(), [&](const Item& item) {
    const std::vector<std::string> from = sources_of(item.piece);
    return std::find(from.begin(), from.end(), id) != from.end();
  });
}

Item* Job::find(const std::string& id) { return const_cast<Item*>(std::as_const(*this).find(id)); }

std::string Job::fresh_id(const std::string& stem) const {
  for (int i = 1;; ++i) {
    std::string id = stem + "-" + std::to_string(i);
    if (find(id) == nullptr) return id;
  }
}

Job read_job(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  const JsonView v(document, where);
  const std::string format = v.text("format");
  if (format != kFormat) {
    if (format.starts_with("doyen-job/")) {
      throw bad_input(where + ": this job was written by a newer Doyen (“" + format +
                      "”); this one reads “doyen-job/1”.");
    }
    throw bad_input(where + ".format: “doyen-job/1” was expected; this is not a Doyen job.");
  }
  Job job;
  job.name = v.text_or("name", job.name);
  if (v.has("lengths")) {
    const JsonView l = v.object("lengths");
    job.lengths.unit = choice(l, "unit", Unit::Millimetre, {{"mm", Unit::Millimetre}, {"in", Unit::Inch}});
    job.lengths.fractions = l.flag_or("fractions", false);
    job.lengths.denominator = static_cast<int>(l.number_or("denominator", 64, 2, 128));
  }
  job.blank = read_blank(v.object("blank"));
  std::set<std::string> ids;
  std::size_t i = 0;
  for (const Json& entry : v.array("pieces", kMostPieces)) {
    const JsonView item(entry, where + ".pieces[" + std::to_string(i++) + "]");
    job.items.push_back(read_item(item));
    if (!ids.insert(job.items.back().piece.id).second) throw item.wrong("id", "every piece needs an id of its own");
  }
  if (v.has("run")) job.run = read_run(v.object("run"));
  job.unknown = collect_unknown(document, job_json(job));
  return job;
}

std::string write_job(const Job& job) {
  Json j = job_json(job);
  restore_unknown(j, job.unknown);
  // Text that is not UTF-8 (a name pasted from an old file) is replaced, never a reason to lose the job.
  return j.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Job load_job(const std::string& path) { return read_job(read_file(path), path); }

namespace {
[[noreturn]] void refuse_to_keep(const Problem& problem) {
  throw bad_input("That would be more than a job can hold. " + std::string(problem.what()));
}
}  // namespace

void check_job(const Job& job, const Job& before) {
  try {
    if (job.items.size() > kMostPieces)
      throw bad_input("At most " + std::to_string(kMostPieces) + " pieces were expected.");
    if (!(job.blank == before.blank)) {
      const Json blank = write_blank(job.blank);
      (void)read_blank({blank, "blank"});
    }
    if (!(job.run == before.run)) {
      const Json run = job_json_of_run(job.run);
      (void)read_run({run, "run"});
    }
    for (std::size_t i = 0; i < job.items.size(); ++i) {
      const Item& item = job.items[i];
      const Item* was = i < before.items.size() && before.items[i].piece.id == item.piece.id
                            ? &before.items[i]
                            : before.find(item.piece.id);
      if (was != nullptr && *was == item) continue;
      // Large art that only moved is not gone through again.
      Item looked_at = item;
      if (was != nullptr && was->piece.what == item.piece.what) looked_at.piece.what = PlainShape{};
      const Json json = write_item(looked_at);
      (void)read_item({json, item.piece.name.empty() ? item.piece.id : item.piece.name});
    }
  } catch (const Problem& problem) {
    refuse_to_keep(problem);
  }
}

std::string job_text(const Job& job) {
  Job kept = job;
  for (Item& item : kept.items) {
    try {
      keep_outlines(item.piece);
    } catch (const Problem&) {
      // A piece that cannot be set right now is still saved as it stands.
    }
  }
  std::string text = write_job(kept);
  // What could not be read again is not kept: the file that stands, and the job in hand, are worth more.
  try {
    (void)read_job(text, "This job");
  } catch (const Problem& problem) {
    refuse_to_keep(problem);
  }
  return text;
}

void save_job(const Job& job, const std::string& path) { write_file_atomically(path, job_text(job)); }

}  // namespace doyen
