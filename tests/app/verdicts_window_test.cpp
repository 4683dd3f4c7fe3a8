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

TEST_CASE("of many verdicts those of one piece can be looked at alone, until it has none any more") {
  Window w;
  w.window.document().edit(QStringLiteral("past the edge"), [](Job& job) {
    for (const char* id : {"name", "sprig", "border"}) job.find(id)->piece.at.x += 560;
  });
  w.judge();
  w.choose(Stage::Proof, "");
  QTest::qWait(30);
  const auto of = [&](const std::string& piece) {
    const auto& all = w.window.judged()->verdicts;
    return std::count_if(all.begin(), all.end(), [&](const Verdict& v) { return v.piece == piece; });
  };
  const auto cards = [&] {
    QTest::qWait(40);
    return static_cast<std::ptrdiff_t>(w.ticket()->findChildren<VerdictCard*>().size());
  };
  const auto all = static_cast<std::ptrdiff_t>(w.window.judged()->verdicts.size());
  REQUIRE(all >= 5);
  CHECK(cards() == all);
  auto* box = w.find<QComboBox>("verdictsOf");
  const int rows = box->count();
  REQUIRE(rows >= 4);
  int stages = 0;
  for (int row = 1; row < rows; ++row) {
    box = w.find<QComboBox>("verdictsOf");
    const QVariant data = box->itemData(row);
    const std::string id = data.toString().toStdString();
    INFO(box->itemText(row).toStdString());
    box->setCurrentIndex(row);
    Q_EMIT box->activated(row);
    if (data.typeId() == QMetaType::Int) {  // those of one stage: its line says how many
      ++stages;
      CHECK(box->itemText(row).contains(QStringLiteral("(%1)").arg(cards())));
      CHECK(cards() < all);
    } else {
      CHECK(cards() == of(id));
    }
    CHECK(w.find<QComboBox>("verdictsOf")->currentIndex() == row);
  }
  CHECK(stages >= 1);
  // Its own were mended: all are shown again.
  box = w.find<QComboBox>("verdictsOf");
  const int row = box->findData("sprig");
  REQUIRE(row > 0);
  box->setCurrentIndex(row);
  Q_EMIT box->activated(row);
  QTest::qWait(40);
  w.window.document().edit(QStringLiteral("back"), [](Job& job) { job.find("sprig")->piece.at.x -= 560; });
  w.judge();
  REQUIRE(of("sprig") == 0);
  CHECK(cards() == static_cast<std::ptrdiff_t>(w.window.judged()->verdicts.size()));
}
