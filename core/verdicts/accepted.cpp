#include "verdicts/accepted.hpp"

#include <algorithm>

#include "wording/say.hpp"

namespace doyen {

std::string acceptance_name(const Verdict& verdict) { return verdict.code + "/" + verdict.piece; }

void accept(Job& job, const std::string& name, const std::string& because) {
  take_back_acceptance(job, name);
  job.run.accepted.push_back(name);
  if (!because.empty()) job.run.reasons.push_back({name, because});
}

void take_back_acceptance(Job& job, const std::string& name) {
  std::erase(job.run.accepted, name);
  std::erase_if(job.run.reasons, [&](const AcceptedReason& reason) { return reason.of == name; });
}

std::string reason_for(const Job& job, const std::string& name) {
  for (const AcceptedReason& reason : job.run.reasons) {
    if (reason.of == name) return reason.because;
  }
  return {};
}

void show_accepted(const Job& job, Verdict& verdict) {
  const std::string name = acceptance_name(verdict);
  verdict.accepted = true;
  verdict.because = reason_for(job, name);
  verdict.grade = verdict.grade == Grade::Stop ? Grade::Mind : Grade::Note;
  const std::string said =
      verdict.because.empty() ? say("You have accepted it.") : say("You have accepted it: {0}", verdict.because);
  verdict.why += (verdict.why.empty() ? "" : " ") + said;
  verdict.remedies.push_back({say("Take that back"), [name](Job& after) { take_back_acceptance(after, name); }, true});
}

void take_acceptances(const Job& job, std::vector<Verdict>& verdicts) {
  if (job.run.accepted.empty()) return;
  for (Verdict& v : verdicts) {
    const auto& names = job.run.accepted;
    if (!v.accepted && v.grade != Grade::Note &&
        std::find(names.begin(), names.end(), acceptance_name(v)) != names.end())
      show_accepted(job, v);
  }
}

}  // namespace doyen
