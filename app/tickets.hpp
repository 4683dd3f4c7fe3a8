// The tickets of the five stages.
#pragma once

#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSpinBox>

#include "length_field.hpp"
#include "ticket.hpp"

namespace doyen {

class BlankTicket : public Ticket {
  Q_OBJECT
 public:
  explicit BlankTicket(Workshop& shop);
  void refresh() override;

 private:
  LengthField *width_, *height_, *margin_, *film_, *bed_;
  QLineEdit *name_, *readings_;
  QComboBox *species_, *grain_, *unit_;
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
  void build_lettering();
  void build_setting(QVBoxLayout* column);
  void build_shape();
  void build_drawing();
  void build_derived();
  void build_place();
  void refresh_lettering(const Lettering& lettering);
  void refresh_shape(const PlainShape& shape);
  void refresh_drawing(const Drawing& drawing);
  void refresh_derived(const Derived& derived);
  void refresh_findings();
  void fill_pieces(QComboBox* box, const std::string& chosen);
  template <typename Kind>
  void edit_kind(const QString& name, const std::function<void(Kind&)>& change, const QString& merge = {});
  [[nodiscard]] doyen::Box box() const;
  QListWidget* list_;
  QPushButton *made_, *retrace_;
  QWidget *lettering_, *shape_, *drawing_, *derived_, *place_;
  QComboBox *setting_, *way_, *pair_, *corner_form_, *lines_, *derived_corner_, *derived_other_;
  LengthField *radius_, *margin_, *stroke_, *rise_, *hairline_, *distance_, *derived_band_, *step_x_, *step_y_,
      *round_radius_;
  QSpinBox *start_, *pair_by_, *points_, *inner_, *steps_, *columns_, *rows_, *count_, *split_at_;
  QLineEdit* derived_angle_;
  QCheckBox *derived_turned_, *derived_side_;
  QListWidget* parts_;
  QLabel* derived_say_;
  QVBoxLayout* findings_;
  bool cleaning_ = false;
  QPlainTextEdit* words_;
  QComboBox *family_, *style_, *align_;
  LengthField *cap_, *fit_, *shape_w_, *shape_h_, *corner_, *band_, *left_, *front_, *wide_, *high_;
  QSpinBox *spacing_, *line_spacing_;
  QLineEdit *turn_, *name_;
  QLabel* notice_;
  bool filling_ = false;
};

class CutsTicket : public Ticket {
  Q_OBJECT
 public:
  explicit CutsTicket(Workshop& shop);
  void refresh() override;
  void open_sums(bool open);

 private:
  void refresh_incise(const Item& item, const PiecePlan* piece);
  void refresh_cut_out(const Item& item, const PiecePlan* piece);
  void refresh_line(const Item& item);
  void fill_bits(QComboBox* box, std::optional<BitKind> kind, const std::string& chosen);  // without a kind: all
  QLabel *title_, *lies_on_;
  QWidget *choose_, *chosen_, *incise_, *line_, *cut_out_;
  QComboBox* line_bit_;
  LengthField* line_depth_;
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
  NumberCard *depth_, *floor_, *through_, *bed_;
  QLabel* letters_;
  VerdictList* verdicts_;
  bool filling_ = false;
};

class ProofTicket : public Ticket {
  Q_OBJECT
 public:
  explicit ProofTicket(Workshop& shop);
  void refresh() override;

 private:
  QLabel* summary_;
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

 private:
  QComboBox *machine_, *surface_, *place_, *files_;
  QLineEdit* holding_;
  LengthField* least_;
  QLabel *order_, *zero_, *written_;
  bool filling_ = false;
};

}  // namespace doyen
