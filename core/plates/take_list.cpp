// A list comes into a job.
#include <algorithm>
#include <map>

#include "plates/plates.hpp"
#include "treatments/start.hpp"
#include "treatments/suits.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::vector<Lettering*> letterings(Job& job) {
  std::vector<Lettering*> found;
  for (Item& item : job.items) {
    if (auto* l = std::get_if<Lettering>(&item.piece.what)) found.push_back(l);
  }
  return found;
}

bool has(const std::vector<std::string>& columns, const std::string& heading) {
  return std::find(columns.begin(), columns.end(), heading) != columns.end();
}

void rename_columns(Job& job, const std::map<std::string, std::string>& now) {
  const auto rename = [&](std::string& heading) {
    if (const auto it = now.find(heading); it != now.end()) heading = it->second;
  };
  for (Lettering* l : letterings(job)) rename(l->list.column);
  rename(job.plates.sorted_by);
}

}  // namespace

void take_list(Job& job, const PlateList& list, const Rack& rack) {
  PlateList& own = job.plates;
  const bool first = !own.there();
  own.source = list.source;
  own.columns = list.columns;
  own.rows = list.rows;
  own.headings = list.headings;
  own.only.clear();
  own.left_out.clear();
  if (!own.column(own.sorted_by)) own.sorted_by.clear();
  if (first) own.bit = id_of(flat_nearest(rack, 3));
  std::vector<Lettering*> all = letterings(job);
  if (std::any_of(all.begin(), all.end(), [](const Lettering* l) { return !l->list.column.empty(); })) return;
  std::stable_sort(all.begin(), all.end(),
                   [](const Lettering* a, const Lettering* b) { return a->cap_height > b->cap_height; });
  for (std::size_t i = 0; i < std::min(all.size(), own.columns.size()); ++i) all[i]->list.column = own.columns[i];
}

void set_headings(Job& job, bool first_row) {
  PlateList& list = job.plates;
  if (list.headings == first_row || list.rows.empty()) return;
  std::map<std::string, std::string> now;
  std::vector<ListRow>& rows = list.rows.edit();
  std::vector<std::string> headings;
  for (std::size_t i = 0; i < list.columns.size(); ++i) {
    std::string heading = first_row ? rows.front()[i] : say("Column {0}", i + 1);
    if (heading.empty()) heading = say("Column {0}", i + 1);
    const std::string stem = heading;
    for (int k = 2; has(headings, heading); ++k) heading = stem + " " + std::to_string(k);
    now[list.columns[i]] = heading;
    headings.push_back(heading);
  }
  const int by = first_row ? -1 : 1;
  if (first_row)
    rows.erase(rows.begin());
  else
    rows.insert(rows.begin(), list.columns);
  for (std::vector<int>* numbers : {&list.only, &list.left_out}) {
    for (int& number : *numbers) number += by;
    std::erase_if(*numbers, [](int number) { return number < 1; });
  }
  list.columns = headings;
  list.headings = first_row;
  rename_columns(job, now);
}

void show_row(Job& job, std::size_t row) {
  const PlateList& list = job.plates;
  if (row >= list.rows.size()) return;
  for (Item& item : job.items) {
    auto* l = std::get_if<Lettering>(&item.piece.what);
    if (l == nullptr) continue;
    const std::optional<std::size_t> column = list.column(l->list.column);
    if (!column) continue;
    const std::string& words = list.rows[row][*column];
    if (!words.empty()) l->words = words;
  }
}

void swap_columns(Job& job, const std::string& one, const std::string& other) {
  Item *a = job.find(one), *b = job.find(other);
  auto* first = a == nullptr ? nullptr : std::get_if<Lettering>(&a->piece.what);
  auto* second = b == nullptr ? nullptr : std::get_if<Lettering>(&b->piece.what);
  if (first == nullptr || second == nullptr || first == second) return;
  std::swap(first->list.column, second->list.column);
  std::swap(first->words, second->words);
  std::swap(a->piece.name, b->piece.name);
  first->kept = second->kept = {};
}

void letter_plate(Job& job, const Rack& rack) {
  constexpr double kShares[] = {0.26, 0.14}, kPlaces[] = {0.62, 0.27};  // of the plate's height
  const LookStart start{job.blank, job.lengths, rack, [](const Bit&) { return 0.0; }};
  for (std::size_t i = 0; i < std::min<std::size_t>(2, job.plates.columns.size()); ++i) {
    Lettering words;
    words.words = job.plates.columns[i];
    words.cap_height = job.blank.height * kShares[i];
    words.list.column = job.plates.columns[i];
    words.list.least = words.cap_height / 2;
    Item item;
    item.piece.id = job.fresh_id("lettering");
    item.piece.name = job.fresh_name(name_of_words(words.words));
    item.piece.what = words;
    item.piece.at = {job.blank.width / 2, job.blank.height * kPlaces[i]};
    item.cut = start_look(Treatment::Kind::Incise, Treatment{}, start);
    job.items.push_back(std::move(item));
  }
  if (!job.plates.rows.empty()) show_row(job, 0);
}

}  // namespace doyen
