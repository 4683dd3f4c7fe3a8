#include "files/paper.hpp"

#include <algorithm>

namespace doyen {
namespace {

constexpr double kDots = 150 / 72.0;  // a point, in a picture

cairo_status_t take(void* user, const unsigned char* data, unsigned n) {
  static_cast<std::string*>(user)->append(reinterpret_cast<const char*>(data), n);
  return CAIRO_STATUS_SUCCESS;
}

cairo_surface_t* white(double width, double height) {
  cairo_surface_t* surface =
      cairo_image_surface_create(CAIRO_FORMAT_RGB24, static_cast<int>(width), static_cast<int>(height));
  cairo_t* cr = cairo_create(surface);
  cairo_set_source_rgb(cr, 1, 1, 1);
  cairo_paint(cr);
  cairo_destroy(cr);
  return surface;
}

}  // namespace

Paper::Paper(Form form) : form_(form) {
  if (form_ == Form::Picture) {
    begin_page();
    return;
  }
  pages_.push_back(cairo_pdf_surface_create_for_stream(take, &bytes_, kPageWidth, kPageHeight));
  cr_ = cairo_create(pages_.back());
}

Paper::~Paper() {
  if (cr_ != nullptr) cairo_destroy(cr_);
  for (cairo_surface_t* page : pages_) cairo_surface_destroy(page);
}

void Paper::begin_page() {
  pages_.push_back(white(kPageWidth * kDots, kPageHeight * kDots));
  cr_ = cairo_create(pages_.back());
  cairo_scale(cr_, kDots, kDots);
}

void Paper::turn_page() {
  if (form_ == Form::Pdf) {
    cairo_show_page(cr_);
    return;
  }
  cairo_destroy(cr_);
  begin_page();
}

std::string Paper::finish() {
  if (form_ == Form::Pdf) {
    cairo_surface_finish(pages_.back());
    return std::move(bytes_);
  }
  cairo_destroy(cr_);
  cr_ = nullptr;
  const double high = kPageHeight * kDots;
  cairo_surface_t* all = white(kPageWidth * kDots, high * static_cast<double>(pages_.size()));
  cairo_t* cr = cairo_create(all);
  for (std::size_t i = 0; i < pages_.size(); ++i) {
    cairo_set_source_surface(cr, pages_[i], 0, high * static_cast<double>(i));
    cairo_paint(cr);
  }
  cairo_destroy(cr);
  cairo_surface_write_to_png_stream(all, take, &bytes_);
  cairo_surface_destroy(all);
  return std::move(bytes_);
}

void draw_picture(cairo_t* cr, const Picture& picture, double left, double top, double width, double height) {
  std::vector<std::uint32_t> pixels = picture.pixels;
  cairo_surface_t* image = cairo_image_surface_create_for_data(
      reinterpret_cast<unsigned char*>(pixels.data()), CAIRO_FORMAT_ARGB32, static_cast<int>(picture.width),
      static_cast<int>(picture.height), static_cast<int>(picture.width * 4));
  cairo_save(cr);
  cairo_translate(cr, left, top);
  cairo_scale(cr, width / static_cast<double>(picture.width), height / static_cast<double>(picture.height));
  cairo_set_source_surface(cr, image, 0, 0);
  cairo_paint(cr);
  cairo_restore(cr);
  cairo_surface_finish(image);
  cairo_surface_destroy(image);
}

}  // namespace doyen
