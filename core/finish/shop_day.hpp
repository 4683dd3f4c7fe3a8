// When the shop works by hand. One file of the user's own, which all jobs share, under the XDG data folder.
#pragma once

#include <string>

namespace doyen {

struct ShopDay {
  double begins = 8, ends = 18;  // hours after midnight: work by hand is done between; waits go on
  int days = 7;                  // of the week, from Monday on, that are worked
  friend bool operator==(const ShopDay&, const ShopDay&) = default;
};

ShopDay load_shop_day();  // as it is above where nothing was said; throws Problem
void keep_shop_day(const ShopDay& day);
ShopDay read_shop_day(const std::string& json, const std::string& where);

std::string hours_in_words(const ShopDay& day);  // 8:00-18:00
// Such as 8-18 or 7:30-16:00, into `day`. Throws Problem{BadInput} for what is none, and for an end before its
// beginning.
void take_hours(ShopDay& day, const std::string& words);

}  // namespace doyen
