// Prints sheets that were written: which of them, on which of the system's printers, how many of each.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

#include "parts/figure_field.hpp"

namespace doyen {

// The system's printers by name, the usual one first; none where it has none. By `lpstat`, as CUPS has it.
QStringList system_printers();

// Hands files to the system's printing (`lp`), which draws PDFs itself. Empty when it took them; else why not.
QString print_files(const QStringList& paths, const QString& printer, int copies);

class PrintSheets : public QDialog {
  Q_OBJECT
 public:
  // `names` of PDF files within the folder.
  PrintSheets(const QString& folder, const QStringList& names, QWidget* parent);

 Q_SIGNALS:
  void open_wanted(const QString& path);  // the folder, where there is no printer

 private:
  void print();
  QString folder_;
  QListWidget* sheets_;
  QComboBox* printer_;
  FigureField* copies_;
  QLabel* says_;
  QPushButton* print_;
};

}  // namespace doyen
