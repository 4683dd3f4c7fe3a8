// What can be seen, and what is told to who cannot see it. Contrast by the formula of the Web Content Accessibility
// Guidelines 2.1 (relative luminance, 1.4.3 and 1.4.11): text at least 4.5 to 1, lines and marks at least 3 to 1.
#include <QAccessible>
#include <QTableWidget>

#include "contrast.hpp"
#include "parts/theme.hpp"
#include "stock/species.hpp"
#include "window_probe.hpp"

using namespace probe;

TEST_CASE("the formula gives the published contrasts") {  // WCAG 2.1: black on white 21, #777 on white 4.48
  CHECK(contrast(Qt::black, Qt::white) == Approx(21));
  CHECK(contrast(QColor(0x77, 0x77, 0x77), Qt::white) == Approx(4.48).margin(0.01));
}

TEST_CASE("every text stands out from its ground, every mark from every wood") {
  const QColor grounds[] = {theme::kLinen,     theme::kChalk,     Qt::white,
                            QColor("#ECE7EF"), QColor("#F2EEF4"), QColor("#FBF3E6")};
  for (const QColor& ground : grounds) {
    INFO(ground.name().toStdString());
    CHECK(contrast(theme::kInk, ground) >= 4.5);
    CHECK(contrast(theme::kPlum, ground) >= 4.5);
    CHECK(contrast(theme::kBrick, ground) >= 4.5);
  }
  for (const QColor& ground : {theme::kLinen, theme::kChalk, QColor(Qt::white)})
    CHECK(contrast(theme::kFaded, ground) >= 4.5);
  CHECK(contrast(Qt::white, theme::kPlum) >= 4.5);  // the main button
  // Lamps, by their colour; they differ by shape, too.
  for (const QColor& lamp : {theme::kFern, theme::kStone, theme::kAmber, theme::kBrick}) {
    INFO(lamp.name().toStdString());
    CHECK(contrast(lamp, theme::kChalk) >= 3);
  }
  // The edge and the line of a mark differ from each other, and one of them from the wood, whichever wood it is.
  CHECK(contrast(theme::kMark, theme::kMarkEdge) >= 3);
  for (const Species& s : species_table().species) {
    for (const Colour& c : {s.light, s.dark}) {
      const QColor wood =
          QColor::fromRgbF(static_cast<float>(c.red), static_cast<float>(c.green), static_cast<float>(c.blue));
      INFO(s.name << " " << wood.name().toStdString());
      CHECK(std::max(contrast(theme::kMark, wood), contrast(theme::kMarkEdge, wood)) >= 3);
    }
  }
}

TEST_CASE("chosen rows can be read in every list and table") {
  Window w;
  // The palette and the style sheet both have a say: what is painted counts.
  QTableWidget table(3, 2);
  for (int r = 0; r < 3; ++r) {
    for (int c = 0; c < 2; ++c) table.setItem(r, c, new QTableWidgetItem("MMMMMMMMMMMM"));
  }
  table.selectAll();
  table.resize(420, 160);
  table.show();
  QTest::qWait(50);
  const QImage picture = table.viewport()->grab().toImage();
  const QRect cell = table.visualItemRect(table.item(1, 0)).adjusted(3, 3, -3, -3);
  double most = 0;
  const QColor ground = picture.pixelColor(cell.right() - 1, cell.top() + 1);
  for (int y = cell.top(); y < cell.bottom(); ++y) {
    for (int x = cell.left(); x < cell.right(); ++x) most = std::max(most, contrast(ground, picture.pixelColor(x, y)));
  }
  CHECK(most >= 4.5);
}

TEST_CASE("what cannot be done now can be read all the same") {
  for (const char* role : {"", "main", "remedy"}) {
    QWidget page;
    page.setStyleSheet("background: " + theme::kChalk.name());
    QPushButton button("MMMMMMMM", &page);
    if (*role != 0) button.setProperty("role", QString::fromLatin1(role));
    button.setEnabled(false);
    button.resize(160, 40);
    page.resize(200, 60);
    page.show();
    QTest::qWait(30);
    const QImage picture = page.grab().toImage();
    const QColor ground = picture.pixelColor(12, 20);
    double most = 0;
    for (int y = 8; y < 32; ++y) {
      for (int x = 12; x < 148; ++x) most = std::max(most, contrast(ground, picture.pixelColor(x, y)));
    }
    INFO("role " << role << ", on " << ground.name().toStdString());
    CHECK(most >= 4.5);
  }
}

// Through Qt's accessibility interface, as a screen reader asks.
TEST_CASE("the drawn widgets have names, and tell their values") {
  Window w;
  const auto told = [](QWidget* widget) {
    QAccessibleInterface* spoken = QAccessible::queryAccessibleInterface(widget);
    REQUIRE(spoken != nullptr);
    CHECK_FALSE(spoken->text(QAccessible::Name).isEmpty());
    return spoken->text(QAccessible::Description).toStdString();
  };
  w.choose(Stage::Artwork, "sprig");
  CHECK_THAT(told(&w.window.bench()), Catch::Contains("Sprig") && Catch::Contains("from the left"));
  const std::string before = told(&w.window.bench());
  QTest::keyClick(&w.window.bench(), Qt::Key_Right);
  CHECK(told(&w.window.bench()) != before);
  w.window.select({});
  CHECK(told(&w.window.bench()) == "nothing is chosen");
  CHECK_THAT(told(&w.window.rail()), Catch::Contains("Artwork: 6 pieces"));
  w.settle();
  const std::string section = told(&w.window.strip());
  QTest::keyClick(&w.window.bench(), Qt::Key_PageUp);
  CHECK(told(&w.window.strip()) != section);
  CHECK_THAT(told(&w.window.strip()), Catch::Contains(" in from the front edge"));
  CHECK_THAT(told(w.window.findChild<TimeBeam*>()),
             Catch::Contains("min") && Catch::Contains("60° V") && Catch::Contains("likely"));
}
