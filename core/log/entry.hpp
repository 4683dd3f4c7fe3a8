// What is kept of a run or a test cut: what was cut and how, what was told and what it took, and how it came out.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "measure/id.hpp"

namespace doyen {

enum class MadeKind { Run, TestCut };

// What went wrong, by what is seen on the wood.
enum class Mishap {
  NotThrough,  // a through cut did not reach the bed
  TooShallow,
  TooDeep,
  BrokeOut,    // a letter or an edge of one
  RanOff,      // a cut ran off the edge of the board
  Moved,       // the board or the carriage moved during the run
  InlayTight,  // a plug stands high
  InlayGap,    // a seam is open
  Rough,
  BitBroke,
  WrongWood,
  Other
};

struct MishapSeen {
  Mishap mishap = Mishap::Other;
  double mm = 0;  // how much too short, shallow, deep, high or wide; 0: not said, or not of that kind
  BitId bit{};    // that did it; empty: not said
  friend bool operator==(const MishapSeen&, const MishapSeen&) = default;
};

struct LoggedBit {
  BitId bit;
  std::string name;
  double feed = 0, plunge = 0;  // mm/min
  double rpm = 0;
  double told = 0;     // s of its files
  double deepest = 0;  // mm below the face
  friend bool operator==(const LoggedBit&, const LoggedBit&) = default;
};

struct LoggedInlay {
  std::string piece;  // its name
  BitId bit;          // of its flanks
  bool sloped = true;
  double depth = 0;                   // mm of its pocket
  double contact = 0, allowance = 0;  // mm, as in Inlay
  friend bool operator==(const LoggedInlay&, const LoggedInlay&) = default;
};

struct LogEntry {
  std::int64_t id = 0;  // in its log; 0: not kept yet
  std::string made{};   // UTC, such as 2026-11-28T14:30:05Z
  MadeKind kind = MadeKind::Run;
  std::string job{};   // its name
  std::string file{};  // where the job is kept; empty: nowhere yet
  std::string mark{};  // the job's fingerprint: the same for the same job, however often it was made
  std::string machine{};
  WoodId wood{};
  double thickness = 0;              // mm, by its thickest reading
  std::optional<double> over_cut{};  // mm past the underside, the least of all through cuts; none: nothing goes through
  double told = 0, took = 0;         // s of all files, bit changes left out; took 0: not said
  bool well = false;                 // it came out well; else what is in `mishaps`, or nothing was said
  std::vector<MishapSeen> mishaps{};
  std::string words{};                 // the user's own
  std::vector<std::string> changed{};  // since the run before of the same job: “Marrowby”, depth: 2 → 6
  std::string why{};                   // it was changed
  std::vector<LoggedBit> bits{};
  std::vector<LoggedInlay> inlays{};
  std::string job_text{};  // the job file as it was; empty where it is too large to be kept here
  friend bool operator==(const LogEntry&, const LogEntry&) = default;
};

const char* to_word(Mishap mishap);          // not-through, too-shallow …
std::string mishap_in_words(Mishap mishap);  // for people
std::optional<Mishap> mishap_of(const std::string& word);
const std::vector<Mishap>& all_mishaps();
bool has_amount(Mishap mishap);  // mm go with it
bool has_bit(Mishap mishap);     // some bit did it

}  // namespace doyen
