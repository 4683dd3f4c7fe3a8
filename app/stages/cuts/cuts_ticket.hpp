// Cuts: how a piece shall look, its bits and depths.
#pragma once

#include <QButtonGroup>
#include <QThreadPool>

#include "stages/cuts/floor_section.hpp"
#include "stages/cuts/inlay_section.hpp"
#include "stages/cuts/moves_section.hpp"
#include "stages/cuts/resin_row.hpp"

namespace doyen {

class CutsTicket : public Ticket {
  Q_OBJECT
 public:
  explicit CutsTicket(Workshop& shop);
  ~CutsTicket() override;
  void refresh() override;
  void open_sums(bool open);

 Q_SIGNALS:
  void rack_wanted(const QString& bit, const doyen::Feeds& feeds);
  void proof_wanted();                               // of the chosen inlay
  void answer_wanted(const doyen::Treatment& rung);  // what this pair of a ladder says shall be kept for its bit

 private:
  void refresh_incise(const Item& item, const PiecePlan* piece);
  void refresh_cut_out(const Item& item, const PiecePlan* piece);
  void refresh_line(const Item& item);
  void fill_bits(QComboBox* box, std::optional<BitKind> kind, const std::string& chosen);  // without a kind: all
  QLabel *title_, *lies_on_;
  LengthField* ground_;
  QComboBox* face_;
  MovesSection* moves_;
  FloorSection* floor_section_;
  InlaySection* inlay_section_;
  ResinRow* resin_;
  QCheckBox* slug_;
  QWidget *choose_, *chosen_, *incise_, *line_, *cut_out_;
  QComboBox* line_bit_;
  LengthField *line_depth_, *hatch_, *skin_;
  QDoubleSpinBox* hatch_angle_;
  QCheckBox* taped_;
  QLabel* line_wide_;
  QListWidget* pieces_;
  QButtonGroup* look_;
  QComboBox *v_bit_, *flat_bit_;
  LengthField *limit_, *over_, *tab_length_, *tab_height_;
  QList<QCheckBox*> clearing_;
  QWidget* clearing_box_;
  QCheckBox* tabs_;
  QSpinBox* tab_count_;
  QPushButton* place_tabs_;
  NumberCard *depth_, *angles_, *floor_, *through_, *bed_;
  // Each V of the rack is planned for the piece that is looked at, off the window's thread.
  void show_angles(const Item& item);
  QThreadPool angles_pool_;
  Cancel angles_cancel_;
  PlanPtr angles_plan_;
  std::string angles_piece_;
  std::optional<VSeconds> angles_seconds_;
  QLabel* letters_;
  VerdictList* verdicts_;
  bool filling_ = false;
};

}  // namespace doyen
