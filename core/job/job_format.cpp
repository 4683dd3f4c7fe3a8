// The job's file: what stands on its top level, and how it is read, written and checked.
#include <algorithm>
#include <map>
#include <set>
#include <stdexcept>

#include "artwork/artwork_fields.hpp"
#include "finish/finish_fields.hpp"
#include "job/job.hpp"
#include "job/ranges.hpp"
#include "nesting/nest_fields.hpp"
#include "panels/panel_fields.hpp"
#include "plates/plate_list_fields.hpp"
#include "rack/bit_fields.hpp"
#include "stock/blank_fields.hpp"
#include "storage/atomic_file.hpp"
#include "treatments/treatment_fields.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostPieces = 5000;
constexpr const char* kFormat = "doyen-job/1";

// What a piece is has a key for each kind. Read into, the piece becomes that kind.
template <typename Kind>
struct WhatOf {
  const Kind& operator()(const Item& item) const {
    static const Kind kNone{};
    const auto* kind = std::get_if<Kind>(&item.piece.what);
    return kind == nullptr ? kNone : *kind;
  }
  Kind& operator()(Item& item) const {
    if (!std::holds_alternative<Kind>(item.piece.what)) item.piece.what = Kind{};
    return std::get<Kind>(item.piece.what);
  }
};
template <typename Kind>
void add_kind(Record<Item>& f, const char* key, const Record<Kind>& kind) {
  f.record(key, WhatOf<Kind>{}, kind).only_when([](const Item& item) {
    return std::holds_alternative<Kind>(item.piece.what);
  });
}

const Record<Item>& item_fields() {
  static const Record<Item> fields = [] {
    Record<Item> f;
    f.text(
         "id", [](auto& i) -> auto& { return i.piece.id; })
        .needed();
    f.text(
         "name", [](auto& i) -> auto& { return i.piece.name; })
        .always();
    f.number("x", [](auto& i) -> auto& { return i.piece.at.x; }, {-kFar, kFar}).always();
    f.number("y", [](auto& i) -> auto& { return i.piece.at.y; }, {-kFar, kFar}).always();
    f.number("turn", [](auto& i) -> auto& { return i.piece.turn; }, {-3600, 3600}).always();
    add_kind(f, "lettering", lettering_fields());
    add_kind(f, "shape", shape_fields());
    add_kind(f, "drawing", drawing_fields());
    add_kind(f, "madeFrom", derived_fields());
    f.text("group", &Item::group);
    f.record("cut", &Item::cut, treatment_fields()).always();
    f.afterwards([](Item& item, const JsonView& v) {
      if (!v.has("name")) item.piece.name = item.piece.id;
      if (v.has("lettering") + v.has("shape") + v.has("drawing") + v.has("madeFrom") != 1)
        throw bad_input(say("{0}: one of lettering, shape, drawing or madeFrom was expected.", v.where()));
    });
    return f;
  }();
  return fields;
}

const Record<AcceptedReason>& reason_fields() {
  static const Record<AcceptedReason> fields = [] {
    Record<AcceptedReason> f;
    f.text("of", &AcceptedReason::of, 400).needed();
    f.text("because", &AcceptedReason::because, 2000).needed();
    return f;
  }();
  return fields;
}

