#include <cstdio>

#include "cli/command.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "treatments/treatment.hpp"

namespace doyen::cli {

Plan plan_of(const Job& job, const std::string& unit) {
  MachineProfile machine = machine_for(job);
  if (!unit.empty()) {
    const Unit wanted = unit == "in" ? Unit::Inch : Unit::Millimetre;
    if (wanted != machine.unit) machine.decimals = wanted == Unit::Inch ? std::max(5, machine.decimals) : 4;
    machine.unit = wanted;
  }
  return plan(job, load_rack(), machine);
}

void say_verdicts(const Plan& p) {
  for (const Verdict& v : p.verdicts) {
    std::printf("%s  %s %s\n", to_word(v.grade), v.text.c_str(), v.why.c_str());
    for (const Remedy& r : v.remedies) std::printf("      remedy: %s\n", r.label.c_str());
  }
}

void say_unused(const Job& job) {
  for (const UnusedChoice& unused : unused_choices(job))
    std::fprintf(stderr, "note: “%s” makes no use of “%s” as it is cut (%s).\n", unused.piece.c_str(),
                 unused.key.c_str(), to_word(job.find(unused.piece)->cut.kind));
}

double cell_of(const std::string& text) {
  const double cell = parse_length(text, Unit::Millimetre);
  if (!(cell >= 0.005 && cell <= 50)) throw bad_input("--cell: from 0.005 to 50 mm was expected.");
  return cell;
}

}  // namespace doyen::cli
