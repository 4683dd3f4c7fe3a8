// Tracing: a picture drawn from known outlines comes back within half a pixel; photographs, floods and damage.
#include <cairo.h>

#include <catch2/catch.hpp>

#include "coverage.hpp"
#include "files/imported.hpp"
#include "geometry/polyline.hpp"
#include "problem.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;

namespace {

std::string png_of(cairo_surface_t* surface) {
  std::string bytes;
  cairo_surface_write_to_png_stream(
      surface,
      [](void* to, const unsigned char* data, unsigned n) {
        static_cast<std::string*>(to)->append(reinterpret_cast<const char*>(data), n);
        return CAIRO_STATUS_SUCCESS;
      },
      &bytes);
  return bytes;
}

// The region in black on paper whose brightness falls from left to right by `fall` (0 to 1).
std::string picture_of(const Region& region, double scale, int w, int h, double fall = 0, double turn = 0) {
  coverage::Sheet sheet(w, h);
  cairo_pattern_t* paper = cairo_pattern_create_linear(0, 0, w, 0);
  cairo_pattern_add_color_stop_rgb(paper, 0, 1, 1, 1);
  cairo_pattern_add_color_stop_rgb(paper, 1, 1 - fall, 1 - fall, 1 - fall);
  cairo_set_source(sheet.cr, paper);
  cairo_paint(sheet.cr);
  cairo_pattern_destroy(paper);
  cairo_set_source_rgb(sheet.cr, 0.1 * (1 - fall), 0.1 * (1 - fall), 0.1 * (1 - fall));
  cairo_translate(sheet.cr, w / 2.0, h / 2.0);
  cairo_rotate(sheet.cr, turn * M_PI / 180);
  cairo_translate(sheet.cr, -w / 2.0, -h / 2.0);
  cairo_scale(sheet.cr, scale, scale);
  coverage::trace_region(sheet.cr, region);
  cairo_fill(sheet.cr);
  return png_of(sheet.surface);
}

Region sprig_on_page() { return drawing_region_as_drawn(read_artwork(data_file("demo/sprig.svg")).drawing); }

Region a_ring() {
  return outlines_of({"r", "r", PlainShape{PlainShape::Kind::Ellipse, 60, 40, 0, 6}, {40, 30}, 0}).region;
}

Region traced_region(const Traced& t) {
  std::vector<Ring> rings;
  for (const Path& part : t.parts) {
    const Region r = clean(flatten(part, 0.02, true).closed, Fill::EvenOdd);
    for (const Island& i : r.islands) rings.insert(rings.end(), i.rings.begin(), i.rings.end());
  }
  return clean(rings);
}

// The farthest any point of one outline lies from the other.
double farthest(const Region& a, const Region& b) {
  double worst = 0;
  for (const Island& island : a.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); i += 3) worst = std::max(worst, distance_to_outline(b, ring[i]));
    }
  }
  return worst;
}

}  // namespace

TEST_CASE("a picture of round outlines comes back within half a pixel") {
  const double k = 12;  // px a mm
  const Region ring = outlines_of({"r", "r", PlainShape{PlainShape::Kind::Ellipse, 60, 40, 0, 6}, {40, 30}, 0}).region;
  const Region drawn = transformed(ring, Transform::scale(k, k));
  TraceSettings plain;
  plain.smoothness = 0;
  const Traced t = trace(TracePicture::read(picture_of(ring, k, 960, 720), "t.png"), plain);
  const Region back = traced_region(t);
  CHECK(back.islands.size() == 1);
  CHECK(farthest(back, drawn) < 0.5);
  CHECK(farthest(drawn, back) < 0.5);
  CHECK(t.points < 60);  // curves, not pixels
  CHECK(area(back) == Approx(area(drawn)).epsilon(0.005));
}

TEST_CASE("uneven light, a turned sheet and specks are dealt with") {
  const Region sprig = sprig_on_page();
  const double k = 1400 / std::max(bounds(sprig).right + 5, bounds(sprig).top + 5);
  const int w = static_cast<int>((bounds(sprig).right + 5) * k), h = static_cast<int>((bounds(sprig).top + 5) * k);
  const double meant = area(sprig) * k * k;
  const TracePicture dim = TracePicture::read(picture_of(sprig, k, w, h, 0.75), "dim.png");
  TraceSettings uneven;
  uneven.uneven = true;
  CHECK(area(traced_region(trace(dim, uneven))) == Approx(meant).epsilon(0.06));
  const TracePicture turned = TracePicture::read(picture_of(sprig, k, w, h, 0, 4), "turned.png");
  TraceSettings straight;
  straight.straighten = 4;
  const Region back = traced_region(trace(turned, straight));
  CHECK(bounds(back).width() == Approx(bounds(sprig).width() * k).epsilon(0.02));
  TraceSettings cropped;
  cropped.crop_right = 0.5;
  CHECK(trace(dim, cropped).width == Approx(w / 2).margin(2));
}

