// How much of what librsvg paints our outlines cover, and the other way round: overlap ÷ union of areas.
#pragma once

#include <librsvg/rsvg.h>

#include <string>

#include "files/svg/svg_read.hpp"
#include "storage/atomic_file.hpp"

namespace coverage {

using namespace doyen;

constexpr int kLongSide = 700;  // px of the longer side

struct Sheet {
  cairo_surface_t* surface;
  cairo_t* cr;
  Sheet(int w, int h) : surface(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, w, h)), cr(cairo_create(surface)) {}
  ~Sheet() {
    cairo_destroy(cr);
    cairo_surface_destroy(surface);
  }
  Sheet(const Sheet&) = delete;
  Sheet& operator=(const Sheet&) = delete;
};

inline void trace_region(cairo_t* cr, const Region& region) {
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i)
        i == 0 ? cairo_move_to(cr, ring[i].x, ring[i].y) : cairo_line_to(cr, ring[i].x, ring[i].y);
      cairo_close_path(cr);
    }
  }
}

// Sum of the smaller alphas over the sum of the larger ones.
inline double overlap(Sheet& a, Sheet& b) {
  cairo_surface_flush(a.surface);
  cairo_surface_flush(b.surface);
  double both = 0, either = 0;
  const int w = cairo_image_surface_get_width(a.surface), h = cairo_image_surface_get_height(a.surface);
  for (int y = 0; y < h; ++y) {
    const auto* pa = cairo_image_surface_get_data(a.surface) + y * cairo_image_surface_get_stride(a.surface);
    const auto* pb = cairo_image_surface_get_data(b.surface) + y * cairo_image_surface_get_stride(b.surface);
    for (int x = 0; x < w; ++x) {
      // Any ink counts as wood to remove: what is half transparent is carved all the same.
      const int alpha_a = std::min(255, pa[4 * x + 3] * 4), alpha_b = std::min(255, pb[4 * x + 3] * 4);
      both += std::min(alpha_a, alpha_b);
      either += std::max(alpha_a, alpha_b);
    }
  }
  return either > 0 ? both / either : 0;
}

// -1 when librsvg itself cannot read or paint the file.
inline double overlap_with_librsvg(const std::string& path, Imported* read = nullptr) {
  const std::string text = read_file(path);
  GError* error = nullptr;
  RsvgHandle* handle = rsvg_handle_new_from_data(reinterpret_cast<const guint8*>(text.data()), text.size(), &error);
  if (handle == nullptr) {
    g_clear_error(&error);
    return -1;
  }
  rsvg_handle_set_dpi(handle, 96);
  const Imported svg = read_svg(text, path);
  if (read != nullptr) *read = svg;
  const double pw = svg.drawing.page_width, ph = svg.drawing.page_height, scale = kLongSide / std::max(pw, ph);
  const int w = std::max(1, static_cast<int>(std::ceil(pw * scale))),
            h = std::max(1, static_cast<int>(std::ceil(ph * scale)));
  Sheet theirs(w, h), ours(w, h);
  // At its own size in px (96 to the inch), scaled by Cairo: a drawing without a viewBox would not grow by itself.
  constexpr double kPx = 96 / 25.4;
  const RsvgRectangle page{0, 0, pw * kPx, ph * kPx};
  cairo_scale(theirs.cr, scale / kPx, scale / kPx);
  const bool painted = rsvg_handle_render_document(handle, theirs.cr, &page, &error) != 0;
  g_clear_error(&error);
  g_object_unref(handle);
  if (!painted) return -1;
  cairo_scale(ours.cr, scale, scale);
  cairo_set_fill_rule(ours.cr, CAIRO_FILL_RULE_EVEN_ODD);
  trace_region(ours.cr, drawing_region_as_drawn(svg.drawing));
  cairo_fill(ours.cr);
  return overlap(theirs, ours);
}

}  // namespace coverage
