// A finish on the calendar: when each step is done, and the file that other programs take.
#include <algorithm>
#include <cmath>
#include <cstdio>

#include "finish/finish_plan.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using std::chrono::days;
using std::chrono::floor;
using std::chrono::hours;
using std::chrono::minutes;
using std::chrono::seconds;

seconds of_minutes(double n) { return minutes(static_cast<long>(std::ceil(n))); }
seconds of_hours(double n) { return seconds(static_cast<long>(std::ceil(n * 3600))); }

// The first moment from `at` on at which so much work is begun.
ShopTime begun_at(ShopTime at, seconds work, const ShopDay& day) {
  for (;;) {
    const auto midnight = floor<days>(at);
    const ShopTime opens = midnight + of_hours(day.begins), closes = midnight + of_hours(day.ends);
    const unsigned weekday = std::chrono::weekday(midnight).iso_encoding();  // Monday is 1
    const bool longer = work > closes - opens;                               // than any day: it begins a day of its own
    if (at < opens) at = opens;
    const bool closed = std::any_of(day.closed.begin(), day.closed.end(),
                                    [&](const Closed& c) { return midnight >= c.from && midnight <= c.to; });
    const bool worked = weekday <= static_cast<unsigned>(day.days) && !closed;
    if (worked && at < closes && (at + work <= closes || (longer && at == opens))) return at;
    at = midnight + days(1) + of_hours(day.begins);
  }
}

std::string stamp(ShopTime when) {
  const auto midnight = floor<days>(when);
  const std::chrono::year_month_day date(midnight);
  const std::chrono::hh_mm_ss time(when - midnight);
  char text[32];
  std::snprintf(text, sizeof text, "%04d%02u%02uT%02d%02d%02d", static_cast<int>(date.year()),
                static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()),
                static_cast<int>(time.hours().count()), static_cast<int>(time.minutes().count()),
                static_cast<int>(time.seconds().count()));
  return text;
}

// RFC 5545, 3.3.11.
std::string escaped(const std::string& text) {
  std::string out;
  for (const char c : text) {
    if (c == '\\' || c == ';' || c == ',') out += '\\';
    if (c == '\n') {
      out += "\\n";
    } else if (c != '\r') {
      out += c;
    }
  }
  return out;
}

// A content line, folded after 75 octets and not within a letter (RFC 5545, 3.1).
void add_line(std::string& file, const std::string& line) {
  constexpr std::size_t kMost = 75;
  std::size_t room = kMost, from = 0;
  while (line.size() - from > room) {
    std::size_t end = from + room;
    while (end > from && (static_cast<unsigned char>(line[end]) & 0xC0) == 0x80) --end;
    file += line.substr(from, end - from) + "\r\n ";
    from = end;
    room = kMost - 1;  // the blank before it counts
  }
  file += line.substr(from) + "\r\n";
}

}  // namespace

std::vector<Appointment> schedule(const std::vector<FinishStep>& steps, ShopTime start, const ShopDay& day) {
  std::vector<Appointment> when;
  ShopTime at = start;
  for (std::size_t i = 0; i < steps.size(); ++i) {
    const seconds work = of_minutes(steps[i].minutes);
    const ShopTime begin = begun_at(at, work, day);
    when.push_back({i, begin, begin + work});
    at = begin + work + of_hours(steps[i].wait);
  }
  return when;
}

ShopTime ready_at(const std::vector<FinishStep>& steps, const std::vector<Appointment>& when) {
  return when.empty() ? ShopTime{} : when.back().end + of_hours(steps[when.back().step].wait);
}

ShopTime start_for(const std::vector<FinishStep>& steps, ShopTime ready, const ShopDay& day) {
  constexpr int kMostDays = 400;
  const ShopTime earliest = floor<days>(ready) - days(kMostDays) + of_hours(day.begins);
  for (ShopTime start = floor<minutes>(ready) - seconds((ready.time_since_epoch() % minutes(30))); start > earliest;
       start -= minutes(30)) {
    const std::vector<Appointment> when = schedule(steps, start, day);
    if (when.empty() || (ready_at(steps, when) <= ready && when.front().begin == start)) return start;
  }
  return earliest;
}

