// Menu, keys, call box and the page of keys are one list: what one of them offers the others offer, too.
#include <QDesktopServices>
#include <QDialog>
#include <QDirIterator>
#include <QElapsedTimer>
#include <QFile>
#include <QFileInfo>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QRegularExpression>
#include <QSet>
#include <QSettings>
#include <QShortcut>
#include <QTreeWidget>
#include <set>

#include "parts/why.hpp"
#include "shell/guide.hpp"

#include "storage/data_folder.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

// Opens the job menu as the rail's button does, and looks at it while it stands there.
template <typename Look>
void in_job_menu(Window& w, Look look) {
  QTimer::singleShot(50, &w.window, [look] {
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu != nullptr);
    look(*menu);
    menu->close();
  });
  Q_EMIT w.window.rail().menu_wanted(w.window.mapToGlobal(QPoint(10, 60)));
}

template <typename Act>
void in_call_box(Window& w, Act act) {
  on_next_dialog([act](QDialog* d) { act(*d, *d->findChild<QListWidget*>()); });
  QTest::keyClick(&w.window, Qt::Key_K, Qt::ControlModifier);
}

QString keys_of(const QShortcut* shortcut) { return shortcut->key().toString(QKeySequence::NativeText); }

}  // namespace

TEST_CASE("no key does two things, and each stands on the page of keys") {
  Window w;
  std::set<QString> keys;
  for (const QShortcut* shortcut : w.window.findChildren<QShortcut*>(Qt::FindDirectChildrenOnly)) {
    INFO(keys_of(shortcut).toStdString());
    CHECK(keys.insert(keys_of(shortcut)).second);
  }
  REQUIRE(keys.size() > 20);
  std::set<QString> shown;
  on_next_dialog([&](QDialog* d) {
    REQUIRE(d->objectName() == QLatin1String("keysPage"));
    for (QTreeWidgetItemIterator it(d->findChild<QTreeWidget*>()); *it != nullptr; ++it) shown.insert((*it)->text(1));
  });
  QTest::keyClick(&w.window, Qt::Key_F1, Qt::ShiftModifier);
  for (const QString& key : keys) {
    INFO(key.toStdString());
    CHECK(shown.contains(key));
  }
}

