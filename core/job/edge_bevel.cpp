#include "job/edge_bevel.hpp"

#include "treatments/start.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

bool follows(const Piece& piece, const std::string& id) {
  const auto* made = std::get_if<Derived>(&piece.what);
  return made != nullptr && made->how == Derived::How::Grow && made->distance == 0 && made->band == 0 &&
         made->from == std::vector<std::string>{id} && piece.at == Point{} && piece.turn == 0;
}
bool drawn_alike(const Piece& a, const Piece& b) { return a.what == b.what && a.at == b.at && a.turn == b.turn; }

}  // namespace

const Item* bevel_of(const Job& job, const std::string& id) {
  const Item* of = job.find(id);
  if (of == nullptr) return nullptr;
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::Bevel && !item.cut.bevel.inside && item.cut.back == of->cut.back &&
        (follows(item.piece, id) || drawn_alike(item.piece, of->piece)))
      return &item;
  }
  return nullptr;
}

void add_bevel(Job& job, const std::string& id, const Rack& rack) {
  const Item* of = job.find(id);
  if (of == nullptr || bevel_of(job, id) != nullptr) return;
  Derived made;
  made.how = Derived::How::Grow;
  made.from = {id};
  made.distance = 0;
  Item item;
  item.piece = {job.fresh_id("edge"), job.fresh_name(say("{0}, bevelled edge", of->piece.name)), made, {}, 0};
  item.cut = start_look(Treatment::Kind::Bevel, {}, {job.blank, job.lengths, rack, [](const Bit&) { return 0.0; }});
  item.cut.bevel.inside = false;
  item.cut.back = of->cut.back;
  job.items.push_back(std::move(item));
}

void remove_bevel(Job& job, const std::string& id) {
  const Item* bevel = bevel_of(job, id);
  if (bevel == nullptr) return;
  std::erase_if(job.items, [gone = bevel->piece.id](const Item& item) { return item.piece.id == gone; });
}

}  // namespace doyen
