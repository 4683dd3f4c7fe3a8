// What the views look like: no text cut off, contrast, and each picture of them that can be taken.
#include <QTemporaryDir>
#include <cmath>

#include "parts/cards.hpp"
#include "parts/theme.hpp"
#include "shell/shots.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

// Relative luminance and contrast of WCAG 2.1, 1.4.3.
double luminance(const QColor& c) {
  const auto part = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
  return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
}
double contrast(const QColor& a, const QColor& b) {
  const double la = luminance(a), lb = luminance(b);
  return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

}  // namespace

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

TEST_CASE("colours of text keep a contrast of 4.5 to 1") {  // published: WCAG 2.1, 1.4.3
  for (const QColor& ground : {theme::kChalk, theme::kLinen, QColor(Qt::white)}) {
    CHECK(contrast(theme::kInk, ground) >= 4.5);
    CHECK(contrast(theme::kFaded, ground) >= 4.5);
    CHECK(contrast(theme::kPlum, ground) >= 4.5);
    CHECK(contrast(theme::kBrick, ground) >= 4.5);
  }
  CHECK(contrast(Qt::white, theme::kPlum) >= 4.5);
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
