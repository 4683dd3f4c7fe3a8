#include "shell/guide.hpp"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QImage>
#include <QVBoxLayout>

#include "problem.hpp"
#include "storage/data_folder.hpp"
#include "work/language.hpp"

namespace doyen {
namespace {

constexpr int kPictureWide = 520;  // px

QString guide_folder() {
  try {
    return QFileInfo(QString::fromStdString(data_file("guide/index.md"))).path();
  } catch (const Problem&) {
    return {};
  }
}

// The pages in the language that is spoken, where there are any; else the English ones.
QString page_folder() {
  const QString own = guide_folder() + QLatin1Char('/') + spoken_language();
  return QFileInfo::exists(own + QStringLiteral("/index.md")) ? own : guide_folder();
}

QString text_of(const QString& page) {
  for (const QString& folder : {page_folder(), guide_folder()}) {
    QFile file(folder + QLatin1Char('/') + QFileInfo(page).fileName());  // nothing outside of the guide
    if (file.open(QIODevice::ReadOnly)) return QString::fromUtf8(file.readAll());
  }
  return {};
}

}  // namespace

GuidePage::GuidePage(QWidget* parent) : QTextBrowser(parent) {
  setOpenLinks(false);
  setAccessibleName(tr("Guide"));
  document()->setDocumentMargin(18);
  connect(this, &QTextBrowser::anchorClicked, this, [this](const QUrl& link) { open(link.fileName()); });
}

void GuidePage::open(const QString& page) {
  page_ = page;
  const QString text = text_of(page);
  setMarkdown(text.isEmpty() ? tr("This page of the guide is not installed: %1").arg(page) : text);
}

// Of an installed Doyen they stand beside the pages, of one that was just built among the project's screenshots.
QVariant GuidePage::loadResource(int type, const QUrl& name) {
  if (type != QTextDocument::ImageResource) return {};
  const QString file = QFileInfo(name.path()).fileName();
  for (const QString& folder :
       {guide_folder() + QStringLiteral("/pictures/"), guide_folder() + QStringLiteral("/../../docs/screenshots/")}) {
    const QImage image(folder + file);
    if (!image.isNull()) return image.scaledToWidth(kPictureWide, Qt::SmoothTransformation);
  }
  return {};
}

QList<Guide::Found> Guide::search(const QString& words) {
  const QStringList wanted = words.toLower().split(QLatin1Char(' '), Qt::SkipEmptyParts);
  QList<Found> titled, others;
  for (const QString& page : QDir(page_folder()).entryList({QStringLiteral("*.md")}, QDir::Files, QDir::Name)) {
    const QString text = text_of(page), lower = text.toLower();
    const QString title = text.section(QLatin1Char('\n'), 0, 0).mid(2);
    const auto in = [&](const QString& where) {
      return std::all_of(wanted.begin(), wanted.end(), [&](const QString& w) { return where.contains(w); });
    };
    if (in(title.toLower()))
      titled.append({page, title});
    else if (in(lower))
      others.append({page, title});
  }
  return titled + others;
}

Guide::Guide(QWidget* parent) : QDialog(parent) {
  setObjectName(QStringLiteral("guide"));
  setWindowTitle(tr("Guide"));
  setAttribute(Qt::WA_DeleteOnClose);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(12, 12, 12, 12);
  row->setSpacing(12);
  auto* side = new QVBoxLayout;
  words_ = new QLineEdit;
  words_->setObjectName(QStringLiteral("guideWords"));
  words_->setPlaceholderText(tr("Look for…"));
  found_ = new QListWidget;
  found_->setObjectName(QStringLiteral("guidePages"));
  found_->setAccessibleName(tr("Pages"));
  found_->setWordWrap(true);
  side->addWidget(words_);
  side->addWidget(found_, 1);
  auto* holder = new QWidget;
  holder->setLayout(side);
  holder->setFixedWidth(220);
  side->setContentsMargins(0, 0, 0, 0);
  page_ = new GuidePage;
  page_->setObjectName(QStringLiteral("guidePage"));
  row->addWidget(holder);
  row->addWidget(page_, 1);
  connect(words_, &QLineEdit::textChanged, this, &Guide::show_found);
  connect(found_, &QListWidget::currentItemChanged, this, [this](const QListWidgetItem* item) {
    if (item != nullptr && !item->data(Qt::UserRole).toString().isEmpty())
      page_->open(item->data(Qt::UserRole).toString());
  });
  show_found({});
  page_->open(QStringLiteral("index.md"));
  resize(860, 680);
  words_->setFocus();
}

void Guide::show_found(const QString& words) {
  const QSignalBlocker quiet(found_);
  found_->clear();
  for (const Found& each : search(words)) {
    auto* item = new QListWidgetItem(each.title, found_);
    item->setData(Qt::UserRole, each.page);
  }
  if (found_->count() > 0) return;
  auto* none = new QListWidgetItem(tr("No page has these words."), found_);
  none->setFlags(Qt::NoItemFlags);
}

}  // namespace doyen
