// A board that a job asks for beside its own: of plugs, inserts, the board again to be milled level, a sheet of plates,
// a strip with a name, a panel of a large sign, a board that parts are laid on.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

// One plug on its board and the pocket that it is for.
struct PlugPlace {
  std::string piece;       // id of the inlay in the carrying job, and of the plug in its own
  Point pocket;            // mm, the middle of the art on the carrying board
  Point plug;              // mm, the middle of the mirrored art on the plug's board
  bool half_turn = false;  // it lies turned by 180° there
  // Where a place of the carrying board lies on the plug's when the plug is turned over onto it.
  [[nodiscard]] Point on_plug(Point p) const {
    const Point d = p - pocket;
    return half_turn ? Point{plug.x + d.x, plug.y - d.y} : Point{plug.x - d.x, plug.y + d.y};
  }
};

struct FurtherBoard {
  enum class Kind { Plugs, Inserts, Levelling, Sheet, Strip, Panel, Parts };
  Kind kind = Kind::Plugs;
  Job job;                          // a job of its own: planned, proved and written like any other
  std::string folder;               // that its files go to, beside the carrying board's own
  std::string title{};              // of strips and panels: number and words
  std::vector<PlugPlace> places{};  // of plugs and inserts
};

}  // namespace doyen
