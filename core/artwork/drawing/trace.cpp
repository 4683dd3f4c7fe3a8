#include "artwork/drawing/trace.hpp"

#include <leptonica/allheaders.h>
#include <potracelib.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>

#include "artwork/drawing/exif.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

struct PixFree {
  void operator()(PIX* pix) const { pixDestroy(&pix); }
};
using PixPtr = std::unique_ptr<PIX, PixFree>;

constexpr double kMostPixels = 200e6;
constexpr std::size_t kMostTracedPoints = 400'000;

void be_quiet() {
  static const bool once = [] {
    setMsgSeverity(L_SEVERITY_NONE);
    return true;
  }();
  (void)once;
}

PixPtr need(PIX* pix, const std::string& what) {
  if (pix == nullptr) throw bad_input(say("The picture could not be ") + what + ".");
  return PixPtr(pix);
}

// As a camera that states how it was held meant it.
PixPtr upright(PixPtr pix, int orientation) {
  // EXIF counts 5 to 8 as turned by quarters, the odd ones mirrored before.
  static constexpr int kQuarters[] = {0, 0, 0, 2, 2, 3, 1, 1, 3};
  static constexpr bool kMirrored[] = {false, false, true, false, true, true, false, true, false};
  if (kMirrored[orientation]) pix = need(pixFlipLR(nullptr, pix.get()), say("turned upright"));
  if (kQuarters[orientation] > 0) pix = need(pixRotateOrth(pix.get(), kQuarters[orientation]), say("turned upright"));
  return pix;
}

std::uint32_t to_argb(l_uint32 rgba) { return 0xFF000000U | (rgba >> 8); }

double lightness(std::uint32_t argb) {
  return 0.299 * ((argb >> 16) & 255) + 0.587 * ((argb >> 8) & 255) + 0.114 * (argb & 255);
}

PixPtr straightened_and_cropped(PIX* source, const TraceSettings& s) {
  PixPtr pix = need(pixClone(source), "read");
  if (std::abs(s.straighten) > 0.01) {
    const auto radians = static_cast<l_float32>(-s.straighten * 3.14159265358979 / 180);
    pix = need(pixRotate(pix.get(), radians, L_ROTATE_AREA_MAP, L_BRING_IN_WHITE, 0, 0), "straightened");
  }
  const int w = pixGetWidth(pix.get()), h = pixGetHeight(pix.get());
  const int left = static_cast<int>(w * std::clamp(s.crop_left, 0.0, 0.95)),
            top = static_cast<int>(h * std::clamp(s.crop_top, 0.0, 0.95));
  const int right = static_cast<int>(w * std::clamp(s.crop_right, 0.0, 0.95)),
            bottom = static_cast<int>(h * std::clamp(s.crop_bottom, 0.0, 0.95));
  if (left + top + right + bottom == 0) return pix;
  if (w - left - right < 2 || h - top - bottom < 2)
    throw bad_input(say("Nothing is left of the picture after cropping."));
  BOX* box = boxCreate(left, top, w - left - right, h - top - bottom);
  PixPtr cropped(pixClipRectangle(pix.get(), box, nullptr));
  boxDestroy(&box);
  return need(cropped.release(), "cropped");
}

// Otsu's split of the histogram (IEEE Trans. SMC 9, 1979); the cut lies halfway between the two sides' means, so that
// blurred edges are cut where they are half ink.
double automatic_cut(PIX* grey) {
  NUMA* histogram = pixGetGrayHistogram(grey, 1);
  std::array<double, 256> n{};
  double all = 0, sum = 0;
  for (int i = 0; i < 256 && histogram != nullptr; ++i) {
    l_float32 v = 0;
    numaGetFValue(histogram, i, &v);
    n[static_cast<std::size_t>(i)] = v;
    all += v;
    sum += static_cast<double>(v) * i;
  }
  numaDestroy(&histogram);
  double below = 0, sum_below = 0, best = -1, cut = 128;
  for (int i = 0; i < 255; ++i) {
    below += n[static_cast<std::size_t>(i)];
    sum_below += n[static_cast<std::size_t>(i)] * i;
    if (below <= 0 || below >= all) continue;
    const double dark = sum_below / below, light = (sum - sum_below) / (all - below);
    const double score = below * (all - below) * (light - dark) * (light - dark);
    if (score > best) {
      best = score;
      cut = (dark + light) / 2;
    }
  }
  return cut;
}

