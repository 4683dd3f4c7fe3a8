// Words set by Doyen against the same words drawn by Pango and Cairo; damaged font files.
#include <pango/pangocairo.h>
#include <sys/wait.h>

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>

#include "artwork/piece.hpp"
#include "command_line.hpp"
#include "coverage.hpp"

using namespace doyen;
namespace fs = std::filesystem;

namespace {

// Both are scaled to the same ink box: letter shapes, spacing, kerning and ligatures must then coincide.
double overlap_with_pango(const std::string& words, const FaceName& face, const std::string& family) {
  Lettering l;
  l.words = words;
  l.face = face;
  l.cap_height = 60;
  const Region ours = outlines_of({"w", "w", l, {0, 0}, 0}).region;
  const Box box = bounds(ours);
  constexpr double kMargin = 4;
  const int w = static_cast<int>(box.width()) + 2 * static_cast<int>(kMargin),
            h = static_cast<int>(box.height()) + 2 * static_cast<int>(kMargin);
  coverage::Sheet theirs(w, h), mine(w, h);

  PangoLayout* layout = pango_cairo_create_layout(theirs.cr);
  PangoFontDescription* font = pango_font_description_from_string(face.style.c_str());
  pango_font_description_set_family(font, family.c_str());
  pango_font_description_set_absolute_size(font, 400.0 * PANGO_SCALE);
  pango_layout_set_font_description(layout, font);
  cairo_font_options_t* plain = cairo_font_options_create();
  cairo_font_options_set_hint_style(plain, CAIRO_HINT_STYLE_NONE);
  cairo_font_options_set_hint_metrics(plain, CAIRO_HINT_METRICS_OFF);
  pango_cairo_context_set_font_options(pango_layout_get_context(layout), plain);
  pango_context_set_round_glyph_positions(pango_layout_get_context(layout), FALSE);
  pango_layout_context_changed(layout);
  pango_layout_set_text(layout, words.c_str(), -1);
  pango_cairo_layout_path(theirs.cr, layout);
  double x0 = 0, y0 = 0, x1 = 0, y1 = 0;
  cairo_path_t* path = cairo_copy_path(theirs.cr);
  cairo_fill_extents(theirs.cr, &x0, &y0, &x1, &y1);
  cairo_new_path(theirs.cr);
  cairo_translate(theirs.cr, kMargin, kMargin);
  cairo_scale(theirs.cr, box.width() / (x1 - x0), box.height() / (y1 - y0));
  cairo_translate(theirs.cr, -x0, -y0);
  cairo_append_path(theirs.cr, path);
  cairo_fill(theirs.cr);
  cairo_path_destroy(path);
  cairo_font_options_destroy(plain);
  pango_font_description_free(font);
  g_object_unref(layout);

  cairo_translate(mine.cr, kMargin - box.left, kMargin + box.top);
  cairo_scale(mine.cr, 1, -1);
  coverage::trace_region(mine.cr, ours);
  cairo_fill(mine.cr);
  return coverage::overlap(theirs, mine);
}

}  // namespace

TEST_CASE("words coincide with Pango's and Cairo's, accents, ligatures and kerning included") {
  const struct {
    const char *words, *family, *style, *pango;
  } rows[] = {{"Marrowby AVATAR To", "League Spartan", "Bold", "League Spartan"},
              {"office fjord waffle", "EB Garamond", "Italic", "EB Garamond 12"},
              {"Café Œuvre Ångström", "Cabin", "Bold", "Cabin"},
              {"fig & thyme", "Quattrocento", "Regular", "Quattrocento"},
              {"Sage 1911 Rue", "Lobster Two", "Bold", "Lobster Two"}};
  for (const auto& row : rows) {
    INFO(row.words << " in " << row.pango);
    CHECK(overlap_with_pango(row.words, {row.family, row.style}, row.pango) > 0.985);
  }
}

TEST_CASE("damaged font files are refused or read, never worse") {
  const fs::path home = fs::temp_directory_path() / ("doyen-fonts-" + std::to_string(getpid()));
  fs::create_directories(home / "data/fonts");
  FILE* pipe = popen("fc-match -f '%{file}' Cabin:bold", "r");
  char found[4096] = "";
  REQUIRE(std::fgets(found, sizeof found, pipe) != nullptr);
  pclose(pipe);
  const std::string font = read_file(found);
  unsigned seed = 99;
  for (int round = 0; round < 8; ++round) {
    std::string broken = round < 3 ? font.substr(0, font.size() * static_cast<std::size_t>(round + 1) / 4) : font;
    for (int k = 0; round >= 3 && k < 40 * (round - 2); ++k) {
      seed = seed * 1664525U + 1013904223U;
      broken[1500 + (seed >> 4) % (broken.size() - 1500)] = static_cast<char>(seed >> 20);
    }
    fs::remove_all(home / "cache");
    write_file_atomically((home / "data/fonts/zz-broken.otf").string(), broken);
    const std::string command = "XDG_DATA_HOME=" + (home / "data").string() +
                                " XDG_CACHE_HOME=" + (home / "cache").string() + " " + command_line::cli() +
                                " text 'Rue & Sage' --font Cabin:Bold --cap 20 --blank 200x90x19mm --out " +
                                (home / "a.doyen").string() + " >/dev/null 2>&1";
    const int status = std::system(command.c_str());
    REQUIRE(WIFEXITED(status));
    CHECK((WEXITSTATUS(status) == 0 || WEXITSTATUS(status) == 3));
  }
  fs::remove_all(home);
}
