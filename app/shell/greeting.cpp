#include "shell/greeting.hpp"

#include <QCoreApplication>
#include <QDialogButtonBox>
#include <QFileInfo>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"
#include "storage/data_folder.hpp"

namespace doyen {
namespace {

constexpr QSize kPicture(JobPictures::kWide, JobPictures::kHigh);

QPixmap on_card(const QImage& picture) {
  QPixmap card(kPicture);
  card.fill(theme::kChalk);
  QPainter p(&card);
  if (!picture.isNull()) {
    p.drawImage(QPoint((card.width() - picture.width()) / 2, (card.height() - picture.height()) / 2), picture);
  } else {
    p.setPen(theme::kFaded);
    p.drawText(card.rect(), Qt::AlignCenter, QStringLiteral("…"));
  }
  return card;
}

}  // namespace

JobCards::JobCards(QWidget* parent) : QListWidget(parent) {
  setViewMode(QListView::IconMode);
  setIconSize(kPicture);
  setGridSize(kPicture + QSize(20, 52));
  setResizeMode(QListView::Adjust);
  setMovement(QListView::Static);
  setWordWrap(true);
  setSpacing(4);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(this, &QListWidget::itemActivated, this,
          [this](const QListWidgetItem* item) { Q_EMIT taken(item->data(Qt::UserRole).toString()); });
  connect(this, &QListWidget::itemClicked, this,
          [this](const QListWidgetItem* item) { Q_EMIT taken(item->data(Qt::UserRole).toString()); });
  connect(&pictures_, &JobPictures::ready, this, [this](const QString& path, const QImage& picture) {
    for (int i = 0; i < count(); ++i) {
      if (item(i)->data(Qt::UserRole).toString() == path) item(i)->setIcon(on_card(picture));
    }
  });
}

void JobCards::add(const QString& path, const QString& title) {
  auto* card = new QListWidgetItem(on_card({}), title, this);
  card->setData(Qt::UserRole, path);
  card->setToolTip(path);
  card->setSizeHint(gridSize() - QSize(8, 4));
  card->setTextAlignment(Qt::AlignHCenter | Qt::AlignTop);
  pictures_.request(path);
}

Greeting::Greeting(const QStringList& recent, QWidget* parent) : QDialog(parent) {
  setWindowTitle(tr("Doyen"));
  setObjectName(QStringLiteral("welcome"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(28, 24, 28, 22);
  column->setSpacing(9);
  column->addWidget(make_label(tr("What would you like to carve?"), "title"));
  column->addWidget(make_label(tr("Say what each shape should look like; Doyen works out the cutting, shows the board "
                                  "as it will be, and says what would go wrong before wood is spoiled."),
                               "faded"));
  const auto add = [&](const QString& words, const char* name, Start start) {
    auto* button = new QPushButton(words);
    button->setObjectName(QLatin1String(name));
    button->setMinimumHeight(36);
    button->setStyleSheet(QStringLiteral("text-align: left; padding-left: 14px;"));
    connect(button, &QPushButton::clicked, this, [this, start] { take(start); });
    column->addWidget(button);
    return button;
  };
  add(tr("A new sign: lettering on a board…"), "startSign", Start::Sign)->setDefault(true);
  add(tr("A board from a drawing or a photograph…"), "startArt", Start::Art);
  add(tr("Plates from a list: labels, names, numbers…"), "startPlates", Start::Plates);
  add(tr("Open a job…"), "startOpen", Start::Open);
  add(tr("Look at a demo…"), "startDemos", Start::Demos);
  add(tr("Show me how: a first sign, step by step…"), "startLesson", Start::Lesson);
  if (!recent.isEmpty()) {
    column->addSpacing(6);
    column->addWidget(make_label(tr("Recent jobs"), "heading"));
    auto* cards = new JobCards;
    cards->setObjectName(QStringLiteral("recentJobs"));
    cards->setAccessibleName(tr("Recent jobs"));
    for (const QString& path : recent) cards->add(path, QFileInfo(path).completeBaseName());
    cards->setFixedHeight(recent.size() > 3 ? 330 : 168);
    connect(cards, &JobCards::taken, this, [this](const QString& path) { take(Start::Recent, path); });
    column->addWidget(cards);
  }
  setFixedWidth(740);
}

void Greeting::take(Start start, const QString& path) {
  start_ = start;
  path_ = path;
  accept();
}

QList<Demo> demos() {
  const auto tr = [](const char* words) { return QCoreApplication::translate("Demos", words); };
  return {{QStringLiteral("gate-sign"), tr("A gate sign: incised letters, a border, cut out")},
          {QStringLiteral("heron-plaque"), tr("A plaque: words on an arc, a heron traced from a photograph")},
          {QStringLiteral("gate-sign-raised"), tr("A raised sign with a bevelled edge")},
          {QStringLiteral("glasshouse-sign"), tr("A shield of oak: words raised on arcs, an island, two bevels")},
          {QStringLiteral("seed-drawer"), tr("A seed drawer's front")},
          {QStringLiteral("dibber-board"), tr("A dibber board: 48 holes, and ways to cut them")},
          {QStringLiteral("inlaid-lid"), tr("A lid with an inlaid sprig")},
          {QStringLiteral("fingerpost"), tr("A fingerpost's arm, cut from both sides")},
          {QStringLiteral("sundial-plate"), tr("An engraved brass plate")},
          {QStringLiteral("bed-labels"), tr("130 labels for the beds, from a list")},
          {QStringLiteral("garden-map"), tr("A map of the garden on four panels")},
          {QStringLiteral("test-ladder"), tr("A test ladder for inlays")}};
}

DemoGallery::DemoGallery(QWidget* parent) : QDialog(parent) {
  setObjectName(QStringLiteral("demos"));
  setWindowTitle(tr("Demos"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 20, 24, 18);
  column->setSpacing(8);
  column->addWidget(make_label(tr("Boards for the Marrowby Physic Garden"), "title"));
  column->addWidget(
      make_label(tr("An invented garden. Whatever you try on them, the demos stay as they are."), "faded"));
  auto* cards = new JobCards;
  cards->setObjectName(QStringLiteral("demoCards"));
  cards->setAccessibleName(tr("Demos"));
  for (const Demo& demo : demos()) {
    try {
      cards->add(QString::fromStdString(data_file("demo/" + demo.name.toStdString() + ".doyen")), demo.title);
    } catch (const Problem&) {
      continue;  // it was taken away from the data folder
    }
  }
  connect(cards, &JobCards::taken, this, [this](const QString& path) {
    chosen_ = QFileInfo(path).completeBaseName();
    accept();
  });
  column->addWidget(cards);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
  connect(buttons, &QDialogButtonBox::rejected, this, &DemoGallery::reject);
  column->addWidget(buttons);
  resize(740, 640);
  cards->setFocus();
}

}  // namespace doyen
