#include "shell/call_box.hpp"

#include <QKeyEvent>
#include <QVBoxLayout>

namespace doyen {

CallBox::CallBox(QList<Call> calls, QWidget* parent) : QDialog(parent, Qt::Popup), calls_(std::move(calls)) {
  setObjectName(QStringLiteral("callBox"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 10, 10, 10);
  line_ = new QLineEdit;
  line_->setPlaceholderText(tr("Say what you want: a command, a piece, a bit, a recent job"));
  list_ = new QListWidget;
  column->addWidget(line_);
  column->addWidget(list_);
  resize(480, 340);
  connect(line_, &QLineEdit::textChanged, this, &CallBox::filter);
  connect(list_, &QListWidget::itemClicked, this, &CallBox::take);
  line_->installEventFilter(this);
  setFocusProxy(line_);
  list_->setFocusPolicy(Qt::NoFocus);
  filter({});
}

void CallBox::showEvent(QShowEvent* event) {
  QDialog::showEvent(event);
  activateWindow();
  line_->setFocus(Qt::PopupFocusReason);
}

void CallBox::filter(const QString& words) {
  list_->clear();
  const QStringList wanted = words.toLower().split(QLatin1Char(' '), Qt::SkipEmptyParts);
  // What begins words as they are typed comes before what only holds them somewhere.
  QList<qsizetype> found, somewhere;
  for (qsizetype i = 0; i < calls_.size(); ++i) {
    const QString text = calls_[i].words.toLower();
    const auto holds = [&](const QString& w) { return text.contains(w); };
    const auto begins = [&](const QString& w) { return text.startsWith(w) || text.contains(QLatin1Char(' ') + w); };
    if (!std::all_of(wanted.begin(), wanted.end(), holds)) continue;
    (std::all_of(wanted.begin(), wanted.end(), begins) ? found : somewhere) << i;
  }
  for (const qsizetype i : found + somewhere) {
    auto* row = new QListWidgetItem(
        calls_[i].words + (calls_[i].shortcut.isEmpty() ? QString() : QStringLiteral("    ") + calls_[i].shortcut));
    row->setData(Qt::UserRole, static_cast<int>(i));
    list_->addItem(row);
  }
  if (list_->count() == 0) {
    auto* none = new QListWidgetItem(tr("Nothing here is called “%1”. Try fewer or other words.").arg(words.trimmed()));
    none->setFlags(Qt::NoItemFlags);
    list_->addItem(none);
  }
  list_->setCurrentRow(0);
}

void CallBox::take() {
  const QListWidgetItem* row = list_->currentItem();
  if (row == nullptr || !(row->flags() & Qt::ItemIsEnabled)) return;
  const auto act = calls_[row->data(Qt::UserRole).toInt()].act;
  accept();
  act();
}

bool CallBox::eventFilter(QObject* watched, QEvent* event) {
  if (watched == line_ && event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Down || key == Qt::Key_Up) {
      const int n = list_->count();
      if (n > 0) list_->setCurrentRow((list_->currentRow() + (key == Qt::Key_Down ? 1 : n - 1)) % n);
      return true;
    }
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
      take();
      return true;
    }
  }
  return QDialog::eventFilter(watched, event);
}

}  // namespace doyen
