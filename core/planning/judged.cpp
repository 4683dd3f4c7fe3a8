#include "planning/judged.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <list>
#include <map>
#include <optional>

#include "json_reading.hpp"
#include "planning/expected.hpp"
#include "run/gcode.hpp"
#include "stock/species.hpp"
#include "verdicts/accepted.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Fault::Kind;

std::string code_of(Kind kind) {
  switch (kind) {
    case Kind::Gouge:
      return "gouge";
    case Kind::Missed:
      return "missed";
    case Kind::Bite:
      return "bite";
    case Kind::Plunge:
      return "plunges-fast";
    case Kind::Rub:
      return "rub";
    case Kind::Air:
      return "cuts-air";
    case Kind::Rapid:
      return "rapid-in-wood";
  }
  return {};
}

std::string named(const Job& job, const std::string& id) {
  const Item* item = job.find(id);
  return item == nullptr ? (id.empty() ? say("the board") : "“" + id + "”") : "“" + item->piece.name + "”";
}

std::string bit_name(const Rack& rack, const std::string& id) {
  const Bit* bit = rack.find(id);
  return bit == nullptr ? id : bit->name;
}

// What a job accepts a fault by.
std::string name_of(const Fault& f) { return code_of(f.kind) + "/" + f.piece; }

bool stops(Kind kind) { return kind != Kind::Missed && kind != Kind::Air; }

// What is wrong, and why that matters.
std::pair<std::string, std::string> words_for(const Fault& f, const Job& job, const Rack& rack) {
  const LengthStyle& lengths = job.lengths;
  const std::string deep = depth_in_words(f.mm, lengths), who = named(job, f.piece), hurt = named(job, f.hurt);
  const std::string where = f.hurt.empty()      ? say("the board beside it")
                            : f.hurt == f.piece ? say("its own shape")
                                                : hurt;
  const std::string by = say(" ({0}, the {1})", f.file, bit_name(rack, f.bit));
  switch (f.kind) {
    case Kind::Gouge:
      return {say("Cutting {0} takes {1} too much off {2}{3}.", who, deep, where, by),
              say("Nobody asked for that wood to go: {0} would be spoiled.", format_area(f.mm2, lengths))};
    case Kind::Missed:
      return {say("In {0} up to {1} of wood stays where a chosen bit could have come.", who, deep),
              say("{0} would have to be cut again.", format_area(f.mm2, lengths))};
    case Kind::Bite:
      return {say("Cutting {0} the {1} takes {2} at once ({3}).", who, bit_name(rack, f.bit), deep, f.file),
              say("That is more than its depth per pass: it may break, or tear the wood.")};
    case Kind::Plunge:
      return {say("Cutting {0} the {1} sinks too fast into solid wood ({2}).", who, bit_name(rack, f.bit), f.file),
              say("It goes down {0} faster than its plunge feed.", deep)};
    case Kind::Rub:
      return {
          say("Cutting {0} the shank of the {1} rubs against standing wood ({2}).", who, bit_name(rack, f.bit), f.file),
          say("Wood stands {0} above the end of its cutting edge there: it burns, and the bit may break.", deep)};
    case Kind::Air:
      return {say("Cutting {0} the {1} cuts nothing but air ({2}).", who, bit_name(rack, f.bit), f.file),
              say("What it should cut is gone already: its depth or its ground is not what you meant.")};
    case Kind::Rapid:
      return {say("A fast travel move while cutting {0} passes {1} below where wood may stand{2}.", who, deep, by),
              say("The bit could strike the board at full speed.")};
  }
  return {};
}

bool from_judge(const Verdict& v) {
  for (int kind = 0; kind <= static_cast<int>(Kind::Rapid); ++kind) {
    if (v.code == code_of(static_cast<Kind>(kind))) return true;
  }
  return false;
}

}  // namespace

double glancing_cell(const Blank& blank) {
  constexpr double kCells = 700'000;
  return std::max(0.1, std::sqrt(blank.width * blank.height / kCells));
}

double writing_cell(const Blank& blank) {
  constexpr double kCells = 6'000'000;
  return std::max(0.1, std::sqrt(blank.width * blank.height / kCells));
}

