// Where what is chosen lies, how large it is and how it is turned, in figures: the fields of the ticket and of the bar
// at the frame. Of several pieces they tell and change all as one.
#pragma once

#include "parts/length_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class PlaceFields : public QObject {
  Q_OBJECT
 public:
  PlaceFields(Workshop& shop, QObject* parent);
  LengthField *left, *front, *wide, *high;  // of the box on the board; whoever lays them out owns them
  TextField* turn;
  void show(const Item& item);
  // Lettering and drawings are sized as a whole, by these; a shape's own sizes stand with its shape.
  [[nodiscard]] bool sized_as_a_whole(const Item& item) const;
  void make_wide(double mm) { resize(mm, box().width()); }
  void make_high(double mm) { resize(mm, box().height()); }

 private:
  [[nodiscard]] Box box() const { return shop_.bench->chosen_box(); }
  void shift(Point by);
  void resize(double wanted, double now);
  Workshop& shop_;
};

}  // namespace doyen
