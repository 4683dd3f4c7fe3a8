// Tickets and the bar at the frame: what is decided first is on top, what is folded is found again as it was left, and
// what a row promises is what happens when it is taken.
#include <QDoubleSpinBox>
#include <QFile>
#include <QMenu>
#include <QSettings>

#include "log/log_book.hpp"
#include "machine/timings.hpp"
#include "measure/length.hpp"
#include "rack/own_rack.hpp"
#include "stages/artwork/place_bar.hpp"
#include "stages/cuts/bit_box.hpp"
#include "stages/cuts/bit_rows.hpp"
#include "storage/atomic_file.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

bool on_screen(Window& w, QWidget* widget) {
  QScrollArea* ticket = w.ticket();
  return widget->isVisible() &&
         ticket->viewport()->rect().contains(QRect(widget->mapTo(ticket->viewport(), QPoint()), widget->size()));
}

PlaceBar* bar(Window& w) { return w.find<PlaceBar>("placeBar"); }

void type_into(QLineEdit* field, const QString& words) {
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, words);
  QTest::keyClick(field, Qt::Key_Return);
}

}  // namespace

TEST_CASE("a fold is opened by key or mouse, says what is set in it, and is found as it was left") {
  QSettings().remove(QStringLiteral("folds"));
  {
    Window w;
    w.choose(Stage::Cuts, "outline");
    auto* head = w.find<QToolButton>("movesOpen");
    auto* inside = w.find<QComboBox>("keptWood");
    CHECK_FALSE(inside->isVisible());
    CHECK_THAT(head->accessibleDescription().toStdString(), Catch::Contains("kept wood"));
    head->setFocus(Qt::TabFocusReason);
    QTest::keyClick(head, Qt::Key_Space);
    CHECK(inside->isVisible());
    w.pick("keptWood", 1);
    CHECK_THAT(head->accessibleDescription().toStdString(), Catch::Contains("left"));
  }
  {
    Window again;
    again.choose(Stage::Cuts, "outline");
    CHECK(again.find<QComboBox>("keptWood")->isVisible());
    auto* head = again.find<QToolButton>("movesOpen");
    QTest::mouseClick(head, Qt::LeftButton);
    CHECK_FALSE(again.find<QComboBox>("keptWood")->isVisible());
  }
  QSettings().remove(QStringLiteral("folds"));
}

TEST_CASE("at 1280 by 800 what most jobs need of a ticket is seen without scrolling") {
  QSettings().remove(QStringLiteral("folds"));
  Window w;
  REQUIRE(w.window.size() == QSize(1280, 800));
  w.choose(Stage::Artwork, "name");
  for (const char* name : {"words", "family", "cap", "letterBench", "layItOut"})
    CHECK(on_screen(w, w.find<QWidget>(name)));
  CHECK(on_screen(w, w.find<QToolButton>("letteringMore")));
  CHECK(bar(w)->isVisible());
  w.choose(Stage::Cuts, "name");
  for (const char* name : {"vBit", "limit", "bitsOpen"}) CHECK(on_screen(w, w.find<QWidget>(name)));
  w.choose(Stage::Cuts, "outline");
  for (const char* name : {"bevelledEdge", "tabCount"}) CHECK(on_screen(w, w.find<QWidget>(name)));
}