namespace {

// Where a machine stands that goes in steps so large.
Point3 stood(const Point3& p, double step) {
  if (step <= 0) return p;
  return {std::round(p.x / step) * step, std::round(p.y / step) * step, std::round(p.z / step) * step};
}

}  // namespace

std::vector<Worked> worked_by(const Plan& plan, const std::vector<OutputFile>& files) {
  std::vector<Worked> all;
  std::size_t run = 0;
  const std::string wood = wood_class_of(plan.job.blank);
  for (const OutputFile& file : files) {
    if (run >= plan.runs.size()) throw bad_input(say("{0}: there are more files than the plan has.", file.name));
    const Side side = plan.runs[run].side;
    const Placement lies = placement_of(plan.job, plan.machine, side);
    const GcodeProgram program = read_gcode(file.text, file.name, lies.z);
    if (!program.ended) throw bad_input(say("{0}: the file has no end.", file.name));
    const auto placed = [&](const Point3& p) { return lies.on_board(stood(p, plan.machine.least_step)); };
    for (const GcodeSection& section : program.sections) {
      if (run >= plan.runs.size())
        throw bad_input(say("{0}: there are more bits in the files than in the plan.", file.name));
      const BitRun& made = plan.runs[run++];
      std::map<int, Worked> parts;  // by number
      const auto part = [&](int number) -> Worked& {
        const auto [it, fresh] = parts.try_emplace(number);
        Worked& w = it->second;
        if (!fresh) return w;
        w.file = file.name;
        w.side = side;
        w.bit = made.bit;
        w.later = made.later;
        w.most_at_once = made.bit.depth_per_pass(wood);
        w.plunge = made.feeds.known() ? made.feeds.plunge : 1e9;
        if (number >= 1 && static_cast<std::size_t>(number) <= made.operations.size()) {
          const Operation& op = *made.operations[static_cast<std::size_t>(number) - 1];
          w.piece = op.piece;
          w.treatment = op.treatment;
          const Item* item = plan.job.find(op.piece);
          // What was said of this hole's steps is what it may take.
          if (item != nullptr && item->cut.kind == Treatment::Kind::Drill)
            w.most_at_once = std::max(w.most_at_once, item->cut.drill.peck);
        }
        return w;
      };
      for (std::size_t i = 0; i < section.passes.size(); ++i) {
        Worked& w = part(section.work[i]);
        Pass& pass = w.passes.emplace_back();
        for (const Point3& p : section.passes[i].points) pass.points.push_back(placed(p));
        w.feeds.push_back(section.feeds[i]);
      }
      for (const GcodeSection::Rapid& r : section.rapids) {
        const int number = section.work[std::min(r.before, section.work.size() - 1)];
        part(number).rapids.push_back({placed(r.from), placed(r.to)});
      }
      for (auto& [number, w] : parts) all.push_back(std::move(w));
    }
  }
  if (run < plan.runs.size()) throw bad_input(say("There are fewer files than the plan has."));
  return all;
}

namespace {

// What each piece shall look like; `kept` is what they point at.
std::vector<WantedPiece> wanted_pieces(const Plan& plan, const std::vector<Worked>& worked,
                                       std::list<std::vector<PartOnGround>>& kept) {
  const Job& job = plan.job;
  std::vector<WantedPiece> pieces;
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    const Item& item = job.items[i];
    const PiecePlan& planned = *plan.pieces[i];
    WantedPiece piece{item.piece.id, nullptr, &item.cut, &planned.around, true, 0, planned.key};
    if (planned.problem.empty()) piece.outlines = &planned.outlines;
    const auto takes = [&](const Bit& bit) {
      if (bit.kind != BitKind::Flat) return;
      const double d = bit.true_diameter();
      piece.smallest_flat = piece.smallest_flat > 0 ? std::min(piece.smallest_flat, d) : d;
    };
    for (const std::string& id : item.cut.clearing) {
      const Bit* bit = plan.rack.find(id);
      if (bit != nullptr && bit->flute_length >= floor_depth(item.cut) - 1e-6) takes(*bit);
    }
    for (const Worked& w : worked) {
      if (w.piece == item.piece.id) takes(w.bit);
    }
    piece.key ^= static_cast<std::uint64_t>(piece.smallest_flat * 1e4) * 0x9E3779B97F4A7C15ULL;
    add_by_grounds(piece, kept, pieces);
  }
  return pieces;
}

}  // namespace

