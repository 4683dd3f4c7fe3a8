#include "rescue/rescue.hpp"

#include <algorithm>
#include <cmath>

#include "job/follows_edge.hpp"
#include "job/layout.hpp"
#include "problem.hpp"
#include "rescue/places.hpp"
#include "treatments/look.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kDeeper = 2;    // mm that a patch's recess goes below what was cut
constexpr double kRound = 3;     // mm of wood round it that the patch takes, too
constexpr double kLoose = 0.05;  // mm round a patch, for glue
constexpr double kClean = 0.2;   // mm planed off below the deepest cut

// It is cleared round together with its neighbours.
bool goes_with_others(const Treatment& cut) { return cut.kind == Kind::Raise || makes_ground(cut.kind); }

Box box_of(const Island& island) {
  Region one;
  one.islands.push_back(island);
  return bounds(one);
}

// The letter that an island belongs to: the one whose middle is nearest to its own.
std::size_t letter_of(const Outlines& outlines, Point middle) {
  std::size_t best = 0;
  for (std::size_t i = 1; i < outlines.letters.size(); ++i) {
    if (distance(outlines.letters[i].box.centre(), middle) < distance(outlines.letters[best].box.centre(), middle))
      best = i;
  }
  return best;
}

// The same board and zero, for a run that nothing was said of yet.
Job as_begun(const Job& of, const std::string& name) {
  Job job = of;
  job.name = say("{0}, {1}", job.name, name);
  job.run.accepted.clear();
  job.run.reasons.clear();
  job.run.made = 0;
  job.run.look_round = false;
  return job;
}

}  // namespace

namespace rescuing {

const PiecePlan& plan_of_piece(const Plan& plan, const std::string& id) {
  const PiecePlan* piece = plan.piece(id);
  if (piece == nullptr) throw bad_input(say("There is no piece “{0}” in this job.", id));
  return *piece;
}

std::vector<Place> places_of(const Plan& plan, const CutAnew& anew) {
  std::vector<Place> places;
  for (const std::string& id : anew.pieces) {
    const Item* item = plan.job.find(id);
    const Outlines& whole = plan_of_piece(plan, id).outlines;
    if (item == nullptr || item->cut.kind == Kind::None) continue;
    if (!anew.part) {
      places.push_back({item, item->piece.name, whole.region, bounds(whole)});
      continue;
    }
    const std::vector<PartOfPiece> parts = parts_of_piece(plan, id);
    if (*anew.part >= parts.size()) throw bad_input(say("“{0}” has no such part.", item->piece.name));
    const PartOfPiece& part = parts[*anew.part];
    places.push_back({item, say("{0}, {1}", item->piece.name, part.name), part.region, bounds(part.region)});
  }
  if (places.empty()) throw bad_input(say("Choose on the board what is to be cut again."));
  return places;
}

Piece as_it_lies(const std::string& id, const Place& place) {
  Outlines outlines;
  outlines.region = place.region;
  // What is cut from the back is mirrored about its own middle when it is cut (Job::outlines).
  const Treatment& cut = place.item->cut;
  if (cut.back && !look_of(cut.kind).to_back)
    outlines.region = transformed(place.region, Transform{-1, 0, 0, 1, 2 * bounds(place.region).centre().x, 0});
  Piece piece;
  piece.id = id;
  piece.name = place.name;
  piece.what = frozen(outlines, place.name);
  piece.at = place.box.centre();
  return piece;
}

}  // namespace rescuing

using rescuing::as_it_lies;
using rescuing::Place;
using rescuing::places_of;
using rescuing::plan_of_piece;

std::vector<PartOfPiece> parts_of_piece(const Plan& plan, const std::string& id) {
  const Item* item = plan.job.find(id);
  if (item == nullptr || goes_with_others(item->cut) || item->cut.kind == Kind::Inlay) return {};
  const Outlines& outlines = plan_of_piece(plan, id).outlines;
  const bool letters = !outlines.letters.empty();
  std::vector<PartOfPiece> parts(letters ? outlines.letters.size() : outlines.region.islands.size());
  for (std::size_t i = 0; i < outlines.region.islands.size(); ++i) {
    const Island& island = outlines.region.islands[i];
    parts[letters ? letter_of(outlines, box_of(island).centre()) : i].region.islands.push_back(island);
  }
  for (std::size_t i = 0; i < parts.size(); ++i)
    parts[i].name = letters ? say("no. {0}, “{1}”", i + 1, outlines.letters[i].text) : say("no. {0}", i + 1);
  std::erase_if(parts, [](const PartOfPiece& part) { return part.region.empty(); });
  if (parts.size() < 2) parts.clear();
  return parts;
}

