// The holes in a drawing's outlines, under Artwork: tapped on the board or taken from a list, they are filled or cut
// through the board.
#pragma once

#include <QListWidget>

#include "artwork/drawing/holes.hpp"
#include "parts/fold.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class HolesSection : public Fold {
  Q_OBJECT
 public:
  explicit HolesSection(Workshop& shop);
  void refresh(const Item& item);
  // Opens, with the smallest hole at a place on the board chosen; false where there is none.
  bool choose_at(Point at);

 private:
  void look();  // for what the piece's outlines have now
  void show_chosen();
  [[nodiscard]] std::vector<Hole> chosen() const;
  void fill();
  void cut_through();
  Workshop& shop_;
  QListWidget* list_;
  QPushButton *fill_, *through_;
  Piece of_;  // the piece that was looked at
  std::vector<Hole> holes_;
  bool filling_ = false;
};

}  // namespace doyen
