#include "finish/price.hpp"

#include <algorithm>
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

const Record<Rates>& rate_fields() {
  static const Record<Rates> fields = [] {
    using R = Rates;
    Record<R> f;
    const Range money{0, 1e6}, share{0, 1000};
    f.text("currency", &R::currency, 8).always();
    f.number("woodPerCubicMetre", &R::wood, money).always();
    f.number("wastePercent", &R::waste, share).always();
    f.number("machineHour", &R::machine, money).always();
    f.number("handHour", &R::hand, money).always();
    f.number("bitWearHour", &R::bits, money).always();
    f.number("coatSquareMetre", &R::finish, money).always();
    f.number("setupMinutes", &R::setup_minutes, {0, 10'000}).always();
    f.number("overheadPercent", &R::overhead, share).always();
    f.number("marginPercent", &R::margin, share).always();
    f.number("taxPercent", &R::tax, {0, 100}).always();
    return f;
  }();
  return fields;
}

std::string rates_path() { return user_file("rates.json"); }

// What it costs without overhead, a line each.
std::vector<PriceLine> lines_of(const Plan& plan, const FinishPlan& finish, const Rates& rates, double design) {
  std::vector<PriceLine> lines;
  const auto money = [&](double m) { return money_in_words(m, rates); };
  const auto hours = [](double minutes) { return format_number(minutes / 60, 2); };
  const auto add = [&](const std::string& what, const std::string& sum, double cost) {
    lines.push_back({what, sum, cost});
  };
  const Blank& blank = plan.job.blank;
  const double cube = blank.width * blank.height * blank.thickest() * 1e-9, bought = cube * (1 + rates.waste / 100);
  add(say("Wood"),
      say("{0} m³ and {1} % waste × {2}", format_number(cube, 5), format_number(rates.waste, 1), money(rates.wood)),
      bought * rates.wood);
  double in_wood = 0;
  for (const BitRun& run : plan.runs) in_wood += run.time.in_wood;
  add(say("Bits' wear"), say("{0} h in the wood × {1}", format_number(in_wood / 3600, 2), money(rates.bits)),
      in_wood / 3600 * rates.bits);
  const double at_machine = plan.cutting_seconds() / 60;
  add(say("Machine"), say("{0} h × {1}", hours(at_machine), money(rates.machine)), at_machine / 60 * rates.machine);
  const double changes = (plan.seconds - plan.cutting_seconds()) / 60;
  const double by_hand = rates.setup_minutes + changes + finish.hand_minutes() / finish.boards;
  add(say("By hand"), say("{0} h (setting up, bits, finish) × {1}", hours(by_hand), money(rates.hand)),
      by_hand / 60 * rates.hand);
  double coated = 0;
  for (const FinishQuantity& q : finish.quantities) coated += q.area * 1e-6 * q.coats / finish.boards;
  if (coated > 0)
    add(say("Finish"), say("{0} m² × {1}", format_number(coated, 3), money(rates.finish)), coated * rates.finish);
  if (design > 0) add(say("Design"), say("{0} h × {1}", hours(design), money(rates.hand)), design / 60 * rates.hand);
  return lines;
}

double total(const std::vector<PriceLine>& lines) {
  double sum = 0;
  for (const PriceLine& line : lines) sum += line.money;
  return sum;
}

double with_shares(double cost, const Rates& rates) {
  return cost * (1 + rates.overhead / 100) * (1 + rates.margin / 100);
}

}  // namespace

Rates read_rates(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  return rate_fields().read(JsonView(document, where));
}

Rates load_rates() {
  const std::string path = rates_path();
  return file_stands(path) ? read_rates(read_file(path), path) : Rates{};
}

void keep_rates(const Rates& rates) {
  keep_own_file(rates_path(), json_text(rate_fields().write(rates), 1) + "\n", say("The rates"), read_rates);
}

Price price_of(const Plan& plan, const FinishPlan& finish, const Rates& rates) {
  Price out;
  const double design = plan.job.finish.design_minutes / std::max(1, plan.job.finish.copies);
  out.lines = lines_of(plan, finish, rates, design);
  out.cost = total(out.lines);
  const double over = out.cost * rates.overhead / 100, margin = (out.cost + over) * rates.margin / 100;
  if (rates.overhead > 0) out.lines.push_back({say("Overhead"), say("{0} %", format_number(rates.overhead, 1)), over});
  if (rates.margin > 0) out.lines.push_back({say("Margin"), say("{0} %", format_number(rates.margin, 1)), margin});
  out.each = with_shares(out.cost, rates);
  out.tax = out.each * rates.tax / 100;
  out.one_more = with_shares(total(lines_of(plan, finish, rates, 0)), rates);
  return out;
}

std::string money_in_words(double money, const Rates& rates) {
  char text[64];
  std::snprintf(text, sizeof text, "%.2f", money);
  return std::string(text) + " " + rates.currency;
}

std::string quote_in_words(const Plan& plan) {
  const Rates rates = load_rates();
  if (!rates.said())
    throw bad_input(say("No rates are said yet: say under Finish, Price, what wood, machine and hours cost."));
  const Price price = price_of(plan, finish_plan(plan, finish_figures(plan), load_products()), rates);
  const int copies = std::max(1, plan.job.finish.copies);
  const auto money = [&](double amount) { return money_in_words(amount, rates); };
  const std::string words =
      copies > 1 ? say("{0} of them at {1} each, {2} in all", copies, money(price.each), money(copies * price.each))
                 : money(price.each);
  return rates.tax > 0
             ? say("{0}; with tax ({1} %) {2}.", words, format_number(rates.tax, 2), money(copies * price.with_tax()))
             : words + ".";
}

}  // namespace doyen
