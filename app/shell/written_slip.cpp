#include "shell/written_slip.hpp"

#include <QDir>
#include <QGridLayout>
#include <QPushButton>
#include <QRegularExpression>
#include <QSet>
#include <algorithm>

#include "parts/cards.hpp"

namespace doyen {

QString names_in_words(const QStringList& names) {
  constexpr int kAll = 12;
  if (names.size() <= kAll) return names.join(QStringLiteral(", "));
  QStringList own;
  QSet<QString> folders;
  for (const QString& name : names) {
    if (name.contains(QLatin1Char('/')))
      folders.insert(name.section(QLatin1Char('/'), 0, 0));
    else
      own << name;
  }
  if (folders.isEmpty()) return names.join(QStringLiteral(", "));
  return WrittenSlip::tr("%1, and %2 more in %3 folders")
      .arg(own.join(QStringLiteral(", ")))
      .arg(names.size() - own.size())
      .arg(folders.size());
}

WrittenSlip::WrittenSlip(QWidget* over) : QFrame(over) {
  setObjectName(QStringLiteral("writtenSlip"));
  setProperty("role", QStringLiteral("slip"));
  setCursor(Qt::ArrowCursor);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(16, 12, 16, 12);
  column->setSpacing(6);
  column->addWidget(make_label(tr("Written"), "heading"));
  const auto line = [&](const char* role, const char* name) {
    QLabel* label = make_label({}, role);
    label->setObjectName(QLatin1String(name));
    column->addWidget(label);
    return label;
  };
  what_ = line("plain", "slipWhat");
  where_ = line("faded", "slipWhere");
  judged_ = line("plain", "slipJudged");
  auto* rows = new QGridLayout;
  const auto button = [&](const QString& words, const char* name) {
    auto* made = new QPushButton(words);
    made->setObjectName(QLatin1String(name));
    rows->addWidget(made, rows->count() / 2, rows->count() % 2);
    return made;
  };
  connect(button(tr("Open the folder"), "slipFolder"), &QPushButton::clicked, this,
          [this] { Q_EMIT open_wanted(folder_); });
  connect(button(tr("Open the run sheet"), "slipSheet"), &QPushButton::clicked, this,
          [this] { Q_EMIT open_wanted(QDir(folder_).filePath(QStringLiteral("runsheet.pdf"))); });
  connect(button(tr("Print…"), "slipPrint"), &QPushButton::clicked, this,
          [this] { Q_EMIT print_wanted(folder_, sheets_); });
  connect(button(tr("Put it away"), "slipAway"), &QPushButton::clicked, this, &QWidget::hide);
  column->addLayout(rows);
  hide();
}

void WrittenSlip::show_written(const QString& folder, const QStringList& names, const QString& judged,
                               const QString& ending) {
  folder_ = folder;
  sheets_ = names.filter(QRegularExpression(QStringLiteral("\\.pdf$")));
  const auto files = std::count_if(names.begin(), names.end(),
                                   [&](const QString& name) { return name.endsWith(QLatin1Char('.') + ending); });
  const auto sheets = std::count_if(names.begin(), names.end(),
                                    [](const QString& name) { return name.endsWith(QStringLiteral("runsheet.pdf")); });
  what_->setText((files == 1 ? tr("One file for the machine") : tr("%1 files for the machine").arg(files)) +
                 (sheets == 1 ? tr(", the run sheet and pictures.") : tr(", %1 run sheets and pictures.").arg(sheets)));
  QString breakable = folder;  // a long path may wrap after each of its folders
  where_->setText(tr("In %1").arg(breakable.replace(QLatin1Char('/'), QStringLiteral("/\u200B"))));
  judged_->setText(judged);
  findChild<QPushButton*>(QStringLiteral("slipPrint"))->setVisible(!sheets_.isEmpty());
  // A sheet of its own has only the board that is cut itself.
  findChild<QPushButton*>(QStringLiteral("slipSheet"))->setVisible(names.contains(QStringLiteral("runsheet.pdf")));
  constexpr int kWide = 400, kIn = 24;
  setFixedWidth(std::min(kWide, std::max(200, parentWidget()->width() - 2 * kIn)));
  adjustSize();
  move(parentWidget()->width() - width() - kIn, kIn + 10);
  raise();
  show();
}

}  // namespace doyen
