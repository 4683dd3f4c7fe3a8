// A job: one piece of work, as data. Planning reads it; only edits change it.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "artwork/piece.hpp"
#include "finish/finish_choices.hpp"
#include "machine/profile.hpp"
#include "measure/id.hpp"
#include "measure/length.hpp"
#include "nesting/nest_choices.hpp"
#include "panels/panel_choices.hpp"
#include "plates/plate_list.hpp"
#include "rack/bit.hpp"
#include "stock/blank.hpp"
#include "stock/fixture.hpp"
#include "stock/turn_over.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

struct Item {
  Piece piece;
  Treatment cut;
  std::string group{};  // pieces of one group are chosen together; empty: it stands alone
  friend bool operator==(const Item&, const Item&) = default;
};

enum class ZeroSurface { Face, Bed };
// As the board lies on the bed, seen by who stands in front of the machine.
enum class ZeroPlace {
  LeftFront,
  Centre,
  RightFront,
  LeftBack,
  RightBack,
  MiddleFront,
  MiddleLeft,
  MiddleRight,
  MiddleBack,
  Pin  // where the first turning pin stands, on both sides (holding/turning_pins.hpp)
};
// How the board lies on the bed against how it is drawn, seen from above: a quarter to the left is 90° anticlockwise.
enum class OnBed { AsDrawn, QuarterLeft, Half, QuarterRight };
// By what zero is found again when the board comes back to the machine after gluing.
enum class KeepZero { Corner, Marks, Pins };

// Why the user accepts what a check found: “code/id of the piece”, as in RunSettings::accepted.
struct AcceptedReason {
  std::string of, because;
  friend bool operator==(const AcceptedReason&, const AcceptedReason&) = default;
};

struct RunSettings {
  std::string machine = "mm-plain";
  bool one_file = false;
  ZeroSurface zero_surface = ZeroSurface::Face;
  ZeroPlace zero_place = ZeroPlace::LeftFront;
  double least_wood = 3;  // mm that must stay under grooves and floors
  std::string holding = "Screws in the waste at both ends, or clamps outside the outline.";
  TurnOver turn = TurnOver::LeftEdge;  // how the board is turned over when something is cut from its back
  bool low_travel = true;            // just above the face where nothing stands in the way; else always at full height
  std::map<BitId, Feeds> feeds{};    // this job's own by bit id, instead of the rack's for its wood
  std::vector<std::string> order{};  // bit ids as the user wants them; what must come first still does
  bool cut_out_last = true;          // bevels and cut-outs of a board with inlays wait for a second run, after gluing
  KeepZero keep_zero = KeepZero::Corner;
  std::optional<double> mill_level{};  // mm of plug left above the face by the saw, to be milled off; none: by hand
  // What the user accepts of what the checks and the judge found, by name: “gouge/id of the piece that is cut”.
  std::vector<std::string> accepted{};
  std::vector<AcceptedReason> reasons{};  // why, of those that a reason was given for
  std::vector<BitId> test_of{};           // the bits that this job, a test cut, tests
  std::string stops{};                    // where the board lies against: stops, a fence, and what wedges it there
  int made = 0;                           // how many boards were made by this job
  OnBed on_bed = OnBed::AsDrawn;
  bool look_round = false;  // a first file runs round the job in the air
  double plate = 0;         // mm of touch plate under the bit when z is set, that the files take off; 0: the user does
  double zero_below = 0;    // mm that zero lies below the blank's face, such as on a board that carries it
  Fixture fixture{};        // where it lies on the bed, and against what
  double waste_board = 0;   // mm thick, of what lies between the blank and the bed, to be cut into; 0: not said
  double zero_floor = 0;    // mm below the face: a sunk floor that is there already, which z is set on; 0: none
  friend bool operator==(const RunSettings&, const RunSettings&) = default;
};

// What lies under the bit when z is set is a slip of paper, not a plate.
inline bool by_paper(const RunSettings& run) { return run.plate > 0 && run.plate <= 0.3; }

// What must stay under grooves in a board that nothing was said about: 3 mm, of thin ones a quarter.
double usual_least_wood(const Blank& blank);

