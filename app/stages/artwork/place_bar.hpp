// Place and size of what is chosen, in a small bar on the board beside its frame: no way to the ticket for what is
// asked most often.
#pragma once

#include <QFrame>
#include <QHBoxLayout>
#include <QPushButton>

#include "stages/artwork/place_fields.hpp"

namespace doyen {

class PlaceBar : public QFrame {
  Q_OBJECT
 public:
  explicit PlaceBar(Workshop& shop);  // the bench owns it
  void refresh();                     // after an edit, another choice or another stage
  void leave();                       // at once: another stage, or something in the bench's place

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void add(const QString& word, const QString& says, QLineEdit* field);
  void find_place();  // beside the frame, where it covers no piece if there is such a place
  Workshop& shop_;
  QHBoxLayout* row_;
  PlaceFields* fields_;
  QList<QWidget*> sizes_;
  QPushButton* centre_;
  bool wanted_ = false, dragging_ = false;
};

}  // namespace doyen
