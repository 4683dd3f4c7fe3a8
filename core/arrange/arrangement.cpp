#include "arrange/arrangement.hpp"

#include <algorithm>
#include <cmath>
#include <future>
#include <map>
#include <set>
#include <utility>

#include "arrange/forms.hpp"
#include "arrange/settings.hpp"
#include "job/room.hpp"
#include "planning/fitness.hpp"
#include "planning/judged.hpp"
#include "planning/outputs.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "treatments/suits.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using namespace arranging;
using Role = ArrangeWish::Role;

constexpr double kOptical = 0.02;  // of the room's height: how far above its middle the content's lies
constexpr double kReadFrom = 120;  // cap heights: how far away letters are read with ease (common practice, no source)
constexpr double kLeastCap = 4;    // mm: smaller letters are nobody's proposal
constexpr std::size_t kOfOneForm = 2;  // proposals

// What stands in the way: clamps, knots and cracks, and pieces that stay.
Job obstacles_of(const Job& job, const ArrangeWish& wish) {
  Job other = job;
  other.blank.margin = 0;
  std::erase_if(other.blank.keep_outs, [](const KeepOut& place) {
    return place.kind == KeepOut::Kind::GlueLine || place.kind == KeepOut::Kind::Sapwood;
  });
  const auto moves = [&](const std::string& id) {
    return std::any_of(wish.parts.begin(), wish.parts.end(), [&](const ArrangeWish::Part& p) {
      return p.id == id && p.role != Role::Stays && (p.role != Role::Border || wish.border);
    });
  };
  // What is made from pieces that stay, stays as it is; what is made from what moves, moves.
  std::vector<std::string> follow;
  for (Item& item : other.items) {
    if (sources_of(item.piece).empty()) continue;
    try {
      const std::vector<const Piece*> with = job.with_sources(job.find(item.piece.id)->piece);
      if (std::any_of(with.begin(), with.end(), [&](const Piece* one) { return moves(one->id); })) {
        follow.push_back(item.piece.id);
        continue;
      }
      const Outlines outlines = job.outlines(*job.find(item.piece.id));
      item.piece.what = frozen(outlines, item.piece.name);
      item.piece.at = bounds(outlines).centre();
      item.piece.turn = 0;
    } catch (const Problem&) {
      follow.push_back(item.piece.id);  // it is nowhere
    }
  }
  std::erase_if(other.items, [&](const Item& item) {
    const auto part = std::find_if(wish.parts.begin(), wish.parts.end(),
                                   [&](const ArrangeWish::Part& p) { return p.id == item.piece.id; });
    const bool stays =
        part == wish.parts.end() || part->role == Role::Stays || (part->role == Role::Border && !wish.border);
    // What is only a source is not on the board; edges hold what is arranged.
    return !stays || item.cut.kind == Treatment::Kind::None || item.cut.kind == Treatment::Kind::CutOut ||
           item.cut.kind == Treatment::Kind::Bevel ||
           std::find(follow.begin(), follow.end(), item.piece.id) != follow.end();
  });
  return other;
}

// A form in a setting, as large as it fits.
struct Fitted {
  const Form* form = nullptr;
  const Setting* setting = nullptr;
  double size = 0;  // mm, of the main line's capitals
  Point at;         // of the form's middle, mm
  double least = 0;
  double share = 0;  // of the largest size that any form comes to
  double fill = 0, balance = 0, strokes = 1, faults = 1, merit = 0;
  double thinnest = 0, gap = 0;
};

// A line of the sum that makes the merit up, and what it comes to.
void add_part(Arrangement& a, const std::string& what, int weight, double share) {
  a.sum.lines.push_back(what + ": " + std::to_string(weight) + " × " + format_number(share, 2) + " = " +
                        format_number(weight * share, 1));
}
void add_merit(Arrangement& a) { a.sum.result = say("Merit {0} of 100", format_number(100 * a.merit, 0)); }

constexpr int kForTime = 5;             // of 100
constexpr double kQuick = 30.0 * 60.0;  // s; nobody asks for less. From memory, no source.
void weigh_time(Arrangement& a, double seconds) {
  const double share = seconds > kQuick ? kQuick / seconds : 1;
  a.merit += kForTime / 100.0 * share;
  a.reasons.push_back(say("Takes {0} at the machine.", format_duration(seconds)));
  add_part(a, say("At the machine {0}, best within half an hour", format_duration(seconds)), kForTime, share);
  add_merit(a);
}

