// The customer's sheet as poppler reads and draws it: the wording as it is carved, the size, a ruler that is true.
#include "files/customer_sheet.hpp"

#include <catch2/catch.hpp>
#include <opencv2/imgcodecs.hpp>

#include "command_line.hpp"
#include "files/outputs.hpp"
#include "rack/own_rack.hpp"
#include "storage/aside.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace command_line;

namespace {

Job demo(const char* name) { return load_job(data_file(std::string("demo/") + name + ".doyen")); }

std::string write_sheet(const Job& job, const Folder& out) {
  const Plan p = plan(job, load_rack(), machine_for(job));
  const std::string file = out / "sheet.pdf";
  const Picture picture = board_picture(p, 400);
  write_file_atomically(file, customer_sheet_pdf({{p, picture}}));
  return file;
}

}  // namespace

TEST_CASE("the customer's sheet is one page with the wording, letter by letter, the finished size and a line to sign") {
  const Folder out;
  for (const char* name : {"gate-sign", "heron-plaque", "sundial-plate", "dibber-board"}) {
    INFO(name);
    const Job job = demo(name);
    const std::string file = write_sheet(job, out);
    const std::string text = run("pdftotext -layout " + file + " -").said;
    CHECK(std::count(text.begin(), text.end(), '\f') == 1);
    CHECK_THAT(text, Catch::Contains(job.name));
    CHECK_THAT(text, Catch::Contains("Signature"));
    for (const std::string& line : carved_words(job)) CHECK_THAT(text, Catch::Contains("“" + line + "”"));
  }
  const std::string gate = run("pdftotext -layout " + write_sheet(demo("gate-sign"), out) + " -").said;
  // The outline that is cut out, not the blank of 24 by 9 in.
  const Plan p = plan(demo("gate-sign"), load_rack(), machine_for(demo("gate-sign")));
  const Box box = finished_box(p);
  CHECK(box.width() < 24 * kMmPerInch);
  CHECK_THAT(gate, Catch::Contains(size_in_words(box.width(), p.job.lengths)));
  CHECK_THAT(gate, Catch::Contains("Marrowby"));
}

TEST_CASE("words are spelled letter by letter, whatever letters they have") {
  CHECK(spelled("Oak") == "O a k   (3 characters)");
  CHECK(spelled("Ä é") == "Ä   é   (2 characters)");
  CHECK(spelled("x") == "x   (1 character)");
  Job job = demo("gate-sign");
  for (Item& item : job.items) item.cut.kind = Treatment::Kind::None;
  CHECK(carved_words(job).empty());  // what is not carved is not to be checked
  // Of plates from a list every row is checked, not the example.
  const Job labels = load_job(data_file("demo/bed-labels.doyen"));
  const std::vector<std::string> words = carved_words(labels);
  REQUIRE(words.size() == 260);
  CHECK(words.front() == "Common sage");
  CHECK(words.back() == "Allium schoenoprasum");
}

// At 254 dots an inch a millimetre is ten dots: the ruler's two ends stand 1,000 dots apart, or 4 in 1,016.
TEST_CASE("the ruler is true to size when the page is drawn at its own size", "[heavy]") {
  const Folder out;
  for (const bool inch : {false, true}) {
    Job job = demo("dibber-board");
    job.lengths.unit = inch ? Unit::Inch : Unit::Millimetre;
    const std::string file = write_sheet(job, out);
    REQUIRE(run("pdftoppm -r 254 -gray -png -singlefile " + file + " " + (out / "page")).code == 0);
    const cv::Mat page = cv::imread(out / "page.png", cv::IMREAD_GRAYSCALE);
    REQUIRE(page.cols == Approx(2100).margin(2));
    // The ruler's base: the row with the longest dark run that begins at the margin of 15 mm.
    int longest = 0;
    for (int y = 0; y < page.rows; ++y) {
      int x = 150;
      while (x < page.cols && page.at<unsigned char>(y, x) < 140) ++x;
      if (x - 150 < 1200) longest = std::max(longest, x - 150);
    }
    CHECK(longest == Approx(inch ? 1016 : 1000).margin(6));
  }
}

TEST_CASE("as a picture the sheet is what the PDF is, drawn by poppler, at 150 dots an inch") {
  const Folder out;
  const Job job = demo("gate-sign");
  const Plan p = plan(job, load_rack(), machine_for(job));
  const Picture board = board_picture(p, 400);
  const std::string pdf = out / "sheet.pdf", png = out / "sheet.png", drawn = out / "drawn";
  write_file_atomically(pdf, customer_sheet_pdf({{p, board}}));
  write_file_atomically(png, customer_sheet_png({{p, board}}));
  REQUIRE(run("pdftoppm -r 150 -png -singlefile " + pdf + " " + drawn).code == 0);
  const cv::Mat ours = cv::imread(png, cv::IMREAD_GRAYSCALE), theirs = cv::imread(drawn + ".png", cv::IMREAD_GRAYSCALE);
  REQUIRE_FALSE(ours.empty());
  REQUIRE_FALSE(theirs.empty());
  CHECK(ours.cols == Approx(1240).margin(1));
  CHECK(ours.rows == Approx(1754).margin(1));
  const cv::Rect both(0, 0, std::min(ours.cols, theirs.cols), std::min(ours.rows, theirs.rows));
  cv::Mat apart;
  cv::absdiff(ours(both), theirs(both), apart);
  // As dark, and in the same places but for a few dots: lines of text are a little higher where letters are hinted.
  const double dark = cv::mean(255 - theirs)[0];
  CHECK(dark > 20);
  CHECK(cv::mean(255 - ours)[0] == Approx(dark).epsilon(0.05));
  CHECK(cv::mean(apart)[0] < 0.4 * dark);
}