TEST_CASE("the menu is grouped, says what undo takes back, and offers only what can be done") {
  Window w;
  in_job_menu(w, [](QMenu& menu) {
    CHECK_FALSE(menu.findChild<QAction*>("undo")->isEnabled());
    QStringList groups;
    for (const QAction* action : menu.actions()) {
      if (action->menu() != nullptr) groups << action->text();
    }
    CHECK(groups == QStringList{"Recent jobs", "Pieces", "View", "Help"});
    // No letter bench for what is no lettering: nothing is chosen.
    CHECK_FALSE(menu.findChild<QAction*>("letterBench")->isEnabled());
    CHECK(menu.findChild<QAction*>("quit") != nullptr);
    CHECK(menu.findChild<QAction*>("about") != nullptr);
  });
  w.choose(Stage::Artwork, "motto");
  QTest::keyClick(&w.window, Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
  const Job moved = w.job();
  in_job_menu(w, [](QMenu& menu) {
    CHECK(menu.findChild<QAction*>("undo")->text().startsWith("Undo: centre across"));
    CHECK(menu.findChild<QAction*>("letterBench")->isEnabled());
    menu.findChild<QAction*>("undo")->trigger();
  });
  CHECK_FALSE(w.job() == moved);
  // What cannot be done does nothing: no piece is chosen.
  w.window.select({});
  const Job before = w.job();
  for (const int key : {Qt::Key_C, Qt::Key_M, Qt::Key_G, Qt::Key_Left})
    QTest::keyClick(&w.window, static_cast<Qt::Key>(key), Qt::ControlModifier | Qt::ShiftModifier);
  CHECK(w.job() == before);
}

TEST_CASE("the call box takes typing at once and says when nothing is called so") {
  Window w;
  w.window.activateWindow();
  in_call_box(w, [](QDialog& box, QListWidget& list) {
    CHECK(box.focusWidget() == box.findChild<QLineEdit*>());
    REQUIRE(list.count() > 40);
    QTest::keyClicks(box.findChild<QLineEdit*>(), "no such thing");
    REQUIRE(list.count() == 1);
    CHECK(list.item(0)->text().contains("no such thing"));
    QTest::keyClick(box.findChild<QLineEdit*>(), Qt::Key_Return);
    CHECK(box.isVisible());  // there is nothing to take
  });
  // Bits and recent jobs are found, too.
  const QString file = QDir::temp().filePath("doyen-commands-job.doyen");
  w.window.document().save(file);
  QSettings().setValue("recent", QStringList{file, QDir::temp().filePath("doyen-gone.doyen")});
  in_call_box(w, [](QDialog& box, QListWidget& list) {
    QTest::keyClicks(box.findChild<QLineEdit*>(), "recent");
    REQUIRE(list.count() == 1);  // the one that is still there
    CHECK(list.item(0)->text() == "Recent job: doyen-commands-job");
    box.findChild<QLineEdit*>()->clear();
    QTest::keyClicks(box.findChild<QLineEdit*>(), "bit: 60");
    CHECK(list.count() >= 1);
    box.findChild<QLineEdit*>()->clear();
    QTest::keyClicks(box.findChild<QLineEdit*>(), "guide: inlays");
    CHECK(list.count() == 1);
  });
  QSettings().remove("recent");
  QFile::remove(file);
}

TEST_CASE("the guide opens by F1, is searched, and every link and picture in it is there") {
  Window w;
  QTest::keyClick(&w.window, Qt::Key_F1);
  auto* guide = w.window.findChild<Guide*>();
  REQUIRE(guide != nullptr);
  CHECK(guide->isVisible());
  auto* page = guide->findChild<GuidePage*>();
  auto* words = guide->findChild<QLineEdit*>("guideWords");
  auto* pages = guide->findChild<QListWidget*>("guidePages");
  QTest::keyClicks(words, "saw gap");
  const int gaps = pages->count();
  words->clear();
  QTest::keyClicks(words, "test ladder");
  REQUIRE(pages->count() >= 1);
  pages->setCurrentRow(0);
  CHECK(page->toPlainText().contains("test ladder", Qt::CaseInsensitive));
  words->clear();
  QTest::keyClicks(words, "qwxz");
  CHECK(pages->count() == 1);
  CHECK((pages->item(0)->flags() & Qt::ItemIsEnabled) == 0);
  CHECK(gaps >= 1);
  // Whatever a page names is there: pages, and pictures that are shown.
  int links = 0, pictures = 0;
  for (const Guide::Found& each : Guide::search({})) {
    INFO(each.page.toStdString());
    CHECK_FALSE(each.title.isEmpty());
    page->open(each.page);
    QRegularExpression link("\\]\\(([^)]+)\\)");
    for (auto it = link.globalMatch(page->toMarkdown()); it.hasNext();) {
      const QString target = it.next().captured(1).section(QLatin1Char(' '), 0, 0);
      INFO(target.toStdString());
      if (target.endsWith(".md")) {
        ++links;
        CHECK_FALSE(Guide::search({}).isEmpty());
        page->open(target);
        CHECK_FALSE(page->toPlainText().contains("not installed"));
        page->open(each.page);
      } else {
        ++pictures;
        CHECK_FALSE(page->document()->resource(QTextDocument::ImageResource, QUrl(target)).value<QImage>().isNull());
      }
    }
  }
  CHECK(links >= 12);
  CHECK(pictures >= 6);
  guide->close();
}

TEST_CASE("every verdict has a page that says why, and its button and a sum's link open it") {
  // Every code that any check of the sources gives, and every fault of the judge.
  const QString core = QFileInfo(QString::fromStdString(data_file("guide/why.json"))).path() + "/../../core";
  REQUIRE(QFileInfo::exists(core));
  QSet<QString> codes{"gouge", "missed", "bite", "plunges-fast", "rub", "cuts-air", "rapid-in-wood"};
  const QRegularExpression given("Grade::\\w+,\\s*(?:\\w+ \\? )?\"([a-z0-9-]+)\"(?: : \"([a-z0-9-]+)\")?");
  for (QDirIterator each(core, {"*.cpp"}, QDir::Files, QDirIterator::Subdirectories); each.hasNext();) {
    QFile file(each.next());
    REQUIRE(file.open(QIODevice::ReadOnly));
    for (auto it = given.globalMatch(QString::fromUtf8(file.readAll())); it.hasNext();) {
      const auto found = it.next();
      codes << found.captured(1);
      if (!found.captured(2).isEmpty()) codes << found.captured(2);
    }
  }
  CHECK(codes.size() > 80);
  for (const QString& code : codes) {
    INFO(code.toStdString());
    CHECK(why_page(code.toStdString()) != "warnings.md");
  }
  Window w;
  w.choose(Stage::Proof, "");
  w.judge();
  QTest::qWait(50);
  REQUIRE(w.plan().verdicts.front().code == "floor-by-v-alone");
  auto* why = w.find<QToolButton>("whyVerdict");
  REQUIRE(why->isVisible());
  QTest::mouseClick(why, Qt::LeftButton);
  auto* guide = w.window.findChild<Guide*>();
  REQUIRE(guide != nullptr);
  CHECK(guide->findChild<GuidePage*>()->page() == "why-depth.md");
  // A sum's link, followed as the desktop follows it.
  for (NumberCard* card : w.window.findChildren<NumberCard*>()) {
    if (!card->isVisible() || card->number().isEmpty()) continue;
    card->set_open(true);
    QElapsedTimer clock;
    for (clock.start(); card->waiting() && clock.elapsed() < 10'000;) QTest::qWait(10);
    if (card->sum_text().contains("doyen-guide:why-time.md")) {
      CHECK(QDesktopServices::openUrl(QUrl(guide_link("why-time.md"))));
      CHECK(guide->findChild<GuidePage*>()->page() == "why-time.md");
      guide->close();
      return;
    }
  }
  FAIL("no sum has a link");
}
