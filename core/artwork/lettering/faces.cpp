#include "artwork/lettering/faces.hpp"

#include <fontconfig/fontconfig.h>
#include <ft2build.h>
#include FT_FREETYPE_H
#include FT_OUTLINE_H
#include FT_TRUETYPE_TABLES_H
#include <hb-ft.h>
#include <hb-ot.h>
#include <hb.h>

#include <algorithm>
#include <map>
#include <memory>
#include <mutex>
#include <set>

#include "json_reading.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostLetters = 20'000;

FcConfig* fontconfig() {
  static FcConfig* config = FcInitLoadConfigAndFonts();
  return config;
}

std::string text_of(FcPattern* pattern, const char* key, int which = 0) {
  FcChar8* value = nullptr;
  if (FcPatternGetString(pattern, key, which, &value) != FcResultMatch) return {};
  return reinterpret_cast<const char*>(value);
}

struct FaceFile {
  std::string path;
  int index = 0;
  bool letters = true;
};

// Every scalable face by family and style; built once.
const std::map<std::pair<std::string, std::string>, FaceFile>& face_files() {
  static const auto files = [] {
    std::map<std::pair<std::string, std::string>, FaceFile> found;
    FcPattern* all = FcPatternBuild(nullptr, FC_SCALABLE, FcTypeBool, FcTrue, nullptr);
    FcObjectSet* keys =
        FcObjectSetBuild(FC_FAMILY, FC_STYLE, FC_FILE, FC_INDEX, FC_VARIABLE, FC_FONTFORMAT, FC_CHARSET, nullptr);
    FcFontSet* set = FcFontList(fontconfig(), all, keys);
    for (int i = 0; set != nullptr && i < set->nfont; ++i) {
      FcBool variable = FcFalse;
      if (FcPatternGetBool(set->fonts[i], FC_VARIABLE, 0, &variable) == FcResultMatch && variable) continue;
      // Others, such as Type 1, have no tables to be set from.
      const std::string format = text_of(set->fonts[i], FC_FONTFORMAT);
      if (format != "TrueType" && format != "CFF") continue;
      FaceFile file{text_of(set->fonts[i], FC_FILE), 0};
      FcCharSet* characters = nullptr;
      if (FcPatternGetCharSet(set->fonts[i], FC_CHARSET, 0, &characters) == FcResultMatch) {
        const FcChar32 usual[] = {'e', 'E', 0x3B5, 0x435};  // Latin, Greek, Cyrillic
        file.letters = std::any_of(std::begin(usual), std::end(usual),
                                   [&](FcChar32 c) { return FcCharSetHasChar(characters, c) == FcTrue; });
      }
      FcPatternGetInteger(set->fonts[i], FC_INDEX, 0, &file.index);
      // A face may bear several style names, and a family several optical sizes: the last file by name, the largest,
      // wins.
      const std::string family = text_of(set->fonts[i], FC_FAMILY);
      for (int k = 0; k < 8; ++k) {
        const std::string style = text_of(set->fonts[i], FC_STYLE, k);
        if (style.empty() || (k > 0 && std::isdigit(static_cast<unsigned char>(style[0])))) break;
        if (std::isdigit(static_cast<unsigned char>(style[0]))) continue;
        const auto [it, fresh] = found.try_emplace({family, style}, file);
        if (!fresh && file.path > it->second.path) it->second = file;
      }
    }
    if (set != nullptr) FcFontSetDestroy(set);
    FcObjectSetDestroy(keys);
    FcPatternDestroy(all);
    return found;
  }();
  return files;
}

const FaceFile* find_file(const FaceName& face) {
  const auto& files = face_files();
  const auto exact = files.find({face.family, face.style});
  if (exact != files.end()) return &exact->second;
  if (!face.style.empty() && face.style != "Regular") return nullptr;
  // A family without a plain style answers with its first.
  const auto any = files.lower_bound({face.family, ""});
  return any != files.end() && any->first.first == face.family ? &any->second : nullptr;
}