struct Job {
  std::string name = "New sign";
  LengthStyle lengths;
  Blank blank;
  std::vector<Item> items;  // drawn and cut in this order where nothing else decides
  RunSettings run;
  std::string unknown{};  // JSON: what a newer Doyen, or the user, wrote beside it; kept on saving
  PlateList plates{};     // where there is one, this board is the plate that all are made like (plates/plates.hpp)
  FinishChoices finish{};
  PanelChoices panels{};  // where there are some, this board is the whole sign as it hangs (panels/panels.hpp)
  NestChoices nest{};     // where it is wanted, what is cut out lies on boards of its own (nesting/nest.hpp)

  // It is not cut itself: plates are made like it, panels are made of it, or its parts are laid on other boards.
  [[nodiscard]] bool made_as_others() const { return plates.there() || panels.there() || nest.there(); }
  // Of the three, a list comes first, then seams.
  [[nodiscard]] bool made_as_panels() const { return panels.there() && !plates.there(); }
  [[nodiscard]] bool made_as_parts() const { return nest.there() && !panels.there() && !plates.there(); }
  [[nodiscard]] const Item* find(const std::string& id) const;
  [[nodiscard]] Item* find(const std::string& id);
  // Its pieces by id, for outlines_of(); valid as long as the job is.
  [[nodiscard]] PieceSource source() const;
  // The piece and everything that it is made from, itself first.
  [[nodiscard]] std::vector<const Piece*> with_sources(const Piece& piece) const;
  // The piece's outlines as they lie on the board, seen from the front: what is cut from the back is seen through the
  // wood, mirrored about its own middle, so that it reads right when the board is turned over. Throws as outlines_of().
  [[nodiscard]] Outlines outlines(const Item& item) const;
  [[nodiscard]] bool is_source(const std::string& id) const;  // something else is made from it
  // It only says how far the ground round a raised piece is sunk.
  [[nodiscard]] bool bounds_a_panel(const std::string& id) const;
  // Not cut, and serving nothing else, and nobody said that it should stay so.
  [[nodiscard]] bool undecided(const Item& item) const;
  [[nodiscard]] bool has_back() const;  // something is cut from the back
  // Moves a piece by so much on the board, whatever its place is counted in; nothing when there is none of that id.
  void shift(const std::string& id, Point by);
  [[nodiscard]] std::string fresh_id(const std::string& stem) const;
  [[nodiscard]] std::string fresh_name(const std::string& name) const;  // with a number when there is one of that name
  friend bool operator==(const Job&, const Job&) = default;
};

// The blank's thickness read anew; how much wood is kept under cuts follows where it was as usual.
void take_readings(Job& job, const std::vector<double>& readings);

// The job file, "doyen-job/1" (docs/job-format.md). Throws Problem{BadInput} with file, place and expectation.
Job read_job(const std::string& json, const std::string& where);
std::string write_job(const Job& job);

// Every key that a job file may hold, in the order in which they are written, and what each takes: from the lists of
// fields that read and write them.
struct KnownKey;
std::vector<KnownKey> known_keys();

// Where the file says what this Doyen does not know, such as “pieces.name-1.cut.tabz”: it is kept and changes nothing.
std::vector<std::string> not_known(const Job& job);
// What a piece's cut says and its look makes no use of, such as {“name-1”, “tabs”}; kept for another look.
struct UnusedChoice {
  std::string piece, key;
};
std::vector<UnusedChoice> unused_choices(const Job& job);

Job load_job(const std::string& path);
// Refuses what could be made but not be kept: throws Problem{BadInput} when a part of the job that is not as it was
// `before` could not be read again from its file. What reading allows is the one list of limits for all making.
void check_job(const Job& job, const Job& before);

// The file's text, with lettering's outlines, after it was read again. Throws Problem{BadInput}.
std::string job_text(const Job& job);

// Throws as job_text(), and Problem{CannotWrite}; whatever stood there before is then untouched.
void save_job(const Job& job, const std::string& path);

}  // namespace doyen
