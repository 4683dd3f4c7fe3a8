// What can be done now with a spoiled board: first aid in words, and jobs that mend it.
#pragma once

#include <QComboBox>
#include <QPushButton>

#include "parts/length_field.hpp"
#include "parts/ticket.hpp"
#include "rescue/rescue.hpp"

namespace doyen {

class RescueSection : public QObject {
  Q_OBJECT
 public:
  // Its rows stand in the fold's own column.
  RescueSection(Workshop& shop, QVBoxLayout* column, QObject* parent);
  // What went wrong; it shows nothing for none.
  void show_for(const std::vector<MishapSeen>& mishaps);

 Q_SIGNALS:
  void job_wanted(const Job& job);
  void rest_wanted();  // of a file that was stopped

 private:
  void list_parts();
  void make(const std::function<Job(const Plan&)>& work);
  [[nodiscard]] CutAnew anew() const;
  Workshop& shop_;
  QLabel *heading_, *aid_, *of_, *says_;
  QComboBox* part_;
  LengthField* off_;
  QPushButton *only_, *patch_, *fill_, *planed_, *smaller_, *moved_, *rest_;
  std::vector<MishapSeen> mishaps_;
  std::optional<double> asked_off_;  // mm, typed; none: as much as makes it clean
  std::string listed_;               // the piece whose parts are listed
  PlanPtr listed_of_;                // and the plan they are of
};

}  // namespace doyen
