// doyen [JOB] | doyen --demo | doyen --shot STAGE FILE.png | doyen --demo-out FOLDER
#include <QApplication>
#include <QCommandLineParser>
#include <QMessageBox>
#include <QSettings>
#include <QTimer>
#include <cstdio>

#include "artwork/lettering/faces.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"
#include "shell/application.hpp"
#include "shell/display_dialog.hpp"
#include "shell/main_window.hpp"
#include "shell/shots.hpp"
#include "stock/strength.hpp"
#include "version.hpp"
#include "work/language.hpp"

namespace {

// Without a display, pictures and the demo's files can still be made; a window cannot be shown, and that is said.
bool prepare_platform(int argc, char** argv) {
  const bool anywhere = !qEnvironmentVariableIsEmpty("DISPLAY") || !qEnvironmentVariableIsEmpty("WAYLAND_DISPLAY") ||
                        !qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM");
  if (anywhere) return true;
  for (int i = 1; i < argc; ++i) {
    const QByteArray word(argv[i]);
    if (word.startsWith("--shot") || word.startsWith("--demo-out") || word == "--views" || word == "--help" ||
        word == "-h" || word == "--version" || word == "-v") {
      qputenv("QT_QPA_PLATFORM", "offscreen");
      return true;
    }
  }
  std::fprintf(stderr,
               "There is no display here. Doyen can still take pictures (--shot STAGE FILE.png) and write the demo's "
               "files (--demo-out FOLDER); doyen-cli plans without a window.\n");
  return false;
}

// Where they stood before they had a folder of their own.
void take_over_old_settings() {
  QSettings settings;
  if (!settings.allKeys().isEmpty()) return;
  const QSettings old(QStringLiteral("Unknown Organization"), QStringLiteral("doyen"));
  for (const QString& key : old.allKeys()) settings.setValue(key, old.value(key));
}

void speak(const QString& language) {
  try {
    doyen::speak_language(language);
  } catch (const doyen::Problem& trouble) {
    std::fprintf(stderr, "%s\n", trouble.what());  // it goes on in English
  }
}

}  // namespace

int main(int argc, char** argv) {
  if (!prepare_platform(argc, argv)) return 2;
  QApplication::setOrganizationName(QStringLiteral("doyen"));
  QApplication::setApplicationName(QStringLiteral("doyen"));
  doyen::take_chosen_size();
  doyen::Application app(argc, argv);
  QApplication::setApplicationDisplayName(QStringLiteral("Doyen"));
  QApplication::setApplicationVersion(QString::fromUtf8(doyen::version()));
  QApplication::setDesktopFileName(QStringLiteral("org.doyen.Doyen"));
  QApplication::setWindowIcon(QIcon(QStringLiteral(":/doyen.svg")));
  std::setlocale(LC_NUMERIC, "C");
  doyen::theme::apply(app);

  QCommandLineParser parser;
  parser.setApplicationDescription(
      QStringLiteral("Plan carved signs: see the board as it will be, then take the files to the machine."));
  parser.addHelpOption();
  parser.addVersionOption();
  const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("Open the demo job at once."));
  const QCommandLineOption shot(QStringLiteral("shot"),
                                QStringLiteral("Take a picture of a view of the demo: --shot STAGE FILE.png"),
                                QStringLiteral("STAGE"));
  const QCommandLineOption demo_out(
      QStringLiteral("demo-out"),
      QStringLiteral("Plan the demo in the window, write its files and pictures into FOLDER, and end."),
      QStringLiteral("FOLDER"));
  const QCommandLineOption views(QStringLiteral("views"), QStringLiteral("List the views that --shot knows."));
  const QCommandLineOption size(
      QStringLiteral("size"), QStringLiteral("Of the window for --shot, such as 1280x1600: a long ticket shows whole."),
      QStringLiteral("SIZE"));
  const QCommandLineOption language(QStringLiteral("language"),
                                    QStringLiteral("Speak this language, such as de, whatever was chosen."),
                                    QStringLiteral("CODE"));
  parser.addOptions({demo, shot, demo_out, views, size, language});
  parser.addPositionalArgument(QStringLiteral("JOB"), QStringLiteral("A job to open."));
  parser.process(app);
  const QStringList rest = parser.positionalArguments();
  speak(parser.isSet(language) ? parser.value(language) : doyen::chosen_language());
  if (parser.isSet(views)) {
    std::printf("%s\n", qPrintable(doyen::shot_names().join(QLatin1Char('\n'))));
    return 0;
  }

  // Without its tables of facts nothing can be planned: that is said, and where they should be.
  try {
    (void)doyen::machine_table();
    (void)doyen::species_table();
    (void)doyen::strength_table();
    (void)doyen::load_shipped_rack();
    (void)doyen::installed_faces();
  } catch (const doyen::Problem& trouble) {
    std::fprintf(stderr, "%s\n", trouble.what());
    if (QGuiApplication::platformName() != QStringLiteral("offscreen"))
      QMessageBox::critical(nullptr, QStringLiteral("Doyen"),
                            QObject::tr("Doyen cannot start: %1").arg(QString::fromUtf8(trouble.what())));
    return 3;
  }
  take_over_old_settings();
  doyen::MainWindow window;
  QString problem;
  if (parser.isSet(shot) || parser.isSet(demo_out)) {
    window.open_demo();
    const QStringList wanted = parser.value(size).split(QLatin1Char('x'));
    if (wanted.size() == 2) window.resize(wanted[0].toInt(), wanted[1].toInt());
    window.show();
    if (!doyen::wait_until_settled(window)) {
      std::fprintf(stderr, "The demo could not be planned in time.\n");
      return 3;
    }
    if (parser.isSet(shot)) {
      if (rest.size() != 1) {
        std::fprintf(stderr, "--shot needs a view and a file: doyen --shot cuts cuts.png\n");
        return 2;
      }
      if (doyen::take_shot(window, parser.value(shot), rest.first(), &problem)) return 0;
      std::fprintf(stderr, "%s\n", qPrintable(problem));
      return 3;
    }
    const QString folder = parser.value(demo_out);
    std::printf("%s\n", qPrintable(window.write_files(folder)));
    for (const QString& name : doyen::shot_names()) {
      const QString file = folder + QStringLiteral("/view-") + name + QStringLiteral(".png");
      if (!doyen::take_shot(window, name, file, &problem)) {
        std::fprintf(stderr, "%s\n", qPrintable(problem));
        return 3;
      }
      std::printf("picture %s\n", qPrintable(file));
    }
    return 0;
  }
  window.document().replace(doyen::Job{}, {});  // what stands there when nothing else can be opened
  if (!rest.isEmpty())
    window.open(rest.first());
  else if (parser.isSet(demo))
    window.open_demo();
  window.come_back();
  window.show();
  QTimer::singleShot(0, &window, [&] {
    window.offer_recovery();
    if (rest.isEmpty() && !parser.isSet(demo) && !window.document().unsaved()) window.greet();
  });
  return QApplication::exec();
}
