#include "stages/cuts/resin_row.hpp"

#include "problem.hpp"

namespace doyen {

ResinRow::ResinRow(Workshop& shop) : shop_(shop) {
  pool_.setMaxThreadCount(1);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  filled_ = new QCheckBox(tr("Filled level with resin"));
  filled_->setObjectName(QStringLiteral("resin"));
  column->addWidget(filled_);
  volume_ = new NumberCard(tr("Resin to mix"));
  volume_->setObjectName(QStringLiteral("resinVolume"));
  column->addWidget(volume_);
  caution_ = make_label(tr("Gloves and moving air; the resin's own sheet comes first."), "faded");
  column->addWidget(caution_);
  connect(filled_, &QCheckBox::clicked, this, [this](bool on) {
    shop_.edit_cuts(on ? tr("fill it with resin") : tr("leave the resin out"),
                    [&](Item& item) { item.cut.resin = on; });
  });
}

ResinRow::~ResinRow() {
  cancel_.request();
  pool_.waitForDone();
}

void ResinRow::refresh(const Item& item) {
  filled_->setChecked(item.cut.resin);
  volume_->setVisible(item.cut.resin);
  caution_->setVisible(item.cut.resin);
  if (!item.cut.resin || !shop_.plan || (measured_ == shop_.plan && piece_ == item.piece.id)) return;
  cancel_.request();
  cancel_ = Cancel();
  measured_ = shop_.plan;
  piece_ = item.piece.id;
  busy_ = true;
  volume_->show_number(QStringLiteral("…"), {}, Sum{});
  pool_.start([this, mine = ++generation_, plan = shop_.plan, id = item.piece.id, cancel = cancel_] {
    Sum sum;
    try {
      const Cancel::Scope stops(cancel);
      cancel.check();
      sum = resin_sum(*plan, id, cancel);
    } catch (const Cancelled&) {
      return;  // something newer is being measured
    }
    QMetaObject::invokeMethod(
        this,
        [this, mine, sum] {
          if (mine != generation_) return;
          busy_ = false;
          const QString result = QString::fromStdString(sum.result);
          volume_->show_number(result.isEmpty() ? tr("none") : result.section(QLatin1Char(' '), 1, 2),
                               result.isEmpty() ? tr("it is not cut yet") : tr("a tenth for waste counted in"), sum);
        },
        Qt::QueuedConnection);
  });
}

}  // namespace doyen
