// Work that the window waits for: it goes on painting, takes no other hand meanwhile, says how far it is, can be
// stopped; what was stopped or went wrong leaves everything as it was.
#include <QDir>
#include <QFile>
#include <QMessageBox>
#include <QProgressBar>
#include <QTemporaryDir>
#include <QThread>
#include <QTimer>

#include "problem.hpp"
#include "window_probe.hpp"
#include "work/long_work.hpp"

using namespace probe;

namespace {

// Clipping paths that cross themselves in thousands of places, cut into each other: minutes of work.
QString slow_drawing(const QString& folder) {
  std::string outline, body;
  for (int i = 0; i < 300; ++i)
    outline += std::to_string((i * 7919) % 100) + "," + std::to_string((i * 104729 + i * i) % 100) + " ";
  body = "<clipPath id='c'><path d='M" + outline + "z'/></clipPath>";
  for (int i = 0; i < 20'000; ++i)
    body += "<g clip-path='url(#c)'><g clip-path='url(#c)'><rect width='90' height='90'/></g></g>";
  const QString path = folder + "/slow.svg";
  QFile file(path);
  REQUIRE(file.open(QIODevice::WriteOnly));
  file.write(
      ("<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'>" + body + "</svg>")
          .c_str());
  return path;
}

// Acts each time that the sheet is looked for and is there, until `act` is content.
void with_sheet(const std::function<bool(QDialog*)>& act) {
  auto* timer = new QTimer;
  timer->setInterval(20);
  QObject::connect(timer, &QTimer::timeout, timer, [timer, act] {
    auto* sheet = qobject_cast<QDialog*>(QApplication::activeModalWidget());
    if (sheet == nullptr || sheet->objectName() != QLatin1String("longWork") || !act(sheet)) return;
    timer->stop();
    timer->deleteLater();
  });
  timer->start();
}

}  // namespace

TEST_CASE("a drawing that takes long shows how far it is, takes no other hand, and can be stopped") {
  Window w;
  const QTemporaryDir folder;
  const Job before = w.job();
  w.choose(Stage::Artwork, "name");
  int seen = 0, value = -1;
  with_sheet([&](QDialog* sheet) {
    auto* bar = sheet->findChild<QProgressBar*>();
    if (++seen == 1) {
      // Keys and the mouse reach nothing behind it, and the window does not close.
      QTest::keyClick(&w.window.bench(), Qt::Key_Delete);
      QTest::keyClick(&w.window.bench(), Qt::Key_Z, Qt::ControlModifier);
      w.drag({300, 200}, {340, 220});
      w.window.close();
      CHECK(w.window.isVisible());
      CHECK(w.job() == before);
      CHECK(sheet->findChild<QLabel*>()->text().contains("slow.svg"));
      return false;
    }
    if (bar->maximum() == 0 || bar->value() < 1) return false;  // until it says how far
    value = bar->value();
    QTest::keyClick(sheet, Qt::Key_Escape);
    return true;
  });
  w.window.trace_file(slow_drawing(folder.path()));
  CHECK(seen > 1);
  CHECK(value >= 1);
  CHECK(value < 100);
  CHECK(w.job() == before);
  w.settle();
  // Afterwards everything takes hands again.
  w.window.bench().setFocus();
  QTest::keyClick(&w.window.bench(), Qt::Key_Right);
  CHECK_FALSE(w.job() == before);
}

TEST_CASE("writing can be stopped, and then nothing stands in the folder") {
  Window w;
  const QTemporaryDir folder;
  bool stopped = false;
  // At the first chance: writing the demo takes longer than the sheet waits, or is done before.
  with_sheet([&](QDialog* sheet) {
    QTest::mouseClick(sheet->findChild<QPushButton*>("stopWork"), Qt::LeftButton);
    return stopped = true;
  });
  const QString said = w.window.write_files(folder.path());
  const QStringList there = QDir(folder.path()).entryList(QDir::Files);
  INFO(said.toStdString());
  CHECK(there.isEmpty() == said.contains("you stopped it"));
  if (!stopped) CHECK(there.contains("plan.json"));
  // And the next time all of it.
  const QString again = w.window.write_files(folder.path());
  CHECK(QDir(folder.path()).entryList(QDir::Files).contains("plan.json"));
  CHECK(again.contains("Written into"));
}

TEST_CASE("a question that comes up meanwhile can be answered") {
  Window w;
  bool answered = false;
  QTimer::singleShot(100, &w.window, [&] {
    QMessageBox box(QMessageBox::NoIcon, "A question", "Well?", QMessageBox::Yes | QMessageBox::No, &w.window);
    QTimer::singleShot(50, &box, [&] { QTest::mouseClick(box.button(QMessageBox::Yes), Qt::LeftButton); });
    answered = box.exec() == QMessageBox::Yes;
  });
  work_off_thread(&w.window, "x", [](const Cancel&, const Told&) { QThread::msleep(300); });
  CHECK(answered);
}

TEST_CASE("what goes wrong away from the window's thread is said as ever") {
  Window w;
  CHECK_THROWS_WITH(
      work_off_thread(&w.window, "x", [](const Cancel&, const Told&) { throw std::runtime_error("why"); }), "why");
  CHECK_THROWS_AS(work_off_thread(&w.window, "x", [](const Cancel&, const Told&) { throw bad_input("why"); }), Problem);
  const QTemporaryDir folder;
  QFile file(folder.path() + "/bad.svg");
  REQUIRE(file.open(QIODevice::WriteOnly));
  file.write("<svg");
  file.close();
  QString said;
  on_next_dialog([&](QDialog* dialog) {
    for (const QLabel* label : dialog->findChildren<QLabel*>()) said += label->text();
  });
  w.window.trace_file(file.fileName());
  CHECK(said.contains("bad.svg, line 1"));
  CHECK(QApplication::overrideCursor() == nullptr);
}
