// The finish by the command line, and its drill template as poppler renders it: true to size, crosses where they are
// said.
#include <catch2/catch.hpp>
#include <opencv2/imgcodecs.hpp>

#include "command_line.hpp"
#include "files/hanging_template.hpp"
#include "rack/own_rack.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace command_line;

namespace {

// A PDF's first page at 10 dots a millimetre, in colour.
cv::Mat rendered(const std::string& pdf, const Folder& out) {
  write_file_atomically(out / "page.pdf", pdf);
  REQUIRE(run("pdftoppm -r 254 -f 1 -l 1 -singlefile -png " + (out / "page.pdf") + " " + (out / "page")).code == 0);
  return cv::imread(out / "page.png");
}

// Where dots of about this colour lie in a part of the page.
cv::Rect found(const cv::Mat& page, const cv::Scalar& colour, const cv::Rect& in) {
  cv::Mat mask;
  const cv::Scalar room(40, 40, 40);
  cv::inRange(page(in), colour - room, colour + room, mask);
  std::vector<cv::Point> dots;
  cv::findNonZero(mask, dots);
  REQUIRE_FALSE(dots.empty());
  cv::Rect box(dots.front(), cv::Size(1, 1));
  for (const cv::Point dot : dots) box |= cv::Rect(dot, cv::Size(1, 1));
  box.x += in.x;
  box.y += in.y;
  return box;
}

const cv::Scalar kInkDots(40, 42, 43), kPlumDots(111, 74, 91);  // blue, green, red

}  // namespace

TEST_CASE("the drill template is true to size, and its crosses lie where the hangers are said to go") {
  const Folder out;
  Job job;
  job.blank.width = 160;
  job.blank.height = 120;
  job.blank.readings = {40};  // heavy enough for none but one hanger
  const Plan p = plan(job, load_rack(), machine_for(job));
  Hanging hanging = hanging_of(p, finish_figures(p));
  hanging.places = {{40, 90}, {120, 90}};
  const cv::Mat page = rendered(hanging_template_pdf(p, hanging), out);
  REQUIRE(page.cols == Approx(2100).margin(3));
  // The sign's outline: what is ink between the words above and the ruler below.
  const cv::Rect sign = found(page, kInkDots, {140, 215, 1820, 1900});
  CHECK(sign.width == Approx(1600).margin(5));
  CHECK(sign.height == Approx(1200).margin(5));
  const cv::Rect ruler = found(page, kInkDots, {140, 2560, 1012, 140});
  CHECK(ruler.width == Approx(1000).margin(6));
  // Each cross reaches 8 mm to all sides of its place; the upright arm stands alone above the level line.
  for (const Point place : hanging.places) {
    const int x = sign.x + static_cast<int>(place.x * 10);
    const cv::Rect arm = found(page, kPlumDots, {x - 15, sign.y + 100, 30, 600});
    CHECK(arm.x + arm.width / 2.0 == Approx(x).margin(16));
    CHECK(arm.y - sign.y == Approx((120 - place.y - 8) * 10).margin(6));
    CHECK(arm.height == Approx(160).margin(8));
  }
}

TEST_CASE("what comes after the machine is said and written by the command line, or refused in words") {
  const Folder out;
  const std::string gate = "finish " + data_file("demo/gate-sign.doyen");
  const Ended said = doyen_cli(gate + " --start \"2026-11-30 14:30\" --text " + (out / "f.txt") + " --calendar " +
                               (out / "f.ics") + " --hanging " + (out / "h.pdf"));
  INFO(said.said);
  CHECK(said.code == 0);
  CHECK_THAT(read_file(out / "f.txt"), Catch::Contains("2026-11-30 14:30  Sand") && Catch::Contains("Ready on "));
  CHECK_THAT(read_file(out / "f.ics"), Catch::Contains("DTSTART:20261130T143000\r\n"));
  CHECK_THAT(run("pdfinfo " + (out / "h.pdf")).said, Catch::Contains("Pages:           4"));
  CHECK_THAT(said.said, Catch::Contains("It weighs ") && Catch::Contains("So it hangs level."));
  CHECK_THAT(doyen_cli("finish " + data_file("demo/heron-plaque.doyen")).said, Catch::Contains("says no finish yet"));
  CHECK(doyen_cli(gate + " --start soon").code == 3);
  CHECK_THAT(doyen_cli(gate + " --start soon").said, Catch::Contains("a day such as 2026-11-28"));
  CHECK(doyen_cli(gate + " --start 2026-11-30 --ready 2026-12-24").code == 2);
  CHECK(doyen_cli(gate + " --calendar " + (out / "none.ics")).code == 2);
  CHECK_FALSE(fs::exists(out / "none.ics"));
}
