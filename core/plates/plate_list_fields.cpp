#include "plates/plate_list_fields.hpp"

#include <set>

#include "wording/say.hpp"

namespace doyen {
namespace {

void read_rows(PlateList& list, const JsonView& v) {
  if (!v.has("rows")) return;
  std::vector<ListRow>& rows = list.rows.edit();
  for (const Json& each : v.array("rows", kMostRows)) {
    if (!each.is_array() || each.size() > list.columns.size())
      throw v.wrong("rows", say("rows of at most {0} texts, one a column, were expected", list.columns.size()));
    ListRow row;
    for (const Json& entry : each) {
      if (!entry.is_string()) throw v.wrong("rows", say("texts were expected"));
      row.push_back(entry.get<std::string>());
    }
    row.resize(list.columns.size());
    rows.push_back(std::move(row));
  }
}

Json write_rows(const PlateList& list) {
  Json rows = Json::array();
  for (const ListRow& row : list.rows) rows.push_back(fields::json_of(row));
  return rows;
}

void add_numbers(Record<PlateList>& f, const char* key, std::vector<int> PlateList::*member) {
  f.own(
       key,
       [=](PlateList& list, const JsonView& v) {
         if (!v.has(key)) return;
         for (const Json& each : v.array(key, kMostRows)) {
           if (!each.is_number_integer() || each.get<double>() < 1 || each.get<double>() > kMostRows)
             throw v.wrong(key, say("numbers of rows, counted from 1, were expected"));
           (list.*member).push_back(each.get<int>());
         }
       },
       [=](const PlateList& list) {
         Json numbers = Json::array();
         for (const int row : list.*member) numbers.push_back(row);
         return numbers;
       },
       [=](const PlateList& list) { return !(list.*member).empty(); })
      .takes("a list of rows, counted from 1");
}

const Record<StripChoices>& strip_fields() {
  static const Record<StripChoices> fields = [] {
    using S = StripChoices;
    Record<S> f;
    f.flag("wanted", &S::wanted).always();
    f.number("ends", &S::ends, {0, 5000}).always();
    f.number("least", &S::least, {1, 20'000}).always();
    f.number("step", &S::step, {0, 1000}).always();
    f.number("kerf", &S::kerf, {0, 20}).always();
    f.number("plate", &S::plate, {0, 20'000});
    f.number("offMiddle", &S::off_middle, {-20'000, 20'000});
    f.own(
         "boards",
         [](S& strips, const JsonView& v) {
           if (!v.has("boards")) return;
           for (const Json& each : v.array("boards", 500)) {
             if (!each.is_number() || each.get<double>() < 1 || each.get<double>() > 20'000)
               throw v.wrong("boards", say("lengths of boards, mm, were expected"));
             strips.boards.push_back(each.get<double>());
           }
         },
         [](const S& strips) {
           Json list = Json::array();
           for (const double length : strips.boards) list.push_back(length);
           return list;
         },
         [](const S& strips) { return !strips.boards.empty(); })
        .takes("a list of lengths, mm");
    return f;
  }();
  return fields;
}

}  // namespace

const Record<PlateList>& plate_list_fields() {
  static const Record<PlateList> fields = [] {
    using P = PlateList;
    Record<P> f;
    f.text("source", &P::source, 400);
    f.texts("columns", &P::columns, kMostColumns, "a list of headings was expected").always();
    f.flag("headings", &P::headings);
    f.own("rows", read_rows, write_rows, [](const P&) { return true; }).takes("a list of lists of texts");
    add_numbers(f, "only", &P::only);
    add_numbers(f, "leftOut", &P::left_out);
    f.text("sortedBy", &P::sorted_by);
    f.number("sheetWidth", &P::sheet_width, {5, 20'000}).always();
    f.number("sheetHeight", &P::sheet_height, {5, 20'000}).always();
    f.number("margin", &P::margin, {0, 2000}).always();
    f.number("gap", &P::gap, {0, 2000}).always();
    f.text("bit", &P::bit);
    f.number("corner", &P::corner, {0, 5000});
    f.number("tabs", &P::tabs, {0, 50});
    f.number("skin", &P::skin, {0, 50});
    f.record("strips", &P::strips, strip_fields());
    f.afterwards([](P& list, const JsonView& v) {
      std::set<std::string> headings;
      for (const std::string& heading : list.columns) {
        if (!headings.insert(heading).second) throw v.wrong("columns", say("“{0}” stands there twice", heading));
      }
    });
    return f;
  }();
  return fields;
}

const Record<FromList>& from_list_fields() {
  static const Record<FromList> fields = [] {
    using F = FromList;
    Record<F> f;
    f.text("column", &F::column).needed();
    f.number("room", &F::room, {0, 20'000});
    f.number("leastCapHeight", &F::least, {0, 20'000});
    f.flag("twoLines", &F::two_lines);
    f.flag("oneSize", &F::one_size);
    f.number("narrowest", &F::narrowest, {0, 100});
    return f;
  }();
  return fields;
}

}  // namespace doyen