// One bit a pixel, 1 = ink, by brightness.
PixPtr ink_by_brightness(PIX* colour, const TraceSettings& s, bool& uneven) {
  PixPtr grey = need(pixConvertTo8(colour, 0), say("turned grey"));
  if (s.invert) pixInvert(grey.get(), grey.get());
  const int blur = static_cast<int>(std::lround(std::clamp(s.smoothness, 0.0, 20.0)));
  if (blur > 0 && pixGetWidth(grey.get()) > 2 * blur + 2 && pixGetHeight(grey.get()) > 2 * blur + 2) {
    grey = need(pixBlockconv(grey.get(), blur, blur), "smoothed");
  }
  uneven = s.uneven;
  if (s.automatic && !uneven) {
    const int w = pixGetWidth(grey.get()), h = pixGetHeight(grey.get());
    std::vector<std::uint8_t> values(static_cast<std::size_t>(w) * static_cast<std::size_t>(h));
    for (int y = 0; y < h; ++y) {
      const l_uint32* line = pixGetData(grey.get()) + static_cast<std::ptrdiff_t>(y) * pixGetWpl(grey.get());
      for (int x = 0; x < w; ++x)
        values[static_cast<std::size_t>(y) * static_cast<std::size_t>(w) + static_cast<std::size_t>(x)] =
            static_cast<std::uint8_t>(GET_DATA_BYTE(line, x));
    }
    uneven = uneven_light(values, w, h);
  }
  if (uneven) {
    const int least = std::min(pixGetWidth(grey.get()), pixGetHeight(grey.get()));
    const int window = std::clamp(least / 12, 8, 200);
    if (least > 2 * window + 4) {
      PIX* out = nullptr;
      if (pixSauvolaBinarize(grey.get(), window, 0.25F, 1, nullptr, nullptr, nullptr, &out) == 0 && out != nullptr)
        return PixPtr(out);
    }
  }
  const double cut = s.automatic ? automatic_cut(grey.get()) : s.cut;
  return need(pixThresholdToBinary(grey.get(), static_cast<int>(std::clamp(cut, 1.0, 255.0))),
              say("cut by brightness"));
}

// The colours of a picture by the octree's index, and which of them were joined.
struct ColourGroup {
  double r = 0, g = 0, b = 0, n = 0;  // the mean colour, and how many pixels have it
  [[nodiscard]] std::uint32_t argb() const {
    return 0xFF000000U | (static_cast<std::uint32_t>(r) << 16) | (static_cast<std::uint32_t>(g) << 8) |
           static_cast<std::uint32_t>(b);
  }
};
struct ColourGroups {
  std::vector<ColourGroup> groups;
  std::vector<std::size_t> group_of;  // of each index
  std::vector<std::size_t> alive;     // those that stand for themselves
};

std::size_t colour_index(PIX* eight, int x, int y) {
  return static_cast<std::size_t>(GET_DATA_BYTE(pixGetData(eight) + y * pixGetWpl(eight), x));
}

ColourGroups counted_colours(PIX* eight, std::size_t found) {
  std::vector<double> count(found, 0);
  const int w = pixGetWidth(eight), h = pixGetHeight(eight);
  for (int y = 0; y < h; ++y) {
    for (int x = 0; x < w; ++x) {
      if (const std::size_t index = colour_index(eight, x, y); index < found) ++count[index];
    }
  }
  ColourGroups all;
  for (std::size_t i = 0; i < found; ++i) {
    int r = 0, g = 0, b = 0;
    pixcmapGetColor(pixGetColormap(eight), static_cast<int>(i), &r, &g, &b);
    all.groups.push_back(
        {static_cast<double>(r), static_cast<double>(g), static_cast<double>(b), std::max(0.5, count[i])});
    all.group_of.push_back(i);
    all.alive.push_back(i);
  }
  return all;
}

// Joins the pair whose joining costs least (Ward's rule) until so many are left.
void join_nearest(ColourGroups& all, std::size_t wanted) {
  while (all.alive.size() > wanted) {
    double least = 1e300;
    std::size_t a = 0, b = 1;
    for (std::size_t i = 0; i < all.alive.size(); ++i) {
      for (std::size_t k = i + 1; k < all.alive.size(); ++k) {
        const ColourGroup &p = all.groups[all.alive[i]], &q = all.groups[all.alive[k]];
        const double d = (p.r - q.r) * (p.r - q.r) + (p.g - q.g) * (p.g - q.g) + (p.b - q.b) * (p.b - q.b);
        const double cost = d * p.n * q.n / (p.n + q.n);
        if (cost < least) {
          least = cost;
          a = i;
          b = k;
        }
      }
    }
    ColourGroup& p = all.groups[all.alive[a]];
    const ColourGroup& q = all.groups[all.alive[b]];
    const double n = p.n + q.n;
    p = {(p.r * p.n + q.r * q.n) / n, (p.g * p.n + q.g * q.n) / n, (p.b * p.n + q.b * q.n) / n, n};
    std::replace(all.group_of.begin(), all.group_of.end(), all.alive[b], all.alive[a]);
    all.alive.erase(all.alive.begin() + static_cast<std::ptrdiff_t>(b));
  }
  std::sort(all.alive.begin(), all.alive.end(), [&](std::size_t a, std::size_t b) {
    return lightness(all.groups[a].argb()) < lightness(all.groups[b].argb());
  });
}