TEST_CASE("uneven light is found without being told, and a flat grey is not taken for it") {
  const Region sprig = sprig_on_page();
  const double k = 1400 / std::max(bounds(sprig).right + 5, bounds(sprig).top + 5);
  const int w = static_cast<int>((bounds(sprig).right + 5) * k), h = static_cast<int>((bounds(sprig).top + 5) * k);
  const double meant = area(sprig) * k * k;
  const Traced dim = trace(TracePicture::read(picture_of(sprig, k, w, h, 0.75), "dim.png"), {});
  CHECK(dim.uneven);
  CHECK(area(traced_region(dim)) == Approx(meant).epsilon(0.06));
  const Traced even = trace(TracePicture::read(picture_of(sprig, k, w, h), "even.png"), {});
  CHECK_FALSE(even.uneven);
  CHECK(area(traced_region(even)) == Approx(meant).epsilon(0.03));
  // Black, grey and white in flat parts.
  coverage::Sheet sheet(400, 300);
  cairo_set_source_rgb(sheet.cr, 1, 1, 1);
  cairo_paint(sheet.cr);
  for (int i = 0; i < 2; ++i) {
    cairo_set_source_rgb(sheet.cr, 0.5 * i, 0.5 * i, 0.5 * i);
    cairo_rectangle(sheet.cr, 20 + 190 * i, 40, 160, 200);
    cairo_fill(sheet.cr);
  }
  CHECK_FALSE(trace(TracePicture::read(png_of(sheet.surface), "flat.png"), {}).uneven);
}

TEST_CASE("colours are reduced to a few and picked") {
  coverage::Sheet sheet(300, 200);
  cairo_set_source_rgb(sheet.cr, 1, 1, 1);
  cairo_paint(sheet.cr);
  const double colours[][3] = {{0.8, 0.1, 0.1}, {0.1, 0.5, 0.1}, {0.05, 0.05, 0.2}};
  for (int i = 0; i < 3; ++i) {
    cairo_set_source_rgb(sheet.cr, colours[i][0], colours[i][1], colours[i][2]);
    cairo_rectangle(sheet.cr, 20 + 90 * i, 40, 70, 100 + 10 * i);
    cairo_fill(sheet.cr);
  }
  TraceSettings four;
  four.colours = 4;
  four.smoothness = 0;
  const TracePicture picture = TracePicture::read(png_of(sheet.surface), "c.png");
  for (int pick = 0; pick < 3; ++pick) {
    four.picked = {pick};
    const Traced t = trace(picture, four);
    CHECK(t.palette.size() == 4);
    CHECK(t.parts.size() == 1);
    CHECK(area(traced_region(t)) > 6500);
    CHECK(area(traced_region(t)) < 8700);
  }
  four.picked = {0, 1, 2};
  CHECK(trace(picture, four).parts.size() == 3);
}

TEST_CASE("a very large photograph is scaled down, hopeless ones are refused in a sentence") {
  const Region ring = a_ring();
  const TracePicture large = TracePicture::read(picture_of(ring, 90, 8000, 6200), "large.png");  // 50 megapixels
  CHECK(large.shrunk() < 0.6);
  CHECK(static_cast<double>(large.width()) * large.height() < kMostTracedPixels * 1.01);
  CHECK(trace(large, {}).parts.size() == 1);
  TraceSettings dark;
  dark.automatic = false;
  dark.cut = 1;
  CHECK_THROWS_WITH(trace(TracePicture::read(picture_of({}, 1, 200, 200), "white.png"), dark),
                    Catch::Contains("Nothing is left"));
  TraceSettings gone;
  gone.crop_left = gone.crop_right = 0.9;
  CHECK_THROWS_WITH(trace(large, gone), Catch::Contains("cropping"));
  const std::string png = picture_of(ring, 8, 800, 600);
  for (const std::size_t n : {std::size_t{0}, std::size_t{7}, std::size_t{30}, png.size() / 2})
    CHECK_THROWS_AS(TracePicture::read(png.substr(0, n), "cut.png"), Problem);
  CHECK_THROWS_WITH(TracePicture::read("GIF89a and more", "x.gif"), Catch::Contains("PNG, JPEG, BMP or WebP"));
  unsigned seed = 3;
  for (int round = 0; round < 60; ++round) {
    std::string broken = png;
    for (int k = 0; k < 6; ++k) {
      seed = seed * 1664525U + 1013904223U;
      broken[(seed >> 8) % broken.size()] = static_cast<char>(seed);
    }
    try {
      trace(TracePicture::read(broken, "b.png"), {});
    } catch (const Problem&) {
      continue;
    }
  }
}

TEST_CASE("a traced drawing keeps its picture and settings in the job") {
  const Region ring = a_ring();
  const Imported d = traced_drawing(TracePicture::read(picture_of(ring, 10, 800, 600), "r.png"), {}, "r.png");
  REQUIRE(d.drawing.traced);
  CHECK(TracePicture::read(from_base64(d.drawing.traced->png), "kept").width() == 800);
  CHECK(to_base64(from_base64("TWFycm93Ynk=")) == "TWFycm93Ynk=");  // published: RFC 4648's alphabet
  CHECK_THROWS_AS(from_base64("not*base64"), Problem);
}
