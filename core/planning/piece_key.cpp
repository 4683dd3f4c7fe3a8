#include "planning/piece_key.hpp"

#include <boost/uuid/name_generator_sha1.hpp>
#include <cstring>

#include "json_reading.hpp"
#include "stock/blank_fields.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace {

PieceKey hashed(const std::string& text) {
  const boost::uuids::name_generator_sha1 hash(boost::uuids::ns::oid());
  const boost::uuids::uuid of = hash(text);
  PieceKey key;
  static_assert(sizeof of.data == sizeof key);
  std::memcpy(&key, of.data, sizeof key);
  return key;
}

void add(std::string& text, double value) { text.append(reinterpret_cast<const char*>(&value), sizeof value); }
void add(std::string& text, std::uint64_t value) { text.append(reinterpret_cast<const char*>(&value), sizeof value); }
void add(std::string& text, const std::string& word) {
  add(text, std::uint64_t{word.size()});
  text += word;
}
void add(std::string& text, const Region& region) {
  add(text, std::uint64_t{region.islands.size()});
  for (const Island& island : region.islands) {
    add(text, std::uint64_t{island.rings.size()});
    for (const Ring& ring : island.rings) {
      add(text, std::uint64_t{ring.size()});
      text.append(reinterpret_cast<const char*>(ring.data()), ring.size() * sizeof(Point));
    }
  }
}

void add(std::string& text, const Surroundings& around) {
  const Ground& ground = around.ground;
  for (const std::string* word : {&ground.of, &ground.half_on, &around.with}) add(text, *word);
  add(text, std::uint64_t{ground.overruled});
  for (const double mm : {ground.below, around.wall, around.lean, around.part_below, around.part_wall, around.grown})
    add(text, mm);
  for (const Region* region : {&around.sunk, &around.raised, &around.floor, &around.part_floor, &around.open})
    add(text, *region);
}

// What of the board matters to how a piece is cut; where it lies on it only to what is cut from the back, or kept to a
// board that cuts run off; how thick it is only to what goes through it.
Blank as_it_matters(Blank blank, const Treatment& cut, bool back) {
  blank.margin = 0;
  if (!goes_through(cut.kind)) {
    blank.readings = {1};
    blank.bed_unevenness = 0;
  }
  blank.keep_outs.clear();
  if (!back && !blank.runs_off.any()) blank.width = blank.height = 1;
  blank.form = BlankForm::Rectangle;
  blank.edge.clear();
  return blank;
}

}  // namespace

PieceKeys::PieceKeys(const Job& job, const Item& item) : item_(item) {
  Job one;
  for (const Piece* piece : job.with_sources(item.piece)) one.items.push_back({*piece, {}});
  // What is large is known by its mark; what does not change what is cut is left out.
  for (Item& each : one.items) {
    each.piece.name.clear();
    if (auto* drawing = std::get_if<Drawing>(&each.piece.what)) {
      add(made_from_, drawing->parts.mark());
      drawing->parts.clear();
      drawing->original.clear();
      drawing->traced.reset();
    } else if (auto* lettering = std::get_if<Lettering>(&each.piece.what)) {
      add(made_from_, lettering->kept.data.mark());
      lettering->kept.data.clear();
    }
  }
  one.blank = as_it_matters(job.blank, item.cut, item.cut.back);
  one.run.turn = job.run.turn;
  made_from_ += write_job(one);
}

PieceKey PieceKeys::of_outlines() const {
  std::string text = "outlines";
  // What is cut from the back is mirrored, or not, as its look will have it.
  if (item_.cut.back) add(text, std::uint64_t{1} + static_cast<std::uint64_t>(item_.cut.kind));
  return hashed(text + made_from_);
}

PieceKey PieceKeys::of_cuts(const Surroundings& around) const {
  std::string text = made_from_ + json_text(treatment_fields().write(item_.cut));
  add(text, around);
  return hashed(text);
}

PieceKey key_of_cuts(const Outlines& outlines, const Treatment& treatment, const Blank& blank,
                     const Surroundings& around) {
  std::string text = "cuts";
  text += json_text(treatment_fields().write(treatment));
  Blank own = blank;
  own.runs_off = {};  // that comes when it is put in its place
  text += json_text(blank_fields().write(as_it_matters(std::move(own), treatment, false)));
  add(text, outlines.region);
  for (const std::vector<Line2>* lines : {&outlines.lines, &outlines.open}) {
    add(text, std::uint64_t{lines->size()});
    for (const Line2& line : *lines) {
      add(text, std::uint64_t{line.size()});
      text.append(reinterpret_cast<const char*>(line.data()), line.size() * sizeof(Point));
    }
  }
  add(text, around);
  return hashed(text);
}

}  // namespace doyen
