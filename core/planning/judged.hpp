// A plan's written files before the judge (judge/judge.hpp): read back, and held against what the job wants.
#pragma once

#include "judge/judge.hpp"
#include "planning/outputs.hpp"

namespace doyen {

// What the files do, operation by operation, by the independent reader. Throws Problem{BadInput} when a file cannot be
// read, has no end, or holds more or fewer bits than the plan.
std::vector<Worked> worked_by(const Plan& plan, const std::vector<OutputFile>& files);

// The whole board, both sides. `cell`: mm.
Judgement judge_files(const Plan& plan, const std::vector<OutputFile>& files, double cell, const Cancel& cancel = {},
                      JudgeMemory* memory = nullptr);

// Cells fine enough for the whole board at a glance, and before anything is written, mm.
double glancing_cell(const Blank& blank);
double writing_cell(const Blank& blank);

// The faults as verdicts: gouge, bite, plunge, rub and rapid are stops unless the job accepts them by name.
std::vector<Verdict> verdicts_of(const Judgement& judgement, const Job& job, const Rack& rack);
// Adds them to the plan's own, gravest first; what an earlier judging said goes.
void add_judgement(Plan& plan, const Judgement& judgement);
// Gravest first, else as they stand.
void sort_by_grade(std::vector<Verdict>& verdicts);
// What of the faults stands in the way of writing: stops that nobody accepted.
bool spoils(const Judgement& judgement, const Job& job);

// For plan.json: judge{gouge{mm,mm2}, left{mm,mm2}, missed{mm,mm2}, bite, plunge, rub, air, rapid, within, cell,
// faults[]}.
Json judgement_json(const Judgement& judgement);

// The plan's remedies as they turn out: each is taken on a copy of the job, planned and judged. Those that do not lift
// their verdict, change nothing, or bring a graver one are dropped; the others say what they do to the time.
std::vector<Verdict> with_tried_remedies(const Plan& plan, const Rack& rack, PlanCache* cache = nullptr,
                                         const Cancel& cancel = {});

// “cut as wanted, to within 0.02 mm” or what is wrong, for sheet and screen.
std::string judged_in_words(const Judgement& judgement, const LengthStyle& lengths);

}  // namespace doyen