Job only_these(const Plan& plan, const CutAnew& anew) {
  const std::vector<Place> places = places_of(plan, anew);
  Job job = as_begun(plan.job, say("cut again"));
  job.run.order.clear();
  std::vector<std::string> kept = anew.pieces;
  const bool together = std::any_of(kept.begin(), kept.end(), [&](const std::string& id) {
    const Item* item = job.find(id);
    return item != nullptr && goes_with_others(item->cut);
  });
  for (Item& item : job.items) {
    const bool asked = std::find(kept.begin(), kept.end(), item.piece.id) != kept.end();
    if (asked || (together && goes_with_others(item.cut))) {
      const double below = plan_of_piece(plan, item.piece.id).around.ground.below;
      if (below > 0 && !together) item.cut.ground = below;  // what it lies on is there already
      continue;
    }
    item.cut.kind = Kind::None;
    item.cut.left_uncut = true;
  }
  if (!anew.part) return job;
  Item& whole = *job.find(kept.front());
  Item part{as_it_lies(job.fresh_id("again"), places.front()), whole.cut, {}};
  whole.cut.kind = Kind::None;
  whole.cut.left_uncut = true;
  job.items.push_back(std::move(part));
  return job;
}

Job patch_for(const Plan& plan, const CutAnew& anew) {
  const std::vector<Place> places = places_of(plan, anew);
  double cut = 0;
  for (const std::string& id : anew.pieces) cut = std::max(cut, plan_of_piece(plan, id).cuts.deepest);
  const double depth = std::ceil((cut + kDeeper) * 10 - 1e-6) / 10;
  Job job = as_begun(plan.job, say("patch"));
  job.run.order.clear();
  if (depth > job.blank.thinnest() - job.run.least_wood)
    throw bad_input(say("A patch {0} deep would leave less than {1} of wood below: plane the face and cut it again.",
                        depth_in_words(depth, job.lengths), depth_in_words(job.run.least_wood, job.lengths)));
  job.items.clear();
  for (const Place& place : places) {
    const Box& box = place.box;
    Item item;
    item.piece.id = job.fresh_id("patch");
    item.piece.name = job.fresh_name(say("Patch for {0}", place.name));
    item.piece.at = box.centre();
    PlainShape shape;
    shape.kind = PlainShape::Kind::Rectangle;
    shape.width = box.width() + 2 * kRound;
    shape.height = box.height() + 2 * kRound;
    item.piece.what = shape;
    item.cut.kind = Kind::Recess;
    item.cut.depth = depth;
    item.cut.back = place.item->cut.back;
    item.cut.insert.thickness = depth;
    item.cut.insert.clearance = kLoose;
    item.cut.insert.cut = true;
    item.cut.insert.material = job.blank.species;
    job.items.push_back(std::move(item));
  }
  return job;
}

double planed_clean(const Plan& plan) {
  double deepest = 0;
  for (std::size_t i = 0; i < plan.job.items.size(); ++i) {
    if (goes_through(plan.job.items[i].cut.kind) || plan.job.items[i].cut.back) continue;
    deepest = std::max(deepest, plan.pieces[i]->cuts.deepest);
  }
  return deepest > 0 ? std::ceil((deepest + kClean) * 10) / 10 : 0;
}

Job planed(const Job& was, double off) {
  Job job = as_begun(was, say("planed"));
  std::vector<double> readings = job.blank.readings;
  for (double& mm : readings) mm -= off;
  if (*std::min_element(readings.begin(), readings.end()) < 1)
    throw bad_input(say("{0} off leaves no board.", depth_in_words(off, job.lengths)));
  take_readings(job, readings);
  return job;
}

namespace {

// What must lie within the margin, and the room for it.
struct Inside {
  Box room, all;
  std::vector<std::string> ids;
};
Inside inside_of(const Plan& plan) {
  const Job& job = plan.job;
  Inside in;
  auto& [room, all, ids] = in;
  room = job.blank.box();
  // The sign's own edge stays, where the board holds just one sign.
  const auto edges =
      std::count_if(job.items.begin(), job.items.end(), [](const Item& item) { return item.cut.kind == Kind::CutOut; });
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    const Item& item = job.items[i];
    // A step behind the edge goes where the edge is.
    if (item.cut.kind == Kind::None || follows_edge(job, item) || plan.pieces[i]->outlines.region.empty()) continue;
    const Box box = bounds(plan.pieces[i]->outlines.region);
    if (item.cut.kind == Kind::CutOut && edges == 1) {
      room = {std::max(room.left, box.left), std::max(room.bottom, box.bottom), std::min(room.right, box.right),
              std::min(room.top, box.top)};
    } else {
      ids.push_back(item.piece.id);
      all.add(box);
    }
  }
  room = room.grown(-job.blank.margin);
  return in;
}

bool holds(const Box& room, const Box& all) {
  constexpr double kHair = 1e-6;
  return all.left >= room.left - kHair && all.right <= room.right + kHair && all.bottom >= room.bottom - kHair &&
         all.top <= room.top + kHair;
}

}  // namespace

