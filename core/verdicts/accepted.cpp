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

bool is_accepted(const Job& job, const std::string& name) {
  return std::find(job.run.accepted.begin(), job.run.accepted.end(), name) != job.run.accepted.end();
}

std::string reason_for(const Job& job, const std::string& name) {
  for (const AcceptedReason& reason : job.run.reasons) {
    if (reason.of == name) return reason.because;
  }
  return {};
}

void take_acceptances(const Job& job, std::vector<Verdict>& verdicts) {
  for (Verdict& v : verdicts) {
    const std::string name = acceptance_name(v);
    if (v.accepted || v.grade == Grade::Note || !is_accepted(job, name)) continue;
    v.accepted = true;
    v.because = reason_for(job, name);
    v.grade = v.grade == Grade::Stop ? Grade::Mind : Grade::Note;
    const std::string said =
        v.because.empty() ? say("You have accepted it.") : say("You have accepted it: {0}", v.because);
    v.why += (v.why.empty() ? "" : " ") + said;
  }
}

}  // namespace doyen
