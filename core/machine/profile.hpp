// A machine as a set of capabilities: what its controller understands and how its axes move.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "measure/length.hpp"

namespace doyen {

enum class BitChange {
  None,        // one file per bit; nothing is written for a change
  Pause,       // stop and wait for the user within one file
  ToolNumber,  // T and M6 words
};

// Where the machine drives to when it looks for its own zero, seen by who stands in front of it.
enum class HomeCorner { Unknown, LeftFront, RightFront, LeftBack, RightBack };

struct MachineProfile {
  std::string id, name;
  Unit unit = Unit::Millimetre;  // of the written G-code
  int decimals = 4;
  bool arcs = true;  // understands G2 and G3 in the XY plane
  bool line_numbers = false;
  BitChange bit_change = BitChange::None;
  std::string pause_word = "M0";
  bool dwell_in_ms = false;                           // G4's P counts milliseconds, not seconds
  bool keeps_length = false;                          // bits sit equally deep (collars, a setter): z is set once
  double spindle_least = 8000, spindle_most = 24000;  // turns a minute
  std::array<double, 3> travel{800, 600, 90};         // mm, x y z
  std::array<double, 3> rapid{5000, 5000, 2000};      // mm/min
  std::array<double, 3> feed_most{5000, 5000, 2000};  // mm/min
  std::array<double, 3> acceleration{400, 400, 200};  // mm/s²
  double corner_deviation = 0.02;                     // mm, δ of the corner rule
  // What holds back a controller that is slow: none of it is known of most, and then it is none.
  double moves_per_second = 0;  // how many moves of a file it takes in; 0: as many as come
  int moves_ahead = 0;          // how many it knows beyond the one that runs, so that it can stop; 0: all
  double least_step = 0;        // mm that its drives go at once: it stands no finer than that; 0: not known
  double clearance = 6;         // mm above the face for travel
  double spin_up_seconds = 4;
  double bit_change_seconds = 180;
  std::string unknown{};         // JSON: what a newer Doyen, or the user, wrote beside it; kept
  double plate = 0;              // mm: the touch plate that z is set with on this machine; 0: none
  bool takes_off_plate = false;  // the machine takes its thickness off by itself
  HomeCorner home = HomeCorner::Unknown;
  // Holes of the bed for dowels, in rows and columns: how far apart (0: none), how wide, and where one of them lies, mm
  // from the left front end of the travel.
  double hole_pitch = 0, hole_wide = 10, hole_x = 0, hole_y = 0;
  // Which way its axes count, seen by who stands in front of it: x to the right and y away from the user, if not said
  // otherwise. z always counts upwards, away from the work (ISO 841).
  bool x_left = false, y_near = false;
  // The bed, mm: how large it is (0: as large as the travel), and how far it reaches to the left and to the front
  // beyond the left front end of the travel.
  // How its files are called and framed: what stands behind the name's point, comments in (brackets) or behind a
  // semicolon, a line of % before and after, and the word that ends them.
  std::string file_ending = "nc";
  bool semicolons = false, percent_lines = false;
  std::string end_word = "M30";  // or M2
  double bed_wide = 0, bed_deep = 0, bed_left = 0, bed_front = 0;
  // Of a changer with numbered places: the bits' ids, the first in place 1; empty where none sits. No list: whoever
  // runs it puts them in as the files number them.
  std::vector<std::string> places{};
  // T of that bit: its place, else `otherwise`.
  [[nodiscard]] int tool_of(const std::string& bit, int otherwise) const {
    for (std::size_t i = 0; i < places.size(); ++i) {
      if (places[i] == bit) return static_cast<int>(i) + 1;
    }
    return otherwise;
  }
  friend bool operator==(const MachineProfile&, const MachineProfile&) = default;
};
inline constexpr int kMostPlaces = 99;

// Puts a bit into a place, out of any other that it had; 0: it has none then. Returns the id of what had to make way.
std::string put_into_place(MachineProfile& machine, const std::string& bit, int place);

struct MachineTable {
  std::vector<MachineProfile> machines;
  [[nodiscard]] const MachineProfile* find(const std::string& id) const;
};

// The file format “doyen-machines/1”; what stands in it is listed in profile.cpp. Both throw Problem{BadInput}.
MachineTable read_machines(const std::string& json, const std::string& where);
std::string write_machines(const MachineTable& table);

// Those that come with Doyen (data/machines.json), then the user's own (machine/own_machines.hpp). What was returned
// stays as it is, also when the user's own change meanwhile: the next call has them.
const MachineTable& machine_table();
// What may stand behind the point of a file for a machine: one to five letters or digits, and not a sheet's.
bool sound_file_ending(const std::string& ending);
bool comes_with_doyen(const std::string& machine);

}  // namespace doyen