// What spoils it: by the plan, then by its files, read back and carved; null where nothing does. The judge's verdicts
// join the plan's.
const Verdict* stop_of(Plan& planned, const Cancel& cancel) {
  const auto first = [&]() -> const Verdict* {
    const auto stop = std::find_if(planned.verdicts.begin(), planned.verdicts.end(),
                                   [](const Verdict& v) { return v.grade == Grade::Stop; });
    return stop == planned.verdicts.end() ? nullptr : &*stop;
  };
  if (first() == nullptr && !planned.runs.empty())
    add_judgement(planned, judge_files(planned, gcode_files(planned), glancing_cell(planned.job.blank), cancel));
  return first();
}

class Search {
 public:
  Search(const Job& job, const Rack& rack, const ArrangeWish& wish, const Cancel& cancel)
      : job_(job), rack_(rack), obstacles_(obstacles_of(job, wish)), room_(obstacles_) {
    for (const ArrangeWish::Part& part : wish.parts) {
      const Item* item = job.find(part.id);
      if (item == nullptr || !may_be(*item, part.role)) continue;
      if (part.role == Role::Motif) content_.motif.push_back(part.id);
      if (part.role == Role::Main || part.role == Role::Second || part.role == Role::Small)
        content_.words.push_back({part.id, part.role});
    }
    if (content_.words.empty() && content_.motif.empty())
      throw bad_input(say("There is nothing to lay out yet: add lettering or a drawing first."));
    no_keep_outs_ = obstacles_.blank.keep_outs.empty() && obstacles_.items.empty();
    // Strokes are measured meanwhile.
    auto strokes = std::async(std::launch::async, [this, cancel] {
      const Cancel::Scope stops(cancel);
      measure_strokes();
    });
    settings_ = settings_for(job, rack, wish);
    forms_ = forms_for(job, content_);
    strokes.get();
  }

  // Gives one after another, the best first, until `take` wants no more.
  void run(const std::function<bool(Arrangement)>& take) {
    std::vector<Fitted> all;
    for (const Setting& setting : settings_) {
      for (const Form& form : forms_) {
        Cancel::check_here();
        if (form.round && !setting.round) continue;
        if (std::optional<Fitted> one = fit(form, setting)) all.push_back(*one);
      }
    }
    if (all.empty())
      throw bad_input(
          say("The words do not fit: capitals would be under {0}.", size_in_words(kLeastCap, job_.lengths)));
    double largest = 0;
    for (const Fitted& one : all) largest = std::max(largest, one.size);
    for (Fitted& one : all) {
      one.share = one.size / largest;
      one.merit = 0.3 * one.share + 0.15 * one.fill + 0.2 * one.balance + 0.2 * one.strokes + 0.1 * one.faults;
    }
    std::stable_sort(all.begin(), all.end(), [](const Fitted& a, const Fitted& b) { return a.merit > b.merit; });
    give_best(all, take);
  }

 private:
  // Strokes and gaps in cap heights; they are the same in every form.
  void measure_strokes() {
    const Bit* v = usual_v(rack_);
    if (v == nullptr) return;
    const std::string wood = wood_class_of(job_.blank);
    least_stroke_ = least_stroke(*v);
    least_gap_ = least_gap(wood);
    for (const Content::Words& words : content_.words) {
      Block block;  // straight, as its face spaces it
      block.ids = {words.id};
      block.words = true;
      Job one;
      one.items.push_back({job_.find(words.id)->piece, {}});
      place(one, block, 20, {});
      const Outlines outlines = outlines_of(one.items.front().piece, job_.source());
      if (outlines.region.empty()) continue;
      const Fitness fit = fitness_of(outlines.region, *v, {}, machine_for(job_));
      strokes_[words.id] = {fit.thinnest / 20, fit.gap / 20};
    }
  }

