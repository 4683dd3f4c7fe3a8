// What the user accepts of what was found: it stays on view, a grade lower, with the reason.
#pragma once

#include "verdicts/verdict.hpp"

namespace doyen {

// What a job accepts a verdict by: its code and its piece.
std::string acceptance_name(const Verdict& verdict);
bool is_accepted(const Job& job, const std::string& name);
void accept(Job& job, const std::string& name, const std::string& because);
void take_back_acceptance(Job& job, const std::string& name);
// The reason; empty where none was given.
std::string reason_for(const Job& job, const std::string& name);

// What is accepted is a grade lower and says why.
void take_acceptances(const Job& job, std::vector<Verdict>& verdicts);

}  // namespace doyen