PixPtr ink_by_colour(PIX* colour, const TraceSettings& s, std::vector<std::uint32_t>& palette) {
  PixPtr rgb = need(pixConvertTo32(colour), say("read in colour"));
  const int blur = static_cast<int>(std::lround(std::clamp(s.smoothness, 0.0, 20.0)));
  if (blur > 0 && pixGetWidth(rgb.get()) > 2 * blur + 2 && pixGetHeight(rgb.get()) > 2 * blur + 2)
    rgb = need(pixBlockconv(rgb.get(), blur, blur), "smoothed");
  // Octrees of few colours keep greys apart poorly, so more are taken and the nearest joined.
  PixPtr reduced = need(pixOctreeQuantNumColors(rgb.get(), 64, 1), say("reduced to few colours"));
  PIXCMAP* map = pixGetColormap(reduced.get());
  if (map == nullptr) throw bad_input(say("The picture could not be reduced to few colours."));
  const auto found = static_cast<std::size_t>(pixcmapGetCount(map));
  PixPtr eight = need(pixConvertTo8(reduced.get(), 1), say("reduced to few colours"));
  ColourGroups all = counted_colours(eight.get(), found);
  join_nearest(all, static_cast<std::size_t>(std::clamp(s.colours, 2, 12)));
  for (const std::size_t g : all.alive) palette.push_back(all.groups[g].argb());
  std::vector<int> picked = s.picked;
  if (picked.empty()) picked.push_back(s.invert ? static_cast<int>(all.alive.size()) - 1 : 0);
  std::vector<char> ink(found, 0);
  for (std::size_t i = 0; i < found; ++i) {
    const auto rank = std::find(all.alive.begin(), all.alive.end(), all.group_of[i]) - all.alive.begin();
    ink[i] = std::find(picked.begin(), picked.end(), static_cast<int>(rank)) != picked.end();
  }
  const int w = pixGetWidth(eight.get()), h = pixGetHeight(eight.get());
  PixPtr out = need(pixCreate(w, h, 1), "made");
  for (int y = 0; y < h; ++y) {
    l_uint32* line = pixGetData(out.get()) + static_cast<std::ptrdiff_t>(y) * pixGetWpl(out.get());
    for (int x = 0; x < w; ++x) {
      const std::size_t index = colour_index(eight.get(), x, y);
      if (index < found && ink[index]) SET_DATA_BIT(line, x);
    }
  }
  return out;
}

Ink ink_of(PIX* bits) {
  Ink ink{pixGetWidth(bits), pixGetHeight(bits), {}};
  ink.pixels.resize(static_cast<std::size_t>(ink.width) * static_cast<std::size_t>(ink.height));
  for (int y = 0; y < ink.height; ++y) {
    const l_uint32* line = pixGetData(bits) + static_cast<std::ptrdiff_t>(y) * pixGetWpl(bits);
    for (int x = 0; x < ink.width; ++x) ink.pixels[ink.at(x, y)] = GET_DATA_BIT(line, x) ? 1 : 0;
  }
  return ink;
}

// From shares of the whole picture to pixels of what cropping left of it.
std::vector<SettledPixel> settled_pixels(const TraceSettings& s, const Ink& ink) {
  std::vector<SettledPixel> pixels;
  const double across = 1 - s.crop_left - s.crop_right, down = 1 - s.crop_top - s.crop_bottom;
  for (const TraceSettings::Settled& spot : s.settled) {
    pixels.push_back({static_cast<int>(std::floor((spot.x - s.crop_left) / across * ink.width)),
                      static_cast<int>(std::floor((spot.y - s.crop_top) / down * ink.height)), spot.ink});
  }
  return pixels;
}

struct PotraceFree {
  void operator()(potrace_state_t* s) const { potrace_state_free(s); }
  void operator()(potrace_param_t* p) const { potrace_param_free(p); }
};

