#include "parts/accept_dialog.hpp"

#include <QDialogButtonBox>
#include <QPushButton>
#include <QVBoxLayout>

#include "parts/cards.hpp"

namespace doyen {

AcceptDialog::AcceptDialog(const Verdict& verdict, QWidget* parent) : QDialog(parent) {
  setObjectName(QStringLiteral("accept"));
  const bool stop = verdict.grade == Grade::Stop;
  setWindowTitle(stop ? tr("Accept what would stop it") : tr("Accept a warning"));
  setMinimumWidth(460);
  auto* column = new QVBoxLayout(this);
  column->addWidget(make_label(
      VerdictCard::grade_name(verdict.grade) + QStringLiteral(": ") + QString::fromStdString(verdict.text), "heading"));
  if (!verdict.why.empty()) column->addWidget(make_label(QString::fromStdString(verdict.why), "faded"));
  column->addWidget(make_label(
      stop ? tr("As it stands this would spoil wood, break a bit or be unsafe. When you accept it, the files can be "
                "written all the same; the job keeps your reason, and the run sheet says it.")
           : tr("It stays on view as a note. The job keeps your reason, and the run sheet says it."),
      "plain"));
  reason_ = new QLineEdit;
  reason_->setObjectName(QStringLiteral("acceptReason"));
  reason_->setMaxLength(300);
  reason_->setPlaceholderText(tr("Why it is right here, such as: tried on an offcut"));
  column->addWidget(reason_);
  auto* buttons = new QDialogButtonBox;
  auto* take =
      buttons->addButton(stop ? tr("I accept it, and answer for it") : tr("Accept"), QDialogButtonBox::AcceptRole);
  buttons->addButton(tr("Leave it as it is"), QDialogButtonBox::RejectRole);
  take->setObjectName(QStringLiteral("acceptIt"));
  take->setEnabled(false);
  column->addWidget(buttons);
  connect(reason_, &QLineEdit::textChanged, this, [this, take] { take->setEnabled(!reason().isEmpty()); });
  connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  reason_->setFocus();
}

}  // namespace doyen
