#include "inlay/steps.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include "artwork/lettering/single_line_faces.hpp"
#include "holding/screws.hpp"
#include "inlay/plugs.hpp"
#include "problem.hpp"
#include "run/plain_words.hpp"
#include "stock/species.hpp"
#include "treatments/suits.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

const char* const kMarks[] = {"witness-1", "witness-2"};
constexpr double kFromMetal = 3.1;  // mm between a bit and metal, a little more than is asked of cuts
constexpr double kMarkHigh = 6, kPinHole = 8.1, kPinRoom = 6, kPinDeep = 6;  // mm

std::string wood_name(const std::string& id) {
  const Species* species = species_table().find(id);
  return species == nullptr ? id : species->name;
}

std::string files_of(const Plan& plan, bool later) {
  std::string names;
  std::set<std::string> seen;
  for (const BitRun& run : plan.runs) {
    if (run.later == later && seen.insert(run.file).second) names += (names.empty() ? "" : ", ") + run.file;
  }
  return names;
}

// The places of the marks or holes that the job has, in words.
std::string marked_places(const Job& job) {
  std::string words;
  for (const char* id : kMarks) {
    if (const Item* item = job.find(id))
      words += say("{0}{1}, y {2}", (words.empty() ? "x " : say(" and x ")),
                   depth_in_words(item->piece.at.x, job.lengths), depth_in_words(item->piece.at.y, job.lengths));
  }
  return words;
}

std::string put_back(const Job& job) {
  const std::string places = marked_places(job);
  if (job.run.keep_zero == KeepZero::Pins && !places.empty())
    return say("Put the board back over its two pins ({0}): x and y are where they were. Set z anew.", places);
  if (job.run.keep_zero == KeepZero::Marks && !places.empty())
    return say(
        "Put the board back, bring a pointed bit over both witness marks in turn ({0}) and shift or set x and y until "
        "both are met. Set z anew.",
        places);
  return say("Put the board back against the same stops and find x and y at the same corner as before. Set z anew.");
}

// How the plugs are brought level with the face: by the machine, or by hand.
InlayStep levelled(const Job& job, const std::string& carrying, const std::string& saw) {
  if (job.run.mill_level)
    return {carrying,
            say("Saw the plugs off about {0} above the face, put the board back, and mill them level: folder "
                "{1}. Zero is the board's own face beside the plugs; 0.1 mm stays for sanding.",
                depth_in_words(*job.run.mill_level, job.lengths), word_in_file(say("files: levelling"))),
            say("Fingers clear of the saw. Nothing stands higher than was said, or the bit meets it on its way.")};
  return {carrying, say("Saw the plugs off within the {0} above the face and plane or scrape level.", saw),
          say("Fingers clear of the saw. Cut away from your hands.")};
}

}  // namespace

namespace {

bool is_inlay(const Item& item) { return item.cut.kind == Treatment::Kind::Inlay; }

// The widest of them, which all are sawn off within.
double saw_gap_of(const Job& job) {
  double saw = 0;
  for (const Item& item : job.items) {
    if (is_inlay(item)) saw = std::max(saw, item.cut.inlay.saw_gap);
  }
  return saw;
}

void add_plugs(const Job& job, std::vector<InlayStep>& steps) {
  const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
  std::vector<FurtherBoard> boards;
  try {
    boards = plug_boards(job);
  } catch (const Problem&) {
    // A verdict says which piece cannot be set; there is no plug to tell of until then.
  }
  for (const FurtherBoard& board : boards) {
    steps.push_back(
        {say("Plugs of {0}", wood_name(board.job.blank.species)),
         say("Cut the plugs from a board of {0} × {1}, {2} thick: folder {3}. They lie mirrored there, as they must: "
             "each is turned over into its pocket. Saw them apart within their sunk background, so that the background "
             "rests on nothing.",
             show(board.job.blank.width), show(board.job.blank.height), show(board.job.blank.thickest()), board.folder),
         say("Small parts: hold them in a clamp or a sled, fingers clear of the saw.")});
  }
}

void add_gluing(const Job& job, const std::string& carrying, std::vector<InlayStep>& steps) {
  const auto show = [&](double mm) { return depth_in_words(mm, job.lengths); };
  double glue = 1e300;
  for (const Item& item : job.items) {
    if (is_inlay(item)) glue = std::min(glue, item.cut.depth - item.cut.inlay.contact);
  }
  steps.push_back({carrying,
                   say("Glue: a thin even coat on the pocket's flanks and floor and on the plug's flanks. A gap of {0} "
                       "stays under the plug, so that it closes on its flanks and not on the glue.",
                       show(std::max(0.0, glue))),
                   say("Gloves where the glue's own sheet asks for them; air moving.")});
  steps.push_back({carrying,
                   say("Clamp with a flat caul over each plug, evenly, until glue squeezes out all round and a gap of "
                       "{0} is left between the face and the plug's background.",
                       show(saw_gap_of(job))),
                   ""});
  steps.push_back({carrying,
                   say("Wait: as long as the glue's own sheet says before it is clamped free, and a day before it is "
                       "sawn or milled (common practice, no source)."),
                   ""});
}

}  // namespace

