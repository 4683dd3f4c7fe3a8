// A job from anywhere: planned, written for the machine, and read back.
#include "fuzz_target.hpp"
#include "planning/judged.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "run/gcode.hpp"

using namespace doyen;

namespace {

// What takes minutes is tried elsewhere.
bool small(const Job& job) {
  if (job.blank.width > 300 || job.blank.height > 300 || job.items.size() > 6) return false;
  for (const Item& item : job.items) {
    const auto* made = std::get_if<Derived>(&item.piece.what);
    if (made != nullptr && (made->columns * made->rows > 30 || made->count > 30 || made->steps > 5)) return false;
    const auto* words = std::get_if<Lettering>(&item.piece.what);
    if (words != nullptr && words->words.size() > 12) return false;
    const auto* art = std::get_if<Drawing>(&item.piece.what);
    if (art != nullptr && art->traced) return false;
  }
  return true;
}

}  // namespace

FUZZ_TARGET(planned) {
  try {
    const Job job = read_job(bytes, "job");
    if (!small(job)) return;
    const Plan p = plan(job, load_shipped_rack(), machine_for(job));
    if (p.seconds > 1800) return;
    for (const OutputFile& file : gcode_files(p)) {
      try {
        (void)read_gcode(file.text, file.name);
      } catch (const Problem& problem) {
        fuzz::broken(std::string("what is written for a machine can be read: ") + problem.what());
      }
    }
  } catch (const Problem&) {
  }
}
