// All boards of a job side by side, at one scale; a click takes one.
#pragma once

#include <QImage>
#include <QWidget>
#include <vector>

namespace doyen {

class BoardsOverview : public QWidget {
  Q_OBJECT
 public:
  struct Board {
    QString title;
    double width = 0, height = 0;  // mm
    QImage picture;                // empty: it is still being carved
  };
  explicit BoardsOverview(QWidget* parent = nullptr);
  void show_boards(std::vector<Board> boards);
  [[nodiscard]] std::vector<QRectF> places() const { return places_; }  // where each is drawn, pixels

 Q_SIGNALS:
  void picked(int board);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;

 private:
  void lay_out();
  // In rows from the left at so many pixels a mm; false where they take more height than there is.
  bool lay_out_at(double scale);
  std::vector<Board> boards_;
  std::vector<QRectF> places_;
};

}  // namespace doyen
