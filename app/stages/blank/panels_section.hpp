// The Blank ticket's part for panels: a sign larger than the machine, parted along seams.
#pragma once

#include <QPushButton>

#include "panels/panel_choices.hpp"
#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class PanelsSection : public QWidget {
  Q_OBJECT
 public:
  explicit PanelsSection(Workshop& shop);
  void refresh();

 Q_SIGNALS:
  void panels_wanted();  // to look at

 private:
  void build_size();
  void build_seams();
  void build_join();
  void build_end();
  void edit(const QString& name, const std::function<void(PanelChoices&)>& change);
  void propose();
  [[nodiscard]] QString made_in_words(const Job& job) const;
  LengthField* length(const QString& label, const char* key, const char* name, const QString& says,
                      double PanelChoices::*member, bool optional = false);
  Workshop& shop_;
  Fold* fold_;
  QLabel *about_, *says_, *made_;
  QWidget* inside_;  // what is asked only where there are seams
  LengthField *most_width_, *most_height_, *gap_, *hole_, *apart_, *inset_;
  TextField *across_, *deep_;
  QComboBox* join_;
  QPushButton *propose_, *look_, *whole_;
  bool filling_ = false;
};

}  // namespace doyen
