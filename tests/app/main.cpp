// Runs the window's tests in one QApplication, with data folders of their own so that nobody's jobs are touched.
#define CATCH_CONFIG_RUNNER
#include <QApplication>
#include <QDialog>
#include <QElapsedTimer>
#include <QLabel>
#include <QPointer>
#include <QTemporaryDir>
#include <QTimer>
#include <catch2/catch.hpp>
#include <cstdio>

#include "parts/theme.hpp"
#include "shell/application.hpp"
#include "shell/main_window.hpp"
#include "work/job_document.hpp"
#include "work/planner.hpp"

namespace {

// A Doyen that edits a job and then waits to be killed: recovery is tested on its remains.
int edit_and_wait() {
  doyen::MainWindow window;
  window.open_demo();
  window.document().edit(QStringLiteral("name the job"), [](doyen::Job& job) { job.name = "Killed before saving"; });
  QTimer::singleShot(3500, [] {
    std::puts("edited");
    std::fflush(stdout);
  });
  return QApplication::exec();
}

// A dialog that no test answers would wait for ever: it is named, counted as a failure and closed.
class NobodyAnswers : public QTimer {
 public:
  NobodyAnswers() {
    setInterval(500);
    connect(this, &QTimer::timeout, this, &NobodyAnswers::look);
    start();
  }

 private:
  void look() {
    auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
    if (dialog == nullptr || dialog != open_ || dialog->objectName() == QLatin1String("longWork")) {
      open_ = dialog;
      since_.start();
      return;
    }
    if (since_.elapsed() < kPatience) return;
    QStringList says{dialog->metaObject()->className(), dialog->objectName(), dialog->windowTitle()};
    for (const QLabel* label : dialog->findChildren<QLabel*>()) says += label->text();
    FAIL_CHECK("nobody answers the dialog: " << says.join(" | ").toStdString());
    dialog->reject();
  }

  static constexpr int kPatience = 30'000;  // ms; no test leaves one open for longer, on the slowest machine
  QPointer<QDialog> open_;
  QElapsedTimer since_;
};

}  // namespace

int main(int argc, char** argv) {
  const bool child = argc > 1 && std::string(argv[1]) == "--edit-and-wait";
  QTemporaryDir home;
  if (!child) {
    for (const char* key : {"XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME"})
      qputenv(key, home.path().toUtf8() + "/" + key);
  }
  if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  doyen::Application app(argc, argv);
  QApplication::setApplicationName(QStringLiteral("doyen-test"));
  std::setlocale(LC_NUMERIC, "C");
  doyen::theme::apply(app);
  if (child) return edit_and_wait();
  doyen::ReliefPainter::stay_coarse(true);  // a third of the time of all; what looks at pictures asks for fine ones
  const NobodyAnswers watch;
  return Catch::Session().run(argc, argv);
}
