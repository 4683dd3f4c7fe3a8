// Plates from a list: how each row's words are set, and the sheets that hold them all. A sheet is a job like any other:
// planned, proved and written as one (architecture: boards of one job).
#pragma once

#include <map>
#include <optional>

#include "job/job.hpp"
#include "rack/bit.hpp"

namespace doyen {

// The rows that are made, as indices into the list, in the order in which they are laid out.
std::vector<std::size_t> plate_rows(const PlateList& list);

// Such as “57, 60-62”; empty for all. Throws Problem{BadInput} for what is no such list, or no row of it.
std::vector<int> parse_rows(const std::string& words, std::size_t rows);
std::string rows_in_words(const std::vector<int>& rows);

// How an entry is set where a lettering stands.
struct SetEntry {
  enum class How { AsIs, Smaller, Narrower, TwoLines, TooLong };
  How how = How::AsIs;
  std::string words;
  double cap_height = 0;             // mm
  std::vector<std::string> missing;  // characters the face lacks
  double letter_width = 100;         // per cent of the face's own
};
// `room` mm wide. Words along another piece, or fitted inside one, are set as they are.
SetEntry set_entry(const Lettering& lettering, const std::string& words, double room);
// The width of letters, per cent of the face's own, at which words so high have that room; 0 where none from 20 up has.
double narrowed(const Lettering& lettering, const std::string& words, double room, double cap_height);
double room_of(const Job& job, const Lettering& lettering);  // mm, of what comes from the list

// A list is taken into the job: what was said of sheets stays; letterings whose column is there again keep it; where
// none takes its words from a list yet, the largest letterings take the first columns. The first list brings the flat
// bit nearest to 3 mm to cut plates apart.
void take_list(Job& job, const PlateList& list, const Rack& rack);

// The list's first row says its headings, or else what stands on a plate.
void set_headings(Job& job, bool first_row);

// Letterings that take their words from the list say what that row says, as an example.
void show_row(Job& job, std::size_t row);

// Two letterings take each other's columns, and the words that stand there as an example; all else of them stays.
void swap_columns(Job& job, const std::string& one, const std::string& other);

// On a board without pieces: a lettering for the first column and a smaller one for the second.
void letter_plate(Job& job, const Rack& rack);

// What stands on a row's plate, by the letterings that take their words from the list, in their order; nothing of empty
// entries.
std::vector<std::string> words_of_row(const Job& job, std::size_t row);

// One plate: the job with that row's words, without the letterings that the row has none for. The list is gone from it.
Job plate_of(const Job& job, std::size_t row);
// The same of many rows: the cap heights, mm, at which the longest entries stand are looked for once, by piece.
using CommonHeights = std::map<std::string, double>;
CommonHeights common_heights(const Job& job);
Job plate_of(const Job& job, std::size_t row, const CommonHeights& heights);

// How plates lie on their sheets: in rows from the left back corner to the right, then nearer, as one reads.
struct PlateGrid {
  int across = 0, deep = 0;  // plates in a row, and rows; 0 where none fits
  std::size_t plates = 0, sheets = 0;
  [[nodiscard]] std::size_t per_sheet() const {
    return static_cast<std::size_t>(across) * static_cast<std::size_t>(deep);
  }
};
PlateGrid plate_grid(const Job& job);

struct PlateSheet {
  Job job;
  std::vector<std::size_t> rows;  // of the list, in order
  std::vector<Point> corners;     // along `rows`: where each plate's left front corner lies, mm
};
// One of plate_grid().sheets, counted from 0. Throws Problem{BadInput} when no plate fits.
PlateSheet plate_sheet(const Job& job, std::size_t sheet);

}  // namespace doyen
