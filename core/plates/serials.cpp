#include "plates/serials.hpp"

#include <algorithm>
#include <optional>

#include "plates/plate_list_fields.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

struct Serial {
  std::string before;
  std::size_t figures = 0;  // as many as were written
  unsigned long number = 0;
};

// None where it does not end in figures, or in more than nine of them.
std::optional<Serial> serial_in(std::string words) {
  const auto blank = [](char c) { return c == ' ' || c == '\t'; };
  while (!words.empty() && blank(words.back())) words.pop_back();
  while (!words.empty() && blank(words.front())) words.erase(words.begin());
  const std::size_t last = words.find_last_not_of("0123456789");
  const std::size_t from = last == std::string::npos ? 0 : last + 1, figures = words.size() - from;
  constexpr std::size_t kMostFigures = 9;
  if (figures == 0 || figures > kMostFigures) return {};
  return Serial{words.substr(0, from), figures, std::stoul(words.substr(from))};
}

std::string in_words(const Serial& first, unsigned long number) {
  const std::string figures = std::to_string(number);
  return first.before + std::string(first.figures > figures.size() ? first.figures - figures.size() : 0, '0') + figures;
}

struct Span {
  Serial first;
  unsigned long last = 0;
};
// At the dash on whose both sides a number stands, the second one written with the same beginning or none.
std::optional<Span> span_in(const std::string& words) {
  for (std::size_t dash = words.rfind('-'); dash != std::string::npos && dash > 0; dash = words.rfind('-', dash - 1)) {
    const std::optional<Serial> first = serial_in(words.substr(0, dash)), last = serial_in(words.substr(dash + 1));
    if (first && last && (last->before.empty() || last->before == first->before)) return Span{*first, last->number};
  }
  return {};
}

}  // namespace

std::vector<std::string> serial_numbers(const std::string& words, std::size_t rows) {
  const std::optional<Span> span = span_in(words);
  const std::optional<Serial> first = span ? std::optional(span->first) : serial_in(words);
  if (!first || (!span && rows == 0))
    throw bad_input(say("“{0}”: the first number and the last were expected, such as 1-40 or A01-A24.", words));
  if (span && span->last < first->number)
    throw bad_input(say("“{0}”: the last number is smaller than the first.", words));
  const std::size_t count = span ? span->last - first->number + 1 : rows;
  if (count > kMostRows) throw bad_input(say("At most {0} numbers were expected.", kMostRows));
  if (rows > 0 && count != rows)
    throw bad_input(
        say("“{0}” are {1} numbers; the list has {2} rows. The first number alone is enough.", words, count, rows));
  std::vector<std::string> numbers;
  for (std::size_t i = 0; i < count; ++i) numbers.push_back(in_words(*first, first->number + i));
  return numbers;
}

PlateList with_numbers(const PlateList& list, const std::string& words, const std::string& heading) {
  PlateList out = list;
  const std::vector<std::string> numbers = serial_numbers(words, list.there() ? list.rows.size() : 0);
  std::vector<ListRow>& rows = out.rows.edit();
  if (!list.there()) {
    out.source = words;
    out.columns = {heading};
    rows.clear();
    for (const std::string& number : numbers) rows.push_back({number});
    return out;
  }
  if (out.columns.size() >= kMostColumns) throw bad_input(say("At most {0} columns were expected.", kMostColumns));
  std::string own = heading;
  for (int k = 2; out.column(own); ++k) own = heading + " " + std::to_string(k);
  out.columns.push_back(own);
  for (std::size_t i = 0; i < rows.size(); ++i) {
    rows[i].resize(out.columns.size());
    rows[i].back() = numbers[i];
  }
  return out;
}

}  // namespace doyen
