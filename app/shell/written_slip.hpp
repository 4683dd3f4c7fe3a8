// A slip of paper over the board: what was written, and where; until it is put away or the job is another.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QStringList>

namespace doyen {

class WrittenSlip : public QFrame {
  Q_OBJECT
 public:
  explicit WrittenSlip(QWidget* over);
  // `names` within the folder; `judged`: what the judge says of them; `ending`: of files for the machine.
  void show_written(const QString& folder, const QStringList& names, const QString& judged, const QString& ending);

 Q_SIGNALS:
  void open_wanted(const QString& path);  // a folder or a sheet, by the desktop's own programs
  void print_wanted(const QString& folder, const QStringList& sheets);

 private:
  QLabel *what_, *where_, *judged_;
  QString folder_;
  QStringList sheets_;  // PDF files in it
};

// All of few names; of many the job's own, and how many more lie in how many folders.
QString names_in_words(const QStringList& names);

}  // namespace doyen