  [[nodiscard]] bool clear(const Form& form, const Setting& setting, double size, Point at) const {
    const Box room = bounds(setting.room), whole = form.box();
    if (at.x + whole.left * size < room.left || at.x + whole.right * size > room.right ||
        at.y + whole.bottom * size < room.bottom || at.y + whole.top * size > room.top)
      return false;
    if (!setting.convex.empty()) {  // its hull is enough
      for (const Point& p : form.hull) {
        if (!inside(setting.convex, at + p * size)) return false;
      }
      if (no_keep_outs_) return true;
    }
    for (const Laid& laid : form.blocks) {
      const double k = laid.size * size;
      const Point origin = at + laid.at * size;
      if (setting.convex.empty()) {
        for (const Point& p : laid.block->points) {
          if (!contains(setting.room, origin + p * k)) return false;
        }
      }
      if (no_keep_outs_) continue;
      for (const Box& b : laid.block->boxes) {
        if (!room_.clear(
                {origin.x + b.left * k, origin.y + b.bottom * k, origin.x + b.right * k, origin.y + b.top * k}))
          return false;
      }
    }
    return true;
  }
  static bool inside(const Ring& convex, Point p) {
    for (std::size_t i = 0; i < convex.size(); ++i) {
      if (cross(convex[(i + 1) % convex.size()] - convex[i], p - convex[i]) <
          -0.01 * distance(convex[i], convex[(i + 1) % convex.size()]))
        return false;
    }
    return true;
  }

  [[nodiscard]] double largest(const Form& form, const Setting& setting, Point at, double least) const {
    const Box room = bounds(setting.room), whole = form.box();
    double high = std::min(room.width() / whole.width(), room.height() / whole.height());
    if (!(high > least) || !clear(form, setting, least, at)) return 0;
    if (clear(form, setting, high, at)) return high;
    double low = least;
    for (int i = 0; i < 9; ++i) {
      const double middle = (low + high) / 2;
      (clear(form, setting, middle, at) ? low : high) = middle;
    }
    return low;
  }

  [[nodiscard]] std::optional<Fitted> fit(const Form& form, const Setting& setting) const {
    const Box room = bounds(setting.room);
    if (!(form.box().width() > 0)) return {};
    Fitted best;
    best.form = &form;
    best.setting = &setting;
    const Point middle = room.centre() + Point{0, kOptical * room.height()};
    // The optical middle first; another place must give clearly more.
    std::vector<Point> places{middle};
    const bool rectangle = setting.convex.size() == 4;
    for (const double y : {-0.06, 0.06, -0.12, 0.12, -0.2, 0.2}) {
      if (!rectangle || !no_keep_outs_) places.push_back(middle + Point{0, y * room.height()});
    }
    if (!no_keep_outs_) {
      for (const double x : {-0.08, 0.08, -0.16, 0.16, -0.24, 0.24}) {
        for (const double y : {0.0, -0.12, 0.12}) places.push_back(middle + Point{x * room.width(), y * room.height()});
      }
    }
    for (const Point& place : places) {
      const double least = std::max(kLeastCap, best.size * (best.size > 0 ? 1.08 : 1));
      const double size = largest(form, setting, place, least);
      if (size > best.size) {
        best.size = size;
        best.at = place;
      }
    }
    if (best.size <= 0) return {};
    // To a round height.
    const double unit = job_.lengths.unit == Unit::Inch ? kMmPerInch / 16 : 1;
    best.size = best.size > 4 * unit ? unit * std::floor(best.size / unit + 1e-9) : best.size;
    if (form.left) {  // towards the left edge, as far as it stays clear
      const double to = room.left - form.box().left * best.size;
      for (double share = 1; share > 0.05; share -= 0.1) {
        const Point there{best.at.x + (to - best.at.x) * share, best.at.y};
        if (!clear(form, setting, best.size, there)) continue;
        best.at = there;
        break;
      }
    }
    return measured(best);
  }

