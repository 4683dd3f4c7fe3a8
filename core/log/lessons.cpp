#include "log/lessons.hpp"

#include <algorithm>
#include <cmath>

#include "log/entry_of.hpp"
#include "log/log_texts.hpp"
#include "measure/feed.hpp"
#include "stock/species.hpp"
#include "treatments/through/through.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kHair = 0.01;    // mm: what is told apart
constexpr double kSlower = 0.75;  // of a feed that broke wood out, where no other is known (from memory, no source)
constexpr double kLeastContact = 0.1;  // mm
constexpr double kMostOff = 2;         // mm: more was asked too little, not found wrongly (common practice, no source)
constexpr double kThinnest = 0.3;      // mm of glue gap that stays under a plug (from memory, no source)

std::string day_of(const LogEntry& e) { return e.made.substr(0, 10); }

std::string told_by(const LogEntry& e) { return say("{0}, “{1}”", day_of(e), e.job); }

const MishapSeen* seen(const LogEntry& e, Mishap mishap) {
  const auto found =
      std::find_if(e.mishaps.begin(), e.mishaps.end(), [&](const MishapSeen& f) { return f.mishap == mishap; });
  return found == e.mishaps.end() ? nullptr : &*found;
}

// How far past the underside this machine must go by its runs: what came short is added to what was asked, unless a
// later run came out well with less.
struct Needed {
  double mm = 0;
  const LogEntry* by = nullptr;
  bool as_later = false;  // it is what a later run came out well with
};
Needed over_cut_needed(const std::string& machine, const std::vector<LogEntry>& log) {
  Needed needed;
  double fine = 1e300;  // the least that came out well since
  for (const LogEntry& e : log) {
    if (e.machine != machine || !e.over_cut) continue;
    if (const MishapSeen* f = seen(e, Mishap::NotThrough); f != nullptr && f->mm > 0) {
      const double mm = std::min(*e.over_cut + f->mm, fine);
      if (mm > needed.mm) needed = {mm, &e, fine < *e.over_cut + f->mm};
    } else if (e.well) {
      fine = std::min(fine, *e.over_cut);
    }
  }
  return needed;
}

void learn_through(const Job& job, const std::vector<LogEntry>& log, std::vector<Lesson>& out) {
  const Needed needed = over_cut_needed(job.run.machine, log);
  if (needed.by == nullptr) return;
  // As it is said: what a remedy sets is what it says.
  const double step = job.lengths.unit == Unit::Inch ? kMmPerInch / 1000 : 0.01;
  const double mm = std::ceil(needed.mm / step - 1e-6) * step;
  for (const Item& item : job.items) {
    if (!goes_through(item.cut.kind) || item.cut.through.skin > 0) continue;
    const double now = item.cut.through.over_cut.value_or(default_over_cut(job.blank));
    if (now >= mm - kHair) continue;
    const MishapSeen& f = *seen(*needed.by, Mishap::NotThrough);
    const auto show = [&](double length) { return depth_in_words(length, job.lengths); };
    out.push_back({"learnt-through", item.piece.id,
                   say("Last time on this machine cuts came {0} short of going through ({1}); “{2}” goes {3} past.",
                       show(f.mm), told_by(*needed.by), item.piece.name, show(now)),
                   needed.as_later ? say("A later run came out well with {0}.", show(mm))
                                   : say("{0} past were asked for, {1} were missing: {2}.", show(*needed.by->over_cut),
                                         show(f.mm), show(mm)),
                   say("Go {0} past", show(mm)), [id = item.piece.id, mm](Job& j) {
                     if (Item* it = j.find(id)) it->cut.through.over_cut = mm;
                   }});
  }
}

// How far this machine's cuts ended above what was asked (below: negative), by its newest runs in a row that said so;
// nothing when a later one came out well.
struct DepthKnown {
  const LogEntry* by = nullptr;
  double mm = 0;  // the mean
  int times = 0;
};
DepthKnown depth_known(const std::string& machine, const std::vector<LogEntry>& log) {
  DepthKnown k;
  for (const LogEntry& e : log) {
    if (e.machine != machine) continue;
    const MishapSeen *high = seen(e, Mishap::TooShallow), *low = seen(e, Mishap::TooDeep);
    const double mm = high != nullptr && high->mm > 0 ? high->mm : low != nullptr && low->mm > 0 ? -low->mm : 0;
    if (mm == 0 || std::abs(mm) > kMostOff) {
      if (e.well) break;
      continue;
    }
    if (k.times > 0 && (mm > 0) != (k.mm > 0)) break;
    if (k.by == nullptr) k.by = &e;
    k.mm = (k.mm * k.times + mm) / (k.times + 1);
    ++k.times;
  }
  return k;
}

