// relief: the carved surface as a picture or as heights.
#include "cli/command.hpp"
#include "files/outputs.hpp"
#include "files/png_write.hpp"
#include "planning/outputs.hpp"

namespace doyen::cli {
namespace {

struct ReliefOptions {
  std::string job, png, height, cell = "0.2mm";
  bool back = false;
};

int run_relief(const ReliefOptions& options) {
  const Side side = options.back ? Side::Back : Side::Front;
  if (options.png.empty() && options.height.empty()) throw Usage("relief needs --png FILE or --height FILE.");
  const Plan p = plan_of(load_job(options.job));
  if (!options.png.empty()) write_png(board_picture(p, 1600, side), options.png);
  if (!options.height.empty())
    write_npy(relief_of(p, p.job.blank.box(), cell_of(options.cell), {}, side), options.height);
  return kFine;
}

}  // namespace

Command relief_command() {
  return {"relief", "The carved surface as a picture or as heights", [](Arguments& a) {
            auto o = std::make_shared<ReliefOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--png", o->png);
            a.text("--height", o->height, "NumPy .npy, float32 mm");
            a.text("--cell", o->cell, "Cell size, such as 0.1mm");
            a.flag("--back", o->back, "The back, with the board turned over");
            return [o] { return run_relief(*o); };
          }};
}

}  // namespace doyen::cli
