// Lays widgets side by side and breaks lines, like words.
#pragma once

#include <QLayout>
#include <QWidget>

namespace doyen {

class FlowLayout : public QLayout {
 public:
  explicit FlowLayout(QWidget* parent, int spacing) : QLayout(parent) {
    setSpacing(spacing);
    setContentsMargins(0, 0, 0, 0);
  }
  ~FlowLayout() override {
    while (QLayoutItem* item = FlowLayout::takeAt(0)) delete item;
  }
  void addItem(QLayoutItem* item) override { items_.append(item); }
  [[nodiscard]] int count() const override { return static_cast<int>(items_.size()); }
  [[nodiscard]] QLayoutItem* itemAt(int i) const override { return items_.value(i); }
  QLayoutItem* takeAt(int i) override { return i >= 0 && i < items_.size() ? items_.takeAt(i) : nullptr; }
  [[nodiscard]] Qt::Orientations expandingDirections() const override { return {}; }
  [[nodiscard]] bool hasHeightForWidth() const override { return true; }
  [[nodiscard]] int heightForWidth(int width) const override { return arrange(QRect(0, 0, width, 0), false); }
  void setGeometry(const QRect& rect) override {
    QLayout::setGeometry(rect);
    arrange(rect, true);
  }
  [[nodiscard]] QSize sizeHint() const override { return minimumSize(); }
  [[nodiscard]] QSize minimumSize() const override {
    QSize size;
    for (const QLayoutItem* item : items_) size = size.expandedTo(item->minimumSize());
    return size;
  }

 private:
  int arrange(const QRect& rect, bool move) const {
    int x = rect.x(), y = rect.y(), line = 0;
    for (QLayoutItem* item : items_) {
      if (item->widget() != nullptr && item->widget()->isHidden()) continue;
      const QSize size = item->sizeHint();
      if (x > rect.x() && x + size.width() > rect.right() + 1) {
        x = rect.x();
        y += line + spacing();
        line = 0;
      }
      if (move) item->setGeometry(QRect(QPoint(x, y), size));
      x += size.width() + spacing();
      line = std::max(line, size.height());
    }
    return y + line - rect.y();
  }
  QList<QLayoutItem*> items_;
};

}  // namespace doyen
