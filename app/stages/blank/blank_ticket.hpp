// The blank: its wood, size, readings, and the places that cuts stay clear of.
#pragma once

#include <QCheckBox>
#include <array>

#include "parts/cards.hpp"
#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/readings_field.hpp"
#include "parts/ticket.hpp"
#include "stages/blank/nest_section.hpp"
#include "stages/blank/off_cuts_section.hpp"
#include "stages/blank/panels_section.hpp"
#include "stages/blank/plates_section.hpp"

namespace doyen {

class BlankTicket : public Ticket {
  Q_OBJECT
 public:
  explicit BlankTicket(Workshop& shop);
  void refresh() override;
  void choose_keep_out(int which);
  [[nodiscard]] PlatesSection& plates() { return *plates_; }
  [[nodiscard]] PanelsSection& panels() { return *panels_; }
  [[nodiscard]] NestSection& nest() { return *nest_; }

 private:
  LengthField *width_, *height_, *margin_, *film_, *bed_;
  TextField* name_;
  ReadingsField* readings_;
  void take_edge();
  std::array<QCheckBox*, 4> runs_off_{};  // left, right, front, back
  QComboBox *species_, *grain_, *unit_, *form_;
  QLabel *about_, *readings_say_;
  Fold *margins_, *clear_, *wood_;
  NumberCard *weight_, *movement_;
  PlatesSection* plates_;
  PanelsSection* panels_;
  NestSection* nest_;
  OffCutsSection* off_cuts_;
  void build_keep_outs();
  void refresh_keep_outs();
  void edit_keep_out(const QString& name, const std::function<void(KeepOut&)>& change);
  QComboBox* keep_up_;
  QListWidget* keep_outs_;
  QWidget* keep_out_fields_;
  LengthField *keep_x_, *keep_y_, *keep_w_, *keep_h_, *keep_stands_;
  bool filling_ = false;
};

}  // namespace doyen