  [[nodiscard]] std::optional<Fitted> measured(Fitted one) const {
    const Setting& setting = *one.setting;
    double covered = 0;
    Point weight{};
    one.least = 1e300;
    double glue = 0, letters = 0;
    for (const Laid& laid : one.form->blocks) {
      const double k = laid.size * one.size;
      if (laid.block->words) {
        one.least = std::min(one.least, k);
        const auto [thinnest, gap] = strokes(laid.block->ids.front());
        if (thinnest > 0 && (one.thinnest <= 0 || thinnest * k < one.thinnest)) one.thinnest = thinnest * k;
        if (gap > 0 && (one.gap <= 0 || gap * k < one.gap)) one.gap = gap * k;
      }
      for (const Box& b : laid.block->boxes) {
        const Point origin = one.at + laid.at * one.size;
        const Box on{origin.x + b.left * k, origin.y + b.bottom * k, origin.x + b.right * k, origin.y + b.top * k};
        const double size = on.width() * on.height();
        covered += size;
        weight = weight + on.centre() * size;
        ++letters;
        for (const KeepOut& place : job_.blank.keep_outs) {
          if ((place.kind == KeepOut::Kind::GlueLine || place.kind == KeepOut::Kind::Sapwood) && on.meets(place.box()))
            ++glue;
        }
      }
    }
    if (one.least < 1e299 && one.least < kLeastCap) return {};
    const double all = std::max(1.0, area(setting.room));
    const Box room = bounds(setting.room);
    one.fill = 1 - std::min(1.0, std::abs(covered / all - 0.4) / 0.4);
    if (covered > 0) {
      const Point off = weight * (1 / covered) - (room.centre() + Point{0, kOptical * room.height()});
      one.balance = 1 - std::min(1.0, length(off) / (0.2 * std::min(room.width(), room.height())));
    }
    if (least_stroke_ > 0 && one.thinnest > 0) one.strokes = std::min(1.0, one.thinnest / least_stroke_);
    if (least_gap_ > 0 && one.gap > 0) one.strokes = std::min(one.strokes, one.gap / least_gap_);
    one.faults = letters > 0 ? 1 - glue / letters : 1;
    return one;
  }
  [[nodiscard]] std::pair<double, double> strokes(const std::string& id) const {
    const auto found = strokes_.find(id);
    return found == strokes_.end() ? std::pair{0.0, 0.0} : found->second;
  }

  // Every form once in its best setting, then again in others: something to choose from, not ten of one kind.
  void give_best(const std::vector<Fitted>& all, const std::function<bool(Arrangement)>& take) const {
    std::map<std::string, std::set<std::string>> taken;
    for (std::size_t most = 1; most <= kOfOneForm; ++most) {
      for (const Fitted& one : all) {
        std::set<std::string>& frames = taken[one.form->name];
        if (frames.size() >= most || frames.contains(one.setting->frame)) continue;
        Cancel::check_here();
        std::optional<Arrangement> made = make(one);
        if (!made) continue;
        frames.insert(one.setting->frame);
        if (!take(std::move(*made))) return;
      }
    }
  }

  [[nodiscard]] std::optional<Arrangement> make(const Fitted& one) const {
    Arrangement a;
    a.form = one.form->name;
    a.frame = one.setting->frame;
    a.merit = one.merit;
    a.job = one.setting->job;
    a.cap_height = content_.words.empty() ? 0 : one.size;
    a.least_cap_height = content_.words.empty() ? 0 : one.least;
    for (const Laid& laid : one.form->blocks)
      place(a.job, *laid.block, laid.size * one.size, one.at + laid.at * one.size);
    if (!stands(a.job, *one.setting)) return {};
    tell(a, one);
    return a;
  }

  // By the outlines themselves: nothing meets anything, nothing leaves the room.
  [[nodiscard]] bool stands(const Job& job, const Setting& setting) const {
    std::vector<std::string> ids;
    for (const Content::Words& words : content_.words) ids.push_back(words.id);
    ids.insert(ids.end(), content_.motif.begin(), content_.motif.end());
    std::vector<Region> regions;
    for (const std::string& id : ids) {
      const Outlines outlines = job.outlines(*job.find(id));
      Region region = outlines.region;
      if (!outlines.lines.empty()) region = unite(region, sweep(outlines.lines, 0.5));
      regions.push_back(std::move(region));
    }
    const std::size_t words = content_.words.size();
    for (std::size_t i = 0; i < regions.size(); ++i) {
      if (!within(regions[i], setting)) return false;
      // Several drawings of one motif lie to each other as the user laid them.
      for (std::size_t k = i + 1; k < regions.size(); ++k) {
        if (i >= words && k >= words) continue;
        if (bounds(regions[i]).meets(bounds(regions[k])) && !intersect(regions[i], regions[k]).empty()) return false;
      }
    }
    return true;
  }

