#include "stages/cuts/rack_dialog.hpp"

#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QVBoxLayout>

#include "parts/cards.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

enum Column {
  Name,
  Body,
  MeasuredBody,
  Angle,
  MeasuredAngle,
  Tip,
  Flutes,
  Direction,
  FluteLength,
  Feed,
  Plunge,
  Turns,
  PerPass,
  Neck,
  Head,
  Ladder,
  kColumns
};

QString text(const std::string& s) { return QString::fromStdString(s); }

}  // namespace

RackDialog::RackDialog(const Rack& rack, const LengthStyle& lengths, QWidget* parent)
    : QDialog(parent), rack_(rack), lengths_(lengths) {
  setWindowTitle(tr("The rack"));
  setObjectName(QStringLiteral("rack"));
  auto* column = new QVBoxLayout(this);
  column->addWidget(make_label(tr("Bits in the rack"), "title"));
  column->addWidget(make_label(tr("Measure a V bit's angle with a test groove: its depth against its width. Where you "
                                  "enter a measured figure, Doyen uses it. "
                                  "The feeds that come with Doyen are starting points from common practice."),
                               "faded"));
  wood_ = new QComboBox;
  wood_->addItem(tr("soft wood"), QStringLiteral("soft"));
  wood_->addItem(tr("hard wood"), QStringLiteral("hard"));
  wood_->addItem(tr("sheet goods"), QStringLiteral("sheet"));
  wood_->addItem(tr("plastic"), QStringLiteral("plastic"));
  wood_->addItem(tr("metal"), QStringLiteral("metal"));
  column->addWidget(make_row(tr("Feeds shown for"), wood_));
  table_ = new QTableWidget;
  table_->setColumnCount(kColumns);
  const QString unit = text(unit_name(lengths.unit)), speed = lengths.unit == Unit::Inch ? tr("in/min") : tr("mm/min");
  table_->setHorizontalHeaderLabels(
      {tr("Bit"), tr("Body\n%1").arg(unit), tr("measured\n%1").arg(unit), tr("Angle\n°"), tr("measured\n°"),
       tr("Tip flat\n%1").arg(unit), tr("Flutes"), tr("Cutting"), tr("Longest cut\n%1").arg(unit),
       tr("Feed\n%1").arg(speed), tr("Plunge\n%1").arg(speed), tr("Turns\n/min"), tr("Per pass\n%1").arg(unit),
       tr("Slot width\n%1").arg(unit), tr("Head\n%1").arg(unit), tr("Ladder\n%1").arg(unit)});
  table_->horizontalHeaderItem(Ladder)->setToolTip(
      tr("What a test ladder showed: contact to add for inlays by a V, allowance a side by a flat bit"));
  table_->verticalHeader()->hide();
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  column->addWidget(table_, 1);
  say_ = make_label({}, "error");
  column->addWidget(say_);
  auto* buttons = new QHBoxLayout;
  auto* copy = new QPushButton(tr("Add a copy of the chosen bit"));
  auto* remove = new QPushButton(tr("Take the chosen bit out"));
  buttons->addWidget(copy);
  buttons->addWidget(remove);
  buttons->addStretch();
  auto* box = new QDialogButtonBox(QDialogButtonBox::Save | QDialogButtonBox::Cancel);
  buttons->addWidget(box);
  column->addLayout(buttons);
  connect(box, &QDialogButtonBox::accepted, this, &QDialog::accept);
  connect(box, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(copy, &QPushButton::clicked, this, &RackDialog::add_copy);
  connect(remove, &QPushButton::clicked, this, &RackDialog::remove_bit);
  connect(wood_, &QComboBox::activated, this, &RackDialog::fill);
  connect(table_, &QTableWidget::cellChanged, this, &RackDialog::take);
  resize(1120, 560);
  fill();
}

void RackDialog::fill() {
  filling_ = true;
  const std::string wood = wood_->currentData().toString().toStdString();
  table_->setRowCount(static_cast<int>(rack_.bits.size()));
  for (int r = 0; r < table_->rowCount(); ++r) {
    const Bit& b = rack_.bits[static_cast<std::size_t>(r)];
    const Feeds f = b.feeds_in(wood);
    const double k = lengths_.unit == Unit::Inch ? kMmPerInch : 1;
    const auto len = [&](double mm) { return text(format_length(mm, lengths_, false)); };
    const auto number = [](double v, int decimals) { return v > 0 ? text(format_number(v, decimals)) : QString(); };
    const bool cone = b.kind == BitKind::V || b.kind == BitKind::Taper;
    const auto ladder = [&](const Bit& bit) {
      const auto& kept = bit.kind == BitKind::V ? bit.ladder_contact : bit.ladder_allowance;
      return kept ? (*kept < 0 ? QStringLiteral("-") : QString()) + len(std::abs(*kept)) : QString();
    };
    const QString cells[kColumns] = {text(b.name),
                                     len(b.diameter),
                                     b.measured_diameter ? len(*b.measured_diameter) : QString(),
                                     cone ? number(b.angle, 2) : QString(),
                                     cone && b.measured_angle ? number(*b.measured_angle, 2) : QString(),
                                     len(b.tip),
                                     QString::number(b.flutes),
                                     text(to_word(b.direction)),
                                     len(b.flute_length),
                                     number(f.feed / k, 1),
                                     number(f.plunge / k, 1),
                                     number(f.rpm, 0),
                                     f.depth_per_pass > 0 ? len(f.depth_per_pass) : QString(),
                                     b.kind == BitKind::Keyhole ? len(b.neck) : QString(),
                                     b.kind == BitKind::Keyhole ? len(b.head_height) : QString(),
                                     ladder(b)};
    for (int c = 0; c < kColumns; ++c) {
      auto* cell = new QTableWidgetItem(cells[c]);
      const bool fixed = ((c == Angle || c == MeasuredAngle) && !cone) ||
                         ((c == Neck || c == Head) && b.kind != BitKind::Keyhole) ||
                         (c == Ladder && b.kind != BitKind::V && b.kind != BitKind::Flat);
      if (fixed) cell->setFlags(cell->flags() & ~Qt::ItemIsEditable);
      if (c != Name) cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
      table_->setItem(r, c, cell);
    }
  }
  filling_ = false;
}

void RackDialog::take(int row, int column) {
  if (filling_) return;
  Bit& bit = rack_.bits[static_cast<std::size_t>(row)];
  const Bit before = bit;
  const std::string words = table_->item(row, column)->text().trimmed().toStdString();
  Feeds& f = bit.feeds[wood_->currentData().toString().toStdString()];
  const double k = lengths_.unit == Unit::Inch ? kMmPerInch : 1;
  try {
    const auto len = [&](double least, double most) {
      const double mm = parse_length(words, lengths_.unit);
      if (mm < least || mm > most)
        throw bad_input(format_length(least, lengths_) + " to " + format_length(most, lengths_) + " was expected.");
      return mm;
    };
    const auto number = [&](double least, double most) {
      bool fine = false;
      const double v = QString::fromStdString(words).replace(QLatin1Char(','), QLatin1Char('.')).toDouble(&fine);
      if (!fine || v < least || v > most)
        throw bad_input("“" + words + "”: a number from " + format_number(least, 0) + " to " + format_number(most, 0) +
                        " was expected.");
      return v;
    };
    switch (column) {
      case Name:
        if (words.empty()) throw bad_input("A bit needs a name.");
        bit.name = words;
        break;
      case Body:
        bit.diameter = len(0.05, 150);
        break;
      case MeasuredBody:
        words.empty() ? bit.measured_diameter.reset() : void(bit.measured_diameter = len(0.05, 150));
        break;
      case Angle:
        bit.angle = number(1, 175);
        break;
      case MeasuredAngle:
        words.empty() ? bit.measured_angle.reset() : void(bit.measured_angle = number(1, 175));
        break;
      case Tip:
        bit.tip = len(0, bit.diameter);
        break;
      case Flutes:
        bit.flutes = static_cast<int>(number(1, 12));
        break;
      case Direction: {
        bool known = false;
        for (int d = 0; d < 4; ++d) {
          if (words == to_word(static_cast<CutDirection>(d))) {
            bit.direction = static_cast<CutDirection>(d);
            known = true;
          }
        }
        if (!known) throw bad_input("up-cut, down-cut, compression or straight was expected.");
        break;
      }
      case FluteLength:
        bit.flute_length = len(0.1, 300);
        break;
      case Feed:
        f.feed = words.empty() ? 0 : number(0, kMostFeed / k) * k;
        break;
      case Plunge:
        f.plunge = words.empty() ? 0 : number(0, kMostFeed / k) * k;
        break;
      case Turns:
        f.rpm = words.empty() ? 0 : number(0, 100000);
        break;
      case Neck:
        bit.neck = len(0.5, bit.diameter);
        break;
      case Head:
        bit.head_height = len(0.5, 100);
        break;
      case Ladder: {
        auto& kept = bit.kind == BitKind::V ? bit.ladder_contact : bit.ladder_allowance;
        const bool less = words.starts_with('-') && bit.kind == BitKind::V;
        const double mm = words.empty() ? 0 : parse_length(less ? words.substr(1) : words, lengths_.unit);
        if (mm > 5) throw bad_input(format_length(5, lengths_) + " at most was expected.");
        words.empty() ? kept.reset() : void(kept = less ? -mm : mm);
        break;
      }
      case PerPass:
        f.depth_per_pass = words.empty() ? 0 : len(0, 100);
        break;
      default:
        break;
    }
    // What could not be read again is not taken, whatever the cells allow one by one.
    (void)read_rack(write_rack(rack_), tr("The rack").toStdString());
    say_->clear();
  } catch (const Problem& problem) {
    bit = before;
    say_->setText(QString::fromUtf8(problem.what()));
  }
  fill();
}

void RackDialog::add_copy() {
  const int row = table_->currentRow();
  if (row < 0) return say_->setText(tr("Choose a bit to copy first."));
  Bit copy = rack_.bits[static_cast<std::size_t>(row)];
  for (int k = 2;; ++k) {
    const std::string id = copy.id + "-" + std::to_string(k);
    if (rack_.find(id) == nullptr) {
      copy.id = id;
      break;
    }
  }
  copy.name += " (copy)";
  rack_.bits.insert(rack_.bits.begin() + row + 1, copy);
  fill();
}

void RackDialog::remove_bit() {
  const int row = table_->currentRow();
  if (row < 0) return say_->setText(tr("Choose the bit to take out first."));
  rack_.bits.erase(rack_.bits.begin() + row);
  fill();
}

}  // namespace doyen
