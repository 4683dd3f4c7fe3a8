// offcuts: what is left of boards, kept with its place, and which of it a job could be cut from.
#include <cstdio>

#include "cli/command.hpp"
#include "job/off_cuts.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "stock/species.hpp"

namespace doyen::cli {
namespace {

struct OffCutOptions {
  std::string job, wood, along, across, thick, place, remove;
  bool inches = false;
};

void list(const std::vector<OffCut>& all, const LengthStyle& style) {
  for (const OffCut& one : all)
    std::printf("%s  %s, %s × %s × %s%s%s\n", one.id.c_str(), one.species.c_str(),
                size_in_words(one.along, style).c_str(), size_in_words(one.across, style).c_str(),
                size_in_words(one.thickness, style).c_str(), one.place.empty() ? "" : ", ", one.place.c_str());
}

int run_off_cuts(const OffCutOptions& o) {
  const Unit unit = o.inches ? Unit::Inch : Unit::Millimetre;
  if (!o.wood.empty()) {
    if (species_table().find(o.wood) == nullptr)
      throw bad_input("--wood: there is no wood “" + o.wood + "” in the table.");
    if (o.along.empty() || o.across.empty() || o.thick.empty())
      throw Usage("--wood needs --along, --across and --thick.");
    const std::string aside = keep_off_cut(
        {{}, o.wood, parse_length(o.along, unit), parse_length(o.across, unit), parse_length(o.thick, unit), o.place});
    if (!aside.empty()) std::fprintf(stderr, "The file could not be read; it is kept as %s.\n", aside.c_str());
  }
  if (!o.remove.empty()) (void)drop_off_cut(o.remove);
  const std::vector<OffCut> all = load_off_cuts();
  LengthStyle style;
  style.unit = unit;
  list(o.job.empty() ? all : fitting(all, load_job(o.job).blank), style);
  return kFine;
}

}  // namespace

Command offcuts_command() {
  return {"offcuts", "What is left of boards: kept, and which of it a job could be cut from", [](Arguments& a) {
            auto o = std::make_shared<OffCutOptions>();
            a.text("--for", o->job, "Only those that this job's board could be cut from, the smallest first");
            a.text("--wood", o->wood, "Keep one of this wood, such as white-oak");
            a.text("--along", o->along, "Its length with the grain");
            a.text("--across", o->across, "Its width across the grain");
            a.text("--thick", o->thick, "Its thickness");
            a.text("--place", o->place, "Where it lies");
            a.text("--remove", o->remove, "The id of one that is gone");
            a.flag("--inches", o->inches, "Lengths without a unit are inches");
            return [o] { return run_off_cuts(*o); };
          }};
}

}  // namespace doyen::cli
