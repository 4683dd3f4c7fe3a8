// The board as it is carved in the rehearsal, the bit over it, and the metal that stands there.
#pragma once

#include <QImage>
#include <QWidget>
#include <optional>
#include <vector>

#include "cutting/pass.hpp"
#include "stock/blank.hpp"

namespace doyen {

// The board as far as it is carved, and the bit over it.
class RehearsalPicture : public QWidget {
  Q_OBJECT
 public:
  explicit RehearsalPicture(QWidget* parent = nullptr);
  void show_board(const QImage& image, const Box& board);
  // In board coordinates, of the side that is up.
  void show_bit(const Point3& at, double radius, const std::vector<Point>& trail);
  // What stands there; `hit`: which of it the bit ran into.
  void show_metal(const std::vector<KeepOut>& metal, std::optional<std::size_t> hit);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  QImage image_;
  Box board_;
  Point3 bit_;
  double radius_ = 0;
  std::vector<Point> trail_;
  std::vector<KeepOut> metal_;
  std::optional<std::size_t> hit_;
};

}  // namespace doyen
