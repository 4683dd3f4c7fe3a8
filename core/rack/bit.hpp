// A bit: a cutting tool, as nominal figures and as measured. The only place where a bit's profile is known.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "measure/id.hpp"

namespace doyen {

enum class BitKind { V, Flat, Ball, Taper, Keyhole };
enum class CutDirection { UpCut, DownCut, Compression, Straight };

inline constexpr double kMostFeed = 100'000;  // mm/min; files and fields take no more

// For one class of wood. Zero means: not known for this wood.
struct Feeds {
  double feed = 0;            // mm/min, sideways
  double plunge = 0;          // mm/min, straight down
  double rpm = 0;             // spindle turns a minute
  double depth_per_pass = 0;  // mm; zero takes half the diameter
  [[nodiscard]] bool known() const { return feed > 0 && plunge > 0 && rpm > 0; }
  friend bool operator==(const Feeds&, const Feeds&) = default;
};

struct Bit {
  BitId id;          // stable, such as "v60" or "flat-1/8in"
  std::string name;  // such as "60° V, 1/2 in body"
  BitKind kind = BitKind::V;
  double diameter = 0;     // mm, nominal: the body's, over the cutting edges
  double angle = 0;        // degrees, included; V, engraving cones and tapers
  double tip = 0;          // mm: the tip flat's diameter; for a tapered ball the ball's
  double neck = 0;         // mm, of keyhole bits: the shank's diameter above the head
  double head_height = 0;  // mm, of keyhole bits
  int flutes = 2;
  CutDirection direction = CutDirection::Straight;
  double flute_length = 0;                  // mm that can be buried in the wood
  bool centre_cutting = true;               // may be plunged
  std::optional<double> measured_diameter;  // mm
  std::optional<double> measured_angle;     // degrees
  // What a test ladder showed of this bit on this machine: mm more contact than reckoned for sloped inlays, and mm of
  // allowance a side for upright ones.
  std::optional<double> ladder_contact{}, ladder_allowance{};
  std::vector<WoodId> tested{};        // woods in which a test cut came out well (planning/test_cut.hpp)
  std::map<std::string, Feeds> feeds;  // by wood class: soft, hard, sheet, plastic, metal

  [[nodiscard]] double true_diameter() const { return measured_diameter.value_or(diameter); }
  [[nodiscard]] double true_angle() const { return measured_angle.value_or(angle); }
  [[nodiscard]] double tan_half() const;                              // tan(α/2)
  [[nodiscard]] double body_depth() const;                            // mm: the greatest depth before the shank scrapes
  [[nodiscard]] Feeds feeds_in(const std::string& wood_class) const;  // all zero where none are kept
  [[nodiscard]] double depth_per_pass(const std::string& wood_class) const;  // mm, D/2 where nothing is kept
  // Height of the cutting edge above the tip at this distance from the axis, mm; infinite beyond the body.
  [[nodiscard]] double profile(double from_axis) const;
  // How far from the axis it cuts at this depth below the ground, mm: the profile the other way round.
  [[nodiscard]] double half_width_at(double depth) const;
  // mm across what it levels where it goes once: a flat bit's diameter, the flat tip of an engraving cone; else zero.
  [[nodiscard]] double levels() const;
  // Of a tapered ball, a ball joined with a cone: where the two touch.
  struct BallEnd {
    double radius = 0;  // mm, the ball's
    double touch = 0;   // mm from the axis
    double height = 0;  // mm above the tip
  };
  [[nodiscard]] BallEnd ball_end() const;
  friend bool operator==(const Bit&, const Bit&) = default;
};

// feed / (rpm × flutes), mm a tooth (standard machining handbooks).
double chip_load(const Bit& bit, const Feeds& feeds);

// Between these a tooth cuts: below it rubs and burns, above it may break or tear. mm a tooth, by the bit's diameter
// and the wood class (common practice, from memory: about 1 to 3.5 per cent of the diameter in wood, a third of it in
// metal).
struct ChipBounds {
  double least = 0, most = 0;
};
ChipBounds chip_bounds(const Bit& bit, const std::string& wood_class);

struct Rack {
  std::vector<Bit> bits;
  std::string unknown{};  // JSON: what a newer Doyen, or the user, wrote beside it; kept on saving
  [[nodiscard]] const Bit* find(const BitId& id) const;
  friend bool operator==(const Rack&, const Rack&) = default;
};

// Reads and writes the rack's JSON (data/rack.json and the user's own). Throws Problem{BadInput}.
Rack read_rack(const std::string& json, const std::string& where);
std::string write_rack(const Rack& rack);
// The rack `base` with what was changed from `before` to `after`: what somebody else changed in it meanwhile stays.
Rack with_changes(const Rack& base, const Rack& before, const Rack& after);

const char* to_word(BitKind kind);            // v, flat, ball, taper, keyhole
const char* to_word(CutDirection direction);  // up-cut, down-cut, compression, straight

}  // namespace doyen