const Record<Fixture>& fixture_fields() {
  static const Record<Fixture> fields = [] {
    Record<Fixture> f;
    f.choice("kind", &Fixture::kind,
             Words<Fixture::Kind>{{"none", Fixture::Kind::None},
                                  {"stops", Fixture::Kind::Stops},
                                  {"fence", Fixture::Kind::Fence},
                                  {"dowels", Fixture::Kind::Dowels}});
    f.choice("corner", &Fixture::corner,
             Words<Fixture::Corner>{{"leftFront", Fixture::Corner::LeftFront},
                                    {"rightFront", Fixture::Corner::RightFront},
                                    {"leftBack", Fixture::Corner::LeftBack},
                                    {"rightBack", Fixture::Corner::RightBack}});
    f.optional("x", &Fixture::x, {-10'000, 100'000});
    f.optional("y", &Fixture::y, {-10'000, 100'000});
    f.number("stands", &Fixture::stands, {0, 500});
    f.number("partLong", &Fixture::part_long, {0, 5000});
    f.number("partWide", &Fixture::part_wide, {0, 1000});
    f.optional("first", &Fixture::first, {0, 50'000});
    f.optional("second", &Fixture::second, {0, 50'000});
    f.optional("end", &Fixture::end, {0, 50'000});
    f.afterwards([](Fixture& fixture, const JsonView& v) {
      if (fixture.x.has_value() != fixture.y.has_value())
        throw bad_input(say("{0}: x and y were expected, both or neither.", v.where()));
    });
    return f;
  }();
  return fields;
}

const Record<RunSettings>& run_fields() {
  static const Record<RunSettings> fields = [] {
    using R = RunSettings;
    Record<R> f;
    f.text("machine", &R::machine).always();
    f.flag("oneFile", &R::one_file).always();
    f.choice("zeroSurface", &R::zero_surface,
             Words<ZeroSurface>{{"face", ZeroSurface::Face}, {"bed", ZeroSurface::Bed}})
        .always();
    f.choice("zeroPlace", &R::zero_place,
             Words<ZeroPlace>{{"leftFront", ZeroPlace::LeftFront},
                              {"centre", ZeroPlace::Centre},
                              {"rightFront", ZeroPlace::RightFront},
                              {"leftBack", ZeroPlace::LeftBack},
                              {"rightBack", ZeroPlace::RightBack},
                              {"middleFront", ZeroPlace::MiddleFront},
                              {"middleLeft", ZeroPlace::MiddleLeft},
                              {"middleRight", ZeroPlace::MiddleRight},
                              {"middleBack", ZeroPlace::MiddleBack},
                              {"pin", ZeroPlace::Pin}})
        .always();
    f.choice("onBed", &R::on_bed,
             Words<OnBed>{{"asDrawn", OnBed::AsDrawn},
                          {"quarterLeft", OnBed::QuarterLeft},
                          {"half", OnBed::Half},
                          {"quarterRight", OnBed::QuarterRight}});
    f.flag("lookRound", &R::look_round);
    f.record("fixture", &R::fixture, fixture_fields());
    f.text("stops", &R::stops, 400);
    f.number("made", &R::made, {0, 1'000'000});
    f.number("plate", &R::plate, {0, 100});
    f.number("leastWood", &R::least_wood, {0, 500}).always();
    f.text("holding", &R::holding).always();
    f.choice("turnOver", &R::turn,
             Words<TurnOver>{{"leftEdge", TurnOver::LeftEdge}, {"frontEdge", TurnOver::FrontEdge}});
    f.flag("lowTravel", &R::low_travel);
    f.texts("accepted", &R::accepted, 1000, "a list of names was expected");
    f.records("reasons", &R::reasons, reason_fields(), 1000);
    f.flag("cutOutLast", &R::cut_out_last);
    f.choice("keepZero", &R::keep_zero,
             Words<KeepZero>{{"corner", KeepZero::Corner}, {"marks", KeepZero::Marks}, {"pins", KeepZero::Pins}});
    f.optional("millLevel", &R::mill_level, {0.1, 200});
    f.number("zeroBelow", &R::zero_below, {0, 500});
    f.number("zeroFloor", &R::zero_floor, {0, 500});
    f.number("wasteBoard", &R::waste_board, {0, 200});
    f.records_by_name("feeds", &R::feeds, job_feeds_fields(), 500);
    f.texts("testOf", &R::test_of, 100, "a list of bit ids was expected");
    f.texts("order", &R::order, 500, "a list of bit ids was expected");
    return f;
  }();
  return fields;
}

const Record<LengthStyle>& lengths_fields() {
  static const Record<LengthStyle> fields = [] {
    Record<LengthStyle> f;
    f.choice("unit", &LengthStyle::unit, Words<Unit>{{"mm", Unit::Millimetre}, {"in", Unit::Inch}}).always();
    f.flag("fractions", &LengthStyle::fractions).always();
    f.number("denominator", &LengthStyle::denominator, {2, 128}).always();
    return f;
  }();
  return fields;
}

const Record<Job>& job_fields() {
  static const Record<Job> fields = [] {
    Record<Job> f;
    f.own(
         "format",
         [](Job&, const JsonView& v) {
           const std::string format = v.text("format");
           if (format == kFormat) return;
           if (format.starts_with("doyen-job/"))
             throw bad_input(say("{0}: this job was written by a newer Doyen (“{1}”); this one reads “doyen-job/1”.",
                                 v.where(), format));
           throw bad_input(say("{0}.format: “doyen-job/1” was expected; this is not a Doyen job.", v.where()));
         },
         [](const Job&) { return Json(kFormat); }, [](const Job&) { return true; })
        .takes(kFormat);
    f.text("name", &Job::name).always();
    f.record("lengths", &Job::lengths, lengths_fields()).always();
    f.record("blank", &Job::blank, blank_fields()).needed();
    f.records("pieces", &Job::items, item_fields(), kMostPieces).always();
    f.record("run", &Job::run, run_fields()).always();
    f.record("finish", &Job::finish, finish_fields());
    f.record("plates", &Job::plates, plate_list_fields()).only_when([](const Job& job) { return job.plates.there(); });
    f.record("panels", &Job::panels, panel_fields());
    f.record("nest", &Job::nest, nest_fields());
    f.afterwards([](Job& job, const JsonView& v) {
      std::set<std::string> ids;
      for (std::size_t i = 0; i < job.items.size(); ++i) {
        if (!ids.insert(job.items[i].piece.id).second)
          throw bad_input(say("{0}.pieces[{1}].id: every piece needs an id of its own.", v.where(), i));
      }
    });
    return f;
  }();
  return fields;
}

}  // namespace

Job read_job(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  Job job = job_fields().read(JsonView(document, where));
  job.unknown = fields::kept_text(job_fields().beside(document));
  return job;
}

std::string write_job(const Job& job) {
  Json j = job_fields().write(job);
  if (!job.unknown.empty()) job_fields().put_beside(j, parse_json(job.unknown, "unknown"));
  return json_text(j, 1) + "\n";
}

std::vector<KnownKey> known_keys() {
  std::vector<KnownKey> keys;
  job_fields().add_known("", keys);
  return keys;
}

Range range_of(const std::string& key) {
  static const std::map<std::string, Range> kRanges = [] {
    std::map<std::string, Range> ranges;
    for (const KnownKey& known : known_keys()) {
      if (known.range) ranges[known.path] = *known.range;
    }
    return ranges;
  }();
  const auto found = kRanges.find(key);
  if (found == kRanges.end()) throw std::logic_error("no number is kept as " + key);
  return found->second;
}

std::vector<std::string> not_known(const Job& job) {
  std::vector<std::string> names;
  if (!job.unknown.empty()) job_fields().name_beside(parse_json(job.unknown, "unknown"), "", names);
  return names;
}

std::vector<UnusedChoice> unused_choices(const Job& job) {
  std::vector<UnusedChoice> unused;
  for (const Item& item : job.items) {
    for (const std::string& key : treatment_fields().unused(treatment_fields().write(item.cut), item.cut))
      unused.push_back({item.piece.id, key});
  }
  return unused;
}

Job load_job(const std::string& path) { return read_job(read_file(path), path); }

namespace {
[[noreturn]] void refuse_to_keep(const Problem& problem) {
  throw bad_input(say("That would be more than a job can hold. {0}", std::string(problem.what())));
}
}  // namespace

void check_job(const Job& job, const Job& before) {
  try {
    if (job.items.size() > kMostPieces) throw bad_input(say("At most {0} pieces were expected.", kMostPieces));
    if (!(job.blank == before.blank)) {
      const Json blank = blank_fields().write(job.blank);
      (void)blank_fields().read({blank, "blank"});
    }
    if (!(job.run == before.run)) {
      const Json run = run_fields().write(job.run);
      (void)run_fields().read({run, "run"});
    }
    if (!(job.finish == before.finish)) {
      const Json finish = finish_fields().write(job.finish);
      (void)finish_fields().read({finish, "finish"});
    }
    if (!(job.plates == before.plates)) {
      const Json plates = plate_list_fields().write(job.plates);
      (void)plate_list_fields().read({plates, "plates"});
    }
    if (!(job.panels == before.panels)) {
      const Json panels = panel_fields().write(job.panels);
      (void)panel_fields().read({panels, "panels"});
    }
    if (!(job.nest == before.nest)) {
      const Json nest = nest_fields().write(job.nest);
      (void)nest_fields().read({nest, "nest"});
    }
    for (std::size_t i = 0; i < job.items.size(); ++i) {
      const Item& item = job.items[i];
      const Item* was = i < before.items.size() && before.items[i].piece.id == item.piece.id
                            ? &before.items[i]
                            : before.find(item.piece.id);
      if (was != nullptr && *was == item) continue;
      // Large art that only moved is not gone through again.
      Item looked_at = item;
      if (was != nullptr && was->piece.what == item.piece.what) looked_at.piece.what = PlainShape{};
      const Json json = item_fields().write(looked_at);
      (void)item_fields().read({json, item.piece.name.empty() ? item.piece.id : item.piece.name});
    }
  } catch (const Problem& problem) {
    refuse_to_keep(problem);
  }
}

std::string job_text(const Job& job) {
  Job kept = job;
  for (Item& item : kept.items) {
    try {
      keep_outlines(item.piece);
    } catch (const Problem&) {
      // A piece that cannot be set right now is still saved as it stands.
    }
  }
  std::string text = write_job(kept);
  // What could not be read again is not kept: the file that stands, and the job in hand, are worth more.
  try {
    (void)read_job(text, say("This job"));
  } catch (const Problem& problem) {
    refuse_to_keep(problem);
  }
  return text;
}

void save_job(const Job& job, const std::string& path) { write_file_atomically(path, job_text(job)); }

}  // namespace doyen
