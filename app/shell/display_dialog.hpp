// Which language Doyen speaks, and how large it draws all it shows: for tired eyes, or a screen that is looked at from
// the machine.
#pragma once

#include <QButtonGroup>
#include <QComboBox>
#include <QDialog>

namespace doyen {

// 1 where nothing was chosen. Read before the application is there, which then draws all in that size.
double chosen_size();
void take_chosen_size();

class DisplayDialog : public QDialog {
  Q_OBJECT
 public:
  // `least`: the window's smallest size as it is drawn now. What would not fit this screen cannot be chosen.
  explicit DisplayDialog(const QSize& least, QWidget* parent = nullptr);
  void accept() override;

 private:
  QComboBox* language_;
  QButtonGroup* sizes_;
};

}  // namespace doyen
