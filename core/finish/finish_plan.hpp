// The finish as steps in order, with waits and quantities; and the same on a calendar.
#pragma once

#include <chrono>
#include <string>
#include <vector>

#include "finish/finish_figures.hpp"
#include "finish/products.hpp"
#include "finish/shop_day.hpp"

namespace doyen {

struct FinishStep {
  enum class When { BeforeRun, Run, AfterRun };
  When when = When::AfterRun;
  std::string words;
  std::string tools;    // and grits
  std::string caution;  // beside it
  double minutes = 0;   // of work by hand; of the run, at the machine
  double wait = 0;      // hours until the next step may begin
};

struct FinishQuantity {
  std::string product;  // its name
  double area = 0;      // mm², of one coat
  int coats = 1;
  double litres = 0;  // all coats, a tenth more for cup and brush; of film 0
  std::string words;  // such as “Paint, black: 4.2 dm² twice, 9 ml”
};

struct FinishPlan {
  std::vector<FinishStep> steps;
  std::vector<FinishQuantity> quantities;
  std::vector<std::string> paint_map;         // which colour goes where, in the order in which they are put on
  std::vector<std::string> warnings;          // made for indoors, film not measured
  int boards = 1;                             // that steps and quantities are for: a list's plates
  [[nodiscard]] double hand_minutes() const;  // all but the run's
};

// By the job's school and choices. Empty where nothing was said. Resin is poured where pieces ask for it, whatever the
// school. A job with a list of plates: for all of them, each taken as this one. Minutes by hand: 5 and 25 a m² for a
// coat, 8 and 60 a m² for sanding (common practice, no source).
FinishPlan finish_plan(const Plan& plan, const FinishFigures& figures, const ProductTable& products,
                       const Cancel& cancel = {});

// Local time, as a clock on the shop's wall shows it.
using ShopTime = std::chrono::local_seconds;

struct Appointment {
  std::size_t step = 0;
  ShopTime begin, end;
};
// From `start` on: a step that does not fit into what is left of a day begins on the next that is worked, unless it is
// longer than a day.
std::vector<Appointment> schedule(const std::vector<FinishStep>& steps, ShopTime start, const ShopDay& day = {});
// The latest start, on a half hour, with which all waits are over by then; none within 400 days before: the earliest.
ShopTime start_for(const std::vector<FinishStep>& steps, ShopTime ready, const ShopDay& day = {});
// When the last wait is over.
ShopTime ready_at(const std::vector<FinishStep>& steps, const std::vector<Appointment>& when);

std::string time_in_words(ShopTime when);  // 2026-11-28 14:30
// 2026-11-28, or with a time after it. Throws Problem{BadInput} for what is no day.
ShopTime parse_time(const std::string& words);

// RFC 5545, floating local times; `made` is when, in UTC, and `key` what the events are known by again.
std::string calendar_file(const FinishPlan& plan, const std::vector<Appointment>& when, const std::string& job,
                          const std::string& key, std::chrono::sys_seconds made);
// The plan as plain text, with times where there are any.
std::string finish_text(const FinishPlan& plan, const std::string& job, const std::vector<Appointment>& when);

}  // namespace doyen
