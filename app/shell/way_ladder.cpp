#include "shell/way_ladder.hpp"

#include <algorithm>

#include <QPainter>
#include <QVBoxLayout>

#include "bench/bench.hpp"
#include "machine/timings.hpp"
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
  void show_way(const Way& way, const std::vector<std::pair<QColor, double>>& stretches, double scale, bool current) {
    known_ = way.known;
    whole_ = way.seconds / scale;
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
  fold_ = new Fold(tr("Ways to cut it"), QStringLiteral("waysOpen"));
  fold_->keep_summary();
  fold_->body()->setSpacing(2);
  whole->addWidget(fold_);
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
  const bool here = wanted && !shop_.document.job().items.empty();
  setVisible(here);  // its line is there at once, so that nothing moves when the figures come
  const Item* item = shop_.item();
  const QString piece = item != nullptr && item->cut.kind != Treatment::Kind::None ? shop_.selected : QString();
  // Judging comes first: it says whether the wood is spoiled.
  const PlanPtr of = here && shop_.known() ? shop_.plan : nullptr;
  if (of != nullptr && of == of_ && piece == piece_) return;
  put_out();
  behind_.stop();
  soon_.stop();
  if (piece != piece_) ways_.clear();
  piece_ = piece;
  of_ = of;
  waiting_ = here;
  if (here) show_ways(false);
  if (of != nullptr) soon_.start();
}

void WayLadder::begin() {
  behind_.start(
      [this, plan = of_, rack = shop_.rack, id = piece_.toStdString(), cache = cache_](const Cancel& cancel,
                                                                                       const Behind::Tell& tell) {
        std::vector<Way> ways = ways_of(*plan, rack, id);
        for (Way& way : ways) {
          work_out(way, *plan, rack, id, cache.get(), cancel);
          mark_best(ways);
          tell([this, ways] {
            ways_ = ways;
            show_ways(true);
          });
        }
        if (ways.empty()) tell([this] { ways_.clear(); });
      },
      [this](bool) {
        waiting_ = false;
        show_ways(true);
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
  if (way.another_board) words << tr("another board");
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
    Row row{new QWidget,
            new QLabel,
            new WayBar,
            new QLabel,
            new QLabel,
            new QPushButton(tr("Where?")),
            new QPushButton(tr("Cut it so"))};
    auto* line = new QHBoxLayout(row.line);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(8);
    row.words->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    row.about->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    row.about->setProperty("role", QStringLiteral("faded"));
    row.time->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row.time->setFixedWidth(74);
    row.where->setProperty("role", QStringLiteral("remedy"));
    row.where->setObjectName(QStringLiteral("whereStays%1").arg(i));
    row.where->setToolTip(tr("Lights on the board what no bit reaches when it is cut so"));
    row.where->setCheckable(true);
    row.where->setFixedWidth(76);
    row.take->setProperty("role", QStringLiteral("remedy"));
    row.take->setObjectName(QStringLiteral("cutSo%1").arg(i));
    row.take->setFixedWidth(82);
    line->addWidget(row.words, 5);
    line->addWidget(row.bar, 4);
    line->addWidget(row.time);
    line->addWidget(row.about, 5);
    line->addWidget(row.where);
    line->addWidget(row.take);
    fold_->body()->addWidget(row.line);
    connect(row.where, &QPushButton::clicked, this, [this, i] { light(i); });
    connect(row.take, &QPushButton::clicked, this, [this, i] { take(i); });
    rows_.push_back(row);
  }
}

QString WayLadder::time_of(const Way& way) const {
  double cutting = 0;
  for (const auto& [name, seconds] : way.bits) cutting += seconds;
  return QString::fromStdString(format_duration(way.seconds + cutting * (timed_.value_or(1) - 1)));
}

void WayLadder::show_ways(bool current) {
  timed_ = known_timings().factor(shop_.document.job().run.machine);
  make_rows(ways_.size());
  double scale = 1;
  for (const Way& way : ways_) scale = std::max(scale, way.seconds);
  QStringList bits;  // in the beam's order, so that a bit has its colour there
  if (shop_.plan) {
    for (const BitRun& run : shop_.plan->runs) bits << QString::fromStdString(run.bit.name);
  }
  const bool places = std::any_of(ways_.begin(), ways_.end(), [](const Way& w) { return !w.unreached_where.empty(); });
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
    row.time->setText(way.known ? time_of(way) : tr("…"));
    row.time->setToolTip(way.known && timed_ ? tr("Told %1; this machine takes %2 times that, changes of bits aside.")
                                                   .arg(QString::fromStdString(format_duration(way.seconds)),
                                                        QString::fromStdString(format_number(*timed_, 2)))
                                             : QString());
    const QString about_it = about(way);
    row.about->setToolTip(about_it);
    row.about->setText(row.about->fontMetrics().elidedText(about_it, Qt::ElideRight, std::max(60, row.about->width())));
    row.bar->show_way(way, stretches, scale, current);
    row.take->setEnabled(current && way.known && !way.as_it_is());
    row.take->setText(way.as_it_is() ? tr("as it is") : tr("Cut it so"));
    row.take->setAccessibleName(tr("Cut it so: %1").arg(words));
    row.take->setAccessibleDescription(row.time->text() + QStringLiteral("; ") + about_it);
    QSizePolicy keeps = row.where->sizePolicy();
    keeps.setRetainSizeWhenHidden(places);  // the rows stay in line
    row.where->setSizePolicy(keeps);
    row.where->setVisible(current && !way.unreached_where.empty());
    row.where->setChecked(lit_ == i);
    row.where->setAccessibleName(tr("Where it stays uncut: %1").arg(words));
    row.words->setEnabled(current);
    row.time->setEnabled(current);
  }
  show_summary();
}

