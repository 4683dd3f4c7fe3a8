// import: a job around one drawing or picture.
#include <algorithm>
#include <cstdio>

#include "artwork/artwork_fields.hpp"
#include "cli/command.hpp"
#include "cli/cut_options.hpp"
#include "files/imported.hpp"
#include "measure/length.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct ImportOptions {
  std::string file, width, lines, out;
  CutOptions cut;
};

Drawing::Lines line_use(const std::string& asked) {
  std::string known;
  for (const auto& [word, lines] : line_words()) {
    if (asked == word) return lines;
    known += (known.empty() ? "" : ", ") + std::string(word);
  }
  throw Usage("--lines: one of " + known + " was expected, not “" + asked + "”.");
}

// Lines without a filling that close are mostly meant as areas: that is said where an area is asked for.
void say_of_lines(const Drawing& drawing) {
  if (!std::all_of(drawing.parts.begin(), drawing.parts.end(), [](const Drawing::Part& p) { return p.line; })) return;
  Drawing areas = drawing;
  areas.lines = Drawing::Lines::Enclose;
  if (!drawing_region(areas).empty())
    std::fprintf(stderr,
                 "note: the drawing is all lines, carved as wide as they are drawn; --lines enclose takes what "
                 "they enclose.\n");
}

int run_import(const ImportOptions& given) {
  const CutOptions& options = given.cut;
  const Imported found = read_artwork(given.file);
  for (const std::string& left : found.left_out) std::fprintf(stderr, "left out: %s\n", left.c_str());
  if (!found.sized && given.width.empty()) std::fprintf(stderr, "note: %s\n", found.assumed.c_str());
  Drawing drawing = found.drawing;
  if (!given.width.empty()) {
    const double wanted = parse_length(given.width, Unit::Millimetre);
    if (!(wanted > 0.01)) throw bad_input("--width: a length above zero was expected.");
    drawing.scale = wanted / bounds(drawing_region(drawing)).width();
  }
  if (!given.lines.empty()) {
    drawing.lines = line_use(given.lines);
  } else if (options.treatment == to_word(Treatment::Kind::Line)) {
    drawing.lines = Drawing::Lines::Followed;
  } else {
    say_of_lines(drawing);
  }
  options.save_piece(options.start(drawing.name), {"drawing-1", drawing.name, drawing, {}, 0}, given.out);
  return kFine;
}

}  // namespace

Command import_command() {
  return {"import", "A job around one SVG or DXF drawing or one picture, centred on the blank", [](Arguments& a) {
            auto o = std::make_shared<ImportOptions>();
            a.text("FILE", o->file, {}, Arguments::Needed);
            o->cut.add_to(a);
            a.text("--width", o->width, "Scale the drawing to this width");
            a.text("--lines", o->lines,
                   "What lines without a filling are: wide (as they are drawn), followed by the bit, or enclose "
                   "(outlines of areas)");
            a.text("--out", o->out, "The job file", Arguments::Needed);
            return [o] { return run_import(*o); };
          }};
}

}  // namespace doyen::cli
