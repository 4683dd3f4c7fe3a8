// import: a job around one drawing or picture.
#include <cstdio>

#include "artwork/piece.hpp"
#include "cli/command.hpp"
#include "cli/cut_options.hpp"
#include "files/imported.hpp"
#include "measure/length.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct Options {
  std::string file, width, lines, out;
  CutOptions cut;
};

int run(const Options& given) {
  const CutOptions& options = given.cut;
  const std::string &width = given.width, &lines = given.lines;
  const Imported found = read_artwork(given.file);
  for (const std::string& left : found.left_out) std::fprintf(stderr, "left out: %s\n", left.c_str());
  if (!found.sized && width.empty()) std::fprintf(stderr, "note: %s\n", found.assumed.c_str());
  Job job = options.start(found.drawing.name);
  Item item;
  item.piece.id = "drawing-1";
  item.piece.name = found.drawing.name;
  Drawing drawing = found.drawing;
  if (!width.empty()) {
    const double wanted = parse_length(width, Unit::Millimetre);
    if (!(wanted > 0.01)) throw bad_input("--width: a length above zero was expected.");
    drawing.scale = wanted / bounds(drawing_region(drawing)).width();
  }
  drawing.lines = options.treatment == "line" ? Drawing::Lines::Followed : Drawing::Lines::Wide;
  if (lines == "wide" || lines == "followed" || lines == "enclose")
    drawing.lines = lines == "wide"       ? Drawing::Lines::Wide
                    : lines == "followed" ? Drawing::Lines::Followed
                                          : Drawing::Lines::Enclose;
  else if (!lines.empty())
    throw Usage("--lines: wide, followed or enclose was expected, not “" + lines + "”.");
  item.piece.what = drawing;
  item.piece.at = job.blank.box().centre();
  item.cut = options.read(job, item.piece, load_rack());
  job.items.push_back(std::move(item));
  options.finish(job);
  save_job(job, given.out);
  return kFine;
}

}  // namespace

Command import_command() {
  return {"import", "A job around one SVG or DXF drawing or one picture, centred on the blank", [](Arguments& a) {
            auto o = std::make_shared<Options>();
            a.text("FILE", o->file, {}, Arguments::Needed);
            o->cut.add_to(a);
            a.text("--width", o->width, "Scale the drawing to this width");
            a.text("--lines", o->lines,
                   "What lines without a filling are: wide (as they are drawn), followed by the bit, or enclose "
                   "(outlines of areas)");
            a.text("--out", o->out, "The job file", Arguments::Needed);
            return [o] { return run(*o); };
          }};
}

}  // namespace doyen::cli
