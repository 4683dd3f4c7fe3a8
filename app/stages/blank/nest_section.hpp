// The Blank ticket's part for parts on boards: everything that is cut out, laid close together.
#pragma once

#include <QCheckBox>
#include <QPushButton>

#include "nesting/nest_choices.hpp"
#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"
#include "stages/blank/off_cuts_button.hpp"
#include "work/behind.hpp"

namespace doyen {

class NestSection : public Fold {
  Q_OBJECT
 public:
  explicit NestSection(Workshop& shop);
  void refresh();
  [[nodiscard]] bool waiting() const { return waiting_; }

 Q_SIGNALS:
  void boards_wanted();  // to look at

 private:
  void build_boards();
  void build_room();
  void edit(const QString& name, const std::function<void(NestChoices&)>& change);
  void lay_out();
  LengthField* length(const QString& label, const char* key, const char* name, const QString& says,
                      double NestChoices::*member);
  Workshop& shop_;
  QLabel *about_, *made_;
  QCheckBox* wanted_;
  QWidget* inside_;  // what is asked only where it is wanted
  QVBoxLayout* column_;
  TextField* boards_;
  LengthField *gap_, *margin_;
  QComboBox* turn_;
  OffCutsButton* off_cuts_;
  QPushButton* look_;
  Job laid_out_;  // that `made_` tells of
  Behind behind_;
  bool waiting_ = false, filling_ = false;
};

}  // namespace doyen
