// The parts of the Artwork ticket, a file each: lettering, shapes, drawings, pieces made from others, and where a piece
// lies.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QThreadPool>

#include "artwork/drawing/clean_up.hpp"
#include "parts/figure_field.hpp"
#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"
#include "stages/artwork/holes_section.hpp"
#include "stages/artwork/place_fields.hpp"

namespace doyen {

class ArtworkSection : public QWidget {
  Q_OBJECT
 public:
  explicit ArtworkSection(Workshop& shop);
  virtual void refresh(const Item& item) = 0;  // an item of the section's kind

 protected:
  // Fields that are being filled tell nothing.
  class Filling {
   public:
    explicit Filling(bool& flag) : flag_(flag), was_(flag) { flag_ = true; }
    ~Filling() { flag_ = was_; }
    Filling(const Filling&) = delete;
    Filling& operator=(const Filling&) = delete;

   private:
    bool& flag_;
    bool was_;
  };
  template <typename Kind>
  void edit_kind(const QString& name, const std::function<void(Kind&)>& change, const QString& merge = {}) {
    if (filling_) return;
    shop_.edit_item(
        name,
        [&](Item& item) {
          if (auto* kind = std::get_if<Kind>(&item.piece.what)) change(*kind);
        },
        merge.isEmpty() ? QString() : merge + QLatin1Char(' ') + shop_.selected);
  }
  void fill_pieces(QComboBox* box, const std::string& chosen);  // every piece but the selected one
  [[nodiscard]] doyen::Box box() const;                         // of the selected piece on the board
  void refresh_again();
  QPushButton* add_button(QLayout* layout, const QString& text, const QString& name);
  static QSpinBox* spin(Range range);
  static QSpinBox* spin(int least, int most, const QString& suffix = {});

  Workshop& shop_;
  QVBoxLayout* column_;
  bool filling_ = false;
};

class ListedSection;

class LetteringSection : public ArtworkSection {
  Q_OBJECT
 public:
  explicit LetteringSection(Workshop& shop);
  void refresh(const Item& item) override;
  void focus_words();

 Q_SIGNALS:
  void letter_bench_wanted();

 private:
  void build_setting();
  void show_summary(const Lettering& l);
  Fold* more_;
  ListedSection* listed_;
  QPlainTextEdit* words_;
  QComboBox *family_, *style_, *align_, *setting_, *way_, *pair_;
  LengthField *cap_, *fit_, *radius_, *margin_, *stroke_, *thicken_;
  QSpinBox *spacing_, *letter_width_, *line_spacing_, *start_, *pair_by_, *margin_share_;
  QCheckBox* by_share_;
};

class ShapeSection : public ArtworkSection {
  Q_OBJECT
 public:
  explicit ShapeSection(Workshop& shop);
  void refresh(const Item& item) override;

 private:
  void take_share(int which);
  LengthField *shape_w_, *shape_h_, *corner_, *band_, *rise_, *from_edge_;
  QLineEdit* shares_[7];  // width, height, corner, rise, line width, from left, from front
  QWidget *lengths_, *share_rows_;
  QComboBox *corner_form_, *counted_;
  QSpinBox *points_, *inner_;
};

class DrawingSection : public ArtworkSection {
  Q_OBJECT
 public:
  explicit DrawingSection(Workshop& shop);
  ~DrawingSection() override;
  void refresh(const Item& item) override;
  // The part under a place on the board becomes the current row; else the hole that is there.
  void choose_part_at(Point at);
  [[nodiscard]] bool report_ready() const { return !reporting_; }

 Q_SIGNALS:
  void trace_again();

 private:
  void build_parts();
  void show_point();
  void ask_for_report();
  void show_report(const std::vector<Finding>& found);
  [[nodiscard]] std::vector<std::size_t> parts_of_row(const QListWidgetItem& row, const Drawing& drawing) const;
  [[nodiscard]] std::vector<std::size_t> chosen_parts(const Drawing& drawing) const;
  void split_off(bool each_group);
  QComboBox* lines_;
  LengthField *hairline_, *thicken_, *point_at_[2];
  FigureField* tall_;
  QPushButton *retrace_, *points_, *original_, *apart_, *each_;
  Fold* apart_fold_;
  HolesSection* holes_;
  QListWidget* parts_;
  QVBoxLayout* findings_;
  bool cleaning_ = false, reporting_ = false;
  std::string reported_;  // the piece that the findings on show belong to
  QThreadPool pool_;
  Cancel cancel_;
  quint64 generation_ = 0;
};

class MadeSection : public ArtworkSection {
  Q_OBJECT
 public:
  explicit MadeSection(Workshop& shop);
  void refresh(const Item& item) override;
  // Every way to make a piece from others with the words that its menu shows.
  static QList<std::pair<Derived::How, QString>> names();

 Q_SIGNALS:
  void freeze_piece();

 private:
  QLabel* say_;
  QComboBox *corner_, *other_;
  LengthField *distance_, *band_, *step_x_, *step_y_, *round_radius_, *bridge_;
  QSpinBox *steps_, *columns_, *rows_, *count_, *split_at_;
  TextField* angle_;
  QCheckBox *turned_, *side_;
  QPushButton* bridges_anew_;
};

class PlaceSection : public ArtworkSection {
  Q_OBJECT
 public:
  explicit PlaceSection(Workshop& shop);
  void refresh(const Item& item) override;
  void show_measured(Point from, Point to);

 Q_SIGNALS:
  void remove_piece();
  void copy_piece();

 private:
  void build_several();
  void build_measure();
  PlaceFields* fields_;
  LengthField *real_, *gap_, *round_margin_, *all_wide_, *all_high_;
  Fold* single_;  // what is asked of one piece
  QWidget *several_, *measured_row_;
  QComboBox* sized_;  // what is sized by a measured length
  TextField* name_;
  QLabel *measured_, *several_say_;
  QPushButton* measure_;
  Point from_, to_;
};

}  // namespace doyen
