#include "stages/cuts/tab_picture.hpp"

#include <QPainter>
#include <algorithm>

#include "parts/theme.hpp"
#include "relief/picture.hpp"

namespace doyen {
namespace {

constexpr double kFace = 6, kUnderside = 84, kBed = 8;  // px

QColor wood_colour(const Colour& c, double k) {
  return QColor::fromRgbF(static_cast<float>(std::min(1.0, c.red * k)), static_cast<float>(std::min(1.0, c.green * k)),
                          static_cast<float>(std::min(1.0, c.blue * k)));
}

void dimension(QPainter& p, QPointF from, QPointF to) {
  p.drawLine(from, to);
  const QPointF along = (to - from) / std::max(1.0, std::hypot((to - from).x(), (to - from).y())) * 4;
  const QPointF aside(-along.y(), along.x());
  for (const auto& [end, inwards] : {std::pair{from, along}, std::pair{to, -along}}) {
    p.drawLine(end, end + inwards + aside * 0.7);
    p.drawLine(end, end + inwards - aside * 0.7);
  }
}

}  // namespace

TabPicture::TabPicture(LengthField* length, LengthField* height) : length_field_(length), height_field_(height) {
  setFixedHeight(static_cast<int>(kUnderside + kBed) + 4);
  for (LengthField* field : {length, height}) {
    field->setParent(this);
    field->setFixedWidth(78);
  }
  length->setAccessibleName(tr("Length of a tab"));
  length->setToolTip(tr("How long each tab is along the cut"));
  height->setAccessibleName(tr("Height of a tab"));
  height->setToolTip(tr("How high each tab stands above the underside"));
}

void TabPicture::show_tab(double length, double height, const Blank& blank) {
  length_ = length;
  height_ = height;
  blank_ = blank;
  lay_out();
  update();
}

// To scale by the board's thickness, as far as there is room.
QRectF TabPicture::tab() const {
  const double scale = (kUnderside - kFace) / std::max(1.0, blank_.thickest());
  const double wide = std::clamp(length_ * scale, 18.0, width() - 230.0);
  const double high = std::clamp(height_ * scale, 5.0, kUnderside - kFace);
  return {width() / 2.0 - 46 - wide / 2, kUnderside - high, wide, high};
}

void TabPicture::lay_out() {
  const QRectF t = tab();
  const int tall = length_field_->sizeHint().height();
  length_field_->move(static_cast<int>(t.center().x()) - length_field_->width() / 2,
                      std::max(static_cast<int>(kFace), static_cast<int>(t.top()) - tall - 9));
  height_field_->move(static_cast<int>(t.right()) + 22,
                      std::clamp(static_cast<int>(t.center().y()) - tall / 2, 0, height() - tall - 8));
}

void TabPicture::resizeEvent(QResizeEvent*) { lay_out(); }

void TabPicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (!isEnabled()) p.setOpacity(0.5);
  const WoodLook look = wood_look(blank_);
  const double bed = kUnderside;
  // The wall behind the kerf lies in its shade; the tab stands in front.
  QLinearGradient shade(0, kFace, 0, bed);
  shade.setColorAt(0, wood_colour(look.species.light, 0.92));
  shade.setColorAt(1, wood_colour(look.species.light, 0.66));
  p.fillRect(QRectF(0, kFace, width(), bed - kFace), shade);
  p.setPen(QPen(wood_colour(look.species.dark, 0.8), 0.8));
  for (int i = 1; i < 6; ++i) {
    const double y = kFace + i * (bed - kFace) / 6;
    p.drawLine(QPointF(0, y + (i % 2)), QPointF(width(), y - (i % 3)));
  }
  p.fillRect(QRectF(0, bed, width(), kBed), QColor(0xD2, 0xC3, 0xA8));
  const QRectF t = tab();
  p.setPen(QPen(QColor(0x6B, 0x3F, 0x22), 1));
  p.setBrush(wood_colour(look.species.light, 1.08));
  p.drawRect(t);
  p.setPen(QPen(theme::kInk, 1.2));
  dimension(p, {t.left(), t.top() - 5}, {t.right(), t.top() - 5});
  dimension(p, {t.right() + 10, t.bottom()}, {t.right() + 10, t.top()});
  p.setFont(theme::font(9, true));
  const auto beside = [&](const QWidget* field, const QString& word) {
    p.drawText(QRectF(field->geometry().right() + 7, field->y(), 60, field->height()), Qt::AlignVCenter, word);
  };
  beside(length_field_, tr("long"));
  beside(height_field_, tr("high"));
}

}  // namespace doyen
