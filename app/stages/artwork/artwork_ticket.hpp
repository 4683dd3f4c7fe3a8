// Artwork: the pieces, and what each kind of them is made of.
#pragma once

#include "stages/artwork/artwork_sections.hpp"
#include "stages/artwork/place_bar.hpp"

namespace doyen {

class ArtworkTicket : public Ticket {
  Q_OBJECT
 public:
  explicit ArtworkTicket(Workshop& shop);
  void refresh() override;
  void focus_words();
  // Every kind of plain shape with the words that its menu shows.
  static QList<std::pair<PlainShape::Kind, QString>> shape_names();

 Q_SIGNALS:
  void add_lettering();
  void add_drawing();
  void add_shape(doyen::PlainShape::Kind kind);
  void add_border();
  void make_from(doyen::Derived::How how);  // something new from the chosen piece
  void freeze_piece();
  void trace_again();
  void letter_bench_wanted();
  void lay_out_wanted();
  void remove_piece();
  void copy_piece();

 protected:
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QListWidget* list_;
  QPushButton* made_;
  QLabel* notice_;
  LetteringSection* lettering_;
  ShapeSection* shape_;
  DrawingSection* drawing_;
  MadeSection* derived_;
  PlaceSection* place_;
  PlaceBar* bar_;
  bool filling_ = false;
};

}  // namespace doyen