// What the quickest way would save.
void WayLadder::show_summary() {
  const auto quickest = std::find_if(ways_.begin(), ways_.end(), [](const Way& w) { return w.best_time; });
  const auto others =
      std::count_if(ways_.begin(), ways_.end(), [](const Way& way) { return !way.as_it_is() && !way.another_board; });
  QString said = tr("of %1").arg(subject());
  if (ways_.empty() && !waiting_) {
    said += tr(": no other with the bits of the rack");
  } else if (ways_.empty() || !ways_.front().known) {
    said += tr(": being worked out…");
  } else if (quickest != ways_.end() && !quickest->as_it_is()) {
    said += tr(": %1 now; %2 — %3")
                .arg(time_of(ways_.front()), time_of(*quickest), QString::fromStdString(quickest->words));
  } else if (others == 0) {
    said += tr(": %1; other ways only on another board").arg(time_of(ways_.front()));
  } else {
    said += tr(": %1, and none of %2 others is quicker").arg(time_of(ways_.front())).arg(others);
  }
  if (timed_ && !ways_.empty() && ways_.front().known) said += tr(" (as this machine was timed)");
  fold_->set_summary(said);
}

void WayLadder::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  QMetaObject::invokeMethod(
      this, [this] { show_ways(of_ != nullptr && shop_.known()); }, Qt::QueuedConnection);
}

void WayLadder::light(std::size_t i) {
  const bool on = lit_ != i && i < ways_.size();
  put_out();
  if (on) {
    // Corners are small: the largest of them get a ring, too, where rings have room.
    constexpr std::size_t kRings = 40;
    const double apart = 24 / shop_.bench->pixels_per_mm();
    std::vector<std::pair<double, Point>> places;
    for (const Region& region : ways_[i].unreached_where) {
      for (const Island& island : region.islands) {
        const Region one{{island}};
        places.emplace_back(area(one), bounds(one).centre());
      }
    }
    std::sort(places.begin(), places.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<Point> rings;
    for (const auto& place : places) {
      const auto close = [&](Point other) { return distance(other, place.second) < apart; };
      if (rings.size() < kRings && std::none_of(rings.begin(), rings.end(), close)) rings.push_back(place.second);
    }
    shop_.bench->show_highlight(ways_[i].unreached_where);
    shop_.bench->show_marks(rings);
    lit_ = i;
  }
  show_ways(of_ != nullptr && shop_.known());
}

void WayLadder::put_out() {
  if (!lit_) return;
  lit_.reset();
  shop_.bench->show_highlight({});
  shop_.bench->show_marks({});
}

void WayLadder::take(std::size_t i) {
  if (i >= ways_.size() || !ways_[i].take || !shop_.known()) return;
  const Way way = ways_[i];
  shop_.document.edit(tr("cut it otherwise: %1").arg(QString::fromStdString(way.words)), way.take);
}

}  // namespace doyen
