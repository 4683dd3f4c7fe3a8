#include "stages/cuts/bit_box.hpp"

#include <QAbstractItemView>
#include <QPainter>
#include <QStandardItemModel>
#include <QStyledItemDelegate>

#include "parts/theme.hpp"

namespace doyen {
namespace {

constexpr int kSays = Qt::UserRole + 1, kRefused = Qt::UserRole + 2;

// The bit's name, and at the right what it would do.
class BitRow : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    QStyledItemDelegate::paint(painter, option, index);
    painter->save();
    painter->setPen(theme::kFaded);
    painter->setFont(option.font);
    painter->drawText(option.rect.adjusted(8, 0, -8, 0), Qt::AlignRight | Qt::AlignVCenter,
                      index.data(kSays).toString());
    painter->restore();
  }
  [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    QSize size = QStyledItemDelegate::sizeHint(option, index);
    size.rwidth() += 28 + option.fontMetrics.horizontalAdvance(index.data(kSays).toString());
    size.setHeight(std::max(size.height(), 26));
    return size;
  }
};

}  // namespace

BitBox::BitBox(Workshop& shop) : shop_(shop), trials_(shop) {
  setItemDelegate(new BitRow(this));
  connect(this, &QComboBox::activated, this,
          [this](int row) { Q_EMIT taken(itemData(row).toString(), itemText(row)); });
  connect(&trials_, &BitTrials::told, this, [this](const QString& bit, const Trial& trial) {
    if (const int row = findData(bit); row >= 0) say(row, trials_.in_words(bit, trial));
  });
  connect(&trials_, &BitTrials::ended, this, [this] {
    for (int row = 0; row < count(); ++row) {
      if (says(row).isEmpty()) say(row, tr("cannot be used here"));
    }
  });
}

QList<BitBox::Row> BitBox::rows_for(std::optional<BitKind> kind, const BitId& chosen,
                                    const std::function<QString(const Bit&)>& refused) const {
  QList<Row> rows, others;
  bool has_chosen = false;
  for (const Bit& bit : shop_.rack.bits) {
    Row row{QString::fromStdString(bit.id), QString::fromStdString(bit.name), {}};
    const bool offered = kind ? bit.kind == *kind : bit.kind != BitKind::Keyhole;
    has_chosen = has_chosen || (offered && bit.id == chosen);
    if (!offered && refused && bit.id != chosen) row.refused = refused(bit);
    if (offered) rows.append(row);
    if (!row.refused.isEmpty()) others.append(row);
  }
  if (!has_chosen) {
    const QString id = QString::fromStdString(chosen);
    const Bit* other = shop_.rack.find(chosen);
    const QString lost = chosen.empty() ? tr("none is chosen") : tr("%1 (not in the rack)").arg(id);
    rows.append({id, other == nullptr ? lost : QString::fromStdString(other->name), {}});
  }
  return rows + others;
}

void BitBox::show_rows(const QList<Row>& rows) {
  // The rows stay while someone looks at them.
  bool same = count() == rows.size();
  for (int i = 0; same && i < count(); ++i) same = itemData(i).toString() == rows[i].id && itemText(i) == rows[i].name;
  if (same) return;
  clear();
  auto* model = qobject_cast<QStandardItemModel*>(this->model());
  for (const Row& row : rows) {
    addItem(row.name, row.id);
    if (row.refused.isEmpty()) continue;
    setItemData(count() - 1, row.refused, kRefused);
    if (model != nullptr) model->item(count() - 1)->setEnabled(false);
    say(count() - 1, {});
  }
  trials_.forget();
}

void BitBox::refresh(std::optional<BitKind> kind, const Item& item, const PiecePlan* piece,
                     const std::function<QString(const Bit&)>& refused) {
  show_rows(rows_for(kind, item.cut.bit, refused));
  setCurrentIndex(findData(QString::fromStdString(item.cut.bit)));
  if (!trials_.look_at(BitChoice::its_bit(kind), item, piece)) {
    for (int row = 0; row < count(); ++row) say(row, {});
  }
}

QString BitBox::says(int row) const { return itemData(row, kSays).toString(); }

void BitBox::say(int row, const QString& of_trial) {
  const QString refused = itemData(row, kRefused).toString(), words = refused.isEmpty() ? of_trial : refused;
  setItemData(row, words, kSays);
  setItemData(row, words, Qt::AccessibleDescriptionRole);
  if (!view()->isVisible()) return;
  view()->setMinimumWidth(std::max(view()->minimumWidth(), view()->sizeHintForColumn(0) + 12));
  if (QWidget* list = view()->window(); list != window() && list->width() < view()->minimumWidth()) {
    const int right = list->geometry().right();
    list->resize(view()->minimumWidth() + 4, list->height());
    list->move(std::max(0, right - list->width() + 1), list->y());
  }
}

void BitBox::showPopup() {
  trials_.ask();
  // Room for what comes, so that nothing jumps.
  const int room = view()->sizeHintForColumn(0) +
                   fontMetrics().horizontalAdvance(
                       tr("%1 deep, %2, leaves %3")
                           .arg(shop_.show(22.22), QStringLiteral("22 h 22 min"), QStringLiteral("222 mm²")));
  view()->setMinimumWidth(std::max(width(), room));
  QComboBox::showPopup();
  // It grows to the left, over the bench: at the right the window ends.
  if (QWidget* list = view()->window(); list != window()) {
    const int right = mapToGlobal(QPoint(width(), 0)).x();
    list->move(std::max(0, right - list->width()), list->y());
  }
}

}  // namespace doyen
