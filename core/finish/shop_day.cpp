#include "finish/shop_day.hpp"

#include <cmath>
#include <cstdio>

#include "fields/record.hpp"
#include "json_reading.hpp"
#include "problem.hpp"
#include "storage/aside.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

const Record<ShopDay>& shop_day_fields() {
  static const Record<ShopDay> fields = [] {
    Record<ShopDay> f;
    f.number("opens", &ShopDay::begins, {0, 24}).always();
    f.number("closes", &ShopDay::ends, {0, 24}).always();
    f.number("daysAWeek", &ShopDay::days, {1, 7}).always();
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
  const ShopDay day = shop_day_fields().read(JsonView(document, where));
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

}  // namespace doyen
