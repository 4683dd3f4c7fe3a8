#include "stages/artwork/place_fields.hpp"

#include <cmath>

#include "job/layout.hpp"

namespace doyen {

PlaceFields::PlaceFields(Workshop& shop, QObject* parent) : QObject(parent), shop_(shop) {
  left = new LengthField(range_of("pieces[].x"));
  front = new LengthField(range_of("pieces[].y"));
  wide = new LengthField({0.5, 20'000});
  high = new LengthField({0.5, 20'000});
  turn = new TextField([](const QString& words) { parse_angle(words); });
  connect(left, &LengthField::entered, this, [this](std::optional<double> mm) { shift({*mm - box().left, 0}); });
  connect(front, &LengthField::entered, this, [this](std::optional<double> mm) { shift({0, *mm - box().bottom}); });
  connect(wide, &LengthField::entered, this, [this](std::optional<double> mm) { make_wide(*mm); });
  connect(high, &LengthField::entered, this, [this](std::optional<double> mm) { make_high(*mm); });
  connect(turn, &TextField::entered, this, [this](const QString& words) {
    const double degrees = parse_angle(words);
    if (shop_.chosen().size() > 1) {  // by so much more: together they have no angle of their own
      const Point middle = box().centre();
      return shop_.document.edit(tr("turn them together"),
                                 [&](Job& job) { turn_chosen(job, shop_.chosen_ids(), degrees, middle); });
    }
    shop_.edit_item(tr("turn by number"), [&](Item& item) { item.piece.turn = degrees; });
  });
}

bool PlaceFields::sized_as_a_whole(const Item& item) const {
  return shop_.chosen().size() > 1 || std::holds_alternative<Lettering>(item.piece.what) ||
         std::holds_alternative<Drawing>(item.piece.what);
}

void PlaceFields::show(const Item& item) {
  const LengthStyle& lengths = shop_.document.job().lengths;
  const Box b = box();
  left->show_length(b.empty() ? 0 : b.left, lengths);
  front->show_length(b.empty() ? 0 : b.bottom, lengths);
  wide->show_length(b.width(), lengths);
  high->show_length(b.height(), lengths);
  const double degrees = shop_.chosen().size() > 1 ? 0 : item.piece.turn;
  turn->show_text(QString::fromStdString(format_number(degrees, 2)) + QStringLiteral("°"));
}

void PlaceFields::shift(Point by) {
  shop_.document.edit(tr("move by number"), [&](Job& job) { shift_chosen(job, shop_.chosen_ids(), by); });
}

void PlaceFields::resize(double wanted, double now) {
  const double k = wanted / now;
  if (!(k > 0) || !std::isfinite(k)) return;
  if (shop_.chosen().size() > 1) {
    const Point middle = box().centre();
    return shop_.document.edit(tr("size them together"),
                               [&](Job& job) { scale_layout(job, shop_.chosen_ids(), k, middle); });
  }
  shop_.edit_item(tr("size by number"), [&](Item& item) { size_piece(item.piece, k, k); });
}

}  // namespace doyen