void learn_depth(const Job& job, const std::vector<LogEntry>& log, std::vector<Lesson>& out) {
  const DepthKnown k = depth_known(job.run.machine, log);
  if (k.by == nullptr) return;
  const std::string mm = depth_in_words(std::abs(k.mm), job.lengths);
  std::string text = k.mm > 0 ? say("Last time on this machine it came out {0} too shallow ({1}).", mm, told_by(*k.by))
                              : say("Last time on this machine it came out {0} too deep ({1}).", mm, told_by(*k.by));
  // Twice the same way is no slip of the hand.
  std::string sum =
      k.times == 1
          ? say("Touch z off on what will be carved, with the bit that carves first, and look at a first stroke.")
      : k.mm > 0 ? say("{0} times in a row: z is found too high. Measure the touch plate or paper under the bit again.",
                       k.times)
                 : say("{0} times in a row: z is found too low. Measure the touch plate or paper under the bit again.",
                       k.times);
  out.push_back({"learnt-depth", "", std::move(text), std::move(sum), "", {}});
}

const LoggedBit* bit_in(const LogEntry& e, const BitId& id) {
  const auto found = std::find_if(e.bits.begin(), e.bits.end(), [&](const LoggedBit& b) { return b.bit == id; });
  return found == e.bits.end() ? nullptr : &*found;
}

// What one bit did in one wood: the slowest feed at which wood broke, and the fastest below it that came out well.
struct FeedKnown {
  const LogEntry* by = nullptr;
  Mishap mishap = Mishap::Rough;
  double bad = 1e300, good = 0;
};
FeedKnown feed_known(const BitId& bit, const WoodId& wood, const std::vector<LogEntry>& log) {
  FeedKnown k;
  double fine_since = 0;
  for (const LogEntry& e : log) {
    const LoggedBit* b = e.wood == wood ? bit_in(e, bit) : nullptr;
    if (b == nullptr || b->feed <= 0) continue;
    if (e.well) {
      fine_since = std::max(fine_since, b->feed);
      k.good = std::max(k.good, b->feed);
      continue;
    }
    for (const MishapSeen& f : e.mishaps) {
      if (!has_bit(f.mishap) || f.bit != bit || b->feed <= fine_since || b->feed >= k.bad) continue;
      k.by = &e;
      k.mishap = f.mishap;
      k.bad = b->feed;
    }
  }
  return k;
}

std::vector<BitId> bits_that_cut(const Job& job) {
  std::vector<BitId> bits;
  const auto take = [&](const BitId& id) {
    if (!id.empty() && std::find(bits.begin(), bits.end(), id) == bits.end()) bits.push_back(id);
  };
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::None) continue;
    take(item.cut.bit);
    for (const BitId& id : item.cut.clearing) take(id);
  }
  return bits;
}

void learn_feeds(const Job& job, const Rack& rack, const std::vector<LogEntry>& log, std::vector<Lesson>& out) {
  const std::string wood_class = wood_class_of(job.blank);
  for (const BitId& id : bits_that_cut(job)) {
    const Bit* bit = rack.find(id);
    if (bit == nullptr) continue;
    const auto own = job.run.feeds.find(id);
    const Feeds now = own != job.run.feeds.end() ? own->second : bit->feeds_in(wood_class);
    const FeedKnown k = feed_known(id, job.blank.species, log);
    if (k.by == nullptr || now.feed < k.bad * 0.99) continue;
    const bool known = k.good > 0 && k.good < k.bad * 0.99;
    const double feed = known ? k.good : std::floor(k.bad * kSlower / 10) * 10;
    const auto show = [&](double mm_a_minute) { return feed_in_words(mm_a_minute, job.lengths); };
    out.push_back({"learnt-feed", "",
                   say("{0} in this wood, fed at {1}: {2} ({3}). It is asked for {4} here.", bit->name, show(k.bad),
                       mishap_in_words(k.mishap), told_by(*k.by), show(now.feed)),
                   known ? say("At {0} it came out well.", show(feed))
                         : say("No slower feed was tried: three quarters of it is a beginning."),
                   say("Feed it at {0}", show(feed)), [id, now, feed](Job& j) {
                     Feeds slower = now;
                     slower.feed = feed;
                     slower.plunge = std::min(slower.plunge, feed);
                     j.run.feeds[id] = slower;
                   }});
  }
}

