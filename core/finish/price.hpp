// What a sign costs: wood, bits, machine, hands, finish, overhead, margin; each with its sum. All rates are the user's.
#pragma once

#include <string>
#include <vector>

#include "finish/finish_plan.hpp"

namespace doyen {

struct Rates {
  std::string currency = "€";
  double wood = 0;            // for a m³
  double waste = 20;          // per cent of wood bought beyond the blank
  double machine = 0;         // for an hour
  double hand = 0;            // for an hour
  double bits = 0;            // wear, for an hour in the wood
  double finish = 0;          // for a m² coated once
  double setup_minutes = 20;  // at the machine before the first cut, each time
  double overhead = 0;        // per cent of all that
  double margin = 0;          // per cent on top
  double tax = 0;             // per cent on top of the price
  friend bool operator==(const Rates&, const Rates&) = default;
  [[nodiscard]] bool said() const { return machine > 0 || hand > 0 || wood > 0; }
};

// The user's own, under the XDG data folder; nothing is said where there is no file. Both throw Problem.
Rates load_rates();
void keep_rates(const Rates& rates);
Rates read_rates(const std::string& json, const std::string& where);

struct PriceLine {
  std::string what, sum;
  double money = 0;
};
struct Price {
  std::vector<PriceLine> lines;  // of one, with what is spent once shared among all copies
  double cost = 0;               // before overhead
  double each = 0;               // of one, margin and all, without tax
  double tax = 0;                // on that
  double one_more = 0;           // what another one costs beyond those: no design, the same work else
  [[nodiscard]] double with_tax() const { return each + tax; }
};
Price price_of(const Plan& plan, const FinishPlan& finish, const Rates& rates);

// For the customer: “12 of them at 123.40 € each, 1480.80 € in all; with tax (20 %) 1776.96 €.” By the user's own
// rates; throws Problem{BadInput} where none are said.
std::string quote_in_words(const Plan& plan);

std::string money_in_words(double money, const Rates& rates);  // “123.40 €”

}  // namespace doyen
