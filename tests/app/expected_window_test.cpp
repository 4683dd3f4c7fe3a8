// While a board is being planned the bench shows what it is going to be: at once, then sharp; and the plan's own
// picture after that, never coarser.
#include <QEventLoop>

#include "window_probe.hpp"

using namespace probe;

namespace {

// How different two pictures of the same board are, in levels of grey, on the average.
double difference(const QImage& a, const QImage& b) {
  const QSize size(200, 80);
  const QImage one = a.scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation),
               two = b.scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
  double sum = 0;
  for (int y = 0; y < size.height(); ++y) {
    for (int x = 0; x < size.width(); ++x) sum += std::abs(qGray(one.pixel(x, y)) - qGray(two.pixel(x, y)));
  }
  return sum / (size.width() * size.height());
}

void lower_the_word(MainWindow& window, double mm) {
  window.document().edit(QStringLiteral("lower the word"), [mm](Job& job) {
    for (Item& item : job.items) {
      if (item.piece.id == "name") item.piece.at.y -= mm;
    }
  });
}

}  // namespace

TEST_CASE("a raised word that is moved is seen at its new place before its ground is planned anew") {
  Window w;
  w.window.document().undo_stack().setClean();
  w.window.open_demo(QStringLiteral("gate-sign-raised"));
  w.settle();
  const QImage before = w.window.bench().picture();
  const qint64 shown = before.cacheKey();
  lower_the_word(w.window, 12);
  WAIT_UNTIL(w.window.bench().picture().cacheKey() != shown, 20'000);
  CHECK_FALSE(w.plan().job == w.job());
  CHECK_FALSE(w.window.bench().picture_is_fine());
  const QImage expected = w.window.bench().picture();
  w.settle();
  CHECK(w.plan().job == w.job());
  const QImage after = w.window.bench().picture();
  CHECK(difference(expected, after) < 0.4 * difference(before, after));
}

TEST_CASE("once a picture is sharp, the plan's does not take it back") {
  const FinePictures fine;
  Window w;
  w.window.document().undo_stack().setClean();
  w.window.open_demo(QStringLiteral("gate-sign-raised"));
  w.settle();
  WAIT_UNTIL(w.window.bench().picture_is_fine(), 20'000);
  const int sharp = w.window.bench().picture().width();
  std::vector<int> widths;
  QObject::connect(&w.window.bench(), &Bench::picture_changed, &w.window,
                   [&] { widths.push_back(w.window.bench().picture().width()); });
  lower_the_word(w.window, 9);
  WAIT_UNTIL(w.plan().job == w.job() && w.window.bench().picture_is_fine(), 60'000);
  REQUIRE(widths.size() >= 2);
  CHECK(widths.front() < sharp);
  CHECK(widths.back() == sharp);
  const auto first_sharp = std::find(widths.begin(), widths.end(), sharp);
  CHECK(std::all_of(first_sharp, widths.end(), [&](int width) { return width == sharp; }));
}
