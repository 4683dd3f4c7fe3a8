// A job: one piece of work, as data. Planning reads it; only edits change it.
#pragma once

#include <string>
#include <vector>

#include "artwork/piece.hpp"
#include "cuts/treatment.hpp"
#include "json_reading.hpp"
#include "machine/profile.hpp"
#include "measure/length.hpp"
#include "stock/blank.hpp"

namespace doyen {

struct Item {
  Piece piece;
  Treatment cut;
  friend bool operator==(const Item&, const Item&) = default;
};

enum class ZeroSurface { Face, Bed };
enum class ZeroPlace { LeftFront, Centre };

struct RunSettings {
  std::string machine = "mm-plain";
  bool one_file = false;
  ZeroSurface zero_surface = ZeroSurface::Face;
  ZeroPlace zero_place = ZeroPlace::LeftFront;
  double least_wood = 3;  // mm that must stay under grooves and floors
  std::string holding = "Screws in the waste at both ends, or clamps outside the outline.";
  friend bool operator==(const RunSettings&, const RunSettings&) = default;
};

struct Job {
  std::string name = "New sign";
  LengthStyle lengths;
  Blank blank;
  std::vector<Item> items;  // drawn and cut in this order where nothing else decides
  RunSettings run;
  Json unknown = Json::object();  // keys a newer Doyen wrote; kept on saving

  [[nodiscard]] const Item* find(const std::string& id) const;
  [[nodiscard]] Item* find(const std::string& id);
  // Its pieces by id, for outlines_of(); valid as long as the job is.
  [[nodiscard]] PieceSource source() const;
  // The piece and everything that it is made from, itself first.
  [[nodiscard]] std::vector<const Piece*> with_sources(const Piece& piece) const;
  [[nodiscard]] bool is_source(const std::string& id) const;  // something else is made from it
  // Moves a piece by so much on the board, whatever its place is counted in; nothing when there is none of that id.
  void shift(const std::string& id, Point by);
  [[nodiscard]] std::string fresh_id(const std::string& stem) const;
  friend bool operator==(const Job&, const Job&) = default;
};

// The job file, "doyen-job/1" (docs/job-format.md). Throws Problem{BadInput} with file, place and expectation.
Job read_job(const std::string& json, const std::string& where);
std::string write_job(const Job& job);

Job load_job(const std::string& path);
// Keeps lettering's outlines in the file; atomic. Throws Problem{CannotWrite}.
void save_job(const Job& job, const std::string& path);

}  // namespace doyen
