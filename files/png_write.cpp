#include "files/png_write.hpp"

#include <cairo.h>

#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "wording/say.hpp"

namespace doyen {

std::string png_bytes(const Picture& picture) {
  std::vector<std::uint32_t> pixels = picture.pixels;  // cairo wants a pointer it could write through
  cairo_surface_t* surface = cairo_image_surface_create_for_data(
      reinterpret_cast<unsigned char*>(pixels.data()), CAIRO_FORMAT_ARGB32, static_cast<int>(picture.width),
      static_cast<int>(picture.height), static_cast<int>(picture.width * 4));
  std::string bytes;
  const auto status = cairo_surface_write_to_png_stream(
      surface,
      [](void* user, const unsigned char* data, unsigned n) {
        static_cast<std::string*>(user)->append(reinterpret_cast<const char*>(data), n);
        return CAIRO_STATUS_SUCCESS;
      },
      &bytes);
  cairo_surface_destroy(surface);
  if (status != CAIRO_STATUS_SUCCESS)
    throw cannot_write(say("The picture could not be made: {0}.", cairo_status_to_string(status)));
  return bytes;
}

void write_png(const Picture& picture, const std::string& path) { write_file_atomically(path, png_bytes(picture)); }

}  // namespace doyen
