// A phone's picture stands as its EXIF says (JEITA CP-3451, tag 274).
#include "artwork/drawing/exif.hpp"

#include <catch2/catch.hpp>

#include "artwork/drawing/trace.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;

namespace {

std::string with_orientation(const std::string& jpeg, int how, bool little) {
  const auto two = [&](int v) {
    const std::string high(1, static_cast<char>(v >> 8)), low(1, static_cast<char>(v & 255));
    return little ? low + high : high + low;
  };
  const auto four = [&](int v) { return little ? two(v) + two(0) : two(0) + two(v); };
  const std::string tiff = std::string(little ? "II" : "MM") + two(42) + four(8) + two(2) +  //
                           two(271) + two(2) + four(1) + four(0) +                           // the maker, empty
                           two(274) + two(3) + four(1) + two(how) + two(0) + four(0);
  const std::string exif = std::string("Exif\0\0", 6) + tiff;
  const std::size_t size = exif.size() + 2;
  return jpeg.substr(0, 2) + "\xFF\xE1" + static_cast<char>(size >> 8) + static_cast<char>(size & 255) + exif +
         jpeg.substr(2);
}

}  // namespace

TEST_CASE("a picture taken with the camera held in any way stands upright") {
  const std::string jpeg = read_file(data_file("demo/heron-ink.jpg"));
  const TracePicture plain = TracePicture::read(jpeg, "p");
  const auto w = static_cast<std::size_t>(plain.width()), h = static_cast<std::size_t>(plain.height());
  const auto pixels = plain.pixels();
  for (int how = 1; how <= 8; ++how) {
    for (const bool little : {false, true}) {
      const std::string bytes = with_orientation(jpeg, how, little);
      CHECK(exif_orientation(bytes) == how);
      const TracePicture turned = TracePicture::read(bytes, "p");
      INFO("orientation " << how);
      const bool quarter = how >= 5;
      REQUIRE(static_cast<std::size_t>(turned.width()) == (quarter ? h : w));
      REQUIRE(static_cast<std::size_t>(turned.height()) == (quarter ? w : h));
      // Where the file's pixel (column, row) is to be seen, by the table of the standard: which side row 0 and column 0
      // of the file are.
      const auto place = [&](std::size_t c, std::size_t r) {
        switch (how) {
          case 2:
            return std::pair{w - 1 - c, r};
          case 3:
            return std::pair{w - 1 - c, h - 1 - r};
          case 4:
            return std::pair{c, h - 1 - r};
          case 5:
            return std::pair{r, c};
          case 6:
            return std::pair{h - 1 - r, c};
          case 7:
            return std::pair{h - 1 - r, w - 1 - c};
          case 8:
            return std::pair{r, w - 1 - c};
          default:
            return std::pair{c, r};
        }
      };
      const auto seen = turned.pixels();
      std::size_t other = 0;
      for (std::size_t r = 0; r < h; r += 7) {
        for (std::size_t c = 0; c < w; c += 7) {
          const auto [x, y] = place(c, r);
          other += pixels[r * w + c] != seen[y * (quarter ? h : w) + x];
        }
      }
      CHECK(other == 0);
    }
  }
}

TEST_CASE("unsound EXIF is no EXIF") {
  const std::string whole = with_orientation(read_file(data_file("demo/heron-ink.jpg")), 6, true).substr(0, 80);
  for (std::size_t n = 0; n < whole.size(); ++n) {
    const int how = exif_orientation(whole.substr(0, n));
    CHECK((how == 1 || how == 6));
  }
  CHECK(exif_orientation("") == 1);
  CHECK(exif_orientation(with_orientation("\xFF\xD8", 9, true)) == 1);
}
