#include "finish/shop_day.hpp"

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "fields/record.hpp"
#include "finish/finish_plan.hpp"
#include "json_reading.hpp"
#include "measure/list_entries.hpp"
#include "problem.hpp"
#include "storage/aside.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostClosed = 200;
constexpr auto kLongestClosed = std::chrono::days(366);

std::string day_in_words(std::chrono::local_days day) { return time_in_words(day).substr(0, 10); }

std::chrono::local_days day_of_words(const std::string& words) {
  const std::size_t from = words.find_first_not_of(" \t");
  if (from == std::string::npos)
    throw bad_input(say("A day such as 2026-12-24, or two such as 2026-12-24 – 2027-01-02, were expected."));
  const std::size_t to = words.find_last_not_of(" \t");
  return std::chrono::floor<std::chrono::days>(parse_time(words.substr(from, to - from + 1)));
}

// “2026-12-24” or “2026-12-24 – 2027-01-02”: whatever stands between two days parts them.
Closed closed_of(const std::string& words) {
  constexpr std::size_t kDay = 10;  // letters of a day
  std::string first = words.substr(std::min(words.size(), words.find_first_not_of(" \t")));
  std::string last = first;
  if (const std::size_t more = first.find_first_of("0123456789", std::min(first.size(), kDay));
      more != std::string::npos) {
    last = first.substr(more);
    first.resize(kDay);
  }
  const Closed closed{day_of_words(first), day_of_words(last)};
  if (closed.to < closed.from) throw bad_input(say("“{0}”: it ends before it begins.", words));
  if (closed.to - closed.from >= kLongestClosed) throw bad_input(say("“{0}”: this is more than a year.", words));
  return closed;
}

void read_closed(ShopDay& day, const JsonView& v) {
  if (!v.has("closed")) return;
  const Json& all = v.json().at("closed");
  if (!all.is_string()) throw v.wrong("closed", say("days such as 2026-12-24 were expected"));
  take_closed(day, all.get<std::string>());
}

const Record<ShopDay>& shop_day_fields() {
  static const Record<ShopDay> fields = [] {
    Record<ShopDay> f;
    f.number("opens", &ShopDay::begins, {0, 24}).always();
    f.number("closes", &ShopDay::ends, {0, 24}).always();
    f.number("daysAWeek", &ShopDay::days, {1, 7}).always();
    f.own(
        "closed", read_closed, [](const ShopDay& day) { return Json(closed_in_words(day)); },
        [](const ShopDay& day) { return !day.closed.empty(); });
    return f;
  }();
  return fields;
}

std::string shop_day_path() { return user_file("shop-day.json"); }

// “7”, “7:30” or “07.30”, in hours; what is none is negative.
double hours_of(const std::string& words) {
  int h = 0, min = 0;
  char colon = 0, end = 0;
  const int found = std::sscanf(words.c_str(), " %2d %c %2d %c", &h, &colon, &min, &end);
  const bool fine = (found == 1 || (found == 3 && (colon == ':' || colon == '.'))) && h >= 0 && min >= 0 && min < 60;
  return fine && h + min / 60.0 <= 24 ? h + min / 60.0 : -1;
}

std::string clock(double hours) {
  const int all = static_cast<int>(std::lround(hours * 60));
  char text[16];
  std::snprintf(text, sizeof text, "%d:%02d", all / 60, all % 60);
  return text;
}

}  // namespace

ShopDay read_shop_day(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  ShopDay day = shop_day_fields().read(JsonView(document, where));
  if (day.ends <= day.begins) throw bad_input(say("{0}: the shop closes before it opens.", where));
  return day;
}

ShopDay load_shop_day() {
  const std::string path = shop_day_path();
  return file_stands(path) ? read_shop_day(read_file(path), path) : ShopDay{};
}

void keep_shop_day(const ShopDay& day) {
  keep_own_file(shop_day_path(), json_text(shop_day_fields().write(day), 1) + "\n", say("The shop's hours"),
                read_shop_day);
}

std::string hours_in_words(const ShopDay& day) { return clock(day.begins) + "-" + clock(day.ends); }

void take_hours(ShopDay& day, const std::string& words) {
  std::string plain = words;
  for (std::size_t at = 0; (at = plain.find("–", at)) != std::string::npos;)
    plain.replace(at, std::string("–").size(), "-");
  const std::size_t dash = plain.find('-');
  const double begins = dash == std::string::npos ? -1 : hours_of(plain.substr(0, dash));
  const double ends = dash == std::string::npos ? -1 : hours_of(plain.substr(dash + 1));
  if (begins < 0 || ends < 0) throw bad_input(say("“{0}”: hours such as 8-18, or 7:30-16:00, were expected.", words));
  if (ends <= begins) throw bad_input(say("“{0}”: the shop closes before it opens.", words));
  day.begins = begins;
  day.ends = ends;
}

std::string closed_in_words(const ShopDay& day) {
  std::string words;
  for (const Closed& closed : day.closed) {
    words += (words.empty() ? "" : "; ") + day_in_words(closed.from);
    if (closed.to > closed.from) words += " – " + day_in_words(closed.to);
  }
  return words;
}

void take_closed(ShopDay& day, const std::string& words) {
  std::vector<Closed> all;
  for (const std::string& entry : list_entries(words)) all.push_back(closed_of(entry));
  if (all.size() > kMostClosed) throw bad_input(say("At most {0} days and spans of days were expected.", kMostClosed));
  std::sort(all.begin(), all.end(), [](const Closed& a, const Closed& b) { return a.from < b.from; });
  day.closed = std::move(all);
}

}  // namespace doyen