TEST_CASE("an engraving cone is offered for a floor whose walls slope, and ticking it clears with it") {
  Window w;
  w.window.document().edit("a plate alone", [](Job& job) {
    job.items.clear();
    job.blank.species = "brass";
    job.blank.readings = {3};
    Item disc{{"disc", "Disc", PlainShape{PlainShape::Kind::Ellipse, 10, 10}, {200, 110}, 0}, {}};
    disc.cut.kind = Treatment::Kind::Raise;
    disc.cut.bit = "engrave20";
    disc.cut.depth = 0.3;
    disc.cut.margin = 3;
    job.items.push_back(disc);
  });
  w.settle();
  w.choose(Stage::Cuts, "disc");
  const auto cone = [&]() -> QCheckBox* {
    for (BitRows* rows : w.window.findChildren<BitRows*>()) {
      for (QCheckBox* box : rows->findChildren<QCheckBox*>()) {
        if (box->property("bit") == "engrave20-0.5mm" && box->isVisible()) return box;
      }
    }
    return nullptr;
  };
  for (Fold* fold : w.window.findChildren<Fold*>()) {
    if (fold->isVisible() && fold->findChild<BitRows*>() != nullptr) fold->set_open(true);
  }
  REQUIRE(cone() != nullptr);
  QTest::mouseClick(cone(), Qt::LeftButton, {}, QPoint(8, cone()->height() / 2));
  w.settle();
  CHECK(w.plan().piece("disc")->cuts.bits == std::vector<BitId>{"engrave20-0.5mm"});
  // Upright walls it would slope: what is ticked stays seen, so that it can be left out, and then it is gone.
  w.window.document().edit("upright", [](Job& job) { job.items.front().cut.raise.sloped = false; });
  w.settle();
  REQUIRE(cone() != nullptr);
  CHECK(w.plan().piece("disc")->cuts.bits != std::vector<BitId>{"engrave20-0.5mm"});
  QTest::mouseClick(cone(), Qt::LeftButton, {}, QPoint(8, cone()->height() / 2));
  w.settle();
  CHECK(cone() == nullptr);
  QSettings().remove(QStringLiteral("folds"));
}

