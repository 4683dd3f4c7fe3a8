#include "job/off_cuts.hpp"

#include <algorithm>
#include <functional>

#include "fields/record.hpp"
#include "json_reading.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "storage/aside.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kThicker = 2, kEven = 0.05;  // mm
constexpr std::size_t kMostOffCuts = 10'000;
constexpr const char* kOffCutFormat = "doyen-off-cuts/1";

const Record<OffCut>& off_cut_fields() {
  static const Record<OffCut> kFields = [] {
    using O = OffCut;
    Record<O> f;
    f.text("id", &O::id, 80).needed();
    f.text("species", &O::species, 80).needed();
    f.number("along", &O::along, {1, 20'000}).needed();
    f.number("across", &O::across, {1, 20'000}).needed();
    f.number("thickness", &O::thickness, {0.2, 1000}).needed();
    f.text("place", &O::place, 200);
    return f;
  }();
  return kFields;
}

std::string text_of(const std::vector<OffCut>& all) {
  Json list = Json::array();
  for (const OffCut& one : all) list.push_back(off_cut_fields().write(one));
  return json_text({{"format", kOffCutFormat}, {"units", "mm"}, {"offCuts", list}}, 1) + "\n";
}

std::string change(const std::function<void(std::vector<OffCut>&)>& act) {
  const std::string path = off_cuts_path();
  make_folder(path.substr(0, path.rfind('/')));
  std::vector<OffCut> all;
  bool damaged = false;
  try {
    all = load_off_cuts();
  } catch (const Problem&) {
    damaged = true;
  }
  act(all);
  const std::string text = text_of(all);
  (void)read_off_cuts(text, say("The off-cuts"));
  return write_putting_aside(path, text, damaged);
}

bool holds(double along, double across, const Blank& blank) {
  const bool as_wide = blank.grain == Grain::AlongWidth;
  const double need_along = as_wide ? blank.width : blank.height, need_across = as_wide ? blank.height : blank.width;
  return along >= need_along - kEven && across >= need_across - kEven;
}

bool has_grain(const Blank& blank) { return wood_class_of(blank) == "soft" || wood_class_of(blank) == "hard"; }

}  // namespace

std::string off_cuts_path() { return user_file("off-cuts.json"); }

std::vector<OffCut> read_off_cuts(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  const JsonView top(document, where);
  if (top.text("format") != kOffCutFormat) throw top.wrong("format", say("{0} was expected", kOffCutFormat));
  std::vector<OffCut> all;
  std::size_t i = 0;
  for (const Json& each : top.array("offCuts", kMostOffCuts))
    all.push_back(off_cut_fields().read(JsonView(each, where + ".offCuts[" + std::to_string(i++) + "]")));
  return all;
}

std::vector<OffCut> load_off_cuts() {
  const std::string path = off_cuts_path();
  return file_stands(path) ? read_off_cuts(read_file(path), path) : std::vector<OffCut>{};
}

std::string keep_off_cut(const OffCut& kept) {
  return change([&](std::vector<OffCut>& all) {
    OffCut one = kept;
    for (int n = 1; one.id.empty(); ++n) {
      const std::string id = "off-cut-" + std::to_string(n);
      if (std::none_of(all.begin(), all.end(), [&](const OffCut& o) { return o.id == id; })) one.id = id;
    }
    const auto at = std::find_if(all.begin(), all.end(), [&](const OffCut& o) { return o.id == one.id; });
    if (at == all.end())
      all.push_back(one);
    else
      *at = one;
  });
}

std::string drop_off_cut(const std::string& id) {
  return change([&](std::vector<OffCut>& all) { std::erase_if(all, [&](const OffCut& o) { return o.id == id; }); });
}

bool as_thick(const OffCut& o, const Blank& blank) {
  return o.species == blank.species && o.thickness >= blank.thinnest() - kEven &&
         o.thickness <= blank.thickest() + kThicker;
}

bool fits(const OffCut& o, const Blank& blank) {
  return as_thick(o, blank) &&
         (holds(o.along, o.across, blank) || (!has_grain(blank) && holds(o.across, o.along, blank)));
}

std::vector<OffCut> fitting(const std::vector<OffCut>& all, const Blank& blank) {
  std::vector<OffCut> some;
  std::copy_if(all.begin(), all.end(), std::back_inserter(some), [&](const OffCut& o) { return fits(o, blank); });
  std::stable_sort(some.begin(), some.end(),
                   [](const OffCut& a, const OffCut& b) { return a.along * a.across < b.along * b.across; });
  return some;
}

std::vector<std::optional<OffCut>> shared_out(std::vector<OffCut> all, const std::vector<Blank>& boards) {
  std::vector<std::optional<OffCut>> out;
  for (const Blank& board : boards) {
    const std::vector<OffCut> fit = fitting(all, board);
    out.push_back(fit.empty() ? std::nullopt : std::optional(fit.front()));
    if (!fit.empty()) std::erase_if(all, [&](const OffCut& one) { return one.id == fit.front().id; });
  }
  return out;
}

std::string off_cut_in_words(const OffCut& off_cut, const LengthStyle& lengths) {
  const Species* wood = species_table().find(off_cut.species);
  std::string words = say("{0}, {1} × {2} × {3}", wood == nullptr ? std::string(off_cut.species) : wood->name,
                          size_in_words(off_cut.along, lengths, false), size_in_words(off_cut.across, lengths, false),
                          size_in_words(off_cut.thickness, lengths));
  if (!off_cut.place.empty()) words += ", " + off_cut.place;
  return words;
}

void use_off_cut(Job& job, const OffCut& o) {
  const bool cut_out = std::any_of(job.items.begin(), job.items.end(),
                                   [](const Item& item) { return item.cut.kind == Treatment::Kind::CutOut; });
  if (cut_out && job.blank.form == BlankForm::Rectangle) {
    const bool turned = !holds(o.along, o.across, job.blank);
    const double along = turned ? o.across : o.along, across = turned ? o.along : o.across;
    const bool as_wide = job.blank.grain == Grain::AlongWidth;
    job.blank.width = as_wide ? along : across;
    job.blank.height = as_wide ? across : along;
  }
  job.blank.species = o.species;
  take_readings(job, {o.thickness});
}

}  // namespace doyen
