// Bytes as a picture, traced; and what an EXIF says of how it lies.
#include "artwork/drawing/trace.hpp"
#include "fuzz_target.hpp"
#include "problem.hpp"

using namespace doyen;

FUZZ_TARGET(picture) {
  try {
    const TracePicture picture = TracePicture::read(bytes, "file");
    // What takes seconds is tried elsewhere.
    if (picture.width() > 600 || picture.height() > 600) return;
    (void)trace(picture, {});
  } catch (const Problem&) {
  }
}
