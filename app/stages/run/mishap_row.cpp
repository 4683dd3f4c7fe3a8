#include "stages/run/mishap_row.hpp"

#include <QAbstractItemView>
#include <QHBoxLayout>
#include <algorithm>

namespace doyen {
namespace {

QString row_text(const std::string& s) { return QString::fromStdString(s); }

}  // namespace

MishapRow::MishapRow(QWidget* parent) : QWidget(parent) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  kind_ = new QComboBox;
  kind_->setObjectName(QStringLiteral("mishap"));
  kind_->addItem(tr("what?"), QString());
  for (const Mishap mishap : all_mishaps())
    kind_->addItem(row_text(mishap_in_words(mishap)), QString::fromLatin1(to_word(mishap)));
  bit_ = new QComboBox;
  bit_->setObjectName(QStringLiteral("mishapBit"));
  mm_ = new LengthField({0, 1000}, true);
  mm_->setObjectName(QStringLiteral("mishapBy"));
  mm_->setPlaceholderText(tr("by how much"));
  // No wider than the ticket, whatever a bit is called.
  for (QComboBox* box : {kind_, bit_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(6);
    box->setMinimumWidth(0);
    box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  }

  kind_->view()->setMinimumWidth(kind_->view()->sizeHintForColumn(0) + 24);
  kind_->setAccessibleName(tr("something went wrong"));
  bit_->setAccessibleName(tr("with which bit?"));
  mm_->setAccessibleName(tr("by how much"));
  mm_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  row->addWidget(kind_, 2);
  row->addWidget(mm_, 1);
  row->addWidget(bit_, 2);
  connect(kind_, &QComboBox::currentIndexChanged, this, [this] {
    kind_->setToolTip(kind_->currentText());
    show_fields();
    Q_EMIT changed();
  });
  connect(mm_, &LengthField::entered, this, [this](std::optional<double> mm) {
    mm_->show_length(mm, lengths_);
    Q_EMIT changed();
  });
  connect(bit_, &QComboBox::currentIndexChanged, this, [this] { Q_EMIT changed(); });
  mm_->show_length({}, lengths_);
  show_fields();
}

void MishapRow::show_bits(const std::vector<LoggedBit>& bits, const LengthStyle& lengths) {
  if (!(lengths == lengths_)) {
    lengths_ = lengths;
    mm_->show_length(mm_->length(), lengths_);
  }
  QStringList ids{QString()};
  for (const LoggedBit& bit : bits) ids << row_text(bit.bit);
  QStringList shown;
  for (int i = 0; i < bit_->count(); ++i) shown << bit_->itemData(i).toString();
  if (ids == shown) return;
  const QSignalBlocker quiet(bit_);
  const QVariant was = bit_->currentData();
  bit_->clear();
  bit_->addItem(tr("with which bit?"), QString());
  for (const LoggedBit& bit : bits) bit_->addItem(row_text(bit.name), row_text(bit.bit));
  bit_->view()->setMinimumWidth(bit_->view()->sizeHintForColumn(0) + 24);
  bit_->setCurrentIndex(std::max(0, bit_->findData(was)));
}

void MishapRow::show_fields() {
  const std::optional<Mishap> mishap = mishap_of(kind_->currentData().toString().toStdString());
  mm_->setVisible(mishap && has_amount(*mishap));
  bit_->setVisible(mishap && has_bit(*mishap));
}

std::optional<MishapSeen> MishapRow::seen() const {
  const std::optional<Mishap> mishap = mishap_of(kind_->currentData().toString().toStdString());
  if (!mishap) return {};
  MishapSeen seen;
  seen.mishap = *mishap;
  if (has_amount(*mishap)) seen.mm = mm_->length().value_or(0);
  if (has_bit(*mishap)) seen.bit = BitId(bit_->currentData().toString().toStdString());
  return seen;
}

void MishapRow::show_seen(const MishapSeen& seen) {
  kind_->setCurrentIndex(std::max(0, kind_->findData(QString::fromLatin1(to_word(seen.mishap)))));
  mm_->show_length(seen.mm > 0 ? std::optional(seen.mm) : std::nullopt, lengths_);
  bit_->setCurrentIndex(std::max(0, bit_->findData(row_text(std::string(seen.bit)))));
}

void MishapRow::clear() {
  kind_->setCurrentIndex(0);
  mm_->show_length({}, lengths_);
  bit_->setCurrentIndex(0);
}

std::vector<MishapSeen> said_in(const std::vector<MishapRow*>& rows) {
  std::vector<MishapSeen> all;
  for (const MishapRow* row : rows) {
    if (const std::optional<MishapSeen> seen = row->seen()) all.push_back(*seen);
  }
  return all;
}

void show_as_needed(const std::vector<MishapRow*>& rows, bool wrong) {
  bool more = wrong;
  for (MishapRow* row : rows) {
    row->setVisible(more);
    more = more && row->seen();
  }
}

}  // namespace doyen
