#include "job/clip.hpp"

#include <algorithm>
#include <map>
#include <utility>

#include "job/layout.hpp"
#include "json_reading.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr const char* kFormat = "doyen-pieces/1";

}  // namespace

void rename_pieces(Item& item, const std::map<std::string, std::string>& now) {
  const auto rename = [&](std::string& id) {
    if (const auto it = now.find(id); it != now.end()) id = it->second;
  };
  if (auto* d = std::get_if<Derived>(&item.piece.what)) std::for_each(d->from.begin(), d->from.end(), rename);
  if (auto* s = std::get_if<PlainShape>(&item.piece.what)) rename(s->shares_of);
  if (auto* l = std::get_if<Lettering>(&item.piece.what)) {
    rename(l->along);
    rename(l->inside);
  }
  rename(item.cut.raise.panel);
}

void carry_choices(Job& to, const Job& from, const std::map<std::string, std::string>& now) {
  for (const auto& [piece, colour] : from.finish.colours) {
    if (const auto own = now.find(piece); own != now.end()) to.finish.colours[own->second] = colour;
  }
  // Such as “gouge/name-1”.
  const auto renamed = [&](const std::string& accepted) {
    const auto slash = accepted.find('/');
    const auto own = slash == std::string::npos ? now.end() : now.find(accepted.substr(slash + 1));
    return own == now.end() ? std::string() : accepted.substr(0, slash + 1) + own->second;
  };
  for (const std::string& accepted : from.run.accepted) {
    if (const std::string name = renamed(accepted); !name.empty()) to.run.accepted.push_back(name);
  }
  for (const AcceptedReason& reason : from.run.reasons) {
    if (const std::string name = renamed(reason.of); !name.empty()) to.run.reasons.push_back({name, reason.because});
  }
}

std::string clip_of(const Job& job, const std::vector<std::string>& ids) {
  Job carried;
  carried.lengths = job.lengths;
  carried.blank = job.blank;
  Json chosen = Json::array();
  std::vector<std::string> wanted;
  for (const Item& item : job.items) {
    if (std::find(ids.begin(), ids.end(), item.piece.id) == ids.end()) continue;
    chosen.push_back(item.piece.id);
    for (const Piece* piece : job.with_sources(item.piece)) wanted.push_back(piece->id);
  }
  if (chosen.empty()) return {};
  for (const Item& item : job.items) {
    if (std::find(wanted.begin(), wanted.end(), item.piece.id) != wanted.end()) carried.items.push_back(item);
  }
  // A panel that stays behind is no panel any more.
  for (Item& item : carried.items) {
    if (carried.find(item.cut.raise.panel) == nullptr) item.cut.raise.panel.clear();
  }
  const Json out{{"format", kFormat}, {"chosen", std::move(chosen)}, {"job", parse_json(write_job(carried), "pieces")}};
  return json_text(out, 1);
}

std::vector<std::string> put_clip(Job& job, const std::string& clip, Point shift) {
  const Json json = parse_json(clip, "pieces");
  const JsonView view(json, "pieces");
  if (view.text("format") != kFormat) throw view.wrong("format", say("“doyen-pieces/1” was expected"));
  const Job carried = read_job(json_text(view.object("job").json()), "pieces");
  std::vector<std::string> chosen;
  for (const Json& each : view.array("chosen", 10'000)) {
    if (each.is_string()) chosen.push_back(each.get<std::string>());
  }
  std::map<std::string, std::string> now;
  std::vector<std::string> put;
  for (Item item : carried.items) {
    const std::string was = item.piece.id;
    const bool asked = std::find(chosen.begin(), chosen.end(), was) != chosen.end();
    const Item* there = job.find(was);
    if (!asked && there != nullptr && there->piece == item.piece) continue;  // the same source
    item.piece.id = there == nullptr ? was : job.fresh_id(kind_word(item.piece));
    now[was] = item.piece.id;
    item.piece.name = job.fresh_name(item.piece.name);
    if (asked) put.push_back(item.piece.id);
    if (!asked) item.cut.kind = Treatment::Kind::None;
    job.items.push_back(std::move(item));
  }
  for (Item& item : job.items) {
    if (std::any_of(now.begin(), now.end(), [&](const auto& entry) { return entry.second == item.piece.id; }))
      rename_pieces(item, now);
  }
  // Copies of a group are a group of their own.
  std::map<std::string, std::vector<std::string>> groups;
  for (const std::string& id : put) {
    Item* item = job.find(id);
    if (!item->group.empty()) groups[std::exchange(item->group, {})].push_back(id);
  }
  for (const auto& [was, ids] : groups) group(job, ids);
  for (const std::string& id : put) {
    const std::vector<std::string> from = sources_of(job.find(id)->piece);
    const bool comes_along = std::any_of(from.begin(), from.end(), [&](const std::string& source) {
      return std::find(put.begin(), put.end(), source) != put.end();
    });
    if (!comes_along) job.shift(id, shift);
  }
  return put;
}

}  // namespace doyen
