#include "finish/finish_paint.hpp"

#include <algorithm>

#include "finish/colour_words.hpp"
#include "planning/finished_look.hpp"
#include "stock/species.hpp"
#include "treatments/look.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;
using School = FinishSchool;

constexpr Colour kClearResin{0.72, 0.54, 0.31};  // of which no colour is said: clear, over wood

bool takes_resin(const Item& item) { return item.cut.resin && look_of(item.cut.kind).resin; }

bool has_insert(const Item& item) { return item.cut.kind == Kind::Recess && item.cut.insert.thickness > 0; }

bool paints_cuts(School school) { return school == School::MaskPaint || school == School::PaintSand; }

// Another wood, its grain along the board's or across it.
Coat coat_of(const WoodId& wood, Grain board, bool crossed) {
  Coat coat;
  coat.wood = species_table().find(wood);
  if (coat.wood == nullptr) coat.wood = &species_table().species.front();
  coat.grain = crossed == (board == Grain::AlongWidth) ? Grain::AlongHeight : Grain::AlongWidth;
  return coat;
}

class Painting {
 public:
  Painting(const Plan& plan, HeightField& front) : plan_(plan), field_(front) {}

  FinishPaint make() {
    out_.paint.of.assign(field_.columns() * field_.rows(), 0);
    const FinishChoices& finish = plan_.job.finish;
    if (finish.school == School::PaintedBoard) fill_face(number(finish.colour));
    const bool cuts = paints_cuts(finish.school);
    const Region sign = sign_of(plan_);  // the waste round it, and the tabs in the slit, are nobody's to paint
    if (cuts) fill_carved(&sign, number(finish.colour));
    for (std::size_t i = 0; i < plan_.job.items.size(); ++i) {
      const Item& item = plan_.job.items[i];
      if (item.cut.back || plan_.pieces[i]->cuts.operations.empty()) continue;
      const std::string* own = words_of(item);
      const Region& region = plan_.pieces[i]->outlines.region;
      if (cuts && own != nullptr && item.cut.kind != Kind::CutOut) fill_carved(&region, number(*own));
    }
    // What is let in lies over whatever was painted below it.
    for (std::size_t i = 0; i < plan_.job.items.size(); ++i) let_in(i);
    return std::move(out_);
  }

 private:
  [[nodiscard]] const std::string* words_of(const Item& item) const {
    const auto found = plan_.job.finish.colours.find(item.piece.id);
    return found == plan_.job.finish.colours.end() || found->second.empty() ? nullptr : &found->second;
  }

  std::uint8_t number(const std::string& words) {
    if (words.empty()) return 0;
    if (const std::optional<Colour> colour = colour_of_words(words)) return out_.paint.number_of({*colour});
    if (std::find(out_.not_known.begin(), out_.not_known.end(), words) == out_.not_known.end())
      out_.not_known.push_back(words);
    return 0;
  }

  template <typename Act>
  void each_cell(const Region* inside, const Act& act) {
    const std::vector<unsigned char> in =
        inside == nullptr ? std::vector<unsigned char>{} : cells_inside(*inside, field_);
    for (std::size_t r = 0; r < field_.rows(); ++r) {
      for (std::size_t c = 0; c < field_.columns(); ++c) {
        const std::size_t cell = r * field_.columns() + c;
        if (in.empty() || in[cell] != 0) act(cell, field_.row(r)[c]);
      }
    }
  }

  void fill_face(std::uint8_t colour) {
    each_cell(nullptr, [&](std::size_t cell, float z) {
      if (z >= kCarvedBelow) out_.paint.of[cell] = colour;
    });
  }
  void fill_carved(const Region* inside, std::uint8_t colour) {
    each_cell(inside, [&](std::size_t cell, float z) {
      if (z < kCarvedBelow) out_.paint.of[cell] = colour;
    });
  }

  void let_in(std::size_t i) {
    const Item& item = plan_.job.items[i];
    const PieceCuts& cuts = plan_.pieces[i]->cuts;
    const bool plug = item.cut.kind == Kind::Inlay, resin = takes_resin(item), insert = has_insert(item);
    if (item.cut.back || cuts.operations.empty() || !(plug || resin || insert)) return;
    const auto ground = static_cast<float>(-cuts.ground);
    const std::string* own = words_of(item);
    const std::uint8_t said = own == nullptr ? 0 : number(*own);
    const std::uint8_t poured = said != 0 ? said : out_.paint.number_of({kClearResin});
    const Grain grain = plan_.job.blank.grain;
    const std::uint8_t wood = plug ? out_.paint.number_of(coat_of(item.cut.inlay.wood, grain, item.cut.inlay.crossed))
                              : insert ? out_.paint.number_of(coat_of(item.cut.insert.material, grain, false))
                                       : std::uint8_t{0};
    const float high = static_cast<float>(item.cut.insert.thickness - cuts.deepest);
    each_cell(&plan_.pieces[i]->outlines.region, [&](std::size_t cell, float& z) {
      if (z >= ground - 1e-3F) return;
      if (insert) {
        z = std::max(z, std::min(high, ground));
        out_.paint.of[cell] = wood;
      }
      if (!plug && !resin) return;
      z = ground;
      out_.paint.of[cell] = plug ? wood : poured;
    });
  }

  const Plan& plan_;
  HeightField& field_;
  FinishPaint out_;
};

}  // namespace

bool is_coloured(const Job& job) {
  const FinishChoices& finish = job.finish;
  const bool of_pieces = paints_cuts(finish.school) && std::any_of(finish.colours.begin(), finish.colours.end(),
                                                                   [](const auto& one) { return !one.second.empty(); });
  const bool of_all = (paints_cuts(finish.school) || finish.school == School::PaintedBoard) && !finish.colour.empty();
  return of_pieces || of_all || std::any_of(job.items.begin(), job.items.end(), [](const Item& item) {
           return item.cut.kind == Kind::Inlay || takes_resin(item) || has_insert(item);
         });
}

FinishPaint finish_paint(const Plan& plan, HeightField& front) { return Painting(plan, front).make(); }

}  // namespace doyen
