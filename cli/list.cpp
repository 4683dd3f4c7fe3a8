// list: puts a list of plates into a job, or says what it holds.
#include <cstdio>

#include "cli/command.hpp"
#include "files/list/list_read.hpp"
#include "plates/plates.hpp"
#include "plates/strips.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

namespace doyen::cli {
namespace {

struct ListOptions {
  std::string job, list, only, out, boards;
  std::vector<std::string> columns;
  bool headings = false, no_headings = false, strips = false;
};

// “ID=COLUMN”: which lettering takes its words from which column.
void point(Job& job, const std::string& words) {
  const auto middle = words.find('=');
  if (middle == std::string::npos) throw Usage("--column: a piece's id, “=” and a heading were expected.");
  Item* item = job.find(words.substr(0, middle));
  auto* lettering = item == nullptr ? nullptr : std::get_if<Lettering>(&item->piece.what);
  if (lettering == nullptr) throw bad_input("--column: the job has no lettering “" + words.substr(0, middle) + "”.");
  lettering->list.column = words.substr(middle + 1);
}

int run_list(const ListOptions& options) {
  if (options.headings && options.no_headings) throw Usage("--headings and --no-headings exclude each other.");
  Job job = load_job(options.job);
  const ListRead read = read_list(read_file(options.list), options.list,
                                  options.headings      ? Headings::First
                                  : options.no_headings ? Headings::None
                                                        : Headings::Found);
  for (const std::string& note : read.notes) std::fprintf(stderr, "note: %s\n", note.c_str());
  PlateList taken;
  taken.source = options.list.substr(options.list.rfind('/') + 1);
  taken.columns = read.columns;
  taken.rows = read.rows;
  taken.headings = read.headings;
  take_list(job, taken, load_rack());
  PlateList& plates = job.plates;
  plates.only = parse_rows(options.only, plates.rows.size());
  for (const std::string& column : options.columns) point(job, column);
  std::printf("%zu rows of %zu columns:", read.rows.size(), read.columns.size());
  for (const std::string& heading : read.columns) std::printf(" “%s”", heading.c_str());
  if (options.strips) {
    plates.strips.boards = parse_boards(options.boards, job.lengths.unit);
    make_strips(job, true, plate_rows(plates).empty() ? 0 : plate_rows(plates).front());
    const CutList sawn = cut_list(job);
    std::printf("\n%zu strips from %zu boards; no board for %zu\n", plate_rows(plates).size(), sawn.boards.size(),
                sawn.without.size());
  } else {
    const PlateGrid grid = plate_grid(job);
    std::printf("\n%zu plates, %zu to a sheet, %zu sheets\n", grid.plates, grid.per_sheet(), grid.sheets);
  }
  save_job(job, options.out);
  const Plan p = plan_of(job);
  say_verdicts(p);
  return p.has_stop() ? kStop : kFine;
}

}  // namespace

Command list_command() {
  return {"list", "Put a list of plates (CSV, or columns parted by tabs) into a job", [](Arguments& a) {
            auto o = std::make_shared<ListOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("LIST", o->list, {}, Arguments::Needed);
            a.texts("--column", o->columns, "ID=HEADING: that lettering takes its words from that column");
            a.text("--only", o->only, "Rows that are made, such as 57, 60-62; all without it");
            a.flag("--headings", o->headings, "The first row holds headings");
            a.flag("--no-headings", o->no_headings, "It does not");
            a.flag("--strips", o->strips, "Each row on a strip as long as its words");
            a.text("--boards", o->boards, "The boards that strips are sawn from, such as 3 x 1200; 900");
            a.text("--out", o->out, "The job file", Arguments::Needed);
            return [o] { return run_list(*o); };
          }};
}

}  // namespace doyen::cli
