#include "parts/fold.hpp"

#include <QHBoxLayout>
#include <QSettings>

namespace doyen {

Fold::Fold(const QString& title, const QString& key, bool open, QWidget* parent) : QWidget(parent) {
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(5);
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  head_ = new QToolButton;
  head_->setProperty("role", QStringLiteral("fold"));
  head_->setObjectName(key);
  head_->setText(title);
  head_->setCheckable(true);
  head_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  row->addWidget(head_);
  summary_ = new QLabel;
  summary_->setProperty("role", QStringLiteral("faded"));
  summary_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  summary_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  row->addWidget(summary_, 1);
  whole->addLayout(row);
  inside_ = new QWidget;
  column_ = new QVBoxLayout(inside_);
  column_->setContentsMargins(0, 0, 0, 4);
  column_->setSpacing(7);
  whole->addWidget(inside_);
  const QString setting = QStringLiteral("folds/") + key;
  const bool as_left = key.isEmpty() ? open : QSettings().value(setting, open).toBool();
  head_->setChecked(as_left);
  take(as_left);
  connect(head_, &QToolButton::toggled, this, [this, setting, key](bool now) {
    if (!key.isEmpty()) QSettings().setValue(setting, now);
    take(now);
    if (now)
      Q_EMIT opened();
    else
      Q_EMIT closed();
  });
}

void Fold::take(bool open) {
  head_->setArrowType(open ? Qt::DownArrow : Qt::RightArrow);
  inside_->setVisible(open);
  show_summary();
}

void Fold::set_summary(const QString& words) {
  words_ = words;
  head_->setAccessibleDescription(words);
  show_summary();
}

// Cut short where it does not fit; the tip says all of it.
void Fold::show_summary() {
  summary_->setText(open() && !keeps_ ? QString()
                                      : summary_->fontMetrics().elidedText(words_, Qt::ElideRight, summary_->width()));
  summary_->setToolTip(words_);
}

void Fold::keep_summary() {
  keeps_ = true;
  summary_->setAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  show_summary();
}

void Fold::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  layout()->activate();
  show_summary();
}

}  // namespace doyen
