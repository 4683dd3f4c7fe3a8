// Everything that is cut out of the job, laid close together on boards, instead of where it is drawn.
#pragma once

#include <vector>

namespace doyen {

struct NestBoard {
  double width = 600, height = 300;  // mm; its grain runs as the job's blank says
  friend bool operator==(const NestBoard&, const NestBoard&) = default;
};

struct NestChoices {
  // How parts may be turned: by half a turn the grain runs along the part as before.
  enum class Turn { Never, Half, Any };
  bool wanted = false;
  std::vector<NestBoard> boards{};  // those there are; none: as many of the job's own blank as are needed
  double gap = 3;                   // mm of wood that stays between two slits
  double margin = 10;               // mm of wood that stays between a slit and the board's edge
  Turn turn = Turn::Half;
  [[nodiscard]] bool there() const { return wanted; }
  friend bool operator==(const NestChoices&, const NestChoices&) = default;
};

inline constexpr double kLargestNestBoard = 20'000;  // mm
inline constexpr std::size_t kMostNestBoards = 500;  // in the list

}  // namespace doyen