// An opened face; FreeType faces are not for two threads at once, so every use holds the lock.
class OpenFace {
 public:
  OpenFace(const FaceFile& file, const std::string& name) {
    static FT_Library library = [] {
      FT_Library lib = nullptr;
      FT_Init_FreeType(&lib);
      return lib;
    }();
    if (FT_New_Face(library, file.path.c_str(), file.index, &face_) != 0 || !FT_IS_SCALABLE(face_)) {
      throw bad_input(say("The face “{0}” in {1} cannot be read; a TrueType or OpenType outline face was expected.",
                          name, file.path));
    }
    hb_face_t* shaping = hb_ft_face_create_referenced(face_);
    hb_ = hb_font_create(shaping);
    hb_face_destroy(shaping);
    hb_ot_font_set_funcs(hb_);  // advances in font units, straight from the tables
    const auto upem = static_cast<int>(face_->units_per_EM == 0 ? 1000 : face_->units_per_EM);
    hb_font_set_scale(hb_, upem, upem);
    cap_height_ = find_cap_height();
  }
  ~OpenFace() {
    hb_font_destroy(hb_);
    FT_Done_Face(face_);
  }
  OpenFace(const OpenFace&) = delete;
  OpenFace& operator=(const OpenFace&) = delete;

  std::mutex lock;
  [[nodiscard]] FT_Face face() const { return face_; }
  [[nodiscard]] hb_font_t* hb() const { return hb_; }
  [[nodiscard]] double cap_height() const { return cap_height_; }

  // The outline in capitals-are-one units.
  [[nodiscard]] Path outline(hb_codepoint_t glyph) const {
    Path path;
    if (FT_Load_Glyph(face_, glyph, FT_LOAD_NO_SCALE | FT_LOAD_NO_BITMAP) != 0) return path;
    if (face_->glyph->format != FT_GLYPH_FORMAT_OUTLINE) return path;
    struct Collector {
      Path* path;
      double k;
      Point last;
      bool open = false;
      [[nodiscard]] Point at(const FT_Vector* v) const {
        return {static_cast<double>(v->x) * k, static_cast<double>(v->y) * k};
      }
    } collector{&path, 1 / cap_height_, {}};
    FT_Outline_Funcs funcs{};
    funcs.move_to = [](const FT_Vector* to, void* user) {
      auto& c = *static_cast<Collector*>(user);
      if (c.open) c.path->close();
      c.open = true;
      c.path->move(c.last = c.at(to));
      return 0;
    };
    funcs.line_to = [](const FT_Vector* to, void* user) {
      auto& c = *static_cast<Collector*>(user);
      c.path->line(c.last = c.at(to));
      return 0;
    };
    funcs.conic_to = [](const FT_Vector* control, const FT_Vector* to, void* user) {
      auto& c = *static_cast<Collector*>(user);
      c.path->quadratic(c.last, c.at(control), c.at(to));
      c.last = c.at(to);
      return 0;
    };
    funcs.cubic_to = [](const FT_Vector* c1, const FT_Vector* c2, const FT_Vector* to, void* user) {
      auto& c = *static_cast<Collector*>(user);
      c.path->curve(c.at(c1), c.at(c2), c.last = c.at(to));
      return 0;
    };
    FT_Outline_Decompose(&face_->glyph->outline, &funcs, &collector);
    if (collector.open) path.close();
    return path;
  }

 private:
  [[nodiscard]] double find_cap_height() const {
    const auto* os2 = static_cast<const TT_OS2*>(FT_Get_Sfnt_Table(face_, FT_SFNT_OS2));
    // What is measured on the letter beats what the file declares.
    const FT_UInt h = FT_Get_Char_Index(face_, 'H');
    if (h != 0 && FT_Load_Glyph(face_, h, FT_LOAD_NO_SCALE) == 0) {
      FT_BBox box;
      FT_Outline_Get_CBox(&face_->glyph->outline, &box);
      if (box.yMax > 0) return static_cast<double>(box.yMax);
    }
    if (os2 != nullptr && os2->version >= 2 && os2->sCapHeight > 0) return os2->sCapHeight;
    return 0.7 * (face_->units_per_EM == 0 ? 1000 : face_->units_per_EM);
  }

