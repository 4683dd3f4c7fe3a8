#include "files/paper.hpp"

#include <vector>

namespace doyen {

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
