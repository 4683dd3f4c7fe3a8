// Undo and redo while a field has the focus: what is being typed there first, then the job's.
#pragma once

#include <QObject>

namespace doyen {

class UndoInFields : public QObject {
  Q_OBJECT
 public:
  explicit UndoInFields(QObject* parent = nullptr);  // watches the whole application
  bool eventFilter(QObject* watched, QEvent* event) override;
};

}  // namespace doyen