// What an inlay of the same bit and depth taught: how much more contact (sloped), or allowance (upright), mm; less
// where a seam stayed open.
struct FitKnown {
  const LogEntry* by = nullptr;
  const MishapSeen* mishap = nullptr;
  double now = 0, then = 0;  // what is asked here, and what it should be by that run
};
FitKnown fit_known(const Item& item, const Rack& rack, const std::vector<LogEntry>& log) {
  const Inlay& inlay = item.cut.inlay;
  const BitId flank = flank_bit(item.cut);
  const Bit* bit = rack.find(flank);
  FitKnown k;
  k.now = inlay.sloped ? inlay.contact : inlay.allowance;
  for (const LogEntry& e : log) {
    const auto like = std::find_if(e.inlays.begin(), e.inlays.end(), [&](const LoggedInlay& l) {
      return l.bit == flank && l.sloped == inlay.sloped && std::abs(l.depth - item.cut.depth) < kHair;
    });
    if (bit == nullptr || like == e.inlays.end()) continue;
    const double asked = inlay.sloped ? like->contact : like->allowance;
    if (e.well) return k;  // the newest word on it
    const MishapSeen *tight = seen(e, Mishap::InlayTight), *open = seen(e, Mishap::InlayGap);
    if (tight != nullptr && tight->mm > 0) {
      k.then = asked + tight->mm;
      k.mishap = tight;
    } else if (open != nullptr && open->mm > 0) {
      k.then = asked - (inlay.sloped ? open->mm / bit->tan_half() : open->mm);
      k.mishap = open;
    } else {
      continue;
    }
    k.by = &e;
    return k;
  }
  return k;
}

// What is said of an inlay, and how it is put right where its pocket has room for that.
Lesson inlay_lesson(const Item& item, const FitKnown& k, const LengthStyle& lengths) {
  const bool sloped = item.cut.inlay.sloped;
  const auto show = [&](double mm) { return depth_in_words(mm, lengths); };
  Lesson lesson{"learnt-inlay", item.piece.id, {}, {}, {}, {}};
  lesson.text = k.mishap->mishap == Mishap::InlayTight
                    ? say("A plug of this bit stood {0} high ({1}); “{2}” is asked the same.", show(k.mishap->mm),
                          told_by(*k.by), item.piece.name)
                    : say("A seam of this bit stood open by {0} ({1}); “{2}” is asked the same.", show(k.mishap->mm),
                          told_by(*k.by), item.piece.name);
  if (sloped && (k.then < kLeastContact || k.then > item.cut.depth - kThinnest)) {
    lesson.sum = say("Its pocket is too shallow for {0} of contact: cut it deeper first.", show(k.then));
    return lesson;
  }
  const double to = sloped ? k.then : std::max(0.0, k.then);
  lesson.sum = sloped ? say("By that run, contact lies {0} down rather than {1}.", show(to), show(k.now))
                      : say("By that run, the plug is {0} a side smaller rather than {1}.", show(to), show(k.now));
  lesson.label = sloped ? say("Contact {0} down", show(to)) : say("{0} smaller a side", show(to));
  lesson.apply = [id = item.piece.id, sloped, to](Job& j) {
    if (Item* it = j.find(id)) (sloped ? it->cut.inlay.contact : it->cut.inlay.allowance) = to;
  };
  return lesson;
}

void learn_inlays(const Job& job, const Rack& rack, const std::vector<LogEntry>& log, std::vector<Lesson>& out) {
  for (const Item& item : job.items) {
    if (item.cut.kind != Treatment::Kind::Inlay) continue;
    const FitKnown k = fit_known(item, rack, log);
    if (k.by == nullptr) continue;
    const bool mended = k.mishap->mishap == Mishap::InlayTight ? k.now >= k.then - kHair : k.now <= k.then + kHair;
    if (!mended) out.push_back(inlay_lesson(item, k, job.lengths));
  }
}

// What the last run of this very job says and no figure puts right: in the user's own words, too.
void learn_of_job(const Job& job, const std::vector<LogEntry>& log, std::vector<Lesson>& out) {
  const LogEntry* last = last_of(job, {}, log);
  if (last == nullptr || (last->well && last->words.empty()) || (last->mishaps.empty() && last->words.empty())) return;
  std::string text = say("Last time ({0}): {1}.", day_of(*last), outcome_in_words(*last, job.lengths));
  out.push_back({"learnt-of-job",
                 "",
                 std::move(text),
                 last->words.empty() ? std::string() : say("You wrote: {0}", last->words),
                 "",
                 {}});
}

}  // namespace

std::vector<Lesson> lessons_for(const Job& job, const Rack& rack, const std::vector<LogEntry>& log) {
  std::vector<Lesson> out;
  if (log.empty()) return out;
  learn_through(job, log, out);
  learn_depth(job, log, out);
  learn_feeds(job, rack, log, out);
  learn_inlays(job, rack, log, out);
  learn_of_job(job, log, out);
  return out;
}

bool came_out_well(const std::vector<LogEntry>& log, const BitId& bit, const WoodId& wood) {
  return std::any_of(log.begin(), log.end(),
                     [&](const LogEntry& e) { return e.well && e.wood == wood && bit_in(e, bit) != nullptr; });
}

}  // namespace doyen
