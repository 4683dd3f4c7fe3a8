// The list of verdicts in the real window: folded by kind, accepted with a reason, taken back.
#include <QLabel>
#include <QTemporaryDir>
#include <QTimer>

#include "parts/accept_dialog.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

// Answers the dialog that the next click opens.
void answer(const QString& reason, bool take) {
  QTimer::singleShot(0, [reason, take] {
    auto* dialog = qobject_cast<AcceptDialog*>(QApplication::activeModalWidget());
    REQUIRE(dialog != nullptr);
    auto* it = dialog->findChild<QPushButton*>(QStringLiteral("acceptIt"));
    CHECK_FALSE(it->isEnabled());  // not without a reason
    QTest::keyClicks(dialog->findChild<QLineEdit*>(QStringLiteral("acceptReason")), reason);
    if (!take) return QTest::keyClick(dialog, Qt::Key_Escape);
    CHECK(it->isEnabled());
    QTest::mouseClick(it, Qt::LeftButton);
  });
}

}  // namespace

TEST_CASE("many verdicts of one kind are one with so many places") {
  Window w;
  w.window.open_demo(QStringLiteral("dibber-board"));
  w.window.document().edit(QStringLiteral("round"), [](Job& job) {
    job.find("holes")->cut.pierce.slug = true;
    job.find("holes")->cut.through.tabs.wanted = true;
  });
  w.judge();
  w.window.go_to_stage(Stage::Proof);
  QTest::qWait(50);
  int of_kind = 0;
  for (const Verdict& v : w.window.judged()->verdicts) of_kind += v.code == "comes-free" ? 1 : 0;
  REQUIRE(of_kind == 48);
  const QList<Fold*> folds = w.ticket()->findChildren<Fold*>(QStringLiteral("moreLikeIt"));
  REQUIRE(folds.size() == 1);
  CHECK(folds.first()->findChild<QToolButton*>()->text().startsWith(QStringLiteral("47 more")));
  int seen = 0;
  for (VerdictCard* card : w.ticket()->findChildren<VerdictCard*>()) seen += card->isVisible() ? 1 : 0;
  CHECK(seen < 8);
  folds.first()->set_open(true);
  QTest::qWait(50);
  seen = 0;
  for (VerdictCard* card : w.ticket()->findChildren<VerdictCard*>()) seen += card->isVisible() ? 1 : 0;
  CHECK(seen >= 48);
}

TEST_CASE(
    "a stop is accepted once, in full words, with a reason; then files can be written, and it can be taken back") {
  Window w;
  w.window.document().edit(QStringLiteral("no tabs"),
                           [](Job& job) { job.find("outline")->cut.through.tabs.wanted = false; });
  w.judge();
  w.choose(Stage::Proof, "outline");
  w.window.go_to_stage(Stage::Proof);
  QTest::qWait(30);
  REQUIRE(w.plan().has_stop());
  const auto accept_button = [&] {
    for (auto* button : w.ticket()->findChildren<QToolButton*>(QStringLiteral("acceptVerdict"))) {
      if (button->isVisible()) return button;
    }
    return static_cast<QToolButton*>(nullptr);
  };
  REQUIRE(accept_button() != nullptr);
  answer(QStringLiteral("no"), false);
  QTest::mouseClick(accept_button(), Qt::LeftButton);
  CHECK(w.job().run.accepted.empty());
  answer(QStringLiteral("taped to the bed"), true);
  QTest::mouseClick(accept_button(), Qt::LeftButton);
  REQUIRE(w.job().run.accepted.size() == 1);
  w.judge();
  CHECK_FALSE(w.plan().has_stop());
  QTemporaryDir folder;
  const QString said = w.window.write_files(folder.path());
  INFO(said.toStdString());
  CHECK(QFile::exists(folder.filePath(QStringLiteral("plan.json"))));
  QFile sheet(folder.filePath(QStringLiteral("plan.json")));
  REQUIRE(sheet.open(QIODevice::ReadOnly));
  CHECK(sheet.readAll().contains("taped to the bed"));
  QTest::qWait(30);
  w.window.go_to_stage(Stage::Proof);
  QTest::qWait(30);
  auto* back = w.find<QToolButton>("takeBack");
  QTest::mouseClick(back, Qt::LeftButton);
  w.judge();
  CHECK(w.plan().has_stop());
}