std::string time_in_words(ShopTime when) {
  const std::string s = stamp(when);
  return s.substr(0, 4) + "-" + s.substr(4, 2) + "-" + s.substr(6, 2) + " " + s.substr(9, 2) + ":" + s.substr(11, 2);
}

ShopTime parse_time(const std::string& words) {
  int y = 0, h = 0, min = 0;
  unsigned m = 0, d = 0;
  char end = 0;
  const int whole = std::sscanf(words.c_str(), "%d-%u-%u %d:%d%c", &y, &m, &d, &h, &min, &end);
  const int day_only = whole == 5 ? 0 : std::sscanf(words.c_str(), "%d-%u-%u%c", &y, &m, &d, &end);
  const std::chrono::year_month_day date{std::chrono::year(y), std::chrono::month(m), std::chrono::day(d)};
  const bool fine =
      (whole == 5 || day_only == 3) && date.ok() && y >= 1970 && y < 3000 && h >= 0 && h < 24 && min >= 0 && min < 60;
  if (!fine)
    throw bad_input(
        say("“{0}”: a day such as 2026-11-28, or with a time after it such as 14:30, was expected.", words));
  return std::chrono::local_days(date) + (whole == 5 ? hours(h) + minutes(min) : seconds(0));
}

std::string calendar_file(const FinishPlan& plan, const std::vector<Appointment>& when, const std::string& job,
                          const std::string& key, std::chrono::sys_seconds made) {
  std::string file;
  add_line(file, "BEGIN:VCALENDAR");
  add_line(file, "VERSION:2.0");
  add_line(file, "PRODID:-//Doyen//Finish//EN");
  for (const Appointment& each : when) {
    const FinishStep& step = plan.steps[each.step];
    add_line(file, "BEGIN:VEVENT");
    add_line(file, "UID:" + key + "-" + std::to_string(each.step + 1) + "@doyen");
    add_line(file, "DTSTAMP:" + stamp(ShopTime(made.time_since_epoch())) + "Z");
    add_line(file, "DTSTART:" + stamp(each.begin));
    add_line(file, "DTEND:" + stamp(std::max(each.end, each.begin + minutes(1))));
    add_line(file, "SUMMARY:" + escaped(job + ": " + step.words));
    std::string about = step.tools;
    if (!step.caution.empty()) about += (about.empty() ? "" : "\n") + step.caution;
    if (!about.empty()) add_line(file, "DESCRIPTION:" + escaped(about));
    add_line(file, "END:VEVENT");
  }
  add_line(file, "END:VCALENDAR");
  return file;
}

std::string finish_text(const FinishPlan& plan, const std::string& job, const std::vector<Appointment>& when) {
  std::string text = say("{0}: finish", job) + "\n\n";
  for (std::size_t i = 0; i < plan.steps.size(); ++i) {
    const FinishStep& step = plan.steps[i];
    text += std::to_string(i + 1) + ".  ";
    if (i < when.size()) text += time_in_words(when[i].begin) + "  ";
    text += step.words + " (" + format_duration(step.minutes * 60) + ")\n";
    if (!step.tools.empty()) text += "    " + step.tools + "\n";
    if (!step.caution.empty()) text += "    ! " + step.caution + "\n";
    if (step.wait > 0) text += "    " + say("then wait {0} h", format_number(step.wait, 1)) + "\n";
  }
  text += "\n";
  for (const FinishQuantity& quantity : plan.quantities) text += quantity.words + "\n";
  if (!plan.paint_map.empty()) text += "\n" + say("Colours, in this order:") + "\n";
  for (const std::string& line : plan.paint_map) text += "  " + line + "\n";
  for (const std::string& warning : plan.warnings) text += "! " + warning + "\n";
  if (!when.empty()) text += "\n" + say("Ready on {0}.", time_in_words(ready_at(plan.steps, when))) + "\n";
  return text;
}

}  // namespace doyen
