// Parts that are laid on boards: none at all, none that a board has room for, and pieces that go on no board.
#include <algorithm>
#include <cmath>

#include "nesting/nest.hpp"
#include "problem.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::string listed(const Job& job, const std::vector<std::string>& ids) {
  std::string words;
  for (const std::string& id : ids) {
    const Item* item = job.find(id);
    words += (words.empty() ? "“" : ", “") + (item == nullptr ? id : item->piece.name) + "”";
  }
  return words;
}

Remedy leave_out(const std::vector<std::string>& ids) {
  return {ids.size() == 1 ? say("Leave it out") : say("Leave them out"), [ids](Job& job) {
            for (const std::string& id : ids) {
              Item* item = job.find(id);
              if (item == nullptr) continue;
              item->cut.kind = Treatment::Kind::None;
              item->cut.left_uncut = true;
            }
          }};
}

void check_pieces_laid(const Situation& s, const NestParts& drawn, std::vector<Verdict>& out) {
  const auto say_of = [&](const std::vector<std::string>& ids, const char* code, const std::string& text,
                          const std::string& why) {
    if (ids.empty()) return;
    const Item* item = s.job.find(ids.front());
    const Point at = item == nullptr ? Point{} : bounds(s.job.outlines(*item)).centre();
    out.push_back({Grade::Mind, code, ids.front(), at, text, why, {leave_out(ids)}});
  };
  say_of(drawn.beside, "nest-beside",
         say("{0}: lies in no part, and is on none of the boards.", listed(s.job, drawn.beside)),
         say("Parts are what is cut out, with all that lies in them."));
  say_of(drawn.over_several, "nest-over-several",
         say("{0}: lies over several parts, and is on none of the boards.", listed(s.job, drawn.over_several)),
         say("Parts are laid apart: what runs from one to the next would not meet again."));
}

double board_side(double mm, Unit unit) {
  const double step = unit == Unit::Inch ? kMmPerInch / 2 : 10;
  return std::ceil(mm / step - 1e-9) * step;
}

// Boards to be added until all have room: as large as the job's own, or as the largest part without one needs.
void offer_boards(const Situation& s, const Nested& laid, std::vector<Remedy>& remedies) {
  Box largest;
  for (const std::size_t part : laid.without) {
    const Box box = bounds(laid.drawn.parts[part].shape);
    largest.add(Box{0, 0, box.width(), box.height()});
  }
  const double margin = 2 * nest_margin(s.job, laid.drawn) + 4;  // and what cells take
  const Unit unit = s.job.lengths.unit;
  const NestBoard own{s.job.blank.width, s.job.blank.height};
  const NestBoard needed{board_side(largest.width() + margin, unit), board_side(largest.height() + margin, unit)};
  std::vector<NestBoard> sizes{needed};
  if (own.width >= needed.width && own.height >= needed.height) sizes.insert(sizes.begin(), own);
  for (const NestBoard& size : sizes) {
    for (const int more : {1, 2, 4}) {
      Job tried = s.job;
      std::vector<NestBoard>& boards = tried.nest.boards;
      if (boards.size() + static_cast<std::size_t>(more) > kMostNestBoards) break;
      boards.insert(boards.end(), static_cast<std::size_t>(more), size);
      if (!nested(tried, s.rack).without.empty()) continue;
      remedies.push_back(
          {say("Take {0} more {0|board|boards} of {1} × {2}", more, s.show(size.width), s.show(size.height)),
           [boards](Job& job) { job.nest.boards = boards; }});
      break;
    }
    if (!remedies.empty()) return;
  }
}

void check_room(const Situation& s, const Nested& laid, std::vector<Verdict>& out) {
  if (laid.without.empty()) return;
  const NestPart& first = laid.drawn.parts[laid.without.front()];
  std::vector<Remedy> remedies;
  if (s.job.nest.turn != NestChoices::Turn::Any) {
    Job tried = s.job;
    tried.nest.turn = NestChoices::Turn::Any;
    if (nested(tried, s.rack).without.empty())
      remedies.push_back(
          {say("Turn parts any way, across the grain, too"), [](Job& job) { job.nest.turn = NestChoices::Turn::Any; }});
  }
  std::vector<Remedy> boards;
  offer_boards(s, laid, boards);
  std::move(boards.begin(), boards.end(), std::back_inserter(remedies));
  const Box box = bounds(first.shape);
  out.push_back({Grade::Stop, "nest-no-room", first.piece, box.centre(),
                 laid.without.size() == 1
                     ? say("No board has room for {0}.", first.name)
                     : say("No board has room for {0} parts, {1} first.", laid.without.size(), first.name),
                 say("It is {0} × {1}; the bit and the wood beside it need {2} on each side.", s.show(box.width()),
                     s.show(box.height()), s.show(nest_margin(s.job, laid.drawn))),
                 std::move(remedies)});
}

}  // namespace

void check_nest(const Situation& s, std::vector<Verdict>& out) {
  if (!s.job.made_as_parts()) return;
  try {
    const Nested laid = nested(s.job, s.rack);
    if (laid.drawn.parts.empty()) {
      out.push_back({Grade::Stop,
                     "nest-no-parts",
                     "",
                     s.job.blank.box().centre(),
                     say("Nothing is cut out, so that there is nothing to lay on boards."),
                     say("Parts are what is cut out, with all that lies in them."),
                     {{say("Cut this board as it is drawn"), [](Job& job) { job.nest.wanted = false; }}}});
      return;
    }
    check_room(s, laid, out);
    check_pieces_laid(s, laid.drawn, out);
  } catch (const Problem&) {
    return;  // of its outlines: said of the piece
  }
}

}  // namespace doyen
