#include "shell/way_ladder.hpp"

#include <QCoreApplication>
#include <QPainter>
#include <QPointer>
#include <QSettings>
#include <QThreadPool>

#include "parts/cards.hpp"
#include "parts/theme.hpp"

namespace doyen {

// One rung: a stretch for every bit, as long as its time on the scale that all rungs share.
class WayBar : public QWidget {
 public:
  WayBar() {
    setFixedHeight(14);
    setMinimumWidth(120);
  }
  void show_way(const Way* way, const std::vector<std::pair<QColor, double>>& stretches, double scale, bool current) {
    known_ = way != nullptr && way->known;
    whole_ = known_ ? way->seconds / scale : 0;
    stretches_ = stretches;
    scale_ = scale;
    current_ = current;
    update();
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(theme::kHairline);
    p.drawRect(QRectF(0, height() - 2, width(), 1));
    if (!known_) return;
    if (!current_) p.setOpacity(kFadedAway);
    p.drawRoundedRect(QRectF(0, 2, width() * whole_, height() - 4), 3, 3);  // changes, spin-ups
    double x = 0;
    for (const auto& [colour, seconds] : stretches_) {
      const double wide = width() * seconds / scale_;
      p.setBrush(colour);
      p.drawRoundedRect(QRectF(x, 2, wide, height() - 4), 3, 3);
      x += wide;
    }
  }

