// outlines: every piece as filled paths or closed polylines.
#include "cli/command.hpp"
#include "files/outlines_out.hpp"
#include "files/svg/svg_write.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

namespace doyen::cli {
namespace {

struct OutlinesOptions {
  std::string job, svg, dxf;
  bool as_drawn = false;
};

int run_outlines(const OutlinesOptions& options) {
  const std::string &svg = options.svg, &dxf = options.dxf;
  const bool as_drawn = options.as_drawn;
  if (svg.empty() && dxf.empty()) throw Usage("outlines needs --svg FILE or --dxf FILE.");
  const Job job = load_job(options.job);
  if (!dxf.empty()) save_outlines_of(job, dxf);
  if (svg.empty()) return kFine;
  std::vector<NamedRegion> regions;
  double width = job.blank.width, height = job.blank.height;
  for (const Item& item : job.items) {
    const auto* drawing = std::get_if<Drawing>(&item.piece.what);
    if (as_drawn && drawing != nullptr) {
      regions.push_back({item.piece.id, drawing_region_as_drawn(*drawing)});
      width = drawing->page_width;
      height = drawing->page_height;
    } else if (!as_drawn) {
      regions.push_back({item.piece.id, outlines_of(item.piece, job.source()).region});
    }
  }
  if (as_drawn && regions.empty()) throw bad_input(options.job + ": --as-drawn needs a drawing in the job.");
  write_file_atomically(svg, write_svg(regions, width, height, !as_drawn));
  return kFine;
}

}  // namespace

Command outlines_command() {
  return {"outlines", "Every piece's outlines in mm, as filled SVG paths or as DXF", [](Arguments& a) {
            auto o = std::make_shared<OutlinesOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--svg", o->svg);
            a.text("--dxf", o->dxf, "Closed polylines in mm, a layer for each piece");
            a.flag("--as-drawn", o->as_drawn, "On the drawing's own page");
            return [o] { return run_outlines(*o); };
          }};
}

}  // namespace doyen::cli