// Potrace's bitmaps run from the bottom up in words; its y grows upwards.
std::unique_ptr<potrace_state_t, PotraceFree> run_potrace(const Ink& ink, const TraceSettings& s) {
  const int w = ink.width, h = ink.height;
  constexpr int kBits = 8 * static_cast<int>(sizeof(potrace_word));
  const int dy = (w + kBits - 1) / kBits;
  std::vector<potrace_word> map(static_cast<std::size_t>(dy) * static_cast<std::size_t>(h), 0);
  for (int y = 0; y < h; ++y) {
    potrace_word* row = map.data() + static_cast<std::ptrdiff_t>(h - 1 - y) * dy;
    for (int x = 0; x < w; ++x) {
      if (ink.pixels[ink.at(x, y)] != 0) row[x / kBits] |= potrace_word{1} << (kBits - 1 - x % kBits);
    }
  }
  potrace_bitmap_t bitmap{w, h, dy, map.data()};
  const std::unique_ptr<potrace_param_t, PotraceFree> params(potrace_param_default());
  params->turdsize = 0;  // specks are gone by now
  params->alphamax = 1.334 * (1 - std::clamp(s.corners, 0.0, 1.0));
  params->opticurve = 1;
  params->opttolerance = 0.2 + 0.1 * std::clamp(s.smoothness, 0.0, 10.0);
  std::unique_ptr<potrace_state_t, PotraceFree> state(potrace_trace(params.get(), &bitmap));
  if (!state || state->status != POTRACE_STATUS_OK) throw bad_input(say("The picture could not be traced."));
  return state;
}

void append_curve(const potrace_curve_t& curve, int height, Path& path) {
  const auto at = [&](const potrace_dpoint_t& p) { return Point{p.x, height - p.y}; };
  path.move(at(curve.c[curve.n - 1][2]));
  for (int i = 0; i < curve.n; ++i) {
    if (curve.tag[i] == POTRACE_CORNER) {
      path.line(at(curve.c[i][1]));
      path.line(at(curve.c[i][2]));
    } else {
      path.curve(at(curve.c[i][0]), at(curve.c[i][1]), at(curve.c[i][2]));
    }
  }
  path.close();
}

}  // namespace

struct TracePicture::Held {
  PixPtr pix;
  double shrunk = 1;
};

TracePicture::TracePicture(std::unique_ptr<Held> held) : held_(std::move(held)) {}
TracePicture::~TracePicture() = default;
TracePicture::TracePicture(TracePicture&&) noexcept = default;
TracePicture& TracePicture::operator=(TracePicture&&) noexcept = default;

TracePicture TracePicture::read(const std::string& bytes, const std::string& where) {
  be_quiet();
  const auto* data = reinterpret_cast<const l_uint8*>(bytes.data());
  int format = 0, w = 0, h = 0, bits = 0, samples = 0, map = 0;
  if (bytes.size() < 8 || pixReadHeaderMem(data, bytes.size(), &format, &w, &h, &bits, &samples, &map) != 0 || w <= 0 ||
      h <= 0) {
    throw bad_input(say("{0}: a PNG, JPEG, BMP or WebP picture was expected.", where));
  }
  if (static_cast<double>(w) * h > kMostPixels)
    throw bad_input(say("{0}: the picture has {1} million pixels; at most 200 million are read.", where,
                        format_number(static_cast<double>(w) * h / 1e6, 0)));
  PixPtr pix(pixReadMem(data, bytes.size()));
  if (!pix) throw bad_input(say("{0}: the picture is damaged or cut off.", where));
  if (pixGetColormap(pix.get()) != nullptr) pix = need(pixRemoveColormap(pix.get(), REMOVE_CMAP_BASED_ON_SRC), "read");
  if (pixGetDepth(pix.get()) == 16) pix = need(pixConvert16To8(pix.get(), L_MS_BYTE), "read");
  if (pixGetDepth(pix.get()) == 32 && pixGetSpp(pix.get()) == 4)
    pix = need(pixAlphaBlendUniform(pix.get(), 0xFFFFFF00), say("laid on white"));
  if (pixGetDepth(pix.get()) < 8) pix = need(pixConvertTo8(pix.get(), 0), "read");
  pix = upright(std::move(pix), exif_orientation(bytes));
  auto held = std::make_unique<Held>();
  const double pixels = static_cast<double>(pixGetWidth(pix.get())) * pixGetHeight(pix.get());
  if (pixels > kMostTracedPixels) {
    held->shrunk = std::sqrt(kMostTracedPixels / pixels);
    const auto k = static_cast<l_float32>(held->shrunk);
    const int xres = pixGetXRes(pix.get());
    pix = need(pixScale(pix.get(), k, k), say("made smaller"));
    pixSetXRes(pix.get(), static_cast<int>(std::lround(xres * held->shrunk)));
  }
  held->pix = std::move(pix);
  return TracePicture(std::move(held));
}

