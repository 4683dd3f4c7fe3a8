// readback: G-code read back and carved.
#include <filesystem>
#include <map>

#include "cli/command.hpp"
#include "files/png_write.hpp"
#include "json_reading.hpp"
#include "planning/outputs.hpp"
#include "storage/atomic_file.hpp"

namespace doyen::cli {
namespace {

struct ReadbackOptions {
  std::vector<std::string> files;
  std::string plan, height, cell = "0.2mm";
  bool back = false;
};

int run_readback(const ReadbackOptions& options) {
  const Json p = parse_json(read_file(options.plan), options.plan);
  std::map<std::string, std::string> files;
  for (const std::string& path : options.files)
    files[std::filesystem::path(path).filename().string()] = read_file(path);
  write_npy(carve_files(p, options.plan, files, cell_of(options.cell), options.back ? Side::Back : Side::Front),
            options.height);
  return kFine;
}

}  // namespace

Command readback_command() {
  return {"readback", "Read G-code back and carve it", [](Arguments& a) {
            auto o = std::make_shared<ReadbackOptions>();
            a.texts("FILES", o->files, {}, Arguments::Needed);
            a.text("--plan", o->plan, {}, Arguments::Needed);
            a.text("--height", o->height, {}, Arguments::Needed);
            a.text("--cell", o->cell);
            a.flag("--back", o->back, "The back, with the board turned over");
            return [o] { return run_readback(*o); };
          }};
}

}  // namespace doyen::cli
