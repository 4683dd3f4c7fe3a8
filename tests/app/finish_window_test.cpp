// The Finish ticket: how it is coated and when, how it hangs, what it costs, with real keys; what was said is kept.
#include <QCheckBox>
#include <QFile>
#include <fstream>

#include "finish/price.hpp"
#include "finish/products.hpp"
#include "stages/finish/finish_ticket.hpp"
#include "storage/data_folder.hpp"
#include "window_probe.hpp"

using namespace probe;

namespace {

void type(QLineEdit* field, const QString& words) {
  field->setFocus();
  field->selectAll();
  QTest::keyClick(field, Qt::Key_Delete);
  QTest::keyClicks(field, words);
  QTest::keyClick(field, Qt::Key_Return);
}

void choose_row(QComboBox* box, int row) {
  box->setCurrentIndex(row);
  Q_EMIT box->activated(row);
}

struct Finishing : Window {
  FinishTicket* ticket;
  Finishing() {
    window.go_to_stage(Stage::Finish);
    ticket = window.findChild<FinishTicket*>();
    ready();
  }
  void ready() {
    settle();
    REQUIRE(QTest::qWaitFor([this] { return ticket->ready(); }, 30'000));
  }
  QString says(const char* label) { return find<QLabel>(label)->text(); }
};

}  // namespace

TEST_CASE("the school decides the steps, colours go to pieces, and each step can be undone") {
  Finishing w;
  const Job before = w.job();
  CHECK(w.says("finishSteps").contains(QStringLiteral("Sand the face back")));
  choose_row(w.reach<QComboBox>("finishSchool"), 1);
  w.ready();
  CHECK(w.job().finish.school == FinishSchool::MaskPaint);
  CHECK(w.says("finishSteps").contains(QStringLiteral("Peel the film")));
  CHECK(w.find<QLabel>("finishSays")->isVisible());  // its film is not said under Blank
  type(w.reach<QLineEdit>("paintColour"), QStringLiteral("dark red"));
  w.window.select(QStringLiteral("sprig"));
  w.ready();
  type(w.reach<QLineEdit>("ownColour"), QStringLiteral("green"));
  w.ready();
  CHECK(w.job().finish.colours.at("sprig") == "green");
  CHECK(w.says("finishNeeds").contains(QStringLiteral("Paint, green")));
  CHECK(w.says("finishNeeds").contains(QStringLiteral("Paint, dark red")));
  auto* own = w.reach<QLineEdit>("ownColour");
  own->selectAll();
  QTest::keyClick(own, Qt::Key_Delete);
  QTest::keyClick(own, Qt::Key_Return);
  CHECK(w.job().finish.colours.empty());
  QTest::keyClick(w.reach<QCheckBox>("outdoors"), Qt::Key_Space);
  CHECK_FALSE(w.job().finish.outdoors);
  while (w.window.document().undo_stack().canUndo()) w.window.document().undo_stack().undo();
  CHECK(w.job() == before);
}

TEST_CASE("the days are counted from when it is begun, or back from when it must be ready") {
  Finishing w;
  choose_row(w.reach<QComboBox>("finishBegins"), 1);
  type(w.reach<QLineEdit>("finishTime"), QStringLiteral("2026-11-30 14:30"));
  CHECK(w.says("finishSteps").contains(QStringLiteral("2026-11-30 14:30")));
  CHECK(w.ticket->text().contains(QStringLiteral("2026-11-30 14:30  Sand")));
  choose_row(w.reach<QComboBox>("finishBegins"), 2);
  type(w.reach<QLineEdit>("finishTime"), QStringLiteral("2026-12-24 12:00"));
  const QString ready = w.says("finishReady");
  CHECK(ready.contains(QStringLiteral("2026-12-2")));
  CHECK(w.ticket->calendar().contains(QStringLiteral("BEGIN:VEVENT")));
  auto* time = w.reach<QLineEdit>("finishTime");
  type(time, QStringLiteral("soon"));
  CHECK(time->text() == QStringLiteral("soon"));  // it waits there, and says what was expected
  CHECK(time->toolTip().contains(QStringLiteral("2026-11-28")));
  CHECK(w.says("finishReady") == ready);
}

TEST_CASE("the shop's hours and days are the user's: typed once, kept for every job, and what is none is refused") {
  {
    Finishing w;
    const Job before = w.job();
    choose_row(w.reach<QComboBox>("finishBegins"), 1);
    type(w.reach<QLineEdit>("finishTime"), QStringLiteral("2026-11-27 20:00"));  // a Friday evening
    CHECK(w.says("finishSteps").contains(QStringLiteral("2026-11-28 08:00")));
    type(w.reach<QLineEdit>("shopHours"), QStringLiteral("7:30-16"));
    CHECK(w.says("finishSteps").contains(QStringLiteral("2026-11-28 07:30")));
    choose_row(w.reach<QComboBox>("shopDays"), 2);
    CHECK(w.says("finishSteps").contains(QStringLiteral("2026-11-30 07:30")));
    CHECK_FALSE(w.says("finishSteps").contains(QStringLiteral("2026-11-28")));
    type(w.reach<QLineEdit>("shopClosed"), QStringLiteral("2026-11-30 - 2026-12-02"));
    CHECK(w.says("finishSteps").contains(QStringLiteral("2026-12-03 07:30")));
    type(w.reach<QLineEdit>("shopClosed"), QStringLiteral("next week"));
    CHECK(w.says("finishSteps").contains(QStringLiteral("2026-12-03 07:30")));
    CHECK_FALSE(load_shop_day().closed.empty());
    QTest::keyClick(w.reach<QLineEdit>("shopClosed"), Qt::Key_Escape);
    type(w.reach<QLineEdit>("shopClosed"), QString());
    auto* hours = w.reach<QLineEdit>("shopHours");
    type(hours, QStringLiteral("16-7"));
    CHECK(w.says("finishSteps").contains(QStringLiteral("2026-11-30 07:30")));
    CHECK(w.job() == before);  // it is not the job's
  }
  Finishing again;
  CHECK(again.reach<QLineEdit>("shopHours")->text() == QStringLiteral("7:30-16:00"));
  CHECK(again.reach<QComboBox>("shopDays")->currentIndex() == 2);
  keep_shop_day(ShopDay{});
}

TEST_CASE("what a product does is the user's: typed once, kept for every job, and Doyen's again by one click") {
  const auto kind = [](Finishing& w, const char* id) {
    auto* box = w.reach<QComboBox>("productKind");
    choose_row(box, box->findData(QLatin1String(id)));
  };
  const Product paint = shipped_product("paint");
  QFile::remove(QString::fromStdString(user_file("finishes.json")));
  {
    Finishing w;
    const Job before = w.job();
    kind(w, "paint");
    CHECK_FALSE(w.reach<QPushButton>("productAgain")->isEnabled());
    const QString steps = w.says("finishSteps");
    type(w.reach<QLineEdit>("productCoats"), QStringLiteral("5"));
    CHECK(load_products().of("paint").coats == 5);
    CHECK(w.reach<QComboBox>("productKind")->currentData().toString() == QStringLiteral("paint"));
    WAIT_UNTIL(w.says("finishSteps") != steps, 20'000);
    CHECK_THAT(w.says("finishSteps").toStdString(), Catch::Contains("5"));
    // By hand: 346.34 square feet a US gallon are 8.5 m² a litre.
    CHECK_FALSE(w.find<QLineEdit>("productCovers")->isVisible());  // the demo is in inches
    type(w.reach<QLineEdit>("productCoversGallon"), QStringLiteral("346,34"));
    CHECK(load_products().of("paint").metres_per_litre == Approx(8.5).epsilon(1e-4));
    w.window.document().edit(QStringLiteral("mm"), [](Job& job) { job.lengths.unit = Unit::Millimetre; });
    w.ready();
    CHECK_FALSE(w.find<QLineEdit>("productCoversGallon")->isVisible());
    type(w.reach<QLineEdit>("productCovers"), QStringLiteral("9,5"));
    CHECK(load_products().of("paint").metres_per_litre == Approx(9.5));
    w.window.document().undo_stack().undo();
    w.ready();
    type(w.reach<QLineEdit>("productRecoat"), QStringLiteral("soon"));
    CHECK(load_products().of("paint").recoat_hours == paint.recoat_hours);
    CHECK(w.job() == before);  // it is the shop's, not the job's
    // Resin is poured, and has no coats.
    kind(w, "resin");
    CHECK_FALSE(w.find<QLineEdit>("productCoats")->isVisible());
    CHECK(w.find<QLineEdit>("productPour")->isVisible());
  }
  Finishing again;
  kind(again, "paint");
  CHECK(again.reach<QLineEdit>("productCoats")->text() == QStringLiteral("5"));
  QTest::mouseClick(again.reach<QPushButton>("productAgain"), Qt::LeftButton);
  CHECK(load_products().of("paint").coats == paint.coats);
  CHECK(load_products().of("paint").metres_per_litre == Approx(paint.metres_per_litre));
  QFile::remove(QString::fromStdString(user_file("finishes.json")));
}

TEST_CASE("it hangs level or can be made to, and costs what the user's rates say") {
  Finishing w;
  CHECK(w.says("hangs").contains(QStringLiteral("So it hangs level.")));
  CHECK(w.says("priceSays").contains(QStringLiteral("Say your rates")));
  const Job before = w.job();
  type(w.reach<QLineEdit>("rateHand"), QStringLiteral("40"));
  type(w.reach<QLineEdit>("rateMachine"), QStringLiteral("30,5"));
  w.ready();
  CHECK(load_rates().hand == Approx(40));
  CHECK(load_rates().machine == Approx(30.5));
  CHECK(w.says("priceSays").contains(QStringLiteral("It costs")));
  CHECK(w.job() == before);  // rates are the shop's, not the job's
  type(w.reach<QLineEdit>("copies"), QStringLiteral("3"));
  w.ready();
  CHECK(w.job().finish.copies == 3);
  CHECK(w.says("priceSays").contains(QStringLiteral("Each: ")));
  type(w.reach<QLineEdit>("rateTax"), QStringLiteral("400"));
  CHECK(load_rates().tax == Approx(0));
  keep_rates(Rates{});
  // A fingerpost's slots, moved off: askew, and level again by the button.
  w.window.open_demo(QStringLiteral("fingerpost"));
  w.ready();
  w.window.document().edit(QStringLiteral("raise one"), [](Job& job) { job.shift("slot-left", {0, 12}); });
  w.ready();
  CHECK(w.says("hangs").contains(QStringLiteral("askew")));
  QTest::mouseClick(w.reach<QPushButton>("levelSlots"), Qt::LeftButton);
  w.ready();
  CHECK(w.says("hangs").contains(QStringLiteral("So it hangs level.")));
}

TEST_CASE("a step behind the edge is made by one click, undone by one, and asked for once") {
  Finishing w;
  const Job before = w.job();
  auto* floats = w.reach<QPushButton>("floatStep");
  REQUIRE(floats->isEnabled());
  CHECK_THAT(w.says("floatSays").toStdString(), Catch::Contains("wide") && Catch::Contains("deep"));
  QTest::mouseClick(floats, Qt::LeftButton);
  w.ready();
  CHECK(w.job().items.size() == before.items.size() + 1);
  CHECK(w.plan().has_back());
  CHECK_FALSE(w.plan().has_stop());
  CHECK_FALSE(floats->isEnabled());
  CHECK_THAT(w.says("floatSays").toStdString(), Catch::Contains("already"));
  CHECK_THAT(w.says("hangs").toStdString(), Catch::Contains("Hanger 1"));
  w.window.document().undo_stack().undo();
  w.ready();
  CHECK(w.job() == before);
  CHECK(floats->isEnabled());
}

TEST_CASE("the figures of the finish open the page that says how they come about") {
  Finishing w;
  for (const auto& [name, page] : {std::pair{"whyFinish", "why-finish.md"}, std::pair{"whyPrice", "why-price.md"}}) {
    CHECK_THAT(w.find<QLabel>(name)->text().toStdString(), Catch::Contains(page));
    std::ifstream there(data_file(std::string("guide/") + page));
    CHECK(there.good());
  }
}
