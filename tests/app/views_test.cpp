// What the views look like: no text cut off, contrast, and each picture of them that can be taken.
#include <QTemporaryDir>

#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "shell/shots.hpp"
#include "window_probe.hpp"

using namespace probe;

TEST_CASE("no text is cut off in any ticket at 1280 by 800, in either unit") {
  Window w;
  QTemporaryDir folder;
  w.window.write_files(folder.filePath("a-folder-with-a-rather-long-name-for-the-files-of-the-gate-sign"));
  const auto look = [&](Stage stage, const char* piece) {
    w.choose(stage, piece);
    w.window.open_sums();
    QTest::qWait(30);
    CHECK(QTest::qWaitFor([&] { return w.window.sums_shown(); }));
    QTest::qWait(30);
    QScrollArea* ticket = w.ticket();
    REQUIRE(ticket != nullptr);
    INFO("stage " << static_cast<int>(stage) << ", piece " << piece);
    CHECK(ticket->widget()->width() <= ticket->viewport()->width());
    for (QLabel* label : ticket->findChildren<QLabel*>()) {
      if (!label->isVisible() || label->text().isEmpty()) continue;
      INFO(label->text().toStdString());
      CHECK(label->width() >= (label->wordWrap() ? label->minimumSizeHint().width() : label->sizeHint().width()));
      CHECK(label->height() >= label->heightForWidth(label->width()));
    }
    for (QAbstractButton* b : ticket->findChildren<QAbstractButton*>()) {
      if (!b->isVisible()) continue;
      INFO(b->text().toStdString());
      CHECK(b->width() >= b->sizeHint().width());
    }
  };
  const auto in_both_units = [&](const std::vector<const char*>& pieces) {
    for (const Unit unit : {Unit::Inch, Unit::Millimetre}) {
      w.window.document().edit("unit", [&](Job& job) { job.lengths.unit = unit; });
      w.settle();
      for (const Stage stage : {Stage::Blank, Stage::Artwork, Stage::Cuts, Stage::Proof, Stage::Run}) {
        for (const char* piece : pieces) {
          look(stage, piece);
          if (stage != Stage::Proof || !w.window.fit().active()) continue;
          for (int i = 0; i < 4000 && (w.window.fit().busy() || w.window.fit().ways().empty()); ++i) QTest::qWait(20);
          look(stage, piece);
        }
      }
    }
  };
  in_both_units({"", "name", "outline", "sprig", "border"});
  w.window.open_demo("test-ladder");  // inlays: the fit with everything that it says
  w.settle();
  in_both_units({"rung-2"});
}

TEST_CASE("each picture of a view can be taken by name, another name is refused") {
  Window w;
  QTemporaryDir folder;
  QString problem;
  for (const QString& name : shot_names()) {
    const QString file = folder.filePath(name + ".png");
    INFO(name.toStdString());
    REQUIRE(take_shot(w.window, name, file, &problem));
    CHECK(QImage(file).width() >= 500);
  }
  CHECK_FALSE(take_shot(w.window, "garden", folder.filePath("x.png"), &problem));
  CHECK(problem.contains("cuts"));
}
