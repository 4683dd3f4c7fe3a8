// The tickets of the five stages.
#pragma once

#include <QButtonGroup>
#include <QThreadPool>

#include "stages/artwork/artwork_sections.hpp"
#include "stages/cuts/floor_section.hpp"
#include "stages/cuts/inlay_section.hpp"
#include "stages/cuts/moves_section.hpp"
#include "stages/cuts/resin_row.hpp"
#include "stages/proof/fit_section.hpp"
#include "stages/run/inlay_run_section.hpp"

namespace doyen {

class BlankTicket : public Ticket {
  Q_OBJECT
 public:
  explicit BlankTicket(Workshop& shop);
  void refresh() override;
  void choose_keep_out(int which);

 private:
  LengthField *width_, *height_, *margin_, *film_, *bed_;
  TextField *name_, *readings_;
  [[nodiscard]] std::vector<double> readings_in(const QString& words) const;
  void take_edge();
  QComboBox *species_, *grain_, *unit_, *form_;
  QLabel *about_, *readings_say_;
  NumberCard *weight_, *movement_;
  void build_keep_outs();
  void refresh_keep_outs();
  void edit_keep_out(const QString& name, const std::function<void(KeepOut&)>& change);
  QListWidget* keep_outs_;
  QWidget* keep_out_fields_;
  LengthField *keep_x_, *keep_y_, *keep_w_, *keep_h_;
  bool filling_ = false;
};

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
  void make_from(doyen::Derived::How how);  // something new from the chosen piece
  void freeze_piece();
  void trace_again();
  void letter_bench_wanted();
  void remove_piece();
  void copy_piece();

 private:
  QListWidget* list_;
  QPushButton* made_;
  QLabel* notice_;
  LetteringSection* lettering_;
  ShapeSection* shape_;
  DrawingSection* drawing_;
  MadeSection* derived_;
  PlaceSection* place_;
  bool filling_ = false;
};

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

class ProofTicket : public Ticket {
  Q_OBJECT
 public:
  ProofTicket(Workshop& shop, FitKeeper& keeper);
  void refresh() override;
  [[nodiscard]] FitSection& fit() { return *fit_; }

 private:
  FitSection* fit_;
  QLabel *summary_, *judged_;
  NumberCard* time_;
  QVBoxLayout* runs_;
  VerdictList* verdicts_;
};

class RunTicket : public Ticket {
  Q_OBJECT
 public:
  explicit RunTicket(Workshop& shop);
  void refresh() override;
  void show_written(const QString& words, bool fine);

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void say_order();
  void take_order();
  QComboBox *machine_, *surface_, *place_, *files_;
  QLineEdit* holding_;
  LengthField* least_;
  QComboBox* turn_;
  QCheckBox* low_;
  QListWidget* order_;
  QLabel *order_says_, *zero_, *written_;
  Job written_job_;  // whose files what was written speaks of
  QPushButton* own_order_;
  InlayRunSection* inlay_;
  bool filling_ = false;
};

}  // namespace doyen