std::vector<InlayStep> inlay_steps(const Plan& plan) {
  const Job& job = plan.job;
  if (std::none_of(job.items.begin(), job.items.end(), is_inlay)) return {};
  const std::string carrying = say("Carrying board, {0}", wood_name(job.blank.species));
  std::vector<InlayStep> steps;
  steps.push_back(
      {carrying, say("Cut the pockets: {0}.", files_of(plan, false)),
       say("Eyes and ears covered, dust extraction on; spindle still, machine locked, before a bit is changed.")});
  add_plugs(job, steps);
  add_gluing(job, carrying, steps);
  steps.push_back(levelled(job, carrying, depth_in_words(saw_gap_of(job), job.lengths)));
  steps.push_back(
      {carrying,
       say("Sand through the grits with a flat block. Sand as little as you can: sanding shifts the inlay's outline."),
       say("Mask and extraction: fine dust.")});
  if (plan.has_later())
    steps.push_back({carrying, say("Second run, bevels and cut-outs: {0}. {1}", files_of(plan, true), put_back(job)),
                     say("Glued and level first: a board cut free cannot be clamped or levelled.")});
  else if (!job.run.cut_out_last)
    steps.push_back({carrying,
                     say("It was cut out before gluing: leave its tabs whole, clamp flat on the bed or a board, and "
                         "part the tabs when all is level."),
                     ""});
  return steps;
}

bool is_zero_mark(const Item& item) {
  return std::any_of(std::begin(kMarks), std::end(kMarks), [&](const char* id) { return item.piece.id == id; });
}

namespace {

// Where marks may stand: clear of everything that is cut and of what is kept, in from either end of the board.
class MarkPlaces {
 public:
  // `from_metal`: mm from clamps and screws, for the bit's body.
  MarkPlaces(const Job& job, double room, double from_metal)
      : blank_(job.blank), room_(room), board_(grow(region_of(job.blank), -room - 1)) {
    for (const Item& item : job.items) {
      try {
        const Outlines outlines = job.outlines(item);
        if (item.cut.kind == Treatment::Kind::CutOut)
          kept_ = unite(kept_, grow(outlines.region, 8, Corner::Round, 0.1));
        else if (item.cut.kind != Treatment::Kind::None)
          taken_.push_back(bounds(outlines));
      } catch (const Problem&) {
        continue;  // a verdict says why it cannot be set
      }
    }
    for (const KeepOut& place : job.blank.keep_outs) {
      if (!place.metal()) taken_.push_back(place.box());
    }
    for (const KeepOut& place : metal_on(job)) {
      const bool tall = place.kind == KeepOut::Kind::Clamp;  // as high as the nut above the bit
      taken_.push_back(place.box().grown(tall ? std::max(from_metal, kNutHalf + 1) : from_metal));
    }
  }

