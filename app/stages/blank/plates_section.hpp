// The Blank ticket's part for plates from a list: the list, the sheets that hold the plates, and which rows are made.
#pragma once

#include <QCheckBox>
#include <QPushButton>
#include <QSpinBox>

#include "parts/figure_field.hpp"
#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"
#include "plates/strips.hpp"
#include "stages/blank/off_cuts_button.hpp"
#include "work/behind.hpp"

namespace doyen {

class PlatesSection : public QWidget {
  Q_OBJECT
 public:
  explicit PlatesSection(Workshop& shop);
  void refresh();
  void choose_list();                   // asks for its file
  void take_file(const QString& path);  // says so when it is no list
  void take_text(const QByteArray& text, const QString& where);

 Q_SIGNALS:
  void sheets_wanted();

 private:
  void build_numbers();
  void build_list();
  void build_strips();
  void build_sheet();
  void build_end();
  struct Sawn {
    std::vector<double> lengths;  // mm, along the strips
    CutList list;
  };
  void say_strips(const Job& job);
  [[nodiscard]] static QString strips_in_words(const Sawn& sawn, const LengthStyle& style, bool boards);
  void edit(const QString& name, const std::function<void(PlateList&)>& change);
  [[nodiscard]] QString row_in_words(std::size_t row) const;
  Workshop& shop_;
  Fold* fold_;
  QLabel *about_, *says_, *shown_says_, *count_;
  QWidget* inside_;  // what is asked only where there is a list
  QPushButton *take_, *paste_, *sheets_, *away_;
  QCheckBox* headings_;
  QSpinBox* shown_;
  QComboBox *sorted_, *bit_;
  LengthField *width_, *height_, *margin_, *gap_, *corner_, *skin_;
  FigureField* tabs_;
  TextField *only_, *numbers_;
  std::size_t row_ = 0;  // that is shown
  QComboBox* made_;
  QWidget *strips_, *on_sheets_;
  LengthField *ends_, *least_, *step_, *kerf_;
  TextField* boards_;
  OffCutsButton* off_cuts_;
  QLabel* sawn_;
  Behind behind_;  // what the strips are measured by
  bool filling_ = false;
};

}  // namespace doyen
