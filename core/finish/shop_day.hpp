// When the shop works by hand. One file of the user's own, which all jobs share, under the XDG data folder.
#pragma once

#include <chrono>
#include <string>
#include <vector>

namespace doyen {

// Days on which nobody works, the last one included.
struct Closed {
  std::chrono::local_days from, to;
  friend bool operator==(const Closed&, const Closed&) = default;
};

struct ShopDay {
  double begins = 8, ends = 18;  // hours after midnight: work by hand is done between; waits go on
  int days = 7;                  // of the week, from Monday on, that are worked
  std::vector<Closed> closed{};  // holidays
  friend bool operator==(const ShopDay&, const ShopDay&) = default;
};

ShopDay load_shop_day();  // as it is above where nothing was said; throws Problem
void keep_shop_day(const ShopDay& day);
ShopDay read_shop_day(const std::string& json, const std::string& where);

std::string hours_in_words(const ShopDay& day);  // 8:00-18:00
// Such as 8-18 or 7:30-16:00, into `day`. Throws Problem{BadInput} for what is none, and for an end before its
// beginning.
void take_hours(ShopDay& day, const std::string& words);

std::string closed_in_words(const ShopDay& day);  // 2026-12-24 – 2027-01-02; 2027-05-01
// Days and spans of days as above, in any order, into `day`; empty: none. Throws Problem{BadInput} for what is no day,
// for a span that ends before it begins, and for one of more than a year.
void take_closed(ShopDay& day, const std::string& words);

}  // namespace doyen
