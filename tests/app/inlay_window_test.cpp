// Inlays from the window: both halves by one decision, the figures' sum, the proof, and the files of two boards.
#include <QComboBox>
#include <QTemporaryDir>
#include <QToolButton>

#include "window_probe.hpp"

using namespace probe;

TEST_CASE("a sprig is inlaid: figures, proof, remedies and the files of both boards") {
  Window w;
  w.window.document().edit("test", [](Job& job) {
    for (Item& item : job.items) item.cut.kind = Treatment::Kind::None;
  });
  w.choose(Stage::Cuts, "sprig");
  QTest::mouseClick(w.find<QToolButton>("look-inlay"), Qt::LeftButton);
  w.settle();
  const auto cut = [&]() -> const Treatment& { return w.job().find("sprig")->cut; };
  CHECK(cut().kind == Treatment::Kind::Inlay);
  CHECK(cut().depth == Approx(5));
  CHECK_FALSE(w.find<QLineEdit>("allowance")->isVisible());
  w.type("contact", QStringLiteral("5.5 mm"));  // deeper than the pocket
  w.settle();
  const Verdict* bottoms = nullptr;
  for (const Verdict& v : w.plan().verdicts) {
    if (v.code == "plug-bottoms-out") bottoms = &v;
  }
  REQUIRE(bottoms != nullptr);
  CHECK(bottoms->grade == Grade::Stop);
  QTest::keyClick(&w.window, Qt::Key_F4);  // the first remedy
  w.settle();
  CHECK(cut().inlay.contact == Approx(3.8));
  auto* prove = w.find<QPushButton>("proveFit");
  QTest::mouseClick(prove, Qt::LeftButton);
  auto* section = w.window.findChild<InlaySection*>();
  for (int i = 0; i < 600 && section->busy(); ++i) QTest::qWait(50);
  const std::string found = w.find<QLabel>("fitFound")->text().toStdString();
  CHECK_THAT(found, Catch::Contains("The flanks close"));
  CHECK_THAT(found, Catch::Contains("saw gap") && Catch::Contains("No open line"));
  CHECK(w.find<QLabel>("fitFace")->isVisible());
  const QPixmap levelled = w.find<QLabel>("fitFace")->pixmap();
  auto* sanded = w.find<QComboBox>("sanded");
  sanded->setCurrentIndex(3);
  Q_EMIT sanded->activated(3);
  CHECK_FALSE(w.find<QLabel>("fitFace")->pixmap().toImage() == levelled.toImage());
  QTemporaryDir folder;
  w.window.write_files(folder.path());
  CHECK(QFile::exists(folder.filePath(QStringLiteral("plan.json"))));
  CHECK(QFile::exists(folder.filePath(QStringLiteral("plugs-sugar-maple/runsheet.pdf"))));
  CHECK(QFile::exists(folder.filePath(QStringLiteral("plugs-sugar-maple/plugs.doyen"))));
  // An edit makes the proof stale, and it is taken away.
  w.type("sawGap", QStringLiteral("2 mm"));
  w.settle();
  CHECK(w.find<QLabel>("fitFound")->text().isEmpty());
  QTest::mouseClick(w.find<QPushButton>("proveFit"), Qt::LeftButton);
  for (int i = 0; i < 600 && section->busy(); ++i) QTest::qWait(50);
  CHECK_THAT(w.find<QLabel>("fitFound")->text().toStdString(), Catch::Contains("saw gap"));
}
