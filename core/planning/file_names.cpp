#include "planning/file_names.hpp"

#include <algorithm>
#include <vector>

#include "run/plain_words.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::string does(Operation::Kind kind) {
  switch (kind) {
    case Operation::Kind::Mark:
      return word_in_file(say("files: mark"));
    case Operation::Kind::Plane:
      return word_in_file(say("files: plane"));
    case Operation::Kind::Clear:
      return word_in_file(say("files: clear"));
    case Operation::Kind::Groove:
      return word_in_file(say("files: carve"));
    case Operation::Kind::Bevel:
      return word_in_file(say("files: bevel"));
    case Operation::Kind::Drill:
      return word_in_file(say("files: drill"));
    case Operation::Kind::Slot:
      return word_in_file(say("files: slot"));
    case Operation::Kind::Pierce:
      return word_in_file(say("files: pierce"));
    case Operation::Kind::Profile:
      return word_in_file(say("files: cut-out"));
  }
  return "";
}

// flat-1/8in becomes 1-8in-down: only end mills come in two directions.
std::string bit_in_file(const Bit& bit) {
  std::string name = plain_for_file(bit.id);
  if (bit.kind != BitKind::Flat) return name;
  if (const std::string flat = "flat-"; name.starts_with(flat) && name.size() > flat.size()) name.erase(0, flat.size());
  // The rack's own names of such bits end so.
  if (const std::string down = "-down"; name.ends_with(down) && bit.direction == CutDirection::DownCut)
    name.resize(name.size() - down.size());
  if (bit.direction == CutDirection::UpCut) return name + "-" + word_in_file(say("files: up"));
  if (bit.direction == CutDirection::DownCut) return name + "-" + word_in_file(say("files: down"));
  return name;
}

// What it does, the first two things.
std::string done_by(const BitRun& run) {
  std::vector<std::string> words;
  for (const Operation* op : run.operations) {
    if (const std::string word = does(op->kind); std::find(words.begin(), words.end(), word) == words.end())
      words.push_back(word);
  }
  std::string all;
  for (std::size_t i = 0; i < std::min<std::size_t>(2, words.size()); ++i) all += "-" + words[i];
  return all;
}

std::string back_word() { return word_in_file(say("files: back")) + "-"; }

std::string begun(const std::string& job, int number) {
  const std::string called = job_in_file(job);
  return (number < 10 ? "0" : "") + std::to_string(number) + "-" + (called.empty() ? "" : called + "-");
}

}  // namespace

std::string job_in_file(const std::string& job) {
  constexpr std::size_t kMost = 13, kMostOfPart = 8;
  const std::size_t comma = job.find(',');
  const std::string all = small_for_file(job.substr(0, comma));
  // Whole words; of a first one that is longer, its beginning.
  std::string out = all;
  if (all.size() > kMost) {
    const std::size_t end = all.rfind('-', kMost);
    out = all.substr(0, end == std::string::npos || end == 0 ? kMost : end);
  }
  // Of what stands behind commas a word each, and its number: “Lid, plugs of maple”, “Labels, sheet 2 of 4”.
  for (std::size_t at = comma; at != std::string::npos;) {
    const std::size_t next = job.find(',', at + 1);
    const std::string part = small_for_file(job.substr(at + 1, next == std::string::npos ? next : next - at - 1));
    const std::size_t end = part.find('-');
    if (!part.empty()) out += (out.empty() ? "" : "-") + part.substr(0, std::min(end, kMostOfPart));
    if (end != std::string::npos && part[end + 1] >= '0' && part[end + 1] <= '9')
      out += part.substr(end, part.find('-', end + 1) - end);
    at = next;
  }
  return out;
}

std::string file_name(const std::string& job, int number, const BitRun& run, bool all_bits, const std::string& ending) {
  std::string name = begun(job, number);
  if (run.screws > 0) name += word_in_file(say("files: screws")) + "-";
  if (run.later) name += word_in_file(say("files: glued")) + "-";
  if (run.side == Side::Back) name += back_word();
  if (all_bits) return name + word_in_file(say("files: all-bits")) + "." + ending;
  return name + bit_in_file(run.bit) + done_by(run) + "." + ending;
}

std::string look_round_name(const std::string& job, Side side, const std::string& ending) {
  return begun(job, 0) + (side == Side::Back ? back_word() : "") + word_in_file(say("files: look-round")) + "." +
         ending;
}

}  // namespace doyen
