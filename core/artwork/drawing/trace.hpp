// Pictures to outlines: cut by brightness or colour (Leptonica), then curves with few points (Potrace).
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "artwork/drawing/ink.hpp"
#include "cancel.hpp"
#include "geometry/path.hpp"

namespace doyen {

struct TraceSettings {
  bool automatic = true;    // the brightness cut is found from the picture (Otsu; where light is uneven, as below)
  double cut = 128;         // 0 to 255, used when not automatic: darker than this is ink
  bool uneven = false;      // light falls unevenly: the cut follows the paper's own brightness (Sauvola)
  bool invert = false;      // light is ink
  int colours = 0;          // 0 cuts by brightness; 2 to 12 reduces to so many colours, of which `picked` are ink
  std::vector<int> picked;  // into the palette, darkest first
  double specks = 12;       // px²: ink smaller than this is dropped
  double holes = 6;         // px²: holes smaller than this are filled
  double smoothness = 1;    // px: how far ragged edges are smoothed
  double corners = 0.3;     // 0 rounds everything, 1 keeps every corner sharp
  double straighten = 0;    // degrees, counter-clockwise, before cropping
  double crop_left = 0, crop_top = 0, crop_right = 0, crop_bottom = 0;  // shares of the width or height cut away
  // Specks and holes that shall be ink or paper whatever their size, by a place in them: shares of the straightened
  // picture's width and height, from its top left corner.
  struct Settled {
    double x = 0, y = 0;
    bool ink = false;
    friend bool operator==(const Settled&, const Settled&) = default;
  };
  std::vector<Settled> settled;
  friend bool operator==(const TraceSettings&, const TraceSettings&) = default;
};

// A decoded picture; at most kMostTracedPixels, larger ones are scaled down. PNG, JPEG, BMP and WebP.
class TracePicture {
 public:
  // Throws Problem{BadInput} for what is no such picture, is damaged, or has more than 200 million pixels.
  static TracePicture read(const std::string& bytes, const std::string& where);
  ~TracePicture();
  TracePicture(TracePicture&&) noexcept;
  TracePicture& operator=(TracePicture&&) noexcept;

  [[nodiscard]] int width() const;             // px, as it is worked with
  [[nodiscard]] int height() const;            // px
  [[nodiscard]] double shrunk() const;         // by how much it was scaled down, 1 for not at all
  [[nodiscard]] double dots_per_inch() const;  // as the file says, of the worked pixels; 0 when it says nothing
  [[nodiscard]] std::string png() const;       // the worked picture, to be kept inside the job
  // 0xAARRGGBB, row 0 at the top.
  [[nodiscard]] std::vector<std::uint32_t> pixels() const;

  struct Held;
  [[nodiscard]] const Held& held() const { return *held_; }  // for trace() alone

 private:
  explicit TracePicture(std::unique_ptr<Held> held);
  std::unique_ptr<Held> held_;
};

inline constexpr double kMostTracedPixels = 12e6;

struct Traced {
  std::vector<Path> parts;             // px, y down: each an outer outline with its holes, to be filled even-odd
  int width = 0, height = 0;           // px, after straightening and cropping
  std::vector<std::uint32_t> palette;  // the colours when reduced, darkest first
  std::vector<std::uint8_t> ink;       // width × height, 1 where there is ink
  std::vector<Cleaned> cleaned;        // width × height: specks that were dropped, holes that were filled
  bool uneven = false;                 // the light was uneven: the cut followed the paper's own brightness
  std::size_t points = 0;              // of the curves
};

// Throws Problem{BadInput} when nothing is left to trace, or so much that no one can have meant it.
Traced trace(const TracePicture& picture, const TraceSettings& settings, const Cancel& cancel = {});

std::string to_base64(const std::string& bytes);
// Throws Problem{BadInput} when the text is none.
std::string from_base64(const std::string& text);

}  // namespace doyen
