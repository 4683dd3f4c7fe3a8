#include "files/log/log_csv.hpp"

#include "files/list/csv_row.hpp"
#include "measure/length.hpp"

namespace doyen {
namespace {

template <typename Of, typename Words>
std::string joined(const std::vector<Of>& all, Words words) {
  std::string text;
  for (const Of& one : all) text += (text.empty() ? "" : "; ") + words(one);
  return text;
}

std::string number(double value) { return format_number(value, 4); }

}  // namespace

std::string log_csv(const std::vector<LogEntry>& entries) {
  std::string text;
  add_csv_row(text, {"made", "kind", "job", "file", "machine", "wood", "thickness_mm", "over_cut_mm", "told_s",
                     "took_s", "well", "mishaps", "words", "changed", "why", "bits"});
  for (const LogEntry& e : entries) {
    const std::string mishaps = joined(e.mishaps, [](const MishapSeen& f) {
      return std::string(to_word(f.mishap)) + (f.mm > 0 ? " " + number(f.mm) + " mm" : "") +
             (f.bit.empty() ? "" : " " + f.bit);
    });
    const std::string bits = joined(
        e.bits, [](const LoggedBit& b) { return b.bit + " " + number(b.feed) + " mm/min, " + number(b.told) + " s"; });
    add_csv_row(text, {e.made, e.kind == MadeKind::TestCut ? "test-cut" : "run", e.job, e.file, e.machine, e.wood,
                       number(e.thickness), e.over_cut ? number(*e.over_cut) : "", number(e.told),
                       e.took > 0 ? number(e.took) : "", e.well ? "yes" : "", mishaps, e.words,
                       joined(e.changed, [](const std::string& line) { return line; }), e.why, bits});
  }
  return text;
}

}  // namespace doyen