Job within_margin(const Plan& plan) {
  Job job = as_begun(plan.job, say("smaller"));
  const auto [room, all, ids] = inside_of(plan);
  const Point middle = room.centre();
  const auto share = [](double half, double reach) { return reach > 0 ? half / reach : 1e300; };
  const double wide = room.width() / 2, high = room.height() / 2;
  const double factor = std::min({share(wide, all.right - middle.x), share(wide, middle.x - all.left),
                                  share(high, all.top - middle.y), share(high, middle.y - all.bottom)});
  if (!(factor < 1)) throw bad_input(say("Everything lies within the margin already."));
  if (factor <= 0.05) throw bad_input(say("There is no room within the margin."));
  scale_layout(job, on_their_own(job, ids), std::floor(factor * 1000) / 1000, middle);
  return job;
}

Job moved_within(const Plan& plan) {
  Job job = as_begun(plan.job, say("moved"));
  const auto [room, all, ids] = inside_of(plan);
  if (ids.empty() || holds(room, all)) throw bad_input(say("Everything lies within the margin already."));
  if (all.width() > room.width() || all.height() > room.height())
    throw bad_input(say("It is too large for the margin, {0} by {1} in {2} by {3}: cut it smaller.",
                        size_in_words(all.width(), job.lengths), size_in_words(all.height(), job.lengths),
                        size_in_words(room.width(), job.lengths), size_in_words(room.height(), job.lengths)));
  const auto by = [](double from, double to, double least, double most) {
    return from < least ? least - from : to > most ? most - to : 0.0;
  };
  const Point shift{by(all.left, all.right, room.left, room.right), by(all.bottom, all.top, room.bottom, room.top)};
  for (const std::string& id : on_their_own(job, ids)) job.shift(id, shift);
  return job;
}

std::vector<std::string> first_aid(Mishap mishap) {
  switch (mishap) {
    case Mishap::NotThrough:
      return {
          say("Leave it on the machine with its zero. Under “If it was stopped” is a file that goes round once more, "
              "deeper.")};
    case Mishap::TooShallow:
      return {
          say("Leave it on the machine. Set z again with care, and run the files again: what is cut already is air."),
          say("If the job itself asks for too little, change its depth, and write the files anew: x and y stay.")};
    case Mishap::TooDeep:
      return {say("Fill it with wood or resin and cut it again, or plane the face and cut everything again.")};
    case Mishap::BrokeOut:
      return {say("Look for the chip and glue it back before anything else: it fits like nothing that is made.")};
    case Mishap::RanOff:
      return {say("Turn the board over if its back is good; else plane the face, and cut it smaller or elsewhere.")};
    case Mishap::Moved:
      return {say(
          "Find x and y again at the witness mark, or where a groove that is right begins; then run the rest of the "
          "file.")};
    case Mishap::InlayTight:
      return {
          say("Do not press on: a plug that stands level all round is planed with the face. Else cut the plug again, "
              "with more contact.")};
    case Mishap::InlayGap:
      return {say("Fine dust of the plug’s wood in glue closes a fine seam; a wide one needs a new plug.")};
    case Mishap::Rough:
      return {
          say("Run the same file once more at half the feed: it takes nothing but fuzz. Then sand along the grain.")};
    case Mishap::BitBroke:
      return {say("Stop the spindle before you reach in, and look for the broken piece in the wood."),
              say("Under “If it was stopped” is the rest of the file, for the new bit: set z anew.")};
    case Mishap::WrongWood:
      return {say("Say the wood under Blank: feeds, weight and finish follow. What is carved stays as it is.")};
    case Mishap::Other:
      break;
  }
  return {};
}

std::vector<Rescue> rescues_for(Mishap mishap) {
  using R = Rescue;
  switch (mishap) {
    case Mishap::TooShallow:
    case Mishap::Rough:
      return {R::OnlyThese};
    case Mishap::TooDeep:
      return {R::FillPiece, R::Planed};
    case Mishap::BrokeOut:
      return {R::Patch, R::FillPiece, R::OnlyThese, R::Planed};
    case Mishap::RanOff:
      return {R::WithinMargin, R::MovedWithin, R::Planed};
    case Mishap::Moved:
      return {R::RestOfFile, R::OnlyThese, R::Patch, R::FillPiece, R::Planed};
    case Mishap::Other:
      return {R::OnlyThese, R::Patch, R::FillPiece, R::Planed};
    case Mishap::InlayGap:
      return {R::FillPiece, R::Patch};
    case Mishap::InlayTight:
      return {R::FillPiece};
    case Mishap::NotThrough:
    case Mishap::BitBroke:
      return {R::RestOfFile};
    case Mishap::WrongWood:
      break;
  }
  return {};
}

}  // namespace doyen
