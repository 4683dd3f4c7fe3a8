// What the views look like: no text cut off, contrast, and each picture of them that can be taken.
#include <QProcess>
#include <QTemporaryDir>

#include "clipped.hpp"
#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "shell/greeting.hpp"
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
    wait_until_laid_out(ticket);
    INFO("stage " << static_cast<int>(stage) << ", piece " << piece);
    CHECK(ticket->widget()->width() <= ticket->viewport()->width());
    for (QLabel* label : ticket->findChildren<QLabel*>()) {
      if (!label->isVisible() || label->text().isEmpty()) continue;
      INFO(label->text().toStdString());
      CHECK(label->width() >= (label->wordWrap() ? label->minimumSizeHint().width() : label->sizeHint().width()));
      CHECK(whole(label));
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

// A ticket whose rows ask for more width than it has squeezes them, and cuts their words off.
TEST_CASE("no row of any ticket is wider or higher than its place, in any demo") {
  Window w;
  for (const Demo& demo : demos()) {
    w.window.open_demo(demo.name);
    w.settle();
    std::vector<std::string> ids{""};
    for (const Item& item : w.job().items) ids.push_back(item.piece.id);
    for (Fold* fold : w.window.findChildren<Fold*>()) fold->set_open(true);
    for (const Stage stage : {Stage::Blank, Stage::Artwork, Stage::Cuts, Stage::Proof, Stage::Run}) {
      const bool of_pieces = stage == Stage::Artwork || stage == Stage::Cuts;
      for (std::size_t i = 0; i < (of_pieces ? ids.size() : 1); ++i) {
        w.choose(stage, ids[i].c_str());
        QScrollArea* ticket = w.ticket();
        INFO(demo.name.toStdString() << ", stage " << static_cast<int>(stage) << ", piece “" << ids[i] << "”");
        CHECK(clipped(ticket).empty());
      }
    }
  }
}

TEST_CASE("each picture of a view can be taken by name, another name is refused") {
  Window w;
  QTemporaryDir folder;
  QString problem;
  const auto take = [&](const QString& name) {
    const QString file = folder.filePath(name + ".png");
    INFO(name.toStdString());
    REQUIRE(take_shot(w.window, name, file, &problem));
    CHECK(QImage(file).width() >= 500);
  };
  for (const QString& name : shot_names()) take(name);
  const FinePictures fine;  // and as they are drawn outside of tests
  take("cuts");
  CHECK_FALSE(take_shot(w.window, "garden", folder.filePath("x.png"), &problem));
  CHECK(problem.contains("cuts"));
}

TEST_CASE("at each size of window nothing is clipped, nothing lies outside", "[.][scaled]") {
  Window w;
  for (Fold* fold : w.window.findChildren<Fold*>()) fold->set_open(true);
  for (const QSize size : {QSize(1080, 680), QSize(1280, 800), QSize(1920, 1080), QSize(3840, 2160)}) {
    if (size.width() > 2000 && w.window.devicePixelRatioF() > 1) continue;  // such a screen has no more points
    w.window.resize(size);
    w.settle();
    CHECK(w.window.size() == size);
    for (const Stage stage : {Stage::Blank, Stage::Artwork, Stage::Cuts, Stage::Proof, Stage::Run}) {
      for (const char* piece : {"name", "outline"}) {
        if (size.width() > 2000 && (stage != Stage::Cuts || piece != std::string("name"))) continue;
        w.choose(stage, piece);
        INFO(size.width() << " wide, stage " << static_cast<int>(stage) << ", piece " << piece);
        CHECK(clipped(w.ticket()) == "");
        // What is fixed in the window lies wholly inside it.
        for (const char* name : {"write", "placeBar"}) {
          const auto* widget = w.window.findChild<QWidget*>(name);
          REQUIRE(widget != nullptr);
          if (!widget->isVisible()) continue;
          INFO(name);
          CHECK(w.window.rect().contains(QRect(widget->mapTo(&w.window, QPoint()), widget->size())));
        }
      }
    }
  }
}

TEST_CASE("nothing is clipped at scales of one, one and a half and two") {
  for (const char* scale : {"1", "1.5", "2"}) {
    QProcess again;
    QProcessEnvironment where = QProcessEnvironment::systemEnvironment();
    where.insert("QT_SCALE_FACTOR", scale);
    again.setProcessEnvironment(where);
    again.start(QCoreApplication::applicationFilePath(), {"[scaled]"});
    REQUIRE(again.waitForFinished(240'000));
    INFO("scale " << scale << ": " << again.readAllStandardOutput().toStdString());
    CHECK(again.exitCode() == 0);
  }
}