Judgement judge_files(const Plan& plan, const std::vector<OutputFile>& files, double cell, const Cancel& cancel,
                      JudgeMemory* memory) {
  const Cancel::Scope stops(cancel);
  const Job& job = plan.job;
  JudgeTask task;
  task.board = job.blank.box();
  task.blank = job.blank;
  task.turn = job.run.turn;
  task.worked = worked_by(plan, files);
  std::list<std::vector<PartOnGround>> kept;
  const std::vector<WantedPiece> pieces = wanted_pieces(plan, task.worked, kept);
  // Where inlays are glued in between two runs, the wood is judged twice: with open pockets, and with level plugs in
  // them and whatever is cut over those.
  const bool twice = plan.has_later();
  const auto inlaid = [&](const std::string& id) {
    const Item* item = job.find(id);
    return item != nullptr && item->cut.kind == Treatment::Kind::Inlay;
  };
  std::vector<WantedPiece> open = pieces, level = pieces;
  for (WantedPiece& piece : open) piece.must = inlaid(piece.id);
  std::erase_if(level, [&](const WantedPiece& piece) { return inlaid(piece.id); });
  std::vector<Wanted> wanted;
  wanted.reserve(3);
  const auto judged = [&](const std::vector<WantedPiece>& as, Side side, auto made_by) {
    wanted.emplace_back(as, job.blank, plan.rack, side, job.run.turn);
    JudgedSide state{side, &wanted.back(), {}, highest_wood(job, side)};
    for (std::size_t w = 0; w < task.worked.size(); ++w) {
      if (task.worked[w].side == side && made_by(task.worked[w])) state.worked.push_back(w);
    }
    task.sides.push_back(std::move(state));
  };
  if (twice) {
    judged(open, Side::Front, [](const Worked& w) { return !w.later; });
    judged(level, Side::Front, [&](const Worked& w) { return !inlaid(w.piece); });
  } else {
    judged(pieces, Side::Front, [](const Worked&) { return true; });
  }
  if (plan.has_back()) judged(pieces, Side::Back, [](const Worked&) { return true; });
  return judge_work(task, cell, cancel, memory);
}

std::vector<Verdict> verdicts_of(const Judgement& judgement, const Job& job, const Rack& rack) {
  std::vector<Verdict> out;
  for (const Fault& f : judgement.faults) {
    auto [text, why] = words_for(f, job, rack);
    out.push_back({stops(f.kind) ? Grade::Stop : Grade::Mind,
                   code_of(f.kind),
                   f.piece,
                   f.at,
                   std::move(text),
                   std::move(why),
                   {}});
  }
  take_acceptances(job, out);
  return out;
}

bool spoils(const Judgement& judgement, const Job& job) {
  return std::any_of(judgement.faults.begin(), judgement.faults.end(),
                     [&](const Fault& f) { return stops(f.kind) && !is_accepted(job, name_of(f)); });
}

void add_judgement(Plan& plan, const Judgement& judgement) {
  std::erase_if(plan.verdicts, from_judge);
  for (Verdict& v : verdicts_of(judgement, plan.job, plan.rack)) plan.verdicts.push_back(std::move(v));
  sort_by_grade(plan.verdicts);
}

void sort_by_grade(std::vector<Verdict>& verdicts) {
  std::stable_sort(verdicts.begin(), verdicts.end(),
                   [](const Verdict& a, const Verdict& b) { return a.grade > b.grade; });
}

Json judgement_json(const Judgement& j) {
  Json faults = Json::array();
  for (const Fault& f : j.faults)
    faults.push_back({{"kind", to_word(f.kind)},
                      {"mm", f.mm},
                      {"mm2", f.mm2},
                      {"at", {{"x", f.at.x}, {"y", f.at.y}}},
                      {"hurt", f.hurt},
                      {"piece", f.piece},
                      {"file", f.file},
                      {"bit", f.bit},
                      {"treatment", f.treatment}});
  const auto count = [&](Kind kind) {
    return std::count_if(j.faults.begin(), j.faults.end(), [&](const Fault& f) { return f.kind == kind; });
  };
  return {{"gouge", {{"mm", j.worst(Kind::Gouge)}, {"mm2", j.area(Kind::Gouge)}}},
          {"left", {{"mm", j.left.mm}, {"mm2", j.left.mm2}}},
          {"missed", {{"mm", j.worst(Kind::Missed)}, {"mm2", j.area(Kind::Missed)}}},
          {"bite", count(Kind::Bite)},
          {"plunge", count(Kind::Plunge)},
          {"rub", count(Kind::Rub)},
          {"air", count(Kind::Air)},
          {"rapid", count(Kind::Rapid)},
          {"within", j.within},
          {"cell", j.cell},
          {"faults", std::move(faults)}};
}