  FT_Face face_ = nullptr;
  hb_font_t* hb_ = nullptr;
  double cap_height_ = 1;
};

OpenFace& open_face(const FaceName& name) {
  static std::mutex lock;
  static std::map<std::pair<std::string, std::string>, std::unique_ptr<OpenFace>> open;
  const std::scoped_lock hold(lock);
  auto& slot = open[{name.family, name.style}];
  if (!slot) {
    const FaceFile* file = find_file(name);
    const std::string shown = name.family + " " + name.style;
    if (file == nullptr) {
      throw bad_input(say("The face “{0}” is not installed on this machine; choose another or install it.", shown));
    }
    slot = std::make_unique<OpenFace>(*file, shown);
  }
  return *slot;
}

}  // namespace

FaceName parse_face(const std::string& text) {
  const auto colon = text.find(':');
  if (colon == std::string::npos) return {text, "Regular"};
  return {text.substr(0, colon), text.substr(colon + 1)};
}

std::vector<InstalledFace> installed_faces() {
  std::set<std::string> chosen;
  const std::string path = data_file("faces.json");
  const Json document = parse_json(read_file(path), path);
  for (const Json& family : JsonView(document, path).array("carveWell", 200)) {
    if (family.is_string()) chosen.insert(family.get<std::string>());
  }
  std::vector<InstalledFace> faces;
  for (const auto& [key, file] : face_files())
    faces.push_back({{key.first, key.second}, chosen.contains(key.first), file.letters});
  return faces;
}

bool face_installed(const FaceName& face) { return find_file(face) != nullptr; }

ShapedLine shape_line(const FaceName& name, const std::string& words) {
  if (words.size() > kMostLetters)
    throw bad_input(say("A line of lettering longer than 20,000 characters cannot be set."));
  OpenFace& face = open_face(name);
  const std::scoped_lock hold(face.lock);
  const std::unique_ptr<hb_buffer_t, decltype(&hb_buffer_destroy)> buffer(hb_buffer_create(), hb_buffer_destroy);
  hb_buffer_add_utf8(buffer.get(), words.data(), static_cast<int>(words.size()), 0, -1);
  hb_buffer_guess_segment_properties(buffer.get());
  hb_shape(face.hb(), buffer.get(), nullptr, 0);
  unsigned count = 0;
  const hb_glyph_info_t* infos = hb_buffer_get_glyph_infos(buffer.get(), &count);
  const hb_glyph_position_t* places = hb_buffer_get_glyph_positions(buffer.get(), &count);
  const double k = 1 / face.cap_height();
  std::set<std::size_t> starts;
  for (unsigned i = 0; i < count; ++i) starts.insert(infos[i].cluster);
  ShapedLine line;
  Point pen;
  for (unsigned i = 0; i < count; ++i) {
    const std::size_t from = infos[i].cluster;
    const auto next = starts.upper_bound(from);
    const std::string text = words.substr(from, (next == starts.end() ? words.size() : *next) - from);
    if (infos[i].codepoint == 0) {
      if (std::find(line.missing.begin(), line.missing.end(), text) == line.missing.end()) line.missing.push_back(text);
    }
    ShapedGlyph glyph;
    glyph.text = text;
    glyph.advance = places[i].x_advance * k;
    glyph.origin = {pen.x + places[i].x_offset * k, pen.y + places[i].y_offset * k};
    if (infos[i].codepoint != 0) glyph.path = face.outline(infos[i].codepoint);
    pen.x += glyph.advance;
    line.glyphs.push_back(std::move(glyph));
  }
  line.advance = pen.x;
  return line;
}

double cap_share(const FaceName& name) {
  OpenFace& face = open_face(name);
  return face.cap_height() / (face.face()->units_per_EM == 0 ? 1000 : face.face()->units_per_EM);
}

double line_pitch(const FaceName& name) {
  OpenFace& face = open_face(name);
  const double height = face.face()->height > 0 ? face.face()->height : 1.2 * face.face()->units_per_EM;
  return height / face.cap_height();
}

}  // namespace doyen
