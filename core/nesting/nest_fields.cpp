#include "nesting/nest_fields.hpp"

#include "measure/length.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

double side_of(const Json& side, const JsonView& v) {
  if (!side.is_number() || !(side.get<double>() >= 1 && side.get<double>() <= kLargestNestBoard))
    throw v.wrong("boards", say("boards' sides, 1 to {0} mm, were expected", format_number(kLargestNestBoard, 0)));
  return side.get<double>();
}

void read_boards(NestChoices& nest, const JsonView& v) {
  if (!v.has("boards")) return;
  for (const Json& each : v.array("boards", kMostNestBoards)) {
    if (!each.is_array() || each.size() != 2)
      throw v.wrong("boards", say("two sides for each board were expected, such as [1200, 600]"));
    nest.boards.push_back({side_of(each[0], v), side_of(each[1], v)});
  }
}

}  // namespace

const Record<NestChoices>& nest_fields() {
  static const Record<NestChoices> fields = [] {
    using N = NestChoices;
    Record<N> f;
    f.flag("wanted", &N::wanted);
    f.own(
         "boards", read_boards,
         [](const N& nest) {
           Json list = Json::array();
           for (const NestBoard& board : nest.boards) list.push_back(Json::array({board.width, board.height}));
           return list;
         },
         [](const N& nest) { return !nest.boards.empty(); })
        .takes("a list of boards, each [left to right, front to back], mm");
    f.number("gap", &N::gap, {0, 200});
    f.number("margin", &N::margin, {0, 500});
    f.choice("turn", &N::turn,
             Words<N::Turn>{{"never", N::Turn::Never}, {"half", N::Turn::Half}, {"any", N::Turn::Any}});
    return f;
  }();
  return fields;
}

}  // namespace doyen