TEST_CASE("a row of bits says what it would do, and that is what happens when it alone is ticked") {
  Window w;
  w.window.document().edit("a tray alone", [](Job& job) {
    job.items.clear();
    Item tray{{"tray", "Tray", PlainShape{PlainShape::Kind::Star, 120, 120}, {200, 110}, 0}, {}};
    tray.cut.kind = Treatment::Kind::Recess;
    tray.cut.depth = 5;
    job.items.push_back(tray);
  });
  w.settle();
  w.choose(Stage::Cuts, "tray");
  for (Fold* fold : w.window.findChildren<Fold*>()) {  // each look's section has one; the one that is seen
    if (fold->isVisible() && fold->findChild<BitRows*>() != nullptr) fold->set_open(true);
  }
  BitRows* rows = nullptr;
  for (BitRows* each : w.window.findChildren<BitRows*>()) {
    if (each->isVisible()) rows = each;
  }
  REQUIRE(rows != nullptr);
  const auto said = [&](QCheckBox* box) { return box->accessibleDescription(); };
  REQUIRE(QTest::qWaitFor(
      [&] {
        const QList<QCheckBox*> boxes = rows->findChildren<QCheckBox*>();
        return !rows->waiting() &&
               std::any_of(boxes.begin(), boxes.end(), [&](QCheckBox* b) { return !said(b).isEmpty(); });
      },
      60'000));
  int tried = 0;
  for (QCheckBox* box : rows->findChildren<QCheckBox*>()) {
    const QString promise = said(box);
    if (promise.isEmpty()) continue;
    INFO(box->text().toStdString() << ": " << promise.toStdString());
    QTest::mouseClick(box, Qt::LeftButton, {}, QPoint(8, box->height() / 2));
    w.settle();
    REQUIRE(box->isChecked());
    const PiecePlan& piece = *w.plan().piece("tray");
    REQUIRE(piece.cuts.bits == std::vector<BitId>{box->property("bit").toString().toStdString()});
    const double left = piece.cuts.unreached.area;
    if (left < 0.005)
      CHECK(promise.contains("reaches all"));
    else
      CHECK(promise.contains(QString::fromStdString(format_area(left, w.job().lengths))));
    // The whole run has the travel to it as well.
    REQUIRE(w.plan().runs.size() == 1);
    const QString time = promise.section(QLatin1Char(','), 0, 0);
    CHECK(said(box) == promise);  // ticking changes nothing of what it would do
    const double seconds = w.plan().runs[0].time.seconds;
    bool near = false;
    for (double s = seconds - 8; s <= seconds + 0.5; s += 0.1)
      near = near || QString::fromStdString(format_duration(s)) == time;
    CHECK(near);
    QTest::mouseClick(box, Qt::LeftButton, {}, QPoint(8, box->height() / 2));
    w.settle();
    ++tried;
  }
  CHECK(tried >= 3);
  // What a row says hangs on the bits' feeds, too: half as fast, about twice as long.
  QCheckBox* small = nullptr;
  for (QCheckBox* box : rows->findChildren<QCheckBox*>()) {
    if (box->property("bit") == "flat-1/8in") small = box;
  }
  REQUIRE(small != nullptr);
  const QString fast = said(small);
  w.window.document().edit("slower", [](Job& job) {
    Feeds feeds = load_rack().find("flat-1/8in")->feeds_in(wood_class_of(job.blank));
    feeds.feed /= 2;
    job.run.feeds["flat-1/8in"] = feeds;
  });
  w.settle();
  REQUIRE(QTest::qWaitFor([&] { return !said(small).isEmpty() && !rows->waiting() && said(small) != fast; }, 20'000));
  QSettings().remove(QStringLiteral("folds"));
}

TEST_CASE("the bar at the frame moves, sizes, turns and centres what is chosen, and is in nobody's way") {
  Window w;
  w.choose(Stage::Artwork, "name");
  PlaceBar* place = bar(w);
  REQUIRE(place->isVisible());
  const QList<QLineEdit*> fields = place->findChildren<QLineEdit*>();
  REQUIRE(fields.size() == 5);
  for (const QLineEdit* field : fields)
    CHECK(field->fontMetrics().horizontalAdvance(field->text()) < field->width() - 8);
  type_into(fields[0], "5 in");
  w.settle();
  CHECK(w.box("name").left == Approx(5 * 25.4).margin(0.01));
  type_into(fields[1], "4");
  w.settle();
  CHECK(w.box("name").bottom == Approx(4 * 25.4).margin(0.01));
  type_into(fields[2], "10 in");
  w.settle();
  CHECK(w.box("name").width() == Approx(254).margin(0.05));
  CHECK(w.box("name").left > 0);
  type_into(fields[4], "12");
  w.settle();
  CHECK(w.piece("name").turn == Approx(12));
  auto* centre = place->findChild<QPushButton*>();
  REQUIRE(centre != nullptr);
  centre->menu()->actions()[2]->trigger();
  w.settle();
  CHECK(w.box("name").centre().x == Approx(w.job().blank.width / 2).margin(0.01));
  CHECK(w.box("name").centre().y == Approx(w.job().blank.height / 2).margin(0.01));
  // It lies off the board as long as there is room, and goes while something is dragged.
  w.choose(Stage::Artwork, "name");
  const QRectF board(w.window.bench().to_screen({0, w.job().blank.height}),
                     w.window.bench().to_screen({w.job().blank.width, 0}));
  CHECK_FALSE(QRectF(place->geometry()).intersects(board));
  Bench& bench = w.window.bench();
  const QPointF at = bench.to_screen(w.box("sprig").centre());
  QTest::mousePress(&bench, Qt::LeftButton, {}, at.toPoint());
  QMouseEvent move(QEvent::MouseMove, at + QPointF(15, 5), bench.mapToGlobal(at + QPointF(15, 5)), Qt::NoButton,
                   Qt::LeftButton, {});
  QApplication::sendEvent(&bench, &move);
  CHECK_FALSE(place->isVisible());
  QTest::mouseRelease(&bench, Qt::LeftButton, {}, (at + QPointF(15, 5)).toPoint());
  w.settle();
  CHECK(place->isVisible());
  w.window.go_to_stage(Stage::Cuts);
  QTest::qWait(50);
  CHECK_FALSE(place->isVisible());
}

TEST_CASE("several that are chosen have one frame: moved, sized and turned by it, as one step") {
  Window w;
  w.choose(Stage::Artwork, "name");
  Bench& bench = w.window.bench();
  QTest::mouseClick(&bench, Qt::LeftButton, Qt::ShiftModifier, bench.to_screen(w.box("sprig").centre()).toPoint());
  w.settle();
  REQUIRE(bench.chosen().size() == 2);
  const auto both = [&] {
    Box all = w.box("name");
    all.add(w.box("sprig"));
    return all;
  };
  const Box before = both();
  CHECK(bench.chosen_box().width() == Approx(before.width()).margin(0.01));
  const double share = w.box("sprig").width() / before.width();
  // By the corner handle at the right and front: the other corner stays.
  const QRectF frame = bench.selection_rect();
  const QPointF corner = frame.bottomRight();
  w.drag(corner, corner - QPointF(frame.width() * 0.25, frame.height() * 0.25));
  w.settle();
  const Box smaller = both();
  CHECK(smaller.left == Approx(before.left).margin(0.6));
  CHECK(smaller.top == Approx(before.top).margin(0.6));
  CHECK(smaller.width() / before.width() == Approx(0.75).margin(0.02));
  CHECK(smaller.height() / before.height() == Approx(smaller.width() / before.width()).margin(1e-3));
  CHECK(w.box("sprig").width() / smaller.width() == Approx(share).margin(1e-3));
  w.window.document().undo_stack().undo();
  w.settle();
  CHECK(both().width() == Approx(before.width()).margin(1e-6));
  // By the handle above it: a quarter turn about the middle of both.
  w.choose(Stage::Artwork, "name");
  QTest::mouseClick(&bench, Qt::LeftButton, Qt::ShiftModifier, bench.to_screen(w.box("sprig").centre()).toPoint());
  const QRectF now = bench.selection_rect();
  const QPointF handle(now.center().x(), now.top() - 22);
  const double arm = now.center().y() - handle.y();
  w.drag(handle, now.center() + QPointF(arm, 0.3));
  w.settle();
  CHECK(w.piece("name").turn == Approx(-90).margin(0.01));
  CHECK(w.piece("sprig").turn == Approx(-90).margin(0.01));
  CHECK(both().centre().x == Approx(before.centre().x).margin(0.5));
  CHECK(both().height() == Approx(before.width()).margin(0.5));
  CHECK(both().width() == Approx(before.height()).margin(0.5));
  w.window.document().undo_stack().undo();
  // By figures: both move by as much.
  w.settle();
  const Box name = w.box("name"), sprig = w.box("sprig");
  w.choose(Stage::Artwork, "name");
  QTest::mouseClick(&bench, Qt::LeftButton, Qt::ShiftModifier, bench.to_screen(w.box("sprig").centre()).toPoint());
  QTest::qWait(30);
  type_into(bar(w)->findChildren<QLineEdit*>()[0], "1 in");
  w.settle();
  CHECK(both().left == Approx(25.4).margin(0.01));
  CHECK(w.box("name").left - name.left == Approx(w.box("sprig").left - sprig.left).margin(1e-6));
}

TEST_CASE("what keeps a direction of its own is not turned with others without a word") {
  Window w;
  w.window.document().edit("mirror", [](Job& job) {
    Derived mirrored;
    mirrored.how = Derived::How::Mirror;
    mirrored.from = {"sprig"};
    job.items.push_back({{"twin", "Twin", mirrored, {0, 0}, 0}, {}});
  });
  w.settle();
  w.choose(Stage::Artwork, "name");
  w.window.bench().choose_all();
  const Job before = w.job();
  type_into(bar(w)->findChildren<QLineEdit*>()[4], "30");
  w.settle();
  CHECK(w.job() == before);
  CHECK(w.find<QLabel>("notice")->isVisible());
  CHECK_THAT(w.find<QLabel>("notice")->text().toStdString(), Catch::Contains("keep their direction"));
}

TEST_CASE("the section lies under what the bench shows, as near and as far along") {
  Window w;
  Bench& bench = w.window.bench();
  SectionStrip& strip = w.window.strip();
  const Point deep = w.plan().piece("name")->cuts.deepest_at;
  const SectionLine line{true, deep.y};
  bench.set_section(line);
  strip.set_line(line);
  const auto shown_right = [&] {
    QTest::qWait(400);
    w.settle();
    const SectionStrip::Span span = strip.span();
    CHECK(span.left == Approx(bench.to_screen({span.from, 0}).x()).margin(0.01));
    CHECK(span.right == Approx(bench.to_screen({span.to, 0}).x()).margin(0.01));
    // Under the deepest place of the board the section is as deep.
    const std::vector<float>& heights = strip.heights();
    const double cell = (span.to - span.from) / static_cast<double>(heights.size());
    const auto at = static_cast<std::size_t>((deep.x - span.from) / cell);
    REQUIRE(at > 2);
    REQUIRE(at + 2 < heights.size());
    double lowest = 0;
    for (std::size_t i = at - 2; i <= at + 2; ++i) lowest = std::min(lowest, static_cast<double>(heights[i]));
    CHECK(lowest == Approx(-w.plan().piece("name")->cuts.deepest).margin(0.35));
    return span;
  };
  const SectionStrip::Span whole = shown_right();
  CHECK(whole.from == 0);
  CHECK(whole.to == Approx(w.job().blank.width));
  bench.come_closer(deep, 5);
  const SectionStrip::Span near = shown_right();
  CHECK(near.to - near.from < w.job().blank.width / 4);
  CHECK(near.scale() == Approx(whole.scale() * 5).epsilon(0.01));
  // Panned with the middle button.
  const QPointF from(400, 300), to(330, 300);
  QTest::mousePress(&bench, Qt::MiddleButton, {}, from.toPoint());
  QMouseEvent move(QEvent::MouseMove, to, bench.mapToGlobal(to), Qt::NoButton, Qt::MiddleButton, {});
  QApplication::sendEvent(&bench, &move);
  QTest::mouseRelease(&bench, Qt::MiddleButton, {}, to.toPoint());
  const SectionStrip::Span panned = shown_right();
  CHECK(panned.from - near.from == Approx(70 / near.scale()).epsilon(0.01));
  // Across the board it shows the part of the board's height that is seen.
  QTest::mouseClick(&strip, Qt::LeftButton, {}, QPoint(strip.width() - 60, 16));
  QTest::qWait(300);
  CHECK(strip.span().from >= 0);
  CHECK(strip.span().to <= w.job().blank.height + 1e-9);
  CHECK(strip.span().to - strip.span().from < w.job().blank.height);
}

TEST_CASE("figures and verdicts of an earlier state fade until the new one is worked out") {
  Window w;
  w.choose(Stage::Cuts, "name");
  w.judge();
  const auto faded = [&] {
    int count = 0;
    for (const NumberCard* card : w.window.findChildren<NumberCard*>()) {
      if (card->isVisible() && card->graphicsEffect() != nullptr) ++count;
    }
    return count;
  };
  auto* list = [&]() -> VerdictList* {
    for (VerdictList* each : w.window.findChildren<VerdictList*>()) {
      if (each->isVisible()) return each;
    }
    return nullptr;
  }();
  REQUIRE(list != nullptr);
  CHECK(faded() == 0);
  CHECK(list->graphicsEffect() == nullptr);
  auto* rail = w.window.findChild<StageRail*>();
  REQUIRE(rail != nullptr);
  CHECK_FALSE(rail->pending(Stage::Proof));
  w.window.document().edit("deeper", [](Job& job) { job.find("name")->cut.incise.floor_limit = 4.0; });
  CHECK(faded() > 0);
  CHECK(list->graphicsEffect() != nullptr);
  CHECK(rail->pending(Stage::Run));
  // The plan is there before the judge has spoken: its figures hold, what is said of the files does not yet.
  bool between = false;
  QObject::connect(&w.window, &MainWindow::settled, &w.window, [&] {
    between =
        faded() == 0 && list->graphicsEffect() != nullptr && rail->pending(Stage::Proof) && !rail->pending(Stage::Run);
  });
  w.judge();
  CHECK(between);
  CHECK(faded() == 0);
  CHECK(list->graphicsEffect() == nullptr);
  CHECK_FALSE(rail->pending(Stage::Proof));
}

TEST_CASE("what is pasted is chosen, all of it") {
  Window w;
  w.choose(Stage::Artwork, "name");
  Bench& bench = w.window.bench();
  QTest::mouseClick(&bench, Qt::LeftButton, Qt::ShiftModifier, bench.to_screen(w.box("sprig").centre()).toPoint());
  REQUIRE(bench.chosen().size() == 2);
  QTest::keyClick(&w.window, Qt::Key_D, Qt::ControlModifier);
  w.settle();
  const QStringList now = bench.chosen();
  CHECK(now.size() == 2);
  CHECK_FALSE(now.contains("name"));
  CHECK_FALSE(now.contains("sprig"));
}

TEST_CASE("the rows of a box of bits say what each would do here, and taking one does it") {
  Window w;
  w.choose(Stage::Cuts, "name");
  w.empty("limit");
  auto* box = w.find<BitBox>("vBit");
  box->showPopup();
  REQUIRE(QTest::qWaitFor([&] { return !box->waiting(); }, 60'000));
  int tried = 0;
  for (int row = 0; row < box->count(); ++row) {
    const QString promise = box->says(row);
    INFO(box->itemText(row).toStdString() << ": " << promise.toStdString());
    REQUIRE_FALSE(promise.isEmpty());
    if (promise.contains("cannot")) continue;
    box->hidePopup();
    w.pick("vBit", row);
    const PiecePlan& piece = *w.plan().piece("name");
    CHECK(w.job().find("name")->cut.bit == box->itemData(row).toString().toStdString());
    CHECK(promise.startsWith(QString::fromStdString(depth_in_words(piece.cuts.deepest, w.job().lengths))));
    CHECK(box->says(row) == promise);  // whichever is chosen, they stay what they are
    ++tried;
  }
  CHECK(tried >= 2);
  // Deeper by an edit: what was said of the former piece is not said any more.
  w.window.document().edit(QStringLiteral("larger"), [](Job& job) {
    if (auto* words = std::get_if<Lettering>(&job.find("name")->piece.what)) words->cap_height *= 1.1;
  });
  w.settle();
  CHECK(box->says(0).isEmpty());
}

TEST_CASE("how long the machine really ran is kept, and what is likely is told by it from then on") {
  QFile::remove(QString::fromStdString(log_path()));
  Window w;
  w.choose(Stage::Run, "");
  auto* took = w.reach<QDoubleSpinBox>("took");
  const auto says = [&] { return w.find<QLabel>("afterRunSays")->text().toStdString(); };
  CHECK_THAT(says(), Catch::Contains("never timed"));
  auto* keep = w.find<QPushButton>("keepRun");
  CHECK_FALSE(keep->isEnabled());
  double told = 0;
  for (const BitRun& run : w.plan().runs) told += run.time.seconds;
  const auto type = [&](double minutes) {
    took->setFocus();
    took->selectAll();
    QTest::keyClicks(took, QString::number(minutes, 'f', 1));
    QTest::keyClick(took, Qt::Key_Tab);
  };
  // Seconds typed for minutes: asked, and not kept.
  type(told);
  CHECK_FALSE(keep->isEnabled());
  CHECK_THAT(says(), Catch::Contains("is it minutes"));
  type(1.2 * told / 60);
  REQUIRE(keep->isEnabled());
  QTest::mouseClick(keep, Qt::LeftButton);
  CHECK_THAT(says(), Catch::Contains("timed once") && Catch::Contains("1.2"));
  CHECK(*known_timings().factor(w.job().run.machine) == Approx(1.2).epsilon(0.02));
  w.choose(Stage::Proof, "");
  bool told_there = false;
  for (const QLabel* label : w.ticket()->findChildren<QLabel*>())
    told_there = told_there || label->text().contains("as it was timed");
  CHECK(told_there);
  // A file of an earlier Doyen that cannot be read is said, and stays; so does a log.
  w.choose(Stage::Run, "");
  write_file_atomically(timings_path(), "{");
  type(told / 60);
  CHECK_THAT(says(), Catch::Contains("machine-times.json"));
  CHECK(read_file(timings_path()) == "{");
  QFile::remove(QString::fromStdString(timings_path()));
  write_file_atomically(log_path(), "{");
  type(told / 60 + 1);
  QTest::mouseClick(keep, Qt::LeftButton);
  CHECK_THAT(says(), Catch::Contains("log.sqlite"));
  CHECK(read_file(log_path()) == "{");
  CHECK(took->value() > 0);
  QFile::remove(QString::fromStdString(log_path()));
}