int TracePicture::width() const { return pixGetWidth(held_->pix.get()); }
int TracePicture::height() const { return pixGetHeight(held_->pix.get()); }
double TracePicture::shrunk() const { return held_->shrunk; }
double TracePicture::dots_per_inch() const { return pixGetXRes(held_->pix.get()); }

std::string TracePicture::png() const {
  l_uint8* data = nullptr;
  std::size_t size = 0;
  if (pixWriteMemPng(&data, &size, held_->pix.get(), 0) != 0 || data == nullptr)
    throw bad_input(say("The picture could not be kept in the job."));
  std::string bytes(reinterpret_cast<const char*>(data), size);
  lept_free(data);
  return bytes;
}

std::vector<std::uint32_t> TracePicture::pixels() const {
  const PixPtr rgb = need(pixConvertTo32(held_->pix.get()), "shown");
  std::vector<std::uint32_t> out;
  out.reserve(static_cast<std::size_t>(width()) * static_cast<std::size_t>(height()));
  for (int y = 0; y < height(); ++y) {
    const l_uint32* line = pixGetData(rgb.get()) + static_cast<std::ptrdiff_t>(y) * pixGetWpl(rgb.get());
    for (int x = 0; x < width(); ++x) out.push_back(to_argb(line[x]));
  }
  return out;
}

Traced trace(const TracePicture& picture, const TraceSettings& settings, const Cancel& cancel) {
  be_quiet();
  PixPtr pix = straightened_and_cropped(picture.held().pix.get(), settings);
  cancel.check();
  Traced out;
  const PixPtr found = settings.colours > 1 ? ink_by_colour(pix.get(), settings, out.palette)
                                            : ink_by_brightness(pix.get(), settings, out.uneven);
  cancel.check();
  Ink ink = ink_of(found.get());
  out.width = ink.width;
  out.height = ink.height;
  out.cleaned = clean_ink(ink, settings.specks, settings.holes, settled_pixels(settings, ink), cancel);
  const auto state = run_potrace(ink, settings);
  cancel.check();
  for (const potrace_path_t* p = state->plist; p != nullptr; p = p->next) {
    if (p->sign == '+') out.parts.emplace_back();
    if (out.parts.empty()) continue;
    append_curve(p->curve, out.height, out.parts.back());
    out.points += static_cast<std::size_t>(p->curve.n);
    if (out.points > kMostTracedPoints)
      throw bad_input(
          say("The picture falls into more than 400,000 curve points: drop larger specks, smooth it, or choose another "
              "cut."));
  }
  if (out.parts.empty())
    throw bad_input(
        say("Nothing is left to trace: the whole picture counts as paper. Move the brightness cut, or turn light into "
            "ink."));
  out.ink = std::move(ink.pixels);
  return out;
}

namespace {
constexpr char kBase64[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
}

std::string to_base64(const std::string& bytes) {
  std::string out;
  out.reserve(bytes.size() * 4 / 3 + 4);
  for (std::size_t i = 0; i < bytes.size(); i += 3) {
    std::uint32_t v = 0;
    const std::size_t n = std::min<std::size_t>(3, bytes.size() - i);
    for (std::size_t k = 0; k < 3; ++k) v = v << 8 | (k < n ? static_cast<unsigned char>(bytes[i + k]) : 0U);
    for (std::size_t k = 0; k < 4; ++k) out += k <= n ? kBase64[v >> (18 - 6 * k) & 63] : '=';
  }
  return out;
}

std::string from_base64(const std::string& text) {
  std::string out;
  std::uint32_t v = 0;
  int bits = 0;
  for (const char c : text) {
    if (c == '=' || c == '\n' || c == '\r') continue;
    const char* at = c == 0 ? nullptr : std::strchr(kBase64, c);
    if (at == nullptr) throw bad_input(say("Base64 text was expected, not “{0}”.", std::string(1, c)));
    v = v << 6 | static_cast<std::uint32_t>(at - kBase64);
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      out += static_cast<char>(v >> bits & 255);
    }
  }
  return out;
}

}  // namespace doyen