  // From that end inwards, in the middle first.
  [[nodiscard]] std::optional<Point> at_end(int end) const {
    constexpr double kStep = 2;  // mm
    const bool wide = blank_.width >= blank_.height;
    const double along = wide ? blank_.width : blank_.height, across = wide ? blank_.height : blank_.width;
    const int far = static_cast<int>((along / 2 - 2 * room_ - 1) / kStep),
              aside = static_cast<int>((across / 2 - room_) / kStep);
    for (int i = 0; i <= far; ++i) {
      const double in = room_ + 1 + i * kStep, u = end == 0 ? in : along - in;
      for (int k = 0; k <= 2 * aside; ++k) {
        const int steps = (k + 1) / 2;  // 0, then one to either side, then two
        const double w = across / 2 + (k % 2 == 0 ? kStep : -kStep) * steps;
        const Point p = wide ? Point{u, w} : Point{w, u};
        if (clear(p)) return p;
      }
    }
    return std::nullopt;
  }

 private:
  [[nodiscard]] bool clear(Point p) const {
    const Box box = Box{p.x, p.y, p.x, p.y}.grown(room_);
    if (!contains(board_, p) || std::any_of(taken_.begin(), taken_.end(), [&](const Box& b) { return b.meets(box); }))
      return false;
    return intersect(kept_, region_of(box)).empty();
  }

  const Blank& blank_;
  double room_;
  Region board_, kept_;  // what is cut out must stay whole
  std::vector<Box> taken_;
};

// The V that the job's inlays are cut with; the usual one where there is none.
std::string v_of_inlays(const Job& job, const Rack& rack) {
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::Inlay && item.cut.inlay.sloped) return item.cut.bit;
  }
  return id_of(usual_v(rack));
}

Item mark_at(const Job& job, const Rack& rack, KeepZero how, int end, Point p) {
  Item item;
  item.piece.id = kMarks[end];
  item.piece.at = p;
  if (how == KeepZero::Marks) {
    Lettering cross;
    cross.words = "+";
    cross.face = single_line_faces().front();
    cross.cap_height = kMarkHigh;
    item.piece.name = end == 0 ? say("Witness mark, first") : say("Witness mark, second");
    item.piece.what = cross;
    item.cut.kind = Treatment::Kind::Line;
    item.cut.bit = v_of_inlays(job, rack);
    item.cut.depth = 0.4;
  } else {
    item.piece.name = end == 0 ? say("Pin hole, first") : say("Pin hole, second");
    item.piece.what = PlainShape{PlainShape::Kind::Ellipse, kPinHole, kPinHole};
    item.cut.kind = Treatment::Kind::Pierce;
    item.cut.bit = id_of(flat_nearest(rack, kMmPerInch / 4));
    item.cut.through.over_cut = kPinDeep;
  }
  return item;
}

}  // namespace

int keep_zero_by(Job& job, KeepZero how, const Rack& rack) {
  std::erase_if(job.items, is_zero_mark);
  job.run.keep_zero = how;
  // Without a cut-out there is no waste: marks would stay in the sign.
  const bool waste = std::any_of(job.items.begin(), job.items.end(),
                                 [](const Item& item) { return item.cut.kind == Treatment::Kind::CutOut; });
  if (how == KeepZero::Corner || !waste) return 0;
  const double high = how == KeepZero::Marks ? kMarkHigh : kPinHole;
  const Bit* bit = rack.find(mark_at(job, rack, how, 0, {}).cut.bit);
  const MarkPlaces places(job, high / 2 + (how == KeepZero::Marks ? 2 : kPinRoom),
                          kFromMetal + (bit == nullptr ? 0 : bit->true_diameter() / 2));
  std::vector<Item> marks;
  for (int end = 0; end < 2; ++end) {
    if (const std::optional<Point> place = places.at_end(end)) marks.push_back(mark_at(job, rack, how, end, *place));
  }
  // First of all: what is listed later lies on top.
  job.items.insert(job.items.begin(), marks.begin(), marks.end());
  return static_cast<int>(marks.size());
}

}  // namespace doyen
