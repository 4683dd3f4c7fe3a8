#include "relief/picture.hpp"

#include "relief/lighting.hpp"

namespace doyen {

Colour wood_colour(const Species& species, Grain grain, double x, double y, double z) {
  const lighting::Rgb c =
      lighting::Wood(species, grain).at(static_cast<float>(x), static_cast<float>(y), static_cast<float>(z));
  return {c.r, c.g, c.b};
}

WoodLook wood_look(const Blank& blank) {
  WoodLook look;
  const Species* species = species_table().find(blank.species);
  look.species = species == nullptr ? species_table().species.front() : *species;
  look.grain = blank.grain;
  look.thickness = blank.thickest();
  look.board = blank.box();
  if (blank.form != BlankForm::Rectangle) look.edge = region_of(blank);
  return look;
}

Picture lit_picture(const HeightField& field, const WoodLook& look, std::size_t shrink, const Cancel& cancel,
                    const CellPaint& paint) {
  Picture picture;
  picture.width = std::max<std::size_t>(1, field.columns() / shrink);
  picture.height = std::max<std::size_t>(1, field.rows() / shrink);
  picture.pixels.resize(picture.width * picture.height);
  light_again(picture, field, look, shrink, field.box(), cancel, paint);
  return picture;
}

void light_again(Picture& picture, const HeightField& field, const WoodLook& look, std::size_t shrink,
                 const Box& changed, const Cancel& cancel, const CellPaint& paint) {
  // The light falls steeply enough that no shadow is longer than the board is thick by so much; and a cell's sky is
  // judged from 3 mm, or eight blocks, round it.
  const Box seen = changed.grown(1.2 * look.thickness + 3 + 12 * lighting::Lighter::kBlock * field.cell());
  const auto columns = field.columns_in(seen.left, seen.right), rows = field.rows_in(seen.bottom, seen.top);
  if (columns.begin == columns.end || rows.begin == rows.end) return;
  const std::size_t from_x = std::min(columns.begin / shrink, picture.width - 1),
                    to_x = std::min(picture.width, columns.end / shrink + 1);
  const std::size_t from_y = std::min((field.rows() - rows.end) / shrink, picture.height - 1),
                    to_y = std::min(picture.height, (field.rows() - rows.begin) / shrink + 1);
  const lighting::Lighter lighter(field, look.thickness);
  const std::vector<unsigned char> on_board =
      look.edge.empty() ? std::vector<unsigned char>{} : cells_inside(look.edge, field);
  tbb::parallel_for(tbb::blocked_range<std::size_t>(from_y, to_y, 8), [&](const auto& range) {
    cancel.check();
    std::vector<lighting::Wood> woods(shrink, lighting::Wood(look.species, look.grain));  // one for each row of samples
    lighting::Coated coated(paint);
    for (std::size_t py = range.begin(); py < range.end(); ++py) {
      for (std::size_t px = from_x; px < to_x; ++px) {
        lighting::Rgb sum{0, 0, 0};
        std::size_t inside = 0;
        for (std::size_t k = 0; k < shrink * shrink; ++k) {
          const std::size_t c = std::min(px * shrink + k % shrink, field.columns() - 1);
          const std::size_t up = std::min(py * shrink + k / shrink, field.rows() - 1);
          const std::size_t r = field.rows() - 1 - up;
          if (!look.board.contains({field.x_of(c), field.y_of(r)})) continue;
          if (!on_board.empty() && on_board[r * field.columns() + c] == 0) continue;
          const lighting::Rgb own = coated.seen(lighter.own_colour(woods[k / shrink], c, r), lighter, field, c, r);
          const lighting::Rgb one = lighter.shade(own, c, r);
          sum = {sum.r + one.r, sum.g + one.g, sum.b + one.b};
          ++inside;
        }
        const float k = inside == 0 ? 0 : 1.0F / static_cast<float>(inside);
        picture.pixels[py * picture.width + px] = inside == 0 ? 0 : lighting::pack({sum.r * k, sum.g * k, sum.b * k});
      }
    }
  });
}

}  // namespace doyen