  static bool within(const Region& region, const Setting& setting) {
    if (setting.convex.empty()) return area(subtract(region, grow(setting.room, 0.05))) < 0.01;
    for (const Island& island : region.islands) {
      for (const Point& p : island.rings.front()) {
        if (!inside(setting.convex, p)) return false;
      }
    }
    return true;
  }

  void tell(Arrangement& a, const Fitted& one) const {
    const auto size = [&](double mm) { return size_in_words(mm, job_.lengths); };
    const auto number = [](double v, int digits) { return format_number(v, digits); };
    a.sum.title = say("How this arrangement comes about");
    if (!content_.words.empty()) {
      a.reasons.push_back(
          say("Capitals {0}{1}.", size(one.size),
              (one.least < 0.98 * one.size ? say(" high, the smallest line's {0}", size(one.least)) : say(" high"))));
      a.reasons.push_back(say("Read with ease from up to {0} away.",
                              (job_.lengths.unit == Unit::Inch ? say("{0} ft", number(one.least * kReadFrom / 304.8, 0))
                                                               : number(one.least * kReadFrom / 1000, 1) + " m")));
    }
    if (one.strokes < 0.999)
      a.reasons.push_back(
          one.thinnest > 0 && one.thinnest < least_stroke_
              ? say("Thinnest stroke {0}: it stays shallow.", depth_in_words(one.thinnest, job_.lengths))
              : say("Narrowest gap {0}: it may crumble.", depth_in_words(one.gap, job_.lengths)));
    if (one.faults < 0.999) a.reasons.push_back(say("Some letters lie across a glue line or sapwood."));
    for (const Laid& laid : one.form->blocks) {
      const Item* item = job_.find(laid.block->ids.front());
      a.sum.lines.push_back("“" + item->piece.name + "”: " + number(laid.size, 2) + " × " + size(one.size) + " = " +
                            size(laid.size * one.size) + (laid.block->words ? say(" cap height") : say(" high")));
    }
    a.sum.lines.push_back(say("White between lines: 0.55 of their mean cap height (common practice)"));
    a.sum.lines.push_back(say("White kept to the edge or border: {0}", size(one.setting->white)));
    a.sum.lines.push_back(say("Read with ease from 120 cap heights (common practice)"));
    const auto part = [&](const std::string& what, int weight, double share) { add_part(a, what, weight, share); };
    part(say("Size, of the largest that any form comes to"), 30, one.share);
    part(say("White and wood, best where 40 % is covered"), 15, one.fill);
    part(say("Balance about the optical middle"), 20, one.balance);
    part(say("Strokes and gaps, of what carves well"), 20, one.strokes);
    part(say("Letters clear of glue lines and sapwood"), 10, one.faults);
    add_merit(a);
  }

  const Job& job_;
  const Rack& rack_;
  Job obstacles_;
  Room room_;
  bool no_keep_outs_ = false;
  Content content_;
  std::vector<Setting> settings_;
  std::vector<Form> forms_;
  std::map<std::string, std::pair<double, double>> strokes_;
  double least_stroke_ = 0, least_gap_ = 0;
};

}  // namespace

std::vector<Arrangement> arrangements(const Job& job, const Rack& rack, const ArrangeWish& wish, std::size_t most,
                                      const Cancel& cancel) {
  const Cancel::Scope stops(cancel);
  std::vector<Arrangement> all;
  Search(job, rack, wish, cancel).run([&](Arrangement one) {
    all.push_back(std::move(one));
    return all.size() < most;
  });
  return all;
}

void propose(const Job& job, const Rack& rack, const ArrangeWish& wish, std::size_t most, const Cancel& cancel,
             const std::function<void(Arrangement)>& tell) {
  const Cancel::Scope stops(cancel);
  PlanCache cache;
  std::string why;
  std::size_t told = 0;
  Search(job, rack, wish, cancel).run([&](Arrangement one) {
    auto planned = std::make_shared<Plan>(plan(one.job, rack, machine_for(one.job), &cache, cancel));
    if (const Verdict* stop = stop_of(*planned, cancel)) {
      if (why.empty()) why = stop->text;
      return true;
    }
    weigh_time(one, planned->seconds);
    one.plan = std::move(planned);
    tell(std::move(one));
    return ++told < most;
  });
  if (told == 0) throw bad_input(say("Every arrangement has something that stops it: {0}", why));
}

}  // namespace doyen
