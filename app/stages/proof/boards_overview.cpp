#include "stages/proof/boards_overview.hpp"

#include <QMouseEvent>
#include <QPainter>

#include "parts/theme.hpp"

namespace doyen {
namespace {

constexpr double kGap = 18, kCaption = 20;  // pixels

}  // namespace

BoardsOverview::BoardsOverview(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("boardsOverview"));
  setMinimumSize(300, 200);
  setCursor(Qt::PointingHandCursor);
}

void BoardsOverview::show_boards(std::vector<Board> boards) {
  boards_ = std::move(boards);
  QStringList names;
  for (const Board& board : boards_) names << board.title;
  setAccessibleName(tr("All boards side by side"));
  setAccessibleDescription(names.join(QStringLiteral("; ")));
  lay_out();
  update();
}

bool BoardsOverview::lay_out_at(double scale) {
  places_.clear();
  double x = 0, y = 0, row = 0;
  for (const Board& board : boards_) {
    const double wide = board.width * scale, high = board.height * scale;
    if (wide > width()) return false;
    if (x > 0 && x + wide > width()) {
      x = 0;
      y += row + kCaption + kGap;
      row = 0;
    }
    places_.emplace_back(x, y, wide, high);
    x += wide + kGap;
    row = std::max(row, high);
  }
  return y + row + kCaption <= height();
}

// As large as lets all of them be seen at once.
void BoardsOverview::lay_out() {
  double low = 1e-4, high = 4;
  for (int i = 0; i < 40; ++i) {
    const double middle = (low + high) / 2;
    (lay_out_at(middle) ? low : high) = middle;
  }
  (void)lay_out_at(low);
}

void BoardsOverview::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  lay_out();
}

void BoardsOverview::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  p.setFont(theme::font(8.5));
  for (std::size_t i = 0; i < boards_.size() && i < places_.size(); ++i) {
    const QRectF& at = places_[i];
    if (boards_[i].picture.isNull()) {
      p.fillRect(at, theme::kChalk);
      p.setPen(theme::kHairline);
      p.drawRect(at);
    } else {
      const QImage fits = boards_[i].picture.scaled((at.size() * devicePixelRatioF()).toSize(), Qt::IgnoreAspectRatio,
                                                    Qt::SmoothTransformation);
      p.drawImage(at, fits);
    }
    p.setPen(theme::kInk);
    const QRectF caption(at.left(), at.bottom() + 2, std::max(at.width(), 40.0), kCaption - 2);
    p.drawText(caption, Qt::AlignLeft | Qt::AlignVCenter,
               p.fontMetrics().elidedText(boards_[i].title, Qt::ElideRight, static_cast<int>(caption.width())));
  }
}

void BoardsOverview::mousePressEvent(QMouseEvent* event) {
  for (std::size_t i = 0; i < places_.size(); ++i) {
    if (places_[i].contains(event->position())) return Q_EMIT picked(static_cast<int>(i));
  }
}

}  // namespace doyen
