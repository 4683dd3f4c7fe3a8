// The tiles on which a look is chosen, each with its profile in the wood: one line and one drawing a look.
#pragma once

#include <QButtonGroup>
#include <QWidget>

#include "treatments/treatment.hpp"

namespace doyen {

class LookTiles : public QWidget {
  Q_OBJECT
 public:
  LookTiles();
  static QString about(Treatment::Kind kind);  // a sentence; empty where none is needed
  void show_chosen(Treatment::Kind kind);

 Q_SIGNALS:
  void chosen(doyen::Treatment::Kind kind);

 private:
  QButtonGroup group_;
};

}  // namespace doyen