namespace {

bool says(const std::vector<Verdict>& verdicts, const Verdict& v) {
  return std::any_of(verdicts.begin(), verdicts.end(),
                     [&](const Verdict& w) { return w.code == v.code && w.piece == v.piece && w.grade >= v.grade; });
}

// Whether the remedy mends its verdict on this plan and brings nothing graver; `seconds` gets the time it then takes.
bool mends(const Plan& plan, const Verdict& verdict, const Remedy& remedy, const Rack& rack, PlanCache* cache,
           const Cancel& cancel, double& seconds) {
  Job after = plan.job;
  remedy.apply(after);
  if (after == plan.job) return false;
  Plan then = doyen::plan(after, rack, machine_for(after), cache, cancel);
  seconds = then.seconds;
  if (!says(then.verdicts, verdict) || from_judge(verdict)) {
    if (!then.runs.empty() && !then.job.made_as_parts()) {
      try {
        add_judgement(then, judge_files(then, gcode_files(then), glancing_cell(after.blank), cancel));
      } catch (const Problem&) {
        // No file can be written; a verdict says why.
      }
    }
  }
  if (says(then.verdicts, verdict)) return false;
  return std::none_of(then.verdicts.begin(), then.verdicts.end(), [&](const Verdict& w) {
    return (w.grade == Grade::Stop || w.grade > verdict.grade) && !says(plan.verdicts, w);
  });
}

std::string with_time(const std::string& label, double seconds, double before) {
  constexpr double kWorthSaying = 60;
  const double more = seconds - before;
  if (std::abs(more) < kWorthSaying) return label;
  return label + " (" + format_duration(std::abs(more)) + (more > 0 ? say(" longer)") : say(" shorter)"));
}

}  // namespace

std::vector<Verdict> with_tried_remedies(const Plan& plan, const Rack& rack, PlanCache* cache, const Cancel& cancel) {
  std::vector<Verdict> out = plan.verdicts;
  // Many places of one kind on one piece offer the same in the same words: it is tried once.
  std::map<std::array<std::string, 3>, std::optional<std::string>> tried;
  for (Verdict& v : out) {
    std::vector<Remedy> kept;
    for (Remedy& remedy : v.remedies) {
      cancel.check();
      if (!remedy.apply) {
        kept.push_back(std::move(remedy));
        continue;
      }
      const auto [known, fresh] = tried.try_emplace({v.code + to_word(v.grade), v.piece, remedy.label});
      if (fresh) {
        double seconds = plan.seconds;
        if (mends(plan, v, remedy, rack, cache, cancel, seconds))
          known->second = with_time(remedy.label, seconds, plan.seconds);
      }
      if (!known->second) continue;
      remedy.label = *known->second;
      kept.push_back(std::move(remedy));
    }
    // What is the user's to say comes last.
    std::stable_partition(kept.begin(), kept.end(), [](const Remedy& r) { return !r.says_of_shop; });
    v.remedies = std::move(kept);
  }
  return out;
}

std::string judged_in_words(const Judgement& judgement, const LengthStyle& lengths) {
  if (judgement.cut_as_wanted())
    return say("cut as wanted, to within {0}", depth_in_words(std::max(0.01, judgement.within), lengths));
  std::string what;
  for (const Kind kind : {Kind::Gouge, Kind::Bite, Kind::Plunge, Kind::Rub, Kind::Rapid, Kind::Missed}) {
    if (judgement.has(kind)) what += (what.empty() ? "" : ", ") + code_of(kind);
  }
  return say("NOT cut as wanted: {0}", what);
}

}  // namespace doyen
