// doyen-cli: the same planning with no window. Exit 0 fine, 1 a stop verdict stands, 2 usage, 3 bad input, 4 cannot
// write.
#include <CLI/CLI.hpp>
#include <cstdio>
#include <filesystem>
#include <sstream>

#include "artwork/single_line_faces.hpp"
#include "files/imported.hpp"
#include "files/outlines_out.hpp"
#include "files/output_set.hpp"
#include "files/png_write.hpp"
#include "files/svg_read.hpp"
#include "inlay/fit.hpp"
#include "inlay/ladder.hpp"
#include "inlay/look_start.hpp"
#include "inlay/riding.hpp"
#include "inlay/schools.hpp"
#include "json_reading.hpp"
#include "planning/outputs.hpp"
#include "storage/atomic_file.hpp"

namespace {

using namespace doyen;

constexpr int kFine = 0, kStop = 1, kUsage = 2, kBadInput = 3, kCannotWrite = 4;

struct Usage : std::runtime_error {
  using std::runtime_error::runtime_error;
};

Plan plan_of(const Job& job, const std::string& unit = {}) {
  MachineProfile machine = machine_for(job);
  if (!unit.empty()) {
    const Unit wanted = unit == "in" ? Unit::Inch : Unit::Millimetre;
    if (wanted != machine.unit) machine.decimals = wanted == Unit::Inch ? std::max(5, machine.decimals) : 4;
    machine.unit = wanted;
  }
  return plan(job, load_rack(), machine);
}

void say_verdicts(const Plan& p) {
  for (const Verdict& v : p.verdicts) {
    std::printf("%s  %s %s\n", to_word(v.grade), v.text.c_str(), v.why.c_str());
    for (const Remedy& r : v.remedies) std::printf("      remedy: %s\n", r.label.c_str());
  }
}

int run_plan(const std::string& job_path, const std::string& out, const std::string& unit, bool one_file, bool anyway,
             bool replace) {
  Job job = load_job(job_path);
  job.run.one_file = job.run.one_file || one_file;
  Plan p = plan_of(job, unit);
  for (Verdict& v : riding_inlays(p, load_rack())) p.verdicts.push_back(std::move(v));
  sort_by_grade(p.verdicts);
  say_verdicts(p);
  if (p.has_stop() && !anyway) {
    std::fprintf(
        stderr,
        "Nothing was written: %d thing%s would spoil wood, break a bit or be unsafe. Mend it, or add --anyway.\n",
        p.count(Grade::Stop), p.count(Grade::Stop) == 1 ? "" : "s");
    return kStop;
  }
  const std::vector<FurtherPlan> further = plan_further(job, load_rack(), anyway);
  Written written;
  try {
    written = write_outputs(p, further, out, {anyway, replace, {key_of_job_file(job_path)}});
  } catch (const Problem& problem) {
    if (problem.kind() != Problem::Kind::InTheWay) throw;
    throw in_the_way(std::string(problem.what()) + " Name another folder, or add --replace.");
  }
  for (const std::string& name : written.names) std::printf("wrote %s/%s\n", out.c_str(), name.c_str());
  for (const BitRun& run : p.runs) {
    std::printf("%s: %s, deepest %s, feed reached %s of %s mm/min\n", run.file.c_str(),
                format_duration(run.time.seconds).c_str(), format_length(run.deepest, job.lengths).c_str(),
                format_number(run.time.reached_feed(), 0).c_str(), format_number(run.feeds.feed, 0).c_str());
  }
  std::printf("in all %s; read back and carved: %s\n", format_duration(p.seconds).c_str(),
              judged_in_words(written.judgement, job.lengths).c_str());
  return p.has_stop() || spoils(written.judgement, job) ? kStop : kFine;
}

double cell_of(const std::string& text) {
  const double cell = parse_length(text, Unit::Millimetre);
  if (!(cell >= 0.005 && cell <= 50)) throw bad_input("--cell: from 0.005 to 50 mm was expected.");
  return cell;
}

struct FitOptions {
  std::string job, plugs, cell = "0.1mm", pocket_zero = "0", plug_zero = "0", tip;
  double angle = 0, tilt = 0;
  bool forgives = false, ways = false;
};

double signed_length(const std::string& text) {
  return text.starts_with('-') ? -parse_length(text.substr(1), Unit::Millimetre) : parse_length(text, Unit::Millimetre);
}

void say_what_it_forgives(const Halves& halves, double cell, const LengthStyle& lengths) {
  const auto show = [&](double mm) { return format_length(mm, lengths); };
  for (const Forgiven& row : what_it_forgives(halves, cell, lengths.unit)) {
    const std::string lies =
        std::abs(row.rides_up) < 0.005
            ? "lies as meant"
            : (row.rides_up > 0 ? "lies " + show(row.rides_up) + " higher" : "goes " + show(-row.rides_up) + " deeper");
    std::printf("  %s: %s; open line %s; glue gap %s\n", fault_in_words(row.fault, lengths).c_str(), lies.c_str(),
                show(row.open_line).c_str(), show(row.glue_gap).c_str());
  }
}

void say_ways(const Job& job, const std::string& piece, const Rack& rack) {
  for (const InlayWay& way : ways_to_inlay(job, piece, rack)) {
    if (!way.problem.empty())
      std::printf("  %s: %s\n", way.name.c_str(), way.problem.c_str());
    else
      std::printf("  %s: %s, %d bit changes; lost %s mm²; exact %s; %s\n", way.name.c_str(),
                  format_duration(way.seconds).c_str(), way.bit_changes, format_number(way.lost, 1).c_str(),
                  way.exact.c_str(), way.snaps.c_str());
  }
}

// The proof that an inlay closes, piece by piece, from the G-code of both halves.
int run_fit(const FitOptions& options) {
  const Job job = load_job(options.job);
  const Rack rack = load_rack();
  const double cell = cell_of(options.cell);
  WhatIf what_if;
  what_if.pocket_zero = signed_length(options.pocket_zero);
  what_if.plug_zero = signed_length(options.plug_zero);
  what_if.angle = options.angle;
  if (!options.tip.empty()) what_if.tip = parse_length(options.tip, Unit::Millimetre);
  what_if.tilt = options.tilt;
  const Plan pocket = plan(job, rack, machine_for(job));
  bool any = false, closes = true;
  std::vector<PlugBoard> boards = plug_boards(job);
  if (!options.plugs.empty()) {  // the halves as they are kept in another job file
    const Job kept = load_job(options.plugs);
    for (PlugBoard& board : boards) {
      for (const PlugPlace& place : board.places) {
        if (kept.find(place.piece) != nullptr) board.job = kept;
      }
    }
  }
  for (const PlugBoard& board : boards) {
    const Plan plugs = plan(board.job, rack, machine_for(board.job));
    for (const PlugPlace& place : board.places) {
      const Halves halves = halves_of(pocket, plugs, place);
      const Fit fit = mate(halves, cell, what_if);
      const Face face = face_after(fit, 0);
      const auto show = [&](double mm) { return format_length(mm, job.lengths); };
      std::printf("%s: rides up %s at %s, %s; glue gap %s; saw gap %s; widest open line %s\n",
                  job.find(place.piece)->piece.name.c_str(), show(fit.rides_up).c_str(), show(fit.binds_at.x).c_str(),
                  show(fit.binds_at.y).c_str(), show(fit.glue_gap).c_str(), show(fit.saw_gap).c_str(),
                  show(face.widest_gap).c_str());
      for (const FitPlace& at : binding_places(fit))
        std::printf("  binds by %s at %s, %s\n", show(at.mm).c_str(), show(at.at.x).c_str(), show(at.at.y).c_str());
      for (const FitPlace& at : face.open)
        std::printf("  open by %s at %s, %s\n", show(at.mm).c_str(), show(at.at.x).c_str(), show(at.at.y).c_str());
      if (options.forgives) say_what_it_forgives(halves, cell, job.lengths);
      if (options.ways) say_ways(job, place.piece, rack);
      any = true;
      closes = closes && fit.rides_up < 0.03;
    }
  }
  if (!any) throw bad_input(options.job + ": there is no inlay in it.");
  return closes ? kFine : kStop;
}

int run_ladder(const std::string& job_path, const std::string& piece, const LadderSettings& settings,
               const std::string& out) {
  const Job job = load_job(job_path);
  const Item* inlay = nullptr;
  for (const Item& item : job.items) {
    const bool wanted = piece.empty() ? inlay == nullptr : item.piece.id == piece;
    if (wanted && item.cut.kind == Treatment::Kind::Inlay) inlay = &item;
  }
  if (inlay == nullptr)
    throw bad_input(job_path + ": there is no inlay " + (piece.empty() ? "in it." : "“" + piece + "” in it."));
  save_job(ladder_job(job, inlay->cut, load_rack(), settings), out);
  return kFine;
}

// What a look makes no use of is kept, but said.
void say_unused(const Job& job) {
  for (const UnusedChoice& unused : unused_choices(job))
    std::fprintf(stderr, "note: “%s” makes no use of “%s” as it is cut (%s).\n", unused.piece.c_str(),
                 unused.key.c_str(), to_word(job.find(unused.piece)->cut.kind));
}

int run_check(const std::string& job_path, bool as_json) {
  const Job job = load_job(job_path);
  say_unused(job);
  Plan p = plan_of(job);
  Json judge;
  try {
    if (!p.runs.empty()) {
      const Judgement judgement = judge_files(p, gcode_files(p), writing_cell(p.job.blank));
      add_judgement(p, judgement);
      judge = judgement_json(judgement);
      if (!as_json) std::printf("%s\n", judged_in_words(judgement, p.job.lengths).c_str());
    }
  } catch (const Problem&) {  // what keeps files from being written is among the verdicts
    if (!p.has_stop()) throw;
  }
  p.verdicts = with_tried_remedies(p, load_rack());
  for (Verdict& v : riding_inlays(p, load_rack())) p.verdicts.push_back(std::move(v));
  sort_by_grade(p.verdicts);
  if (as_json)
    std::printf("%s\n", Json{{"verdicts", plan_json(p)["verdicts"]}, {"judge", judge}}.dump(1).c_str());
  else
    say_verdicts(p);
  return p.has_stop() ? kStop : kFine;
}

int run_relief(const std::string& job_path, const std::string& png, const std::string& height, const std::string& cell,
               bool back) {
  const Side side = back ? Side::Back : Side::Front;
  if (png.empty() && height.empty()) throw Usage("relief needs --png FILE or --height FILE.");
  const Plan p = plan_of(load_job(job_path));
  if (!png.empty()) write_png(board_picture(p, 1600, side), png);
  if (!height.empty()) write_npy(relief_of(p, p.job.blank.box(), cell_of(cell), {}, side), height);
  return kFine;
}

// "200x90x19mm", "24x9x3/4in", "24in x 9in x 19mm": a unit at the end stands for all that have none.
Blank parse_blank(const std::string& text) {
  std::vector<std::string> parts(1);
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (text[i] == 'x' || text[i] == 'X')
      parts.emplace_back();
    else if (text.compare(i, 2, "×") == 0)
      parts.emplace_back(), ++i;
    else
      parts.back() += text[i];
  }
  if (parts.size() != 3)
    throw bad_input("--blank: width x height x thickness was expected, such as 200x90x19mm or 24x9x3/4in.");
  const auto has_unit = [](const std::string& s) { return s.find_first_of("mincft\"") != std::string::npos; };
  const std::string& last = parts.back();
  const Unit unit =
      last.find("in") != std::string::npos || last.find('"') != std::string::npos ? Unit::Inch : Unit::Millimetre;
  double mm[3];
  for (int i = 0; i < 3; ++i)
    mm[i] = parse_length(parts[static_cast<std::size_t>(i)],
                         has_unit(parts[static_cast<std::size_t>(i)]) ? Unit::Millimetre : unit);
  for (const double v : mm) {
    if (!(v >= 0.2 && v <= 50'000)) throw bad_input("--blank: sizes from 0.2 mm to 50 m were expected.");
  }
  Blank blank;
  blank.width = mm[0];
  blank.height = mm[1];
  blank.readings = {mm[2]};
  blank.margin = std::min(6.0, std::min(mm[0], mm[1]) / 20);
  return blank;
}

struct CutOptions {
  std::string treatment = "incise", depth, limit, bits, blank, species;
  std::vector<std::string> set;  // key=value
  void add_to(CLI::App& app) {
    app.add_option("--blank", blank, "Width x height x thickness, such as 200x90x19mm or 24x9x3/4in")->required();
    app.add_option("--species", species, "A wood from the table, such as sugar-maple");
    app.add_option("--treatment", treatment,
                   "incise, raise, recess, pierce, cutout, bevel, line, drill, plane, hangerSlot or inlay");
    app.add_option("--depth", depth,
                   "Below the ground, of everything that is asked a depth; the same as --limit for incised work");
    app.add_option("--limit", limit, "Floor limit: wide strokes end flat at this depth");
    app.add_option(
        "--cut", set,
        "Anything else of the treatment as a job file names it, such as steps=3, back=true, moves.way=rings");
    app.add_option("--bits", bits, "Bit ids with commas, such as v60,flat-1/8in");
  }
  [[nodiscard]] Treatment::Kind look() const {
    for (int kind = 1; kind < static_cast<int>(Treatment::Kind::Plug); ++kind) {
      if (treatment == to_word(static_cast<Treatment::Kind>(kind))) return static_cast<Treatment::Kind>(kind);
    }
    throw Usage(
        "--treatment: incise, raise, recess, pierce, cutout, bevel, line, drill, plane, hangerSlot or inlay was "
        "expected, not “" +
        treatment + "”.");
  }
  [[nodiscard]] Treatment read(const Job& job, const Piece& piece, const Rack& rack) const {
    Treatment t = start_look(look(), {}, job, rack, [&](const Bit& v) {
      return widest_stroke_of(outlines_of(piece, job.source()).region, v);
    });
    const bool asked = t.kind != Treatment::Kind::Incise && !goes_through(t.kind);
    if (asked && !depth.empty()) {
      t.depth = parse_length(depth, Unit::Millimetre);
      if (!(t.depth > 0.005)) throw bad_input("--depth: a depth above zero was expected.");
    }
    const std::string limit_text = limit.empty() ? depth : limit;
    if (t.kind == Treatment::Kind::Incise && !limit_text.empty()) {
      t.floor_limit = parse_length(limit_text, Unit::Millimetre);
      if (!(*t.floor_limit > 0.005)) throw bad_input("--limit: a depth above zero was expected.");
    }
    bool any_v = false;
    std::stringstream list(bits);
    for (std::string id; std::getline(list, id, ',');) {
      const Bit* bit = rack.find(id);
      if (bit == nullptr) {
        std::string known;
        for (const Bit& b : rack.bits) known += (known.empty() ? "" : ", ") + b.id;
        throw bad_input("--bits: “" + id + "” is not in the rack; there are " + known + ".");
      }
      const WantedBit wanted = wanted_bit(t);
      const bool main = wanted == WantedBit::Any || (wanted == WantedBit::V && bit->kind == BitKind::V) ||
                        (wanted == WantedBit::Flat && bit->kind == BitKind::Flat) ||
                        (wanted == WantedBit::Keyhole && bit->kind == BitKind::Keyhole);
      const bool clears = bit->kind == BitKind::Flat && (t.kind == Treatment::Kind::Incise ||
                                                         t.kind == Treatment::Kind::Inlay || makes_ground(t.kind));
      if (main)
        t.bit = id;
      else if (clears) {
        t.clearing.push_back(id);
      } else
        throw bad_input("--bits: the " + bit->name + " cannot be used for this treatment.");
      any_v = any_v || bit->kind == BitKind::V;
    }
    // Flat bits alone raise with upright flanks.
    if (t.kind == Treatment::Kind::Raise && !t.clearing.empty() && !any_v) t.sloped = false;
    return t;
  }
  // The treatment with every --cut put into it, checked as a job file is.
  void finish(Job& job) const {
    if (set.empty()) return;
    Json document = parse_json(write_job(job), "job");
    for (const std::string& one : set) {
      const std::size_t equals = one.find('=');
      if (equals == std::string::npos || equals == 0)
        throw Usage("--cut: key=value was expected, such as steps=3, not “" + one + "”.");
      Json* at = &document["pieces"][0]["cut"];
      std::stringstream path(one.substr(0, equals));
      for (std::string key; std::getline(path, key, '.');) {
        if (!at->is_object() && !at->is_null())
          throw Usage("--cut: “" + one.substr(0, equals) + "” is not the name of anything in a treatment.");
        at = &(*at)[key];
      }
      const std::string value = one.substr(equals + 1);
      const Json parsed = Json::parse(value, nullptr, false);
      *at = parsed.is_discarded() ? Json(value) : parsed;
    }
    job = read_job(document.dump(), "--cut");
    for (const std::string& name : not_known(job))
      throw Usage("--cut: “" + name.substr(name.find(".cut.") + 5) + "” is not the name of anything in a treatment.");
    say_unused(job);
  }
  [[nodiscard]] Job start(const std::string& name) const {
    Job job;
    job.name = name;
    job.blank = parse_blank(blank);
    job.run.least_wood = usual_least_wood(job.blank);
    if (!species.empty()) {
      if (species_table().find(species) == nullptr)
        throw bad_input("--species: “" + species + "” is not in the table of woods.");
      job.blank.species = species;
    }
    return job;
  }
};

int run_import(const std::string& file, const std::string& width, const std::string& lines, const CutOptions& options,
               const std::string& out) {
  const Imported found = read_artwork(file);
  for (const std::string& left : found.left_out) std::fprintf(stderr, "left out: %s\n", left.c_str());
  if (!found.sized && width.empty()) std::fprintf(stderr, "note: %s\n", found.assumed.c_str());
  Job job = options.start(found.drawing.name);
  Item item;
  item.piece.id = "drawing-1";
  item.piece.name = found.drawing.name;
  Drawing drawing = found.drawing;
  if (!width.empty()) {
    const double wanted = parse_length(width, Unit::Millimetre);
    if (!(wanted > 0.01)) throw bad_input("--width: a length above zero was expected.");
    drawing.scale = wanted / bounds(drawing_region(drawing)).width();
  }
  drawing.lines = options.treatment == "line" ? Drawing::Lines::Followed : Drawing::Lines::Wide;
  if (lines == "wide" || lines == "followed" || lines == "enclose")
    drawing.lines = lines == "wide"       ? Drawing::Lines::Wide
                    : lines == "followed" ? Drawing::Lines::Followed
                                          : Drawing::Lines::Enclose;
  else if (!lines.empty())
    throw Usage("--lines: wide, followed or enclose was expected, not “" + lines + "”.");
  item.piece.what = drawing;
  item.piece.at = job.blank.box().centre();
  item.cut = options.read(job, item.piece, load_rack());
  job.items.push_back(std::move(item));
  options.finish(job);
  save_job(job, out);
  return kFine;
}

int run_text(const std::string& words, const std::string& font, const std::string& cap, const CutOptions& options,
             const std::string& out) {
  Job job = options.start(words.substr(0, 60));
  Lettering lettering;
  for (std::size_t i = 0; i < words.size(); ++i) {
    if (words.compare(i, 2, "\\n") == 0)
      lettering.words += '\n', ++i;
    else
      lettering.words += words[i];
  }
  lettering.face = parse_face(font);
  if (!is_single_line(lettering.face) && !face_installed(lettering.face))
    throw bad_input("--font: the face “" + font +
                    "” is not installed; give family or family:style, such as “EB Garamond:Bold”.");
  lettering.cap_height = parse_length(cap, Unit::Millimetre);
  Item item;
  item.piece.id = "lettering-1";
  item.piece.name = words.substr(0, words.find("\\n"));
  item.piece.what = lettering;
  item.piece.at = job.blank.box().centre();
  outlines_of(item.piece);
  item.cut = options.read(job, item.piece, load_rack());
  job.items.push_back(std::move(item));
  options.finish(job);
  save_job(job, out);
  return kFine;
}

int run_outlines(const std::string& job_path, const std::string& svg, const std::string& dxf, bool as_drawn) {
  if (svg.empty() && dxf.empty()) throw Usage("outlines needs --svg FILE or --dxf FILE.");
  const Job job = load_job(job_path);
  if (!dxf.empty()) save_outlines_of(job, dxf);
  if (svg.empty()) return kFine;
  std::vector<NamedRegion> regions;
  double width = job.blank.width, height = job.blank.height;
  for (const Item& item : job.items) {
    const auto* drawing = std::get_if<Drawing>(&item.piece.what);
    if (as_drawn && drawing != nullptr) {
      regions.push_back({item.piece.id, drawing_region_as_drawn(*drawing)});
      width = drawing->page_width;
      height = drawing->page_height;
    } else if (!as_drawn) {
      regions.push_back({item.piece.id, outlines_of(item.piece, job.source()).region});
    }
  }
  if (as_drawn && regions.empty()) throw bad_input(job_path + ": --as-drawn needs a drawing in the job.");
  write_file_atomically(svg, write_svg(regions, width, height, !as_drawn));
  return kFine;
}

int run_backplot(const std::vector<std::string>& paths, const std::string& plan_path, const std::string& height,
                 const std::string& cell, bool back) {
  const Json p = parse_json(read_file(plan_path), plan_path);
  std::map<std::string, std::string> files;
  for (const std::string& path : paths) files[std::filesystem::path(path).filename().string()] = read_file(path);
  write_npy(backplot(p, plan_path, files, cell_of(cell), back ? Side::Back : Side::Front), height);
  return kFine;
}

}  // namespace

int main(int argc, char** argv) {
  CLI::App app{"Doyen without a window: plan a job, check it, carve it in the computer, read files back."};
  app.require_subcommand(1);
  int code = kFine;
  std::string job, out, unit, png, height, svg, dxf, file, width, lines, words, font, cap, plan_path, cell = "0.2mm";
  bool one_file = false, anyway = false, replace = false, as_json = false, as_drawn = false, back = false;
  std::vector<std::string> files;
  std::string piece, step;
  CutOptions cut;
  FitOptions fit;
  LadderSettings ladder;

  CLI::App* c = app.add_subcommand("plan", "Write G-code, plan.json, proof.png and runsheet.pdf");
  c->add_option("JOB", job)->required();
  c->add_option("--out", out, "Folder for the files")->required();
  c->add_option("--unit", unit, "mm or in, for the G-code")->check(CLI::IsMember({"mm", "in"}));
  c->add_flag("--one-file", one_file, "One file with pauses instead of one per bit");
  c->add_flag("--anyway", anyway, "Write although a stop verdict stands");
  c->add_flag("--replace", replace, "Replace files of another job, or that were changed, in that folder");
  c->callback([&] { code = run_plan(job, out, unit, one_file, anyway, replace); });

  c = app.add_subcommand("check", "Say what would go wrong");
  c->add_option("JOB", job)->required();
  c->add_flag("--json", as_json);
  c->callback([&] { code = run_check(job, as_json); });

  c = app.add_subcommand("fit", "Mate every inlay's pocket and plug, and say how they close");
  c->add_option("JOB", fit.job)->required();
  c->add_option("--plugs", fit.plugs, "The plugs' board as another job file has it");
  c->add_option("--cell", fit.cell, "Cell size, such as 0.1mm");
  c->add_option("--pocket-zero", fit.pocket_zero, "How much too high the pocket's zero was set, such as 0.1mm");
  c->add_option("--plug-zero", fit.plug_zero, "The same for the plug's board");
  c->add_option("--angle", fit.angle, "Degrees that the bit is blunter than it was measured")
      ->check(CLI::Range(-20, 20));
  c->add_option("--tip", fit.tip, "Another tip flat, such as 0.2mm");
  c->add_option("--tilt", fit.tilt, "Degrees that the spindle leans to the right")->check(CLI::Range(-10, 10));
  c->add_flag("--forgives", fit.forgives, "Try the usual faults one by one");
  c->add_flag("--ways", fit.ways, "Lay the ways to make it side by side");
  c->callback([&] { code = run_fit(fit); });

  c = app.add_subcommand("ladder", "A job of small pairs, each a little tighter, for an inlay's woods and bits");
  c->add_option("JOB", job)->required();
  c->add_option("--piece", piece, "The inlay's id; the first one without it");
  c->add_option("--rungs", ladder.rungs)->check(CLI::Range(2, 12));
  c->add_option("--step", step, "From one rung to the next, such as 0.1mm");
  c->add_option("--out", out, "The job file to write")->required();
  c->callback([&] {
    if (!step.empty()) ladder.step = parse_length(step, Unit::Millimetre);
    code = run_ladder(job, piece, ladder, out);
  });

  c = app.add_subcommand("relief", "The carved surface as a picture or as heights");
  c->add_option("JOB", job)->required();
  c->add_option("--png", png);
  c->add_option("--height", height, "NumPy .npy, float32 mm");
  c->add_option("--cell", cell, "Cell size, such as 0.1mm");
  c->add_flag("--back", back, "The back, with the board turned over");
  c->callback([&] { code = run_relief(job, png, height, cell, back); });

  c = app.add_subcommand("import", "A job around one SVG or DXF drawing or one picture, centred on the blank");
  c->add_option("FILE", file)->required();
  cut.add_to(*c);
  c->add_option("--width", width, "Scale the drawing to this width");
  c->add_option("--lines", lines,
                "What lines without a filling are: wide (as they are drawn), followed by the bit, or enclose (outlines "
                "of areas)");
  c->add_option("--out", out, "The job file")->required();
  c->callback([&] { code = run_import(file, width, lines, cut, out); });

  c = app.add_subcommand("text", "A job around lettering, centred on the blank");
  c->add_option("WORDS", words, "\\n begins a new line")->required();
  c->add_option("--font", font, "Family or family:style")->required();
  c->add_option("--cap", cap, "Cap height")->required();
  cut.add_to(*c);
  c->add_option("--out", out, "The job file")->required();
  c->callback([&] { code = run_text(words, font, cap, cut, out); });

  c = app.add_subcommand("outlines", "Every piece's outlines in mm, as filled SVG paths or as DXF");
  c->add_option("JOB", job)->required();
  c->add_option("--svg", svg);
  c->add_option("--dxf", dxf, "Closed polylines in mm, a layer for each piece");
  c->add_flag("--as-drawn", as_drawn, "On the drawing's own page");
  c->callback([&] { code = run_outlines(job, svg, dxf, as_drawn); });

  c = app.add_subcommand("backplot", "Read G-code back and carve it");
  c->add_option("FILES", files)->required();
  c->add_option("--plan", plan_path)->required();
  c->add_option("--height", height)->required();
  c->add_option("--cell", cell);
  c->add_flag("--back", back, "The back, with the board turned over");
  c->callback([&] { code = run_backplot(files, plan_path, height, cell, back); });

  try {
    app.parse(argc, argv);
    return code;
  } catch (const CLI::ParseError& error) {
    const int asked = app.exit(error);
    return asked == 0 ? kFine : kUsage;
  } catch (const Usage& error) {
    std::fprintf(stderr, "%s\n", error.what());
    return kUsage;
  } catch (const Problem& problem) {
    std::fprintf(stderr, "%s\n", problem.what());
    return problem.kind() == Problem::Kind::CannotWrite ? kCannotWrite : kBadInput;
  } catch (const std::bad_alloc&) {
    std::fprintf(stderr, "There is not enough memory for this job.\n");
    return kBadInput;
  } catch (const std::exception& error) {
    std::fprintf(stderr, "Something unexpected went wrong: %s\n", error.what());
    return kBadInput;
  }
}
