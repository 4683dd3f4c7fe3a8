#include "cli/cut_options.hpp"

#include <algorithm>
#include <cstdio>
#include <sstream>

#include "json_reading.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "treatments/all.hpp"
#include "treatments/start.hpp"
#include "treatments/suits.hpp"

namespace doyen::cli {
namespace {

// "200x90x19mm", "24x9x3/4in", "24in x 9in x 19mm": a unit at the end stands for all that have none.
Blank parse_blank(const std::string& text) {
  std::vector<std::string> parts(1);
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (text[i] == 'x' || text[i] == 'X')
      parts.emplace_back();
    else if (text.compare(i, 2, "×") == 0)
      parts.emplace_back(), ++i;
    else
      parts.back() += text[i];
  }
  if (parts.size() != 3)
    throw bad_input("--blank: width x height x thickness was expected, such as 200x90x19mm or 24x9x3/4in.");
  const auto has_unit = [](const std::string& s) { return s.find_first_of("mincft\"") != std::string::npos; };
  const std::string& last = parts.back();
  const Unit unit =
      last.find("in") != std::string::npos || last.find('"') != std::string::npos ? Unit::Inch : Unit::Millimetre;
  double mm[3];
  for (int i = 0; i < 3; ++i)
    mm[i] = parse_length(parts[static_cast<std::size_t>(i)],
                         has_unit(parts[static_cast<std::size_t>(i)]) ? Unit::Millimetre : unit);
  for (const double v : mm) {
    if (!(v >= 0.2 && v <= 50'000)) throw bad_input("--blank: sizes from 0.2 mm to 50 m were expected.");
  }
  Blank blank;
  blank.width = mm[0];
  blank.height = mm[1];
  blank.readings = {mm[2]};
  blank.margin = std::min(6.0, std::min(mm[0], mm[1]) / 20);
  return blank;
}

bool offered(const ListedLook& listed) { return listed.look.chosen && listed.kind != Treatment::Kind::None; }

std::string all_looks() {
  std::string words;
  for (const ListedLook& listed : kLooks) {
    if (offered(listed)) words += (words.empty() ? "" : ", ") + std::string(listed.look.word);
  }
  return words;
}

// Its own bit; of two, the larger one clears before the smaller, as far as it can. `before`: the own one that was named
// already; null: none.
void take_own(Treatment& t, const Bit& bit, const Bit* before) {
  const bool pierced = t.kind == Treatment::Kind::Pierce;
  const auto first = [&](const Bit& a, const Bit& b) {  // a clears for b
    return pierced ? a.true_diameter() >= b.true_diameter() : a.kind == BitKind::V && doyen::clears(a, t, &b);
  };
  if (before != nullptr && first(bit, *before)) {
    t.clearing.push_back(bit.id);
    return;
  }
  if (before != nullptr && first(*before, bit)) t.clearing.push_back(t.bit);
  t.bit = bit.id;
}

}  // namespace

void CutOptions::add_to(Arguments& arguments) {
  arguments.text("--blank", blank, "Width x height x thickness, such as 200x90x19mm or 24x9x3/4in", Arguments::Needed);
  arguments.text("--species", species, "A wood from the table, such as sugar-maple");
  arguments.text("--treatment", treatment, "One of " + all_looks());
  arguments.text("--depth", depth,
                 "Below the ground, of everything that is asked a depth; the same as --limit for incised work");
  arguments.text("--limit", limit, "Floor limit: wide strokes end flat at this depth");
  arguments.texts("--cut", set,
                  "Anything else of the treatment as a job file names it, such as steps=3, back=true, moves.way=rings");
  arguments.text("--bits", bits, "Bit ids with commas, such as v60,flat-1/8in");
}

Treatment::Kind CutOptions::look() const {
  for (const ListedLook& listed : kLooks) {
    if (offered(listed) && treatment == listed.look.word) return listed.kind;
  }
  throw Usage("--treatment: one of " + all_looks() + " was expected, not “" + treatment + "”.");
}

Treatment CutOptions::read(const Job& job, const Piece& piece, const Rack& rack) const {
  Treatment t = start_look(look(), {}, {job.blank, job.lengths, rack, [&](const Bit& v) {
                                          return widest_stroke_of(outlines_of(piece, job.source()).region, v);
                                        }});
  if (look_of(t.kind).asks_depth && !depth.empty()) {
    t.depth = parse_length(depth, Unit::Millimetre);
    if (!(t.depth > 0.005)) throw bad_input("--depth: a depth above zero was expected.");
  }
  const std::string limit_text = limit.empty() ? depth : limit;
  if (t.kind == Treatment::Kind::Incise && !limit_text.empty()) {
    t.incise.floor_limit = parse_length(limit_text, Unit::Millimetre);
    if (!(*t.incise.floor_limit > 0.005)) throw bad_input("--limit: a depth above zero was expected.");
  }
  bool any_v = false, any_own = false;
  std::stringstream list(bits);
  for (std::string id; std::getline(list, id, ',');) {
    const Bit* bit = rack.find(id);
    if (bit == nullptr) {
      std::string known;
      for (const Bit& b : rack.bits) known += (known.empty() ? "" : ", ") + b.id;
      throw bad_input("--bits: “" + id + "” is not in the rack; there are " + known + ".");
    }
    const WantedBit wanted = wanted_bit(t);
    const bool main = wanted != WantedBit::None && suits(*bit, wanted);
    const bool clears = bit->kind == BitKind::Flat &&
                        (t.kind == Treatment::Kind::Incise || t.kind == Treatment::Kind::Inlay || makes_ground(t.kind));
    if (main)
      take_own(t, *bit, any_own ? rack.find(t.bit) : nullptr);
    else if (clears) {
      t.clearing.push_back(id);
    } else
      throw bad_input("--bits: the " + bit->name + " cannot be used for this treatment.");
    any_own = any_own || main;
    any_v = any_v || bit->kind == BitKind::V;
  }
  // Flat bits alone raise with upright flanks.
  if (t.kind == Treatment::Kind::Raise && !t.clearing.empty() && !any_v) t.raise.sloped = false;
  return t;
}

void CutOptions::finish(Job& job) const {
  if (set.empty()) return;
  Json document = parse_json(write_job(job), "job");
  for (const std::string& one : set) {
    const std::size_t equals = one.find('=');
    if (equals == std::string::npos || equals == 0)
      throw Usage("--cut: key=value was expected, such as steps=3, not “" + one + "”.");
    Json* at = &document["pieces"][0]["cut"];
    std::stringstream path(one.substr(0, equals));
    for (std::string key; std::getline(path, key, '.');) {
      if (!at->is_object() && !at->is_null())
        throw Usage("--cut: “" + one.substr(0, equals) + "” is not the name of anything in a treatment.");
      at = &(*at)[key];
    }
    const std::string value = one.substr(equals + 1);
    const Json parsed = Json::parse(value, nullptr, false);
    *at = parsed.is_discarded() ? Json(value) : parsed;
  }
  job = read_job(document.dump(), "--cut");
  for (const std::string& name : not_known(job))
    throw Usage("--cut: “" + name.substr(name.find(".cut.") + 5) + "” is not the name of anything in a treatment.");
  say_unused(job);
}

void CutOptions::save_piece(Job job, Piece piece, const std::string& out) const {
  Item item;
  item.piece = std::move(piece);
  item.piece.at = job.blank.box().centre();
  item.cut = read(job, item.piece, load_rack());
  job.items.push_back(std::move(item));
  finish(job);
  save_job(job, out);
}

Job CutOptions::start(const std::string& name) const {
  Job job;
  job.name = name;
  job.blank = parse_blank(blank);
  job.run.least_wood = usual_least_wood(job.blank);
  if (!species.empty()) {
    if (species_table().find(species) == nullptr)
      throw bad_input("--species: “" + species + "” is not in the table of woods.");
    job.blank.species = species;
  }
  return job;
}

}  // namespace doyen::cli
