#include "files/cut_list.hpp"

#include <algorithm>

#include "files/paper.hpp"
#include "plates/plates.hpp"
#include "plates/strips.hpp"
#include "stock/species.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

struct Strips {
  const Job& job;
  std::vector<std::size_t> rows;
  std::vector<double> lengths;
  [[nodiscard]] std::string show(double mm) const { return size_in_words(mm, job.lengths); }
  [[nodiscard]] std::string words(std::size_t strip) const {
    std::string all;
    for (const std::string& each : words_of_row(job, rows[strip])) all += (all.empty() ? "" : " · ") + each;
    return all;
  }
};

void line_of(Paper& sheet, const Strips& strips, std::size_t strip) {
  sheet.need(17);
  cairo_t* cr = sheet.cr();
  cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
  cairo_set_line_width(cr, 0.9);
  cairo_rectangle(cr, kEdge + 1, sheet.y + 2, 10, 10);
  cairo_stroke(cr);
  sheet.text(std::to_string(strip + 1), kEdge + 20, sheet.y, 34, 12, true);
  sheet.text(strips.show(strips.lengths[strip]), kEdge + 56, sheet.y, 90, 12, true);
  const double high = sheet.text(strips.words(strip), kEdge + 150, sheet.y, kPageWidth - 2 * kEdge - 150, 11);
  sheet.y += std::max(16.0, high + 2);
}

// The board as a bar, its strips with their numbers, what is left hatched by a word.
void bar_of(Paper& sheet, const Strips& strips, const SawnBoard& board, double longest, double kerf) {
  const double scale = (kPageWidth - 2 * kEdge) / longest, high = 20;
  cairo_t* cr = sheet.cr();
  double at = 0;
  for (const std::size_t strip : board.strips) {
    const double x = kEdge + at * scale, w = strips.lengths[strip] * scale;
    cairo_set_source_rgb(cr, 0.95, 0.91, 0.84);
    cairo_rectangle(cr, x, sheet.y, w, high);
    cairo_fill_preserve(cr);
    cairo_set_source_rgb(cr, kInk.r, kInk.g, kInk.b);
    cairo_set_line_width(cr, 0.8);
    cairo_stroke(cr);
    sheet.text(std::to_string(strip + 1), x + std::max(1.0, w / 2 - 6), sheet.y + 3, std::max(14.0, w), 11, true);
    at += strips.lengths[strip] + kerf;
  }
  cairo_set_source_rgb(cr, kFaded.r, kFaded.g, kFaded.b);
  cairo_set_line_width(cr, 0.8);
  cairo_rectangle(cr, kEdge, sheet.y, board.length * scale, high);
  cairo_stroke(cr);
  sheet.y += high + 5;
}

}  // namespace

std::string cut_list_pdf(const Job& job) {
  const Strips strips{job, plate_rows(job.plates), strip_lengths(job)};
  const StripChoices& choices = job.plates.strips;
  const CutList list = cut_list(strips.lengths, choices.boards, choices.kerf);
  Paper sheet;
  sheet.paragraph(say("{0}: cut list", job.name), 20, true);
  const Species* species = species_table().find(job.blank.species);
  sheet.paragraph(
      say("{0} {0|strip|strips} of {1}, {2} wide, {3} thick. The saw takes {4}. Write its number on the back "
          "of each strip as it is sawn: its files lie in the folder of that number.",
          strips.rows.size(), species == nullptr ? std::string(job.blank.species) : species->name,
          strips.show(job.blank.height), depth_in_words(job.blank.thickest(), job.lengths),
          depth_in_words(choices.kerf, job.lengths)),
      11);
  sheet.paragraph(say("Eyes and ears covered, hands clear of the blade, short strips held by a stop block or a clamp. "
                      "The saw's own instructions and local rules come first."),
                  10, false, kBrick);
  if (choices.boards.empty()) {
    double all = 0;
    for (const double length : strips.lengths) all += length + choices.kerf;
    sheet.paragraph(say("No boards were named: in all {0} of board, sawing included.", strips.show(all)), 11, true);
    sheet.y += 4;
    for (std::size_t i = 0; i < strips.rows.size(); ++i) line_of(sheet, strips, i);
    return sheet.finish();
  }
  const double longest = *std::max_element(choices.boards.begin(), choices.boards.end());
  int number = 1;
  for (const SawnBoard& board : list.boards) {
    sheet.need(80);
    sheet.y += 6;
    sheet.paragraph(say("Board {0}, {1} long; {2} stay", number++, strips.show(board.length), strips.show(board.left)),
                    13, true, kPlum);
    bar_of(sheet, strips, board, longest, choices.kerf);
    for (const std::size_t strip : board.strips) line_of(sheet, strips, strip);
  }
  if (!list.without.empty()) {
    sheet.y += 6;
    sheet.paragraph(say("No board is left for these"), 13, true, kBrick);
    for (const std::size_t strip : list.without) line_of(sheet, strips, strip);
  }
  return sheet.finish();
}

}  // namespace doyen
