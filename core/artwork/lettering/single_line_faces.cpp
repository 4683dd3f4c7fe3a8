#include "artwork/lettering/single_line_faces.hpp"

extern "C" {
#include <hersheyfont.h>
}

#include <algorithm>
#include <array>
#include <map>
#include <memory>
#include <mutex>

#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

struct Entry {
  const char* family;
  const char* file;
};
// The last two letters of the files' names say how often each stroke is drawn; only what engraves well is listed.
constexpr std::array kFaces{Entry{"Single line plain", "futural"},
                            Entry{"Single line roman", "rowmans"},
                            Entry{"Single line roman, doubled", "rowmand"},
                            Entry{"Single line roman, tripled", "rowmant"},
                            Entry{"Single line bold", "futuram"},
                            Entry{"Single line times", "timesr"},
                            Entry{"Single line times italic", "timesi"},
                            Entry{"Single line times bold", "timesrb"},
                            Entry{"Single line cursive", "cursive"},
                            Entry{"Single line script", "scripts"},
                            Entry{"Single line script, doubled", "scriptc"},
                            Entry{"Single line black letter", "gothiceng"}};

struct Free {
  void operator()(hershey_font* f) const { hershey_font_free(f); }
};

struct Loaded {
  std::unique_ptr<hershey_font, Free> font;
  double cap = 21, base = -9;  // units: a capital's height, and where it stands
};

const Loaded* load(const std::string& family) {
  static std::mutex lock;
  static std::map<std::string, Loaded> known;
  const std::scoped_lock hold(lock);
  const auto entry = std::find_if(kFaces.begin(), kFaces.end(), [&](const Entry& e) { return family == e.family; });
  if (entry == kFaces.end()) return nullptr;
  Loaded& loaded = known[family];
  if (!loaded.font) {
    loaded.font.reset(hershey_font_load(entry->file));
    if (!loaded.font) return nullptr;
    double low = 1e9, high = -1e9;
    const hershey_glyph* h = hershey_font_glyph(loaded.font.get(), 'H');
    for (const hershey_path* p = h == nullptr ? nullptr : h->paths; p != nullptr; p = p->next) {
      for (int i = 0; i < p->nverts; ++i) {
        low = std::min(low, static_cast<double>(p->verts[i].y));
        high = std::max(high, static_cast<double>(p->verts[i].y));
      }
    }
    if (high > low) {
      loaded.cap = high - low;
      loaded.base = low;
    }
  }
  return &loaded;
}

}  // namespace

bool is_single_line(const FaceName& face) { return face.family.starts_with("Single line"); }

std::vector<FaceName> single_line_faces() {
  std::vector<FaceName> faces;
  for (const Entry& e : kFaces) {
    if (load(e.family) != nullptr) faces.push_back({e.family, "Regular"});
  }
  return faces;
}

ShapedLine shape_single_line(const FaceName& face, const std::string& words) {
  const Loaded* loaded = load(face.family);
  if (loaded == nullptr)
    throw bad_input(
        say("The face “{0}” is not there; its fonts come with the package hershey-fonts-data.", face.family));
  const double k = 1 / loaded->cap;
  ShapedLine line;
  double pen = 0;
  for (std::size_t i = 0; i < words.size();) {
    std::size_t n = 1;
    while (i + n < words.size() && (static_cast<unsigned char>(words[i + n]) & 0xC0) == 0x80) ++n;
    const std::string text = words.substr(i, n);
    i += n;
    const auto c = static_cast<unsigned char>(text[0]);
    const hershey_glyph* g = n == 1 && c >= 32 && c < 127 ? hershey_font_glyph(loaded->font.get(), c) : nullptr;
    if (g == nullptr || (g->width == 0 && g->paths == nullptr && c != ' ')) {
      if (std::find(line.missing.begin(), line.missing.end(), text) == line.missing.end()) line.missing.push_back(text);
      continue;
    }
    ShapedGlyph glyph;
    glyph.text = text;
    glyph.origin = {pen, 0};
    glyph.advance = g->width * k;
    for (const hershey_path* p = g->paths; p != nullptr; p = p->next) {
      for (int v = 0; v < p->nverts; ++v) {
        const Point at{p->verts[v].x * k, (p->verts[v].y - loaded->base) * k};
        v == 0 ? glyph.path.move(at) : glyph.path.line(at);
      }
    }
    pen += glyph.advance;
    line.glyphs.push_back(std::move(glyph));
  }
  line.advance = pen;
  return line;
}

}  // namespace doyen
