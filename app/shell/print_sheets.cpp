#include "shell/print_sheets.hpp"

#include <QDialogButtonBox>
#include <QDir>
#include <QProcess>

#include "parts/cards.hpp"
#include "parts/ticket.hpp"

namespace doyen {
namespace {

constexpr int kPatience = 20'000;  // ms that a print server may take

// What a program of the system says; nothing where it is not there or failed, and then why.
std::optional<QString> said_by(const QString& program, const QStringList& arguments, QString* why = nullptr) {
  QProcess process;
  process.start(program, arguments, QIODevice::ReadOnly);
  if (!process.waitForStarted(kPatience)) {
    if (why != nullptr) *why = PrintSheets::tr("“%1” is not there: this system has no printing set up.").arg(program);
    return {};
  }
  if (!process.waitForFinished(kPatience)) {
    process.kill();
    process.waitForFinished(1000);
    if (why != nullptr) *why = PrintSheets::tr("The system's printing does not answer.");
    return {};
  }
  if (process.exitStatus() == QProcess::NormalExit && process.exitCode() == 0)
    return QString::fromUtf8(process.readAllStandardOutput());
  if (why != nullptr)
    *why = PrintSheets::tr("The system's printing refused it: %1")
               .arg(QString::fromUtf8(process.readAllStandardError()).trimmed());
  return {};
}

}  // namespace

QStringList system_printers() {
  const std::optional<QString> all = said_by(QStringLiteral("lpstat"), {QStringLiteral("-e")});
  if (!all) return {};
  QStringList printers = all->split(QLatin1Char('\n'), Qt::SkipEmptyParts);
  // “system default destination: name”, in whatever language.
  const QString usual = said_by(QStringLiteral("lpstat"), {QStringLiteral("-d")}).value_or(QString()).trimmed();
  const QString name = usual.section(QLatin1Char(' '), -1);
  if (const auto at = printers.indexOf(name); at > 0) printers.move(at, 0);
  return printers;
}

QString print_files(const QStringList& paths, const QString& printer, int copies) {
  QStringList arguments{QStringLiteral("-n"), QString::number(copies)};
  if (!printer.isEmpty()) arguments << QStringLiteral("-d") << printer;
  arguments << QStringLiteral("--") << paths;
  QString why;
  (void)said_by(QStringLiteral("lp"), arguments, &why);
  return why;
}

PrintSheets::PrintSheets(const QString& folder, const QStringList& names, QWidget* parent)
    : QDialog(parent), folder_(folder) {
  setWindowTitle(tr("Print"));
  setObjectName(QStringLiteral("printSheets"));
  auto* column = new QVBoxLayout(this);
  column->addWidget(make_label(tr("Print the sheets"), "title"));
  sheets_ = new QListWidget;
  sheets_->setObjectName(QStringLiteral("sheetsToPrint"));
  for (const QString& name : names) {
    auto* item = new QListWidgetItem(name);
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setCheckState(Qt::Checked);
    sheets_->addItem(item);
  }
  constexpr int kMostRows = 10;
  sheets_->setFixedHeight(10 + 28 * std::clamp(sheets_->count(), 1, kMostRows));
  column->addWidget(sheets_);
  printer_ = new QComboBox;
  printer_->setObjectName(QStringLiteral("printer"));
  printer_->addItems(system_printers());
  column->addWidget(make_row(tr("Printer"), printer_));
  copies_ = new FigureField({1, 99}, 0);
  copies_->setObjectName(QStringLiteral("copies"));
  copies_->show_figure(1);
  column->addWidget(make_row(tr("Of each"), copies_));
  says_ = make_label({}, "error");
  says_->setObjectName(QStringLiteral("printSays"));
  column->addWidget(says_);
  auto* box = new QDialogButtonBox;
  print_ = box->addButton(tr("Print"), QDialogButtonBox::AcceptRole);
  print_->setObjectName(QStringLiteral("printNow"));
  box->addButton(tr("Not now"), QDialogButtonBox::RejectRole);
  auto* open = box->addButton(tr("Open the folder"), QDialogButtonBox::ActionRole);
  open->setObjectName(QStringLiteral("printFolder"));
  column->addWidget(box);
  connect(print_, &QPushButton::clicked, this, &PrintSheets::print);
  connect(box, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(open, &QPushButton::clicked, this, [this] { Q_EMIT open_wanted(folder_); });
  connect(sheets_, &QListWidget::itemChanged, this, [this] { says_->clear(); });
  if (printer_->count() == 0) {
    print_->setEnabled(false);
    says_->setText(
        tr("No printer is set up on this machine. The sheets are PDF files: open the folder and print them "
           "wherever there is one."));
  }
  resize(460, sizeHint().height());
}

void PrintSheets::print() {
  print_->setFocus();  // what is still being typed is taken or refused
  QStringList paths;
  for (int i = 0; i < sheets_->count(); ++i) {
    const QString path = QDir(folder_).filePath(sheets_->item(i)->text());
    if (sheets_->item(i)->checkState() != Qt::Checked) continue;
    if (!QFile::exists(path)) return says_->setText(tr("“%1” is not there any more; write the files again.").arg(path));
    paths << path;
  }
  if (paths.isEmpty()) return says_->setText(tr("Tick at least one sheet."));
  const QString why = print_files(paths, printer_->currentText(), static_cast<int>(copies_->figure()));
  if (!why.isEmpty()) return says_->setText(why);
  accept();
}

}  // namespace doyen
