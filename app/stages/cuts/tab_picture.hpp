// One tab as the cut shows it from the side: the wood that stays across the kerf, with its two sizes where they are.
#pragma once

#include <QWidget>

#include "parts/length_field.hpp"
#include "stock/blank.hpp"

namespace doyen {

class TabPicture : public QWidget {
  Q_OBJECT
 public:
  TabPicture(LengthField* length, LengthField* height);  // which it takes over, and lays beside what they say
  void show_tab(double length, double height, const Blank& blank);

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;

 private:
  [[nodiscard]] QRectF tab() const;  // px
  void lay_out();
  LengthField *length_field_, *height_field_;
  double length_ = 8, height_ = 3;  // mm
  Blank blank_;
};

}  // namespace doyen
