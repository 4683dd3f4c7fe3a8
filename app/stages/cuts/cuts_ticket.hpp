// Cuts: how a piece shall look, its bits and depths.
#pragma once

#include "stages/cuts/inlay_section.hpp"
#include "stages/cuts/look_tiles.hpp"
#include "stages/cuts/moves_section.hpp"
#include "stages/cuts/resin_row.hpp"

namespace doyen {

class CutsTicket : public Ticket {
  Q_OBJECT
 public:
  explicit CutsTicket(Workshop& shop);
  void refresh() override;
  void open_sums(bool open);

 Q_SIGNALS:
  void rack_wanted(const QString& bit, const doyen::Feeds& feeds);
  void proof_wanted();                               // of the chosen inlay
  void answer_wanted(const doyen::Treatment& rung);  // what this pair of a ladder says shall be kept for its bit

 private:
  void show_several(const Item& item);
  QLabel *title_, *lies_on_;
  QWidget *choose_, *chosen_;
  QListWidget* pieces_;
  LookTiles* look_;
  QList<LookSection*> sections_;  // each for the looks that it fits
  InlaySection* inlay_section_;
  QComboBox* face_;
  LengthField* ground_;
  Fold* lies_;
  MovesSection* moves_;
  ResinRow* resin_;
  VerdictList* verdicts_;
};

}  // namespace doyen