 private:
  bool known_ = false, current_ = false;
  double whole_ = 0, scale_ = 1;
  std::vector<std::pair<QColor, double>> stretches_;
};

WayLadder::WayLadder(Workshop& shop) : shop_(shop) {
  setObjectName(QStringLiteral("wayLadder"));
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(16, 2, 16, 2);
  whole->setSpacing(2);
  auto* top = new QHBoxLayout;
  top->setSpacing(8);
  head_ = new QToolButton;
  head_->setObjectName(QStringLiteral("waysOpen"));
  head_->setText(tr("Ways to cut it"));
  head_->setCheckable(true);
  head_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  head_->setArrowType(Qt::RightArrow);
  head_->setProperty("role", QStringLiteral("fold"));
  summary_ = new QLabel;
  summary_->setObjectName(QStringLiteral("waysSummary"));
  summary_->setProperty("role", QStringLiteral("faded"));
  summary_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  top->addWidget(head_);
  top->addWidget(summary_, 1);
  whole->addLayout(top);
  body_ = new QWidget;
  column_ = new QVBoxLayout(body_);
  column_->setContentsMargins(0, 0, 0, 4);
  column_->setSpacing(2);
  whole->addWidget(body_);
  connect(head_, &QToolButton::toggled, this, [this](bool open) {
    head_->setArrowType(open ? Qt::DownArrow : Qt::RightArrow);
    body_->setVisible(open);
    QSettings().setValue(QStringLiteral("waysOpen"), open);
    show_summary();
  });
  body_->hide();
  head_->setChecked(QSettings().value(QStringLiteral("waysOpen"), false).toBool());
  // Typing ahead of it does not make it begin again and again.
  soon_.setSingleShot(true);
  soon_.setInterval(250);
  connect(&soon_, &QTimer::timeout, this, &WayLadder::begin);
  hide();
}

QString WayLadder::subject() const {
  const Item* item = shop_.document.job().find(piece_.toStdString());
  if (item == nullptr) return tr("the whole job");
  const auto like = static_cast<int>(cut_alike(shop_.document.job(), item->piece.id).size());
  const QString name = tr("“%1”").arg(QString::fromStdString(item->piece.name));
  return like > 1 ? tr("%1 and what is cut like it, %2 pieces").arg(name).arg(like) : name;
}

void WayLadder::refresh(bool wanted) {
  const Item* item = shop_.item();
  const bool cut = item != nullptr && item->cut.kind != Treatment::Kind::None;
  const QString piece = cut ? shop_.selected : QString();
  if (!wanted || shop_.document.job().items.empty()) {
    cancel_.request();
    waiting_ = false;
    soon_.stop();
    hide();
    of_.reset();
    return;
  }
  // Judging comes first: it says whether the wood is spoiled.
  if (!shop_.known() || (of_ == shop_.plan && piece_ == piece)) {
    show();
    if (!shop_.known()) {
      waiting_ = true;
      cancel_.request();
      ++generation_;
      of_.reset();
      show_ways(false);
    }
    return;
  }
  if (piece != piece_) ways_.clear();
  show();  // its line is there at once, so that nothing moves when the figures come
  cancel_.request();
  ++generation_;
  piece_ = piece;
  of_ = shop_.plan;
  waiting_ = true;
  show_ways(false);
  soon_.start();
}

void WayLadder::begin() {
  if (of_ == nullptr) return;
  cancel_ = Cancel();
  QThreadPool::globalInstance()->start([self = QPointer<WayLadder>(this), mine = ++generation_, plan = of_,
                                        rack = shop_.rack, id = piece_.toStdString(), cache = cache_,
                                        cancel = cancel_] {
    const auto tell = [&](const std::function<void(WayLadder&)>& what) {
      QMetaObject::invokeMethod(
          qApp,
          [self, mine, what] {
            if (self && self->generation_ == mine) what(*self);
          },
          Qt::QueuedConnection);
    };
    try {
      const Cancel::Scope stops(cancel);
      std::vector<Way> ways = ways_of(*plan, rack, id);
      for (std::size_t i = 0; i < ways.size(); ++i) {
        work_out(ways[i], *plan, rack, id, cache.get(), cancel);
        mark_best(ways);
        tell([ways](WayLadder& ladder) {
          ladder.ways_ = ways;
          ladder.show_ways(true);
        });
      }
      if (ways.empty()) tell([](WayLadder& ladder) { ladder.ways_.clear(); });
    } catch (const Cancelled&) {
      return;  // the job is another by now
    } catch (const std::exception&) {
      // What cannot be worked out is not shown: the plan says why.
    }
    tell([](WayLadder& ladder) {
      ladder.waiting_ = false;
      ladder.show_ways(true);
      Q_EMIT ladder.worked_out();
    });
  });
}

QString WayLadder::about(const Way& way) const {
  if (!way.known) return tr("being worked out…");
  QStringList words;
  if (way.best_time) words << tr("◆ quickest");
  if (way.best_quality) words << tr("◆ cleanest");
  if (way.fewest_changes) words << tr("◆ fewest changes");
  if (way.stops > 0) words << (way.stops == 1 ? tr("1 stop") : tr("%1 stops").arg(way.stops));
  words << (way.bit_changes == 1 ? tr("1 bit change") : tr("%1 bit changes").arg(way.bit_changes));
  if (way.unreached > 0.5)
    words << tr("%1 stay").arg(QString::fromStdString(format_area(way.unreached, shop_.document.job().lengths)));
  if (way.comes_free) words << tr("something comes free");
  return words.join(QStringLiteral(" · "));
}

void WayLadder::make_rows(std::size_t count) {
  while (rows_.size() > count) {
    delete rows_.back().line;
    rows_.pop_back();
  }
  while (rows_.size() < count) {
    const std::size_t i = rows_.size();
    Row row{new QWidget, new QLabel, new WayBar, new QLabel, new QLabel, new QPushButton(tr("Cut it so"))};
    auto* line = new QHBoxLayout(row.line);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(8);
    row.words->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    row.about->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    row.about->setProperty("role", QStringLiteral("faded"));
    row.time->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row.time->setFixedWidth(74);
    row.take->setProperty("role", QStringLiteral("remedy"));
    row.take->setObjectName(QStringLiteral("cutSo%1").arg(i));
    row.take->setFixedWidth(82);
    line->addWidget(row.words, 5);
    line->addWidget(row.bar, 4);
    line->addWidget(row.time);
    line->addWidget(row.about, 5);
    line->addWidget(row.take);
    column_->addWidget(row.line);
    connect(row.take, &QPushButton::clicked, this, [this, i] { take(i); });
    rows_.push_back(row);
  }
}

void WayLadder::show_ways(bool current) {
  make_rows(ways_.size());
  double scale = 1;
  for (const Way& way : ways_) scale = std::max(scale, way.seconds);
  QStringList bits;  // in the beam's order, so that a bit has its colour there
  if (shop_.plan) {
    for (const BitRun& run : shop_.plan->runs) bits << QString::fromStdString(run.bit.name);
  }
  for (std::size_t i = 0; i < ways_.size(); ++i) {
    const Way& way = ways_[i];
    std::vector<std::pair<QColor, double>> stretches;
    for (const auto& [name, seconds] : way.bits) {
      const QString bit = QString::fromStdString(name);
      if (!bits.contains(bit)) bits << bit;
      stretches.emplace_back(theme::dye(static_cast<int>(bits.indexOf(bit))), seconds);
    }
    Row& row = rows_[i];
    const QString words = QString::fromStdString(way.words);
    row.words->setToolTip(words);
    row.words->setText(row.words->fontMetrics().elidedText(words, Qt::ElideRight, std::max(60, row.words->width())));
    row.time->setText(way.known ? QString::fromStdString(format_duration(way.seconds)) : tr("…"));
    const QString about_it = about(way);
    row.about->setToolTip(about_it);
    row.about->setText(row.about->fontMetrics().elidedText(about_it, Qt::ElideRight, std::max(60, row.about->width())));
    row.bar->show_way(&way, stretches, scale, current);
    row.take->setEnabled(current && way.known && !way.as_it_is());
    row.take->setText(way.as_it_is() ? tr("as it is") : tr("Cut it so"));
    row.take->setAccessibleName(tr("Cut it so: %1").arg(words));
    row.take->setAccessibleDescription(row.time->text() + QStringLiteral("; ") + about_it);
    row.words->setEnabled(current);
    row.time->setEnabled(current);
  }
  summary_->setEnabled(current);
  show_summary();
}

// While it is folded: what the quickest way would save.
void WayLadder::show_summary() {
  const auto quickest = std::find_if(ways_.begin(), ways_.end(), [](const Way& w) { return w.best_time; });
  said_ = tr("of %1").arg(subject());
  if (ways_.empty() && !waiting_) {
    said_ += tr(": no other with the bits of the rack");
  } else if (ways_.empty() || !ways_.front().known) {
    said_ += tr(": being worked out…");
  } else if (quickest != ways_.end() && !quickest->as_it_is()) {
    said_ +=
        tr(": %1 now; %2 — %3")
            .arg(QString::fromStdString(format_duration(ways_.front().seconds)),
                 QString::fromStdString(format_duration(quickest->seconds)), QString::fromStdString(quickest->words));
  } else {
    said_ += tr(": %1, and none of %2 others is quicker")
                 .arg(QString::fromStdString(format_duration(ways_.front().seconds)))
                 .arg(ways_.size() - 1);
  }
  summary_->setToolTip(said_);
  summary_->setText(summary_->fontMetrics().elidedText(said_, Qt::ElideRight, std::max(80, summary_->width())));
}

void WayLadder::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  QMetaObject::invokeMethod(
      this, [this] { show_ways(of_ != nullptr && shop_.known()); }, Qt::QueuedConnection);
}

void WayLadder::take(std::size_t i) {
  if (i >= ways_.size() || !ways_[i].take || !shop_.known()) return;
  const Way way = ways_[i];
  shop_.document.edit(tr("cut it otherwise: %1").arg(QString::fromStdString(way.words)), way.take);
}

}  // namespace doyen
