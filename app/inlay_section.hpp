// The Cuts ticket's part for inlays: both halves' figures, and the proof that they close.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QPushButton>
#include <QThreadPool>

#include "inlay/fit.hpp"
#include "length_field.hpp"
#include "ticket.hpp"

namespace doyen {

class InlaySection : public QWidget {
  Q_OBJECT
 public:
  explicit InlaySection(Workshop& shop);
  ~InlaySection() override;
  void refresh(const Item& item, const PiecePlan* piece);
  [[nodiscard]] bool busy() const { return busy_; }

 private:
  void build_fields(QVBoxLayout* column);
  void build_proof(QVBoxLayout* column);
  void edit(const QString& name, const std::function<void(Treatment&)>& change);
  void prove();
  void show_fit(const std::shared_ptr<const Fit>& fit);
  void show_face();
  [[nodiscard]] Sum sum_of(const Item& item) const;
  Workshop& shop_;
  QComboBox *flanks_, *bit_, *wood_, *sanded_, *clearing_;
  LengthField *pocket_, *contact_, *saw_, *allowance_, *ease_, *thickness_;
  NumberCard* gaps_;
  QPushButton *prove_, *ease_now_;
  QLabel *about_, *found_, *face_;
  QThreadPool pool_;
  Cancel cancel_;
  std::shared_ptr<const Fit> fit_;
  PlanPtr proved_;  // the plan that the proof is of
  std::string proved_piece_;
  quint64 generation_ = 0;
  bool filling_ = false, busy_ = false;
};

}  // namespace doyen
