#include "log/entry.hpp"

#include <algorithm>

#include "log/entry_fields.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kMostMm = 20'000, kMostSeconds = 1e8, kMostRpm = 1e6;
constexpr std::size_t kMostParts = 1000, kLongestWords = 4000;

const Words<Mishap>& mishap_words() {
  static const Words<Mishap> kWords{
      {"not-through", Mishap::NotThrough}, {"too-shallow", Mishap::TooShallow}, {"too-deep", Mishap::TooDeep},
      {"broke-out", Mishap::BrokeOut},     {"ran-off", Mishap::RanOff},         {"moved", Mishap::Moved},
      {"inlay-tight", Mishap::InlayTight}, {"inlay-gap", Mishap::InlayGap},     {"rough", Mishap::Rough},
      {"bit-broke", Mishap::BitBroke},     {"wrong-wood", Mishap::WrongWood},   {"other", Mishap::Other}};
  return kWords;
}

}  // namespace

const Record<MishapSeen>& mishap_fields() {
  static const Record<MishapSeen> kFields = [] {
    using F = MishapSeen;
    Record<F> f;
    f.choice("mishap", &F::mishap, mishap_words()).needed();
    f.number("mm", &F::mm, {0, kMostMm});
    f.text("bit", &F::bit);
    return f;
  }();
  return kFields;
}

const Record<LoggedBit>& logged_bit_fields() {
  static const Record<LoggedBit> kFields = [] {
    using B = LoggedBit;
    Record<B> f;
    f.text("bit", &B::bit).needed();
    f.text("name", &B::name);
    f.number("feed", &B::feed, {0, kMostFeed});
    f.number("plunge", &B::plunge, {0, kMostFeed});
    f.number("rpm", &B::rpm, {0, kMostRpm});
    f.number("told", &B::told, {0, kMostSeconds});
    f.number("deepest", &B::deepest, {0, kMostMm});
    return f;
  }();
  return kFields;
}

const Record<LoggedInlay>& logged_inlay_fields() {
  static const Record<LoggedInlay> kFields = [] {
    using I = LoggedInlay;
    Record<I> f;
    f.text("piece", &I::piece);
    f.text("bit", &I::bit).needed();
    f.flag("sloped", &I::sloped);
    f.number("depth", &I::depth, {0, kMostMm});
    f.number("contact", &I::contact, {-kMostMm, kMostMm});
    f.number("allowance", &I::allowance, {-kMostMm, kMostMm});
    return f;
  }();
  return kFields;
}

const Record<LogEntry>& log_entry_fields() {
  static const Record<LogEntry> kFields = [] {
    using E = LogEntry;
    Record<E> f;
    f.text("made", &E::made, 40).needed();
    f.choice("kind", &E::kind, Words<MadeKind>{{"run", MadeKind::Run}, {"test-cut", MadeKind::TestCut}}).always();
    f.text("job", &E::job).always();
    f.text("file", &E::file);
    f.text("mark", &E::mark);
    f.text("machine", &E::machine);
    f.text("wood", &E::wood);
    f.number("thickness", &E::thickness, {0, kMostMm});
    f.optional("overCut", &E::over_cut, {0, kMostMm});
    f.number("told", &E::told, {0, kMostSeconds});
    f.number("took", &E::took, {0, kMostSeconds});
    f.flag("well", &E::well);
    f.records("mishaps", &E::mishaps, mishap_fields(), kMostParts);
    f.text("words", &E::words, kLongestWords);
    f.texts("changed", &E::changed, kMostParts, "a list of what was changed was expected");
    f.text("why", &E::why, kLongestWords);
    f.records("bits", &E::bits, logged_bit_fields(), kMostParts);
    f.records("inlays", &E::inlays, logged_inlay_fields(), kMostParts);
    f.text("jobText", &E::job_text);
    return f;
  }();
  return kFields;
}

const char* to_word(Mishap mishap) { return fields::word_of(mishap, mishap_words()); }

std::optional<Mishap> mishap_of(const std::string& word) {
  for (const auto& [name, mishap] : mishap_words()) {
    if (word == name) return mishap;
  }
  return {};
}

std::string mishap_in_words(Mishap mishap) {
  switch (mishap) {
    case Mishap::NotThrough:
      return say("not through");
    case Mishap::TooShallow:
      return say("too shallow");
    case Mishap::TooDeep:
      return say("too deep");
    case Mishap::BrokeOut:
      return say("wood broke out");
    case Mishap::RanOff:
      return say("ran off the board’s edge");
    case Mishap::Moved:
      return say("something moved");
    case Mishap::InlayTight:
      return say("a plug stands high");
    case Mishap::InlayGap:
      return say("a seam of an inlay is open");
    case Mishap::Rough:
      return say("rough or torn");
    case Mishap::BitBroke:
      return say("a bit broke");
    case Mishap::WrongWood:
      return say("the wrong wood");
    case Mishap::Other:
      return say("something else");
  }
  return {};
}

const std::vector<Mishap>& all_mishaps() {
  static const std::vector<Mishap> kAll = [] {
    std::vector<Mishap> all;
    for (const auto& [name, mishap] : mishap_words()) all.push_back(mishap);
    return all;
  }();
  return kAll;
}

bool has_amount(Mishap mishap) {
  return mishap == Mishap::NotThrough || mishap == Mishap::TooShallow || mishap == Mishap::TooDeep ||
         mishap == Mishap::InlayTight || mishap == Mishap::InlayGap;
}

bool has_bit(Mishap mishap) {
  return mishap == Mishap::BrokeOut || mishap == Mishap::Rough || mishap == Mishap::BitBroke;
}

}  // namespace doyen