TEST_CASE("two signs stand on one page as A and B, with each one's size, the wording once where it is the same",
          "[heavy]") {
  const Folder out;
  Job small = demo("gate-sign"), other = demo("gate-sign");
  other.blank.species = "white-oak";
  for (const auto& [lettered, wordings] : {std::pair{false, 1}, std::pair{true, 2}}) {
    if (lettered) std::get<Lettering>(other.find("motto")->piece.what).words = "open from nine to five";
    const Plan a = plan(small, load_rack(), machine_for(small)), b = plan(other, load_rack(), machine_for(other));
    const Picture board_a = board_picture(a, 400), board_b = board_picture(b, 400);
    const std::string file = out / "two.pdf";
    write_file_atomically(file, customer_sheet_pdf({{a, board_a}, {b, board_b}}));
    const std::string text = run("pdftotext -layout " + file + " -").said;
    CHECK(std::count(text.begin(), text.end(), '\f') == wordings);  // two wordings of four lines take a second page
    CHECK_THAT(text, Catch::Contains("Western red cedar") && Catch::Contains("White oak"));
    CHECK_THAT(text, Catch::Contains("A.") && Catch::Contains("B."));
    std::size_t said = 0;
    for (std::size_t at = text.find("“Marrowby”"); at != std::string::npos; at = text.find("“Marrowby”", at + 1))
      ++said;
    CHECK(said == static_cast<std::size_t>(wordings));
    CHECK((text.find("open from nine to five") != std::string::npos) == lettered);
  }
  const std::string gate = data_file("demo/gate-sign.doyen"), png = out / "two.png";
  CHECK(doyen_cli("customer " + gate + " --beside " + data_file("demo/heron-plaque.doyen") + " --png " + png).code ==
        0);
  CHECK_FALSE(cv::imread(png).empty());
  CHECK(doyen_cli("customer " + gate + " --beside " + (out / "none.doyen") + " --png " + (out / "x.png")).code != 0);
}

TEST_CASE("a price stands on the sheet only where it is asked for, and then in all its parts", "[heavy]") {
  const Folder out;
  const std::string home = "XDG_DATA_HOME=" + (out / "data") + " XDG_CONFIG_HOME=" + (out / "config") + " ";
  Job job = demo("dibber-board");
  job.finish.copies = 12;
  save_job(job, out / "job.doyen");
  const std::string sheet = home + cli() + " customer " + (out / "job.doyen") + " --pdf " + (out / "sheet.pdf");
  const auto text = [&] { return run("pdftotext -layout " + (out / "sheet.pdf") + " -").said; };
  // Nobody said a rate yet: no page is written, and it is said what is missing.
  const Ended none = run(sheet + " --price");
  CHECK(none.code == 3);
  CHECK_THAT(none.said, Catch::Contains("No rates"));
  CHECK_FALSE(file_stands(out / "sheet.pdf"));
  // Only the setting up of 30 minutes at 40 an hour: 20 each; 240 in all; with a tax of 20 per cent 288. By hand.
  make_folder(out / "data/doyen");
  write_file_atomically(out / "data/doyen/rates.json", R"({"handHour":40,"setupMinutes":30,"taxPercent":20})");
  REQUIRE(run(sheet).code == 0);
  CHECK(text().find("Price") == std::string::npos);
  const Ended priced = run(sheet + " --price");
  INFO(priced.said);
  REQUIRE(priced.code == 0);
  INFO(text());
  CHECK_THAT(text(), Catch::Contains("Price: 12 of them at"));
  const std::string words = text().substr(text().find("Price:"));
  double each = 0, all = 0, taxed = 0;
  REQUIRE(std::sscanf(words.c_str(), "Price: 12 of them at %lf € each, %lf € in all; with tax (20 %%) %lf", &each, &all,
                      &taxed) == 3);
  CHECK(each >= 20);  // and the changes of bits by hand
  CHECK(all == Approx(12 * each).margin(0.06));
  CHECK(taxed == Approx(1.2 * all).margin(0.02));
}

TEST_CASE("who buys it sees the sign in the colours of its finish, and bare where none is said") {
  Job job = load_job(data_file("demo/gate-sign.doyen"));
  job.finish.school = FinishSchool::PaintSand;
  job.finish.colour = "blue";
  const auto bluish = [](const Job& of) {
    const Picture picture = finished_picture(plan(of, load_rack(), machine_for(of)), 500);
    std::size_t blue = 0;
    for (const std::uint32_t pixel : picture.pixels)
      blue += (pixel & 255U) > (pixel >> 16 & 255U) + 20 && pixel >> 24 != 0 ? 1U : 0U;
    return static_cast<double>(blue) / static_cast<double>(picture.pixels.size());
  };
  CHECK(bluish(job) > 0.01);
  job.finish.school = FinishSchool::Oil;
  CHECK(bluish(job) == 0);
}
