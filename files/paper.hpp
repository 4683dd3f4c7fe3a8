// Printed pages: text, rules and pictures on A4, as a PDF, or as a picture to be sent.
#pragma once

#include <cairo-pdf.h>
#include <cairo.h>
#include <pango/pangocairo.h>

#include <optional>
#include <string>
#include <vector>

#include "relief/picture.hpp"

namespace doyen {

inline constexpr double kPt = 72.0 / 25.4;  // points a millimetre
inline constexpr double kPageWidth = 210 * kPt, kPageHeight = 297 * kPt, kEdge = 15 * kPt;

struct Tint {
  double r, g, b;
};
inline constexpr Tint kInk{0.17, 0.165, 0.157}, kFaded{0.37, 0.34, 0.30}, kLine{0.75, 0.71, 0.65},
    kBrick{0.61, 0.23, 0.18}, kPlum{0.357, 0.29, 0.435};

// A4 pages written from the top down; `y` is where the next thing goes.
class Paper {
 public:
  // A picture is a PNG of 150 dots an inch, its pages one under another.
  enum class Form { Pdf, Picture };
  explicit Paper(Form form = Form::Pdf);
  ~Paper();
  Paper(const Paper&) = delete;
  Paper& operator=(const Paper&) = delete;

  std::string finish();  // the file's bytes
  cairo_t* cr() { return cr_; }
  double y = kEdge;

  // Writes wrapped text and returns its height; without a place only says how high it would be.
  double text(const std::string& words, double x, std::optional<double> top, double width, double size,
              bool bold = false, Tint ink = kInk) {
    PangoLayout* layout = pango_cairo_create_layout(cr_);
    PangoFontDescription* font = pango_font_description_from_string("Open Sans");
    pango_font_description_set_absolute_size(font, size * PANGO_SCALE);
    if (bold) pango_font_description_set_weight(font, PANGO_WEIGHT_BOLD);
    pango_layout_set_font_description(layout, font);
    pango_layout_set_width(layout, static_cast<int>(width * PANGO_SCALE));
    pango_layout_set_wrap(layout, PANGO_WRAP_WORD_CHAR);
    pango_layout_set_text(layout, words.c_str(), -1);
    int w = 0, h = 0;
    pango_layout_get_size(layout, &w, &h);
    if (top) {
      cairo_set_source_rgb(cr_, ink.r, ink.g, ink.b);
      cairo_move_to(cr_, x, *top);
      pango_cairo_show_layout(cr_, layout);
    }
    pango_font_description_free(font);
    g_object_unref(layout);
    return static_cast<double>(h) / PANGO_SCALE;
  }
  void paragraph(const std::string& words, double size, bool bold = false, Tint ink = kInk, double gap = 3) {
    constexpr double kAfterHeading = 50;  // a heading does not stand alone at a page's foot
    const bool heading = bold && size >= 12;
    need(text(words, kEdge, std::nullopt, kPageWidth - 2 * kEdge, size, bold) + (heading ? kAfterHeading : 0));
    y += text(words, kEdge, y, kPageWidth - 2 * kEdge, size, bold, ink) + gap;
  }
  void rule() {
    cairo_set_source_rgb(cr_, kLine.r, kLine.g, kLine.b);
    cairo_set_line_width(cr_, 0.7);
    cairo_move_to(cr_, kEdge, y + 2);
    cairo_line_to(cr_, kPageWidth - kEdge, y + 2);
    cairo_stroke(cr_);
    y += 7;
  }
  void need(double height) {
    if (y + height >= kPageHeight - kEdge) next_page();
  }
  void next_page() {
    turn_page();
    y = kEdge;
  }

 private:
  void begin_page();  // of a picture
  void turn_page();
  Form form_;
  std::string bytes_;
  std::vector<cairo_surface_t*> pages_;  // the last is the one that is drawn on
  cairo_t* cr_ = nullptr;
};

// The picture, stretched over that place.
void draw_picture(cairo_t* cr, const Picture& picture, double left, double top, double width, double height);

}  // namespace doyen
